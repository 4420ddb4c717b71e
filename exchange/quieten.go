package exchange

import (
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Quiet is a colour cooled or dulled in several ways, side by side.
type Quiet struct {
	Conditions
	Of   Mixture    `json:"of"`
	Ways []QuietWay `json:"ways"`
}

// QuietWay is one way to cool or dull a colour.
type QuietWay struct {
	Way     string      `json:"way" enum:"complement,neighbour,earth"`
	With    *Ingredient `json:"with,omitempty" doc:"absent when there is no such paint"`
	Library bool        `json:"library" doc:"it was found in the library, not among the paints at hand"`
	Cools   bool        `json:"cools" doc:"it takes no chroma worth naming, but turns the hue"`
	Rungs   []QuietRung `json:"rungs" doc:"one for each share of chroma that can be lost so; where none can, one for each 15 degrees that the hue turns"`
}

// QuietRung is a colour with so much in it of what quietens it.
type QuietRung struct {
	Mixture
	Lost    float64 `json:"lost" doc:"share of its chroma, 0 to 1, brushed out"`
	Turned  float64 `json:"turned" doc:"degrees on the painter's circle, brushed out"`
	Lighter float64 `json:"lighter" doc:"OKLab lightness, brushed out; negative when darker"`
	Beside  string  `json:"beside" doc:"how it differs from what it was, as painted, in words"`
}

// Quieten cools or dulls what parts make by its complement, its neighbour and an
// earth: the fittest of the paints at hand, or of the library where there is
// none; or one that is given for a way.
func (v View) Quieten(parts []paint.Part, hand []*paint.Paint, given map[string]*paint.Paint) (Quiet, error) {
	m, of, err := v.stirred(parts)
	if err != nil {
		return Quiet{}, err
	}
	if m.Neutral() || !m.Undertone().HasHue() {
		return Quiet{}, bad("There is no hue in this that could be quietened: take a colour.")
	}
	whole := parts[0].Paint
	if len(parts) > 1 {
		if whole, err = paint.Stir("the pile", "pile", parts...); err != nil {
			return Quiet{}, refused(err)
		}
	}
	others := func(paints []*paint.Paint) []*paint.Paint {
		return slices.DeleteFunc(slices.Clone(paints), func(p *paint.Paint) bool { return p.ID == parts[0].Paint.ID && len(parts) == 1 })
	}
	before := v.look(&m)
	out := Quiet{Conditions: v.conditions(), Of: of}
	for _, way := range path.QuietWays {
		one := QuietWay{Way: string(way), Rungs: []QuietRung{}}
		with := way.Fittest(&m, others(hand))
		switch p := given[string(way)]; {
		case p != nil && way == path.ByEarth:
			with = way.Fittest(&m, []*paint.Paint{p}) // raised
		case p != nil:
			with = p
		}
		if with == nil {
			one.Library = true
			with = way.Fittest(&m, others(paint.Library()))
		}
		if with != nil {
			one.With = v.ingredientOf(with)
			var rungs []path.Quieted
			rungs, one.Cools = path.Quieten(whole, with)
			for _, q := range rungs {
				one.Rungs = append(one.Rungs, QuietRung{v.step(q.Step), round(q.Lost, 3), round(q.Turned, 1), round(q.Lighter, 3), v.look(&q.Mixture).Beside(before)})
			}
		}
		out.Ways = append(out.Ways, one)
	}
	return out, nil
}

func (v View) ingredientOf(p *paint.Paint) *Ingredient {
	one := v.partsOf([]paint.Part{{Paint: p, Parts: 1}})[0]
	one.Name = bias.ShortName(p)
	return &one
}
