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
	var looks [2]colour.OKLab
	var labs [2]colour.Lab
	for i, one := range []struct {
		into  *Mixture
		parts []paint.Part
	}{{&out.Here, here}, {&out.Held, held}} {
		m, err := paint.Mix(one.parts...)
		if err != nil {
			return Laid{}, BadInput{err.Error()}
		}
		if *one.into, err = v.mixture(one.parts); err != nil {
			return Laid{}, err
		}
		look := m.AsPainted(v.Medium, v.Wet)
		looks[i], labs[i] = look.OKLab(v.Light), look.XYZ(v.Light).Lab(v.Light.White())
	}
	out.Words, out.DE = looks[0].Beside(looks[1]), round(colour.Difference(labs[0], labs[1]), 2)
	return out, nil
}
