package bench

import (
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Slots is how a wheel's slots are laid.
type Slots string

// A flat slot is one film all over; a graded one is drawn out: of full strength at its rim
// and thinned toward its tip, so that a nearly black paint shows what it is.
const (
	Flat   Slots = "flat"
	Graded Slots = "graded"
)

// SlotsSaid are the slots that somebody said are graded or not; empty where nothing was said.
func SlotsSaid(graded *bool) Slots {
	switch {
	case graded == nil:
		return ""
	case *graded:
		return Graded
	default:
		return Flat
	}
}

// Said says whether they are graded, nil where that is left to the medium.
func (s Slots) Said() *bool {
	if s == "" {
		return nil
	}
	graded := s == Graded
	return &graded
}

// usualSlots is how painters of a medium lay a wheel: what is thinned with water is drawn out.
func usualSlots(in paint.Medium) Slots {
	if in.LightenWithWater {
		return Graded
	}
	return Flat
}

// At the tip of a slot that is drawn out a film is as thin as thinFilm, or tipShare of what it
// is where that is less; a film that hides its ground is thinned from coveringFilm on.
const (
	tipShare     = 0.15
	thinFilm     = 0.18
	coveringFilm = 4
)

// A graded region is read from its rim (0) to readTo, a third of the way to its tip (1), in the
// middle of that at ReadAt.
const (
	readTo = 1.0 / 3
	ReadAt = readTo / 2
)

// FilmAt is how thick a region lies so far from its rim (0) to its tip (1), as X.
func (r *Region) FilmAt(in paint.Medium, at float64) float64 {
	film := r.Film
	if film == 0 {
		film = in.Thickness
	}
	if !r.Graded {
		return film
	}
	if math.IsInf(film, 1) {
		film = coveringFilm
	}
	return film * math.Pow(min(tipShare, thinFilm/film), at)
}

// GradedAt is how a mixture looks that is laid as a region is, so far from the region's rim (0)
// to its tip (1).
func (r *Region) GradedAt(m *paint.Mixture, in paint.Medium, wet bool, at float64) colour.Spectrum {
	return r.laid(m, in, r.FilmAt(in, at), wet)
}

// ReadFilm is the film of a region where it is read, as X; 0 where that is the medium's own.
func (r *Region) ReadFilm(in paint.Medium) float64 {
	if !r.Graded {
		return r.Film
	}
	return r.FilmAt(in, ReadAt)
}

// Read is how the region looks where it is read.
func (r *Region) Read(in paint.Medium, wet bool) colour.Spectrum {
	if !r.Graded {
		return r.Appearance(in, wet)
	}
	return r.GradedAt(&r.Mixture, in, wet, ReadAt)
}

// ReadShape is the part of the region that is read: what is seen of it, of one that is drawn out its outer
// third.
func (r *Region) ReadShape() Shape {
	s := r.Seen()
	if r.Graded {
		s.Inner = s.Outer - readTo*(s.Outer-s.Inner)
	}
	return s
}

// Along is how far a point (mm from the sheet's middle) lies from the rim (0) to the tip (1) of
// a region of a wheel.
func (s Shape) Along(x, y float64) float64 {
	return min(1, max(0, (s.Outer-math.Hypot(x-s.X, y-s.Y))/(s.Outer-s.Inner)))
}
