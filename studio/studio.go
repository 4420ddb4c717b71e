// Package studio is what a painter does and asks, whole: it finds the paints that
// are meant (of the library, of the box, or as they were kept with a wheel), asks
// the core, and keeps. It knows no HTTP, no JSON, no SQL and no flags.
package studio

import (
	"context"
	"errors"
	"slices"
	"strings"

	lru "github.com/hashicorp/golang-lru/v2"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/jobs"
	"gyrophane/store"
)

// Studio answers for the painters of one store.
type Studio struct {
	store      *store.Store
	tubes      *lru.Cache[tubeKey, Tube]
	tables     *lru.Cache[string, *reach.Table]
	matches    *lru.Cache[matchKey, reach.Match]
	sheets     *lru.Cache[string, *bench.Plan] // of sittings, by what they are painted by
	shelf      *lru.Cache[shelfKey, OnShelf]
	told       *lru.Cache[shelfKey, SittingJournal]
	watchers   watchers
	lookingOn  watchers // of what is shown
	classes    watchers // of rounds that a class predicts
	counting   counting
	explaining *explaining
	planner    Planner
	jobs       *jobs.Queue // nil where this process has none
	// sketching holds one for each sheet that is being sketched.
	sketching chan struct{}
}

// mostTubes is how many tubes are remembered once they have been read, some
// kilobytes each.
const mostTubes = 4000

// New makes a studio on a store.
func New(s *store.Store) *Studio {
	return &Studio{
		store:      s,
		watchers:   watchers{listen: s.Listen},
		lookingOn:  watchers{listen: listenShown(s)},
		classes:    watchers{listen: listenClasses(s)},
		tubes:      cache[tubeKey, Tube](mostTubes),
		tables:     cache[string, *reach.Table](mostTables),
		matches:    cache[matchKey, reach.Match](mostMatches),
		sheets:     cache[string, *bench.Plan](mostSheets),
		shelf:      cache[shelfKey, OnShelf](mostShelved),
		told:       cache[shelfKey, SittingJournal](mostExplained),
		explaining: newExplaining(),
		planner:    newPlanQueue(mostPlanning),
		sketching:  make(chan struct{}, mostSketching),
	}
}

// cache remembers the last used things, so many of them.
func cache[K comparable, V any](most int) *lru.Cache[K, V] {
	c, err := lru.New[K, V](most)
	if err != nil {
		panic(err) // a constant size above 0
	}
	return c
}

// Identity is how to learn who asks; it is called only where something of a
// painter's own is meant.
type Identity func(context.Context) (store.Painter, error)

// As is the identity of somebody who is known.
func As(p store.Painter) Identity {
	return func(context.Context) (store.Painter, error) { return p, nil }
}

// AtHand are the paints of the box of whoever asks, or those of the library where
// nobody is known.
func (s *Studio) AtHand(ctx context.Context, who Identity) ([]*paint.Paint, error) {
	p, err := who(ctx)
	if err != nil {
		return paint.Library(), nil
	}
	box, err := s.Box(ctx, p.ID)
	return box.Paints(), err
}

// School is which blue a painter calls warm; the usual one where nobody is known,
// or nobody can say who.
func (s *Studio) School(ctx context.Context, who Identity) bias.School {
	p, err := who(ctx)
	if err != nil {
		return bias.VioletIsWarm
	}
	return bias.School(p.WarmBlue)
}

// finder finds library paints by their ids and a painter's tubes: as they are now
// or, those of a kept wheel, which may be nil, as they were when they came into it.
// What may change it notes in found, unless that is nil.
func (s *Studio) finder(ctx context.Context, who Identity, kept *store.WheelContent, found map[string]store.FrozenTube) paint.Finder {
	return func(id string) (*paint.Paint, error) {
		isTube := strings.HasPrefix(id, paint.TubePrefix)
		t, known := frozenIn(kept, id)
		if !known && !isTube {
			return paint.Find(id)
		}
		if !known {
			n, is := paint.TubeNumber(id)
			if !is {
				return nil, input.Errorf("%.40q is no tube of your box", id)
			}
			p, err := who(ctx)
			if err != nil {
				return nil, err
			}
			kept, err := s.store.Tube(ctx, p.ID, n)
			if errors.Is(err, store.ErrNotFound) {
				return nil, input.Errorf("%s is no tube of your box", id)
			}
			if err != nil {
				return nil, err
			}
			o, err := s.open(kept)
			if err == nil && found != nil {
				found[id] = store.FrozenTube{Definition: kept.Definition, Strength: o.Paint.Strength()}
			}
			return o.Paint, err
		}
		if found != nil {
			found[id] = t
		}
		if !isTube {
			return paint.FindOf(t.Definition.Library, t.Definition.Version)
		}
		return t.Definition.Paint(id, t.Strength)
	}
}

// frozenIn is a paint as it came into a kept wheel, and false where it is not in the
// wheel, or has not changed since. What the wheel does not say of a library paint is
// as the library had it when the wheel was saved.
func frozenIn(kept *store.WheelContent, id string) (store.FrozenTube, bool) {
	if kept == nil {
		return store.FrozenTube{}, false
	}
	t, known := kept.Snapshot.Frozen[id]
	d := &t.Definition
	switch {
	case known && d.Library != "" && d.Version == "":
		d.Version = kept.LibraryVersion
	case known:
	case kept.Snapshot.System.Names(func(named string) bool { return named == id }) && changedSince(kept.LibraryVersion, id):
		return store.FrozenTube{Definition: paint.Definition{Library: id, Version: kept.LibraryVersion}, Strength: 1}, true
	}
	return t, known
}

// changedSince says that the library has another paint of this id today than it had
// in a version.
func changedSince(version, id string) bool {
	then, err := paint.FindOf(id, version)
	if err != nil {
		return false // a tube, or nothing
	}
	now, err := paint.Find(id)
	return err == nil && then != now
}

// Finder finds the paints that are named: as they were kept with a wheel of the
// painter's, or as they are now where the wheel is 0. Library paints are found also
// where the wheel cannot be looked up, as they are now.
func (s *Studio) Finder(ctx context.Context, who Identity, wheelID int64, tubes bool) (paint.Finder, error) {
	var kept *store.WheelContent
	if wheelID != 0 {
		p, err := who(ctx)
		if err == nil {
			var w store.Wheel
			w, err = s.store.Wheel(ctx, p.ID, wheelID)
			kept = &w.WheelContent
		}
		if err != nil && tubes {
			return nil, err
		}
	}
	return s.finder(ctx, who, kept, nil), nil
}

// Paints finds paints by their ids, as Finder does.
func (s *Studio) Paints(ctx context.Context, who Identity, wheelID int64, ids ...string) (out []*paint.Paint, err error) {
	find, err := s.Finder(ctx, who, wheelID, mentionTubes(ids))
	if err != nil {
		return nil, err
	}
	for _, id := range ids {
		p, err := find(id)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// Parts reads ingredients written as PAINT=PARTS, their paints found as Finder
// does.
func (s *Studio) Parts(ctx context.Context, who Identity, wheelID int64, texts []string) ([]paint.Part, error) {
	find, err := s.Finder(ctx, who, wheelID, mentionTubes(texts))
	if err != nil {
		return nil, err
	}
	return paint.ParseParts(texts, find)
}

// Pile mixes ingredients written as PAINT=PARTS.
func (s *Studio) Pile(ctx context.Context, who Identity, wheelID int64, texts []string) (paint.Pile, error) {
	parts, err := s.Parts(ctx, who, wheelID, texts)
	if err != nil {
		return paint.Pile{}, err
	}
	return paint.NewPile(parts)
}

// System finds the paints of a selection, as Finder does.
func (s *Studio) System(ctx context.Context, who Identity, wheelID int64, c wheel.Selection) (wheel.System, paint.Finder, error) {
	find, err := s.Finder(ctx, who, wheelID, c.Mentions(paint.TubePrefix))
	if err != nil {
		return wheel.System{}, nil, err
	}
	system, err := c.System(find)
	return system, find, err
}

func mentionTubes(ids []string) bool {
	return slices.ContainsFunc(ids, func(id string) bool { return strings.HasPrefix(id, paint.TubePrefix) })
}
