package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wheelOf opens one of the demo wheels by name.
func (v visitor) wheelOf(name string) {
	v.t.Helper()
	v.menu("wheel: ", name)
	v.waitFor("the wheel "+name, func() bool { return v.nameOfWheel() == name })
}

// names are what the slots are called, from the top in the wheel's direction.
func (v visitor) names() []string {
	v.t.Helper()
	var out [12]string
	for _, one := range v.all(`[role=radio][data-slot]`, `(e) => e.dataset.slot + "," + e.getAttribute("aria-label")`) {
		words := strings.Split(one, ",")
		slot, err := strconv.Atoi(words[0])
		require.NoError(v.t, err)
		out[slot] = words[1]
	}
	return out[:]
}

func (v visitor) close() {
	v.t.Helper()
	v.Keyboard.MustType(input.Escape)
	v.waitFor("the menu closes", func() bool { return !v.MustHas(".MuiBackdrop-root") })
}

func (v visitor) rings(what string) int { return len(v.MustElements(`[data-ring="` + what + `"]`)) }

func TestEveryKindOfSystemIsFilledFromTheBox(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	for _, kind := range []string{"RYB triad", "CMY triad", "split primaries", "double primaries", "leaning clockwise", "leaning counter-clockwise", "own system"} {
		p.menu("wheel: ", "a new wheel")
		p.see("or a whole system")
		p.press(kind)
		p.see("see the wheel")
		p.waitFor(kind, func() bool { return strings.HasPrefix(p.nameOfWheel(), kind) })
		want := 3
		if strings.Contains(kind, "primaries") {
			want = 6
		}
		p.waitFor("its places", func() bool { return len(p.MustElements(`[role=listbox] [role=option]`)) == want })
		p.press("see the wheel")
		p.see("of nine mixtures")
	}
}

func TestPlacesWarnAndTakePaintsByKeyAndByDragging(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("System")
	p.see("leans to green. What the green would become")
	p.see("every hue clean")
	present := func() string { return p.MustElement(`[aria-label="section: green"]`).MustText() }
	before := present()
	p.element(`button`, "put cadmium yellow PY35").MustHover()
	p.waitFor("what it would make, in the ring", func() bool { return p.MustHas(`[data-ring=pointed]`) && present() != before })
	p.Mouse.MustMoveTo(5, 5)
	p.waitFor("what there is", func() bool { return present() == before })
	p.element(`[aria-label="places of the yellow"] [role=option]`, "PY184")
	p.element(`button`, "put cadmium yellow PY35").MustClick()
	p.see("The cadmium yellow is centred; a paint that leans to green would do better here.")
	p.see("PY65 with PR255")
	p.saved()
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyZ).MustDo()
	p.waitFor("undone", func() bool { return !p.shows("would do better here") })

	// Dragged from the box, as a browser does it.
	p.MustEval(`() => {
		const from = document.querySelector('[aria-label="put cobalt blue in the place"]');
		const to = [...document.querySelectorAll('[aria-label="places of the blue"] [role=option]')][0];
		const data = new DataTransfer();
		from.dispatchEvent(new DragEvent("dragstart", { bubbles: true, dataTransfer: data }));
		to.dispatchEvent(new DragEvent("dragover", { bubbles: true, cancelable: true, dataTransfer: data }));
		to.dispatchEvent(new DragEvent("drop", { bubbles: true, cancelable: true, dataTransfer: data }));
	}`)
	p.element(`[aria-label="places of the blue"] [role=option]`, "cobalt blue")
	p.see("The cobalt blue is centred")
	p.saved()
	p.say("note to the system", "for panels 4 to 7")
	p.saved()
	p.press("earlier versions")
	p.see("take these paints")
	p.MustReload().MustWaitLoad()
	p.element(`[aria-label="places of the blue"] [role=option]`, "cobalt blue")
	p.press("duplicate")
	p.waitFor("the copy", func() bool { return p.nameOfWheel() == "Six from the harbour, again" })
	p.press("archive")
	p.see("take back")
	p.press("see the wheel")
	p.see("of nine mixtures")
	assert.Empty(t, p.complaints())
}

func TestWhatRidesAlongMakesTheTints(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("red")
	p.menu("rings: ", "1 tint")
	p.close()
	p.saved()
	p.see("tints with titanium white")
	p.goTo("System")
	p.menu("rider: white", "zinc white")
	p.saved()
	p.press("see the wheel")
	p.slot("red")
	p.see("tints with zinc white")
	p.goTo("System")
	p.menu("rider: black", "iron oxide black")
	p.saved()
	p.see("iron oxide black")

	// Two undos asked for at once take back one change, and refuse nothing.
	p.MustEval(`() => { const undo = [...document.querySelectorAll("button")].find((b) => b.textContent === "undo"); undo.click(); undo.click(); }`)
	p.see("bone black, as usual")
	p.saved()
	assert.True(t, p.shows("zinc white"))
	p.undo()
	p.waitFor("the white of before", func() bool { return !p.shows("zinc white") })
	assert.Empty(t, p.complaints())
}

func TestADoubleSystemShowsAndChoosesItsPairings(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Kelp and wet stone")
	p.slot("violet")
	p.see("other pairings, bright to dull")
	assert.Len(t, p.MustElements(`[aria-label="other pairings"] > div`), 3)
	p.goTo("System")
	p.menu("pair for orange", "PY43 with PBr7")
	p.saved()
	p.see("chosen")
	p.press("see the wheel")
	p.slot("orange")
	p.waitFor("mixed of the chosen pair", func() bool { return strings.Contains(p.parts(), "PY43") })
	p.slot("yellow-orange")
	p.press("how the wheel is turned")
	p.element("[role=menuitem]", "transparent paints raised").MustClick()
	p.close()
	p.see("raised with white")
}

func TestSplitPrimariesAreTwoHalves(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.slot("yellow")
	p.see("PY184 bismuth yellow")
	p.see("PY65 arylide yellow deep")
	p.see("9")
	p.press("change the system")
	p.see("split primaries")
}

func TestRingsSchoolsAndTurns(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("red-violet")
	p.see("Begin the run")
	p.menu("mixed: ", "the secondary first, then parted")
	p.slot("violet")
	p.see("Part it in three")
	p.slot("red-violet")
	p.see("Take a third of the violet you mixed")

	p.press("rings: none")
	for _, item := range []string{"2 tints", "2 shades", "tints by a lighter neighbour", "tints by white", "shades by black", "wash", "highlight and shadow", "neutral middles"} {
		p.element("[role=menuitem]", item).MustClick()
	}
	p.close()
	p.waitFor("tints on every slot", func() bool { return p.rings("tint") == 24 })
	assert.Positive(t, p.rings("shade"))
	assert.Equal(t, 12, p.rings("wash"))
	assert.Equal(t, 12, p.rings("highlight"))
	assert.Equal(t, 12, p.rings("neutral"))
	p.slot("red")
	p.see("shades with bone black")
	p.see("tints with titanium white")

	before := p.names()
	assert.Equal(t, "yellow", before[0])
	p.press("how the wheel is turned")
	p.element("[role=menuitem]", "red up").MustClick()
	p.element("[role=menuitem]", "counter-clockwise").MustClick()
	p.close()
	p.waitFor("red on top, the other way round", func() bool { n := p.names(); return n[0] == "red" && n[4] == "yellow" })
	p.press("how the wheel is turned")
	p.element("[role=menuitem]", "warm and cool halves").MustClick()
	p.see("warm")
	p.close()
	p.press("slots: twelve")
	p.element("[role=menuitem]", "six slots only").MustClick()
	p.waitFor("six slots", func() bool { return p.rings("tint") == 12 })
	p.see("saved")
	p.MustReload().MustWaitLoad()
	p.waitFor("kept", func() bool { return p.names()[0] == "red" })

	p.wheelOf("Sea lettuce and mussel")
	p.waitFor("the names of a CMY wheel", func() bool { return p.names()[3] == "magenta-orange" })
	p.press("how the wheel is turned")
	p.element("[role=menuitem]", "printers").MustClick()
	p.close()
	p.waitFor("printers' names", func() bool { return p.names()[2] == "red" && p.names()[6] == "blue" })
}

func TestSchemesAreReadOff(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("orange")
	p.see("split complement")
	p.press("triad: green")
	p.waitFor("the card of the green", func() bool { return p.MustHas(`[aria-label="step: green"]`) })
}

func TestNeutralsAndGlazes(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.choose("looked at", "neutrals")
	p.see("The darkest dark")
	p.see("ochre-like")
	p.element("button", "red with green").MustClick()
	p.see("red to green")
	p.see("Most neutral at")
	p.choose("steps of intensity", "5 steps")
	p.see("Values of red")

	p.choose("looked at", "glazes")
	p.see("The wheel, glazed")
	p.see("turned over")
	p.press("one more layer")
	p.see("3")
	p.press("lower")
	p.choosing("over", "PBk9")
	p.see("bone black")
	assert.Empty(t, p.complaints())
}

func TestPredictFirst(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.press("cover, guess")
	p.see("What will it be?")
	assert.NotContains(t, p.text(), "of nine mixtures", "nothing shows through the cover")
	assert.NotNil(t, p.element("button", "commit and lift the cover").MustAttribute("disabled"))
	for _, s := range [][2]string{{"orange", "clean"}, {"violet", "clean"}, {"green", "muddy"}} {
		p.press("hue of " + s[0])
		p.item(s[0]).MustClick()
		p.element(`[aria-label="brightness of `+s[0]+`"] [role=radio]`, s[1]).MustClick()
	}
	p.press("commit and lift the cover")
	p.see("of nine mixtures")
	p.slot("green")
	p.see("You said green, muddy")
	p.slot("violet")
	p.see("You said violet, clean")
	p.press("cover, guess")
	p.see("the cover has been lifted")
	p.see("of 12 points")
}

func TestSystemsAndTheirViewsFitATablet(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	wheel := strings.Split(p.MustInfo().URL, "?")[0]
	for _, width := range []int{768, 1280} {
		p.MustSetViewport(width, 800, 1, false)
		for address, says := range map[string]string{
			wheel: "of nine mixtures", wheel + "?view=neutrals": "ochre-like", wheel + "?view=glazes": "turned over", wheel + "?cover=on": "What will it be?",
			strings.Replace(wheel, "/wheel/", "/system/", 1): "riding along", strings.Split(wheel, "/wheel/")[0] + "/begin": "or a whole system",
		} {
			p.MustNavigate(address).MustWaitLoad()
			p.see(says)
			p.fits(fmt.Sprintf("%s at %d px", says, width))
		}
	}
}
