package recipe

import (
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Mend counts out the least that brings a pile, given in ml of each paint, to a recipe: of each
// paint what it lacks beside that of which there is too much, and of all of them where the pile
// would not come to so many ml. Nothing is counted where nothing brings it nearer.
func Mend(pile []paint.Part, r Recipe, exact *paint.Mixture, s Scale, ml float64) Counted {
	want := brushedOut(exact)
	parts := Of(resolved(r).Plain()).InOrder()
	total := parts.Total()
	whole := max(ml, ComesTo(pile, r))
	best, cost := Counted{}, math.Inf(1)
	for grown := leastMended; grown <= mostGrowth+1e-9; grown += 0.02 {
		c := Counted{Scale: s, Decides: -1, Adds: true}
		c.Needed = ml
		for _, i := range parts {
			lacks := grown*whole*i.Parts/total - InPile(pile, i.Paint)
			if one, ok := s.portion(Ingredient{Paint: i.Paint, Parts: i.Parts}, parts[0].Paint, lacks); ok {
				c.Counts = append(c.Counts, one)
				if one.In != nil && s.Measure != ByLooks {
					c.Before = append(c.Before, s.before(one.Ingredient, one.ML)...)
				}
			}
		}
		all := slices.Clone(pile)
		for n, of := range c.Counts {
			all = append(all, c.paints(n, of.ML)...)
		}
		if c.ML = Volume(all); c.ML < ml*NearlyAll {
			continue
		}
		var err error
		if c.Mixture, err = paint.Mix(all...); err != nil {
			continue // nothing in it
		}
		c.DE = colour.Difference(want, brushedOut(&c.Mixture))
		of := c.DE + perGrowth*0.5*(c.ML-Volume(pile))/ml + perBefore*float64(len(c.Before)) + perPart*float64(len(c.Counts))
		if of < cost {
			best, cost = c, of
		}
	}
	best.stray(pile)
	return best
}

const (
	// leastMended is how far a pile is mended at the least, over what takes out all that is too much.
	leastMended = 0.5
	// NearlyAll is the share of what is needed that passes for it: the loss is in that.
	NearlyAll = 0.95
)

// ComesTo is how much a pile comes to when so much is added to it that no paint of a recipe is too much
// in it, in the unit of its parts; paints that the recipe has not are left out.
func ComesTo(pile []paint.Part, r Recipe) (whole float64) {
	plain := r.Plain()
	for _, p := range plain {
		whole = max(whole, InPile(pile, p.Paint)*Volume(plain)/p.Parts)
	}
	return whole
}

// portion is about so many ml of a paint as a hand can take them, let down in the main paint where
// they are too few; false where they are none.
func (s Scale) portion(i Ingredient, main *paint.Paint, ml float64) (Portion, bool) {
	row := measureRows[s.Measure]
	switch {
	case ml <= 0:
		return Portion{}, false
	case s.Measure == ByLooks:
		return Portion{i, 0, ml}, true
	case s.amount(i, ml) < row.least && i.Paint != main:
		down := Ingredient{Paint: i.Paint, Parts: i.Parts, In: main, Thin: 9}
		amount := s.rounded(s.amount(down, ml*float64(down.Thin+1)))
		if s.VolumeOf(down, amount) > 2*ml*float64(down.Thin+1) {
			return Portion{}, false // too little even so
		}
		return Portion{down, amount, s.VolumeOf(down, amount)}, true
	case ml < s.VolumeOf(i, row.least)/2:
		return Portion{}, false
	}
	amount := s.rounded(s.amount(i, ml))
	return Portion{i, amount, s.VolumeOf(i, amount)}, true
}

// InPile is how much of a paint a pile holds, in the unit of its parts.
func InPile(pile []paint.Part, p *paint.Paint) (ml float64) {
	for _, part := range pile {
		if part.Paint == p {
			ml += part.Parts
		}
	}
	return ml
}

// Volume is how much a pile is in all, in the unit of its parts.
func Volume(pile []paint.Part) (ml float64) {
	for _, part := range pile {
		ml += part.Parts
	}
	return ml
}
