package exchange

import (
	"cmp"
	"slices"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// SystemPlaces are the places of a system that is being filled.
type SystemPlaces struct {
	Kind     string           `json:"kind"`
	Roles    [3]RolePlaces    `json:"roles"`
	Sections [3]SystemSection `json:"sections"`
	Riders   []RiderOffers    `json:"riders"`
	Most     map[string]int   `json:"most" doc:"how many paints a role of each kind of system may have"`
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

// RiderOffers are the paints that can ride along in one place, those of the box
// first.
type RiderOffers struct {
	Rider  string  `json:"rider" enum:"white,black,blueGrey,convenience"`
	Usual  string  `json:"usual,omitempty" doc:"the name of what rides there where none is chosen"`
	Offers []Offer `json:"offers"`
}

// Offer is a paint by reference.
type Offer struct {
	Ref  string `json:"ref"`
	Name string `json:"name"`
}

const mostSubstitutes = 6

// withLibrary are the paints of a box and then those of the library.
func withLibrary(box []wheel.Candidate) []wheel.Candidate {
	out := slices.Clone(box)
	for _, p := range paint.Library() {
		out = append(out, wheel.Candidate{Paint: p})
	}
	return out
}

// Fill fills a kind of system with the best there is, the paints of a box before
// those of the library.
func Fill(kind string, box []wheel.Candidate) (SystemContent, error) {
	k, err := wheel.ParseKind(kind)
	if err != nil {
		return SystemContent{}, refused(err)
	}
	out := SystemContent{Kind: kind, Chosen: [3][]string{{}, {}, {}}}
	for role, paints := range k.Fill(withLibrary(box)) {
		out.Roles[role] = append([]string{}, ids(paints)...)
	}
	return out, nil
}

// Places describes a system's places, filled or not.
func (v View) Places(c SystemContent, find Finder, box []wheel.Candidate) (SystemPlaces, error) {
	kind, err := wheel.ParseKind(c.Kind)
	if err != nil {
		return SystemPlaces{}, refused(err)
	}
	out := SystemPlaces{Kind: c.Kind, Riders: []RiderOffers{}, Most: map[string]int{}}
	for _, k := range wheel.Kinds {
		_, out.Most[string(k)] = k.Places()
	}
	usual, most := kind.Places()
	candidates := withLibrary(box)
	for i, name := range []string{"white", "black", "blueGrey", "convenience"} {
		offers := []Offer{}
		for _, o := range candidates {
			if wheel.Riders[i].Accepts(o.Paint) {
				offers = append(offers, Offer{o.Paint.ID, cmp.Or(o.Called, o.Paint.Name)})
			}
		}
		usual := ""
		if p := (wheel.System{}).Rider(wheel.Riders[i]); p != nil {
			usual = p.Name
		}
		out.Riders = append(out.Riders, RiderOffers{name, usual, offers})
	}
	var roles [3][]*paint.Paint
	for k, refs := range c.Roles {
		for _, ref := range refs {
			p, err := find(ref)
			if err != nil {
				return SystemPlaces{}, err
			}
			roles[k] = append(roles[k], p)
		}
	}
	for k, role := range kind.Roles() {
		r := RolePlaces{Role: string(role), Most: most, Places: []Place{}}
		for i := range max(usual, len(roles[k])) {
			place := Place{Want: kind.Want(k, i)}
			if i < len(roles[k]) {
				now := roles[k][i]
				place.Ref = c.Roles[k][i]
				described := v.Paint(now)
				described.Lean = leanIn(now, role)
				place.Paint, place.Warning = &described, kind.Fits(now, k, i)
			}
			place.Substitutes = substitutes(kind, roles, k, i, candidates)
			r.Places = append(r.Places, place)
		}
		out.Roles[k] = r
	}
	names := wheel.SecondaryNames(kind)
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
		for _, p := range append([]path.Pairing{s.Pairing}, s.Others...) {
			section.Pairings = append(section.Pairings, p.A.ID+" "+p.B.ID)
		}
	}
	return out, nil
}

// substitutes lists what could stand in a place, some of the box and some of the
// library.
func substitutes(kind wheel.SystemKind, roles [3][]*paint.Paint, role, place int, from []wheel.Candidate) []Substitute {
	out := []Substitute{}
	r := kind.Roles()[role]
	listed := map[bool]int{}
	for _, c := range kind.Substitutes(roles, role, place, from) {
		if listed[c.InBox]++; listed[c.InBox] > mostSubstitutes {
			continue
		}
		p := c.Paint
		out = append(out, Substitute{p.ID, cmp.Or(c.Called, p.Name), p.CI, c.InBox, ShownUndertone(p), leanIn(p, r), p.Hiding, c.Price})
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
