package paint

import (
	"math"

	"gyrophane/core/colour"
)

// Variants are the tubes of a paint near to it, quick to come by where many are tried: moved along the wavelengths as
// Variant moves them, and as much cleaner or duller as is drawn out from one deviation of it either way.
type Variants struct {
	of    colour.Spectrum // K
	shade float64         // nm of a deviation
	slope colour.Spectrum // of the logarithm of K with a deviation of cleanness,
	curve colour.Spectrum // and how that bends
}

// mostBent is how far the logarithm of K of a band changes at the most with one deviation of cleanness.
const mostBent = 3.0

// VariantsOf are the variants of a paint by deviations of its shade (nm) and its cleanness (a share of the undertone's
// chroma). Where it cannot be as much cleaner or duller, it is not at all.
func VariantsOf(p *Paint, shade, cleanness float64) *Variants {
	out := &Variants{of: p.alone.k, shade: shade}
	duller, one := p.Variant(0, -cleanness)
	cleaner, two := p.Variant(0, cleanness)
	if one != nil || two != nil {
		return out
	}
	for i, k := range out.of {
		if k <= 0 {
			continue
		}
		of := func(q *Paint) float64 {
			return min(max(math.Log(max(q.alone.k[i], 1e-12)/k), -mostBent), mostBent)
		}
		down, up := of(duller), of(cleaner)
		out.slope[i], out.curve[i] = (up-down)/2, (up+down)/2
	}
	return out
}

// Absorbs is what K is multiplied by, band by band, so many deviations of shade and of cleanness off.
func (v *Variants) Absorbs(shade, cleanness float64) (out colour.Spectrum) {
	moved := v.of.Shifted(shade * v.shade)
	for i, k := range v.of {
		if k > 0 {
			out[i] = moved[i] / k * math.Exp(cleanness*(v.slope[i]+cleanness*v.curve[i]))
		}
	}
	return out
}
