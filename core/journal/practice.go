package journal

import "math/rand/v2"

// RoundLength is how many pairings a round of practice has.
const RoundLength = 10

// Drawable is a section that practice can draw from: how many pairings it has,
// and what guesses of the past won there out of what they could have.
type Drawable struct {
	Pairings      int
	Points, OutOf int
}

// Weight says how readily a section is drawn from: 1 where every guess was
// right, up to 5 where every one was wrong. Before there are many, as if one
// guess had been half right.
func (d Drawable) Weight() float64 {
	lost := float64(d.OutOf-d.Points) + MostOfGuess/2
	return 1 + 4*lost/float64(d.OutOf+MostOfGuess)
}

// Drawn is one pairing of a section, by index.
type Drawn struct{ Section, Pairing int }

// Draw takes n pairings, or all when there are fewer, none of them twice: each
// time a section by its weight, then any of its pairings.
func Draw(sections []Drawable, n int, random *rand.Rand) (out []Drawn) {
	left := make([][]int, len(sections))
	for i, s := range sections {
		left[i] = random.Perm(s.Pairings)
	}
	for len(out) < n {
		all := 0.0
		for i, s := range sections {
			if len(left[i]) > 0 {
				all += s.Weight()
			}
		}
		if all == 0 {
			return out
		}
		at, taken := random.Float64()*all, -1
		for i, s := range sections {
			if len(left[i]) == 0 {
				continue
			}
			taken = i // the last one, should rounding leave something over
			if at -= s.Weight(); at < 0 {
				break
			}
		}
		out = append(out, Drawn{taken, left[taken][0]})
		left[taken] = left[taken][1:]
	}
	return out
}
