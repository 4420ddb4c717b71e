package reach

import (
	"cmp"
	"context"
	"errors"
	"slices"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// NotIn are the paints of the library that a box has not.
func NotIn(box []*paint.Paint) (out []*paint.Paint) {
	for _, p := range paint.Library() {
		if !has(box, p) {
			out = append(out, p)
		}
	}
	return out
}

// has says that there is a paint among some: itself, or a tube of the same
// pigment under the same name.
func has(paints []*paint.Paint, p *paint.Paint) bool {
	return slices.ContainsFunc(paints, func(q *paint.Paint) bool { return q.ID == p.ID || q.CI == p.CI && q.Name == p.Name })
}

// Purchase is a paint that would let the best system reach more hues cleanly or,
// where it reaches all, more brightly.
type Purchase struct {
	Paint    *paint.Paint
	System   wheel.System // the best with it,
	Reach    Reach        // and its reach
	Gain     float64      // more of the circle reached cleanly than without it, 0 to 1
	MeanGain float64      // more mean brightness than without it
}

// leastGain is the share of the circle that a paint must bring to be worth buying or, where all is clean
// already, the mean brightness, 0 to 1.
const leastGain = 0.005

// Hues says that it brings clean hues, and not brightness alone.
func (p Purchase) Hues() bool { return p.Gain >= leastGain }

// BuyNext are the paints which, each added by itself to those a criteria chooses
// among, let the best system reach more of the circle cleanly than it does or,
// where it reaches all of it, more brightly: the one that adds most first. All of
// them must be in the table. Only systems with
// the added paint in them are looked at: the others are known.
func (t *Table) BuyNext(ctx context.Context, w Criteria, paints []*paint.Paint) (out []Purchase, err error) {
	report := w.Report
	w.Most, w.Report = 1, nil
	without, err := t.Best(ctx, w)
	if err != nil {
		return nil, err
	}
	had := without[0].Reach
	for i, p := range paints {
		report.send(PaintsStage, i, len(paints))
		with := w
		with.Among = append(slices.Clone(w.Among), p.ID)
		with.Contains = append(slices.Clone(w.Contains), p.ID)
		best, err := t.Best(ctx, with)
		var many TooMany
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case errors.As(err, &many):
			return nil, err
		case err != nil:
			continue // it finds no place in such a system
		}
		one := Purchase{Paint: p, System: best[0].System, Reach: best[0].Reach, Gain: best[0].Reach.Clean() - had.Clean(), MeanGain: best[0].Reach.Mean() - had.Mean()}
		if one.Hues() || had.Clean() == 1 && one.Gain > -leastGain && one.MeanGain >= leastGain {
			out = append(out, one)
		}
	}
	slices.SortStableFunc(out, func(a, b Purchase) int {
		return cmp.Or(cmp.Compare(b.Gain, a.Gain), cmp.Compare(b.MeanGain, a.MeanGain))
	})
	return out, nil
}
