package wheel

import (
	"cmp"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Places are the places of a system that is being filled.
type Places struct {
	Kind     SystemKind
	Roles    [3]RolePlaces
	Sections [3]SectionPairs
	Riders   [4][]RiderOffer // by Rider: the paints that can ride there, those of the box first
	Wrong    string          // why no wheel can be made of it yet; empty when one can
}

// RolePlaces are the places of one role.
type RolePlaces struct {
	Role   bias.Role
	Most   int     // how many paints it may have
	Places []Place // those that are filled, and empty ones up to the usual number
}

// Place is one place of a role.
type Place struct {
	Paint       *paint.Paint // nil when empty
	ID          string       // of the paint, as the selection names it
	Want        string       // the neighbour that a paint here should lean to; "centred" for triads; empty for none in particular
	Warning     string
	Substitutes []Candidate // the best first, from the box and then the library
}

// SectionPairs are the pairs that could fill the run from a role to the next.
type SectionPairs struct {
	Name    string // of its secondary
	From    *paint.Paint
	To      *paint.Paint // both nil where nothing fills it
	Chosen  bool
	Verdict paint.Verdict
	Pairs   []path.Couple // the brightest first
}

// Instead is a paint that could stand in a place, or the one that does, and what it makes of the sections
// that the place faces.
type Instead struct {
	ID   string
	Ways []SectionWay
}

// SectionWay is the way through a section.
type SectionWay struct {
	Section int // 0 to 2, from its role to the next
	path.Pairing
}

// Instead is what each paint that is offered for a place would make of the sections that the place faces, the
// present one first; nothing where there is no such place or no paint across.
func (p *Places) Instead(role, place int) (out []Instead) {
	if role < 0 || role > 2 || place < 0 || place >= len(p.Roles[role].Places) {
		return nil
	}
	there := &p.Roles[role].Places[place]
	before := (role + 2) % 3
	ids, paints := []string{}, []*paint.Paint{}
	if there.Paint != nil {
		ids, paints = append(ids, there.ID), append(paints, there.Paint)
	}
	for _, c := range there.Substitutes {
		ids, paints = append(ids, c.Paint.ID), append(paints, c.Paint)
	}
	after, across := p.partner(role, there.Paint, true), p.partner(before, there.Paint, false)
	if there.Paint != nil && after == nil && across == nil { // it stands by: both are what it could face
		after, across = p.partner(role, nil, true), p.partner(before, nil, false)
	}
	var couples []path.Couple
	for _, q := range paints {
		if after != nil {
			couples = append(couples, path.Couple{A: q, B: after})
		}
		if across != nil {
			couples = append(couples, path.Couple{A: across, B: q})
		}
	}
	ways := path.PairAll(couples, path.ByHue)
	for _, id := range ids {
		one := Instead{ID: id}
		if after != nil {
			one.Ways, ways = append(one.Ways, SectionWay{role, ways[0]}), ways[1:]
		}
		if across != nil {
			one.Ways, ways = append(one.Ways, SectionWay{before, ways[0]}), ways[1:]
		}
		out = append(out, one)
	}
	return out
}

// partner is the paint across from one that begins a section, or ends it; across from any where none is given. It
// is nil where the section is filled without the paint, or not filled and nothing stands across.
func (p *Places) partner(section int, of *paint.Paint, begins bool) *paint.Paint {
	s := &p.Sections[section]
	mine, other, role := s.From, s.To, (section+1)%3
	if !begins {
		mine, other, role = s.To, s.From, section
	}
	switch {
	case of != nil && mine != of:
		return nil
	case other != nil:
		return other
	}
	for _, place := range p.Roles[role].Places {
		if place.Paint != nil {
			return place.Paint
		}
	}
	return nil
}

// RiderOffer is a paint that can ride along.
type RiderOffer struct{ ID, Name string }

// mostSubstitutes is how many of the box, and how many of the library, are
// offered for a place.
const mostSubstitutes = 6

// Places describes the places of a selection, filled or not, and what of a box
// and the library could stand in each. The error is an input.Error, or what find
// answers.
func (s Selection) Places(find paint.Finder, box []Candidate) (Places, error) {
	kind, err := ParseSystemKind(string(s.Kind))
	if err != nil {
		return Places{}, input.Wrap(err)
	}
	out := Places{Kind: kind}
	candidates := WithLibrary(box)
	for _, rider := range Riders {
		for _, c := range candidates {
			if rider.Accepts(c.Paint) {
				out.Riders[rider] = append(out.Riders[rider], RiderOffer{c.Paint.ID, cmp.Or(c.Called, c.Paint.ShortName())})
			}
		}
		// What rides already is offered too, also when it is no longer in the box.
		id := s.Riders.List()[rider]
		if id == "" || slices.ContainsFunc(out.Riders[rider], func(o RiderOffer) bool { return o.ID == id }) {
			continue
		}
		p, err := find(id)
		if err != nil {
			return Places{}, err
		}
		out.Riders[rider] = append(out.Riders[rider], RiderOffer{id, p.ShortName() + ", not in the box"})
	}
	var roles [3][]*paint.Paint
	for k, ids := range s.Roles {
		for _, id := range ids {
			p, err := find(id)
			if err != nil {
				return Places{}, err
			}
			roles[k] = append(roles[k], p)
		}
	}
	usual, most := kind.Places()
	for k, role := range kind.Roles() {
		out.Roles[k] = RolePlaces{Role: role, Most: most}
		for i := range max(usual, len(roles[k])) {
			place := Place{Want: kind.Want(k, i), Substitutes: few(kind.Substitutes(roles, k, i, candidates))}
			if i < len(roles[k]) {
				place.ID, place.Paint, place.Warning = s.Roles[k][i], roles[k][i], kind.Fits(roles[k][i], k, i)
			}
			out.Roles[k].Places = append(out.Roles[k].Places, place)
		}
	}
	for k, name := range SecondaryNames(kind) {
		out.Sections[k].Name = name
	}
	system, err := s.System(find)
	if err != nil {
		out.Wrong = err.Error()
		return out, nil
	}
	w := Build(system, Options{})
	for k := range w.Sections {
		filled := &w.Sections[k]
		if filled.Empty() {
			continue
		}
		section := &out.Sections[k]
		section.From, section.To, section.Chosen, section.Verdict = filled.A, filled.B, filled.Chosen, filled.Middle.Under.Verdict
		section.Pairs = append(section.Pairs, filled.Couple)
		for _, p := range filled.Others {
			section.Pairs = append(section.Pairs, p.Couple)
		}
	}
	return out, nil
}

// few are the first of the candidates of the box, and of those of the library.
func few(candidates []Candidate) (out []Candidate) {
	listed := map[bool]int{}
	for _, c := range candidates {
		if listed[c.InBox]++; listed[c.InBox] <= mostSubstitutes {
			out = append(out, c)
		}
	}
	return out
}
