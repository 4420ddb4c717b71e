package exchange

import (
	"cmp"
	"math"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// SystemPlaces are the places of a system that is being filled.
type SystemPlaces struct {
	Kind     string           `json:"kind"`
	Roles    [3]RolePlaces    `json:"roles"`
	Sections [3]SystemSection `json:"sections"`
	Wrong    string           `json:"wrong,omitempty" doc:"why no wheel can be made of it yet"`
}

// RolePlaces are the places of one role.
type RolePlaces struct {
	Role   string  `json:"role"`
	Most   int     `json:"most" doc:"how many paints it may have"`
	Places []Place `json:"places" doc:"those that are filled, and empty ones up to the usual number"`
}

// Place is one place of a role.
type Place struct {
	Paint       *Paint       `json:"paint" doc:"null when empty"`
	Ref         string       `json:"ref,omitempty"`
	Want        string       `json:"want,omitempty" doc:"the neighbour that a paint here should lean to; centred for triads; empty for none in particular"`
	Warning     string       `json:"warning,omitempty"`
	Substitutes []Substitute `json:"substitutes" doc:"for this place, the best first, from the box and then the library"`
}

// Substitute is a paint that could stand in a place.
type Substitute struct {
	Ref    string   `json:"ref"`
	Name   string   `json:"name"`
	CI     string   `json:"ci"`
	InBox  bool     `json:"inBox"`
	Shown  Shown    `json:"shown" doc:"its undertone"`
	Lean   *Lean    `json:"lean"`
	Hiding string   `json:"hiding"`
	Price  *float64 `json:"price,omitempty"`
}

// SystemSection is what fills the run from a role to the next.
type SystemSection struct {
	From     string   `json:"from,omitempty" doc:"paint"`
	To       string   `json:"to,omitempty"`
	Name     string   `json:"name" doc:"of its secondary"`
	Chosen   bool     `json:"chosen"`
	Verdict  string   `json:"verdict,omitempty"`
	Pairings []string `json:"pairings" doc:"every pair that could fill it, as FROM TO, the brightest first"`
}

// Candidate is a paint that may be put in a place.
type Candidate struct {
	Paint *paint.Paint
	Name  string // a nickname, or empty
	InBox bool
	Price *float64
}

const mostSubstitutes = 6

// Places describes a system's places, filled or not.
func (v View) Places(c SystemContent, find Finder, box []Candidate) (SystemPlaces, error) {
	kind, err := wheel.ParseKind(c.Kind)
	if err != nil {
		return SystemPlaces{}, BadInput{err.Error()}
	}
	out := SystemPlaces{Kind: c.Kind}
	usual, most := kind.Places()
	candidates := slices.Clone(box)
	for _, p := range paint.Library() {
		candidates = append(candidates, Candidate{Paint: p})
	}
	var names [3]string
	for k, role := range kind.Roles() {
		r := RolePlaces{Role: string(role), Most: most, Places: []Place{}}
		for i := range max(usual, len(c.Roles[k])) {
			place := Place{Want: kind.Want(k, i)}
			var now *paint.Paint
			if i < len(c.Roles[k]) {
				place.Ref = c.Roles[k][i]
				if now, err = find(place.Ref); err != nil {
					return SystemPlaces{}, err
				}
				described := v.Paint(now)
				described.Lean = leanIn(now, role)
				place.Paint, place.Warning = &described, kind.Fits(now, k, i)
			}
			place.Substitutes = substitutes(kind, k, i, c, now, candidates)
			r.Places = append(r.Places, place)
		}
		out.Roles[k] = r
	}
	names = wheel.SecondaryNames(kind)
	system, err := c.System(find)
	if err != nil {
		out.Wrong = err.Error()
	}
	for k := range out.Sections {
		out.Sections[k] = SystemSection{Name: names[k], Pairings: []string{}}
	}
	if out.Wrong != "" {
		return out, nil
	}
	w := wheel.Build(system, wheel.Options{})
	for k := range w.Sections {
		s := &w.Sections[k]
		if s.Empty() {
			continue
		}
		section := &out.Sections[k]
		section.From, section.To, section.Chosen, section.Verdict = s.A.ID, s.B.ID, s.Chosen, s.Middle.Under.Verdict.String()
		for _, p := range append([]wheel.Pairing{s.Pairing}, s.Others...) {
			section.Pairings = append(section.Pairings, p.A.ID+" "+p.B.ID)
		}
	}
	return out, nil
}

// substitutes ranks what could stand in a place: paints that belong in the role
// first, then by how well they lean, strength and hiding near those of the paint
// that is there, and price; those of the box before those of the library.
func substitutes(kind wheel.SystemKind, role, place int, c SystemContent, now *paint.Paint, from []Candidate) []Substitute {
	r := kind.Roles()[role]
	want := kind.Want(role, place)
	type ranked struct {
		Candidate
		worse float64
	}
	var all []ranked
	for _, candidate := range from {
		p := candidate.Paint
		if slices.Contains(c.Roles[role], p.ID) || !r.Accepts(p) || now != nil && p.CI == now.CI && p.Name == now.Name && p.Strength() == now.Strength() {
			continue
		}
		lean, ok := bias.LeanIn(p, r)
		if !ok {
			continue
		}
		worse := 0.0
		switch {
		case want == "centred":
			worse = math.Abs(lean.Degrees)
		case want != "" && lean.Toward != want:
			worse = 20 + math.Abs(lean.Degrees)
		case want != "":
			worse = math.Abs(math.Abs(lean.Degrees) - 14) // far enough, not past the family
		}
		if now != nil {
			worse += 3 * math.Abs(float64(p.StrengthClass-now.StrengthClass))
			if p.Hiding != now.Hiding {
				worse += 3
			}
		}
		if candidate.Price != nil {
			worse += *candidate.Price / 10
		}
		worse += 30 * (1 - p.Undertone().Retention)
		all = append(all, ranked{candidate, worse})
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
	out := []Substitute{}
	boxed, listed := 0, 0
	for _, a := range all {
		count := &listed
		if a.InBox {
			count = &boxed
		}
		if *count == mostSubstitutes {
			continue
		}
		*count++
		name := a.Paint.Name
		if a.Name != "" {
			name = a.Name
		}
		out = append(out, Substitute{a.Paint.ID, name, a.Paint.CI, a.InBox, ShownUndertone(a.Paint), leanIn(a.Paint, r), a.Paint.Hiding, a.Price})
	}
	return out
}

// PlainChoices are the choices of a new wheel.
func PlainChoices() WheelChoices {
	return WheelChoices{Spacing: "hue", Order: "run", Names: "painters"}
}

// CheckChoices refuses choices that are none.
func (v View) CheckChoices(c WheelChoices) error {
	_, _, _, _, err := c.options(v)
	return err
}

// NamedSystem is a system with a name.
type NamedSystem struct {
	Name   string
	System SystemContent
}

// DemoSystems are the systems of the made-up demo studio.
func DemoSystems() []NamedSystem {
	of := func(name, kind, note string, roles ...[]string) NamedSystem {
		return NamedSystem{name, SystemContent{Kind: kind, Note: note, Roles: [3][]string(roles), Chosen: [3][]string{{}, {}, {}}, Riders: Riders{White: "PW6", BlueGrey: "blue-grey"}}}
	}
	return []NamedSystem{
		of("Kelp and wet stone", "double", "a dull red earth for quiet oranges and violets", []string{"PY184", "PY43"}, []string{"PR122", "PBr7-burnt-sienna"}, []string{"PB29", "PB15:3"}),
		of("Six from the harbour", "split", "", []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}),
		of("Sea lettuce and mussel", "cmy", "", []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"}),
		of("Starfish and anemone", "triad", "", []string{"PY65"}, []string{"PR254"}, []string{"PB29"}),
	}
}
