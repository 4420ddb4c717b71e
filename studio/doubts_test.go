package studio

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/store"
)

// What is not known of a tube goes by how it was come by, and less is not known of a strength once it was learned.
func TestDoubtsAreThoseOfTheBox(t *testing.T) {
	s, kept, ada, _ := aStudio(t)
	require.NoError(t, s.AddPaints(t.Context(), ada.ID, []string{"PR254"}, "student"))
	require.NoError(t, s.AddOwn(t.Context(), ada.ID, "Mussel", "artist", paint.Origin{Kind: "label", Pigments: []string{"PB29", "PV19"}}))
	require.NoError(t, s.AddPaints(t.Context(), ada.ID, []string{"PW6"}, "artist"))
	of := func(name string) (certainty.Doubt, *paint.Paint) {
		t.Helper()
		box, err := s.Box(t.Context(), ada.ID)
		require.NoError(t, err)
		doubts, err := s.Doubts(t.Context(), As(ada))
		require.NoError(t, err)
		for _, tube := range box.Tubes {
			if tube.Definition.Library == name || tube.Definition.Name == name {
				return doubts(tube.Paint), tube.Paint
			}
		}
		require.Fail(t, name)
		return certainty.Doubt{}, nil
	}
	for name, want := range map[string]certainty.Doubt{"PB29": certainty.LibraryArtist.Doubt(), "PR254": certainty.LibraryStudent.Doubt(), "Mussel": certainty.Label.Doubt(), "PW6": {}} {
		got, _ := of(name)
		assert.Equal(t, want, got, name)
	}
	tubes, err := kept.Tubes(t.Context(), ada.ID)
	require.NoError(t, err)
	_, weak := of("PR254")
	assert.Equal(t, certainty.LibraryStudent.Doubt(), unread(tubes)(weak), "and what sittings are explained by knows of its grade")
	before, was := of("PB29")
	old := ada
	old.OldBox = true
	aged, err := s.Doubts(t.Context(), As(old))
	require.NoError(t, err)
	assert.InDelta(t, 1.4*before.Strength, aged(was).Strength, 1e-12, "an old box differs more")
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	for _, tube := range box.Tubes {
		if tube.Definition.Library == "PB29" {
			_, err = kept.Take(t.Context(), ada.ID, store.Taking{Medium: "gouache", Strengths: []store.TakenStrength{{TubeID: tube.ID, Was: 1, Strength: 2, Low: 1.8, High: 2.2}}}, "", nil)
			require.NoError(t, err)
		}
	}
	learned, is := of("PB29")
	assert.InDelta(t, math.Log(2.2/1.8)/3.92, learned.Strength, 1e-3)
	assert.Less(t, learned.Strength, before.Strength)
	assert.NotEqual(t, was.Strength(), is.Strength())
	doubts, err := s.Doubts(t.Context(), As(ada))
	require.NoError(t, err)
	assert.Equal(t, before, doubts(was), "as it was kept with a wheel before, it is in doubt as then")
	doubts, err = s.Doubts(t.Context(), func(context.Context) (store.Painter, error) { return store.Painter{}, assert.AnError })
	require.NoError(t, err)
	assert.Equal(t, certainty.LibraryArtist.Doubt(), doubts(was))
}
