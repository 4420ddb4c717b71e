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
	strengths, err := s.store.LastStrengths(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	of := map[string]*store.Tube{}
	for i := range tubes {
		of[paint.TubeID(tubes[i].ID)] = &tubes[i]
	}
	learned := asLearned(strengths)
	return func(paint *paint.Paint) certainty.Doubt {
		t := of[paint.ID]
		if t == nil {
			return certainty.Usual(paint)
		}
		d := doubtOf(t, paint, learned)
		if p.OldBox {
			d = d.Older()
		}
		return d
	}, nil
}

// unread says what is not known of tubes before anything is read of them.
func unread(tubes []store.Tube) certainty.Doubts {
	of := map[string]*store.Tube{}
	for i := range tubes {
		of[paint.TubeID(tubes[i].ID)] = &tubes[i]
	}
	return func(p *paint.Paint) certainty.Doubt {
		if t := of[p.ID]; t != nil && p.Family != "white" {
			return originOf(t, p).Doubt()
		}
		return certainty.Usual(p)
	}
}

// learnedTube is what the last taking that stands says of a tube.
type learnedTube struct {
	store.TakenStrength
	joint *certainty.Joint // with the others of its taking of which that says the last word; nil where nothing is
	at    int              // its place there
}

// asLearned are strengths by their tubes, those of one taking together.
func asLearned(strengths []store.TakenStrength) map[int64]learnedTube {
	out := map[int64]learnedTube{}
	together := map[int64][]store.TakenStrength{}
	for _, s := range strengths {
		out[s.TubeID] = learnedTube{TakenStrength: s}
		if s.Known != nil {
			together[s.TakingID] = append(together[s.TakingID], s)
		}
	}
	for _, rows := range together {
		var known []*certainty.Rows
		for _, s := range rows {
			known = append(known, s.Known)
		}
		joint, err := certainty.OfRows(known)
		if err != nil {
			continue // then each is known by its interval
		}
		for i, s := range rows {
			out[s.TubeID] = learnedTube{s, joint, i}
		}
	}
	return out
}

// within95 is how many deviations either way hold 95 in 100.
const within95 = 1.959963984540054

// doubtOf is what is not known of a tube, as a paint that may be of before its strength was learned: what was learned of it,
// where it is as strong as it was found to be.
func doubtOf(t *store.Tube, p *paint.Paint, learned map[int64]learnedTube) certainty.Doubt {
	if p.Family == "white" {
		return certainty.Doubt{}
	}
	out := originOf(t, p).Doubt()
	l, is := learned[t.ID]
	switch {
	case !is || math.Abs(p.Strength()/l.Strength-1) > alike:
	case l.joint != nil:
		return l.joint.Doubt(l.at)
	case l.Low > 0 && l.High > l.Low:
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
