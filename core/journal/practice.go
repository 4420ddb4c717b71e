package journal

import (
	"fmt"
	"math/rand/v2"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// RoundLength is how many pairings a round of practice has.
const RoundLength = 10

// mostFollowed is how many pairings are followed at most to find a round: some
// tenths of a second.
const mostFollowed = 300

// leastPractice is how few pairings are still worth a round.
const leastPractice = 3

// Record is what guesses of the past won in a section, and could have won.
type Record struct{ Points, OutOf int }

// Practice draws a round from the paints of a box: from its sections, and from
// the other pairings when the sections have too few; more of where guesses of
// the past, by section, were wrong. It fails when there are too few pairings.
func Practice(paints []*paint.Paint, past map[string]Record, random *rand.Rand) (out []path.Couple, err error) {
	groups := wheel.CouplesOf(paints)
	inSections := 0
	for _, g := range groups {
		if g.Section {
			inSections += len(g.Of)
		}
	}
	sections := make([]Drawable, len(groups))
	all := 0
	for i := range groups {
		g := &groups[i]
		if !g.Section && inSections >= RoundLength {
			continue
		}
		sections[i] = Drawable{len(g.Of), past[g.Name]}
		all += len(g.Of)
	}
	// To follow a pairing takes time and a large box has many thousands, so it is
	// drawn first and looked at then; what cannot be predicted is laid aside.
	followed := 0
	for _, d := range Draw(sections, all, random) {
		c := groups[d.Section].Of[d.Pairing]
		if c.A.Fingerprint() == c.B.Fingerprint() {
			continue // two tubes of the same
		}
		if followed++; followed > mostFollowed || len(out) == RoundLength {
			break
		}
		if Predictable(path.New(c.A, c.B)) {
			out = append(out, c)
		}
	}
	if len(out) < leastPractice {
		return nil, fmt.Errorf("a round needs at least %d pairings, and the paints of your box make %d: add paints to it", leastPractice, len(out))
	}
	return out, nil
}

// Drawable is a section that practice can draw from: how many pairings it has,
// and how guesses of the past came out there.
type Drawable struct {
	Pairings int
	Record
}

// Weight says how readily a section is drawn from: 1 where every guess was
// right, up to 5 where every one was wrong. Before there are many, as if one
// guess had been half right.
func (d Drawable) Weight() float64 {
	lost := float64(d.OutOf-d.Points) + MaxGuessPoints/2
	return 1 + 4*lost/float64(d.OutOf+MaxGuessPoints)
}

// DrawnPairing is one pairing of a section, by index.
type DrawnPairing struct{ Section, Pairing int }

// Draw takes n pairings, or all when there are fewer, none of them twice: each
// time a section by its weight, then any of its pairings.
func Draw(sections []Drawable, n int, random *rand.Rand) (out []DrawnPairing) {
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
		out = append(out, DrawnPairing{taken, left[taken][0]})
		left[taken] = left[taken][1:]
	}
	return out
}
