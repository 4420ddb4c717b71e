//go:build trouble

package trouble

import (
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// killings is how many times something is killed.
const killings = 50

// killInTurn kills one of two applications and starts it again, then the other.
func (c *campaign) killInTurn() {
	r := rand.New(rand.NewPCG(34, 100))
	for n := range killings {
		time.Sleep(time.Duration(300+r.IntN(700)) * time.Millisecond)
		c.processes[n%2].kill()
		c.processes[n%2].start()
	}
}

func TestKilledApplicationsLoseNothing(t *testing.T) {
	c := begin(t)
	c.while(fmt.Sprintf("an application killed %d times beside another", killings), c.killInTurn)
	assert.Empty(t, c.refused, "a painter sees a wait, and no error")
}

// Behind a proxy a painter sees nothing of it: what was being written when a process died is said again.
func TestBehindNginxKilledApplicationsAreNotSeen(t *testing.T) {
	nginx, err := exec.LookPath("nginx")
	if err != nil {
		nginx = "/usr/sbin/nginx"
	}
	conf, err := os.ReadFile("../scripts/nginx/gyrophane.conf")
	require.NoError(t, err)
	c := begin(t)
	front := free(t)
	text := strings.NewReplacer("127.0.0.1:8640", c.processes[0].listen, "127.0.0.1:8641", c.processes[1].listen, "127.0.0.1:8600", front).Replace(string(conf))
	folder := t.TempDir()
	file := filepath.Join(folder, "nginx.conf")
	var temp strings.Builder
	for _, what := range []string{"client_body", "proxy", "fastcgi", "uwsgi", "scgi"} {
		fmt.Fprintf(&temp, "%s_temp_path %s;\n", what, filepath.Join(folder, what))
	}
	whole := fmt.Sprintf("daemon off;\nuser root;\npid %s/pid;\nerror_log %s/error;\nworker_processes 1;\nevents {}\nhttp {\naccess_log off;\n%s\n%s}\n", folder, folder, temp.String(), text)
	if os.Getuid() != 0 {
		whole = strings.Replace(whole, "user root;\n", "", 1)
	}
	require.NoError(t, os.WriteFile(file, []byte(whole), 0o600))
	proxy := exec.Command(nginx, "-e", filepath.Join(folder, "error"), "-c", file)
	require.NoError(t, proxy.Start(), "make trouble installs nginx")
	t.Cleanup(func() {
		_ = proxy.Process.Signal(syscall.SIGTERM)
		_ = proxy.Wait()
	})
	c.way = func(int) string { return "http://" + front }
	require.Eventually(t, func() bool { return c.ask(0, "GET", "/api/wheels", "", nil) }, 20*time.Second, 50*time.Millisecond)
	clear(c.broken)
	clear(c.refused)
	c.while(fmt.Sprintf("behind nginx, an application killed %d times beside another", killings), c.killInTurn)
	assert.Empty(t, c.refused["read"], "what is looked at comes from the other")
	assert.Empty(t, c.broken)
	for status, n := range c.refused["written"] {
		assert.Equal(t, 502, status, "%d times", n)
	}
}

func TestAKilledDatabaseLosesNothing(t *testing.T) {
	state := ofDatabase(t)
	c := begin(t)
	const times = killings / 5
	c.while(fmt.Sprintf("the database killed %d times", times), func() {
		for range times {
			time.Sleep(1500 * time.Millisecond)
			text, err := os.ReadFile(filepath.Join(state, "postgres", "postmaster.pid"))
			require.NoError(t, err)
			pid, err := strconv.Atoi(regexp.MustCompile(`^\d+`).FindString(string(text)))
			require.NoError(t, err)
			require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))
			require.Eventually(t, func() bool { return postgres(t, "start") }, time.Minute, 200*time.Millisecond)
		}
	})
}

// ofDatabase is the folder of the throwaway cluster.
func ofDatabase(t *testing.T) string {
	state := os.Getenv("GYROPHANE_STATE")
	require.NotEmpty(t, state, "run it with make trouble")
	return state
}

// postgres starts or stops the cluster; false where it could not.
func postgres(t *testing.T, command string) bool {
	said, err := exec.Command("../scripts/postgres.sh", command).CombinedOutput()
	if err != nil {
		t.Logf("%s", said)
	}
	return err == nil
}
