package reach

import (
	"cmp"
	"context"
	"errors"
	"slices"

	"gyrophane/core/paint"
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

// Purchase is a paint that would let the best system reach more hues cleanly.
type Purchase struct {
	Paint *paint.Paint
	Clean float64 // share of the circle, 0 to 1, with it
	Gain  float64 // more than without it
}

// BuyNext are the paints which, each added by itself to those a criteria chooses
// among, let the best system reach more of the circle cleanly than it does: the
// one that adds most first. All of them must be in the table. Only systems with
// the added paint in them are looked at: the others are known.
func (t *Table) BuyNext(ctx context.Context, w Criteria, paints []*paint.Paint) (out []Purchase, err error) {
	report := w.Report
	w.Most, w.Report = 1, nil
	without, err := t.Best(ctx, w)
	if err != nil {
		return nil, err
	}
	had := without[0].Reach.Clean()
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
		if clean := best[0].Reach.Clean(); clean > had {
			out = append(out, Purchase{p, clean, clean - had})
		}
	}
	slices.SortStableFunc(out, func(a, b Purchase) int { return cmp.Compare(b.Gain, a.Gain) })
	return out, nil
}
