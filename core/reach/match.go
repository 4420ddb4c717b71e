// Package reach asks what a set of paints can come to: the recipe nearest to a
// wanted colour.
package reach

import (
	"cmp"
	"errors"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/internal/ratio"
	"gyrophane/core/paint"
)

// Match is a recipe for a wanted colour.
type Match struct {
	Parts   []paint.Part // whole parts, at most 40 in all, the most first
	Mixture paint.Mixture
	Lab     colour.Lab // as painted, under D65
	// DE is CIEDE2000 to the wanted colour under D65.
	DE float64
}

const (
	mostPaints = 4  // of a recipe
	mostParts  = 40 // in all
	trace      = 0.002
)

// Nearest finds the recipe of at most 4 of the paints whose colour as painted
// in a medium, dry, comes nearest to a wanted CIELAB colour (D65) in CIEDE2000.
// It starts from each paint and each pair, adds the paint that helps most as
// long as one does, and then looks for whole parts.
func Nearest(want colour.Lab, paints []*paint.Paint, in paint.Medium) (Match, error) {
	if len(paints) == 0 {
		return Match{}, errors.New("there are no paints to match the colour with")
	}
	s := search{want: want, paints: paints, in: in}
	best := s.beginnings()
	for i := range best {
		for len(best[i].of) < mostPaints {
			next, better := s.add(best[i])
			if !better {
				break
			}
			best[i] = next
		}
	}
	slices.SortFunc(best, func(a, b trial) int { return cmp.Compare(a.miss, b.miss) })
	var out Match
	out.DE = math.Inf(1)
	for _, t := range best[:min(3, len(best))] {
		if m := s.whole(t); m.DE < out.DE-0.05 {
			out = m
		}
	}
	return out, nil
}

type search struct {
	want   colour.Lab
	paints []*paint.Paint
	in     paint.Medium
}

// trial is some paints by index, their shares, and how far they miss.
type trial struct {
	of    []int
	share []float64
	miss  float64
}

func (s *search) parts(of []int, share []float64) []paint.Part {
	var out []paint.Part
	for i, at := range of {
		out = append(out, paint.Part{Paint: s.paints[at], Parts: share[i]})
	}
	return out
}

func (s *search) look(parts []paint.Part) (paint.Mixture, colour.Lab) {
	m, err := paint.Mix(parts...)
	if err != nil {
		return m, colour.Lab{L: math.Inf(1)}
	}
	r := m.AsPainted(s.in, false)
	return m, r.Lab()
}

func (s *search) miss(of []int, share []float64) float64 {
	_, lab := s.look(s.parts(of, share))
	return colour.Difference(s.want, lab)
}

// beginnings are the six best single paints and pairs.
func (s *search) beginnings() []trial {
	var all []trial
	for i := range s.paints {
		all = append(all, trial{[]int{i}, []float64{1}, s.miss([]int{i}, []float64{1})})
		for j := range i {
			of, best := []int{j, i}, trial{miss: math.Inf(1)}
			for _, t := range []float64{0.01, 0.03, 0.1, 0.25, 0.5, 0.75, 0.9, 0.97, 0.99} {
				if d := s.miss(of, []float64{1 - t, t}); d < best.miss {
					best = trial{of, []float64{1 - t, t}, d}
				}
			}
			all = append(all, best)
		}
	}
	slices.SortFunc(all, func(a, b trial) int { return cmp.Compare(a.miss, b.miss) })
	all = all[:min(6, len(all))]
	for i := range all {
		all[i] = s.settle(all[i])
	}
	return all
}

// add takes the paint into a trial that helps most; better says that one does.
func (s *search) add(t trial) (best trial, better bool) {
	best = t
	for i := range s.paints {
		if slices.Contains(t.of, i) {
			continue
		}
		share := make([]float64, len(t.share)+1)
		for n, v := range t.share {
			share[n] = v * 0.95
		}
		share[len(t.share)] = 0.05
		next := s.settle(trial{append(slices.Clone(t.of), i), share, math.Inf(1)})
		if next.miss < best.miss-0.1 {
			best, better = next, true
		}
	}
	return best, better
}

// settle moves the shares in shrinking logarithmic strides until nothing helps.
func (s *search) settle(t trial) trial {
	if len(t.of) < 2 {
		return t
	}
	t.miss = s.miss(t.of, t.share)
	for stride := 1.5; stride > 0.004; {
		moved := false
		for i := range t.share {
			for _, by := range []float64{math.Exp(stride), math.Exp(-stride)} {
				next := slices.Clone(t.share)
				next[i] *= by
				var sum float64
				for _, v := range next {
					sum += v
				}
				for n := range next {
					next[n] /= sum
				}
				if slices.Min(next) < trace {
					continue
				}
				if d := s.miss(t.of, next); d < t.miss {
					t.share, t.miss, moved = next, d, true
				}
			}
		}
		if !moved {
			stride /= 2
		}
	}
	return t
}

// whole finds whole parts near a trial's shares, small numbers before a
// difference nobody sees.
func (s *search) whole(t trial) Match {
	best := Match{DE: math.Inf(1)}
	worth := math.Inf(1)
	for total := len(t.of); total <= mostParts; total++ {
		counts := make([]float64, len(t.of))
		for i, v := range t.share {
			counts[i] = math.Round(v * float64(total))
		}
		var of []int
		var share []float64
		for i, n := range counts {
			if n > 0 {
				of, share = append(of, t.of[i]), append(share, n)
			}
		}
		if len(of) == 0 {
			continue
		}
		parts := s.parts(of, share)
		m, lab := s.look(parts)
		d := colour.Difference(s.want, lab)
		if w := d + 0.03*float64(total); w < worth {
			worth = w
			best = Match{parts, m, lab, d}
		}
	}
	g := 0
	for _, p := range best.Parts {
		g = ratio.GCD(g, int(p.Parts))
	}
	for i := range best.Parts {
		best.Parts[i].Parts /= float64(g)
	}
	slices.SortStableFunc(best.Parts, func(a, b paint.Part) int { return cmp.Compare(b.Parts, a.Parts) })
	return best
}
