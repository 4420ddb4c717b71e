package studio

import (
	"context"
	"slices"

	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// Expectations are what became of all that a painter expected.
type Expectations struct {
	Working bool // sittings are still being looked at: ask again
	Months  []journal.Month
	Eyes    []journal.Eye
	Each    []Became // the last ones, the newest first
}

// Became is one expectation, and what became of it.
type Became struct {
	journal.Judged
	Of               string // what was expected something of, in words
	Wheel            int64  // that the slot is of; 0 for a pairing
	HueSaid, HueCame string
}

// mostBecame is how many are listed one by one.
const mostBecame = 200

// Expectations join what a painter expected of slots, of pairings and in practice with what
// became of it: as it was computed that day or, where the slot was painted afterwards and
// it is known with what, as it was painted.
func (s *Studio) Expectations(ctx context.Context, painter store.Painter) (out Expectations, err error) {
	slots, pairs, err := s.store.Expectations(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	painted, working, err := s.paintedSince(ctx, painter)
	if err != nil {
		return out, err
	}
	out.Working = working
	wheels, err := s.store.Wheels(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	var all []journal.Judged
	for _, p := range slots {
		became := Became{Of: p.Outcome.Name, Wheel: p.WheelID, HueSaid: p.HueWord, HueCame: p.Outcome.HueWord}
		if k := slices.IndexFunc(wheels, func(w store.Wheel) bool { return w.ID == p.WheelID }); k >= 0 {
			became.Of += " of " + wheels[k].Name
		}
		one, err := judged(p.HueWord, p.Verdict, p.Outcome.Verdict)
		if err != nil {
			return out, err
		}
		one.At, one.Section, one.HueRight, one.VerdictRight = p.CreatedAt, wheel.SecondaryNames(wheel.RYB)[p.Home/4%3], p.Outcome.HueRight, p.Outcome.VerdictRight
		if k := slices.IndexFunc(painted, func(d paintedSlot) bool {
			return d.wheel == p.WheelID && d.home == p.Home && d.at.At.Equal(p.CreatedAt)
		}); k >= 0 {
			score := painted[k].at.Painted
			one.Painted, one.HueRight, one.VerdictRight, one.Came = true, score.HueRight, score.VerdictRight, painted[k].came.Verdict
			became.HueCame = painted[k].came.HueWord()
		}
		all = append(all, one)
		became.Judged = one
		out.Each = append(out.Each, became)
	}
	for _, g := range pairs {
		one, err := judged(g.Said.HueWord, g.Said.Verdict, g.Outcome.Verdict)
		if err != nil {
			return out, err
		}
		one.At, one.Section, one.HueRight, one.VerdictRight, one.Practice = g.CreatedAt, g.Section, g.Outcome.HueRight, g.Outcome.VerdictRight, g.RoundID != nil
		all = append(all, one)
		out.Each = append(out.Each, Became{Judged: one, Of: g.A + " with " + g.B, HueSaid: g.Said.HueWord, HueCame: g.Outcome.HueWord})
	}
	slices.SortStableFunc(out.Each, func(a, b Became) int { return b.At.Compare(a.At) })
	out.Each = out.Each[:min(len(out.Each), mostBecame)]
	out.Months, out.Eyes = journal.Months(all), journal.Eyes(all)
	return out, nil
}

func judged(hue, said, came string) (out journal.Judged, err error) {
	p, err := journal.ParsePrediction(hue, said)
	if err != nil {
		return out, err
	}
	out.Said = p.Verdict
	for _, v := range paint.Verdicts {
		if v.String() == came {
			out.Came = v
		}
	}
	return out, nil
}

// paintedSlot is a slot of a wheel that was expected, and painted with what is known.
type paintedSlot struct {
	wheel int64
	home  int
	at    *Expectation
	came  paint.Undertone
}

// paintedSince are the slots that were expected and then painted, of the last sittings that
// were read.
func (s *Studio) paintedSince(ctx context.Context, painter store.Painter) (out []paintedSlot, working bool, err error) {
	all, working, err := s.explainedBefore(ctx, painter, 0, "")
	for _, came := range all {
		for _, p := range came.Places {
			if p.Expected == nil || p.Expected.Painted == nil {
				continue
			}
			out = append(out, paintedSlot{came.Sitting.Wheel, came.Sitting.Plan.Sheet.Regions[p.Region].Home, p.Expected, p.Explained.Painted.Undertone()})
		}
	}
	return out, working, err
}
