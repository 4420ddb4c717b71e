package certainty

import (
	"fmt"
	"runtime"
	"sync"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Confidence is what is said of how far a recipe of two paints, and the verdict on it, can be trusted.
type Confidence struct {
	Sure    Sureness
	Could   []paint.Verdict // that it could turn out as; the one that is shown where it is sure or likely
	A, B    *paint.Paint
	Of      [2]Doubt // what is not known of either
	Range   Range
	Doubted bool    // the parts differ between tubes, so that there is a range
	Known   float64 // how far the parts are known, as a share
	Begin   Ratio   // of the range the end with the most of the weaker paint, its paints in the order of the recipe
	Other   Ratio   // the end that one creeps toward
	LetDown bool    // Begin and Other count the stronger paint let down, as its recipe does
	creepsA bool    // the first paint is the stronger one, which is crept in
}

func confidenceIn(p *path.Path, s *Step, shown paint.Verdict, r recipe.Recipe, doubt Doubts) *Confidence {
	out := &Confidence{A: p.A, B: p.B, Of: [2]Doubt{doubt(p.A), doubt(p.B)}, Known: s.Known()}
	out.Sure, out.Could = s.Verdict(shown)
	out.Range, out.Doubted = s.Range(ratioOf(p, r))
	out.creepsA = p.Weaker() == p.B
	out.countIn(r)
	return out
}

// countIn counts the ends as a recipe does: its first paint first and, where one is let down in the other, in parts of the let-down.
func (t *Confidence) countIn(r recipe.Recipe) {
	if t.Begin, t.Other, t.LetDown = t.Range.Less, t.Range.More, false; t.creepsA {
		t.Begin, t.Other = t.Other, t.Begin
	}
	for _, i := range r {
		if begin, ok := t.Begin.letDown(i, t.A, t.B); t.Doubted && ok {
			if other, ok := t.Other.letDown(i, t.A, t.B); ok {
				t.Begin, t.Other, t.LetDown = begin, other, true
			}
		}
	}
	if len(r) > 0 && r[0].Paint == t.B {
		t.Begin, t.Other = Ratio{t.Begin[1], t.Begin[0]}, Ratio{t.Other[1], t.Other[0]}
	}
}

// Parts says what most tubes ask for and where to begin: "7 : 1 to 18 : 1: begin with 18 : 1 and creep", "17 : 1 to 54 : 1 of the
// let-down: begin with 54 : 1 and creep"; empty where nothing is in doubt.
func (t *Confidence) Parts() string {
	if !t.Doubted {
		return ""
	}
	of := ""
	if t.LetDown {
		of = " of the let-down"
	}
	return fmt.Sprintf("%s to %s%s: begin with %s and creep", t.Other, t.Begin, of, t.Begin)
}

// Verdict says what it could turn out as, in words; empty where it is sure or likely.
func (t *Confidence) Verdict() string {
	if len(t.Could) < 2 {
		return ""
	}
	return fmt.Sprintf("could turn out %s or %s", t.Could[0], t.Could[1])
}

// OfPath is what is said of the middle of a path, of which a verdict and a recipe are shown; nil where its paints are no
// different.
func OfPath(p *path.Path, s path.Spacing, shown paint.Verdict, r recipe.Recipe, doubt Doubts) *Confidence {
	if p.Indistinguishable() {
		return nil
	}
	at := Steps(p, s, doubt, HalfWay)
	return confidenceIn(p, &at[0], shown, r, doubt)
}

// OfSteps is what is said of the inner steps of a path, as many as it has; nil where its paints are no different.
func OfSteps(p *path.Path, s path.Spacing, shown []path.Step, doubt Doubts) []*Confidence {
	out := make([]*Confidence, len(shown))
	if p.Indistinguishable() {
		return out
	}
	at := make([]Position, len(shown))
	for i := range at {
		at[i].Along = float64(i+1) / float64(len(shown)+1)
	}
	for i, one := range Steps(p, s, doubt, at...) {
		out[i] = confidenceIn(p, &one, shown[i].Under.Verdict, shown[i].Parts, doubt)
	}
	return out
}

// OfPairs is what is said of the middle of each of some pairings; nil of one whose paints are no different.
func OfPairs(pairings []path.Pairing, s path.Spacing, doubt Doubts) []*Confidence {
	out := make([]*Confidence, len(pairings))
	var working errgroup.Group
	working.SetLimit(runtime.GOMAXPROCS(0))
	for i := range pairings {
		working.Go(func() error {
			p := &pairings[i]
			out[i] = OfPath(p.Path, s, p.Middle.Under.Verdict, p.Middle.Parts, doubt)
			return nil
		})
	}
	if err := working.Wait(); err != nil {
		panic(err) // none fails
	}
	return out
}

// OfWheel is what is said of each slot of a wheel, by its index; nil for what is empty, or mixed of no two.
func OfWheel(w *wheel.Wheel, doubt Doubts) (out [12]*Confidence) {
	for k := range 3 {
		if slot := w.At(4 * k); !slot.Empty {
			out[slot.Index] = OfPaint(slot.Parts[0].Paint, doubt)
		}
	}
	var working sync.WaitGroup
	for k := range w.Sections {
		working.Go(func() { ofSection(w, k, doubt, &out) })
	}
	working.Wait()
	return out
}

// ofSection is what is said of the three slots of a section: each section writes its own.
func ofSection(w *wheel.Wheel, k int, doubt Doubts, out *[12]*Confidence) {
	s := &w.Sections[k]
	if s.Empty() || s.Path.Indistinguishable() {
		return
	}
	var slots []*wheel.Slot
	var at []Position
	for step := 1; step <= 3; step++ {
		slot := w.At(4*k + step)
		switch {
		case slot.Empty || len(slot.Parts) != 2:
			continue
		case slot.Parts[0].Paint != s.A || slot.Parts[1].Paint != s.B: // half way to a secondary that is stirred first
			p := path.New(slot.Parts[0].Paint, slot.Parts[1].Paint)
			out[slot.Index] = OfPath(p, w.Spacing, slot.Under.Verdict, slot.Parts, doubt)
			continue
		}
		slots, at = append(slots, slot), append(at, Position{Step: step, ByArc: s.ByArc})
	}
	if len(at) == 0 {
		return
	}
	for i, one := range Steps(s.Path, w.Spacing, doubt, at...) {
		out[slots[i].Index] = confidenceIn(s.Path, &one, slots[i].Under.Verdict, slots[i].Parts, doubt)
	}
}
