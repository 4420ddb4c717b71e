package exchange

import (
	"fmt"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Correction is how a pile is brought to a wanted colour.
type Correction struct {
	Conditions
	Have      Mixture      `json:"have"`
	Want      *Mixture     `json:"want,omitempty" doc:"where parts are wanted"`
	Aim       *Aimed       `json:"aim,omitempty" doc:"where a colour is wanted"`
	Off       string       `json:"off" doc:"how the pile, as painted, differs from what is wanted"`
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

// Aimed is a colour that is wanted, or was read.
type Aimed struct {
	Colour
	Words string `json:"words"`
}

func aimed(r paint.Reading) *Aimed {
	ok := r.Lab.OKLab()
	lch := ok.OKLCh()
	return &Aimed{Colour{[3]float64{round(r.Lab.L, 3), round(r.Lab.A, 3), round(r.Lab.B, 3)}, [3]float64{round(lch.L, 5), round(lch.C, 5), round(lch.H, 2)}, shown(ok)}, ok.Words()}
}

// Correct brings a pile to what is wanted; wanted is also the amount needed.
func (v View) Correct(have, want []paint.Part) (Correction, error) {
	c, err := path.Correct(have, want)
	if err != nil {
		return Correction{}, refused(err)
	}
	m, wanted, err := v.stirred(want)
	if err != nil {
		return Correction{}, err
	}
	out, err := v.correction(have, c, v.look(&m))
	out.Want = &wanted
	return out, err
}

// CorrectTo brings a pile to a colour that was read, with any of some paints;
// as much is needed as is there.
func (v View) CorrectTo(have []paint.Part, want Reading, with []*paint.Paint) (Correction, error) {
	r, err := want.core("what is wanted")
	if err != nil {
		return Correction{}, err
	}
	if len(with) > mostIngredients {
		return Correction{}, bad("%d paints are more than can be tried: give at most %d", len(with), mostIngredients)
	}
	needed := 0.0
	for _, p := range have {
		needed += p.Parts
	}
	c, err := path.Toward(have, path.AimAt(r), with, needed)
	if err != nil {
		return Correction{}, refused(err)
	}
	out, err := v.correction(have, c, r.Lab.OKLab())
	out.Aim = aimed(r)
	return out, err
}

func (v View) correction(have []paint.Part, c path.Correction, want colour.OKLab) (out Correction, err error) {
	out = Correction{
		Conditions: v.conditions(), Add: v.partsOf(c.Add), Reached: c.Reached, Miss: round(c.Miss, 4),
		Grows: round(c.Grows, 3), Waste: round(c.Waste, 3), StartOver: round(c.StartOver, 3),
	}
	m, there, err := v.stirred(have)
	if err != nil {
		return out, err
	}
	out.Have, out.Off = there, v.look(&m).Beside(want)
	if _, out.Pile, err = v.stirred(together(have, c.Add)); err != nil {
		return out, err
	}
	switch {
	case len(c.Add) == 0 && c.Reached:
		out.Advice, out.Says = "leave it", "It is near enough as it is: nobody could tell the two apart."
	case !c.Reached:
		out.Advice = "start over"
		out.Says = fmt.Sprintf("Whatever is added, up to %d times the pile, it comes no nearer than %s. Start over.", path.MostAdded, out.Pile.Words)
	case c.Better():
		out.Advice = "add"
		out.Says = fmt.Sprintf("Add %s. The pile grows to %.1f times what it is%s.", said(c.Add), c.Grows, left(c.Waste))
	default:
		out.Advice = "start over"
		out.Says = fmt.Sprintf("Adding %s would mend it, but the pile grows to %.1f times what it is and %s parts are left over; started over, %s are thrown away.", said(c.Add), c.Grows, plain(round(c.Waste, 2)), plain(round(c.StartOver, 2)))
	}
	return out, nil
}

// Located is the place of a path that comes nearest to a colour that was read.
type Located struct {
	Share float64 `json:"share" doc:"of the second paint"`
	Mixture
	Read Aimed   `json:"read"`
	DE   float64 `json:"de00" doc:"CIEDE2000 between the two, as painted"`
	Fits bool    `json:"fits" doc:"near enough to be on this way at all"`
	Says string  `json:"says"`
}

// Locate finds where on the way from a to b a mixture stands that was read.
func (v View) Locate(a, b *paint.Paint, read Reading) (Located, error) {
	r, err := read.core("the reading")
	if err != nil {
		return Located{}, err
	}
	found := path.New(a, b).Find(r)
	out := Located{Share: round(found.Share, 6), Mixture: v.step(found.Step), Read: *aimed(r), DE: round(found.DE, 2), Fits: found.Fits}
	if out.Fits {
		out.Says = fmt.Sprintf("It looks like %s.", saidOf(found.Recipe.Parts))
		return out, nil
	}
	look := found.Mixture.AsPainted(r.Medium, r.Wet)
	out.Says = fmt.Sprintf("Nothing between these two looks like that: the nearest is %s, and what was read is %s beside it.", saidOf(found.Recipe.Parts), r.Lab.OKLab().Beside(look.OKLab(colour.D65)))
	return out, nil
}

// saidOf is "5 of the arylide yellow and 2 of the phthalo blue let down 1:9".
func saidOf(parts []path.Ingredient) string {
	var words []string
	for _, p := range parts {
		one := fmt.Sprintf("%d of the %s", p.Parts, bias.ShortName(p.Paint))
		if p.In != nil {
			one += fmt.Sprintf(" let down 1:%d in the %s", p.Thin, bias.ShortName(p.In))
		}
		words = append(words, one)
	}
	return strings.Join(words, " and ")
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
		one := Ingredient{Paint: p.Paint.ID, Code: code(p.Paint), Name: p.Paint.Name, Parts: p.Parts, Shown: v.painted(&alone)}
		for _, of := range p.Paint.Of {
			one.Of = append(one.Of, OfPart{of.Paint.ID, code(of.Paint), of.Parts})
		}
		out = append(out, one)
	}
	return out
}

// stirred is what parts make, and all that is said of it.
func (v View) stirred(parts []paint.Part) (paint.Mixture, Mixture, error) {
	m, err := paint.Mix(parts...)
	if err != nil {
		return m, Mixture{}, refused(err)
	}
	u := m.Undertone()
	return m, Mixture{v.partsOf(parts), v.colours(&m, u), judgement(u)}, nil
}
