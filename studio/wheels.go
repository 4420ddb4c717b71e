package studio

import (
	"context"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// WheelContent is what a painter decides of a wheel.
type WheelContent struct {
	Name     string
	System   wheel.Selection
	Settings store.Settings
	Archived bool
}

// WheelContentOf is what a painter decided of a wheel that is kept.
func WheelContentOf(c store.WheelContent) WheelContent {
	return WheelContent{c.Name, c.Snapshot.System, c.Settings, c.Archived}
}

// NewWheel keeps a new system and its wheel.
func (s *Studio) NewWheel(ctx context.Context, painter store.Painter, c WheelContent) (store.Wheel, error) {
	content, err := s.content(ctx, painter, c, nil)
	if err != nil {
		return store.Wheel{}, err
	}
	return s.store.CreateWheel(ctx, painter.ID, content)
}

// SaveWheel saves a wheel, on the version it was made on; resolves names a refused
// version that this settles, or is 0.
func (s *Studio) SaveWheel(ctx context.Context, painter store.Painter, id int64, version int, c WheelContent, resolves int64) (store.Wheel, error) {
	was, err := s.store.Wheel(ctx, painter.ID, id)
	if err != nil {
		return store.Wheel{}, err
	}
	content, err := s.content(ctx, painter, c, &was.WheelContent)
	if err != nil {
		return store.Wheel{}, err
	}
	return s.store.SaveWheel(ctx, painter.ID, id, version, content, resolves)
}

// content checks what a painter decided, and freezes the paints it is made of:
// those that were in the wheel before, which may be nil, stay as they were.
func (s *Studio) content(ctx context.Context, painter store.Painter, c WheelContent, before *store.WheelContent) (store.WheelContent, error) {
	found := map[string]store.FrozenTube{}
	system, err := c.System.System(s.finder(ctx, As(painter), before, found))
	if err != nil {
		return store.WheelContent{}, err
	}
	in, err := paint.ParseMedium(c.Settings.Medium)
	if err != nil {
		return store.WheelContent{}, input.Wrap(err)
	}
	if _, err := colour.ParseLight(c.Settings.Light); err != nil {
		return store.WheelContent{}, input.Wrap(err)
	}
	if _, err := c.Settings.Choices.Options(in); err != nil {
		return store.WheelContent{}, err
	}
	if _, err := c.Settings.Bench.In(in); err != nil {
		return store.WheelContent{}, err
	}
	for k := range c.System.Roles {
		c.System.Roles[k] = paint.IDs(system.Role(k)) // as the library writes them
	}
	return store.WheelContent{Name: c.Name, Kind: string(c.System.Kind), Snapshot: store.Snapshot{System: c.System, Frozen: found}, Settings: c.Settings, Archived: c.Archived}, nil
}

// KeptSystem is a kept wheel, and its system with the tubes as they were kept.
func (s *Studio) KeptSystem(ctx context.Context, painter store.Painter, id int64) (store.Wheel, wheel.System, error) {
	w, err := s.store.Wheel(ctx, painter.ID, id)
	if err != nil {
		return w, wheel.System{}, err
	}
	system, err := w.Snapshot.System.System(s.finder(ctx, As(painter), &w.WheelContent, nil))
	return w, system, err
}

// SideBySide finds kept systems as they were kept, and what their tubes cost now.
func (s *Studio) SideBySide(ctx context.Context, painter store.Painter, ids []int64) (out []reach.Named, err error) {
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	prices := box.Prices()
	for _, id := range ids {
		w, system, err := s.KeptSystem(ctx, painter, id)
		if err != nil {
			return nil, err
		}
		out = append(out, reach.Named{Name: w.Name, System: system, Prices: prices})
	}
	return out, nil
}

// Wanted are a painter's wanted colours: as they are kept, and as they are matched.
func (s *Studio) Wanted(ctx context.Context, painter int64) (kept []store.WantedColour, wanted []reach.Wanted, err error) {
	kept, err = s.store.Wanted(ctx, painter)
	for _, w := range kept {
		wanted = append(wanted, reach.Wanted{Name: w.Name, Colour: w.Colour})
	}
	return kept, wanted, err
}

// Want keeps more wanted colours, all or none.
func (s *Studio) Want(ctx context.Context, painter int64, more []reach.Wanted) error {
	var rows []store.WantedColour
	for _, w := range more {
		if err := w.Check(); err != nil {
			return err
		}
		rows = append(rows, store.WantedColour{Name: w.Name, Colour: w.Colour})
	}
	return s.store.AddWanted(ctx, painter, rows)
}

// Match finds for each wanted colour the best recipe of each of some systems, as
// painted in a medium. Recipes are remembered, so that one more colour, or one more
// system, costs its own alone.
func (s *Studio) Match(ctx context.Context, systems []reach.Named, wanted []reach.Wanted, in paint.Medium) ([]reach.TargetMatch, error) {
	var palettes [][]*paint.Paint
	for _, n := range systems {
		palettes = append(palettes, reach.Palette(n.System))
	}
	readings, err := reach.Readings(wanted, in)
	if err != nil {
		return nil, err
	}
	matches, err := reach.MatchAll(ctx, palettes, readings, in, s.nearest)
	if err != nil {
		return nil, input.Wrap(err)
	}
	return matches, nil
}

// matchKey is what a recipe for a wanted colour depends on.
type matchKey struct {
	want   colour.Lab
	paints string
	in     paint.Medium
}

// mostMatches is how many recipes are remembered, some hundred bytes each: those of
// a few painters' wanted colours.
const mostMatches = 2000

// nearest is reach.Nearest, remembered for as long as the paints are the same.
func (s *Studio) nearest(want colour.Lab, paints []*paint.Paint, in paint.Medium) (reach.Match, error) {
	key := matchKey{want, paintsKey(paints), in}
	if m, known := s.matches.Get(key); known {
		return m, nil
	}
	m, err := reach.Nearest(want, paints, in)
	if err == nil {
		s.matches.Add(key, m)
	}
	return m, err
}

// Predict keeps predictions of a kept wheel's slots with what becomes of them, all
// or none.
func (s *Studio) Predict(ctx context.Context, painter store.Painter, id int64, version int, guesses []journal.SlotGuess) error {
	w, system, err := s.KeptSystem(ctx, painter, id)
	if err != nil {
		return err
	}
	doubts, err := s.Doubts(ctx, As(painter))
	if err != nil {
		return err
	}
	outcomes, err := journal.ScoreSlots(system, w.Settings.Choices, guesses, doubts)
	if err != nil {
		return err
	}
	var rows []store.Prediction
	for i, g := range guesses {
		rows = append(rows, store.Prediction{Home: g.Home, HueWord: g.HueWord, Verdict: g.Verdict, Outcome: outcomes[i]})
	}
	return s.store.AddPredictions(ctx, painter.ID, id, version, rows)
}

// Marking is a pairing to be marked; an empty mark takes its mark away. Was is the
// mark it had when the painter looked.
type Marking struct{ A, B, Mark, Was string }

// Mark marks pairings, all or none.
func (s *Studio) Mark(ctx context.Context, painter store.Painter, markings []Marking) error {
	find := s.finder(ctx, As(painter), nil, nil)
	var changes []store.MarkChange
	for _, m := range markings {
		if m.A == m.B {
			return input.Errorf("%s cannot be paired with itself", m.A)
		}
		var ids [2]string
		for i, id := range []string{m.A, m.B} {
			p, err := find(id)
			if err != nil {
				return err
			}
			ids[i] = p.ID
		}
		changes = append(changes, store.MarkChange{A: ids[0], B: ids[1], Mark: m.Mark, Was: m.Was})
	}
	return s.store.MarkPairs(ctx, painter.ID, changes)
}

// PairedPaints are paints of which all pairings are asked for: those named, or all
// of the painter's box when none is. The error is an input.Error where they are
// too few, too many, or not all different.
func (s *Studio) PairedPaints(ctx context.Context, painter store.Painter, ids []string) (paints []*paint.Paint, err error) {
	if len(ids) == 0 {
		box, err := s.Box(ctx, painter.ID)
		if err != nil {
			return nil, err
		}
		paints = box.Paints()
	} else if paints, err = s.Paints(ctx, As(painter), 0, ids...); err != nil {
		return nil, err
	}
	return paints, wheel.CheckPaired(paints)
}

// ParseSpacing is path.ParseSpacing with an input.Error.
func ParseSpacing(name string) (path.Spacing, error) {
	s, err := path.ParseSpacing(name)
	if err != nil {
		return s, input.Wrap(err)
	}
	return s, nil
}
