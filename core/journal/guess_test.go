package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

func found(t *testing.T, id string) *paint.Paint {
	t.Helper()
	p, err := paint.Find(id)
	require.NoError(t, err)
	return p
}

func TestAGuessIsScoredForTheStartOfTheMudToo(t *testing.T) {
	green := paint.Undertone{Chroma: 0.1, WheelHue: 182, Verdict: paint.Softened}
	for _, c := range []struct {
		nowhere bool
		at      float64
		came    MudStart
		points  int
	}{
		{true, 0, MudStart{Nowhere: true}, 6},
		{true, 0.7, MudStart{Nowhere: true}, 6}, // a place that is not meant
		{true, 0, MudStart{At: 0.1}, 4},
		{false, 0.1, MudStart{Nowhere: true}, 4},
		{false, 0.4, MudStart{At: 0.5}, 6},
		{false, 0.4, MudStart{At: 0.6}, 5},
		{false, 0.4, MudStart{At: 0.7}, 4},
	} {
		g, err := ParseGuess("green", "softened", c.nowhere, c.at)
		require.NoError(t, err)
		assert.Equal(t, c.points, g.Against(green, c.came).Points, c)
	}
	for _, at := range []float64{-0.1, 1.1, math.NaN(), math.Inf(1)} {
		_, err := ParseGuess("green", "softened", false, at)
		assert.ErrorContains(t, err, "from 0 to 1", at)
	}
	_, err := ParseGuess("teal", "softened", true, 0)
	assert.Error(t, err)
}

func TestMudStartsWhereThePathTurnsMuddy(t *testing.T) {
	// A dull red with a green-leaning blue is muddy along the middle.
	p := path.New(found(t, "PR101"), found(t, "PB15:3"))
	require.NotEmpty(t, p.Mud())
	for _, s := range []path.Spacing{path.ByHue, path.ByContrast, path.EqualParts} {
		got := StartOfMud(p, s)
		require.False(t, got.Nowhere)
		at := p.At(p.ShareAt(got.At, s) + 1e-9)
		assert.Equal(t, paint.Muddy, at.Undertone().Verdict, s)
	}
	assert.Equal(t, MudStart{Nowhere: true}, StartOfMud(path.New(found(t, "PY74"), found(t, "PB15:3")), path.ByHue))
}

func TestAKeyNamesTwoPaintsAsTheyStand(t *testing.T) {
	a, b := found(t, "PY74"), found(t, "PB15:3")
	assert.Equal(t, Key(a, b, path.ByHue), Key(b, a, path.ByHue))
	assert.NotEqual(t, Key(a, b, path.ByHue), Key(a, b, path.ByContrast))
	weak, err := a.Tube("PY74", 0.5)
	require.NoError(t, err)
	assert.NotEqual(t, Key(a, b, path.ByHue), Key(weak, b, path.ByHue), "of another strength it is another paint")
}

func TestPracticeDrawsWhereGuessesWereWrong(t *testing.T) {
	sections := []Drawable{
		{Pairings: 40, Points: 60, OutOf: 60}, // the eye is right here
		{Pairings: 40, Points: 10, OutOf: 60}, // and wrong here
		{Pairings: 40},                        // and has not been tried here
		{Pairings: 0, OutOf: 60},              // nothing to draw
	}
	random := rand.New(rand.NewPCG(7, 7))
	var times [4]int
	for range 400 {
		round := Draw(sections, RoundLength, random)
		require.Len(t, round, RoundLength)
		seen := map[Drawn]bool{}
		for _, d := range round {
			assert.False(t, seen[d], "none twice")
			seen[d] = true
			require.Less(t, d.Pairing, sections[d.Section].Pairings)
			times[d.Section]++
		}
	}
	assert.Greater(t, times[1], times[2])
	assert.Greater(t, times[2], times[0])
	assert.Positive(t, times[0], "what is known is not left out for good")
	assert.InDelta(t, sections[1].Weight()/sections[0].Weight(), float64(times[1])/float64(times[0]), 0.4)

	assert.Len(t, Draw([]Drawable{{Pairings: 2}, {Pairings: 1}}, RoundLength, random), 3, "all there are")
	assert.Empty(t, Draw(nil, RoundLength, random))
	assert.Equal(t, Draw(sections, 5, rand.New(rand.NewPCG(1, 2))), Draw(sections, 5, rand.New(rand.NewPCG(1, 2))), "by the source alone")
}
