package bias

import (
	"fmt"
	"math"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// nearlyGrey is the undertone chroma (OKLCh) below which the hue error swings with
// every trace.
const nearlyGrey = 0.05

// PrintSentence says in plain words what hue error and greyness are and where
// they come from: which third of the light a paint should swallow and does,
// which it should leave alone and takes some of.
func PrintSentence(m *paint.Mixture) string {
	if _, ok := PrintOf(m); !ok {
		return ""
	}
	d := DensitiesOf(m)
	list := [3]float64{d.Blue, d.Green, d.Red}
	high, low := 0, 0
	for t := range list {
		if list[t] > list[high] {
			high = t
		}
		if list[t] < list[low] {
			low = t
		}
	}
	if low == high {
		return ""
	}
	middle := 3 - high - low
	hue := "hardly touches"
	switch e := d.HueError(); {
	case e > 0.85:
		hue = "takes nearly as much of"
	case e > 0.5:
		hue = "takes more than half as much of"
	case e > 0.2:
		hue = "takes some of"
	case e > 0.06:
		hue = "takes a little of"
	}
	grey := "leaves the " + thirdNames[low] + " alone, so there is no grey in it"
	switch g := d.Greyness(); {
	case g > 0.35:
		grey = fmt.Sprintf("takes %.0f %% as much of the %s too, which greys it strongly", 100*g, thirdNames[low])
	case g > 0.12:
		grey = fmt.Sprintf("takes %.0f %% as much of the %s too, which greys it a little", 100*g, thirdNames[low])
	case g > 0.03:
		grey = "hardly touches the " + thirdNames[low] + ", so it is nearly free of grey"
	}
	out := fmt.Sprintf("Of the three thirds of the light it takes %s most, %s the %s, and %s.", thirdNames[high], hue, thirdNames[middle], grey)
	if m.Undertone().Chroma < nearlyGrey {
		out += " It is nearly grey, so the hue error says little of it."
	}
	return out
}

// Differences says in plain words in what two paints differ, the weightiest
// first: hue of the undertone, how bright, how strong, how opaque, the look of
// the masstone, staining and lightfastness.
func Differences(a, b *paint.Paint) []string {
	var out []string
	ma, mb := a.Alone(), b.Alone()
	ua, ub := a.Undertone(), b.Undertone()
	nameA, nameB := "the "+a.ShortName(), "the "+b.ShortName()
	if nameA == nameB {
		nameA, nameB = nameA+" on the left", nameB+" on the right"
	}
	say := func(format string, v ...any) { out = append(out, text.UpperFirst(fmt.Sprintf(format, v...))) }

	if ua.HasHue() && ub.HasHue() {
		turn := colour.TurnBetween(ua.Hue, ub.Hue)
		switch by := math.Abs(turn); {
		case by < 3:
			say("their undertones have the same hue, within %d degrees.", max(2, int(math.Ceil(by))))
		default:
			say("the undertone of %s lies %.0f degrees nearer to %s.", nameB, by, nextHue(ua.WheelHue, ub.WheelHue))
		}
		if ratio := ub.Chroma / ua.Chroma; ratio > 1.1 || ratio < 1/1.1 {
			brighter, ratio := nameB, ratio
			if ratio < 1 {
				brighter, ratio = nameA, 1/ratio
			}
			say("%s is the brighter, with %.0f %% more chroma in its undertone.", brighter, 100*(ratio-1))
		}
	} else if ua.HasHue() != ub.HasHue() {
		grey := nameA
		if ua.HasHue() {
			grey = nameB
		}
		say("%s has no hue to speak of.", grey)
	}
	if d := b.StrengthClass - a.StrengthClass; d != 0 {
		stronger, weaker := nameB, nameA
		if d < 0 {
			stronger, weaker, d = nameA, nameB, -d
		}
		how := "a class"
		if d > 1 {
			how = inWords(d) + " classes"
		}
		say("%s is stronger than %s by %s: it takes less of it.", stronger, weaker, how)
	} else if g := b.Strength() / a.Strength(); g > 1.05 || g < 1/1.05 {
		stronger := nameB
		if g < 1 {
			stronger, g = nameA, 1/g
		}
		say("%s is %.2g times as strong.", stronger, g)
	}
	if a.Hiding != b.Hiding {
		say("%s is %s, %s %s.", nameA, hidingWords[a.Hiding], nameB, hidingWords[b.Hiding])
	}
	massA, massB := ma.Masstone(), mb.Masstone()
	labA, labB := massA.Lab(), massB.Lab()
	switch d := labB.L - labA.L; {
	case d > 4:
		say("straight from the tube %s is the lighter, by %.0f in L*.", nameB, d)
	case d < -4:
		say("straight from the tube %s is the lighter, by %.0f in L*.", nameA, -d)
	}
	for _, q := range [...]struct{ what, a, b string }{{"staining", a.Staining, b.Staining}, {"lightfastness", a.Lightfast, b.Lightfast}} {
		if q.a != "" && q.b != "" && q.a != q.b {
			say("%s, typical of the class: %s for %s, %s for %s.", q.what, q.a, nameA, q.b, nameB)
		}
	}
	if len(out) == 0 || colour.Difference(labA, labB) < 1 && len(out) == 1 && strings.HasPrefix(out[0], "Their undertones") {
		return []string{"No difference a painter would see: one will do."}
	}
	return out
}

var hidingWords = map[string]string{"opaque": "opaque", "semi": "half opaque", "transparent": "transparent"}

// nextHue names the hue that lies on from one wheel hue past another.
func nextHue(from, to float64) string {
	step := math.Copysign(60, colour.TurnBetween(from, to))
	for _, six := range []float64{0, 60, 120, 180, 240, 300} {
		if d := colour.TurnBetween(to, six) / step; d >= 0 && d < 1 && math.Abs(colour.TurnBetween(to, six)) > 5 {
			return colour.HueWord(six)
		}
	}
	return colour.HueWord(to + step)
}
