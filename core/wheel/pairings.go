package wheel

import (
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/input"
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

// within are the pairs of paints that share role k.
func (s System) within(k int) (out []path.Couple) {
	role := s.Kind.Roles()[k]
	for i, b := range s.roles[k] {
		for _, a := range s.roles[k][:i] {
			out = append(out, path.Couple{A: a, B: b, RoleA: role, RoleB: role})
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

// Allowed are the couples whose ways a system paints with: of a triad the three
// of its sections; of a split system the facing ones and the two of each role;
// of double and own systems every couple of a section or of a role.
func (s System) Allowed() (out []path.Couple) {
	roles := s.Kind.Roles()
	every := s.Kind == Double || s.Kind == OwnSystem
	for k := range 3 {
		if every {
			out = append(out, s.couples(k)...)
		} else if a, b := s.facing(k); a != nil && b != nil {
			out = append(out, path.Couple{A: a, B: b, RoleA: roles[k], RoleB: roles[(k+1)%3]})
		}
		out = append(out, s.within(k)...)
	}
	return out
}

// Blocks are all pairings of a system: a block for each section, whoever fills
// it, and one of the paints that share a role; the brightest first.
func (s System) Blocks(spacing path.Spacing) []Block {
	names := SecondaryNames(s.Kind)
	groups := make([]Couples, 4)
	for k := range 3 {
		groups[k] = Couples{names[k], true, s.couples(k)}
		groups[3].Of = append(groups[3].Of, s.within(k)...)
	}
	groups[3].Name = WithinFamily
	return blocks(groups, spacing)
}

// Couples are the paints of one block that could be mixed, two and two.
type Couples struct {
	Name    string // as a block's
	Section bool
	Of      []path.Couple
}

// BlocksOf are all pairings of the paints of a box; the brightest first.
func BlocksOf(paints []*paint.Paint, spacing path.Spacing) []Block {
	return blocks(CouplesOf(paints), spacing)
}

// CouplesOf are all couples of the paints of a box, in the order of the
// painters' wheel, each paint in the role it plays by its undertone.
func CouplesOf(paints []*paint.Paint) []Couples {
	groups := make([]Couples, len(boxBlocks))
	for at, name := range boxBlocks {
		groups[at] = Couples{Name: name, Section: at < 3}
	}
	for i, b := range paints {
		for _, a := range paints[:i] {
			c, at := coupled(a, b)
			groups[at].Of = append(groups[at].Of, c)
		}
	}
	return groups
}

// boxBlocks are the names of a box's blocks: its sections, in the order of the
// wheel, then what is none.
var boxBlocks = func() [5]string {
	names := SecondaryNames(RYB)
	return [5]string{names[0], names[1], names[2], WithinFamily, Elsewhere}
}()

// SectionOf names the block of two paints of a box.
func SectionOf(a, b *paint.Paint) string {
	_, at := coupled(a, b)
	return boxBlocks[at]
}

// coupled sets two paints in the order of the painters' wheel, and says which
// of the blocks of a box they belong to.
func coupled(a, b *paint.Paint) (path.Couple, int) {
	roles := RYB.Roles()
	c := path.Couple{A: a, B: b, RoleA: bias.RoleAmong(a), RoleB: bias.RoleAmong(b)}
	switch {
	case c.RoleA == "" || c.RoleB == "":
		return c, 4
	case c.RoleA == c.RoleB:
		return c, 3
	}
	at := slices.Index(roles[:], c.RoleA)
	if c.RoleB != roles[(at+1)%3] {
		c = path.Couple{A: b, B: a, RoleA: c.RoleB, RoleB: c.RoleA}
		at = slices.Index(roles[:], c.RoleA)
	}
	return c, at
}

func blocks(groups []Couples, spacing path.Spacing) (out []Block) {
	var all []path.Couple
	for _, g := range groups {
		all = append(all, g.Of...)
	}
	pairings := path.PairAll(all, spacing)
	for _, g := range groups {
		own := pairings[:len(g.Of):len(g.Of)]
		pairings = pairings[len(g.Of):]
		path.SortBright(own)
		out = append(out, Block{g.Name, g.Section, own})
	}
	return out
}

// MostPaired is of how many paints all pairings are followed at most.
const MostPaired = 60

// CheckPaired refuses paints of which not all pairings can be followed, with an
// input.Error.
func CheckPaired(paints []*paint.Paint) error {
	if len(paints) < 2 || len(paints) > MostPaired {
		return input.Errorf("pairings need 2 to %d paints, not %d", MostPaired, len(paints))
	}
	seen := map[string]bool{}
	for _, p := range paints {
		if seen[p.ID] {
			return input.Errorf("%s stands twice: name each paint once", p.ID)
		}
		seen[p.ID] = true
	}
	return nil
}
