package bias

import (
	"fmt"
	"math"
	"strings"

	"gyrophane/core/paint"
	"gyrophane/core/text"
)

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

// Because explains in a painter's words what becomes of a pair: how the two
// lean, which light each swallows, and what is left. Middle is the secondary.
func Because(a, b *paint.Paint, roleA, roleB Role, middle *paint.Mixture) string {
	ma, mb := a.Alone(), b.Alone()
	switch {
	case ma.Neutral() && mb.Neutral():
		return fmt.Sprintf("%s and %s both treat all light alike: nothing but greys.", text.UpperFirst(a.ShortName()), b.ShortName())
	case ma.Neutral():
		return withNeutral(a, b)
	case mb.Neutral():
		return withNeutral(b, a)
	}
	u := middle.Undertone()
	opening := ""
	if r, ok := RuleOfThumb(a, b, roleA, roleB); ok {
		opening = leanSentence(a, b, roleA, roleB, r, u.Verdict)
	}
	return opening + lightSentence(a, b, middle, u)
}

func withNeutral(neutral, other *paint.Paint) string {
	if neutral.Family == "white" {
		return fmt.Sprintf("%s scatters all light alike: it lets the %s down and shows its undertone.", text.UpperFirst(neutral.ShortName()), other.ShortName())
	}
	return fmt.Sprintf("%s swallows all light alike: it darkens the %s and takes brightness from every third of the spectrum.", text.UpperFirst(neutral.ShortName()), other.ShortName())
}

// leanSentence says how the two lean and, where the outcome is not what the
// rule of thumb would have, that it is not.
func leanSentence(a, b *paint.Paint, roleA, roleB Role, r Rule, v paint.Verdict) string {
	leanA, _ := LeanIn(a, roleA)
	leanB, _ := LeanIn(b, roleB)
	var how string
	switch {
	case r.A == Toward && r.B == Toward && leanA.Toward == leanB.Toward:
		how = "both lean to " + leanA.Toward
	case r.A == Away && r.B == Away:
		how = fmt.Sprintf("both lean away from each other, the %s to %s and the %s to %s", a.ShortName(), leanA.Toward, b.ShortName(), leanB.Toward)
	default:
		how = leanPhrase(a, leanA) + " and " + leanPhrase(b, leanB)
	}
	expected := map[string]paint.Verdict{"bright": paint.Clean, "moderate": paint.Softened, "dull": paint.Muddy}[r.Rating]
	switch {
	case v > expected:
		return text.UpperFirst(v.String()) + ", although " + how + ". "
	case v < expected:
		return text.UpperFirst(v.String()) + ", and yet " + how + ". "
	default:
		return text.UpperFirst(v.String()) + ", for " + how + ". "
	}
}

func leanPhrase(p *paint.Paint, l Lean) string {
	if l.Centred() {
		return "the " + p.ShortName() + " is centred"
	}
	return "the " + p.ShortName() + " leans to " + l.Toward
}

var lightNames = [3]string{"blue", "green", "red"}

// swallowed is the density from which a paint is said to swallow a third: half
// of the film's highest.
const swallowed = highDensity / 2

// lightSentence says which thirds each paint swallows, and what that leaves.
func lightSentence(a, b *paint.Paint, middle *paint.Mixture, u paint.Undertone) string {
	ma, mb := a.Alone(), b.Alone()
	da, db, dm := DensitiesOf(&ma).list(), DensitiesOf(&mb).list(), DensitiesOf(middle).list()
	text := fmt.Sprintf("The %s swallows %s, the %s %s", a.ShortName(), thirdsOver(da), b.ShortName(), thirdsOver(db))
	if u.Verdict == paint.Clean {
		var past []string
		for t := range dm {
			if da[t] < swallowed && db[t] < swallowed {
				past = append(past, lightNames[t])
			}
		}
		if len(past) == 0 {
			return text + "; between them they take from every third of the spectrum, and yet keep most of the brightness that is possible here."
		}
		return text + fmt.Sprintf("; %s light gets past both.", strings.Join(past, " and "))
	}
	best := 0
	for t := range dm {
		if dm[t] < dm[best] {
			best = t
		}
	}
	thief := a
	if db[best] > da[best] {
		thief = b
	}
	return text + fmt.Sprintf("; even of the %s light, which gets past best, %.0f %% is lost, mostly to the %s.",
		lightNames[best], 100*(1-math.Pow(10, -dm[best])), thief.ShortName())
}

// Alone explains what a single paint does to light.
func Alone(p *paint.Paint) string {
	m := p.Alone()
	if m.Neutral() {
		return text.UpperFirst(p.ShortName()) + " treats all light alike."
	}
	d := DensitiesOf(&m)
	kept := "keeping little grey in it"
	switch g := d.Greyness(); {
	case g > 0.35:
		kept = "and much of the rest too, which greys it"
	case g > 0.15:
		kept = "and some of the rest, which quietens it"
	}
	return fmt.Sprintf("Straight from the tube: the %s swallows %s, %s.", p.ShortName(), thirdsOver(d.list()), kept)
}

func (d Densities) list() [3]float64 { return [3]float64{d.Blue, d.Green, d.Red} }

func thirdsOver(d [3]float64) string {
	var names []string
	for t, v := range d {
		if v >= swallowed {
			names = append(names, lightNames[t])
		}
	}
	switch len(names) {
	case 0:
		return "little light"
	case 3:
		return "all three thirds of the light"
	}
	return strings.Join(names, " and ") + " light"
}

// Shared says which third of the light two paints take most of between them
// twice over: the one that the less of the two still swallows most of.
func Shared(a, b *paint.Paint) string {
	ma, mb := a.Alone(), b.Alone()
	da, db := DensitiesOf(&ma).list(), DensitiesOf(&mb).list()
	third := 0
	for t := range da {
		if min(da[t], db[t]) > min(da[third], db[third]) {
			third = t
		}
	}
	both := min(da[third], db[third])
	how := "barely meet"
	switch {
	case both >= swallowed:
		how = "both swallow the same light"
	case both >= swallowed/2:
		how = "take some of the same light"
	}
	return fmt.Sprintf("The %s and the %s %s: most in the %s third, of which the one that takes less still takes %.0f %%.",
		a.ShortName(), b.ShortName(), how, lightNames[third], 100*(1-math.Pow(10, -both)))
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
