package e2e

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

var (
	browserOnce sync.Once
	shared      *rod.Browser
	browserErr  error
)

// browser is one Chromium for all tests; every page gets a context of its own.
func browser(t *testing.T) *rod.Browser {
	t.Helper()
	browserOnce.Do(func() {
		l := launcher.New().Bin("/usr/bin/chromium").Leakless(false).HeadlessNew(true).
			NoSandbox(os.Geteuid() == 0).
			Set("disable-gpu").Set("disable-quic").Set("disable-component-update").
			Set("disable-extensions").Set("hide-scrollbars").Set("disable-background-networking").
			Set("force-color-profile", "srgb")
		var url string
		if url, browserErr = l.Launch(); browserErr != nil {
			return
		}
		shared = rod.New().ControlURL(url)
		browserErr = shared.Connect()
	})
	require.NoError(t, browserErr, "Chromium must be there: run make test, which installs it")
	return shared
}

func TestMain(m *testing.M) {
	code := m.Run()
	if shared != nil {
		shared.MustClose()
	}
	os.Exit(code)
}

// open shows an address in a fresh browser context of 1280x800.
func open(t *testing.T, url string) *rod.Page {
	t.Helper()
	p := browser(t).MustIncognito().MustPage()
	t.Cleanup(func() { p.MustClose() })
	p.MustSetViewport(1280, 800, 1, false)
	return p.Timeout(20 * time.Second).MustNavigate(url).MustWaitLoad()
}

// startApp runs the built server with demo data on a database (one of its own
// when url is empty) and returns its address.
func startApp(t *testing.T, url string) string {
	t.Helper()
	if url == "" {
		url = storetest.Database(t)
	}
	address := filepath.Join(t.TempDir(), "address")
	cmd := exec.Command(filepath.Join(root(t), "bin", "gyrophane"), "serve", "--demo", "--listen", "127.0.0.1:0", "--address-file", address)
	cmd.Env = append(os.Environ(), "DATABASE_URL="+url)
	log := &strings.Builder{}
	cmd.Stderr = log
	require.NoError(t, cmd.Start())
	t.Cleanup(func() {
		require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
		require.NoError(t, cmd.Wait(), "the server must stop cleanly")
		if t.Failed() {
			t.Log(log.String())
		}
	})
	deadline := time.Now().Add(20 * time.Second)
	for time.Now().Before(deadline) {
		if text, err := os.ReadFile(address); err == nil && len(text) > 0 {
			return strings.TrimSpace(string(text))
		}
		time.Sleep(20 * time.Millisecond)
	}
	require.Fail(t, "the server did not start", fmt.Sprint(log))
	return ""
}

func root(t *testing.T) string {
	t.Helper()
	dir, err := filepath.Abs("..")
	require.NoError(t, err)
	return dir
}
