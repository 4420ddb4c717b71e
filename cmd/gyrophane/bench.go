package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/wire"
)

func planCommand() *cobra.Command {
	var q question
	var kind, rings string
	var set wire.BenchSettings
	var which bench.Which
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
			w, choices, err := wheelOf(v, kind, args, wheel.Choices{}, rings)
			if err != nil {
				return err
			}
			settings, err := set.Core().In(v.Medium)
			if err != nil {
				return err
			}
			sheet, err := which.Of(w, w.System.Allowed(), bench.ExtrasOf(choices), settings)
			if err != nil {
				return err
			}
			plan, err := bench.New(&sheet, settings)
			if err != nil {
				return err
			}
			out := v.Plan(plan, nil)
			return q.answer(cmd, out, func(w io.Writer) { planTable(w, out) })
		},
	}
	q.flags(c)
	f := c.Flags()
	f.StringVar(&kind, "system", "triad", "triad, cmy, split, double, leaning-clockwise, leaning-counter-clockwise or own")
	f.StringVar(&rings, "rings", "", "rings: tints=1..3:white|water|neighbour, shades=1..3:complement|black|blue-grey|mixed-black, wash, neutral, triple")
	f.StringVar(&which.Kind, "sheet", "wheel", "wheel, grid (of pairings), ladder, values, intensity, run or guide")
	f.IntVar(&which.Slot, "slot", 0, "the slot of values, intensities and runs, 0 on top")
	f.IntVar(&which.Section, "section", 0, "the section of a ladder: 0, 1 or 2")
	f.IntVar(&which.Steps, "steps", 0, "inner steps of a ladder (5), places of a scale (7)")
	f.IntVar(&set.Waters, "waters", 0, "jars of water (1)")
	f.Float64Var(&set.Diameter, "diameter", 0, "of the wheel, mm (180)")
	f.Float64Var(&set.Inner, "inner", 0, "radius of its hole, mm (a quarter of the diameter)")
	f.IntVar(&set.Coats, "coats", 0, "coats of paint (1)")
	f.Float64Var(&set.Loss, "loss", 0, "share that stays in brush and well (0.2)")
	f.BoolVar(&set.Graded, "graded", false, "slots are washed toward the tip")
	f.BoolVar(&set.Gaps, "gaps", false, "hairline gaps are left between slots, so that wet ones do not touch")
	f.IntVar(&set.Brushes, "brushes", 0, "1 or 2 (1)")
	f.IntVar(&set.Wells, "wells", 0, "wells to mix in (6)")
	f.BoolVar(&set.Dryer, "dryer", false, "a dryer is at hand")
	f.BoolVar(&set.Covered, "covered", false, "wells stay under a cover, or on a wet palette")
	f.StringVar(&set.Fill, "fill", "", "how a section is filled: weaker, stronger, secondary or own (what suits the medium)")
	f.Float64Var(&set.Pace, "pace", 0, "how long drying takes you, over the usual (1)")
	f.StringVar(&set.Measure, "measure", "", "count out in dabs, drops, loads, tips, grams or looks (what suits the medium)")
	f.Float64Var(&set.One, "one", 0, "ml of one drop, load or tip (the usual size)")
	f.IntSliceVar(&set.First, "first", nil, "a section to paint first: 0, 1 or 2")
	return c
}

func planTable(w io.Writer, p wire.BenchPlan) {
	fmt.Fprintf(w, "%d minutes and %d washes: %s\t\t\t\n", p.Total, p.Washes, p.Says)
	fmt.Fprintf(w, "round the wheel %d and %d; primaries, secondaries, tertiaries %d and %d\t\t\t\n", p.Naive, p.NaiveWash, p.ByKind, p.KindWash)
	if p.Why != "" {
		fmt.Fprintf(w, "%s\t\t\t\n", p.Why)
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
