package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// One key takes up what is at hand and lays the next thing beside it, at whatever place: a slot beside a tube, a
// wheel before a swap beside the same after it, what was read of a sitting beside a wheel.
func TestAnythingIsHeldEdgeToEdge(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	key := func(k input.Key) {
		p.MustElement("body").MustEval(`() => document.activeElement?.blur()`)
		p.Keyboard.MustType(k)
	}
	done := func() {
		p.element("[role=dialog] button", "done").MustClick()
		p.waitFor("closed", func() bool { return !p.MustHas(`[role=dialog]`) })
	}
	says := func() string { return p.MustElement(`[role=dialog] [aria-label="what differs"]`).MustText() }
	held := func() string { return p.MustElement(`[aria-label="held"]`).MustText() }

	p.MustNavigate(at + "/box").MustWaitLoad()
	p.see("Fourteen paints")
	p.strip("ultramarine blue")
	key(input.KeyH)
	p.see("put it back")
	assert.Contains(t, held(), "ultramarine blue")

	p.MustNavigate(at + "/wheel/1?slot=7").MustWaitLoad()
	p.see("of nine mixtures")
	assert.Contains(t, held(), "ultramarine blue", "it is held from page to page")
	key(input.KeyH)
	p.see("at one value")
	p.waitFor("what differs", func() bool { return p.MustHas(`[role=dialog] [data-edges]`) })
	first := says()
	p.press("at one value")
	p.see("of white to 1")
	p.waitFor("another sentence", func() bool { return says() != first })
	assert.NotContains(t, says(), "darker")
	values := p.all(`[role=dialog] [data-word=value] + span`, `(e) => e.innerText`)
	assert.Len(t, values, 2)
	done()
	p.press("put it back")

	// Before and after.
	p.MustElement(`[data-choice^="hold"]`).MustClick()
	p.MustElements(`[role=menuitem]`)[1].MustClick()
	p.see("put it back")
	p.MustElement(`[data-choice="laid: flat"]`).MustClick()
	p.element(`[role=menuitem]`, "drawn out").MustClick()
	p.MustElement(`[data-choice^="steps:"]`).MustClick()
	p.element(`[role=menuitem]`, "equal parts").MustClick()
	p.waitFor("the wheel anew", func() bool { return strings.Contains(p.text(), "equal parts") })
	p.waitFor("steps that are others", func() bool {
		p.MustElements(`[aria-label="held"] button`)[1].MustClick()
		p.waitFor("edges", func() bool { return p.MustHas(`[role=dialog] [data-edges]`) })
		differs := strings.Contains(says(), "of 12; furthest apart at")
		done()
		return differs
	})

	// What was read beside what was meant.
	p.MustNavigate(at + "/log/1").MustWaitLoad()
	p.see("computed")
	key(input.KeyH)
	p.waitFor("edges", func() bool { return p.MustHas(`[role=dialog] [data-edges]`) })
	p.press("at one value")
	p.see("read and not mixed")
	done()
	assert.Empty(t, p.complaints())
}
