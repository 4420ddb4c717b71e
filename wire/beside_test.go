package wire

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/beside"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// rowOf is a row of mixtures, each named by its first paint.
func rowOf(t *testing.T, each ...string) (out beside.Row) {
	t.Helper()
	for _, text := range each {
		m, err := paint.Mix(parts(t, text)...)
		assert.NoError(t, err)
		out = append(out, beside.Place{Name: text, Mixture: &m})
	}
	return out
}

func TestThingsLieEdgeToEdge(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	white := wheel.UsualWhite()
	blue, dull := rowOf(t, "PB29=1"), rowOf(t, "PBr7-burnt-sienna=1")
	as := v.EdgeToEdge(blue, dull, nil)
	assert.Len(t, as.Pairs, 1)
	assert.Contains(t, as.Says, "darker")
	assert.Equal(t, as.Says, as.Pairs[0].Says)
	assert.Greater(t, as.Pairs[0].DE, 10.0)

	level := v.EdgeToEdge(blue, dull, white)
	one, other := level.Pairs[0].One, level.Pairs[0].Other
	assert.InDelta(t, one.L, other.L, 0.5, "of one value")
	assert.Positive(t, one.White, "the darker was raised")
	assert.Zero(t, other.White)
	assert.NotContains(t, level.Says, "darker")
	assert.Zero(t, level.Unraised)

	same := v.EdgeToEdge(blue, blue, nil)
	assert.Equal(t, colour.NoDifference, same.Says)
	assert.Zero(t, same.Pairs[0].DE)
}

func TestWhatWasReadStaysAsItIs(t *testing.T) {
	v := view(t, "gouache", "D65", "dry")
	read := beside.Row{{Name: "green", Read: colour.Lab{L: 40, A: -20, B: 20}}}
	got := v.EdgeToEdge(read, rowOf(t, "PY184=1"), wheel.UsualWhite())
	assert.Equal(t, 1, got.Unraised)
	assert.InDelta(t, 40, got.Pairs[0].One.L, 0.2)
	assert.Zero(t, got.Pairs[0].Other.White)
}
