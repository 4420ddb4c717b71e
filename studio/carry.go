package studio

import (
	"context"
	"fmt"
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

// Carried is a wheel out of a file, and what bringing it in does.
type Carried struct {
	Name   string
	Kind   wheel.SystemKind
	Medium paint.Medium
	Paints []CarriedPaint // in the order of the wheel
	refs   []string       // of each
	file   store.WheelFile
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
	out := store.WheelFile{Content: w.WheelContent, Tubes: map[string]store.CarriedTube{}}
	tubes, err := s.store.Tubes(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	takings, err := s.store.Takings(ctx, painter.ID)
	if err != nil {
		return nil, err
	}
	for ref := range w.Snapshot.Frozen {
		at := slices.IndexFunc(tubes, func(t store.Tube) bool { return TubeID(t.ID) == ref })
		if at < 0 {
			continue
		}
		t := &tubes[at]
		one := store.CarriedTube{Nickname: t.Nickname, Grade: t.Grade}
		if t.Learned != nil {
			one.Learned = learnedOf(t, takings)
		}
		out.Tubes[ref] = one
	}
	return out.Write()
}

// learnedOf is the strength of a tube as the last taking has it that stands.
func learnedOf(t *store.Tube, takings []store.Taking) *store.Learned {
	for _, taking := range takings { // the last one first
		for _, s := range taking.Strengths {
			if taking.UndoneAt == nil && s.TubeID == t.ID {
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
	if _, known := f.Tubes[""]; known || f.Content.Snapshot.System.Names(func(id string) bool {
		_, there := c.Snapshot.Frozen[id]
		return strings.HasPrefix(id, paint.TubePrefix) && !there
	}) {
		return out, input.Errorf("the file names a tube of which it says nothing: it is not whole")
	}
	out.Name, out.file, out.Kind = c.Name, f, c.Snapshot.System.Kind
	if out.Medium, err = paint.ParseMedium(c.Settings.Medium); err != nil {
		return out, input.Wrap(err)
	}
	for id, t := range c.Snapshot.Frozen {
		if !strings.HasPrefix(id, paint.TubePrefix) && t.Definition.Library != id {
			return out, input.Errorf("%s stands for another paint of the library in the file", input.Clip(id))
		}
	}
	system, err := c.Snapshot.System.System(s.finder(ctx, As(painter), &c, nil))
	if err != nil {
		return out, err
	}
	if _, err := s.content(ctx, painter, WheelContentOf(c), &c); err != nil {
		return out, err
	}
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	for _, p := range append(system.Paints(), riders(system)...) {
		if slices.Contains(out.refs, p.ID) {
			continue
		}
		one := CarriedPaint{Name: p.Name, Happens: OfLibrary}
		if strings.HasPrefix(p.ID, paint.TubePrefix) {
			if one, err = carriedTube(f, p, box); err != nil {
				return out, err
			}
		}
		out.refs, out.Paints = append(out.refs, p.ID), append(out.Paints, one)
	}
	return out, nil
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
func carriedTube(f store.WheelFile, p *paint.Paint, box Box) (out CarriedPaint, err error) {
	frozen, said := f.Content.Snapshot.Frozen[p.ID], f.Tubes[p.ID]
	t, of, err := paint.Tube{Definition: frozen.Definition, TubeDetails: paint.TubeDetails{Nickname: said.Nickname, Grade: said.Grade}}.Complete()
	if err != nil {
		return out, err
	}
	graded, err := t.Definition.Graded(p.ID, paint.Grade(t.Grade))
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

// Bring keeps a wheel that came in a file, its tubes with their strengths in the box: all or nothing. The
// error is an input.Error, or what the store answers.
func (s *Studio) Bring(ctx context.Context, painter store.Painter, c Carried) (store.Wheel, error) {
	var tubes []store.NewTube
	var learned []*store.TakenStrength
	var of []int
	for i := range c.Paints {
		p := &c.Paints[i]
		if p.Happens != Added {
			continue
		}
		var strength *store.TakenStrength
		if l := p.Learned; l != nil {
			strength = &store.TakenStrength{Was: p.was, Strength: l.Strength, Low: l.Low, High: l.High}
		}
		tubes, learned, of = append(tubes, p.new), append(learned, strength), append(of, i)
	}
	build := func(added []store.Tube) (store.WheelContent, error) {
		now := map[string]string{}
		for n, t := range added {
			now[c.refs[of[n]]] = TubeID(t.ID)
		}
		for i, p := range c.Paints {
			if p.Happens == Yours {
				now[c.refs[i]] = TubeID(p.tube)
			}
		}
		was := c.file.Content
		content := was
		content.Snapshot.System = was.Snapshot.System.With(func(id string) string {
			if to := now[id]; to != "" {
				return to
			}
			return id
		})
		content.Snapshot.Frozen = map[string]store.FrozenTube{}
		for id, t := range was.Snapshot.Frozen {
			if to := now[id]; to != "" {
				id = to
			}
			content.Snapshot.Frozen[id] = t
		}
		return s.content(ctx, painter, WheelContentOf(content), &content)
	}
	return s.store.BringWheel(ctx, painter.ID, fmt.Sprintf("brought in %s with %s", CountPaints(len(tubes)), c.Name), tubes, learned, c.Medium.ID, build)
}
