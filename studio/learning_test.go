package studio

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/photo"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/devices"
	"gyrophane/store"
)

// readAs gives a sitting readings of all its places with a meter, dry, as looks has them.
func readAs(t *testing.T, s *Studio, who store.Painter, of Sitting, looks func(r *bench.Region) colour.Lab) {
	t.Helper()
	var reads []NewReading
	for i := range of.Plan.Sheet.Regions {
		r := &of.Plan.Sheet.Regions[i]
		reads = append(reads, NewReading{Region: r.ID, Lab: looks(r), Source: paint.Instrument})
	}
	require.NoError(t, s.KeepReadings(t.Context(), who, of.ID, reads))
}

// strong are the colours of places whose tubes are so many times as strong, by what they
// are called in short.
func strong(t *testing.T, in paint.Medium, times map[string]float64) func(r *bench.Region) colour.Lab {
	return func(r *bench.Region) colour.Lab {
		parts := r.Recipe.Plain()
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if g := times[parts[n].Paint.Code()]; g > 0 {
				return g
			}
			return 1
		})
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		return look.Lab()
	}
}

func TestSittingsThatShareTubesAreLearnedFromTogether(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begin := func() Sitting {
		out, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
		require.NoError(t, err)
		return out
	}
	one, two := begin(), begin()
	times := map[string]float64{"PB29": 1.8}
	readAs(t, s, ada, one, strong(t, one.Medium, times))
	readAs(t, s, ada, two, strong(t, two.Medium, times))
	came, err := s.SittingJournal(t.Context(), ada, one.ID)
	require.NoError(t, err)
	assert.Equal(t, 2, came.Learning.Sittings)
	require.Len(t, came.Learning.Offered, 1, "the blue alone")
	var seen []Seen
	for _, o := range came.Learning.Offered {
		seen = append(seen, Seen{o.Paint.ID, o.New})
	}
	reminds := func() string {
		got, err := s.Reminder(t.Context(), ada, w.ID)
		require.NoError(t, err)
		require.NotNil(t, got)
		return got.Says
	}
	k := slices.IndexFunc(came.Suggests, func(says string) bool { return strings.HasPrefix(says, "Less ultramarine blue: the tube is") })
	require.GreaterOrEqual(t, k, 0, "%v", came.Suggests)
	require.NoError(t, s.SayNextTime(t.Context(), ada, two.ID, "", "Rinse well. "+came.Suggests[k]))
	assert.Equal(t, "Rinse well. "+came.Suggests[k], reminds())
	require.NotNil(t, came.Learning.Knows)
	knows := *came.Learning.Knows
	assert.Less(t, knows.Now, 0.5*knows.Before, "by two wheels and a meter")
	require.NoError(t, s.TakeStrengths(t.Context(), ada, one.ID, seen, 0))
	assert.Equal(t, "Rinse well.", reminds(), "what was taken is asked for no more")
	since, err := s.SittingJournal(t.Context(), ada, one.ID)
	require.NoError(t, err)
	assert.NotContains(t, since.Suggests, came.Suggests[k])
	assert.True(t, since.Learning.Kept)
	assert.ErrorContains(t, s.TakeStrengths(t.Context(), ada, one.ID, nil, 0), "is kept already")

	// The tube of the wheel is the box's own; the others stay as they were.
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	require.Len(t, box.Tubes, 1)
	redrawn, err := s.Redraw(t.Context(), ada, w.ID)
	require.NoError(t, err)
	require.Len(t, redrawn.Changes, 1)
	assert.Equal(t, "PB29", redrawn.Changes[0].Paint.Code(), "the one that changed most first")
	assert.NotEmpty(t, redrawn.Parts)

	// A sitting that begins now is of the wheel as it was kept; after redrawing, of the tubes. A paint that the box has no
	// tube of is known as its class is.
	_, err = s.RedrawWheel(t.Context(), ada, w.ID, w.Version)
	require.NoError(t, err)
	who := func(context.Context) (store.Painter, error) { return ada, nil }
	doubts, err := s.Doubts(t.Context(), who)
	require.NoError(t, err)
	blue := box.Tubes[0].Paint
	known := doubts(blue)
	require.NotNil(t, known.Learned)
	assert.Less(t, known.Shade, certainty.Usual(blue).Shade, "its shade too")
	require.NoError(t, s.UndoTaking(t.Context(), ada, since.Takings[0].ID, true))
	doubts, err = s.Doubts(t.Context(), who)
	require.NoError(t, err)
	assert.Equal(t, certainty.LibraryArtist.Doubt(), doubts(blue), "it was taken back")
	require.NoError(t, s.UndoTaking(t.Context(), ada, since.Takings[0].ID, false))
	three := begin()
	for _, p := range three.Plan.Sheet.Paints() {
		if p.Code() == "PB29" {
			assert.Greater(t, p.Strength(), 1.2)
		}
	}
	assert.Equal(t, 1.0, paintOf(one.Plan, "PB29").Strength(), "what was begun is as it was")
	assert.True(t, one.Began.Before(time.Now()))
}

func paintOf(p *bench.Plan, code string) *paint.Paint {
	for _, one := range p.Sheet.Paints() {
		if one.Code() == code {
			return one
		}
	}
	return nil
}

// A film that is laid thin is learned where tints hold the strengths, and what is planned
// from then on is computed with it.
func TestAFilmIsTakenInThePlaceOfStrengths(t *testing.T) {
	s, kept, ada, _ := aStudio(t)
	c := WheelContent{Name: "Thin", System: wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{"PY184"}, {"PR122"}, {"PB15:3"}}, Riders: wheel.RiderIDs{White: "PW6"}}}
	c.Settings.Medium, c.Settings.Light, c.Settings.Judged = "acrylic", "D65", "dry"
	c.Settings.Choices = wheel.UsualChoices()
	c.Settings.Choices.Tints, c.Settings.Choices.TintBy = 1, "white"
	w, err := s.NewWheel(t.Context(), ada, c)
	require.NoError(t, err)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	usual := begun.Medium
	readAs(t, s, ada, begun, strong(t, usual.WithFilm(0.3), nil))
	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	film := came.Learning.Film
	require.NotNil(t, film)
	assert.InDelta(t, 0.3, film.New, 0.05)
	assert.Empty(t, came.Learning.Offered, "never both")
	assert.ErrorContains(t, s.TakeStrengths(t.Context(), ada, begun.ID, nil, 0.9), "since you looked")
	require.NoError(t, s.TakeStrengths(t.Context(), ada, begun.ID, nil, film.New))

	again, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	assert.InDelta(t, 0.3*usual.Thickness, again.Medium.Thickness, 0.05*usual.Thickness)
	reopened, err := New(kept).Sitting(t.Context(), ada, again.ID)
	require.NoError(t, err)
	assert.InDelta(t, again.Medium.Thickness, reopened.Medium.Thickness, 1e-9)
	old, err := New(kept).Sitting(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Equal(t, usual.Thickness, old.Medium.Thickness, "what was painted stays as it was")
	takings, err := s.Takings(t.Context(), ada)
	require.NoError(t, err)
	require.Len(t, takings, 1)
	require.NoError(t, s.UndoTaking(t.Context(), ada, takings[0].ID, true))
	third, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	assert.Equal(t, usual.Thickness, third.Medium.Thickness)
}

// A place into which something got says nothing of its tubes.
func TestWhatGotIntoAPlaceIsLeftOutOfLearning(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	blue := paintOf(begun.Plan, "PB29")
	pure := strong(t, begun.Medium, nil)
	readAs(t, s, ada, begun, func(r *bench.Region) colour.Lab {
		if r.ID != "yellow-orange" {
			return pure(r)
		}
		m, err := paint.Mix(append(r.Recipe.Plain(), paint.Part{Paint: blue, Parts: 0.08 * r.Recipe.Total()})...)
		require.NoError(t, err)
		look := m.AsPainted(begun.Medium, false)
		return look.Lab()
	})
	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Equal(t, 1, came.Learning.LeftOut)
	assert.Equal(t, 11, came.Learning.Learned.Samples)
	assert.False(t, came.Learning.Learned.Proposed)
	assert.Contains(t, came.Suggests[0], "Rinse before the yellow-orange")
	a, err := s.Account(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Len(t, a.Readings, 12)
	assert.Empty(t, a.Says)
}

func TestAPlanIsAtThePaintersOwnPace(t *testing.T) {
	s, kept, ada, w := aStudio(t)
	plan := func() Planned {
		of, system, err := s.KeptSystem(t.Context(), ada, w.ID)
		require.NoError(t, err)
		in, err := paint.ParseMedium("gouache")
		require.NoError(t, err)
		out, err := s.Plan(t.Context(), As(ada), Sheet{Wheel: w.ID, System: system, Choices: of.Settings.Choices}, in, 0)
		require.NoError(t, err)
		return out
	}
	before := plan()
	assert.Zero(t, before.Own.HandPace)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	// A sitting of a slow hand, as its events would be kept.
	at := begun.Began
	var rows []store.SittingEvent
	tell := func(minutes float64, e bench.Event) {
		at = at.Add(time.Duration(minutes * float64(time.Minute)))
		e.ID = string(rune('a' + len(rows)))
		rows = append(rows, store.SittingEvent{EventID: e.ID, At: at, Event: e})
	}
	tell(0, bench.Event{Kind: bench.LaidOut})
	for _, i := range before.Order {
		if i%2 == 0 {
			tell(9, bench.Event{Kind: bench.Painted, Region: before.Sheet.Regions[i].ID})
		}
	}
	tell(1, bench.Event{Kind: bench.Ended})
	_, err = kept.TellSitting(t.Context(), ada.ID, begun.ID, rows, func([]store.SittingEvent) (bool, error) { return true, nil })
	require.NoError(t, err)
	after := plan()
	assert.Greater(t, after.Own.HandPace, 1.5)
	assert.Greater(t, after.Minutes, before.Minutes)
}

// What was mixed from pans by looks is read and compared, and never learned from.
func TestNothingIsLearnedFromWhatWasMixedByLooks(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{Measure: recipe.ByLooks})
	require.NoError(t, err)
	readAs(t, s, ada, begun, strong(t, begun.Medium, map[string]float64{"PB29": 2}))
	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	mixed := 0
	for _, p := range came.Places {
		require.NotNil(t, p.Explained)
		if len(begun.Plan.Sheet.Regions[p.Region].Recipe.Plain()) > 1 {
			mixed++
		}
	}
	assert.Equal(t, mixed, came.Learning.LeftOut)
	assert.Empty(t, came.Learning.Offered)
}

// A painter with more sittings than can be explained while one waits opens the log all the
// same: it says that they are being looked at, each is explained once, and the file of a
// sitting does not wait for them.
func TestManyWildSittingsAreExplainedApart(t *testing.T) {
	s, db, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	kept, _, err := db.Sitting(t.Context(), ada.ID, begun.ID)
	require.NoError(t, err)
	ids := []int64{begun.ID}
	for range 11 {
		more, err := db.BeginSitting(t.Context(), ada.ID, store.Sitting{WheelID: w.ID, Name: kept.Name, Plan: kept.Plan})
		require.NoError(t, err)
		ids = append(ids, more.ID)
	}
	r := rand.New(rand.NewPCG(26, 10))
	for _, id := range ids {
		var reads []NewReading
		for i := range begun.Plan.Sheet.Regions {
			reads = append(reads, NewReading{Region: begun.Plan.Sheet.Regions[i].ID, Lab: colour.Lab{L: 30 + 40*r.Float64(), A: 60*r.Float64() - 30, B: 60*r.Float64() - 30}, Source: paint.Photo})
		}
		require.NoError(t, s.KeepReadings(t.Context(), ada, id, reads))
	}
	// Somebody else has the turn: nothing of ada's is explained meanwhile.
	s.explaining.turn <- struct{}{}
	came, err := s.SittingJournal(t.Context(), ada, ids[0])
	require.NoError(t, err)
	assert.True(t, came.Learning.Working)
	assert.Contains(t, came.Learning.TooFew, "still being looked at")
	assert.NotNil(t, came.Places[0].Explained, "its own places are there")
	account, err := s.Account(t.Context(), ada, ids[0])
	require.NoError(t, err)
	assert.Len(t, account.Readings, len(begun.Plan.Sheet.Regions))
	assert.ErrorContains(t, s.TakeStrengths(t.Context(), ada, ids[0], nil, 0), "still being looked at")
	became, err := s.Expectations(t.Context(), ada)
	require.NoError(t, err)
	assert.True(t, became.Working)

	<-s.explaining.turn
	require.Eventually(t, func() bool {
		came, err = s.SittingJournal(t.Context(), ada, ids[0])
		return err == nil && !came.Learning.Working
	}, time.Minute, 10*time.Millisecond)
	assert.Equal(t, len(ids), came.Learning.Sittings)
	// Once explained they need no turn.
	s.explaining.turn <- struct{}{}
	came, err = s.SittingJournal(t.Context(), ada, ids[1])
	require.NoError(t, err)
	assert.True(t, came.Learning.Working, "the first has not been asked for among the others yet")
	<-s.explaining.turn
	require.Eventually(t, func() bool {
		came, err = s.SittingJournal(t.Context(), ada, ids[1])
		return err == nil && !came.Learning.Working
	}, time.Minute, 10*time.Millisecond)
	s.explaining.turn <- struct{}{}
	came, err = s.SittingJournal(t.Context(), ada, ids[2])
	require.NoError(t, err)
	assert.False(t, came.Learning.Working)
	<-s.explaining.turn
}

// A photo of the phone's making is kept as it was seen, with its bare paper and greys; what it does to
// colours is taken out of what is shown and learned, also when the photo itself is deleted.
func TestWhatAPhoneDoesIsTakenOut(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	rendering, err := devices.ParseRendering("phone")
	require.NoError(t, err)
	kept, err := s.StandinPhoto(t.Context(), ada, begun.ID, devices.Shot{Seed: 3, W: 1000, H: 750, Rendering: rendering})
	require.NoError(t, err)
	got, err := s.ReadPhoto(t.Context(), ada, begun.ID, kept.ID, HowRead{Step: devices.GreyStep})
	require.NoError(t, err)
	require.NoError(t, got.Refused)
	require.Len(t, got.Told.Photos, 1)
	assert.Contains(t, got.Told.Photos[0].Says(), "adds contrast and colour")
	require.NotNil(t, got.Read.Greys.Ink)
	var reads []NewReading
	for _, r := range got.Read.Readings {
		reads = append(reads, NewReading{Region: got.Sheet.Regions[r.Region].ID, Lab: r.Lab, Source: paint.Photo, Dry: true, Spread: r.Spread, Doubt: r.Doubt, On: OnPhoto{Photo: kept.ID, Light: r.Light, Greys: got.Read.Greys, Step: devices.GreyStep}})
	}
	require.NoError(t, s.KeepReadings(t.Context(), ada, begun.ID, reads))
	require.NoError(t, s.DropPhoto(t.Context(), ada, begun.ID, kept.ID))

	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	require.Len(t, came.Bent, 1)
	assert.Empty(t, came.Learning.Offered, "the tubes are as they were taken to be")
	asSeen, taken := 0.0, 0.0
	back, err := s.Reads(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	for i, r := range back.Readings {
		assert.Equal(t, reads[i].Lab, r.AsSeen)
		if r.Doubt == "" {
			computed := came.Places[i].Computed
			asSeen, taken = asSeen+colour.Difference(r.AsSeen, computed), taken+colour.Difference(r.Lab, computed)
			assert.Equal(t, r.Lab, came.Places[i].Dry.Lab)
		}
	}
	assert.Less(t, taken, 0.5*asSeen)

	for says, on := range map[string]OnPhoto{
		"which no grey does":      {Photo: 1, Light: [3]float64{0.7, 0.7, 0.7}, Greys: photo.Greys{Ink: &photo.Grey{Lab: colour.Lab{L: 900}, Light: [3]float64{0.7, 0.7, 0.7}}}},
		"each channel of it lies": {Photo: 1, Light: [3]float64{0.7, math.NaN(), 0.7}},
		"the grey step reflects":  {Photo: 1, Light: [3]float64{0.7, 0.7, 0.7}, Step: 3},
	} {
		err := s.KeepReadings(t.Context(), ada, begun.ID, []NewReading{{Region: reads[0].Region, Lab: reads[0].Lab, Source: paint.Photo, On: on}})
		assert.ErrorContains(t, err, says)
	}
}

// Where a tube behaves as another paint nothing is offered before the painter says which it is.
func TestAWrongTubeIsAnsweredBeforeAnythingIsLearned(t *testing.T) {
	s, _, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	lemon, err := paint.Find("PY3")
	require.NoError(t, err)
	readAs(t, s, ada, begun, func(r *bench.Region) colour.Lab {
		parts := r.Recipe.Plain()
		for n := range parts {
			if parts[n].Paint.ID == "PY65" {
				parts[n].Paint = lemon
			}
		}
		m, err := paint.Mix(parts...)
		require.NoError(t, err)
		look := m.AsPainted(begun.Medium, false)
		return look.Lab()
	})
	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	open := journal.Unsettled(came.Overall)
	require.Len(t, open, 1)
	assert.Equal(t, "PY65", open[0].Paint.ID)
	assert.Contains(t, open[0].Says, "arylide yellow light")
	assert.Empty(t, came.Learning.Offered)

	require.ErrorContains(t, s.SaySure(t.Context(), ada, begun.ID, "PY3", true), "no paint")
	require.NoError(t, s.SaySure(t.Context(), ada, begun.ID, "PY65", true))
	require.NoError(t, s.SaySure(t.Context(), ada, begun.ID, "", true))
	came, err = s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.True(t, came.Sitting.Sure.Light)
	assert.Equal(t, []string{"PY65"}, came.Sitting.Sure.Tubes)
	assert.Equal(t, certainty.LibraryArtist.Doubt(), came.Sitting.Sure.Doubts(painttest.Paint("PB29")), "explained by what is not known of the box's tubes")
	assert.False(t, slices.ContainsFunc(came.Overall, func(c journal.Cause) bool { return c.Kind == journal.WrongTube && c.Paint.ID == "PY65" }))
	require.NoError(t, s.SaySure(t.Context(), ada, begun.ID, "PY65", false))
	came, err = s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.NotEmpty(t, journal.Unsettled(came.Overall))

	// A tube of it that comes into the box is the one that was answered for, and no other sitting asks again.
	require.NoError(t, s.SaySure(t.Context(), ada, begun.ID, "PY65", true))
	require.NoError(t, s.AddPaints(t.Context(), ada.ID, []string{"PY65"}, "artist"))
	asks := func(id int64) bool {
		came, err := s.SittingJournal(t.Context(), ada, id)
		require.NoError(t, err)
		require.NotNil(t, came.Learning.Learned)
		named := func(c journal.Cause) bool { return c.Kind == journal.WrongTube && c.Paint.CI == "PY65" }
		assert.Equal(t, slices.ContainsFunc(came.Learning.Learned.Overall, named), slices.ContainsFunc(came.Overall, named), "what is open can be answered")
		return slices.ContainsFunc(came.Overall, named)
	}
	assert.False(t, asks(begun.ID))
	second, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	readAs(t, s, ada, second, strong(t, second.Medium, nil))
	assert.False(t, asks(second.ID))

	bob, err := s.store.CreatePainter(t.Context(), "Bob", "")
	require.NoError(t, err)
	assert.ErrorIs(t, s.SaySure(t.Context(), bob, begun.ID, "", true), store.ErrNotFound)
	assert.ErrorIs(t, s.SaySure(t.Context(), bob, begun.ID, "PY65", true), store.ErrNotFound)
}
