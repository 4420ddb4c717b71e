package studio

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// What becomes of a paint of a wheel that is brought in from a file.
const (
	OfLibrary = "library" // everybody has it
	Yours     = "yours"   // a tube of the box is the same
	Added     = "added"   // it is put into the box
)

// CarriedPaint is a paint of a wheel that is brought in.
type CarriedPaint struct {
	Name    string
	Happens string
	Learned *store.Learned // its strength, where that was learned; nil else
	tube    int64          // of the box, where it is there
	new     store.NewTube
	was     float64 // its strength by its grade
}

// Carried is a wheel or a sitting out of a file, and what bringing it in does.
type Carried struct {
	Name     string
	Kind     wheel.SystemKind // of a wheel
	Medium   paint.Medium
	Paints   []CarriedPaint // in the order in which they are met
	Told     int            // of a sitting
	Readings int
	refs     []string // of each paint
	wheel    store.WheelFile
	sitting  store.SittingFile
}

// Adds is how many paints it puts into the box.
func (c *Carried) Adds() (n int) {
	for i := range c.Paints {
		if c.Paints[i].Happens == Added {
			n++
		}
	}
	return n
}

// WheelFile is a kept wheel as one file that another painter opens, with the paints that it needs.
func (s *Studio) WheelFile(ctx context.Context, painter store.Painter, id int64) ([]byte, error) {
	w, _, err := s.KeptSystem(ctx, painter, id)
	if err != nil {
		return nil, err
	}
	said, err := s.saidOf(ctx, painter, w.Snapshot.Frozen)
	if err != nil {
		return nil, err
	}
	return store.WheelFile{Content: w.WheelContent, Tubes: said}.Write()
}

// SittingFile is a sitting as one file that another painter opens, with the paints that it needs.
func (s *Studio) SittingFile(ctx context.Context, painter store.Painter, id int64) ([]byte, error) {
	kept, _, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return nil, err
	}
	said, err := s.saidOf(ctx, painter, kept.Plan.Paints)
	if err != nil {
		return nil, err
	}
	return s.store.SittingFile(ctx, painter.ID, id, said)
}

// saidOf is what is said of those paints that are tubes of the painter's.
func (s *Studio) saidOf(ctx context.Context, painter store.Painter, paints map[string]store.FrozenTube) (map[string]store.CarriedTube, error) {
	out := map[string]store.CarriedTube{}
	tubes, err := s.store.Tubes(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	takings, err := s.store.Takings(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	for ref := range paints {
		at := slices.IndexFunc(tubes, func(t store.Tube) bool { return paint.TubeID(t.ID) == ref })
		if at < 0 {
			continue
		}
		t := &tubes[at]
		one := store.CarriedTube{Nickname: t.Nickname, Grade: t.Grade}
		if t.Learned != nil {
			one.Learned = learnedOf(t, takings)
		}
		out[ref] = one
	}
	return out, nil
}

// learnedOf is the strength of a tube as the last taking has it that stands.
func learnedOf(t *store.Tube, takings []store.Taking) *store.Learned {
	for _, taking := range takings { // the last one first
		for _, s := range taking.Strengths {
			if taking.UndoneAt == nil && s.TubeID == t.ID && !s.Kept {
				return &store.Learned{Strength: *t.Learned, Low: s.Low, High: s.High}
			}
		}
	}
	return &store.Learned{Strength: *t.Learned, Low: *t.Learned, High: *t.Learned}
}

// ReadWheelFile reads a wheel out of a file and says what bringing it in would do. The error is an input.Error.
func (s *Studio) ReadWheelFile(ctx context.Context, painter store.Painter, data []byte) (out Carried, err error) {
	f, err := store.ReadWheelFile(data)
	if err != nil {
		return out, err
	}
	c := f.Content
	out.Name, out.wheel, out.Kind = c.Name, f, c.Snapshot.System.Kind
	if out.Medium, err = paint.ParseMedium(c.Settings.Medium); err != nil {
		return out, input.Wrap(err)
	}
	if err := s.checkContent(ctx, painter, c); err != nil {
		return out, err
	}
	system, err := c.Snapshot.System.System(s.finder(ctx, As(painter), &c, nil))
	if err != nil {
		return out, err
	}
	return out, s.findTubes(ctx, painter, &out, append(system.Paints(), riders(system)...), c.Snapshot.Frozen, f.Tubes)
}

// ReadSittingFile reads a sitting out of a file and says what bringing it in would do. The error is an input.Error.
func (s *Studio) ReadSittingFile(ctx context.Context, painter store.Painter, data []byte) (out Carried, err error) {
	f, err := store.ReadSittingFile(data)
	if err != nil {
		return out, err
	}
	if err := checkSitting(&f.Sitting); err != nil {
		return out, err
	}
	plan, err := thaw(f.Sitting.Plan)
	if err != nil {
		return out, err
	}
	out = Carried{Name: f.Sitting.Name, Medium: plan.Settings.Medium, Told: len(f.Sitting.Events), Readings: len(f.Sitting.Readings), sitting: f}
	var paints []*paint.Paint
	for _, id := range slices.Sorted(maps.Keys(f.Sitting.Plan.Paints)) {
		one := f.Sitting.Plan.Paints[id]
		p, err := one.Definition.Paint(id, one.Strength)
		if err != nil {
			return out, err
		}
		paints = append(paints, p)
	}
	return out, s.findTubes(ctx, painter, &out, paints, f.Sitting.Plan.Paints, f.Tubes)
}

// findTubes says of each paint that came in a file whether it is here.
func (s *Studio) findTubes(ctx context.Context, painter store.Painter, c *Carried, paints []*paint.Paint, frozen map[string]store.FrozenTube, said map[string]store.CarriedTube) error {
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return err
	}
	for _, p := range paints {
		if slices.Contains(c.refs, p.ID) {
			continue
		}
		one := CarriedPaint{Name: p.Name, Happens: OfLibrary}
		if strings.HasPrefix(p.ID, paint.TubePrefix) {
			if one, err = carriedTube(p.ID, frozen[p.ID], said[p.ID], box); err != nil {
				return err
			}
		}
		c.refs, c.Paints = append(c.refs, p.ID), append(c.Paints, one)
	}
	return nil
}

// riders are the paints that ride along in a system.
func riders(system wheel.System) (out []*paint.Paint) {
	for _, r := range wheel.Riders {
		if p := system.Rider(r); p != nil {
			out = append(out, p)
		}
	}
	return out
}

// alike is how far two strengths may be apart that are the same.
const alike = 0.005

// carriedTube is a tube of a file, which may be in the box already.
func carriedTube(id string, frozen store.FrozenTube, said store.CarriedTube, box Box) (out CarriedPaint, err error) {
	t, of, err := paint.Tube{Definition: frozen.Definition, TubeDetails: paint.TubeDetails{Nickname: said.Nickname, Grade: said.Grade}}.Complete()
	if err != nil {
		return out, err
	}
	graded, err := t.Definition.Graded(id, paint.Grade(t.Grade))
	if err != nil {
		return out, err
	}
	out = CarriedPaint{Name: t.Nickname, Happens: Added, was: graded.Strength(), new: store.NewTube{Definition: t.Definition, Content: store.ContentOf(t.TubeDetails)}}
	if out.Name == "" {
		out.Name = of.Name
	}
	strength := graded.Strength()
	if l := said.Learned; l != nil {
		if !(l.Low > 0 && l.Low <= l.Strength && l.Strength <= l.High && l.Strength == paint.BoundedStrength(l.Strength)) || math.IsInf(l.High, 1) {
			return out, input.Errorf("%s: a strength of %v, from %v to %v, cannot be", input.Clip(out.Name), l.Strength, l.Low, l.High)
		}
		out.Learned, strength = l, l.Strength
	}
	for _, mine := range box.Tubes {
		if reflect.DeepEqual(mine.Definition, t.Definition) && math.Abs(mine.Paint.Strength()-strength) < alike {
			out.Happens, out.tube = Yours, mine.ID
			break
		}
	}
	return out, nil
}

// tubes are those that are put into the box, and of which paint each is.
func (c *Carried) tubes() (out store.BroughtTubes, of []int) {
	for i := range c.Paints {
		p := &c.Paints[i]
		if p.Happens != Added {
			continue
		}
		var strength *store.TakenStrength
		if l := p.Learned; l != nil {
			strength = &store.TakenStrength{Was: p.was, Strength: l.Strength, Low: l.Low, High: l.High}
		}
		out.Tubes, out.Learned, of = append(out.Tubes, p.new), append(out.Learned, strength), append(of, i)
	}
	out.Summary, out.Medium = fmt.Sprintf("brought in %s with %s", CountPaints(len(out.Tubes)), c.Name), c.Medium.ID
	return out, of
}

// here are the ids that the tubes of the file have here, once some were put into the box.
func (c *Carried) here(added []store.Tube, of []int) map[string]string {
	out := map[string]string{}
	for n, t := range added {
		out[c.refs[of[n]]] = paint.TubeID(t.ID)
	}
	for i, p := range c.Paints {
		if p.Happens == Yours {
			out[c.refs[i]] = paint.TubeID(p.tube)
		}
	}
	return out
}

// BringWheel keeps a wheel that came in a file, its tubes with their strengths in the box: all or nothing. The
// error is an input.Error, or what the store answers.
func (s *Studio) BringWheel(ctx context.Context, painter store.Painter, c Carried) (store.Wheel, error) {
	tubes, of := c.tubes()
	return s.store.BringWheel(ctx, painter.ID, tubes, func(added []store.Tube) (store.WheelContent, error) {
		now := c.here(added, of)
		content := c.wheel.Content
		content.Snapshot = content.Snapshot.With(func(id string) string { return cmp.Or(now[id], id) })
		return s.content(ctx, painter, WheelContentOf(content), &content)
	})
}

// BringSitting keeps a sitting that came in a file, its tubes with their strengths in the box: all or nothing. The
// error is an input.Error, or what the store answers.
func (s *Studio) BringSitting(ctx context.Context, painter store.Painter, c Carried) (store.Sitting, error) {
	tubes, of := c.tubes()
	refs := func(added []store.Tube) map[string]string { return c.here(added, of) }
	return s.store.BringSitting(ctx, painter.ID, &c.sitting.Sitting, tubes, refs, store.RestoreHow{Ended: overNow})
}
