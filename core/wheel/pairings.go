package wheel

import (
	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Block is the pairings of one section.
type Block struct {
	Name     string // of the secondary; WithinFamily or Elsewhere
	Section  bool   // from one primary to another
	Pairings []path.Pairing
}

// The blocks that are no section: two paints of one role, and whatever has a
// paint that plays none.
const (
	WithinFamily = "within a family"
	Elsewhere    = "with the others"
)

// couples are the pairs of paints that could fill section k of a system.
func (s System) couples(k int) (out []path.Couple) {
	roles, next := s.Kind.Roles(), (k+1)%3
	for _, a := range s.roles[k] {
		for _, b := range s.roles[next] {
			if a.ID != b.ID {
				out = append(out, path.Couple{A: a, B: b, RoleA: roles[k], RoleB: roles[next]})
			}
		}
	}
	return out
}

// facing are the paints of the two roles of section k that face each other.
func (s System) facing(k int) (a, b *paint.Paint) {
	_, a = s.faces(k)
	b, _ = s.faces((k + 1) % 3)
	return a, b
}

// Blocks are all pairings of a system: a block for each section, whoever fills
// it, and one of the paints that share a role; the brightest first.
func (s System) Blocks(spacing path.Spacing) []Block {
	names := SecondaryNames(s.Kind)
	groups := make([]group, 4)
	for k := range 3 {
		groups[k] = group{names[k], s.couples(k)}
		r := s.Kind.Roles()[k]
		for i, b := range s.roles[k] {
			for _, a := range s.roles[k][:i] {
				groups[3].couples = append(groups[3].couples, path.Couple{A: a, B: b, RoleA: r, RoleB: r})
			}
		}
	}
	groups[3].name = WithinFamily
	return blocks(groups, spacing)
}

// BlocksOf are all pairings of the paints of a box, in the order of the
// painters' wheel, each paint in the role it plays by its undertone.
func BlocksOf(paints []*paint.Paint, spacing path.Spacing) []Block {
	roles := RYB.Roles()
	names := SecondaryNames(RYB)
	groups := []group{{names[0], nil}, {names[1], nil}, {names[2], nil}, {WithinFamily, nil}, {Elsewhere, nil}}
	place := map[bias.Role]int{roles[0]: 0, roles[1]: 1, roles[2]: 2}
	for i, b := range paints {
		for _, a := range paints[:i] {
			c := path.Couple{A: a, B: b, RoleA: bias.RoleAmong(a), RoleB: bias.RoleAmong(b)}
			at := 4
			switch {
			case c.RoleA == "" || c.RoleB == "":
			case c.RoleA == c.RoleB:
				at = 3
			default:
				at = place[c.RoleA]
				if place[c.RoleB] != (at+1)%3 {
					c = path.Couple{A: b, B: a, RoleA: c.RoleB, RoleB: c.RoleA}
					at = place[c.RoleA]
				}
			}
			groups[at].couples = append(groups[at].couples, c)
		}
	}
	return blocks(groups, spacing)
}

type group struct {
	name    string
	couples []path.Couple
}

func blocks(groups []group, spacing path.Spacing) (out []Block) {
	var all []path.Couple
	for _, g := range groups {
		all = append(all, g.couples...)
	}
	pairings := path.PairAll(all, spacing)
	for i, g := range groups {
		own := pairings[:len(g.couples):len(g.couples)]
		pairings = pairings[len(g.couples):]
		path.SortBright(own)
		out = append(out, Block{g.name, i < 3, own})
	}
	return out
}
