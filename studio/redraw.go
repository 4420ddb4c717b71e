package studio

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// Restrengthened is a paint of a kept wheel that turned out to be another.
type Restrengthened struct {
	Paint    *paint.Paint // as it is in the box today
	Was, Now float64
}

// Redrawn is a kept wheel, and what it would be with what its tubes turned out to be.
type Redrawn struct {
	Wheel     store.Wheel
	Kept, Now OnShelf // as they are computed
	Medium    paint.Medium
	Changes   []Restrengthened // none where the tubes are as they were
	Says      []string         // how the two differ
	Parts     []NewParts       // of slots that are mixed otherwise
	Library   string           // the version that the wheel has its paints of, where the library has others since; else empty
	content   store.WheelContent
}

// NewParts are the parts of a slot as they were kept, and as they are with the tubes of
// today.
type NewParts struct{ Slot, Was, Is string }

// Redraw is a kept wheel beside what it would be with the tubes as they are today: a paint
// of the library of which the box has a tube whose strength was learned is that tube.
func (s *Studio) Redraw(ctx context.Context, painter store.Painter, id int64) (out Redrawn, err error) {
	kept, system, err := s.KeptSystem(ctx, painter, id)
	if err != nil {
		return out, err
	}
	out.Wheel = kept
	if out.Medium, err = paint.ParseMedium(kept.Settings.Medium); err != nil {
		return out, input.Wrap(err)
	}
	options, err := kept.Settings.Choices.Options(out.Medium)
	if err != nil {
		return out, err
	}
	find := s.finder(ctx, As(painter), &kept.WheelContent, nil)
	now, tubes, err := s.paintsNow(ctx, painter)
	if err != nil {
		return out, err
	}
	content := WheelContentOf(kept.WheelContent)
	seen := map[string]bool{}
	fresh := map[string]bool{}
	content.System = content.System.With(func(id string) string {
		is := now[id]
		if is == nil || tubes[is.ID].Learned == nil && is.ID != id {
			library, missing := paint.Find(id)
			if missing != nil {
				return id // a tube that is in the box no more
			}
			is = library
		}
		if !seen[id] {
			was, missing := find(id)
			if missing != nil || was.Fingerprint() == is.Fingerprint() {
				return id
			}
			seen[id] = true
			out.Changes = append(out.Changes, Restrengthened{is, onScaleOf(was, is), is.Strength()})
			if was.Version != is.Version {
				out.Library = was.Version
			}
		}
		fresh[is.ID] = true
		return is.ID
	})
	before := wheel.Build(system, options)
	out.Kept = computed(before, out.Medium)
	if len(out.Changes) == 0 {
		out.Now = out.Kept
		return out, nil
	}
	// Those that changed are frozen anew, as they are today; the others stay as they were.
	unfrozen := kept.WheelContent
	unfrozen.Snapshot.Frozen = map[string]store.FrozenTube{}
	for id, t := range kept.Snapshot.Frozen {
		if !fresh[id] {
			unfrozen.Snapshot.Frozen[id] = t
		}
	}
	if out.content, err = s.content(ctx, painter, content, &unfrozen); err != nil {
		return out, err
	}
	redrawn, err := out.content.Snapshot.System.System(s.finder(ctx, As(painter), &out.content, nil))
	if err != nil {
		return out, err
	}
	after := wheel.Build(redrawn, options)
	for i := range after.Slots {
		was, is := &before.Slots[i], &after.Slots[i]
		if is.Empty || was.Empty || len(is.Parts) < 2 {
			continue
		}
		if a, b := was.Parts.String(), is.Parts.String(); a != b {
			out.Parts = append(out.Parts, NewParts{is.Name, a, b})
		}
	}
	slices.SortStableFunc(out.Changes, func(a, b Restrengthened) int {
		return cmp.Compare(math.Abs(math.Log(b.Now/b.Was)), math.Abs(math.Log(a.Now/a.Was)))
	})
	out.Now = computed(after, out.Medium)
	out.Says = journal.Differ(out.Now.placed(), out.Kept.placed())
	return out, nil
}

// onScaleOf is how strong a paint of before is on the scale of one of today, whatever the library had
// then.
func onScaleOf(was, is *paint.Paint) float64 {
	if as, err := was.As(is.Version); err == nil {
		return as.Strength()
	}
	return was.Strength()
}

// computed is a wheel's sheet as it is computed, dry.
func computed(w *wheel.Wheel, in paint.Medium) OnShelf {
	sheet := bench.Wheel(w, bench.Extras{}, bench.Usual(in))
	on := OnShelf{Medium: in, Sheet: &sheet, WasRead: make([]bool, len(sheet.Regions))}
	for i := range sheet.Regions {
		look := sheet.Regions[i].Read(in, false)
		on.Colours = append(on.Colours, look.Lab())
	}
	return on
}

// RedrawWheel saves a kept wheel with what its tubes turned out to be, on the version that
// the painter saw; it can be undone like any other change of it.
func (s *Studio) RedrawWheel(ctx context.Context, painter store.Painter, id int64, version int) (store.Wheel, error) {
	redrawn, err := s.Redraw(ctx, painter, id)
	if err != nil {
		return store.Wheel{}, err
	}
	if len(redrawn.Changes) == 0 {
		return store.Wheel{}, input.Errorf("%s", fmt.Sprintf("The tubes of %s are as they were when it was kept: there is nothing to redraw.", redrawn.Wheel.Name))
	}
	return s.store.SaveWheel(ctx, painter.ID, id, version, redrawn.content, 0)
}
