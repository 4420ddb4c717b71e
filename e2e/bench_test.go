package e2e

import (
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
)

// atTheBench opens the bench of a wheel of the demo, and waits for its plan.
func atTheBench(t *testing.T, wheel string) visitor {
	t.Helper()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf(wheel)
	p.goTo("Bench")
	p.see("shortest possible")
	return p
}

// order are the regions of the hour, in the order in which they are painted.
func (v visitor) order() []string {
	v.t.Helper()
	return v.all("[data-wedge]", `(e) => e.dataset.wedge`)
}

// exact waits until the order is the best that was looked for.
func (v visitor) exact() {
	v.t.Helper()
	v.waitFor("the order to be worked out", func() bool {
		return strings.Contains(v.MustElement(`section[aria-label="the order"]`).MustText(), "possible") && !v.shows(", so far") && v.shows("saved")
	})
}

func TestAWheelIsPlanned(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Six from the harbour")
	assert.Len(t, p.order(), 15)
	acrylic := p.MustElement(`section[aria-label="what to lay out"]`).MustText()
	assert.Contains(t, acrylic, "PB15:3")

	// Another medium and another size change what it takes and how long.
	p.menu("medium", "oil")
	p.waitFor("runs", func() bool { return p.shows("run from the weaker") })
	p.menu("diameter", "300 mm")
	p.waitFor("more paint", func() bool {
		return p.MustElement(`section[aria-label="what to lay out"]`).MustText() != acrylic && p.shows("300 mm")
	})
	p.exact()
	p.menu("medium", "gouache")
	p.waitFor("waits", func() bool { return p.shows("a pile for each") })
	p.exact()

	// A place of the sheet opens its dabs, let-downs first.
	p.find("the green", `() => document.querySelector('[data-region="green"]')`).MustClick()
	p.see("let down first")
	p.MustElement(`[role=img][aria-label^="a dab "]`)
	p.see("a hand strays by")
	p.choose("plan", "draw it")
	p.see("Open it to 77.5 mm")
	p.choose("drawn with", "ruler")
	p.see("40 mm to the left")
	p.choose("plan", "ways to fill")
	p.see("a slip costs")
	p.MustReload()
	p.see("a slip costs")
	p.see("300 mm")

	// Other sheets of the system.
	p.choose("plan", "draw it")
	for sheet, says := range map[string]string{"a value scale": "7 places", "pairings to paint": "4 mm apart", "a ladder": "7 places", "a palette guide": "4 mm apart"} {
		p.menu("sheet", sheet)
		p.see(says)
	}
}

func TestAnActionIsDrawnToAnotherPlaceAndTakenBack(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Starfish and anemone")
	p.exact()
	before := p.order()
	last := before[len(before)-1]

	p.find("the last wedge", `(id) => document.querySelector('[data-wedge="'+id+'"]')`, last)
	wedge := p.MustElement(`[data-wedge="` + last + `"]`).MustShape().Box()
	hour := p.MustElement(`svg[aria-label^="the hour"]`).MustShape().Box()
	y := wedge.Y + wedge.Height/2
	p.Mouse.MustMoveTo(wedge.X+8, y)
	p.Mouse.MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(hour.X+hour.Width/2, y)
	p.Mouse.MustMoveTo(hour.X+6, y)
	p.Mouse.MustUp(proto.InputMouseButtonLeft)
	p.waitFor("it to be painted earlier", func() bool {
		now := p.order()
		return len(now) == len(before) && slices.Index(now, last) < slices.Index(now, before[0])
	})
	p.see("let my order go")
	p.exact()
	p.press("undo")
	p.waitFor("the order of before", func() bool { return slices.Equal(p.order(), before) })

	// By key the same.
	p.find("a wedge", `(id) => document.querySelector('[data-wedge="'+id+'"]')`, before[3]).MustFocus()
	p.keys(input.ArrowLeft)
	p.waitFor("it to be painted before the other", func() bool {
		now := p.order()
		return slices.Index(now, before[3]) < slices.Index(now, before[2])
	})
	p.press("let my order go")
	p.waitFor("the order of before", func() bool { return slices.Equal(p.order(), before) })

	// A section first.
	p.choose("plan", "ways to fill")
	p.press("paint it first")
	p.waitFor("its steps first", func() bool {
		now := p.order()
		slices.Sort(now[:3])
		return slices.Equal(now[:3], []string{"orange", "red-orange", "yellow-orange"})
	})
}

func TestRecipesAreCountedOutWhereverTheyStand(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("orange")
	p.choose("counted", "in dabs")
	p.see("Start with a dab 9 mm wide of the arylide yellow deep.")
	p.menu("measure", "drops")
	p.see("CIEDE2000")
	p.press("how large one is")
	p.write("of water weigh", "0.4")
	p.press("take 0.040 ml")
	p.see("now 0.040 ml")
	p.goTo("Path")
	p.see("drops")
	p.choose("counted", "in parts")
	p.waitFor("parts", func() bool { return !p.shows("a hand strays") })
}

func TestTheBenchFitsATablet(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Kelp and wet stone")
	p.MustSetViewport(768, 1024, 1, false)
	p.waitFor("nothing cut off", func() bool {
		return p.MustEval(`() => document.documentElement.scrollWidth <= 768`).Bool()
	})
	p.choose("plan", "in order")
	p.waitFor("rows a wet finger hits", func() bool {
		return p.MustEval(`() => [...document.querySelectorAll('ol[aria-label="in order"] button')].every((b) => b.getBoundingClientRect().height >= 56)`).Bool()
	})
}

func TestASheetIsPutOnPaper(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Six from the harbour")
	p.menu("diameter", "150 mm")
	p.exact()
	p.press("on paper")
	drawn := func(what string) {
		t.Helper()
		p.waitFor("the picture of "+what, func() bool {
			return p.MustEval(`(what) => { const i = document.querySelector("main img"); return !!i && i.alt.includes(what) && i.complete && i.naturalWidth > 0; }`, what).Bool()
		})
	}
	begins := func(what string) {
		t.Helper()
		begin := p.MustEval(`async () => (await (await fetch(document.querySelector("a[download]").href)).text()).slice(0, 5)`).Str()
		assert.Equal(t, "%PDF-", begin, what)
	}
	drawn("the wheel")
	begins("the wheel")
	for _, sheet := range []string{"pairings to paint", "a ladder", "a value scale", "an intensity scale", "a run of neighbours", "a palette guide", "wanted colours", "warm and cool", "a worksheet"} {
		p.menu("sheet", sheet)
		drawn(sheet)
		begins(sheet)
	}
	p.menu("sheet", "a palette guide")
	p.choose("as", "in order")
	drawn("a palette guide")
	p.choose("as", "recipe cards")
	drawn("a palette guide")
	p.choose("as", "dabs")
	drawn("a palette guide")
	begins("dabs")
	p.choose("as", "all of these")
	p.see("1 of ")
	p.press("next page")
	p.see("2 of ")
	drawn("a palette guide")
	begins("a stack")
	p.choose("as", "to paint")
	p.choose("edition", "colours aimed at")
	p.choose("recipes", "counted out")
	p.choose("paper", "Letter")
	drawn("on Letter")
	begins("on Letter")
	// A blank for a class tells nothing, and its key all.
	read := func(edition string) string {
		t.Helper()
		p.waitFor("the "+edition, func() bool { return p.MustHas(`a[download][href*="edition=` + edition + `"]`) })
		return p.MustEval(`async () => (await (await fetch(document.querySelector("a[download]").href + "&format=svg")).text()).replace(/<style.*?<\/style>/gs, "").replace(/<[^>]*>/g, "\n")`).Str()
	}
	p.menu("sheet", "warm and cool")
	p.choose("edition", "blank, for a class")
	drawn("warm and cool")
	blank := read("blank")
	assert.True(t, strings.Contains(blank, "orange, warm"))
	for _, told := range []string{"Squeeze out", "softened", " : ", "ml"} {
		assert.False(t, strings.Contains(blank, told), "the blank tells %q", told)
	}
	p.choose("how many", "30 blanks and the key")
	p.see("1 of 32") // the key has two pages
	begins("a set for a class")
	p.choose("edition", "the key to it")
	drawn("warm and cool")
	key := read("key")
	for _, told := range []string{"the key", "Squeeze out", "softened", "clean", " : "} {
		assert.True(t, strings.Contains(key, told), "the key tells %q", told)
	}
	p.choose("edition", "outlines to paint")

	// What finds no room says so.
	p.menu("sheet", "the wheel")
	p.choose("paper", "A5")
	p.see("does not fit on A5: the largest is")

	// The same from other places.
	p.goTo("Path")
	p.press("on paper")
	drawn("a ladder")
	begins("the path")
	p.see("the path you came from")
	p.press("back to the path")
	p.see("other ways of these two")
	p.goTo("Compare")
	p.press("on paper")
	drawn("systems side by side")
	begins("systems side by side")
	p.goTo("Box")
	p.press("on paper")
	drawn("the palette guide of the box")
	p.see("1 of ")
	begins("the box")
}
