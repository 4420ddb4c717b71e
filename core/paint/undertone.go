package paint

import (
	"math"

	"gyrophane/core/colour"
)

// leastShare is the last rung of the white ladder: the share of colour left.
const leastShare = 0.003

// Undertone is the rung of the white ladder with the highest OKLCh chroma:
// what a paint or mixture really is. Whites that are in it already are left out
// before it climbs: a tint has the undertone of its colour. Always in titanium
// white, wet, under daylight, whatever the viewing conditions.
type Undertone struct {
	Share     float64 // of the mixture, its whites left out, in the white, 0.003 to 1
	Colour    colour.OKLab
	Chroma    float64 // OKLCh
	Hue       float64 // OKLCh, degrees
	WheelHue  float64 // degrees on the painter's circle
	Retention float64 // chroma over what the library can reach at this hue, 0 to 1
	Kept      float64 // the mixing loss: retention over the mean of its paints' own, 0 to 1; 1 for a paint alone
	Verdict   Verdict
	Shade     bool // of a paint that has no hue in something coloured: it has no verdict of its own
	quiet     bool // a paint in it is quiet by itself
}

// HasHue says that there is enough chroma for the hue to mean anything.
func (u Undertone) HasHue() bool { return u.Chroma >= colour.NeutralChroma }

// whiteFrom is the lightness (OKLab) from which what has no hue is white.
const whiteFrom = 0.93

// HueWord is the plain name of the undertone's hue: "violet", or
// "grey, leaning violet" where there is too little chroma to trust it.
func (u Undertone) HueWord() string {
	word := colour.HueWord(u.WheelHue)
	if !u.HasHue() && u.Colour.L >= whiteFrom {
		return "white"
	}
	if !u.HasHue() {
		return "grey, leaning " + word
	}
	return word
}

// Undertone finds the mixture's undertone, by a coarse scan of the ladder and
// then golden section on the logarithm of the share.
func (m *Mixture) Undertone() Undertone {
	bare := m
	if m.white != nil {
		without := m.withoutWhite()
		bare = &without
	}
	u := bare.bareUndertone()
	u.Retention = min(1, u.Chroma/Envelope(u.WheelHue))
	u.Kept = m.kept(u.Retention)
	u.quiet, u.Shade = m.quiet, m.Shade()
	u.Verdict = m.judge(u)
	return u
}

// rung is one place f on the white ladder, 0 for the whole mixture to 1 for
// the least share, and its colour.
type rung struct {
	f, share float64
	colour   colour.OKLab
	square   float64 // of the chroma
}

const coarseRungs = 9

// bareUndertone is the undertone without what needs the envelope.
func (m *Mixture) bareUndertone() Undertone {
	const step = 1.0 / (coarseRungs - 1)
	var coarse [coarseRungs]rung
	top := 0
	for i := range coarse {
		coarse[i] = m.rung(float64(i)*step, coarseShares[i])
		if coarse[i].square > coarse[top].square {
			top = i
		}
	}
	best := coarse[top]
	low, high := max(0, best.f-step), min(1, best.f+step)
	if top > 0 && top < coarseRungs-1 {
		// A parabola through the three best rungs says where in between to look.
		before, after := coarse[top-1].square, coarse[top+1].square
		at := best.f + step/2*(before-after)/(before-2*best.square+after)
		low, high = max(low, at-0.45*step), min(high, at+0.45*step)
	}
	const golden = 0.6180339887498949
	p, q := m.rungAt(high-golden*(high-low)), m.rungAt(low+golden*(high-low))
	for high-low > 0.012 {
		if p.square > q.square {
			high, q = q.f, p
			p = m.rungAt(high - golden*(high-low))
		} else {
			low, p = p.f, q
			q = m.rungAt(low + golden*(high-low))
		}
	}
	best = best.orBetter(p).orBetter(q)
	lch := best.colour.OKLCh()
	return Undertone{Share: best.share, Colour: best.colour, Chroma: lch.C, Hue: lch.H, WheelHue: colour.WheelHue(lch.H)}
}

func (r rung) orBetter(s rung) rung {
	if s.square > r.square {
		return s
	}
	return r
}

var lnLeastShare = math.Log(leastShare)

// coarseShares are the shares of the coarse rungs.
var coarseShares = func() (out [coarseRungs]float64) {
	for i := range out {
		out[i] = math.Pow(leastShare, float64(i)/(coarseRungs-1))
	}
	return out
}()

func (m *Mixture) rungAt(f float64) rung { return m.rung(f, math.Exp(f*lnLeastShare)) }

// rung is the mixture let down to a share of 0.003^f, as masstone in OKLab,
// summed band by band: the innermost loop of everything.
func (m *Mixture) rung(f, share float64) rung {
	white, w := &titanium.alone, colour.D65.Weights()
	var c colour.Cones
	for i := range m.k {
		k := white.k[i] + share*(m.k[i]-white.k[i])
		s := white.s[i] + share*(m.s[i]-white.s[i])
		r := (1 - 0.04) * (1 - 0.60) * s / (k + s*(1-0.60) + math.Sqrt(k*(k+2*s)))
		c.L += w[i].L * r
		c.M += w[i].M * r
		c.S += w[i].S * r
	}
	o := c.OKLab()
	return rung{f, share, o, o.A*o.A + o.B*o.B}
}
