package path

import (
	"math"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// QuietWay is one way to cool or dull a colour.
type QuietWay string

// The ways: by the paint across the circle, by a cooler neighbour, and by an
// earth raised to the same lightness.
const (
	ByComplement QuietWay = "complement"
	ByNeighbour  QuietWay = "neighbour"
	ByEarth      QuietWay = "earth"
)

// QuietWays are all of them.
var QuietWays = []QuietWay{ByComplement, ByNeighbour, ByEarth}

// Fittest is the paint that a way takes for a colour, nil when none is fit.
func (w QuietWay) Fittest(m *paint.Mixture, among []*paint.Paint) *paint.Paint {
	switch w {
	case ByComplement:
		return ComplementOf(m.Undertone(), among)
	case ByNeighbour:
		return NeighbourOf(m.Undertone(), among)
	}
	return EarthFor(m, among)
}

// Losses are the shares of chroma (0 to 1) that a colour is quietened by, and
// turns the degrees on the painter's circle that it is cooled by where a paint
// takes none of it.
var (
	Losses = []float64{0.2, 0.4, 0.6, 0.8}
	turns  = []float64{15, 30, 45, 60}
)

// Quieted is a colour with something in it that quietens it, and what that did
// to it, brushed out.
type Quieted struct {
	Step
	Lost    float64 // share of its chroma, 0 to 1
	Turned  float64 // degrees on the painter's circle, -180 to 180; 0 where there is too little chroma to tell
	Lighter float64 // OKLab lightness, negative when darker
}

// Quieten adds another paint to a colour until it has lost each of the Losses of
// its chroma, brushed out: the first place on the way where it has, as far as
// they can be lost so. A paint that takes none of the chroma may still cool:
// then the rungs stand where the hue has turned by 15, 30, 45 and 60 degrees on
// the painter's circle, and cools says so.
func Quieten(of, with *paint.Paint) (rungs []Quieted, cools bool) {
	p := New(of, with)
	start := p.Samples[0].Brushed
	for _, loss := range Losses {
		want := start.Chroma() * (1 - loss)
		if t, ok := p.first(func(c colour.OKLab) bool { return c.Chroma() <= want }); ok {
			rungs = append(rungs, p.quieted(start, t))
		}
	}
	if len(rungs) > 0 {
		return rungs, false
	}
	for _, turn := range turns {
		if t, ok := p.first(func(c colour.OKLab) bool { return math.Abs(turned(start, c)) >= turn }); ok {
			rungs = append(rungs, p.quieted(start, t))
		}
	}
	return rungs, true
}

// first is the share at which a path first fulfils something, brushed out.
func (p *Path) first(holds func(colour.OKLab) bool) (share float64, ok bool) {
	for i := 1; i < len(p.Samples); i++ {
		if !holds(p.Samples[i].Brushed) {
			continue
		}
		low, high := p.Samples[i-1].Share, p.Samples[i].Share
		for range 30 {
			mid := (low + high) / 2
			if m := p.At(mid); holds(m.BrushedOutColour()) {
				high = mid
			} else {
				low = mid
			}
		}
		return high, true
	}
	return 0, false
}

// quieted is what stands at a share, in parts, beside where the path began.
func (p *Path) quieted(start colour.OKLab, share float64) Quieted {
	q := Quieted{Step: p.step(p.Parts(share))}
	q.Lost = 1 - q.Brushed.Chroma()/start.Chroma()
	q.Lighter = q.Brushed.L - start.L
	q.Turned = turned(start, q.Brushed)
	return q
}

// turned is by how many degrees on the painter's circle one colour lies from
// another, -180 to 180; 0 where one of them is too grey to tell.
func turned(from, to colour.OKLab) float64 {
	if from.Chroma() < colour.NeutralChroma || to.Chroma() < colour.NeutralChroma {
		return 0
	}
	return colour.TurnBetween(colour.WheelHue(from.OKLCh().H), colour.WheelHue(to.OKLCh().H))
}

// Where a neighbour is looked for: so many degrees on the painter's circle
// away, on the way to blue, the coolest; and how far from straight across a
// complement may stand.
const (
	nearestNeighbour, farthestNeighbour = 25, 130
	coolest                             = 240
	offAcross                           = 60
)

// ComplementOf is the paint whose undertone stands most nearly across the
// painter's circle from a colour's, or nil when none does within 60 degrees.
func ComplementOf(u paint.Undertone, among []*paint.Paint) *paint.Paint {
	return leastBy(among, func(p *paint.Paint) float64 {
		off := math.Abs(colour.TurnBetween(u.WheelHue+180, p.Undertone().WheelHue))
		if off > offAcross || !coloured(p) {
			return math.Inf(1)
		}
		return off
	})
}

// NeighbourOf is the nearest paint 25 to 130 degrees away on the painter's
// circle on the side of blue, which cools it; nil when there is none.
func NeighbourOf(u paint.Undertone, among []*paint.Paint) *paint.Paint {
	toBlue := colour.TurnBetween(u.WheelHue, coolest)
	return leastBy(among, func(p *paint.Paint) float64 {
		turn := colour.TurnBetween(u.WheelHue, p.Undertone().WheelHue)
		if (turn > 0) != (toBlue > 0) || math.Abs(turn) < nearestNeighbour || math.Abs(turn) > farthestNeighbour || !coloured(p) {
			return math.Inf(1)
		}
		return math.Abs(turn)
	})
}

// EarthFor is the earth nearest in hue to a colour, raised with white to its
// brushed-out lightness where it is darker; nil when there is none.
func EarthFor(m *paint.Mixture, among []*paint.Paint) *paint.Paint {
	u := m.Undertone()
	earth := leastBy(among, func(p *paint.Paint) float64 {
		if p.Family != "earth" {
			return math.Inf(1)
		}
		return math.Abs(colour.TurnBetween(u.WheelHue, p.Undertone().WheelHue))
	})
	if earth == nil {
		return nil
	}
	raised, _ := recipe.Raise(earth, paint.White(), m.BrushedOut().Lab().L)
	return raised
}

func coloured(p *paint.Paint) bool {
	return p.Family != "earth" && p.Undertone().HasHue() && bias.FamilyOf(p) != "black" && bias.FamilyOf(p) != "white"
}

// leastBy is the paint with the least of some measure, nil when all are infinite.
func leastBy(paints []*paint.Paint, measure func(*paint.Paint) float64) (best *paint.Paint) {
	least := math.Inf(1)
	for _, p := range paints {
		if v := measure(p); v < least {
			best, least = p, v
		}
	}
	return best
}
