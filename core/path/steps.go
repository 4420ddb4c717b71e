package path

import (
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Spacing is the school by which steps are set along a path.
type Spacing uint8

// By hue: equal turns of the undertone's wheel hue. By contrast: equal OKLab
// arc of the brushed-out colour. Parts: equal parts by volume.
const (
	ByHue Spacing = iota
	ByContrast
	EqualParts
)

// Spacings lists them.
var Spacings = []Spacing{ByHue, ByContrast, EqualParts}

var spacingNames = [...]string{"hue", "contrast", "parts"}

// String is "hue", "contrast" or "parts".
func (s Spacing) String() string { return spacingNames[s] }

// ParseSpacing reads "hue", "contrast" or "parts".
func ParseSpacing(name string) (Spacing, error) {
	for i, n := range spacingNames {
		if strings.EqualFold(n, name) {
			return Spacing(i), nil
		}
	}
	return 0, input.Errorf("unknown spacing %q: choose hue, contrast or parts", name)
}

// MostSteps is the most inner steps a path is divided by.
const MostSteps = 11

// Step is one place on a path, with parts a brush can do. Its mixture is that
// of the parts.
type Step struct {
	Ratio
	Mixture paint.Mixture
	Under   paint.Undertone
	Brushed colour.OKLab
}

// Along is how far each sample lies along the path, 0 to 1, in the measure of
// a spacing; it may run back where the hue does.
func (p *Path) Along(s Spacing) []float64 {
	out := make([]float64, len(p.Samples))
	end := p.Samples[len(p.Samples)-1]
	for i, at := range p.Samples {
		switch {
		case s == EqualParts || end.Arc == 0:
			out[i] = at.Share
		case s == ByHue && p.turns:
			out[i] = at.Turn / end.Turn
		default:
			out[i] = at.Arc / end.Arc
		}
	}
	return out
}

// Reached is Along without its turns back: how far a path has come by each
// sample, 0 to 1, never falling.
func (p *Path) Reached(s Spacing) []float64 {
	out, far := p.Along(s), 0.0
	for i, at := range out {
		far = max(far, min(1, at))
		out[i] = far
	}
	return out
}

// ReachedAt is how far a path has come, 0 to 1, at a share of the second paint.
func (p *Path) ReachedAt(share float64, s Spacing) float64 {
	reached := p.Reached(s)
	for i := 1; i < len(reached); i++ {
		if from, to := p.Samples[i-1].Share, p.Samples[i].Share; share <= to {
			f := max(0, (share-from)/(to-from))
			return reached[i-1] + f*(reached[i]-reached[i-1])
		}
	}
	return 1
}

// Ratios are ratios of the first paint to the second that a hand can count, from
// one end of a path to the other.
var Ratios = [][2]int{{19, 1}, {9, 1}, {4, 1}, {2, 1}, {1, 1}, {1, 2}, {1, 4}, {1, 9}, {1, 19}}

// ShareAt is the share of the second paint at which a path has gone a
// fraction (0 to 1) of its way, in the measure of a spacing: where it gets
// there first.
func (p *Path) ShareAt(fraction float64, s Spacing) float64 {
	along := p.Along(s)
	for i := 1; i < len(along); i++ {
		if along[i] < fraction {
			continue
		}
		from, to := p.Samples[i-1].Share, p.Samples[i].Share
		if along[i] <= along[i-1] {
			return to
		}
		f := (fraction - along[i-1]) / (along[i] - along[i-1])
		return from + max(0, min(1, f))*(to-from)
	}
	return 1
}

// Steps divides the path by n inner steps (1 to 11). Where the paints are no
// different, every step is the first paint.
func (p *Path) Steps(n int, s Spacing) []Step {
	steps := make([]Step, n)
	for i := range steps {
		if p.Indistinguishable() {
			steps[i] = p.step(p.pure(0))
			continue
		}
		var r Ratio
		if s == EqualParts {
			r = p.plain([2]int{n - i, i + 1})
		} else {
			r = p.Parts(p.ShareAt(float64(i+1)/float64(n+1), s))
		}
		steps[i] = p.step(r)
	}
	return steps
}

// alike is the OKLab distance of brushed-out colours under which two steps look the same.
const alike = 0.02

// SectionSteps are the three inner steps of a section. The secondary stands half way; where a tertiary
// that was set by hue would have its neighbour's recipe, or its look, both tertiaries stand half way to
// the eye (by equal arc) between it and the ends instead, which byArc says.
func (p *Path) SectionSteps(s Spacing) (steps []Step, byArc bool) {
	steps = p.Steps(3, s)
	if s != ByHue || p.Indistinguishable() {
		return steps, false
	}
	if p.apart(steps) {
		return steps, false
	}
	along := p.arcAt(steps[1].Share)
	out := []Step{
		p.step(p.Parts(p.ShareAt(along/2, ByContrast))), steps[1], p.step(p.Parts(p.ShareAt((1+along)/2, ByContrast))),
	}
	return out, true
}

// SectionShare is the share of the second paint at one of a section's inner steps, 1 to 3, before it is counted in parts;
// byArc as SectionSteps says it.
func (p *Path) SectionShare(step int, s Spacing, byArc bool) float64 {
	if step == 2 || !byArc {
		return p.ShareAt(float64(step)/4, s)
	}
	middle := p.arcAt(p.ShareAt(0.5, s))
	if step == 1 {
		return p.ShareAt(middle/2, ByContrast)
	}
	return p.ShareAt((1+middle)/2, ByContrast)
}

// apart says that no two neighbours among steps and the ends of the path are alike.
func (p *Path) apart(steps []Step) bool {
	before := p.step(p.pure(0))
	for _, at := range append(slices.Clone(steps), p.step(p.pure(1))) {
		if before.Parts.String() == at.Parts.String() || before.Brushed.Distance(at.Brushed) < alike {
			return false
		}
		before = at
	}
	return true
}

// arcAt is how far along its arc a path is at a share, 0 to 1.
func (p *Path) arcAt(share float64) float64 {
	along := p.Along(ByContrast)
	for i := 1; i < len(along); i++ {
		if from, to := p.Samples[i-1].Share, p.Samples[i].Share; share <= to {
			f := max(0, (share-from)/max(to-from, 1e-12))
			return along[i-1] + f*(along[i]-along[i-1])
		}
	}
	return 1
}

// Middle is the secondary: the step half way.
func (p *Path) Middle(s Spacing) Step { return p.Steps(1, s)[0] }

func (p *Path) step(r Ratio) Step {
	m := p.At(r.Share)
	return Step{r, m, m.Undertone(), m.BrushedOutColour()}
}

// Lowest is the least retention between two shares.
func (p *Path) Lowest(from, to float64) float64 {
	low := 1.0
	for _, t := range []float64{from, to} {
		m := p.At(t)
		low = min(low, m.Undertone().Retention)
	}
	for _, s := range p.Samples {
		if s.Share > from && s.Share < to {
			low = min(low, s.Under.Retention)
		}
	}
	return low
}

// Stretch is an unbroken part of a path.
type Stretch struct {
	From, To         float64 // shares of the second paint
	FromWord, ToWord string  // hue words at its ends
	Lowest           float64 // least retention in it
}

// Mud lists the stretches whose verdict is muddy.
func (p *Path) Mud() []Stretch {
	return p.stretches(func(v paint.Verdict) bool { return v == paint.Muddy })
}

// Dull lists the stretches whose verdict is softened or worse.
func (p *Path) Dull() []Stretch {
	return p.stretches(func(v paint.Verdict) bool { return v == paint.Muddy || v == paint.Softened })
}

func (p *Path) stretches(in func(paint.Verdict) bool) []Stretch {
	var out []Stretch
	if p.Indistinguishable() {
		return out
	}
	open := false
	for _, s := range p.Samples {
		switch {
		case !in(s.Under.Verdict):
			open = false
			continue
		case !open:
			out = append(out, Stretch{From: s.Share, FromWord: s.Under.HueWord(), Lowest: 1})
			open = true
		}
		now := &out[len(out)-1]
		now.To, now.ToWord = s.Share, s.Under.HueWord()
		now.Lowest = min(now.Lowest, s.Under.Retention)
	}
	return out
}
