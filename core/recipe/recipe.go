// Package recipe holds mixtures by parts of paints and of their let-downs: whole
// parts that a hand can count, found within a tolerance of colour, and the words
// for mixing them.
package recipe

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/paint"
)

// MostParts is the largest total of parts that a painter is asked to count.
const MostParts = 40

// NearEnough is the distance in OKLab, brushed out or as a ring is looked at, up
// to which two colours pass for the same.
const NearEnough = 0.02

// Thinnings are how many parts of another paint go to 1 part of a paint that is
// let down, those tried first first; the last is let down twice.
var Thinnings = [3]int{9, 19, 99}

// Ingredient is so many parts of a paint, or of its let-down.
type Ingredient struct {
	Paint *paint.Paint
	Parts float64 // above 0; whole where a recipe is found, anything in a pile
	// In and Thin say that the paint is first let down: 1 part of it in Thin
	// parts of In. In is nil for the paint itself.
	In   *paint.Paint
	Thin int
}

// Mixture is what the ingredient is by itself, its let-down mixed.
func (i Ingredient) Mixture() paint.Mixture {
	m := i.Paint.Alone()
	if i.In == nil {
		return m
	}
	in := i.In.Alone()
	return paint.Between(&in, &m, 1/float64(i.Thin+1))
}

// thinnings are the parts of In that go to 1 part, one let-down after the other:
// 1:99 is 1:9 of what was let down 1:9.
func (i Ingredient) thinnings() []int {
	switch {
	case i.In == nil:
		return nil
	case i.Thin > MostParts:
		return []int{9, (i.Thin+1)/10 - 1}
	}
	return []int{i.Thin}
}

// Code is what to call the paint in short; a hue by what it is mixed from.
func (i Ingredient) Code() string {
	if i.Paint.ID == HueID {
		return "hue (" + Of(i.Paint.Of).String() + ")"
	}
	return i.Paint.Code()
}

// Recipe is ingredients that are mixed.
type Recipe []Ingredient

// Pure is a paint as it comes.
func Pure(p *paint.Paint) Recipe { return Recipe{{Paint: p, Parts: 1}} }

// OfTwo is a recipe of two paints; one of which there are no parts is left out.
func OfTwo(a, b *paint.Paint, parts [2]int) (r Recipe) {
	for i, p := range [2]*paint.Paint{a, b} {
		if parts[i] > 0 {
			r = append(r, Ingredient{Paint: p, Parts: float64(parts[i])})
		}
	}
	return r.Reduced()
}

// Of is paints by parts, as they lie in a pile.
func Of(parts []paint.Part) (r Recipe) {
	for _, p := range parts {
		r = append(r, Ingredient{Paint: p.Paint, Parts: p.Parts})
	}
	return r
}

// With is the recipe with more of another in it; parts of the same paint are
// added up.
func (r Recipe) With(other Recipe) Recipe {
	out := slices.Clone(r)
	for _, more := range other {
		at := slices.IndexFunc(out, func(i Ingredient) bool { return i.Paint == more.Paint && i.In == more.In && i.Thin == more.Thin })
		if at < 0 {
			out = append(out, more)
			continue
		}
		out[at].Parts += more.Parts
	}
	return out
}

// Together is so many parts of one recipe in so many of another, by volume, let-downs opened: in whole parts
// where a hand would count so many, else in parts of what is taken.
func Together(one Recipe, ofOne float64, other Recipe, ofOther float64) Recipe {
	volume := func(parts []paint.Part) (sum float64) {
		for _, p := range parts {
			sum += p.Parts
		}
		return sum
	}
	a, b := one.Plain(), other.Plain()
	wholeA, wholeB := volume(a), volume(b)
	together := func(times float64) Recipe {
		scaled := func(parts []paint.Part, by float64) Recipe {
			parts = slices.Clone(parts)
			for n := range parts {
				parts[n].Parts *= by
			}
			return Of(parts)
		}
		return scaled(a, times*ofOne/wholeA).With(scaled(b, times*ofOther/wholeB))
	}
	for total := ofOne + ofOther; total <= MostParts; total++ {
		r := together(total / (ofOne + ofOther))
		whole := true
		for n := range r {
			near := math.Round(r[n].Parts)
			whole = whole && math.Abs(r[n].Parts-near) < 1e-9
			r[n].Parts = near
		}
		if whole {
			return r
		}
	}
	return together(1)
}

// Volumes are the ingredients in parts by volume, let-downs resolved into their
// paints; a paint may stand in several of them.
func (r Recipe) Volumes() (out []paint.Part) {
	for _, i := range r {
		if i.In == nil {
			out = append(out, paint.Part{Paint: i.Paint, Parts: i.Parts})
			continue
		}
		whole := float64(i.Thin + 1)
		out = append(out, paint.Part{Paint: i.Paint, Parts: i.Parts / whole}, paint.Part{Paint: i.In, Parts: i.Parts * float64(i.Thin) / whole})
	}
	return out
}

// Plain are the paints in the recipe by volume, each once: let-downs and what was
// stirred before taken apart, in the order in which they are named.
func (r Recipe) Plain() (out []paint.Part) {
	var add func(p *paint.Paint, parts float64)
	add = func(p *paint.Paint, parts float64) {
		if p.Of != nil {
			whole := 0.0
			for _, of := range p.Of {
				whole += of.Parts
			}
			for _, of := range p.Of {
				add(of.Paint, parts*of.Parts/whole)
			}
			return
		}
		if at := slices.IndexFunc(out, func(there paint.Part) bool { return there.Paint == p }); at >= 0 {
			out[at].Parts += parts
			return
		}
		out = append(out, paint.Part{Paint: p, Parts: parts})
	}
	for _, v := range r.Volumes() {
		add(v.Paint, v.Parts)
	}
	return out
}

// IsPlain says that every ingredient is a paint as it comes.
func (r Recipe) IsPlain() bool {
	return !slices.ContainsFunc(r, func(i Ingredient) bool { return i.In != nil || i.Paint.Of != nil })
}

// Stir is the recipe taken for a paint of its own, to be mixed further.
func (r Recipe) Stir(id, name string) (*paint.Paint, error) {
	var parts []paint.Part
	for _, i := range r {
		p := i.Paint
		if i.In != nil {
			let, err := paint.Stir(p.ID+" let down", p.Name+" let down", paint.Part{Paint: p, Parts: 1}, paint.Part{Paint: i.In, Parts: float64(i.Thin)})
			if err != nil {
				return nil, err
			}
			p = let
		}
		parts = append(parts, paint.Part{Paint: p, Parts: i.Parts})
	}
	return paint.Stir(id, name, parts...)
}

// Steps are what is counted out one after the other: what is stirred or let down
// first, and then the recipe itself.
func (r Recipe) Steps() (out []Recipe) {
	for _, i := range r {
		if i.Paint.Of != nil {
			out = append(out, Of(i.Paint.Of).Steps()...)
		}
		for _, parts := range i.thinnings() {
			out = append(out, Recipe{{Paint: i.Paint, Parts: 1}, {Paint: i.In, Parts: float64(parts)}})
		}
	}
	return append(out, r)
}

// Total is how many parts there are in all.
func (r Recipe) Total() (n float64) {
	for _, i := range r {
		n += i.Parts
	}
	return n
}

// Whole says that all parts are whole numbers, such as a hand can make.
func (r Recipe) Whole() bool {
	return !slices.ContainsFunc(r, func(i Ingredient) bool { return i.Parts != math.Trunc(i.Parts) })
}

// Reduced is a recipe of whole parts in its smallest numbers.
func (r Recipe) Reduced() Recipe {
	divisor := 0
	for _, i := range r {
		divisor = gcd(divisor, int(i.Parts))
	}
	if divisor < 2 {
		return r
	}
	out := slices.Clone(r)
	for i := range out {
		out[i].Parts /= float64(divisor)
	}
	return out
}

// String is the recipe in short: "12 PY65 : 3 PB29 (let down 1:9 in PY65)".
func (r Recipe) String() string { return strings.Join(r.Pieces(), " ") }

func number(parts float64) string { return strconv.FormatFloat(parts, 'f', -1, 64) }

// gcd is the greatest common divisor of two whole numbers, not both 0.
func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}
