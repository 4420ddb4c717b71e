package exchange

import (
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
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
	Rungs   []QuietRung `json:"rungs" doc:"one for each share of chroma that can be lost so; where none can, one for each 15 degrees that the hue turns"`
}

// QuietRung is a colour with so much in it of what quietens it.
type QuietRung struct {
	Mixture
	Lost    float64 `json:"lost" doc:"share of its chroma, 0 to 1, brushed out"`
	Turned  float64 `json:"turned" doc:"degrees on the painter's circle, brushed out"`
	Toward  string  `json:"toward,omitempty" doc:"the hue it turned to; empty where it did not, or is too grey to tell"`
	Lighter float64 `json:"lighter" doc:"OKLab lightness, brushed out; negative when darker"`
	Beside  string  `json:"beside" doc:"how it differs from what it was, as painted, in words"`
}

// Losses are the shares of chroma that a colour is quietened by.
var Losses = []float64{0.2, 0.4, 0.6, 0.8}

// turns are the degrees on the painter's circle that a colour is cooled by where
// its chroma is not lost.
var turns = []float64{15, 30, 45, 60}

// leastTurned is the turn of hue, in degrees, that is worth naming.
const leastTurned = 3

// Quieten cools or dulls what parts make by its complement, its neighbour and an
// earth: the fittest of the paints at hand, or of the library where there is
// none; or one that is given for a way.
func (v View) Quieten(parts []paint.Part, hand []*paint.Paint, given map[string]*paint.Paint) (Quiet, error) {
	of, err := v.mixture(parts)
	if err != nil {
		return Quiet{}, err
	}
	m, err := paint.Mix(parts...)
	if err != nil {
		return Quiet{}, BadInput{err.Error()}
	}
	if m.Neutral() || !m.Undertone().HasHue() {
		return Quiet{}, bad("There is no hue in this that could be quietened: take a colour.")
	}
	whole := parts[0].Paint
	if len(parts) > 1 {
		if whole, err = paint.Stir("the pile", "pile", parts...); err != nil {
			return Quiet{}, BadInput{err.Error()}
		}
	}
	others := func(paints []*paint.Paint) []*paint.Paint {
		return slices.DeleteFunc(slices.Clone(paints), func(p *paint.Paint) bool { return p.ID == parts[0].Paint.ID && len(parts) == 1 })
	}
	look := m.AsPainted(v.Medium, v.Wet)
	before := look.OKLab(v.Light)
	out := Quiet{Conditions: v.conditions(), Of: of}
	for _, way := range []struct {
		name string
		find func([]*paint.Paint) *paint.Paint
	}{
		{"complement", func(among []*paint.Paint) *paint.Paint { return path.ComplementOf(m.Undertone(), among) }},
		{"neighbour", func(among []*paint.Paint) *paint.Paint { return path.NeighbourOf(m.Undertone(), among) }},
		{"earth", func(among []*paint.Paint) *paint.Paint { return path.EarthFor(&m, among) }},
	} {
		one := QuietWay{Way: way.name, Rungs: []QuietRung{}}
		among := hand
		if p := given[way.name]; p != nil {
			among = []*paint.Paint{p}
			if way.name != "earth" {
				way.find = func([]*paint.Paint) *paint.Paint { return p }
			}
		}
		with := way.find(others(among))
		if with == nil {
			one.Library = true
			with = way.find(others(paint.Library()))
		}
		if with != nil {
			one.With = v.ingredientOf(with)
			for _, q := range path.Quieten(whole, with, Losses, turns).Rungs {
				look := q.Mixture.AsPainted(v.Medium, v.Wet)
				rung := QuietRung{Mixture: v.step(q.Step), Lost: round(q.Lost, 3), Turned: round(q.Turned, 1), Lighter: round(q.Lighter, 3), Beside: look.OKLab(v.Light).Beside(before)}
				if q.Turned <= -leastTurned || q.Turned >= leastTurned {
					rung.Toward = colour.HueWord(m.Undertone().WheelHue + turnTo(q.Turned))
				}
				one.Rungs = append(one.Rungs, rung)
			}
		}
		out.Ways = append(out.Ways, one)
	}
	return out, nil
}

// turnTo is two slots on from a hue, in the direction of a turn: what it is said
// to turn to.
func turnTo(turned float64) float64 {
	if turned < 0 {
		return -60
	}
	return 60
}

func (v View) ingredientOf(p *paint.Paint) *Ingredient {
	alone := p.Alone()
	out := &Ingredient{Paint: p.ID, Code: code(p), Name: bias.ShortName(p), Parts: 1, Shown: v.painted(&alone)}
	for _, of := range p.Of {
		out.Of = append(out.Of, OfPart{of.Paint.ID, code(of.Paint), of.Parts})
	}
	return out
}
