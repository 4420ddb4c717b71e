package wire

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func TestATraceOfAThirdPaintDullsAPair(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	l := painttest.Paints("PB29", "PR122", "PY74")
	p, err := pair(v, l[0], l[1], 3, path.ByHue)
	require.NoError(t, err)
	way := path.New(l[0], l[1])
	taints, err := way.Taints(l[2], path.TaintShares)
	require.NoError(t, err)
	got := v.Contaminated(way, l[2], taints, 3, path.ByHue)
	assert.Equal(t, "PY74", got.Third.ID)
	require.Equal(t, len(path.TaintShares), len(got.Taints))
	assert.Equal(t, p.Retention, got.Taints[0].Retention, "clean is as it was")
	for i, taint := range got.Taints {
		assert.Equal(t, path.TaintShares[i], taint.Share)
		require.Len(t, taint.Samples, len(p.Samples))
		if i > 0 {
			assert.Less(t, taint.Retention, got.Taints[i-1].Retention)
		}
	}
	for i, s := range p.Samples {
		assert.Equal(t, s.AsPainted.Shown, got.Taints[0].Samples[i].AsPainted)
	}
	for _, share := range []float64{-0.01, 0.6} {
		_, err := way.Taints(l[2], []float64{share})
		assert.ErrorContains(t, err, "a share from 0 to 0.5")
	}
}

func TestAPairIsDrawnFromWhatItCarries(t *testing.T) {
	v := view(t, "watercolour", "D50", "wet")
	l := painttest.Paints("PY65", "PB29")
	p, err := pair(v, l[0], l[1], 11, path.ByContrast)
	require.NoError(t, err)
	last := -1.0
	for _, s := range p.Samples {
		assert.GreaterOrEqual(t, s.At, last)
		assert.NotEmpty(t, s.Words)
		last = s.At
	}
	assert.Equal(t, 1.0, last)
	assert.Len(t, p.Ladders, laddersAlong)
	assert.Zero(t, p.Ladders[0].Sample)
	assert.Equal(t, len(p.Samples)-1, p.Ladders[laddersAlong-1].Sample)
	assert.Contains(t, p.Samples[0].Words, "yellow")
}

func BenchmarkPairWithEverything(b *testing.B) {
	v, l := view(b, "acrylic", "D65", "dry"), painttest.Paints("PY65", "PB29")
	b.ReportAllocs()
	for b.Loop() {
		pair(v, l[0], l[1], 11, path.ByHue)
	}
}
