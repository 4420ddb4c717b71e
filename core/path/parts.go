package path

import (
	"math"
	"sort"

	"gyrophane/core/colour"
	"gyrophane/core/internal/ratio"
	"gyrophane/core/paint"
)

// mostParts is the largest total of parts a painter is asked to count.
const mostParts = 40

// Recipe is a mixture of a path's two paints in whole parts.
type Recipe struct {
	Share float64 // of the second paint that the parts come to, by volume
	// Parts are the ingredients in the order of the path: one, or two.
	Parts []Ingredient
}

// Ingredient is so many parts of a paint, or of its let-down.
type Ingredient struct {
	Paint *paint.Paint
	Parts int
	// In and Thin say that the paint is first let down: 1 part of it in Thin
	// parts (9 or 19) of In. In is nil for the paint itself.
	In   *paint.Paint
	Thin int
}

// Mixture is what the ingredient looks like by itself, its let-down mixed.
func (i Ingredient) Mixture() paint.Mixture {
	m := i.Paint.Alone()
	if i.In == nil {
		return m
	}
	in := i.In.Alone()
	return paint.Between(&in, &m, 1/float64(i.Thin+1))
}

// Parts are the smallest whole numbers, at most 40 in all, whose brushed-out
// colour lies within 0.02 OKLab of the mixture with that share (0 to 1) of the
// second paint. Where none does, the paint of which a trace is wanted is first
// let down, 1:9 or 1:19, in its partner.
func (p *Path) Parts(share float64) Recipe {
	switch share {
	case 0:
		return p.pure()
	case 1:
		return Recipe{Share: 1, Parts: []Ingredient{{Paint: p.B, Parts: 1}}}
	}
	at := p.At(share)
	want := at.Brushed()
	far := func(t float64) float64 {
		if rough := p.roughly(t); rough.Distance(want) > 1.25*nearEnough {
			return math.Inf(1)
		}
		m := p.At(t)
		return m.Brushed().Distance(want)
	}
	low, high := p.within(share)
	best, bestFar := Recipe{}, nearEnough
	for total := 2; total <= mostParts && best.Parts == nil; total++ {
		n := float64(total)
		for b := max(1, int(math.Ceil(low*n))); b <= min(total-1, int(math.Floor(high*n))); b++ {
			if ratio.GCD(total, b) > 1 {
				continue
			}
			if d := far(float64(b) / n); d <= bestFar {
				best, bestFar = p.plain(total-b, b), d
			}
		}
	}
	if best.Parts != nil {
		return best
	}
	if r, ok := p.letDown(share, low, high, far); ok {
		return r
	}
	// Less than 1 part in 800: nearer to an end than anyone can count.
	return p.Parts(math.Round(share))
}

func (p *Path) pure() Recipe {
	return Recipe{Share: 0, Parts: []Ingredient{{Paint: p.A, Parts: 1}}}
}

func (p *Path) plain(a, b int) Recipe {
	g := ratio.GCD(a, b)
	a, b = a/g, b/g
	return Recipe{
		Share: float64(b) / float64(a+b),
		Parts: []Ingredient{{Paint: p.A, Parts: a}, {Paint: p.B, Parts: b}},
	}
}

// letDown looks for parts of a let-down of the paint that is the lesser share.
func (p *Path) letDown(share, low, high float64, far func(float64) float64) (Recipe, bool) {
	strong, weak := p.B, p.A
	trace := func(t float64) float64 { return t }
	if share > 0.5 {
		strong, weak = p.A, p.B
		trace = func(t float64) float64 { return 1 - t }
		low, high = 1-high, 1-low
	}
	for _, thin := range []int{9, 19} {
		for total := 2; total <= mostParts; total++ {
			whole := float64(total * (thin + 1))
			for n := max(1, int(math.Ceil(low*whole))); n <= min(total-1, int(math.Floor(high*whole))); n++ {
				t := trace(float64(n) / whole)
				if ratio.GCD(total, n) > 1 || far(t) > nearEnough {
					continue
				}
				let := Ingredient{Paint: strong, Parts: n, In: weak, Thin: thin}
				rest := Ingredient{Paint: weak, Parts: total - n}
				if share > 0.5 {
					return Recipe{t, []Ingredient{let, rest}}, true
				}
				return Recipe{t, []Ingredient{rest, let}}, true
			}
		}
	}
	return Recipe{}, false
}

// roughly is the brushed-out colour between the two samples around a share,
// which are less than 0.02 apart: enough to see what is out of reach.
func (p *Path) roughly(share float64) colour.OKLab {
	i := sort.Search(len(p.Samples)-1, func(i int) bool { return p.Samples[i].Share >= share })
	if i == 0 {
		return p.Samples[0].Brushed
	}
	a, b := &p.Samples[i-1], &p.Samples[i]
	f := (share - a.Share) / (b.Share - a.Share)
	return colour.OKLab{
		L: a.Brushed.L + f*(b.Brushed.L-a.Brushed.L),
		A: a.Brushed.A + f*(b.Brushed.A-a.Brushed.A),
		B: a.Brushed.B + f*(b.Brushed.B-a.Brushed.B),
	}
}

// within are the shares around one between which the samples stay near enough,
// with a margin: what is found in between is still measured.
func (p *Path) within(share float64) (low, high float64) {
	m := p.At(share)
	want := m.Brushed()
	low, high = 0, 1
	for _, s := range p.Samples {
		if s.Brushed.Distance(want) > 1.25*nearEnough {
			if s.Share < share {
				low = s.Share
			} else if s.Share > share {
				high = s.Share
				break
			}
		}
	}
	return low, high
}
