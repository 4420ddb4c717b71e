package path

import (
	"math"
	"sort"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Ratio is a mixture of a path's two paints in whole parts.
type Ratio struct {
	Share float64       // of the second paint that the parts come to, by volume
	Parts recipe.Recipe // in the order of the path: one ingredient, or two
}

// looked is how much farther than near enough the samples around a share may lie
// for what is between them to be looked at: the samples are not the mixtures.
const looked = 1.25 * recipe.NearEnough

// leastCounted is the smallest share that can be counted out: 1 part in 40 of what
// is let down the farthest.
var leastCounted = 1 / float64(recipe.MostParts*(recipe.Thinnings[len(recipe.Thinnings)-1]+1))

// Parts are the smallest whole numbers, at most 40 in all, whose brushed-out
// colour lies within 0.02 OKLab of the mixture with that share (0 to 1) of the
// second paint. Where none does, the paint of which a trace is wanted is first
// let down, 1:9, 1:19 or 1:99, in its partner.
func (p *Path) Parts(share float64) Ratio {
	if share == 0 || share == 1 {
		return p.pure(share)
	}
	at := p.At(share)
	want := at.BrushedOutColour()
	off := func(t float64) float64 {
		if rough := p.roughly(t); rough.Distance(want) > looked {
			return math.Inf(1)
		}
		m := p.At(t)
		return m.BrushedOutColour().Distance(want)
	}
	low, high := p.within(share)
	if parts, ok := (recipe.Search{Share: share, Low: low, High: high, Off: off}).Ratio(); ok {
		return p.plain(parts)
	}
	strong, weak := p.B, p.A
	trace := recipe.Search{Share: share, Low: low, High: high, Off: off}
	if share > 0.5 {
		strong, weak = p.A, p.B
		trace = recipe.Search{Share: 1 - share, Low: 1 - high, High: 1 - low, Off: func(t float64) float64 { return off(1 - t) }}
	}
	if trace.Share > leastCounted/2 {
		if parts, thin, ok := trace.LetDown(); ok {
			return p.letDown(strong, weak, parts, thin)
		}
	}
	// Nearer to an end than anyone can count.
	return p.pure(math.Round(share))
}

// pure is the first paint at a share of 0, and the second at 1.
func (p *Path) pure(share float64) Ratio {
	if share == 1 {
		return Ratio{1, recipe.Pure(p.B)}
	}
	return Ratio{0, recipe.Pure(p.A)}
}

func (p *Path) plain(parts [2]int) Ratio {
	return Ratio{float64(parts[1]) / float64(parts[0]+parts[1]), recipe.OfTwo(p.A, p.B, parts)}
}

// letDown is a recipe of so many parts of the weak paint and of the let-down of
// the strong one.
func (p *Path) letDown(strong, weak *paint.Paint, parts [2]int, thin int) Ratio {
	rest := recipe.Ingredient{Paint: weak, Parts: float64(parts[0])}
	let := recipe.Ingredient{Paint: strong, Parts: float64(parts[1]), In: weak, Thin: thin}
	share := float64(parts[1]) / float64((parts[0]+parts[1])*(thin+1))
	if strong == p.A {
		return Ratio{1 - share, recipe.Recipe{let, rest}}
	}
	return Ratio{share, recipe.Recipe{rest, let}}
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
	want := m.BrushedOutColour()
	low, high = 0, 1
	for _, s := range p.Samples {
		if s.Brushed.Distance(want) > looked {
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
