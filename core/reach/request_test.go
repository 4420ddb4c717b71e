package reach

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func TestTheBestOfABoxAndWhatToBuyNext(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	codes := func(r Ranked) []string { return paint.IDs(r.System.Paints()) }
	got, err := Choose(t.Context(), painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB60", "PY43", "PW6"), Request{Kind: wheel.Split, Aim: MostHues})
	require.NoError(t, err)
	assert.Equal(t, []string{"PY184", "PY65", "PR255", "PR122", "PB29", "PB60"}, codes(got.Best))
	require.NotEmpty(t, got.RunnersUp)
	for _, r := range got.RunnersUp {
		assert.LessOrEqual(t, r.Reach.Clean(), got.Best.Reach.Clean())
		assert.NotEmpty(t, r.Loses)
	}
	require.NotEmpty(t, got.BuyNext, "a blue that leans to green is missing")
	for _, b := range got.BuyNext {
		assert.Contains(t, []string{"blue", "cyan"}, b.Paint.Family, b.Paint.ID)
		assert.Contains(t, b.System.Paints(), b.Paint, "the system that it would make the best")
		assert.InDelta(t, got.Best.Reach.Clean()+b.Gain, b.Reach.Clean(), 1e-3)
	}
	got, err = Choose(t.Context(), nil, Request{Kind: wheel.RYB, Aim: MostHues, Library: true, Contains: []string{"PB29"}})
	require.NoError(t, err)
	assert.Contains(t, codes(got.Best), "PB29")
	three := painttest.Paints("PY184", "PR254", "PB29", "PB60")
	cheap, err := Choose(t.Context(), three, Request{Kind: wheel.RYB, Aim: LeastPrice, Prices: map[string]float64{"PY184": 4, "PR254": 5, "PB29": 6}})
	require.NoError(t, err)
	assert.Equal(t, []string{"PY184", "PR254", "PB29"}, codes(cheap.Best))
	assert.Equal(t, 15.0, *cheap.Best.Price)
	targets, err := Targets([]Wanted{{"starfish orange", "#f0662b"}, {"anemone red", "#c8203c"}, {"mussel violet", "#4f3d78"}, {"turquoise", "#00a6b0"}}, acrylic)
	require.NoError(t, err)
	fits, err := Choose(t.Context(), painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"), Request{Kind: wheel.RYB, Aim: NearestTargets, Medium: acrylic, Targets: targets})
	require.NoError(t, err)
	require.NotNil(t, fits.Best.MeanDE)
	for _, r := range fits.RunnersUp {
		assert.LessOrEqual(t, r.Reached, fits.Best.Reached)
		assert.Contains(t, r.Loses, "It comes ")
	}
	for says, ask := range map[string]struct {
		box []*paint.Paint
		c   Request
	}{
		"box is empty":        {nil, Request{Kind: wheel.RYB, Aim: MostHues}},
		"too few":             {three, Request{Kind: wheel.Split, Aim: MostHues}},
		"few paints":          {three, Request{Kind: wheel.RYB, Aim: LeastPrice}},
		"is not chosen":       {nil, Request{Kind: wheel.OwnSystem, Aim: MostHues, Library: true}},
		"knows no prices":     {nil, Request{Kind: wheel.RYB, Aim: LeastPrice, Library: true}},
		"colour is wanted":    {three, Request{Kind: wheel.RYB, Aim: NearestTargets, Medium: acrylic}},
		"no class of caution": {three, Request{Kind: wheel.RYB, Aim: MostHues, Without: []string{"lead"}}},
		"is no aim":           {three, Request{Kind: wheel.RYB, Aim: "beauty"}},
	} {
		_, err := Choose(t.Context(), ask.box, ask.c)
		assert.ErrorContains(t, err, says)
	}
}

func TestWhatReplacesATube(t *testing.T) {
	s, err := wheel.Triad(painttest.Paints("PY65")[0], painttest.Paints("PR254")[0], painttest.Paints("PB29")[0])
	require.NoError(t, err)
	got, err := SwapsWith(t.Context(), s, painttest.Paints("PY184", "PR122", "PB15:3", "PW6"), nil)
	require.NoError(t, err)
	require.Len(t, got, 3)
	before := OfSystem(s)
	assert.Greater(t, got[0].Reach.Clean(), before.Clean())
	assert.Contains(t, got[0].Sentence(before), "With it the system is cleaner ")
	none, err := SwapsWith(t.Context(), s, painttest.Paints("PW6"), nil)
	require.NoError(t, err)
	assert.Empty(t, none)
	blue, red := painttest.Paints("PB60")[0], painttest.Paints("PR255")[0]
	tried, err := SwapsWith(t.Context(), s, painttest.Paints("PY184", "PR122", "PW6"), map[string]*paint.Paint{"PB29": blue, "PR254": red})
	require.NoError(t, err)
	put := map[string]string{}
	for _, w := range tried {
		put[w.Out.ID] = w.In.ID
	}
	assert.Equal(t, map[string]string{"PY65": "PY184", "PR254": "PR255", "PB29": "PB60"}, put, "what is tried, or the best where nothing is")
	_, err = SwapsWith(t.Context(), s, nil, map[string]*paint.Paint{"PB29": painttest.Paints("PW6")[0]})
	assert.ErrorContains(t, err, "no hue of its own")
}

func BenchmarkMatchTwelveColoursByFourSystems(b *testing.B) {
	var palettes [][]*paint.Paint
	for _, ids := range [][3]string{{"PY65", "PR254", "PB29"}, {"PY74", "PR122", "PB15:3"}, {"PY184", "PR255", "PB60"}, {"PY43", "PR101", "PB28"}} {
		s, err := wheel.Triad(painttest.Paints(ids[0])[0], painttest.Paints(ids[1])[0], painttest.Paints(ids[2])[0])
		require.NoError(b, err)
		palettes = append(palettes, Palette(s))
	}
	var wanted []Wanted
	for _, hex := range []string{"#f0662b", "#c8203c", "#4f3d78", "#00a6b0", "#569c2e", "#6e6228", "#656e78", "#d8c8a0", "#203040", "#b07050", "#90b0c8", "#e8d040"} {
		wanted = append(wanted, Wanted{hex, hex})
	}
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	readings, err := Readings(wanted, acrylic)
	require.NoError(b, err)
	for b.Loop() {
		if _, err := MatchAll(b.Context(), palettes, readings, acrylic, Nearest); err != nil {
			b.Fatal(err)
		}
	}
}

// A box that is clean all the way round is still told what would make it brighter.
func TestABoxThatIsCleanAllRoundBuysForBrightness(t *testing.T) {
	box := painttest.Paints("PY184", "PY65", "PR255", "PV19", "PB29", "PB15:3")
	got, err := Choose(t.Context(), box, Request{Kind: wheel.Split, Aim: MostHues})
	require.NoError(t, err)
	require.Equal(t, 1.0, got.Best.Reach.Clean())
	require.NotEmpty(t, got.BuyNext)
	last := 1.0
	for _, b := range got.BuyNext {
		assert.Zero(t, b.Gain, b.Paint.ID)
		assert.GreaterOrEqual(t, b.MeanGain, leastGain, b.Paint.ID)
		assert.InDelta(t, got.Best.Reach.Mean()+b.MeanGain, b.Reach.Mean(), 1e-9)
		assert.LessOrEqual(t, b.MeanGain, last, "the one that adds most comes first")
		last = b.MeanGain
	}
}

func TestVividIsCleanAndMore(t *testing.T) {
	var r Reach
	for i := range r {
		r[i] = float64(i) / (Bins - 1)
	}
	assert.InDelta(t, 0.5, r.Mean(), 1e-12)
	assert.InDelta(t, 8.0/Bins, r.Vivid(), 1e-12, "from 0.895, which is 0.90 once rounded")
	assert.Less(t, r.Vivid(), r.Clean())
}
