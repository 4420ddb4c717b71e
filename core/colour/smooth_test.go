package colour

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSmoothestHasTheColourAskedFor(t *testing.T) {
	shapes := map[string]func(nm float64) float64{
		"mid grey":    func(float64) float64 { return 0.3 },
		"near white":  func(float64) float64 { return 0.93 },
		"near black":  func(float64) float64 { return 0.003 },
		"yellow edge": func(nm float64) float64 { return 0.02 + 0.88/(1+math.Exp(-(nm-510)/8)) },
		"red edge":    func(nm float64) float64 { return 0.005 + 0.8/(1+math.Exp(-(nm-600)/6)) },
		"blue band":   func(nm float64) float64 { return 0.01 + 0.4*math.Exp(-(nm-450)*(nm-450)/1800) },
		"dark violet": func(nm float64) float64 {
			return 0.002 + 0.01*math.Exp(-(nm-430)*(nm-430)/900) + 0.02/(1+math.Exp(-(nm-680)/10))
		},
	}
	for name, shape := range shapes {
		var s Spectrum
		for i := range s {
			s[i] = shape(NM(i))
		}
		want := s.XYZ(D65)
		got, err := Smoothest(want, 0, 0.96)
		require.NoError(t, err, name)
		back := got.XYZ(D65)
		assert.InDelta(t, want.X, back.X, 1e-7, name)
		assert.InDelta(t, want.Y, back.Y, 1e-7, name)
		assert.InDelta(t, want.Z, back.Z, 1e-7, name)
		for i, r := range got {
			assert.GreaterOrEqual(t, r, 0.0, "%s at %v", name, NM(i))
			assert.LessOrEqual(t, r, 0.96, "%s at %v", name, NM(i))
		}
	}
}

func TestSmoothestRefusesWhatNoReflectanceCanBe(t *testing.T) {
	for name, c := range map[string]XYZ{
		"lighter than white":        {1.1, 1.15, 1.2},
		"black below the surface":   {0.001, 0.001, 0.001},
		"brighter than any surface": {0.2, 0.6, 0.02},
		"a colour without light":    {0.2, -0.1, 0.1},
	} {
		_, err := Smoothest(c, 0.008, 0.96)
		assert.ErrorIs(t, err, ErrNoReflectance, name)
	}
}
