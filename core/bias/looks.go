package bias

import (
	"cmp"
	"slices"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Look is what a tube without a name looks like, drawn down over a black stripe and let out with white; an
// empty answer is one that nobody gave.
type Look struct {
	Family string // as the library parts its paints
	Hiding string // "opaque", "semi" or "transparent" over the stripe
	Toward string // the neighbour that its tint leans to, or "centred"
}

// Hidings are the answers to what a paint does to the stripe.
var Hidings = []string{"opaque", "semi", "transparent"}

// Fit is a paint of the library and how many of the answers it fits.
type Fit struct {
	Paint    *paint.Paint
	Fits, Of int
}

// lookedFor is how many paints are named at most.
const lookedFor = 6

// Families are those that the library has paints of, in its order.
func Families() (out []string) {
	for _, p := range paint.Library() {
		if !slices.Contains(out, p.Family) {
			out = append(out, p.Family)
		}
	}
	return out
}

// Leanings are the neighbours that paints of a family lean to, "centred" among them.
func Leanings(family string) (out []string) {
	for _, p := range paint.Library() {
		if lean, ok := LeanIn(p, ""); ok && p.Family == family && !slices.Contains(out, lean.Toward) {
			out = append(out, lean.Toward)
		}
	}
	slices.Sort(out)
	return out
}

// Looking are the paints of the library that look so, those first that fit most of the answers. The error is an
// input.Error.
func Looking(l Look) (out []Fit, err error) {
	if !slices.Contains(Families(), l.Family) {
		return nil, input.Errorf("there is no family %q: it is one of %s", input.Clip(l.Family), text.Listed(Families()))
	}
	if l.Hiding != "" && !slices.Contains(Hidings, l.Hiding) {
		return nil, input.Errorf("over the stripe a paint is %s, and not %q", strings.Join(Hidings, ", "), input.Clip(l.Hiding))
	}
	if l.Toward != "" && !slices.Contains(Leanings(l.Family), l.Toward) {
		return nil, input.Errorf("no %s leans to %q", l.Family, input.Clip(l.Toward))
	}
	for _, p := range paint.Library() {
		if p.Family != l.Family {
			continue
		}
		one := Fit{Paint: p, Fits: 1, Of: 1}
		for _, answer := range []struct {
			given string
			fits  bool
		}{{l.Hiding, p.Hiding == l.Hiding}, {l.Toward, leansTo(p, l.Toward)}} {
			if answer.given == "" {
				continue
			}
			if one.Of++; answer.fits {
				one.Fits++
			}
		}
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b Fit) int { return cmp.Compare(b.Fits, a.Fits) })
	return out[:min(lookedFor, len(out))], nil
}

func leansTo(p *paint.Paint, toward string) bool {
	lean, ok := LeanIn(p, "")
	return ok && lean.Toward == toward
}
