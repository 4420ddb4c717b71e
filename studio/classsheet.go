package studio

import (
	"context"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/photo"
	"gyrophane/core/recipe"
	"gyrophane/files"
	"gyrophane/store"
)

// ClassSheet is a sheet of a wheel that a class has painted.
type ClassSheet struct {
	store.ClassSheet
	Plan     *bench.Plan
	Computed []colour.Lab // by the places of the plan, dry
	Reads    []ClassRead  // the first first
	Places   []journal.ClassPlace
}

// ClassRead is what was read of one pupil's sheet: nil where nothing was.
type ClassRead struct {
	ID   int64
	Labs []*colour.Lab
}

// NewClassSheet keeps a sheet of a kept wheel, as it is planned now, for a class's to be read by.
func (s *Studio) NewClassSheet(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, named Named, table recipe.Scale) (int64, error) {
	w, _, frozen, err := s.frozenPlan(ctx, painter, wheelID, which, named, table)
	if err != nil {
		return 0, err
	}
	kept, err := s.store.NewClassSheet(ctx, painter.ID, store.ClassSheet{WheelID: &wheelID, Name: w.Name, Plan: frozen})
	return kept.ID, err
}

// ClassSheet is one of a painter's.
func (s *Studio) ClassSheet(ctx context.Context, painter store.Painter, id int64) (out ClassSheet, err error) {
	kept, reads, err := s.store.ClassSheet(ctx, painter.ID, id)
	if err != nil {
		return out, err
	}
	out.ClassSheet = kept
	if out.Plan, err = thaw(kept.Plan); err != nil {
		return out, err
	}
	for i := range out.Plan.Sheet.Regions {
		look := out.Plan.Sheet.Regions[i].Read(out.Plan.Settings.Medium, false)
		out.Computed = append(out.Computed, look.Lab())
	}
	var all [][]*colour.Lab
	for _, r := range reads {
		one := ClassRead{ID: r.ID}
		for _, lab := range r.Labs {
			if lab == nil {
				one.Labs = append(one.Labs, nil)
				continue
			}
			one.Labs = append(one.Labs, &colour.Lab{L: lab[0], A: lab[1], B: lab[2]})
		}
		out.Reads = append(out.Reads, one)
		all = append(all, one.Labs)
	}
	out.Places = journal.ClassPlaces(out.Computed, all)
	return out, nil
}

// ReadClassSheet reads a photo of one pupil's sheet by its printed marks and keeps what it says, how many places; the photo is not
// kept. The error is an input.Error where it cannot be read.
func (s *Studio) ReadClassSheet(ctx context.Context, painter store.Painter, id int64, data []byte) (places int, err error) {
	kept, _, err := s.store.ClassSheet(ctx, painter.ID, id)
	if err != nil {
		return 0, err
	}
	plan, err := thaw(kept.Plan)
	if err != nil {
		return 0, err
	}
	taken, err := files.ReadPhoto(ctx, data)
	if err != nil {
		return 0, err
	}
	picture := taken.Picture()
	at, err := photo.FindMarks(&picture, plan.Sheet)
	if err != nil {
		return 0, err
	}
	read, err := photo.ReadSheet(&picture, plan.Sheet, at, nil)
	if err != nil {
		return 0, err
	}
	labs := make([]*[3]float64, len(plan.Sheet.Regions))
	for _, r := range read.Readings {
		if r.Doubt == "" {
			labs[r.Region] = &[3]float64{r.Lab.L, r.Lab.A, r.Lab.B}
			places++
		}
	}
	if places == 0 {
		return 0, input.Errorf("nothing on this sheet could be believed: take the photo by daylight, without a shadow over it")
	}
	return places, s.store.AddClassRead(ctx, painter.ID, id, labs)
}
