package wire

import (
	"math"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// Paint is a paint as it is listed.
type Paint struct {
	ID       string  `json:"id"`
	CI       string  `json:"ci" doc:"Colour Index name"`
	Name     string  `json:"name"`
	Short    string  `json:"shortName" doc:"the name without what stands in brackets"`
	Also     string  `json:"also,omitempty" doc:"what stands in brackets"`
	HueOrder float64 `json:"hueOrder" doc:"for lists: degrees round the painter's circle, rising from yellow-green through blue and red to yellow"`
	Family   string  `json:"family"`
	Hiding   string  `json:"hiding" enum:"opaque,semi,transparent"`
	Strength int     `json:"strength" doc:"tinting strength of the class, 1 weak to 5 very strong"`
	Staining string  `json:"staining,omitempty" enum:"low,medium,high" doc:"typical of the class"`
	// Lightfast is how well the class keeps its colour in light.
	Lightfast       string `json:"lightfast,omitempty" enum:"excellent,good,fair,poor" doc:"typical of the class"`
	LightfastRating string `json:"lightfastRating,omitempty" enum:"I,II,III,IV" doc:"the same as a rating; of a label that of its worst pigment"`
	LightfastReason string `json:"lightfastReason,omitempty" doc:"what of the class makes it so"`
	Colours
	Judgement
	Lean     *Lean    `json:"lean" doc:"null where there is no hue to lean"`
	Greyness *float64 `json:"greyness" doc:"Preucil, 0 to 1; null where it does not apply"`
	HueError *float64 `json:"hueError" doc:"Preucil, 0 to 1; null where it does not apply"`
	Because  string   `json:"because"`
	Caution  string   `json:"caution"`
	Cautious bool     `json:"cautious" doc:"whether the class carries a special hazard"`
	// StudentSafe says that nothing in the class speaks against schools.
	StudentSafe bool     `json:"studentSafe"`
	Roles       []string `json:"roles" doc:"the roles it belongs in"`
	Playable    []string `json:"playable" doc:"the roles it may play, however unusual it is there"`
	Ladder      []Rung   `json:"ladder"`
}

// Lean is how far, in OKLCh degrees, the 1:9 tint of a paint lies from its role's hinge.
type Lean struct {
	Degrees float64 `json:"degrees"`
	Toward  string  `json:"toward" doc:"the neighbour it leans to, or centred"`
	Lower   Shown   `json:"lower" doc:"the brightest paint there is of the neighbour on the side of lower hue"`
	Higher  Shown   `json:"higher" doc:"the same on the side of higher hue"`
	InMass  string  `json:"inMass,omitempty" doc:"where the masstone leans the other way: the neighbour it leans to"`
	InWash  string  `json:"inWash,omitempty" doc:"where a thin wash leans the other way: the neighbour it leans to"`
}

// Rung is one step of a ladder, as painted.
type Rung struct {
	Share     float64 `json:"share" doc:"of the mixture beside white, 0.003 to 1"`
	Thickness float64 `json:"thickness" doc:"of the film, 0 when opaque"`
	Water     float64 `json:"water" doc:"where water thins: parts of it to 1 of paint, 0 to 63"`
	Thick     string  `json:"thick" enum:"butter,cream,milk,tea," doc:"where water thins: what it is as thick as; empty where it is thinner than tea"`
	Shown
}

// ladderRungs is how many rungs a ladder has: of white, and of water, where each is
// twice as thin as the one before.
const (
	ladderRungs = 9
	waterRungs  = 7
)

// Library lists every paint of the built-in library.
func (v View) Library() []Paint {
	out := make([]Paint, 0, len(paint.Library()))
	for _, p := range paint.Library() {
		out = append(out, v.Paint(p))
	}
	return out
}

// Paint describes one paint.
func (v View) Paint(p *paint.Paint) Paint {
	m := p.Alone()
	u := p.Undertone()
	out := Paint{
		ID: p.ID, CI: p.CI, Name: p.Name, Short: p.ShortName(), Also: p.AlsoCalled(), HueOrder: round(bias.HueOrder(p), 2), Family: string(bias.FamilyOf(p)), Hiding: p.Hiding, Strength: p.StrengthClass,
		Colours: v.colours(&m, u), Judgement: judgement(u), Because: bias.Alone(p),
		Staining: p.Staining, Lightfast: p.Lightfast, LightfastRating: p.Lightfastness().Rating, LightfastReason: p.Lightfastness().Reason,
		Caution: p.Caution, Cautious: p.Hazardous(), StudentSafe: p.StudentSafe(), Roles: []string{}, Playable: []string{}, Ladder: v.ladder(&m),
	}
	out.Lean = leanIn(p, "")
	out.Greyness, out.HueError = greyness(&m)
	for _, r := range bias.Roles {
		if wheel.Playable(p, r) {
			out.Playable = append(out.Playable, string(r))
		}
		if r.Accepts(p) {
			out.Roles = append(out.Roles, string(r))
		}
	}
	return out
}

func (v View) ladder(m *paint.Mixture) []Rung {
	var out []Rung
	n := ladderRungs
	if v.Medium.LightenWithWater {
		n = waterRungs
	}
	for _, r := range m.Ladder(v.Medium, v.Wet, n) {
		rung := Rung{Share: round(r.Share, 4), Water: round(r.Water, 2), Thick: r.Thick, Shown: shown(r.Spectrum.OKLab(v.Light))}
		if !math.IsInf(r.Thickness, 1) {
			rung.Thickness = round(r.Thickness, 4)
		}
		out = append(out, rung)
	}
	return out
}

// greyness is the greyness and hue error of a mixture; nil where they do not
// apply.
func greyness(m *paint.Mixture) (grey, hueError *float64) {
	p, ok := bias.PrintOf(m)
	if !ok {
		return nil, nil
	}
	g, h := round(p.Greyness, 4), round(p.HueError, 4)
	return &g, &h
}
