package store

import (
	"context"
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
)

// afternoon is a day that has room for many saves.
var afternoon = time.Date(2026, 5, 20, 15, 0, 0, 0, time.UTC)

func TestOfTodayAllVersionsStayAndOfEachDayBeforeTheLast(t *testing.T) {
	var all []past
	save := func(at time.Time) {
		n := len(all) + 1
		all = append(all, past{ID: int64(100 + n), Version: n, Previous: n - 1, CreatedAt: at})
	}
	yesterday, before := afternoon.AddDate(0, 0, -1), afternoon.AddDate(0, 0, -9)
	for range 3 {
		save(before)
	}
	for range 4 {
		save(yesterday)
	}
	for range 5 {
		save(afternoon)
	}
	all[4].Stays = true // something was decided on the fifth
	gone, returns := thin(all, afternoon)
	assert.ElementsMatch(t, []int64{102, 104, 106}, gone)
	assert.Equal(t, map[int64]int{103: 1, 105: 3, 107: 5}, returns, "undoing goes on to what is left")

	gone, returns = thin(all[:1], afternoon.AddDate(9, 0, 0))
	assert.Empty(t, gone, "what there is of a thing stays")
	assert.Empty(t, returns)
	all = nil
	for range 3 * mostOfToday {
		save(afternoon)
	}
	gone, _ = thin(all, afternoon)
	assert.Len(t, gone, 2*mostOfToday-1, "a day has an end, and the first one stays")
	all = nil
	for i := range 2 * mostDays {
		save(afternoon.AddDate(0, 0, i-2*mostDays))
	}
	gone, _ = thin(all, afternoon)
	assert.Len(t, gone, mostDays-1)
}

// However versions were made, undone and thinned day after day, undoing walks
// over versions that are there and comes to the first.
func TestThinningNeverBreaksTheWayBack(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 7))
	for range 200 {
		all := []past{{ID: 1, Version: 1, CreatedAt: afternoon}}
		now := afternoon
		for range 60 {
			now = now.Add(time.Duration(random.IntN(600)) * time.Minute)
			last := all[len(all)-1]
			next := past{ID: last.ID + 1, Version: last.Version + 1, Previous: last.Version, Stays: random.IntN(9) == 0, CreatedAt: now}
			if random.IntN(3) == 0 && last.Previous != 0 { // an undoing: like the one before, and returning to where that one does
				for _, v := range all {
					if v.Version == last.Previous {
						next.Previous = v.Previous
					}
				}
			}
			all = append(all, next)
			gone, returns := thin(all, now)
			var left []past
			went := map[int64]bool{}
			for _, id := range gone {
				went[id] = true
			}
			for _, v := range all {
				if to, other := returns[v.ID]; other {
					v.Previous = to
				}
				if !went[v.ID] {
					left = append(left, v)
				}
			}
			all = left
			there := map[int]int{}
			for _, v := range all {
				there[v.Version] = v.Previous
			}
			at := all[len(all)-1].Version
			for steps := 0; at != 0; steps++ {
				to, ok := there[at]
				require.True(t, ok, "version %d is returned to and not there", at)
				require.Less(t, to, at)
				at = to
			}
		}
	}
}

func TestVersionsOfAWheelAndOfATubeAreThinnedAndCanStillBeUndone(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, s.Migrate(ctx))
	ada, err := s.CreatePainter(ctx, "Ada", "")
	require.NoError(t, err)
	content := func(blue string) WheelContent {
		return WheelContent{Name: "Rock pool", Kind: "triad", Snapshot: Snapshot{System: wheel.Selection{Note: blue}}}
	}
	older := func(days int) { // what was done so far was done some days before
		for _, table := range []string{"wheel_versions", "tube_versions", "box_changes"} {
			require.NoError(t, s.db.Exec(fmt.Sprintf("update %s set created_at = created_at - interval '%d days'", table, days)).Error)
		}
	}
	w, err := s.CreateWheel(ctx, ada.ID, content("1"))
	require.NoError(t, err)
	tubes, err := s.AddTubes(ctx, ada.ID, "added", []NewTube{{Content: TubeContent{Nickname: "1", State: InBox}}})
	require.NoError(t, err)
	tube := tubes[0]
	save := func(name string) {
		t.Helper()
		w, err = s.SaveWheel(ctx, ada.ID, w.ID, w.Version, content(name), 0)
		require.NoError(t, err)
		tube, err = s.SaveTube(ctx, ada.ID, tube.ID, tube.Version, "changed", TubeContent{Nickname: name, State: InBox}, 0)
		require.NoError(t, err)
	}
	save("2")
	save("3")
	_, err = s.KeepComparison(ctx, ada.ID, Comparison{Address: "systems=1", Decision: "this blue"}, func(string) []int64 { return []int64{w.ID} })
	require.NoError(t, err)
	save("4")
	require.NoError(t, s.AddPredictions(ctx, ada.ID, w.ID, w.Version, []Prediction{{Home: 2, HueWord: "green", Verdict: "clean"}}))
	save("5")
	save("6")
	older(1)
	save("7")
	save("8")
	kept, err := s.WheelHistory(ctx, ada.ID, w.ID)
	require.NoError(t, err)
	var versions []int
	for _, v := range kept {
		versions = append(versions, v.Version)
	}
	assert.Equal(t, []int{8, 7, 6, 4, 3, 1}, versions, "the decision (3) and the predicted one (4) stay, and the last of yesterday (6)")
	var blues []string
	for {
		blues = append(blues, w.Snapshot.System.Note)
		if w, err = s.UndoWheel(ctx, ada.ID, w.ID, w.Version); err != nil {
			break
		}
	}
	require.ErrorIs(t, err, ErrNothingToUndo)
	assert.Equal(t, []string{"8", "7", "6", "4", "3", "1"}, blues)

	var names []string
	for {
		tube, err = s.Tube(ctx, ada.ID, tube.ID)
		if err != nil {
			break
		}
		names = append(names, tube.Nickname)
		change, err := s.LastChange(ctx, ada.ID)
		require.NoError(t, err)
		require.NoError(t, s.UndoBox(ctx, ada.ID, change.ID))
	}
	assert.ErrorIs(t, err, ErrNotFound, "the adding was undone")
	assert.Equal(t, []string{"8", "7", "6", "1"}, names)
}
