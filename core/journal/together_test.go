package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

// drawn is a tube of a paint, drawn from what is not known of it.
func drawn(t testing.TB, p *paint.Paint, r *rand.Rand) *paint.Paint {
	t.Helper()
	d := certainty.Usual(p)
	q, err := p.Variant(d.Shade*r.NormFloat64(), min(max(d.Cleanness*r.NormFloat64(), paint.MostDuller), paint.MostCleaner))
	require.NoError(t, err)
	q, err = q.Tube(p.ID, paint.BoundedStrength(math.Exp(d.Strength*r.NormFloat64())))
	require.NoError(t, err)
	return q
}

// readOf are mixtures that were planned of paints, painted with the tubes as they really are and read with noise.
func readOf(t testing.TB, r *rand.Rand, recipes [][]paint.Part, really map[*paint.Paint]*paint.Paint, in paint.Medium, noise float64) (out []Sample) {
	t.Helper()
	for _, parts := range recipes {
		var of []paint.Part
		for _, p := range parts {
			by := math.Exp(weighed * r.NormFloat64())
			if tube := really[p.Paint]; tube != nil {
				of = append(of, paint.Part{Paint: tube, Parts: p.Parts * by})
			} else {
				of = append(of, paint.Part{Paint: p.Paint, Parts: p.Parts * by})
			}
		}
		m, err := paint.Mix(of...)
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		out = append(out, Sample{Parts: parts, Noise: noise, Lab: strayed(look.Lab(), noise, r)})
	}
	return out
}

// strayed is a colour as it is read: so much off in each component of CIEDE2000, lightness, chroma and hue.
func strayed(lab colour.Lab, noise float64, r *rand.Rand) colour.Lab {
	c := math.Hypot(lab.A, lab.B)
	along := [2]float64{1, 0}
	if c > 0 {
		along = [2]float64{lab.A / c, lab.B / c}
	}
	out := lab
	for _, way := range [][3]float64{{1, 0, 0}, {0, along[0], along[1]}, {0, -along[1], along[0]}} {
		const step = 0.01
		unit := colour.Difference(lab, colour.Lab{L: lab.L + step*way[0], A: lab.A + step*way[1], B: lab.B + step*way[2]}) / step
		by := noise * r.NormFloat64() / unit
		out = colour.Lab{L: out.L + by*way[0], A: out.A + by*way[1], B: out.B + by*way[2]}
	}
	return out
}

// tellingOf are a tint of each paint with white and every two of some in equal strength: readings of a box.
func tellingOf(paints []*paint.Paint, pairs int) (out [][]paint.Part) {
	white := painttest.Paint("PW6")
	for _, p := range paints {
		out = append(out, []paint.Part{{Paint: p, Parts: 1}, {Paint: white, Parts: 9}})
	}
	for i, a := range paints {
		for _, b := range paints[:i] {
			if len(out) < len(paints)+pairs {
				out = append(out, []paint.Part{{Paint: a, Parts: 1}, {Paint: b, Parts: 1}})
			}
		}
	}
	return out
}

// After twelve readings the ranges of a wheel's recipes are narrower by 40 % and more, by eye by 30 %, and still hold.
func TestRangesNarrowWithReadingsAndHold(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(33, 6))
	boxes := painttest.InFull(12, 300)
	for _, c := range []struct{ noise, leave float64 }{{NoiseOf(paint.Instrument, 0), 0.6}, {1.44, 0.6}, {NoiseOf(paint.Eye, 0), 0.7}}[:painttest.InFull(2, 3)] {
		within, all, before, after := 0, 0, 0.0, 0.0
		for range boxes {
			paints := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
			really := map[*paint.Paint]*paint.Paint{}
			for _, p := range paints {
				really[p] = drawn(t, p, r)
			}
			got, err := Learn(readOf(t, r, tellingOf(paints, 6), really, in, c.noise), in, Sure{})
			require.NoError(t, err)
			if got.Joint == nil {
				t.Log(got.Says())
				continue
			}
			require.NoError(t, got.Joint.Check(len(got.Strengths)))
			taken, doubts := map[*paint.Paint]*paint.Paint{}, map[*paint.Paint]certainty.Doubt{}
			for i, s := range got.Strengths {
				g := 1.0
				if got.Proposed && s.Named {
					g = s.New / s.Old
				}
				tube, err := s.Paint.Tube(s.Paint.ID, g)
				require.NoError(t, err)
				taken[s.Paint], doubts[tube] = tube, got.Joint.Doubt(i)
			}
			knows := func(p *paint.Paint) certainty.Doubt { return doubts[p] }
			for i, a := range paints {
				for _, b := range paints[:i] {
					was := path.New(a, b)
					old := certainty.Steps(was, path.ByHue, certainty.Usual, certainty.HalfWay)[0]
					now := certainty.Steps(path.New(taken[a], taken[b]), path.ByHue, knows, certainty.HalfWay)[0]
					truly := certainty.Steps(path.New(really[a], really[b]), path.ByHue, func(*paint.Paint) certainty.Doubt { return certainty.Doubt{} }, certainty.HalfWay)[0].Ratio
					all++
					before, after = before+old.Deviation(), after+now.Deviation()
					if math.Abs(truly-now.Ratio) <= 1.2816*now.Deviation() {
						within++
					}
				}
			}
		}
		t.Logf("noise %.2f: within %.0f %% of %d, deviation %.3f, now %.3f", c.noise, 100*float64(within)/float64(all), all, before/float64(all), after/float64(all))
		assert.Less(t, after, c.leave*before)
		assert.InDelta(t, 0.8, float64(within)/float64(all), 0.12)
	}
}
