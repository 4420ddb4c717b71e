package e2e

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
	p.see("modelled for its class")
	p.close()

	p.goTo("Pairings")
	p.element("[data-pair]", "").MustClick()
	p.waitFor("the same of a pairing", func() bool { return p.MustHas(`[aria-label="why"] [aria-label="in most tubes"]`) })
	assert.Empty(t, p.complaints())
}

// From a pairing that may go either way to three swatches, read with a meter, to a recipe that is settled.
func TestThreeSwatchesSettleARecipe(t *testing.T) {
	t.Parallel()
	app := startAppWith(t, demoDatabase(t), "--with-meter")
	p := open(t, app.address)
	p.write("your name", "Ada")
	p.press("begin")
	p.see("Three paints make a wheel")
	p.ask(http.MethodPost, "/api/box/paints?medium=gouache", map[string]any{"paints": []string{"PY3", "PR122", "PB29"}, "grade": "artist"})
	tubes := p.MustEval(`async () => (await (await fetch("/api/box?medium=gouache&light=D65&judged=dry")).json()).tubes.map((t) => [t.paint.id])`)
	status, made := p.ask(http.MethodPost, "/api/wheels", map[string]any{
		"name":     "Lemon and magenta",
		"system":   map[string]any{"kind": "triad", "roles": tubes, "chosen": [][]string{{}, {}, {}}, "riders": map[string]any{}, "note": ""},
		"settings": asUsual,
	})
	require.Equal(t, http.StatusOK, status, made)
	at := fmt.Sprintf("/pairings/%v", made["id"])
	p.MustNavigate(app.address + at).MustWaitLoad()
	doubted := p.find("a pairing that may go either way", `() => document.querySelector('[data-pair][data-sure="either way"]')`)
	pair := *doubted.MustAttribute("data-pair")
	doubted.MustClick()
	p.see("could turn out")
	card := `[aria-label="why"] [aria-label="in most tubes"]`
	p.waitFor("what most tubes ask for", func() bool { return p.MustHas(card) })
	before := p.MustElement(card).MustText()
	p.MustElement(card + " [data-word]").MustClick()
	p.press("what to paint to be surer")
	p.see("as they are known now")
	p.choose("what they are read by", "read by a meter")
	p.see("Three halve it.")

	p.press("begin to paint")
	p.see("Squeeze out")
	p.readAndKeep(3)

	p.MustNavigate(app.address + at).MustWaitLoad()
	if cell := p.element(fmt.Sprintf("[data-pair=%q]", pair), ""); *cell.MustAttribute("aria-expanded") == "false" {
		cell.MustClick()
	}
	why := `[aria-label="why"]`
	p.waitFor("a recipe that is settled", func() bool {
		return p.MustHas(why) && !strings.Contains(p.MustElement(why).MustText(), before) && !p.shows("could turn out")
	})
	assert.Contains(t, []string{"sure", "likely"}, *p.element(fmt.Sprintf("[data-pair=%q]", pair), "").MustAttribute("data-sure"))
	assert.Empty(t, p.complaints())
}

// Swatches of the whole box hold paints that the wheel does not: they are painted, read and learned like any other.
func TestSwatchesOfTheBoxArePainted(t *testing.T) {
	t.Parallel()
	app := startAppWith(t, demoDatabase(t), "--with-meter")
	p := open(t, app.address)
	p.write("your name", "Ada")
	p.press("begin")
	p.see("Three paints make a wheel")
	p.ask(http.MethodPost, "/api/box/paints?medium=gouache", map[string]any{"paints": []string{"PY3", "PR122", "PB29", "PG7", "PO73"}, "grade": "artist"})
	tubes := p.MustEval(`async () => (await (await fetch("/api/box?medium=gouache&light=D65&judged=dry")).json()).tubes.slice(0, 3).map((t) => [t.paint.id])`)
	status, made := p.ask(http.MethodPost, "/api/wheels", map[string]any{
		"name":     "Lemon and magenta",
		"system":   map[string]any{"kind": "triad", "roles": tubes, "chosen": [][]string{{}, {}, {}}, "riders": map[string]any{}, "note": ""},
		"settings": asUsual,
	})
	require.Equal(t, http.StatusOK, status, made)
	p.MustNavigate(fmt.Sprintf("%s/bench/%v?sheet=swatches&readBy=instrument", app.address, made["id"])).MustWaitLoad()
	p.see("How far the parts of this wheel’s mixtures are known")
	p.choose("what they make surer", "every two of the box")
	p.see("half-way mixtures of every two paints of the box")
	p.see("1 PG7")
	p.press("begin to paint")
	p.see("Squeeze out")
	p.readAndKeep(4)
	assert.Empty(t, p.complaints())
}

// readAndKeep reads so many of the six swatches of the sitting that is open with the meter, and keeps how far their tubes are
// known by that.
func (p visitor) readAndKeep(swatches int) {
	p.t.Helper()
	p.MustNavigate(p.MustInfo().URL + "/readings?by=meter").MustWaitLoad()
	for n := range swatches {
		p.element("button", "read the ").MustClick()
		p.press("keep it")
		p.see(fmt.Sprintf("%d of 6 read", n+1))
	}
	p.goTo("Log")
	p.element("a", "under way").MustClick()
	p.see("with these readings")
	p.press("keep how far they are known")
	p.see("known the better for it")
}
