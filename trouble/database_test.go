//go:build trouble

package trouble

import (
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

func TestADatabaseThatIsStoppedForAMinute(t *testing.T) {
	ofDatabase(t)
	c := begin(t)
	c.while("the database stopped for 60 s", func() {
		time.Sleep(5 * time.Second)
		require.True(t, postgres(t, "stop"))
		time.Sleep(time.Minute)
		require.True(t, postgres(t, "start"))
		time.Sleep(10 * time.Second)
	})
	assert.NotZero(t, c.refused["written"][http.StatusServiceUnavailable], "it was said that the database is away")
}

// set changes a setting of the whole cluster.
func set(t *testing.T, url string, settings ...string) {
	t.Helper()
	for _, one := range append(settings, "select pg_reload_conf()") {
		storetest.Do(t, url, one)
	}
}

func TestADatabaseThatTakesNoChangesForAWhile(t *testing.T) {
	c := begin(t)
	url := os.Getenv("GYROPHANE_TEST_DATABASE_URL")
	c.while("the database took no changes for 15 s", func() {
		time.Sleep(3 * time.Second)
		set(t, url, "alter system set default_transaction_read_only = on")
		time.Sleep(15 * time.Second)
		set(t, url, "alter system set default_transaction_read_only = off")
		time.Sleep(5 * time.Second)
	})
	assert.Empty(t, c.refused["read"], "what is kept can be looked at")
}

// A disk that takes a fifth of a second for each commit.
func TestADiskThatIsSlow(t *testing.T) {
	c := begin(t)
	url := os.Getenv("GYROPHANE_TEST_DATABASE_URL")
	c.while("each commit held back by 100 ms for 20 s", func() {
		set(t, url, "alter system set commit_delay = 100000", "alter system set commit_siblings = 0")
		time.Sleep(20 * time.Second)
		set(t, url, "alter system set commit_delay = 0", "alter system set commit_siblings = 5")
	})
	assert.Empty(t, c.refused, "a painter sees a wait, and no error")
}

// A database on a disk of its own that is filled up, and emptied again.
func TestADiskThatIsFull(t *testing.T) {
	if os.Getuid() != 0 {
		t.Skip("SKIPPED, a full disk: only root may mount a small one")
	}
	state, err := os.MkdirTemp("", "gyrophane-full")
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(state) })
	require.NoError(t, os.Chmod(state, 0o755))
	if said, err := exec.Command("mount", "-t", "tmpfs", "-o", "size=220m", "tmpfs", state).CombinedOutput(); err != nil {
		t.Skipf("SKIPPED, a full disk: this machine mounts none (%s)", strings.TrimSpace(string(said)))
	}
	t.Cleanup(func() { _ = exec.Command("umount", "-l", state).Run() })
	_, port, _ := strings.Cut(free(t), ":")
	run := func(command string) string {
		cmd := exec.Command("../scripts/postgres.sh", command)
		cmd.Env = append(os.Environ(), "GYROPHANE_STATE="+state, "GYROPHANE_PGPORT="+port)
		said, err := cmd.CombinedOutput()
		require.NoError(t, err, "%s", said)
		return strings.TrimSpace(string(said))
	}
	run("start")
	t.Cleanup(func() { run("stop") })
	t.Setenv("GYROPHANE_TEST_DATABASE_URL", run("url"))
	c := begin(t)
	filler := filepath.Join(state, "filler")
	c.while("the disk of the database full for 15 s", func() {
		time.Sleep(3 * time.Second)
		_ = exec.Command("dd", "if=/dev/zero", "of="+filler, "bs=64k").Run() // until there is no room
		time.Sleep(15 * time.Second)
		require.NoError(t, os.Remove(filler))
		require.Eventually(t, func() bool {
			run("start") // a log that finds no room ends the server
			return c.ask(0, "GET", "/readyz", "", nil)
		}, time.Minute, 500*time.Millisecond)
		time.Sleep(5 * time.Second)
	})
}
