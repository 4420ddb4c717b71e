package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
	"gyrophane/wire"
)

func surerCommand() *cobra.Command {
	var q question
	var c wheel.Choices
	var kind, file, by string
	var ofBox bool
	cmd := &cobra.Command{
		Use:     "surer PAINT...",
		Short:   "What to paint to be surer of the recipes of a wheel, or of a box",
		Long:    "Up to six swatches that narrow the parts of a wheel's mixtures the most, and how far each brings them. Paints come as\nfor a wheel, or with --of-box as a box, of which every two are mixed half way; what readings tell of them counts.",
		Example: "gyrophane surer --system split PY184 PY65 PR255 PR122 PB29 PB15:3 --readings readings.csv --by instrument --json",
		RunE: func(cmd *cobra.Command, args []string) error {
			v, err := q.view()
			if err != nil {
				return err
			}
			source, err := paint.ParseSource(by)
			if err != nil {
				return fmt.Errorf("--by: %w", err)
			}
			known := tubes{find: paint.Find, doubts: certainty.Usual}
			if file != "" {
				if known, err = learnedTubes(file, v.Medium); err != nil {
					return err
				}
			}
			o := journal.SwatchOptions{In: v.Medium, Source: source, Doubts: known.doubts}
			swatches := func() (journal.SwatchPlan, error) {
				w, _, err := wheelOf(v, kind, args, c, "", known.find)
				if err != nil {
					return journal.SwatchPlan{}, err
				}
				return journal.PlanWheelSwatches(w, o)
			}
			if ofBox {
				swatches = func() (journal.SwatchPlan, error) { return boxSwatches(args, c.Spacing, known, o) }
			} else if strings.Contains(kind, ":") { // as systems are compared
				if _, kind, args, err = systemText(kind); err != nil {
					return err
				}
			}
			got, err := swatches()
			if err != nil {
				return err
			}
			out := wire.SwatchPlanOf(got, by)
			return q.answer(cmd, out, func(w io.Writer) { surerTable(w, out) })
		},
	}
	q.flags(cmd)
	systemFlag(cmd, &kind)
	cmd.Flags().StringVar(&c.Spacing, "spacing", path.ByHue.String(), "steps by hue, by contrast, or equal parts: hue, contrast, parts")
	cmd.Flags().StringVar(&file, "readings", "", "CSV with the columns parts (PY184=8 PB29=1), L, a, b, state, of what was read of these paints")
	cmd.Flags().BoolVar(&ofBox, "of-box", false, "the paints are those of a box: swatches for every two of them")
	cmd.Flags().StringVar(&by, "by", string(paint.Photo), "what swatches are read by: eye, photo or instrument")
	return cmd
}

// boxSwatches are those for every two of some paints, with the usual white where there is none among them.
func boxSwatches(ids []string, spacing string, known tubes, o journal.SwatchOptions) (out journal.SwatchPlan, err error) {
	if o.Spacing, err = path.ParseSpacing(spacing); err != nil {
		return out, input.Wrap(err)
	}
	var box []*paint.Paint
	for _, id := range ids {
		p, err := known.find(id)
		if err != nil {
			return out, err
		}
		box = append(box, p)
	}
	// Of two whites the first is taken.
	return journal.PlanBoxSwatches(append(box, wheel.System{}.Rider(wheel.WhiteRider)), o)
}

// tubes are paints as readings have them, and what is not known of them.
type tubes struct {
	find   func(id string) (*paint.Paint, error)
	doubts certainty.Doubts
}

// learnedTubes are the paints of a file of readings as these tell them.
func learnedTubes(file string, in paint.Medium) (out tubes, err error) {
	samples, err := readSamples(file, in)
	if err != nil {
		return out, err
	}
	learned, err := journal.Learn(samples, in, journal.Sure{})
	if err != nil {
		return out, err
	}
	if learned.Joint == nil {
		return out, input.Errorf("%s", strings.Join(learned.Says(), " "))
	}
	tube, err := learned.Tubes()
	if err != nil {
		return out, err
	}
	out.find = func(id string) (*paint.Paint, error) {
		p, err := paint.Find(id)
		if err == nil && tube[p.ID] != nil {
			p = tube[p.ID]
		}
		return p, err
	}
	out.doubts = learned.Doubts(certainty.Usual)
	return out, nil
}

func surerTable(w io.Writer, out wire.SwatchPlan) {
	fmt.Fprintf(w, "now\tknown to %.0f %%\n", 100*out.KnownTo)
	if len(out.Swatches) == 0 {
		fmt.Fprintln(w, "no swatch tells more")
	}
	for _, s := range out.Swatches {
		fmt.Fprintf(w, "%s\tknown to %.0f %%\n", s.Says, 100*s.KnownTo)
	}
}
