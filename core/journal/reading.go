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
	Minutes float64    // since it was painted
	Spread  float64    // standard deviation within the spot, CIELAB; 0 where it is not known
	Photo   *PhotoSpot // where it was read on a photo; nil where that is not known
	Doubt   string     // why it is not believed: it is shown, and left out of learning; empty where it is
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

// Rounds are how far the ribbons of a reading by eye run either way, CIEDE2000: a second round is
// at a third of the width.
var Rounds = []float64{6, 2}

// FindRounds are how far they run where a colour is looked for of which only one is known that comes
// near it.
var FindRounds = []float64{15, 6, 2}

// halfStops is how many colours a ribbon has on either side of its middle.
const halfStops = 12

// nearGrey is the chroma (CIELAB) below which a hue is no way to go.
const nearGrey = 6

// Ribbon is a band of colours through one, that a painted place is held in.
type Ribbon struct {
	From, To string // how its ends differ from its middle: "darker", "lighter"
	Stops    []Stop // from the one end to the other
}

// Stop is a colour of a ribbon.
type Stop struct {
	Off float64 // CIEDE2000 from the middle; below 0 toward the ribbon's beginning
	Lab colour.Lab
}

// Ribbons are three bands of colours through one, each so far either way in CIEDE2000: from dark to
// light, from quiet to bright and round in hue; through a near grey the last two are from green to
// red and from blue to yellow. A band ends where there is no such colour.
func Ribbons(through colour.Lab, off float64) []Ribbon {
	hue := math.Atan2(through.B, through.A)
	ways := []way{{"darker", "lighter", colour.Lab{L: 1}}}
	if round := (colour.Lab{A: -math.Sin(hue), B: math.Cos(hue)}); through.Chroma() < nearGrey {
		ways = append(ways, way{"greener", "redder", colour.Lab{A: 1}}, way{"bluer", "yellower", colour.Lab{B: 1}})
	} else {
		ways = append(ways, way{"quieter", "brighter", colour.Lab{A: math.Cos(hue), B: math.Sin(hue)}},
			way{turned(through, -1), turned(through, 1), round})
	}
	var out []Ribbon
	for _, w := range ways {
		r := Ribbon{From: w.from, To: w.to}
		for n := -halfStops; n <= halfStops; n++ {
			far := off * float64(n) / halfStops
			if lab, there := w.at(through, far); there {
				r.Stops = append(r.Stops, Stop{far, lab})
			}
		}
		out = append(out, r)
	}
	return out
}

// way is a direction in CIELAB, and what its ends are called.
type way struct {
	from, to string
	by       colour.Lab
}

// at is the colour on the way through another that lies so far off in CIEDE2000; false where there
// is none.
func (w *way) at(through colour.Lab, off float64) (colour.Lab, bool) {
	at := func(t float64) colour.Lab {
		t = math.Copysign(t, off)
		return colour.Lab{L: through.L + t*w.by.L, A: through.A + t*w.by.A, B: through.B + t*w.by.B}
	}
	low, high := 0.0, farthest
	for range 40 {
		mid := (low + high) / 2
		if colour.Difference(through, at(mid)) < math.Abs(off) {
			low = mid
		} else {
			high = mid
		}
	}
	lab := at(low)
	along := func(c colour.Lab) float64 { return c.A*w.by.A + c.B*w.by.B }
	past := off < 0 && along(through) > nearGrey/2 && along(lab) < 0 // through grey to the other side
	return lab, lab.L >= 0 && lab.L <= 100 && !past
}

// farthest is how far in CIELAB a ribbon reaches at the most.
const farthest = 60.0

// standing is how far round a hue lies from a colour at the least to be spoken of as a way to go.
const standing = 20

// turned says toward which of the four hues that painters go by one comes next from a colour, up
// (1) or down (-1) the painter's circle.
func turned(from colour.Lab, way float64) (says string) {
	at, least := colour.WheelHue(from.OKLab().OKLCh().H), 360.0
	for _, to := range []struct {
		says string
		hue  float64
	}{{"redder", 0}, {"yellower", 120}, {"greener", 180}, {"bluer", 240}} {
		if turn := colour.Turn(way * (to.hue - at)); turn >= standing && turn < least {
			says, least = to.says, turn
		}
	}
	return says
}
