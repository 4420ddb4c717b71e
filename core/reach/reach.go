package reach

import (
	"math"
	"math/bits"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Bins is in how many directions of the painter's circle a reach is known, and
// Width how many degrees each takes.
const (
	Bins  = 72
	Width = 360.0 / Bins
)

// Reach is how much of the possible undertone chroma is reached (0 to 1) at the
// middle of each bin of wheel hue: 2.5, 7.5 ... 357.5 degrees.
type Reach [Bins]float64

// Middle is the wheel hue in the middle of a bin, in degrees.
func Middle(bin int) float64 { return Width * (float64(bin) + 0.5) }

// OfPath is the reach along one path: between neighbouring samples that have a
// hue, chroma is interpolated by hue.
func OfPath(p *path.Path) (out Reach) {
	along(p, func(bin int, chroma float64, _, _ *paint.Undertone, _ float64) {
		out[bin] = max(out[bin], min(1, chroma/paint.Envelope(Middle(bin))))
	})
	return out
}

// along visits each bin whose middle a path passes: the chroma there, and the
// two samples between which it lies, with how far between them.
func along(p *path.Path, visit func(bin int, chroma float64, a, b *paint.Undertone, f float64)) {
	for i := 1; i < len(p.Samples); i++ {
		a, b := &p.Samples[i-1].Under, &p.Samples[i].Under
		if !a.HasHue() || !b.HasHue() {
			continue
		}
		turn := colour.TurnBetween(a.WheelHue, b.WheelHue)
		if turn == 0 {
			continue
		}
		from, to := a.WheelHue, a.WheelHue+turn
		if turn < 0 {
			from, to = to, from
		}
		for bin := int(math.Ceil(from/Width - 0.5)); Middle(bin) <= to; bin++ {
			f := (Middle(bin) - a.WheelHue) / turn
			visit(((bin%Bins)+Bins)%Bins, a.Chroma+f*(b.Chroma-a.Chroma), a, b, f)
		}
	}
}

// OfSystem is the reach of all ways that a system paints with.
func OfSystem(s wheel.System) Reach { return ofWays(path.PairAll(s.Allowed(), path.ByHue)) }

func ofWays(ways []path.Pairing) (out Reach) {
	for _, p := range ways {
		out = out.With(OfPath(p.Path))
	}
	return out
}

// With is the farther of two reaches in each bin.
func (r Reach) With(other Reach) Reach {
	for i, v := range other {
		r[i] = max(r[i], v)
	}
	return r
}

// Clean is the share of the circle, 0 to 1, that is reached cleanly.
func (r Reach) Clean() float64 { return r.from(paint.CleanFrom()).share() }

// Soft is the share of the circle, 0 to 1, that is reached clean or softened.
func (r Reach) Soft() float64 { return r.from(paint.SoftenedFrom()).share() }

// vividFrom is the reach from which a hue is vivid, once rounded.
const vividFrom = 0.90

// Vivid is the share of the circle, 0 to 1, that is reached at 0.90 of the possible
// or more.
func (r Reach) Vivid() float64 { return r.from(vividFrom).share() }

// CleanRuns are the stretches of the circle that are reached cleanly.
func (r Reach) CleanRuns() []HueRange { return r.from(paint.CleanFrom()).runs() }

// Mean is the mean brightness: the mean over all bins.
func (r Reach) Mean() float64 {
	sum := 0.0
	for _, v := range r {
		sum += v
	}
	return sum / Bins
}

// Gap is a run of the circle that is not reached cleanly: from one wheel hue
// upward to another, in degrees.
type Gap struct{ From, Degrees float64 }

// WidestGap is the longest run that is not clean; 0 degrees when there is none.
func (r Reach) WidestGap() (widest Gap) {
	clean := r.from(paint.CleanFrom())
	run := 0
	for i := range 2 * Bins {
		if clean.has(i % Bins) {
			run = 0
			continue
		}
		run++
		if d := Width * float64(min(run, Bins)); d > widest.Degrees {
			widest = Gap{colour.Turn(Width * float64(i+1-min(run, Bins))), d}
		}
	}
	return widest
}

// bins is a set of bins.
type bins [2]uint64

func (r Reach) from(least float64) (out bins) {
	for i, v := range r {
		if paint.TwoPlaces(v) >= least {
			out.add(i)
		}
	}
	return out
}

func (b *bins) add(i int) { b[i/64] |= 1 << (i % 64) }

func (b bins) has(i int) bool { return b[i/64]>>(i%64)&1 == 1 }

func (b bins) or(c bins) bins { return bins{b[0] | c[0], b[1] | c[1]} }

func (b bins) count() int { return bits.OnesCount64(b[0]) + bits.OnesCount64(b[1]) }

func (b bins) share() float64 { return float64(b.count()) / Bins }
