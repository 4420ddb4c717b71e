package bias

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// The six bands of light that reasons are given in (nm): a film of each is
// measured as Densities are.
const (
	violetLight = iota
	blueLight
	blueGreenLight
	greenLight
	orangeLight
	redLight
	sixth
)

var (
	bands     = [sixth]band{between(400, 450), between(450, 490), between(490, 530), between(530, 570), between(570, 600), between(600, 700)}
	bandNames = [sixth]string{"violet", "blue", "blue-green", "green", "orange", "red"}
	bareBands = bareOf(bands[:])
)

// inBands are the densities of a mixture in the six bands.
func inBands(m *paint.Mixture) (out [sixth]float64) {
	copy(out[:], thinned(m, bands[:], bareBands))
	return out
}

// swallowed is the density from which a paint is said to take a band of light:
// half of the film's highest.
const swallowed = highDensity / 2

// needs are the bands of light that each of the twelve hues is made of, red first.
var needs = [12]bandSet{
	0:  {orangeLight: true, redLight: true},
	1:  {orangeLight: true, redLight: true},
	2:  {orangeLight: true, redLight: true},
	3:  {greenLight: true, orangeLight: true, redLight: true},
	4:  {greenLight: true, orangeLight: true, redLight: true},
	5:  {blueGreenLight: true, greenLight: true, orangeLight: true},
	6:  {blueGreenLight: true, greenLight: true},
	7:  {blueLight: true, blueGreenLight: true, greenLight: true},
	8:  {violetLight: true, blueLight: true, blueGreenLight: true},
	9:  {violetLight: true, blueLight: true},
	10: {violetLight: true, blueLight: true, redLight: true},
	11: {violetLight: true, blueLight: true, redLight: true},
}

// leastLoss is the share of a band's light, 0 to 1, below which its loss is no
// reason.
const leastLoss = 0.15

// bandSet is a set of the six bands.
type bandSet [sixth]bool

func over(d [sixth]float64, least float64) (out bandSet) {
	for i, v := range d {
		out[i] = v >= least
	}
	return out
}

// taken are the bands of light that a paint takes: a band next to one that is taken counts from half of
// that on.
func taken(m *paint.Mixture) bandSet {
	d := inBands(m)
	out := over(d, swallowed)
	far := out
	for i := range far {
		beside := i > 0 && far[i-1] || i+1 < len(far) && far[i+1]
		out[i] = far[i] || beside && d[i] >= swallowed/2
	}
	return out
}

func (s bandSet) and(t bandSet) (out bandSet) {
	for i := range s {
		out[i] = s[i] && t[i]
	}
	return out
}

func (s bandSet) without(t bandSet) (out bandSet) {
	for i := range s {
		out[i] = s[i] && !t[i]
	}
	return out
}

func (s bandSet) empty() bool { return s == bandSet{} }

// String names the bands, neighbours that make a third of the light together.
func (s bandSet) String() string {
	if s == (bandSet{true, true, true, true, true, true}) {
		return "all"
	}
	var names []string
	for third, whole := range []string{"blue", "green", "red"} {
		a, b := 2*third, 2*third+1
		switch {
		case s[a] && s[b]:
			names = append(names, whole)
		case s[a]:
			names = append(names, bandNames[a])
		case s[b]:
			names = append(names, bandNames[b])
		}
	}
	return text.Listed(names)
}

// Because explains in a painter's words what becomes of a pair: how the two
// lean, which light each takes, and what is left or lost. Middle is the secondary.
func Because(a, b *paint.Paint, roleA, roleB Role, middle *paint.Mixture) string {
	ma, mb := a.Alone(), b.Alone()
	switch {
	case ma.Neutral() && mb.Neutral():
		return fmt.Sprintf("Neither %s nor %s has a hue: nothing but greys.", a.ShortName(), b.ShortName())
	case ma.Neutral():
		return withNeutral(a, b, middle)
	case mb.Neutral():
		return withNeutral(b, a, middle)
	}
	u := middle.Undertone()
	opening := ""
	if r, ok := RuleOfThumb(a, b, roleA, roleB); ok {
		opening = leanSentence(a, b, roleA, roleB, r, u)
	}
	if u.Verdict == paint.Clean {
		return opening + whatGetsPast(a, b, middle, u)
	}
	return opening + whatIsLost(a, b, middle, u)
}

func withNeutral(neutral, other *paint.Paint, middle *paint.Mixture) string {
	if neutral.Family == "white" {
		return fmt.Sprintf("%s scatters all light alike: it lets the %s down and shows its undertone.", text.UpperFirst(neutral.ShortName()), other.ShortName())
	}
	mass := middle.Masstone()
	return fmt.Sprintf("%s takes light of every colour: it turns the %s to %s.", text.UpperFirst(neutral.ShortName()), other.ShortName(), text.Article(mass.OKLab(colour.D65).Words()))
}

// leanSentence says how the two lean and, where the outcome is not what the
// rule of thumb would have, that it is not.
func leanSentence(a, b *paint.Paint, roleA, roleB Role, r Rule, u paint.Undertone) string {
	leanA, _ := LeanIn(a, roleA)
	leanB, _ := LeanIn(b, roleB)
	var how string
	switch {
	case leanA.Centred() && leanB.Centred():
		how = "both are centred"
	case leanA.Toward == leanB.Toward:
		how = "both lean to " + leanA.Toward
	case r.A == Away && r.B == Away:
		how = fmt.Sprintf("they lean away from each other, the %s to %s and the %s to %s", a.ShortName(), leanA.Toward, b.ShortName(), leanB.Toward)
	default:
		how = leanPhrase(a, leanA) + " and " + leanPhrase(b, leanB)
	}
	expected := map[string]struct{ worst, best paint.Verdict }{
		"bright": {paint.Clean, paint.Clean}, "moderate": {paint.Softened, paint.Quiet}, "dull": {paint.Muddy, paint.Quiet},
	}[r.Rating]
	word := text.UpperFirst(u.VerdictWords())
	switch {
	case u.Verdict > expected.best:
		return word + ", although " + how + ". "
	case u.Verdict < expected.worst:
		// Of centred ones nothing was hoped for.
		switch {
		case r.A == Centred && r.B == Toward:
			how = leanPhrase(b, leanB)
		case r.B == Centred && r.A == Toward:
			how = leanPhrase(a, leanA)
		}
		return word + ", and yet " + how + ". "
	default:
		return word + ": " + how + ". "
	}
}

func leanPhrase(p *paint.Paint, l Lean) string {
	if l.Centred() {
		return "the " + p.ShortName() + " is centred"
	}
	return "the " + p.ShortName() + " leans to " + l.Toward
}

// whatTheyTake says which light the two take, and never the same of each.
func whatTheyTake(a, b *paint.Paint, takesA, takesB bandSet) string {
	both := takesA.and(takesB)
	onlyA, onlyB := takesA.without(both), takesB.without(both)
	switch {
	case takesA.empty() && takesB.empty():
		return "Neither takes much light of any colour"
	case takesA == takesB:
		return "Both take " + both.String() + " light"
	case takesA.empty():
		return fmt.Sprintf("The %s takes %s light, the %s little of any", b.ShortName(), takesB, a.ShortName())
	case takesB.empty():
		return fmt.Sprintf("The %s takes %s light, the %s little of any", a.ShortName(), takesA, b.ShortName())
	case both.empty():
		return fmt.Sprintf("The %s takes %s light, the %s %s", a.ShortName(), takesA, b.ShortName(), takesB)
	case onlyA.empty():
		return fmt.Sprintf("Both take %s light, the %s also %s", both, b.ShortName(), onlyB)
	case onlyB.empty():
		return fmt.Sprintf("Both take %s light, the %s also %s", both, a.ShortName(), onlyA)
	}
	return fmt.Sprintf("Both take %s light, the %s also %s, the %s also %s", both, a.ShortName(), onlyA, b.ShortName(), onlyB)
}

func whatGetsPast(a, b *paint.Paint, middle *paint.Mixture, u paint.Undertone) string {
	ma, mb := a.Alone(), b.Alone()
	allA, allB := over(inBands(&ma), swallowed), over(inBands(&mb), swallowed)
	// What gets past both is what the mixture shows, and its hue is made of.
	shows, need := inBands(middle), needs[slices.Index(colour.HueWords(), colour.HueWord(u.WheelHue))]
	var past bandSet
	for i := range past {
		past[i] = !allA[i] && !allB[i] && need[i] && shows[i] < swallowed
	}
	takesA, takesB := taken(&ma).without(past), taken(&mb).without(past)
	says := whatTheyTake(a, b, takesA, takesB)
	switch {
	case past.empty():
		return says + "; no colour of light is left alone, and yet most of what is possible here is."
	case past.String() == "all":
		return says + "."
	}
	gets := "gets"
	if strings.Contains(past.String(), " and ") {
		gets = "get"
	}
	return says + fmt.Sprintf("; %s light %s past both.", past, gets)
}

// whatIsLost says what keeps a mixture from being clean: paints that are quiet by
// themselves, or the band in which it loses most against the brightest mixture of
// its hue, and who takes that.
func whatIsLost(a, b *paint.Paint, middle *paint.Mixture, u paint.Undertone) string {
	if u.Verdict == paint.Quiet {
		quietA, quietB := a.Undertone().Verdict == paint.Quiet, b.Undertone().Verdict == paint.Quiet
		switch {
		case quietA && quietB:
			return "As quiet as its paints: both are quiet by themselves."
		case quietA:
			return fmt.Sprintf("As quiet as its paints: the %s is quiet by itself.", a.ShortName())
		case quietB:
			return fmt.Sprintf("As quiet as its paints: the %s is quiet by itself.", b.ShortName())
		}
		return "It keeps nearly all that its paints have: neither is very bright."
	}
	ma, mb := a.Alone(), b.Alone()
	takesA, takesB := taken(&ma), taken(&mb)
	take := whatTheyTake(a, b, takesA, takesB)
	if !u.HasHue() {
		return take + "; what they leave of the light is even: expect a grey."
	}
	best := paint.Brightest(u.WheelHue)
	is, could := inBands(middle), inBands(&best)
	hue := colour.HueWord(u.WheelHue)
	need := needs[slices.Index(colour.HueWords(), hue)]
	worst, loss := -1, 0.0
	for i := range is {
		if !need[i] || could[i] >= swallowed {
			continue // light that the hue is as well without
		}
		if l := 1 - math.Pow(10, could[i]-is[i]); l > loss {
			worst, loss = i, l
		}
	}
	if worst < 0 || loss < leastLoss {
		return take + "; a little is lost of every colour."
	}
	outcome := "expect a quieter " + u.HueWord()
	if u.Verdict == paint.Muddy {
		// "Quiet" is a verdict of its own.
		outcome = "expect " + text.Article(strings.Replace(u.Colour.Words(), "quiet ", "dull ", 1))
	}
	light := bandNames[worst]
	t := shareOf(&ma, &mb, middle)
	lostToA, lostToB := (1-t)*absorbed(&ma, bands[worst]), t*absorbed(&mb, bands[worst])
	thief, also := a, takesA[worst]
	if lostToB > lostToA {
		thief, also = b, takesB[worst]
	}
	switch {
	case min(lostToA, lostToB) >= 0.5*max(lostToA, lostToB):
		return fmt.Sprintf("Both take %s light, which %s needs: %s.", light, text.Article(hue), outcome)
	case also:
		return fmt.Sprintf("The %s takes %s light, which %s needs: %s.", thief.ShortName(), light, text.Article(hue), outcome)
	}
	return fmt.Sprintf("The %s also takes %s light: %s.", thief.ShortName(), light, outcome)
}

// shareOf is the share of b by volume, 0 to 1, in a mixture of a and b, read off
// the band in which the two differ most.
func shareOf(a, b, mixed *paint.Mixture) (share float64) {
	ka, kb, km := a.K(), b.K(), mixed.K()
	widest := 0.0
	for i := range ka {
		if d := math.Abs(kb[i] - ka[i]); d > widest {
			widest, share = d, (km[i]-ka[i])/(kb[i]-ka[i])
		}
	}
	return min(1, max(0, share))
}

// absorbed is the mean absorption of a paint in a band.
func absorbed(m *paint.Mixture, b band) float64 {
	k := m.K()
	return mean(&k, b)
}

// Alone explains what a single paint does to light.
func Alone(p *paint.Paint) string {
	m := p.Alone()
	if m.Neutral() {
		return text.UpperFirst(p.ShortName()) + " treats all light alike."
	}
	kept := "keeping little grey in it"
	switch g := DensitiesOf(&m).Greyness(); {
	case g > 0.35:
		kept = "and much of the rest too, which greys it"
	case g > 0.15:
		kept = "and some of the rest, which quietens it"
	}
	takes := taken(&m)
	if takes.empty() {
		return fmt.Sprintf("Straight from the tube: the %s takes little light of any colour.", p.ShortName())
	}
	return fmt.Sprintf("Straight from the tube: the %s takes %s light, %s.", p.ShortName(), takes, kept)
}

// Shared says which band of light two paints take most of between them twice
// over: the one that the less of the two still takes most of.
func Shared(a, b *paint.Paint) string {
	ma, mb := a.Alone(), b.Alone()
	da, db := inBands(&ma), inBands(&mb)
	band := 0
	for i := range da {
		if min(da[i], db[i]) > min(da[band], db[band]) {
			band = i
		}
	}
	how := "hardly meet in any light"
	switch twice := min(da[band], db[band]); {
	case twice >= swallowed:
		how = "both take " + bandNames[band] + " light"
	case twice >= swallowed/2:
		how = "take some of the same " + bandNames[band] + " light"
	}
	return fmt.Sprintf("The %s and the %s %s.", a.ShortName(), b.ShortName(), how)
}
