package studio

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// Redrawing takes what tubes turned out to be, and brings all paints of a wheel to the library of
// today: strengths are of one scale.
func TestRedrawingBringsAWheelToToday(t *testing.T) {
	const then = "2026.2" // Prussian blue was refitted since
	db, address := aStore(t)
	s := New(db)
	ada, err := db.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	require.NoError(t, s.AddPaints(t.Context(), ada.ID, []string{"PB27", "PB29"}, "artist"))
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	of := map[string]Tube{}
	for _, tube := range box.Tubes {
		of[tube.Definition.Library] = tube
	}
	c := WheelContent{Name: "Low water", System: wheel.Selection{Kind: wheel.OwnSystem, Roles: [3][]string{{"PY184"}, {"PR254"}, {paint.TubeID(of["PB27"].ID), paint.TubeID(of["PB29"].ID)}}}}
	c.Settings.Medium, c.Settings.Light, c.Settings.Judged = "oil", "D65", "dry"
	w, err := s.NewWheel(t.Context(), ada, c)
	require.NoError(t, err)
	for _, table := range []string{"wheels", "wheel_versions"} {
		storetest.Do(t, address, fmt.Sprintf("update %s set library_version = '%s'", table, then))
	}
	_, err = db.Take(t.Context(), ada.ID, store.Taking{Medium: "oil", Readings: 12, Sittings: 1, Strengths: []store.TakenStrength{{TubeID: of["PB29"].ID, Was: 1, Strength: 1.8, Low: 1.6, High: 2}}}, "", nil)
	require.NoError(t, err)

	redrawn, err := s.Redraw(t.Context(), ada, w.ID)
	require.NoError(t, err)
	assert.Equal(t, "2026.3", redrawn.Library, "the last that had them so")
	assert.NotEmpty(t, redrawn.Parts, "and that its recipes would change")
	_, err = s.RedrawWheel(t.Context(), ada, w.ID, w.Version)
	require.NoError(t, err)
	_, system, err := s.KeptSystem(t.Context(), ada, w.ID)
	require.NoError(t, err)
	was, err := paint.FindOf("PB27", then)
	require.NoError(t, err)
	now, err := paint.Find("PB27")
	require.NoError(t, err)
	require.NotEqual(t, was.Fingerprint(), now.Fingerprint())
	blues := system.Role(2)
	assert.Equal(t, now.Fingerprint(), blues[0].Fingerprint())
	assert.Equal(t, 1.8, blues[1].Strength())
}

// A sitting that was begun before the library changed is learned from with the paints of its day, and
// tubes as strong as they were learned to be: what they explained then they explain now.
func TestASittingOfBeforeAnUpdateMakesNoNewProposal(t *testing.T) {
	const then = "2026.3"
	db, address := aStore(t)
	s, ada, w := atTheBench(t, db)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	storetest.Do(t, address, fmt.Sprintf(`update sittings set plan = replace(plan::text, '"of": "%s"', '"of": "%s"')::jsonb`, paint.LibraryVersion(), then))
	s = New(db)
	before, err := s.Sitting(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	blue := paintOf(before.Plan, "PB29")
	require.Equal(t, then, blue.Version)
	learned, _, err := paint.StrengthIn("PB29", then, paint.LibraryVersion(), 1.8)
	require.NoError(t, err)
	box, err := s.Box(t.Context(), ada.ID)
	require.NoError(t, err)
	require.NotEmpty(t, box.Tubes)
	_, err = db.Take(t.Context(), ada.ID, store.Taking{Medium: "gouache", Readings: 12, Sittings: 1, Strengths: []store.TakenStrength{{TubeID: box.Tubes[0].ID, Was: 1, Strength: learned, Low: 0.9 * learned, High: 1.1 * learned}}}, "", nil)
	require.NoError(t, err)
	readAs(t, s, ada, before, strong(t, before.Medium, map[string]float64{"PB29": 1.8}))
	came, err := s.SittingJournal(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	require.NotNil(t, came.Learning.Learned, came.Learning.TooFew)
	assert.Empty(t, came.Learning.Offered, "%+v", came.Learning.Learned)
	for _, one := range came.Learning.Learned.Strengths {
		assert.Equal(t, paint.LibraryVersion(), one.Paint.Version, "spoken of on the scale of today")
		assert.InEpsilon(t, one.Old, one.New, 0.1, one.Paint.ID)
	}
}
