package main

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// The doctor says of each thing whether it is well, and ends with 2 where one is not; nothing is changed by it.
func TestTheDoctorSaysWhatIsNotWell(t *testing.T) {
	url := storetest.Database(t)
	folder := filepath.Join(t.TempDir(), "dumps")
	ask := func(address string) (int, string) {
		t.Helper()
		t.Setenv("DATABASE_URL", address)
		var out, wrong bytes.Buffer
		code := run([]string{"doctor", "--dumps", folder}, &out, &wrong)
		return code, out.String() + wrong.String()
	}
	code, said := ask(url)
	assert.Zero(t, code, said)
	assert.Contains(t, said, "tables: none yet")
	assert.Contains(t, said, "copies: none was kept")

	s, err := store.Open(url)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Migrate(t.Context()))
	require.NoError(t, os.MkdirAll(folder, 0o700))
	code, said = ask(url)
	assert.Zero(t, code, said)
	for _, line := range []string{"well      tables: up to date.", "well      clock: ", "well      permissions: ", "MB are left", "well      pg_dump: ", "paint library 20", "PostgreSQL 1"} {
		assert.Contains(t, said, line)
	}
	assert.NotContains(t, said, "NOT WELL")
	left, err := os.ReadDir(folder)
	require.NoError(t, err)
	assert.Empty(t, left, "it leaves nothing behind")

	require.NoError(t, os.WriteFile(filepath.Join(folder, "a.dump"), nil, 0o600))
	require.NoError(t, os.Chmod(filepath.Join(folder, "a.dump"), 0o644))
	code, said = ask(url)
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "NOT WELL  permissions: others on this machine may read")
	assert.Contains(t, said, "1 thing is not well")
	require.NoError(t, os.Remove(filepath.Join(folder, "a.dump")))

	storetest.Do(t, url, "delete from migrations where id = '202611-devices'")
	code, said = ask(url)
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "older than this program")
	storetest.Do(t, url, "insert into migrations values ('202611-devices'), ('299901-later-narrows')")
	_, said = ask(url)
	assert.Contains(t, said, "by a newer Gyrophane (299901-later-narrows)")
	storetest.Do(t, url, "delete from migrations where id = '299901-later-narrows'; alter table tubes drop column note")
	_, said = ask(url)
	assert.Contains(t, said, "NOT WELL  tables: ")

	for address, says := range map[string]string{"": "DATABASE_URL is not set", "nonsense://": "cannot be read", "postgres://nobody@127.0.0.1:1/none": "does not answer"} {
		code, said = ask(address)
		assert.Equal(t, 2, code, address)
		assert.Contains(t, said, says)
	}
	t.Setenv("PATH", "")
	_, said = ask(url)
	assert.Contains(t, said, "pg_dump: it is not installed here")
}
