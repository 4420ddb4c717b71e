package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"

	"gyrophane/core/bench"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

func TestOfTwoStatesTheLaterKnowsAllOfTheOthersChanges(t *testing.T) {
	type v = store.VersionVector
	for _, c := range []struct {
		one, other v
		is         store.Order
	}{
		{v{}, v{}, store.Same},
		{v{"a": 2}, v{"a": 2}, store.Same},
		{v{"a": 2}, v{"a": 2, "b": 0}, store.Same},
		{v{"a": 1}, v{"a": 2}, store.Older},
		{nil, v{"a": 2}, store.Older},
		{v{"a": 2, "b": 1}, v{"a": 2}, store.Newer},
		{v{"a": 2}, v{"b": 1}, store.TwoWays},
		{v{"a": 3, "b": 1}, v{"a": 2, "b": 2}, store.TwoWays},
	} {
		assert.Equal(t, c.is, c.one.Against(c.other), "%v beside %v", c.one, c.other)
		both := c.one.With(c.other)
		assert.Contains(t, []store.Order{store.Same, store.Newer}, both.Against(c.one))
		assert.Contains(t, []store.Order{store.Same, store.Newer}, both.Against(c.other))
	}
}

// Every change of what can be changed is counted, and nothing else is.
func TestEveryChangeIsCounted(t *testing.T) {
	address := storetest.Database(t)
	s := on(t, address)
	db, err := gorm.Open(postgres.Open(address), &gorm.Config{})
	require.NoError(t, err)
	ada := painter(t, s, "Ada")
	count := func(table string) (n int64) {
		t.Helper()
		require.NoError(t, db.Raw("select coalesce(sum((version_vector->>?)::bigint), 0) from "+table, ada.UID).Scan(&n).Error)
		return n
	}
	w := wheel(t, s, ada)
	tube := add(t, s, ada, "night")[0]
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{WheelID: w.ID, Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	kept, err := s.KeepComparison(ctx, ada.ID, store.Comparison{Address: "systems=1"}, none)
	require.NoError(t, err)
	taken, err := s.Take(ctx, ada.ID, store.Taking{Medium: "oil", Strengths: []store.TakenStrength{{TubeID: tube.ID, Was: 1, Strength: 1.5, Low: 1.4, High: 1.6}}}, "", nil)
	require.NoError(t, err)
	mark := func(was, is string) error {
		return s.MarkPairs(ctx, ada.ID, []store.MarkChange{{A: "PB29", B: "PY74", Was: was, Mark: is}})
	}
	require.NoError(t, mark("", "to paint"))
	for _, table := range []string{"wheels", "tubes", "sittings", "comparisons", "takings", "pair_marks"} {
		assert.Equal(t, int64(1), count(table), "%s: made", table)
	}
	_, err = s.TellSitting(ctx, ada.ID, begun.ID, []store.SittingEvent{told("one", bench.Begun)}, notEnded)
	require.NoError(t, err)
	assert.Equal(t, int64(1), count("sittings"), "what is told is no change of it")
	assert.Equal(t, int64(1), count("tubes"), "nor is a strength that was learned one of the tube")
	for table, change := range map[string]func() error{
		"wheels": func() error {
			_, err := s.SaveWheel(ctx, ada.ID, w.ID, 1, content("Low water", "PB60"), 0)
			return err
		},
		"tubes": func() error {
			_, err := s.SaveTube(ctx, ada.ID, tube.ID, 1, "renamed", store.TubeContent{Nickname: "dusk", Grade: "artist", State: store.InBox}, 0)
			return err
		},
		"sittings": func() error { return s.SayNextTime(ctx, ada.ID, begun.ID, "", "less water") },
		"comparisons": func() error {
			return s.NoteComparison(ctx, ada.ID, store.Comparison{ID: kept.ID, Version: 1, Note: "dusk"}, none)
		},
		"takings":    func() error { return s.UndoTaking(ctx, ada.ID, taken.ID, true) },
		"pair_marks": func() error { return mark("to paint", "painted") },
	} {
		require.NoError(t, change(), table)
		assert.Equal(t, int64(2), count(table), table)
	}
}
