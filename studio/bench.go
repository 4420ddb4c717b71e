package studio

import (
	"context"
	"sync"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/store"
)

// mostPlanning is how many sheets are planned at the same time, and how many are
// sketched beside them.
const mostPlanning = 2

// Sheet is what is to be painted of a system, and how.
type Sheet struct {
	System  wheel.System
	Choices wheel.Choices
	Which   bench.Which
	Set     bench.Settings
}

// Plan plans the painting of a sheet, with the rings of its choices where it is the wheel;
// quick is what is known at once. Tubes are what the tubes of its paints hold in ml, where
// that is known. The error is an input.Error, or why it could not be worked out.
func (s *Studio) Plan(ctx context.Context, who Identity, of Sheet, in paint.Medium, quick bool) (plan *bench.Plan, tubes map[string]float64, err error) {
	options, err := of.Choices.Options(in)
	if err != nil {
		return nil, nil, err
	}
	set, err := of.Set.In(in)
	if err != nil {
		return nil, nil, err
	}
	var couples []path.Couple
	if of.Which.Kind == "grid" {
		if couples, err = s.toPaint(ctx, who, of.System.Allowed()); err != nil {
			return nil, nil, err
		}
	}
	sheet, err := of.Which.Of(wheel.Build(of.System, options), couples, bench.ExtrasOf(of.Choices), set)
	if err != nil {
		return nil, nil, err
	}
	if tubes, err = s.tubesHold(ctx, who); err != nil {
		return nil, nil, err
	}
	turn, work := s.planning, bench.New
	if quick {
		turn, work = s.sketching, bench.Sketch
	}
	select {
	case turn <- struct{}{}:
		defer func() { <-turn }()
	case <-ctx.Done():
		return nil, nil, ctx.Err()
	}
	plan, err = work(&sheet, set)
	return plan, tubes, err
}

// measured is how texts on paper are measured.
var measured = sync.OnceValue(files.Measure)

// Measure is how texts on paper are measured.
func (s *Studio) Measure() paper.Measure { return measured() }

// Paper lays a sheet of a kept wheel out on paper. Table is the measure that is counted
// out in.
func (s *Studio) Paper(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, table recipe.Scale, o paper.Options) (title string, pages []paper.Page, err error) {
	w, system, err := s.KeptSystem(ctx, painter, wheelID)
	if err != nil {
		return "", nil, err
	}
	in, err := paint.ParseMedium(w.Settings.Medium)
	if err != nil {
		return "", nil, input.Wrap(err)
	}
	set := w.Settings.Bench
	if table.Measure != "" {
		set.Scale = table
	}
	plan, _, err := s.Plan(ctx, As(painter), Sheet{system, w.Settings.Choices, which, set}, in, false)
	if err != nil {
		return "", nil, err
	}
	o.Title, o.About = w.Name, plan.Sheet.Title+" · "+in.Name
	pages, err = paper.Sheet(plan, o, measured())
	return w.Name, pages, err
}

// toPaint are the couples that are still to be painted: those the painter has marked so
// or, where none is, those that are not painted yet.
func (s *Studio) toPaint(ctx context.Context, who Identity, all []path.Couple) (out []path.Couple, err error) {
	p, err := who(ctx)
	if err != nil {
		return all, nil // nobody has marked any
	}
	marks, err := s.store.PairMarks(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	of := map[[2]string]string{}
	for _, m := range marks {
		of[[2]string{m.A, m.B}] = m.Mark
	}
	var fresh []path.Couple
	for _, c := range all {
		switch of[[2]string{min(c.A.ID, c.B.ID), max(c.A.ID, c.B.ID)}] {
		case "to paint":
			out = append(out, c)
		case "":
			fresh = append(fresh, c)
		}
	}
	switch {
	case len(out) > 0:
		return out, nil
	case len(fresh) > 0:
		return fresh, nil
	}
	return all, nil
}

// tubesHold are the ml of a painter's tubes, by the ids of their paints and, where they
// are of the library, by those too; none where nobody is known.
func (s *Studio) tubesHold(ctx context.Context, who Identity) (map[string]float64, error) {
	out := map[string]float64{}
	p, err := who(ctx)
	if err != nil {
		return out, nil
	}
	box, err := s.Box(ctx, p.ID)
	for _, t := range box.Tubes {
		if ml := t.Details().TubeML; ml != nil {
			out[TubeID(t.ID)] = *ml
			if t.Definition.Library != "" {
				out[t.Definition.Library] = *ml
			}
		}
	}
	return out, err
}

// Ingredient is so much of a paint, or of its let-down, or of what was mixed first, by
// name.
type Ingredient struct {
	Paint string
	Parts float64
	In    string // the paint it is let down in; empty for none
	Thin  int    // parts of that to 1
	Of    []Ingredient
}

// CountOut counts a recipe out in a measure, so many ml of it; the recipe and what it
// makes come with it.
func (s *Studio) CountOut(ctx context.Context, who Identity, wheelID int64, of []Ingredient, scale recipe.Scale, ml float64) (counted recipe.Counted, r recipe.Recipe, exact paint.Mixture, err error) {
	var ids []string
	for _, i := range of {
		ids = append(ids, i.Paint, i.In)
		for _, part := range i.Of {
			ids = append(ids, part.Paint)
		}
	}
	find, err := s.Finder(ctx, who, wheelID, mentionTubes(ids))
	if err != nil {
		return counted, nil, exact, err
	}
	for _, i := range of {
		one := recipe.Ingredient{Parts: i.Parts, Thin: i.Thin}
		if len(i.Of) > 0 {
			var parts []paint.Part
			for _, part := range i.Of {
				p, err := find(part.Paint)
				if err != nil {
					return counted, nil, exact, err
				}
				parts = append(parts, paint.Part{Paint: p, Parts: part.Parts})
			}
			if one.Paint, err = paint.Stir(i.Paint, i.Paint, parts...); err != nil {
				err = input.Wrap(err)
			}
		} else {
			one.Paint, err = find(i.Paint)
		}
		if err == nil && i.In != "" {
			one.In, err = find(i.In)
		}
		if err != nil {
			return counted, nil, exact, err
		}
		r = append(r, one)
	}
	if exact, err = paint.Mix(r.Volumes()...); err != nil {
		return counted, nil, exact, input.Wrap(err)
	}
	return recipe.CountOut(r, &exact, scale, ml), r, exact, nil
}
