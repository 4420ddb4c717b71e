package studio

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/recipe"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// This version works on a database that a later one has added to: every table has a column more, and there is a table that it does
// not know. So a process of it goes on, and may be started, while others are replaced.
func TestThisVersionWorksOnTheTablesOfTheNext(t *testing.T) {
	url := storetest.Database(t)
	s, err := store.Open(url)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, s.Migrate(t.Context()))
	storetest.Do(t, url, `
		do $$ declare it record; begin
			for it in select tablename from pg_tables where schemaname = current_schema() and tablename !~ '^river' and tablename <> 'migrations' loop
				execute format('alter table %I add column later text not null default %L', it.tablename, 'said by the next version');
			end loop;
		end $$;
		create table later_things (id bigint primary key, painter_id bigint not null references painters on delete cascade);
		insert into migrations values ('209901-later-things')`)
	require.NoError(t, s.Migrate(t.Context()), "it starts")
	readOnly, err := s.Ready(t.Context())
	require.NoError(t, err)
	assert.False(t, readOnly)
	require.NoError(t, SeedDemo(t.Context(), s))

	of := New(s)
	demo, err := s.PainterByName(t.Context(), "Tide-pool studio")
	require.NoError(t, err)
	wheels, err := s.Wheels(t.Context(), demo.ID)
	require.NoError(t, err)
	begun, err := of.BeginSitting(t.Context(), demo, wheels[0].ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	assert.NotZero(t, begun.ID)
	var file bytes.Buffer
	require.NoError(t, of.Backup(t.Context(), demo, &file))
	ada, err := s.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	_, err = of.RestoreBackup(t.Context(), ada, bytes.NewReader(file.Bytes()), int64(file.Len()), true, nil)
	require.NoError(t, err)
	his, err := of.Belongings(t.Context(), demo)
	require.NoError(t, err)
	hers, err := of.Belongings(t.Context(), ada)
	require.NoError(t, err)
	assert.Equal(t, his, hers)
	require.NoError(t, s.DropPainter(t.Context(), ada.ID))
}
