package studio

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// Redrawing takes what tubes turned out to be, and leaves those that did not change as they
// were on the wheel's day, of the library of that day.
func TestRedrawingLeavesTheOtherTubesAsTheyWere(t *testing.T) {
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
	c := WheelContent{Name: "Low water", System: wheel.Selection{Kind: wheel.OwnSystem, Roles: [3][]string{{"PY184"}, {"PR254"}, {TubeID(of["PB27"].ID), TubeID(of["PB29"].ID)}}}}
	c.Settings.Medium, c.Settings.Light, c.Settings.Judged = "oil", "D65", "dry"
	w, err := s.NewWheel(t.Context(), ada, c)
	require.NoError(t, err)
	for _, table := range []string{"wheels", "wheel_versions"} {
		storetest.Do(t, address, fmt.Sprintf("update %s set library_version = '%s'", table, then))
	}
	_, err = db.Take(t.Context(), ada.ID, store.Taking{Medium: "oil", Readings: 12, Sittings: 1, Strengths: []store.TakenStrength{{TubeID: of["PB29"].ID, Was: 1, Strength: 1.8, Low: 1.6, High: 2}}}, "", nil)
	require.NoError(t, err)

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
	assert.Equal(t, was.Fingerprint(), blues[0].Fingerprint(), "what did not change is as it was")
	assert.Equal(t, 1.8, blues[1].Strength())
}
