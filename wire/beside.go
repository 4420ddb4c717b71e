package wire

import (
	"gyrophane/core/beside"
	"gyrophane/core/paint"
	"gyrophane/studio"
)

// HeldRow is a thing that is held beside another: some colours by their paints, or what was read of a sitting.
type HeldRow struct {
	Wheel   int64       `json:"wheel,omitempty" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Sitting int64       `json:"sitting,omitempty" doc:"what was read of it, instead of places"`
	Places  []HeldPlace `json:"places,omitempty" maxItems:"160"`
}

// HeldPlace is one colour of what is held.
type HeldPlace struct {
	Name  string   `json:"name" maxLength:"200"`
	Parts []string `json:"parts" minItems:"1" maxItems:"12" doc:"PAINT=PARTS"`
}

// Studio is what is held as the studio knows it.
func (h HeldRow) Studio() studio.HeldRow {
	out := studio.HeldRow{Wheel: h.Wheel, Sitting: h.Sitting}
	for _, p := range h.Places {
		out.Places = append(out.Places, studio.HeldPlace{Name: p.Name, Parts: p.Parts})
	}
	return out
}

// EdgeToEdge are two things edge to edge, and what differs.
type EdgeToEdge struct {
	Conditions
	Pairs []EdgePair `json:"pairs"`
	Says  string     `json:"says" doc:"how the first differs from the second"`
	// Unraised are pairs that white does not bring to one value, or that were read and not mixed.
	Unraised int `json:"unraised" doc:"pairs that stay as they are where one value is asked for"`
}

// EdgePair are two places that lie edge to edge.
type EdgePair struct {
	One   EdgeSide `json:"one"`
	Other EdgeSide `json:"other"`
	DE    float64  `json:"de00" doc:"CIEDE2000, as shown"`
	Says  string   `json:"says"`
}

// EdgeSide is one of them.
type EdgeSide struct {
	Name string `json:"name"`
	Shown
	Words string  `json:"words"`
	White float64 `json:"white" doc:"parts of white to 1 of the mixture that it was raised with; 0 for none"`
}

// EdgeToEdge shapes two rows edge to edge, as they are or raised to one value with a white that is
// not nil.
func (v View) EdgeToEdge(one, other beside.Row, white *paint.Paint) EdgeToEdge {
	pairs, unraised := beside.Lay(one, other, beside.Look{Medium: v.Medium, Light: v.Light, Wet: v.Wet}, white)
	out := EdgeToEdge{Conditions: v.conditions(), Pairs: []EdgePair{}, Says: beside.Says(pairs), Unraised: unraised}
	for _, p := range pairs {
		side := func(n int) EdgeSide {
			return EdgeSide{p.Names[n], shown(p.Looks[n]), p.Looks[n].Words(), round(p.White[n], 2)}
		}
		out.Pairs = append(out.Pairs, EdgePair{side(0), side(1), round(p.DE, 1), p.Looks[0].Beside(p.Looks[1])})
	}
	return out
}
