package studio

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/store"
)

// Learning is what the dry readings of sittings in one medium say of the tubes, over what
// they are in the box today.
type Learning struct {
	Learned  *journal.Learned // nil where the readings are too few
	TooFew   string           // why, in a sentence; empty where they are not
	Sittings int              // that it is learned from
	Working  bool             // other sittings are still being looked at: ask again
	LeftOut  int              // places that say nothing of the tubes: something got into them, or they lie thin
	// Tubes are those of the box that its strengths are of, by the ids of their paints; a
	// paint without one has none in the box yet.
	Tubes map[string]Tube
	// Film is how thick the painter lays the medium over its usual film, where the readings say that
	// it is another than it was taken for; nil else.
	Film *journal.Film
	// Knows is how far the recipes of the sheet are known by its readings; nil where they tell nothing of it.
	Knows *Knows
	Kept  bool // that was taken into the box, and the readings say nothing since
	// Offered are the strengths that may be taken into the box; none where chance would
	// make as much.
	Offered []journal.Strength
}

// stillWorking is what is said while other sittings are being looked at.
const stillWorking = "The other sittings with these tubes are still being looked at; what the tubes turned out to be follows."

// mostLearned is how many sittings are learned from at once, the last ones, and
// mostExplained how many are remembered explained, some hundred kilobytes each.
const (
	mostLearned   = 40
	mostExplained = 400
)

// learn is what a sitting's readings and those of the painter's other sittings in its
// medium, where these share a tube with it, say of the tubes as paintsNow has them.
func (s *Studio) learn(ctx context.Context, painter store.Painter, came *SittingJournal, now map[string]*paint.Paint, tubes map[string]Tube) (out Learning, err error) {
	out.Tubes = tubes
	of := &came.Sitting
	samples, left, err := came.asToday(now)
	if err != nil {
		return out, err
	}
	its := len(samples)
	if len(samples) > 0 {
		out.Sittings, out.LeftOut = 1, left
	}
	shared, here := map[string]bool{}, map[string]bool{}
	for _, one := range samples {
		for _, p := range one.Parts {
			shared[p.Paint.ID], here[p.Paint.ID] = p.Paint.Family != "white", true
		}
	}
	var kept []store.Tube
	for _, t := range tubes {
		kept = append(kept, t.Tube)
	}
	sure := journal.Sure{Light: of.Sure.Light, Tubes: asTubes(of.Sure.Tubes, now), Doubts: unread(kept)}
	others, working, err := s.explainedBefore(ctx, painter, of.ID, of.Medium.ID)
	if err != nil {
		return out, err
	}
	if working {
		out.Working, out.TooFew = true, stillWorking
		return out, nil
	}
	for _, other := range others {
		if len(samples)+len(other.samples) > journal.MostSamples {
			break // the last ones are enough
		}
		if len(journal.Unsettled(other.Overall)) > 0 {
			continue // before that is answered nothing is learned from it
		}
		more, left, err := other.asToday(now)
		if err != nil {
			return out, err
		}
		if slices.ContainsFunc(more, func(one journal.Sample) bool {
			return slices.ContainsFunc(one.Parts, func(p paint.Part) bool { return shared[p.Paint.ID] })
		}) {
			samples = append(samples, more...)
			sure.Tubes = append(sure.Tubes, asTubes(other.Sitting.Sure.Tubes, now)...)
			for _, one := range more {
				for _, p := range one.Parts {
					if !here[p.Paint.ID] {
						sure.Tubes = append(sure.Tubes, p.Paint.ID) // asked about where it was painted with
					}
				}
			}
			out.Sittings++
			out.LeftOut += left
		}
	}
	usual, err := paint.ParseMedium(of.Medium.ID)
	if err != nil {
		return out, err
	}
	film, err := s.store.Film(ctx, painter.ID, usual.ID)
	if err != nil {
		return out, err
	}
	learned, err := journal.Learn(samples, usual.WithFilm(film), sure)
	switch {
	case errors.As(err, new(input.Error)):
		out.TooFew = input.Sentence(err).Error()
		return out, nil
	case err != nil:
		return out, err
	}
	onTodaysScale(&learned, now)
	out.Learned = &learned
	out.Offered = learned.Offer()
	out.Knows = out.knows(samples[:its], sure.Doubts)
	if learned.Film != nil {
		thick := learned.Film.Over(film)
		out.Film = &thick
	}
	return out, nil
}

// Knows is how far the recipes of a sheet are known, as a share of the parts: before its readings, and with them.
type Knows struct{ Before, Now float64 }

// knows is that of what was mixed of two on a sheet; nil where the readings tell nothing of it.
func (of *Learning) knows(samples []journal.Sample, before certainty.Doubts) *Knows {
	if of.Learned.Joint == nil {
		return nil
	}
	taken, err := of.Learned.Tubes()
	if err != nil {
		return nil // so far off that no tube is so
	}
	as := map[string]*paint.Paint{}
	for _, one := range of.Learned.Strengths {
		as[one.Paint.ID] = one.Paint
	}
	var was, is []*path.Path
	seen := map[[2]string]bool{}
	for _, one := range samples {
		if len(one.Parts) != 2 {
			continue
		}
		pair := [2]string{one.Parts[0].Paint.ID, one.Parts[1].Paint.ID}
		a, b := taken[pair[0]], taken[pair[1]]
		if a == nil || b == nil || seen[pair] { // of white there is nothing to know
			continue
		}
		seen[pair] = true
		was = append(was, path.New(as[a.ID], as[b.ID]))
		is = append(is, path.New(a, b))
	}
	if len(is) == 0 {
		return nil
	}
	return &Knows{certainty.KnownTo(certainty.Spread(was, before)), certainty.KnownTo(certainty.Spread(is, of.Learned.Doubts(before)))}
}

// keepKnown puts what is known of the tubes together into a taking: of those whose strengths are taken beside them, of
// the others as they are kept.
func (of *Learning) keepKnown(taking *store.Taking, added map[int]store.NewTube) {
	if of.Learned == nil || of.Learned.Joint == nil {
		return
	}
	var places []int
	var rows []*store.TakenStrength
	var kept []store.TakenStrength
	for i, one := range of.Learned.Strengths {
		if n := slices.IndexFunc(of.Offered, func(o journal.Strength) bool { return o.Paint.ID == one.Paint.ID }); n >= 0 {
			places, rows = append(places, i), append(rows, &taking.Strengths[n])
			continue
		}
		if tube, known := of.Tubes[one.Paint.ID]; known && len(places) < certainty.MostJoint {
			kept = append(kept, store.TakenStrength{TubeID: tube.ID, Was: one.Old, Strength: paint.BoundedStrength(one.Old), Low: one.Low, High: one.High, Kept: true})
			places, rows = append(places, i), append(rows, nil)
		}
	}
	joint := of.Learned.Joint.Of(places...)
	n := len(taking.Strengths)
	taking.Strengths = append(taking.Strengths, kept...)
	for place, row := range rows {
		if row == nil {
			row = &taking.Strengths[n]
			n++
		}
		row.Known = joint.Rows(place)
	}
}

// asTubes are paints by their ids and, where the box has a tube of one, by that of the tube.
func asTubes(ids []string, now map[string]*paint.Paint) (out []string) {
	for _, id := range ids {
		if out = append(out, id); now[id] != nil {
			out = append(out, now[id].ID)
		}
	}
	return out
}

// asToday is ofTubes with the tubes as strong as they are today.
func (came *SittingJournal) asToday(now map[string]*paint.Paint) (samples []journal.Sample, left int, err error) {
	samples, left = came.ofTubes()
	samples, err = today(samples, now)
	return samples, left, err
}

// onTodaysScale brings what was learned from samples of before to the paints of today, on whose scale it is
// taken.
func onTodaysScale(of *journal.Learned, now map[string]*paint.Paint) {
	for i := range of.Strengths {
		one := &of.Strengths[i]
		is := now[one.Paint.ID]
		if is == nil || is == one.Paint || one.Old == 0 {
			continue
		}
		by := is.Strength() / one.Old
		one.Paint, one.Old, one.New, one.Low, one.High = is, is.Strength(), one.New*by, one.Low*by, one.High*by
	}
}

// ofTubes are the readings of a sitting that say something of its tubes; and how many say nothing of
// them: where something got into a mixture, or it alone lies thin, its colour is none of its tubes' doing;
// and of what was mixed by looks, from pans, nobody knows the parts.
func (came *SittingJournal) ofTubes() (out []journal.Sample, left int) {
	n := 0
	byLooks := came.Sitting.Plan.Settings.Scale.Measure == recipe.ByLooks
	allThin := slices.ContainsFunc(came.Overall, func(c journal.Cause) bool { return c.Kind == journal.OfFilm || c.Kind == journal.ThinOrPhoto })
	for _, p := range came.Places {
		e := p.Explained
		if e == nil {
			continue
		}
		switch sample := came.samples[n]; {
		case byLooks && len(sample.Parts) > 1:
			left++ // nobody knows what went into it
		case !sample.TellsTubes(came.Sitting.Medium):
			left++
		case e.OfItsTubes(), allThin && e.Causes[0].Kind == journal.TooThin:
			out = append(out, sample)
		default:
			left++
		}
		n++
	}
	return out, left
}

// paintsNow are the paints of a painter's tubes as they are today, by their ids and, a
// paint of the library, by its own where the box has a tube of it: the first that is not
// archived. The tubes are by the ids of those paints.
func (s *Studio) paintsNow(ctx context.Context, painter store.Painter) (now map[string]*paint.Paint, tubes map[string]Tube, err error) {
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return nil, nil, err
	}
	now, tubes = map[string]*paint.Paint{}, map[string]Tube{}
	for _, t := range append(slices.Clone(box.Tubes), box.Archived...) {
		now[t.Paint.ID], tubes[t.Paint.ID] = t.Paint, t
		id := t.Definition.Library
		if id == "" || t.State == store.Archived {
			continue
		}
		if first := now[id]; first == nil || t.ID < tubes[first.ID].ID {
			now[id] = t.Paint
		}
	}
	return now, tubes, nil
}

// today are samples of the paints as strong as they are today: each keeps its own where it is in the
// box no more. All paints of a sample stay of the version of the library that it was painted with, for
// what was said of it then holds on.
func today(samples []journal.Sample, now map[string]*paint.Paint) (out []journal.Sample, err error) {
	then := map[string]*paint.Paint{}
	brought := func(parts []paint.Part) ([]paint.Part, error) {
		parts = slices.Clone(parts)
		for n := range parts {
			p := &parts[n]
			was := p.Paint
			is := now[was.ID]
			if is == nil {
				if is, err = was.As(paint.LibraryVersion()); err != nil {
					return nil, err
				}
				now[was.ID] = is // the same one in all samples
			}
			key := was.ID + " as of " + was.Version
			if then[key] == nil {
				if then[key], err = is.As(was.Version); err != nil {
					return nil, err
				}
			}
			p.Paint = then[key]
		}
		return parts, nil
	}
	for _, one := range samples {
		if one.Parts, err = brought(one.Parts); err != nil {
			return nil, err
		}
		one.Under = slices.Clone(one.Under)
		for n := range one.Under {
			if one.Under[n].Parts, err = brought(one.Under[n].Parts); err != nil {
				return nil, err
			}
		}
		out = append(out, one)
	}
	return out, nil
}

// SaySure keeps that a painter is sure, or sure no more, of the light that a sitting was read in or, where
// the id of its paint is given, that a tube is what it was taken for.
func (s *Studio) SaySure(ctx context.Context, painter store.Painter, id int64, tube string, sure bool) error {
	if tube != "" {
		plan, err := s.sheetOf(ctx, painter, id)
		if err != nil {
			return err
		}
		if !slices.ContainsFunc(plan.Sheet.Paints(), func(p *paint.Paint) bool { return p.ID == tube }) {
			return input.Errorf("there is no paint %q on the sheet of this sitting", input.Clip(tube))
		}
	}
	return s.store.SaySure(ctx, painter.ID, id, tube, sure)
}

// Taking is strengths that a painter took into the box.
type Taking struct {
	store.Taking
	Named map[int64]string // what its tubes are called
}

// Seen is a strength as the painter saw it when taking it, by the id of its paint.
type Seen struct {
	Paint string
	New   float64
}

// asSeen says that a figure still is what was seen of it, as it is shown.
func asSeen(is, seen float64) bool { return math.Abs(seen-is) <= seenAs*is+0.001 }

// seenAs is how far a strength may lie from what was seen of it, in shares: it is shown
// with so many digits.
const seenAs = 0.002

// TakeStrengths takes what the readings of a painter's sitting say of the tubes into the
// box, where that still is what the painter saw: the strengths or, in their place, the film,
// 0 for none. A paint that the box has no tube of comes into it.
func (s *Studio) TakeStrengths(ctx context.Context, painter store.Painter, id int64, seen []Seen, film float64) error {
	came, err := s.SittingJournal(ctx, painter, id)
	if err != nil {
		return err
	}
	of := &came.Learning
	if of.Working {
		return input.Errorf("%s", stillWorking)
	}
	if len(of.Offered) == 0 && of.Film == nil && of.Knows == nil {
		return input.Errorf("The readings say nothing of the tubes that is more than chance, so there is nothing to take into the box.")
	}
	if of.Kept {
		return input.Errorf("What these readings tell is kept already.")
	}
	taking := store.Taking{SittingID: &id, Medium: came.Sitting.Medium.ID, Readings: of.Learned.Samples, Sittings: of.Sittings}
	elsewhere := input.Errorf("The readings, or the box, say something else since you looked: look again, and then take it.")
	if len(seen) != len(of.Offered) {
		return elsewhere
	}
	if of.Film != nil {
		if !asSeen(of.Film.New, film) {
			return elsewhere
		}
		thick := paint.BoundedStrength(of.Film.New)
		taking.FilmWas, taking.Film = &of.Film.Old, &thick
	}
	added := map[int]store.NewTube{}
	for n, one := range of.Offered {
		if seen[n].Paint != one.Paint.ID || !asSeen(one.New, seen[n].New) {
			return elsewhere
		}
		tube, known := of.Tubes[one.Paint.ID]
		if !known {
			if _, err := paint.Find(one.Paint.ID); err != nil {
				return input.Errorf("%s is in your box no more, so that its strength has no place there", one.Paint.ShortName())
			}
			t, _, err := paint.Tube{Definition: paint.Definition{Library: one.Paint.ID}}.Complete()
			if err != nil {
				return err
			}
			added[n] = store.NewTube{Definition: t.Definition, Content: store.ContentOf(t.TubeDetails)}
		}
		taking.Strengths = append(taking.Strengths, store.TakenStrength{TubeID: tube.ID, Was: one.Old, Strength: paint.BoundedStrength(one.New), Low: one.Low, High: one.High})
	}
	of.keepKnown(&taking, added)
	_, err = s.store.Take(ctx, painter.ID, taking, "added "+CountPaints(len(added))+" with what they turned out to be", added)
	return err
}

// Takings lists what a painter took into the box, the last one first.
func (s *Studio) Takings(ctx context.Context, painter store.Painter) (out []Taking, err error) {
	kept, err := s.store.Takings(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	named := map[int64]string{}
	for _, t := range append(slices.Clone(box.Tubes), box.Archived...) {
		named[t.ID] = t.Called()
	}
	for _, t := range kept {
		out = append(out, Taking{t, named})
	}
	return out, nil
}

// takingsOf are a painter's takings that were made at a sitting, or of its tubes.
func (s *Studio) takingsOf(ctx context.Context, painter store.Painter, of *Learning, sitting int64) ([]Taking, error) {
	all, err := s.Takings(ctx, painter)
	if err != nil {
		return nil, err
	}
	its := map[int64]bool{}
	if of.Learned != nil {
		for _, one := range of.Learned.Strengths {
			if tube, known := of.Tubes[one.Paint.ID]; known {
				its[tube.ID] = true
			}
		}
	}
	return slices.DeleteFunc(all, func(t Taking) bool {
		return !(t.SittingID != nil && *t.SittingID == sitting) && !slices.ContainsFunc(t.Strengths, func(one store.TakenStrength) bool { return its[one.TubeID] })
	}), nil
}

// UndoTaking takes strengths back or, again, as they were taken.
func (s *Studio) UndoTaking(ctx context.Context, painter store.Painter, id int64, undone bool) error {
	return s.store.UndoTaking(ctx, painter.ID, id, undone)
}

// Says is what a taking was learned from, in words: "12 dry readings of one sitting".
func (t *Taking) Says() string {
	if t.Readings == 0 {
		return "a wheel that was brought in"
	}
	gone := ""
	if t.SittingID == nil {
		gone = ", the evidence deleted since"
	}
	if t.Sittings == 1 {
		return fmt.Sprintf("%d dry readings of one sitting%s", t.Readings, gone)
	}
	return fmt.Sprintf("%d dry readings of %d sittings%s", t.Readings, t.Sittings, gone)
}
