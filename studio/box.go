package studio

import (
	"context"
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// Tube is a tube of a box, and its paint.
type Tube struct {
	store.Tube
	Paint *paint.Paint
}

// Whole is the tube as a box file holds it.
func (t Tube) Whole() paint.Tube {
	return paint.Tube{Definition: t.Definition, TubeDetails: t.Details()}
}

// tubeKey names a tube as it was at one of its versions, of a strength that was learned,
// 0 for none: it is never another.
type tubeKey struct {
	id      int64
	version int
	learned float64
}

// open makes the paint of a tube, or remembers it: a large box takes some
// hundredths of a second.
func (s *Studio) open(t store.Tube) (Tube, error) {
	key := tubeKey{id: t.ID, version: t.Version}
	if t.Learned != nil {
		key.learned = *t.Learned
	}
	if known, there := s.tubes.Get(key); there {
		return Tube{t, known.Paint}, nil
	}
	var p *paint.Paint
	var err error
	if t.Learned != nil {
		p, err = t.Definition.Paint(paint.TubeID(t.ID), *t.Learned)
	} else {
		p, err = t.Definition.Graded(paint.TubeID(t.ID), paint.Grade(t.Details().Grade))
	}
	out := Tube{t, p}
	if err == nil {
		s.tubes.Add(key, out)
	}
	return out, err
}

// Box is a painter's tubes, each in hue order.
type Box struct{ Tubes, Archived []Tube }

// Box reads a painter's tubes.
func (s *Studio) Box(ctx context.Context, painter int64) (out Box, err error) {
	tubes, err := s.store.Tubes(ctx, painter)
	if err != nil {
		return out, err
	}
	byPaint := map[*paint.Paint]Tube{}
	var paints []*paint.Paint
	for _, t := range tubes {
		o, err := s.open(t)
		if err != nil {
			return out, err
		}
		byPaint[o.Paint] = o
		paints = append(paints, o.Paint)
	}
	bias.InHueOrder(paints)
	for _, p := range paints {
		if t := byPaint[p]; t.State == store.Archived {
			out.Archived = append(out.Archived, t)
		} else {
			out.Tubes = append(out.Tubes, t)
		}
	}
	return out, nil
}

// Paints are the paints of the tubes that are not archived.
func (b Box) Paints() (out []*paint.Paint) {
	for _, t := range b.Tubes {
		out = append(out, t.Paint)
	}
	return out
}

// Named are the paints of the tubes that are not archived, under the names that
// they go by.
func (b Box) Named() (out []*paint.Paint) {
	for _, t := range b.Tubes {
		out = append(out, t.Paint.Called(t.Definition.Library, t.Nickname))
	}
	return out
}

// Whole are all tubes as a box file holds them, the archived ones last.
func (b Box) Whole() (out []paint.Tube) {
	for _, t := range b.Tubes {
		out = append(out, t.Whole())
	}
	for _, t := range b.Archived {
		out = append(out, t.Whole())
	}
	return out
}

// Candidates are the tubes that are not archived, for the places of a system.
func (b Box) Candidates() (out []wheel.Candidate) {
	for _, t := range b.Tubes {
		out = append(out, wheel.Candidate{Paint: t.Paint, Called: t.Nickname, InBox: true, Price: t.Price})
	}
	return out
}

// Prices are what the tubes cost, by the id of their paint; a paint of the
// library costs what the cheapest tube of it does.
func (b Box) Prices() map[string]float64 {
	out := map[string]float64{}
	for _, t := range b.Tubes {
		if t.Price == nil {
			continue
		}
		out[t.Paint.ID] = *t.Price
		if id := t.Definition.Library; id != "" {
			if least, ok := out[id]; !ok || *t.Price < least {
				out[id] = *t.Price
			}
		}
	}
	return out
}

// Tube reads one of a painter's tubes.
func (s *Studio) Tube(ctx context.Context, painter, id int64) (Tube, error) {
	t, err := s.store.Tube(ctx, painter, id)
	if err != nil {
		return Tube{}, err
	}
	return s.open(t)
}

// AddPaints puts paints of the library into a box, all or none.
func (s *Studio) AddPaints(ctx context.Context, painter int64, ids []string, grade string) error {
	var tubes []paint.Tube
	for _, id := range ids {
		t, _, err := paint.Tube{Definition: paint.Definition{Library: id}, TubeDetails: paint.TubeDetails{Grade: grade}}.Complete()
		if err != nil {
			return err
		}
		tubes = append(tubes, t)
	}
	summary := "added " + CountPaints(len(tubes))
	if len(tubes) == 1 {
		summary = "added " + tubes[0].Library
	}
	return s.addTubes(ctx, painter, summary, tubes)
}

// AddByLook puts a tube without a name into a box as the paint of the library that it looks like; it is not sure
// that it is one.
func (s *Studio) AddByLook(ctx context.Context, painter int64, id string) error {
	t, p, err := paint.Tube{Definition: paint.Definition{Library: id}, TubeDetails: paint.TubeDetails{NotSure: paint.ByLook}}.Complete()
	if err != nil {
		return err
	}
	t.Nickname = p.Family + " without a name"
	return s.addTubes(ctx, painter, "added a "+t.Nickname, []paint.Tube{t})
}

// AddNamed puts tubes into a box by the words on them, all or none: each with what is likeliest behind
// them, not sure which where that may be one of several. The error is an input.Error that names the first
// that nothing is called.
func (s *Studio) AddNamed(ctx context.Context, painter int64, names []string, sold paint.Sold) error {
	var tubes []paint.Tube
	for _, words := range names {
		named, err := paint.NameOf(words, sold)
		if err != nil {
			return err
		}
		if len(named.Found) == 0 {
			return input.Errorf("%s", named.Says)
		}
		t, err := tubeNamed(named, named.Found[0].Paints, sold)
		if err != nil {
			return err
		}
		if named.NotSure() {
			t.NotSure = named.Asked
		}
		tubes = append(tubes, t)
	}
	summary := "added " + CountPaints(len(tubes))
	if len(tubes) == 1 {
		summary = "added " + tubes[0].Nickname
	}
	return s.addTubes(ctx, painter, summary, tubes)
}

// tubeNamed is a tube by the words on it, with some paints: one of the library, or several that its label
// would name.
func tubeNamed(named paint.Named, paints []*paint.Paint, sold paint.Sold) (paint.Tube, error) {
	t := paint.Tube{TubeDetails: paint.TubeDetails{Nickname: named.Asked, Grade: string(paint.Artist)}}
	if sold != paint.Artists {
		t.Grade = string(paint.Student)
	}
	if len(paints) == 1 {
		t.Library = paints[0].ID
	} else {
		t.Name, t.Origin = named.Asked, &paint.Origin{Kind: "label", Pigments: paint.IDs(paints)}
	}
	out, _, err := t.Complete()
	return out, err
}

// SettleName takes another of the pigments that a tube may have, by the words on it or by its look, for the
// one it has: the tube is archived, and one like it with that stands in its place; both are one change. The
// error is an input.Error, or what the store answers.
func (s *Studio) SettleName(ctx context.Context, painter, id int64, version int, paints []string) error {
	was, err := s.Tube(ctx, painter, id)
	if err != nil {
		return err
	}
	if was.NotSure == "" {
		return input.Errorf("of this tube it is known which pigment it has")
	}
	var of []*paint.Paint
	for _, one := range paints {
		p, err := paint.Find(one)
		if err != nil {
			return err
		}
		of = append(of, p)
	}
	t, err := tubeNamed(paint.Named{Asked: was.NotSure}, of, paint.Artists)
	if err != nil {
		return err
	}
	t.TubeDetails = was.Details()
	t.NotSure = ""
	return s.store.SwapTube(ctx, painter, id, version, "found what "+was.Called()+" is", newTubes([]paint.Tube{t})[0])
}

// AddOwn puts a paint of a painter's own into a box.
func (s *Studio) AddOwn(ctx context.Context, painter int64, name, grade string, o paint.Origin) error {
	t, _, err := paint.Tube{Definition: paint.Definition{Name: name, Origin: &o}, TubeDetails: paint.TubeDetails{Grade: grade}}.Complete()
	if err != nil {
		return err
	}
	return s.addTubes(ctx, painter, "made "+t.Name, []paint.Tube{t})
}

// Import adds what an import plan adds: all, or nothing where rows are wrong. The
// error is then an input.Error.
func (s *Studio) Import(ctx context.Context, painter int64, plan ImportPlan) error {
	switch {
	case plan.Wrong == 1:
		return input.Errorf("Nothing was added: 1 row is wrong; mend it in the file, or leave out what is wrong.")
	case plan.Wrong > 1:
		return input.Errorf("Nothing was added: %d rows are wrong; mend them in the file, or leave out what is wrong.", plan.Wrong)
	case len(plan.Added) == 0:
		return input.Errorf("Nothing was added: every row was left out.")
	}
	return s.addTubes(ctx, painter, fmt.Sprintf("brought in %s from a file", CountPaints(len(plan.Added))), plan.Added)
}

func (s *Studio) addTubes(ctx context.Context, painter int64, summary string, tubes []paint.Tube) error {
	_, err := s.store.AddTubes(ctx, painter, summary, newTubes(tubes))
	return err
}

func newTubes(tubes []paint.Tube) (out []store.NewTube) {
	for _, t := range tubes {
		out = append(out, store.NewTube{Definition: t.Definition, Content: store.ContentOf(t.TubeDetails)})
	}
	return out
}

// SaveTube saves what is said of a tube, on the version it was made on; resolves
// names a refused version that this settles, or is 0.
func (s *Studio) SaveTube(ctx context.Context, painter, id int64, version int, d paint.TubeDetails, resolves int64) error {
	d, err := d.Check()
	if err != nil {
		return err
	}
	was, err := s.Tube(ctx, painter, id)
	if err != nil {
		return err
	}
	_, err = s.store.SaveTube(ctx, painter, id, version, changeInWords(was, d), store.ContentOf(d), resolves)
	return err
}

// changeInWords names a change for the undo.
func changeInWords(was Tube, now paint.TubeDetails) string {
	name := was.Called()
	before := was.Details()
	switch {
	case now.Archived && !before.Archived:
		return "archived " + name
	case !now.Archived && before.Archived:
		return "restored " + name
	case now.Nickname != before.Nickname:
		return "renamed " + name
	}
	return "changed " + name
}

// CountPaints is "1 paint", "3 paints".
func CountPaints(n int) string {
	if n == 1 {
		return "1 paint"
	}
	return fmt.Sprintf("%d paints", n)
}

// Called is what the painter calls the tube.
func (t Tube) Called() string {
	if t.Nickname != "" {
		return t.Nickname
	}
	return t.Paint.ShortName()
}
