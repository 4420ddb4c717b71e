package certainty

import (
	"fmt"
	"math"

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

// Range is that of a step; false where its parts are not in doubt, or both ends are counted alike.
func (s *Step) Range() (Range, bool) {
	d := within80 * s.Deviation()
	if !s.known || d == 0 {
		return Range{}, false
	}
	out := Range{counted(s.Ratio - d), counted(s.Ratio + d)}
	return out, out.Less != out.More
}
