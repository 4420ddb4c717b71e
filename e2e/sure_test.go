package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A slot says what most tubes ask for and where to begin, and how sure its word is; why that is so, on a press.
func TestASlotSaysHowSureItIs(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.wheelOf("Kelp and wet stone")
	p.slot("orange")
	p.see("begin with 18 : 1 and creep")
	p.waitFor("how sure it is", func() bool { return p.MustHas(`[data-sure="likely"]`) })
	assert.Contains(t, p.MustElement(`[role=radio][aria-label^="orange, "]`).MustEval(`() => this.getAttribute("aria-label")`).Str(), "likely softened")
	p.MustElement(`[aria-label="in most tubes"] [data-word]`).MustClick()
	p.see("Tubes of one pigment differ")
	p.close()

	p.goTo("Pairings")
	p.element("[data-pair]", "").MustClick()
	p.waitFor("the same of a pairing", func() bool { return p.MustHas(`[aria-label="why"] [aria-label="in most tubes"]`) })
	assert.Empty(t, p.complaints())
}
