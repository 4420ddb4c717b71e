package studio

import (
	"cmp"
	"context"
	"errors"
	"strconv"
	"sync"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/jobs"
	"gyrophane/store"
)

// mostPlanning is how many sheets are planned at the same time, so that a core is left for
// what is tapped, and mostSketching how many are sketched beside them.
const (
	mostPlanning  = 1
	mostSketching = 2
)

// Sheet is what is to be painted of a system, and how.
type Sheet struct {
	Wheel    int64 // a kept one whose paints are meant; 0 for none
	Selected wheel.Selection
	System   wheel.System // of that selection
	Choices  wheel.Choices
	Which    bench.Which
	Named    Named
	Set      bench.Settings
}

// Named are paints by their ids that a sheet is painted of besides those of its system; what is usual where
// they are empty.
type Named struct {
	A, B        string // that a ladder lies between; those of a section when empty
	Earth, Tube string // of what is added to a wheel
	Glaze       string // that is laid over the others
}

// Planned is how a sheet is painted.
type Planned struct {
	*bench.Plan
	Tubes map[string]float64 // ml in the tubes of its paints, by their ids, where that is known
	Apart string             // that its tubes cannot be told from each other, and what would mend that; empty where they can
	Exact bool               // that it is not to be worked out better; else ask again
	Own   bench.Pace         // the painter's own, where it was planned at that; 0 for the usual
	laid  laidOut
}

// Plan plans the painting of a sheet, with the rings of its choices where it is the wheel,
// at the painter's own pace where the settings say none. The exact plan is waited for so
// long; then, and at once where that is 0, the one that is known at once stands in.
// The error is an input.Error, or why it could not be worked out.
func (s *Studio) Plan(ctx context.Context, who Identity, of Sheet, in paint.Medium, wait time.Duration) (out Planned, err error) {
	laid, err := s.layOut(ctx, who, of, in)
	if err != nil {
		return out, err
	}
	out.Own, out.laid = laid.own, laid
	if out.Plan, out.Exact, err = s.work(ctx, who, laid, wait); err != nil {
		return out, err
	}
	out.Apart = apart(&laid.sheet, laid.built, bench.ExtrasOf(of.Choices), laid.set)
	out.Tubes, err = s.tubesHold(ctx, who)
	return out, err
}

// laidOut is a sheet that is to be planned.
type laidOut struct {
	of     Sheet
	medium string // its id
	built  *wheel.Wheel
	sheet  bench.Sheet
	set    bench.Settings
	own    bench.Pace // the painter's own, where the settings said none
}

// layOut lays a sheet out, with all that it takes of the painter.
func (s *Studio) layOut(ctx context.Context, who Identity, of Sheet, in paint.Medium) (out laidOut, err error) {
	out.of, out.medium = of, in.ID
	options, err := of.Choices.Options(in)
	if err != nil {
		return out, err
	}
	own, err := s.ownPace(ctx, who, in)
	if err != nil {
		return out, err
	}
	if in, err = s.laid(ctx, who, in); err != nil {
		return out, err
	}
	set := of.Set
	if set.Pace == 0 {
		set.Pace, out.own.Drying = own.Drying, own.Drying
	}
	if set.HandPace == 0 {
		set.HandPace, out.own.HandPace = own.HandPace, own.HandPace
	}
	if out.set, err = set.In(in); err != nil {
		return out, err
	}
	have, err := s.material(ctx, who, of, in)
	if err != nil {
		return out, err
	}
	out.built = wheel.Build(of.System, options)
	if len(of.Which.With) > 0 {
		paints, err := s.AtHand(ctx, who)
		if err != nil {
			return out, err
		}
		have.Choose(out.built, of.Which.Slot, paints)
	}
	if of.Which.Kind == bench.SwatchesSheet {
		if have.Swatches, err = s.swatches(ctx, who, out.built, out.set, of.Which); err != nil {
			return out, err
		}
	}
	out.sheet, err = of.Which.Of(out.built, have, bench.ExtrasOf(of.Choices), out.set)
	return out, err
}

// laid is a medium as thick as whoever asks lays it, as the readings told that were taken.
func (s *Studio) laid(ctx context.Context, who Identity, in paint.Medium) (paint.Medium, error) {
	painter, err := who(ctx)
	if err != nil {
		return in, nil // as usual
	}
	film, err := s.store.Film(ctx, painter.ID, in.ID)
	return in.WithFilm(film), err
}

// apart says whether the tubes of a wheel's sheet can be told from each other, and what of
// the wheel would mend it where they cannot.
func apart(sheet *bench.Sheet, w *wheel.Wheel, e bench.Extras, set bench.Settings) string {
	if sheet.Kind != "wheel" {
		return ""
	}
	with := func(change func(e *bench.Extras)) func() *bench.Sheet {
		return func() *bench.Sheet {
			more := e
			change(&more)
			s := bench.Wheel(w, more, set)
			return &s
		}
	}
	return journal.Apart(sheet, []journal.Mend{
		{Sheet: with(func(e *bench.Extras) { e.Neutral = true }), Says: "The neutral circles in the middle of the wheel would tell them: paint those too."},
		{Sheet: with(func(e *bench.Extras) { e.Tints = max(e.Tints, 1) }), Says: "A ring of tints would tell them: paint one too."},
	})
}

// mostPaced is how many of a painter's last sittings his own pace is learned from.
const mostPaced = 20

// ownPace is the painter's own pace in a medium, as the last sittings say; none where
// nobody is known.
func (s *Studio) ownPace(ctx context.Context, who Identity, in paint.Medium) (bench.Pace, error) {
	painter, err := who(ctx)
	if err != nil {
		return bench.Pace{}, nil // the usual
	}
	all, err := s.shelved(ctx, painter, mostPaced)
	if err != nil {
		return bench.Pace{}, err
	}
	var paces []bench.Pace
	for _, on := range all {
		if on.Ended && on.Medium.ID == in.ID {
			paces = append(paces, on.pace)
		}
	}
	return bench.OwnPace(paces), nil
}

// work is the exact plan of a sheet where it is there within some time, else its sketch.
func (s *Studio) work(ctx context.Context, who Identity, laid laidOut, wait time.Duration) (plan *bench.Plan, exact bool, err error) {
	if wait > 0 {
		waiting, cancel := context.WithTimeout(ctx, wait)
		defer cancel()
		plan, err = s.exactly(waiting, who, laid)
		if err == nil || waiting.Err() == nil && !errors.Is(err, jobs.ErrNoTurn) && !errors.Is(err, jobs.ErrMany) {
			return plan, true, err
		}
	}
	select {
	case s.sketching <- struct{}{}:
		defer func() { <-s.sketching }()
	case <-ctx.Done():
		return nil, false, ctx.Err()
	}
	plan, err = bench.Sketch(&laid.sheet, laid.set)
	return plan, false, err
}

// exactly is the exact plan of a sheet: as it was kept or, where it was not, as it is worked
// out now and kept.
func (s *Studio) exactly(ctx context.Context, who Identity, laid laidOut) (*bench.Plan, error) {
	sheet, set := &laid.sheet, laid.set
	painter, err := who(ctx)
	if err != nil {
		return s.planner.Plan(ctx, "nobody", sheet, set)
	}
	key := bench.Key(sheet, set)
	kept := func() (*bench.Plan, error) {
		worked, err := s.store.Worked(ctx, painter.ID, key)
		if err != nil {
			return nil, err
		}
		plan, err := bench.Again(sheet, set, worked)
		if err != nil {
			return nil, store.ErrNotFound // it was worked out by other rules
		}
		return plan, nil
	}
	if plan, err := kept(); !errors.Is(err, store.ErrNotFound) {
		return plan, err
	}
	if s.jobs != nil {
		if err := s.planByJob(ctx, painter, key, laid); err != nil {
			return nil, err
		}
		plan, err := kept()
		if errors.Is(err, store.ErrNotFound) {
			return nil, jobs.ErrNoTurn // the sheet has changed since
		}
		return plan, err
	}
	plan, err := s.planner.Plan(ctx, strconv.FormatInt(painter.ID, 10), sheet, set)
	if err != nil {
		return nil, err
	}
	return plan, s.store.KeepWorked(ctx, painter.ID, key, plan.Worked())
}

// material is what a sheet is painted of besides the wheel.
func (s *Studio) material(ctx context.Context, who Identity, of Sheet, in paint.Medium) (have bench.Material, err error) {
	for _, one := range []struct {
		id string
		is **paint.Paint
	}{{of.Named.Earth, &have.Earth}, {of.Named.Tube, &have.Tube}, {of.Named.Glaze, &have.Glaze}} {
		if one.id == "" {
			continue
		}
		paints, err := s.Paints(ctx, who, of.Wheel, one.id)
		if err != nil {
			return have, err
		}
		*one.is = paints[0]
	}
	switch of.Which.Kind {
	case "grid":
		have.Couples, err = s.toPaint(ctx, who, of.System.Allowed())
	case "ladder":
		if of.Named.A == "" || of.Named.B == "" {
			return have, nil
		}
		paints, err := s.Paints(ctx, who, of.Wheel, of.Named.A, of.Named.B)
		if err != nil {
			return have, err
		}
		have.Way = path.New(paints[0], paints[1])
	case bench.WarmCoolSheet:
		have.School = s.School(ctx, who)
	case "wanted":
		have.Wanted, err = s.wanted(ctx, who, of.System, in)
	}
	return have, err
}

// wanted are the painter's wanted colours with what comes nearest to each.
func (s *Studio) wanted(ctx context.Context, who Identity, system wheel.System, in paint.Medium) (out []bench.Wanted, err error) {
	p, err := who(ctx)
	if err != nil {
		return nil, err
	}
	_, wanted, err := s.Wanted(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	matches, err := s.Match(ctx, []reach.Named{{System: system}}, wanted, in)
	if err != nil {
		return nil, err
	}
	for i, m := range matches {
		best := m.Matches[0]
		out = append(out, bench.Wanted{Name: cmp.Or(wanted[i].Name, wanted[i].Colour), Colour: m.Want.Lab, Recipe: best.Parts, Mixture: best.Mixture})
	}
	return out, nil
}

// measured is how texts on paper are measured.
var measured = sync.OnceValue(files.Measure)

// Measure is how texts on paper are measured.
func (s *Studio) Measure() paper.Measure { return measured() }

// Paper lays a sheet of a kept wheel out on paper, what is to be painted of it said in
// which and named. Table is the measure that is counted out in.
func (s *Studio) Paper(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, named Named, table recipe.Scale, o paper.Options) (title string, pages []paper.Page, err error) {
	return s.paper(ctx, painter, true, wheelID, which, named, table, o)
}

// ShownPaper is the same for others to look at: that a painter printed it is not noted.
func (s *Studio) ShownPaper(ctx context.Context, painter store.Painter, wheelID int64, which bench.Which, named Named, table recipe.Scale, o paper.Options) (title string, pages []paper.Page, err error) {
	return s.paper(ctx, painter, false, wheelID, which, named, table, o)
}

func (s *Studio) paper(ctx context.Context, painter store.Painter, noted bool, wheelID int64, which bench.Which, named Named, table recipe.Scale, o paper.Options) (title string, pages []paper.Page, err error) {
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
	which.Width = o.Wide()
	plan, err := s.Plan(ctx, As(painter), Sheet{Wheel: wheelID, Selected: w.Snapshot.System, System: system, Choices: w.Settings.Choices, Which: which, Named: named, Set: set}, in, paperWait)
	if err != nil {
		return "", nil, err
	}
	if noted {
		if err := s.store.Printed(ctx, painter.ID, wheelID, printedAs(plan.Sheet), plan.Mark()); err != nil && !store.ReadOnly(err) {
			return "", nil, err
		}
	}
	if o.Doubts, err = s.Doubts(ctx, As(painter)); err != nil {
		return "", nil, err
	}
	o.Title, o.About = w.Name, plan.Sheet.Title+" · "+in.Name
	pages, err = paper.Sheet(plan.Plan, o, measured())
	return w.Name, pages, err
}

// printedAs is what a sheet of a wheel is called where it is noted what was printed of it.
func printedAs(sheet *bench.Sheet) string { return string(sheet.Kind) + ": " + sheet.Title }

// BoxPaper lays a palette guide of a painter's box out on paper, as it is painted in a
// medium.
func (s *Studio) BoxPaper(ctx context.Context, painter store.Painter, in paint.Medium, o paper.Options) ([]paper.Page, error) {
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	var paints []*paint.Paint
	var white *paint.Paint
	for _, p := range box.Paints() {
		switch {
		case p.Family != "white":
			paints = append(paints, p)
		case white == nil:
			white = p
		}
	}
	if len(paints) == 0 {
		return nil, input.Errorf("there are no coloured paints in the box: add some, and their guide can be painted")
	}
	if 2*len(paints) > bench.MostRegions {
		white = nil // straight alone
	}
	guide := laidOut{sheet: bench.Guide(paints, white), set: bench.Usual(in)}
	guide.sheet.Lay(o.Wide())
	plan, _, err := s.work(ctx, As(painter), guide, 0)
	if err != nil {
		return nil, err
	}
	if o.Doubts, err = s.Doubts(ctx, As(painter)); err != nil {
		return nil, err
	}
	o.Title, o.About = "The box", plan.Sheet.Title+" · "+in.Name
	return paper.Sheet(plan, o, measured())
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
			out[paint.TubeID(t.ID)] = *ml
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
