package studio

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
)

func TestARecipeIsRememberedForItsPaintsAlone(t *testing.T) {
	s := New(nil)
	palette := func(names ...string) (out []*paint.Paint) {
		for _, n := range names {
			p, err := paint.Find(n)
			require.NoError(t, err)
			out = append(out, p)
		}
		return out
	}
	want := colour.Lab{L: 52, A: 38, B: 20}
	few, more := palette("PY184", "PR254"), palette("PY184", "PR254", "PB29")
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	oil, err := paint.ParseMedium("oil")
	require.NoError(t, err)
	for range 2 { // worked out, then remembered
		for _, paints := range [][]*paint.Paint{few, more} {
			for _, in := range []paint.Medium{acrylic, oil} {
				plain, err := reach.Nearest(want, paints, in)
				require.NoError(t, err)
				got, err := s.nearest(want, paints, in)
				require.NoError(t, err)
				assert.Equal(t, plain, got)
			}
		}
	}
	assert.Equal(t, 4, s.matches.Len())
	one := paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the blue"}})
	assert.NotEqual(t, one, paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the other blue"}}), "renamed, it is shown by its new name")
	assert.NotEqual(t, one, paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the blue", Of: []paint.Part{{Paint: few[0], Parts: 2}}}}))
}
