package paint

import (
	_ "embed"
	"slices"
	"strings"
	"sync"

	"gyrophane/core/internal/table"
)

// Lightfastness is how well a paint keeps its colour in light, typical of its class.
type Lightfastness struct {
	Rating string // "I" excellent, "II" good, "III" fair, "IV" poor; empty where it is not known
	Reason string // what of the class makes it so
}

//go:embed data/lightfastness.csv
var lightfastnessCSV string

// reasons are why library paints are as lightfast as they are, by their ids.
var reasons = sync.OnceValue(func() map[string]string {
	out := map[string]string{}
	for _, row := range table.Rows(lightfastnessCSV) {
		for _, id := range strings.Fields(row[0]) {
			out[id] = row[1]
		}
	}
	return out
})

// lightfastWords are the words of library.json for the ratings I to IV, the best first.
var (
	lightfastWords = []string{"excellent", "good", "fair", "poor"}
	ratings        = []string{"I", "II", "III", "IV"}
)

// Lightfastness is that of the library's paint that it is; of a label, the worst of its pigments.
func (p *Paint) Lightfastness() (worst Lightfastness) {
	of := loaded().byID
	for _, id := range []string{p.Library, p.ID, p.CI} {
		if q := of[strings.ToLower(id)]; q != nil {
			return q.ofItsClass()
		}
	}
	for _, code := range Codes(p.CI) {
		q := of[strings.ToLower(code)]
		if q == nil {
			return Lightfastness{} // one is not known, and so it is not
		}
		if l := q.ofItsClass(); slices.Index(ratings, l.Rating) > slices.Index(ratings, worst.Rating) {
			worst = l
		}
	}
	return worst
}

// ofItsClass is the lightfastness of a library paint.
func (p *Paint) ofItsClass() Lightfastness {
	at := slices.Index(lightfastWords, p.Lightfast)
	if at < 0 {
		return Lightfastness{}
	}
	return Lightfastness{ratings[at], reasons()[p.ID]}
}

// Lasting says that a paint is known to keep its colour: I or II.
func (p *Paint) Lasting() bool {
	rating := p.Lightfastness().Rating
	return rating == "I" || rating == "II"
}
