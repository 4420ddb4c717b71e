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

var lightfastness = sync.OnceValue(func() map[string]Lightfastness {
	out := map[string]Lightfastness{}
	for _, row := range table.Rows(lightfastnessCSV) {
		for _, id := range strings.Fields(row[0]) {
			out[id] = Lightfastness{row[1], row[2]}
		}
	}
	return out
})

// ratings are the words of a class's lightfastness, the best first.
var ratings = [...]string{"I", "II", "III", "IV"}

// Lightfastness is that of the library's paint that it is; of a label, the worst of its pigments.
func (p *Paint) Lightfastness() Lightfastness {
	for _, id := range []string{p.Library, p.ID, p.CI} {
		if l, known := lightfastness()[id]; known {
			return l
		}
	}
	var worst Lightfastness
	for _, code := range Codes(p.CI) {
		l, known := lightfastness()[code]
		if !known {
			return Lightfastness{} // one is not known, and so it is not
		}
		if worst.Rating == "" || slices.Index(ratings[:], l.Rating) > slices.Index(ratings[:], worst.Rating) {
			worst = l
		}
	}
	return worst
}

// Lasting says that a paint is known to keep its colour: I or II.
func (p *Paint) Lasting() bool {
	rating := p.Lightfastness().Rating
	return rating == "I" || rating == "II"
}
