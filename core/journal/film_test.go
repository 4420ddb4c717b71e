package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// tinted are a triad's wheel and a ring of its tints with white, laid so many times as
// thick and read with noise, their tubes of some strengths.
func tinted(t testing.TB, r *rand.Rand, in paint.Medium, thick float64, strength map[string]float64) (out []Sample) {
	t.Helper()
	system, err := wheel.NewSystem(wheel.RYB, [3][]*paint.Paint{painttest.Paints("PY184"), painttest.Paints("PR122"), painttest.Paints("PB15:3")})
	require.NoError(t, err)
	system, err = system.WithRider(wheel.Riders[0], painttest.Paint("PW6"))
	require.NoError(t, err)
	s := bench.Wheel(wheel.Build(system, wheel.Options{TintBy: wheel.ByWhite}), bench.Extras{Tints: 1}, bench.Usual(in))
	for i := range s.Regions {
		parts := s.Regions[i].Recipe.Plain()
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if g := strength[parts[n].Paint.ID]; g > 0 {
				return g
			}
			return 1
		})
		require.NoError(t, err)
		look := m.FilmIn(in, in.Thickness*thick, false)
		lab := look.Lab()
		lab = colour.Lab{L: lab.L + 0.6*r.NormFloat64(), A: lab.A + 0.6*r.NormFloat64(), B: lab.B + 0.6*r.NormFloat64()}
		out = append(out, Sample{Region: s.Regions[i].ID, Parts: parts, Lab: lab, Noise: 0.6})
	}
	return out
}

func TestAFilmIsLearnedWhereWhiteHoldsTheStrengths(t *testing.T) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(18, 8))
	for _, thick := range []float64{0.3, 1} {
		samples := tinted(t, r, in, thick, nil)
		film, told := LearnFilm(samples, in, 1)
		require.True(t, told)
		learned, err := Learn(samples, in)
		require.NoError(t, err)
		assert.Equal(t, thick < 1, film.Proposed)
		assert.Equal(t, thick < 1, film.InPlaceOf(&learned))
		if thick < 1 {
			assert.InDelta(t, math.Log(thick), math.Log(film.New), 0.2)
			assert.True(t, film.Low < thick && thick < film.High, "%v", film)
			assert.Less(t, film.After, film.Before)
		}
	}

	// Stronger tubes are no film.
	samples := tinted(t, r, in, 1, map[string]float64{"PB15:3": 2, "PR122": 0.6})
	film, told := LearnFilm(samples, in, 1)
	require.True(t, told)
	learned, err := Learn(samples, in)
	require.NoError(t, err)
	assert.True(t, learned.Proposed)
	assert.False(t, film.InPlaceOf(&learned))
}

func TestAFilmIsNotToldWithoutWhiteNorWhereItHides(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	_, told := LearnFilm(painted(t, nil, wheel.RYB, triadRoles, true, nil, acrylic), acrylic, 1)
	assert.False(t, told, "no white")
	r := rand.New(rand.NewPCG(18, 9))
	gouache := gouache(t)
	_, told = LearnFilm(tinted(t, r, acrylic, 1, nil), gouache, 1)
	assert.False(t, told, "it hides")
}
