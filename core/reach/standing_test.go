package reach

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

func TestSystemsStandBesideEachOther(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	triad := Stand(systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"}), acrylic)
	split := Stand(systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}), acrylic)
	assert.Greater(t, split.Reach.Clean(), triad.Reach.Clean())
	for _, s := range []Standing{triad, split} {
		assert.Positive(t, s.Evenness)
		assert.LessOrEqual(t, s.Evenness, 1.0)
		assert.Positive(t, s.Lamp.DE)
		assert.Less(t, s.Dark.Lab.L, 25.0)
		assert.Positive(t, s.Middles)
		for bin, c := range s.Shades {
			if s.Reach[bin] > 0.2 {
				assert.NotNil(t, c, "what is reached has a colour to draw it in: %v degrees", Middle(bin))
			}
		}
	}
}

func TestDifferencesAreSaid(t *testing.T) {
	round := func(from, to int, v float64) (r Reach) {
		for i := from; i <= to; i++ {
			r[i%Bins] = v
		}
		return r
	}
	for _, c := range []struct {
		a, b Reach
		says string
	}{
		{round(0, 71, 1), round(0, 71, 0.9), "A and B are as clean as each other everywhere."},
		{round(0, 71, 1), Reach{}, "A is cleaner all the way round."},
		{round(0, 71, 0.8), round(0, 71, 0.8).With(round(0, 0, 1)), "A and B are as clean as each other everywhere."},
		{round(42, 60, 1), round(10, 14, 1), "A is cleaner from blue-green to violet; B is cleaner in the orange."},
		{round(70, 73, 0.5), round(36, 37, 0.5), "A is cleaner in the red; B is cleaner in the green."},
		{round(0, 71, 0.4), round(0, 71, 0.4).With(round(5, 5, 0.9)), "A and B are as clean as each other everywhere."}, // a single bin is not spoken of
	} {
		assert.Equal(t, c.says, Differ(c.a, c.b).Says("A", "B"))
	}
}

func BenchmarkStand(b *testing.B) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	s := systemOf(b, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"})
	for b.Loop() {
		Stand(s, acrylic)
	}
}
