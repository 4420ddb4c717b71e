// Package colour turns spectra into colours: CIE XYZ and CIELAB under a light,
// OKLab for geometry, the painter's wheel hue, differences, and what a screen
// can show. It knows nothing of paint.
package colour

import (
	_ "embed"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/internal/table"
)

// The grid of every spectrum: 36 bands from 380 to 730 nm, every 10 nm.
const (
	Bands   = 36
	FirstNM = 380
	StepNM  = 10
)

// Spectrum holds one value a band: a reflectance (0 to 1), or an absorption or
// scattering per unit thickness (0 and up).
type Spectrum [Bands]float64

// NM is the wavelength of a band in nanometres.
func NM(band int) float64 { return float64(FirstNM + band*StepNM) }

// Flat is the spectrum that has the same value in every band.
func Flat(value float64) Spectrum {
	var s Spectrum
	for i := range s {
		s[i] = value
	}
	return s
}

// Light is the light a colour is seen under.
type Light uint8

// The lights of the observer table [CIE 15:2004]. D65 is the zero value.
const (
	D65 Light = iota // daylight
	D50              // gallery light
	A                // warm lamp
	lights
)

var lightNames = [lights]string{"D65", "D50", "A"}

// Lights lists them.
var Lights = []Light{D65, D50, A}

// String is the CIE name of the light.
func (l Light) String() string { return lightNames[l] }

// ParseLight reads a CIE name, in upper or lower case.
func ParseLight(name string) (Light, error) {
	for i, n := range lightNames {
		if strings.EqualFold(n, name) {
			return Light(i), nil
		}
	}
	return 0, input.Errorf("unknown light %q: choose D65 (daylight), D50 (gallery) or A (warm lamp)", name)
}

// White is the light's white on this grid, Y = 1.
func (l Light) White() XYZ { return observers[l].white }

// XYZ is the colour of a reflectance under a light, normalised so that a
// perfect white has Y = 1 [CIE 15:2004].
func (s *Spectrum) XYZ(l Light) XYZ {
	o := &observers[l]
	var x, y, z float64
	for i, v := range s {
		x += o.x[i] * v
		y += o.y[i] * v
		z += o.z[i] * v
	}
	return XYZ{x, y, z}
}

// Lab is the CIELAB value of a reflectance under D65 for the 2 degree observer,
// against this grid's white [CIE 15:2004].
func (s Spectrum) Lab() Lab { return s.LabUnder(D65) }

// LabUnder is the CIELAB value of a reflectance under a light for the 2 degree
// observer, against that light's own white on this grid [CIE 15:2004].
func (s Spectrum) LabUnder(l Light) Lab { return s.XYZ(l).Lab(l.White()) }

// OKLab is the colour of a reflectance under a light, adapted to D65 by the
// Bradford transform; a flat reflectance is neutral under every light.
func (s *Spectrum) OKLab(l Light) OKLab {
	w := l.Weights()
	var c Cones
	for i, v := range s {
		c.L += w[i].L * v
		c.M += w[i].M * v
		c.S += w[i].S * v
	}
	return c.OKLab()
}

// Power is the relative spectral power of a light, about 1 at 560 nm [CIE 15:2004].
func (l Light) Power() Spectrum { return observers[l].power }

// Cones are the three linear responses OKLab starts from [Ottosson 2020].
type Cones struct{ L, M, S float64 }

// Weights gives, for each band, what a reflectance of 1 adds to the cone
// responses under a light, adapted to D65: for loops that sum a spectrum as
// they make it. The table must not be changed.
func (l Light) Weights() *[Bands]Cones { return &observers[l].cones }

// observer is the 2-degree observer weighted by one light: sums over the bands
// give XYZ, or the cone responses of OKLab after adaptation to D65.
type observer struct {
	power   Spectrum
	x, y, z Spectrum
	cones   [Bands]Cones
	white   XYZ
}

//go:embed data/observer.csv
var observerCSV string

var observers = func() (out [lights]observer) {
	rows := table.Rows(observerCSV)
	for l := range out {
		o := &out[l]
		var norm float64
		for i, row := range rows {
			light := table.Number(row[4+l])
			o.power[i] = light / 100
			o.x[i] = light * table.Number(row[1])
			o.y[i] = light * table.Number(row[2])
			o.z[i] = light * table.Number(row[3])
			norm += o.y[i]
		}
		for i := range rows {
			o.x[i] /= norm
			o.y[i] /= norm
			o.z[i] /= norm
			o.white.X += o.x[i]
			o.white.Y += o.y[i]
			o.white.Z += o.z[i]
		}
		adapt := bradford(o.white, d65)
		var sum Cones
		for i := range rows {
			o.cones[i] = adapt.times(XYZ{o.x[i], o.y[i], o.z[i]}).cones()
			sum.L += o.cones[i].L
			sum.M += o.cones[i].M
			sum.S += o.cones[i].S
		}
		for i, c := range o.cones {
			o.cones[i] = Cones{c.L / sum.L, c.M / sum.M, c.S / sum.S}
		}
	}
	return out
}()
