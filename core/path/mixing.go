package path

import (
	"cmp"
	"fmt"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// Weaker is the paint of which it takes more to get half way in contrast: the
// one to start from, since a mixture can only be added to.
func (p *Path) Weaker() *paint.Paint {
	if p.ShareAt(0.5, ByContrast) <= 0.5 {
		return p.A
	}
	return p.B
}

// Mixing tells in order how to mix a recipe: let-downs first, then from the
// weaker paint, the stronger one a trace at a time.
func (p *Path) Mixing(r Recipe) []string {
	if len(r.Parts) == 1 {
		return Straight(r.Parts[0].Paint)
	}
	first, second := r.Parts[0], r.Parts[1]
	if second.In == nil && (first.In != nil || first.Paint != p.Weaker()) {
		first, second = second, first
	}
	var out []string
	what := "the " + bias.ShortName(second.Paint)
	if second.In != nil {
		out = append(out, fmt.Sprintf("Let the %s down first: 1 part in %d parts of the %s.", bias.ShortName(second.Paint), second.Thin, bias.ShortName(second.In)))
		what = "this let-down"
	}
	wordA, wordB := first.Paint.Undertone().HueWord(), second.Paint.Undertone().HueWord()
	if wordA == wordB {
		wordA, wordB = bias.ShortName(first.Paint), bias.ShortName(second.Paint)
	}
	return append(out,
		fmt.Sprintf("Lay out %s of the %s, the weaker paint.", Count(first.Parts), bias.ShortName(first.Paint)),
		fmt.Sprintf("Add %s a trace at a time, up to %s.", what, Count(second.Parts)),
		fmt.Sprintf("Too near %s: more of the %s. Still too near %s: more of %s.", wordB, bias.ShortName(first.Paint), wordA, what))
}

// Mixing tells in order how to mix any number of ingredients: let-downs first,
// then from the weakest (which absorbs least at equal volume) to the strongest.
func Mixing(parts []Ingredient) []string {
	if len(parts) == 1 && parts[0].In == nil {
		return Straight(parts[0].Paint)
	}
	order := slices.Clone(parts)
	slices.SortStableFunc(order, func(a, b Ingredient) int {
		x, y := a.Mixture(), b.Mixture()
		return cmp.Compare(x.Absorption(), y.Absorption())
	})
	var first, then []string
	for n, p := range order {
		what := "the " + bias.ShortName(p.Paint)
		if p.In != nil {
			first = append(first, fmt.Sprintf("Let %s down first: 1 part in %d parts of the %s.", what, p.Thin, bias.ShortName(p.In)))
			what = "this let-down of " + what
		}
		if n == 0 {
			then = append(then, fmt.Sprintf("Lay out %s of %s, the weakest.", Count(p.Parts), what))
		} else {
			then = append(then, fmt.Sprintf("Add %s a little at a time, up to %s.", what, Count(p.Parts)))
		}
	}
	return append(first, then...)
}

// Straight tells of a paint that nothing is mixed into.
func Straight(p *paint.Paint) []string {
	return []string{fmt.Sprintf("Straight from the tube: the %s as it comes.", bias.ShortName(p))}
}

// Count is so many parts in words: "1 part", "3 parts".
func Count(parts int) string {
	if parts == 1 {
		return "1 part"
	}
	return fmt.Sprintf("%d parts", parts)
}
