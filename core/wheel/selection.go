package wheel

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Selection is a primary system by reference: which paints, named by their ids,
// play which role. It is what a painter decides and what is kept.
type Selection struct {
	Kind   SystemKind
	Roles  [3][]string // paints of each role, in the order of the wheel
	Chosen [3][]string // the pair wanted for each section; empty for the brightest
	Riders RiderIDs
	Note   string
}

// RiderIDs are the paints that ride along in a system; each may be empty.
type RiderIDs struct{ White, Black, BlueGrey, Convenience string }

// List is the ids in the order of Riders.
func (r RiderIDs) List() [4]string { return [4]string{r.White, r.Black, r.BlueGrey, r.Convenience} }

// Names says whether one of the paints has an id that does.
func (s Selection) Names(does func(id string) bool) bool {
	riders := s.Riders.List()
	ids := riders[:]
	for k := range s.Roles {
		ids = append(append(ids, s.Roles[k]...), s.Chosen[k]...)
	}
	return slices.ContainsFunc(ids, does)
}

// With is the selection with other paints in the places of some, by their ids: is says
// what stands in the place of an id.
func (s Selection) With(is func(id string) string) Selection {
	each := func(ids []string) (out []string) {
		for _, id := range ids {
			out = append(out, is(id))
		}
		return out
	}
	for k := range s.Roles {
		s.Roles[k], s.Chosen[k] = each(s.Roles[k]), each(s.Chosen[k])
	}
	r := &s.Riders
	for _, id := range []*string{&r.White, &r.Black, &r.BlueGrey, &r.Convenience} {
		if *id != "" {
			*id = is(*id)
		}
	}
	return s
}

// Mentions says whether any of the paints has an id with a prefix.
func (s Selection) Mentions(prefix string) bool {
	return s.Names(func(id string) bool { return strings.HasPrefix(id, prefix) })
}

// System finds the paints of a selection. The error is an input.Error where the
// selection is at fault, or what find answers.
func (s Selection) System(find paint.Finder) (System, error) {
	kind, err := ParseSystemKind(string(s.Kind))
	if err != nil {
		return System{}, input.Wrap(err)
	}
	if _, err := text.Lines("the note of the system", s.Note, paint.LongestNote); err != nil {
		return System{}, input.Sentence(err)
	}
	var roles [3][]*paint.Paint
	_, most := kind.Places()
	for k, ids := range s.Roles {
		if len(ids) > most {
			return System{}, input.Errorf("%d paints in the role of the %s are too many: a %s system has at most %d", len(ids), kind.Roles()[k], kind, most)
		}
		for _, id := range ids {
			p, err := find(id)
			var typed input.Error
			if errors.As(err, &typed) {
				return System{}, input.Errorf("%s: %w", kind.Roles()[k], err)
			}
			if err != nil {
				return System{}, err
			}
			roles[k] = append(roles[k], p)
		}
	}
	out, err := NewSystem(kind, roles)
	if err != nil {
		return System{}, input.Wrap(err)
	}
	for i, id := range s.Riders.List() {
		if id == "" {
			continue
		}
		p, err := find(id)
		if err != nil {
			return System{}, err
		}
		if out, err = out.WithRider(Riders[i], p); err != nil {
			return System{}, input.Wrap(err)
		}
	}
	for k, pair := range s.Chosen {
		if len(pair) == 0 {
			continue
		}
		if len(pair) != 2 {
			return System{}, input.Errorf("a section is filled by two paints, not %d", len(pair))
		}
		a, err := find(pair[0])
		if err != nil {
			return System{}, err
		}
		b, err := find(pair[1])
		if err != nil {
			return System{}, err
		}
		if out, err = out.WithPair(k, a, b); err != nil {
			return System{}, input.Wrap(err)
		}
	}
	return out, nil
}

// Filling is a selection that is filled from a box.
type Filling struct {
	Own     Selection // of the box's tubes alone; a place that none of them fits is left out
	Whole   Selection // with paints of the library in those places
	Missing []Missing
}

// Missing is a place of a system that no tube of a box fits, and the paint of the library that would do.
type Missing struct {
	Role  bias.Role
	Would *paint.Paint
}

// Says is what a box has not for the selection, and what would do, in a sentence; empty where it has all.
func (f *Filling) Says() string {
	var says []string
	names := f.Own.Kind.Roles()
	for _, m := range f.Missing {
		what := text.Article(string(m.Role))
		if k := slices.Index(names[:], m.Role); len(f.Own.Roles[k]) > 0 {
			what = "another " + string(m.Role)
		}
		says = append(says, fmt.Sprintf("%s (%s would do)", what, text.Article(m.Would.ShortName())))
	}
	if len(says) == 0 {
		return ""
	}
	return "Your box is without " + text.Listed(says) + "."
}

// Filled is a selection of a kind with the best there is in a box, and what would do where there is none.
func Filled(kind string, box []Candidate) (Filling, error) {
	k, err := ParseSystemKind(kind)
	if err != nil {
		return Filling{}, input.Wrap(err)
	}
	return k.filled(box), nil
}

// OfBox is the system that the tubes of a box make by themselves: split primaries where there are two for
// each role, else one for each; a black stands in for a blue where there is none.
func OfBox(box []Candidate) Filling {
	if split := Split.filled(box); len(split.Missing) == 0 {
		return split
	}
	out := RYB.filled(box)
	for i, m := range out.Missing {
		black := slices.IndexFunc(box, func(c Candidate) bool { return standsIn(c.Paint, m.Role) })
		if black >= 0 {
			roles := RYB.Roles()
			k := slices.Index(roles[:], m.Role)
			out.Own.Roles[k] = []string{box[black].Paint.ID}
			out.Whole.Roles[k] = out.Own.Roles[k]
			out.Missing = slices.Delete(out.Missing, i, i+1)
			break
		}
	}
	return out
}

func (k SystemKind) filled(box []Candidate) Filling {
	out := Filling{Own: Selection{Kind: k}, Whole: Selection{Kind: k}}
	own := k.Fill(box)
	names := k.Roles()
	for role, paints := range k.Fill(WithLibrary(box)) {
		out.Own.Roles[role], out.Whole.Roles[role] = paint.IDs(own[role]), paint.IDs(paints)
		for _, p := range paints {
			if p.Library == p.ID { // it is no tube
				out.Missing = append(out.Missing, Missing{names[role], p})
			}
		}
	}
	return out
}

// WithLibrary are the candidates of a box and then those of the library.
func WithLibrary(box []Candidate) []Candidate {
	out := slices.Clone(box)
	for _, p := range paint.Library() {
		out = append(out, Candidate{Paint: p})
	}
	return out
}

// ParseRoles parts library paints named one after another into three roles: at
// slashes where there are some, into equal shares where they come out even, or
// else where one family ends and the next begins. The error is an input.Error.
func ParseRoles(ids []string) (out [3][]string, err error) {
	joined := strings.Join(ids, " ")
	if strings.Contains(joined, "/") {
		groups := strings.Split(joined, "/")
		if len(groups) != 3 {
			return out, input.Errorf("two slashes part the paints of three roles: yellows / reds / blues")
		}
		for k, g := range groups {
			out[k] = strings.Fields(g)
		}
		return out, nil
	}
	if len(ids) == 0 || len(ids) > mostInWheel {
		return out, input.Errorf("name the paints in the order yellows, reds, blues; with slashes between, where the roles have not the same number")
	}
	if n := len(ids) / 3; len(ids)%3 == 0 {
		for k := range out {
			out[k] = ids[k*n : (k+1)*n]
		}
		return out, nil
	}
	roles := []bias.Role{"yellow", "red", "blue"}
	k := 0
	for _, id := range ids {
		p, err := paint.Find(id)
		if err != nil {
			return out, err
		}
		for k < 2 && !roles[k].Accepts(p) {
			k++
		}
		out[k] = append(out[k], id)
	}
	return out, nil
}
