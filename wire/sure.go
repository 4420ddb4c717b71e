package wire

import (
	"gyrophane/core/certainty"
	"gyrophane/core/paint"
)

// Confidence is how far a recipe of two paints and the verdict on it can be trusted, for tubes like a painter's.
type Confidence struct {
	Sure    string    `json:"sure,omitempty" format:"sureness" doc:"of the verdict; left out where nothing is mixed of two"`
	CouldBe []string  `json:"couldBe,omitempty" doc:"what it could turn out as, the better first; one word where it is sure or likely"`
	Could   string    `json:"could,omitempty" doc:"the same in words, where it is either way"`
	Low     []PartOf  `json:"partsLow,omitempty" doc:"in 80 of 100 tubes the parts lie from these, with the least of the second paint,"`
	High    []PartOf  `json:"partsHigh,omitempty" doc:"to these"`
	KnownTo float64   `json:"knownTo,omitempty" doc:"how far the parts are known, a share"`
	Doubts  []Doubted `json:"doubts,omitempty" doc:"where that comes from, tube by tube"`
	InTubes string    `json:"inTubes,omitempty" doc:"what most tubes ask for, and where to begin: 7 : 1 to 18 : 1: begin with 18 : 1 and creep"`
}

// Doubted is where the doubt of a paint comes from.
type Doubted struct {
	Paint string `json:"paint"`
	Name  string `json:"name" doc:"without what stands in brackets"`
	Says  string `json:"says" doc:"and what would lessen it"`
}

// ConfidenceOf shapes what is said of how sure something is; of nothing where nothing is.
func ConfidenceOf(t *certainty.Confidence) Confidence {
	if t == nil {
		return Confidence{}
	}
	out := Confidence{Sure: string(t.Sure), Could: t.Verdict(), KnownTo: round(t.Known, 2), InTubes: t.Parts()}
	for _, v := range t.Could {
		out.CouldBe = append(out.CouldBe, v.String())
	}
	for i, p := range []*paint.Paint{t.A, t.B} {
		if says := t.Of[i].Says(); p != nil && says != "" {
			out.Doubts = append(out.Doubts, Doubted{Paint: p.ID, Name: p.ShortName(), Says: says})
		}
	}
	if t.Doubted {
		of := func(r certainty.Ratio) []PartOf {
			return []PartOf{partOf(t.A, float64(r[0])), partOf(t.B, float64(r[1]))}
		}
		out.Low, out.High = of(t.Range.Less), of(t.Range.More)
	}
	return out
}

func partOf(p *paint.Paint, parts float64) PartOf {
	return PartOf{Paint: p.ID, Code: p.Code(), Parts: parts}
}
