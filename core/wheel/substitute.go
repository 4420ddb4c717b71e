package wheel

import (
	"cmp"
	"math"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// Candidate is a paint that may be put in a place of a system.
type Candidate struct {
	Paint  *paint.Paint
	Called string   // a nickname, empty for the paint's own name
	InBox  bool     // a tube of the painter's, not only a paint of the library
	Price  *float64 // of the tube, in whatever money; nil when not said
}

// What makes a substitute worse, in degrees of lean: each class of strength and
// another hiding than what stood there, the whole brightness lost, every ten of
// the price, and leaning the wrong way at all.
const (
	worseByStrength = 3
	worseByHiding   = 3
	worseByDullness = 30
	dearBy          = 10
	wrongWay        = 20
	// goodLean is how far a paint that should lean leans best: far enough, not
	// past its family.
	goodLean = 14
)

// Substitutes ranks what could stand in a place of a kind of system that is
// being filled: the paints that belong in the role and do not stand in it yet,
// those of the box before those of the library, and among them by lean, by
// strength and hiding near those of the paint that is there now, by brightness
// and price.
func (k SystemKind) Substitutes(roles [3][]*paint.Paint, role, place int, from []Candidate) []Candidate {
	r, want := k.Roles()[role], k.Want(role, place)
	var now *paint.Paint
	if place < len(roles[role]) {
		now = roles[role][place]
	}
	type ranked struct {
		Candidate
		worse float64
	}
	var all []ranked
	for _, c := range from {
		p := c.Paint
		if !r.Accepts(p) || slices.ContainsFunc(roles[role], same(p)) || now != nil && noOther(p, now) {
			continue
		}
		lean, ok := bias.LeanIn(p, r)
		if !ok {
			continue
		}
		worse := worseByDullness * (1 - p.Undertone().Retention)
		switch {
		case want == "centred":
			worse += math.Abs(lean.Degrees)
		case want != "" && lean.Toward != want:
			worse += wrongWay + math.Abs(lean.Degrees)
		case want != "":
			worse += math.Abs(math.Abs(lean.Degrees) - goodLean)
		}
		if now != nil {
			worse += worseByStrength * math.Abs(float64(p.StrengthClass-now.StrengthClass))
			if p.Hiding != now.Hiding {
				worse += worseByHiding
			}
		}
		if c.Price != nil {
			worse += *c.Price / dearBy
		}
		all = append(all, ranked{c, worse})
	}
	slices.SortStableFunc(all, func(a, b ranked) int {
		if a.InBox != b.InBox {
			if a.InBox {
				return -1
			}
			return 1
		}
		return cmp.Compare(a.worse, b.worse)
	})
	out := make([]Candidate, len(all))
	for i, a := range all {
		out[i] = a.Candidate
	}
	return out
}

// noOther says that two paints are one under two ids, like a tube and the
// library paint it is of.
func noOther(a, b *paint.Paint) bool {
	return a.CI == b.CI && a.Name == b.Name && a.Strength() == b.Strength()
}

// Fill chooses paints for the usual places of a kind of system: for each place
// in turn the best substitute that stands nowhere yet. A role stays short where
// nothing is left that belongs in it.
func (k SystemKind) Fill(from []Candidate) (roles [3][]*paint.Paint) {
	usual, _ := k.Places()
	var taken []*paint.Paint
	for role := range roles {
		var chosen []*paint.Paint
		for place := range usual {
			// The role still counts as empty, so that its places do not change.
			for _, c := range k.Substitutes(roles, role, place, from) {
				if !slices.ContainsFunc(taken, func(p *paint.Paint) bool { return p.ID == c.Paint.ID || noOther(p, c.Paint) }) {
					chosen, taken = append(chosen, c.Paint), append(taken, c.Paint)
					break
				}
			}
		}
		roles[role] = chosen
	}
	return roles
}
