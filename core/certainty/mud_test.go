package certainty

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

// Where mud begins is a stretch: tubes that are drawn from what is not known of them begin within it as often as is said.
func TestWhereMudBeginsIsAStretch(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 9))
	within, all := 0, 0
	for _, pair := range [][2]string{{"PR254", "PB15:3"}, {"PY65", "PB29"}, {"PR254", "PG7"}} {
		p := path.New(painttest.Paint(pair[0]), painttest.Paint(pair[1]))
		zones, edges := p.Mud(), MudEdges(p, path.ByHue, Usual)
		require.Len(t, edges, len(zones))
		require.NotEmpty(t, zones, pair)
		at := p.ReachedAt(zones[0].From, path.ByHue)
		assert.LessOrEqual(t, edges[0][0].Low, at)
		assert.GreaterOrEqual(t, edges[0][0].High, at)
		for range 25 {
			q := path.New(tube(t, p.A, Usual(p.A), r), tube(t, p.B, Usual(p.B), r))
			came := edgesNear(p, zones[:1], q, path.ByHue)[0][0]
			all++
			if came >= edges[0][0].Low-0.01 && came <= edges[0][0].High+0.01 {
				within++
			}
		}
	}
	t.Logf("%d of %d", within, all)
	assert.InDelta(t, 0.8, float64(within)/float64(all), 0.15)
	// By parts the strengths move the edges as well, and what is known of them together holds them.
	p := path.New(painttest.Paint("PR254"), painttest.Paint("PB15:3"))
	wide := func(s path.Spacing, doubt Doubts) float64 {
		e := MudEdges(p, s, doubt)[0][0]
		return e.High - e.Low
	}
	strength := func(*paint.Paint) Doubt { return Doubt{Strength: 0.3} }
	assert.Zero(t, wide(path.ByHue, strength), "half way in hue is half way in hue")
	apart := wide(path.EqualParts, strength)
	assert.Greater(t, apart, 0.02)
	joint := &Joint{Off: make([]float64, 6), Covariance: make([][]float64, 6)}
	for i := range joint.Covariance {
		joint.Covariance[i] = make([]float64, 6)
	}
	for _, i := range []int{0, 3} {
		joint.Covariance[i][i], joint.Covariance[i][3-i] = 0.09, 0.0882 // the ratio is known, and neither strength
	}
	known := map[string]Doubt{p.A.ID: joint.Doubt(0), p.B.ID: joint.Doubt(1)}
	assert.Less(t, wide(path.EqualParts, func(p *paint.Paint) Doubt { return known[p.ID] }), apart/2)
	clean := path.New(painttest.Paint("PY184"), painttest.Paint("PY65"))
	assert.Empty(t, MudEdges(clean, path.ByHue, Usual))
}

// A step of a path says what the slot of a wheel says.
func TestStepsOfAPathAreDoubtedAsSlotsAre(t *testing.T) {
	p := path.New(painttest.Paint("PY184"), painttest.Paint("PB29"))
	steps := p.Steps(3, path.ByHue)
	got := OfSteps(p, path.ByHue, steps, Usual)
	require.Len(t, got, 3)
	middle := OfPath(p, path.ByHue, steps[1].Under.Verdict, steps[1].Parts, Usual)
	assert.Equal(t, middle.Range, got[1].Range)
	assert.InDelta(t, middle.Known, got[1].Known, 1e-9)
	same := path.New(painttest.Paint("PY184"), painttest.Paint("PY184"))
	assert.Equal(t, []*Confidence{nil, nil, nil}, OfSteps(same, path.ByHue, same.Steps(3, path.ByHue), Usual))
}
