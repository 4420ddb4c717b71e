package wire

import (
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
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
	Keep      float64      `json:"keep" doc:"parts of the pile that are kept where a part of it does; 0 where none is"`
	KeepAdd   []Ingredient `json:"keepAdd" doc:"what is added to those"`
	Advice    string       `json:"advice" format:"advice"`
	Says      string       `json:"says"`
}

// Aimed is a colour that is wanted, or was read.
type Aimed struct {
	Colour
	Words string `json:"words"`
}

func aimed(r paint.Reading) *Aimed { return &Aimed{colourOfLab(r.Lab), r.Lab.OKLab().Words()} }

// colourOfLab is a colour under daylight of which no spectrum is known.
func colourOfLab(lab colour.Lab) Colour {
	ok := lab.OKLab()
	lch := ok.OKLCh()
	return Colour{
		Lab:   [3]float64{round(lab.L, 3), round(lab.A, 3), round(lab.B, 3)},
		OKLCh: [3]float64{round(lch.L, 5), round(lch.C, 5), round(lch.H, 2)},
		Shown: shown(ok),
	}
}

// Correction shapes how a pile is brought to what another one is.
func (v View) Correction(have, want paint.Pile, c path.Correction) Correction {
	out := v.correction(have, c, v.look(&want.Mixture))
	wanted := v.pile(want)
	out.Want = &wanted
	return out
}

// CorrectionTo shapes how a pile is brought to a colour that was read.
func (v View) CorrectionTo(have paint.Pile, want paint.Reading, c path.Correction) Correction {
	out := v.correction(have, c, want.Lab.OKLab())
	out.Aim = aimed(want)
	return out
}

func (v View) correction(have paint.Pile, c path.Correction, want colour.OKLab) Correction {
	all := recipe.Of(have.Parts).With(c.Add)
	u := c.Pile.Undertone()
	out := Correction{
		Conditions: v.conditions(), Have: v.pile(have), Off: v.look(&have.Mixture).Beside(want), Add: v.Recipe(c.Add),
		Pile:    Mixture{v.Recipe(all), plain(all), v.colours(&c.Pile, u), judgement(u)},
		Reached: c.Reached, Miss: round(c.Miss, 4), Grows: round(c.Grows, 3), Waste: round(c.Waste, 3), StartOver: round(c.StartOver, 3),
		Keep: round(c.Keep, 3), KeepAdd: append([]Ingredient{}, v.Recipe(c.KeepAdd)...),
	}
	advice, sentence := c.Advise(out.Pile.Words)
	out.Advice, out.Says = string(advice), sentence
	return out
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

// Located shapes where a reading was found on a path.
func (v View) Located(read paint.Reading, found path.Found) Located {
	return Located{Share: round(found.Share, 6), Mixture: v.step(found.Step), Read: *aimed(read), DE: round(found.DE, 2), Fits: found.Fits, Says: found.Sentence(read)}
}
