package wire

import (
	"cmp"

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

// Places shapes the places of a system.
func (v View) Places(p wheel.Places) SystemPlaces {
	out := SystemPlaces{Kind: string(p.Kind), Riders: []RiderOffers{}, Most: map[string]int{}, Wrong: p.Wrong}
	for _, k := range wheel.Kinds {
		_, out.Most[string(k)] = k.Places()
	}
	for i, name := range [4]string{"white", "black", "blueGrey", "convenience"} {
		offers := RiderOffers{Rider: name, Offers: []Offer{}}
		if usual := (wheel.System{}).Rider(wheel.Riders[i]); usual != nil {
			offers.Usual = usual.ShortName()
		}
		for _, o := range p.Riders[i] {
			offers.Offers = append(offers.Offers, Offer{o.ID, o.Name})
		}
		out.Riders = append(out.Riders, offers)
	}
	for k, r := range p.Roles {
		role := RolePlaces{Role: string(r.Role), Most: r.Most, Places: []Place{}}
		for _, place := range r.Places {
			one := Place{Ref: place.ID, Want: place.Want, Warning: place.Warning, Substitutes: []Substitute{}}
			if place.Paint != nil {
				described := v.Paint(place.Paint)
				described.Lean = leanIn(place.Paint, r.Role)
				one.Paint = &described
			}
			for _, c := range place.Substitutes {
				one.Substitutes = append(one.Substitutes, Substitute{Ref: c.Paint.ID, Name: cmp.Or(c.Called, c.Paint.Name), CI: c.Paint.CI, InBox: c.InBox, Shown: ShownUndertone(c.Paint), Lean: leanIn(c.Paint, r.Role), Hiding: c.Paint.Hiding, Price: c.Price})
			}
			role.Places = append(role.Places, one)
		}
		out.Roles[k] = role
	}
	for k, s := range p.Sections {
		section := SystemSection{Name: s.Name, Pairings: []string{}}
		if s.From != nil {
			section.From, section.To, section.Chosen, section.Verdict = s.From.ID, s.To.ID, s.Chosen, s.Verdict.String()
		}
		for _, c := range s.Pairs {
			section.Pairings = append(section.Pairings, c.A.ID+" "+c.B.ID)
		}
		out.Sections[k] = section
	}
	return out
}
