package main

import (
	"context"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

func TestTheLogDoesNotGrowWithoutEnd(t *testing.T) {
	file := filepath.Join(t.TempDir(), "log")
	log := logTo(file)
	line := make([]byte, 1<<20)
	for range 80 {
		_, err := log.Write(line)
		require.NoError(t, err)
	}
	require.NoError(t, log.(interface{ Close() error }).Close())
	require.Eventually(t, func() bool {
		all, err := os.ReadDir(filepath.Dir(file))
		return err == nil && len(all) == 4
	}, 20*time.Second, 10*time.Millisecond, "three older ones beside it")
	info, err := os.Stat(file)
	require.NoError(t, err)
	assert.LessOrEqual(t, info.Size(), int64(10<<20))
	assert.Equal(t, os.Stderr, logTo(""))
}

func TestProxiesMustBeAddresses(t *testing.T) {
	t.Setenv("DATABASE_URL", "postgres://nobody@127.0.0.1:1/nothing")
	code, _, said := call(t, "serve --trusted-proxies everywhere")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, `--trusted-proxies: "everywhere" is no address of a proxy`)
}

// The unit's command serves on the port of its name, to whoever comes through the proxy, and ends well.
func TestTheUnitServes(t *testing.T) {
	unit, err := os.ReadFile("../../scripts/systemd/gyrophane@.service")
	require.NoError(t, err)
	_, command, found := strings.Cut(string(unit), "ExecStart=/usr/local/bin/gyrophane ")
	require.True(t, found)
	command, _, _ = strings.Cut(command, "\n")
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	_, port, err := net.SplitHostPort(taken.Addr().String())
	require.NoError(t, err)
	require.NoError(t, taken.Close())
	state := t.TempDir()
	command = strings.NewReplacer("%i", port, "/var/log/gyrophane", state, "/var/lib/gyrophane", state).Replace(command)
	t.Setenv("DATABASE_URL", storetest.Database(t))
	ctx, stop := context.WithCancel(t.Context())
	ended := make(chan error, 1)
	serve := serveCommand()
	serve.SetArgs(strings.Fields(command)[1:])
	go func() { ended <- serve.ExecuteContext(ctx) }()
	ask := func(path string) (status int) {
		r, err := http.NewRequest("GET", "http://127.0.0.1:"+port+path, nil)
		require.NoError(t, err)
		r.Host = "gyrophane.example"
		answer, err := http.DefaultClient.Do(r)
		if err != nil {
			return 0
		}
		defer answer.Body.Close()
		return answer.StatusCode
	}
	require.Eventually(t, func() bool { return ask("/readyz") == 200 }, 30*time.Second, 20*time.Millisecond)
	assert.Equal(t, 200, ask("/api/painters"))
	assert.FileExists(t, filepath.Join(state, port+".log"))
	stop()
	require.NoError(t, <-ended)
}
