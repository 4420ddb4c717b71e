package bias

import (
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// School says which blue is called warm: the one that leans to "violet"
// (usual) or the one that leans to "green". Painters teach both.
type School string

// The schools.
const (
	VioletIsWarm School = "violet"
	GreenIsWarm  School = "green"
)

// Schools lists them.
var Schools = []School{VioletIsWarm, GreenIsWarm}

// ParseSchool reads the neighbour that a warm blue leans to.
func ParseSchool(s string) (School, error) {
	switch School(s) {
	case VioletIsWarm, GreenIsWarm:
		return School(s), nil
	}
	return "", input.Errorf("unknown school %q: the warm blue leans to violet or to green", s)
}

// Temperature is the word a school has for a paint in its family: "warm",
// "cool", or empty for a centred paint and for families that have no such word.
// A yellow or red is warm when it leans to orange.
func Temperature(p *paint.Paint, s School) string {
	l, ok := LeanIn(p, "")
	if !ok || l.Centred() {
		return ""
	}
	warm := ""
	switch RoleOf(FamilyOf(p)) {
	case "yellow", "red":
		warm = "orange"
	case "blue":
		warm = string(s)
	default:
		return ""
	}
	if l.Toward == warm {
		return "warm"
	}
	return "cool"
}

// WarmHalf are the ends of the painter's circle's warm half in wheel hue, by
// rising angle: from red-violet through orange to yellow-green, with orange in
// the middle. The rest is the cool half.
func WarmHalf() (from, to float64) { return colour.Turn(60 - 90), 60 + 90 }
