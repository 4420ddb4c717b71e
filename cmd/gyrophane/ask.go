package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/wire"
)

// question is what the commands that only compute have in common: how to look
// at the colours, and how to print the answer.
type question struct {
	medium, light, judged string
	json                  bool
}

func (q *question) flags(c *cobra.Command) {
	c.Flags().StringVar(&q.medium, "medium", "acrylic", "watercolour, gouache, tempera, acrylic or oil")
	c.Flags().StringVar(&q.light, "light", "D65", "D65 (daylight), D50 (gallery) or A (warm lamp)")
	c.Flags().StringVar(&q.judged, "judged", "dry", "as painted: wet or dry")
	c.Flags().BoolVar(&q.json, "json", false, "print JSON, with the field names of the HTTP API")
}

func (q *question) view() (wire.View, error) {
	return wire.ParseView(q.medium, q.light, q.judged)
}

// answer prints a value as JSON, or as a table.
func (q *question) answer(c *cobra.Command, value any, table func(io.Writer)) error {
	if q.json {
		enc := json.NewEncoder(c.OutOrStdout())
		enc.SetEscapeHTML(false)
		enc.SetIndent("", "  ")
		return enc.Encode(value)
	}
	w := tabwriter.NewWriter(c.OutOrStdout(), 0, 0, 2, ' ', 0)
	table(w)
	return w.Flush()
}

// mostML is the largest pile that is counted out.
const mostML = 1000.0

func scaleOf(measure string, one float64) (recipe.Scale, error) {
	m, err := recipe.ParseMeasure(measure)
	if err != nil {
		return recipe.Scale{}, err
	}
	return recipe.NewScale(m, one)
}

func mixCommand() *cobra.Command {
	var q question
	var measure string
	var ml, one float64
	c := &cobra.Command{
		Use:     "mix PAINT=PARTS...",
		Short:   "What these parts make",
		Example: "gyrophane mix PB29=1 PR122=2 PW6=3 --medium acrylic --light D65",
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			pile, err := pileOf(args)
			if err != nil {
				return err
			}
			m := v.Mix(pile)
			if measure == "" {
				return q.answer(cmd, m, func(w io.Writer) { mixTable(w, m) })
			}
			scale, err := scaleOf(measure, one)
			if err != nil {
				return err
			}
			if ml == 0 {
				ml = bench.Usual(v.Medium).Slot()
			}
			if !(ml > 0 && ml <= mostML) {
				return fmt.Errorf("a pile of %v ml is not to be counted out: give --ml above 0 and up to %v", ml, mostML)
			}
			r := recipe.Of(pile.Parts)
			counted := v.Counted(recipe.CountOut(r, &pile.Mixture, scale, ml), r, &pile.Mixture)
			return q.answer(cmd, struct {
				wire.Mix
				Counted wire.Counted `json:"counted"`
			}{m, counted}, func(w io.Writer) {
				mixTable(w, m)
				countedTable(w, counted)
			})
		},
	}
	q.flags(c)
	c.Flags().StringVar(&measure, "measure", "", "count it out in dabs, drops, loads, tips, grams or looks")
	c.Flags().Float64Var(&ml, "ml", 0, "how much of it, in ml (as much as a slot of a wheel takes)")
	c.Flags().Float64Var(&one, "one", 0, "ml of one drop, load or tip (the usual size)")
	return c
}

func mixTable(w io.Writer, m wire.Mix) {
	fmt.Fprintf(w, "%s\t%s, %.2f of the possible\n", wire.InParts(m.Parts), m.HueWord+", "+m.Verdict, m.Retention)
	fmt.Fprintln(w, "\tscreen\tL*\ta*\tb*\tOKLCh")
	for _, row := range []struct {
		name string
		c    wire.Colour
	}{{"masstone", m.Masstone}, {"brushed out", m.BrushedOut}, {m.Medium + ", " + m.Judged, m.AsPainted}, {"undertone", m.Undertone}} {
		fmt.Fprintf(w, "%s\t%s\t%.1f\t%.1f\t%.1f\t%.3f %.3f %.0f\n", row.name, row.c.SRGB, row.c.Lab[0], row.c.Lab[1], row.c.Lab[2], row.c.OKLCh[0], row.c.OKLCh[1], row.c.OKLCh[2])
	}
	if m.Greyness != nil {
		fmt.Fprintf(w, "greyness\t%.2f\nhue error\t%.2f\n", *m.Greyness, *m.HueError)
	}
}

func pairCommand() *cobra.Command {
	var q question
	var steps int
	var spacing, contaminate string
	c := &cobra.Command{
		Use:     "pair PAINT PAINT",
		Short:   "The way from one paint to another",
		Example: "gyrophane pair PB29 PR122 --steps 3",
		Args:    exactly(2, "name two paints: gyrophane pair PB29 PR122"),
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			by, err := path.ParseSpacing(spacing)
			if err != nil {
				return err
			}
			if err := path.CheckSteps(steps); err != nil {
				return err
			}
			a, b, err := twoPaints(args)
			if err != nil {
				return err
			}
			way := path.New(a, b)
			p := v.Pair(way, steps, by)
			if contaminate != "" {
				trace, err := paint.ParseParts([]string{contaminate}, paint.Find)
				if err != nil {
					return err
				}
				taints, err := way.Taints(trace[0].Paint, []float64{trace[0].Parts})
				if err != nil {
					return err
				}
				p = v.Contaminated(way, trace[0].Paint, taints, steps, by)
			}
			return q.answer(cmd, p, func(w io.Writer) { pairTable(w, p) })
		},
	}
	q.flags(c)
	c.Flags().IntVar(&steps, "steps", 3, "inner steps, 1 to 11")
	c.Flags().StringVar(&spacing, "spacing", "hue", "hue, contrast or parts")
	c.Flags().StringVar(&contaminate, "contaminate", "", "a trace of a third paint in every mixture, as PAINT=SHARE: PY74=0.02")
	return c
}

func pairTable(w io.Writer, p wire.Pair) {
	fmt.Fprintf(w, "%s to %s\t%s, %.2f at the secondary, %.2f at the lowest; rule of thumb: %s\n", p.A.ID, p.B.ID, p.Verdict, p.Retention, p.Lowest, p.RuleOfThumb)
	fmt.Fprintln(w, p.Because)
	if says := inTubes(p.Confidence); says != "" {
		fmt.Fprintf(w, "half way, in most tubes\t%s\n", says)
	}
	for _, s := range p.Steps {
		fmt.Fprintf(w, "%s\t%s\t%s %.2f\tas painted %s\tundertone %s\n", wire.InParts(s.Parts), s.HueWord, s.Verdict, s.Retention, s.AsPainted.SRGB, s.Undertone.SRGB)
	}
	for _, t := range p.Taints {
		fmt.Fprintf(w, "with %v of %s\t%s\t%s %.2f half way\n", t.Share, p.Third.ID, t.HueWord, t.Verdict, t.Retention)
	}
	for _, z := range p.MudZones {
		fmt.Fprintf(w, "muddy\tfrom %s (%s)\tto %s (%s)\tlowest %.2f\n", wire.InParts(z.FromParts), z.FromWord, wire.InParts(z.ToParts), z.ToWord, z.Lowest)
	}
}

func wheelCommand() *cobra.Command {
	var q question
	var c wheel.Choices
	var kind, rings string
	cmd := &cobra.Command{
		Use:     "wheel PAINT...",
		Short:   "The twelve-step wheel of a primary system",
		Long:    "The twelve-step wheel of a primary system. Paints come in the order yellows, reds, blues;\nwhere the roles have not the same number, slashes part them: PY74 PY43 / PR254 / PB29.",
		Example: "gyrophane wheel --system split PY184 PY65 PR255 PR122 PB29 PB15:3 --ring tints=2:white,neutral",
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			w, c, err := wheelOf(v, kind, args, c, rings, paint.Find)
			if err != nil {
				return err
			}
			out := v.Wheel(w, c, bench.Usual(v.Medium).Slots)
			return q.answer(cmd, out, func(w io.Writer) { wheelTable(w, out) })
		},
	}
	q.flags(cmd)
	systemFlag(cmd, &kind)
	cmd.Flags().StringVar(&c.Spacing, "spacing", "hue", "steps by hue, by contrast, or equal parts: hue, contrast, parts")
	cmd.Flags().StringVar(&c.Order, "order", "run", "mixed from the weaker paint on, or the secondary first: run, secondary")
	cmd.Flags().StringVar(&rings, "ring", "", "rings: tints=1..3:white|water|neighbour, shades=1..3:complement|black|blue-grey|mixed-black, wash, neutral, triple")
	cmd.Flags().StringVar(&c.Top, "top", "", "the role on top: yellow, red, blue, magenta or cyan")
	cmd.Flags().StringVar(&c.Names, "names", "painters", "slot names of a cmy wheel: painters or printers")
	cmd.Flags().BoolVar(&c.CCW, "ccw", false, "counter-clockwise")
	cmd.Flags().BoolVar(&c.Six, "six", false, "six slots only")
	cmd.Flags().BoolVar(&c.Raise, "raise", false, "raise transparent paints with white first")
	return cmd
}

func systemFlag(c *cobra.Command, kind *string) {
	c.Flags().StringVar(kind, "system", "triad", "triad, cmy, split, double, leaning-clockwise, leaning-counter-clockwise or own")
}

// wheelOf builds the wheel of the paints that are named, as they are found, with the rings that are listed.
func wheelOf(v wire.View, kind string, args []string, c wheel.Choices, rings string, find func(string) (*paint.Paint, error)) (*wheel.Wheel, wheel.Choices, error) {
	roles, err := wheel.ParseRoles(args)
	if err != nil {
		return nil, c, err
	}
	for _, r := range roles {
		if kind != "own" && len(r) == 0 {
			return nil, c, errors.New("name a yellow, a red and a blue, in that order: gyrophane wheel PY184 PR254 PB60; only --system own may leave a role out")
		}
	}
	if c, err = c.WithRings(rings); err != nil {
		return nil, c, err
	}
	system, err := wheel.Selection{Kind: wheel.SystemKind(kind), Roles: roles}.System(find)
	if err != nil {
		return nil, c, err
	}
	options, err := c.Options(v.Medium)
	if err != nil {
		return nil, c, err
	}
	return wheel.Build(system, options), c, nil
}

func wheelTable(w io.Writer, out wire.Wheel) {
	for _, says := range out.Notes {
		fmt.Fprintf(w, "%s\n", says)
	}
	fmt.Fprintln(w, "slot\tparts\tverdict\tof the possible\tas painted\tundertone\tto the next\tin most tubes")
	for _, s := range out.Slots {
		if s.Empty {
			fmt.Fprintf(w, "%s\t-\n", s.Name)
			continue
		}
		jump := fmt.Sprintf("%.2f", s.Jump)
		if s.Jumps {
			jump += " jumps"
		}
		fmt.Fprintf(w, "%s\t%s\t%s\t%.2f\t%s\t%s\t%s\t%s\n", s.Name, wire.InParts(s.Parts), s.VerdictWords, s.Retention, s.AsPainted.SRGB, s.Undertone.SRGB, jump, inTubes(s.Confidence))
		for _, p := range s.OtherPairings {
			fmt.Fprintf(w, "  or\t%s\t%s\t%.2f\t%s\t%s\t\n", wire.InParts(p.Parts), p.Verdict, p.Retention, p.AsPainted.SRGB, p.Undertone.SRGB)
		}
	}
}

// inTubes says in a few words how far a recipe and its verdict can be trusted.
func inTubes(h wire.Confidence) string {
	var says []string
	if h.InTubes != "" {
		says = append(says, h.InTubes)
	}
	switch {
	case h.Could != "":
		says = append(says, h.Could)
	case h.Sure != string(certainty.Sure) && h.Sure != "":
		says = append(says, h.Sure)
	}
	return strings.Join(says, ", ")
}

func neutralCommand() *cobra.Command {
	var q question
	var steps int
	c := &cobra.Command{
		Use:     "neutral PAINT PAINT",
		Short:   "Where two paints cancel to grey, and the scale through it",
		Example: "gyrophane neutral PB29 PO20 --steps 7",
		Args:    exactly(2, "name two paints: gyrophane neutral PB29 PO20"),
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			a, b, err := twoPaints(args)
			if err != nil {
				return err
			}
			if err := wheel.CheckIntensity(steps); err != nil {
				return err
			}
			if a.ID == b.ID {
				return fmt.Errorf("%s cannot cancel itself: choose two different paints", a.ID)
			}
			out := v.Complements(wheel.BalanceOf(a, b, v.Medium), steps, paint.Library())
			return q.answer(cmd, out, func(w io.Writer) {
				fmt.Fprintf(w, "most neutral\t%s\t%s, C*ab %.1f\n", wire.InParts(out.Balance.Parts), out.Balance.HueWord, out.Balance.Chroma)
				fmt.Fprintln(w, out.Balance.Says)
				if h := out.Balance.Neutraliser; h != nil {
					fmt.Fprintf(w, "a grey with\t%s\tC*ab %.1f\n", wire.InParts(h.Parts), h.Chroma)
				}
				for _, r := range out.Intensity {
					fmt.Fprintf(w, "%s\t%s\t%s\n", wire.InParts(r.Parts), r.SRGB, r.HueWord)
				}
			})
		},
	}
	q.flags(c)
	c.Flags().IntVar(&steps, "steps", 7, "5 or 7")
	return c
}

func paintsCommand() *cobra.Command {
	var q question
	var format string
	c := &cobra.Command{
		Use:     "paints",
		Short:   "The built-in paint library: modelled, typical of each pigment class",
		Example: "gyrophane paints --format cgats > paints.txt",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if format != "" {
				file, err := files.LibraryFile(format)
				if err != nil {
					return err
				}
				_, err = cmd.OutOrStdout().Write(file)
				return err
			}
			v, err := q.view()
			if err != nil {
				return err
			}
			list := v.Library()
			return q.answer(cmd, list, func(w io.Writer) { paintsTable(w, list) })
		},
	}
	q.flags(c)
	c.Flags().StringVar(&format, "format", "", "as a file: cgats (spectra of masstone and 1:9 tint), sp (the same, for colour tools), csv (a box of all of them) or gpl (GIMP palette)")
	return c
}

func paintsTable(w io.Writer, list []wire.Paint) {
	fmt.Fprintln(w, "id\tname\tfamily\tlean\thiding\tstrength\tgreyness\tmasstone\tundertone")
	for _, p := range list {
		lean, grey := "-", "-"
		if p.Lean != nil {
			lean = p.Lean.Toward
			if lean != "centred" {
				lean = fmt.Sprintf("to %s %.0f", lean, max(p.Lean.Degrees, -p.Lean.Degrees))
			}
		}
		if p.Greyness != nil {
			grey = fmt.Sprintf("%.2f", *p.Greyness)
		}
		fmt.Fprintf(w, "%s\t%s\t%s\t%s\t%s\t%d\t%s\t%s\t%s\n", p.ID, p.Name, p.Family, lean, p.Hiding, p.Strength, grey, p.Masstone.SRGB, p.Undertone.SRGB)
	}
}

func twoPaints(args []string) (a, b *paint.Paint, err error) {
	if a, err = paint.Find(args[0]); err != nil {
		return nil, nil, err
	}
	b, err = paint.Find(args[1])
	return a, b, err
}

// pileOf mixes ingredients written as PAINT=PARTS.
func pileOf(texts []string) (paint.Pile, error) {
	parts, err := paint.ParseParts(texts, paint.Find)
	if err != nil {
		return paint.Pile{}, err
	}
	return paint.NewPile(parts)
}

func exactly(n int, advice string) cobra.PositionalArgs {
	return func(_ *cobra.Command, args []string) error {
		if len(args) != n {
			return fmt.Errorf("%s", advice)
		}
		return nil
	}
}
