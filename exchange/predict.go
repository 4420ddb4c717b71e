package exchange

import (
	"gyrophane/core/journal"
	"gyrophane/core/wheel"
)

// Guess is what a painter expects of a slot.
type Guess struct {
	Home    int    `json:"home" minimum:"0" maximum:"11" doc:"the slot, clockwise with the first role on top"`
	HueWord string `json:"hueWord" maxLength:"40"`
	Verdict string `json:"verdict" enum:"clean,softened,muddy"`
}

// Outcome is what became of a guess, as it was computed that day.
type Outcome struct {
	Name         string `json:"name" doc:"of the slot"`
	Computed     string `json:"computed" doc:"hue word"`
	Came         string `json:"came" doc:"verdict"`
	HueRight     bool   `json:"hueRight" doc:"within one slot"`
	VerdictRight bool   `json:"verdictRight"`
	VerdictNear  bool   `json:"verdictNear" doc:"one off"`
	Points       int    `json:"points" doc:"0 to 4"`
}

// Score holds guesses against a system's wheel.
func Score(s wheel.System, c WheelChoices, guesses []Guess) ([]Outcome, error) {
	o, _, _, _, err := c.options(View{})
	if err != nil {
		return nil, err
	}
	o.Six = false
	w := wheel.Build(s, o)
	var out []Outcome
	for _, g := range guesses {
		p, err := journal.Parse(g.HueWord, g.Verdict)
		if err != nil {
			return nil, refused(err)
		}
		slot := w.At(g.Home)
		if g.Home < 0 || g.Home > 11 || slot.Empty || slot.Kind == wheel.Primary {
			return nil, bad("slot %d: only mixed slots that are filled can be predicted", g.Home)
		}
		score := p.Against(slot.Under)
		out = append(out, Outcome{slot.Name, slot.Under.HueWord(), slot.Under.Verdict.String(), score.HueRight, score.VerdictRight, score.VerdictNear, score.Points})
	}
	return out, nil
}
