package recipe

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/paint"
)

// Count is so many parts in words: "1 part", "3 parts".
func Count(parts float64) string {
	if parts == 1 {
		return "1 part"
	}
	return number(parts) + " parts"
}

// Straight tells of a paint that nothing is mixed into.
func Straight(p *paint.Paint) []string {
	return []string{fmt.Sprintf("Straight from the tube: the %s as it comes.", p.ShortName())}
}

// Words name the recipe in a sentence: "5 of the arylide yellow and 2 of the
// phthalo blue let down 1:9 in the arylide yellow".
func (r Recipe) Words() string {
	var words []string
	for _, i := range r {
		one := fmt.Sprintf("%s of the %s", number(i.Parts), i.Paint.ShortName())
		if i.Paint.ID == HueID {
			one += " (" + Of(i.Paint.Of).Words() + ")"
		}
		if i.In != nil {
			one += fmt.Sprintf(" let down 1:%d in the %s", i.Thin, i.In.ShortName())
		}
		words = append(words, one)
	}
	return strings.Join(words, " and ")
}

// before tells how to make what has to be there first: the hue that is mixed, and
// what is let down, 1:99 in two goes.
func (i Ingredient) before() (out []string) {
	what := "the " + i.Paint.ShortName()
	if i.Paint.ID == HueID {
		hue := Of(i.Paint.Of)
		line := fmt.Sprintf("Mix %s first: %s of the %s", what, Count(hue[0].Parts), hue[0].Paint.ShortName())
		for _, more := range hue[1:] {
			line += fmt.Sprintf(", then %s of the %s", number(more.Parts), more.Paint.ShortName())
		}
		out = append(out, line+".")
	}
	first := " first"
	if len(out) > 0 {
		first = ""
	}
	switch thin := i.thinnings(); len(thin) {
	case 1:
		out = append(out, fmt.Sprintf("Let %s down%s: 1 part in %d parts of the %s.", what, first, thin[0], i.In.ShortName()))
	case 2:
		out = append(out, fmt.Sprintf("Let %s down%s, twice: 1 part in %d parts of the %s, then 1 part of that in %d parts more.", what, first, thin[0], i.In.ShortName(), thin[1]))
	}
	return out
}

// InOrder is the recipe in the order in which it is mixed: from what makes the
// most of the pile; of equal parts, from what has less tinting strength.
func (r Recipe) InOrder() Recipe {
	order := slices.Clone(r)
	slices.SortStableFunc(order, func(a, b Ingredient) int {
		x, y := a.Mixture(), b.Mixture()
		return cmp.Or(cmp.Compare(b.Parts, a.Parts), cmp.Compare(x.Absorption(), y.Absorption()))
	})
	return order
}

// Mixing tells in order how to mix the recipe: what has to be there first, then
// from what makes the most of the pile.
func (r Recipe) Mixing() []string {
	if len(r) == 1 && r[0].In == nil && r[0].Paint.ID != HueID {
		return Straight(r[0].Paint)
	}
	var first, then []string
	var most float64
	for n, i := range r.InOrder() {
		what := "the " + i.Paint.ShortName()
		first = append(first, i.before()...)
		if i.In != nil {
			what = "this let-down of " + what
		}
		if n == 0 {
			most = i.Parts
			then = append(then, fmt.Sprintf("Start with %s of %s.", Count(i.Parts), what))
		} else {
			by := "a little"
			if i.Parts < most/3 {
				by = "a trace"
			}
			then = append(then, fmt.Sprintf("Add %s %s at a time, up to %s.", what, by, Count(i.Parts)))
		}
	}
	return append(first, then...)
}

// MixingToTaste is Mixing, and what to do when a recipe of two has gone too far one
// way or the other.
func (r Recipe) MixingToTaste() []string {
	if len(r) != 2 {
		return r.Mixing()
	}
	order := r.InOrder()
	return append(r.Mixing(), ToTaste(order[0], order[1]))
}

// ToTaste tells what to add to a mixture of two that lies too near either: by their
// hues; by their lightness where that is what differs, for one has no hue or they
// share its word; else by their names.
func ToTaste(a, b Ingredient) string {
	name := func(i Ingredient) string {
		if i.In != nil {
			return "this let-down"
		}
		return "the " + i.Paint.ShortName()
	}
	x, y := a.Mixture(), b.Mixture()
	of, beside := x.BrushedOutColour(), y.BrushedOutColour()
	wordA, greyA := hueOf(a.Paint)
	wordB, greyB := hueOf(b.Paint)
	across, up := math.Hypot(of.A-beside.A, of.B-beside.B), math.Abs(of.L-beside.L)
	if same := wordA == wordB; (same || greyA || greyB) && up > across {
		pale, dark := a, b
		if of.L < beside.L {
			pale, dark = b, a
		}
		return fmt.Sprintf("Too pale: more of %s. Too dark: more of %s.", name(dark), name(pale))
	} else if same {
		wordA, wordB = "the "+a.Paint.ShortName(), "the "+b.Paint.ShortName()
	}
	return fmt.Sprintf("Too near %s: more of %s. Still too near %s: more of %s.", wordB, name(a), wordA, name(b))
}

// hueOf is the word for a paint's hue, plainly grey where it has none.
func hueOf(p *paint.Paint) (word string, grey bool) {
	if u := p.Undertone(); u.HasHue() {
		return u.HueWord(), false
	}
	return "grey", true
}
