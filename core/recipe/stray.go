package recipe

import (
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// stray works out how far a hand strays in what is counted out, into a pile where there is one:
// each amount by what it strays itself, those that a let-down is made of among them, the colours
// squared and added up.
func (c *Counted) stray(pile []paint.Part) {
	c.Decides, c.Spread = -1, 0
	if c.Measure == ByLooks || len(c.Counts) == 0 || len(c.Counts) == 1 && len(pile) == 0 {
		return
	}
	was := brushedOut(&c.Mixture)
	sum, most := 0.0, 0.0
	for n := range c.Counts {
		rest := slices.Clone(pile)
		for k, of := range c.Counts {
			if k != n {
				rest = append(rest, c.paints(k, of.ML)...)
			}
		}
		of := 0.0
		for _, either := range c.strayed(n) {
			far := 0.0
			for _, taken := range either {
				if m, err := paint.Mix(slices.Concat(rest, taken)...); err == nil {
					far = max(far, colour.Difference(was, brushedOut(&m)))
				}
			}
			of += far * far
		}
		sum += of
		if of > most {
			most, c.Decides = of, n
		}
	}
	c.Spread = math.Sqrt(sum)
}

// strayed is what is taken of one of the counts where a hand takes too little, or too much, of the
// portion itself or of what its let-downs are made of.
func (c *Counted) strayed(n int) (out [][2][]paint.Part) {
	of := c.Counts[n]
	strays := func(p Portion) [2]float64 {
		by := c.strays(p.Amount)
		return [2]float64{c.VolumeOf(p.Ingredient, max(p.Amount-by, p.Amount/4)), c.VolumeOf(p.Ingredient, p.Amount+by)}
	}
	portion := strays(of)
	if of.In == nil {
		return [][2][]paint.Part{{{{Paint: of.Paint, Parts: portion[0]}}, {{Paint: of.Paint, Parts: portion[1]}}}}
	}
	let := func(ml, strong float64) []paint.Part {
		return []paint.Part{{Paint: of.Paint, Parts: ml * strong}, {Paint: of.In, Parts: ml * (1 - strong)}}
	}
	made := c.before(of.Ingredient, of.ML)
	strong := strongIn(made)
	out = append(out, [2][]paint.Part{let(portion[0], strong), let(portion[1], strong)})
	for _, p := range made {
		a, b := p.Counts[0], p.Counts[1]
		share := a.ML / (a.ML + b.ML)
		as, bs := strays(a), strays(b)
		var first, second [2][]paint.Part
		for by := range 2 {
			first[by] = let(of.ML, min(1, strong*as[by]/(as[by]+b.ML)/share))
			second[by] = let(of.ML, min(1, strong*a.ML/(a.ML+bs[by])/share))
		}
		out = append(out, first, second)
	}
	return out
}
