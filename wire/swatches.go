package wire

import (
	"gyrophane/core/certainty"
	"gyrophane/core/journal"
)

// SwatchPlan is what to paint to be surer of the recipes of a wheel.
type SwatchPlan struct {
	ReadBy   string   `json:"readBy" format:"source"`
	Now      float64  `json:"spreadNow" doc:"standard deviation of the logarithms of the recipes' ratios"`
	KnownTo  float64  `json:"knownTo" doc:"the same as a share of the parts"`
	Swatches []Swatch `json:"swatches" doc:"the most telling first; none where none tells more"`
	Says     string   `json:"says" doc:"whether few are enough, in a sentence; empty where there are none"`
}

// Swatch is something to be painted and read.
type Swatch struct {
	Parts   []PartOf `json:"parts" doc:"that a hand can count"`
	Says    string   `json:"says" doc:"the same as a hand counts it, what is let down first said so"`
	Mix     string   `json:"mix" doc:"what it is, as PAINT=PARTS with commas between"`
	Spread  float64  `json:"spreadAfter" doc:"of the recipes, once it and all before it were read"`
	KnownTo float64  `json:"knownTo" doc:"the same as a share of the parts"`
}

// SwatchPlanOf shapes what to paint to be surer.
func SwatchPlanOf(s journal.SwatchPlan, by string) SwatchPlan {
	out := SwatchPlan{ReadBy: by, Now: round(s.Now, 4), KnownTo: round(certainty.KnownTo(s.Now), 3), Swatches: []Swatch{}, Says: s.Says()}
	for _, one := range s.Swatches {
		sw := Swatch{Mix: mixed(one.Recipe.Plain()), Says: one.Recipe.String(), Spread: round(one.Spread, 4), KnownTo: round(certainty.KnownTo(one.Spread), 3)}
		for _, p := range one.Recipe.Plain() {
			sw.Parts = append(sw.Parts, partOf(p.Paint, p.Parts))
		}
		out.Swatches = append(out.Swatches, sw)
	}
	return out
}
