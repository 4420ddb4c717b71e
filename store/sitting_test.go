package store_test

import (
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	corewheel "gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// aSheet is a plan of two places, with all that a place can have.
func aSheet() store.SittingPlan {
	return store.SittingPlan{
		Medium: "gouache", Film: 1, Settings: bench.Settings{Diameter: 180, Inner: 45, Wells: 4, Brushes: 2, Pace: 1.5, Before: [][2]string{{"green", "red"}}}, Fill: bench.FromWeaker, Why: "because", Order: []int{1, 0},
		Sheet: bench.Sheet{Kind: "wheel", Title: "wheel", W: 180, H: 180, Inner: 45, Rings: []float64{60}, Regions: []bench.Region{
			{ID: "green", Label: "green", Parents: "PY65 + PB29", Home: 10, Index: 10, Kind: corewheel.Secondary, Main: true, Section: 2, Step: 2, Share: 0.4, Shape: bench.Shape{From: 285, To: 315, Inner: 45, Outer: 90}, Touches: []int{1}, Graded: true},
			{ID: "wanted/1", Label: "kelp", Home: -1, Index: 1, Kind: corewheel.Tertiary, Section: -1, Film: 0.3, Shape: bench.Shape{X: 1, Y: 2, W: 20, H: 40}, Touches: []int{0}, Aim: &colour.Lab{L: 40, A: -5, B: 20}},
		}},
		Recipes: [][]store.KeptPart{{{Paint: "PY65", Parts: 4}, {Paint: "PB29", Parts: 1, In: "PY65", Thin: 9}}, {{Paint: "hue", Name: "green", Parts: 2, Of: []store.KeptPart{{Paint: "PB29", Parts: 1}}}}},
		Ends:    [3][2]string{{}, {}, {"PB29", "PY65"}},
		Paints:  map[string]store.FrozenTube{"PB29": {Definition: paint.Definition{Library: "PB29", Version: "2026.3"}, Strength: 1.2}},
	}
}

func told(id string, kind bench.EventKind) store.SittingEvent {
	return store.SittingEvent{EventID: id, At: time.Now().UTC().Truncate(time.Microsecond), Device: "tablet", Number: 1, Event: bench.Event{ID: id, Kind: kind, Region: "green", Used: []bench.Used{{Paint: "PB29", Amount: 7}}}}
}

func notEnded([]store.SittingEvent) (bool, error) { return false, nil }

func TestASittingIsKeptAsItBegan(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{WheelID: wheel(t, s, ada).ID, Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	kept, events, err := s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Empty(t, events)
	assert.Equal(t, aSheet(), kept.Plan)
	_, _, err = s.Sitting(ctx, eve.ID, begun.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
	require.ErrorIs(t, s.DropSitting(ctx, eve.ID, begun.ID), store.ErrNotFound)
	list, err := s.Sittings(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Empty(t, list[0].Plan.Order, "lists leave the plan")
	require.NoError(t, s.DropSitting(ctx, ada.ID, begun.ID))
	_, _, err = s.Sitting(ctx, ada.ID, begun.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
}

// Two devices that send the same and their own at once leave each event once.
func TestWhatIsToldAtOnceIsKeptOnce(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	var wg sync.WaitGroup
	errs := make([]error, 8)
	for i := range errs {
		wg.Go(func() {
			_, errs[i] = s.TellSitting(ctx, ada.ID, begun.ID, []store.SittingEvent{told("same", bench.Painted), told(fmt.Sprint("own ", i), bench.Painted)}, notEnded)
		})
	}
	wg.Wait()
	for _, err := range errs {
		require.NoError(t, err)
	}
	_, events, err := s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Len(t, events, 9)
	for i := 1; i < len(events); i++ {
		assert.Greater(t, events[i].Arrived, events[i-1].Arrived)
	}
	assert.Equal(t, []bench.Used{{Paint: "PB29", Amount: 7}}, events[0].Event.Used)

	// What comes again changes nothing of what is kept.
	again := told("same", bench.Ended)
	all, err := s.TellSitting(ctx, ada.ID, begun.ID, []store.SittingEvent{again}, func([]store.SittingEvent) (bool, error) { return true, nil })
	require.NoError(t, err)
	assert.Len(t, all, 9)
	for _, e := range all {
		assert.NotEqual(t, bench.Ended, e.Event.Kind)
	}
	kept, _, err := s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.True(t, kept.Ended)

	// All or none; another painter's is not there.
	_, err = s.TellSitting(ctx, ada.ID, begun.ID, []store.SittingEvent{told("late", bench.Painted)}, func([]store.SittingEvent) (bool, error) { return false, fmt.Errorf("no") })
	require.Error(t, err)
	_, err = s.TellSitting(ctx, eve.ID, begun.ID, []store.SittingEvent{told("evil", bench.Painted)}, notEnded)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, events, err = s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Len(t, events, 9)
}

// The database itself refuses what belongs to one painter under another's.
func TestWhatBelongsToASittingNamesItsOwner(t *testing.T) {
	address := storetest.Database(t)
	s := on(t, address)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	w := wheel(t, s, ada)
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{WheelID: w.ID, Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	_, err = s.BeginSitting(ctx, eve.ID, store.Sitting{WheelID: w.ID, Name: "Low water", Plan: aSheet()})
	require.Error(t, err, "another's wheel")
	for _, statement := range []string{
		"insert into sitting_events (painter_id, sitting_id, event_id, at, device, number, offset_ms, revision, event, created_at) values (%d, %d, 'x', now(), '', 0, 0, 0, '{}', now())",
		"insert into sitting_photos (painter_id, sitting_id, jpeg, width, height, standin, created_at) values (%d, %d, '', 1, 1, false, now())",
		"insert into sitting_readings (painter_id, sitting_id, region, l, a, b, source, wet, medium, minutes, spread, doubt, created_at) values (%d, %d, 'green', 1, 1, 1, 'eye', false, '', 0, 0, '', now())",
		"insert into takings (painter_id, sitting_id, medium, readings, sittings, created_at) values (%d, %d, 'oil', 1, 1, now())",
	} {
		assert.ErrorContains(t, try(t, address, fmt.Sprintf(statement, eve.ID, begun.ID)), "foreign key", statement)
		assert.NoError(t, try(t, address, fmt.Sprintf(statement, ada.ID, begun.ID)), statement)
	}
	// A sitting outlives its wheel.
	do(t, address, fmt.Sprintf("delete from wheels where id = %d", w.ID))
	kept, _, err := s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Zero(t, kept.WheelID)
	assert.Equal(t, "Low water", kept.Name)
}

// A sitting that holds as many events as it may can still be ended.
func TestAFullSittingIsEnded(t *testing.T) {
	address := storetest.Database(t)
	s := on(t, address)
	ada := painter(t, s, "Ada")
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	do(t, address, fmt.Sprintf("insert into sitting_events (painter_id, sitting_id, event_id, at, device, number, offset_ms, revision, event, created_at) select %d, %d, 'e' || n, now(), '', n, 0, 0, '{\"kind\":\"noted\"}', now() from generate_series(1, %d) n", ada.ID, begun.ID, bench.MostEvents))
	one := func(id string, kind bench.EventKind) []store.SittingEvent {
		return []store.SittingEvent{{EventID: id, At: time.Now(), Event: bench.Event{ID: id, Kind: kind}}}
	}
	_, err = s.TellSitting(ctx, ada.ID, begun.ID, one("more", bench.Noted), notEnded)
	assert.ErrorContains(t, err, "end it, and begin another")
	all, err := s.TellSitting(ctx, ada.ID, begun.ID, one("end", bench.Ended), notEnded)
	require.NoError(t, err)
	assert.Len(t, all, bench.MostEvents+1)
}

func TestPhotosHaveTheirRoom(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	keep := func(p store.Painter, size int) error {
		begun, err := s.BeginSitting(ctx, p.ID, store.Sitting{Name: "Low water", Plan: aSheet()})
		require.NoError(t, err)
		_, err = s.AddPhoto(ctx, p.ID, begun.ID, store.SittingPhoto{JPEG: make([]byte, size)})
		return err
	}
	s.Room = store.Room{OfPainter: 1000, OfAll: 1500, Free: 5000}
	require.NoError(t, keep(ada, 600))
	assert.ErrorContains(t, keep(ada, 600), "Your photos take up")
	require.NoError(t, keep(ada, 400))
	assert.ErrorContains(t, keep(eve, 600), "keeps no more photos")
	require.NoError(t, keep(eve, 100))
	left := uint64(5099)
	s.WatchDisk(func() (uint64, bool) { return left, true })
	assert.ErrorContains(t, keep(eve, 100), "nearly full")
	left++
	require.NoError(t, keep(eve, 100))
}

func TestPhotosAndReadingsBelongToTheirSitting(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	other, err := s.BeginSitting(ctx, ada.ID, store.Sitting{Name: "High water", Plan: aSheet()})
	require.NoError(t, err)
	p, err := s.AddPhoto(ctx, ada.ID, begun.ID, store.SittingPhoto{JPEG: []byte{1, 2}, Width: 4, Height: 3})
	require.NoError(t, err)
	got, err := s.Photo(ctx, ada.ID, begun.ID, p.ID)
	require.NoError(t, err)
	assert.Equal(t, []byte{1, 2}, got.JPEG)
	list, err := s.Photos(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Empty(t, list[0].JPEG)
	_, err = s.Photo(ctx, ada.ID, other.ID, p.ID)
	require.ErrorIs(t, err, store.ErrNotFound, "of another sitting")
	_, err = s.Photo(ctx, eve.ID, begun.ID, p.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
	require.ErrorIs(t, s.DropPhoto(ctx, eve.ID, begun.ID, p.ID), store.ErrNotFound)
	_, err = s.AddPhoto(ctx, eve.ID, begun.ID, store.SittingPhoto{})
	require.ErrorIs(t, err, store.ErrNotFound)

	read := store.SittingReading{Region: "green", L: 50, A: -30, B: 20, Spectrum: []float64{0.1, 0.2}, Source: "photo", Medium: "gouache", Minutes: 12, Spread: 0.4, Doubt: "glare"}
	require.NoError(t, s.AddReadings(ctx, ada.ID, begun.ID, []store.SittingReading{read, read}))
	require.ErrorIs(t, s.AddReadings(ctx, eve.ID, begun.ID, []store.SittingReading{read}), store.ErrNotFound)
	reads, err := s.Readings(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	require.Len(t, reads, 2)
	assert.Equal(t, read.Spectrum, reads[0].Spectrum)
	assert.Equal(t, "glare", reads[1].Doubt)
	none, err := s.Readings(ctx, eve.ID, begun.ID)
	require.NoError(t, err)
	assert.Empty(t, none)

	require.NoError(t, s.DropSitting(ctx, ada.ID, begun.ID))
	reads, err = s.Readings(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Empty(t, reads, "what belongs to a sitting goes with it")
}
