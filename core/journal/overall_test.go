package journal

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// swapped is a wheel that was painted with another paint of the same family in the place of one of its
// tubes, 4 or more apart unmixed, and read by an instrument or an eye; and that tube.
func swapped(t *testing.T, r *rand.Rand, in paint.Medium) (samples []Sample, wrong, really *paint.Paint) {
	t.Helper()
	kind, roles := wheel.RYB, triadRoles
	if r.IntN(2) == 1 {
		kind, roles = wheel.Split, splitRoles
	}
	role := roles[r.IntN(3)]
	wrong = painttest.Paint(role[r.IntN(len(role))])
	masstone := func(p *paint.Paint) colour.Lab {
		m := p.Alone()
		look := m.AsPainted(in, false)
		return look.Lab()
	}
	var others []*paint.Paint
	for _, p := range paint.Library() {
		if p.Family == wrong.Family && p.ID != wrong.ID && colour.Difference(masstone(p), masstone(wrong)) >= 4 {
			others = append(others, p)
		}
	}
	really = others[r.IntN(len(others))]
	strength := 0.7 + 0.7*r.Float64()
	samples = painted(t, nil, kind, roles, true, nil, in)
	for i := range samples {
		s := &samples[i]
		parts := slices.Clone(s.Parts)
		for n := range parts {
			if parts[n].Paint.ID == wrong.ID {
				parts[n].Paint = really
			}
		}
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if parts[n].Paint == really {
				return strength
			}
			return 1
		})
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		s.Lab, s.Noise = look.Lab(), 1
		s.Lab.L, s.Lab.A, s.Lab.B = s.Lab.L+r.NormFloat64(), s.Lab.A+r.NormFloat64(), s.Lab.B+r.NormFloat64()
	}
	return samples, wrong, really
}

// A tube that is another paint is called that, with what it may be; strengths are not offered in its place,
// before the painter is sure of the tube.
func TestAWrongTubeIsCalledThat(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 12))
	draws := painttest.InFull(24, 60)
	named, among, offered := 0, 0, 0
	for n := range draws {
		in := gouache(t)
		if n%3 == 2 {
			var err error
			in, err = paint.ParseMedium("oil")
			require.NoError(t, err)
		}
		samples, wrong, really := swapped(t, r, in)
		got, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		if len(got.Offer()) > 0 || got.Film != nil {
			offered++
		}
		k := slices.IndexFunc(got.Overall, func(c Cause) bool { return c.Kind == WrongTube && c.Paint.ID == wrong.ID })
		if k < 0 {
			t.Logf("%s was %s: %v", wrong.ID, really.ID, got.Says())
			continue
		}
		named++
		if slices.Contains(got.Overall[k].Like, really) {
			among++
		}
		sure, err := Learn(samples, in, Sure{Tubes: []string{wrong.ID}})
		require.NoError(t, err)
		assert.False(t, slices.ContainsFunc(sure.Overall, func(c Cause) bool { return c.Kind == WrongTube && c.Paint.ID == wrong.ID }))
	}
	t.Logf("of %d: named %d, what it is among those named %d, strengths offered %d", draws, named, among, offered)
	assert.GreaterOrEqual(t, named, draws*80/100)
	assert.GreaterOrEqual(t, among, named*80/100)
	assert.LessOrEqual(t, offered, draws*10/100)
}

// A light that was no daylight shifts all places alike.
func TestALightIsToldFromStrengths(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 13))
	const draws = 20
	named, offered, falsely := 0, 0, 0
	in := gouache(t)
	for range draws {
		samples := painted(t, r, wheel.Split, splitRoles, true, nil, in)
		same, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		if len(same.Overall) > 0 {
			falsely++
		}
		for i := range samples {
			samples[i].Lab.A += 1.5
			samples[i].Lab.B += 6
		}
		got, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		if slices.ContainsFunc(got.Overall, func(c Cause) bool { return c.Kind == OfLight }) {
			named++
		}
		if len(got.Offer()) > 0 {
			offered++
		}
	}
	t.Logf("of %d: named %d, strengths offered %d, falsely %d", draws, named, offered, falsely)
	assert.GreaterOrEqual(t, named, draws*80/100)
	assert.LessOrEqual(t, offered, draws*10/100)
	assert.LessOrEqual(t, falsely, draws*5/100)
}
