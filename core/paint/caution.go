package paint

import (
	_ "embed"
	"slices"

	"gyrophane/core/internal/table"
)

//go:embed data/cautions.csv
var cautionsCSV string

type cautionClass struct {
	name        string
	studentSafe bool
	rank        int // in the table: the mildest first
}

var cautionClasses = func() map[string]cautionClass {
	out := map[string]cautionClass{}
	for i, row := range table.Rows(cautionsCSV) {
		out[row[0]] = cautionClass{row[1], row[2] == "yes", i}
	}
	return out
}()

// unknownCaution is the caution of a paint whose pigments nobody has named.
const unknownCaution = "Nobody here knows what is in this tube: treat it as if it mattered, make no dust or spray, and read the label and the safety data sheet."

// CautionNotice is what always comes before a caution of this program.
const CautionNotice = "The label and the safety data sheet of your own tube, local rules and a qualified adviser come first. Do not eat paint, keep brushes out of the mouth and cups out of the kitchen."

// StudentSafe says that nothing in the paint's class speaks against children
// and schools; the label of the tube itself goes before.
func (p *Paint) StudentSafe() bool { return cautionClasses[p.CautionClass].studentSafe }

// Hazardous says that the paint's class carries a special hazard.
func (p *Paint) Hazardous() bool { return p.CautionClass != "none" }

// CautionGroup is what several paints must be handled with care for.
type CautionGroup struct {
	Class, Name, Caution string
	Paints               []*Paint
}

// Cautions sums a box up: its paints by what they carry, the gravest class
// first, those without a special hazard left out.
func Cautions(paints []*Paint) []CautionGroup {
	var out []CautionGroup
	for _, p := range paints {
		if !p.Hazardous() {
			continue
		}
		i := slices.IndexFunc(out, func(g CautionGroup) bool { return g.Class == p.CautionClass })
		if i < 0 {
			out = append(out, CautionGroup{Class: p.CautionClass, Name: cautionClasses[p.CautionClass].name, Caution: p.Caution})
			i = len(out) - 1
		}
		out[i].Paints = append(out[i].Paints, p)
	}
	safe := func(g CautionGroup) int {
		if cautionClasses[g.Class].studentSafe {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(out, func(a, b CautionGroup) int { return safe(a) - safe(b) })
	return out
}
