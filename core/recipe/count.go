package recipe

import (
	"cmp"
	"math"
	"slices"

	"gyrophane/core/paint"
)

// Search looks for countable parts of two, a and b, that come near the mixture
// with a share of b.
type Search struct {
	Share float64 // of b, by volume, between 0 and 1
	// Low and High are the shares between which every ratio is tried; outside them
	// only what the share rounds to. Both 0 for none between.
	Low, High float64
	// Off is how far the colour at a share of b is from what is wanted, in OKLab
	// unless Within says otherwise; infinite for what need not be looked at.
	Off func(share float64) float64
	// Within is how far is near enough, in the measure of Off; NearEnough when 0.
	Within float64
}

func (s Search) near(off float64) bool { return off <= cmp.Or(s.Within, NearEnough) }

// Ratio is the parts of a and of b: of the smallest total, at most MostParts, the
// nearest that is near enough; where none is, ok is false and they are the nearest
// of all.
func (s Search) Ratio() (parts [2]int, ok bool) {
	parts, least := [2]int{1, 1}, math.Inf(1)
	for total := 2; total <= MostParts; total++ {
		for _, b := range s.tried(total, float64(total)) {
			if gcd(total, b) > 1 {
				continue // tried with a smaller total
			}
			if off := s.Off(float64(b) / float64(total)); off < least {
				parts, least = [2]int{total - b, b}, off
			}
		}
		if s.near(least) {
			return parts, true
		}
	}
	return parts, false
}

// LetDown is Ratio with the b let down first, 1 part in so many of a: parts of a
// and of the let-down. It is for shares of b up to a half.
func (s Search) LetDown() (parts [2]int, thin int, ok bool) {
	for _, thin := range Thinnings {
		for total := 2; total <= MostParts; total++ {
			whole := total * (thin + 1)
			for _, n := range s.tried(total, float64(whole)) {
				if gcd(total, n) == 1 && s.near(s.Off(float64(n)/float64(whole))) {
					return [2]int{total - n, n}, thin, true
				}
			}
		}
	}
	return parts, 0, false
}

// tried are the numbers of parts, from 1 and below total, that come to a share
// worth looking at when so many make a whole.
func (s Search) tried(total int, whole float64) (out []int) {
	round := min(max(int(math.Round(s.Share*whole)), 1), total-1)
	low, high := max(1, int(math.Ceil(s.Low*whole))), min(total-1, int(math.Floor(s.High*whole)))
	if round < low || round > high {
		out = append(out, round)
	}
	for n := low; n <= high; n++ {
		out = append(out, n)
	}
	return out
}

// perPart is what a part more must bring in CIEDE2000 to be worth counting.
const perPart = 0.03

// Counted finds whole parts for shares (above 0, summing to 1) of paints: of all
// totals up to MostParts the one of least difference, CIEDE2000 to what is
// wanted, where a part more must be worth 0.03 of it. Paints that come to nothing
// are left out.
func Counted(paints []*paint.Paint, shares []float64, difference func(Recipe) float64) (best Recipe, least float64) {
	c := counting{least: math.Inf(1), worth: math.Inf(1)}
	for total := len(shares); total <= MostParts; total++ {
		var r Recipe
		for i, share := range shares {
			if n := math.Round(share * float64(total)); n > 0 {
				r = append(r, Ingredient{Paint: paints[i], Parts: n})
			}
		}
		if len(r) > 0 {
			c.try(r, total, difference)
		}
	}
	return c.best, c.least
}

// CountedLetDown is Counted with the paint of least share let down first in the
// one of the greatest; the difference is infinite where that cannot be.
func CountedLetDown(paints []*paint.Paint, shares []float64, difference func(Recipe) float64) (best Recipe, least float64) {
	trace, main := 0, 0
	for i, share := range shares {
		if share < shares[trace] {
			trace = i
		}
		if share > shares[main] {
			main = i
		}
	}
	c := counting{least: math.Inf(1), worth: math.Inf(1)}
	for _, thin := range Thinnings {
		for total := len(shares); total <= MostParts && trace != main; total++ {
			r, rest := make(Recipe, len(shares)), float64(total)
			for i, share := range shares {
				r[i] = Ingredient{Paint: paints[i], Parts: math.Round(share * float64(total))}
				if i == trace {
					r[i] = Ingredient{paints[i], math.Round(share * float64(total*(thin+1))), paints[main], thin}
				}
				if i != main {
					rest -= r[i].Parts
				}
			}
			r[main].Parts = rest
			if rest < 1 || r[trace].Parts < 1 {
				continue
			}
			c.try(slices.DeleteFunc(r, func(i Ingredient) bool { return i.Parts == 0 }), total, difference)
		}
	}
	return c.best, c.least
}

// counting keeps the best of the recipes that are tried.
type counting struct {
	best         Recipe
	least, worth float64
}

func (c *counting) try(r Recipe, total int, difference func(Recipe) float64) {
	d := difference(r)
	if worth := d + perPart*float64(total); worth < c.worth {
		c.best, c.least, c.worth = r, d, worth
	}
}
