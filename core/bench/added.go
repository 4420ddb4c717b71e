package bench

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// added adds the parts of a slot that are asked for.
func (s *Sheet) added(w *wheel.Wheel, which Which, have Material) {
	for _, p := range WhenAsked {
		if before := len(s.Regions); slices.Contains(which.With, p) {
			s.extra(p, w, which, have)
			s.piece(p, before)
		}
	}
}

// bit is how many parts of a pile there are to one of another of which a bit goes into it.
const bit = 8

// extra adds what is painted of a part that was asked for.
func (s *Sheet) extra(p Part, w *wheel.Wheel, which Which, have Material) {
	index := which.Slot
	slot := &w.Slots[index]
	put := func(id, label string, kind wheel.Kind, r recipe.Recipe, m paint.Mixture, v paint.Verdict) {
		s.add(Region{ID: string(p) + "/" + id, Label: label, Home: -1, Index: len(s.Regions), Kind: kind, Main: s.Kind != WheelSheet, Section: -1, Verdict: v}, r, m)
	}
	switch {
	case p == DarkPart:
		dark := w.Dark()
		tint, look := tintOf(dark.Paint, w.System.Rider(wheel.WhiteRider))
		put("dark", "darkest dark", wheel.Tertiary, dark.Parts, dark.Paint.Alone(), paint.Neutral)
		put("tint", oneInNine, wheel.Tertiary, recipe.Of(tint.Plain()), look, paint.Neutral)
	case slot.Empty:
	case p == EarthPart && have.Earth != nil:
		other := mixedWith(w.SectionOf(index), have.Earth)
		if other == nil {
			return
		}
		for i, step := range path.New(have.Earth, other).Steps(3, w.Spacing) {
			put(fmt.Sprint(i+1), fmt.Sprintf("%s with %s %d", have.Earth.Code(), other.Code(), i+1), wheel.Secondary, step.Parts, step.Mixture, step.Under.Verdict)
		}
	case p == TubePart && have.Tube != nil:
		put("tube", have.Tube.ShortName(), wheel.Primary, recipe.Pure(have.Tube), have.Tube.Alone(), paint.Neutral)
		put("mixed", slot.Name+", mixed", slot.Kind, slot.Parts, slot.Mixture, slot.Under.Verdict)
	case p == BitPart:
		other := &w.Slots[across(index, which.Bit)]
		if other.Empty {
			return
		}
		for n, of := range [2][2]*wheel.Slot{{slot, other}, {other, slot}} {
			parts := recipe.Together(of[0].Parts, bit, of[1].Parts, 1)
			m := paint.Between(&of[0].Mixture, &of[1].Mixture, 1.0/(1+bit))
			put(fmt.Sprint(n+1), fmt.Sprintf("%s, a bit of %s", of[0].Name, of[1].Name), wheel.Tertiary, parts, m, m.Undertone().Verdict)
		}
	}
}

// across is a slot that is named, or the one across from another where it is that one or none is.
func across(index int, named *int) int {
	if named == nil || *named == index {
		return (index + 6) % 12
	}
	return *named
}

// Choose takes an earth and a tube for what is added about a slot from among some paints that are not in its
// system, where none was named: the earth nearest in hue, and the coloured paint that looks most like the slot.
func (have *Material) Choose(w *wheel.Wheel, index int, among []*paint.Paint) {
	if index < 0 || index >= len(w.Slots) || w.Slots[index].Empty {
		return
	}
	slot := &w.Slots[index]
	hue, look := slot.Under.WheelHue, slot.Mixture.BrushedOut().Lab()
	mine := w.System.Paints()
	earth, tube := have.Earth == nil, have.Tube == nil
	nearest, likest := math.Inf(1), math.Inf(1)
	for _, p := range among {
		if slices.ContainsFunc(mine, func(q *paint.Paint) bool { return q.ID == p.ID || q.CI == p.CI && q.ShortName() == p.ShortName() }) || !p.Undertone().HasHue() {
			continue
		}
		if p.Family == "earth" {
			if off := math.Abs(colour.TurnBetween(hue, p.Undertone().WheelHue)); earth && off < nearest {
				have.Earth, nearest = p, off
			}
			continue
		}
		of := p.Alone()
		if off := colour.Difference(look, of.BrushedOut().Lab()); tube && off < likest {
			have.Tube, likest = p, off
		}
	}
}

// mixedWith is the paint of a section that a paint takes the other's place beside: the one farther from
// it in hue. Nil where nothing fills the section, and for a slot that is of none.
func mixedWith(section *wheel.Section, p *paint.Paint) *paint.Paint {
	if section == nil || section.Empty() {
		return nil
	}
	hue := p.Undertone().WheelHue
	off := func(q *paint.Paint) float64 {
		return math.Abs(colour.TurnBetween(hue, q.Undertone().WheelHue))
	}
	if off(section.A) > off(section.B) {
		return section.A
	}
	return section.B
}

// Sizes of what is added to a wheel, in mm.
const (
	addedBelow = 16.0 // the rim: names stand there
	addedWide  = 25.0
	addedHigh  = 14.0
)

// addTo adds the parts that are asked for beneath a wheel, in rows as wide as it, as places of their own. The
// error is an input.Error.
func (s *Sheet) addTo(w *wheel.Wheel, which Which, have Material) error {
	if len(which.With)+len(which.Without) == 0 {
		return nil
	}
	if err := checkParts("a wheel", nil, WhenAsked, which.Without, which.With); err != nil {
		return err
	}
	from := len(s.Regions)
	s.added(w, which, have)
	s.pieces = nil // it is no worksheet
	radius := s.W / 2
	columns := max(1, int((s.W+gap)/(addedWide+gap)))
	for n := range len(s.Regions) - from {
		r := &s.Regions[from+n]
		r.Shape = Shape{X: float64(n%columns)*(addedWide+gap) - radius, Y: radius + addedBelow + float64(n/columns)*(addedHigh+Beneath), W: addedWide, H: addedHigh}
		s.H = radius + r.Y + r.H
	}
	return nil
}
