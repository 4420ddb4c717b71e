package recipe

import (
	"cmp"
	"math"
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
