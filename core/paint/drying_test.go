package paint

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// Which way each medium goes as it dries, dry minus wet L*, over the whole library
// in the mass and let down 1:9 in white. A white alone goes the way of its medium,
// if hardly.
func TestEveryMediumDriesTheWayItDoes(t *testing.T) {
	type bounds struct{ from, to float64 }
	for _, in := range Media() {
		for _, p := range Library() {
			for _, tint := range []bool{false, true} {
				m := p.alone
				if tint {
					m = m.LetDown(0.1)
				}
				wet, dry := m.AsPainted(in, true), m.AsPainted(in, false)
				l := wet.Lab().L
				shift := dry.Lab().L - l
				within := bounds{-0.7, 0.7} // oil stays
				switch {
				case in.ID == "acrylic" && tint:
					within = bounds{-2, -0.3}
				case in.ID == "acrylic":
					within = bounds{-6, -1}
				case in.ID == "watercolour" && p.Family == "white":
					within = bounds{2.5, 3.5}
				case in.ID == "watercolour":
					within = bounds{2.9, 9}
				case in.ID == "oil":
				case l < 45:
					within = bounds{0.5, 20}
				case l > 80:
					within = bounds{-4, -0.5}
				default:
					within = bounds{-2, 3}
				}
				assert.True(t, shift >= within.from && shift <= within.to, "%s in %s, tint %v: %.2f from L* %.1f", p.ID, in.ID, tint, shift, l)
			}
		}
	}
}

// Strong transparent pigments look as brushed washes do, not as black glass.
func TestWatercolourIsAWash(t *testing.T) {
	in, err := ParseMedium("watercolour")
	require.NoError(t, err)
	for _, c := range []struct {
		id         string
		fromL, toL float64
		fromC, toC float64
	}{
		{"PG7", 33, 45, 35, 60}, {"PB60", 20, 32, 0, 100}, {"PV23", 17, 30, 0, 100}, {"PB29", 0, 100, 55, 80},
	} {
		m := find(t, c.id).Alone()
		look := m.AsPainted(in, false)
		lab := look.Lab()
		assert.True(t, lab.L >= c.fromL && lab.L <= c.toL, "%s: L* %.1f", c.id, lab.L)
		assert.True(t, lab.Chroma() >= c.fromC && lab.Chroma() <= c.toC, "%s: C* %.1f", c.id, lab.Chroma())
	}
}

func TestAnUnevenFilmIsTheMeanOfItsThicknesses(t *testing.T) {
	m := find(t, "PB29").Alone()
	even := m.Film(1, 0.9, Matt)
	washed := Medium{Uneven: 1e-9, Ground: 0.9, Dry: Matt}
	assert.InDeltaSlice(t, even[:], slice(m.FilmIn(washed, 1, false)), 1e-6, "hardly uneven is even")
	// Against a sum over many thicknesses.
	const n = 4000
	var want [36]float64
	whole := 0.0
	for k := range n {
		z := -6 + 12*(float64(k)+0.5)/n
		w := math.Exp(-z * z / 2)
		whole += w
		for i, r := range m.Film(math.Exp(1.2*z), 0.9, Matt) {
			want[i] += w * r
		}
	}
	washed.Uneven = 1.2
	got := m.FilmIn(washed, 1, false)
	for i := range want {
		assert.InDelta(t, want[i]/whole, got[i], 0.02, "band %d", i)
	}
}

func slice(s colour.Spectrum) []float64 { return s[:] }
