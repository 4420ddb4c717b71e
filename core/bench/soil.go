package bench

import (
	"fmt"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// soil is the CIEDE2000, brushed out, by which what a wiped brush still holds of one mixture moves
// the pile of another, and by which a tenth of it does.
type soil struct{ whole, tenth float64 }

const (
	// usualResidue is how many ml of the last mixture a wiped brush still holds.
	usualResidue = 0.01
	// moves is the CIEDE2000 above which a pile must not be moved by that, and movesTube that of a
	// tube's own well, which must stay clean.
	moves, movesTube = 2, 1
)

// residue is how many ml of paint a wiped brush holds that painted a region, without what thins it.
func (s Settings) residue(r *Region) float64 {
	if s.Knife {
		return 0
	}
	return s.Residue / (1 + s.Thinner(r))
}

// soil works out what a brush that painted one region does to the pile of another, as it is counted
// out, and how long it is washed for that: not at all where what it holds would not move the pile
// by more than 2, thoroughly where a tenth of it still would. Held is what a region was painted with.
func (p *problem) soil(s *Sheet, set Settings, counted []recipe.Counted, held func(i int) *paint.Mixture) {
	n := len(p.jobs)
	p.soils = make([][]soil, n)
	p.washes = make([][]float64, n+1)
	p.washes[0] = make([]float64, n)
	clean := make([]colour.Lab, n)
	for j := range counted {
		seen := counted[j].Mixture.BrushedOut()
		clean[j] = seen.Lab()
	}
	for i := range n {
		p.soils[i], p.washes[i+1] = make([]soil, n), make([]float64, n)
		residue, of := set.residue(&s.Regions[i]), held(i)
		if residue == 0 {
			continue
		}
		for j := range n {
			if i == j {
				continue
			}
			moved := func(ml float64) float64 {
				m := paint.Between(&counted[j].Mixture, of, ml/(ml+counted[j].ML))
				seen := m.BrushedOut()
				return colour.Difference(clean[j], seen.Lab())
			}
			most := float64(moves)
			if len(s.Regions[j].Recipe.Plain()) == 1 {
				most = movesTube
			}
			at := &p.soils[i][j]
			if at.whole = moved(residue); at.whole <= most {
				continue
			}
			p.washes[i+1][j] = lightWash
			if at.tenth = moved(residue / 10); at.tenth > most {
				p.washes[i+1][j] = thoroughWash
			}
		}
	}
}

// because is why a brush that painted one region is washed before it paints another.
func (p *problem) because(s *Sheet, i, j int) string {
	of, to := &s.Regions[i], &s.Regions[j]
	into := to.Label
	if len(to.Recipe.Plain()) == 1 {
		into = "the " + to.Recipe[0].Paint.ShortName() + " itself"
	}
	says := fmt.Sprintf("What a wiped brush still holds of %s would move %s by %.0f", of.Label, into, p.soils[i][j].whole)
	if p.wash(i, j) == thoroughWash {
		return fmt.Sprintf("%s, and a tenth of it by %.1f.", says, p.soils[i][j].tenth)
	}
	return says + "."
}
