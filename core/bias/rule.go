package bias

import "gyrophane/core/paint"

// Side is how one paint of a pair leans with regard to the other.
type Side uint8

// A paint leans away from its partner, is centred, or leans toward it.
const (
	Away Side = iota
	Centred
	Toward
)

var sideWords = [...]string{"away", "centred", "toward"}

// RuleRatings are what the rule of thumb says, the brightest first.
var RuleRatings = []string{"bright", "moderate", "dull"}

// Sides lists them.
var Sides = []Side{Toward, Centred, Away}

// String is "away", "centred" or "toward".
func (s Side) String() string { return sideWords[s] }

// Rule is the painters' rule of thumb for a pair of two different primaries: a
// paint leaning toward its partner counts 1, centred 1/2, away 0. Above 1.25
// the pair should be bright, below 0.75 dull.
type Rule struct {
	A, B   Side
	Rating string // "bright", "moderate" or "dull"
}

// partners names the neighbour on the way from a role to another.
var partners = map[[2]Role]string{
	{"yellow", "red"}: "orange", {"red", "yellow"}: "orange",
	{"yellow", "blue"}: "green", {"blue", "yellow"}: "green",
	{"red", "blue"}: "violet", {"blue", "red"}: "violet",
	{"yellow", "magenta"}: "orange", {"magenta", "yellow"}: "red",
	{"yellow", "cyan"}: "green", {"cyan", "yellow"}: "green",
	{"magenta", "cyan"}: "violet", {"cyan", "magenta"}: "blue",
	{"magenta", "blue"}: "violet", {"blue", "magenta"}: "violet",
	{"red", "cyan"}: "violet", {"cyan", "red"}: "blue",
}

// RuleOfThumb is what the rule says of two paints in their roles (an empty
// role is the one the paint's family plays). There is no rule for paints of
// one role, secondaries, earths, blacks and whites.
func RuleOfThumb(a, b *paint.Paint, roleA, roleB Role) (Rule, bool) {
	if RoleOf(FamilyOf(a)) == "" || RoleOf(FamilyOf(b)) == "" {
		return Rule{}, false
	}
	if roleA == "" {
		roleA = RoleOf(FamilyOf(a))
	}
	if roleB == "" {
		roleB = RoleOf(FamilyOf(b))
	}
	toB, ok := partners[[2]Role{roleA, roleB}]
	if !ok {
		return Rule{}, false
	}
	toA := partners[[2]Role{roleB, roleA}]
	leanA, okA := LeanIn(a, roleA)
	leanB, okB := LeanIn(b, roleB)
	if !okA || !okB {
		return Rule{}, false
	}
	r := Rule{A: leanA.side(toB), B: leanB.side(toA)}
	switch sum := float64(r.A)/2 + float64(r.B)/2; {
	case sum > 1.25:
		r.Rating = RuleRatings[0]
	case sum < 0.75:
		r.Rating = RuleRatings[2]
	default:
		r.Rating = RuleRatings[1]
	}
	return r, true
}

func (l Lean) side(partner string) Side {
	switch l.Toward {
	case "centred":
		return Centred
	case partner:
		return Toward
	default:
		return Away
	}
}

// RoleAmong is the role a paint plays among the paints of a box: its family's,
// and yellow for the earths that the yellow role accepts.
func RoleAmong(p *paint.Paint) Role {
	if r := RoleOf(FamilyOf(p)); r != "" {
		return r
	}
	if Role("yellow").Accepts(p) {
		return "yellow"
	}
	return ""
}
