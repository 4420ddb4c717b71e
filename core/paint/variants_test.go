package paint_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

// Drawn out from one deviation they are near to those that are worked out, to two.
func TestVariantsAreNearToThoseWorkedOut(t *testing.T) {
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	const shade, cleanness = 4, 0.06
	for _, p := range painttest.Paints("PB29", "PY184", "PR254", "PR122", "PG7", "PBr7-raw-umber") {
		v := paint.VariantsOf(p, shade, cleanness)
		for _, at := range [][2]float64{{0, 0}, {1, 0}, {-2, 0}, {0, 1}, {0, -1.5}, {1, -1}, {-1, 1}} {
			by := v.Absorbs(at[0], at[1])
			parts := []paint.Part{{Paint: p, Parts: 1}, {Paint: painttest.Paint("PW6"), Parts: 4}}
			got, err := paint.Varied(parts, func(int) float64 { return 1 }, func(i int) *colour.Spectrum {
				if i == 0 {
					return &by
				}
				return nil
			})
			require.NoError(t, err)
			parts[0].Paint, err = p.Variant(at[0]*shade, at[1]*cleanness)
			require.NoError(t, err)
			want, err := paint.Mix(parts...)
			require.NoError(t, err)
			one, other := got.AsPainted(in, false), want.AsPainted(in, false)
			assert.Less(t, colour.Difference(one.Lab(), other.Lab()), 0.8, "%s at %v", p.ID, at)
		}
	}
}
