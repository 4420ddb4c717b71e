package main

import (
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/wire"
)

// benched is a sheet that is asked for on the command line, and how it is painted.
type benched struct {
	kind, rings string
	set         wire.BenchSettings
	which       bench.Which
	wanted      []string // NAME=COLOUR
	without     []string // parts that are left out
	with        []string // and what is added
	bit         int      // slot of which a bit is taken; -1 for the one across
	earth, tube string
	glaze       string
}

// plan plans the sheet of the paints that are named.
func (b *benched) plan(v wire.View, args []string) (*bench.Plan, error) {
	settings, err := b.set.Core().In(v.Medium)
	if err != nil {
		return nil, err
	}
	sheet, err := b.sheet(v, settings, args)
	if err != nil {
		return nil, err
	}
	return bench.New(sheet, settings)
}

// sheet is the sheet of the paints that are named.
func (b *benched) sheet(v wire.View, settings bench.Settings, args []string) (*bench.Sheet, error) {
	kind := b.kind
	if b.which.Kind == "ladder" && len(args) == 2 || b.which.Kind == "guide" {
		kind = string(wheel.OwnSystem) // any paints will do
	}
	w, choices, err := wheelOf(v, kind, args, wheel.Choices{}, b.rings, paint.Find)
	if err != nil {
		return nil, err
	}
	b.which.Without, b.which.With = bench.PartsOf(b.without), bench.PartsOf(b.with)
	if b.bit >= 0 {
		b.which.Bit = &b.bit
	}
	have := bench.Material{Couples: w.System.Allowed()}
	for _, one := range []struct {
		id string
		is **paint.Paint
	}{{b.earth, &have.Earth}, {b.tube, &have.Tube}, {b.glaze, &have.Glaze}} {
		if one.id == "" {
			continue
		}
		if *one.is, err = paint.Find(one.id); err != nil {
			return nil, err
		}
	}
	if len(b.with) > 0 {
		have.Choose(w, b.which.Slot, paint.Library())
	}
	if paints := w.System.Paints(); b.which.Kind == "ladder" && len(args) == 2 && len(paints) == 2 {
		have.Way = path.New(paints[0], paints[1])
	}
	if b.which.Kind == bench.SwatchesSheet {
		got, err := journal.PlanWheelSwatches(w, journal.SwatchOptions{In: v.Medium, Source: paint.Photo, Doubts: certainty.Usual})
		if err != nil {
			return nil, err
		}
		for _, one := range got.Swatches {
			have.Swatches = append(have.Swatches, one.Recipe)
		}
	}
	if b.which.Kind == "wanted" {
		if have.Wanted, err = b.nearest(v, w.System); err != nil {
			return nil, err
		}
	}
	sheet, err := b.which.Of(w, have, bench.ExtrasOf(choices), settings)
	return &sheet, err
}

// nearest are the wanted colours that are named and what of a system comes nearest.
func (b *benched) nearest(v wire.View, system wheel.System) (out []bench.Wanted, err error) {
	for _, text := range b.wanted {
		name, colour, named := strings.Cut(text, "=")
		if !named {
			return nil, fmt.Errorf("--wanted %.60q: write NAME=COLOUR, like kelp=#5a5a2a or kelp=38,-4,28", text)
		}
		reading, err := reach.Wanted{Name: name, Colour: colour}.Reading(v.Medium)
		if err != nil {
			return nil, err
		}
		best, err := reach.Nearest(reading.Lab, reach.Palette(system), v.Medium)
		if err != nil {
			return nil, err
		}
		out = append(out, bench.Wanted{Name: name, Colour: reading.Lab, Recipe: best.Parts, Mixture: best.Mixture})
	}
	return out, nil
}

func planCommand() *cobra.Command {
	var q question
	var b benched
	c := &cobra.Command{
		Use:     "plan PAINT...",
		Short:   "How to paint a wheel: how much of each paint, and in which order",
		Long:    "How to paint a wheel: how much of each paint, and in which order, so that nothing is painted beside what is wet,\nbrushes are washed little and the whole takes as short as can be. Paints come in the order yellows, reds, blues.",
		Example: "gyrophane plan --system triad PY65 PR254 PB29 --medium gouache --diameter 180 --brushes 2 --dryer",
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			plan, err := b.plan(v, args)
			if err != nil {
				return err
			}
			out := v.Plan(plan, nil)
			return q.answer(cmd, out, func(w io.Writer) { planTable(w, out) })
		},
	}
	q.flags(c)
	b.flags(c)
	c.Flags().StringVar((*string)(&b.which.Kind), "sheet", "wheel", "wheel, grid (of pairings), ladder, values, intensity, run, guide, wanted, warmcool, worksheet, glazes or swatches (that make recipes surer)")
	return c
}

func (b *benched) flags(c *cobra.Command) {
	f := c.Flags()
	systemFlag(c, &b.kind)
	f.StringVar(&b.rings, "rings", "", "rings: tints=1..3:white|water|neighbour, shades=1..3:complement|black|blue-grey|mixed-black, wash, neutral, triple")
	f.IntVar(&b.which.Slot, "slot", 0, "the slot of values, intensities, runs, worksheets and what is added, 0 on top")
	f.IntVar(&b.which.Section, "section", 0, "the section of a ladder: 0, 1 or 2")
	f.IntVar(&b.which.Steps, "steps", 0, "inner steps of a ladder (5), places of a scale (7)")
	f.StringSliceVar(&b.without, "without", nil, "parts to leave out: of a worksheet wheel, greys, runs, values, intensity; of glazes wheel, order, ramp")
	f.StringSliceVar(&b.with, "with", nil, "what to add to a wheel or a worksheet: dark, earth (neighbours of the slot from one), tube (beside the slot that it looks like), bit (of another slot in it)")
	f.StringVar(&b.earth, "earth", "", "the paint that the slot's neighbours are mixed from (the nearest earth)")
	f.StringVar(&b.tube, "tube", "", "the paint that stands beside the slot (what looks most like it)")
	f.IntVar(&b.bit, "bit", -1, "the slot of which a bit goes into it (the one across from it)")
	f.Float64Var(&b.which.Film, "film", 0, "how thick a glaze lies as X, 0.1 to 0.5 (0.3)")
	f.StringVar(&b.glaze, "glaze", "", "the paint that is laid over the others (the clearest of them)")
	f.StringArrayVar(&b.wanted, "wanted", nil, "a wanted colour as NAME=COLOUR; several times, for a sheet of these")
	f.IntVar(&b.set.Waters, "waters", 0, "jars of water (1)")
	f.Float64Var(&b.set.Diameter, "diameter", 0, "of the wheel, mm (180)")
	f.Float64Var(&b.set.Inner, "inner", 0, "radius of its hole, mm (a quarter of the diameter)")
	f.IntVar(&b.set.Coats, "coats", 0, "coats of paint (1)")
	f.Float64Var(&b.set.Loss, "loss", 0, "share that stays in brush and well (0.2)")
	f.BoolFunc("graded", "slots are drawn out, thinned toward the tip, as in watercolour when left out; --graded=false lays them flat", func(said string) error {
		graded, err := strconv.ParseBool(said)
		b.set.Graded = &graded
		return err
	})
	f.BoolVar(&b.set.Gaps, "gaps", false, "hairline gaps are left between slots, so that wet ones do not touch")
	f.IntVar(&b.set.Brushes, "brushes", 0, "1 or 2 (1)")
	f.IntVar(&b.set.Wells, "wells", 0, "wells to mix in (6)")
	f.BoolVar(&b.set.Dryer, "dryer", false, "a dryer is at hand")
	f.BoolVar(&b.set.Covered, "covered", false, "wells stay under a cover, or on a wet palette")
	f.StringVar(&b.set.Fill, "fill", "", "how a section is filled: weaker, stronger, secondary or own (what suits the medium)")
	f.Float64Var(&b.set.Pace, "pace", 0, "how long drying takes you, over the usual (1)")
	f.StringVar(&b.set.Measure, "measure", "", "count out in dabs, drops, loads, tips, grams or looks (what suits the medium)")
	f.Float64Var(&b.set.One, "one", 0, "ml of one drop, load or tip (the usual size)")
	f.IntSliceVar(&b.set.First, "first", nil, "a section to paint first: 0, 1 or 2")
}

func planTable(w io.Writer, p wire.BenchPlan) {
	fmt.Fprintf(w, "%d minutes and %d washes: %s\t\t\t\n", p.Total, p.Washes, p.Says)
	fmt.Fprintf(w, "round the wheel %d and %d; primaries, secondaries, tertiaries %d and %d\t\t\t\n", p.Naive, p.NaiveWash, p.ByKind, p.KindWash)
	for _, why := range []string{p.Why, p.Late} {
		if why == "" {
			continue
		}
		fmt.Fprintf(w, "%s\t\t\t\n", why)
	}
	fmt.Fprintln(w, "\nlay out\tml\tribbon mm\t")
	for _, a := range p.Amounts {
		fmt.Fprintf(w, "%s %s\t%.2f\t%.0f\t\n", a.Code, a.Name, a.ML, a.RibbonMM)
	}
	fmt.Fprintln(w, "\nminute\twhat\twell\thow")
	for _, a := range p.Actions {
		how := a.Because
		if a.Kind == string(bench.Mix) || a.Kind == string(bench.Paint) && a.Well == 0 {
			how = strings.TrimSpace(how + " " + strings.Join(p.Regions[a.Region].Counted.Lines, " "))
		}
		well := ""
		if a.Well > 0 {
			well = fmt.Sprint(a.Well)
		}
		fmt.Fprintf(w, "%.1f\t%s %s\t%s\t%s\n", a.Start, a.Kind, a.Slot, well, how)
	}
}

func countedTable(w io.Writer, c wire.Counted) {
	for _, line := range append(c.Lines, c.Advice) {
		if line != "" {
			fmt.Fprintf(w, "%s\t\t\t\t\t\n", line)
		}
	}
	fmt.Fprintf(w, "%.2f ml, CIEDE2000 %.1f from the parts, a hand strays by %.1f\t\t\t\t\t\n", c.ML, c.DE, c.Spread)
}

func sheetCommand() *cobra.Command {
	var q question
	var b benched
	var o paper.Options
	var format, file string
	c := &cobra.Command{
		Use:     "sheet KIND PAINT...",
		Short:   "A sheet on paper at true size: a PDF, or an SVG by the ending",
		Long:    "A sheet on paper at true size: a PDF, or an SVG by the ending of --out. KIND is wheel, grid (of pairings), ladder, values,\nintensity, run, guide, wanted, warmcool, worksheet or glazes; paints come in the order yellows, reds, blues. A ladder takes two paints alone as well.\nSystems side by side are put on paper by gyrophane compare --out.",
		Example: "gyrophane sheet wheel --system split PY184 PY65 PR255 PR122 PB29 PB15:3 --diameter 140 --paper A4 --out wheel.pdf",
		Args:    cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			if o.Format, err = paper.ParseFormat(format); err != nil {
				return err
			}
			b.which.Kind, b.which.Width = bench.SheetKind(args[0]), o.Wide()
			plan, err := b.plan(v, args[1:])
			if err != nil {
				return err
			}
			o.Doubts = certainty.Usual
			o.Title, o.About = strings.Join(args[1:], " "), plan.Sheet.Title+" · "+v.Medium.Name
			pages, err := paper.Sheet(plan, o, files.Measure())
			if err != nil {
				return err
			}
			return onPaper(cmd, o.Title, pages, file)
		},
	}
	q.flags(c)
	b.flags(c)
	f := c.Flags()
	f.StringVar(&format, "paper", "A4", "A4, A5 or Letter")
	f.BoolVar(&o.Flat, "flat", false, "on its side")
	f.StringVar((*string)(&o.Edition), "edition", "working", "working (outlines and recipes), blank (for a class: lines to write on, drops to tick), key (to a blank: colours, recipes, verdicts) or aimed (the colours aimed at)")
	f.IntVar(&o.Class, "class", 0, "so many blanks and one key to them, instead of an edition")
	f.StringVar(&o.Recipes, "recipes", "", "parts, dabs or none (none on a blank, else parts)")
	f.StringVar(&o.As, "as", "sheet", "sheet, plan (in order, to tick off), cards (recipes to cut out) or dabs (at true size); several with commas between are a stack")
	f.StringVar(&file, "out", "", "the file: .pdf or .svg (a PDF to the standard output)")
	return c
}

func paletteCommand() *cobra.Command {
	var q question
	var b benched
	var as, file string
	c := &cobra.Command{
		Use:     "palette KIND PAINT...",
		Short:   "The colours of a wheel, a path or another sheet, for other programs",
		Long:    "The colours of a sheet as they are when they are painted and dry: a GIMP palette, a table, JSON, CGATS, spectra for colour tools, or\na drawing. KIND is as of gyrophane sheet: wheel, ladder (a path), glazes ...",
		Example: "gyrophane palette ladder PY65 PB29 --steps 7 --out pool.gpl",
		Args:    cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			settings, err := b.set.Core().In(v.Medium)
			if err != nil {
				return err
			}
			b.which.Kind = bench.SheetKind(args[0])
			sheet, err := b.sheet(v, settings, args[1:])
			if err != nil {
				return err
			}
			if as == "" {
				as = strings.TrimPrefix(filepath.Ext(file), ".")
			}
			out, err := files.Swatches(files.SwatchFormat(as), strings.Join(args, " "), sheet.Title+", dry, in "+v.Medium.Name, files.SheetSwatches(sheet, v.Medium, ""))
			if err != nil {
				return err
			}
			if file == "" {
				_, err = cmd.OutOrStdout().Write(out.Body)
				return err
			}
			return os.WriteFile(file, out.Body, 0o600)
		},
	}
	q.flags(c)
	b.flags(c)
	c.Flags().StringVar(&as, "as", "", "gpl, csv, json, cgats, sp or svg (by the ending of --out)")
	c.Flags().StringVar(&file, "out", "", "the file (to the standard output)")
	return c
}

// onPaper writes pages to a file, a PDF or by the ending the first as an SVG; without one
// to the standard output.
func onPaper(cmd *cobra.Command, title string, pages []paper.Page, file string) error {
	out, err := files.PDF(title, pages)
	if strings.HasSuffix(file, ".svg") {
		out = files.SVG(title, pages[0])
	}
	if err != nil {
		return err
	}
	if file == "" {
		_, err = cmd.OutOrStdout().Write(out)
		return err
	}
	return os.WriteFile(file, out, 0o644)
}

func drawCommand() *cobra.Command {
	var diameter, inner float64
	var by string
	c := &cobra.Command{
		Use:     "draw",
		Short:   "How to draw a wheel of twelve with a compass, a ruler or a protractor",
		Example: "gyrophane draw --diameter 180 --with ruler",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			tool, err := bench.ParseDrawBy(by)
			if err != nil {
				return err
			}
			settings, err := bench.Settings{Medium: paint.Media()[0], Diameter: diameter, Inner: inner}.Complete()
			if err != nil {
				return err
			}
			sheet := bench.Blank(settings)
			for n, line := range sheet.Draw(tool).Steps {
				fmt.Fprintf(cmd.OutOrStdout(), "%d. %s\n", n+1, line)
			}
			return nil
		},
	}
	c.Flags().Float64Var(&diameter, "diameter", 0, "of the wheel, mm (180)")
	c.Flags().Float64Var(&inner, "inner", 0, "radius of its hole, mm (a quarter of the diameter)")
	c.Flags().StringVar(&by, "with", string(bench.Compass), "compass, ruler or protractor")
	return c
}
