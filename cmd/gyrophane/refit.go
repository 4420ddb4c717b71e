package main

import (
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"gyrophane/core/paint"
	"gyrophane/wire"
)

func refitCommand() *cobra.Command {
	var q question
	c := &cobra.Command{
		Use:   "refit",
		Short: "How well two swatches stand for a paint: the whole library worked out anew from them",
		Long: "Works every library paint out anew from the CIELAB of its masstone and of a 1:9 tint alone,\n" +
			"and holds mixtures of the new paints against those of the old, over all pairs.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			trip, err := paint.NewRoundTrip()
			if err != nil {
				return err
			}
			out := wire.RoundTripOf(trip)
			return q.answer(cmd, out, func(w io.Writer) {
				fmt.Fprintf(w, "%d pairs of %d paints, CIEDE2000\tmedian\t95 in 100 within\tworst\n", out.Pairs, out.Paints)
				for _, row := range []struct {
					name string
					s    wire.Spread
				}{{"laid out opaque", out.Opaque}, {"brushed out thin", out.Film}} {
					fmt.Fprintf(w, "%s\t%.2f\t%.2f\t%.2f (%s with %s)\n", row.name, row.s.Median, row.s.P95, row.s.Worst, row.s.WorstPair[0], row.s.WorstPair[1])
				}
				fmt.Fprintf(w, "worst refit of a swatch\t%.2f\n", out.WorstFit)
			})
		},
	}
	c.Flags().BoolVar(&q.json, "json", false, "print JSON")
	return c
}
