package wheel

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/text"
)

// Balance is where two colours cancel: the mixture of least C*ab as painted.
type Balance struct {
	A, B    *paint.Paint
	Parts   recipe.Recipe
	Mixture paint.Mixture
	Lab     colour.Lab // as painted, dry
	HueWord string     // of its undertone: "grey, leaning ..."
	Says    string     // what the two make: a grey, or what it is called that is none, and which way equal parts lie
	path    *path.Path
	share   float64
}

// BalanceOf finds the most neutral mixture of two paints as painted in a
// medium, dry.
func BalanceOf(a, b *paint.Paint, in paint.Medium) Balance {
	ma, mb := a.Alone(), b.Alone()
	grey := func(t float64) float64 {
		m := paint.Between(&ma, &mb, t)
		return m.AsPainted(in, false).Lab().Chroma()
	}
	best, least := 0.5, math.Inf(1)
	shares := paint.Shares(61, a.Strength(), b.Strength())
	for _, t := range shares[1 : len(shares)-1] {
		if c := grey(t); c < least {
			best, least = t, c
		}
	}
	parts := wholeParts(&ma, &mb, best, brushed)
	// Among countable parts near it the most neutral wins.
	for total := 2; total <= recipe.MostParts; total++ {
		for n := max(1, int(best*float64(total))-1); n <= min(total-1, int(best*float64(total))+2); n++ {
			if c := grey(float64(n) / float64(total)); c < least-0.25 {
				parts, least = [2]int{total - n, n}, c
			}
		}
	}
	share := float64(parts[1]) / float64(parts[0]+parts[1])
	m := paint.Between(&ma, &mb, share)
	out := Balance{A: a, B: b, Parts: recipe.OfTwo(a, b, parts), Mixture: m, Lab: m.AsPainted(in, false).Lab(), share: share}
	out.HueWord = m.Undertone().HueWord()
	half := paint.Between(&ma, &mb, 0.5)
	weak := b
	if share < 0.5 {
		weak = a
	}
	look := half.AsPainted(in, false)
	switch words := look.OKLab(colour.D65).Words(); {
	case !out.Neutral():
		out.Says = fmt.Sprintf("These two make %s, not a grey.", text.Article(out.Lab.OKLab().Words()))
	case math.Abs(share-0.5) < 0.02:
		out.Says = "In equal parts they are balanced."
	default:
		out.Says = fmt.Sprintf("In equal parts they make %s: add more of the %s.", text.Article(words), weak.ShortName())
	}
	return out
}

// greyChroma is the C*ab as painted up to which the middle of two complements is
// called a grey.
const greyChroma = 12

// Neutral says that the two cancel: what they make is a grey.
func (b *Balance) Neutral() bool { return b.Lab.Chroma() <= greyChroma }

// Neutraliser is a third paint that brings a balance to a grey.
type Neutraliser struct {
	Paint *paint.Paint
	Parts recipe.Recipe // of all three
	Lab   colour.Lab    // as painted, dry
}

// Neutraliser finds, among paints at hand, the one that brings a balance that is no
// grey nearest to one, and the parts: no white or black, and none where none
// brings it to a C*ab of 12.
func (b *Balance) Neutraliser(from []*paint.Paint, in paint.Medium) (best Neutraliser, ok bool) {
	two := b.Parts.Plain()
	if b.Neutral() || len(two) != 2 {
		return best, false
	}
	least := float64(greyChroma)
	whole := int(two[0].Parts + two[1].Parts)
	for _, p := range from {
		m := p.Alone()
		if m.Neutral() || p.ID == b.A.ID || p.ID == b.B.ID {
			continue
		}
		grey := func(share float64) colour.Lab {
			mixed := paint.Between(&b.Mixture, &m, share)
			return mixed.AsPainted(in, false).Lab()
		}
		near := math.Inf(1) // what the paint can do, in parts that are not whole
		for _, share := range paint.Shares(25, 1, p.Strength()) {
			near = min(near, grey(share).Chroma())
		}
		if near > least+1 {
			continue
		}
		for times := 1; times*whole < recipe.MostParts; times++ {
			for n := 1; times*whole+n <= recipe.MostParts; n++ {
				look := grey(float64(n) / float64(times*whole+n))
				if c := look.Chroma(); c < least-0.25 || c <= greyChroma && best.Paint == nil {
					parts := recipe.OfTwo(b.A, b.B, [2]int{times * int(two[0].Parts), times * int(two[1].Parts)})
					best, least = Neutraliser{p, append(parts, recipe.Ingredient{Paint: p, Parts: float64(n)}), look}, c
				}
			}
		}
	}
	return best, best.Paint != nil
}

// Intensity are n steps (5 or 7) from one colour through the balance to the
// other, at equal arcs of the brushed-out colour on either side.
func (b *Balance) Intensity(n int) []RingRung {
	if b.path == nil {
		b.path = path.New(b.A, b.B)
	}
	ma, mb := b.A.Alone(), b.B.Alone()
	arcAt := func(share float64) float64 {
		for i, s := range b.path.Samples {
			if s.Share >= share {
				if i == 0 {
					return 0
				}
				before := b.path.Samples[i-1]
				return before.Arc + (s.Arc-before.Arc)*(share-before.Share)/(s.Share-before.Share)
			}
		}
		return b.path.Length()
	}
	middle, whole := arcAt(b.share), b.path.Length()
	half := n / 2
	var out []RingRung
	for i := range n {
		var share float64
		switch {
		case i == 0:
			share = 0
		case i == n-1:
			share = 1
		case i == half:
			share = b.share
		default:
			arc := middle * float64(i) / float64(half)
			if i > half {
				arc = middle + (whole-middle)*float64(i-half)/float64(half)
			}
			share = b.path.ShareAt(arc/whole, path.ByContrast)
		}
		parts, m := b.Parts, b.Mixture
		switch {
		case share == 0:
			parts, m = recipe.Pure(b.A), ma
		case share == 1:
			parts, m = recipe.Pure(b.B), mb
		case i != half:
			counts := wholeParts(&ma, &mb, share, brushed)
			parts, m = recipe.OfTwo(b.A, b.B, counts), paint.Between(&ma, &mb, float64(counts[1])/float64(counts[0]+counts[1]))
		}
		out = append(out, RingRung{Of: b.A.Name, With: b.B.Name, Parts: parts, Mixture: m, L: massLightness(&m), Reached: true})
	}
	return out
}

// Darkest is the darkest dark of a system's primaries.
type Darkest struct {
	Parts   recipe.Recipe
	Paint   *paint.Paint // the mixture taken for a paint
	Lab     colour.Lab   // of the masstone
	Neutral bool         // whether its C*ab is at most 4; if not it is the least chromatic below L* 25, or the darkest
	Hidden  string       // hue word of the tint it hides when white is added
}

const (
	neutralLab = 4  // C*ab
	darkLab    = 25 // L*
)

// Dark finds the darkest dark: of all mixtures of two or three of the system's
// paints in up to 24 parts, the lowest L* of the masstone with C*ab of at most
// 4; if there is none, the least chromatic under L* 25. Of a system of one paint it is that paint.
func (w *Wheel) Dark() Darkest {
	if w.dark != nil {
		return *w.dark
	}
	paints := w.System.Paints()
	parts := 24
	if len(paints) > 3 {
		parts = 16
	}
	if len(paints) > 6 {
		parts = 10
	}
	type tried struct {
		parts  []paint.Part
		lab    colour.Lab
		chroma float64
	}
	var best, grey, least *tried
	try := func(of []paint.Part) {
		m, err := paint.Mix(of...)
		if err != nil {
			return
		}
		t := &tried{slices.Clone(of), m.Masstone().Lab(), 0}
		t.chroma = t.lab.Chroma()
		if t.chroma <= neutralLab && (best == nil || t.lab.L < best.lab.L) {
			best = t
		}
		if t.lab.L < darkLab && (grey == nil || t.chroma < grey.chroma) {
			grey = t
		}
		if least == nil || t.lab.L < least.lab.L {
			least = t
		}
	}
	if len(paints) == 1 {
		try([]paint.Part{{Paint: paints[0], Parts: 1}})
	}
	for i, a := range paints {
		for j, b := range paints[:i] {
			for n := 1; n < parts; n++ {
				try([]paint.Part{{Paint: a, Parts: float64(n)}, {Paint: b, Parts: float64(parts - n)}})
			}
			for _, c := range paints[:j] {
				for n := 1; n < parts-1; n++ {
					for m := 1; m < parts-n; m++ {
						try([]paint.Part{{Paint: a, Parts: float64(n)}, {Paint: b, Parts: float64(m)}, {Paint: c, Parts: float64(parts - n - m)}})
					}
				}
			}
		}
	}
	chosen := best
	if chosen == nil {
		chosen = grey
	}
	if chosen == nil {
		chosen = least
	}
	made := recipe.Of(chosen.parts).Reduced()
	p, err := made.Stir("mixed black", "mixed black")
	if err != nil {
		panic(err) // it was mixed a moment ago
	}
	d := Darkest{Parts: made, Paint: p, Lab: chosen.lab, Neutral: best != nil, Hidden: p.Undertone().HueWord()}
	w.dark = &d
	return d
}

// CheckIntensity refuses a number of steps that an intensity scale has not, with
// an input.Error.
func CheckIntensity(n int) error {
	if n != 5 && n != 7 {
		return input.Errorf("an intensity scale has 5 or 7 steps, not %d", n)
	}
	return nil
}
