package main

import (
	"fmt"
	"io"
	"runtime"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/studio"
	"gyrophane/wire"
)

func compareCommand() *cobra.Command {
	var q question
	var systems []string
	var file, format string
	c := &cobra.Command{
		Use:     "compare --system NAME:KIND:PAINT,PAINT... --system ...",
		Short:   "Systems laid beside each other on the same footing",
		Long:    "Up to four systems side by side. Paints come in the order yellows, reds, blues;\nwhere the roles have not the same number, slashes part them.",
		Example: "gyrophane compare --system three:triad:PY65,PR254,PB29 --system six:split:PY184,PY65,PR255,PR122,PB29,PB15:3",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			var named []reach.Named
			for _, text := range systems {
				n, err := namedSystem(text)
				if err != nil {
					return err
				}
				named = append(named, n)
			}
			compared, err := reach.SideBySide(named, v.Medium)
			if err != nil {
				return err
			}
			if file != "" {
				f, err := paper.ParseFormat(format)
				if err != nil {
					return err
				}
				return onPaper(cmd, "Systems side by side", paper.Comparison(compared, v.Medium, f, files.Measure()), file)
			}
			out := v.Comparison(compared)
			return q.answer(cmd, out, func(w io.Writer) { compareTable(w, out) })
		},
	}
	q.flags(c)
	c.Flags().StringArrayVar(&systems, "system", nil, "a name, a kind and its paints, with colons between; up to four times")
	c.Flags().StringVar(&file, "out", "", "put it on paper: a file, .pdf or .svg")
	c.Flags().StringVar(&format, "paper", "A4", "A4, A5 or Letter, flat")
	return c
}

// systemText reads NAME:KIND:PAINT,PAINT... or, without a name, KIND:PAINT,PAINT...: paints too have
// colons in their names.
func systemText(text string) (name, kind string, paints []string, err error) {
	parts := strings.SplitN(text, ":", 3)
	if kind, paints, found := strings.Cut(text, ":"); found && slices.Contains(wheel.Kinds, wheel.SystemKind(kind)) {
		parts = []string{kind, kind, paints}
	}
	if len(parts) < 3 || parts[0] == "" {
		return "", "", nil, fmt.Errorf("--system %.60q: write NAME:KIND:PAINT,PAINT..., like three:triad:PY65,PR254,PB29", text)
	}
	return parts[0], parts[1], strings.FieldsFunc(strings.ReplaceAll(parts[2], "/", ",/,"), func(r rune) bool { return r == ',' || r == ' ' }), nil
}

// namedSystem is a system as systemText reads it.
func namedSystem(text string) (reach.Named, error) {
	name, kind, paints, err := systemText(text)
	if err != nil {
		return reach.Named{}, err
	}
	roles, err := wheel.ParseRoles(paints)
	if err != nil {
		return reach.Named{}, fmt.Errorf("--system %s: %w", name, err)
	}
	s, err := wheel.Selection{Kind: wheel.SystemKind(kind), Roles: roles}.System(paint.Find)
	if err != nil {
		return reach.Named{}, fmt.Errorf("--system %s: %w", name, err)
	}
	return reach.Named{Name: name, System: s}, nil
}

func compareTable(w io.Writer, out wire.Comparison) {
	fmt.Fprintln(w, "system\tclean\tvivid\tmean brightness\tsoftened or better\twidest gap\tdarkest\tits tint\tevenness\tjumps\tgreys, C*ab\ttubes")
	for _, s := range out.Systems {
		gap := "none"
		if s.WidestGap.Degrees > 0 {
			gap = fmt.Sprintf("%.0f degrees, %s to %s", s.WidestGap.Degrees, s.WidestGap.From, s.WidestGap.To)
		}
		fmt.Fprintf(w, "%s\t%.0f %%\t%.0f %%\t%.2f\t%.0f %%\t%s\tL* %.1f\t%s\t%.2f\t%d\t%.1f\t%d\n", s.Name, 100*s.CleanCoverage, 100*s.VividCoverage, s.MeanBrightness, 100*s.SoftCoverage, gap, s.Darkest.Lab[0], s.Darkest.Hidden, s.Evenness, s.Jumps, s.Middles, s.Tubes)
	}
	for _, d := range out.Differences {
		fmt.Fprintln(w, d.Says)
	}
}

func matchCommand() *cobra.Command {
	var q question
	var lab, hex string
	var from []string
	c := &cobra.Command{
		Use:     "match --lab L,a,b --from PAINT,...",
		Short:   "The recipe of at most four paints that comes nearest to a wanted colour",
		Example: "gyrophane match --lab 52,38,20 --from PY184,PR254,PB29,PW6",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			if (lab == "") == (hex == "") {
				return fmt.Errorf("name one wanted colour: --lab 52,38,20 or --hex #e0662b")
			}
			paints, err := paintsNamed("from", from)
			if err != nil {
				return err
			}
			wanted := []reach.Wanted{{Name: "the wanted colour", Colour: lab + hex}}
			readings, err := reach.Readings(wanted, v.Medium)
			if err != nil {
				return err
			}
			matches, err := reach.MatchAll(cmd.Context(), [][]*paint.Paint{paints}, readings, v.Medium, reach.Nearest)
			if err != nil {
				return err
			}
			m := v.Matches(wanted, matches)[0].Matches[0]
			return q.answer(cmd, m, func(w io.Writer) {
				fmt.Fprintln(w, m.Says)
				for i, step := range m.Mixing {
					fmt.Fprintf(w, "%d. %s\n", i+1, step)
				}
				lamp := "no surface has this colour"
				if m.DELamp != nil {
					lamp = fmt.Sprintf("%.1f", *m.DELamp)
				}
				fmt.Fprintf(w, "%s\tCIEDE2000 %.1f\tunder a warm lamp %s\n", m.Shown.SRGB, m.DE, lamp)
			})
		},
	}
	q.flags(c)
	c.Flags().StringVar(&lab, "lab", "", "CIELAB under daylight, as painted and dry: L,a,b")
	c.Flags().StringVar(&hex, "hex", "", "or a screen colour: #rrggbb")
	c.Flags().StringSliceVar(&from, "from", nil, "the paints to mix from")
	return c
}

func chooseCommand() *cobra.Command {
	var q question
	var kind, from, aim, file, painter string
	var careful, lasting bool
	var box, contains, wants, without []string
	c := &cobra.Command{
		Use:     "choose --kind triad|split|double --from box|library",
		Short:   "The best system of a kind, exactly: every one is looked at",
		Long:    "The box is the one kept in the database of DATABASE_URL, or the demo studio's\nwithout one; or it is named with --box or read with --box-file.",
		Example: "gyrophane choose --kind split --from library --json",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			var of studio.Owner
			switch {
			case from != "box" && from != "library":
				return fmt.Errorf("--from %q: choose box or library", from)
			case len(box) > 0:
				of.Name = "--box"
				of.Box, err = paintsNamed("box", box)
			case file != "":
				of, err = boxFile(file)
			case from == "box" || aim == "targets" && len(wants) == 0:
				of, err = openOwner(cmd.Context(), painter)
			}
			if err != nil {
				return err
			}
			wanted := of.Wanted
			if len(wants) > 0 {
				wanted = nil
			}
			for _, w := range wants {
				wanted = append(wanted, reach.Wanted{Colour: w})
			}
			r := reach.Request{Kind: wheel.SystemKind(kind), Aim: reach.Aim(aim), Library: from == "library", Contains: contains, Careful: careful, Lasting: lasting, Without: without, Medium: v.Medium, Prices: of.Prices, Workers: runtime.GOMAXPROCS(0)}
			if r.Aim == reach.NearestTargets {
				if r.Targets, err = reach.Targets(wanted, v.Medium); err != nil {
					return err
				}
			}
			began := time.Now()
			got, err := reach.Choose(cmd.Context(), of.Box, r)
			if err != nil {
				return err
			}
			out := v.Chosen(r, got)
			out.ElapsedMs = float64(time.Since(began).Microseconds()) / 1000
			if of.Name != "" {
				fmt.Fprintln(cmd.ErrOrStderr(), whose(of.Name, from, aim))
			}
			return q.answer(cmd, out, func(w io.Writer) {
				fmt.Fprintln(w, "paints\tclean\tvivid\tmean brightness\t")
				for _, s := range append([]wire.ChosenSystem{out.Best}, out.RunnersUp...) {
					near := s.Loses
					if s.MeanDE != nil {
						near = fmt.Sprintf("%d wanted colours reached, CIEDE2000 %.1f on the mean. %s", s.Reached, *s.MeanDE, s.Loses)
					}
					fmt.Fprintf(w, "%s\t%.1f %%\t%.1f %%\t%.3f\t%s\n", strings.Join(s.Paints, " "), 100*s.CleanCoverage, 100*s.VividCoverage, s.MeanBrightness, near)
				}
				for _, b := range out.BuyNext {
					fmt.Fprintf(w, "buy next %s\t%.1f %%, %+.1f\t%.1f %%\t%.3f, %+.3f\t\n", b.Paint.ID, 100*b.CleanCoverage, 100*b.Gain, 100*b.VividCoverage, b.MeanBrightness, b.MeanGain)
				}
			})
		},
	}
	q.flags(c)
	c.Flags().StringVar(&kind, "kind", "triad", "triad, split or double")
	c.Flags().StringVar(&from, "from", "library", "box or library")
	c.Flags().StringVar(&aim, "aim", "coverage", "the most clean hues; the least price, or the fewest tubes, that reach nearly as many; or the wanted colours: coverage, price, tubes, targets")
	c.Flags().StringArrayVar(&wants, "want", nil, "a wanted colour: #rrggbb or CIELAB as L,a,b; may be given again")
	c.Flags().StringSliceVar(&box, "box", nil, "the paints of the box, by their ids in the library")
	c.Flags().StringVar(&file, "box-file", "", "a box as the application gives it out, JSON or CSV")
	c.Flags().StringVar(&painter, "painter", "", "whose box, where several painters keep one")
	c.Flags().StringSliceVar(&without, "without", nil, "classes of caution that no paint of it may carry: cadmium,cobalt")
	c.Flags().BoolVar(&careful, "careful", false, "no paint whose class carries a special hazard")
	c.Flags().BoolVar(&lasting, "lasting", false, "only paints of a lightfastness of I or II")
	c.Flags().StringSliceVar(&contains, "contains", nil, "paints that must be in it")
	return c
}

// whose says where a box and wanted colours came from.
func whose(name, from, aim string) string {
	what := "The box"
	switch {
	case from == "library":
		what = "The wanted colours"
	case aim == "targets":
		what = "The box and its wanted colours"
	}
	return what + ": " + name + "."
}
