package wheel

import (
	"cmp"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Choices are how a painter wants a wheel built and which rings it has, by name,
// as they are kept. What is empty is as usual.
type Choices struct {
	Spacing       string // path.Spacing
	Order         string
	Names         string // "painters" or "printers"
	Called        OwnNames
	Top           string // the role on top
	CCW           bool   // counter-clockwise
	Six           bool   // six slots for beginners
	Raise         bool   // transparent paints are first raised with white
	TintBy        string // by the medium when empty
	ShadeBy       string // the complement when empty
	Tints, Shades int    // rungs, 0 to 3
	Wash          bool
	Neutral       bool // the middles of the complements
	Highlight     bool // highlight and shadow
}

// UsualChoices are the choices of a new wheel.
func UsualChoices() Choices {
	return Choices{Spacing: path.ByHue.String(), Order: string(RunOn), Names: "painters"}
}

// Options checks the choices, and fills in what is usual in a medium. The error
// is an input.Error.
func (c Choices) Options(in paint.Medium) (o Options, err error) {
	usual := UsualChoices()
	if o.Spacing, err = path.ParseSpacing(cmp.Or(c.Spacing, usual.Spacing)); err != nil {
		return o, input.Wrap(err)
	}
	if o.Order, err = ParseOrder(cmp.Or(c.Order, usual.Order)); err != nil {
		return o, input.Wrap(err)
	}
	if o.Names, err = ParseNames(cmp.Or(c.Names, usual.Names)); err != nil {
		return o, input.Wrap(err)
	}
	if o.Called, err = c.Called.sound(); err != nil {
		return o, err
	}
	tint := ByWhite
	if in.LightenWithWater {
		tint = ByWater
	}
	if o.TintBy, err = ParseAdditive(cmp.Or(c.TintBy, string(tint)), Tinting); err != nil {
		return o, input.Wrap(err)
	}
	if o.ShadeBy, err = ParseAdditive(cmp.Or(c.ShadeBy, string(ByComplement)), Shading); err != nil {
		return o, input.Wrap(err)
	}
	o.Top, o.CCW, o.Six, o.Raise = bias.Role(c.Top), c.CCW, c.Six, c.Raise
	return o, nil
}

// WithRings is the choices with the rings read from
// "tints=2:white,shades=1:complement,wash,neutral,triple". The error is an
// input.Error.
func (c Choices) WithRings(list string) (Choices, error) {
	for _, ring := range strings.Split(list, ",") {
		name, how, _ := strings.Cut(strings.TrimSpace(ring), "=")
		count, by, _ := strings.Cut(how, ":")
		n := 1
		if count != "" {
			if len(count) != 1 || count[0] < '1' || count[0] > '3' {
				return c, input.Errorf("%s: a ring has 1 to 3 rungs, not %q", input.Clip(name), input.Clip(count))
			}
			n = int(count[0] - '0')
		}
		switch name {
		case "":
		case "undertone": // always there
		case "tints":
			c.Tints, c.TintBy = n, by
		case "shades":
			c.Shades, c.ShadeBy = n, by
		case "wash":
			c.Wash = true
		case "neutral":
			c.Neutral = true
		case "triple":
			c.Highlight = true
		default:
			return c, input.Errorf("unknown ring %q: choose undertone, tints, shades, wash, neutral or triple", input.Clip(name))
		}
	}
	return c, nil
}
