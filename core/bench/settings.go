package bench

import (
	"cmp"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Fill is how the mixed slots of a section are made.
type Fill string

// A run goes on from pile to pile; each of its steps is used before the next is
// mixed.
const (
	OwnPiles       Fill = "own"
	FromWeaker     Fill = "weaker"
	FromStronger   Fill = "stronger"
	SecondaryFirst Fill = "secondary"
)

// Fills lists them.
var Fills = []Fill{FromWeaker, FromStronger, SecondaryFirst, OwnPiles}

// Settings are how a sheet is painted.
type Settings struct {
	Medium   paint.Medium
	Diameter float64 // of a wheel, mm
	Inner    float64 // radius of a wheel's hole, mm; a quarter of the diameter when 0
	Coats    int
	Loss     float64 // share that stays in brush and well
	Slots    Slots   // what suits the medium when empty
	Gaps     bool    // hairline gaps are left between slots
	Brushes  int     // 1 or 2
	Wells    int     // to mix in
	Waters   int     // jars of it, each of which takes 8 washes
	Dryer    bool
	Covered  bool    // wells stay under a cover, or on a wet palette
	Fill     Fill    // what suits the medium when empty
	Pace     float64 // of the painter's own drying, over the medium's
	HandPace float64 // of the painter's own mixing and painting, over the usual times
	Residue  float64 // ml of the last mixture that a wiped brush still holds
	Knife    bool    // piles are mixed with a knife: a brush carries nothing into them
	Scale    recipe.Scale
	Nozzle   float64 // of the tubes, mm
	// First are sections (0 to 2) that are painted before the others.
	First []int
	// Before are pairs of region ids: the one is painted before the other.
	Before [][2]string
}

// Usual are the settings of a medium.
func Usual(in paint.Medium) Settings {
	s, _ := Settings{Medium: in}.Complete() // what is usual is allowed
	return s
}

// In are the settings in a medium, completed. The error is an input.Error.
func (s Settings) In(m paint.Medium) (Settings, error) {
	s.Medium = m
	return s.Complete()
}

// Complete fills in what is usual for what is 0, and refuses what cannot be. The
// error is an input.Error.
func (s Settings) Complete() (Settings, error) {
	s.Diameter = cmp.Or(s.Diameter, UsualWheel)
	s.Inner = cmp.Or(s.Inner, s.Diameter/4)
	s.Coats, s.Loss = cmp.Or(s.Coats, 1), cmp.Or(s.Loss, 0.2)
	s.Brushes, s.Wells = cmp.Or(s.Brushes, 1), cmp.Or(s.Wells, 6)
	s.Waters = cmp.Or(s.Waters, 1)
	s.Residue = cmp.Or(s.Residue, usualResidue)
	s.Pace, s.HandPace, s.Nozzle = cmp.Or(s.Pace, 1), cmp.Or(s.HandPace, 1), cmp.Or(s.Nozzle, 6)
	if s.Scale.Measure == "" {
		s.Scale.Measure = recipe.UsualMeasure(s.Medium)
	}
	for _, c := range []struct {
		what           string
		is, from, upTo float64
	}{
		{"a wheel's diameter in mm", s.Diameter, SmallestWheel, LargestWheel},
		{"the radius of its hole in mm", s.Inner, 5, s.Diameter/2 - 10},
		{"the number of coats", float64(s.Coats), 1, 5},
		{"the share that is lost", s.Loss, 0, 2},
		{"the number of brushes", float64(s.Brushes), 1, 2},
		{"the number of wells", float64(s.Wells), 1, 60},
		{"the number of jars of water", float64(s.Waters), 1, 10},
		{"the pace of drying", s.Pace, 0.1, 10},
		{"the pace of the hands", s.HandPace, 0.1, 10},
		{"what a wiped brush holds in ml", s.Residue, 0.0005, 0.2},
		{"the width of a nozzle in mm", s.Nozzle, 1, 30},
	} {
		if !(c.is >= c.from && c.is <= c.upTo) {
			return s, input.Errorf("%s runs from %v to %v, and not to %v", c.what, c.from, c.upTo, c.is)
		}
	}
	switch s.Slots {
	case "":
		s.Slots = usualSlots(s.Medium)
	case Flat, Graded:
	default:
		return s, input.Errorf("slots %q: choose %s or %s", input.Clip(string(s.Slots)), Flat, Graded)
	}
	if _, err := ParseFill(string(s.Fill)); err != nil {
		return s, input.Wrap(err)
	}
	if _, err := recipe.NewScale(s.Scale.Measure, s.Scale.Size); err != nil {
		return s, input.Wrap(err)
	}
	return s, nil
}

// ParseFill reads a way to fill sections; empty is what suits the medium.
func ParseFill(s string) (Fill, error) {
	for _, f := range append([]Fill{""}, Fills...) {
		if f == Fill(s) {
			return f, nil
		}
	}
	return "", input.Errorf("unknown way to fill a section %q: choose weaker, stronger, secondary or own", input.Clip(s))
}

// fastest is the shortest time in minutes in which a dryer dries a slot.
const fastest = 1

// Drying is how many minutes a slot stays wet after it was painted: the middle of
// the medium's range at the painter's own pace, a quarter of it with a dryer. It is 0
// where wet neighbours may touch, for nobody waits.
func (s Settings) Drying() float64 {
	if s.Medium.MayTouch {
		return 0
	}
	return s.dries()
}

// dries is how many minutes paint takes to dry, whether anybody waits for it or not.
func (s Settings) dries() float64 {
	minutes := float64(s.Medium.DryFrom+s.Medium.DryTo) / 2 * s.Pace
	if s.Dryer {
		minutes = max(fastest, minutes/4)
	}
	return minutes
}

// coveredFor is how many minutes a pile stays workable under a cover.
const coveredFor = 60

// Workable is how many minutes a pile stays workable in its well; 0 for no limit.
func (s Settings) Workable() float64 {
	switch {
	case s.Medium.Rewets:
		return 0
	case s.Covered:
		return max(coveredFor, float64(s.Medium.Workable))
	}
	return float64(s.Medium.Workable)
}
