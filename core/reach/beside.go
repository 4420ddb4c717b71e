package reach

import (
	"fmt"
	"math"

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

// Coverages and brightnesses that differ by less than these are about the same.
const (
	sameCoverage   = 0.05
	sameBrightness = 0.05
)

// Decide says in a sentence which of two systems or more reaches furthest, what the next
// has for it, and with how many tubes; of one system what it reaches.
func Decide(systems []Compared) string {
	if len(systems) < 2 {
		return systems[0].Reach.Sentence(systems[0].Name)
	}
	first, second := Leading(systems)
	best, next := systems[first], systems[second]
	percent := func(share float64) string { return fmt.Sprintf("%.0f %%", 100*share) }
	var says string
	switch by := best.Reach.Mean() - next.Reach.Mean(); {
	case math.Abs(best.Reach.Clean()-next.Reach.Clean()) >= sameCoverage:
		says = fmt.Sprintf("%s reaches furthest: clean at %s of the hues, %s at %s", best.Name, percent(best.Reach.Clean()), next.Name, percent(next.Reach.Clean()))
	case by >= sameBrightness:
		says = fmt.Sprintf("%s and %s are clean at about as many hues (%s and %s), %s the brighter at most (%.2f to %.2f of the possible)", best.Name, next.Name, percent(best.Reach.Clean()), percent(next.Reach.Clean()), best.Name, best.Reach.Mean(), next.Reach.Mean())
	default:
		says = fmt.Sprintf("%s and %s reach about as far as each other: clean at %s and %s of the hues", best.Name, next.Name, percent(best.Reach.Clean()), percent(next.Reach.Clean()))
	}
	if a, b := len(best.System.Paints()), len(next.System.Paints()); a != b {
		says += fmt.Sprintf("; %s takes %d tubes, %s %d", best.Name, a, next.Name, b)
	}
	return says + "."
}

// Leading are the places of the system that reaches furthest, of two or more, and of the next: the one that is clean at the
// most hues, of those that are about alike in that the brightest.
func Leading(of []Compared) (best, next int) {
	furthest := func(but int) int {
		most := 0.0
		for i, s := range of {
			if i != but {
				most = max(most, s.Reach.Clean())
			}
		}
		at := -1
		for i, s := range of {
			if i != but && s.Reach.Clean() > most-sameCoverage && (at < 0 || s.Reach.Mean() > of[at].Reach.Mean()) {
				at = i
			}
		}
		return at
	}
	best = furthest(-1)
	return best, furthest(best)
}

// Words are the hue words between which a gap lies; empty without one.
func (g Gap) Words() (from, to string) {
	if g.Degrees == 0 {
		return "", ""
	}
	return colour.HueWord(g.From + Width/2), colour.HueWord(g.From + g.Degrees - Width/2)
}
