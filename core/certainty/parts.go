package certainty

import (
	"fmt"
	"math"

	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Ratio is parts of a path's first paint to parts of its second.
type Ratio [2]int

// String is "13 : 1".
func (r Ratio) String() string { return fmt.Sprintf("%d : %d", r[0], r[1]) }

// near is how far a counted ratio may lie from the end of a range, in the natural logarithm.
const near = 0.1

// counted are the fewest parts within a tenth of a ratio, of which ln is the natural logarithm of the second over the
// first; beyond what can be counted it is so many to 1.
func counted(ln float64) Ratio {
	for total := 2; total <= recipe.MostParts; total++ {
		best, off := Ratio{}, near
		for second := 1; second < total; second++ {
			r := Ratio{total - second, second}
			if d := math.Abs(math.Log(float64(second)/float64(total-second)) - ln); d <= off {
				best, off = r, d
			}
		}
		if best != (Ratio{}) {
			return best
		}
	}
	if ln < 0 {
		return Ratio{int(math.Round(math.Exp(-ln))), 1}
	}
	return Ratio{1, int(math.Round(math.Exp(ln)))}
}

// Range are the parts that most tubes ask for: 80 in 100 lie between. Less is the end with the least of the second
// paint, More that with the most.
type Range struct{ Less, More Ratio }

// Range is that of a step whose recipe has a ratio (its natural logarithm); false where its parts are not in doubt, or both
// ends are counted alike. The recipe lies within: the fewest parts that look like the step may lie farther off than tubes
// stray, where the way hardly changes.
func (s *Step) Range(recipe float64) (Range, bool) {
	d := within80 * s.Deviation()
	if !s.known || d == 0 {
		return Range{}, false
	}
	if math.IsNaN(recipe) || math.IsInf(recipe, 0) {
		recipe = s.Ratio // it is of no two
	}
	out := Range{counted(min(s.Ratio-d, recipe)), counted(max(s.Ratio+d, recipe))}
	return out, out.Less != out.More
}

// ratioOf is the natural logarithm of the ratio of a path's second paint to its first in a recipe of both.
func ratioOf(p *path.Path, r recipe.Recipe) float64 {
	var of [2]float64
	for _, part := range r.Plain() {
		switch part.Paint {
		case p.A:
			of[0] += part.Parts
		case p.B:
			of[1] += part.Parts
		}
	}
	return math.Log(of[1] / of[0])
}
