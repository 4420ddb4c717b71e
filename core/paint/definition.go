package paint

import (
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// TubePrefix begins the ids of the tubes of a box.
const TubePrefix = "tube-"

// TubeID is the id that the tube of a number has among the paints of its box.
func TubeID(number int64) string { return TubePrefix + strconv.FormatInt(number, 10) }

// TubeNumber is the number of a tube by its id; false where the id is no tube's.
func TubeNumber(id string) (number int64, is bool) {
	text, is := strings.CutPrefix(id, TubePrefix)
	number, err := strconv.ParseInt(text, 10, 64)
	return number, is && err == nil
}

// Finder finds a paint by its id: of the library or, where there is a box, of
// one of its tubes. The error is an input.Error where there is no such paint.
type Finder func(id string) (*Paint, error)

// Definition is what a tube is: a paint of the library, or curves of its own
// with how they were come by.
type Definition struct {
	Library  string // id of the library paint; then only Version may be set
	Version  string // of the library that the paint is of; empty for today's
	Name     string
	Making   Making
	Pigments []string  // library ids, where known
	K, S     []float64 // absorption and scattering per unit thickness, 36 bands, 380 to 730 nm
	Origin   *Origin   // nil where only the curves are known
}

// WithinBounds is the definition with curves brought within what a paint can
// have: what was kept before curves had bounds.
func (d Definition) WithinBounds() Definition {
	d.K, d.S = slices.Clone(d.K), slices.Clone(d.S)
	for i, k := range d.K {
		d.K[i] = min(max(k, 0), MostAbsorption)
	}
	for i, s := range d.S {
		d.S[i] = min(max(s, LeastScattering), MostScattering)
	}
	return d
}

// Paint is the paint of a definition as a tube of a strength, 0.05 to 20. The
// error is an input.Error.
func (d Definition) Paint(id string, strength float64) (*Paint, error) {
	p, err := d.paint(id)
	if err != nil {
		return nil, err
	}
	t, err := p.Tube(id, strength)
	if err != nil {
		return nil, input.Sentence(err)
	}
	return t, nil
}

// Graded is the paint of a definition as a tube of a grade. The error is an
// input.Error.
func (d Definition) Graded(id string, g Grade) (*Paint, error) {
	p, err := d.paint(id)
	if err != nil {
		return nil, err
	}
	return d.Paint(id, g.Strength(p.StrengthClass))
}

func (d Definition) paint(id string) (*Paint, error) {
	if d.Library != "" {
		return FindOf(d.Library, d.Version)
	}
	if len(d.K) != colour.Bands || len(d.S) != colour.Bands {
		return nil, input.Errorf("%s: a paint of its own needs %d values each of absorption and scattering", input.Clip(d.Name), colour.Bands)
	}
	m, err := OfCurves(colour.Spectrum(d.K), colour.Spectrum(d.S))
	if err != nil {
		return nil, input.Errorf("%s: %w", input.Clip(d.Name), err)
	}
	pigments, err := findAll(d.Pigments)
	if err != nil {
		return nil, err
	}
	switch d.Making {
	case FromALabel, TwoSwatch, FromCurves, Changed:
	default:
		return nil, input.Errorf("%s: made %q is not known: label, swatches, measured or adjusted", input.Clip(d.Name), input.Clip(string(d.Making)))
	}
	return Own(id, d.Name, m, pigments, d.Making), nil
}

func findAll(ids []string) ([]*Paint, error) {
	var out []*Paint
	for _, id := range ids {
		p, err := Find(id)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// IDs are the ids of paints.
func IDs(paints []*Paint) []string {
	var out []string
	for _, p := range paints {
		out = append(out, p.ID)
	}
	return out
}

// Code is what to call a paint in short: the library's id, or a tube's Colour
// Index name where it has one, or else its name.
func (p *Paint) Code() string {
	switch {
	case !strings.HasPrefix(p.ID, TubePrefix):
		return p.ID
	case p.CI != "" && !strings.Contains(p.CI, ","):
		return p.CI
	}
	return p.Name
}

// AlsoCalled is what stands in brackets in the paint's name; empty where nothing
// does.
func (p *Paint) AlsoCalled() string {
	_, rest, found := strings.Cut(p.Name, " (")
	if !found {
		return ""
	}
	also, _, _ := strings.Cut(rest, ")")
	return also
}

// ShortName is the paint's name without what stands in brackets.
func (p *Paint) ShortName() string {
	before, rest, found := strings.Cut(p.Name, " (")
	if !found {
		return p.Name
	}
	_, after, _ := strings.Cut(rest, ")")
	return before + after
}
