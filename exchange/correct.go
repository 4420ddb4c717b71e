package exchange

import (
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Correction is how a pile is brought to a wanted colour.
type Correction struct {
	Conditions
	Have      Mixture      `json:"have"`
	Want      Mixture      `json:"want"`
	Add       []Ingredient `json:"add" doc:"the least that brings it there; empty when it is near enough"`
	Pile      Mixture      `json:"pile" doc:"what it then is"`
	Reached   bool         `json:"reached" doc:"within 0.02 OKLab of what is wanted; otherwise as near as these paints come"`
	Miss      float64      `json:"miss" doc:"OKLab, brushed out"`
	Grows     float64      `json:"grows" doc:"times the volume it has now"`
	Waste     float64      `json:"waste" doc:"parts more than are wanted, when corrected"`
	StartOver float64      `json:"startOver" doc:"parts thrown away, when started over"`
	Advice    string       `json:"advice" enum:"leave it,add,start over"`
	Says      string       `json:"says"`
}

// Correct brings a pile to what is wanted; wanted is also the amount needed.
func (v View) Correct(have, want []paint.Part) (Correction, error) {
	c, err := path.Correct(have, want)
	if err != nil {
		return Correction{}, BadInput{err.Error()}
	}
	out := Correction{
		Conditions: v.conditions(), Add: v.partsOf(c.Add), Reached: c.Reached, Miss: round(c.Miss, 4),
		Grows: round(c.Grows, 3), Waste: round(c.Waste, 3), StartOver: round(c.StartOver, 3),
	}
	for _, one := range []struct {
		into  *Mixture
		parts []paint.Part
	}{{&out.Have, have}, {&out.Want, want}, {&out.Pile, together(have, c.Add)}} {
		if *one.into, err = v.mixture(one.parts); err != nil {
			return Correction{}, err
		}
	}
	switch {
	case len(c.Add) == 0 && c.Reached:
		out.Advice, out.Says = "leave it", "It is near enough as it is: nobody could tell the two apart."
	case !c.Reached:
		out.Advice = "start over"
		out.Says = fmt.Sprintf("Whatever is added, up to %d times the pile, it comes no nearer than %s. Start over.", path.MostAdded, out.Pile.HueWord)
	case c.Better():
		out.Advice = "add"
		out.Says = fmt.Sprintf("Add %s. The pile grows to %.1f times what it is%s.", said(c.Add), c.Grows, left(c.Waste))
	default:
		out.Advice = "start over"
		out.Says = fmt.Sprintf("Adding %s would mend it, but the pile grows to %.1f times what it is and %s parts are left over; started over, %s are thrown away.", said(c.Add), c.Grows, plain(round(c.Waste, 2)), plain(round(c.StartOver, 2)))
	}
	return out, nil
}

func left(waste float64) string {
	if waste <= 0 {
		return ""
	}
	return fmt.Sprintf(", %s parts more than are wanted", plain(round(waste, 2)))
}

// said is "11 of the arylide yellow and 1 of the phthalo blue".
func said(parts []paint.Part) string {
	text := ""
	for i, p := range parts {
		if i > 0 {
			text += " and "
		}
		text += fmt.Sprintf("%s of the %s", plain(p.Parts), bias.ShortName(p.Paint))
	}
	return text
}

// together adds up the parts of each paint.
func together(a, b []paint.Part) []paint.Part {
	out := append([]paint.Part{}, a...)
	for _, p := range b {
		found := false
		for i := range out {
			if out[i].Paint == p.Paint {
				out[i].Parts += p.Parts
				found = true
			}
		}
		if !found {
			out = append(out, p)
		}
	}
	return out
}

func (v View) partsOf(parts []paint.Part) []Ingredient {
	out := []Ingredient{}
	for _, p := range parts {
		alone := p.Paint.Alone()
		out = append(out, Ingredient{Paint: p.Paint.ID, Code: code(p.Paint), Name: p.Paint.Name, Parts: p.Parts, Shown: v.painted(&alone)})
	}
	return out
}

func (v View) mixture(parts []paint.Part) (Mixture, error) {
	m, err := paint.Mix(parts...)
	if err != nil {
		return Mixture{}, BadInput{err.Error()}
	}
	u := m.Undertone()
	return Mixture{v.partsOf(parts), v.colours(&m, u), judgement(u)}, nil
}
