package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// Before the tables are brought up to date what they hold is kept, the last two times.
func TestADumpIsKeptBeforeTheTablesChange(t *testing.T) {
	url := storetest.Database(t)
	s, err := store.Open(url)
	require.NoError(t, err)
	defer s.Close()
	folder := filepath.Join(t.TempDir(), "dumps")
	require.NoError(t, dumpBefore(t.Context(), s, url, folder))
	assert.NoDirExists(t, folder, "nothing is held yet")
	require.NoError(t, s.Migrate(t.Context()))
	require.NoError(t, dumpBefore(t.Context(), s, url, folder))
	assert.NoDirExists(t, folder, "it is up to date")

	// As an older program left it.
	require.NoError(t, os.MkdirAll(folder, 0o700))
	for _, old := range []string{"20250101-000000-before-a.dump", "20250102-000000-before-b.dump"} {
		require.NoError(t, os.WriteFile(filepath.Join(folder, old), nil, 0o600))
	}
	storetest.Do(t, url, "delete from migrations where id = '202611-owner-keys'")
	require.NoError(t, dumpBefore(t.Context(), s, url, folder))
	kept, err := filepath.Glob(filepath.Join(folder, "*"))
	require.NoError(t, err)
	require.Len(t, kept, mostDumps)
	assert.Contains(t, kept[0], "before-b")
	assert.Contains(t, kept[1], "before-202611-owner-keys")
	content, err := os.ReadFile(kept[1])
	require.NoError(t, err)
	assert.Equal(t, "PGDMP", string(content[:5]))

	// Where none can be kept it waits, and says what to do.
	err = dumpBefore(t.Context(), s, url, filepath.Join(kept[1], "no folder"))
	assert.ErrorAs(t, err, new(errWaits))
	assert.ErrorContains(t, err, "--migrate")
	t.Setenv("PATH", "")
	err = dumpBefore(t.Context(), s, url, folder)
	assert.ErrorAs(t, err, new(errWaits))
	assert.ErrorContains(t, err, "pg_dump is not installed")
	s.Waits(err)
	_, err = s.Ready(t.Context())
	assert.ErrorContains(t, err, "--migrate")
}

func TestFreeDiskIsKnownWhereTheFolderIsHere(t *testing.T) {
	bytes, known := free(t.TempDir())
	assert.True(t, known)
	assert.Positive(t, bytes)
	_, known = free("/nowhere/at/all")
	assert.False(t, known)
}
