package store_test

import (
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

func marksOf(t *testing.T, s *store.Store, p store.Painter) map[string]string {
	t.Helper()
	kept, err := s.PairMarks(ctx, p.ID)
	require.NoError(t, err)
	out := map[string]string{}
	for _, m := range kept {
		out[m.A+" "+m.B] = m.Mark
	}
	return out
}

func TestPairingsAreMarkedAllOrNone(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	require.NoError(t, s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PB29", "PR122", "to paint", ""}, {"PY74", "PB29", "painted", ""}}))
	assert.Equal(t, map[string]string{"PB29 PR122": "to paint", "PB29 PY74": "painted"}, marksOf(t, s, ada), "whichever paint is named first")
	assert.Empty(t, marksOf(t, s, eve))

	require.NoError(t, s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PR122", "PB29", "painted", "to paint"}}))
	require.NoError(t, s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PR122", "PB29", "painted", "to paint"}}), "asked again, it is so already")
	err := s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PY74", "PR122", "to paint", ""}, {"PR122", "PB29", "judged", "to paint"}})
	require.ErrorAs(t, err, new(store.MarkConflict))
	assert.ErrorContains(t, err, "marked painted elsewhere")
	assert.Equal(t, map[string]string{"PB29 PR122": "painted", "PB29 PY74": "painted"}, marksOf(t, s, ada), "the other was not marked either")

	require.NoError(t, s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PY74", "PB29", "", "painted"}}))
	assert.Equal(t, map[string]string{"PB29 PR122": "painted"}, marksOf(t, s, ada))
	err = s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PY74", "PB29", "judged", "painted"}})
	assert.ErrorContains(t, err, "taken away elsewhere")
}

func TestTwoTabsMarkingOnePairNeverBothWin(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	var wg sync.WaitGroup
	errs := make([]error, 2)
	for i, mark := range []string{"painted", "judged"} {
		wg.Go(func() { errs[i] = s.MarkPairs(ctx, ada.ID, []store.MarkChange{{"PB29", "PR122", mark, ""}}) })
	}
	wg.Wait()
	assert.Equal(t, 1, map[bool]int{true: 1}[errs[0] == nil]+map[bool]int{true: 1}[errs[1] == nil])
}
