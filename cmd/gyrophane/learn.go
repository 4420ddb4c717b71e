package main

import (
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/core/recipe"
	"gyrophane/files"
	"gyrophane/wire"
)

// readSamples are the dry readings of a file, each called by what it was mixed from.
func readSamples(file string, in paint.Medium) (out []journal.Sample, err error) {
	if file == "" {
		return nil, errors.New("name a file: --readings FILE.csv, with the columns parts, L, a, b and state")
	}
	data, err := readFile(file, files.MostFileBytes)
	if err != nil {
		return nil, err
	}
	rows, err := files.ReadReadings(data, in, paint.Find)
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		if r.Problem != "" {
			return nil, fmt.Errorf("%s, line %d: %s", file, r.Line, r.Problem)
		}
		if !r.Wet {
			r.Sample.Region = recipe.Of(r.Sample.Parts).String()
			out = append(out, r.Sample)
		}
	}
	return out, nil
}

// ofReadings is a command that asks something of readings in a file.
func ofReadings(use, short, long, example string, ask func(samples []journal.Sample, in paint.Medium) (value any, table func(io.Writer), err error)) *cobra.Command {
	var q question
	var file, picture, plan string
	var grey float64
	c := &cobra.Command{
		Use: use, Short: short, Long: long, Example: example, Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			in := v.Medium
			var samples []journal.Sample
			if picture != "" {
				var got sheetRead
				if got, err = readSheet(cmd.Context(), picture, plan); err == nil {
					err = got.refused
				}
				samples, in = journal.SamplesOf(&got.sheet, got.in, &got.read, photo.StepOf(grey)), got.in
			} else {
				samples, err = readSamples(file, in)
			}
			if err != nil {
				return err
			}
			value, table, err := ask(samples, in)
			if err != nil {
				return err
			}
			return q.answer(cmd, value, table)
		},
	}
	q.flags(c)
	c.Flags().StringVar(&picture, "photo", "", "a photo of a painted sheet, in the place of readings")
	c.Flags().StringVar(&plan, "plan", "", "the plan of that sheet, in JSON")
	ofGrey(c, &grey)
	c.Flags().StringVar(&file, "readings", "", "CSV with the columns parts (PY184=8 PB29=1), L, a, b, state")
	return c
}

func learnCommand() *cobra.Command {
	return ofReadings("learn --readings FILE.csv", "What tubes turned out to be, from readings of what was painted",
		"The strengths of the tubes that explain dry readings best, with 95 % intervals. Only ratios among tubes that mixtures\njoin are told; they are proposed only where they are better by more than chance.",
		"gyrophane learn --readings readings.csv --medium gouache --json",
		func(samples []journal.Sample, in paint.Medium) (any, func(io.Writer), error) {
			learned, err := journal.Learn(samples, in, journal.Sure{})
			out := wire.LearnedOf(learned)
			return out, func(w io.Writer) { learnedTable(w, out) }, err
		})
}

func learnedTable(w io.Writer, l wire.Learned) {
	fmt.Fprintln(w, "paint\told\tnew\tfrom\tto\t")
	for _, s := range l.Strengths {
		note := ""
		if !s.Settled {
			note = "not settled"
		}
		fmt.Fprintf(w, "%s %s\t%.2f\t%.2f\t%.2f\t%.2f\t%s\n", s.Code, s.Name, s.Old, s.New, s.Low, s.High, note)
	}
	says := "not proposed: no better than chance"
	if l.Proposed {
		says = "proposed"
	}
	fmt.Fprintf(w, "\nCIEDE2000 before %.2f, after %.2f, left one out %.2f: %s\t\t\t\t\t\n", l.Before, l.After, l.LeftOut, says)
	for _, says := range append(append([]string{}, l.Photos...), l.Says...) {
		fmt.Fprintf(w, "%s\t\t\t\t\t\n", says)
	}
	if l.Separate > 1 {
		fmt.Fprintf(w, "%d groups of tubes never meet: neutral circles, or a few tints with white, would join them\t\t\t\t\t\n", l.Separate)
	}
}

func explainCommand() *cobra.Command {
	return ofReadings("explain --readings FILE.csv", "Why what was painted differs from what was computed",
		"Of each dry reading how it differs from what is computed, and the likeliest cause where the evidence carries one.",
		"gyrophane explain --readings readings.csv --medium gouache",
		func(samples []journal.Sample, in paint.Medium) (any, func(io.Writer), error) {
			told := journal.Explain(samples, in, journal.Sure{})
			out := wire.ExplainedOf(told.Places)
			return out, func(w io.Writer) { explainedTable(w, out) }, nil
		})
}

func explainedTable(w io.Writer, all []wire.ExplainedReading) {
	fmt.Fprintln(w, "reading\tCIEDE2000\twhy")
	for _, e := range all {
		why := "not explained"
		var says []string
		for _, c := range e.Causes {
			says = append(says, c.Says)
		}
		switch {
		case e.AsComputed:
			why = "as computed"
		case len(says) > 0:
			why = strings.Join(says, "; or ")
		}
		fmt.Fprintf(w, "%s\t%.1f\t%s\n", e.Reading, e.Difference, why)
	}
}
