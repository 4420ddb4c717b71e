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
		p.waitFor("menus that have closed", func() bool { return !p.MustHas("[role=menu]") })
		picture, err := p.Screenshot(false, nil)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), picture, 0o644))
	}
	p.asDemo()
	p.slot("violet")
	shoot("wheel.png")
	p.slot("orange")
	p.choose("looked at", "neutrals")
	p.see("ochre-like")
	shoot("neutrals.png")
	p.choose("looked at", "glazes")
	p.see("The wheel, glazed")
	p.see("turned over")
	shoot("glazes.png")
	p.choose("looked at", "wheel")
	p.wheelOf("Six from the harbour")
	p.slot("green")
	shoot("wheel-split.png")
	p.wheelOf("Sea lettuce and mussel")
	p.press("cover, guess")
	p.see("What will it be?")
	shoot("cover.png")
	p.press("just lift it")
	p.slot("violet")
	shoot("wheel-cmy.png")
	p.wheelOf("Kelp and wet stone")
	p.press("rings: none")
	for _, ring := range []string{"2 tints", "2 shades", "shades by black", "neutral middles"} {
		p.element("[role=menuitem]", ring).MustClick()
	}
	p.close()
	p.slot("orange")
	p.waitFor("the rings", func() bool { return p.rings("tint") == 24 && p.shows("saved") })
	shoot("wheel-double.png")
	p.goTo("System")
	p.see("riding along")
	p.see("Instead of it")
	shoot("system.png")

	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.element("[data-pair]", "quinacridone magenta with phthalo blue").MustClick()
	p.see("light taken")
	shoot("pairings.png")
	p.choose("pairings of", "my whole box")
	p.choose("laid out", "mud map")
	p.see("91 pairings")
	p.see("the disc’s area")
	shoot("mud-map.png")
	p.choose("pairings of", "this system")
	p.choose("laid out", "bright to dull")
	p.element("[data-pair]", "pyrrole scarlet with ultramarine").MustClick()
	p.element("a", "follow the path").MustClick()
	p.see("other ways of these two")
	p.see("Muddy from")
	shoot("path.png")
	p.choose("looked at", "a pile")
	p.press("add a part of bismuth yellow")
	p.press("add a part of phthalo blue green shade")
	p.menu("held beside", "the blue-green of the wheel")
	p.see("add it")
	shoot("pile.png")
	p.choose("looked at", "quieten")
	p.MustElement(`button[aria-label="quieten"]`).MustClick()
	p.element("[role=menuitem]", "pyrrole scarlet").MustClick()
	p.see("raised with white first")
	shoot("quieten.png")
	p.goTo("Pairings")
	p.press("practice")
	p.see("How the eye has fared")
	shoot("practice.png")

	p.goTo("Compare")
	p.element("button", "mussel violet from Six")
	shoot("compare.png")

	p.goTo("Box")
	p.strip("ultramarine blue")
	shoot("box.png")
	p.choose("shown as", "leans")
	p.see("the blue called warm leans to")
	shoot("leans.png")
	p.choose("shown as", "strips")
	p.press("make a paint")
	p.choose("colours are", "from a photo")
	p.upload("choose a photo", swatchPhoto(t))
	p.see("hardly visible")
	shoot("own.png")
	p.goTo("Box")
	p.choose("surround", "dark")
	p.press("add paints")
	p.see("mark the paints you own")
	p.see("arylide yellow light")
	shoot("box-dark.png")
}
