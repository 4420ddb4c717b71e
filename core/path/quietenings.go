package path

import (
	"slices"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Quietening is what one way of cooling or dulling does to a colour.
type Quietening struct {
	Way         QuietWay
	With        *paint.Paint // nil where there is no such paint
	FromLibrary bool         // With was found in the library, not among the paints at hand
	Cools       bool         // With takes no chroma worth naming, but turns the hue
	Rungs       []Quieted
}

// QuietenPile cools or dulls what parts make in each of the ways: with the
// fittest of the paints at hand, or of the library where there is none, or with one
// that is given for a way. The error is an input.Error.
func QuietenPile(parts []paint.Part, hand []*paint.Paint, given map[QuietWay]*paint.Paint) (out []Quietening, err error) {
	m, err := paint.Mix(parts...)
	if err != nil {
		return nil, input.Wrap(err)
	}
	if m.Neutral() || !m.Undertone().HasHue() {
		return nil, input.Errorf("There is no hue in this that could be quietened: take a colour.")
	}
	pile := parts[0].Paint
	others := func(paints []*paint.Paint) []*paint.Paint {
		return slices.DeleteFunc(slices.Clone(paints), func(p *paint.Paint) bool { return len(parts) == 1 && p.ID == pile.ID })
	}
	if len(parts) > 1 {
		if pile, err = paint.Stir("the pile", "pile", parts...); err != nil {
			return nil, input.Wrap(err)
		}
	}
	for _, way := range QuietWays {
		one := Quietening{Way: way, With: way.Fittest(&m, others(hand))}
		switch p := given[way]; {
		case p != nil && way == ByEarth:
			one.With = way.Fittest(&m, []*paint.Paint{p}) // raised
		case p != nil:
			one.With = p
		}
		if one.With == nil {
			one.FromLibrary = true
			one.With = way.Fittest(&m, others(paint.Library()))
		}
		if one.With != nil {
			one.Rungs, one.Cools = Quieten(pile, one.With)
		}
		out = append(out, one)
	}
	return out, nil
}
