package paint

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

func find(t testing.TB, id string) *Paint {
	t.Helper()
	p, err := Find(id)
	require.NoError(t, err)
	return p
}

func acrylic(t testing.TB) Medium {
	t.Helper()
	m, err := ParseMedium("acrylic")
	require.NoError(t, err)
	return m
}

// swatchesOf are a paint's masstone and tint as a painter would hand them in.
func swatchesOf(t testing.TB, p *Paint, white float64, wet bool) Swatches {
	t.Helper()
	in := acrylic(t)
	tint := p.alone.LetDown(1 - white)
	reading := func(m *Mixture) Reading {
		r, err := LabReading(m.Swatch(in, wet).Lab(), Eye, wet, in)
		require.NoError(t, err)
		return r
	}
	return Swatches{reading(&p.alone), reading(&tint), white}
}

func TestTwoSwatchesGiveBackBothColours(t *testing.T) {
	for _, id := range []string{"PY65", "PR122", "PB15:3", "PG18", "PBr7-burnt-sienna", "PBk9", "PV23"} {
		for _, white := range []float64{0.5, 0.9, 0.95} {
			for _, wet := range []bool{true, false} {
				m, fit, err := FromSwatches(swatchesOf(t, find(t, id), white, wet))
				require.NoError(t, err, "%s %v", id, white)
				assert.Less(t, fit.Mass, 0.3, "%s %v", id, white)
				assert.Less(t, fit.Tint, 0.3, "%s %v", id, white)
				require.NoError(t, m.sound())
			}
		}
	}
}

func TestMeasuredSpectraGiveBackTheCurves(t *testing.T) {
	in := acrylic(t)
	for _, id := range []string{"PY65", "PR122", "PB29", "PG18"} {
		p := find(t, id)
		tint := p.alone.LetDown(0.1)
		read := func(m *Mixture) Reading {
			r, err := SpectrumReading(m.Swatch(in, false), Instrument, false, in)
			require.NoError(t, err)
			return r
		}
		m, fit, err := FromSwatches(Swatches{read(&p.alone), read(&tint), 0.9})
		require.NoError(t, err)
		assert.Less(t, math.Max(fit.Mass, fit.Tint), 0.3, id)
		// Mixed half and half with another paint they agree far better than the
		// colours of swatches alone would make them.
		other := find(t, "PO20")
		was, is := Between(&p.alone, &other.alone, 0.5), Between(&m, &other.alone, 0.5)
		assert.Less(t, colour.Difference(was.Masstone().Lab(), is.Masstone().Lab()), 1.0, id)
	}
}

func TestAWetSpectrumTakenForADryOneIsSaidToBe(t *testing.T) {
	in, err := ParseMedium("gouache") // which has a haze when it is dry
	require.NoError(t, err)
	p := find(t, "PR177")
	tint := p.alone.LetDown(0.1)
	read := func(m *Mixture, wet bool) Reading {
		r, err := SpectrumReading(m.Swatch(in, true), Instrument, wet, in)
		require.NoError(t, err)
		return r
	}
	_, _, err = FromSwatches(Swatches{read(&p.alone, true), read(&tint, true), 0.9})
	require.NoError(t, err)
	_, _, err = FromSwatches(Swatches{read(&p.alone, false), read(&tint, false), 0.9})
	assert.ErrorContains(t, err, "whether the swatch was wet or dry")
}

func TestTheRoundTripOverTheLibraryStaysGood(t *testing.T) {
	trip, err := NewRoundTrip()
	require.NoError(t, err)
	assert.Equal(t, len(Library())*(len(Library())-1)/2, trip.Pairs)
	assert.Len(t, trip.Paints, len(Library())-2, "all but the two whites")
	assert.Less(t, trip.Opaque.Median, 0.75)
	assert.Less(t, trip.Opaque.P95, 2.8)
	assert.Less(t, trip.Film.Median, 1.0)
	assert.Less(t, trip.Film.P95, 4.0)
	for _, p := range trip.Paints {
		assert.Less(t, math.Max(p.Fit.Mass, p.Fit.Tint), 0.1, p.Paint.ID)
	}
}

func TestSwatchesThatNoPaintCanGiveAreRefused(t *testing.T) {
	good := swatchesOf(t, find(t, "PB29"), 0.9, false)
	lab := func(l, a, b float64) Reading {
		r, err := LabReading(colour.Lab{L: l, A: a, B: b}, Eye, false, acrylic(t))
		require.NoError(t, err)
		return r
	}
	for says, change := range map[string]func(s *Swatches){
		"share of white of 0":         func(s *Swatches) { s.WhiteShare = 0 },
		"of 100 percent":              func(s *Swatches) { s.WhiteShare = 1 },
		"no tint":                     func(s *Swatches) { s.WhiteShare = math.NaN() },
		"wrong way round":             func(s *Swatches) { s.Mass, s.Tint = s.Tint, s.Mass },
		"lighter than titanium white": func(s *Swatches) { s.Tint = lab(99, 0, 0) },
		"is a white":                  func(s *Swatches) { s.Mass, s.Tint = lab(95, 0, 1), lab(95.2, 0, 1) },
		"masstone L* 1.0":             func(s *Swatches) { s.Mass = lab(1, 0, 0) },
		"no paint can have the tint":  func(s *Swatches) { s.Tint = lab(60, 120, -120) },
	} {
		s := good
		change(&s)
		_, _, err := FromSwatches(s)
		assert.ErrorContains(t, err, says)
	}
	// A red masstone whose tint is green: no paint does that.
	_, _, err := FromSwatches(Swatches{lab(35, 55, 30), lab(75, -45, 25), 0.9})
	assert.ErrorContains(t, err, "no single paint gives both swatches")
}

func TestReadingsAreCheckedWhereTheyAreMade(t *testing.T) {
	for _, lab := range []colour.Lab{{L: -1}, {L: 101}, {L: 50, A: 200}, {L: math.NaN()}, {L: 50, B: math.Inf(1)}} {
		_, err := LabReading(lab, Eye, false, acrylic(t))
		assert.Error(t, err, lab)
	}
	for _, v := range []float64{-0.1, 1.3, math.NaN()} {
		_, err := SpectrumReading(colour.Flat(v), Instrument, false, acrylic(t))
		assert.Error(t, err, v)
	}
}

func TestSurfacesAreTakenOffAsTheyArePutOn(t *testing.T) {
	for _, f := range []Surface{Gloss, surface("satin"), Matt, surface("flat")} {
		for _, r := range []float64{0, 0.01, 0.3, 0.9, 1} {
			assert.InDelta(t, r, f.inside(f.from(r)), 1e-12)
		}
	}
}

// The stronger a class, the more its student tubes are let down.
func TestStudentTubesOfStrongPaintsAreLetDownMost(t *testing.T) {
	last := 1.0
	for class := 1; class <= 5; class++ {
		assert.Less(t, Student.Strength(class), last)
		assert.Equal(t, 1.0, Artist.Strength(class))
		last = Student.Strength(class)
	}
	p, err := Definition{Library: "PB15:3"}.Graded("tube-1", Student)
	require.NoError(t, err)
	assert.Equal(t, Student.Strength(find(t, "PB15:3").StrengthClass), p.Strength())
}

func TestATubeOfHalfTheStrengthNeedsTwiceTheParts(t *testing.T) {
	full := find(t, "PB15:3")
	half, err := full.Tube("tube-1", 0.5)
	require.NoError(t, err)
	assert.Equal(t, 0.5, half.Strength())
	assert.Equal(t, full.StrengthClass-1, half.StrengthClass)
	mass, was := half.alone.Masstone(), full.alone.Masstone()
	assert.InDeltaSlice(t, was[:], mass[:], 1e-12, "the masstone is the same")
	two, err := Mix(Part{half, 2}, Part{find(t, "PY3"), 1})
	require.NoError(t, err)
	k := two.K()
	one, err := Mix(Part{full, 1}, Part{find(t, "PY3"), 1})
	require.NoError(t, err)
	kk := one.K()
	assert.InDelta(t, kk[25]*2/3, k[25], 1e-12, "two parts of it do what one part of the other does")

	white, err := find(t, "PW6").Tube("tube-2", 0.5)
	require.NoError(t, err)
	assert.Equal(t, 1.0, white.Strength(), "white always has 1")
	for _, g := range []float64{0, -1, 21, math.NaN()} {
		_, err := full.Tube("x", g)
		assert.Error(t, err)
	}
}

func TestAdjustedIsLikeThePaintButNotQuite(t *testing.T) {
	p := find(t, "PY65")
	same, err := Adjusted(p, 1, 0, 0)
	require.NoError(t, err)
	assert.Equal(t, p.alone, same)
	longer, err := Adjusted(p, 1, 12, 0)
	require.NoError(t, err)
	shorter, err := Adjusted(p, 1, -12, 0)
	require.NoError(t, err)
	assert.Less(t, longer.Undertone().Hue, p.Undertone().Hue, "a yellow moved to longer waves turns to orange")
	assert.Greater(t, shorter.Undertone().Hue, p.Undertone().Hue)
	strong, err := Adjusted(p, 2, 0, 0)
	require.NoError(t, err)
	a, b := strong.LetDown(0.05), p.alone.LetDown(0.1)
	ra, rb := a.Masstone(), b.Masstone()
	assert.InDelta(t, rb[5], ra[5], 0.03, "half as much of it tints as far")
	for _, c := range [][2]float64{{0.05, 0}, {11, 0}, {1, 21}, {1, -21}, {math.NaN(), 0}, {1, math.NaN()}} {
		_, err := Adjusted(p, c[0], c[1], 0)
		assert.Error(t, err, c)
	}
	_, err = Adjusted(find(t, "PW6"), 2, 0, 0)
	assert.ErrorContains(t, err, "white")
}

func TestLabelsAreReadForTheirCodes(t *testing.T) {
	for text, want := range map[string][]string{
		"PB29":                      {"PB29"},
		"Pigments: PB 15:3, pw6":    {"PB15:3", "PW6"},
		"PB15.3":                    {"PB15:3"},
		"pbr7/PBK9 · PB29 PB29":     {"PBr7", "PBk9", "PB29"},
		"P.B. 29, SPB29, PB2999":    nil,
		"":                          nil,
		"PV19 (quinacridone), PR 9": {"PV19", "PR9"},
	} {
		assert.Equal(t, want, Codes(text), text)
	}
	assert.Len(t, WithCode("PBr7"), 4)
	assert.Empty(t, WithCode("PR9"))
}

func TestALabelsSharesAreFittedToASwatch(t *testing.T) {
	pigments := []*Paint{find(t, "PV23"), find(t, "PV19"), find(t, "PW6")}
	_, shares, fit, err := FromLabel(pigments, nil)
	require.NoError(t, err)
	assert.Nil(t, fit)
	assert.InDelta(t, 1, shares[0]+shares[1]+shares[2], 1e-12)
	assert.True(t, shares[0] < shares[1] && shares[1] < shares[2], "less of a strong one: %v", shares)

	truth := stirred(pigments, []float64{0.1, 0.3, 0.6})
	in := acrylic(t)
	mass, err := LabReading(truth.Swatch(in, false).Lab(), Eye, false, in)
	require.NoError(t, err)
	_, shares, fit, err = FromLabel(pigments, &mass)
	require.NoError(t, err)
	assert.Less(t, fit.Mass, 0.2)
	assert.InDeltaSlice(t, []float64{0.1, 0.3, 0.6}, shares, 0.03)

	_, _, _, err = FromLabel(nil, nil)
	assert.ErrorContains(t, err, "at least one")
	_, _, _, err = FromLabel([]*Paint{pigments[0], pigments[0]}, nil)
	assert.ErrorContains(t, err, "twice")
	_, _, _, err = FromLabel(Library()[:7], nil)
	assert.ErrorContains(t, err, "at most 6")
}

func TestWhatIsMeasuredOfAnOwnPaintAgreesWithTheLibrary(t *testing.T) {
	hiding := 0
	for _, p := range Library() {
		own := Own("x", "mine", p.alone, nil, TwoSwatch)
		if p.Family == "white" {
			continue // two swatches cannot tell a white
		}
		assert.InDelta(t, p.StrengthClass, own.StrengthClass, 1, "%s: strength within a class", p.ID)
		if own.Hiding == p.Hiding {
			hiding++
		}
		assert.Equal(t, "unknown", own.CautionClass)
		assert.False(t, own.StudentSafe())
	}
	assert.GreaterOrEqual(t, hiding, len(Library())-6)
	black := Own("x", "soot", find(t, "PBk9").alone, nil, TwoSwatch)
	assert.Equal(t, "black", black.Family)
	earth := Own("x", "mud", find(t, "PY43").alone, []*Paint{find(t, "PY43")}, TwoSwatch)
	assert.Equal(t, "earth", earth.Family)
	mixed := Own("x", "toy", find(t, "PB29").alone, []*Paint{find(t, "PB29"), find(t, "PY35"), find(t, "PR83")}, FromALabel)
	assert.Equal(t, "cadmium", mixed.CautionClass, "the gravest of its pigments")
	assert.Equal(t, "poor", mixed.Lightfast, "the worst of its pigments")
	assert.Equal(t, "high", mixed.Staining)
	assert.Equal(t, "PB29, PY35, PR83", mixed.CI)
}

// The words part where the library's do: at S of 0.19 and 0.45 at 550 nm, and a
// black hides by what it absorbs.
func TestHidingIsReadOffTheScattering(t *testing.T) {
	violet := colour.Flat(0.1)
	violet[17] = 2
	for _, c := range []struct {
		name string
		k    colour.Spectrum
		s    float64
		want string
	}{
		{"hardly scatters", violet, 0.01, "transparent"},
		{"just below half", violet, 0.189, "transparent"},
		{"just above half", violet, 0.191, "semi"},
		{"just below opaque", violet, 0.449, "semi"},
		{"just above opaque", violet, 0.451, "opaque"},
		{"a grey that absorbs", colour.Flat(2.9), 0.01, "transparent"},
		{"a black", colour.Flat(3.1), 0.01, "opaque"},
	} {
		m, err := OfCurves(c.k, colour.Flat(c.s))
		require.NoError(t, err)
		assert.Equal(t, c.want, Own("x", c.name, m, nil, TwoSwatch).Hiding, c.name)
	}
}

func TestCurvesThatCannotBeAreRefused(t *testing.T) {
	k, s := colour.Flat(1), colour.Flat(1)
	_, err := OfCurves(k, s)
	require.NoError(t, err)
	for _, bad := range []float64{-1, math.NaN(), math.Inf(1)} {
		k[3] = bad
		_, err := OfCurves(k, s)
		assert.Error(t, err)
	}
	_, err = OfCurves(colour.Flat(1), colour.Flat(0))
	assert.Error(t, err)
}

func TestADrawdownShowsHiding(t *testing.T) {
	in := acrylic(t)
	over := func(id string) (first, last float64) {
		d := find(t, id).alone
		rungs := d.Drawdown(in, false, 9)
		diff := func(r Drawn) float64 { return r.White.XYZ(colour.D65).Y - r.Over.XYZ(colour.D65).Y }
		return diff(rungs[0]), diff(rungs[8])
	}
	thick, thin := over("PY35")
	clear, _ := over("PY110")
	assert.Greater(t, clear, 3*thick, "the stripe shows through a transparent yellow")
	assert.Greater(t, thin, 0.4, "and through any wash")
	_, wash := over("PB29")
	assert.Greater(t, wash, 0.25)
}

func TestCautionsPutTheGravestFirst(t *testing.T) {
	box := []*Paint{find(t, "PW6"), find(t, "PB29"), find(t, "PY35"), find(t, "PR108")}
	groups := Cautions(box)
	require.Len(t, groups, 2)
	assert.Equal(t, "cadmium", groups[0].Name)
	assert.Len(t, groups[0].Paints, 2)
	assert.Equal(t, "dust", groups[1].Class)
	assert.Empty(t, Cautions([]*Paint{find(t, "PB29")}))
	for _, p := range Library() {
		_, known := cautionClasses[p.CautionClass]
		assert.True(t, known, p.CautionClass)
		assert.Contains(t, []string{"low", "medium", "high"}, p.Staining, p.ID)
		assert.Contains(t, []string{"excellent", "good", "fair", "poor"}, p.Lightfast, p.ID)
	}
	assert.True(t, find(t, "PB29").StudentSafe())
	assert.False(t, find(t, "PB28").StudentSafe())
}

func TestStartingSetsAreThreeAndWhole(t *testing.T) {
	require.Len(t, StartingSets(), 3)
	for _, s := range StartingSets() {
		assert.NotEmpty(t, s.Why)
		assert.GreaterOrEqual(t, len(s.Paints), 4)
	}
}

func BenchmarkFromSwatches(b *testing.B) {
	s := swatchesOf(b, find(b, "PB29"), 0.9, false)
	b.ReportAllocs()
	for b.Loop() {
		if _, _, err := FromSwatches(s); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkFromLabel(b *testing.B) {
	pigments := []*Paint{find(b, "PV23"), find(b, "PV19"), find(b, "PW6")}
	in := acrylic(b)
	mass := Reading{Lab: colour.Lab{L: 40, A: 30, B: -25}, Medium: in}
	for b.Loop() {
		if _, _, _, err := FromLabel(pigments, &mass); err != nil {
			b.Fatal(err)
		}
	}
}

func TestAFingerprintIsThatOfTheCurves(t *testing.T) {
	seen := map[uint64]string{}
	for _, p := range Library() {
		other, there := seen[p.Fingerprint()]
		assert.False(t, there, "%s and %s are different paints", p.ID, other)
		seen[p.Fingerprint()] = p.ID
	}
	blue := find(t, "PB29")
	assert.Equal(t, blue.Fingerprint(), blue.Called("tube-1", "deep pool").Fingerprint(), "whatever it is called")
	same, err := blue.Tube("tube-2", 1)
	require.NoError(t, err)
	assert.Equal(t, blue.Fingerprint(), same.Fingerprint())
	weak, err := blue.Tube("tube-3", 0.5)
	require.NoError(t, err)
	assert.NotEqual(t, blue.Fingerprint(), weak.Fingerprint(), "of another strength it mixes otherwise")
	changed, err := Adjusted(blue, 1, 3, 0)
	require.NoError(t, err)
	assert.NotEqual(t, blue.Fingerprint(), Own("own", "own", changed, nil, Changed).Fingerprint())
}

func TestBlackAndWhiteOnAScreenAreReadings(t *testing.T) {
	for _, c := range []struct {
		l, want float64
		ok      bool
	}{{-3e-15, 0, true}, {-0.005, 0, true}, {100.0001, 100, true}, {50, 50, true}, {-0.02, 0, false}, {100.02, 0, false}, {math.NaN(), 0, false}} {
		r, err := LabReading(colour.Lab{L: c.l}, Eye, false, acrylic(t))
		assert.Equal(t, c.ok, err == nil, "%v", c.l)
		if c.ok {
			assert.Equal(t, c.want, r.Lab.L)
		}
	}
}

func TestAReadingHasTheSmoothestSpectrumOfItsColour(t *testing.T) {
	r, err := LabReading(colour.Lab{L: 55, A: 30, B: -20}, Eye, false, acrylic(t))
	require.NoError(t, err)
	s, err := r.Reflectance()
	require.NoError(t, err)
	assert.Less(t, colour.Difference(r.Lab, s.Lab()), 0.01)
	bright, err := LabReading(colour.Lab{L: 97, A: -90, B: 90}, Eye, false, acrylic(t))
	require.NoError(t, err)
	_, err = bright.Reflectance()
	assert.ErrorContains(t, err, "no paint can have the colour")
}

// Another tube of a paint is cleaner or duller by so much, as far as its shape allows; its own place stays.
func TestATubeIsMadeCleanerOrDuller(t *testing.T) {
	for _, p := range Library() {
		for _, by := range []float64{-0.1, -0.03, 0.02} {
			other, err := p.Variant(0, by)
			require.NoError(t, err)
			if p.Family == "white" || !p.Undertone().HasHue() {
				assert.InDelta(t, p.Undertone().Chroma, other.Undertone().Chroma, 1e-12, "%s has no hue to be cleaner in", p.ID)
				continue
			}
			assert.InDelta(t, (1+by)*p.Undertone().Chroma, other.Undertone().Chroma, 0.004*p.Undertone().Chroma, "%s by %v", p.ID, by)
			assert.Equal(t, p.Strength(), other.Strength())
		}
		far, err := p.Variant(0, MostCleaner)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, far.Undertone().Chroma, p.Undertone().Chroma-1e-9, "%s: as far as it goes, never duller", p.ID)
	}
	for _, by := range []float64{0.6, -0.7, math.NaN()} {
		_, err := find(t, "PB29").Variant(0, by)
		assert.ErrorContains(t, err, "out of reach")
	}
}
