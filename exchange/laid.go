package exchange

import (
	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Laid is one mixture laid beside another.
type Laid struct {
	Conditions
	Here  Mixture `json:"here"`
	Held  Mixture `json:"held"`
	Words string  `json:"words" doc:"how the first differs from the second, as painted"`
	DE    float64 `json:"de00" doc:"CIEDE2000 as painted"`
}

// Lay lays one mixture beside another that is held.
func (v View) Lay(here, held []paint.Part) (Laid, error) {
	out := Laid{Conditions: v.conditions()}
	a, mine, err := v.stirred(here)
	if err != nil {
		return Laid{}, err
	}
	b, its, err := v.stirred(held)
	if err != nil {
		return Laid{}, err
	}
	lab := func(m *paint.Mixture) colour.Lab {
		s := m.AsPainted(v.Medium, v.Wet)
		return s.XYZ(v.Light).Lab(v.Light.White())
	}
	out.Here, out.Held = mine, its
	out.Words, out.DE = v.look(&a).Beside(v.look(&b)), round(colour.Difference(lab(&a), lab(&b)), 2)
	return out, nil
}
