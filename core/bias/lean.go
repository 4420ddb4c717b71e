// Package bias says what a paint is among paints: its family, where it leans
// and by how much, how grey it is, and why a pair of paints stays clean or
// turns dull. Lean is measured on the 1:9 tint in white, never looked up.
package bias

import (
	_ "embed"
	"fmt"
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/internal/table"
	"gyrophane/core/paint"
)

// Family is where a paint belongs by its undertone ("yellow", "orange", "red",
// "magenta", "violet", "blue", "cyan", "green"), or by the library's word
// ("earth", "black", "white").
type Family string

// Role is a place in a primary system: "yellow", "red", "blue", "magenta" or
// "cyan". The empty role means none.
type Role string

// Roles are all the roles there are.
var Roles = []Role{"yellow", "red", "blue", "magenta", "cyan"}

// hinge is the hue (OKLCh degrees) from which lean is measured, and the names
// of the neighbours on either side.
type hinge struct {
	hue, dead     float64
	lower, higher string
}

type familyRange struct {
	family   Family
	from, to float64 // OKLCh degrees; the range may pass through 0
	hinge    hinge
}

//go:embed data/families.csv
var familiesCSV string

//go:embed data/role-hinges.csv
var rolesCSV string

var families = func() (out []familyRange) {
	for _, r := range table.Rows(familiesCSV) {
		out = append(out, familyRange{Family(r[0]), table.Number(r[1]), table.Number(r[2]),
			hinge{hue: table.Number(r[3]), lower: r[4], higher: r[5], dead: table.Number(r[6])}})
	}
	return out
}()

var roleHinges = func() map[Role]hinge {
	out := map[Role]hinge{}
	for _, r := range table.Rows(rolesCSV) {
		h := hinge{hue: table.Number(r[1]), lower: r[2], higher: r[3]}
		h.dead = rangeAt(h.hue).hinge.dead
		out[Role(r[0])] = h
	}
	return out
}()

// FamilyOf is the family of a paint.
func FamilyOf(p *paint.Paint) Family {
	switch p.Family {
	case "earth", "black", "white":
		return Family(p.Family)
	}
	return rangeAt(p.Undertone().Hue).family
}

func rangeAt(hue float64) familyRange {
	for _, f := range families {
		if colour.Turn(hue-f.from) < colour.Turn(f.to-f.from) {
			return f
		}
	}
	panic(fmt.Sprintf("no family at hue %v", hue)) // the ranges close the circle, and a test walks it
}

// RoleOf is the role a family plays in a yellow, red and blue triad; empty for
// oranges, violets, greens, earths, blacks and whites, which play none.
func RoleOf(f Family) Role {
	switch f {
	case "yellow":
		return "yellow"
	case "red", "magenta":
		return "red"
	case "blue", "cyan":
		return "blue"
	}
	return ""
}

// Accepts says whether a paint belongs in a role: its own family, the family
// next to it that plays the same part, and, for yellow, the earths that are
// orange to yellow by their undertone.
func (r Role) Accepts(p *paint.Paint) bool {
	f := FamilyOf(p)
	switch r {
	case "yellow":
		hue := rangeAt(p.Undertone().Hue).family
		return f == "yellow" || f == "earth" && (hue == "yellow" || hue == "orange")
	case "red", "magenta":
		return f == "red" || f == "magenta"
	case "blue", "cyan":
		return f == "blue" || f == "cyan"
	}
	return false
}

// Lean is how far a paint's 1:9 tint in white lies from the hinge of its role: the
// tint is what a painter lays out to see it.
type Lean struct {
	Degrees float64 // OKLCh hue less the hinge, -180 to 180
	Toward  string  // the neighbour it leans to, or "centred" within the dead band
	// InMass and InWash are the neighbour it leans to straight from the tube, and
	// in a thin wash, where that is the other side; empty where they agree.
	InMass, InWash string
	Lower, Higher  string // the neighbours on the side of lower and of higher hue
}

// Centred says that the lean is within the dead band.
func (l Lean) Centred() bool { return l.Toward == "centred" }

// LeanIn measures a paint's lean in a role; with no role, from the hinge of
// the role its family would play, or of its own hue. Blacks, whites and paints
// too grey to have a hue have no lean.
func LeanIn(p *paint.Paint, r Role) (Lean, bool) {
	m := p.Alone()
	u := p.Undertone()
	if m.Neutral() || !u.HasHue() {
		return Lean{}, false
	}
	h := rangeAt(u.Hue).hinge
	if r == "" {
		r = RoleOf(FamilyOf(p))
	}
	if r != "" {
		h = roleHinges[r]
	}
	tint := m.LetDown(paint.TintShare)
	lean := h.lean(hueOf(tint.Masstone()))
	lean.InMass = lean.otherwise(h, m.Masstone())
	lean.InWash = lean.otherwise(h, m.Wash())
	lean.Lower, lean.Higher = h.lower, h.higher
	return lean, true
}

func hueOf(s colour.Spectrum) float64 { return s.OKLab(colour.D65).OKLCh().H }

// otherwise is the neighbour that a colour leans to where it is the other one;
// empty where it is not, or too grey to tell.
func (l Lean) otherwise(h hinge, s colour.Spectrum) string {
	lch := s.OKLab(colour.D65).OKLCh()
	if is := h.lean(lch.H); lch.C >= colour.NeutralChroma && !l.Centred() && !is.Centred() && is.Toward != l.Toward {
		return is.Toward
	}
	return ""
}

func (h hinge) lean(hue float64) Lean {
	d := colour.TurnBetween(h.hue, hue)
	switch {
	case math.Abs(d) <= h.dead:
		return Lean{Degrees: d, Toward: "centred"}
	case d < 0:
		return Lean{Degrees: d, Toward: h.lower}
	default:
		return Lean{Degrees: d, Toward: h.higher}
	}
}
