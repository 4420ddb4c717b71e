package studio

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/recipe"
)

// A machine whose clock is set forward and back while somebody paints loses no tap and keeps each once, none before the sitting began.
func TestAClockThatJumpsLosesNoTap(t *testing.T) {
	s, kept, ada, w := aStudio(t)
	jump := time.Duration(0)
	kept.Clock = func() time.Time { return time.Now().Add(jump) }
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	var told []string
	for n, to := range []time.Duration{0, 24 * time.Hour, -72 * time.Hour, time.Minute, -time.Hour, 0} {
		jump = to
		id := fmt.Sprint("slot ", n)
		region := begun.Plan.Sheet.Regions[begun.Rest.Order[n]].ID
		tap := []Told{{Event: bench.Event{ID: id, Kind: bench.Painted, Region: region, At: kept.Now()}}}
		for range 2 { // said again it is kept once
			_, untold, err := s.Tell(t.Context(), ada, begun.ID, tap)
			require.NoError(t, err)
			require.Empty(t, untold)
		}
		told = append(told, id)

		now, err := s.Sitting(t.Context(), ada, begun.ID)
		require.NoError(t, err)
		var ids []string
		for i, e := range now.Events {
			assert.False(t, e.At.Before(begun.Events[0].At), "%s: nothing is before it began", e.ID)
			if i > 0 && e.Kind == bench.Painted {
				ids = append(ids, e.ID)
			}
		}
		assert.ElementsMatch(t, told, ids, "after a jump of %v", to)
	}
	_, events, err := kept.Sitting(t.Context(), ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Len(t, events, 1+len(told))
}
