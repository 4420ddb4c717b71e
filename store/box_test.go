package store_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

func said(nickname string) store.TubeContent {
	return store.TubeContent{Nickname: nickname, Grade: "artist", State: store.InBox}
}

func newTubes(nicknames ...string) (out []store.NewTube) {
	for _, n := range nicknames {
		out = append(out, store.NewTube{Definition: paint.Definition{Library: "PB29"}, Content: said(n)})
	}
	return out
}

func add(t *testing.T, s *store.Store, p store.Painter, nicknames ...string) []store.Tube {
	t.Helper()
	out, err := s.AddTubes(ctx, p.ID, "added", newTubes(nicknames...))
	require.NoError(t, err)
	return out
}

func save(t *testing.T, s *store.Store, tube store.Tube, c store.TubeContent) store.Tube {
	t.Helper()
	out, err := s.SaveTube(ctx, tube.PainterID, tube.ID, tube.Version, "changed", c, 0)
	require.NoError(t, err)
	return out
}

// names are what a box's tubes are called, in the order they were added.
func names(t *testing.T, s *store.Store, p store.Painter) (out []string) {
	t.Helper()
	tubes, err := s.Tubes(ctx, p.ID)
	require.NoError(t, err)
	for _, tube := range tubes {
		name := tube.Nickname
		if tube.State == store.Archived {
			name += " (archived)"
		}
		out = append(out, name)
	}
	return out
}

func undo(t *testing.T, s *store.Store, p store.Painter) {
	t.Helper()
	last, err := s.LastChange(ctx, p.ID)
	require.NoError(t, err)
	require.NoError(t, s.UndoBox(ctx, p.ID, last.ID))
}

func TestEveryChangeOfABoxIsTakenBackInTurn(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tubes := add(t, s, ada, "one", "two")
	add(t, s, ada, "three")
	first := save(t, s, tubes[0], said("uno"))
	first = save(t, s, first, said("eins"))
	archived := said("eins")
	archived.State = store.Archived
	save(t, s, first, archived)
	assert.Equal(t, []string{"eins (archived)", "two", "three"}, names(t, s, ada))
	for _, want := range [][]string{
		{"eins", "two", "three"},
		{"uno", "two", "three"},
		{"one", "two", "three"},
		{"one", "two"},
		nil,
	} {
		undo(t, s, ada)
		assert.Equal(t, want, names(t, s, ada))
	}
	_, err := s.LastChange(ctx, ada.ID)
	assert.ErrorIs(t, err, store.ErrNothingToUndo)
	assert.NoError(t, s.UndoBox(ctx, ada.ID, 1), "what came twice has been done")
	assert.ErrorIs(t, s.UndoBox(ctx, ada.ID, 99), store.ErrNothingToUndo)
	again := add(t, s, ada, "new")
	save(t, s, again[0], said("newer"))
	undo(t, s, ada)
	assert.Equal(t, []string{"new"}, names(t, s, ada), "after undoing everything there is still something to undo")
}

func TestUndoingGoesBackPastAnUndo(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tube := add(t, s, ada, "one")[0]
	tube = save(t, s, tube, said("two"))
	save(t, s, tube, said("three"))
	undo(t, s, ada)
	tube, err := s.Tube(ctx, ada.ID, tube.ID)
	require.NoError(t, err)
	assert.Equal(t, 4, tube.Version, "an undo is a version too, so other tabs notice")
	save(t, s, tube, said("four"))
	undo(t, s, ada)
	assert.Equal(t, []string{"two"}, names(t, s, ada))
	undo(t, s, ada)
	assert.Equal(t, []string{"one"}, names(t, s, ada))
}

func TestTwoTabsOnOneTubeLoseNothing(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tube := add(t, s, ada, "one")[0]
	now := save(t, s, tube, said("from the first tab"))
	_, err := s.SaveTube(ctx, ada.ID, tube.ID, tube.Version, "changed", said("from the second tab"), 0)
	var conflict store.TubeConflict
	require.ErrorAs(t, err, &conflict)
	assert.Equal(t, []string{"from the first tab"}, names(t, s, ada))
	refused, err := s.RefusedTubes(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, refused, 1)
	assert.Equal(t, "from the second tab", refused[0].Content.Nickname)
	_, err = s.SaveTube(ctx, ada.ID, tube.ID, now.Version, "changed", refused[0].Content, refused[0].ID)
	require.NoError(t, err)
	refused, err = s.RefusedTubes(ctx, ada.ID)
	require.NoError(t, err)
	assert.Empty(t, refused, "settled")
	assert.Equal(t, []string{"from the second tab"}, names(t, s, ada))
	assert.ErrorIs(t, s.DropRefusedTube(ctx, ada.ID, tube.ID, conflict.Kept.ID), store.ErrNotFound)
}

func TestAnUndoDoesNotReachPastWhatAnotherTabDid(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tube := add(t, s, ada, "one")[0]
	seen, err := s.LastChange(ctx, ada.ID)
	require.NoError(t, err)
	save(t, s, tube, said("elsewhere"))
	err = s.UndoBox(ctx, ada.ID, seen.ID)
	assert.ErrorAs(t, err, new(store.Refusal))
	assert.Equal(t, []string{"elsewhere"}, names(t, s, ada))
}

func TestBoxWritesTakeTurns(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tube := add(t, s, ada, "one")[0]
	var wg sync.WaitGroup
	for i := range 8 {
		wg.Go(func() {
			_, err := s.SaveTube(ctx, ada.ID, tube.ID, tube.Version, "changed", said(fmt.Sprint("mine ", i)), 0)
			if err != nil {
				assert.ErrorAs(t, err, new(store.TubeConflict))
			}
		})
	}
	wg.Wait()
	refused, err := s.RefusedTubes(ctx, ada.ID)
	require.NoError(t, err)
	assert.Len(t, refused, 7, "one went through, the others are kept beside it")
}

func TestABoxIsItsPaintersAlone(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	tube := add(t, s, ada, "one")[0]
	_, err := s.Tube(ctx, eve.ID, tube.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.SaveTube(ctx, eve.ID, tube.ID, 1, "x", said("stolen"), 0)
	assert.ErrorIs(t, err, store.ErrNotFound)
	last, err := s.LastChange(ctx, ada.ID)
	require.NoError(t, err)
	assert.ErrorIs(t, s.UndoBox(ctx, eve.ID, last.ID), store.ErrNothingToUndo)
	assert.Equal(t, []string{"one"}, names(t, s, ada))
	assert.Empty(t, names(t, s, eve))
}

func TestABoxHasALimitAndAddsAllOrNothing(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	many := make([]string, 399)
	add(t, s, ada, many...)
	_, err := s.AddTubes(ctx, ada.ID, "too many", newTubes("a", "b"))
	assert.ErrorAs(t, err, new(store.Refusal))
	assert.Len(t, names(t, s, ada), 399)
}

func TestADemoStudioOfBeforeBoxesGetsOneOnce(t *testing.T) {
	s := on(t, storetest.Database(t))
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels}))
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels, Box: newTubes("one", "two")}))
	demo, err := s.Painters(ctx)
	require.NoError(t, err)
	assert.Equal(t, []string{"one", "two"}, names(t, s, demo[0]))
	_, err = s.LastChange(ctx, demo[0].ID)
	assert.ErrorIs(t, err, store.ErrNothingToUndo, "nobody empties the demo box by undoing")
	tubes, err := s.Tubes(ctx, demo[0].ID)
	require.NoError(t, err)
	gone := said("one")
	gone.State = store.Archived
	save(t, s, tubes[0], gone)
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels, Box: newTubes("one", "two")}))
	assert.Equal(t, []string{"one (archived)", "two"}, names(t, s, demo[0]))
}

func TestTheSchoolIsKept(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	assert.Equal(t, "violet", ada.WarmBlue)
	require.NoError(t, s.SetWarmBlue(ctx, ada.ID, "green"))
	again, err := s.PainterByID(ctx, ada.ID)
	require.NoError(t, err)
	assert.Equal(t, "green", again.WarmBlue)
	assert.Error(t, s.SetWarmBlue(ctx, ada.ID, "purple"))
}
