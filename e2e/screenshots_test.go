package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

// The pictures of the main views for the README, from fresh demo data; made
// only when GYROPHANE_SCREENSHOTS names a folder (make screenshots).
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("GYROPHANE_SCREENSHOTS")
	if dir == "" {
		t.Skip("GYROPHANE_SCREENSHOTS is not set")
	}
	p := open(t, startApp(t, storetest.Database(t)).address)
	shoot := func(name string) {
		t.Helper()
		picture, err := p.Screenshot(false, nil)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), picture, 0o644))
	}
	p.see("Tide-pool studio")
	shoot("who.png")
	p.asDemo()
	p.slot("violet")
	shoot("wheel.png")
	p.press("swap the blue")
	p.see("Which blue?")
	p.see("ultramarine blue")
	shoot("picker.png")
}
