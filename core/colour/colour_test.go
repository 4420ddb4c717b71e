package colour

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhitePoints(t *testing.T) {
	published := map[Light]XYZ{D65: {0.9501, 1, 1.0882}, D50: {0.9638, 1, 0.8245}, A: {1.0981, 1, 0.3555}}
	for l, want := range published {
		white := Flat(1)
		got := white.XYZ(l)
		assert.InDelta(t, want.X, got.X, 2e-4, l)
		assert.InDelta(t, want.Y, got.Y, 1e-12, l)
		assert.InDelta(t, want.Z, got.Z, 2e-4, l)
		assert.Equal(t, got, l.White())
	}
}

func TestFlatReflectanceIsNeutralUnderEveryLight(t *testing.T) {
	for l := range lights {
		for _, r := range []float64{0.02, 0.18, 0.5, 1} {
			s := Flat(r)
			assert.InDelta(t, 0, s.OKLab(l).Chroma(), 1e-7, "%v %v", l, r)
			lab := s.XYZ(l).Lab(l.White())
			assert.InDelta(t, 0, math.Hypot(lab.A, lab.B), 1e-9)
		}
		white := Flat(1)
		assert.InDelta(t, 1, white.OKLab(l).L, 1e-7)
		assert.Equal(t, Screen{Hex: "#ffffff"}, white.OKLab(l).Screen())
	}
}

// The reference values of Ottosson's page, to its three digits.
func TestOKLabReferenceValues(t *testing.T) {
	for _, c := range []struct {
		in   XYZ
		want OKLab
	}{
		{XYZ{0.950, 1, 1.089}, OKLab{1, 0, 0}},
		{XYZ{1, 0, 0}, OKLab{0.450, 1.236, -0.019}},
		{XYZ{0, 1, 0}, OKLab{0.922, -0.671, 0.263}},
		{XYZ{0, 0, 1}, OKLab{0.153, -1.415, -0.449}},
	} {
		got := c.in.OKLab()
		assert.InDelta(t, c.want.L, got.L, 6e-4)
		assert.InDelta(t, c.want.A, got.A, 6e-4)
		assert.InDelta(t, c.want.B, got.B, 6e-4)
	}
}

// The test pairs of Sharma, Wu and Dalal (2005), table 1.
func TestDifferenceMatchesThePublishedPairs(t *testing.T) {
	for i, p := range [][7]float64{
		{50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425},
		{50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615},
		{50, 2.8361, -74.0200, 50, 0, -82.7485, 3.4412},
		{50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0000},
		{50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0000},
		{50, -0.9009, -85.5211, 50, 0, -82.7485, 1.0000},
		{50, 0, 0, 50, -1, 2, 2.3669},
		{50, -1, 2, 50, 0, 0, 2.3669},
		{50, 2.4900, -0.0010, 50, -2.4900, 0.0009, 7.1792},
		{50, 2.4900, -0.0010, 50, -2.4900, 0.0010, 7.1792},
		{50, 2.4900, -0.0010, 50, -2.4900, 0.0011, 7.2195},
		{50, 2.4900, -0.0010, 50, -2.4900, 0.0012, 7.2195},
		{50, -0.0010, 2.4900, 50, 0.0009, -2.4900, 4.8045},
		{50, -0.0010, 2.4900, 50, 0.0010, -2.4900, 4.8045},
		{50, -0.0010, 2.4900, 50, 0.0011, -2.4900, 4.7461},
		{50, 2.5, 0, 50, 0, -2.5, 4.3065},
		{50, 2.5, 0, 73, 25, -18, 27.1492},
		{50, 2.5, 0, 61, -5, 29, 22.8977},
		{50, 2.5, 0, 56, -27, -3, 31.9030},
		{50, 2.5, 0, 58, 24, 15, 19.4535},
		{50, 2.5, 0, 50, 3.1736, 0.5854, 1.0000},
		{50, 2.5, 0, 50, 3.2972, 0, 1.0000},
		{50, 2.5, 0, 50, 1.8634, 0.5757, 1.0000},
		{50, 2.5, 0, 50, 3.2592, 0.3350, 1.0000},
		{60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644},
		{63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630},
		{61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731},
		{35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645},
		{22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373},
		{36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146},
		{90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441},
		{90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381},
		{6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377},
		{2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082},
	} {
		assert.InDelta(t, p[6], Difference(Lab{p[0], p[1], p[2]}, Lab{p[3], p[4], p[5]}), 1e-4, "pair %d", i+1)
	}
}

// CIELAB of the sRGB primaries against D65, as published by Lindbloom.
func TestLabOfKnownColours(t *testing.T) {
	got := XYZ{0.4124564, 0.2126729, 0.0193339}.Lab(d65)
	assert.InDelta(t, 53.24, got.L, 0.01)
	assert.InDelta(t, 80.09, got.A, 0.02)
	assert.InDelta(t, 67.20, got.B, 0.02)
}

// A white of one light looks like the white of the other, and the published
// Bradford matrix from D50 to D65 is found again.
func TestBradford(t *testing.T) {
	m := bradford(XYZ{0.96422, 1, 0.82521}, d65)
	published := matrix{{0.9555766, -0.0230393, 0.0631636}, {-0.0282895, 1.0099416, 0.0210077}, {0.0122982, -0.0204830, 1.3299098}}
	for i := range m {
		for j := range m {
			assert.InDelta(t, published[i][j], m[i][j], 2e-5)
		}
	}
}

func TestWheelHue(t *testing.T) {
	for word, c := range map[string][2]float64{
		"red": {20, 0}, "orange": {50, 60}, "yellow": {100, 120},
		"green": {148, 180}, "blue": {247, 240}, "violet": {310, 300},
		"yellow-orange": {75, 90}, "red-violet": {345, 330}, "blue-green": {197.5, 210},
	} {
		assert.InDelta(t, c[1], WheelHue(c[0]), 1e-9, word)
		assert.InDelta(t, c[0], HueOnWheel(c[1]), 1e-9, word)
		assert.Equal(t, word, HueWord(WheelHue(c[0])))
	}
	last := 0.0
	for h := 20.0; h < 380; h += 0.5 {
		w := WheelHue(h)
		assert.InDelta(t, Turn(h), HueOnWheel(w), 1e-9)
		assert.GreaterOrEqual(t, w, last, "the circle is never folded: hue %v", h)
		last = w
	}
	assert.Equal(t, "red", HueWord(346), "the nearest word, over the end of the turn")
	assert.Equal(t, "red", HueWord(-14))
}

func TestTurnBetweenTakesTheShorterWay(t *testing.T) {
	for _, c := range []struct{ from, to, want float64 }{
		{10, 350, -20}, {350, 10, 20}, {0, 180, 180}, {90, 91, 1}, {0, 181, -179},
	} {
		assert.InDelta(t, c.want, TurnBetween(c.from, c.to), 1e-9, fmt.Sprint(c))
	}
}

func TestScreenKeepsLightnessAndHueWhenItReducesChroma(t *testing.T) {
	inside := OKLCh{0.6, 0.05, 200}.OKLab()
	assert.False(t, inside.Screen().Clipped)
	outside := OKLCh{0.6, 0.4, 200}.OKLab()
	got := outside.Screen()
	require.True(t, got.Clipped)
	var r, g, b uint8
	_, err := fmt.Sscanf(got.Hex, "#%02x%02x%02x", &r, &g, &b)
	require.NoError(t, err)
	shown := linearToXYZ(float64(r)/255, float64(g)/255, float64(b)/255).OKLab().OKLCh()
	assert.InDelta(t, 0.6, shown.L, 0.01)
	assert.InDelta(t, 200, shown.H, 1.5)
	assert.Less(t, shown.C, 0.2)
}

// linearToXYZ undoes the sRGB coding, by the published matrix [IEC 61966-2-1].
func linearToXYZ(r, g, b float64) XYZ {
	lin := func(v float64) float64 {
		if v <= 0.04045 {
			return v / 12.92
		}
		return math.Pow((v+0.055)/1.055, 2.4)
	}
	r, g, b = lin(r), lin(g), lin(b)
	return XYZ{0.4124564*r + 0.3575761*g + 0.1804375*b, 0.2126729*r + 0.7151522*g + 0.0721750*b, 0.0193339*r + 0.1191920*g + 0.9503041*b}
}

func TestParseLight(t *testing.T) {
	for name, want := range map[string]Light{"D65": D65, "d50": D50, "a": A} {
		got, err := ParseLight(name)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	_, err := ParseLight("candle")
	assert.ErrorContains(t, err, "candle")
}

func BenchmarkSpectrumToOKLab(b *testing.B) {
	s := Flat(0.4)
	b.ReportAllocs()
	for b.Loop() {
		s.OKLab(D65)
	}
}

func TestWordsOfColours(t *testing.T) {
	for words, c := range map[string]OKLCh{
		"vivid orange":               {0.66, 0.2, 50},
		"blue":                       {0.5, 0.15, 247},
		"dark violet":                {0.4, 0.13, 310},
		"very dark quiet green":      {0.2, 0.08, 148},
		"cream":                      {0.93, 0.08, 100},
		"light vivid yellow":         {0.93, 0.18, 100},
		"light greyed blue":          {0.8, 0.04, 247},
		"dark grey, leaning violet":  {0.4, 0.02, 310},
		"black, leaning blue":        {0.15, 0.01, 247},
		"white":                      {0.97, 0.001, 0},
		"light grey, leaning yellow": {0.9, 0.02, 100},
		"dark brown":                 {0.24, 0.05, 35},
	} {
		assert.Equal(t, words, c.OKLab().Words(), "%v", c)
	}
}

func TestOneColourBesideAnother(t *testing.T) {
	base := OKLCh{0.5, 0.12, 310}
	for says, c := range map[string]OKLCh{
		"no difference to be seen":                        {0.505, 0.121, 310},
		"a little lighter":                                {0.53, 0.12, 310},
		"much darker, a little quieter":                   {0.3, 0.1, 310},
		"brighter, 25 degrees nearer to blue":             {0.5, 0.16, 284},
		"lighter, much quieter, 30 degrees nearer to red": {0.6, 0.035, 345},
		"much quieter":                                    {0.5, 0.01, 20}, // too grey for its hue to count
	} {
		assert.Equal(t, says, c.OKLab().Beside(base.OKLab()), "%v", c)
	}
}

func TestLinearLightGoesThereAndBack(t *testing.T) {
	for _, c := range [][3]float64{{0, 0, 0}, {1, 1, 1}, {0.2, 0.5, 0.9}, {1.3, -0.05, 0.4}} {
		r, g, b := FromLinearSRGB(c[0], c[1], c[2]).LinearSRGB()
		assert.InDeltaSlice(t, c[:], []float64{r, g, b}, 1e-5)
	}
	white := FromLinearSRGB(1, 1, 1)
	assert.InDelta(t, 1, white.Y, 1e-4)
	for _, p := range [][2]Lab{{{50, 2.6772, -79.7751}, {50, 0, -82.7485}}, {{50, 0, 0}, {50, -1, 2}}, {{2, 1, 1}, {90, -40, 30}}} {
		d := Components(p[0], p[1])
		assert.InDelta(t, Difference(p[0], p[1]), math.Sqrt(d[0]*d[0]+d[1]*d[1]+d[2]*d[2]), 1e-9)
	}
}

func TestLightnessIsThatOfTheSpectrum(t *testing.T) {
	for _, level := range []float64{0, 0.001, 0.05, 0.18, 0.5, 1} {
		s := Flat(level)
		ok := s.OKLab(D65)
		assert.InDelta(t, s.Lab().L, ok.Lightness(), 0.02, "a grey that reflects %v", level)
	}
	// Of colours too, here of steep edges anywhere.
	for edge := range Bands {
		var s Spectrum
		for i := range s {
			s[i] = 0.04
			if i >= edge {
				s[i] = 0.9
			}
		}
		ok := s.OKLab(D65)
		assert.InDelta(t, s.Lab().L, ok.Lightness(), 0.3, "from band %d on", edge)
	}
}
