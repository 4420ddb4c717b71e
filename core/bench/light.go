package bench

import (
	"fmt"
	"slices"

	"gyrophane/core/recipe"
)

// lighter is by how much L* a mixture is lighter than another to be called so.
const lighter = 5

// lightness is L* of each counted mixture, brushed out.
func lightness(counted []recipe.Counted) (out []float64) {
	for i := range counted {
		seen := counted[i].Mixture.BrushedOut()
		out = append(out, seen.Lab().L)
	}
	return out
}

// darkFirst is how many pairs of an order have the darker before the lighter.
func darkFirst(order []int, light []float64) (n int) {
	for at, i := range order {
		for _, j := range order[at+1:] {
			if light[j] > light[i]+lighter {
				n++
			}
		}
	}
	return n
}

// lightFirst is an order that takes no longer and washes no more, with lighter mixtures before darker
// ones as far as moving one or the other forward brings it; with two brushes it is left as it is.
func (p *problem) lightFirst(best *state, light []float64) *state {
	order := orderOf(best)
	if p.brushes > 1 || len(order) < 2 {
		return best
	}
	most := cost{best.t, best.washes}
	far := len(order)
	if far > searchedRegions {
		far = 3 // further than this takes too long on large sheets
	}
	dark := darkFirst(order, light)
	for again := true; again; {
		again = false
		for to := range order {
			for from := to + 1; from < min(len(order), to+far); from++ {
				if light[order[from]] <= light[order[to]]+lighter {
					continue
				}
				tried := slices.Insert(slices.Delete(slices.Clone(order), from, from+1), to, order[from])
				n := darkFirst(tried, light)
				if n >= dark {
					continue
				}
				if other := p.follow(tried); other != nil && !most.less(cost{other.t, other.washes}) {
					best, order, dark, again = other, tried, n, true
				}
			}
		}
	}
	return best
}

// lateLight says why the lightest mixture comes late, where it does: what it would cost if it came first.
func (out *Plan) lateLight(p *problem, best *state, light []float64) string {
	order := orderOf(best)
	lightest := slices.MaxFunc(order, func(a, b int) int {
		switch {
		case light[a] < light[b]:
			return -1
		case light[a] > light[b]:
			return 1
		}
		return b - a
	})
	at := slices.Index(order, lightest)
	if p.brushes > 1 || at <= len(order)/3 {
		return ""
	}
	label := out.Sheet.Regions[lightest].Label
	first := p.follow(slices.Insert(slices.Delete(slices.Clone(order), at, at+1), 0, lightest))
	switch {
	case first == nil:
		return fmt.Sprintf("Light before dark, but for %s, which cannot come first.", label)
	case cost{first.t, 0}.whole() > cost{best.t, 0}.whole():
		return fmt.Sprintf("Light before dark, but for %s: first, it would take %d min longer.", label, cost{first.t, 0}.whole()-cost{best.t, 0}.whole())
	case first.washes > best.washes:
		return fmt.Sprintf("Light before dark, but for %s: first, it would take %d more washes.", label, first.washes-best.washes)
	}
	return ""
}
