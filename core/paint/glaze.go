package paint

import (
	"fmt"

	"gyrophane/core/colour"
)

// Layer is a dry film in a stack of glazes.
type Layer struct {
	Mixture   Mixture
	Thickness float64 // 0.05 to 12; a glaze has 0.1 to 1
}

// The most layers of a stack, and the usual thickness of a glaze.
const (
	MostLayers    = 4
	UsualGlaze    = 0.3
	ThinnestLayer = 0.05
	ThickestLayer = 12
)

// Glaze is the reflectance of dry layers, the first lowest, over a ground of
// internal reflectance in each band (0 to 1): the film formula layer by layer,
// each lying on what is below it [Kubelka & Munk 1931], and the surface once,
// at the top [Saunderson 1942].
func Glaze(ground colour.Spectrum, layers []Layer, top Surface) (colour.Spectrum, error) {
	if len(layers) > MostLayers {
		return colour.Spectrum{}, fmt.Errorf("%d layers are more than are glazed here: at most %d", len(layers), MostLayers)
	}
	inside := ground
	for n, l := range layers {
		if !(l.Thickness >= ThinnestLayer && l.Thickness <= ThickestLayer) {
			return colour.Spectrum{}, fmt.Errorf("layer %d: a thickness of %.4g cannot be: it runs from %v to %d, a glaze from 0.1 to 1", n+1, l.Thickness, ThinnestLayer, ThickestLayer)
		}
		inside = l.over(&inside, 1)
	}
	for i := range inside {
		inside[i] = top.from(inside[i])
	}
	return inside, nil
}

// over is the internal reflectance of the layer, so many times as thick, over a ground of one in each band.
func (l *Layer) over(ground *colour.Spectrum, times float64) (out colour.Spectrum) {
	for i := range out {
		over, under := l.Mixture.film(i, times*l.Thickness, ground[i])
		out[i] = over / under
	}
	return out
}

// Paper is the ground of white paper or primer.
func Paper() colour.Spectrum { return colour.Flat(WhiteGround) }

// AsGround is the ground of an opaque, dry layer of a mixture.
func (m *Mixture) AsGround() colour.Spectrum { return m.Opaque(Surface{}) }
