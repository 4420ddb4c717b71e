package wire

import (
	"cmp"

	"gyrophane/core/path"
	"gyrophane/core/reach"
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
	Clean    float64          `json:"clean" doc:"share of all hues that it reaches clean; 0 where no wheel can be made of it"`
	Mean     float64          `json:"mean" doc:"mean of what it reaches of the possible"`
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
	Way      *Way     `json:"way,omitempty" doc:"through it; absent where nothing fills it"`
}

// Way is the way from one paint to another, and what is left half way.
type Way struct {
	Section   int         `json:"section" doc:"0 to 2, from its role to the next"`
	Band      []BandPoint `json:"band"`
	Retention float64     `json:"retention" doc:"half way"`
	Verdict   string      `json:"verdict" format:"verdict"`
}

// Instead is what a paint would make of the sections that its place faces.
type Instead struct {
	Ref  string `json:"ref"`
	Ways []Way  `json:"ways"`
}

// wayPoints is how many points a way of a system is sent in.
const wayPoints = 32

func wayOf(section int, p *path.Pairing) Way {
	return Way{section, band(p.Path, path.ByHue, wayPoints), round(p.Middle.Under.Retention, 2), p.Middle.Under.Verdict.String()}
}

// InsteadOf shapes what could stand in a place.
func InsteadOf(of []wheel.Instead) []Instead {
	out := []Instead{}
	for _, i := range of {
		one := Instead{Ref: i.ID, Ways: []Way{}}
		for _, w := range i.Ways {
			one.Ways = append(one.Ways, wayOf(w.Section, &w.Pairing))
		}
		out = append(out, one)
	}
	return out
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

// Places shapes the places of a system, with what it reaches; nil where no wheel can be made of it.
func (v View) Places(p wheel.Places, reached *reach.Reach) SystemPlaces {
	out := SystemPlaces{Kind: string(p.Kind), Riders: []RiderOffers{}, Most: map[string]int{}, Wrong: p.Wrong}
	if reached != nil {
		out.Clean, out.Mean = round(reached.Clean(), 2), round(reached.Mean(), 2)
	}
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
			pairing := path.Couple{A: s.From, B: s.To}.Pair(path.ByHue)
			way := wayOf(k, &pairing)
			section.Way = &way
		}
		for _, c := range s.Pairs {
			section.Pairings = append(section.Pairings, c.A.ID+" "+c.B.ID)
		}
		out.Sections[k] = section
	}
	return out
}
