package wheel

import (
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// GlazedSlot is a slot of the same wheel built in dry layers instead of mixed:
// the first paint of its section below, the second over it.
type GlazedSlot struct {
	Layers   []paint.Layer
	Paints   []*paint.Paint
	Spectrum colour.Spectrum // dry, over the ground
	Other    colour.Spectrum // the layers the other way round
	Mixed    colour.Spectrum // the slot's mixture in one film of the same thickness
	// Brighter says that the glaze has at least 0.01 more OKLCh chroma than the
	// mixture.
	Brighter bool
	OKLCh    colour.OKLCh // of the glaze
	MixedLCh colour.OKLCh
}

// brighter is how much more OKLCh chroma is worth speaking of.
const brighter = 0.01

// Glazed builds the wheel by glazing over a ground, each slot with films of the
// given thickness in all: a secondary of two halves, a tertiary of three
// quarters of its own primary and one of the other, a primary alone. Empty slots
// have no layers.
func (w *Wheel) Glazed(ground colour.Spectrum, thickness float64, top paint.Surface) ([12]GlazedSlot, error) {
	var out [12]GlazedSlot
	for i := range w.Slots {
		slot := &w.Slots[i]
		if slot.Empty {
			continue
		}
		g := &out[i]
		s := &w.Sections[slot.Home/4]
		if slot.Kind == Primary {
			g.Paints = []*paint.Paint{slot.Parts[0].Paint}
			g.Layers = []paint.Layer{{Mixture: slot.Mixture, Thickness: thickness}}
		} else {
			share := float64(slot.Home%4) / 4
			g.Paints = []*paint.Paint{s.A, s.B}
			g.Layers = []paint.Layer{{Mixture: s.A.Alone(), Thickness: thickness * (1 - share)}, {Mixture: s.B.Alone(), Thickness: thickness * share}}
		}
		var err error
		if g.Spectrum, err = paint.Glaze(ground, g.Layers, top); err != nil {
			return out, err
		}
		turned := slices.Clone(g.Layers)
		slices.Reverse(turned)
		if g.Other, err = paint.Glaze(ground, turned, top); err != nil {
			return out, err
		}
		if g.Mixed, err = paint.Glaze(ground, []paint.Layer{{Mixture: slot.Mixture, Thickness: thickness}}, top); err != nil {
			return out, err
		}
		g.OKLCh, g.MixedLCh = g.Spectrum.OKLab(colour.D65).OKLCh(), g.Mixed.OKLab(colour.D65).OKLCh()
		g.Brighter = slot.Kind != Primary && g.OKLCh.C > g.MixedLCh.C+brighter
	}
	return out, nil
}

// GlazeLayer is a layer of a paint, named by its id, that is asked for.
type GlazeLayer struct {
	Paint     string
	Thickness float64 // 0.05 to 12; a glaze has 0.1 to 1
}

// Stack is dry layers over a ground.
type Stack struct {
	Names    []string          // the ground's, and of each layer the paint's, from below
	Spectra  []colour.Spectrum // the ground alone, then with one layer after the other
	Reversed colour.Spectrum   // the layers the other way round
	Mixed    *colour.Spectrum  // the layers' paints stirred by thickness into one film; nil without layers
}

// StackOf lays glazes over white paper, or over an opaque, dry layer of a ground,
// seen through a surface. The error is an input.Error, or what find answers.
func StackOf(ground *paint.Paint, layers []GlazeLayer, top paint.Surface, find paint.Finder) (out Stack, err error) {
	out.Names = []string{"white paper"}
	if ground != nil {
		out.Names[0] = ground.Name
	}
	below := GroundOf(ground)
	var stack []paint.Layer
	var parts []paint.Part
	total := 0.0
	bare, err := paint.Glaze(below, nil, top)
	if err != nil {
		return out, input.Sentence(err)
	}
	out.Spectra = append(out.Spectra, bare)
	for _, l := range layers {
		p, err := find(l.Paint)
		if err != nil {
			return out, err
		}
		stack = append(stack, paint.Layer{Mixture: p.Alone(), Thickness: l.Thickness})
		look, err := paint.Glaze(below, stack, top)
		if err != nil {
			return out, input.Sentence(err)
		}
		out.Names, out.Spectra = append(out.Names, p.Name), append(out.Spectra, look)
		parts = append(parts, paint.Part{Paint: p, Parts: l.Thickness})
		total += l.Thickness
	}
	reversed := slices.Clone(stack)
	slices.Reverse(reversed)
	if out.Reversed, err = paint.Glaze(below, reversed, top); err != nil {
		return out, input.Sentence(err)
	}
	if len(parts) == 0 {
		return out, nil
	}
	m, err := paint.Mix(parts...)
	if err != nil {
		return out, input.Wrap(err)
	}
	one, err := paint.Glaze(below, []paint.Layer{{Mixture: m, Thickness: min(total, paint.ThickestLayer)}}, top)
	if err != nil {
		return out, input.Sentence(err)
	}
	out.Mixed = &one
	return out, nil
}

// GroundOf is the ground of white paper or, of a paint, of an opaque, dry layer of
// it.
func GroundOf(p *paint.Paint) colour.Spectrum {
	if p == nil {
		return paint.Paper()
	}
	m := p.Alone()
	return m.AsGround()
}
