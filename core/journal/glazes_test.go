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

// glazed are the places of a sheet of glazes as they were laid, their tubes really so many times as strong, each
// film by a hand that strays by 15 %, and read with noise: 1.4 in each component.
func glazed(t testing.TB, r *rand.Rand, kind wheel.SystemKind, roles [3][]string, strength map[string]float64, in paint.Medium) (out []Sample) {
	t.Helper()
	system, err := wheel.NewSystem(kind, [3][]*paint.Paint{painttest.Paints(roles[0]...), painttest.Paints(roles[1]...), painttest.Paints(roles[2]...)})
	require.NoError(t, err)
	s, err := bench.Glazes(wheel.Build(system, wheel.Options{}), 0, nil, bench.Material{})
	require.NoError(t, err)
	layers := make([]paint.Layer, len(s.Regions))
	for i := range s.Regions {
		region := &s.Regions[i]
		parts := region.Recipe.Plain()
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if g := strength[parts[n].Paint.ID]; g > 0 {
				return g
			}
			return 1
		})
		require.NoError(t, err)
		layers[i] = paint.Layer{Mixture: m, Thickness: in.Thickness}
		if region.Film > 0 {
			layers[i].Thickness = region.Film * math.Exp(0.15*r.NormFloat64())
		}
		sample := Sample{Region: region.ID, Parts: parts, Film: region.Film, Noise: 1.2}
		var under []paint.Layer
		for _, k := range region.Beneath {
			under, sample.Under = append(under, layers[k]), append(sample.Under, LayerOf(&s.Regions[k]))
		}
		look := m.FilmOver(in, layers[i].Thickness, in.Under(under), false)
		sample.Lab = look.Lab()
		sample.Lab = colour.Lab{L: sample.Lab.L + 1.4*r.NormFloat64(), A: sample.Lab.A + 1.4*r.NormFloat64(), B: sample.Lab.B + 1.4*r.NormFloat64()}
		if sample.TellsTubes(in) {
			out = append(out, sample)
		}
	}
	return out
}

// Layers say what a hand and a meter let them: a strong tube is found, none where all are as they were; and of
// a medium that hides its ground only what lies as it comes is learned from.
func TestGlazesTellTheirTubes(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 2))
	found, falsely, others, draws := 0, 0, 0, 0
	for _, id := range []string{"watercolour", "acrylic", "oil"} {
		in, err := paint.ParseMedium(id)
		require.NoError(t, err)
		for n := range 4 {
			kind, roles := wheel.RYB, triadRoles
			if n%2 == 1 {
				kind, roles = wheel.Split, splitRoles
			}
			draws++
			same, err := Learn(glazed(t, r, kind, roles, nil, in), in, Sure{})
			require.NoError(t, err)
			if len(same.Offer()) > 0 || same.Film != nil {
				falsely++
				t.Logf("%s: as they were: %v", id, same.Says())
			}
			strong, err := Learn(glazed(t, r, kind, roles, map[string]float64{"PB29": 1.8}, in), in, Sure{})
			require.NoError(t, err)
			offered := strong.Offer()
			if len(offered) == 1 && offered[0].Paint.ID == "PB29" && math.Abs(math.Log(offered[0].New/1.8)) < math.Log(1.2) {
				found++
			} else {
				t.Logf("%s: one stronger: %v", id, strong.Says())
			}
			for _, one := range offered {
				if one.Paint.ID != "PB29" {
					others++
				}
			}
		}
	}
	t.Logf("of %d: found %d, falsely %d, others %d", draws, found, falsely, others)
	assert.LessOrEqual(t, float64(falsely), 0.05*float64(draws)+0.5)
	assert.GreaterOrEqual(t, float64(found), 0.8*float64(draws))
	assert.LessOrEqual(t, float64(others), 0.05*float64(draws)+0.5)
	for _, one := range glazed(t, r, wheel.RYB, triadRoles, nil, gouache(t)) {
		assert.Zero(t, one.Film, "%s: a glaze of gouache tells no strength", one.Region)
		assert.Empty(t, one.Under, one.Region)
	}
}
