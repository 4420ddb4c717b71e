package wheel

import (
	"fmt"
	"math"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Order is the school by which a section is mixed.
type Order string

// A section is run from its weaker paint, adding the stronger to what one has;
// or its secondary is mixed first and parted for the tertiaries.
const (
	RunOn          Order = "run"
	SecondaryFirst Order = "secondary"
)

// Orders lists them.
var Orders = []Order{RunOn, SecondaryFirst}

// ParseOrder reads "run" or "secondary".
func ParseOrder(s string) (Order, error) {
	switch o := Order(s); o {
	case RunOn, SecondaryFirst:
		return o, nil
	}
	return "", input.Errorf("unknown order %q: choose run (from the weaker paint) or secondary (first, then parted)", s)
}

// Run is a section mixed in one go: Base parts of the weaker paint, then so
// many parts of the stronger added to what one has for each of its three inner
// slots in turn.
type Run struct {
	Weak, Strong *paint.Paint
	Base         int
	Add          [3]int
	Backward     bool // the run begins at the second primary
}

// mostBase is the most parts a run begins with.
const mostBase = 60

// RunOf finds the running parts of a section whose three steps lie on its path:
// the smallest whole numbers that bring each step within 0.02 OKLab of its
// place. ok is false where there are none, or a step has a third paint.
func (w *Wheel) RunOf(section int) (run Run, ok bool) {
	s := &w.Sections[section]
	if s.Empty() || s.Path.Indistinguishable() {
		return run, false
	}
	run.Weak, run.Strong = s.Path.Weaker(), s.B
	if run.Weak.ID == s.B.ID {
		run.Strong, run.Backward = s.A, true
	}
	var shares [3]float64 // of the stronger paint, rising
	for i := range shares {
		slot := w.At(4*section + 1 + i)
		if run.Backward {
			slot = w.At(4*section + 3 - i)
		}
		for _, p := range slot.Parts {
			if p.Paint.Of != nil {
				return run, false
			}
		}
		shares[i] = slot.Share
		if run.Backward {
			shares[i] = 1 - slot.Share
		}
	}
	weak, strong := run.Weak.Alone(), run.Strong.Alone()
	for run.Base = 1; run.Base <= mostBase; run.Base++ {
		have, fits := 0, true
		for i, t := range shares {
			upTo := max(have+1, int(math.Round(float64(run.Base)*t/(1-t))))
			got := paint.Between(&weak, &strong, float64(upTo)/float64(run.Base+upTo))
			want := paint.Between(&weak, &strong, t)
			if upTo > mostBase || got.BrushedOutColour().Distance(want.BrushedOutColour()) > recipe.NearEnough {
				fits = false
				break
			}
			run.Add[i], have = upTo-have, upTo
		}
		if fits {
			return run, true
		}
	}
	return run, false
}

// Mixing tells in order how to mix a slot, by a school.
func (w *Wheel) Mixing(index int, order Order) []string {
	slot := &w.Slots[index]
	if slot.Empty {
		return nil
	}
	k, step := slot.Home/4, slot.Home%4
	s := &w.Sections[k]
	if slot.Kind == Primary {
		if slot.Parts[0].Paint.Of != nil {
			of := slot.Parts[0].Paint.Of
			return []string{fmt.Sprintf("Raise the %s with white: %v of it to %v of white.", of[0].Paint.ShortName(), of[0].Parts, of[1].Parts)}
		}
		return recipe.Straight(slot.Parts[0].Paint)
	}
	for i, p := range slot.Parts {
		if p.Paint.Of != nil && p.Paint.Making == paint.Stirred && p.Paint.ID == w.At(4*k+2).Name {
			other := slot.Parts[1-i]
			return []string{
				fmt.Sprintf("Take %s of the %s you mixed.", recipe.Count(p.Parts), p.Paint.Name),
				fmt.Sprintf("Add %s of the %s a trace at a time.", recipe.Count(other.Parts), other.Paint.ShortName()),
			}
		}
	}
	if order == SecondaryFirst {
		if step == 2 {
			return append(s.Path.Mixing(slot.Ratio), "Part it in three: one for this slot, one for each slot beside it.")
		}
		return w.parted(k, step)
	}
	run, ok := w.RunOf(k)
	if !ok {
		return s.Path.Mixing(slot.Ratio)
	}
	at := step - 1
	if run.Backward {
		at = 3 - step
	}
	if at == 0 {
		return []string{
			fmt.Sprintf("Begin the run: lay out %s of the %s, the weaker paint.", recipe.Count(float64(run.Base)), run.Weak.ShortName()),
			fmt.Sprintf("Add %s of the %s, a trace at a time.", recipe.Count(float64(run.Add[0])), run.Strong.ShortName()),
			s.caution(run),
		}
	}
	before := w.At(4*k + at)
	if run.Backward {
		before = w.At(4*k + 4 - at)
	}
	have := 0
	for i := range at {
		have += run.Add[i]
	}
	return []string{
		fmt.Sprintf("Run on from the %s: add %d of the %s to what you have, %d to %d.", before.Name, run.Add[at], run.Strong.ShortName(), run.Base, have),
		fmt.Sprintf("That makes %d of the %s to %d of the %s, as long as nothing was taken away.", run.Base, run.Weak.ShortName(), have+run.Add[at], run.Strong.ShortName()),
		s.caution(run),
	}
}

// caution says what to add when a step of a run has gone to one side.
func (s *Section) caution(run Run) string {
	return recipe.ToTaste(recipe.Ingredient{Paint: run.Weak}, recipe.Ingredient{Paint: run.Strong})
}

// parted makes a tertiary from the secondary and the primary beside it.
func (w *Wheel) parted(section, step int) []string {
	s := &w.Sections[section]
	secondary, slot := w.At(4*section+2), w.At(4*section+step)
	primary := s.A
	if step == 3 {
		primary = s.B
	}
	p := primary.Alone()
	parts, _ := recipe.Search{Share: 0.5, High: 1, Off: func(share float64) float64 {
		m := paint.Between(&secondary.Mixture, &p, share)
		return m.BrushedOutColour().Distance(slot.Brushed)
	}}.Ratio()
	return []string{
		fmt.Sprintf("Take a third of the %s you mixed.", secondary.Name),
		fmt.Sprintf("To every %s of it add %s of the %s.", recipe.Count(float64(parts[0])), recipe.Count(float64(parts[1])), primary.ShortName()),
	}
}

// Bridge is what evens the largest jump of a wheel: a recipe half way between
// the two slots, by contrast.
type Bridge struct {
	From, To int // slots
	Jump     float64
	Recipe   path.Ratio
	Mixture  paint.Mixture
}

// BridgeJump finds the largest jump between slots of one section, and the recipe that
// stands half way in it.
func (w *Wheel) BridgeJump() (Bridge, bool) {
	at := -1
	for i := range w.Slots {
		if s := &w.Slots[i]; !s.Empty && s.Jumps && (at < 0 || s.Jump > w.Slots[at].Jump) {
			at = i
		}
	}
	if at < 0 {
		return Bridge{}, false
	}
	next := (at + 1) % 12
	for w.Slots[next].Empty {
		next = (next + 1) % 12
	}
	a, b := w.SlotPaint(at), w.SlotPaint(next)
	if len(w.Slots[next].Halves) == 2 && !w.CCW {
		b = w.Slots[next].Halves[0].Parts[0].Paint
	}
	if len(w.Slots[at].Halves) == 2 && w.CCW {
		a = w.Slots[at].Halves[0].Parts[0].Paint
	}
	if a == nil || b == nil || a.ID == b.ID {
		return Bridge{}, false
	}
	step := path.New(a, b).Middle(path.ByContrast)
	return Bridge{From: at, To: next, Jump: w.Slots[at].Jump, Recipe: step.Ratio, Mixture: step.Mixture}, true
}
