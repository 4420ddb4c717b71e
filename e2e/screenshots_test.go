package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// The pictures of the main views for the README, from fresh demo data; made
// only when GYROPHANE_SCREENSHOTS names a folder (make screenshots).
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("GYROPHANE_SCREENSHOTS")
	if dir == "" {
		t.Skip("GYROPHANE_SCREENSHOTS is not set")
	}
	p := open(t, startApp(t, demoDatabase(t)).address)
	shoot := func(name string) {
		t.Helper()
		p.waitFor("menus that have closed", func() bool { return !p.MustHas("[role=menu]") })
		picture, err := p.Screenshot(false, nil)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), picture, 0o644))
	}
	p.write("what is printed on them", "lemon yellow, permanent rose, ultramarine")
	p.see("not sure which")
	p.see("of nine mixtures")
	shoot("first.png")
	p.asDemo()
	p.slot("violet")
	shoot("wheel.png")
	p.slot("orange")
	p.choose("looked at", "neutrals")
	p.see("ochre-like")
	shoot("neutrals.png")
	p.choose("looked at", "wheel")
	p.wheelOf("Six from the harbour")
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
	p.see("Instead of the")
	shoot("system.png")

	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.element("[data-pair]", "quinacridone magenta with phthalo blue").MustClick()
	p.see("light taken")
	shoot("pairings.png")
	p.element("[data-pair]", "pyrrole scarlet with phthalo blue").MustClick()
	p.element("a", "follow the path").MustClick()
	p.see("other ways of these two")
	p.see("Muddy from")
	shoot("path.png")
	p.goTo("Compare")
	p.element("button", "mussel violet from Six")
	shoot("compare.png")

	p.goTo("Box")
	p.strip("ultramarine blue")
	shoot("box.png")
	p.press("make a paint")
	p.choose("colours are", "from a photo")
	p.upload("choose a photo", swatchPhoto(t))
	p.see("hardly visible")
	shoot("own.png")
	p.goTo("Wheel")
	p.wheelOf("Six from the harbour")
	p.goTo("Bench")
	p.menu("medium", "gouache")
	p.waitFor("the best order", func() bool { return p.shows("shortest possible") && !p.shows(", so far") && p.shows("saved") })
	p.find("the green", `() => document.querySelector('[data-region="green"]')`).MustClick()
	p.see("let down first")
	shoot("bench.png")
	p.press("on paper")
	p.choose("edition", "colours aimed at")
	p.menu("sheet", "the wheel")
	p.sheet()
	shoot("paper.png")
	p.press("back to the bench")
	p.press("2 sittings")
	p.element("[role=menuitem]", "under way").MustClick()
	p.press("go on painting")
	p.see("another slot")
	p.see("all kept")
	shoot("sitting.png")
	p.goTo("Log")
	p.element("a", demoRead).MustClick()
	p.see("What the tubes turned out to be")
	p.see("take it into the box")
	shoot("log.png")
	p.element("a", "read what was painted").MustClick()
	p.see("of 21 read, light of about")
	p.waitFor("the photo", func() bool {
		return p.MustEval(`() => [...document.images].every((i) => i.complete && i.naturalWidth > 0)`).Bool()
	})
	shoot("readings.png")
	at, _, _ := strings.Cut(p.MustInfo().URL, "/bench")
	p.MustSetViewport(390, 844, 1, false)
	p.MustNavigate(at + "/wheel/2").MustWaitLoad()
	p.see("of nine mixtures")
	p.slot("violet")
	p.element(`[aria-label="card of the slot"]`, "")
	shoot("phone-wheel.png")
	p.MustNavigate(at + "/bench/sitting/3").MustWaitLoad()
	p.see("another slot")
	p.see("all kept")
	shoot("phone-sitting.png")

	p.MustSetViewport(1280, 800, 1, false)
	p.MustNavigate(at + "/class/2").MustWaitLoad()
	p.press("put it on the wall")
	p.see("each under its cover")
	link := p.MustEval(`() => fetch("/api/class/rounds/1").then((r) => r.json()).then((r) => r.token)`).Str()
	p.keys(input.PageDown)
	for n, said := range []string{"orange clean", "red-orange clean", "orange softened", "orange clean", "orange quiet", "yellow-orange clean", "red-orange softened", "orange clean"} {
		hue, drop, _ := strings.Cut(said, " ")
		joins := `async (word, at, hue, drop, mud) => {
			const ask = (method, path, body) => fetch(path, { method, headers: { Pupil: word, "Content-Type": "application/json" }, body: JSON.stringify(body) });
			await ask("POST", "/api/together", { at });
			return (await ask("PUT", "/api/together/guess", { place: 0, hueWord: hue, verdict: drop, mud: { nowhere: mud > 0.9, at: mud > 0.9 ? 0 : mud } })).status;
		}`
		require.Equal(t, 204, p.MustEval(joins, strings.Repeat(string(rune('A'+n)), 26), link, hue, drop, 0.3+0.1*float64(n)).Int())
	}
	phone := inClass(t, at+"/together#"+link)
	phone.see("1 of 3")
	phone.steps("which hue?", "orange")
	phone.steps("how bright?", "clean")
	picture, err := phone.Screenshot(false, nil)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "phone-class.png"), picture, 0o644))
	p.see("8 of 9 have guessed")
	p.keys(input.PageDown)
	p.see("It is ")
	shoot("wall.png")
}
