package e2e

import (
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

// flags are the parts on the flags of a path.
func (v visitor) flags() (out []string) {
	v.t.Helper()
	for _, e := range v.MustElements("[data-flag]") {
		out = append(out, *e.MustAttribute("data-flag"))
	}
	return out
}

// place is what the card says of the place on the path.
func (v visitor) place() string { return v.MustElement(`section[aria-label="place"]`).MustText() }

func TestAPathIsFollowedDraggedAndTainted(t *testing.T) {
	p := open(t, startApp(t, storetest.Database(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.element("[data-pair]", "pyrrole scarlet with ultramarine").MustClick()
	p.element("a", "follow the path").MustClick()
	p.see("other ways of these two")
	p.waitFor("three steps", func() bool { return len(p.flags()) == 3 })
	assert.Len(t, p.MustElements(`[data-zone="mud"]`), 1, "this way turns muddy")
	p.press("a step more")
	p.press("a step more")
	p.waitFor("five steps", func() bool { return len(p.flags()) == 5 })
	even := p.flags()

	// Along the way: by key, and dragged.
	before := p.place()
	p.MustElement(`[aria-label="place on the way"]`).MustFocus()
	p.keys(input.PageUp)
	p.waitFor("another place", func() bool { return p.place() != before })
	box := p.MustElement(`svg[aria-label^="the way from"]`).MustShape().Box()
	y := box.Y + 0.4*box.Height
	p.Mouse.MustMoveTo(box.X+0.2*box.Width, y)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(box.X+1, y)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.waitFor("the first paint alone", func() bool { return strings.Contains(p.place(), "1 PR255\n") })

	p.MustElement(`[aria-label="step 1"]`).MustFocus()
	p.keys(input.PageUp)
	p.waitFor("the flag moved", func() bool { return p.flags()[0] != even[0] })
	p.press("set the steps evenly again")
	p.waitFor("even again", func() bool { return slices.Equal(even, p.flags()) })

	p.menu("a trace of", "bismuth yellow")
	p.see("2.0 % in every mixture")
	p.see("of bismuth yellow in it")
	p.press("hold this beside another")
	p.see("Beside the held one: no difference to be seen")
	p.MustElement(`[aria-label="place on the way"]`).MustFocus()
	p.keys(input.PageUp, input.PageUp)
	p.waitFor("a difference in words", func() bool { return p.shows("Beside the held one") && !p.shows("no difference to be seen") })
	p.element("button", "follow quinacridone magenta to ultramarine").MustClick()
	p.waitFor("the other way", func() bool { return len(p.MustElements(`[aria-label="from"]`)) == 1 && p.shows("both lean to violet") })
	require.Empty(t, p.complaints())
	p.MustReload().MustWaitLoad()
	p.see("both lean to violet")
}

func TestAPathFitsATablet(t *testing.T) {
	p := open(t, startApp(t, storetest.Database(t)).address)
	p.asDemo()
	p.MustSetViewport(768, 1024, 1, false)
	p.goTo("Path")
	p.see("other ways of these two")
	assert.LessOrEqual(t, p.MustEval(`() => document.documentElement.scrollWidth`).Int(), 768)
}

func TestAPileIsMixedBranchedAndMended(t *testing.T) {
	p := open(t, startApp(t, storetest.Database(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Path")
	p.choose("looked at", "a pile")
	p.see("An empty palette")
	pile := func() string {
		return strings.Join(strings.Fields(p.MustElement(`[aria-label="parts in the pile"]`).MustText()), " ")
	}
	p.press("add a part of bismuth yellow")
	p.see("undertone yellow")
	for range 2 {
		p.press("add a part of phthalo blue green shade")
	}
	p.see("undertone blue-green")
	p.menu("held beside", "the yellow-green of the wheel")
	p.see("wanted: ")
	p.see("Start over")
	p.press("branch off")
	p.see("pile 2")
	p.press("a part less of phthalo blue green shade")
	p.waitFor("one part each", func() bool { return pile() == "− 1 + bismuth yellow − 1 + phthalo blue green shade" })
	p.menu("held beside", "the green of the wheel")
	p.see("of the bismuth yellow")
	p.menu("held beside", "the blue-green of the wheel")
	p.press("undo")
	p.waitFor("two parts again", func() bool { return strings.Contains(pile(), "− 2 + phthalo") })
	p.MustReload().MustWaitLoad()
	p.see("pile 2")
	p.see("undertone blue-green")
	p.press("wipe off")
	p.waitFor("the first pile", func() bool { return !p.shows("pile 2") && p.shows("undertone blue-green") })
	assert.Empty(t, p.complaints())
}
