package exchange

import (
	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Wheel is a triad's twelve-step wheel.
type Wheel struct {
	Conditions
	Library  string    `json:"library" doc:"version of the paint library it was worked out with"`
	Spacing  string    `json:"spacing" enum:"hue,contrast,parts"`
	Slots    []Slot    `json:"slots"`
	Sections []Section `json:"sections"`
	Median   float64   `json:"medianJump" doc:"OKLab"`
	Clean    float64   `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
}

// Slot is one twelfth of the wheel, 0 on top, clockwise.
type Slot struct {
	Index  int      `json:"index"`
	Name   string   `json:"name"`
	Kind   string   `json:"kind" enum:"primary,secondary,tertiary"`
	Role   string   `json:"role,omitempty" enum:"yellow,red,blue" doc:"of a primary"`
	Paints []string `json:"paints"`
	Mixture
	Because string   `json:"because"`
	Mixing  []string `json:"mixing"`
	Jump    float64  `json:"jump" doc:"OKLab distance of the brushed-out colours to the next slot"`
	Jumps   bool     `json:"jumps" doc:"over 1.6 times the wheel's median, and over 0.06"`
	Across  int      `json:"complement" doc:"index of the slot across the wheel"`
	Wet     Colour   `json:"wet" doc:"as painted, wet"`
	Dry     Colour   `json:"dry" doc:"as painted, dry"`
	Lean    *Lean    `json:"lean" doc:"of a primary, in its role"`
	Ladder  []Rung   `json:"ladder"`
}

// Section is the run from one primary to the next.
type Section struct {
	From    string      `json:"from" doc:"paint"`
	To      string      `json:"to"`
	Lowest  float64     `json:"lowest" doc:"least retention between the first and the last step"`
	Weaker  string      `json:"weaker" doc:"the paint to start mixing from"`
	Band    []BandPoint `json:"band" doc:"the path, for drawing"`
	MudZone []Stretch   `json:"mudZones"`
}

// BandPoint is one sample of a section's path.
type BandPoint struct {
	At        float64 `json:"at" doc:"how far along the section, 0 to 1, in the measure of the spacing"`
	Undertone Shown   `json:"undertone"`
	Retention float64 `json:"retention"`
	Verdict   string  `json:"verdict" enum:"clean,softened,muddy,neutral"`
	HueWord   string  `json:"hueWord"`
}

// FindTriad reads the paints of a triad.
func FindTriad(yellow, red, blue string) (wheel.System, error) {
	var paints [3]*paint.Paint
	for i, id := range []string{yellow, red, blue} {
		p, err := paint.Find(id)
		if err != nil {
			return wheel.System{}, bad("%s: %s", wheel.Roles[i], err)
		}
		paints[i] = p
	}
	s, err := wheel.Triad(paints[0], paints[1], paints[2])
	if err != nil {
		return wheel.System{}, BadInput{err.Error()}
	}
	return s, nil
}

// Wheel works out a system's wheel.
func (v View) Wheel(s wheel.System, spacing path.Spacing) Wheel {
	w := wheel.Build(s, spacing)
	out := Wheel{Conditions: v.conditions(), Library: paint.LibraryVersion(), Spacing: spacing.String(), Median: round(w.Median, 4), Clean: paint.CleanFrom()}
	for i := range w.Slots {
		out.Slots = append(out.Slots, v.slot(w, i))
	}
	for k, p := range w.Sections {
		out.Sections = append(out.Sections, Section{
			From: p.A.ID, To: p.B.ID, Lowest: round(w.Lowest(k), 4), Weaker: p.Weaker().ID,
			Band: band(p, spacing), MudZone: v.stretches(p, p.Mud()),
		})
	}
	return out
}

func (v View) slot(w *wheel.Wheel, i int) Slot {
	s := w.Slots[i]
	out := Slot{
		Index: i, Name: s.Name, Kind: s.Kind.String(), Mixture: v.step(s.Step),
		Because: w.Because(i), Mixing: w.Sections[i/4].Mixing(s.Recipe),
		Jump: round(s.Jump, 4), Jumps: s.Jumps, Across: s.Complement(),
		Wet:    colourOf(s.Mixture.AsPainted(v.Medium, true), v.Light),
		Dry:    colourOf(s.Mixture.AsPainted(v.Medium, false), v.Light),
		Ladder: v.ladder(&s.Mixture),
	}
	for _, p := range s.Parts {
		out.Paints = append(out.Paints, p.Paint.ID)
	}
	switch {
	case s.Kind == wheel.Primary:
		out.Role = string(wheel.Roles[i/4])
		if l, ok := bias.LeanIn(s.Parts[0].Paint, wheel.Roles[i/4]); ok {
			out.Lean = &Lean{round(l.Degrees, 1), l.Toward, l.InWash}
		}
	case w.Sections[i/4].NoDifferent():
		out.Verdict = paint.Neutral.String()
	}
	return out
}

func band(p *path.Path, spacing path.Spacing) []BandPoint {
	along := p.Along(spacing)
	var out []BandPoint
	reached := 0.0
	for i, s := range p.Samples {
		// Where the hue runs back for a while, the drawing waits.
		reached = max(reached, min(1, along[i]))
		out = append(out, BandPoint{
			At: round(reached, 4), Undertone: shown(s.Under.Colour), Retention: round(s.Under.Retention, 4),
			Verdict: s.Under.Verdict.String(), HueWord: s.Under.HueWord(),
		})
	}
	return out
}
