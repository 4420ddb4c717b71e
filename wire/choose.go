package wire

import (
	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// Chosen is the best system of a kind from some paints, and what comes next.
type Chosen struct {
	Kind      string         `json:"kind" format:"chosenKind"`
	Aim       string         `json:"aim" format:"aim" doc:"the most clean hues; the least price, or the fewest tubes, of those that reach nearly as many (95 %); the nearest to the wanted colours"`
	From      string         `json:"from" enum:"box,library"`
	Best      ChosenSystem   `json:"best"`
	RunnersUp []ChosenSystem `json:"runnersUp"`
	BuyNext   []Bought       `json:"buyNext" doc:"the library paints that let the best system of the box reach more hues cleanly, the best first; empty from the library, and where wanted colours are the aim"`
	Cautions  []CautionClass `json:"cautions" doc:"that the paints carry which are chosen from, the gravest first"`
	ElapsedMs float64        `json:"elapsedMs"`
}

// CautionClass is one kind of hazard.
type CautionClass struct {
	Class string `json:"class"`
	Name  string `json:"name"`
}

// ChosenSystem is one of the systems that were looked at.
type ChosenSystem struct {
	Paints         []string         `json:"paints" doc:"yellows, reds, blues"`
	Roles          [][]PaintSummary `json:"roles"`
	CleanCoverage  float64          `json:"cleanCoverage"`
	SoftCoverage   float64          `json:"softCoverage"`
	VividCoverage  float64          `json:"vividCoverage" doc:"share of the circle reached at 0.90 of the possible or more"`
	MeanBrightness float64          `json:"meanBrightness" doc:"mean reach over the circle, 0 to 1"`
	Price          *float64         `json:"price" doc:"of its tubes; null where one is not known"`
	Reached        int              `json:"reached" doc:"wanted colours within CIEDE2000 3, when they are the aim"`
	MeanDE         *float64         `json:"meanDe00" doc:"to the wanted colours, before parts are made whole; null when they are not the aim"`
	Loses          string           `json:"loses,omitempty" doc:"of a runner-up, against the best"`
	Alike          bool             `json:"alike" doc:"of a runner-up: as tubes differ it cannot be told from the best; these stand first, the cheapest before the others"`
}

// Bought is what a paint of the library would add.
type Bought struct {
	Paint          PaintSummary `json:"paint"`
	CleanCoverage  float64      `json:"cleanCoverage" doc:"of the best system with it"`
	VividCoverage  float64      `json:"vividCoverage"`
	MeanBrightness float64      `json:"meanBrightness"`
	Gain           float64      `json:"gain" doc:"more clean coverage than without it"`
	Hues           bool         `json:"hues" doc:"it brings clean hues, and not brightness alone"`
	MeanGain       float64      `json:"meanGain" doc:"more mean brightness than without it"`
	Alike          bool         `json:"alike" doc:"as tubes differ what it brings cannot be told from what the first brings"`
}

// Chosen shapes the result of a request.
func (v View) Chosen(r reach.Request, got reach.Result) Chosen {
	out := Chosen{Kind: string(r.Kind), Aim: string(r.Aim), From: "box", Best: v.ranked(got.Best), RunnersUp: []ChosenSystem{}, BuyNext: []Bought{}, Cautions: []CautionClass{}}
	if r.Library {
		out.From = "library"
	}
	for _, one := range certainty.RunnersUp(got.Best, got.RunnersUp, v.doubts()) {
		ranked := v.ranked(one.Ranked)
		ranked.Alike = one.Alike
		out.RunnersUp = append(out.RunnersUp, ranked)
	}
	alike := certainty.AlikePurchases(got.BuyNext, v.doubts())
	for i, b := range got.BuyNext {
		out.BuyNext = append(out.BuyNext, Bought{Alike: alike[i], Paint: v.summary(b.Paint), CleanCoverage: round(b.Reach.Clean(), 4), VividCoverage: round(b.Reach.Vivid(), 4), MeanBrightness: round(b.Reach.Mean(), 4), Gain: round(b.Gain, 4), MeanGain: round(b.MeanGain, 4), Hues: b.Hues()})
	}
	for _, g := range got.Cautions {
		out.Cautions = append(out.Cautions, CautionClass{g.Class, g.Name})
	}
	return out
}

func (v View) ranked(r reach.Ranked) ChosenSystem {
	out := ChosenSystem{CleanCoverage: round(r.Reach.Clean(), 4), SoftCoverage: round(r.Reach.Soft(), 4), VividCoverage: round(r.Reach.Vivid(), 4), MeanBrightness: round(r.Reach.Mean(), 4), Price: r.Price, Reached: r.Reached, Loses: r.Loses}
	if r.MeanDE != nil {
		mean := round(*r.MeanDE, 2)
		out.MeanDE = &mean
	}
	for k := range 3 {
		var role []PaintSummary
		for _, p := range r.System.Role(k) {
			role = append(role, v.summary(p))
			out.Paints = append(out.Paints, p.ID)
		}
		out.Roles = append(out.Roles, role)
	}
	return out
}

// PaintSummary is a paint of a system.
type PaintSummary struct {
	ID        string `json:"id"`
	Code      string `json:"code"`
	Name      string `json:"name"`
	Masstone  Shown  `json:"masstone"`
	Undertone Shown  `json:"undertone"`
}

func (v View) summary(p *paint.Paint) PaintSummary {
	m := p.Alone()
	mass := m.Masstone()
	return PaintSummary{ID: p.ID, Code: p.Code(), Name: p.ShortName(), Masstone: shown(mass.OKLab(v.Light)), Undertone: ShownUndertone(p)}
}

// Swapped is what replaces one tube of a system best.
type Swapped struct {
	Out            PaintSummary `json:"out"`
	In             PaintSummary `json:"in"`
	CleanCoverage  float64      `json:"cleanCoverage" doc:"of the system with it"`
	MeanBrightness float64      `json:"meanBrightness"`
	Gain           float64      `json:"gain" doc:"more clean coverage than without it; negative when less"`
	Says           string       `json:"says"`
}

// Swaps shapes what replaces the tubes of a system.
func (v View) Swaps(s wheel.System, swaps []reach.Swap) []Swapped {
	before := reach.OfSystem(s)
	out := []Swapped{}
	for _, w := range swaps {
		out = append(out, Swapped{Out: v.summary(w.Out), In: v.summary(w.In), CleanCoverage: round(w.Reach.Clean(), 4), MeanBrightness: round(w.Reach.Mean(), 4), Gain: round(w.Reach.Clean()-before.Clean(), 4), Says: w.Sentence(before)})
	}
	return out
}
