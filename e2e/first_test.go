package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// The words on three tubes and one press make a wheel of them; of a name that stands for several pigments
// it is settled in the box which it is.
func TestTheWordsOnTubesMakeAWheel(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.see("look around")
	p.write("what is printed on them", "Lemon yellow, perm. rose, unobtainium")
	p.see("nothing is called so")
	p.press("begin")
	p.see("No paint is usually called")
	p.field("what is printed on them").MustSelectAllText().MustInput("Lemon yellow, perm. rose, french ultramarin")
	p.see("not sure which")
	p.press("begin")
	p.see("of nine mixtures")
	p.see("First wheel")
	p.goTo("Box")
	p.strip("Lemon yellow")
	p.see("Not sure which.")
	p.press("it is PY184")
	p.waitFor("it is settled", func() bool { return p.shows("bismuth yellow") && !p.shows("Not sure which.") })
	p.strip("perm. rose")
	p.press("it is the one it is taken for")
	p.waitFor("it is sure", func() bool { return !p.shows("Not sure which.") && p.shows("saved") })

	// By the words on it a tube comes in beside them.
	p.press("add paints")
	p.MustElement(`[aria-label="search the library"]`).MustInput("sap green")
	p.see("Printed on a tube, “sap green” is usually")
	p.press("add it as “sap green”")
	p.see("Four paints")

	// One without a name is found by its look.
	p.press("add paints")
	p.press("no name on it?")
	p.menu("one of the reds", "blues")
	p.see("fits 1 of 1")
	p.menu("over the stripe", "lets it through")
	p.menu("its tint leans", "to violet")
	p.see("fits 3 of 3")
	p.element("[aria-label='add indanthrone blue']", "").MustClick()
	p.see("Five paints")
	p.see("blue without a name")
	p.see("told by its look")
	p.press("it is PB29")
	p.waitFor("what it is", func() bool { return p.shows("ultramarine blue") && !p.shows("told by its look") })

	// What the box has not is said, and not taken silently.
	p.MustNavigate(at + "/begin").MustWaitLoad()
	p.press("split primaries")
	p.see("would do")
	p.press("with my own alone")
	p.see("riding along")
	assert.Empty(t, p.complaints())
}

// A set as it is sold, struck out from; and what is without a wheel says so.
func TestASetOfPansMakesAWheel(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.press("a school set of pans")
	p.see("PBk7")
	p.write("your name", "Ida")
	p.press("begin")
	p.waitFor("the wheel", func() bool { return strings.Contains(p.MustInfo().URL, "/wheel/") })
	assert.Equal(t, "watercolour", p.setTo("medium"), "pans are pans")
	p.goTo("Bench")
	p.see("Wet these pans")
	p.press("on paper")
	p.sheet()
	p.goTo("Box")
	p.see("Twelve paints")
	p.MustNavigate(at + "/begin").MustWaitLoad()
	p.see("Three paints make a wheel")
	p.press("split primaries")
	p.see("riding along")
	assert.Equal(t, 1, p.MustEval(`async () => (await (await fetch("/api/wheels")).json()).length`).Int(), "the same is not kept twice")
	assert.Empty(t, p.complaints())
}

// sheet waits for the sheet of a wheel on paper.
func (v visitor) sheet() {
	v.t.Helper()
	v.see("save as PDF")
	v.waitFor("the sheet", func() bool {
		return v.MustEval(`() => { const i = document.querySelector("main img"); return !!i && i.complete && i.naturalWidth > 0; }`).Bool()
	})
}

// Six tubes with fancy names become a wheel of six and its sheet.
func TestSixOddNamesMakeAWheelAndASheet(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.see("look around")
	p.write("what is printed on them", "gamboge, permanent rose, french ultramarin, lemon, peacock blue, scarlet lake")
	p.waitFor("what they are taken for", func() bool { return len(p.MustElements(`[aria-label="what they are taken for"] > *`)) == 6 })
	p.press("begin")
	p.waitFor("the wheel", func() bool { return strings.Contains(p.MustInfo().URL, "/wheel/") })
	p.goTo("System")
	assert.Equal(t, "split primaries", p.setTo("kind of system"), "six tubes fill six places")
	p.goTo("Bench")
	p.press("on paper")
	p.sheet()
	assert.Empty(t, p.complaints())
}

// The sentences of the demo's first minute each do what they say, and go for good by one key.
func TestTheFirstMinuteDoesWhatItSays(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.press("Tide-pool studio")
	p.see("of nine mixtures")
	p.press("Cover a wheel and guess it.")
	p.see("What will it be?")
	p.press("Swap a red and see the violet turn to mud.")
	p.see("PR108")
	p.waitFor("mud in the violet", func() bool { return p.MustHas(`[aria-label^="step: "] [data-verdict=muddy]`) })
	p.undo()
	p.waitFor("the violet as it was", func() bool { return p.MustHas(`[aria-label^="step: "] [data-verdict=clean]`) })
	p.press("Hold two systems side by side.")
	p.waitFor("two of them", func() bool { return len(p.MustElements(`[aria-label^="bring "]`)) == 2 })
	p.press("Paint it.")
	p.see("Paint for")
	p.keys(input.Digit0)
	p.waitFor("that they are away", func() bool { return !p.shows("Paint it.") })
	p.MustNavigate(at + "/wheel/1").MustWaitLoad()
	p.see("of nine mixtures")
	assert.False(t, p.shows("Paint it."), "put away for good")
	p.menu("painter", "a first minute")
	p.see("Paint it.")

	// A word says what it means, and all of them stand on a page.
	p.MustElement("[data-word=possible]").MustClick()
	p.see("the most brightness that any paint or pair")
	p.press("all words")
	p.see("riding along")
	p.see("spindle")
	assert.Empty(t, p.complaints())
}
