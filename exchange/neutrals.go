package exchange

import (
	"slices"

	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// Neutrals are the greys and darks of a system, and one slot's scales.
type Neutrals struct {
	Conditions
	Pairs     []Neutral  `json:"pairs" doc:"the six complement pairs"`
	Balance   *Neutral   `json:"balance" doc:"of the slot that is asked about and its complement; null where one is missing"`
	Intensity []RingRung `json:"intensity" doc:"from the slot through the balance to its complement"`
	Values    []RingRung `json:"values" doc:"the slot from its lightest tint to its darkest shade"`
	Dark      Dark       `json:"dark"`
	Earths    []Earth    `json:"earths"`
}

// Dark is the darkest dark of the primaries, beside a tube black.
type Dark struct {
	Parts     []OfPart   `json:"parts"`
	Lab       [3]float64 `json:"lab" doc:"of the masstone"`
	Neutral   bool       `json:"neutral" doc:"C*ab at most 4; if not, it is the least chromatic below L* 25"`
	Hidden    string     `json:"hidden" doc:"hue word of the tint it hides"`
	Shown     Shown      `json:"shown" doc:"the masstone"`
	Tint      Shown      `json:"tint" doc:"1 part in 9 of white"`
	Black     Shown      `json:"black" doc:"the black that rides along, or a bone black, beside it"`
	BlackL    float64    `json:"blackL"`
	BlackTint Shown      `json:"blackTint"`
}

// Earth is the recipe nearest to an earth.
type Earth struct {
	Name   string       `json:"name" doc:"ochre-like, sienna-like, umber-like"`
	Target Shown        `json:"target"`
	Shown  Shown        `json:"shown" doc:"what the recipe makes, as painted and dry"`
	Parts  []Ingredient `json:"parts"`
	DE     float64      `json:"de" doc:"CIEDE2000 as painted, dry"`
}

// earths are what the recipes are held against: library paints typical of
// their class.
var earths = []struct{ name, id string }{{"ochre-like", "PY43"}, {"sienna-like", "PBr7-burnt-sienna"}, {"umber-like", "PBr7-raw-umber"}}

// Neutrals works out a system's greys and darks, and the scales of a slot: n
// (5 or 7) steps of intensity.
func (v View) Neutrals(s wheel.System, c WheelChoices, slot, n int) (Neutrals, error) {
	o, _, _, shadeBy, err := c.options(v)
	if err != nil {
		return Neutrals{}, err
	}
	if slot < 0 || slot > 11 {
		return Neutrals{}, bad("slot %d: the slots run from 0 to 11", slot)
	}
	if n != 5 && n != 7 {
		return Neutrals{}, bad("an intensity scale has 5 or 7 steps, not %d", n)
	}
	w := wheel.Build(s, o)
	out := Neutrals{Conditions: v.conditions(), Pairs: []Neutral{}, Intensity: []RingRung{}, Values: []RingRung{}, Dark: v.dark(w.Dark(), w.System.Rider(wheel.BlackRider)), Earths: []Earth{}}
	for i := range 6 {
		if pair, ok := v.neutral(w, i); ok {
			out.Pairs = append(out.Pairs, pair)
		}
	}
	across := (slot + 6) % 12
	if a, b := w.SlotPaint(slot), w.SlotPaint(across); a != nil && b != nil {
		balance := wheel.BalanceOf(a, b, v.Medium)
		pair := v.balance(balance, slot, across)
		out.Balance, out.Intensity = &pair, v.scale(&balance, n)
	}
	const values = 9
	for _, r := range w.Values(slot, values, shadeBy) {
		out.Values = append(out.Values, v.ringRung(&r))
	}
	paints := append(w.System.Paints(), w.System.Rider(wheel.WhiteRider))
	if p := w.System.Rider(wheel.ConvenienceRider); p != nil {
		paints = append(paints, p)
	}
	for _, e := range earths {
		target, err := paint.Find(e.id)
		if err != nil {
			return Neutrals{}, err
		}
		m := target.Alone()
		look := m.AsPainted(v.Medium, false)
		match, err := reach.Nearest(look.Lab(), paints, v.Medium)
		if err != nil {
			return Neutrals{}, refused(err)
		}
		made := match.Mixture.AsPainted(v.Medium, false)
		out.Earths = append(out.Earths, Earth{e.name, shown(look.OKLab(v.Light)), shown(made.OKLab(v.Light)), v.ingredients(match.Parts), round(match.DE, 1)})
	}
	return out, nil
}

func ofParts(parts []paint.Part) []OfPart {
	out := []OfPart{}
	for _, p := range parts {
		out = append(out, OfPart{p.Paint.ID, code(p.Paint), p.Parts})
	}
	return out
}

func (v View) dark(d wheel.Darkest, black *paint.Paint) Dark {
	m, b := d.Paint.Alone(), black.Alone()
	look := func(m *paint.Mixture) Shown {
		s := m.Masstone()
		return shown(s.OKLab(v.Light))
	}
	tint, blackTint := m.LetDown(tintShare), b.LetDown(tintShare)
	mass := b.Masstone()
	return Dark{
		Parts: ofParts(d.Parts), Lab: [3]float64{round(d.Lab.L, 1), round(d.Lab.A, 1), round(d.Lab.B, 1)}, Neutral: d.Neutral, Hidden: d.Hidden,
		Shown: look(&m), Tint: look(&tint), Black: look(&b), BlackTint: look(&blackTint),
		BlackL: round(mass.Lab().L, 1),
	}
}

// Glazes are a stack of dry layers, and the same wheel built of them.
type Glazes struct {
	Conditions
	Stack  []GlazeStep  `json:"stack" doc:"the ground, then each layer in turn"`
	Turned Shown        `json:"turned" doc:"the same layers the other way round"`
	Mixed  *Shown       `json:"mixed" doc:"the layers' paints stirred by thickness into one film; null where there are none"`
	Wheel  []GlazedSlot `json:"wheel"`
}

// GlazeStep is a stack so far.
type GlazeStep struct {
	Shown
	Name string `json:"name"`
}

// GlazedSlot is a slot built in layers, beside the same slot mixed.
type GlazedSlot struct {
	Index       int      `json:"index"`
	Name        string   `json:"name"`
	Empty       bool     `json:"empty"`
	Glazed      Shown    `json:"glazed"`
	Turned      Shown    `json:"turned" doc:"the layers the other way round"`
	Mixed       Shown    `json:"mixed" doc:"in one film of the same thickness"`
	Chroma      float64  `json:"chroma" doc:"OKLCh, of the glaze"`
	MixedChroma float64  `json:"mixedChroma"`
	Brighter    bool     `json:"brighter" doc:"glazed it keeps at least 0.01 more chroma"`
	Layers      []string `json:"layers" doc:"from below"`
}

// GlazeLayer is one layer that is asked for.
type GlazeLayer struct {
	Paint     string  `json:"paint" maxLength:"60"`
	Thickness float64 `json:"thickness" doc:"0.05 to 12; a glaze has 0.1 to 1"`
}

// Glazes lays a stack over paper, or over a painted ground, and builds the
// system's wheel in glazes of a thickness over the same ground.
func (v View) Glazes(s wheel.System, c WheelChoices, ground *paint.Paint, layers []GlazeLayer, thickness float64, find Finder) (Glazes, error) {
	o, _, _, _, err := c.options(v)
	if err != nil {
		return Glazes{}, err
	}
	below, name := paint.Paper(), "white paper"
	if ground != nil {
		m := ground.Alone()
		below, name = m.Painted(), ground.Name
	}
	top := v.Medium.Surface(v.Wet)
	out := Glazes{Conditions: v.conditions(), Wheel: []GlazedSlot{}}
	var stack []paint.Layer
	var stirred []paint.Part
	total := 0.0
	for n := -1; n < len(layers); n++ {
		step := GlazeStep{Name: name}
		if n >= 0 {
			p, err := find(layers[n].Paint)
			if err != nil {
				return Glazes{}, err
			}
			stack = append(stack, paint.Layer{Mixture: p.Alone(), Thickness: layers[n].Thickness})
			total += layers[n].Thickness
			stirred = append(stirred, paint.Part{Paint: p, Parts: max(layers[n].Thickness, 1e-6)})
			step.Name = p.Name
		}
		r, err := paint.Glaze(below, stack, top)
		if err != nil {
			return Glazes{}, sentence(err)
		}
		step.Shown = shown(r.OKLab(v.Light))
		out.Stack = append(out.Stack, step)
	}
	turned := slices.Clone(stack)
	slices.Reverse(turned)
	r, err := paint.Glaze(below, turned, top)
	if err != nil {
		return Glazes{}, sentence(err)
	}
	out.Turned = shown(r.OKLab(v.Light))
	if len(stirred) > 0 {
		m, err := paint.Mix(stirred...)
		if err != nil {
			return Glazes{}, refused(err)
		}
		one, err := paint.Glaze(below, []paint.Layer{{Mixture: m, Thickness: min(total, 12)}}, top)
		if err != nil {
			return Glazes{}, sentence(err)
		}
		mixed := shown(one.OKLab(v.Light))
		out.Mixed = &mixed
	}
	w := wheel.Build(s, o)
	slots, err := w.Glazed(below, thickness, top)
	if err != nil {
		return Glazes{}, sentence(err)
	}
	for i, g := range slots {
		slot := GlazedSlot{Index: i, Name: w.Slots[i].Name, Empty: w.Slots[i].Empty, Layers: []string{}}
		if !slot.Empty {
			slot.Glazed, slot.Turned, slot.Mixed = shown(g.Spectrum.OKLab(v.Light)), shown(g.Other.OKLab(v.Light)), shown(g.Mixed.OKLab(v.Light))
			slot.Chroma, slot.MixedChroma, slot.Brighter = round(g.OKLCh.C, 3), round(g.MixedLCh.C, 3), g.Brighter
			slot.Layers = codes(g.Paints)
		}
		out.Wheel = append(out.Wheel, slot)
	}
	return out, nil
}
