// Package scripts holds the commands behind make; its tests run them.
package scripts

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// standIn makes this test program behave as the application for app.sh: it
// writes its address file and lives until it is told to end.
const standIn = "GYROPHANE_SCRIPTS_STAND_IN"

func TestMain(m *testing.M) {
	if os.Getenv(standIn) != "" {
		for i, arg := range os.Args {
			if arg == "--address-file" {
				if err := os.WriteFile(os.Args[i+1], []byte("http://127.0.0.1:1\n"), 0o600); err != nil {
					os.Exit(1)
				}
			}
		}
		select {}
	}
	os.Exit(m.Run())
}

// run calls a script with more settings, and returns what it says.
func run(t *testing.T, settings []string, script string, args ...string) (string, error) {
	t.Helper()
	c := exec.Command("bash", append([]string{script}, args...)...)
	c.Env = append(os.Environ(), settings...)
	said, err := c.CombinedOutput()
	return string(said), err
}

// executable copies this test program, or writes a script, to a path.
func executable(t *testing.T, path, script string) {
	t.Helper()
	data := []byte(script)
	if script == "" {
		self, err := os.Executable()
		require.NoError(t, err)
		data, err = os.ReadFile(self)
		require.NoError(t, err)
	}
	require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
	require.NoError(t, os.WriteFile(path, data, 0o755))
}

func TestAStartIsBelievedHoweverLongTheProgramTakesToBegin(t *testing.T) {
	root := t.TempDir()
	script, err := os.ReadFile("app.sh")
	require.NoError(t, err)
	executable(t, filepath.Join(root, "scripts/app.sh"), string(script))
	executable(t, filepath.Join(root, "bin/gyrophane"), "")
	// On a busy machine a second passes before the shell's child is the program.
	executable(t, filepath.Join(root, "slow/setsid"), "#!/bin/sh\nsleep 1\nexec \"$@\"\n")
	settings := []string{
		"PATH=" + filepath.Join(root, "slow") + ":" + os.Getenv("PATH"),
		"DATABASE_URL=postgres://nobody@127.0.0.1:1/nothing", "GYROPHANE_STATE=" + filepath.Join(root, "state"), standIn + "=1",
	}
	app := filepath.Join(root, "scripts/app.sh")
	said, err := run(t, settings, app, "start")
	require.NoError(t, err, said)
	assert.Contains(t, said, "Gyrophane is at http://127.0.0.1:1")
	said, err = run(t, settings, app, "stop")
	require.NoError(t, err, said)
	assert.NoFileExists(t, filepath.Join(root, "state/app.pid"))
}

func TestAStartThatFailsSaysWhy(t *testing.T) {
	root := t.TempDir()
	script, err := os.ReadFile("app.sh")
	require.NoError(t, err)
	executable(t, filepath.Join(root, "scripts/app.sh"), string(script))
	executable(t, filepath.Join(root, "bin/gyrophane"), "#!/bin/sh\necho no paint today >&2\nexit 2\n")
	said, err := run(t, []string{"DATABASE_URL=postgres://nobody@127.0.0.1:1/nothing", "GYROPHANE_STATE=" + filepath.Join(root, "state")}, filepath.Join(root, "scripts/app.sh"), "start")
	require.Error(t, err)
	assert.Contains(t, said, "no paint today")
	assert.Contains(t, said, "did not start")
}

// state is a folder for a private cluster that the server's own user can reach.
func state(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("", "gyrophane-scripts-")
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, os.RemoveAll(dir)) })
	return dir
}

func TestAClusterIsNeverDeleted(t *testing.T) {
	dir := state(t)
	settings := []string{"GYROPHANE_STATE=" + dir, "GYROPHANE_PGPORT=5764"}
	postgres := func(args ...string) (string, error) { return run(t, settings, "postgres.sh", args...) }
	t.Cleanup(func() {
		said, err := postgres("stop")
		assert.NoError(t, err, said)
	})
	said, err := postgres("start")
	require.NoError(t, err, said)
	said, err = postgres("stop")
	require.NoError(t, err, said)
	control := filepath.Join(dir, "postgres/global/pg_control")
	made, err := os.Stat(control)
	require.NoError(t, err)
	same := func() {
		t.Helper()
		now, err := os.Stat(control)
		require.NoError(t, err, "the cluster is still there")
		assert.True(t, os.SameFile(made, now), "and it is the same")
	}

	// Restored from a backup, without what else lay in the folder.
	password, err := os.ReadFile(filepath.Join(dir, "password"))
	require.NoError(t, err)
	entries, err := os.ReadDir(dir)
	require.NoError(t, err)
	for _, e := range entries {
		if e.Name() != "postgres" {
			require.NoError(t, os.RemoveAll(filepath.Join(dir, e.Name())))
		}
	}
	said, err = postgres("start")
	require.Error(t, err, "without its password it cannot be used")
	assert.Contains(t, said, "its password is missing")
	assert.Contains(t, said, "left as it is")
	same()

	require.NoError(t, os.WriteFile(filepath.Join(dir, "password"), password, 0o600))
	said, err = postgres("start")
	require.NoError(t, err, said)
	same()
}

func TestAFolderThatIsNoClusterIsLeftAsItIs(t *testing.T) {
	dir := state(t)
	note := filepath.Join(dir, "postgres/half-a-backup")
	require.NoError(t, os.MkdirAll(filepath.Dir(note), 0o755))
	require.NoError(t, os.WriteFile(note, []byte("precious"), 0o600))
	said, err := run(t, []string{"GYROPHANE_STATE=" + dir}, "postgres.sh", "start")
	require.Error(t, err)
	assert.Contains(t, said, "holds no whole PostgreSQL cluster")
	assert.Contains(t, said, "Restore it, move it away")
	assert.FileExists(t, note)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "postgres/PG_VERSION"), []byte("3\n"), 0o600))
	said, err = run(t, []string{"GYROPHANE_STATE=" + dir}, "postgres.sh", "start")
	require.Error(t, err)
	assert.Contains(t, said, "made by PostgreSQL 3")
	assert.FileExists(t, note)
}
