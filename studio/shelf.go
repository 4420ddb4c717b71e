package studio

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/store"
)

// OnShelf is a sitting as it stands on the shelf of what was painted.
type OnShelf struct {
	SittingEntry
	Medium paint.Medium
	Title  string // of its sheet
	Kind   string // of the system its wheel is of; empty where that is gone
	Sheet  *bench.Sheet
	Paints []*paint.Paint
	// Looks are its regions as they were read dry last, else as they are computed.
	Colours []colour.Lab
	WasRead []bool
	// Miss is the mean CIEDE2000 of what was read to what was computed; 0 where nothing was.
	Miss    float64
	Painted int // places
	Notes   []string
	pace    bench.Pace
}

// shelfKey names a sitting as it was after so many events and readings, at a time.
type shelfKey struct {
	id      int64
	changed time.Time
	reads   store.ReadingCount
}

// What of a shelf is looked through: the last sittings, and how many are remembered, some
// ten kilobytes each.
const (
	mostOnShelf = 400
	mostShelved = 2000
	// longestLooked is how long a word that is looked for may be, in bytes.
	longestLooked = 100
)

// Shelf asks for a part of the shelf; what is empty asks for all.
type Shelf struct {
	Words  string // each of which stands in its name, paints, system, medium or notes
	Medium string
	Kind   string // of system
	Only   string // "read", "unread" or "under way"
}

// Shelf are a painter's sittings that a part of the shelf holds, the last one first, and
// how many stand on all of it.
func (s *Studio) Shelf(ctx context.Context, painter store.Painter, part Shelf) (out []OnShelf, all int, err error) {
	if len(part.Words) > longestLooked {
		return nil, 0, input.Errorf("look for at most %d characters", longestLooked)
	}
	if !slices.Contains([]string{"", "read", "unread", "under way"}, part.Only) {
		return nil, 0, input.Errorf("the shelf shows only what was read, unread or under way, and not %q", input.Clip(part.Only))
	}
	shelved, err := s.shelved(ctx, painter, mostOnShelf)
	if err != nil {
		return nil, 0, err
	}
	wheels, err := s.store.Wheels(ctx, painter.ID)
	if err != nil {
		return nil, 0, err
	}
	kinds := map[int64]string{}
	for _, w := range wheels {
		kinds[w.ID] = w.Kind
	}
	for _, on := range shelved {
		on.Kind = kinds[on.Wheel]
		if part.holds(&on) {
			out = append(out, on)
		}
	}
	return out, len(shelved), nil
}

// shelved are a painter's last sittings, so many at most, the last one first.
func (s *Studio) shelved(ctx context.Context, painter store.Painter, most int) (out []OnShelf, err error) {
	kept, keys, err := s.keyed(ctx, painter)
	if err != nil {
		return nil, err
	}
	for _, one := range kept[:min(len(kept), most)] {
		on, err := s.onShelf(ctx, painter, one, keys[one.ID])
		if err != nil {
			return nil, err
		}
		out = append(out, on)
	}
	return out, nil
}

// keyed are a painter's sittings, the last one first, and what each is remembered under, by
// their ids.
func (s *Studio) keyed(ctx context.Context, painter store.Painter) (kept []store.Sitting, keys map[int64]shelfKey, err error) {
	if kept, err = s.store.Sittings(ctx, painter.ID); err != nil {
		return nil, nil, err
	}
	counts, err := s.store.CountReadings(ctx, painter.ID)
	keys = map[int64]shelfKey{}
	for _, one := range kept {
		keys[one.ID] = shelfKey{one.ID, one.UpdatedAt, counts[one.ID]}
	}
	return kept, keys, err
}

// onShelf is a sitting on the shelf, put together once until something of it changes.
func (s *Studio) onShelf(ctx context.Context, painter store.Painter, kept store.Sitting, key shelfKey) (out OnShelf, err error) {
	out, known := s.shelf.Get(key)
	if !known {
		if out, err = s.shelve(ctx, painter, kept); err != nil {
			return out, err
		}
		s.shelf.Add(key, out)
	}
	out.SittingEntry = entryOf(kept)
	return out, nil
}

// shelve puts a sitting together as it stands on the shelf.
func (s *Studio) shelve(ctx context.Context, painter store.Painter, kept store.Sitting) (OnShelf, error) {
	sitting, err := s.lookedBack(ctx, painter, kept.ID)
	if err != nil {
		return OnShelf{}, err
	}
	reads, err := s.readsOf(ctx, painter, &sitting)
	if err != nil {
		return OnShelf{}, err
	}
	sheet := sitting.Plan.Sheet
	out := OnShelf{SittingEntry: sitting.SittingEntry, Medium: sitting.Medium, Title: sheet.Title, Paints: sheet.Paints(),
		Sheet: &bench.Sheet{Kind: sheet.Kind, Title: sheet.Title, W: sheet.W, H: sheet.H, Inner: sheet.Inner, Rings: sheet.Rings, Regions: slices.Clone(sheet.Regions)}}
	for i := range out.Sheet.Regions {
		out.Sheet.Regions[i].Mixture = paint.Mixture{} // how it looks is in Looks
	}
	n := 0.0
	for i, p := range placesOf(&sitting, reads).places {
		look := p.Computed
		read := p.Dry != nil && p.Dry.Doubt == ""
		if read {
			look = p.Dry.Lab
			out.Miss += colour.Difference(p.Computed, look)
			n++
		}
		out.Colours, out.WasRead = append(out.Colours, look), append(out.WasRead, read)
		if sitting.Stands.Places[i].Coats > 0 {
			out.Painted++
		}
	}
	out.pace = bench.PaceOf(sheet, sitting.Plan.Settings, sitting.Events)
	out.Miss /= math.Max(1, n)
	for _, e := range sitting.Stands.Notes {
		if e.Kind == bench.Noted {
			out.Notes = append(out.Notes, e.Text)
		}
	}
	return out, nil
}

// holds says that a sitting stands on a part of the shelf.
func (part *Shelf) holds(on *OnShelf) bool {
	read := slices.Contains(on.WasRead, true)
	switch {
	case part.Medium != "" && on.Medium.ID != part.Medium,
		part.Kind != "" && on.Kind != part.Kind,
		part.Only == "read" && !read,
		part.Only == "unread" && read,
		part.Only == "under way" && on.Ended:
		return false
	}
	has := []string{on.Name, on.Title, on.Kind, on.Medium.Name, on.NextTime}
	for _, p := range on.Paints {
		has = append(has, p.Name, p.CI, p.ID)
	}
	text := strings.ToLower(strings.Join(append(has, on.Notes...), "\n"))
	for _, word := range strings.Fields(strings.ToLower(part.Words)) {
		if !strings.Contains(text, word) {
			return false
		}
	}
	return true
}

// Beside are two sittings beside each other.
type Beside struct {
	One, Other OnShelf
	Says       []string // how the first differs from the second
}

// Beside lays two of a painter's sittings beside each other.
func (s *Studio) Beside(ctx context.Context, painter store.Painter, one, other int64) (out Beside, err error) {
	kept, keys, err := s.keyed(ctx, painter)
	if err != nil {
		return out, err
	}
	for _, of := range []struct {
		id int64
		on *OnShelf
	}{{one, &out.One}, {other, &out.Other}} {
		k := slices.IndexFunc(kept, func(s store.Sitting) bool { return s.ID == of.id })
		if k < 0 {
			return out, store.ErrNotFound
		}
		if *of.on, err = s.onShelf(ctx, painter, kept[k], keys[of.id]); err != nil {
			return out, err
		}
	}
	a, b := &out.One, &out.Other
	if a.Medium.ID != b.Medium.ID {
		out.Says = append(out.Says, fmt.Sprintf("One is in %s, the other in %s.", a.Medium.Name, b.Medium.Name))
	}
	if a.Sheet.Kind != b.Sheet.Kind {
		out.Says = append(out.Says, fmt.Sprintf("One is a %s, the other a %s: their places cannot be laid beside each other.", a.Sheet.Kind, b.Sheet.Kind))
		return out, nil
	}
	out.Says = append(out.Says, journal.Differ(a.placed(), b.placed())...)
	return out, nil
}

// placed are the places of a sitting as they look; of a slot in two halves, the first.
func (on *OnShelf) placed() (out []journal.Placed) {
	for i := range on.Sheet.Regions {
		r := &on.Sheet.Regions[i]
		if !r.Main || r.Home >= 0 && slices.ContainsFunc(out, func(p journal.Placed) bool { return p.Home == r.Home }) {
			continue
		}
		one := journal.Placed{Home: r.Home, Hue: hueOf(r), Colour: on.Colours[i]}
		if r.Home < 0 {
			one.Home = r.Index
		}
		for _, p := range r.Recipe.Plain() {
			one.Paints = append(one.Paints, p.Paint)
		}
		out = append(out, one)
	}
	return out
}
