package wire

import (
	"strings"
	"sync"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Ingredient is so many parts of a paint or of its let-down.
type Ingredient struct {
	Paint   string   `json:"paint"`
	Code    string   `json:"code" doc:"what to call it in short: the library's id, or a tube's Colour Index name, or its name"`
	Name    string   `json:"name"`
	Short   string   `json:"shortName" doc:"the name without what stands in brackets"`
	Parts   float64  `json:"parts"`
	Says    string   `json:"says" doc:"so much of it, in short: 3 PB29 (let down 1:9 in PY65)"`
	Shown            // the ingredient as painted, its let-down mixed
	LetDown *LetDown `json:"letDown,omitempty" doc:"the paint is first let down: 1 part of it in so many of another"`
	// Of says what it was stirred from, where it is a mixture of its own.
	Of []PartOf `json:"of,omitempty"`
}

// PartOf is one ingredient of a mixture that is mixed further.
type PartOf struct {
	Paint string  `json:"paint"`
	Code  string  `json:"code"`
	Parts float64 `json:"parts"`
}

// LetDown is 1 part of an ingredient in Parts parts of another paint.
type LetDown struct {
	In    string `json:"in" doc:"what to call the other paint in short"`
	Paint string `json:"paint" doc:"the other paint"`
	Parts int    `json:"parts"`
}

// InParts is a recipe in short: "12 PY65 : 3 PB29 (let down 1:9 in PY65)".
func InParts(parts []Ingredient) string {
	var words []string
	for _, p := range parts {
		words = append(words, p.Says)
	}
	return strings.Join(words, " : ")
}

// Recipe shapes a recipe.
func (v View) Recipe(r recipe.Recipe) []Ingredient {
	out := make([]Ingredient, len(r))
	for i, p := range r {
		m := p.Mixture()
		out[i] = Ingredient{Paint: p.Paint.ID, Code: p.Code(), Name: p.Paint.Name, Short: p.Paint.ShortName(), Parts: p.Parts, Says: p.String(), Shown: v.painted(&m)}
		if p.In != nil {
			out[i].LetDown = &LetDown{p.In.Code(), p.In.ID, p.Thin}
		}
		for _, of := range p.Paint.Of {
			out[i].Of = append(out[i].Of, partOf(of.Paint, of.Parts))
		}
	}
	return out
}

// plain are the paints of a recipe by volume; nil where the recipe says so itself.
func plain(r recipe.Recipe) (out []PartOf) {
	if r.IsPlain() {
		return nil
	}
	for _, p := range r.Plain() {
		out = append(out, partOf(p.Paint, p.Parts))
	}
	return out
}

// Mixture is a mixture with all that is said of one.
type Mixture struct {
	Parts []Ingredient `json:"parts"`
	Plain []PartOf     `json:"plain,omitempty" doc:"the paints by volume, where something is let down or was stirred before"`
	Colours
	Judgement
}

func (v View) pile(p paint.Pile) Mixture {
	u := p.Mixture.Undertone()
	r := recipe.Of(p.Parts)
	return Mixture{v.Recipe(r), plain(r), v.colours(&p.Mixture, u), judgement(u)}
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

// Mix shapes a pile.
func (v View) Mix(p paint.Pile) Mix {
	m := &p.Mixture
	out := Mix{Conditions: v.conditions(), Mixture: v.pile(p), Ladder: v.ladder(m), Spectrum: reflectance(m.Masstone())}
	let := m.LetDown(paint.TintShare)
	tint, wash := let.Masstone(), m.Wash()
	out.Tint, out.Wash = shown(tint.OKLab(v.Light)), shown(wash.OKLab(v.Light))
	out.Greyness, out.HueError = greyness(m)
	return out
}

// reflectance is a spectrum as it is sent.
func reflectance(s colour.Spectrum) (out []float64) {
	for _, r := range s {
		out = append(out, round(r, 6))
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
	return Mixture{v.Recipe(s.Ratio.Parts), plain(s.Ratio.Parts), v.colours(&s.Mixture, s.Under), judgement(s.Under)}
}

// Quiet is a colour cooled or dulled in several ways, side by side.
type Quiet struct {
	Conditions
	Of   Mixture    `json:"of"`
	Ways []QuietWay `json:"ways"`
}

// QuietWay is one way to cool or dull a colour.
type QuietWay struct {
	Way     string      `json:"way" format:"quietWay"`
	With    *Ingredient `json:"with,omitempty" doc:"absent when there is no such paint"`
	Library bool        `json:"library" doc:"it was found in the library, not among the paints at hand"`
	Cools   bool        `json:"cools" doc:"it takes no chroma worth naming, but turns the hue"`
	Rungs   []QuietRung `json:"rungs" doc:"one for each share of chroma that can be lost so; where none can, one for each 15 degrees that the hue turns"`
}

// QuietRung is a colour with so much in it of what quietens it.
type QuietRung struct {
	Mixture
	Lost    float64 `json:"lost" doc:"share of its chroma, 0 to 1, brushed out"`
	Turned  float64 `json:"turned" doc:"degrees on the painter's circle, brushed out"`
	Lighter float64 `json:"lighter" doc:"OKLab lightness, brushed out; negative when darker"`
	Beside  string  `json:"beside" doc:"how it differs from what it was, as painted, in words"`
}

// Quiet shapes what quietens a pile.
func (v View) Quiet(p paint.Pile, ways []path.Quietening) Quiet {
	before := v.look(&p.Mixture)
	out := Quiet{Conditions: v.conditions(), Of: v.pile(p)}
	for _, way := range ways {
		one := QuietWay{Way: string(way.Way), Library: way.FromLibrary, Cools: way.Cools, Rungs: []QuietRung{}}
		if way.With != nil {
			one.With = &v.Recipe(recipe.Pure(way.With))[0]
		}
		for _, q := range way.Rungs {
			one.Rungs = append(one.Rungs, QuietRung{Mixture: v.step(q.Step), Lost: round(q.Lost, 3), Turned: round(q.Turned, 1), Lighter: round(q.Lighter, 3), Beside: v.look(&q.Mixture).Beside(before)})
		}
		out.Ways = append(out.Ways, one)
	}
	return out
}

// leanIn is a paint's lean in a role; nil where it has none.
func leanIn(p *paint.Paint, r bias.Role) *Lean {
	l, ok := bias.LeanIn(p, r)
	if !ok {
		return nil
	}
	return &Lean{Degrees: round(l.Degrees, 1), Toward: l.Toward, Lower: neighbours()[l.Lower], Higher: neighbours()[l.Higher], InMass: l.InMass, InWash: l.InWash}
}

// neighbours are the hues that paints lean to, each shown as the brightest paint
// that there is of it.
var neighbours = sync.OnceValue(func() map[string]Shown {
	out := map[string]Shown{}
	for i, word := range colour.HueWords() {
		best := paint.Brightest(30 * float64(i))
		out[word] = shown(best.Undertone().Colour)
	}
	return out
})
