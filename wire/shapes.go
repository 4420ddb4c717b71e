// Package wire is the JSON that a client sees, one type for each thing: values
// of the core and the studio in the shapes and field names that the HTTP API and
// the command line share. It works nothing out but how a colour is shown.
package wire

import (
	"gyrophane/core/certainty"
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// View is the conditions a colour is looked at under. It changes displayed
// colours only; undertone, lean, retention and verdict never depend on it.
type View struct {
	Medium paint.Medium
	Light  colour.Light
	Wet    bool
	// Doubts says what is not known of a paint; nil for what it says of itself.
	Doubts certainty.Doubts
}

// doubts is what is not known of the paints that are looked at.
func (v View) doubts() certainty.Doubts {
	if v.Doubts == nil {
		return certainty.Usual
	}
	return v.Doubts
}

// ParseView reads a medium's id, a light's name, and "wet" or "dry". The error is
// an input.Error.
func ParseView(medium, light, judged string) (View, error) {
	m, err := paint.ParseMedium(medium)
	if err != nil {
		return View{}, input.Wrap(err)
	}
	l, err := colour.ParseLight(light)
	if err != nil {
		return View{}, input.Wrap(err)
	}
	if judged != "wet" && judged != "dry" {
		return View{}, input.Errorf("judged %q: choose wet or dry", judged)
	}
	return View{Medium: m, Light: l, Wet: judged == "wet"}, nil
}

// Conditions are a View in words.
type Conditions struct {
	Medium string `json:"medium" format:"medium" doc:"medium of the colours as painted"`
	Light  string `json:"light" format:"light" doc:"D65 daylight, D50 gallery, A warm lamp"`
	Judged string `json:"judged" format:"judged"`
}

func (v View) conditions() Conditions {
	return Conditions{v.Medium.ID, v.Light.String(), paint.Judged(v.Wet)}
}

// Colour is one colour: CIELAB against the light's own white, OKLCh adapted to
// D65 (L 0 to 1, C, h in degrees), and what an sRGB screen shows.
type Colour struct {
	Lab   [3]float64 `json:"lab"`
	OKLCh [3]float64 `json:"oklch"`
	Shown
}

// Shown is a colour as a screen shows it.
type Shown struct {
	SRGB      string `json:"srgb" doc:"#rrggbb"`
	Clipped   bool   `json:"clipped" doc:"brighter than sRGB can show: chroma was reduced"`
	P3        string `json:"p3,omitempty" doc:"for a Display P3 screen, as CSS; only where sRGB falls short"`
	ClippedP3 bool   `json:"clippedP3,omitempty" doc:"chroma was reduced even for Display P3"`
	// Of the paint, also where the screen shows it with less chroma.
	L float64 `json:"l" doc:"lightness, CIE L*, 0 black to 100 white; a tenth of it is the value"`
}

func shown(o colour.OKLab) Shown {
	s := o.Screen()
	return Shown{s.Hex, s.Clipped, s.P3, s.ClippedP3, round(o.Lightness(), 1)}
}

func colourOf(s colour.Spectrum, l colour.Light) Colour {
	lab := s.LabUnder(l)
	ok := s.OKLab(l)
	lch := ok.OKLCh()
	return Colour{
		Lab:   [3]float64{round(lab.L, 3), round(lab.A, 3), round(lab.B, 3)},
		OKLCh: [3]float64{round(lch.L, 5), round(lch.C, 5), round(lch.H, 2)},
		Shown: shown(ok),
	}
}

// Colours are the four colours of a mixture. The undertone is always in
// titanium white, wet, under daylight.
type Colours struct {
	Masstone   Colour `json:"masstone"`
	BrushedOut Colour `json:"brushedOut"`
	AsPainted  Colour `json:"asPainted"`
	Undertone  Colour `json:"undertone"`
	Words      string `json:"words" doc:"the colour as painted, in words"`
}

func (v View) colours(m *paint.Mixture, u paint.Undertone) Colours {
	let, look := m.LetDown(u.Share), m.AsPainted(v.Medium, v.Wet)
	return Colours{
		Masstone:   colourOf(m.Masstone(), v.Light),
		BrushedOut: colourOf(m.BrushedOut(), v.Light),
		AsPainted:  colourOf(look, v.Light),
		Undertone:  colourOf(let.Masstone(), colour.D65),
		Words:      look.OKLab(v.Light).Words(),
	}
}

// Judgement is what the undertone says of a mixture.
type Judgement struct {
	HueWord      string  `json:"hueWord"`
	WheelHue     float64 `json:"wheelHue" doc:"degrees on the painter's circle: red 0, yellow 120, blue 240"`
	Retention    float64 `json:"retention" doc:"undertone chroma over what the library can reach at this hue, 0 to 1"`
	Kept         float64 `json:"kept" doc:"retention over the mean of what its paints have alone, 0 to 1; 1 for a paint alone"`
	Verdict      string  `json:"verdict" format:"verdict"`
	VerdictWords string  `json:"verdictWords" doc:"the verdict, with how near it stands to the next: just clean, nearly clean"`
}

func judgement(u paint.Undertone) Judgement {
	return Judgement{HueWord: u.HueWord(), WheelHue: round(u.WheelHue, 2), Retention: round(u.Retention, 4), Kept: round(u.Kept, 4), Verdict: u.Verdict.String(), VerdictWords: u.VerdictWords()}
}

// withoutVerdict is for what is not to be judged.
func (j *Judgement) withoutVerdict() {
	j.Verdict = paint.Neutral.String()
	j.VerdictWords = j.Verdict
}

func round(v float64, digits int) float64 {
	p := math.Pow(10, float64(digits))
	v = math.Round(v*p) / p
	if v == 0 {
		return 0 // no negative zero in what people read
	}
	return v
}

// ParseColour reads a colour as #rrggbb or as CIELAB, as it was seen under the
// conditions of the view. The error is an input.Error.
func (v View) ParseColour(text string) (paint.Reading, error) {
	raw, err := paint.ParseColour(text, v.Medium, v.Wet)
	if err != nil {
		return paint.Reading{}, err
	}
	return raw.Parse("the colour")
}
