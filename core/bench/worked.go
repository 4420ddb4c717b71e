package bench

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"

	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// plannerVersion is changed whenever the same sheet would be put in another order than before.
const plannerVersion = 2

// Move is a region painted with a brush.
type Move struct {
	Region int
	Brush  int // 1 or 2
}

// Worked is the order of a plan with what it took long to find out; all else of the plan is
// worked out from it at once.
type Worked struct {
	Fill                  Fill
	Why                   string
	Moves                 []Move
	Low                   int
	Proved                bool
	RoundTheWheel, ByKind Baseline
	Asked                 int
	Late                  string
}

// Worked is what it took long to find out.
func (out *Plan) Worked() Worked {
	w := Worked{Fill: out.Fill, Why: out.Why, Low: out.Low, Proved: out.Proved, RoundTheWheel: out.RoundTheWheel, ByKind: out.ByKind, Asked: out.Asked, Late: out.Late}
	for _, a := range out.Actions {
		if a.Kind == Paint {
			w.Moves = append(w.Moves, Move{a.Region, a.Brush})
		}
	}
	return w
}

// Again is the plan that was worked out before for the same sheet and settings: those of the
// same Key. It fails where they are not the same.
func Again(s *Sheet, set Settings, of Worked) (*Plan, error) {
	set, err := set.Complete()
	if err != nil {
		return nil, err
	}
	out := &Plan{Sheet: s, Settings: set, Fill: of.Fill, Why: of.Why, Low: of.Low, Proved: of.Proved, RoundTheWheel: of.RoundTheWheel, ByKind: of.ByKind, Asked: of.Asked, Late: of.Late}
	out.count()
	p, err := newProblem(s, set, of.Fill, regions{}, out.Counted, nil)
	if err != nil {
		return nil, err
	}
	at := p.begin()
	for _, m := range of.Moves {
		if m.Region < 0 || m.Region >= len(s.Regions) || m.Brush < 1 || m.Brush > set.Brushes {
			return nil, fmt.Errorf("the order is of another sheet")
		}
		next, ok := p.try(at, m.Region, m.Brush-1, p.open(at))
		if !ok {
			return nil, fmt.Errorf("the order is of another sheet")
		}
		at = p.after(at, next)
	}
	if len(of.Moves) != len(s.Regions) {
		return nil, fmt.Errorf("the order is of another sheet")
	}
	out.Minutes, out.Washes = cost{at.t, at.washes}.whole(), at.washes
	for _, m := range of.Moves {
		out.Order = append(out.Order, m.Region)
	}
	out.act(p, at)
	return out, nil
}

// Key tells a sheet with its settings from all others that are planned otherwise: the same
// places, recipes of the same paints, and settings. 64 hexadecimal digits.
func Key(s *Sheet, set Settings) string {
	h := sha256.New()
	fmt.Fprintf(h, "%d %s %g %g %g %v\n%+v\n", plannerVersion, s.Kind, s.W, s.H, s.Inner, s.Rings, set)
	seen := map[*paint.Paint]bool{}
	for i := range s.Regions {
		r := &s.Regions[i]
		fmt.Fprintf(h, "%q %q %g %d %d %v %t %d %d %g %v %v %t\n", r.ID, r.Label, r.Film, r.Home, r.Index, r.Kind, r.Main, r.Section, r.Step, r.Share, r.Shape, r.Touches, r.Graded)
		if len(r.Beneath) > 0 || r.InSight != (Shape{}) {
			fmt.Fprintf(h, "over %v %v\n", r.Beneath, r.InSight)
		}
		hashed(h, r.Recipe, seen)
	}
	for k := range s.ways {
		if a, b := s.Ends(k); a != nil {
			fmt.Fprintf(h, "%d %q %q\n", k, a.ID, b.ID)
		}
	}
	return hex.EncodeToString(h.Sum(nil))
}

// hashed writes a recipe down, each paint with what it looks like the first time.
func hashed(h io.Writer, r recipe.Recipe, seen map[*paint.Paint]bool) {
	for _, i := range r {
		fmt.Fprintf(h, "%q %g %d\n", i.Paint.ID, i.Parts, i.Thin)
		for _, p := range []*paint.Paint{i.Paint, i.In} {
			if p == nil || seen[p] {
				continue
			}
			seen[p] = true
			m := p.Alone()
			fmt.Fprintf(h, "%q %q %v %v\n", p.ID, p.Hiding, m.Masstone(), m.BrushedOut())
		}
		if len(i.Paint.Of) > 0 {
			hashed(h, recipe.Of(i.Paint.Of), seen)
		}
	}
}

// Mark tells in short the order and the recipes of a plan that a painter holds on paper from
// those of another: six hexadecimal digits.
func (out *Plan) Mark() string {
	h := sha256.New()
	fmt.Fprintf(h, "%s %s\n", out.Fill, out.Settings.Scale.Measure)
	for _, i := range out.Order {
		r := &out.Sheet.Regions[i]
		fmt.Fprintf(h, "%q %s\n", r.ID, r.Recipe)
	}
	return hex.EncodeToString(h.Sum(nil))[:6]
}
