package journal

import (
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Reading is what was read of one painted place.
type Reading struct {
	Region string // its id
	paint.Reading
	Minutes float64 // since it was painted
	Spread  float64 // standard deviation within the spot, CIELAB; 0 where it is not known
	Doubt   string  // why it is not believed: it is shown, and left out of learning; empty where it is
}

// The limits of a reading.
const (
	mostSpread   = 100
	longestDoubt = 200
)

// Check says what is wrong with a reading, with an input.Error.
func (r *Reading) Check() error {
	switch {
	case !(r.Minutes >= 0 && r.Minutes <= 60*24*3660):
		return input.Errorf("%s: it was read %v minutes after it was painted, which cannot be", input.Clip(r.Region), r.Minutes)
	case !(r.Spread >= 0 && r.Spread <= mostSpread):
		return input.Errorf("%s: a spread runs from 0 to %d, and not to %v", input.Clip(r.Region), mostSpread, r.Spread)
	}
	if _, err := text.Line("the doubt of "+input.Clip(r.Region), r.Doubt, longestDoubt); err != nil {
		return input.Wrap(err)
	}
	return nil
}

// Steps are how far the chips of a reading by eye lie off, CIEDE2000: far, then near, then
// as near as an eye tells.
var Steps = []float64{3, 1.5, 0.8}

// Chip is a colour to hold a painted place against.
type Chip struct {
	Says string // how it differs from the one in the middle: "lighter"
	Lab  colour.Lab
}

// Chips are six colours round another, each so far off in CIEDE2000: lighter, darker, and
// four in hue and chroma; round a near grey the four are toward red, yellow, green and
// blue.
func Chips(round colour.Lab, off float64) []Chip {
	hue := math.Atan2(round.B, round.A)
	ways := []struct {
		says string
		by   colour.Lab
	}{
		{"lighter", colour.Lab{L: 1}}, {"darker", colour.Lab{L: -1}},
		{"brighter", colour.Lab{A: math.Cos(hue), B: math.Sin(hue)}}, {"duller", colour.Lab{A: -math.Cos(hue), B: -math.Sin(hue)}},
		{"one way round in hue", colour.Lab{A: -math.Sin(hue), B: math.Cos(hue)}}, {"the other way round", colour.Lab{A: math.Sin(hue), B: -math.Cos(hue)}},
	}
	if round.Chroma() < 6 {
		for n, at := range []struct {
			says string
			a, b float64
		}{{"redder", 1, 0}, {"greener", -1, 0}, {"yellower", 0, 1}, {"bluer", 0, -1}} {
			ways[n+2].says, ways[n+2].by = at.says, colour.Lab{A: at.a, B: at.b}
		}
	} else {
		ways[4].says, ways[5].says = turned(round, ways[4].by), turned(round, ways[5].by)
	}
	var out []Chip
	for _, way := range ways {
		at := func(t float64) colour.Lab {
			return colour.Lab{L: round.L + t*way.by.L, A: round.A + t*way.by.A, B: round.B + t*way.by.B}
		}
		low, high := 0.0, 40.0
		for range 40 {
			mid := (low + high) / 2
			if colour.Difference(round, at(mid)) < off {
				low = mid
			} else {
				high = mid
			}
		}
		lab := at(low)
		lab.L = math.Min(100, math.Max(0, lab.L))
		out = append(out, Chip{way.says, lab})
	}
	return out
}

// turned says toward which colour a step round in hue goes.
func turned(from, by colour.Lab) string {
	best, says := -2.0, ""
	at := math.Hypot(from.A, from.B)
	for _, to := range []struct {
		says string
		a, b float64
	}{{"redder", 0.92, 0.39}, {"yellower", 0.03, 1}, {"greener", -0.93, 0.37}, {"bluer", -0.2, -0.98}, {"more violet", 0.6, -0.8}} {
		// Toward what lies on that side, and not where it stands already.
		same := (from.A*to.a + from.B*to.b) / at
		if d := by.A*to.a + by.B*to.b; d > best && same < 0.94 {
			best, says = d, to.says
		}
	}
	return says
}
