package studio

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

func TestAKeptWheelKeepsTheLibraryPaintsOfItsDay(t *testing.T) {
	const then = "2026.2" // Prussian blue was refitted since, and Burnt sienna was not
	kept, address := aStore(t)
	s := New(kept)
	ctx := t.Context()
	ada, err := kept.CreatePainter(ctx, "Ada", "")
	require.NoError(t, err)
	require.NoError(t, s.AddPaints(ctx, ada.ID, []string{"PB27"}, "artist"))
	box, err := s.Box(ctx, ada.ID)
	require.NoError(t, err)
	tube := paint.TubeID(box.Tubes[0].ID)

	content := func(name string, blues ...string) WheelContent {
		c := WheelContent{Name: name, System: wheel.Selection{Kind: wheel.OwnSystem, Roles: [3][]string{{"PY184"}, {"PBr7-burnt-sienna"}, blues}}}
		c.Settings.Medium, c.Settings.Light, c.Settings.Judged = "oil", "D65", "dry"
		return c
	}
	w, err := s.NewWheel(ctx, ada, content("Low water", "PB27", tube))
	require.NoError(t, err)
	db, err := gorm.Open(postgres.Open(address))
	require.NoError(t, err)
	for _, table := range []string{"wheels", "wheel_versions"} {
		require.NoError(t, db.Exec(fmt.Sprintf("update %s set library_version = ?", table), then).Error)
	}
	raw, err := db.DB()
	require.NoError(t, err)
	require.NoError(t, raw.Close())

	was, err := paint.FindOf("PB27", then)
	require.NoError(t, err)
	now, err := paint.Find("PB27")
	require.NoError(t, err)
	blues := func() []uint64 {
		_, system, err := s.KeptSystem(ctx, ada, w.ID)
		require.NoError(t, err)
		var out []uint64
		for _, p := range system.Role(2) {
			out = append(out, p.Fingerprint())
		}
		return out
	}
	old, today := was.Fingerprint(), now.Fingerprint()
	assert.Equal(t, []uint64{old, old}, blues(), "of the library and of the box")

	for version, name := range []string{"High water", "Ebb"} {
		_, err = s.SaveWheel(ctx, ada, w.ID, version+1, content(name, "PB27", tube), 0)
		require.NoError(t, err)
		assert.Equal(t, []uint64{old, old}, blues(), "a new name changes no paint")
	}
	found, err := s.Paints(ctx, As(ada), w.ID, "PB27", "PV23")
	require.NoError(t, err)
	violet, err := paint.Find("PV23")
	require.NoError(t, err)
	assert.Equal(t, []uint64{old, violet.Fingerprint()}, []uint64{found[0].Fingerprint(), found[1].Fingerprint()}, "what comes new into it is today's")

	_, err = s.SaveWheel(ctx, ada, w.ID, 3, content("Ebb", "PB29"), 0)
	require.NoError(t, err)
	_, err = s.SaveWheel(ctx, ada, w.ID, 4, content("Ebb", "PB27"), 0)
	require.NoError(t, err)
	assert.Equal(t, []uint64{today}, blues(), "chosen anew, it is as it is now")
}
