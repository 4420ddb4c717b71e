package wire

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/studio"
)

// painted is a triad's wheel in gouache as a sitting has it.
func painted(t *testing.T) studio.Sitting {
	t.Helper()
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	system, err := wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{"PY184"}, {"PR254"}, {"PB29"}}}.System(paint.Find)
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, bench.Usual(in))
	return studio.Sitting{SittingEntry: studio.SittingEntry{ID: 7, Wheel: 3, Name: "Rock pool", NextTime: "Less blue."}, Plan: &bench.Plan{Sheet: &sheet, Settings: bench.Usual(in)}, Medium: in}
}

func TestAJournalIsShapedPlaceByPlace(t *testing.T) {
	s := painted(t)
	blue, err := paint.Find("PB29")
	require.NoError(t, err)
	j := studio.SittingJournal{Sitting: s}
	for i := range s.Plan.Sheet.Regions {
		look := s.Plan.Sheet.Regions[i].Appearance(s.Medium, false)
		j.Places = append(j.Places, studio.PlaceRead{Region: i, AccountPlace: journal.AccountPlace{Computed: look.Lab()}})
	}
	green := &j.Places[s.Plan.Sheet.Find("green")]
	lab := green.Computed
	lab.L -= 12
	green.Dry = &journal.Reading{Region: "green", Reading: paint.Reading{Lab: lab}}
	green.Explained = &journal.Explained{Causes: []journal.Cause{{Kind: journal.OfTube, Paint: blue, Amount: 1.6, Says: "stronger", Leaves: 0.44}}}
	prediction, err := journal.ParsePrediction("green", "clean")
	require.NoError(t, err)
	green.Expected = &studio.Expectation{Prediction: prediction, Computed: journal.SlotOutcome{HueWord: "green", Verdict: "clean", HueRight: true, VerdictRight: true}, Painted: &journal.Score{HueRight: true}, CameOut: "green, muddy"}
	orange := &j.Places[s.Plan.Sheet.Find("orange")]
	orange.Expected = &studio.Expectation{Prediction: prediction, Computed: journal.SlotOutcome{HueWord: "orange", Verdict: "clean", VerdictRight: true}}

	out := SittingJournalOf(j)
	require.Len(t, out.Places, 12)
	of := map[string]JournalPlace{}
	for _, p := range out.Places {
		of[p.Slot] = p
	}
	assert.Equal(t, "Less blue.", out.NextTime)
	got := of["green"]
	assert.NotNil(t, got.Dry)
	assert.Nil(t, got.Wet)
	assert.Greater(t, got.Difference, 5.0)
	assert.Contains(t, got.Came, "stronger (leaves 0.4)")
	assert.Equal(t, []ExplainedCause{{Kind: "tube", Paint: "PB29", Amount: 1.6, Says: "stronger", Leaves: 0.4}}, got.Causes)
	assert.Equal(t, &SlotExpectation{HueWord: "green", Verdict: "clean", Computed: "green, clean", Painted: "green, muddy", HueRight: true}, got.Expected, "paint goes before what was computed")
	assert.Equal(t, &SlotExpectation{HueWord: "green", Verdict: "clean", Computed: "orange, clean", VerdictRight: true}, of["orange"].Expected, "with no paint it is as computed")
	assert.Equal(t, "not read", of["red"].Came)
	// What has nothing is an empty list, never null.
	assert.NotNil(t, out.Jumps)
	assert.NotNil(t, out.Suggests)
	assert.NotNil(t, out.Offered)
	assert.NotNil(t, out.Takings)
	assert.NotNil(t, of["red"].Causes)
}

func TestATakingIsShapedWithItsTubesOrItsFilm(t *testing.T) {
	sitting, was, is, undone := int64(7), 1.0, 0.42, time.Now()
	for _, c := range []struct {
		name  string
		of    studio.Taking
		shape Taking
	}{
		{"strengths", studio.Taking{Taking: store.Taking{ID: 1, SittingID: &sitting, Medium: "gouache", Readings: 12, Sittings: 1, Strengths: []store.TakenStrength{{TubeID: 4, Was: 1, Strength: 1.5996, Low: 1.5, High: 1.7}, {TubeID: 5, Was: 1, Strength: 0.9, Low: 0.8, High: 1}, {TubeID: 6, Was: 1, Strength: 1, Low: 0.9, High: 1.1, Kept: true}}}, Named: map[int64]string{4: "night", 6: "day"}},
			Taking{ID: 1, Sitting: 7, Medium: "gouache", From: "12 dry readings of one sitting", Strengths: []TakenStrength{{Tube: 4, Name: "night", Was: 1, Is: 1.6, Low: 1.5, High: 1.7}, {Tube: 5, Name: "a tube that is in the box no more", Was: 1, Is: 0.9, Low: 0.8, High: 1}}, AsBefore: []string{"day"}}},
		{"a film", studio.Taking{Taking: store.Taking{ID: 2, Medium: "acrylic", Readings: 31, Sittings: 3, FilmWas: &was, Film: &is, UndoneAt: &undone}},
			Taking{ID: 2, Medium: "acrylic", From: "31 dry readings of 3 sittings, the evidence deleted since", Undone: true, Film: 0.42, FilmWas: 1, Strengths: []TakenStrength{}, AsBefore: []string{}}},
	} {
		assert.Equal(t, c.shape, TakingOf(c.of), c.name)
	}
	assert.Equal(t, []Taking{}, TakingsOf(nil))
}

func TestASheetOnTheShelfSaysWhatWasRead(t *testing.T) {
	s := painted(t)
	on := studio.OnShelf{SittingEntry: s.SittingEntry, Medium: s.Medium, Title: "wheel", Kind: "triad", Sheet: s.Plan.Sheet, Paints: s.Plan.Sheet.Paints(), Miss: 2.345, Painted: 12}
	for i := range s.Plan.Sheet.Regions {
		on.Colours, on.WasRead = append(on.Colours, colour.Lab{L: 50, A: float64(i), B: 0}), append(on.WasRead, i < 5)
	}
	out := ShelfOf([]studio.OnShelf{on}, 9)
	assert.Equal(t, 9, out.All)
	got := out.Sittings[0]
	assert.Equal(t, 5, got.Read)
	assert.Equal(t, 2.3, got.Miss)
	assert.Len(t, got.Places, 12)
	assert.True(t, got.Places[4].Read)
	assert.False(t, got.Places[5].Read)
	assert.NotEqual(t, got.Places[0].SRGB, got.Places[11].SRGB)
	assert.ElementsMatch(t, []string{"bismuth yellow", "pyrrole red", "ultramarine blue"}, got.Paints)
	assert.Equal(t, []string{}, got.Notes)
	assert.Equal(t, []OnShelf{}, ShelfOf(nil, 0).Sittings)

	beside := SittingsBesideOf(studio.Beside{One: on, Other: on, Says: []string{"the same"}})
	assert.Equal(t, beside.One, beside.Other)
	redrawn := RedrawnOf(studio.Redrawn{Wheel: store.Wheel{ID: 3, Version: 2}, Kept: on, Now: on, Medium: s.Medium, Changes: []studio.Restrengthened{{Paint: s.Plan.Sheet.Paints()[0], Was: 1, Now: 1.02}, {Paint: s.Plan.Sheet.Paints()[1], Was: 1, Now: 1.6}}, Parts: []studio.NewParts{{Slot: "green", Was: "a", Is: "b"}}})
	assert.Equal(t, []bool{false, true}, []bool{redrawn.Changes[0].Much, redrawn.Changes[1].Much})
	assert.Equal(t, redrawn.Kept, redrawn.Now)
	assert.Equal(t, []NewParts{{"green", "a", "b"}}, redrawn.Parts)
}

func TestReadingsOfAFileAreShapedRowByRow(t *testing.T) {
	s := painted(t)
	out := SlotsReadOf(studio.SlotsRead{Sheet: s.Plan.Sheet, In: s.Medium, Wrong: 2}, false)
	assert.Equal(t, []SlotRow{}, out.Rows)
	assert.Equal(t, 2, out.Wrong)
}
