package paint

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// Source is how somebody came by a colour.
type Source string

// The sources of a reading.
const (
	Eye        Source = "eye"        // typed in, or chosen by looking
	Photo      Source = "photo"      // picked from a photograph
	Instrument Source = "instrument" // a spectrum, from a meter or a file
)

// Sources lists them.
var Sources = []Source{Eye, Photo, Instrument}

// ParseSource reads a source.
func ParseSource(s string) (Source, error) {
	if slices.Contains(Sources, Source(s)) {
		return Source(s), nil
	}
	return "", input.Errorf("unknown source %q of readings: choose eye, photo or instrument", s)
}

// Reading is the colour of a painted swatch: CIELAB under D65, and the
// reflectance seen from outside where it was measured.
type Reading struct {
	Lab      colour.Lab
	Spectrum *colour.Spectrum // nil where only the colour is known
	Source   Source
	Wet      bool
	Medium   Medium
}

// LabReading is a reading of a colour alone. L* must lie between 0 and 100, a*
// and b* within 150 of grey.
func LabReading(lab colour.Lab, source Source, wet bool, in Medium) (Reading, error) {
	if rounding := 0.01; lab.L > -rounding && lab.L < 100+rounding {
		lab.L = min(max(lab.L, 0), 100) // black and white on a screen come out a hair beyond
	}
	if !(lab.L >= 0 && lab.L <= 100) || !(math.Abs(lab.A) <= 150) || !(math.Abs(lab.B) <= 150) {
		return Reading{}, fmt.Errorf("the figures L* %.4g, a* %.4g, b* %.4g are no colour of a surface: L* runs from 0 to 100, a* and b* from -150 to 150", lab.L, lab.A, lab.B)
	}
	return Reading{Lab: lab, Source: source, Wet: wet, Medium: in}, nil
}

// SpectrumReading is a measured reflectance, 0 to 1 in every band; 1.2 is
// taken for a fluorescent or badly calibrated white and refused above.
func SpectrumReading(s colour.Spectrum, source Source, wet bool, in Medium) (Reading, error) {
	for i, v := range s {
		if !(v >= -0.01 && v <= 1.2) {
			return Reading{}, fmt.Errorf("a reflectance of %.4g at %v nm cannot be: it runs from 0 to 1 (or 0 to 100 percent)", v, colour.NM(i))
		}
	}
	return Reading{Lab: s.Lab(), Spectrum: &s, Source: source, Wet: wet, Medium: in}, nil
}

// swatch is a mixture laid out as what the reading is of.
func (r Reading) swatch(m *Mixture) colour.Lab {
	s := m.Swatch(r.Medium, r.Wet)
	return s.Lab()
}

// milk is what the state of the medium adds to the scattering.
func (r Reading) milk() colour.Spectrum { return r.Medium.milk(r.Wet) }

// surface is the boundary the swatch was seen through.
func (r Reading) surface() Surface { return r.Medium.Surface(r.Wet) }

// darker is how far below what a surface can return a measurement may lie and
// still count as its error.
const darker = 0.008

// Reflectance is the spectrum of a reading seen from outside: as measured, or
// the smoothest with its colour. Its error says that no surface of its medium
// has that colour.
func (r Reading) Reflectance() (colour.Spectrum, error) { return r.reflectance("colour") }

// reflectance is the spectrum of a reading seen from outside: as measured, or
// the smoothest with its colour. What names the swatch in errors.
func (r Reading) reflectance(what string) (colour.Spectrum, error) {
	f := r.surface()
	low, high := f.from(0), f.from(1)
	how := "dry " + r.Medium.Name
	if r.Wet {
		how = "wet " + r.Medium.Name
	}
	if r.Spectrum == nil {
		s, err := colour.Smoothest(r.Lab.XYZ(colour.D65.White()), low, high)
		if err != nil {
			return s, fmt.Errorf("no paint can have the %s L* %.1f, a* %.1f, b* %.1f: it is brighter or darker than a surface of %s can be; check the figures, and whether it was wet or dry", what, r.Lab.L, r.Lab.A, r.Lab.B, how)
		}
		return s, nil
	}
	s := *r.Spectrum
	for i, v := range s {
		if v < low-darker || v > high+darker {
			return s, fmt.Errorf("the %s returns %.1f %% of the light at %.0f nm, but a surface of %s returns %.1f to %.1f %%; check the file, and whether the swatch was wet or dry", what, 100*v, colour.NM(i), how, 100*low, 100*high)
		}
		s[i] = min(max(v, low+1e-4), high-1e-4)
	}
	return s, nil
}

// from is what is seen from outside of an internal reflectance.
func (f Surface) from(inside float64) float64 {
	return f.Haze + (1-f.Haze-f.Dim)*(1-f.K1)*(1-f.K2)*inside/(1-f.K2*inside)
}

// inside is the internal reflectance behind what is seen; the inverse of from.
func (f Surface) inside(seen float64) float64 {
	r := (seen - f.Haze) / (1 - f.Haze - f.Dim)
	return r / ((1-f.K1)*(1-f.K2) + f.K2*r)
}

// BareGround is the colour of white paper with nothing on it, which is seen
// directly and not through a film.
func BareGround() colour.XYZ {
	s := colour.Flat(WhiteGround)
	return s.XYZ(colour.D65)
}

// Swatch is a mixture brushed out until nothing shows through, wet or dry.
func (m *Mixture) Swatch(in Medium, wet bool) colour.Spectrum {
	state := m.in(in, wet)
	return state.Opaque(in.Surface(wet))
}
