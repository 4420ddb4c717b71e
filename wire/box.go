package wire

import (
	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Tube is a paint of a box with all that a painter asks of one.
type Tube struct {
	Paint
	Made         string        `json:"made" format:"making"`
	MadeWords    string        `json:"madeWords"`
	Temperature  string        `json:"temperature,omitempty" enum:"warm,cool" doc:"by the school; absent for centred paints and families without such a word"`
	Relative     string        `json:"relative,omitempty" doc:"where it stands among the box's paints of its family"`
	PrintBecause string        `json:"printBecause,omitempty" doc:"hue error and greyness in words"`
	Drawdown     []DrawnRung   `json:"drawdown" doc:"from masstone to wash"`
	Curves       SwatchSpectra `json:"curves"`
	G            float64       `json:"g" doc:"strength of the tube: 1 for an ordinary artist's, 0.5 for a student's"`
}

// TubeContent is what a painter says of a tube.
type TubeContent struct {
	Nickname string   `json:"nickname" maxLength:"80"`
	Grade    string   `json:"grade" format:"grade"`
	TubeML   *float64 `json:"tubeMl" doc:"millilitres in the tube; null when not said"`
	Price    *float64 `json:"price" doc:"of the tube, in the painter's own money; null when not said"`
	Note     string   `json:"note" maxLength:"1000"`
	NotSure  string   `json:"notSure,omitempty" maxLength:"80" doc:"the words on the tube, where it is not sure which of the pigments behind them it has; by its look where there are none"`
	Archived bool     `json:"archived"`
}

// DrawnRung is one place of a drawdown.
type DrawnRung struct {
	Thickness float64 `json:"thickness"`
	White     Shown   `json:"white" doc:"over the white card"`
	Stripe    Shown   `json:"stripe" doc:"over the black stripe"`
}

// SwatchSpectra are reflectances seen from outside, wet, 380 to 730 nm every
// 10 nm: of the masstone, and of a tint of 1 part in 9 of titanium white.
type SwatchSpectra struct {
	Mass []float64 `json:"mass"`
	Tint []float64 `json:"tint"`
}

const drawnRungs = 13

func spectra(p *paint.Paint) SwatchSpectra {
	list := func(s colour.Spectrum) []float64 {
		out := make([]float64, len(s))
		for i, v := range s {
			out[i] = round(v, 5)
		}
		return out
	}
	mass, tint := p.SwatchSpectra()
	return SwatchSpectra{list(mass), list(tint)}
}

// Tube describes a paint among the paints of a box.
func (v View) Tube(p *paint.Paint, box []*paint.Paint, school bias.School) Tube {
	m := p.Alone()
	out := Tube{
		Paint: v.Paint(p), Made: string(p.Making), MadeWords: p.Making.Words(),
		Temperature: bias.Temperature(p, school), Relative: bias.Relative(p, box),
		PrintBecause: bias.PrintSentence(&m), Curves: spectra(p), G: p.Strength(),
	}
	for _, d := range m.Drawdown(v.Medium, v.Wet, drawnRungs) {
		out.Drawdown = append(out.Drawdown, DrawnRung{round(d.Thickness, 4), shown(d.White.OKLab(v.Light)), shown(d.Over.OKLab(v.Light))})
	}
	return out
}

// Arc is a family's paints on one arc of hue.
type Arc struct {
	Family string     `json:"family"`
	Lower  string     `json:"lower" doc:"the neighbour at the end of falling hue"`
	Higher string     `json:"higher"`
	Dead   float64    `json:"dead" doc:"half width of centred, degrees"`
	Span   float64    `json:"span" doc:"degrees from the middle to either end"`
	Places []ArcPlace `json:"places"`
}

// ArcPlace is one paint on an arc.
type ArcPlace struct {
	Paint   string  `json:"paint"`
	Degrees float64 `json:"degrees"`
}

// Arcs lay a box out by family.
func Arcs(box []*paint.Paint) []Arc {
	out := []Arc{}
	for _, a := range bias.Arcs(box) {
		arc := Arc{Family: string(a.Family), Lower: a.Lower, Higher: a.Higher, Dead: a.Dead, Span: a.Span}
		for _, p := range a.Places {
			arc.Places = append(arc.Places, ArcPlace{p.Paint.ID, round(p.Lean.Degrees, 1)})
		}
		out = append(out, arc)
	}
	return out
}

// CautionGroup is what several paints of a box must be handled with care for.
type CautionGroup struct {
	Name    string   `json:"name"`
	Caution string   `json:"caution"`
	Paints  []string `json:"paints"`
}

// Cautions sum a box up.
func Cautions(box []*paint.Paint) []CautionGroup {
	out := []CautionGroup{}
	for _, g := range paint.Cautions(box) {
		out = append(out, CautionGroup{g.Name, g.Caution, paint.IDs(g.Paints)})
	}
	return out
}

// WarmHalf are the ends of the warm half of the painter's circle.
type WarmHalf struct {
	From float64 `json:"from" doc:"wheel hue in degrees"`
	To   float64 `json:"to"`
}

// Warm is the warm half.
func Warm() WarmHalf {
	from, to := bias.WarmHalf()
	return WarmHalf{from, to}
}

// Beside is two paints held side by side.
type Beside struct {
	A           Tube     `json:"a"`
	B           Tube     `json:"b"`
	Differences []string `json:"differences" doc:"in words, the weightiest first"`
	DE          float64  `json:"de" doc:"CIEDE2000 of the masstones"`
	UndertoneDE float64  `json:"undertoneDE" doc:"CIEDE2000 of the undertones"`
}

// Beside holds two paints side by side.
func (v View) Beside(a, b *paint.Paint, box []*paint.Paint, school bias.School) Beside {
	out := Beside{A: v.Tube(a, box, school), B: v.Tube(b, box, school), Differences: bias.Differences(a, b)}
	lab := func(c Colour) colour.Lab { return colour.Lab{L: c.Lab[0], A: c.Lab[1], B: c.Lab[2]} }
	out.DE = round(colour.Difference(lab(out.A.Masstone), lab(out.B.Masstone)), 2)
	out.UndertoneDE = round(colour.Difference(lab(out.A.Undertone), lab(out.B.Undertone)), 2)
	return out
}

// StartingSet is a box to begin with.
type StartingSet struct {
	Name   string   `json:"name"`
	Why    string   `json:"why"`
	Paints []string `json:"paints" doc:"library ids"`
	Shown  []Shown  `json:"shown" doc:"their undertones"`
}

// StartingSets are offered to an empty box.
func StartingSets() []StartingSet {
	out := []StartingSet{}
	for _, s := range paint.StartingSets() {
		set := StartingSet{Name: s.Name, Why: s.Why, Paints: paint.IDs(s.Paints)}
		for _, p := range s.Paints {
			set.Shown = append(set.Shown, ShownUndertone(p))
		}
		out = append(out, set)
	}
	return out
}

// ShownUndertone is a paint's undertone on the screen.
func ShownUndertone(p *paint.Paint) Shown { return shown(p.Undertone().Colour) }
