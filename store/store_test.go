package store_test

import (
	"context"
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	core "gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

var ctx = context.Background()

// fresh is a store on an empty, migrated database.
func fresh(t *testing.T) *store.Store {
	t.Helper()
	return on(t, storetest.Copy(t, "store", func(address string) error {
		s, err := store.Open(address)
		if err != nil {
			return err
		}
		defer s.Close()
		return s.Migrate(ctx)
	}))
}

func on(t *testing.T, url string) *store.Store {
	t.Helper()
	s, err := store.Open(url)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, s.Migrate(ctx))
	return s
}

func painter(t *testing.T, s *store.Store, name string) store.Painter {
	t.Helper()
	p, err := s.CreatePainter(ctx, name, "")
	require.NoError(t, err)
	return p
}

func content(name, blue string) store.WheelContent {
	roles := [3][]string{{}, {}, {blue}}
	selection := core.Selection{Kind: core.RYB, Roles: roles, Chosen: [3][]string{{}, {}, {}}}
	return store.WheelContent{Name: name, Kind: "triad", Snapshot: store.Snapshot{System: selection, Frozen: map[string]store.FrozenTube{}}, Settings: store.Settings{Medium: "acrylic"}}
}

// demoWheels are what a demo studio is seeded with.
var demoWheels = []store.WheelContent{content("Rock pool", "PB29"), content("Low water", "PB60")}

func blueOf(t *testing.T, c store.WheelContent) string {
	t.Helper()
	return c.Snapshot.System.Roles[2][0]
}

func wheel(t *testing.T, s *store.Store, p store.Painter) store.Wheel {
	t.Helper()
	w, err := s.CreateWheel(ctx, p.ID, content("Rock pool", "PB29"))
	require.NoError(t, err)
	return w
}

func TestMigrationsTakeTurnsAndRunOnce(t *testing.T) {
	url := storetest.Database(t)
	var wg sync.WaitGroup
	for range 4 {
		wg.Go(func() {
			s, err := store.Open(url)
			if assert.NoError(t, err) {
				assert.NoError(t, s.Migrate(ctx))
				assert.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels}))
				assert.NoError(t, s.Close())
			}
		})
	}
	wg.Wait()
	painters, err := on(t, url).Painters(ctx)
	require.NoError(t, err)
	assert.Len(t, painters, 1)
}

func TestSeedingTwiceNeverOverwritesWhatWasEdited(t *testing.T) {
	s := fresh(t)
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels}))
	demo, err := s.Painters(ctx)
	require.NoError(t, err)
	before, err := s.Wheels(ctx, demo[0].ID)
	require.NoError(t, err)
	require.NotEmpty(t, before)
	edited, err := s.SaveWheel(ctx, demo[0].ID, before[0].ID, 1, content("My own name", "PB60"), 0)
	require.NoError(t, err)
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels}))
	after, err := s.Wheels(ctx, demo[0].ID)
	require.NoError(t, err)
	assert.Len(t, after, len(before))
	kept, err := s.Wheel(ctx, demo[0].ID, edited.ID)
	require.NoError(t, err)
	assert.Equal(t, "My own name", kept.Name)
	for _, w := range before {
		assert.Contains(t, []string{"Rock pool", "Low water"}, w.Name)
	}
}

func TestWheelIsKeptAsItWasLeft(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	assert.Equal(t, 1, w.Version)
	assert.Equal(t, paint.LibraryVersion(), w.LibraryVersion)
	c := content("Rock pool at ebb", "PB15:3")
	c.Settings.Medium, c.Archived = "oil", true
	saved, err := s.SaveWheel(ctx, p.ID, w.ID, 1, c, 0)
	require.NoError(t, err)
	assert.Equal(t, 2, saved.Version)
	got, err := s.Wheel(ctx, p.ID, w.ID)
	require.NoError(t, err)
	c.LibraryVersion = paint.LibraryVersion()
	assert.Equal(t, c, got.WheelContent)
}

func TestStaleSaveIsRefusedAndBothVersionsAreKept(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	_, err := s.SaveWheel(ctx, p.ID, w.ID, 1, content("From the first tab", "PB60"), 0)
	require.NoError(t, err)

	_, err = s.SaveWheel(ctx, p.ID, w.ID, 1, content("From the second tab", "PB28"), 0)
	var conflict store.WheelConflict
	require.ErrorAs(t, err, &conflict)
	assert.Equal(t, "From the first tab", conflict.Current.Name)
	assert.Equal(t, "From the second tab", conflict.Kept.Name)

	now, err := s.Wheel(ctx, p.ID, w.ID)
	require.NoError(t, err)
	assert.Equal(t, "From the first tab", now.Name)
	refused, err := s.RefusedWheels(ctx, p.ID, w.ID)
	require.NoError(t, err)
	require.Len(t, refused, 1)
	assert.Equal(t, "PB28", blueOf(t, refused[0].WheelContent))

	settled, err := s.SaveWheel(ctx, p.ID, w.ID, 2, refused[0].WheelContent, refused[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "From the second tab", settled.Name)
	refused, err = s.RefusedWheels(ctx, p.ID, w.ID)
	require.NoError(t, err)
	assert.Empty(t, refused, "taking the refused version settles it")
}

func TestOfManySavesOnOneVersionExactlyOneGoesThrough(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	var wg sync.WaitGroup
	var mu sync.Mutex
	through := 0
	for i := range 30 {
		wg.Go(func() {
			_, err := s.SaveWheel(ctx, p.ID, w.ID, 1, content(fmt.Sprint("At once ", i), "PB60"), 0)
			mu.Lock()
			defer mu.Unlock()
			if err == nil {
				through++
			} else {
				assert.ErrorAs(t, err, new(store.WheelConflict))
			}
		})
	}
	wg.Wait()
	assert.Equal(t, 1, through)
	refused, err := s.RefusedWheels(ctx, p.ID, w.ID)
	require.NoError(t, err)
	assert.Len(t, refused, 20, "the newest are kept, not without end")
}

// The answer to a write may be lost on its way; then it comes again, and is no
// change made elsewhere.
func TestAWriteThatComesTwiceIsDoneOnce(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	first, err := s.SaveWheel(ctx, p.ID, w.ID, 1, content("Rock pool", "PB60"), 0)
	require.NoError(t, err)
	again, err := s.SaveWheel(ctx, p.ID, w.ID, 1, content("Rock pool", "PB60"), 0)
	require.NoError(t, err)
	assert.Equal(t, first.Version, again.Version)
	_, err = s.SaveWheel(ctx, p.ID, w.ID, 1, content("Rock pool", "PB28"), 0)
	require.ErrorAs(t, err, new(store.WheelConflict), "another change on that version is one")
	undone, err := s.UndoWheel(ctx, p.ID, w.ID, 2)
	require.NoError(t, err)
	twice, err := s.UndoWheel(ctx, p.ID, w.ID, 2)
	require.NoError(t, err)
	assert.Equal(t, undone.Version, twice.Version)
	assert.Equal(t, "PB29", blueOf(t, twice.WheelContent))
	_, err = s.SaveWheel(ctx, p.ID, w.ID, 3, content("Rock pool", "PB28"), 0)
	require.NoError(t, err)
	_, err = s.UndoWheel(ctx, p.ID, w.ID, 3)
	require.ErrorAs(t, err, new(store.Refusal), "an undoing of what was changed elsewhere is refused")

	tube, err := s.AddTubes(ctx, p.ID, "added", []store.NewTube{{Content: store.TubeContent{State: store.InBox}}})
	require.NoError(t, err)
	for range 2 {
		saved, err := s.SaveTube(ctx, p.ID, tube[0].ID, 1, "changed", store.TubeContent{Nickname: "uno", State: store.InBox}, 0)
		require.NoError(t, err)
		assert.Equal(t, 2, saved.Version)
	}
	last, err := s.LastChange(ctx, p.ID)
	require.NoError(t, err)
	require.NoError(t, s.UndoBox(ctx, p.ID, last.ID))
	require.NoError(t, s.UndoBox(ctx, p.ID, last.ID))
	now, err := s.Tube(ctx, p.ID, tube[0].ID)
	require.NoError(t, err)
	assert.Equal(t, 3, now.Version, "undone once")
}

func TestUndoGoesBackStepByStep(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	for i, blue := range []string{"PB60", "PB28"} {
		var err error
		w, err = s.SaveWheel(ctx, p.ID, w.ID, i+1, content("Rock pool", blue), 0)
		require.NoError(t, err)
	}
	for _, want := range []string{"PB60", "PB29"} {
		can, err := s.CanUndo(ctx, w)
		require.NoError(t, err)
		assert.True(t, can)
		w, err = s.UndoWheel(ctx, p.ID, w.ID, w.Version)
		require.NoError(t, err)
		assert.Equal(t, want, blueOf(t, w.WheelContent))
	}
	can, err := s.CanUndo(ctx, w)
	require.NoError(t, err)
	assert.False(t, can)
	_, err = s.UndoWheel(ctx, p.ID, w.ID, w.Version)
	assert.ErrorIs(t, err, store.ErrNothingToUndo)
	_, err = s.UndoWheel(ctx, p.ID, w.ID, 1)
	assert.ErrorAs(t, err, new(store.Refusal), "undo on an outdated version is refused")

	w, err = s.SaveWheel(ctx, p.ID, w.ID, w.Version, content("Rock pool", "PB16"), 0)
	require.NoError(t, err)
	w, err = s.UndoWheel(ctx, p.ID, w.ID, w.Version)
	require.NoError(t, err)
	assert.Equal(t, "PB29", blueOf(t, w.WheelContent), "a change after undoing goes back to where it was made")
}

func TestNothingOfAnotherPainterCanBeReachedOrChanged(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	w := wheel(t, s, ada)
	_, err := s.SaveWheel(ctx, ada.ID, w.ID, 9, content("Refused", "PB60"), 0)
	require.ErrorAs(t, err, new(store.WheelConflict))
	refused, err := s.RefusedWheels(ctx, ada.ID, w.ID)
	require.NoError(t, err)

	_, err = s.Wheel(ctx, eve.ID, w.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.SaveWheel(ctx, eve.ID, w.ID, 1, content("Mine now", "PB60"), 0)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.UndoWheel(ctx, eve.ID, w.ID, 1)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.DropRefused(ctx, eve.ID, w.ID, refused[0].ID), store.ErrNotFound)
	list, err := s.Wheels(ctx, eve.ID)
	require.NoError(t, err)
	assert.Empty(t, list)
	theirs, err := s.RefusedWheels(ctx, eve.ID, w.ID)
	require.NoError(t, err)
	assert.Empty(t, theirs)

	now, err := s.Wheel(ctx, ada.ID, w.ID)
	require.NoError(t, err)
	assert.Equal(t, w.WheelContent, now.WheelContent)
}

func TestPainters(t *testing.T) {
	s := fresh(t)
	p, err := s.CreatePainter(ctx, "  Ada  ", "wet on wet 1")
	require.NoError(t, err)
	assert.Equal(t, "Ada", p.Name)
	assert.NotContains(t, p.PassphraseHash, "wet on wet")
	assert.True(t, p.Opens("wet on wet 1"))
	for _, wrong := range []string{"", "wet on wet 2", string(make([]byte, 10_000))} {
		assert.False(t, p.Opens(wrong))
	}
	open := painter(t, s, "Björn 青")
	assert.True(t, open.Opens(""))
	assert.False(t, open.Opens("anything"))

	for name, says := range map[string]string{
		"": "a name", "   ": "a name", "ada": "already", strings.Repeat("é", 81): "too long", "a\nb": "one line", "a\x00b": "cannot be shown", "\xff": "cannot be shown",
	} {
		_, err := s.CreatePainter(ctx, name, "")
		assert.ErrorContains(t, err, says, "%q", name)
	}
	_, err = s.CreatePainter(ctx, "Short", "seven77")
	assert.ErrorContains(t, err, "8 to 200")

	changed, err := s.SetPassphrase(ctx, open.ID, "let it dry first")
	require.NoError(t, err)
	assert.True(t, changed.Opens("let it dry first"))
	changed, err = s.SetPassphrase(ctx, open.ID, "")
	require.NoError(t, err)
	assert.True(t, changed.Opens(""))
	require.NoError(t, s.SeedDemo(ctx, store.Demo{Wheels: demoWheels}))
	demo, err := s.PainterByName(ctx, "TIDE-POOL STUDIO")
	require.NoError(t, err)
	_, err = s.SetPassphrase(ctx, demo.ID, "locked for everybody")
	assert.ErrorContains(t, err, "everybody's")
}

func TestOpenRefusesAnAddressThatIsNone(t *testing.T) {
	_, err := store.Open("mysql://nowhere")
	assert.ErrorContains(t, err, "postgres://")
	assert.NotContains(t, err.Error(), "nowhere", "a password in the address must not be printed")
}

func TestEarlierVersionsKeepTheirPaints(t *testing.T) {
	s := fresh(t)
	p := painter(t, s, "Ada")
	w := wheel(t, s, p)
	_, err := s.SaveWheel(ctx, p.ID, w.ID, 1, content("Rock pool", "PB60"), 0)
	require.NoError(t, err)
	earlier, err := s.WheelHistory(ctx, p.ID, w.ID)
	require.NoError(t, err)
	require.Len(t, earlier, 2)
	assert.Equal(t, "PB60", blueOf(t, earlier[0].WheelContent))
	assert.Equal(t, "PB29", blueOf(t, earlier[1].WheelContent))
}

func TestPredictionsAreWrittenOnce(t *testing.T) {
	s := fresh(t)
	p, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	w := wheel(t, s, p)
	guess := []store.Prediction{{Home: 2, HueWord: "orange", Verdict: "clean"}, {Home: 6, HueWord: "violet", Verdict: "muddy"}}
	require.NoError(t, s.AddPredictions(ctx, p.ID, w.ID, 1, guess))
	assert.ErrorAs(t, s.AddPredictions(ctx, p.ID, w.ID, 1, guess[1:]), new(store.Refusal), "the cover has been lifted")
	assert.ErrorAs(t, s.AddPredictions(ctx, p.ID, w.ID, 7, guess), new(store.Refusal), "another version")
	assert.ErrorIs(t, s.AddPredictions(ctx, eve.ID, w.ID, 1, guess), store.ErrNotFound)
	got, err := s.Predictions(ctx, p.ID, w.ID)
	require.NoError(t, err)
	require.Len(t, got, 2)
	assert.Equal(t, "violet", got[0].HueWord)
	theirs, err := s.Predictions(ctx, eve.ID, w.ID)
	require.NoError(t, err)
	assert.Empty(t, theirs)
}
