package studio

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

func TestTheDemoStudiosGuessesAreWholeRounds(t *testing.T) {
	said, err := demoGuesses()
	require.NoError(t, err)
	days := map[int]int{}
	for _, g := range said {
		days[g.daysAgo]++
		_, err := score(paint.Find, g.PairGuess, path.ByHue, certainty.Usual)
		assert.NoError(t, err, "%s with %s", g.A, g.B)
	}
	for day, n := range days {
		assert.Equal(t, 10, n, "%d days ago", day)
	}
}

func TestTheDemoStudiosRoundsAreScored(t *testing.T) {
	rounds, err := scoredRounds()
	require.NoError(t, err)
	require.Len(t, rounds, 2)
	points := make([]int, 2)
	for i, r := range rounds {
		require.Len(t, r.Guesses, 10)
		assert.Equal(t, 10, r.Length)
		for _, g := range r.Guesses {
			points[i] += g.Points
		}
	}
	assert.Less(t, points[0], points[1], "the eye has learned")
	assert.Less(t, points[1], 60)
}

func TestTheDemoHasASystemOfEachKind(t *testing.T) {
	var kinds []string
	for _, w := range demoWheels() {
		kinds = append(kinds, w.Kind)
	}
	assert.ElementsMatch(t, []string{"triad", "cmy", "split", "double"}, kinds)
}

func TestTheDemoHoldsASittingUnderWayAndTwoThatWereRead(t *testing.T) {
	sittings, err := demoSittings()
	require.NoError(t, err)
	require.Equal(t, 3, len(sittings))
	for n, c := range []struct {
		painted, readings, expected int
		ended                       bool
	}{{12, 12, 0, true}, {21, 42, 9, true}, {7, 0, 0, false}} {
		s := &sittings[n]
		plan, err := thaw(s.Plan)
		require.NoError(t, err)
		stands := bench.Fold(plan.Sheet, plan.Settings, happened(s.Events))
		painted := 0
		for _, p := range stands.Places {
			painted += p.Coats
		}
		assert.Equal(t, c.painted, painted)
		assert.Equal(t, c.ended, stands.Done())
		assert.Equal(t, c.ended, !stands.Ended.IsZero())
		assert.Equal(t, c.ended, stands.PausedAt.IsZero())
		assert.Equal(t, c.readings, len(s.Readings))
		assert.Equal(t, c.expected, len(s.Predictions))
		assert.Equal(t, c.ended, s.Photo != nil && s.Photo.Standin)
	}
}
