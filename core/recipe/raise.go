package recipe

import (
	"math"

	"gyrophane/core/paint"
)

// mostWhite is the largest share of white that a paint is raised with.
const mostWhite = 0.999

// asLight is the difference in L* up to which two paints are as light.
const asLight = 0.5

// Raise adds a white to a paint until its brushed-out lightness L* is that asked
// for, or as near as the white brings it, in countable parts: the mixture taken
// for a paint, and whether it had to be raised at all.
func Raise(p, white *paint.Paint, lightness float64) (*paint.Paint, bool) {
	alone, with := p.Alone(), white.Alone()
	light := func(share float64) float64 {
		m := paint.Between(&alone, &with, share)
		return m.BrushedOut().Lab().L
	}
	if alone.Neutral() || light(0) >= lightness {
		return p, false
	}
	low, high := 0.0, mostWhite
	for range 40 {
		if mid := (low + high) / 2; light(mid) < lightness {
			low = mid
		} else {
			high = mid
		}
	}
	parts, _ := Search{Share: high, Within: asLight, Off: func(share float64) float64 { return math.Abs(light(share) - lightness) }}.Ratio()
	raised, err := OfTwo(p, white, parts).Stir(p.ID+"+white", p.Name+" raised with white")
	if err != nil {
		return p, false // the parts are whole numbers above 0
	}
	raised.CI, raised.Family = p.CI, p.Family
	return raised, true
}
