package paint

import (
	"math"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// RawReading is the colour of a painted swatch as it was typed, picked or
// measured, before it is checked: one of Lab, Hex and Spectrum.
type RawReading struct {
	Lab      *[3]float64 // CIELAB under D65, 2 degrees
	Hex      string      // #rrggbb, sRGB
	Spectrum []float64   // reflectance, 36 bands, 380 to 730 nm, 0 to 1
	Source   Source
	Medium   string // id
	Judged   string // "wet" or "dry"
}

// ParseColour reads a colour as #rrggbb, or as CIELAB: three numbers with commas
// or blanks between. It was seen by eye, in a medium, wet or dry.
func ParseColour(text string, in Medium, wet bool) (RawReading, error) {
	r := RawReading{Source: Eye, Medium: in.ID, Judged: Judged(wet)}
	fields := strings.FieldsFunc(text, func(at rune) bool { return at == ',' || at == ';' || at == ' ' })
	if len(fields) == 1 {
		r.Hex = fields[0]
		if !strings.HasPrefix(r.Hex, "#") {
			r.Hex = "#" + r.Hex
		}
		_, err := r.Parse("the colour")
		return r, err
	}
	var lab [3]float64
	if len(fields) != len(lab) || len(text) > 60 {
		return r, input.Errorf("%q is no colour: write #rrggbb, or CIELAB as three numbers like 52, 38, 20", input.Clip(text))
	}
	for i, f := range fields {
		n, err := strconv.ParseFloat(f, 64)
		if err != nil {
			return r, input.Errorf("%q is no colour: %q is not a number; write CIELAB as three numbers like 52, 38, 20", input.Clip(text), input.Clip(f))
		}
		lab[i] = n
	}
	r.Lab = &lab
	_, err := r.Parse("the colour")
	return r, err
}

// Judged is "wet" or "dry".
func Judged(wet bool) string {
	if wet {
		return "wet"
	}
	return "dry"
}

// Parse checks a reading; what names the swatch in the error.
func (r RawReading) Parse(what string) (Reading, error) {
	wrong := func(err error) error { return input.Errorf("%s: %s", what, err) }
	in, err := ParseMedium(r.Medium)
	if err != nil {
		return Reading{}, wrong(err)
	}
	var out Reading
	wet := r.Judged == Judged(true)
	switch {
	case len(r.Spectrum) > 0:
		if len(r.Spectrum) != colour.Bands {
			return Reading{}, input.Errorf("%s: %d values of reflectance where %d are needed, from 380 to 730 nm every 10 nm", what, len(r.Spectrum), colour.Bands)
		}
		out, err = SpectrumReading(colour.Spectrum(r.Spectrum), r.Source, wet, in)
	case r.Lab != nil:
		out, err = LabReading(colour.Lab{L: r.Lab[0], A: r.Lab[1], B: r.Lab[2]}, r.Source, wet, in)
	case r.Hex != "":
		xyz, failed := colour.ParseHex(r.Hex)
		if failed != nil {
			return Reading{}, wrong(failed)
		}
		out, err = LabReading(xyz.Lab(colour.D65.White()), r.Source, wet, in)
	default:
		return Reading{}, input.Errorf("%s: no colour is given; type it as CIELAB or as #rrggbb, pick it from a photo, or read it with the meter", what)
	}
	if err != nil {
		return Reading{}, wrong(err)
	}
	return out, nil
}

// Origin is how a paint of a painter's own was come by, and from what.
type Origin struct {
	Kind       string      // "swatches", "label" or "adjusted"
	Mass       *RawReading // the masstone: of swatches, or of a label whose shares are fitted
	Tint       *RawReading
	WhiteShare float64  // of the tint, by volume, 0 to 1
	Pigments   []string // library ids: what the label names
	Paint      string   // id of the library paint that is changed
	Factor     float64  // times as strong, 0.1 to 10; 0 for 1
	Shift      float64  // of the absorption, -20 to 20 nm
}

// Derived is a paint worked out from its origin.
type Derived struct {
	Definition
	Fit    *Fit      // how near it comes to the swatches; nil where none were given
	Tinted bool      // the fit is of a tint as well
	Shares []float64 // by volume, of each pigment of a label
}

// Derive works a paint out; the name is what it will be called. The error is an
// input.Error.
func (o Origin) Derive(name string) (Derived, error) {
	pigments, err := findAll(o.Pigments)
	if err != nil {
		return Derived{}, err
	}
	out := Derived{Definition: Definition{Name: name, Pigments: IDs(pigments), Origin: &o}}
	var m Mixture
	switch o.Kind {
	case "swatches":
		m, err = o.fromSwatches(&out)
	case "label":
		m, err = o.fromLabel(pigments, &out)
	case "adjusted":
		m, err = o.adjusted(&out)
	default:
		return Derived{}, input.Errorf("unknown way %q to make a paint: choose swatches, label or adjusted", input.Clip(o.Kind))
	}
	if err != nil {
		return Derived{}, err
	}
	k, s := m.K(), m.S()
	for i := range k {
		out.K = append(out.K, significant(k[i]))
		out.S = append(out.S, significant(s[i]))
	}
	return out, nil
}

func (o Origin) fromSwatches(out *Derived) (Mixture, error) {
	if o.Mass == nil || o.Tint == nil {
		return Mixture{}, input.Errorf("two swatches are needed: the masstone, and a tint with white")
	}
	mass, err := o.Mass.Parse("masstone")
	if err != nil {
		return Mixture{}, err
	}
	tint, err := o.Tint.Parse("tint")
	if err != nil {
		return Mixture{}, err
	}
	m, fit, err := FromSwatches(Swatches{Mass: mass, Tint: tint, WhiteShare: o.WhiteShare})
	if err != nil {
		return Mixture{}, input.Sentence(err)
	}
	out.Making = TwoSwatch
	if mass.Spectrum != nil && tint.Spectrum != nil {
		out.Making = FromCurves
	}
	out.Fit, out.Tinted = &fit, true
	return m, nil
}

func (o Origin) fromLabel(pigments []*Paint, out *Derived) (Mixture, error) {
	var mass *Reading
	if o.Mass != nil {
		r, err := o.Mass.Parse("masstone")
		if err != nil {
			return Mixture{}, err
		}
		mass = &r
	}
	m, shares, fit, err := FromLabel(pigments, mass)
	if err != nil {
		return Mixture{}, input.Sentence(err)
	}
	out.Making, out.Shares, out.Fit = FromALabel, shares, fit
	return m, nil
}

func (o Origin) adjusted(out *Derived) (Mixture, error) {
	p, err := Find(o.Paint)
	if err != nil {
		return Mixture{}, err
	}
	factor := o.Factor
	if factor == 0 {
		factor = 1
	}
	m, err := Adjusted(p, factor, o.Shift, 0)
	if err != nil {
		return Mixture{}, input.Sentence(err)
	}
	out.Making, out.Pigments = Changed, []string{p.ID}
	return m, nil
}

// significant keeps seven digits.
func significant(v float64) float64 {
	if v == 0 {
		return 0
	}
	p := math.Pow(10, 6-math.Floor(math.Log10(math.Abs(v))))
	return math.Round(v*p) / p
}
