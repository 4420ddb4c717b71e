package recipe

import (
	"math"

	"gyrophane/core/paint"
)

// Raise adds a white to a paint until its brushed-out lightness L* is that asked
// for, or as near as the white brings it, in countable parts: the mixture taken
// for a paint, and whether it had to be raised at all.
func Raise(p, white *paint.Paint, lightness float64) (*paint.Paint, bool) {
	alone, with := p.Alone(), white.Alone()
	brushed := func(m *paint.Mixture) float64 {
		s := m.BrushedOut()
		return s.Lab().L
	}
	if alone.Neutral() || brushed(&alone) >= lightness {
		return p, false
	}
	off := func(share float64) float64 {
		m := paint.Between(&alone, &with, share)
		return math.Abs(brushed(&m) - lightness)
	}
	parts, _ := Search{Share: paint.ShareOfWhite(&alone, &with, lightness, brushed), Within: paint.AsLight, Off: off}.Ratio()
	raised, err := OfTwo(p, white, parts).Stir(p.ID+"+white", p.Name+" raised with white")
	if err != nil {
		return p, false // the parts are whole numbers above 0
	}
	raised.CI, raised.Family = p.CI, p.Family
	return raised, true
}
