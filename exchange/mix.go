package exchange

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/text"
)

// BadInput is an error in what somebody typed; its sentence says what, where
// and what to do.
type BadInput struct {
	sentence string
	cause    error // what the core refused, if it did
}

func (e BadInput) Error() string { return e.sentence }
func (e BadInput) Unwrap() error { return e.cause }

// refused is what the core refuses of what was typed.
func refused(err error) BadInput { return BadInput{err.Error(), err} }

// sentence is refused as a sentence of its own.
func sentence(err error) BadInput {
	return BadInput{strings.TrimSuffix(text.UpperFirst(err.Error()), ".") + ".", err}
}

// FindPaint is paint.Find for what somebody typed.
func FindPaint(id string) (*paint.Paint, error) {
	p, err := paint.Find(id)
	if err != nil {
		return nil, refused(err)
	}
	return p, nil
}

// ParseLook is ParseView and a spacing: "hue", "contrast" or "parts".
func ParseLook(medium, light, judged, spacing string) (View, path.Spacing, error) {
	v, err := ParseView(medium, light, judged)
	if err != nil {
		return View{}, 0, err
	}
	s, err := path.ParseSpacing(spacing)
	if err != nil {
		return View{}, 0, refused(err)
	}
	return v, s, nil
}

// Bad makes a BadInput; an error among what it tells of is its cause.
func Bad(format string, a ...any) error { return bad(format, a...) }

func bad(format string, a ...any) error {
	err := fmt.Errorf(format, a...)
	return BadInput{err.Error(), errors.Unwrap(err)}
}

// Limits of what is read.
const (
	mostIngredients = 24
	leastPart       = 1e-6
	largestPart     = 1e6
)

// ParseParts reads ingredients written as PAINT=PARTS ("PB29=1", "PB15:3=2.5").
func ParseParts(texts []string, find Finder) ([]paint.Part, error) {
	if len(texts) == 0 {
		return nil, bad("name at least one paint, as PAINT=PARTS: PB29=1 PW6=3")
	}
	if len(texts) > mostIngredients {
		return nil, bad("%d paints are more than anyone stirs together: give at most %d", len(texts), mostIngredients)
	}
	var parts []paint.Part
	seen := map[string]bool{}
	for _, text := range texts {
		id, number, found := strings.Cut(text, "=")
		if !found {
			return nil, bad("%q: write a paint and its parts as PAINT=PARTS, like PB29=1", clip(text))
		}
		p, err := find(id)
		if err != nil {
			return nil, err
		}
		if seen[p.ID] {
			return nil, bad("%s stands twice: add its parts together", p.ID)
		}
		seen[p.ID] = true
		v, err := strconv.ParseFloat(strings.TrimSpace(number), 64)
		if err != nil || math.IsNaN(v) || v < leastPart || v > largestPart {
			return nil, bad("%s: parts must be a number from %s to %s, not %q", p.ID, plain(leastPart), plain(largestPart), clip(number))
		}
		parts = append(parts, paint.Part{Paint: p, Parts: v})
	}
	return parts, nil
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func clip(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "..."
	}
	return s
}

// Ingredient is so many parts of a paint or of its let-down.
type Ingredient struct {
	Paint   string   `json:"paint"`
	Code    string   `json:"code" doc:"what to call it in short: the library's id, or a tube's Colour Index name, or its name"`
	Name    string   `json:"name"`
	Parts   float64  `json:"parts"`
	Shown            // the ingredient as painted, its let-down mixed
	LetDown *LetDown `json:"letDown,omitempty" doc:"the paint is first let down: 1 part of it in so many of another"`
	// Of says what it was stirred from, where it is a mixture of its own.
	Of []OfPart `json:"of,omitempty"`
}

// InParts is a recipe in short: "12 PY65 : 3 PB29 (let down 1:9 in PY65)".
func InParts(parts []Ingredient) string {
	var words []string
	for _, p := range parts {
		one := plain(p.Parts) + " " + p.Code
		if p.LetDown != nil {
			one += fmt.Sprintf(" (let down 1:%d in %s)", p.LetDown.Parts, p.LetDown.In)
		}
		words = append(words, one)
	}
	return strings.Join(words, " : ")
}

// OfPart is one ingredient of a mixture that is mixed further.
type OfPart struct {
	Paint string  `json:"paint"`
	Code  string  `json:"code"`
	Parts float64 `json:"parts"`
}

// TubePrefix begins the ids of the tubes of a box.
const TubePrefix = "tube-"

// code is what to call a paint in short.
func code(p *paint.Paint) string {
	switch {
	case !strings.HasPrefix(p.ID, TubePrefix):
		return p.ID
	case p.CI != "" && !strings.Contains(p.CI, ","):
		return p.CI
	}
	return p.Name
}

func codes(paints []*paint.Paint) []string {
	out := []string{}
	for _, p := range paints {
		out = append(out, code(p))
	}
	return out
}

// LetDown is 1 part of an ingredient in Parts parts of another paint.
type LetDown struct {
	In    string `json:"in" doc:"what to call the other paint in short"`
	Paint string `json:"paint" doc:"the other paint"`
	Parts int    `json:"parts"`
}

// Mixture is a mixture with all that is said of one.
type Mixture struct {
	Parts []Ingredient `json:"parts"`
	Colours
	Judgement
}

// Mix is the answer to "what do these parts make".
type Mix struct {
	Conditions
	Mixture
	Tint     Shown     `json:"tint" doc:"1 part in 9 of titanium white"`
	Wash     Shown     `json:"wash" doc:"a thin wash over white"`
	Spectrum []float64 `json:"spectrum" doc:"reflectance of the masstone, 380 to 730 nm every 10 nm"`
	Greyness *float64  `json:"greyness" doc:"null where it does not apply"`
	HueError *float64  `json:"hueError" doc:"null where it does not apply"`
	Ladder   []Rung    `json:"ladder"`
}

// Mix stirs paints together.
func (v View) Mix(parts []paint.Part) (Mix, error) {
	m, mixture, err := v.stirred(parts)
	if err != nil {
		return Mix{}, err
	}
	out := Mix{Conditions: v.conditions(), Mixture: mixture, Ladder: v.ladder(&m)}
	let := m.LetDown(0.1)
	tint, wash := let.Masstone(), m.Wash()
	out.Tint, out.Wash = shown(tint.OKLab(v.Light)), shown(wash.OKLab(v.Light))
	for _, r := range m.Masstone() {
		out.Spectrum = append(out.Spectrum, round(r, 6))
	}
	out.Greyness, out.HueError = prints(&m)
	return out, nil
}

func (v View) ingredients(parts []path.Ingredient) []Ingredient {
	out := make([]Ingredient, len(parts))
	for i, p := range parts {
		m := p.Mixture()
		out[i] = Ingredient{Paint: p.Paint.ID, Code: code(p.Paint), Name: p.Paint.Name, Parts: float64(p.Parts), Shown: v.painted(&m)}
		if p.In != nil {
			out[i].LetDown = &LetDown{code(p.In), p.In.ID, p.Thin}
		}
		for _, of := range p.Paint.Of {
			out[i].Of = append(out[i].Of, OfPart{of.Paint.ID, code(of.Paint), of.Parts})
		}
	}
	return out
}

// look is the colour of a mixture as painted.
func (v View) look(m *paint.Mixture) colour.OKLab {
	s := m.AsPainted(v.Medium, v.Wet)
	return s.OKLab(v.Light)
}

// painted is a mixture as painted, on the screen.
func (v View) painted(m *paint.Mixture) Shown { return shown(v.look(m)) }

func (v View) step(s path.Step) Mixture {
	return Mixture{v.ingredients(s.Recipe.Parts), v.colours(&s.Mixture, s.Under), judgement(s.Under)}
}
