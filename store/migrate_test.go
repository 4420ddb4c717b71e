package store

import (
	"context"
	"testing"

	"github.com/go-gormigrate/gormigrate/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
)

func TestTriadsOfBeforeBecomeSystemsOfEveryKind(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).MigrateTo("0003_boxes"))
	require.NoError(t, s.db.Exec(`
		insert into painters (name, created_at) values ('Ada', now());
		insert into systems (painter_id, name, kind, roles, created_at, updated_at) values (1, 'Old', 'triad', '{"yellow":"PY74","red":"PR254","blue":"PB29"}', now(), now());
		insert into wheels (painter_id, system_id, name, snapshot, settings, library_version, created_at, updated_at)
			values (1, 1, 'Old', '{"yellow":"PY74","red":"PR254","blue":"PB29"}', '{"spacing":"contrast","medium":"oil","light":"A","judged":"wet"}', '2026.1', now(), now());
		insert into wheel_versions (painter_id, wheel_id, version, name, snapshot, settings, library_version, created_at)
			select painter_id, id, version, name, snapshot, settings, library_version, created_at from wheels;`).Error)
	require.NoError(t, s.Migrate(ctx))

	w, err := s.Wheel(ctx, 1, 1)
	require.NoError(t, err)
	earlier, err := s.WheelHistory(ctx, 1, 1)
	require.NoError(t, err)
	require.Len(t, earlier, 1)
	for _, c := range []WheelContent{w.WheelContent, earlier[0].WheelContent} {
		assert.Equal(t, wheel.RYB, c.Snapshot.System.Kind)
		assert.Equal(t, [3][]string{{"PY74"}, {"PR254"}, {"PB29"}}, c.Snapshot.System.Roles)
		assert.Equal(t, "oil", c.Settings.Medium)
		assert.Equal(t, "contrast", c.Settings.Choices.Spacing)
		assert.Equal(t, "run", c.Settings.Choices.Order)
		assert.False(t, c.Archived)
	}
}
