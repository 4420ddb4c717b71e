package studio

import (
	"bytes"
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// backedUp is all that is kept of a painter as a file.
func backedUp(t *testing.T, s *Studio, p store.Painter) []byte {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, s.Backup(t.Context(), p, &out))
	return out.Bytes()
}

func restored(t *testing.T, s *Studio, p store.Painter, data []byte) store.Restored {
	t.Helper()
	out, err := s.RestoreBackup(t.Context(), p, bytes.NewReader(data), int64(len(data)), true, nil)
	require.NoError(t, err)
	return out
}

// inside is what a file holds with all that only its database knows taken away: things are spoken of by their
// lasting ids.
func inside(t *testing.T, data []byte) (*store.ReadArchive, *store.Archive) {
	t.Helper()
	read, err := store.OpenArchive(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	a := &read.Archive
	a.Made, a.Name = time.Time{}, ""
	tubes, wheels, sittings, photos, changes, rounds := map[string]string{}, map[int64]string{}, map[int64]string{}, map[int64]string{}, map[int64]string{}, map[int64]string{}
	is := func(id string) string { return cmp.Or(tubes[id], id) }
	for i := range a.Changes {
		changes[a.Changes[i].ID], a.Changes[i].ID = a.Changes[i].UID, 0
	}
	for i := range a.Tubes {
		one := &a.Tubes[i]
		tubes[paint.TubeID(one.ID)], one.ID = paint.TubePrefix+one.UID, 0
		for k := range one.Versions {
			v := &one.Versions[k]
			v.ID, v.TubeID = 0, 0
			if v.ChangeID != nil {
				v.Content.Note += " by " + changes[*v.ChangeID]
				v.ChangeID = nil
			}
		}
	}
	for i := range a.Wheels {
		w := &a.Wheels[i]
		wheels[w.ID] = w.UID
		w.ID, w.SystemID, w.Snapshot = 0, 0, w.Snapshot.With(is)
		for k := range w.Versions {
			v := &w.Versions[k]
			v.ID, v.WheelID, v.Snapshot = 0, 0, v.Snapshot.With(is)
		}
		for k := range w.Predictions {
			w.Predictions[k].ID, w.Predictions[k].WheelID = 0, 0
		}
		for k := range w.Printed {
			w.Printed[k].WheelID = 0
		}
	}
	slices.SortFunc(a.Wheels, func(v, w store.ArchivedWheel) int { return strings.Compare(v.UID, w.UID) })
	for i := range a.Sittings {
		one := &a.Sittings[i]
		sittings[one.ID] = one.UID
		one.Name += " of " + wheels[one.WheelID]
		one.ID, one.WheelID, one.Plan = 0, 0, one.Plan.With(is)
		for k := range one.SureTubes {
			one.SureTubes[k] = is(one.SureTubes[k])
		}
		for k := range one.Events {
			e := &one.Events[k]
			e.SittingID, e.Arrived = 0, 0
			for n := range e.Event.Used {
				e.Event.Used[n].Paint = is(e.Event.Used[n].Paint)
			}
		}
		for k := range one.Photos {
			photos[one.Photos[k].ID] = one.Photos[k].UID
			one.Photos[k].ID, one.Photos[k].SittingID = 0, 0
		}
		for k := range one.Readings {
			r := &one.Readings[k]
			r.ID, r.SittingID = 0, 0
			if r.OnPhoto.Photo != 0 {
				r.Doubt += " on " + photos[r.OnPhoto.Photo]
				r.OnPhoto.Photo = 0
			}
		}
	}
	slices.SortFunc(a.Sittings, func(v, w store.ArchivedSitting) int { return strings.Compare(v.UID, w.UID) })
	for i := range a.Takings {
		one := &a.Takings[i]
		one.ID = 0
		if one.SittingID != nil {
			one.Medium += " at " + sittings[*one.SittingID]
			one.SittingID = nil
		}
		for k := range one.Strengths {
			s := &one.Strengths[k]
			s.Library += " of " + is(paint.TubeID(s.TubeID))
			s.TakingID, s.TubeID = 0, 0
		}
		slices.SortFunc(one.Strengths, func(a, b store.TakenStrength) int { return strings.Compare(a.Library, b.Library) })
	}
	for i := range a.Rounds {
		one := &a.Rounds[i]
		rounds[one.ID], one.ID = one.UID, 0
		for k := range one.Pairs {
			one.Pairs[k] = store.Couple{A: is(one.Pairs[k].A), B: is(one.Pairs[k].B)}
		}
	}
	for i := range a.Guesses {
		g := &a.Guesses[i]
		g.ID, g.A, g.B, g.Key = 0, is(g.A), is(g.B), journal.PairKeyWith(g.Key, is)
		if g.RoundID != nil {
			g.Section += " in " + rounds[*g.RoundID]
			g.RoundID = nil
		}
	}
	for i := range a.Marks {
		m := &a.Marks[i]
		if m.A, m.B = is(m.A), is(m.B); m.B < m.A {
			m.A, m.B = m.B, m.A
		}
	}
	slices.SortFunc(a.Marks, func(m, n store.ArchivedMark) int { return strings.Compare(m.A+m.B, n.A+n.B) })
	for i := range a.Wanted {
		a.Wanted[i].ID = 0
	}
	for i := range a.Comparisons {
		c := &a.Comparisons[i]
		c.ID = 0
		for _, id := range store.WheelsOf(c.Address) {
			c.Address = strings.Replace(c.Address, fmt.Sprint(id), wheels[id], 1)
		}
	}
	return read, a
}

func sameInside(t *testing.T, one, other []byte) {
	t.Helper()
	was, a := inside(t, one)
	is, b := inside(t, other)
	assert.Equal(t, a, b)
	for i := range a.Sittings {
		for _, p := range a.Sittings[i].Photos {
			then, err := was.Photo(p.UID)
			require.NoError(t, err)
			now, err := is.Photo(p.UID)
			require.NoError(t, err)
			assert.Equal(t, then, now, "not a pixel is another")
		}
	}
}

// standsStill asserts that restoring a file once more changes nothing.
func standsStill(t *testing.T, s *Studio, p store.Painter, data []byte) {
	t.Helper()
	before := backedUp(t, s, p)
	for _, k := range restored(t, s, p, data).Kinds {
		assert.Zero(t, k.Added+k.Updated+len(k.Beside), "%s: %+v", k.What, k)
	}
	sameInside(t, before, backedUp(t, s, p))
}

func TestTheDemoStudioComesBackAsItWas(t *testing.T) {
	kept, _ := aStore(t)
	require.NoError(t, SeedDemo(t.Context(), kept))
	s := New(kept)
	demo, err := kept.PainterByName(t.Context(), "Tide-pool studio")
	require.NoError(t, err)
	data := backedUp(t, s, demo)
	other, _ := aStore(t)
	there := New(other)
	ada, err := other.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	require.NoError(t, there.AddPaints(t.Context(), ada.ID, []string{"PY65", "PB29"}, "artist")) // ids are others
	eve, err := other.CreatePainter(t.Context(), "Eve", "")
	require.NoError(t, err)

	looked, err := there.RestoreBackup(t.Context(), eve, bytes.NewReader(data), int64(len(data)), false, nil)
	require.NoError(t, err)
	assert.NotZero(t, looked.Kinds[1].Added)
	nothing, err := there.Belongings(t.Context(), eve)
	require.NoError(t, err)
	assert.Zero(t, nothing, "it was only looked at")

	got := restored(t, there, eve, data)
	assert.Equal(t, looked, got, "what was shown is what was done")
	sameInside(t, data, backedUp(t, there, eve))
	standsStill(t, there, eve, data)

	// In a box that was used it all stands beside what was there.
	restored(t, there, ada, data)
	standsStill(t, there, ada, data)
	box, err := there.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	was, err := s.Box(t.Context(), demo.ID)
	require.NoError(t, err)
	assert.Len(t, box.Tubes, len(was.Tubes)+2)
	mine, err := there.Sittings(t.Context(), ada)
	require.NoError(t, err)
	for _, one := range mine {
		_, err := there.SittingJournal(t.Context(), ada, one.ID)
		require.NoError(t, err, "every sitting opens and is explained")
	}
}

// wild does something to a studio, whatever comes to mind.
type wild struct {
	t *testing.T
	s *Studio
	p store.Painter
	r *rand.Rand
	n int
}

func pick[T any](w *wild, of []T) T { return of[w.r.IntN(len(of))] }

// tube is one of the box, or a paint of the library.
func (w *wild) paint(of ...string) string {
	box, err := w.s.Box(w.t.Context(), w.p.ID)
	require.NoError(w.t, err)
	var mine []string
	for _, t := range box.Tubes {
		if slices.Contains(of, t.Definition.Library) {
			mine = append(mine, paint.TubeID(t.ID))
		}
	}
	if len(mine) > 0 && w.r.IntN(3) > 0 {
		return pick(w, mine)
	}
	return pick(w, of)
}

func (w *wild) content() WheelContent {
	c := WheelContent{Name: fmt.Sprintf("Wheel %d of %s", w.n, w.p.Name), System: wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{w.paint("PY65", "PY184")}, {w.paint("PR254", "PR122")}, {w.paint("PB29", "PB15:3")}}}}
	c.Settings.Medium, c.Settings.Light, c.Settings.Judged = pick(w, []string{"gouache", "acrylic"}), "D65", "dry"
	c.Settings.Choices = wheel.UsualChoices()
	c.Settings.Choices.CCW, c.Archived = w.r.IntN(2) == 0, w.r.IntN(5) == 0
	return c
}

func (w *wild) step() {
	w.n++
	t, s, ctx, id := w.t, w.s, w.t.Context(), w.p.ID
	kept := s.store
	wheels, err := kept.Wheels(ctx, id)
	require.NoError(t, err)
	tubes, err := kept.Tubes(ctx, id)
	require.NoError(t, err)
	sittings, err := kept.Sittings(ctx, id)
	require.NoError(t, err)
	does := w.r.IntN(20)
	if len(wheels) == 0 || len(tubes) < 3 {
		does = w.r.IntN(2)
	}
	if len(sittings) == 0 && does >= 14 {
		does = 13
	}
	switch does {
	case 0:
		err = s.AddPaints(ctx, id, []string{pick(w, []string{"PY65", "PY184", "PR254", "PR122", "PB29", "PB15:3"})}, pick(w, []string{"artist", "student"}))
	case 1:
		_, err = s.NewWheel(ctx, w.p, w.content())
	case 2:
		one := pick(w, tubes)
		d := one.Details()
		d.Nickname, d.Note, d.Archived = fmt.Sprintf("tube %d", w.n), "a note", w.r.IntN(4) == 0
		err = s.SaveTube(ctx, id, one.ID, max(one.Version-w.r.IntN(2), 1), d, 0)
		if _, two := err.(store.TubeConflict); two {
			err = nil
		}
	case 3:
		if last, none := kept.LastChange(ctx, id); none == nil {
			_ = kept.UndoBox(ctx, id, last.ID) // a tube may be needed meanwhile
		}
	case 4, 5:
		one := pick(w, wheels)
		_, err = s.SaveWheel(ctx, w.p, one.ID, max(one.Version-w.r.IntN(2), 1), w.content(), 0)
		if _, two := err.(store.WheelConflict); two {
			err = nil
		}
	case 6:
		one := pick(w, wheels)
		if _, err = kept.UndoWheel(ctx, id, one.ID, one.Version); err == store.ErrNothingToUndo {
			err = nil
		}
	case 7:
		one := pick(w, wheels)
		_ = s.Predict(ctx, w.p, one.ID, one.Version, []journal.SlotGuess{{Home: pick(w, []int{2, 6, 10}), HueWord: "green", Verdict: "clean"}}) // some were before
	case 8:
		a, b := w.paint("PY65", "PY184"), w.paint("PB29", "PB15:3")
		_ = s.Mark(ctx, w.p, []Marking{{A: a, B: b, Mark: pick(w, []string{"to paint", "painted"})}}) // some are marked otherwise
	case 9:
		_ = s.Guess(ctx, w.p, 0, path.ByHue, []PairGuess{{A: w.paint("PY65", "PY184"), B: w.paint("PB29", "PB15:3"), Expected: journal.Expected{HueWord: "green", Verdict: "clean", Mud: journal.MudStart{At: 0.25}}}})
	case 10:
		round, beginning := s.BeginRound(ctx, w.p, path.ByHue)
		if beginning == nil {
			for place, pair := range round.Pairs {
				if pair.Guess == nil {
					// A tube that became another since may leave no hue between the two.
					_, _ = s.Answer(ctx, w.p, round.ID, place, journal.Expected{HueWord: "green", Verdict: "softened", Mud: journal.MudStart{Nowhere: true}})
					break
				}
			}
		}
	case 11:
		err = s.Want(ctx, id, []reach.Wanted{{Name: fmt.Sprintf("kelp %d", w.n), Colour: "#556b2f"}})
		if err != nil {
			err = nil // there are enough
		}
	case 12:
		one := pick(w, wheels)
		_, err = kept.KeepComparison(ctx, id, store.Comparison{Address: fmt.Sprintf("systems=%d&rings=1", one.ID), Note: fmt.Sprintf("note %d", w.n), Decision: "the first"}, store.WheelsOf)
	case 13:
		_, err = s.BeginSitting(ctx, w.p, pick(w, wheels).ID, bench.Which{Kind: bench.LadderSheet}, Named{}, recipe.Scale{})
	case 14, 15:
		w.paintSome(pick(w, sittings).ID)
	case 16:
		one := pick(w, sittings)
		err = s.SayNextTime(ctx, w.p, one.ID, one.NextTime, fmt.Sprintf("less water %d", w.n))
	case 17:
		one := pick(w, tubes)
		now, opening := s.open(one)
		require.NoError(t, opening)
		at := pick(w, sittings)
		_, err = kept.Take(ctx, id, store.Taking{SittingID: &at.ID, Medium: "gouache", Readings: 12, Sittings: 1,
			Strengths: []store.TakenStrength{{TubeID: one.ID, Was: now.Paint.Strength(), Strength: 0.5 + w.r.Float64(), Low: 0.4, High: 1.6}}}, "", nil)
	case 18:
		if all, _ := kept.Takings(ctx, id); len(all) > 0 {
			err = kept.UndoTaking(ctx, id, pick(w, all).ID, w.r.IntN(2) == 0)
		}
	case 19:
		if all, _ := kept.Comparisons(ctx, id); len(all) > 0 {
			one := pick(w, all)
			one.Note = fmt.Sprintf("another %d", w.n)
			err = kept.NoteComparison(ctx, id, one, store.WheelsOf)
		}
	}
	require.NoError(t, err, "%d", does)
}

// paintSome tells a sitting that something was painted, and reads it.
func (w *wild) paintSome(id int64) {
	at, err := w.s.Sitting(w.t.Context(), w.p, id)
	require.NoError(w.t, err)
	region := pick(w, at.Plan.Sheet.Regions)
	now := time.Now()
	_, untold, err := w.s.Tell(w.t.Context(), w.p, id, []Told{
		{Event: bench.Event{ID: fmt.Sprintf("%s mixed %d", w.p.UID[:8], w.n), Kind: bench.Mixed, At: now, Region: region.ID, Well: 1, Used: []bench.Used{{Paint: at.Plan.Sheet.Paints()[0].ID, Amount: 2}}}, Device: "tablet", Number: int64(w.n)},
		{Event: bench.Event{ID: fmt.Sprintf("%s painted %d", w.p.UID[:8], w.n), Kind: pick(w, []bench.EventKind{bench.Painted, bench.Noted, bench.Ended}), At: now, Region: region.ID, Text: "a note"}, Device: "tablet", Number: int64(w.n)},
	})
	require.NoError(w.t, err)
	require.Empty(w.t, untold)
	require.NoError(w.t, w.s.KeepReadings(w.t.Context(), w.p, id, []NewReading{{Region: region.ID, Lab: colour.Lab{L: 50, A: float64(w.n % 40), B: 10}, Source: paint.Eye, Dry: true, Told: fmt.Sprintf("read %d of %s", w.n, w.p.UID[:8])}}))
}

func steps() int {
	if testing.Short() {
		return 30
	}
	return 120
}

func TestWildStudiosComeBackAsTheyWere(t *testing.T) {
	for seed := range uint64(3) {
		here, _ := aStore(t)
		ada, err := here.CreatePainter(t.Context(), "Ada", "")
		require.NoError(t, err)
		w := &wild{t: t, s: New(here), p: ada, r: rand.New(rand.NewPCG(seed, 32))}
		for range steps() {
			w.step()
		}
		data := backedUp(t, w.s, ada)
		there, _ := aStore(t)
		_, err = there.CreatePainter(t.Context(), "Nobody", "") // so that ids are others
		require.NoError(t, err)
		eve, err := there.CreatePainter(t.Context(), "Eve", "")
		require.NoError(t, err)
		s := New(there)
		restored(t, s, eve, data)
		sameInside(t, data, backedUp(t, s, eve))
		standsStill(t, s, eve, data)
	}
}

// Two who work on from one state and take each other's backups in lose nothing, and what only one of them went on
// with is the same for both.
func TestTwoWhoWorkOnFromOneBackupLoseNothing(t *testing.T) {
	for seed := range uint64(3) {
		one, _ := aStore(t)
		ada, err := one.CreatePainter(t.Context(), "Ada", "")
		require.NoError(t, err)
		home := &wild{t: t, s: New(one), p: ada, r: rand.New(rand.NewPCG(seed, 1))}
		for range steps() / 2 {
			home.step()
		}
		other, _ := aStore(t)
		again, err := other.CreatePainter(t.Context(), "Ada", "")
		require.NoError(t, err)
		away := &wild{t: t, s: New(other), p: again, r: rand.New(rand.NewPCG(seed, 2)), n: 1000}
		restored(t, away.s, again, backedUp(t, home.s, ada))
		for range steps() / 4 {
			home.step()
			away.step()
		}
		for range 2 { // and once more, for what went two ways
			fromHome := backedUp(t, home.s, ada)
			restored(t, away.s, again, fromHome)
			standsStill(t, away.s, again, fromHome)
			fromAway := backedUp(t, away.s, again)
			restored(t, home.s, ada, fromAway)
			standsStill(t, home.s, ada, fromAway)
			holdsAll(t, fromHome, backedUp(t, away.s, again))
			holdsAll(t, fromAway, backedUp(t, home.s, ada))
			home.step()
		}
	}
}

// holdsAll asserts that all that one file holds of what is never changed is in another.
func holdsAll(t *testing.T, of, in []byte) {
	t.Helper()
	_, a := inside(t, of)
	_, b := inside(t, in)
	names := func(a *store.Archive, all bool) map[string]bool {
		out := map[string]bool{}
		for i := range a.Tubes {
			out["tube "+a.Tubes[i].UID] = true
			of := &a.Tubes[i]
			out["what a tube is: "+of.Nickname] = true
			if all {
				for _, v := range of.Versions {
					out["what a tube is: "+v.Content.Nickname] = true
				}
			}
		}
		for i := range a.Wheels {
			for _, v := range a.Wheels[i].Versions {
				out["wheel as "+strings.TrimSuffix(v.Name, ", the other way")] = true
			}
			for _, p := range a.Wheels[i].Predictions {
				out["prediction "+p.UID] = true
			}
		}
		for i := range a.Sittings {
			for _, e := range a.Sittings[i].Events {
				out["event "+e.EventID] = true
			}
			for _, r := range a.Sittings[i].Readings {
				out["reading "+r.UID] = true
			}
			for _, line := range strings.Split(a.Sittings[i].NextTime, "\n") {
				out["next time "+line] = true
			}
		}
		for i := range a.Takings {
			out["taking "+a.Takings[i].UID] = true
		}
		for _, g := range a.Guesses {
			if !strings.Contains(g.Section, " in ") {
				out["guess "+g.Key] = true // the same may be guessed on both sides, once counts
			} else {
				out["guess "+g.UID] = true
			}
		}
		for _, w := range a.Wanted {
			out["wanted "+w.UID] = true
		}
		for i := range a.Comparisons {
			out["comparison "+a.Comparisons[i].Note] = true
		}
		return out
	}
	there := names(b, true)
	for name := range names(a, false) {
		if strings.HasPrefix(name, "next time") || strings.HasPrefix(name, "comparison") {
			continue // what came later stands in its place
		}
		assert.True(t, there[name], "%s was lost", name)
	}
}
