package wire

import (
	"gyrophane/core/beside"
	"gyrophane/core/colour"
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

// EdgeToEdge shapes two rows edge to edge, as they are or raised with a white to one value.
func (v View) EdgeToEdge(one, other beside.Row, white *paint.Paint, oneValue bool) EdgeToEdge {
	out := EdgeToEdge{Conditions: v.conditions(), Pairs: []EdgePair{}}
	light := func(m *paint.Mixture) float64 { return v.look(m).Lightness() }
	var pairs []beside.Pair
	for _, k := range beside.Pairs(one, other) {
		a, b := one[k[0]], other[k[1]]
		var whites [2]float64
		if oneValue {
			reached := false
			if a.Mixture != nil && b.Mixture != nil {
				var raised [2]beside.Raised
				raised, reached = beside.AtOneValue(a.Mixture, b.Mixture, white, light)
				a.Mixture, b.Mixture = &raised[0].Mixture, &raised[1].Mixture
				whites = [2]float64{raised[0].White, raised[1].White}
			}
			if !reached {
				out.Unraised++
			}
		}
		looks, labs := [2]colour.OKLab{}, [2]colour.Lab{}
		for n, p := range []beside.Place{a, b} {
			looks[n], labs[n] = p.Read.OKLab(), p.Read
			if p.Mixture != nil {
				s := p.Mixture.AsPainted(v.Medium, v.Wet)
				looks[n], labs[n] = s.OKLab(v.Light), s.LabUnder(v.Light)
			}
		}
		pair := beside.Pair{Names: [2]string{a.Name, b.Name}, Looks: looks, DE: colour.Difference(labs[0], labs[1])}
		pairs = append(pairs, pair)
		side := func(n int) EdgeSide {
			return EdgeSide{pair.Names[n], shown(looks[n]), looks[n].Words(), round(whites[n], 2)}
		}
		out.Pairs = append(out.Pairs, EdgePair{side(0), side(1), round(pair.DE, 1), looks[0].Beside(looks[1])})
	}
	out.Says = beside.Says(pairs)
	return out
}
