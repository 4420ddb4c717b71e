package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// coloured are what is drawn on the page in a colour that is no grey.
func (v visitor) coloured() []string {
	v.t.Helper()
	return v.lines(`() => {
		const out = [];
		const grey = (c) => {
			const n = c.match(/-?[\d.]+/g)?.map(Number) ?? [0, 0, 0];
			return c.startsWith("lab") ? n[1] === 0 && n[2] === 0 : n[0] === n[1] && n[1] === n[2];
		};
		for (const e of document.querySelectorAll("#root *:not(input), [role=dialog] *:not(input)")) {
			const s = getComputedStyle(e);
			for (const of of ["fill", "stroke", "stopColor", "backgroundColor", "color", "borderLeftColor"])
				if (/^(rgb|color|lab)/.test(s[of]) && !grey(s[of])) out.push(e.tagName + " " + of + " " + s[of]);
		}
		return out.slice(0, 5).join("\n");
	}`)
}

// isSquintedAt says that a place shows no colour when it is squinted at, and is as it was after.
func (v visitor) isSquintedAt(here string) {
	v.t.Helper()
	v.MustElement("body").MustEval(`() => document.activeElement?.blur()`)
	v.Keyboard.MustType(input.KeyV)
	v.waitFor(here+" without colour", func() bool { return len(v.coloured()) == 0 })
	v.Keyboard.MustType(input.KeyV)
	v.waitFor(here+" as it was", func() bool { return !v.MustHas("[data-squint]") })
}

// What a slot's figure says of its lightness is what the card says and what squinting shows.
func TestAValueIsTheSameEverywhere(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustNavigate(at + "/wheel/1?slot=7").MustWaitLoad()
	p.see("value")
	figure := p.MustElement(`[data-slot="6"] g[aria-hidden] text`).MustEval(`function () { return this.textContent }`).Str()
	assert.Contains(t, p.MustElement(`[aria-label^="step: "]`).MustText(), "value "+figure)
	p.press("squint")
	shown := p.MustElement(`[data-slot="6"] path`).MustEval(`function () { return parseFloat(getComputedStyle(this).fill.slice(4)) / 10 }`).Num()
	assert.Equal(t, figure, fmt.Sprintf("%.1f", shown))
}
