// Package e2e drives the real interface in Chromium, as a painter would.
package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestFirstPageOffersTheDemoPainter(t *testing.T) {
	p := open(t, startApp(t, ""))
	require.NotNil(t, p.MustElementR("p", "Tide-pool studio"))
}
