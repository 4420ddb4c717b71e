package journal

import (
	"math"
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

// planted is a sitting with one cause in one place, or in a tube, that shows by 4 CIEDE2000
// or more; the place, and what was done.
func planted(t *testing.T, r *rand.Rand, in paint.Medium) (samples []Sample, at int, kind CauseKind, p *paint.Paint) {
	t.Helper()
	for {
		kind := []CauseKind{OfTube, Contamination, TooThin}[r.IntN(3)]
		roles, system := triadRoles, wheel.RYB
		if r.IntN(2) == 1 {
			roles, system = splitRoles, wheel.Split
		}
		strength := map[string]float64{}
		if kind == OfTube {
			role := roles[r.IntN(3)]
			strength[role[r.IntN(len(role))]] = math.Exp([]float64{-1, 1}[r.IntN(2)] * (0.4 + 0.5*r.Float64()))
		}
		clean := painted(t, nil, system, roles, false, nil, in)
		samples = painted(t, nil, system, roles, false, strength, in)
		at, p = -1, nil
		switch kind {
		case OfTube:
			for i := range samples {
				for _, part := range samples[i].Parts {
					if strength[part.Paint.ID] > 0 && len(samples[i].Parts) > 1 {
						if d := colour.Difference(clean[i].Lab, samples[i].Lab); d >= 4 && (at < 0 || d > colour.Difference(clean[at].Lab, samples[at].Lab)) {
							at, p = i, part.Paint
						}
					}
				}
			}
		default:
			i := r.IntN(len(samples))
			m, err := paint.Mix(samples[i].Parts...)
			require.NoError(t, err)
			film := in.Thickness
			if kind == Contamination {
				var others []*paint.Paint
				for k := range samples {
					for _, part := range samples[k].Parts {
						if !slices.ContainsFunc(samples[i].Parts, func(q paint.Part) bool { return q.Paint == part.Paint }) {
							others = append(others, part.Paint)
						}
					}
				}
				p = others[r.IntN(len(others))]
				whole := 0.0
				for _, part := range samples[i].Parts {
					whole += part.Parts
				}
				m, err = paint.Mix(append(slices.Clone(samples[i].Parts), paint.Part{Paint: p, Parts: whole * (0.01 + 0.07*r.Float64())})...)
				require.NoError(t, err)
			} else {
				film = math.Min(film, opaqueFilm) * (0.25 + 0.4*r.Float64())
			}
			look := m.FilmIn(in, film, false)
			samples[i].Lab = look.Lab()
			if colour.Difference(clean[i].Lab, samples[i].Lab) >= 4 {
				at = i
			}
		}
		if at < 0 {
			continue
		}
		for i := range samples {
			samples[i].Noise = 0.9
			lab := &samples[i].Lab
			lab.L, lab.A, lab.B = lab.L+0.8*r.NormFloat64(), lab.A+0.8*r.NormFloat64(), lab.B+0.8*r.NormFloat64()
		}
		return samples, at, kind, p
	}
}

func TestCausesThatArePlantedAreNamed(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 4))
	sittings := painttest.InFull(100, 300)
	right, wrong := 0, 0
	of := map[CauseKind][3]int{}
	for n := range sittings {
		in := paint.Media()[n%len(paint.Media())]
		samples, at, kind, p := planted(t, r, in)
		got := Explain(samples, in, Sure{}).Places[at]
		is := slices.ContainsFunc(got.Causes, func(c Cause) bool {
			return c.Kind == kind && c.Paint == p || kind == OfTube && c.Kind == OfAmount && slices.ContainsFunc(samples[at].Parts, func(q paint.Part) bool { return q.Paint == c.Paint })
		})
		counts := of[kind]
		switch {
		case is:
			right++
			counts[0]++
		case len(got.Causes) > 0:
			wrong++
			counts[1]++
		default:
			counts[2]++
		}
		of[kind] = counts
	}
	t.Logf("right %d, wrong %d of %d; right, wrong and unexplained by kind %v", right, wrong, sittings, of)
	assert.GreaterOrEqual(t, float64(right), 0.75*float64(sittings))
	assert.LessOrEqual(t, float64(wrong), 0.05*float64(sittings))
}

// A tube is spoken of for one place when two others at least say the same; one is not enough.
func TestOneWitnessIsNotEnoughForATube(t *testing.T) {
	in := gouache(t)
	yellow, red, blue, magenta := painttest.Paint("PY65"), painttest.Paint("PR254"), painttest.Paint("PB29"), painttest.Paint("PR122")
	place := func(region string, with *paint.Paint, parts float64) Sample {
		of := []paint.Part{{Paint: with, Parts: parts}, {Paint: blue, Parts: 1}}
		m, err := paint.Strengthened(of, func(n int) float64 { return []float64{1, 2.2}[n] })
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		return Sample{Region: region, Parts: of, Lab: look.Lab(), Noise: 1}
	}
	says := func(samples ...Sample) bool {
		return slices.ContainsFunc(Explain(samples, in, Sure{}).Places[0].Causes, func(c Cause) bool { return c.Kind == OfTube && c.Paint == blue })
	}
	green, violet, dull := place("green", yellow, 4), place("violet", red, 2), place("dull violet", magenta, 3)
	assert.False(t, says(green))
	assert.False(t, says(green, violet))
	assert.True(t, says(green, violet, dull))
}
