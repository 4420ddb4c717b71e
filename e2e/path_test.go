package e2e

import (
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// flags are the parts on the flags of a path.
func (v visitor) flags() (out []string) {
	v.t.Helper()
	return v.all("[data-flag]", `(e) => e.dataset.flag`)
}

// follow goes from one paint to another, and waits until that is drawn.
func (v visitor) follow(from, to string) {
	v.t.Helper()
	for label, paint := range map[string]string{"from": from, "to": to} {
		v.MustElement(`[data-choice="` + label + `"]`).MustClick()
		v.element("[role=menuitem]", paint).MustClick()
	}
	v.MustElement(`svg[aria-label^="the way from ` + from + `"][aria-label*="to ` + to + `"]`)
}

// place is what the card says of the place on the path.
func (v visitor) place() string { return v.MustElement(`section[aria-label="place"]`).MustText() }

func TestAPathIsFollowedDraggedAndTainted(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.element("[data-pair]", "pyrrole scarlet with phthalo blue").MustClick()
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
	p.keys(input.KeyH)
	p.see("Beside the held one: no difference to be seen")
	p.MustElement(`[aria-label="place on the way"]`).MustFocus()
	p.keys(input.PageUp, input.PageUp)
	p.waitFor("a difference in words", func() bool { return p.shows("Beside the held one") && !p.shows("no difference to be seen") })
	p.element("button", "follow quinacridone magenta to phthalo blue").MustClick()
	p.waitFor("the other way", func() bool {
		return len(p.MustElements(`[data-choice="from"]`)) == 1 && p.shows("magenta leans to violet")
	})
	require.Empty(t, p.complaints())
	p.MustReload().MustWaitLoad()
	p.see("magenta leans to violet")
}

// The colours of a wheel, of a path and of a sitting are taken along for other programs.
func TestColoursAreTakenAlong(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Wheel")
	assert.Contains(t, p.takenAlong("the colours as a GIMP palette"), "GIMP Palette\nName: ")
	assert.Contains(t, p.takenAlong("the colours as spectra, for colour tools"), "NUMBER_OF_SETS 12")
	p.goTo("Path")
	assert.Contains(t, p.takenAlong("the colours as a table (CSV)"), ",step 3,")
	p.goTo("Log")
	p.element("a", "Starfish and anemone").MustClick()
	p.see("What the tubes turned out to be")
	assert.Contains(t, p.takenAlong("the colours as CGATS"), "CIELAB")
	assert.Empty(t, p.complaints())
}

// A wheel with the tubes that it needs goes to another painter in a file.
func TestAWheelIsTakenToAnotherPainter(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.goTo("Wheel")
	file := p.takenAlong("all of it, for another painter")
	assert.Contains(t, file, `"format": "gyrophane-wheel"`)
	name := p.MustEval(`() => document.querySelector("[data-choice^='wheel: ']").dataset.choice.slice(7)`).Str()
	q := open(t, at)
	q.write("your name", "Wrack")
	q.press("begin")
	q.see("Three paints make a wheel")
	q.MustNavigate(at + "/begin/file").MustWaitLoad()
	q.see("A wheel out of a file")
	q.upload("choose a wheel's file", fileOf(t, "bad.json", []byte("{}")))
	q.see("bad.json: this is no wheel's file")
	q.upload("choose a wheel's file", fileOf(t, "wheel.json", []byte(file)))
	q.see(name)
	q.press("keep it")
	q.waitFor("its wheel", func() bool { return q.MustHas("[data-choice^='wheel: ']") })
	assert.Contains(t, q.text(), name)

	// So does a sitting.
	p.MustNavigate(at + "/log/1").MustWaitLoad()
	sitting := p.takenAlong("all of it, for another painter")
	assert.Contains(t, sitting, `"format": "gyrophane-whole-sitting"`)
	q.goTo("Log")
	q.press("a sitting out of a file")
	q.upload("choose a sitting's file", fileOf(t, "wheel.json", []byte(file)))
	q.see("wheel.json: this is no sitting's file")
	q.upload("choose a sitting's file", fileOf(t, "sitting.json", []byte(sitting)))
	q.see("things told")
	q.press("keep it")
	q.see("read what was painted")

	// It is deleted when that is asked for in words, and then all that is the painter's.
	q.goTo("System")
	q.press("delete")
	q.see("Delete " + name + "?")
	q.press("keep it")
	q.press("delete")
	q.press("delete it")
	q.waitFor("no wheel", func() bool { return !q.MustHas("[data-choice^='wheel: ']") })
	q.MustNavigate(at + "/box").MustWaitLoad()
	q.press("Wrack")
	q.element("[role=menuitem]", "delete all that is mine").MustClick()
	q.see("Delete all that is Wrack's?")
	assert.True(t, q.element("button", "delete all of it").MustProperty("disabled").Bool())
	q.write("type Wrack", "Wrack")
	q.press("delete all of it")
	q.waitFor("the door", func() bool { return q.shows("look around") && !q.shows("Wrack") })
}

func TestAPathFitsATablet(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.MustSetViewport(768, 1024, 1, false)
	p.goTo("Path")
	p.see("other ways of these two")
	p.fits("the page")
}

func TestAPileIsMixedBranchedAndMended(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Path")
	p.choose("looked at", "a pile")
	p.see("undertone orange")
	p.press("wipe off")
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

func TestWaysAreLaidOverOneAnotherAndTubesBesideThem(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Box")
	p.strip("mussel violet")
	p.keys(input.KeyH)
	p.see("put it back")
	p.goTo("Wheel")
	p.wheelOf("Six from the harbour")
	p.goTo("Path")
	p.follow("pyrrole scarlet", "ultramarine blue")
	assert.False(t, p.MustHas("[data-over]"))
	p.element("[role=checkbox]", "lay quinacridone magenta to ultramarine blue over").MustClick()
	p.element("[role=checkbox]", "lay pyrrole scarlet to phthalo blue green shade over").MustClick()
	p.waitFor("two thin ribbons", func() bool { return len(p.MustElements("[data-over]")) == 2 })
	p.element("[role=checkbox]", "lay quinacridone magenta to ultramarine blue over").MustClick()
	p.waitFor("one of them", func() bool { return len(p.MustElements("[data-over]")) == 1 })

	p.see("held: mussel violet, dark greyed violet")
	p.see("Beside the held one:")
	p.element("button", "follow quinacridone magenta to ultramarine").MustClick()
	p.see("both lean to violet")
	p.see("held: mussel violet")

	p.choose("looked at", "ladder sheet")
	sheets := func() int { return len(p.MustElements("article")) }
	p.waitFor("the ways of a section", func() bool { return sheets() == 4 })
	p.press("take off")
	p.waitFor("one less", func() bool { return sheets() == 3 })
	p.menu("lay another way on the sheet", "quinacridone magenta to phthalo blue")
	p.waitFor("another one", func() bool { return sheets() == 4 })
	p.press("a step more")
	p.see("4 steps")
	assert.Empty(t, p.complaints())
}

func TestWhatWasOvershotIsMended(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Path")
	p.follow("bismuth yellow", "phthalo blue green shade")
	p.write("parts of bismuth yellow", "5")
	p.write("parts of phthalo blue green shade", "2")
	p.see("nearer to blue")
	p.see("on the palette: dark")
	p.write("or how it looks", "#b01020")
	p.see("Nothing between these two looks like that")
	p.field("or how it looks").MustSelectAllText().MustInput("30, -20, -10")
	p.waitFor("a place that looks like it", func() bool { return !p.shows("Nothing between") && p.shows("CIEDE2000") })
	p.field("parts of bismuth yellow").MustSelectAllText().MustInput("a lot")
	p.waitFor("no correction from what is no number", func() bool { return !p.shows("on the palette: ") })
	assert.Empty(t, p.complaints())
}

func TestAPileIsBroughtToAColourAndQuietened(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Path")
	p.choose("looked at", "a pile")
	p.see("undertone orange")
	p.press("wipe off")
	p.see("An empty palette")
	p.press("add a part of pyrrole scarlet")
	p.menu("held beside", "a colour that was read")
	p.write("as it was read", "#e9")
	p.see("three figures of CIELAB")
	p.field("as it was read").MustSelectAllText().MustInput("#e88a76")
	p.see("wanted: ")
	p.see("of the titanium white")
	p.press("add it")
	p.see("near enough as it is")

	p.choose("looked at", "quieten")
	p.see("the pile on the palette")
	p.MustElement(`[data-choice="quieten"]`).MustClick()
	p.element("[role=menuitem]", "pyrrole scarlet").MustClick()
	for way, did := range map[string]string{"by its complement": "% chroma", "by its neighbour": "turned ", "by an earth": "% chroma"} {
		assert.Contains(t, p.MustElement(`[aria-label="`+way+`"]`).MustText(), did, way)
	}
	p.menu("by its neighbour: which paint", "ultramarine blue")
	p.waitFor("cooled by the blue", func() bool {
		return strings.Contains(p.MustElement(`[aria-label="by its neighbour"]`).MustText(), "to violet") || strings.Contains(p.MustElement(`[aria-label="by its neighbour"]`).MustText(), "to red-violet")
	})
	p.MustElement(`[data-choice="quieten"]`).MustClick()
	p.element("[role=menuitem]", "titanium white").MustClick()
	p.see("no hue in this")
	assert.Len(t, p.complaints(), 1, "the refusal alone")
	p.MustSetViewport(768, 1024, 1, false)
	for _, view := range []string{"ladder sheet", "a pile", "quieten"} {
		p.choose("looked at", view)
		p.fits(view)
	}
}
