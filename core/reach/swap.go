package reach

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// Swap is one paint of a system replaced by another.
type Swap struct {
	Out, In *paint.Paint
	Reach   Reach // of the system with the other paint
}

// Swaps are for each paint of a system what replaces it best: the paint of the
// same role with which the system reaches the most hues cleanly, then the most
// on the whole; nothing that the system has already, from whichever tube. The
// best swap comes first; a paint without another that could stand for it is left
// out. It ends with the context.
func Swaps(ctx context.Context, s wheel.System, candidates []*paint.Paint) (out []Swap, err error) {
	better := func(a, b Reach) int {
		return cmp.Or(cmp.Compare(b.Clean(), a.Clean()), cmp.Compare(b.Mean(), a.Mean()))
	}
	there := s.Paints()
	for k, role := range s.Kind.Roles() {
		for _, p := range s.Role(k) {
			var best *Swap
			seen := map[uint64]bool{} // tubes of the same do the same
			for _, q := range candidates {
				if !role.Accepts(q) || has(there, q) || seen[q.Fingerprint()] {
					continue
				}
				seen[q.Fingerprint()] = true
				if err := ctx.Err(); err != nil {
					return nil, err
				}
				with, err := s.WithSwap(k, p, q)
				if err != nil {
					continue // it stands in the system already
				}
				if one := (Swap{p, q, OfSystem(with)}); best == nil || better(one.Reach, best.Reach) < 0 {
					best = &one
				}
			}
			if best != nil {
				out = append(out, *best)
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Swap) int { return better(a.Reach, b.Reach) })
	return out, nil
}

// SwapOf is one paint of a system, in whichever role, replaced by another of
// one's own choice.
func SwapOf(s wheel.System, out, in *paint.Paint) (Swap, error) {
	for k := range 3 {
		if !slices.ContainsFunc(s.Role(k), func(p *paint.Paint) bool { return p.ID == out.ID }) {
			continue
		}
		with, err := s.WithSwap(k, out, in)
		if err != nil {
			return Swap{}, err
		}
		return Swap{out, in, OfSystem(with)}, nil
	}
	return Swap{}, fmt.Errorf("the %s is not in this system, so nothing replaces it", out.Name)
}
