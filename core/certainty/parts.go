package certainty

import (
	"fmt"
	"math"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Ratio is parts of a path's first paint to parts of its second.
type Ratio [2]int

// String is "13 : 1".
func (r Ratio) String() string { return fmt.Sprintf("%d : %d", r[0], r[1]) }

// letDown is a ratio of two paints in which an ingredient's paint is let down in the other: parts of that to parts of the let-down,
// in the order of the paints; false where it is not let down so, or the let-down itself holds too little.
func (r Ratio) letDown(i recipe.Ingredient, a, b *paint.Paint) (out Ratio, ok bool) {
	main, strong := float64(r[0]), float64(r[1])
	first := i.Paint == a
	if first {
		main, strong = strong, main
	}
	if i.In == nil || !first && i.Paint != b || first && i.In != b || !first && i.In != a {
		return r, false
	}
	// A let-down of n parts holds n / (thin + 1) of the paint, and the rest is of the other.
	of := strong * float64(i.Thin+1)
	rest := main - strong*float64(i.Thin)
	if rest <= 0 {
		return r, false
	}
	if out = counted(math.Log(of / rest)); first {
		out = Ratio{out[1], out[0]}
	}
	return out, true
}

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
