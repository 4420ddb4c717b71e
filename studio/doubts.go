package studio

import (
	"context"
	"math"
	"slices"

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
	joints := known(takings)
	return func(paint *paint.Paint) certainty.Doubt {
		t := of[paint.ID]
		if t == nil {
			return certainty.Usual(paint)
		}
		d := doubtOf(t, paint, takings, joints)
		if p.OldBox {
			d = d.Older()
		}
		return d
	}, nil
}

// unread says what is not known of tubes before anything is read of them.
func unread(tubes map[string]Tube) certainty.Doubts {
	return func(p *paint.Paint) certainty.Doubt {
		if t, mine := tubes[p.ID]; mine && p.Family != "white" {
			return originOf(&t.Tube, p).Doubt()
		}
		return certainty.Usual(p)
	}
}

// known is what is known of the tubes of some takings together, by the takings.
func known(takings []store.Taking) map[int64]*certainty.Joint {
	out := map[int64]*certainty.Joint{}
	for _, t := range takings {
		joint := &certainty.Joint{}
		rows := slices.DeleteFunc(slices.Clone(t.Strengths), func(s store.TakenStrength) bool { return s.Known == nil })
		slices.SortFunc(rows, func(a, b store.TakenStrength) int { return a.Known.Place - b.Known.Place })
		for _, s := range rows {
			joint.Off, joint.Covariance = append(joint.Off, s.Known.Off...), append(joint.Covariance, s.Known.Covariance...)
		}
		// A tube that was deleted since has left a gap, and then each is known by its interval alone.
		if len(rows) > 0 && joint.Check(len(rows)) == nil {
			out[t.ID] = joint
		}
	}
	return out
}

// within95 is how many deviations either way hold 95 in 100.
const within95 = 1.959963984540054

// doubtOf is what is not known of a tube, as a paint that may be of before its strength was learned: what the last taking
// that stands says of it, where it is as strong as it was found to be.
func doubtOf(t *store.Tube, p *paint.Paint, takings []store.Taking, joints map[int64]*certainty.Joint) certainty.Doubt {
	if p.Family == "white" {
		return certainty.Doubt{}
	}
	out := originOf(t, p).Doubt()
	for _, taking := range takings { // the last one first
		n := slices.IndexFunc(taking.Strengths, func(s store.TakenStrength) bool { return s.TubeID == t.ID })
		if n < 0 || taking.UndoneAt != nil {
			continue
		}
		s := &taking.Strengths[n]
		switch joint := joints[taking.ID]; {
		case math.Abs(p.Strength()/s.Strength-1) > alike:
		case joint != nil && s.Known != nil:
			return joint.Doubt(s.Known.Place)
		case s.Low > 0 && s.High > s.Low:
			out.Strength = min(out.Strength, math.Log(s.High/s.Low)/(2*within95))
		}
		return out
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
