package studio

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// aStore is a store of its own, up to date and empty, and its address.
func aStore(t *testing.T) (kept *store.Store, address string) {
	t.Helper()
	address = storetest.Copy(t, "studio", func(address string) error {
		s, err := store.Open(address)
		if err != nil {
			return err
		}
		defer s.Close()
		return s.Migrate(t.Context())
	})
	kept, err := store.Open(address)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, kept.Close()) })
	return kept, address
}

// aStudio is a studio of one painter with an ultramarine of her own, and a wheel with it.
func aStudio(t *testing.T) (s *Studio, kept *store.Store, ada store.Painter, w store.Wheel) {
	t.Helper()
	kept, _ = aStore(t)
	s, ada, w = atTheBench(t, kept)
	return s, kept, ada, w
}

// atTheBench is a painter with a wheel of which the blue is a tube.
func atTheBench(t *testing.T, kept *store.Store) (s *Studio, ada store.Painter, w store.Wheel) {
	t.Helper()
	s = New(kept)
	ada, err := kept.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	require.NoError(t, s.AddPaints(t.Context(), ada.ID, []string{"PB29"}, "artist"))
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	c := WheelContent{Name: "Low water", System: wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{"PY65"}, {"PR254"}, {paint.TubeID(box.Tubes[0].ID)}}}}
	c.Settings.Medium, c.Settings.Light, c.Settings.Judged = "gouache", "D65", "dry"
	c.Settings.Choices = wheel.UsualChoices()
	w, err = s.NewWheel(t.Context(), ada, c)
	require.NoError(t, err)
	return s, ada, w
}

// The sheet of a sitting is what it was, also when another program opens it that knows
// nothing but the database, and when the tube is another by then.
func TestASittingOpensAsItWasWhateverBecomesOfItsTubes(t *testing.T) {
	s, kept, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	tube := box.Tubes[0]
	content := tube.TubeContent
	content.Grade = "student"
	_, err = kept.SaveTube(t.Context(), ada.ID, tube.ID, tube.Version, "a student's tube after all", content, 0)
	require.NoError(t, err)

	later, err := New(kept).Sitting(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	require.Len(t, later.Plan.Sheet.Regions, len(begun.Plan.Sheet.Regions))
	assert.Equal(t, begun.Rest.Order, later.Rest.Order)
	for i := range begun.Plan.Sheet.Regions {
		a, b := begun.Plan.Sheet.Regions[i].Appearance(begun.Medium, false), later.Plan.Sheet.Regions[i].Appearance(begun.Medium, false)
		assert.Less(t, colour.Difference(a.Lab(), b.Lab()), 0.01, begun.Plan.Sheet.Regions[i].ID)
	}
}

// Let-downs and hues that are mixed first come out of the ice as they went in.
func TestARecipeIsFrozenAndThawedWhole(t *testing.T) {
	yellow, red, blue := painttest.Paint("PY65"), painttest.Paint("PR254"), painttest.Paint("PB29")
	hue, err := paint.Stir(recipe.HueID, "green", paint.Part{Paint: yellow, Parts: 3}, paint.Part{Paint: blue, Parts: 1})
	require.NoError(t, err)
	r := recipe.Recipe{{Paint: hue, Parts: 5}, {Paint: red, Parts: 2, In: yellow, Thin: 9}}
	find := func(id string) (*paint.Paint, error) { return paint.Find(id) }
	back, err := opened(store.RecipeParts(r), find)
	require.NoError(t, err)
	require.Len(t, back, 2)
	assert.Equal(t, r[1], back[1])
	was, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	is, err := paint.Mix(back.Volumes()...)
	require.NoError(t, err)
	assert.InDeltaSlice(t, seen(was), seen(is), 1e-9)
	_, err = opened([]store.KeptPart{{Paint: "PX99", Parts: 1}}, find)
	assert.Error(t, err)
}

func seen(m paint.Mixture) []float64 {
	s := m.Masstone()
	return s[:]
}

// Parts that were measured are learned from, in place of the plan's.
func TestReadingsAreExplainedByWhatWasReallyUsed(t *testing.T) {
	s, _, ada, w := aStudio(t)
	drops, err := recipe.NewScale(recipe.Drops, 0)
	require.NoError(t, err)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, drops)
	require.NoError(t, err)
	green := begun.Plan.Sheet.Find("green")
	parts := begun.Plan.Sheet.Regions[green].Recipe.Plain()
	require.Len(t, parts, 2)
	took := []bench.Used{{Paint: parts[0].Paint.ID, Amount: 6}, {Paint: parts[1].Paint.ID, Amount: 6}}
	_, _, err = s.Tell(t.Context(), ada, begun.ID, []Told{
		{Event: bench.Event{ID: "a", Kind: bench.Painted, At: time.Now(), Region: "green"}},
		{Event: bench.Event{ID: "b", Kind: bench.Measured, At: time.Now(), Region: "green", Used: took}},
	})
	require.NoError(t, err)
	equal, err := paint.Mix(paint.Part{Paint: parts[0].Paint, Parts: 1}, paint.Part{Paint: parts[1].Paint, Parts: 1})
	require.NoError(t, err)
	look := equal.AsPainted(begun.Medium, false)
	read := NewReading{Region: "green", Lab: look.Lab(), Source: paint.Photo}
	require.NoError(t, s.KeepReadings(t.Context(), ada, begun.ID, []NewReading{read}))
	early, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Nil(t, early.Places[green].Dry, "it is wet yet, whatever was chosen")
	assert.NotNil(t, early.Places[green].Wet)
	read.Dry = true
	require.NoError(t, s.KeepReadings(t.Context(), ada, begun.ID, []NewReading{read}))
	got, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	explained := got.Places[green].Explained
	require.NotNil(t, explained)
	assert.True(t, explained.AsComputed, "it is what equal drops make")
	assert.Nil(t, got.Learning.Learned)
	assert.Contains(t, got.Learning.TooFew, "from 3 to")
}

func TestWhatCannotBeToldIsRefused(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	_, _, err = s.Tell(t.Context(), ada, begun.ID, make([]Told, MostTold+1))
	assert.ErrorContains(t, err, "more than are told at once")
	assert.ErrorContains(t, s.KeepReadings(t.Context(), ada, begun.ID, make([]NewReading, MostRead+1)), "more than are kept at once")
	_, err = s.Ribbons(t.Context(), ada, begun.ID, "green", "", false, 99)
	assert.ErrorContains(t, err, "from 0.1 to 20")
	_, err = s.Ribbons(t.Context(), ada, begun.ID, "green", "teal", false, 6)
	assert.Error(t, err)

	// A clock before the sitting, and one after now, are brought within it.
	told, _, err := s.Tell(t.Context(), ada, begun.ID, []Told{
		{Event: bench.Event{ID: "early", Kind: bench.Painted, At: time.Unix(1, 0), Region: "green"}},
		{Event: bench.Event{ID: "late", Kind: bench.Painted, At: time.Now().AddDate(1, 0, 0), Region: "red"}},
	})
	require.NoError(t, err)
	for _, id := range []string{"green", "red"} {
		at := told.Stands.Places[told.Plan.Sheet.Find(id)].Painted
		assert.False(t, at.Before(begun.Began))
		assert.False(t, at.After(time.Now()))
	}
}
