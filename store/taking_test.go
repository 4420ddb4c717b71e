package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/store"
)

// strengthsOf are what a box's tubes turned out to be, 0 where that is not known, in the
// order they were added.
func strengthsOf(t *testing.T, s *store.Store, p store.Painter) (out []float64) {
	t.Helper()
	tubes, err := s.Tubes(ctx, p.ID)
	require.NoError(t, err)
	for _, tube := range tubes {
		if tube.Learned == nil {
			out = append(out, 0)
		} else {
			out = append(out, *tube.Learned)
		}
	}
	return out
}

func TestATubeIsWhatTheLastTakingSaysThatStands(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	tubes := add(t, s, ada, "night", "dusk")
	take := func(strengths ...store.TakenStrength) store.Taking {
		out, err := s.Take(ctx, ada.ID, store.Taking{Medium: "gouache", Readings: 12, Sittings: 1, Strengths: strengths}, "", nil)
		require.NoError(t, err)
		return out
	}
	of := func(n int, g float64) store.TakenStrength {
		return store.TakenStrength{TubeID: tubes[n].ID, Was: 1, Strength: g, Low: g, High: g}
	}
	first := take(of(0, 1.5), of(1, 0.8))
	second := take(of(0, 2))
	assert.Equal(t, []float64{2, 0.8}, strengthsOf(t, s, ada))

	require.NoError(t, s.UndoTaking(ctx, ada.ID, first.ID, true))
	assert.Equal(t, []float64{2, 0}, strengthsOf(t, s, ada), "what a later one says stays")
	require.NoError(t, s.UndoTaking(ctx, ada.ID, second.ID, true))
	require.NoError(t, s.UndoTaking(ctx, ada.ID, second.ID, true), "its answer was lost, and it came again")
	assert.Equal(t, []float64{0, 0}, strengthsOf(t, s, ada))
	require.NoError(t, s.UndoTaking(ctx, ada.ID, first.ID, false))
	assert.Equal(t, []float64{1.5, 0.8}, strengthsOf(t, s, ada))

	all, err := s.Takings(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, second.ID, all[0].ID, "the last one first")
	assert.NotNil(t, all[0].UndoneAt)
	assert.Len(t, all[1].Strengths, 2)

	// A tube's strength and what is said of it do not get in each other's way.
	c := said("midnight")
	save(t, s, tubes[0], c)
	assert.Equal(t, []float64{1.5, 0.8}, strengthsOf(t, s, ada))

	eve := painter(t, s, "Eve")
	assert.ErrorIs(t, s.UndoTaking(ctx, eve.ID, first.ID, true), store.ErrNotFound)
	_, err = s.Take(ctx, eve.ID, store.Taking{Medium: "gouache", Strengths: []store.TakenStrength{of(0, 3)}}, "", nil)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.Equal(t, []float64{1.5, 0.8}, strengthsOf(t, s, ada), "nothing of another painter's changes")
	none, err := s.Takings(ctx, eve.ID)
	require.NoError(t, err)
	assert.Empty(t, none, "all of it or none")
}

func TestATakingBringsTubesIntoTheBox(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	one := store.NewTube{Definition: paint.Definition{Library: "PB29"}, Content: said("")}
	_, err := s.Take(ctx, ada.ID, store.Taking{Medium: "gouache", Strengths: []store.TakenStrength{{Was: 1, Strength: 1.6, Low: 1.5, High: 1.7}}}, "added 1 paint with what it turned out to be", map[int]store.NewTube{0: one})
	require.NoError(t, err)
	assert.Equal(t, []float64{1.6}, strengthsOf(t, s, ada))
	last, err := s.LastChange(ctx, ada.ID)
	require.NoError(t, err)
	require.NoError(t, s.UndoBox(ctx, ada.ID, last.ID), "the tube goes as any other")
	assert.Empty(t, strengthsOf(t, s, ada))
}

func TestAFilmIsThatOfTheLastTakingThatStands(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	film := func(medium string) float64 {
		v, err := s.Film(ctx, ada.ID, medium)
		require.NoError(t, err)
		return v
	}
	assert.Equal(t, 1.0, film("acrylic"))
	was, is := 1.0, 0.4
	taken, err := s.Take(ctx, ada.ID, store.Taking{Medium: "acrylic", FilmWas: &was, Film: &is}, "", nil)
	require.NoError(t, err)
	assert.Equal(t, 0.4, film("acrylic"))
	assert.Equal(t, 1.0, film("oil"))
	require.NoError(t, s.UndoTaking(ctx, ada.ID, taken.ID, true))
	assert.Equal(t, 1.0, film("acrylic"))
}
