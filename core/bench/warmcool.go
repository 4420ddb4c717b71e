package bench

import (
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// block is one row of a sheet in blocks: paints as they come in the margin, and what is mixed of them.
type block struct{ parents, cells int }

// Sizes of a sheet in blocks, in mm.
const (
	marginCell = 22.0 // a paint in the margin
	marginGap  = 2.0
	blockCell  = 32.0
	blockTall  = 20.0
	blockFlat  = 17.0 // where the paints of a block stand above it
)

// WarmCool is the sheet of warm and cool paints: what two roles make halfway, in rows all warm, all cool
// and the two mixed ways, in columns by section, each paint once beside it. A system without a warm and a
// cool paint in each of its roles has a row for each of its pairings instead. Halfway is where
// a secondary lies, in the spacing that is asked for. The error is an input.Error.
func WarmCool(system wheel.System, school bias.School, spacing path.Spacing) (s Sheet, err error) {
	if warm, cool, ok := byTemperature(system, school); ok {
		s.warmCool(system.Kind, warm, cool, spacing)
		return s, nil
	}
	couples := system.Allowed()
	if len(couples) == 0 {
		return s, input.Errorf("this system has no pairings to paint")
	}
	if most := MostRegions / rowOfPairing; len(couples) > most {
		return s, input.Errorf("%d pairings are too many for a sheet of rows: %d at the most", len(couples), most)
	}
	s.Kind, s.Title = WarmCoolSheet, "by pairing"
	for _, p := range path.PairAll(couples, spacing) {
		s.pairingRow(&p, spacing)
	}
	s.Lay(RowWidth)
	return s, nil
}

// byTemperature are the warm and the cool paint of each role, where each has one of both.
func byTemperature(system wheel.System, school bias.School) (warm, cool [3]*paint.Paint, ok bool) {
	for k := range 3 {
		paints := system.Role(k)
		if len(paints) != 2 {
			return warm, cool, false
		}
		for _, p := range paints {
			switch bias.Temperature(p, school) {
			case "warm":
				warm[k] = p
			case "cool":
				cool[k] = p
			}
		}
		if warm[k] == nil || cool[k] == nil {
			return warm, cool, false
		}
	}
	return warm, cool, true
}

func (s *Sheet) warmCool(kind wheel.SystemKind, warm, cool [3]*paint.Paint, spacing path.Spacing) {
	s.Kind, s.Title = WarmCoolSheet, "warm and cool"
	roles, sections := kind.Roles(), wheel.SecondaryNames(kind)
	for _, row := range []struct {
		name    string
		a, b    [3]*paint.Paint // of the role that a section begins with, and of the next
		parents bool
	}{
		{"warm", warm, warm, true}, {"cool", cool, cool, true},
		{"warm with cool", warm, cool, false}, {"cool with warm", cool, warm, false},
	} {
		of := block{cells: 3}
		for k := range 3 {
			if row.parents {
				s.parent(row.name+"/"+string(roles[k]), row.a[k])
				of.parents++
			}
		}
		for k := range 3 {
			next := (k + 1) % 3
			p := path.Couple{A: row.a[k], B: row.b[next], RoleA: roles[k], RoleB: roles[next]}.Pair(spacing)
			s.halfway(fmt.Sprintf("%s/%s", row.name, sections[k]), fmt.Sprintf("%s, %s", sections[k], row.name), &p.Middle)
		}
		s.blocks = append(s.blocks, of)
	}
	s.Lay(RowWidth)
}

// rowOfPairing is how many places a row has: two paints, and three steps between them.
const rowOfPairing = 5

func (s *Sheet) pairingRow(p *path.Pairing, spacing path.Spacing) {
	name := p.A.Code() + " with " + p.B.Code()
	s.parent(name+"/"+p.A.ID, p.A)
	s.parent(name+"/"+p.B.ID, p.B)
	for i, step := range p.Path.Steps(3, spacing) {
		label := []string{"nearer " + p.A.Code(), "halfway", "nearer " + p.B.Code()}[i]
		s.halfway(fmt.Sprintf("%s/%d", name, i+1), label, &step)
	}
	s.blocks = append(s.blocks, block{parents: 2, cells: 3})
}

// parent adds a paint as it comes.
func (s *Sheet) parent(id string, p *paint.Paint) {
	s.add(Region{ID: id, Label: p.ShortName(), Home: -1, Index: len(s.Regions), Kind: wheel.Primary, Main: true, Section: -1}, recipe.Pure(p), p.Alone())
}

// halfway adds a step between two paints.
func (s *Sheet) halfway(id, label string, of *path.Step) {
	s.add(Region{ID: id, Label: label, Home: -1, Index: len(s.Regions), Kind: wheel.Secondary, Main: true, Section: -1, Share: of.Share, Verdict: of.Under.Verdict}, of.Parts, of.Mixture)
}

// layBlocks places a sheet in blocks within a width in mm: paints at the left of what is mixed of them or,
// where that has no room, above it.
func (s *Sheet) layBlocks(width float64) {
	margins := 0.0
	for _, b := range s.blocks {
		margins = max(margins, float64(b.parents)*(marginCell+marginGap))
	}
	cells := 3*(blockCell+gap) - gap
	beside := margins+gap+cells <= width
	tall := blockTall
	if !beside {
		tall = blockFlat
	}
	i, y := 0, 0.0
	s.W = 0
	put := func(n int, x, w, step float64) {
		for range n {
			r := &s.Regions[i]
			r.Shape, r.Touches = Shape{X: x, Y: y, W: w, H: tall}, nil
			s.W, s.H = max(s.W, x+w), y+tall
			x += step
			i++
		}
	}
	for _, b := range s.blocks {
		left := 0.0
		if beside {
			put(b.parents, 0, marginCell, marginCell+marginGap)
			left = margins + gap
		} else if b.parents > 0 {
			put(b.parents, 0, blockCell, blockCell+gap)
			y += tall + Beneath
		}
		put(b.cells, left, blockCell, blockCell+gap)
		y += tall + Beneath
	}
}
