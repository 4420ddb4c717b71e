package wire

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
	"gyrophane/studio"
)

// What a client says of a thing, and what is said back of it, is the same in every field.
func TestEveryFieldGoesRound(t *testing.T) {
	var choices wheel.Choices
	storetest.Fill(&choices)
	assert.Equal(t, choices, ChoicesOf(choices).Core())
	var selection wheel.Selection
	storetest.Fill(&selection)
	assert.Equal(t, selection, SelectionOf(selection).Core())
	var settings bench.Settings
	storetest.Fill(&settings)
	settings.Medium, settings.Slots = paint.Medium{}, bench.Graded // the one is said beside them, the other graded or not
	assert.Equal(t, settings, BenchSettingsOf(settings).Core())

	var event SittingEvent
	storetest.Fill(&event)
	told := event.Core()
	for of, is := range map[string]bool{
		"id": told.ID == event.ID, "kind": string(told.Kind) == event.Kind, "at": told.At.UnixMilli() == event.At, "offset": told.OffsetMS == event.OffsetMS,
		"device": told.Device == event.Device, "number": told.Number == event.Number, "revision": told.Revision == event.Revision, "region": told.Region == event.Region,
		"well": told.Well == event.Well, "brush": told.Brush == event.Brush, "thorough": told.Thorough == event.Thorough, "text": told.Text == event.Text,
		"undoes": told.Undoes == event.Undoes, "tap": told.Tap == event.Tap, "adds": told.Adds == event.Adds, "from": told.From == event.From, "from ml": told.FromML == event.FromML, "ml": told.ML == event.ML, "ahead": told.Ahead.Milliseconds() == event.AheadMS,
	} {
		assert.True(t, is, of)
	}
	require.Len(t, told.Used, len(event.Took))
	assert.Equal(t, event.Took[1], SittingTook(told.Used[1]))
	var read ReadToKeep
	storetest.Fill(&read)
	kept := read.Core()
	assert.Equal(t, studio.NewReading{Region: read.Slot, Lab: colour.Lab{L: read.Lab[0], A: read.Lab[1], B: read.Lab[2]}, Source: paint.Source(read.Source), Wet: read.Wet, Dry: read.Dry, Spread: read.Spread, Doubt: read.Doubt, Told: read.ID, On: studio.OnPhoto{Photo: read.On.Photo, Light: read.On.Light, Greys: photo.Greys{Ink: read.On.Ink.Core(), Step: read.On.Step.Core()}, Step: photo.StepOf(read.On.Grey)}}, kept)
	assert.Equal(t, colour.Lab{L: read.On.Step.Lab[0], A: read.On.Step.Lab[1], B: read.On.Step.Lab[2]}, kept.On.Greys.Step.Lab)
	assert.Equal(t, photo.Light(read.On.Ink.Light), kept.On.Greys.Ink.Light)
}

// The bounds of a film, and what stands before and after it, each keep their place.
func TestAFilmKeepsItsBounds(t *testing.T) {
	s := painted(t)
	out := SittingJournalOf(studio.SittingJournal{Sitting: s, Learning: studio.Learning{Film: &journal.Film{Old: 1, New: 0.6, Low: 0.5, High: 0.7}}})
	text, err := json.Marshal(out.Film)
	require.NoError(t, err)
	var film map[string]float64
	require.NoError(t, json.Unmarshal(text, &film))
	assert.Equal(t, map[string]float64{"was": 1, "is": 0.6, "low": 0.5, "high": 0.7}, film)
}

// A place is shown wet as it is while it is wet, and dried as it is when it is dry.
func TestAPlaceIsShownWetAndDry(t *testing.T) {
	s := painted(t)
	s.Now = time.Now()
	s.Stands = bench.Fold(s.Plan.Sheet, s.Plan.Settings, nil)
	plan, err := bench.Sketch(s.Plan.Sheet, s.Plan.Settings)
	require.NoError(t, err)
	s.Plan = plan
	s.Rest, err = s.Stands.From(s.Now, plan)
	require.NoError(t, err)
	v, err := ParseView(s.Medium.ID, "D65", "dry")
	require.NoError(t, err)
	out := v.Sitting(s)
	differ := 0
	for i := range s.Plan.Sheet.Regions {
		r := &s.Plan.Sheet.Regions[i]
		wet, dry := r.Appearance(s.Medium, true), r.Appearance(s.Medium, false)
		assert.Equal(t, wet.OKLab(colour.D65).Screen().Hex, out.Places[i].Wet.SRGB, r.Label)
		assert.Equal(t, dry.OKLab(colour.D65).Screen().Hex, out.Places[i].Dried.SRGB, r.Label)
		assert.Equal(t, dry.OKLab(colour.D65).Screen().Hex, out.Plan.Regions[i].SRGB, r.Label)
		if out.Places[i].Wet.SRGB != out.Places[i].Dried.SRGB {
			differ++
		}
	}
	assert.Greater(t, differ, 8)
}
