package exchange

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Reading is the colour of a painted swatch as it was typed, picked or
// measured: one of lab, hex and spectrum.
type Reading struct {
	Lab      *[3]float64 `json:"lab,omitempty" doc:"CIELAB under D65, 2 degrees"`
	Hex      string      `json:"hex,omitempty" maxLength:"20" doc:"#rrggbb"`
	Spectrum []float64   `json:"spectrum,omitempty" maxItems:"36" doc:"reflectance, 380 to 730 nm every 10 nm, 0 to 1"`
	Source   string      `json:"source" enum:"eye,photo,instrument"`
	Medium   string      `json:"medium" enum:"watercolour,gouache,tempera,acrylic,oil"`
	Judged   string      `json:"judged" enum:"wet,dry"`
}

// ParseReading reads a colour as #rrggbb, or as CIELAB: three numbers with
// commas or spaces between. It was seen by eye under the conditions of the view.
func (v View) ParseReading(text string) (Reading, error) {
	c := v.conditions()
	r := Reading{Source: string(paint.Eye), Medium: c.Medium, Judged: c.Judged}
	fields := strings.FieldsFunc(text, func(at rune) bool { return at == ',' || at == ';' || at == ' ' })
	if len(fields) == 1 {
		r.Hex = fields[0]
		if !strings.HasPrefix(r.Hex, "#") {
			r.Hex = "#" + r.Hex
		}
		_, err := r.core("the colour")
		return r, err
	}
	var lab [3]float64
	if len(fields) != len(lab) || len(text) > 60 {
		return r, bad("%q is no colour: write #rrggbb, or CIELAB as three numbers like 52, 38, 20", clip(text))
	}
	for i, f := range fields {
		n, err := strconv.ParseFloat(f, 64)
		if err != nil {
			return r, bad("%q is no colour: %q is not a number; write CIELAB as three numbers like 52, 38, 20", clip(text), clip(f))
		}
		lab[i] = n
	}
	r.Lab = &lab
	_, err := r.core("the colour")
	return r, err
}

// core checks a reading; what names the swatch in sentences.
func (r Reading) core(what string) (paint.Reading, error) {
	wrong := func(err error) error { return bad("%s: %s", what, err) }
	m, err := paint.ParseMedium(r.Medium)
	if err != nil {
		return paint.Reading{}, wrong(err)
	}
	wet := r.Judged == "wet"
	source := paint.Source(r.Source)
	switch {
	case len(r.Spectrum) > 0:
		if len(r.Spectrum) != colour.Bands {
			return paint.Reading{}, bad("%s: %d values of reflectance where %d are needed, from 380 to 730 nm every 10 nm", what, len(r.Spectrum), colour.Bands)
		}
		out, err := paint.SpectrumReading(colour.Spectrum(r.Spectrum), source, wet, m)
		if err != nil {
			return paint.Reading{}, wrong(err)
		}
		return out, nil
	case r.Lab != nil:
		out, err := paint.LabReading(colour.Lab{L: r.Lab[0], A: r.Lab[1], B: r.Lab[2]}, source, wet, m)
		if err != nil {
			return paint.Reading{}, wrong(err)
		}
		return out, nil
	case r.Hex != "":
		xyz, err := colour.ParseHex(r.Hex)
		if err != nil {
			return paint.Reading{}, wrong(err)
		}
		out, err := paint.LabReading(xyz.Lab(colour.D65.White()), source, wet, m)
		if err != nil {
			return paint.Reading{}, wrong(err)
		}
		return out, nil
	}
	return paint.Reading{}, bad("%s: no colour is given; type it as CIELAB or as #rrggbb, pick it from a photo, or read it with the meter", what)
}

// Origin is how a paint of a box was come by, and from what.
type Origin struct {
	Kind       string   `json:"kind" enum:"swatches,label,adjusted" doc:"worked out from two swatches; after the pigments of a label; like a library paint but changed"`
	Mass       *Reading `json:"mass,omitempty" doc:"the masstone: of swatches, or of a label whose shares are fitted"`
	Tint       *Reading `json:"tint,omitempty"`
	WhiteShare float64  `json:"whiteShare,omitempty" doc:"of the tint, by volume, 0 to 1"`
	Pigments   []string `json:"pigments,omitempty" maxItems:"6" doc:"library paints: what the label names"`
	Paint      string   `json:"paint,omitempty" maxLength:"60" doc:"the library paint that is changed"`
	Factor     float64  `json:"factor,omitempty" doc:"times as strong, 0.1 to 10"`
	Shift      float64  `json:"shift,omitempty" doc:"of the absorption, -20 to 20 nm"`
}

// Fit is how well a paint that was worked out agrees with what was given.
type Fit struct {
	Mass *float64 `json:"mass" doc:"CIEDE2000 of the masstone; null where none was given"`
	Tint *float64 `json:"tint" doc:"CIEDE2000 of the tint; null where none was given"`
	// Words judge the worse of the two.
	Words string `json:"words"`
}

// Share is one pigment's part of a paint after its label.
type Share struct {
	Paint string  `json:"paint"`
	Name  string  `json:"name"`
	Share float64 `json:"share" doc:"by volume, 0 to 1"`
}

// Definition is what a tube of a box is: a paint of the library, or curves of
// its own with the story of their making.
type Definition struct {
	Library  string    `json:"library,omitempty" doc:"id of the library paint; then nothing else is set"`
	Name     string    `json:"name,omitempty"`
	Made     string    `json:"made,omitempty" enum:"label,swatches,measured,adjusted"`
	Pigments []string  `json:"pigments,omitempty" doc:"library ids, where known"`
	K        []float64 `json:"k,omitempty" doc:"absorption, 380 to 730 nm every 10 nm"`
	S        []float64 `json:"s,omitempty" doc:"scattering, likewise; titanium white has 1 at 550 nm"`
	Origin   *Origin   `json:"origin,omitempty"`
}

// Made is a paint worked out from its origin.
type Made struct {
	Definition
	Fit    *Fit
	Shares []Share
}

// Make works a paint out; the name is what it will be called.
func (o Origin) Make(name string) (Made, error) {
	pigments, err := findPigments(o.Pigments)
	if err != nil {
		return Made{}, err
	}
	out := Made{Definition: Definition{Name: name, Pigments: ids(pigments), Origin: &o}}
	var m paint.Mixture
	switch o.Kind {
	case "swatches":
		m, err = o.swatches(&out)
	case "label":
		m, err = o.label(pigments, &out)
	case "adjusted":
		m, err = o.adjusted(&out)
	default:
		return Made{}, bad("unknown way %q to make a paint: choose swatches, label or adjusted", clip(o.Kind))
	}
	if err != nil {
		return Made{}, err
	}
	k, s := m.K(), m.S()
	for i := range k {
		out.K = append(out.K, significant(k[i]))
		out.S = append(out.S, significant(s[i]))
	}
	return out, nil
}

func (o Origin) swatches(out *Made) (paint.Mixture, error) {
	if o.Mass == nil || o.Tint == nil {
		return paint.Mixture{}, bad("two swatches are needed: the masstone, and a tint with white")
	}
	mass, err := o.Mass.core("masstone")
	if err != nil {
		return paint.Mixture{}, err
	}
	tint, err := o.Tint.core("tint")
	if err != nil {
		return paint.Mixture{}, err
	}
	m, fit, err := paint.FromSwatches(paint.Swatches{Mass: mass, Tint: tint, WhiteShare: o.WhiteShare})
	if err != nil {
		return paint.Mixture{}, sentence(err)
	}
	out.Made = string(paint.TwoSwatch)
	if mass.Spectrum != nil && tint.Spectrum != nil {
		out.Made = string(paint.FromCurves)
	}
	fm, ft := round(fit.Mass, 3), round(fit.Tint, 3)
	out.Fit = &Fit{&fm, &ft, fit.Words()}
	return m, nil
}

func (o Origin) label(pigments []*paint.Paint, out *Made) (paint.Mixture, error) {
	var mass *paint.Reading
	if o.Mass != nil {
		r, err := o.Mass.core("masstone")
		if err != nil {
			return paint.Mixture{}, err
		}
		mass = &r
	}
	m, shares, fit, err := paint.FromLabel(pigments, mass)
	if err != nil {
		return paint.Mixture{}, sentence(err)
	}
	out.Made = string(paint.FromALabel)
	for i, p := range pigments {
		out.Shares = append(out.Shares, Share{p.ID, p.Name, round(shares[i], 4)})
	}
	if fit != nil {
		fm := round(fit.Mass, 3)
		out.Fit = &Fit{Mass: &fm, Words: fit.Words()}
	}
	return m, nil
}

func (o Origin) adjusted(out *Made) (paint.Mixture, error) {
	p, err := FindPaint(o.Paint)
	if err != nil {
		return paint.Mixture{}, err
	}
	factor := o.Factor
	if factor == 0 {
		factor = 1
	}
	m, err := paint.Adjusted(p, factor, o.Shift)
	if err != nil {
		return paint.Mixture{}, sentence(err)
	}
	out.Made = string(paint.Changed)
	out.Pigments = []string{p.ID}
	return m, nil
}

// Kept is a definition that was kept before curves had bounds: they are brought
// within them, so that a box opens whatever is in it.
func (d Definition) Kept() Definition {
	d.K, d.S = slices.Clone(d.K), slices.Clone(d.S)
	for i, k := range d.K {
		d.K[i] = min(max(k, 0), paint.MostAbsorption)
	}
	for i, s := range d.S {
		d.S[i] = min(max(s, paint.LeastScattering), paint.MostScattering)
	}
	return d
}

// Paint is the core's paint of a definition, as a tube of a strength.
func (d Definition) Paint(id string, strength float64) (*paint.Paint, error) {
	if d.Library != "" {
		p, err := FindPaint(d.Library)
		if err != nil {
			return nil, err
		}
		return tube(p, id, strength)
	}
	if len(d.K) != colour.Bands || len(d.S) != colour.Bands {
		return nil, bad("%s: a paint of its own needs %d values each of absorption and scattering", clip(d.Name), colour.Bands)
	}
	m, err := paint.OfCurves(colour.Spectrum(d.K), colour.Spectrum(d.S))
	if err != nil {
		return nil, bad("%s: %w", clip(d.Name), err)
	}
	pigments, err := findPigments(d.Pigments)
	if err != nil {
		return nil, err
	}
	switch paint.Making(d.Made) {
	case paint.FromALabel, paint.TwoSwatch, paint.FromCurves, paint.Changed:
	default:
		return nil, bad("%s: made %q is not known: label, swatches, measured or adjusted", clip(d.Name), clip(d.Made))
	}
	return tube(paint.Own(id, d.Name, m, pigments, paint.Making(d.Made)), id, strength)
}

func tube(p *paint.Paint, id string, strength float64) (*paint.Paint, error) {
	t, err := p.Tube(id, strength)
	if err != nil {
		return nil, sentence(err)
	}
	return t, nil
}

func findPigments(names []string) ([]*paint.Paint, error) {
	var out []*paint.Paint
	for _, name := range names {
		p, err := FindPaint(name)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

func ids(paints []*paint.Paint) []string {
	var out []string
	for _, p := range paints {
		out = append(out, p.ID)
	}
	return out
}

// LabelCode is one Colour Index name found on a label, and the library paints
// that may stand for it.
type LabelCode struct {
	Code    string  `json:"code"`
	Choices []Paint `json:"choices" doc:"empty where the library has none"`
}

// ReadLabel finds Colour Index names in what a label says.
func (v View) ReadLabel(text string) ([]LabelCode, error) {
	out := []LabelCode{}
	for _, code := range paint.Codes(text) {
		found := LabelCode{Code: code, Choices: []Paint{}}
		for _, p := range paint.WithCode(code) {
			found.Choices = append(found.Choices, v.Paint(p))
		}
		out = append(out, found)
	}
	if len(out) == 0 {
		return nil, bad("no pigment code is in %q: look for letters and a number such as PB29, PY 184 or PV19 on the label", clip(text))
	}
	return out, nil
}

// significant keeps seven digits.
func significant(v float64) float64 {
	if v == 0 {
		return 0
	}
	p := math.Pow(10, 6-math.Floor(math.Log10(math.Abs(v))))
	return math.Round(v*p) / p
}

// MadeWords say how a paint was come by.
var MadeWords = map[paint.Making]string{
	paint.Modelled:   "modelled: typical of its pigment class, not your tube",
	paint.FromALabel: "from the label: modelled pigments in the shares said below",
	paint.TwoSwatch:  "from two swatches",
	paint.FromCurves: "measured: from spectra of two swatches",
	paint.Changed:    "adjusted: a modelled paint made like yours by hand",
}

// FromMeter is the reading of a spectrum that a meter measured.
func FromMeter(s colour.Spectrum, medium, judged string) (Reading, Colour) {
	out := Reading{Source: string(paint.Instrument), Medium: medium, Judged: judged}
	for _, v := range s {
		out.Spectrum = append(out.Spectrum, round(max(v, 0), 6))
	}
	return out, colourOf(s, colour.D65)
}

// UnderTheMeter is the reflectance of a swatch as the stand-in is asked for it:
// parts of library paints, then a medium, then wet or dry ("PB29=1 PW6=9 acrylic
// dry"); medium and judged may be left out. The swatch is laid out opaque.
func UnderTheMeter(swatch string) (colour.Spectrum, error) {
	var parts []string
	medium, judged := "acrylic", "dry"
	for _, word := range strings.Fields(swatch) {
		switch {
		case strings.Contains(word, "="):
			parts = append(parts, word)
		case word == "wet" || word == "dry":
			judged = word
		default:
			medium = word
		}
	}
	in, err := paint.ParseMedium(medium)
	if err != nil {
		return colour.Spectrum{}, err
	}
	p, err := ParseParts(parts, FindPaint)
	if err != nil {
		return colour.Spectrum{}, err
	}
	m, err := paint.Mix(p...)
	if err != nil {
		return colour.Spectrum{}, err
	}
	return m.Swatch(in, judged == "wet"), nil
}
