package colour

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// grid is a straight line of reflectance on some grid, which resampling keeps.
func grid(from, to, step float64) (m Measured) {
	for nm := from; nm <= to+1e-9; nm += step {
		m.NM = append(m.NM, nm)
		m.Value = append(m.Value, nm/1000)
	}
	return m
}

func TestResampleKeepsAStraightLineOnEveryGrid(t *testing.T) {
	for _, step := range []float64{5, 10, 12.5, 20} {
		s, held, err := grid(380, 740, step).Resample()
		require.NoError(t, err)
		assert.Zero(t, held)
		for i, v := range s {
			assert.InDelta(t, NM(i)/1000, v, 1e-9, "%v nm in steps of %v", NM(i), step)
		}
	}
}

func TestResampleHoldsMissingEndsFlatAndSaysSo(t *testing.T) {
	s, held, err := grid(400, 700, 10).Resample()
	require.NoError(t, err)
	assert.Equal(t, 5, held, "380, 390, 710, 720 and 730 nm")
	assert.InDelta(t, 0.4, s[0], 1e-9)
	assert.InDelta(t, 0.7, s[Bands-1], 1e-9)
}

func TestResampleRefuses(t *testing.T) {
	hole := grid(380, 730, 10)
	hole.NM, hole.Value = append(hole.NM[:5:5], hole.NM[8:]...), append(hole.Value[:5:5], hole.Value[8:]...)
	falling := grid(380, 730, 10)
	falling.NM[3], falling.NM[4] = falling.NM[4], falling.NM[3]
	nothing := grid(380, 730, 10)
	nothing.Value[7] = math.NaN()
	for says, m := range map[string]Measured{
		"40 nm apart":     hole,
		"nm apart":        falling,
		"not a number":    nothing,
		"at least 400":    grid(420, 730, 10),
		"covers 400 to 6": grid(400, 680, 10),
		"4 nm apart":      grid(380, 730, 4),
		"needs a value":   {NM: []float64{400, 410}, Value: []float64{1}},
	} {
		_, _, err := m.Resample()
		assert.ErrorContains(t, err, says)
	}
}

func TestShiftedMovesAlongTheWavelengths(t *testing.T) {
	var s Spectrum
	for i := range s {
		s[i] = math.Exp(-math.Pow((NM(i)-550)/40, 2))
	}
	for _, by := range []float64{-20, -7, 0, 13, 20} {
		moved := s.Shifted(by)
		for i := 5; i < Bands-5; i++ {
			assert.InDelta(t, math.Exp(-math.Pow((NM(i)-by-550)/40, 2)), moved[i], 0.02, "by %v at %v nm", by, NM(i))
		}
	}
	same := s.Shifted(0)
	assert.InDeltaSlice(t, s[:], same[:], 1e-12)
}

func TestHexAndLabGoThereAndBack(t *testing.T) {
	for _, hex := range []string{"#006d74", "#ffffff", "#000000", "e0b010", " #2A6FB0 "} {
		xyz, err := ParseHex(hex)
		require.NoError(t, err, hex)
		lab := xyz.Lab(D65.White())
		assert.InDelta(t, xyz.Y, lab.XYZ(D65.White()).Y, 1e-9)
		assert.Contains(t, strings.ToLower(hex), lab.OKLab().Screen().Hex[1:])
	}
	white, err := ParseHex("#ffffff")
	require.NoError(t, err)
	assert.InDelta(t, 0, white.Lab(D65.White()).Chroma(), 0.02, "a screen's white is neutral here")
	for _, hex := range []string{"", "#12345", "#12345g", "red", "#1234567"} {
		_, err := ParseHex(hex)
		assert.Error(t, err, hex)
	}
}

func TestAdaptTakesWhiteToWhite(t *testing.T) {
	photo := XYZ{0.9, 0.8, 0.5}
	got := photo.Adapt(photo, D65.White())
	assert.InDelta(t, D65.White().X, got.X, 1e-6)
	assert.InDelta(t, 1, got.Y, 1e-6)
	assert.InDelta(t, D65.White().Z, got.Z, 1e-6)
}

func TestDisplayP3ShowsMoreThanSRGB(t *testing.T) {
	inside := OKLCh{0.6, 0.05, 200}.OKLab().Screen()
	assert.Empty(t, inside.P3, "where sRGB shows it all, nothing more is sent")
	between := OKLCh{0.7, 0.27, 145}.OKLab().Screen()
	assert.True(t, between.Clipped)
	assert.False(t, between.ClippedP3)
	assert.Regexp(t, `^color\(display-p3 0\.\d{4} 0\.\d{4} 0\.\d{4}\)$`, between.P3)
	beyond := OKLCh{0.7, 0.4, 145}.OKLab().Screen()
	assert.True(t, beyond.ClippedP3)
	// The published P3 green, seen from linear sRGB [CSS Color 4].
	p3 := OKLCh{0.8487, 0.3685, 145.65}.OKLab().linearP3()
	assert.InDelta(t, 0, p3[0], 0.01)
	assert.InDelta(t, 1, p3[1], 0.01)
	assert.InDelta(t, 0, p3[2], 0.01)
}
