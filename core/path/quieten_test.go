package path

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

func TestAColourIsQuietenedByShares(t *testing.T) {
	red := painttest.Paints("PR254")[0]
	own := red.Alone()
	for _, with := range painttest.Paints("PG7", "PB29", "PR101") {
		rungs, cools := Quieten(red, with)
		assert.False(t, cools, with.ID)
		require.NotEmpty(t, rungs, with.ID)
		for i, r := range rungs {
			assert.InDelta(t, Losses[i], r.Lost, 0.12, "%s, parts a brush can do", with.ID)
			m := paint.Between(new(red.Alone()), new(with.Alone()), r.Share)
			assert.Equal(t, r.Brushed, m.BrushedOutColour(), "the colour is that of the parts")
			assert.InDelta(t, r.Brushed.L-own.BrushedOutColour().L, r.Lighter, 1e-12)
			if i > 0 {
				assert.Greater(t, r.Share, rungs[i-1].Share, "more of it quietens more")
			}
		}
	}
	// A green with a red goes straight through grey; a blue turns it far sooner.
	greens, _ := Quieten(red, painttest.Paints("PG7")[0])
	blues, _ := Quieten(red, painttest.Paints("PB29")[0])
	green, blue := greens[1], blues[1]
	assert.Less(t, math.Abs(green.Turned), math.Abs(blue.Turned))
	assert.Less(t, blue.Turned, 0.0, "toward violet")
	cooled, cools := Quieten(painttest.Paints("PR255")[0], painttest.Paints("PR122")[0])
	assert.True(t, cools)
	require.Len(t, cooled, 1, "it takes none of the chroma, and turns the hue; it is itself not far off")
	assert.InDelta(t, -15, cooled[0].Turned, 8)
	none, _ := Quieten(painttest.Paints("PY74")[0], painttest.Paints("PY35")[0])
	assert.Empty(t, none, "what cannot be had is left out")
}

func TestWhatQuietensIsChosenFromThePaintsAtHand(t *testing.T) {
	box := painttest.Paints("PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9")
	for id, want := range map[string][3]string{
		"PR254": {"PG7", "PR122", "PR101"},
		"PY74":  {"PB29", "PG7", "PY43"},
	} {
		p := painttest.Paints(id)[0]
		m := p.Alone()
		across, beside := ComplementOf(p.Undertone(), box), NeighbourOf(p.Undertone(), box)
		require.NotNil(t, across, id)
		require.NotNil(t, beside, id)
		assert.InDelta(t, 180, colour.Turn(across.Undertone().WheelHue-p.Undertone().WheelHue), 60, id)
		assert.NotEqual(t, "earth", beside.Family)
		earth := EarthFor(&m, box)
		require.NotNil(t, earth)
		own := earth.Alone()
		assert.InDelta(t, m.BrushedOut().Lab().L, own.BrushedOut().Lab().L, 2.5, "%s: raised to the same lightness, or lighter already", want[2])
	}
	for _, way := range QuietWays {
		m := box[1].Alone()
		fit := way.Fittest(&m, box)
		require.NotNil(t, fit, way)
		switch way {
		case ByComplement:
			assert.Equal(t, ComplementOf(box[1].Undertone(), box), fit)
		case ByNeighbour:
			assert.Equal(t, NeighbourOf(box[1].Undertone(), box), fit)
		case ByEarth:
			assert.Equal(t, EarthFor(&m, box).ID, fit.ID)
		}
		assert.Nil(t, way.Fittest(&m, painttest.Paints("PW6", "PBk9")), "no white or black quietens by hue")
	}
	assert.Nil(t, ComplementOf(box[1].Undertone(), painttest.Paints("PR122", "PW6", "PR101")))
	assert.Nil(t, NeighbourOf(box[1].Undertone(), painttest.Paints("PY74", "PW6")))
	m := box[1].Alone()
	assert.Nil(t, EarthFor(&m, painttest.Paints("PB29")))
}

func TestAReadingIsFoundOnItsPath(t *testing.T) {
	couple := painttest.Paints("PY74", "PB15:3")
	p := New(couple[0], couple[1])
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	for _, share := range []float64{0, 0.02, 0.2, 0.6, 1} {
		m := p.At(share)
		seen := m.AsPainted(in, false)
		r, err := paint.LabReading(seen.Lab(), paint.Eye, false, in)
		require.NoError(t, err)
		got, miss := p.Locate(AimAt(r))
		assert.InDelta(t, share, got, 0.004)
		assert.Less(t, miss, 0.002)
		found := p.Find(r)
		assert.True(t, found.Fits)
		assert.Equal(t, p.Parts(got).Parts, found.Parts, "in parts a brush can do")
	}
	red, err := paint.LabReading(colour.Lab{L: 40, A: 60, B: 40}, paint.Eye, false, in)
	require.NoError(t, err)
	_, miss := p.Locate(AimAt(red))
	assert.Greater(t, miss, 0.1, "no red between a yellow and a blue")
	assert.False(t, p.Find(red).Fits)
}

func TestAPileIsBroughtToAReadingWithManyPaintsAtHand(t *testing.T) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	box := painttest.Paints("PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9")
	have := []paint.Part{{Paint: box[0], Parts: 4}, {Paint: box[4], Parts: 1}}
	for _, add := range [][]paint.Part{
		{{Paint: box[8], Parts: 3}},
		{{Paint: box[0], Parts: 6}, {Paint: box[7], Parts: 1}},
	} {
		m, err := paint.Mix(append(have[:2:2], add...)...)
		require.NoError(t, err)
		seen := m.AsPainted(in, false)
		r, err := paint.LabReading(seen.Lab(), paint.Eye, false, in)
		require.NoError(t, err)
		c, err := CorrectTo(have, AimAt(r), box, 5)
		require.NoError(t, err)
		assert.True(t, c.Reached, "misses by %v", c.Miss)
		total := 0.0
		for _, a := range add {
			total += a.Parts
		}
		assert.LessOrEqual(t, (c.Grows-1)*5, total+1e-9, "no more than is known to do")
	}
}

func BenchmarkTowardAReadingWithManyPaints(b *testing.B) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	box := painttest.Paints("PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9", "PY65", "PR255", "PB28", "PV23")
	have := []paint.Part{{Paint: box[0], Parts: 4}, {Paint: box[4], Parts: 1}}
	unreachable, err := paint.LabReading(colour.Lab{L: 50, A: 75, B: -60}, paint.Eye, false, in)
	require.NoError(b, err)
	for b.Loop() {
		if _, err := CorrectTo(have, AimAt(unreachable), box, 5); err != nil {
			b.Fatal(err)
		}
	}
}

func TestHowFarAPathHasComeNeverFalls(t *testing.T) {
	for _, c := range [][2]string{{"PY74", "PB15:3"}, {"PR255", "PB29"}, {"PR254", "PG7"}, {"PY74", "PY65"}} {
		couple := painttest.Paints(c[0], c[1])
		p := New(couple[0], couple[1])
		for _, s := range []Spacing{ByHue, ByContrast, EqualParts} {
			reached := p.Reached(s)
			require.Len(t, reached, len(p.Samples))
			assert.Zero(t, reached[0])
			assert.InDelta(t, 1, reached[len(reached)-1], 1e-9)
			for i := 1; i < len(reached); i++ {
				assert.GreaterOrEqual(t, reached[i], reached[i-1], "%v %v", c, s)
				assert.InDelta(t, reached[i], p.ReachedAt(p.Samples[i].Share, s), 1e-9)
			}
			for _, f := range []float64{0.1, 0.5, 0.9} {
				assert.InDelta(t, f, p.ReachedAt(p.ShareAt(f, s), s), 0.02, "%v %v: the way back from a fraction", c, s)
			}
			assert.Zero(t, p.ReachedAt(0, s))
			assert.InDelta(t, 1, p.ReachedAt(1, s), 1e-9)
		}
	}
}
