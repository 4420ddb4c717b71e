package paint

import (
	"errors"
	"fmt"
	"math"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/colour"
)

// Swatches are what a painter has of a paint: its masstone, brushed out until
// nothing shows through, and a tint let down with titanium white.
type Swatches struct {
	Mass, Tint Reading
	WhiteShare float64 // of the tint, by volume, above 0 and below 1
}

// Fit says how a paint that was worked out agrees with what it was worked out
// from: CIEDE2000 between the paint laid out again and what was given.
type Fit struct{ Mass, Tint float64 }

// Words judge the worse of the two, for about 1 is just visible.
func (f Fit) Words() string {
	switch worst := max(f.Mass, f.Tint); {
	case worst < 1:
		return "hardly visible"
	case worst < 3:
		return "visible side by side"
	}
	return "a poor likeness; give it another swatch or other pigments"
}

// worstFit is the CIEDE2000 above which two swatches are not believed to be of
// one paint.
const worstFit = 4

// FromSwatches works out a paint's K and S from its masstone and a tint: the
// two-constant calibration.
//
// With q = K/S of the mass and of the tint, and c parts of paint to w of white,
//
//	q_tint = (c K + w K_white) / (c S + w S_white),  q_mass = K / S
//
// would give K and S band by band [Duncan 1940]. But where a paint absorbs
// nothing both say the same, and a dark masstone says next to nothing: so K and
// S of all bands are found together, as the smoothest curves (of ln K, and of
// ln S about the fall of scattering with wavelength) that give both colours
// exactly and both spectra about as well as they are known.
func FromSwatches(s Swatches) (Mixture, Fit, error) {
	if err := s.sound(); err != nil {
		return Mixture{}, Fit{}, err
	}
	mass, err := s.Mass.reflectance("masstone")
	if err != nil {
		return Mixture{}, Fit{}, err
	}
	tint, err := s.Tint.reflectance("tint")
	if err != nil {
		return Mixture{}, Fit{}, err
	}
	m := newCalibration(s, mass, tint).solve()
	fit := Fit{
		Mass: colour.Difference(s.Mass.Lab, s.Mass.swatch(&m)),
		Tint: colour.Difference(s.Tint.Lab, s.tint(&m)),
	}
	if fit.Mass > worstFit || fit.Tint > worstFit {
		return Mixture{}, fit, fmt.Errorf("no single paint gives both swatches: the nearest misses the masstone by %.1f and the tint by %.1f (CIEDE2000); check that both are of one tube, and the share of white", fit.Mass, fit.Tint)
	}
	if swing := swingOfS(&m); swing > mostSwing {
		return Mixture{}, fit, fmt.Errorf("no single paint gives both swatches: its scattering would have to change %.0f-fold along the spectrum, for the tint has another hue than white could bring out of the masstone; check that both are of one tube", math.Exp(swing))
	}
	m.neutral = colourless(&m)
	return m, fit, nil
}

// mostSwing is how far ln S may stray along the spectrum from the usual fall;
// refits of the library stay below 0.4.
const mostSwing = 2

func swingOfS(m *Mixture) float64 {
	low, high := math.Inf(1), math.Inf(-1)
	for i, s := range m.s {
		off := math.Log(s) - typicalLnS[i]
		low, high = min(low, off), max(high, off)
	}
	return high - low
}

// tint is the tint that a mixture makes.
func (s Swatches) tint(m *Mixture) colour.Lab {
	t := m.LetDown(1 - s.WhiteShare)
	return s.Tint.swatch(&t)
}

func (s Swatches) sound() error {
	white := s.Tint.swatch(&titanium.alone)
	switch {
	case !(s.WhiteShare > 0):
		return errors.New("a share of white of 0 is no tint: say how much of it is white, above 0 and below 100 percent")
	case !(s.WhiteShare < 1):
		return errors.New("a share of white of 100 percent leaves no paint in the tint: say how much of it is white, above 0 and below 100 percent")
	case s.Mass.Lab.L > white.L-2.5 && s.Mass.Lab.Chroma() < 6:
		return errors.New("this masstone is a white: a tint in white cannot tell how strong a white is; take a white from the library")
	case s.Tint.Lab.L < s.Mass.Lab.L:
		return fmt.Errorf("the tint (L* %.1f) is darker than the masstone (L* %.1f), and white cannot do that: are the two the wrong way round?", s.Tint.Lab.L, s.Mass.Lab.L)
	case s.Tint.Lab.L > white.L+0.5:
		return fmt.Errorf("the tint (L* %.1f) is lighter than titanium white itself (L* %.1f): check the figures, or the white point", s.Tint.Lab.L, white.L)
	}
	return nil
}

// colourless says that a paint is a white or a black: without chroma in the
// mass and in the undertone.
func colourless(m *Mixture) bool {
	mass, u := m.Masstone(), m.bareUndertone()
	return !u.HasHue() && mass.OKLab(colour.D65).Chroma() < colour.NeutralChroma
}

// How firmly a calibration holds on to each thing it knows, as the inverse of
// how far it may stray: colours in CIELAB, spectra in ln K/S, slopes in ln K and
// ln S a band, the level of S in ln S.
const (
	holdColour   = 10
	holdGuessM   = 0.03 // the smoothest spectrum of a masstone is a guess
	holdGuessT   = 0.1
	holdMeasured = 20 // a measured one is not, where there is light enough
	measuredTo   = 0.002
	holdSlopeK   = 0.3
	holdSlopeS   = 5
	holdLevelS   = 0.03
)

// typicalLnS is ln S of a middling paint: falling with wavelength as that of
// the library's pigments does.
var typicalLnS = func() (out colour.Spectrum) {
	for i := range out {
		out[i] = math.Log(0.25) + 0.9*math.Log(550/colour.NM(i))
	}
	return out
}()

// calibration is the least-squares problem of finding ln K and ln S.
type calibration struct {
	swatches     Swatches
	qMass, qTint colour.Spectrum // ln K/S
	holdM, holdT colour.Spectrum
}

func newCalibration(s Swatches, mass, tint colour.Spectrum) *calibration {
	c := &calibration{swatches: s}
	for i := range mass {
		c.qMass[i], c.holdM[i] = s.Mass.known(mass[i], holdGuessM)
		c.qTint[i], c.holdT[i] = s.Tint.known(tint[i], holdGuessT)
	}
	return c
}

// known is ln K/S of what is seen in one band, and how firmly to hold on to it:
// a guess as given, a measurement by what its error of reflectance (0.002)
// makes of it, which in the dark is much.
func (r Reading) known(seen, guess float64) (lnq, hold float64) {
	f := r.surface()
	lnq = lnRatio(f.inside(seen))
	if r.Spectrum == nil {
		return lnq, guess
	}
	off := (lnRatio(f.inside(seen-measuredTo)) - lnRatio(f.inside(seen+measuredTo))) / 2
	return lnq, 1 / math.Hypot(1.0/holdMeasured, off)
}

// lnRatio is ln K/S of an opaque internal reflectance: K/S = (1-R)^2 / 2R.
func lnRatio(r float64) float64 {
	r = min(max(r, 1e-6), 1-1e-6)
	return math.Log((1 - r) * (1 - r) / (2 * r))
}

const unknowns = 2 * colour.Bands

// begin takes S as typical and K from the tint.
func (c *calibration) begin() (x [unknowns]float64) {
	w := c.swatches.WhiteShare
	white, milk := &titanium.alone, c.swatches.Tint.milk()
	for i := range c.qTint {
		s := math.Exp(typicalLnS[i])
		k := (math.Exp(c.qTint[i])*((1-w)*s+w*white.s[i]+milk[i]) - w*white.k[i]) / (1 - w)
		x[i] = math.Log(max(k, 1e-4))
		x[colour.Bands+i] = typicalLnS[i]
	}
	return x
}

func mixtureOf(x *[unknowns]float64) (m Mixture) {
	for i := range m.k {
		m.k[i], m.s[i] = math.Exp(x[i]), math.Exp(x[colour.Bands+i])
	}
	return m
}

// residuals are how far K and S stray from all that is known, weighted.
func (c *calibration) residuals(x *[unknowns]float64, out []float64) []float64 {
	out = out[:0]
	m := mixtureOf(x)
	t := m.LetDown(1 - c.swatches.WhiteShare)
	for _, p := range [2]struct{ got, want colour.Lab }{
		{c.swatches.Mass.swatch(&m), c.swatches.Mass.Lab},
		{c.swatches.Tint.swatch(&t), c.swatches.Tint.Lab},
	} {
		out = append(out, holdColour*(p.got.L-p.want.L), holdColour*(p.got.A-p.want.A), holdColour*(p.got.B-p.want.B))
	}
	milkM, milkT := c.swatches.Mass.milk(), c.swatches.Tint.milk()
	for i := range c.qMass {
		k, s := x[i], x[colour.Bands+i]
		off := s - typicalLnS[i]
		out = append(out, c.holdM[i]*(k-math.Log(m.s[i]+milkM[i])-c.qMass[i]), c.holdT[i]*(math.Log(t.k[i]/(t.s[i]+milkT[i]))-c.qTint[i]), holdLevelS*off)
		if i > 0 {
			out = append(out, holdSlopeK*(k-x[i-1]), holdSlopeS*(off-x[colour.Bands+i-1]+typicalLnS[i-1]))
		}
	}
	return out
}

// solve walks down to the least sum of squares [Levenberg 1944, Marquardt
// 1963].
func (c *calibration) solve() Mixture {
	const nudge, longest = 1e-5, 1.5
	x := c.begin()
	r := c.residuals(&x, nil)
	jacobian := mat.NewDense(len(r), unknowns, nil)
	var nudged, tried []float64
	damping := 1e-3
	for range 60 {
		for j := range x {
			was := x[j]
			x[j] += nudge
			nudged = c.residuals(&x, nudged)
			x[j] = was
			for i := range r {
				jacobian.Set(i, j, (nudged[i]-r[i])/nudge)
			}
		}
		var normal mat.Dense
		var gradient, step mat.VecDense
		normal.Mul(jacobian.T(), jacobian)
		gradient.MulVec(jacobian.T(), mat.NewVecDense(len(r), r))
		before, better := squares(r), false
		for damping < 1e12 && !better {
			damped := mat.DenseCopyOf(&normal)
			for j := range x {
				damped.Set(j, j, damped.At(j, j)*(1+damping)+1e-12)
			}
			next := x
			if step.SolveVec(damped, &gradient) == nil {
				for j := range next {
					next[j] -= min(max(step.AtVec(j), -longest), longest)
				}
				tried = c.residuals(&next, tried)
				better = squares(tried) < before
			}
			if better {
				x = next
				r, tried = tried, r
				damping /= 10
			} else {
				damping *= 10
			}
		}
		if !better || before-squares(r) < 1e-8*before {
			break
		}
	}
	return mixtureOf(&x)
}

func squares(r []float64) float64 {
	var sum float64
	for _, v := range r {
		sum += v * v
	}
	return sum
}
