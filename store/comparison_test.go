package store_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

func TestComparisonsAreKeptAndNeverWrittenOver(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	c, err := s.KeepComparison(ctx, ada.ID, store.Comparison{Address: "systems=1,2", Decision: "took the second"}, none)
	require.NoError(t, err)
	c.Note = "for the ferry"
	require.ErrorIs(t, s.NoteComparison(ctx, eve.ID, c, none), store.ErrNotFound)
	require.NoError(t, s.NoteComparison(ctx, ada.ID, c, none))
	c.Note = "from another tab"
	var conflict store.ComparisonConflict
	require.ErrorAs(t, s.NoteComparison(ctx, ada.ID, c, none), &conflict)
	assert.Equal(t, "for the ferry", conflict.Now.Note)
	kept, err := s.Comparisons(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, kept, 1)
	assert.Equal(t, [3]string{"systems=1,2", "for the ferry", "took the second"}, [3]string{kept[0].Address, kept[0].Note, kept[0].Decision})
	require.ErrorIs(t, s.DropComparison(ctx, eve.ID, c.ID), store.ErrNotFound)
	require.NoError(t, s.DropComparison(ctx, ada.ID, c.ID))
	kept, err = s.Comparisons(ctx, ada.ID)
	require.NoError(t, err)
	assert.Empty(t, kept)
}

func TestAComparisonThatIsToldAgainIsKeptOnce(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	told := store.Comparison{Address: "systems=1", Decision: "took the second", Told: "a1"}
	first, err := s.KeepComparison(ctx, ada.ID, told, none)
	require.NoError(t, err)
	again, err := s.KeepComparison(ctx, ada.ID, told, none)
	require.NoError(t, err)
	assert.Equal(t, first.ID, again.ID)
	hers, err := s.KeepComparison(ctx, eve.ID, told, none)
	require.NoError(t, err)
	assert.NotEqual(t, first.ID, hers.ID, "another's may go by the same name")

	var wg sync.WaitGroup
	for range 5 {
		wg.Go(func() {
			_, err := s.KeepComparison(ctx, ada.ID, store.Comparison{Address: "systems=2", Told: "a2"}, none)
			assert.NoError(t, err)
		})
	}
	wg.Wait()
	for range 2 {
		_, err = s.KeepComparison(ctx, ada.ID, store.Comparison{Address: "systems=3"}, none)
		require.NoError(t, err, "without a name each is another")
	}
	kept, err := s.Comparisons(ctx, ada.ID)
	require.NoError(t, err)
	assert.Len(t, kept, 4)

	first.Note = "for the ferry"
	require.NoError(t, s.NoteComparison(ctx, ada.ID, first, none))
	require.NoError(t, s.NoteComparison(ctx, ada.ID, first, none), "a note whose answer was lost is told again")
}

func TestOfManyNotesOnOneVersionExactlyOneGoesThrough(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	c, err := s.KeepComparison(ctx, ada.ID, store.Comparison{Address: "systems=1"}, none)
	require.NoError(t, err)
	errs := make([]error, 5)
	var wg sync.WaitGroup
	for i := range errs {
		wg.Go(func() {
			mine := c
			mine.Note = fmt.Sprint(i)
			errs[i] = s.NoteComparison(ctx, ada.ID, mine, none)
		})
	}
	wg.Wait()
	through := -1
	for i, err := range errs {
		if err == nil {
			assert.Equal(t, -1, through, "only one")
			through = i
		} else {
			assert.ErrorAs(t, err, new(store.ComparisonConflict))
		}
	}
	kept, err := s.Comparisons(ctx, ada.ID)
	require.NoError(t, err)
	assert.Equal(t, fmt.Sprint(through), kept[0].Note)
	assert.Equal(t, 2, kept[0].Version)
}

// none says that an address compares nothing that is kept.
func none(string) []int64 { return nil }
