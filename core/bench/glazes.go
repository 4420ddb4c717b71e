package bench

import (
	"cmp"
	"fmt"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// The parts of a sheet of glazes besides its wheel.
const (
	OrderPart Part = "order" // two paints over each other, both ways round
	RampPart  Part = "ramp"  // one paint over others, thicker and thicker
)

// GlazeParts lists the parts of a sheet of glazes, in the order in which they lie on it.
var GlazeParts = []Part{WheelPart, OrderPart, RampPart}

// The films that a glaze may have as X.
const (
	ThinnestGlaze = 0.1
	ThickestGlaze = 0.5
)

// rampFilms are how thick the places of a ramp lie, over the glaze of the sheet.
var rampFilms = [...]float64{0.5, 1, 2}

// mostRamps is how many paints a ramp is laid over.
const mostRamps = 6

// Glazes is a sheet of dry layers, each of them a place over others: the wheel in two layers beside the same
// wheel mixed in one film as thick as both, the two paints of each section over each other both ways round,
// and a ramp of one paint over paper and over the others. Film is how thick a glaze lies as X, the usual one
// when 0; some parts may be left out. The error is an input.Error.
func Glazes(w *wheel.Wheel, film float64, without []Part, have Material) (s Sheet, err error) {
	if err := checkParts("a sheet of glazes", GlazeParts, nil, without, nil); err != nil {
		return s, err
	}
	if film = cmp.Or(film, paint.UsualGlaze); !(film >= ThinnestGlaze && film <= ThickestGlaze) {
		return s, input.Errorf("a glaze is laid from %v to %v thick, and not %v", ThinnestGlaze, ThickestGlaze, film)
	}
	s = Sheet{Kind: GlazesSheet, Title: "glazes", wheel: w}
	if !slices.Contains(without, WheelPart) {
		if err := s.glazedWheel(w, film); err != nil {
			return s, err
		}
		s.piece(WheelPart, 0)
	}
	if !slices.Contains(without, OrderPart) {
		before := len(s.Regions)
		for k := range w.Sections {
			if pair := &w.Sections[k]; !pair.Empty() && pair.A.ID != pair.B.ID {
				s.overEachOther(pair.A, pair.B, film)
				s.overEachOther(pair.B, pair.A, film)
			}
		}
		s.piece(OrderPart, before)
	}
	if !slices.Contains(without, RampPart) {
		before := len(s.Regions)
		s.ramps(w.System.Paints(), have.Glaze, film)
		s.piece(RampPart, before)
	}
	if len(s.Regions) == 0 {
		return s, input.Errorf("no two paints of this system are laid over each other: keep another part of the sheet")
	}
	s.settle()
	s.Lay(RowWidth)
	return s, nil
}

// Radii of the wheel of a sheet of glazes over that of its rim: of its two layers the upper one lies from
// the rim to glazedUpper, the lower one to glazedLower, and what is mixed from there to glazedInner.
const (
	glazedUpper = 0.69
	glazedLower = 0.54
	glazedInner = 0.26
)

// glazedWheel adds a wheel in two layers and, within it, the same one mixed.
func (s *Sheet) glazedWheel(w *wheel.Wheel, film float64) error {
	built, err := w.Glazed(paint.Paper(), 2*film, paint.Gloss)
	if err != nil {
		return input.Sentence(err)
	}
	const rim = worksheetWheel / 2
	for i := range w.Slots {
		slot, of := &w.Slots[i], &built[i]
		if slot.Empty {
			continue
		}
		place := Region{Home: -1, Kind: slot.Kind, Main: true, Section: -1, Film: 2 * film, Index: len(s.Regions)}
		if slot.Kind == wheel.Primary {
			place.ID, place.Label = "glazed/"+slot.SetName, slot.Name
			place.Shape = sector(w, i, 0, 1, glazedInner*rim, rim)
			for n, half := range slot.Halves {
				p := place
				p.ID, p.Label = p.ID+"/"+half.Parts[0].Paint.ID, fmt.Sprintf("%s, %s", slot.Name, half.Parts[0].Paint.ShortName())
				p.Shape, p.Index = sector(w, i, float64(n)/2, float64(n+1)/2, glazedInner*rim, rim), len(s.Regions)
				s.add(p, half.Parts, half.Mixture)
			}
			if len(slot.Halves) == 0 {
				s.add(place, slot.Parts, slot.Mixture)
			}
			continue
		}
		lower, upper, mixed := place, place, place
		lower.ID, lower.Label, lower.Film = "first/"+slot.SetName, slot.Name+", first layer", of.Layers[0].Thickness
		lower.Shape, lower.InSight = sector(w, i, 0, 1, glazedLower*rim, rim), sector(w, i, 0, 1, glazedLower*rim, glazedUpper*rim)
		s.add(lower, recipe.Pure(of.Paints[0]), of.Layers[0].Mixture)
		upper.ID, upper.Label, upper.Film = "glazed/"+slot.SetName, slot.Name+", glazed", of.Layers[1].Thickness
		upper.Shape, upper.Beneath, upper.Index = sector(w, i, 0, 1, glazedUpper*rim, rim), []int{len(s.Regions) - 1}, len(s.Regions)
		s.add(upper, recipe.Pure(of.Paints[1]), of.Layers[1].Mixture)
		mixed.ID, mixed.Label, mixed.Index, mixed.Verdict = "mixed/"+slot.SetName, slot.Name+", mixed", len(s.Regions), slot.Under.Verdict
		mixed.Shape = sector(w, i, 0, 1, glazedInner*rim, glazedLower*rim)
		s.add(mixed, slot.Parts, slot.Mixture)
	}
	s.touchAround()
	return nil
}

// overEachOther adds a glaze of one paint, and one of another over a part of it.
func (s *Sheet) overEachOther(below, above *paint.Paint, film float64) {
	id := fmt.Sprintf("order/%s/%s", below.ID, above.ID)
	s.layer(id+"/first", below.Code()+", first", wheel.Primary, below, film, nil)
	s.layer(id, above.Code()+" over "+below.Code(), wheel.Secondary, above, film, []int{len(s.Regions) - 1})
}

// layer adds a glaze of a paint.
func (s *Sheet) layer(id, label string, kind wheel.Kind, of *paint.Paint, film float64, beneath []int) {
	s.add(Region{ID: id, Label: label, Home: -1, Index: len(s.Regions), Kind: kind, Main: true, Section: -1, Film: film, Beneath: beneath}, recipe.Pure(of), of.Alone())
}

// ramps adds a paint in thicker and thicker glazes, over paper and over each of the others as they come; the
// clearest of them where it is nil.
func (s *Sheet) ramps(paints []*paint.Paint, glaze *paint.Paint, film float64) {
	if glaze == nil && len(paints) > 0 {
		glaze = clearest(paints)
	}
	if glaze == nil {
		return
	}
	cells := func(id, over string, beneath []int) {
		for n, times := range rampFilms {
			s.layer(fmt.Sprintf("ramp/%s/%d", id, n+1), fmt.Sprintf("%s over %s, %.2g", glaze.Code(), over, times*film), wheel.Tertiary, glaze, times*film, beneath)
			if n > 0 {
				s.join(len(s.Regions)-2, len(s.Regions)-1)
			}
		}
	}
	cells("paper", "paper", nil)
	n := 0
	for _, p := range paints {
		if p.ID == glaze.ID {
			continue
		}
		if n++; n > mostRamps {
			return
		}
		s.layer("ramp/"+p.ID, p.ShortName(), wheel.Primary, p, 0, nil)
		cells(p.ID, p.Code(), []int{len(s.Regions) - 1})
	}
}

// clearest is the paint that hides least: whose glaze is darkest on black.
func clearest(paints []*paint.Paint) *paint.Paint {
	luminance := func(p *paint.Paint) float64 {
		m := p.Alone()
		onBlack := m.Film(paint.UsualGlaze, 0, paint.Gloss)
		return onBlack.XYZ(colour.D65).Y
	}
	return slices.MinFunc(paints, func(a, b *paint.Paint) int { return cmp.Compare(luminance(a), luminance(b)) })
}

// Sizes of a sheet of glazes, in mm.
const (
	orderWide = 29.0 // two paints over each other
	orderSeen = 12.0 // what is seen of the lower one
	rampWide  = 88.0
	rampSeen  = 19.0 // of what a ramp is laid over
	stripHigh = 14.0
)

// layGlazes places a sheet of glazes within a width in mm: its strips beside the wheel while there is room,
// the others beneath it.
func (s *Sheet) layGlazes(width float64) {
	i, x, y, left := 0, 0.0, 0.0, 0.0
	s.W, s.H = 0, 0
	bottom := 0.0 // of the wheel
	for _, p := range s.pieces {
		if p.part == WheelPart {
			radius := max(SmallestWheel, min(worksheetWheel, width)) / 2
			s.scaleWheel(p.places, radius)
			i, s.W, s.H, bottom = p.places, 2*radius, 2*radius, 2*radius+Beneath
			left = s.W + worksheetGap
			x = left
			continue
		}
		wide, seen := orderWide, orderSeen
		if p.part == RampPart {
			wide = min(rampWide, width)
			seen = rampSeen * wide / rampWide
		}
		for end := i + p.places; i < end; {
			if x > left && x+wide > width+1e-9 { // no room left in the row
				x, y = left, y+stripHigh+Beneath
			}
			if left > 0 && (y+stripHigh > bottom || left+wide > width+1e-9) {
				x, left, y = 0, 0, max(y, bottom)
			}
			n := s.strip(i, end, x, y, wide, seen)
			x += wide + gap
			s.W, s.H = max(s.W, x-gap), max(s.H, y+stripHigh)
			i += n
		}
	}
}

// strip lays one place and those that lie over it, from a region on, and says how many they are. What has
// nothing beneath it lies where it would lie over something.
func (s *Sheet) strip(from, end int, x, y, wide, seen float64) (n int) {
	base := len(s.Regions[from].Beneath) == 0 && from+1 < end && slices.Contains(s.Regions[from+1].Beneath, from)
	for n = 1; from+n < end; n++ {
		if next := s.Regions[from+n].Beneath; base != slices.Contains(next, from) || !base && n == len(rampFilms) {
			break
		}
	}
	over := n
	if base {
		r := &s.Regions[from]
		r.Shape, r.InSight = Shape{X: x, Y: y, W: wide, H: stripHigh}, Shape{X: x, Y: y, W: seen, H: stripHigh}
		from, over = from+1, n-1
	}
	each := (wide - seen) / float64(over)
	for k := range over {
		s.Regions[from+k].Shape = Shape{X: x + seen + float64(k)*each, Y: y, W: each, H: stripHigh}
	}
	return n
}
