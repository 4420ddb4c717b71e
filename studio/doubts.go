package studio

import (
	"context"
	"math"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/store"
)

// Doubts is what is not known of the paints of whoever asks: of the tubes of the box by how each was come by and what was
// learned of it, of all others what they say of themselves.
func (s *Studio) Doubts(ctx context.Context, who Identity) (certainty.Doubts, error) {
	p, err := who(ctx)
	if err != nil {
		return certainty.Usual, nil //nolint:nilerr // nobody is known, and has no box
	}
	tubes, err := s.store.Tubes(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	takings, err := s.store.Takings(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	of := map[string]*store.Tube{}
	for i := range tubes {
		of[paint.TubeID(tubes[i].ID)] = &tubes[i]
	}
	return func(p *paint.Paint) certainty.Doubt {
		t := of[p.ID]
		if t == nil {
			return certainty.Usual(p)
		}
		return doubtOf(t, p, takings)
	}, nil
}

// within95 is how many deviations either way hold 95 in 100.
const within95 = 1.959963984540054

// doubtOf is what is not known of a tube, as a paint that may be of before its strength was learned.
func doubtOf(t *store.Tube, p *paint.Paint, takings []store.Taking) certainty.Doubt {
	if p.Family == "white" {
		return certainty.Doubt{}
	}
	out := originOf(t, p).Doubt()
	if t.Learned == nil || math.Abs(p.Strength()/(*t.Learned)-1) > alike {
		return out
	}
	if l := learnedOf(t, takings); l.Low > 0 && l.High > l.Low {
		out.Strength = min(out.Strength, math.Log(l.High/l.Low)/(2*within95))
	}
	return out
}

// originOf is how a tube's paint was come by; as it was kept before it was called a students' one, it is an artists' one.
func originOf(t *store.Tube, p *paint.Paint) certainty.Origin {
	d := &t.Definition
	switch {
	case d.Library != "" && t.Grade == string(paint.Student) && (t.Learned != nil || p.Strength() < 1):
		return certainty.LibraryStudent
	case d.Origin != nil && d.Origin.Mass != nil && d.Origin.Mass.Source == paint.Instrument:
		return certainty.SwatchesMeasured
	}
	return certainty.OriginOf(p)
}
