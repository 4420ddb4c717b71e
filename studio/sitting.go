package studio

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/store"
)

// mostSheets is how many sheets of sittings are remembered, some hundred kilobytes each.
const mostSheets = 50

// SittingEntry is a sitting in a list.
type SittingEntry struct {
	ID, Wheel int64
	Name      string
	Began     time.Time
	Ended     bool
	NextTime  string // what to do otherwise when the wheel is painted again
}

func entryOf(s store.Sitting) SittingEntry {
	return SittingEntry{ID: s.ID, Wheel: s.WheelID, Name: s.Name, Began: s.CreatedAt, Ended: s.Ended, NextTime: s.NextTime}
}

// Sitting is a sitting with all that was done in it, and where it stands now.
type Sitting struct {
	SittingEntry
	Events []bench.Event
	Plan   *bench.Plan // as it began
	Stands bench.Sitting
	Rest   *bench.Plan // from where it stands
	Medium paint.Medium
	Now    time.Time
	Sure   journal.Sure // what the painter is sure of, whatever was read
	// Printed says that a sheet which was printed follows another plan; empty where none does.
	Printed string
}

// Told is what a device says was done: its time is by the device's clock.
type Told struct {
	bench.Event
	Device   string
	Number   int64         // within the device
	OffsetMS int64         // of the server's clock over the device's
	Revision int64         // how many events the device knew of
	Ahead    time.Duration // how long before its tap it happened, as the plan has it
}

// The limits of what is told at once.
const (
	MostTold      = 500
	longestDevice = 64
)

// BeginSitting begins to paint a sheet of a kept wheel. Table is the measure that is
// counted out in.
func (s *Studio) BeginSitting(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, named Named, table recipe.Scale) (out Sitting, err error) {
	w, plan, frozen, err := s.frozenPlan(ctx, painter, wheelID, which, named, table)
	if err != nil {
		return out, err
	}
	kept, err := s.store.BeginSitting(ctx, painter.ID, store.Sitting{WheelID: wheelID, Name: w.Name, Plan: frozen})
	if err != nil {
		return out, err
	}
	if !plan.Exact {
		go s.takeOver(painter, kept.ID, w, plan.laid)
	}
	out, _, err = s.Tell(ctx, painter, kept.ID, []Told{{Event: bench.Event{ID: "begun", Kind: bench.Begun, At: kept.CreatedAt}}})
	return out, err
}

// frozenPlan is the plan of a sheet of a kept wheel, with all that it depends on as it is today.
func (s *Studio) frozenPlan(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, named Named, table recipe.Scale) (w store.Wheel, plan Planned, frozen store.SittingPlan, err error) {
	w, system, err := s.KeptSystem(ctx, painter, wheelID)
	if err != nil {
		return w, plan, frozen, err
	}
	in, err := paint.ParseMedium(w.Settings.Medium)
	if err != nil {
		return w, plan, frozen, input.Wrap(err)
	}
	set := w.Settings.Bench
	if table.Measure != "" {
		set.Scale = table
	}
	plan, err = s.Plan(ctx, As(painter), Sheet{Wheel: wheelID, Selected: w.Snapshot.System, System: system, Choices: w.Settings.Choices, Which: which, Named: named, Set: set}, in, beginWait)
	if err != nil {
		return w, plan, frozen, err
	}
	frozen, err = freeze(plan.Plan, s.tubesAsKept(ctx, painter, w))
	return w, plan, frozen, err
}

// tubesAsKept finds the paints of a plan as they are kept with its wheel.
func (s *Studio) tubesAsKept(ctx context.Context, painter store.Painter, w store.Wheel) func(*paint.Paint) (store.FrozenTube, error) {
	return func(p *paint.Paint) (store.FrozenTube, error) { return s.frozen(ctx, painter, &w.WheelContent, p) }
}

// takeOver lets a sitting that began with a sketch have the exact plan, where that comes before
// its first tap; else it goes on as it began.
func (s *Studio) takeOver(painter store.Painter, id int64, w store.Wheel, sketched laidOut) {
	ctx, cancel := context.WithTimeout(context.Background(), planTime)
	defer cancel()
	exact, err := s.exactly(ctx, As(painter), sketched)
	if err != nil {
		return
	}
	frozen, err := freeze(exact, s.tubesAsKept(ctx, painter, w))
	if err != nil {
		return
	}
	_, _ = s.store.TakeOver(ctx, painter.ID, id, frozen) // else it goes by the plan that it began with
}

// freeze is a plan with all that it depends on, its paints as they are said to be.
func freeze(p *bench.Plan, frozen func(*paint.Paint) (store.FrozenTube, error)) (out store.SittingPlan, err error) {
	usual, err := paint.ParseMedium(p.Settings.Medium.ID)
	if err != nil {
		return out, err
	}
	out = store.SittingPlan{Medium: usual.ID, Film: 1, Settings: p.Settings, Fill: p.Fill, Why: p.Why, Order: p.Order, Sheet: *p.Sheet, Paints: map[string]store.FrozenTube{}}
	if !math.IsInf(usual.Thickness, 1) {
		out.Film = p.Settings.Medium.Thickness / usual.Thickness
	}
	paints := p.Sheet.Paints()
	for k := range out.Ends {
		if a, b := p.Sheet.Ends(k); a != nil {
			out.Ends[k] = [2]string{a.ID, b.ID}
			paints = append(paints, a, b)
		}
	}
	for i := range p.Sheet.Regions {
		r := p.Sheet.Regions[i].Recipe
		out.Recipes = append(out.Recipes, store.RecipeParts(r))
		for _, part := range r {
			if part.In != nil {
				paints = append(paints, part.In)
			}
		}
	}
	for _, one := range paints {
		if out.Paints[one.ID], err = frozen(one); err != nil {
			return out, err
		}
	}
	return out, nil
}

// frozen is a paint of a kept wheel's sheet as it is.
func (s *Studio) frozen(ctx context.Context, painter store.Painter, kept *store.WheelContent, p *paint.Paint) (store.FrozenTube, error) {
	if t, known := frozenIn(kept, p.ID); known {
		return t, nil
	}
	if !strings.HasPrefix(p.ID, paint.TubePrefix) {
		return ofLibrary(p)
	}
	n, is := paint.TubeNumber(p.ID)
	if !is {
		return store.FrozenTube{}, input.Errorf("%.40q is no tube of your box", p.ID)
	}
	tube, err := s.store.Tube(ctx, painter.ID, n)
	out := store.FrozenTube{Definition: tube.Definition, Strength: p.Strength()}
	if d := &out.Definition; d.Library != "" && d.Version == "" {
		d.Version = paint.LibraryVersion()
	}
	return out, err
}

// ofLibrary is a paint of the library as it is today.
func ofLibrary(p *paint.Paint) (store.FrozenTube, error) {
	return store.FrozenTube{Definition: paint.Definition{Library: p.ID, Version: paint.LibraryVersion()}, Strength: 1}, nil
}

// thaw is the plan that a sitting began with.
func thaw(kept store.SittingPlan) (*bench.Plan, error) {
	found := map[string]*paint.Paint{}
	find := func(id string) (*paint.Paint, error) {
		if p := found[id]; p != nil {
			return p, nil
		}
		t, known := kept.Paints[id]
		if !known {
			return nil, input.Errorf("%.60q is no paint of this sitting", id)
		}
		var p *paint.Paint
		var err error
		if strings.HasPrefix(id, paint.TubePrefix) {
			p, err = t.Definition.Paint(id, t.Strength)
		} else {
			p, err = paint.FindOf(t.Definition.Library, t.Definition.Version)
		}
		found[id] = p
		return p, err
	}
	sheet := kept.Sheet
	for i := range sheet.Regions {
		r := &sheet.Regions[i]
		var err error
		if r.Recipe, err = opened(kept.Recipes[i], find); err != nil {
			return nil, err
		}
		if r.Mixture, err = paint.Mix(r.Recipe.Volumes()...); err != nil {
			return nil, err
		}
	}
	var ends [3][2]*paint.Paint
	for k, of := range kept.Ends {
		for n, id := range of {
			if id == "" {
				continue
			}
			p, err := find(id)
			if err != nil {
				return nil, err
			}
			ends[k][n] = p
		}
	}
	in, err := paint.ParseMedium(kept.Medium)
	if err != nil {
		return nil, err
	}
	set, err := kept.Settings.In(in.WithFilm(kept.Film))
	if err != nil {
		return nil, err
	}
	set.Fill = kept.Fill
	restored := bench.Restored(sheet, ends)
	return bench.RestoredPlan(&restored, set, kept.Fill, kept.Why, kept.Order), nil
}

// opened is a recipe as it was kept.
func opened(parts []store.KeptPart, find paint.Finder) (r recipe.Recipe, err error) {
	for _, part := range parts {
		one := recipe.Ingredient{Parts: part.Parts, Thin: part.Thin}
		if len(part.Of) > 0 {
			of, err := opened(part.Of, find)
			if err != nil {
				return nil, err
			}
			if one.Paint, err = paint.Stir(part.Paint, part.Name, of.Volumes()...); err != nil {
				return nil, err
			}
		} else if one.Paint, err = find(part.Paint); err != nil {
			return nil, err
		}
		if part.In != "" {
			if one.In, err = find(part.In); err != nil {
				return nil, err
			}
		}
		r = append(r, one)
	}
	return r, nil
}

// Sittings lists a painter's sittings, the last one first.
func (s *Studio) Sittings(ctx context.Context, painter store.Painter) (out []SittingEntry, err error) {
	kept, err := s.store.Sittings(ctx, painter.ID)
	for _, one := range kept {
		out = append(out, entryOf(one))
	}
	return out, err
}

// UnderWay is a sitting that was begun and not ended, and how far it has come.
type UnderWay struct {
	SittingEntry
	Painted, Places int
	Last            time.Time // that something was told of it
	Wet             []Drying  // what is wet now, or was until just now
}

// justDried is for how long a place is spoken of that has dried.
const justDried = 2 * time.Minute

// Drying is a place that is wet or was, and until when.
type Drying struct {
	Label string
	Until time.Time
}

// mostUnderWay is how many sittings are spoken of that are under way, the last begun first.
const mostUnderWay = 3

// UnderWay lists a painter's sittings that were begun and not ended.
func (s *Studio) UnderWay(ctx context.Context, painter store.Painter) (out []UnderWay, err error) {
	all, err := s.Sittings(ctx, painter)
	if err != nil {
		return nil, err
	}
	for _, entry := range all {
		if entry.Ended {
			continue
		}
		at, err := s.lookedBack(ctx, painter, entry.ID)
		if err != nil {
			return nil, err
		}
		one := UnderWay{SittingEntry: entry, Places: len(at.Stands.Places), Last: entry.Began}
		for i := range at.Stands.Places {
			place := &at.Stands.Places[i]
			if place.Coats > 0 {
				one.Painted++
			}
			if place.Coats > 0 && place.DryAt.After(s.store.Now().Add(-justDried)) {
				one.Wet = append(one.Wet, Drying{at.Plan.Sheet.Regions[i].Label, place.DryAt})
			}
		}
		for i := range at.Events {
			if e := &at.Events[i]; e.At.After(one.Last) {
				one.Last = e.At
			}
		}
		if out = append(out, one); len(out) == mostUnderWay {
			break
		}
	}
	return out, nil
}

// Sitting is one of a painter's sittings, as it stands.
func (s *Studio) Sitting(ctx context.Context, painter store.Painter, id int64) (Sitting, error) {
	kept, events, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return Sitting{}, err
	}
	return s.stands(ctx, kept, events)
}

// stands is where a sitting stands now, and the rest planned from there.
func (s *Studio) stands(ctx context.Context, kept store.Sitting, events []store.SittingEvent) (out Sitting, err error) {
	if out, err = s.stood(kept, events); err != nil {
		return out, err
	}
	if out.Printed, err = s.printed(ctx, kept, out.Plan); err != nil {
		return out, err
	}
	out.Rest, err = out.Stands.From(out.Now, out.Plan)
	return out, err
}

// printed says that a sheet which was printed before a sitting began follows another plan.
func (s *Studio) printed(ctx context.Context, kept store.Sitting, plan *bench.Plan) (string, error) {
	mark, err := s.store.PrintedMark(ctx, kept.PainterID, kept.WheelID, printedAs(plan.Sheet))
	if err != nil || mark == "" || mark == plan.Mark() {
		return "", err
	}
	return fmt.Sprintf("The sheet that was printed last carries the mark %s and follows another order or other recipes; this sitting has the mark %s. Go by what is here, or print the sheet anew.", mark, plan.Mark()), nil
}

// stood is where a sitting stands, for those who look back: nothing is planned.
func (s *Studio) stood(kept store.Sitting, events []store.SittingEvent) (out Sitting, err error) {
	plan, err := s.begun(kept)
	if err != nil {
		return out, err
	}
	out = Sitting{SittingEntry: entryOf(kept), Events: happened(events), Plan: plan, Medium: plan.Settings.Medium, Now: s.store.Now(), Sure: journal.Sure{Light: kept.SureLight, Tubes: kept.SureTubes}}
	out.Stands = bench.Fold(plan.Sheet, plan.Settings, out.Events)
	out.Ended = !out.Stands.Ended.IsZero()
	return out, nil
}

// lookedBack is one of a painter's sittings as it stands, without the rest planned.
func (s *Studio) lookedBack(ctx context.Context, painter store.Painter, id int64) (Sitting, error) {
	kept, events, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return Sitting{}, err
	}
	out, err := s.stood(kept, events)
	if err != nil {
		return out, err
	}
	tubes, err := s.store.Tubes(ctx, painter.ID)
	out.Sure.Doubts = unread(tubes)
	return out, err
}

// begun is the plan that a sitting began with, thawed once.
func (s *Studio) begun(kept store.Sitting) (*bench.Plan, error) {
	key := fmt.Sprint(kept.ID, kept.Plan.Fill, kept.Plan.Order) // another process may have let an exact plan take over
	plan, known := s.sheets.Get(key)
	if known {
		return plan, nil
	}
	plan, err := thaw(kept.Plan)
	if err == nil {
		s.sheets.Add(key, plan)
	}
	return plan, err
}

func happened(events []store.SittingEvent) (out []bench.Event) {
	for _, e := range events {
		e.Event.ID, e.Event.At = e.EventID, e.At
		out = append(out, e.Event)
	}
	return out
}

// Untold is an event that was not kept, and why.
type Untold struct {
	ID   string
	Says string
}

// Tell keeps what devices say was done, each event by itself: those that cannot be are
// answered with why, with what belongs to the same tap or takes it back. What was told before
// changes nothing. Times are taken by the server's clock: never later than now, nor before
// the sitting.
func (s *Studio) Tell(ctx context.Context, painter store.Painter, id int64, told []Told) (out Sitting, untold []Untold, err error) {
	if len(told) > MostTold {
		return out, nil, input.Errorf("%d events are more than are told at once: send at most %d", len(told), MostTold)
	}
	kept, known, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return out, nil, err
	}
	plan, err := s.begun(kept)
	if err != nil {
		return out, nil, err
	}
	told, untold = sound(plan.Sheet, told)
	now := s.store.Now()
	events, ahead := make([]bench.Event, len(told)), make([]time.Duration, len(told))
	for i, t := range told {
		t.At = t.At.Add(time.Duration(t.OffsetMS) * time.Millisecond).UTC()
		if t.At.After(now) {
			t.At = now
		}
		events[i], ahead[i] = t.Event, t.Ahead
	}
	bench.Apart(happened(known), events, ahead)
	var rows []store.SittingEvent
	for i, t := range told {
		e := events[i]
		if e.At.Before(kept.CreatedAt) {
			e.At = kept.CreatedAt
		}
		rows = append(rows, store.SittingEvent{EventID: e.ID, At: e.At, Device: t.Device, Number: t.Number, OffsetMS: t.OffsetMS, Revision: t.Revision, Event: e})
	}
	all, err := s.store.TellSitting(ctx, painter.ID, id, rows, func(all []store.SittingEvent) (bool, error) {
		stands := bench.Fold(plan.Sheet, plan.Settings, happened(all))
		return !stands.Ended.IsZero(), nil
	})
	if err != nil {
		return out, nil, err
	}
	out, err = s.stands(ctx, kept, all)
	return out, untold, err
}

// sound parts what can be kept from what cannot: with an event that cannot goes the whole tap
// that told it, and what takes that back.
func sound(sheet *bench.Sheet, told []Told) (keep []Told, untold []Untold) {
	why := map[string]string{} // of taps and events
	for _, t := range told {
		err := t.Check(sheet)
		if err == nil && len(t.Device) > longestDevice {
			err = input.Errorf("the name of a device is longer than %d characters", longestDevice)
		}
		if err == nil && (t.Ahead < 0 || t.Ahead > longestAhead) {
			err = input.Errorf("%s: what a tap tells happened at most %v before it", t.Kind, longestAhead)
		}
		if err != nil {
			why[t.ID], why[cmp.Or(t.Tap, t.ID)] = err.Error(), err.Error()
		}
	}
	for _, t := range told {
		says := cmp.Or(why[cmp.Or(t.Tap, t.ID)], why[t.Undoes])
		if says == "" {
			keep = append(keep, t)
			continue
		}
		untold = append(untold, Untold{t.ID, says})
	}
	return keep, untold
}

// longestAhead is how long before its tap what it tells may have happened.
const longestAhead = 24 * time.Hour

// DropSitting takes a sitting away.
func (s *Studio) DropSitting(ctx context.Context, painter store.Painter, id int64) error {
	return s.store.DropSitting(ctx, painter.ID, id)
}
