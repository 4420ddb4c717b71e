package main

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
	"gyrophane/studio"
)

// inhabited is a database of the demo studio and of a painter with a passphrase.
func inhabited(t *testing.T) (s *store.Store, url string) {
	t.Helper()
	url = storetest.Database(t)
	s, err := store.Open(url)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, s.Migrate(t.Context()))
	require.NoError(t, studio.SeedDemo(t.Context(), s))
	ada, err := s.CreatePainter(t.Context(), "Ada, of the pools", "let it dry first")
	require.NoError(t, err)
	require.NoError(t, studio.New(s).AddPaints(t.Context(), ada.ID, []string{"PB29"}, "artist"))
	return s, url
}

// said runs a command on a database.
func said(t *testing.T, url string, args ...string) (code int, words string) {
	t.Helper()
	t.Setenv("DATABASE_URL", url)
	var out, wrong bytes.Buffer
	code = run(args, &out, &wrong)
	return code, out.String() + wrong.String()
}

// holdings are what is kept of the painter of a name.
func holdings(t *testing.T, s *store.Store, name string) store.Belongings {
	t.Helper()
	p, err := s.PainterByName(t.Context(), name)
	require.NoError(t, err)
	out, err := s.Belongings(t.Context(), p.ID)
	require.NoError(t, err)
	out.Bytes = 0 // about
	return out
}

func TestAPainterIsBackedUpAndRestoredFromTheCommandLine(t *testing.T) {
	s, url := inhabited(t)
	file := filepath.Join(t.TempDir(), "tide.zip")
	code, words := said(t, url, "backup", "--painter", "tide-pool studio", file)
	require.Zero(t, code, words)
	info, err := os.Stat(file)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "its owner alone reads it")

	code, words = said(t, url, "restore", file, "--painter", "Eve")
	assert.Equal(t, 2, code)
	assert.Contains(t, words, "nobody of that name")
	code, words = said(t, url, "restore", file, "--painter", "Eve", "--new", "--look")
	require.Zero(t, code, words)
	assert.Contains(t, words, "Nothing was changed")
	assert.Zero(t, holdings(t, s, "Eve"))
	code, words = said(t, url, "restore", file, "--painter", "Eve")
	require.Zero(t, code, words)
	assert.Contains(t, words, "sittings: 3 new")
	assert.Equal(t, holdings(t, s, "Tide-pool studio"), holdings(t, s, "Eve"))
	code, words = said(t, url, "restore", file, "--painter", "Eve")
	require.Zero(t, code, words)
	assert.Contains(t, words, "sittings: 0 new, 0 brought up to date, 3 stay as they are")

	for _, c := range []struct {
		args []string
		says string
	}{
		{[]string{"backup", "--painter", "Eve"}, "name the file"},
		{[]string{"backup", "--painter", "Eve", "--all", t.TempDir()}, "--all takes everybody"},
		{[]string{"backup", "--painter", "Eve", filepath.Join(file, "under")}, "not a directory"},
		{[]string{"backup", file}, "name one with --painter"},
		{[]string{"backup", "--all", t.TempDir(), "--nights", "0"}, "1 to 3660 days"},
		{[]string{"restore", "--painter", "Eve"}, "name the file"},
		{[]string{"restore", "--painter", "Eve", filepath.Join(t.TempDir(), "none.zip")}, "no such file"},
		{[]string{"restore", "--painter", "Eve", "backup_test.go"}, "no whole backup"},
		{[]string{"restore", "--all", t.TempDir()}, "holds tables already"},
	} {
		code, words = said(t, url, c.args...)
		assert.Equal(t, 2, code, "%v", c.args)
		assert.Contains(t, words, c.says, "%v", c.args)
	}
	code, words = said(t, "", "backup", "--painter", "Eve", file)
	assert.Equal(t, 2, code)
	assert.Contains(t, words, "DATABASE_URL is not set")
}

// The command of the timer keeps everybody's, and makes a new machine what the old one was.
func TestTheNightIsRestoredOnANewMachine(t *testing.T) {
	unit, err := os.ReadFile("../../scripts/systemd/gyrophane-backup.service")
	require.NoError(t, err)
	var args []string
	for line := range strings.Lines(string(unit)) {
		if command, is := strings.CutPrefix(strings.TrimSpace(line), "ExecStart=/usr/local/bin/gyrophane "); is {
			args = strings.Fields(command)
		}
	}
	require.Len(t, args, 5, "%v", args)
	nights := filepath.Join(t.TempDir(), "nights")
	assert.Equal(t, "/var/lib/gyrophane/nights", args[2])
	args[2] = nights

	s, url := inhabited(t)
	for n := range studio.NightsKept + 3 { // of the nights before
		require.NoError(t, os.MkdirAll(filepath.Join(nights, time.Now().AddDate(0, 0, -n-1).Format(time.DateOnly)), 0o700))
	}
	require.NoError(t, os.MkdirAll(filepath.Join(nights, "not-a-night"), 0o700))
	code, words := said(t, url, args...)
	require.Zero(t, code, words)
	code, words = said(t, url, args...) // again in the same night
	require.Zero(t, code, words)
	entries, err := os.ReadDir(nights)
	require.NoError(t, err)
	assert.Len(t, entries, studio.NightsKept+1)
	assert.DirExists(t, filepath.Join(nights, "not-a-night"), "what is no night's stays")
	tonight := filepath.Join(nights, time.Now().Format(time.DateOnly))
	require.NoError(t, filepath.WalkDir(nights, func(path string, d os.DirEntry, err error) error {
		require.NoError(t, err)
		info, err := d.Info()
		require.NoError(t, err)
		assert.Zero(t, info.Mode().Perm()&0o077, "%s is its owner's alone", path)
		return nil
	}))
	code, words = said(t, url, "doctor", "--dumps", nights)
	assert.Zero(t, code, words)

	// All of it.
	fresh := storetest.Database(t)
	code, words = said(t, fresh, "restore", "--all", t.TempDir())
	assert.Equal(t, 2, code)
	assert.Contains(t, words, "no folder of a night")
	code, words = said(t, fresh, "restore", "--all", tonight)
	require.Zero(t, code, words)
	again, err := store.Open(fresh)
	require.NoError(t, err)
	defer again.Close()
	require.NoError(t, again.Migrate(t.Context()))
	for _, name := range []string{"Tide-pool studio", "Ada, of the pools"} {
		assert.Equal(t, holdings(t, s, name), holdings(t, again, name))
		was, err := s.PainterByName(t.Context(), name)
		require.NoError(t, err)
		is, err := again.PainterByName(t.Context(), name)
		require.NoError(t, err)
		assert.Equal(t, was.PassphraseHash, is.PassphraseHash)
		assert.NotEqual(t, was.UID, is.UID, "its changes are counted apart from those of the old machine")
	}

	// One of them.
	empty := storetest.Database(t)
	one, err := store.Open(empty)
	require.NoError(t, err)
	defer one.Close()
	require.NoError(t, one.Migrate(t.Context()))
	files, err := filepath.Glob(filepath.Join(tonight, "painters", "Tide-pool-studio-*.zip"))
	require.NoError(t, err)
	require.Len(t, files, 1)
	code, words = said(t, empty, "restore", files[0], "--painter", "Ada", "--new")
	require.Zero(t, code, words)
	assert.Equal(t, holdings(t, s, "Tide-pool studio"), holdings(t, one, "Ada"))
}
