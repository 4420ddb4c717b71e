package wire

import (
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
	Parts     []Ingredient `json:"parts"`
	Lab       [3]float64   `json:"lab" doc:"of the masstone"`
	Neutral   bool         `json:"neutral" doc:"C*ab at most 4; if not, it is the least chromatic below L* 25"`
	Hidden    string       `json:"hidden" doc:"hue word of the tint it hides"`
	Shown     Shown        `json:"shown" doc:"the masstone"`
	Tint      Shown        `json:"tint" doc:"1 part in 9 of white"`
	Black     Shown        `json:"black" doc:"the black that rides along, or a bone black, beside it"`
	BlackL    float64      `json:"blackL"`
	BlackTint Shown        `json:"blackTint"`
}

// Earth is the recipe nearest to an earth.
type Earth struct {
	Name   string       `json:"name" doc:"ochre-like, sienna-like, umber-like"`
	Target Shown        `json:"target"`
	Shown  Shown        `json:"shown" doc:"what the recipe makes, as painted and dry"`
	Parts  []Ingredient `json:"parts"`
	DE     float64      `json:"de" doc:"CIEDE2000 as painted, dry"`
}

// Neutrals shapes a wheel's greys and darks, and the scales of a slot: n (5 or 7)
// steps of intensity. The slot is between 0 and 11.
// Paints at hand are looked through for one that brings a middle which is no grey
// to one.
func (v View) Neutrals(w *wheel.Wheel, slot, n int, earths []reach.EarthMatch, atHand []*paint.Paint) Neutrals {
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
		pair.Neutraliser = v.neutraliser(&balance, atHand)
		out.Balance, out.Intensity = &pair, v.scale(&balance, n)
	}
	for _, r := range w.Values(slot, valueRungs, w.ShadeBy) {
		out.Values = append(out.Values, v.ringRung(&r))
	}
	for _, e := range earths {
		m := e.Target.Alone()
		look, made := m.AsPainted(v.Medium, false), e.Mixture.AsPainted(v.Medium, false)
		out.Earths = append(out.Earths, Earth{Name: e.Name, Target: shown(look.OKLab(v.Light)), Shown: shown(made.OKLab(v.Light)), Parts: v.Recipe(e.Parts), DE: round(e.DE, 1)})
	}
	return out
}

func (v View) neutraliser(b *wheel.Balance, atHand []*paint.Paint) *Neutraliser {
	h, ok := b.Neutraliser(atHand, v.Medium)
	if !ok {
		return nil
	}
	return &Neutraliser{h.Paint.ShortName(), v.Recipe(h.Parts), round(h.Lab.Chroma(), 1)}
}

// valueRungs is how many rungs a slot's scale of values has.
const valueRungs = 9

func (v View) dark(d wheel.Darkest, black *paint.Paint) Dark {
	m, b := d.Paint.Alone(), black.Alone()
	look := func(m *paint.Mixture) Shown {
		s := m.Masstone()
		return shown(s.OKLab(v.Light))
	}
	tint, blackTint := m.LetDown(paint.TintShare), b.LetDown(paint.TintShare)
	mass := b.Masstone()
	return Dark{
		Parts: v.Recipe(d.Parts), Lab: [3]float64{round(d.Lab.L, 1), round(d.Lab.A, 1), round(d.Lab.B, 1)}, Neutral: d.Neutral, Hidden: d.Hidden,
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

// Glazes shapes a stack of layers, and a wheel built in glazes.
func (v View) Glazes(stack wheel.Stack, w *wheel.Wheel, slots [12]wheel.GlazedSlot) Glazes {
	out := Glazes{Conditions: v.conditions(), Turned: shown(stack.Reversed.OKLab(v.Light)), Wheel: []GlazedSlot{}}
	for i, s := range stack.Spectra {
		out.Stack = append(out.Stack, GlazeStep{shown(s.OKLab(v.Light)), stack.Names[i]})
	}
	if stack.Mixed != nil {
		mixed := shown(stack.Mixed.OKLab(v.Light))
		out.Mixed = &mixed
	}
	for i, g := range slots {
		slot := GlazedSlot{Index: i, Name: w.Slots[i].Name, Empty: w.Slots[i].Empty, Layers: []string{}}
		if !slot.Empty {
			slot.Glazed, slot.Turned, slot.Mixed = shown(g.Spectrum.OKLab(v.Light)), shown(g.Other.OKLab(v.Light)), shown(g.Mixed.OKLab(v.Light))
			slot.Chroma, slot.MixedChroma, slot.Brighter = round(g.OKLCh.C, 3), round(g.MixedLCh.C, 3), g.Brighter
			for _, p := range g.Paints {
				slot.Layers = append(slot.Layers, p.Code())
			}
		}
		out.Wheel = append(out.Wheel, slot)
	}
	return out
}
