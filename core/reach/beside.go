package reach

import (
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// Named is a system with a name, and what tubes cost where that is known.
type Named struct {
	Name   string
	System wheel.System
	Prices map[string]float64 // by the id of a paint
}

// MostCompared is how many systems are laid beside each other at most.
const MostCompared = 4

// Compared is a system laid beside others.
type Compared struct {
	Named
	Metrics
	Price *float64 // of its tubes; nil where one is not known
}

// SideBySide lays up to four systems beside each other on the same footing, as
// painted in a medium and dry. The error is an input.Error.
func SideBySide(systems []Named, in paint.Medium) (out []Compared, err error) {
	if len(systems) == 0 || len(systems) > MostCompared {
		return nil, input.Errorf("one to %d systems are laid beside each other, not %d", MostCompared, len(systems))
	}
	for _, n := range systems {
		out = append(out, Compared{n, Measure(n.System, in), PriceOf(n.System.Paints(), n.Prices)})
	}
	return out, nil
}

// Words are the hue words between which a gap lies; empty without one.
func (g Gap) Words() (from, to string) {
	if g.Degrees == 0 {
		return "", ""
	}
	return colour.HueWord(g.From + Width/2), colour.HueWord(g.From + g.Degrees - Width/2)
}
