package journal

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Placed is a slot of a wheel as it looks, painted or computed.
type Placed struct {
	Home   int            // where it would stand clockwise with the first role on top
	Hue    string         // that it is spoken of as, "green"; by its colour where empty
	Colour colour.Lab     // D65
	Paints []*paint.Paint // that it is mixed from
}

// leastDiffering is how far slots of one hue differ in the mean, CIEDE2000, to be spoken of.
const leastDiffering = 2.0

// Differ says in sentences how one wheel differs from another, hue by hue and then paint by
// paint: "Violets: darker, 14 degrees nearer to blue; the Ultramarine blue is 1.6 times as
// strong". The slots of either are compared by where they stand.
func Differ(one, other []Placed) (out []string) {
	type group struct {
		a, b    []colour.OKLab
		differs float64
		paints  [2][]*paint.Paint
	}
	groups := map[string]*group{}
	var order []string
	compared := 0
	for _, b := range other {
		k := slices.IndexFunc(one, func(a Placed) bool { return a.Home == b.Home })
		if k < 0 {
			continue
		}
		a := one[k]
		compared++
		hue := cmp.Or(b.Hue, hueOf(b.Colour.OKLab()))
		g := groups[hue]
		if g == nil {
			g = &group{}
			groups[hue], order = g, append(order, hue)
		}
		g.a, g.b = append(g.a, a.Colour.OKLab()), append(g.b, b.Colour.OKLab())
		g.differs += colour.Difference(b.Colour, a.Colour)
		g.paints[0], g.paints[1] = append(g.paints[0], a.Paints...), append(g.paints[1], b.Paints...)
	}
	if compared == 0 {
		return []string{"They have no slot in common."}
	}
	for _, hue := range order {
		g := groups[hue]
		if g.differs/float64(len(g.a)) < leastDiffering {
			continue
		}
		says := text.UpperFirst(hue) + "s: " + meanOf(g.a).Beside(meanOf(g.b))
		if of := otherPaints(g.paints[0], g.paints[1]); of != "" {
			says += "; " + of
		}
		out = append(out, says+".")
	}
	if len(out) == 0 {
		return []string{"No hue differs by more than an eye sees."}
	}
	return out
}

// hueOf is the one of the six hues that a colour belongs to, or "grey".
func hueOf(c colour.OKLab) string {
	lch := c.OKLCh()
	if lch.C < colour.NeutralChroma {
		return "grey"
	}
	return HueOf(colour.HueWord(colour.WheelHue(lch.H)))
}

// HueOf is the hue that a slot's name speaks of: "green" of "yellow-green".
func HueOf(name string) string { return name[strings.LastIndex(name, "-")+1:] }

// meanOf is the mean of colours in OKLab.
func meanOf(all []colour.OKLab) (mean colour.OKLab) {
	n := float64(len(all))
	for _, c := range all {
		mean.L += c.L / n
		mean.A += c.A / n
		mean.B += c.B / n
	}
	return mean
}

// otherPaints says which paints are others, or of another strength; empty where none is.
func otherPaints(one, other []*paint.Paint) string {
	named := func(all []*paint.Paint) (names []string, strength map[string]float64) {
		strength = map[string]float64{}
		for _, p := range all {
			if _, known := strength[p.ShortName()]; !known {
				names = append(names, p.ShortName())
			}
			strength[p.ShortName()] = p.Strength()
		}
		return names, strength
	}
	a, strongA := named(one)
	b, strongB := named(other)
	var fresh, gone, says []string
	for _, name := range a {
		was, known := strongB[name]
		switch ratio := strongA[name] / was; {
		case !known:
			fresh = append(fresh, name)
		case SpokenOf(ratio):
			says = append(says, fmt.Sprintf("the %s is taken for %.2g times as strong", name, ratio))
		}
	}
	for _, name := range b {
		if _, known := strongA[name]; !known {
			gone = append(gone, name)
		}
	}
	switch {
	case len(fresh) > 0 && len(gone) > 0:
		says = append(says, text.Listed(fresh)+" in the place of "+text.Listed(gone))
	case len(fresh) > 0:
		says = append(says, "with "+text.Listed(fresh))
	case len(gone) > 0:
		says = append(says, "without "+text.Listed(gone))
	}
	return strings.Join(says, "; ")
}
