package reach

import (
	"cmp"
	"context"
	"slices"

	"gyrophane/core/paint"
)

// News are the paints of the library that a box has not.
func News(box []*paint.Paint) (out []*paint.Paint) {
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

// Bought is a paint that would let the best system reach more hues cleanly.
type Bought struct {
	Paint *paint.Paint
	Clean float64 // share of the circle, 0 to 1, with it
	Gain  float64 // more than without it
}

// BuyNext are the paints which, each added by itself to those a wish chooses
// among, let the best system reach more of the circle cleanly than it does: the
// one that adds most first. All of them must be in the table.
func (t *Table) BuyNext(ctx context.Context, w Wish, paints []*paint.Paint) (out []Bought, err error) {
	tell := w.Tell
	w.Most, w.Tell = 1, nil
	without, err := t.Best(ctx, w)
	if err != nil {
		return nil, err
	}
	for i, p := range paints {
		tell.hears(AtPaints, i, len(paints))
		with := w
		with.Among = append(slices.Clone(w.Among), p.ID)
		best, err := t.Best(ctx, with)
		if err != nil {
			return nil, err
		}
		clean := best[0].Reach.Clean()
		if gain := clean - without[0].Reach.Clean(); gain > 0 {
			out = append(out, Bought{p, clean, gain})
		}
	}
	slices.SortStableFunc(out, func(a, b Bought) int { return cmp.Compare(b.Gain, a.Gain) })
	return out, nil
}
