package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// pairs are the pairings that are shown, as FROM~TO, in their order.
func (v visitor) pairs(within string) (out []string) {
	v.t.Helper()
	return v.all(within+" [data-pair]", `(e) => e.dataset.pair`)
}

// mark marks the opened pairing.
func (v visitor) mark(as string) {
	v.t.Helper()
	v.MustElement(`[data-choice^="mark of "]`).MustClick()
	v.item(as).MustClick()
}

func TestPairingsAreSortedExplainedAndTickedOff(t *testing.T) {
	t.Parallel()
	a := startApp(t, demoDatabase(t))
	p := open(t, a.address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.see("Fifteen pairings of six paints")
	p.see("6 clean, 4 softened, 2 muddy")
	assert.Equal(t, []string{"PY65~PR255", "PY184~PR255", "PY65~PR122", "PY184~PR122"}, p.pairs(`[aria-label="orange"]`), "bright to dull")
	assert.Len(t, p.pairs(`[aria-label="within a family"]`), 3)

	p.element("[data-pair]", "quinacridone magenta with phthalo blue").MustClick()
	p.see("Clean, although")
	p.see("7 PR122 : 1 PB15:3")
	p.choose("mark of quinacridone magenta with phthalo blue green shade", "painted")
	p.see("1 painted")
	p.element(`section[aria-label="orange"] button`, "plan 4").MustClick()
	p.see("4 to paint")
	p.choose("checklist", "4 to paint")
	p.waitFor("only what is to be painted", func() bool { return len(p.pairs("main")) == 4 })
	p.MustReload().MustWaitLoad()
	p.see("1 painted")
	assert.Len(t, p.pairs("main"), 4, "kept, and the address says what is shown")

	// Another tab with an older view is told, and nothing is overwritten.
	q := p.another(a.address)
	q.wheelOf("Six from the harbour")
	q.goTo("Pairings")
	q.element("[data-pair]", "deep with pyrrole scarlet").MustClick()
	p.MustActivate()
	p.element("[data-pair]", "deep with pyrrole scarlet").MustClick()
	p.choose("mark of arylide yellow deep with pyrrole scarlet", "judged")
	p.see("1 judged")
	q.MustActivate()
	q.choose("mark of arylide yellow deep with pyrrole scarlet", "painted")
	q.see("marked judged elsewhere in the meantime")
	q.see("1 judged")
}

func TestPairingsOfTheWholeBoxByLeanAndAsAMap(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Pairings")
	p.choose("pairings of", "my whole box")
	p.see("91 pairings of fourteen paints")
	p.choose("laid out", "by lean")
	p.waitFor("the grids", func() bool { return len(p.MustElements(`[role=table]`)) == 3 })
	p.see("warm, to violet 16°")
	p.MustElement(`[role=table][aria-label="violet, by lean"] [data-pair]`).MustClick()
	p.see("light taken")
	p.choose("laid out", "mud map")
	m := p.MustElement(`svg[role=application]`)
	m.MustFocus()
	p.keys(input.ArrowDown, input.ArrowRight, input.ArrowRight)
	p.see("pyrrole scarlet with anemone red")
	wide := func() int { return m.MustEval(`() => this.width.baseVal.value`).Int() }
	before := wide()
	p.keys(input.Equal)
	p.waitFor("nearer", func() bool { return wide() > before })
	p.keys(input.Minus, input.Enter)
	p.see("light taken")
	assert.True(t, strings.Contains(p.MustInfo().URL, "pair="), "the opened pairing is in the address")
	assert.Empty(t, p.complaints())
}

func TestNothingMovesFromUnderTheHandWhilePairingsAreWorkedOut(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	release := p.holds("*/api/pairings*")[0]
	p.goTo("Pairings")
	top := func() float64 {
		return p.MustElement(`[data-choice^="pairings of"]`).MustEval(`() => this.getBoundingClientRect().top`).Num()
	}
	before := top()
	assert.False(t, p.shows("Three pairings of three paints"), "not there yet")
	release()
	p.see("Three pairings of three paints")
	assert.InDelta(t, before, top(), 0.5)
}

func TestPairingsOfSomePaints(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Pairings")
	p.choose("pairings of", "some paints")
	p.see("Press two paints or more")
	p.element("[role=checkbox]", "burnt sienna")
	// Pressed more quickly than the page can show it, each of them counts.
	p.MustEval(`() => ["starfish yellow", "mussel violet", "burnt sienna"].forEach((name) =>
		[...document.querySelectorAll("[role=checkbox]")].find((e) => e.innerText.includes(name)).click())`)
	p.waitFor("three are chosen", func() bool { return len(p.MustElements(`[role=checkbox][aria-checked=true]`)) == 3 })
	p.see("Three pairings of three paints")
	p.menu("a paint of the library", "PG50 cobalt teal")
	p.see("Six pairings of four paints")
	p.element("[role=checkbox]", "burnt sienna").MustClick()
	p.see("Three pairings of three paints")
	p.MustReload().MustWaitLoad()
	p.see("Three pairings of three paints")
	p.see("cobalt teal")
	assert.Empty(t, p.complaints())
}

func TestPairingsFitATablet(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.MustSetViewport(768, 1024, 1, false)
	p.goTo("Pairings")
	for _, look := range []string{"bright to dull", "by lean", "mud map"} {
		p.choose("laid out", look)
		p.see("pairings of three paints")
		p.fits(look)
	}
}
