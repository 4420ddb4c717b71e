package path

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

func paints(t testing.TB, ids ...string) (out []*paint.Paint) {
	t.Helper()
	for _, id := range ids {
		p, err := paint.Find(id)
		require.NoError(t, err)
		out = append(out, p)
	}
	return out
}

func TestAColourIsQuietenedByShares(t *testing.T) {
	red := paints(t, "PR254")[0]
	for _, with := range paints(t, "PG7", "PB29", "PR101") {
		q := Quieten(red, with, []float64{0.25, 0.5}, nil)
		require.NotEmpty(t, q.Rungs, with.ID)
		start := Quieten(red, with, []float64{0}, nil).Rungs[0]
		assert.InDelta(t, 0, start.Lost, 0.05)
		for i, r := range q.Rungs {
			assert.InDelta(t, []float64{0.25, 0.5}[i], r.Lost, 0.12, "%s, parts a brush can do", with.ID)
			m := paint.Between(new(red.Alone()), new(with.Alone()), r.Share)
			assert.Equal(t, r.Brushed, m.Brushed(), "the colour is that of the parts")
		}
	}
	// A green with a red goes straight through grey; a blue turns it far sooner.
	green, blue := Quieten(red, paints(t, "PG7")[0], []float64{0.4}, nil), Quieten(red, paints(t, "PB29")[0], []float64{0.4}, nil)
	assert.Less(t, green.Rungs[0].Turned*green.Rungs[0].Turned, blue.Rungs[0].Turned*blue.Rungs[0].Turned)
	assert.Less(t, blue.Rungs[0].Turned, 0.0, "toward violet")
	yellow, deep := paints(t, "PY74")[0], paints(t, "PY65")[0]
	assert.Empty(t, Quieten(yellow, deep, []float64{0.9}, []float64{170}).Rungs, "what cannot be had is left out")
	cooled := Quieten(paints(t, "PY184")[0], paints(t, "PG7")[0], []float64{0.9}, []float64{15, 30})
	require.Len(t, cooled.Rungs, 2, "it takes little of the chroma, and turns the hue")
	assert.InDelta(t, 15, cooled.Rungs[0].Turned, 8)
	assert.InDelta(t, 30, cooled.Rungs[1].Turned, 8)
}

func TestWhatQuietensIsChosenFromThePaintsAtHand(t *testing.T) {
	box := paints(t, "PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9")
	for id, want := range map[string][3]string{
		"PR254": {"PG7", "PR122", "PR101"},
		"PY74":  {"PB29", "PG7", "PY43"},
	} {
		p := paints(t, id)[0]
		m := p.Alone()
		across, beside := ComplementOf(p.Undertone(), box), NeighbourOf(p.Undertone(), box)
		require.NotNil(t, across, id)
		require.NotNil(t, beside, id)
		assert.InDelta(t, 180, colour.Turn(across.Undertone().WheelHue-p.Undertone().WheelHue), 60, id)
		assert.NotEqual(t, "earth", beside.Word)
		earth := EarthFor(&m, box)
		require.NotNil(t, earth)
		own := earth.Alone()
		assert.InDelta(t, m.BrushedOut().Lab().L, own.BrushedOut().Lab().L, 2.5, "%s: raised to the same lightness, or lighter already", want[2])
	}
	assert.Nil(t, ComplementOf(box[1].Undertone(), paints(t, "PR122", "PW6", "PR101")))
	assert.Nil(t, NeighbourOf(box[1].Undertone(), paints(t, "PY74", "PW6")))
	m := box[1].Alone()
	assert.Nil(t, EarthFor(&m, paints(t, "PB29")))
}

func TestAReadingIsFoundOnItsPath(t *testing.T) {
	couple := paints(t, "PY74", "PB15:3")
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
	}
	red, err := paint.LabReading(colour.Lab{L: 40, A: 60, B: 40}, paint.Eye, false, in)
	require.NoError(t, err)
	_, miss := p.Locate(AimAt(red))
	assert.Greater(t, miss, 0.1, "no red between a yellow and a blue")
}

func TestAPileIsBroughtToAReadingWithManyPaintsAtHand(t *testing.T) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	box := paints(t, "PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9")
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
		c, err := Toward(have, AimAt(r), box, 5)
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
	box := paints(b, "PY74", "PR254", "PR122", "PB29", "PB15:3", "PG7", "PY43", "PR101", "PW6", "PBk9", "PY65", "PR255", "PB28", "PV23")
	have := []paint.Part{{Paint: box[0], Parts: 4}, {Paint: box[4], Parts: 1}}
	unreachable, err := paint.LabReading(colour.Lab{L: 50, A: 75, B: -60}, paint.Eye, false, in)
	require.NoError(b, err)
	for b.Loop() {
		if _, err := Toward(have, AimAt(unreachable), box, 5); err != nil {
			b.Fatal(err)
		}
	}
}
