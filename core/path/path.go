// Package path is the way from one paint to another: samples along it, even
// steps, whole-number parts, and the stretches where it turns dull or muddy.
package path

import (
	"math"
	"sort"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

const (
	startSamples = 33
	mostSamples  = 257
)

// Sample is one mixture on the way.
type Sample struct {
	Share   float64 // of the second paint, by volume, 0 to 1
	Brushed colour.OKLab
	Under   paint.Undertone
	Arc     float64 // OKLab arc length of brushed-out colours from the first paint
	Turn    float64 // wheel hue turned since the first paint, degrees, signed; grey stretches bridged
}

// Path is the way from paint A to paint B.
type Path struct {
	A, B    *paint.Paint
	Samples []Sample // by rising share; 33 to 257 of them
	a, b    paint.Mixture
	turns   bool // whether the hue turns far enough to step by it
}

// New follows the mixtures from a to b, at shares even in the logit of the
// strength-weighted share and refined until neighbouring brushed-out colours
// differ by less than 0.02 in OKLab.
func New(a, b *paint.Paint) *Path {
	p := &Path{A: a, B: b, a: a.Alone(), b: b.Alone()}
	for _, t := range paint.Shares(startSamples, a.Strength(), b.Strength()) {
		p.Samples = append(p.Samples, p.brush(t))
	}
	p.refine()
	for i := range p.Samples {
		s := &p.Samples[i]
		m := p.At(s.Share)
		s.Under = m.Undertone()
		if i > 0 {
			before := &p.Samples[i-1]
			s.Arc = before.Arc + before.Brushed.Distance(s.Brushed)
		}
	}
	p.settle()
	p.turn()
	return p
}

// settle gives a sample that alone differs in verdict from both its neighbours
// theirs: a path does not turn muddy for less than a hand could measure.
func (p *Path) settle() {
	for i := 1; i < len(p.Samples)-1; i++ {
		before, after := p.Samples[i-1].Under.Verdict, p.Samples[i+1].Under.Verdict
		if here := &p.Samples[i].Under; before == after && before != paint.Neutral {
			here.Verdict = before
		}
	}
}

// At is the mixture with a share (0 to 1, by volume) of the second paint.
func (p *Path) At(share float64) paint.Mixture { return paint.Between(&p.a, &p.b, share) }

func (p *Path) brush(t float64) Sample {
	m := p.At(t)
	return Sample{Share: t, Brushed: m.BrushedOutColour()}
}

// refine halves every gap that is too wide, the widest first when there is no
// room for all.
func (p *Path) refine() {
	for len(p.Samples) < mostSamples {
		type gap struct {
			before int
			width  float64
		}
		var wide []gap
		for i := 1; i < len(p.Samples); i++ {
			if d := p.Samples[i-1].Brushed.Distance(p.Samples[i].Brushed); d >= recipe.NearEnough {
				wide = append(wide, gap{i, d})
			}
		}
		if len(wide) == 0 {
			return
		}
		if room := mostSamples - len(p.Samples); len(wide) > room {
			sort.Slice(wide, func(i, j int) bool { return wide[i].width > wide[j].width })
			wide = wide[:room]
			sort.Slice(wide, func(i, j int) bool { return wide[i].before < wide[j].before })
		}
		finer := make([]Sample, 0, len(p.Samples)+len(wide))
		from := 0
		for _, g := range wide {
			finer = append(finer, p.Samples[from:g.before]...)
			from = g.before
			finer = append(finer, p.brush(between(p.Samples[from-1].Share, p.Samples[from].Share)))
		}
		p.Samples = append(finer, p.Samples[from:]...)
	}
}

// between is half way between two shares in the logit; at the very ends, where
// the logit has no end, half way in volume.
func between(s, t float64) float64 {
	if s == 0 || t == 1 {
		return (s + t) / 2
	}
	odds := math.Sqrt(s / (1 - s) * t / (1 - t))
	return odds / (1 + odds)
}

// Length is the OKLab arc length of the brushed-out colours.
func (p *Path) Length() float64 { return p.Samples[len(p.Samples)-1].Arc }

// Indistinguishable says that the two paints cannot be told apart in a mixture.
func (p *Path) Indistinguishable() bool { return p.Length() < recipe.NearEnough }

// leastTurn is the turn of hue, in degrees on the painter's circle, below
// which steps by hue would follow noise: even contrast takes over.
const leastTurn = 5

// turn accumulates wheel hue from sample to sample by the shorter way, so that
// a path that goes the long way round is followed. Samples too grey to have a
// hue are skipped, and the gap is bridged in proportion to arc length. With a paint that has no
// hue nothing turns: its way is one of contrast.
func (p *Path) turn() {
	last := -1
	for i := range p.Samples {
		s := &p.Samples[i]
		if !s.Under.HasHue() {
			continue
		}
		if last >= 0 {
			from := &p.Samples[last]
			whole := colour.TurnBetween(from.Under.WheelHue, s.Under.WheelHue)
			for j := last + 1; j <= i; j++ {
				f := 1.0
				if span := s.Arc - from.Arc; span > 0 {
					f = (p.Samples[j].Arc - from.Arc) / span
				}
				p.Samples[j].Turn = from.Turn + f*whole
			}
		}
		last = i
	}
	if last < 0 {
		return
	}
	for j := last + 1; j < len(p.Samples); j++ {
		p.Samples[j].Turn = p.Samples[last].Turn
	}
	p.turns = !p.a.Neutral() && !p.b.Neutral() && math.Abs(p.Samples[len(p.Samples)-1].Turn) >= leastTurn
}
