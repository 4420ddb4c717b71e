package bias

import (
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Densities are how much of each third of the spectrum a thin film swallows:
// -log10 of the mean reflectance over blue (400-490 nm), green (500-580 nm)
// and red (600-700 nm) light, the white ground's own subtracted. The film is
// thinned until the highest is 0.8 [after Preucil 1953].
type Densities struct{ Blue, Green, Red float64 }

const highDensity = 0.8

// band is a stretch of the spectrum: its first and last place among the 36.
type band struct{ from, to int }

// between is the band from one wavelength (nm) to another.
func between(from, to float64) band {
	return band{int(from-colour.FirstNM) / colour.StepNM, int(to-colour.FirstNM) / colour.StepNM}
}

var thirds = [3]band{between(400, 490), between(500, 580), between(600, 700)}

var thirdNames = [3]string{"blue", "green", "red"}

// Swallowed are the shares of the blue, green and red light that are taken, 0
// to 1.
func (d Densities) Swallowed() (out [3]float64) {
	for t, v := range [3]float64{d.Blue, d.Green, d.Red} {
		out[t] = max(0, 1-math.Pow(10, -v))
	}
	return out
}

// DensitiesOf measures a mixture; where even the thickest film stays paler
// than density 0.8, that film counts.
func DensitiesOf(m *paint.Mixture) Densities {
	d := thinned(m, thirds[:], bareThirds)
	return Densities{d[0], d[1], d[2]}
}

// thinned are the densities in some bands of a film thinned until the highest of
// them is 0.8, or of the thickest film where even that is paler. bare are those
// of the ground.
func thinned(m *paint.Mixture, bands []band, bare []float64) []float64 {
	thinnest, thickest := math.Log(1e-4), math.Log(1e4)
	full := film(m, math.Exp(thickest), bands, bare)
	if slices.Max(full) <= highDensity {
		return full
	}
	// The secant on logarithms of thickness and density, held in a bracket.
	want := math.Log(highDensity)
	x, lastMiss, lastStep := 0.0, 0.0, 0.0
	for range 60 {
		d := film(m, math.Exp(x), bands, bare)
		miss := math.Log(slices.Max(d)) - want
		if math.Abs(miss) < 1e-6 {
			return d
		}
		if miss > 0 {
			thickest = x
		} else {
			thinnest = x
		}
		slope := 1.0 // of a film so thin that density grows with thickness
		if lastStep != 0 {
			slope = (miss - lastMiss) / lastStep
		}
		step := -miss / slope
		if next := x + step; !(next > thinnest && next < thickest) {
			step = (thinnest+thickest)/2 - x
		}
		x, lastMiss, lastStep = x+step, miss, step
	}
	return film(m, math.Exp(x), bands, bare)
}

func film(m *paint.Mixture, x float64, bands []band, bare []float64) []float64 {
	r := m.Film(x, paint.WhiteGround, paint.Gloss)
	d := make([]float64, len(bands))
	for i, b := range bands {
		d[i] = bare[i] - math.Log10(mean(&r, b))
	}
	return d
}

// bareThirds are the log10 mean reflectances of the ground without paint.
var bareThirds = bareOf(thirds[:])

func bareOf(bands []band) []float64 {
	var none paint.Mixture
	r := none.Film(0, paint.WhiteGround, paint.Gloss)
	out := make([]float64, len(bands))
	for i, b := range bands {
		out[i] = math.Log10(mean(&r, b))
	}
	return out
}

func mean(r *colour.Spectrum, b band) float64 {
	sum := 0.0
	for _, v := range r[b.from : b.to+1] {
		sum += v
	}
	return sum / float64(b.to+1-b.from)
}

func (d Densities) high() float64   { return max(d.Blue, d.Green, d.Red) }
func (d Densities) low() float64    { return min(d.Blue, d.Green, d.Red) }
func (d Densities) middle() float64 { return d.Blue + d.Green + d.Red - d.high() - d.low() }

// HueError is how far the hue strays from that of an ideal primary or
// secondary: (middle - low) / (high - low), 0 to 1 [Preucil 1953].
func (d Densities) HueError() float64 {
	if d.high() == d.low() {
		return 0
	}
	return (d.middle() - d.low()) / (d.high() - d.low())
}

// Greyness is how much grey is in the colour: low / high, 0 to 1 [Preucil 1953].
func (d Densities) Greyness() float64 {
	if d.high() <= 0 {
		return 0
	}
	return max(0, d.low()/d.high())
}

// Print is hue error and greyness together, where they mean anything.
type Print struct{ HueError, Greyness float64 }

// PrintOf measures hue error and greyness; not applicable to blacks, whites
// and mixtures too grey to have a hue.
func PrintOf(m *paint.Mixture) (Print, bool) {
	if m.Neutral() || !m.Undertone().HasHue() {
		return Print{}, false
	}
	d := DensitiesOf(m)
	return Print{d.HueError(), d.Greyness()}, true
}
