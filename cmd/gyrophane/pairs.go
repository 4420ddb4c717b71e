package main

import (
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
	"gyrophane/wire"
)

func pairsCommand() *cobra.Command {
	var q question
	var by string
	c := &cobra.Command{
		Use:     "pairs PAINT...",
		Short:   "What becomes of every two of some paints, the rule of thumb beside it",
		Example: "gyrophane pairs PY184 PY65 PR255 PR122 PB29 PB15:3",
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			spacing, err := path.ParseSpacing(by)
			if err != nil {
				return err
			}
			var paints []*paint.Paint
			for _, id := range args {
				p, err := paint.Find(id)
				if err != nil {
					return err
				}
				paints = append(paints, p)
			}
			if err := wheel.CheckPaired(paints); err != nil {
				return err
			}
			out := v.PaintPairings(paints, spacing, bias.VioletIsWarm)
			return q.answer(cmd, out, func(w io.Writer) { pairsTable(w, out) })
		},
	}
	q.flags(c)
	c.Flags().StringVar(&by, "spacing", path.ByHue.String(), "hue, contrast or parts")
	return c
}

func pairsTable(w io.Writer, out wire.Pairings) {
	fmt.Fprintln(w, "section\tpair\tverdict\tof the possible\tlowest\trule of thumb\thalf way\tparts")
	for _, p := range out.Pairs {
		rule := p.RuleOfThumb
		if !p.Agrees {
			rule += ", but"
		}
		fmt.Fprintf(w, "%s\t%s with %s\t%s\t%.2f\t%.2f\t%s\t%s\t%s\n", p.Section, p.A, p.B, p.Verdict, p.Retention, p.Lowest, rule, p.Middle.HueWord, wire.InParts(p.Middle.Parts))
	}
}

func correctCommand() *cobra.Command {
	var q question
	var have, want []string
	c := &cobra.Command{
		Use:     "correct --have PAINT=PARTS,... --want PAINT=PARTS,...",
		Short:   "The least that brings a pile to what it should be, or whether to start over",
		Example: "gyrophane correct --have PY74=5,PB15:3=2 --want PY74=8,PB15:3=1",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			there, err := pileOf(have)
			if err != nil {
				return fmt.Errorf("--have: %w", err)
			}
			wanted, err := pileOf(want)
			if err != nil {
				return fmt.Errorf("--want: %w", err)
			}
			c, err := path.Correct(there.Parts, wanted.Parts)
			if err != nil {
				return err
			}
			out := v.Correction(there, wanted, c)
			return q.answer(cmd, out, func(w io.Writer) {
				fmt.Fprintln(w, out.Says)
				for _, row := range []struct {
					name string
					m    wire.Mixture
				}{{"have", out.Have}, {"want", *out.Want}, {"pile", out.Pile}} {
					m := row.m
					fmt.Fprintf(w, "%s\t%s\t%s\t%s %.2f\tas painted %s\n", row.name, wire.InParts(m.Parts), m.HueWord, m.Verdict, m.Retention, m.AsPainted.SRGB)
				}
			})
		},
	}
	q.flags(c)
	c.Flags().StringSliceVar(&have, "have", nil, "what is in the pile: PAINT=PARTS with commas between")
	c.Flags().StringSliceVar(&want, "want", nil, "what it should be, and how much of it")
	return c
}
