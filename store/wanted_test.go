package store_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/reach"
	"gyrophane/store"
)

func TestWantedColoursAreKeptAndTakenAway(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	require.NoError(t, s.AddWanted(ctx, ada.ID, []store.WantedColour{{Name: "kelp", Colour: "#6e6228"}, {Name: "", Colour: "50,0,0"}}))
	kept, err := s.Wanted(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, kept, 2)
	assert.Equal(t, "kelp", kept[0].Name)
	require.ErrorIs(t, s.RemoveWanted(ctx, eve.ID, kept[0].ID), store.ErrNotFound)
	require.NoError(t, s.RemoveWanted(ctx, ada.ID, kept[0].ID))
	require.ErrorIs(t, s.RemoveWanted(ctx, ada.ID, kept[0].ID), store.ErrNotFound)

	var many []store.WantedColour
	for i := range reach.MostWanted {
		many = append(many, store.WantedColour{Name: fmt.Sprint(i), Colour: "#000000"})
	}
	require.ErrorAs(t, s.AddWanted(ctx, ada.ID, many), new(store.Refusal))
	kept, err = s.Wanted(ctx, ada.ID)
	require.NoError(t, err)
	assert.Len(t, kept, 1, "all or none")
	others, err := s.Wanted(ctx, eve.ID)
	require.NoError(t, err)
	assert.Empty(t, others)
}

func TestTabsWantingAtOnceNeverPassTheLimit(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	six := make([]store.WantedColour, 6)
	for i := range six {
		six[i] = store.WantedColour{Name: fmt.Sprint(i), Colour: "#000000"}
	}
	errs := make([]error, 6)
	var wg sync.WaitGroup
	for i := range errs {
		wg.Go(func() { errs[i] = s.AddWanted(ctx, ada.ID, six) })
	}
	wg.Wait()
	refused := 0
	for _, err := range errs {
		if err != nil {
			assert.ErrorAs(t, err, new(store.Refusal))
			refused++
		}
	}
	assert.Equal(t, 2, refused)
	kept, err := s.Wanted(ctx, ada.ID)
	require.NoError(t, err)
	assert.Len(t, kept, reach.MostWanted)
}
