package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

func TestSystemsAreComparedSideBySide(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Compare")
	p.see("Six from the harbour is clean all the way round, and vivid in 96 % of it.")
	outlines := func() int { return len(p.MustElements("[data-outline]")) }
	assert.Equal(t, 4, outlines())

	// One hue is read in all of them, by keys.
	ring := p.element("[role=slider]", "hue that is read")
	ring.MustFocus()
	p.see("at yellow")
	for range 12 {
		p.keys(input.ArrowRight)
	}
	p.see("at orange")
	assert.Contains(t, *ring.MustAttribute("aria-valuetext"), "Starfish and anemone 0.")
	p.menu("another two", "Kelp and wet stone, Sea lettuce and mussel")
	p.see("outside the rings: black where Kelp and wet stone is cleaner, white where Sea lettuce and mussel is")

	assert.Empty(t, p.MustElements("[data-band]"), "how sure it is, is asked for")
	p.press("how sure")
	p.waitFor("a band in each ring", func() bool { return len(p.MustElements("[data-band]")) == 4 })

	p.press("take off Sea lettuce and mussel")
	p.waitFor("three systems", func() bool { return outlines() == 3 })
	p.MustReload().MustWaitLoad()
	p.waitFor("the address reopens them", func() bool { return p.MustHas("[data-outline]") && outlines() == 3 })
	p.menu("lay another system beside them", "Sea lettuce and mussel")
	p.waitFor("four again", func() bool { return outlines() == 4 })

	p.choose("laid beside each other by", "step beside step")
	p.element("[role=radio]", "Starfish and anemone: green").MustClick()
	p.MustElement(`[aria-label="green of Starfish and anemone"]`)
	p.keys(input.ArrowRight)
	p.MustElement(`[aria-label="yellow-green of Starfish and anemone"]`)
	p.keys(input.ArrowLeft)
	assert.Contains(t, p.MustElement(`[aria-label="green of Six from the harbour"]`).MustText(), "clean")
	p.element(`[aria-label="green of Six from the harbour"] button`, "want this colour").MustClick()
	p.see("Among the wanted colours now.")
	p.choose("steps aligned", "by wheel hue")
	p.element("[role=radio]", "Kelp and wet stone: orange").MustClick()
	p.MustElement(`[aria-label="red-orange of Six from the harbour"], [aria-label="orange of Six from the harbour"]`)
	p.choose("steps laid out", "in rows")
	p.see("each where its undertone stands")
	p.choose("steps aligned", "by their names")
	p.element("button", "Six from the harbour: violet").MustClick()
	p.MustElement(`[aria-label="violet of Kelp and wet stone"]`)
	p.choose("light", "warm lamp")
	p.waitFor("the same in another light", func() bool { return strings.Contains(p.MustInfo().URL, "light=A") })
	assert.Empty(t, p.complaints())
}

func TestWantedColoursAreMatchedByEverySystem(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Compare")
	first := func() string {
		return *p.MustElements(`[aria-label="wanted colours"] [role=group]`)[0].MustAttribute("aria-label")
	}
	p.waitFor("the worst first", func() bool {
		return p.MustHas(`[aria-label="wanted colours"] [role=group]`) && first() == "sea-lettuce green"
	})
	p.element("button", "starfish orange from Six from the harbour").MustClick()
	p.see("Mix ")
	p.see("Start with ")
	p.see("of the ")
	recipes := *p.element("a", "recipes (CSV)").MustAttribute("href")
	assert.Contains(t, p.MustEval(`async (at) => (await fetch(at)).text()`, recipes).Str(), "starfish orange,")
	p.element("button", "sea-lettuce green from Starfish and anemone").MustClick()
	p.see("It cannot be reached: the nearest is ")
	p.see("quieter")

	p.press("want another")
	p.write("what it is for", "ferry rail")
	p.write("wanted colour", "#40506")
	p.see("three figures of CIELAB")
	p.field("wanted colour").MustSelectAllText().MustInput("#405068")
	p.press("want it")
	p.element("[role=group]", "ferry rail")
	p.press("done")
	p.element("[role=checkbox]", "worst first").MustClick()
	p.waitFor("as they were wanted", func() bool { return first() == "starfish orange" })
	p.element("button", "ferry rail from Kelp").MustClick()
	p.press("no longer wanted")
	p.waitFor("taken away", func() bool { return !p.MustHas(`[role=group][aria-label="ferry rail"]`) })
	assert.Empty(t, p.complaints())
}

func TestTheBestSystemIsChosenAndMade(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Compare")
	p.choose("laid beside each other by", "choose from my box")
	p.see("every system was looked at")
	p.choose("kind of system", "a triad")
	p.waitFor("three paints", func() bool { return len(p.MustElements(`[aria-label="the best"] svg`)) == 3 })
	p.menu("must contain", "anemone red")
	p.waitFor("the red in it", func() bool {
		return strings.Contains(p.MustElement(`[aria-label="the best"]`).MustText(), "anemone red")
	})
	p.see("Buy next")
	p.menu("must contain", "cobalt blue")
	p.menu("must contain", "ultramarine blue")
	p.see("So many blues cannot be in one triad system")
	p.menu("must contain", "whichever paints")
	p.menu("of the system", "Starfish and anemone")
	p.element("div", "quinacridone magenta for pyrrole red")
	p.see("With it the system is cleaner ")
	p.menu("instead of pyrrole red", "pyrrole scarlet")
	p.element("div", "pyrrole scarlet for pyrrole red")
	p.menu("instead of pyrrole red", "the best for it")
	p.element("div", "quinacridone magenta for pyrrole red")
	p.choose("for", "the least price")
	p.see("The cheapest of those that reach nearly as many")
	p.see(", costs ")
	p.choose("for", "the fewest tubes")
	p.see("The fewest tubes that reach nearly as many")
	release := p.holds("*/api/choose*")[0]
	p.choose("for", "my wanted colours")
	p.press("leave it")
	p.see("This was left before every system was looked at.")
	release()
	p.press("look at them")
	p.see("The most wanted colours reached")
	tickets := p.MustEval(`() => performance.getEntriesByType("resource").filter((r) => r.name.includes("/api/choose")).map((r) => new URL(r.name).searchParams.get("ticket"))`).Arr()
	assert.Greater(t, len(tickets), 3)
	seen := map[string]bool{}
	for _, ticket := range tickets {
		assert.False(t, seen[ticket.Str()], "a search that was left ends no other: each has its own ticket")
		seen[ticket.Str()] = true
	}
	p.see("wanted reached, CIEDE2000")
	p.see("It comes less near to ")
	p.choose("for", "the least price")
	p.menu("cautions", "leave out: bismuth vanadate")
	p.waitFor("without the bismuth", func() bool { return !strings.Contains(p.MustElement(`[aria-label="the best"]`).MustText(), "bismuth") })
	p.choose("chosen from", "from the whole library")
	p.see("% clean, ")
	p.element(`[aria-label="the best"] button`, "make a wheel of it").MustClick()
	p.waitFor("its wheel", func() bool {
		return p.MustHas(`[role=radio][data-slot]`) && strings.Contains(p.nameOfWheel(), "best triad of the library")
	})
	p.MustSetViewport(768, 1024, 1, false)
	p.goTo("Compare")
	for _, view := range []string{"how far they reach", "step beside step", "choose from my box"} {
		p.choose("laid beside each other by", view)
		p.see("Compare")
		p.fits(view)
	}
	assert.Len(t, p.complaints(), 1, "the refusal alone")
}

func TestAComparisonIsKeptWithItsDecision(t *testing.T) {
	t.Parallel()
	a := startApp(t, demoDatabase(t))
	p := open(t, a.address)
	p.asDemo()
	p.goTo("Compare")
	p.MustElement(`section[aria-label="kept comparisons"] textarea`).MustInput("for the ferry")
	p.press("take off Sea lettuce and mussel") // what was written stays
	p.waitFor("three systems", func() bool { return len(p.MustElements("[data-outline]")) == 3 })
	p.MustElements(`section[aria-label="kept comparisons"] textarea:not([aria-hidden])`)[1].MustInput("took the six, for its oranges")
	p.press("keep it")
	p.see("took the six, for its oranges · for the ferry")

	// Another tab with an older view is told, and what it wrote is still there.
	q := p.another(a.address + "/compare")
	q.press("write on it")
	p.MustActivate()
	p.press("write on it")
	p.MustElement(`[role=group][aria-label^="kept "] textarea`).MustSelectAllText().MustInput("the first tab")
	p.element("button", "save").MustClick()
	p.see("for its oranges · the first tab")
	q.MustActivate()
	q.MustElement(`[role=group][aria-label^="kept "] textarea`).MustSelectAllText().MustInput("the second tab")
	q.element("button", "save").MustClick()
	q.see("changed elsewhere in the meantime; kept now: the first tab")
	q.press("send it again")
	q.see("for its oranges · the second tab")

	q.element(`[role=group][aria-label^="kept "] a`, "20").MustClick()
	q.waitFor("its address reopens it", func() bool { return len(q.MustElements("[data-outline]")) == 3 })
	assert.Contains(t, q.takenAlong("a drawing of it (SVG)"), "Six from the harbour")
	assert.Contains(t, q.takenAlong("the colours as CGATS"), "Six from the harbour: yellow-green")
	q.press("drop it")
	q.waitFor("gone", func() bool { return !q.MustHas(`[role=group][aria-label^="kept "]`) })
}

func TestNothingMovesFromUnderTheHandWhileSystemsAreCompared(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	held := p.holds("*/api/compare?*", "*/api/wanted?*")
	compared, wanted := held[0], held[1]
	p.goTo("Compare")
	p.see("Systems side by side")
	p.drawn()
	assert.False(t, p.MustHas(`section[aria-label="kept comparisons"]`), "it stands below what has not come yet")
	compared()
	keep := p.element("button", "keep it")
	top := func() float64 { return keep.MustEval(`() => this.getBoundingClientRect().top + scrollY`).Num() }
	before := top()
	wanted()
	p.element(`[aria-label="wanted colours"] [role=group]`, "sea-lettuce green")
	assert.InDelta(t, before, top(), 12)
}

func TestWantedColoursComeOutOfFilesAndTubes(t *testing.T) {
	t.Parallel()
	p := open(t, startAppWith(t, demoDatabase(t), "--with-meter").address)
	p.asDemo()
	p.goTo("Compare")
	p.press("want another")
	p.menu("the colour of a tube", "sea-lettuce green")
	p.press("want it")
	p.waitFor("can I mix this green?", func() bool { return len(p.MustElements(`[aria-label="wanted colours"] [role=group]`)) == 8 })
	p.upload("out of a file", fileOf(t, "pool.gpl", []byte("GIMP Palette\nName: pool\n#\n240 102 43\tlimpet\n999 0 0\tnot a colour\n")))
	p.see("line 5: 999 0 0")
	p.see("a palette row begins with three numbers")
	p.press("want the 1 that can be read")
	p.element("[role=group]", "limpet")
	p.press("from a photo")
	p.upload("choose a photo", swatchPhoto(t))
	p.see("bare paper and the wanted colour")
	p.waitFor("the colour of the spot", func() bool { return p.field("wanted colour: CIELAB").MustProperty("value").String() != "" })
	p.press("want it")
	p.waitFor("one more", func() bool { return len(p.MustElements(`[aria-label="wanted colours"] [role=group]`)) == 10 })
	p.press("with the meter")
	p.choosing("under the meter lies", "PG36")
	p.press("read the wanted colour")
	p.see("mean of ")
	p.press("want it")
	p.waitFor("and one more", func() bool { return len(p.MustElements(`[aria-label="wanted colours"] [role=group]`)) == 11 })
	p.upload("out of a file", fileOf(t, "odd.csv", []byte("a,b\n1,2\n")))
	p.see("names no colours: call a column colour")
}

func TestAColourIsWantedWhereItIsSeen(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("green")
	p.press("want this colour")
	p.see("Among the wanted colours now.")
	p.choose("light", "warm lamp")
	p.waitFor("in daylight alone", func() bool { return !p.shows("want this colour") })
	p.choose("light", "daylight")
	p.goTo("Box")
	p.strip("sea-lettuce green")
	p.press("want this colour")
	p.element("a", "wanted colours").MustClick()
	p.element("[role=group]", "sea-lettuce green")
	p.element("[role=group]", "green of Starfish and anemone")
	p.goTo("System")
	p.element("a", "Choose the best one from my box").MustClick()
	p.see("every system was looked at")
}

// A colour that is held beside the screen is begun at what comes nearest and drawn to, and wanted.
func TestAColourHeldBesideTheScreenIsWanted(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Compare")
	p.press("want another")
	p.press("I hold it beside")
	p.element(`[aria-label="held beside the screen"] button`, "yellow ochre").MustClick()
	p.see("1 of 3: which way is it off?")
	p.see("as what you began at")
	p.element("button", "darker").MustClick()
	p.see("beside what you began at: a little darker")
	p.press("closer")
	p.press("closer")
	p.see("3 of 3")
	p.press("take this colour")
	p.write("what it is for", "wet rope")
	p.press("want it")
	p.waitFor("it is wanted", func() bool { return p.MustHas(`[role=group][aria-label="wet rope"]`) })
	assert.Empty(t, p.complaints())
}
