package wheel

import (
	"fmt"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// SystemKind is a way to choose primaries.
type SystemKind string

// The kinds of system.
const (
	RYB         SystemKind = "triad"                     // a yellow, a red, a blue
	CMY         SystemKind = "cmy"                       // a yellow, a magenta, a cyan
	Split       SystemKind = "split"                     // a pair of each, leaning to either side
	Double      SystemKind = "double"                    // two or more of each, every pairing tried
	LeaningCW   SystemKind = "leaning-clockwise"         // a triad all leaning to the next primary
	LeaningCCW  SystemKind = "leaning-counter-clockwise" // a triad all leaning to the one before
	OwnSystem   SystemKind = "own"                       // any paints in named roles
	mostInRole             = 4
	mostInWheel            = 12
)

// Kinds lists every kind of system.
var Kinds = []SystemKind{RYB, CMY, Split, Double, LeaningCW, LeaningCCW, OwnSystem}

// ParseSystemKind reads a kind's name.
func ParseSystemKind(name string) (SystemKind, error) {
	if k := SystemKind(name); slices.Contains(Kinds, k) {
		return k, nil
	}
	return "", input.Errorf("unknown kind of system %q: choose triad, cmy, split, double, leaning-clockwise, leaning-counter-clockwise or own", name)
}

// Roles are the roles of a kind in the order of the wheel, clockwise from the
// top.
func (k SystemKind) Roles() [3]bias.Role {
	if k == CMY {
		return [3]bias.Role{"yellow", "magenta", "cyan"}
	}
	return [3]bias.Role{"yellow", "red", "blue"}
}

// Places is how many paints a role of the kind usually has, and at most.
func (k SystemKind) Places() (usual, most int) {
	switch k {
	case Split:
		return 2, 2
	case Double:
		return 2, mostInRole
	case OwnSystem:
		return 1, mostInRole
	}
	return 1, 1
}

// System is a primary system: the paints in each of its three roles, in the
// order of the wheel. A role may be empty while the system is being filled.
type System struct {
	Kind  SystemKind
	roles [3][]*paint.Paint
	// chosen are the pairs that the painter wants for a section, nil for the
	// brightest; of double and own systems only.
	chosen [3]*[2]*paint.Paint
	riders [4]*paint.Paint // nil for the usual
}

// NewSystem makes a system of paints by role, in the order of the wheel. Any
// coloured paint may play a role, and a black that of the blue, as in limited palettes; a white has no
// hue to give. Outside
// own systems a paint plays one role only.
func NewSystem(kind SystemKind, roles [3][]*paint.Paint) (System, error) {
	s := System{Kind: kind, roles: roles}
	names := kind.Roles()
	_, most := kind.Places()
	total, filled := 0, 0
	for k, paints := range roles {
		if len(paints) > most {
			return System{}, fmt.Errorf("%d paints in the role of the %s are too many: a %s system has at most %d", len(paints), names[k], kind, most)
		}
		if len(paints) > 0 {
			filled++
		}
		total += len(paints)
		for i, p := range paints {
			if !Playable(p, names[k]) {
				return System{}, fmt.Errorf("%s (%s) cannot be the %s: it has no hue of its own; choose a coloured paint", p.ID, p.Name, names[k])
			}
			if slices.ContainsFunc(paints[:i], same(p)) {
				return System{}, fmt.Errorf("%s stands twice in the role of the %s: choose two different paints", p.ID, names[k])
			}
			for j := range k {
				if kind != OwnSystem && slices.ContainsFunc(roles[j], same(p)) {
					return System{}, fmt.Errorf("%s cannot be both the %s and the %s: choose two different paints", p.ID, names[j], names[k])
				}
			}
		}
	}
	if total > mostInWheel {
		return System{}, fmt.Errorf("%d paints are more than a wheel is made of: choose at most %d", total, mostInWheel)
	}
	if filled < 2 {
		return System{}, fmt.Errorf("a wheel needs paints in at least two of its roles (%s, %s, %s)", names[0], names[1], names[2])
	}
	return s, nil
}

// Playable says that a paint may play a role, however unusual it is there: it has a hue, or stands in.
func Playable(p *paint.Paint, r bias.Role) bool {
	m := p.Alone()
	return !m.Neutral() || standsIn(p, r)
}

// standsIn says that a paint without a hue may play a role all the same: a black that of the blue.
func standsIn(p *paint.Paint, r bias.Role) bool { return r == "blue" && bias.FamilyOf(p) == "black" }

func same(p *paint.Paint) func(*paint.Paint) bool {
	return func(q *paint.Paint) bool { return q.ID == p.ID }
}

// WithPair is the system with a pair chosen for a section (0 to 2, from role k
// to the next); a nil pair leaves it to the brightest. Only double and own
// systems let one choose.
func (s System) WithPair(section int, from, to *paint.Paint) (System, error) {
	if s.Kind != Double && s.Kind != OwnSystem {
		return s, fmt.Errorf("in a %s system the paints that lean toward each other fill a section; only double and own systems let one choose", s.Kind)
	}
	next := (section + 1) % 3
	if !slices.ContainsFunc(s.roles[section], same(from)) || !slices.ContainsFunc(s.roles[next], same(to)) {
		names := s.Kind.Roles()
		return s, fmt.Errorf("%s and %s are not a %s and a %s of this system", from.ID, to.ID, names[section], names[next])
	}
	s.chosen[section] = &[2]*paint.Paint{from, to}
	return s, nil
}

// WithSwap is the system with another paint in the place of one of a role;
// chosen pairs that held the one are left to the brightest.
func (s System) WithSwap(role int, out, in *paint.Paint) (System, error) {
	roles := s.roles
	at := slices.IndexFunc(roles[role], same(out))
	if at < 0 {
		return s, fmt.Errorf("%s is no %s of this system", out.ID, s.Kind.Roles()[role])
	}
	roles[role] = slices.Clone(roles[role])
	roles[role][at] = in
	swapped, err := NewSystem(s.Kind, roles)
	if err != nil {
		return s, err
	}
	swapped.riders = s.riders
	for k, pair := range s.chosen {
		if pair != nil && pair[0].ID != out.ID && pair[1].ID != out.ID {
			swapped.chosen[k] = pair
		}
	}
	return swapped, nil
}

// Triad makes a system of a yellow, a red and a blue.
func Triad(yellow, red, blue *paint.Paint) (System, error) {
	return NewSystem(RYB, [3][]*paint.Paint{{yellow}, {red}, {blue}})
}

// Role are the paints in role k.
func (s System) Role(k int) []*paint.Paint { return s.roles[k] }

// Paints are all paints of the system, each once, in the order of the wheel.
func (s System) Paints() (out []*paint.Paint) {
	for _, paints := range s.roles {
		for _, p := range paints {
			if !slices.ContainsFunc(out, same(p)) {
				out = append(out, p)
			}
		}
	}
	return out
}

// faces are the paints of a role that face the role before and the one after:
// of two, the one whose undertone lies nearer on the painter's circle, whatever
// its sign of lean. Nil for an empty role.
func (s System) faces(k int) (before, after *paint.Paint) {
	paints := s.roles[k]
	if len(paints) == 0 {
		return nil, nil
	}
	if len(paints) < 2 || s.Kind != Split {
		return paints[0], paints[0]
	}
	return Facing(paints[0], paints[1])
}

// Facing says which of two paints of a role faces the role before it on the
// wheel, and which the role after.
func Facing(p, q *paint.Paint) (before, after *paint.Paint) {
	// The wheel runs down the painter's circle: yellow 120, red 0, blue 240.
	if colour.TurnBetween(p.Undertone().WheelHue, q.Undertone().WheelHue) < 0 {
		return p, q
	}
	return q, p
}

// Want is the neighbour that a paint in a place should lean to, empty where
// none in particular: in a split system the places of a role lean to either
// side, the first to the role before; in a leaning triad all lean one way.
func (k SystemKind) Want(role, place int) string {
	toNext := [3]string{"orange", "violet", "green"}
	toLast := [3]string{"green", "orange", "violet"}
	switch {
	case k == Split && place == 0, k == LeaningCCW:
		return toLast[role]
	case k == Split, k == LeaningCW:
		return toNext[role]
	case k == RYB, k == CMY:
		return "centred"
	}
	return ""
}

// Fits says whether a paint suits a place, and a warning in a painter's words
// where it does not; the place takes it all the same.
func (k SystemKind) Fits(p *paint.Paint, role, place int) (warning string) {
	r := k.Roles()[role]
	name := p.ShortName()
	if standsIn(p, r) {
		return fmt.Sprintf("The %s stands in for a blue: what it makes with the others are shades, and the blues and greens are those of its tints.", name)
	}
	if !r.Accepts(p) {
		return fmt.Sprintf("The %s is not usually a %s: its undertone is %s.", name, r, p.Undertone().HueWord())
	}
	want := k.Want(role, place)
	lean, ok := bias.LeanIn(p, r)
	if !ok || want == "" || lean.Toward == want || lean.Centred() && want != "centred" && k != Split {
		return ""
	}
	switch {
	case want == "centred":
		return "" // a triad takes what it gets; the wheel shows what becomes of it
	case lean.Centred():
		return fmt.Sprintf("The %s is centred; a paint that leans to %s would do better here.", name, want)
	default:
		return fmt.Sprintf("The %s leans to %s; this place wants one that leans to %s.", name, lean.Toward, want)
	}
}
