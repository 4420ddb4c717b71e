package wire

import (
	"slices"

	"gyrophane/core/wheel"
)

// Selection is a primary system as it is kept: paints by reference, a role a
// list, in the order of the wheel.
type Selection struct {
	Kind   wheel.SystemKind `json:"kind" format:"systemKind"`
	Roles  [3][]string      `json:"roles" doc:"paints of each role, in the order of the wheel"`
	Chosen [3][]string      `json:"chosen" doc:"the pair a painter wants for each section, empty for the brightest"`
	Riders Riders           `json:"riders"`
	Note   string           `json:"note" maxLength:"1000"`
}

// Riders ride along in a system without being primaries; each may be empty.
type Riders struct {
	White       string `json:"white,omitempty" maxLength:"60"`
	Black       string `json:"black,omitempty" maxLength:"60"`
	BlueGrey    string `json:"blueGrey,omitempty" maxLength:"60"`
	Convenience string `json:"convenience,omitempty" maxLength:"60"`
}

// Core is the selection as the core knows it.
func (s Selection) Core() wheel.Selection {
	return wheel.Selection{Kind: s.Kind, Roles: s.Roles, Chosen: s.Chosen, Riders: wheel.RiderIDs(s.Riders), Note: s.Note}
}

// SelectionOf shapes a selection.
func SelectionOf(s wheel.Selection) Selection {
	out := Selection{Kind: s.Kind, Riders: Riders(s.Riders), Note: s.Note}
	for k := range s.Roles {
		out.Roles[k], out.Chosen[k] = append([]string{}, s.Roles[k]...), append([]string{}, s.Chosen[k]...)
	}
	return out
}

// WheelChoices are how a wheel is built and what rings it has.
type WheelChoices struct {
	Spacing string   `json:"spacing" format:"spacing"`
	Order   string   `json:"order" format:"order" doc:"mixed from the weaker paint on, or the secondary first"`
	Names   string   `json:"names" format:"nameSet"`
	Called  []string `json:"called,omitempty" maxItems:"12" doc:"what the painter calls slots, by home; empty for those that go by the set"`
	Top     string   `json:"top,omitempty" format:"role" doc:"the hue on top; the first role when left out"`
	CCW     bool     `json:"ccw,omitempty" doc:"counter-clockwise"`
	Six     bool     `json:"six,omitempty" doc:"six slots for beginners"`
	Raise   bool     `json:"raise,omitempty" doc:"dark transparent paints are first raised with white"`
	Rings   Rings    `json:"rings"`
}

// Rings are the rings that are on.
type Rings struct {
	Tints   int    `json:"tints" minimum:"0" maximum:"3"`
	TintBy  string `json:"tintBy,omitempty" format:"tintWay" doc:"by the medium when left out"`
	Shades  int    `json:"shades" minimum:"0" maximum:"3"`
	ShadeBy string `json:"shadeBy,omitempty" format:"shadeWay" doc:"the complement when left out"`
	Wash    bool   `json:"wash"`
	Neutral bool   `json:"neutral" doc:"the middles of the complements"`
	Triple  bool   `json:"triple" doc:"highlight and shadow"`
}

// Core is the choices as the core knows them.
func (c WheelChoices) Core() wheel.Choices {
	r := c.Rings
	var called wheel.OwnNames
	copy(called[:], c.Called)
	return wheel.Choices{
		Called: called, Spacing: c.Spacing, Order: c.Order, Names: c.Names, Top: c.Top, CCW: c.CCW, Six: c.Six, Raise: c.Raise,
		Tints: r.Tints, TintBy: r.TintBy, Shades: r.Shades, ShadeBy: r.ShadeBy, Wash: r.Wash, Neutral: r.Neutral, Highlight: r.Triple,
	}
}

// calledOf are a painter's own names of slots, up to the last that has one.
func calledOf(names wheel.OwnNames) []string {
	n := len(names)
	for n > 0 && names[n-1] == "" {
		n--
	}
	return slices.Clone(names[:n])
}

// ChoicesOf shapes choices.
func ChoicesOf(c wheel.Choices) WheelChoices {
	return WheelChoices{Called: calledOf(c.Called), Spacing: c.Spacing, Order: c.Order, Names: c.Names, Top: c.Top, CCW: c.CCW, Six: c.Six, Raise: c.Raise, Rings: Rings{Tints: c.Tints, TintBy: c.TintBy, Shades: c.Shades, ShadeBy: c.ShadeBy, Wash: c.Wash, Neutral: c.Neutral, Triple: c.Highlight}}
}

// Filling is a system that is filled from a box.
type Filling struct {
	Own     Selection      `json:"own" doc:"of the box's tubes alone"`
	Whole   Selection      `json:"whole" doc:"with paints of the library where the box has none"`
	Missing []MissingPlace `json:"missing" doc:"what no tube of the box fits"`
	Says    string         `json:"says" doc:"what is missing and what would do, in a sentence; empty where nothing is"`
	Wheel   bool           `json:"wheel" doc:"its own tubes make a wheel: two of its roles have one"`
}

// MissingPlace is a place that no tube of a box fits.
type MissingPlace struct {
	Role  string `json:"role"`
	Would string `json:"would" doc:"the paint of the library that would do"`
	Name  string `json:"name"`
}

// FillingOf shapes a system that is filled from a box.
func FillingOf(f wheel.Filling) Filling {
	out := Filling{Own: SelectionOf(f.Own), Whole: SelectionOf(f.Whole), Says: f.Says(), Missing: []MissingPlace{}}
	for _, m := range f.Missing {
		out.Missing = append(out.Missing, MissingPlace{Role: string(m.Role), Would: m.Would.ID, Name: m.Would.ShortName()})
	}
	roles := 0
	for _, r := range f.Own.Roles {
		if len(r) > 0 {
			roles++
		}
	}
	out.Wheel = roles >= 2
	return out
}
