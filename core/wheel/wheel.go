// Package wheel builds the twelve-step colour wheel of a primary system from
// its paints.
package wheel

import (
	_ "embed"
	"fmt"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/internal/table"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Roles are the places of a triad in the order of the wheel.
var Roles = [3]bias.Role{"yellow", "red", "blue"}

// System is a triad: one paint in each of the three roles.
type System struct{ primaries [3]*paint.Paint }

// Triad makes a system of a yellow, a red and a blue. Any coloured paint may
// play a role; a white or black has no hue to give, and a paint cannot be its
// own partner.
func Triad(yellow, red, blue *paint.Paint) (System, error) {
	s := System{[3]*paint.Paint{yellow, red, blue}}
	for i, p := range s.primaries {
		if m := p.Alone(); m.Neutral() {
			return System{}, fmt.Errorf("%s (%s) cannot be the %s: it has no hue of its own; choose a coloured paint", p.ID, p.Name, Roles[i])
		}
		for j := range i {
			if s.primaries[j].ID == p.ID {
				return System{}, fmt.Errorf("%s cannot be both the %s and the %s: choose two different paints", p.ID, Roles[j], Roles[i])
			}
		}
	}
	return s, nil
}

// Primaries are the paints in the order of Roles.
func (s System) Primaries() [3]*paint.Paint { return s.primaries }

// Kind is what stands in a slot.
type Kind uint8

// A primary is a paint as it comes; the secondary stands half way to the next,
// the tertiaries beside it.
const (
	Primary Kind = iota
	Secondary
	Tertiary
)

var kindNames = [...]string{"primary", "secondary", "tertiary"}

// String is the word for the kind.
func (k Kind) String() string { return kindNames[k] }

// Slot is one twelfth of the wheel.
type Slot struct {
	Index int // 0 on top, clockwise
	Name  string
	Kind  Kind
	path.Step
	Jump  float64 // OKLab distance of brushed-out colours to the next slot
	Jumps bool    // whether that is a jump: over 1.6 times the median, and over 0.06
}

// Complement is the index of the slot across the wheel.
func (s Slot) Complement() int { return (s.Index + 6) % 12 }

// Wheel is a system's twelve slots, and the paths that fill its sections.
type Wheel struct {
	System   System
	Spacing  path.Spacing
	Slots    [12]Slot
	Sections [3]*path.Path // from primary k to the next
	Median   float64       // of the twelve jumps
}

//go:embed data/names.csv
var namesCSV string

// names are the painters' slot names, tertiaries with the primary first.
var names = [12]string(table.Rows(namesCSV)[0][1:])

const (
	jumpFactor = 1.6
	leastJump  = 0.06
)

// Build works the wheel out.
func Build(s System, spacing path.Spacing) *Wheel {
	w := &Wheel{System: s, Spacing: spacing}
	for k := range w.Sections {
		from := s.primaries[k]
		w.Sections[k] = path.New(from, s.primaries[(k+1)%3])
		w.Slots[4*k] = Slot{Step: alone(from)}
		for i, step := range w.Sections[k].Steps(3, spacing) {
			kind := Tertiary
			if i == 1 {
				kind = Secondary
			}
			w.Slots[4*k+1+i] = Slot{Kind: kind, Step: step}
		}
	}
	var jumps []float64
	for i := range w.Slots {
		slot := &w.Slots[i]
		slot.Index, slot.Name = i, names[i]
		slot.Jump = slot.Brushed.Distance(w.Slots[(i+1)%12].Brushed)
		jumps = append(jumps, slot.Jump)
	}
	slices.Sort(jumps)
	w.Median = (jumps[5] + jumps[6]) / 2
	for i := range w.Slots {
		w.Slots[i].Jumps = w.Slots[i].Jump > max(jumpFactor*w.Median, leastJump)
	}
	return w
}

func alone(p *paint.Paint) path.Step {
	m := p.Alone()
	return path.Step{
		Recipe:  path.Recipe{Parts: []path.Ingredient{{Paint: p, Parts: 1}}},
		Mixture: m, Under: m.Undertone(), Brushed: m.Brushed(),
	}
}

// Because explains a slot's verdict in a painter's words.
func (w *Wheel) Because(slot int) string {
	k := slot / 4
	s := w.Sections[k]
	if slot%4 == 0 {
		return bias.Alone(s.A)
	}
	if s.NoDifferent() {
		return fmt.Sprintf("The %s and the %s are no different: there is nothing to step through.", bias.ShortName(s.A), bias.ShortName(s.B))
	}
	return bias.Because(s.A, s.B, Roles[k], Roles[(k+1)%3], &w.Slots[slot].Mixture)
}

// Lowest is the least retention between a section's first and last inner step.
func (w *Wheel) Lowest(section int) float64 {
	return w.Sections[section].Lowest(w.Slots[4*section+1].Share, w.Slots[4*section+3].Share)
}
