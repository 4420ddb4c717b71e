// Package beside holds things edge to edge: rows of colours, of which a single mixture is
// the shortest, as they are or raised with white to one value, with what differs in words.
package beside

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Place is one colour of a row: of a mixture, or as it was read where there is none.
type Place struct {
	Name    string
	Mixture *paint.Mixture
	Read    colour.Lab // D65; counts where Mixture is nil
}

// Row is what is held: one place, the steps of a path, the slots of a wheel, the places of a sitting.
type Row []Place

// Pairs are the places of two rows that lie edge to edge, as indices: those of one name where both rows
// have at least half of their names in common, else those that lie as far along, each place of the longer
// row once. Both rows have a place.
func Pairs(one, other Row) (out [][2]int) {
	named := map[string]int{}
	for j, p := range other {
		named[p.Name] = j
	}
	for i, p := range one {
		if j, ok := named[p.Name]; ok && p.Name != "" {
			out = append(out, [2]int{i, j})
		}
	}
	if len(one) > 1 && 2*len(out) >= max(len(one), len(other)) {
		return out
	}
	out = nil
	n := max(len(one), len(other))
	along := func(k, of int) int {
		if n == 1 {
			return 0
		}
		return int(math.Round(float64(k) * float64(of-1) / float64(n-1)))
	}
	for k := range n {
		out = append(out, [2]int{along(k, len(one)), along(k, len(other))})
	}
	return out
}

// Raised is a mixture raised with white, and how many parts of it went to 1 of the mixture.
type Raised struct {
	Mixture paint.Mixture
	White   float64
}

// AtOneValue raises the darker of two mixtures with white to the value of the lighter, as light says
// it (L*, as they are looked at). The second result says whether white brought it there.
func AtOneValue(one, other *paint.Mixture, white *paint.Paint, light func(*paint.Mixture) float64) (out [2]Raised, reached bool) {
	out = [2]Raised{{Mixture: *one}, {Mixture: *other}}
	lights := [2]float64{light(one), light(other)}
	darker := 0
	if lights[1] < lights[0] {
		darker = 1
	}
	want := lights[1-darker]
	if want-lights[darker] < paint.AsLight {
		return out, true
	}
	from, with := out[darker].Mixture, white.Alone()
	share := paint.ShareOfWhite(&from, &with, want, light)
	out[darker] = Raised{paint.Between(&from, &with, share), share / (1 - share)}
	return out, math.Abs(light(&out[darker].Mixture)-want) < paint.AsLight
}

// Look is how mixtures are looked at: as painted in a medium, by a light, wet or dry.
type Look struct {
	Medium paint.Medium
	Light  colour.Light
	Wet    bool
}

// Pair is how two places that lie edge to edge look, and what they are called.
type Pair struct {
	Names [2]string
	Looks [2]colour.OKLab
	White [2]float64 // parts of white to 1 of the mixture that each was raised with; 0 for none
	DE    float64    // CIEDE2000
}

// Lay lays a row edge to edge with another, as they are or, where a white is given, the darker of
// every two raised with it to the value of the lighter; and says how many pairs stay as they are then,
// because white does not bring them there or one was read and not mixed.
func Lay(one, other Row, look Look, white *paint.Paint) (pairs []Pair, unraised int) {
	light := func(m *paint.Mixture) float64 {
		s := m.AsPainted(look.Medium, look.Wet)
		return s.OKLab(look.Light).Lightness()
	}
	for _, k := range Pairs(one, other) {
		sides := [2]Place{one[k[0]], other[k[1]]}
		pair := Pair{Names: [2]string{sides[0].Name, sides[1].Name}}
		if white != nil {
			reached := false
			if sides[0].Mixture != nil && sides[1].Mixture != nil {
				var raised [2]Raised
				raised, reached = AtOneValue(sides[0].Mixture, sides[1].Mixture, white, light)
				for n := range sides {
					sides[n].Mixture, pair.White[n] = &raised[n].Mixture, raised[n].White
				}
			}
			if !reached {
				unraised++
			}
		}
		var labs [2]colour.Lab
		for n, p := range sides {
			pair.Looks[n], labs[n] = p.Read.OKLab(), p.Read
			if p.Mixture != nil {
				s := p.Mixture.AsPainted(look.Medium, look.Wet)
				pair.Looks[n], labs[n] = s.OKLab(look.Light), s.LabUnder(look.Light)
			}
		}
		pair.DE = colour.Difference(labs[0], labs[1])
		pairs = append(pairs, pair)
	}
	return pairs, unraised
}

// barely is the CIEDE2000 below which two places are alike when they are looked at side by side.
const barely = 2

// Says is what differs between two rows, the first beside the second: of one pair all of it, of several how
// many are alike and the one that is furthest apart.
func Says(pairs []Pair) string {
	if len(pairs) == 1 {
		return pairs[0].Looks[0].Beside(pairs[0].Looks[1])
	}
	alike := 0
	for _, p := range pairs {
		if p.DE < barely {
			alike++
		}
	}
	if alike == len(pairs) {
		return fmt.Sprintf("alike at all %d", len(pairs))
	}
	most := slices.MaxFunc(pairs, func(a, b Pair) int { return cmp.Compare(a.DE, b.DE) })
	at := most.Names[0]
	if at != most.Names[1] && most.Names[1] != "" {
		at += " beside " + most.Names[1]
	}
	return fmt.Sprintf("alike at %d of %d; furthest apart at %s: %s", alike, len(pairs), at, most.Looks[0].Beside(most.Looks[1]))
}
