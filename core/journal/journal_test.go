package journal

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
)

func TestPredictionsAreScored(t *testing.T) {
	green := paint.Undertone{Chroma: 0.1, WheelHue: 182, Verdict: paint.Clean}
	for _, c := range []struct {
		hue, verdict string
		points       int
		near         bool
	}{
		{"green", "clean", 4, false},
		{"blue-green", "clean", 4, false}, // within a slot
		{"green", "softened", 3, true},
		{"green", "quiet", 3, true},
		{"green", "muddy", 2, false},
		{"blue", "muddy", 0, false},
		{"yellow", "softened", 1, true},
	} {
		p, err := ParsePrediction(c.hue, c.verdict)
		require.NoError(t, err)
		s := p.Against(green)
		assert.Equal(t, c.points, s.Points, c)
		assert.Equal(t, c.near, s.VerdictNear, c)
	}
	grey := paint.Undertone{Chroma: 0.01, WheelHue: 20, Verdict: paint.Muddy}
	p, err := ParsePrediction("green", "muddy")
	require.NoError(t, err)
	assert.Equal(t, 4, p.Against(grey).Points, "a grey has no hue to be wrong about")
	quiet := paint.Undertone{Chroma: 0.1, WheelHue: 182, Verdict: paint.Quiet}
	for verdict, points := range map[string]int{"clean": 3, "quiet": 4, "softened": 3, "muddy": 3} {
		p, err := ParsePrediction("green", verdict)
		require.NoError(t, err)
		assert.Equal(t, points, p.Against(quiet).Points, verdict)
	}
	for _, c := range [][2]string{{"teal", "clean"}, {"green", "bright"}, {"", ""}} {
		_, err := ParsePrediction(c[0], c[1])
		assert.Error(t, err)
	}
}
