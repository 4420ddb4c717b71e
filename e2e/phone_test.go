package e2e

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// smallTexts are the texts on the page whose letters are smaller than 12 px, in figures too, where they are
// drawn smaller than they are written.
func (v visitor) smallTexts() []string {
	v.t.Helper()
	return v.lines(`() => {
		const out = [];
		const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
		for (let n; (n = walk.nextNode()); ) {
			const e = n.parentElement;
			if (!n.textContent.trim() || !e.getClientRects().length || getComputedStyle(e).visibility === "hidden") continue;
			if (e.closest("[style*='clip'], .visually-hidden, style, script, title") || getComputedStyle(e).clipPath !== "none") continue;
			const drawn = e.ownerSVGElement ? Math.hypot(e.getScreenCTM().a, e.getScreenCTM().b) : 1;
			const px = parseFloat(getComputedStyle(e).fontSize) * drawn;
			if (px < 11.95) out.push(n.textContent.trim().slice(0, 40) + " " + px.toFixed(1));
		}
		return out.join("\n");
	}`)
}

// smallTargets are the buttons, links and choices on the page that a thumb misses: narrower or lower than 48 px. Links in
// a sentence and the parts of a figure are left out.
func (v visitor) smallTargets(least int) []string {
	v.t.Helper()
	return v.lines(fmt.Sprintf(`() => [...document.querySelectorAll("button, a[href], [role=button], [role=radio], [role=checkbox]")]
		.filter((e) => e.getClientRects().length && !e.ownerSVGElement && !e.closest("[data-word]") && getComputedStyle(e).display !== "inline")
		.map((e) => [e, e.getBoundingClientRect()])
		.filter(([, r]) => r.height < %d - 0.5 || r.width < 48 - 0.5)
		.map(([e, r]) => (e.getAttribute("aria-label") ?? e.innerText).slice(0, 40).replace(/\s+/g, " ") + " " + Math.round(r.width) + " x " + Math.round(r.height))
		.join("\n")`, least))
}

func (v visitor) lines(js string) []string {
	v.t.Helper()
	all := strings.Split(v.MustEval(js).String(), "\n")
	return slices.DeleteFunc(all, func(line string) bool { return line == "" })
}

// A slot's card comes up from below and steps to its neighbours; the rail, the chip and what is behind "more" are within
// the thumb's reach; from a sitting the camera is one tap away.
func TestAWheelAndASittingOnAPhone(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustSetViewport(390, 844, 1, false)
	p.MustNavigate(at + "/wheel/1").MustWaitLoad()
	p.see("of nine mixtures")
	p.slot("violet")
	card := p.MustElement(`[aria-label="card of the slot"]`)
	assert.Equal(t, "violet", strings.ToLower(card.MustElement(`[aria-label^="step: "] h2`).MustText()))
	p.waitFor("the slot above the card", func() bool {
		return p.MustEval(`() => document.querySelector('[role=radio][aria-checked=true]').getBoundingClientRect().bottom <= document.querySelector('[aria-label="card of the slot"]').getBoundingClientRect().top`).Bool()
	})
	p.press("blue-violet")
	p.waitFor("the card of the next", func() bool { return p.MustHas(`[aria-label="step: blue-violet"]`) })
	p.press("put down")
	p.waitFor("it is down", func() bool { return !p.MustHas(`[aria-label="card of the slot"]`) })

	p.press("acrylic, dry")
	p.element(`[role=dialog] [role=radio]`, "wet").MustClick()
	p.press("done")
	p.see("acrylic, wet")
	p.press("more")
	p.element("[role=dialog] a", "Compare").MustClick()
	p.see("how far they reach")

	p.element("nav a", "7 of 15").MustClick()
	p.see("Paused")
	assert.True(t, p.MustHas(`input[type=file][capture=environment]`), "the camera")
	p.press("go on painting")
	p.see("another slot")
	p.press("the hour")
	p.see("fold the hour")
	p.press("pause, end")
	p.element("[role=dialog] button", "pause").MustClick()
	p.see("Paused")
	assert.Empty(t, p.complaints())
}

// isUsedWithAThumb says that a place can be read and used with a thumb on a phone.
func (v visitor) isUsedWithAThumb(address string) {
	v.t.Helper()
	for _, size := range [][2]int{{390, 844}, {360, 640}, {844, 390}} { // a small one, and one that lies
		here := fmt.Sprintf("%s at %d by %d", address, size[0], size[1])
		v.MustSetViewport(size[0], size[1], 1, false)
		v.fits(here)
		assert.Empty(v.t, v.smallTexts(), "%s: under 12 px", here)
		if size[0] == 390 {
			least := 48
			if strings.HasPrefix(address, "/bench/sitting/") {
				least = 56
			}
			assert.Empty(v.t, v.smallTargets(least), "%s: under %d px", here, least)
		}
	}
	v.MustSetViewport(1280, 800, 1, false)
}

// What dries while one looks at another place is told there.
func TestADrySlotIsToldAtEveryPlace(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.element("header a", "go on").MustClick()
	p.see("Paused")
	p.press("go on painting")
	p.see("another slot")
	p.keys(input.KeyP)
	p.waitFor("it is wet", func() bool { return p.MustHas(`[data-place][data-wet=true]`) })
	p.goTo("Compare")
	p.see("compared")
	// The demo's own slots dry some minutes after it was made: the one meant here dries last.
	slot := p.MustEval(`async () => {
		const [{ wet }] = await (await fetch("/api/under-way")).json();
		return wet.reduce((last, w) => (w.until > last.until ? w : last));
	}`)
	told := regexp.MustCompile(regexp.QuoteMeta(slot.Get("label").Str()) + "( and .*)? of Six from the harbour (is|are) dry")
	assert.NotRegexp(t, told, p.text())
	p.MustEval(`(until) => {
		const was = Date.now, ahead = until + 1500 - was();
		Date.now = () => was() + ahead; // the clock of this page, at when it is dry
	}`, slot.Get("until").Num())
	p.waitFor("told", func() bool { return told.MatchString(p.text()) })
	p.press("noted")
	p.waitFor("noted", func() bool { return !p.shows("noted") })
	assert.Empty(t, p.complaints())
}

// What a browser installs the page with is there, as large as it says.
func TestThePageHasItsIcons(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	assert.Equal(t, "any 192x192 512x512", p.MustEval(`async () => {
		const { icons } = await (await fetch(document.querySelector("link[rel=manifest]").href)).json();
		const sizes = [];
		for (const icon of icons) {
			const image = new Image();
			image.src = icon.src;
			await image.decode();
			sizes.push(icon.sizes === "any" ? "any" : image.naturalWidth + "x" + image.naturalHeight);
		}
		return sizes.join(" ");
	}`).String())
}

// What is small in a figure is reached by steppers: a flag of a way, a cell of the map.
func TestSmallPartsOfFiguresAreStepped(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustSetViewport(390, 844, 1, false)
	p.MustNavigate(at + "/path/1").MustWaitLoad()
	p.see("other ways of these two")
	before := p.flags()
	p.MustElement(`[aria-label="step 1"][role=group] button:last-of-type`).MustClick()
	p.waitFor("the flag moved", func() bool { return p.flags()[0] != before[0] })
	assert.Equal(t, before[1:], p.flags()[1:])
	p.press("set the steps evenly again")

	p.MustNavigate(at + "/pairings/1?look=map").MustWaitLoad()
	p.MustElement(`[aria-label="farther"]`)
	status := func() string { return p.MustElement(`[role=status] b`).MustText() }
	was := status()
	p.MustElement(`[aria-label="the column after"]`).MustClick()
	p.waitFor("the next cell", func() bool { return status() != was })
	p.press("open it")
	p.see("follow the path")
	assert.Empty(t, p.complaints())
}
