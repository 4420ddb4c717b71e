// Package paint is paint as light meets it: absorption K and scattering S,
// mixtures by parts, layers and films, wet and dry, and what a mixture really
// is: its undertone, and how much of the possible brightness it keeps. The
// built-in library is modelled, typical of each pigment class.
package paint

import (
	"errors"
	"fmt"
	"math"

	"gyrophane/core/colour"
)

// Mixture is absorption K and scattering S per unit thickness in the 36 bands
// of colour.Spectrum, on the scale of titanium white (S = 1 at 550 nm).
// Strengths are already in it. The zero Mixture is no paint.
type Mixture struct {
	k, s    colour.Spectrum
	neutral bool // made of nothing but whites and blacks
	hued    bool // a paint in it has a hue of its own
	quiet   bool // a paint in it is quiet by itself
	shaded  bool // a paint in it has no hue, and is no white

	// What its paints, whites left out, bring: their shares times their mean
	// absorption from 400 to 700 nm, and that times their own retention.
	weight, brought float64

	white  *Mixture // the white in it, nil for none
	whites float64  // its share by volume
}

// ofOneTube makes a mixture the paint of a tube, which has lost nothing by being
// itself; neutral is set already.
func (m *Mixture) ofOneTube() {
	m.white, m.whites = nil, 0
	u := m.bareUndertone()
	m.hued = !m.neutral && u.HasHue()
	m.shaded = !m.hued
	m.weight = m.visibleAbsorption()
	own := min(1, u.Chroma/Envelope(u.WheelHue))
	m.brought = m.weight * own
	m.quiet = m.hued && TwoPlaces(own) < cleanFrom
}

// allWhite makes a mixture the paint of a tube of white.
func (m *Mixture) allWhite() {
	itself := Mixture{k: m.k, s: m.s}
	*m = Mixture{k: m.k, s: m.s, neutral: true, white: &itself, whites: 1}
}

// visibleAbsorption is the mean of K from 400 to 700 nm.
func (m *Mixture) visibleAbsorption() (mean float64) {
	const from, to = 2, 32
	for _, k := range m.k[from : to+1] {
		mean += k / (to - from + 1)
	}
	return mean
}

// allWhite is the share of whites from which nothing else can be told from how their shares were rounded.
const allWhite = 1 - 1e-9

// withoutWhite is what is left when the whites are taken out: what a tint is a
// tint of. Of nothing but white, it is the white.
func (m *Mixture) withoutWhite() Mixture {
	if m.white == nil || m.whites >= allWhite {
		return *m
	}
	c := *m
	c.white, c.whites = nil, 0
	rest := 1 - m.whites
	for i := range c.k {
		c.k[i] = max(0, (m.k[i]-m.whites*m.white.k[i])/rest)
		c.s[i] = max(0, (m.s[i]-m.whites*m.white.s[i])/rest)
	}
	return c
}

// kept is how much of its paints' own retention a mixture of a retention has, 0
// to 1: its mixing loss. A paint alone keeps all.
func (m *Mixture) kept(retention float64) float64 {
	if m.brought == 0 || retention*m.weight >= m.brought {
		return 1
	}
	return retention * m.weight / m.brought
}

// Part is so many volume parts of a paint.
type Part struct {
	Paint *Paint
	Parts float64
}

// maxParts is the most parts of one paint that are taken seriously.
const maxParts = 1e6

// Mix stirs paints together by volume: K and S of the mixture are the means of
// the paints' K and S, weighted by parts times strength [Kubelka & Munk 1931;
// Duncan 1940]. Parts must be above 0 and at most a million.
func Mix(parts ...Part) (Mixture, error) {
	return Strengthened(parts, func(int) float64 { return 1 })
}

// Strengthened is Mix with each part's paint so many times as strong as it is, by its
// place among the parts: its K and S are multiplied.
func Strengthened(parts []Part, times func(i int) float64) (Mixture, error) {
	return Varied(parts, times, func(int) *colour.Spectrum { return nil })
}

// Varied is Strengthened with K of each part's paint multiplied band by band besides, as Variants has it; nil for 1. What
// the mixture brings is that of its paints as they are.
func Varied(parts []Part, times func(i int) float64, absorbs func(i int) *colour.Spectrum) (Mixture, error) {
	if len(parts) == 0 {
		return Mixture{}, errors.New("a mixture needs at least one paint")
	}
	var total float64
	for _, p := range parts {
		if !(p.Parts > 0) || p.Parts > maxParts {
			return Mixture{}, fmt.Errorf("%s: parts must be a number above 0 and at most %d, not %v", p.Paint.ID, int(maxParts), p.Parts)
		}
		total += p.Parts
	}
	m := Mixture{neutral: true}
	for i, p := range parts {
		share := p.Parts / total * times(i)
		m.add(&p.Paint.alone, share)
		if by := absorbs(i); by != nil {
			for band, k := range p.Paint.alone.k {
				m.k[band] += share * k * (by[band] - 1)
			}
		}
	}
	return m, nil
}

// Between is the mixture with a share t (0 to 1, by volume) of b in a.
func Between(a, b *Mixture, t float64) Mixture {
	switch t {
	case 0:
		return *a
	case 1:
		return *b
	}
	m := Mixture{neutral: a.neutral && b.neutral, hued: a.hued || b.hued, quiet: a.quiet || b.quiet, shaded: a.shaded || b.shaded,
		weight: a.weight + t*(b.weight-a.weight), brought: a.brought + t*(b.brought-a.brought)}
	for i := range m.k {
		m.k[i] = a.k[i] + t*(b.k[i]-a.k[i])
		m.s[i] = a.s[i] + t*(b.s[i]-a.s[i])
	}
	if a.white != nil || b.white != nil {
		m.white, m.whites = together(a.white, (1-t)*a.whites, b.white, t*b.whites)
	}
	return m
}

func (m *Mixture) add(p *Mixture, share float64) {
	for i := range m.k {
		m.k[i] += share * p.k[i]
		m.s[i] += share * p.s[i]
	}
	m.neutral = m.neutral && p.neutral
	m.hued = m.hued || p.hued
	m.quiet = m.quiet || p.quiet
	m.shaded = m.shaded || p.shaded
	m.weight += share * p.weight
	m.brought += share * p.brought
	if p.white != nil {
		m.white, m.whites = together(m.white, m.whites, p.white, share*p.whites)
	}
}

// together is the white that a share of one and a share of another make, and
// their sum.
func together(a *Mixture, ofA float64, b *Mixture, ofB float64) (*Mixture, float64) {
	both := ofA + ofB
	switch {
	case b == nil || a == b || ofB == 0:
		return a, both
	case a == nil || ofA == 0:
		return b, both
	}
	m := Between(&Mixture{k: a.k, s: a.s}, &Mixture{k: b.k, s: b.s}, ofB/both)
	return &m, both
}

// Shade says that it is a shade: something coloured with a paint in it that has no hue, and is no white.
func (m *Mixture) Shade() bool { return m.shaded && m.hued }

// Neutral says that nothing coloured is in the mixture: only whites and blacks.
func (m *Mixture) Neutral() bool { return m.neutral }

// K is the absorption per unit thickness in each band.
func (m *Mixture) K() colour.Spectrum { return m.k }

// Absorption is the mean of K over the bands, per unit thickness: how strongly
// it tells in a mixture.
func (m *Mixture) Absorption() (mean float64) {
	for _, k := range m.k {
		mean += k / colour.Bands
	}
	return mean
}

// S is the scattering per unit thickness in each band.
func (m *Mixture) S() colour.Spectrum { return m.s }

// Surface is the boundary between paint and air, specular light excluded:
// K1 and K2 are the shares of light turned back from outside and from inside
// [Saunderson 1942], and of what is left R' the eye sees Haze + (1 - Haze - Dim) R':
// a rough surface lightens the darks and takes from the lights.
type Surface struct{ K1, K2, Haze, Dim float64 }

// Opaque is the reflectance of a layer so thick that nothing shows through:
// R = 1 / (1 + q + sqrt(q^2 + 2q)), q = K/S [Kubelka & Munk 1931].
func (m *Mixture) Opaque(f Surface) colour.Spectrum {
	through := (1 - f.K1) * (1 - f.K2) * (1 - f.Haze - f.Dim)
	var out colour.Spectrum
	for i := range out {
		k, s := m.k[i], m.s[i]
		// Layer and surface folded into one division.
		out[i] = f.Haze + through*s/(k+s*(1-f.K2)+math.Sqrt(k*(k+2*s)))
	}
	return out
}

// Film is the reflectance of a layer of thickness x (0 and up; 12 is about 50
// micrometres) over a ground of internal reflectance 0 to 1 in every band
// [Kubelka & Munk 1931, hyperbolic solution]. The limits K = 0, S = 0, x = 0
// and x = infinity are exact.
func (m *Mixture) Film(x, ground float64, f Surface) colour.Spectrum {
	flat := colour.Flat(ground)
	return m.filmOver(x, &flat, f)
}

// filmOver is Film over a ground of an internal reflectance of its own in each band.
func (m *Mixture) filmOver(x float64, ground *colour.Spectrum, f Surface) colour.Spectrum {
	var out colour.Spectrum
	for i := range out {
		over, under := m.film(i, x, ground[i])
		out[i] = f.Haze + (1-f.Haze-f.Dim)*(1-f.K1)*(1-f.K2)*over/(under-f.K2*over)
	}
	return out
}

// film is the internal reflectance in one band as a fraction, so that the
// surface needs no second division. With b = sqrt(K(K+2S)) and
// g = tanh(b x)/b, which tends to x as b does to 0, the solution reads
// R = (Rg + (S - Rg (K+S)) g) / (1 + (K+S - Rg S) g).
func (m *Mixture) film(i int, x, ground float64) (over, under float64) {
	k, s := m.k[i], m.s[i]
	b := math.Sqrt(k * (k + 2*s))
	p, q := s-ground*(k+s), k+s-ground*s
	switch bx := b * x; {
	case bx > 20:
		return ground*b + p, b + q
	case bx > 1e-4:
		e := math.Exp(-2 * bx)
		up, down := (1+e)*b, 1-e
		return ground*up + p*down, up + q*down
	case !math.IsInf(x, 1):
		g := x * (1 - bx*bx/3)
		return ground + p*g, 1 + q*g
	case s > 0: // nothing absorbs, and there is no end to it
		return 1, 1
	default:
		return ground, 1
	}
}

// slopes are Film, or Opaque where there is no end to x, and its derivatives by K and by S in each band: those of
// the fraction of film, of which b by K is (K+S)/b and b by S is K/b.
func (m *Mixture) slopes(x, ground float64, f Surface) (r, byK, byS colour.Spectrum) {
	through := (1 - f.Haze - f.Dim) * (1 - f.K1) * (1 - f.K2)
	for i := range r {
		k, s := max(m.k[i], 1e-9), m.s[i]
		b := math.Sqrt(k * (k + 2*s))
		p, q := s-ground*(k+s), k+s-ground*s
		// Both are linear in u and d, which depend on b alone: over = ground u + p d, under = u + q d.
		u, d, uByB, dByB := b, 1.0, 1.0, 0.0
		if bx := b * x; bx <= 20 {
			e := math.Exp(-2 * bx)
			u, d, uByB, dByB = (1+e)*b, -math.Expm1(-2*bx), 1+e-2*bx*e, 2*x*e
		}
		over, under := ground*u+p*d, u+q*d
		overByB, underByB := ground*uByB+p*dByB, uByB+q*dByB
		seen := under - f.K2*over
		slope := func(bBy, pBy, qBy float64) float64 {
			overBy, underBy := overByB*bBy+d*pBy, underByB*bBy+d*qBy
			return through * (overBy*under - over*underBy) / (seen * seen)
		}
		r[i] = f.Haze + through*over/seen
		byK[i], byS[i] = slope((k+s)/b, -ground, 1), slope(k/b, 1-ground, 1-ground)
	}
	return r, byK, byS
}

// WhiteGround is the internal reflectance of white paper or ground.
const WhiteGround = 0.90

// Masstone is the colour straight from the tube: opaque, wet.
func (m *Mixture) Masstone() colour.Spectrum { return m.Opaque(Gloss) }

// BrushedOut is a thin wet film (x = 1) over white: how a painter judges a
// mixture while mixing.
func (m *Mixture) BrushedOut() colour.Spectrum { return m.Film(1, WhiteGround, Gloss) }

// Wash is a thin wash (x = 0.3) over white, wet.
func (m *Mixture) Wash() colour.Spectrum { return m.Film(0.3, WhiteGround, Gloss) }

// BrushedOutColour is the brushed-out colour in OKLab under daylight, which paths,
// steps and parts are measured in: BrushedOut without keeping the spectrum.
func (m *Mixture) BrushedOutColour() colour.OKLab {
	w := colour.D65.Weights()
	var c colour.Cones
	for i := range m.k {
		over, under := m.film(i, 1, WhiteGround)
		r := (1 - 0.04) * (1 - 0.60) * over / (under - 0.60*over)
		c.L += w[i].L * r
		c.M += w[i].M * r
		c.S += w[i].S * r
	}
	return c.OKLab()
}

// LetDown is the mixture let down with titanium white, with a share (above 0
// to 1, by volume) of the mixture left in it.
func (m *Mixture) LetDown(share float64) Mixture { return Between(&titanium.alone, m, share) }
