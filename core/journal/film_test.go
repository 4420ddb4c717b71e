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

// A film for all is told from strong tubes by what each costs, in whichever order they come.
func TestAFilmIsToldFromStrengths(t *testing.T) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(18, 8))
	for _, thick := range []float64{0.3, 1} {
		learned, err := Learn(tinted(t, r, in, thick, nil), in, Sure{})
		require.NoError(t, err)
		assert.Equal(t, thick < 1, learned.Proposed)
		assert.Empty(t, learned.Offer(), "no tube is another")
		if thick == 1 {
			assert.Nil(t, learned.Film)
			continue
		}
		require.NotNil(t, learned.Film)
		film := learned.Film.Over(1)
		assert.InDelta(t, math.Log(thick), math.Log(film.New), 0.2)
		assert.True(t, film.Low < thick && thick < film.High, "%v", film)
		assert.Less(t, learned.After, learned.Before)
		assert.Equal(t, 2*film.New, learned.Film.Over(2).New)
	}

	// Stronger tubes are no film.
	learned, err := Learn(tinted(t, r, in, 1, map[string]float64{"PB15:3": 2, "PR122": 0.6}), in, Sure{})
	require.NoError(t, err)
	assert.True(t, learned.Proposed)
	assert.Nil(t, learned.Film)
}

func TestThereIsNoFilmWhereItHides(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	learned, err := Learn(tinted(t, rand.New(rand.NewPCG(18, 9)), acrylic, 1, nil), gouache(t), Sure{})
	require.NoError(t, err)
	assert.Nil(t, learned.Film)
}

// Watercolour: of one film for all or one strong tube whichever it is.
func TestWatercolourTellsAFilmFromATube(t *testing.T) {
	in, err := paint.ParseMedium("watercolour")
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(28, 11))
	draws := painttest.InFull(8, 20)
	films, tubes := 0, 0
	for n := range draws {
		kind, roles := wheel.RYB, triadRoles
		if n%2 == 1 {
			kind, roles = wheel.Split, splitRoles
		}
		samples := painted(t, nil, kind, roles, true, nil, in)
		for i := range samples {
			s := &samples[i]
			m, err := paint.Mix(s.Parts...)
			require.NoError(t, err)
			look := m.FilmIn(in, 0.5*in.Thickness, false)
			s.Lab = look.Lab()
			s.Lab.L, s.Lab.A, s.Lab.B = s.Lab.L+r.NormFloat64(), s.Lab.A+r.NormFloat64(), s.Lab.B+r.NormFloat64()
		}
		got, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		assert.Empty(t, got.Offer())
		if got.Film != nil && math.Abs(math.Log(got.Film.New/0.5)) < 0.2 {
			films++
		}
		got, err = Learn(painted(t, r, kind, roles, true, map[string]float64{"PB29": 1.8}, in), in, Sure{})
		require.NoError(t, err)
		if offered := got.Offer(); got.Film == nil && len(offered) == 1 && offered[0].Paint.ID == "PB29" {
			tubes++
		}
	}
	t.Logf("of %d: the film %d, the tube %d", draws, films, tubes)
	assert.GreaterOrEqual(t, films, draws*95/100)
	assert.GreaterOrEqual(t, tubes, draws*80/100)
}
