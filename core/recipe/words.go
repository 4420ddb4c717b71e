package recipe

import (
	"cmp"
	"fmt"
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
		if i.In != nil {
			one += fmt.Sprintf(" let down 1:%d in the %s", i.Thin, i.In.ShortName())
		}
		words = append(words, one)
	}
	return strings.Join(words, " and ")
}

// letDown tells how to let an ingredient down; empty for a paint as it comes.
func (i Ingredient) letDown() []string {
	if i.In == nil {
		return nil
	}
	return []string{fmt.Sprintf("Let the %s down first: 1 part in %d parts of the %s.", i.Paint.ShortName(), i.Thin, i.In.ShortName())}
}

// Mixing tells in order how to mix any number of ingredients: let-downs first,
// then from the weakest (which absorbs least at equal volume) to the strongest.
func (r Recipe) Mixing() []string {
	if len(r) == 1 && r[0].In == nil {
		return Straight(r[0].Paint)
	}
	order := slices.Clone(r)
	slices.SortStableFunc(order, func(a, b Ingredient) int {
		x, y := a.Mixture(), b.Mixture()
		return cmp.Compare(x.Absorption(), y.Absorption())
	})
	var first, then []string
	for n, i := range order {
		what := "the " + i.Paint.ShortName()
		first = append(first, i.letDown()...)
		if i.In != nil {
			what = "this let-down of " + what
		}
		if n == 0 {
			then = append(then, fmt.Sprintf("Lay out %s of %s, the weakest.", Count(i.Parts), what))
		} else {
			then = append(then, fmt.Sprintf("Add %s a little at a time, up to %s.", what, Count(i.Parts)))
		}
	}
	return append(first, then...)
}

// MixingFrom tells in order how to mix a recipe of one paint or two, starting
// from the weaker one: a let-down first, then the stronger a trace at a time, and
// what to do when it has gone too far.
func (r Recipe) MixingFrom(weaker *paint.Paint) []string {
	if len(r) == 1 {
		return Straight(r[0].Paint)
	}
	first, second := r[0], r[1]
	if second.In == nil && (first.In != nil || first.Paint != weaker) {
		first, second = second, first
	}
	what := "the " + second.Paint.ShortName()
	if second.In != nil {
		what = "this let-down"
	}
	wordA, wordB := first.Paint.Undertone().HueWord(), second.Paint.Undertone().HueWord()
	if wordA == wordB {
		wordA, wordB = first.Paint.ShortName(), second.Paint.ShortName()
	}
	return append(second.letDown(),
		fmt.Sprintf("Lay out %s of the %s, the weaker paint.", Count(first.Parts), first.Paint.ShortName()),
		fmt.Sprintf("Add %s a trace at a time, up to %s.", what, Count(second.Parts)),
		fmt.Sprintf("Too near %s: more of the %s. Still too near %s: more of %s.", wordB, first.Paint.ShortName(), wordA, what))
}
