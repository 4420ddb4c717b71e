package exchange

import (
	"errors"
	"slices"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// Finder finds a paint by what it is called: a library id or, where there is a
// box, one of its tubes.
type Finder func(ref string) (*paint.Paint, error)

// SystemContent is a primary system as it is kept: paints by reference, a role
// a list, in the order of the wheel.
type SystemContent struct {
	Kind   string      `json:"kind" enum:"triad,cmy,split,double,leaning-clockwise,leaning-counter-clockwise,own"`
	Roles  [3][]string `json:"roles" doc:"paints of each role, in the order of the wheel"`
	Chosen [3][]string `json:"chosen" doc:"the pair a painter wants for each section, empty for the brightest"`
	Riders Riders      `json:"riders"`
	Note   string      `json:"note" maxLength:"1000"`
}

// Riders ride along in a system without being primaries; each may be empty.
type Riders struct {
	White       string `json:"white,omitempty" maxLength:"60"`
	Black       string `json:"black,omitempty" maxLength:"60"`
	BlueGrey    string `json:"blueGrey,omitempty" maxLength:"60"`
	Convenience string `json:"convenience,omitempty" maxLength:"60"`
}

// list is the riders in the order of the core.
func (r Riders) list() [4]string { return [4]string{r.White, r.Black, r.BlueGrey, r.Convenience} }

// Names says whether any of the system's paints is named with a prefix.
func (c SystemContent) Names(prefix string) bool {
	riders := c.Riders.list()
	refs := riders[:]
	for k := range c.Roles {
		refs = append(append(refs, c.Roles[k]...), c.Chosen[k]...)
	}
	return slices.ContainsFunc(refs, func(ref string) bool { return strings.HasPrefix(ref, prefix) })
}

// System finds the paints of a kept system.
func (c SystemContent) System(find Finder) (wheel.System, error) {
	kind, err := wheel.ParseKind(c.Kind)
	if err != nil {
		return wheel.System{}, refused(err)
	}
	if _, err := text.Lines("the note of the system", c.Note, longestNote); err != nil {
		return wheel.System{}, sentence(err)
	}
	var roles [3][]*paint.Paint
	_, most := kind.Places()
	for k, refs := range c.Roles {
		if len(refs) > most {
			return wheel.System{}, bad("%d paints in the role of the %s are too many: a %s system has at most %d", len(refs), kind.Roles()[k], kind, most)
		}
		for _, ref := range refs {
			p, err := find(ref)
			var typed BadInput
			if errors.As(err, &typed) {
				return wheel.System{}, bad("%s: %w", kind.Roles()[k], err)
			}
			if err != nil {
				return wheel.System{}, err
			}
			roles[k] = append(roles[k], p)
		}
	}
	s, err := wheel.NewSystem(kind, roles)
	if err != nil {
		return wheel.System{}, refused(err)
	}
	for i, ref := range c.Riders.list() {
		if ref == "" {
			continue
		}
		p, err := find(ref)
		if err != nil {
			return wheel.System{}, err
		}
		if s, err = s.Riding(wheel.Riders[i], p); err != nil {
			return wheel.System{}, refused(err)
		}
	}
	for k, pair := range c.Chosen {
		if len(pair) == 0 {
			continue
		}
		if len(pair) != 2 {
			return wheel.System{}, bad("a section is filled by two paints, not %d", len(pair))
		}
		a, err := find(pair[0])
		if err != nil {
			return wheel.System{}, err
		}
		b, err := find(pair[1])
		if err != nil {
			return wheel.System{}, err
		}
		if s, err = s.Choosing(k, a, b); err != nil {
			return wheel.System{}, refused(err)
		}
	}
	return s, nil
}

// SortIntoRoles parts paints named one after another into three roles: at
// slashes where there are some, into equal shares where they come out even, or
// else where one family ends and the next begins.
func SortIntoRoles(refs []string) (out [3][]string, err error) {
	joined := strings.Join(refs, " ")
	if strings.Contains(joined, "/") {
		groups := strings.Split(joined, "/")
		if len(groups) != 3 {
			return out, bad("two slashes part the paints of three roles: yellows / reds / blues")
		}
		for k, g := range groups {
			out[k] = strings.Fields(g)
		}
		return out, nil
	}
	if len(refs) == 0 || len(refs) > 12 {
		return out, bad("name the paints in the order yellows, reds, blues; with slashes between, where the roles have not the same number")
	}
	if n := len(refs) / 3; len(refs)%3 == 0 {
		for k := range out {
			out[k] = refs[k*n : (k+1)*n]
		}
		return out, nil
	}
	roles := []bias.Role{"yellow", "red", "blue"}
	k := 0
	for _, ref := range refs {
		p, err := FindPaint(ref)
		if err != nil {
			return out, err
		}
		for k < 2 && !roles[k].Accepts(p) {
			k++
		}
		out[k] = append(out[k], ref)
	}
	return out, nil
}

// WheelChoices are how a wheel is built and what rings it has.
type WheelChoices struct {
	Spacing string `json:"spacing" enum:"hue,contrast,parts"`
	Order   string `json:"order" enum:"run,secondary" doc:"mixed from the weaker paint on, or the secondary first"`
	Names   string `json:"names" enum:"painters,printers"`
	Top     string `json:"top,omitempty" enum:"yellow,red,blue,magenta,cyan" doc:"the hue on top; the first role when left out"`
	CCW     bool   `json:"ccw,omitempty" doc:"counter-clockwise"`
	Six     bool   `json:"six,omitempty" doc:"six slots for beginners"`
	Raise   bool   `json:"raise,omitempty" doc:"transparent paints are first raised with white"`
	Rings   Rings  `json:"rings"`
}

// Rings are the rings that are on.
type Rings struct {
	Tints   int    `json:"tints" minimum:"0" maximum:"3"`
	TintBy  string `json:"tintBy,omitempty" enum:"white,water,neighbour" doc:"by the medium when left out"`
	Shades  int    `json:"shades" minimum:"0" maximum:"3"`
	ShadeBy string `json:"shadeBy,omitempty" enum:"complement,black,blue-grey,mixed-black" doc:"the complement when left out"`
	Wash    bool   `json:"wash"`
	Neutral bool   `json:"neutral" doc:"the middles of the complements"`
	Triple  bool   `json:"triple" doc:"highlight and shadow"`
}

// ParseRings reads "tints=2:white,shades=1:complement,wash,neutral,triple".
func ParseRings(text string) (r Rings, err error) {
	for _, ring := range strings.Split(text, ",") {
		name, how, _ := strings.Cut(strings.TrimSpace(ring), "=")
		count, by, _ := strings.Cut(how, ":")
		n := 1
		if count != "" {
			if len(count) != 1 || count[0] < '1' || count[0] > '3' {
				return r, bad("%s: a ring has 1 to 3 rungs, not %q", clip(name), clip(count))
			}
			n = int(count[0] - '0')
		}
		switch name {
		case "":
		case "undertone": // always there
		case "tints":
			r.Tints, r.TintBy = n, by
		case "shades":
			r.Shades, r.ShadeBy = n, by
		case "wash":
			r.Wash = true
		case "neutral":
			r.Neutral = true
		case "triple":
			r.Triple = true
		default:
			return r, bad("unknown ring %q: choose undertone, tints, shades, wash, neutral or triple", clip(name))
		}
	}
	return r, nil
}

// options checks the choices, and fills in what the medium decides.
func (c WheelChoices) options(v View) (o wheel.Options, order wheel.Order, tintBy, shadeBy wheel.Toward, err error) {
	fail := func(err error) (wheel.Options, wheel.Order, wheel.Toward, wheel.Toward, error) {
		return o, order, tintBy, shadeBy, refused(err)
	}
	if c.Spacing == "" {
		c.Spacing = path.ByHue.String()
	}
	if o.Spacing, err = path.ParseSpacing(c.Spacing); err != nil {
		return fail(err)
	}
	if c.Order == "" {
		c.Order = string(wheel.RunOn)
	}
	if order, err = wheel.ParseOrder(c.Order); err != nil {
		return fail(err)
	}
	if c.Names == "" {
		c.Names = "painters"
	}
	if o.Names, err = wheel.ParseNames(c.Names); err != nil {
		return fail(err)
	}
	tintBy, shadeBy = wheel.ByWhite, wheel.ByComplement
	if v.Medium.LightenWithWater {
		tintBy = wheel.ByWater
	}
	if c.Rings.TintBy != "" {
		if tintBy, err = wheel.ParseToward(c.Rings.TintBy, wheel.Tinting); err != nil {
			return fail(err)
		}
	}
	if c.Rings.ShadeBy != "" {
		if shadeBy, err = wheel.ParseToward(c.Rings.ShadeBy, wheel.Shading); err != nil {
			return fail(err)
		}
	}
	o.Top, o.CCW, o.Six, o.Raise = bias.Role(c.Top), c.CCW, c.Six, c.Raise
	return o, order, tintBy, shadeBy, nil
}
