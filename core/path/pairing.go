package path

import (
	"cmp"
	"fmt"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// Couple is two paints, and the roles they are asked to play; an empty role is
// the one that the paint's family plays.
type Couple struct {
	A, B         *paint.Paint
	RoleA, RoleB bias.Role
}

// Pairing is what becomes of two paints that are mixed.
type Pairing struct {
	Couple
	Path   *Path
	Middle Step // the secondary
}

// Pair follows a couple's path.
func (c Couple) Pair(s Spacing) Pairing {
	p := New(c.A, c.B)
	return Pairing{c, p, p.Middle(s)}
}

// PairAll follows many paths, as many at once as the machine can; the pairings
// stand in the order of the couples.
func PairAll(couples []Couple, s Spacing) []Pairing {
	return PairSome(couples, s, runtime.GOMAXPROCS(0))
}

// PairSome is PairAll with so many workers, at least one, and leaves the rest of
// the machine to others.
func PairSome(couples []Couple, s Spacing, workers int) []Pairing {
	out := make([]Pairing, len(couples))
	var all errgroup.Group
	all.SetLimit(max(1, workers))
	for i, c := range couples {
		all.Go(func() error {
			out[i] = c.Pair(s)
			return nil
		})
	}
	if err := all.Wait(); err != nil {
		panic(err) // no worker fails
	}
	return out
}

// Lowest is the least retention between the first and the last of three steps.
func (p *Pairing) Lowest(s Spacing) float64 {
	steps := p.Path.Steps(3, s)
	return p.Path.Lowest(steps[0].Share, steps[2].Share)
}

// Rule is what the rule of thumb says of the pair.
func (p *Pairing) Rule() (bias.Rule, bool) {
	return bias.RuleOfThumb(p.A, p.B, p.RoleA, p.RoleB)
}

// SortBright puts the brightest first: those that keep most of the possible
// brightness at the secondary.
func SortBright(list []Pairing) {
	slices.SortStableFunc(list, func(x, y Pairing) int {
		return cmp.Compare(y.Middle.Under.Retention, x.Middle.Under.Retention)
	})
}

// partsBy is the retention by which a pair must beat another for rule and
// computation to be said to part.
const partsBy = 0.10

// RuleConflicts says for each pairing of one section where the rule of thumb and the
// computation part: the index of the pairing that shows it most, because the
// rule puts it on the other side by more than 0.10 of retention, or -1.
func RuleConflicts(section []Pairing) []int {
	out := make([]int, len(section))
	order := map[string]int{"dull": 0, "moderate": 1, "bright": 2}
	rank := make([]int, len(section))
	for i := range section {
		rank[i] = -1
		if r, ok := section[i].Rule(); ok {
			rank[i] = order[r.Rating]
		}
	}
	for i := range section {
		out[i] = -1
		most := partsBy
		for j := range section {
			if rank[i] < 0 || rank[j] < 0 || rank[i] == rank[j] {
				continue
			}
			by := section[i].Middle.Under.Retention - section[j].Middle.Under.Retention
			if rank[i] > rank[j] {
				by = -by
			}
			if by > most {
				out[i], most = j, by
			}
		}
	}
	return out
}

// ExplainConflict explains why the rule of thumb, which puts one of two pairings of a
// section above the other, is wrong about them.
func (p *Pairing) ExplainConflict(other *Pairing) string {
	mine, _ := p.Rule()
	its, _ := other.Rule()
	more, less := p, other
	if p.Middle.Under.Retention < other.Middle.Under.Retention {
		more, less = other, p
	}
	than := map[bool]string{true: "more", false: "less"}[more == p]
	return fmt.Sprintf("The rule of thumb calls it %s and the %s with the %s %s, and yet it keeps %s: %.2f to %.2f. %s %s",
		mine.Rating, other.A.ShortName(), other.B.ShortName(), its.Rating, than,
		p.Middle.Under.Retention, other.Middle.Under.Retention,
		bias.Shared(less.A, less.B), bias.Shared(more.A, more.B))
}
