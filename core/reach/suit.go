package reach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// TargetFit is a system, and how near it comes to some wanted colours.
type TargetFit struct {
	System  wheel.System
	DE      []float64 // CIEDE2000 to each, of the best four paints before their parts are made whole
	Reached int       // of them, within 3
	Mean    float64   // of the CIEDE2000
}

// ReachedWithin is the CIEDE2000 up to which a recipe passes for a wanted colour.
const ReachedWithin = 3

// mostTried is how many fours are brought near how many colours at most: ten
// seconds of work.
const mostTried = 100_000

// mostOfFours is how many paints fours are picked from at most: a set of them is
// the bits of a word.
const mostOfFours = 64

// NearestTo are the systems of a kind that come nearest to wanted colours (CIELAB,
// D65, as painted in a medium, dry): the most of them reached, then the least
// mean difference. Every four paints that can stand in one system together with
// the helpers (a white, a black) are matched once with every colour, and every
// system is looked at.
func (t *Table) NearestTo(ctx context.Context, w Criteria, helpers []*paint.Paint, wanted []colour.Lab, in paint.Medium) ([]TargetFit, error) {
	fill, err := t.fillings(w)
	if err != nil {
		return nil, err
	}
	if len(wanted) == 0 {
		return nil, errors.New("no colour is wanted: name some")
	}
	// The paints that may stand in a system come first, then the helpers.
	var all []*paint.Paint
	var role []int         // of each; -1 for a helper
	place := map[int]int{} // by the place in the table
	for k, list := range fill {
		for _, f := range list {
			for _, i := range [2]int{f.before, f.after} {
				if _, known := place[i]; !known {
					place[i] = len(all)
					all, role = append(all, t.paints[i]), append(role, k)
				}
			}
		}
	}
	var help []int
	for _, p := range helpers {
		help = append(help, len(all))
		all, role = append(all, p), append(role, -1)
	}
	if len(all) > mostOfFours {
		return nil, fmt.Errorf("fours of %d paints are too many to hold against wanted colours: choose from fewer paints", len(all)-len(help))
	}
	fours, at := foursOf(role, map[bool]int{true: 1, false: 2}[w.Kind == wheel.RYB])
	if len(fours)*len(wanted) > mostTried {
		return nil, fmt.Errorf("so many paints make %d fours to hold against %d wanted colours, too many: choose from fewer paints or want fewer colours", len(fours), len(wanted))
	}
	misses, err := matchAll(ctx, w, all, fours, wanted, in)
	if err != nil {
		return nil, err
	}

	type looked struct {
		fill    [3]filling
		de      []float64
		reached int
		mean    float64
	}
	var best []looked
	most := max(1, w.Most)
	keepBest := func() {
		slices.SortStableFunc(best, func(a, b looked) int {
			return cmp.Or(cmp.Compare(b.reached, a.reached), cmp.Compare(a.mean, b.mean))
		})
		best = best[:min(len(best), most)]
	}
	for _, y := range fill[0] {
		for _, r := range fill[1] {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			keepBest()
			for _, b := range fill[2] {
				c := looked{fill: [3]filling{y, r, b}, de: slices.Repeat([]float64{math.Inf(1)}, len(wanted))}
				palette := slices.Clone(help)
				for _, f := range c.fill {
					palette = append(palette, place[f.before])
					if f.after != f.before {
						palette = append(palette, place[f.after])
					}
				}
				eachFour(palette, func(set uint64) {
					for i, d := range misses[at[set]] {
						c.de[i] = min(c.de[i], d)
					}
				})
				for _, d := range c.de {
					c.mean += d / float64(len(wanted))
					if d <= ReachedWithin {
						c.reached++
					}
				}
				best = append(best, c)
			}
		}
	}
	keepBest()
	var out []TargetFit
	for _, c := range best {
		s, err := t.system(w.Kind, c.fill)
		if err != nil {
			return nil, err
		}
		out = append(out, TargetFit{s, c.de, c.reached, c.mean})
	}
	return out, nil
}

// foursOf are all fours of paints, of which the roles are given (-1 for a helper),
// that can stand in one system: of each role at most so many. At finds their place
// by the set of their paints.
func foursOf(role []int, mostOfRole int) (fours [][]int, at map[uint64]int) {
	at = map[uint64]int{}
	every := make([]int, len(role))
	for i := range every {
		every[i] = i
	}
	eachFour(every, func(set uint64) {
		var of []int
		var of3 [3]int
		for i := range role {
			if set>>i&1 == 1 {
				of = append(of, i)
				if role[i] >= 0 {
					if of3[role[i]]++; of3[role[i]] > mostOfRole {
						return
					}
				}
			}
		}
		at[set] = len(fours)
		fours = append(fours, of)
	})
	return fours, at
}

// eachFour visits every four of some paints, or all when there are fewer, as a
// set of bits.
func eachFour(paints []int, visit func(set uint64)) {
	if len(paints) <= mostPaints {
		var set uint64
		for _, i := range paints {
			set |= 1 << i
		}
		visit(set)
		return
	}
	for a := range paints {
		for b := range a {
			for c := range b {
				for d := range c {
					visit(1<<paints[a] | 1<<paints[b] | 1<<paints[c] | 1<<paints[d])
				}
			}
		}
	}
}

// matchAll brings every four near every wanted colour, several at once, until
// the context ends.
func matchAll(ctx context.Context, w Criteria, paints []*paint.Paint, fours [][]int, wanted []colour.Lab, in paint.Medium) ([][]float64, error) {
	var searches []*search
	for _, c := range wanted {
		searches = append(searches, newSearch(c, paints, in))
	}
	out := make([][]float64, len(fours))
	var workers errgroup.Group
	workers.SetLimit(max(1, w.Workers))
	for i := range fours {
		if ctx.Err() != nil {
			break
		}
		workers.Go(func() error {
			w.Report.send(RecipesStage, i, len(fours))
			for _, s := range searches {
				out[i] = append(out[i], s.four(fours[i]).miss)
			}
			return nil
		})
	}
	return out, errors.Join(workers.Wait(), ctx.Err())
}
