package store_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

func TestSoMuchIsShownAtATime(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	ends := s.Now().Add(time.Hour)
	one := store.Showing{Kind: store.ShowsBox, Called: "A box of paints", Medium: "acrylic", Light: "D65", Judged: "dry", Live: true, EndsAt: &ends}
	for n := range 100 {
		_, err := s.NewShowing(ctx, ada.ID, fmt.Sprint("token ", n), one)
		require.NoError(t, err)
	}
	_, err := s.NewShowing(ctx, ada.ID, "one more", one)
	assert.EqualError(t, err, "You show 100 things, which is the most: take one back first.")

	// What has ended makes room.
	s.Clock = func() time.Time { return ends.Add(time.Second) }
	_, _, err = s.ShowingOf(ctx, "token 7")
	assert.ErrorIs(t, err, store.ErrNotFound)
	one.EndsAt = nil
	_, err = s.NewShowing(ctx, ada.ID, "one more", one)
	require.NoError(t, err)
	left, err := s.Showings(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, left, 1)
	got, of, err := s.ShowingOf(ctx, "one more")
	require.NoError(t, err)
	assert.Equal(t, left[0].ID, got.ID)
	assert.Equal(t, ada.ID, of.ID)
	assert.NotContains(t, string(got.TokenHash), "one more")
}
