package main

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
