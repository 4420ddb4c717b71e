package wheel

import (
	"fmt"
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/text"
)

// leastWay is the OKLab arc length as painted, from one primary to the next, under which the steps
// between can hardly be told apart.
const leastWay = 0.12

// nearIs is how far from where a hue stands on the painter's circle something is still that hue, degrees.
const nearIs = 30

// Notes are what a painter must know of a wheel before its slots, in sentences: which hues it has none
// of, and where steps can hardly be told apart in a medium.
func (w *Wheel) Notes(in paint.Medium) (out []string) {
	if without := w.without(); len(without) > 0 {
		var no []string
		for _, word := range without {
			no = append(no, "no "+word)
		}
		out = append(out, fmt.Sprintf("This wheel has %s.", text.Listed(no)))
		for k, role := range w.System.Kind.Roles() {
			slot := w.Slots[w.index(4*k)]
			if slot.Empty {
				continue
			}
			for _, word := range without {
				if string(role) == word && slot.Under.Shade || string(role) == word && !slot.Under.HasHue() {
					out = append(out, fmt.Sprintf("The %s stands in for its %s: what it makes are shades.", slot.Parts[0].Paint.ShortName(), role))
				} else if string(role) == word {
					out = append(out, fmt.Sprintf("In the place of its %s stands %s.", role, text.Article(slot.Under.HueWord())))
				}
			}
		}
	}
	for k := range w.Sections {
		s := &w.Sections[k]
		if !s.Empty() && !s.Path.Indistinguishable() && asPainted(s.Path, in) < leastWay {
			out = append(out, fmt.Sprintf("In %s the steps from the %s to the %s can hardly be told apart.", in.Name, s.A.ShortName(), s.B.ShortName()))
		}
	}
	return out
}

// without are the hues that nothing of a whole wheel comes near to; none of a wheel that lacks a role.
func (w *Wheel) without() (out []string) {
	for turned := 0.0; turned < 360; turned += 60 {
		stands, there := 120+turned, false // the six from yellow on
		for k := range w.Sections {
			s := &w.Sections[k]
			if s.Empty() {
				return nil
			}
			for _, at := range s.Path.Samples {
				there = there || at.Under.HasHue() && math.Abs(colour.TurnBetween(stands, at.Under.WheelHue)) <= nearIs
			}
		}
		if !there {
			out = append(out, colour.HueWord(colour.Turn(stands)))
		}
	}
	return out
}

// farFromName is how far the hue of a slot may lie from the one that it is named for, degrees on the
// painter's circle.
const farFromName = 45

// Judged is the verdict on a slot in words, and before it the hue where that is another than the slot is
// named for: an orange in the place of the yellow is "orange, clean".
func (w *Wheel) Judged(i int) string {
	s := &w.Slots[i]
	words := s.Under.VerdictWords()
	named := 120 - 30*float64(s.Home)
	if w.System.Kind == CMY || !s.Under.HasHue() || math.Abs(colour.TurnBetween(named, s.Under.WheelHue)) <= farFromName {
		return words
	}
	return s.Under.HueWord() + ", " + words
}

// index is where the slot of a home place stands.
func (w *Wheel) index(home int) int {
	for i := range w.Slots {
		if w.Slots[i].Home == home {
			return i
		}
	}
	return 0
}

// asPainted is the OKLab arc length of a path as it is painted in a medium, dry.
func asPainted(p *path.Path, in paint.Medium) (arc float64) {
	var before colour.OKLab
	for i := range p.Samples {
		m := p.At(p.Samples[i].Share)
		look := m.AsPainted(in, false)
		at := look.Lab().OKLab()
		if i > 0 {
			arc += before.Distance(at)
		}
		before = at
	}
	return arc
}
