package wheel

import (
	"slices"

	"gyrophane/core/colour"
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
