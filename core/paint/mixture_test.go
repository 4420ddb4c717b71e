package paint

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// mix takes ids and parts in turn.
func mix(t testing.TB, of ...any) Mixture {
	t.Helper()
	var parts []Part
	for i := 0; i < len(of); i += 2 {
		p, err := Find(of[i].(string))
		require.NoError(t, err)
		parts = append(parts, Part{p, float64(of[i+1].(int))})
	}
	m, err := Mix(parts...)
	require.NoError(t, err)
	return m
}

func near(t *testing.T, want, got colour.Spectrum, msg ...any) {
	t.Helper()
	for i := range want {
		require.InDelta(t, want[i], got[i], 1e-9, msg...)
	}
}

func TestOrderOfMixingDoesNotMatter(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	lib := Library()
	for range 200 {
		var parts []Part
		for range 2 + rng.IntN(4) {
			parts = append(parts, Part{lib[rng.IntN(len(lib))], 0.1 + 10*rng.Float64()})
		}
		a, err := Mix(parts...)
		require.NoError(t, err)
		rng.Shuffle(len(parts), func(i, j int) { parts[i], parts[j] = parts[j], parts[i] })
		b, err := Mix(parts...)
		require.NoError(t, err)
		near(t, a.K(), b.K())
		near(t, a.S(), b.S())
	}
}

func TestAPaintMixedWithItselfIsItself(t *testing.T) {
	for _, p := range Library() {
		m, err := Mix(Part{p, 1}, Part{p, 7})
		require.NoError(t, err)
		near(t, p.alone.k, m.K(), p.ID)
		near(t, p.alone.s, m.S(), p.ID)
	}
}

func TestMoreWhiteNeverDarkens(t *testing.T) {
	for _, p := range Library() {
		last := p.alone.Masstone()
		for share := 0.9; share > 0.001; share *= 0.7 {
			m := p.alone.LetDown(share)
			next := m.Masstone()
			assert.GreaterOrEqual(t, next.XYZ(colour.D65).Y, last.XYZ(colour.D65).Y-1e-12, "%s at %v", p.ID, share)
			last = next
		}
	}
}

func TestMixRefusesBadParts(t *testing.T) {
	blue, _ := Find("PB29")
	for _, parts := range []float64{0, -1, math.NaN(), math.Inf(1), 1e9} {
		_, err := Mix(Part{blue, parts})
		assert.ErrorContains(t, err, "PB29", parts)
	}
	_, err := Mix()
	assert.Error(t, err)
}

func TestFilmLimits(t *testing.T) {
	flat := func(k, s float64) Mixture { return Mixture{k: colour.Flat(k), s: colour.Flat(s)} }
	film := func(m Mixture, x, ground float64) float64 {
		over, under := m.film(17, x, ground)
		return over / under
	}
	for _, ground := range []float64{0, 0.3, 0.9, 1} {
		assert.InDelta(t, ground, film(flat(3, 1), 0, ground), 1e-12, "no film")
		assert.InDelta(t, ground*math.Exp(-2*0.5*2), film(flat(0.5, 0), 2, ground), 1e-12, "no scattering: Bouguer, twice through")
		assert.InDelta(t, (ground+2*(1-ground))/(1+2*(1-ground)), film(flat(0, 1), 2, ground), 1e-12, "no absorption")
		q := 3.0
		assert.InDelta(t, 1/(1+q+math.Sqrt(q*q+2*q)), film(flat(3, 1), math.Inf(1), ground), 1e-12, "endless")
		assert.InDelta(t, film(flat(3, 1), math.Inf(1), ground), film(flat(3, 1), 1e3, ground), 1e-12, "thick")
		assert.InDelta(t, 1, film(flat(0, 1), math.Inf(1), ground), 1e-12, "endless white")
		assert.InDelta(t, ground, film(flat(0, 0), math.Inf(1), ground), 1e-12, "nothing at all")
		assert.InDelta(t, film(flat(1e-7, 1), 2, ground), film(flat(0, 1), 2, ground), 1e-5, "no jump as K vanishes")
		assert.InDelta(t, film(flat(1, 1e-9), 2, ground), film(flat(1, 0), 2, ground), 1e-7, "no jump as S vanishes")
	}
	// The textbook form, a - b coth(bSX), in between.
	k, s, x, rg := 0.7, 0.4, 1.5, 0.9
	a := 1 + k/s
	b := math.Sqrt(a*a - 1)
	coth := 1 / math.Tanh(b*s*x)
	assert.InDelta(t, (1-rg*(a-b*coth))/(a-rg+b*coth), film(flat(k, s), x, rg), 1e-12)
}

func TestSurface(t *testing.T) {
	// What Saunderson's formula makes of an internal reflectance.
	seen := func(f Surface, r float64) float64 {
		return f.Haze + (1-f.Haze-f.Dim)*(1-f.K1)*(1-f.K2)*r/(1-f.K2*r)
	}
	m := mix(t, "PB29", 1)
	for _, f := range []Surface{Gloss, surface("satin"), Matt, surface("flat")} {
		opaque, film := m.Opaque(f), m.Film(2, 0.9, f)
		for i := range opaque {
			q := m.k[i] / m.s[i]
			assert.InDelta(t, seen(f, 1/(1+q+math.Sqrt(q*q+2*q))), opaque[i], 1e-12)
			over, under := m.film(i, 2, 0.9)
			assert.InDelta(t, seen(f, over/under), film[i], 1e-12)
		}
	}
	wet, dry := m.Opaque(Gloss), m.Opaque(Matt)
	assert.Greater(t, dry.XYZ(colour.D65).Y, wet.XYZ(colour.D65).Y, "matt dries lighter")
	black := Mixture{k: colour.Flat(1e4), s: colour.Flat(1e-6)}
	dark := black.Opaque(surface("satin"))
	assert.InDelta(t, 0.008, dark[0], 1e-4, "a satin black is never black")
}

// The loops that sum colours band by band give what the spectra give.
func TestBrushedIsTheColourOfTheBrushedOutSpectrum(t *testing.T) {
	for _, p := range Library() {
		s := p.alone.BrushedOut()
		assert.InDelta(t, 0, s.OKLab(colour.D65).Distance(p.alone.BrushedOutColour()), 1e-12, p.ID)
		u := p.alone.Undertone()
		let := p.alone.LetDown(u.Share)
		s = let.Masstone()
		assert.InDelta(t, 0, s.OKLab(colour.D65).Distance(u.Colour), 1e-12, p.ID)
	}
}

func TestBetweenAgreesWithMix(t *testing.T) {
	a, b := mix(t, "PY74", 1), mix(t, "PB15:3", 1)
	got := Between(&a, &b, 0.25)
	want := mix(t, "PY74", 3, "PB15:3", 1)
	near(t, want.K(), got.K())
	near(t, want.S(), got.S())
	assert.Equal(t, a, Between(&a, &b, 0))
	assert.Equal(t, b, Between(&a, &b, 1))
}

func TestNoNaNAnywhere(t *testing.T) {
	for _, p := range Library() {
		m := p.Alone()
		checkFinite(t, m)
	}
}

func checkFinite(t *testing.T, m Mixture) {
	t.Helper()
	spectra := []colour.Spectrum{m.Masstone(), m.BrushedOut(), m.Wash()}
	for _, medium := range Media() {
		for _, wet := range []bool{true, false} {
			spectra = append(spectra, m.AsPainted(medium, wet))
			for _, r := range m.Ladder(medium, wet, 5) {
				spectra = append(spectra, r.Spectrum)
			}
		}
	}
	for _, s := range spectra {
		for i, r := range s {
			require.False(t, math.IsNaN(r) || r < 0 || r > 1, "reflectance %v at %v nm", r, colour.NM(i))
		}
	}
	u := m.Undertone()
	for _, v := range []float64{u.Share, u.Chroma, u.Hue, u.WheelHue, u.Retention, u.Colour.L} {
		require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%+v", u)
	}
	require.InDelta(t, 0.5, u.Retention, 0.5)
}

func FuzzMix(f *testing.F) {
	f.Add(uint8(3), 1.0, uint8(40), 39.0, uint8(49), 2.0)
	f.Add(uint8(0), 1e6, uint8(1), 1e-9, uint8(2), 1.0)
	f.Add(uint8(0), math.NaN(), uint8(1), math.Inf(1), uint8(2), -1.0)
	f.Add(uint8(70), 1.0/3, uint8(142), 39.0, uint8(141), 2.0)
	lib := Library()
	f.Fuzz(func(t *testing.T, a uint8, x float64, b uint8, y float64, c uint8, z float64) {
		pick := func(i uint8) *Paint { return lib[int(i)%len(lib)] }
		m, err := Mix(Part{pick(a), x}, Part{pick(b), y}, Part{pick(c), z})
		if err != nil {
			return
		}
		checkFinite(t, m)
	})
}

func BenchmarkMixToOKLab(b *testing.B) {
	x, y := mix(b, "PY74", 1), mix(b, "PB15:3", 1)
	var last colour.OKLab
	b.ReportAllocs()
	for b.Loop() {
		m := Between(&x, &y, 0.3)
		s := m.Masstone()
		last = s.OKLab(colour.D65)
	}
	_ = last
}

func BenchmarkMixThreeToOKLab(b *testing.B) {
	var parts []Part
	for i, id := range []string{"PB29", "PR122", "PW6"} {
		p, err := Find(id)
		require.NoError(b, err)
		parts = append(parts, Part{p, float64(i + 1)})
	}
	b.ReportAllocs()
	for b.Loop() {
		m, _ := Mix(parts...)
		s := m.Masstone()
		s.OKLab(colour.D65)
	}
}

func BenchmarkMixBrushedOut(b *testing.B) {
	x, y := mix(b, "PY74", 1), mix(b, "PB15:3", 1)
	b.ReportAllocs()
	for b.Loop() {
		m := Between(&x, &y, 0.3)
		m.BrushedOutColour()
	}
}

// The slopes of what is painted are those of small steps, in films that are even, strayed and without end.
func TestSlopesAreThoseOfSmallSteps(t *testing.T) {
	for _, id := range []string{"acrylic", "watercolour", "oil"} {
		in, err := ParseMedium(id)
		require.NoError(t, err)
		for _, m := range []Mixture{mixOf(t, 1, 1, 0), mixOf(t, 1, 0, 8), mixOf(t, 0, 1, 0)} {
			painted, byK, byS := m.Slopes(in)
			want := m.AsPainted(in, false)
			for i := range painted {
				assert.InDelta(t, want[i], painted[i], 1e-12)
				step := 1e-5 * (m.k[i] + m.s[i])
				more := m
				more.k[i] += step
				next := more.AsPainted(in, false)
				assert.InDelta(t, (next[i]-want[i])/step, byK[i], 1e-3*(1+math.Abs(byK[i])), id)
				more = m
				more.s[i] += step
				next = more.AsPainted(in, false)
				assert.InDelta(t, (next[i]-want[i])/step, byS[i], 1e-3*(1+math.Abs(byS[i])), id)
			}
		}
	}
}

func mixOf(t *testing.T, yellow, blue, white float64) Mixture {
	t.Helper()
	var parts []Part
	for id, of := range map[string]float64{"PY184": yellow, "PB15:3": blue, "PW6": white} {
		if of > 0 {
			p, err := Find(id)
			require.NoError(t, err)
			parts = append(parts, Part{Paint: p, Parts: of})
		}
	}
	m, err := Mix(parts...)
	require.NoError(t, err)
	return m
}
