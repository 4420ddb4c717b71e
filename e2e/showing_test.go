package e2e

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
)

// shownTo makes an address for what the page is about to show, and opens it for somebody who is not known.
func (v visitor) shownTo(at string) visitor {
	v.t.Helper()
	v.press("make the address")
	v.see("It is told this once")
	address := v.MustElement(`[aria-label="address"]`).MustText()
	assert.Contains(v.t, address, at+"/shown#")
	return open(v.t, address)
}

const nothingShown = "Nothing is shown at this address. It may have been taken back, or its time is over."

// A painter shows a wheel to a friend: it is seen as it is now, until it is taken back.
func TestAWheelIsShownToAFriend(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustNavigate(at + "/wheel/1").MustWaitLoad()
	p.press("take it along")
	p.item("show it to others").MustClick()
	p.see("Whoever has the address sees, and can change nothing of it:")
	p.see("Never: your box, notes, prices, guesses, sittings and photos.")
	friend := p.shownTo(at)
	friend.waitFor("the wheel", func() bool { return friend.MustHas(`[role=radio][data-slot="6"]`) })
	assert.False(t, friend.shows("Tide-pool studio"), "whose it is, is not said")
	friend.find("a slot", `() => document.querySelector('[role=radio][data-slot="7"]')`).MustEval(`() => this.dispatchEvent(new MouseEvent("click", { bubbles: true }))`)
	friend.waitFor("its card", func() bool {
		return friend.MustHas(`[aria-label^="step: "]`) && friend.MustHas(`[aria-label="parts"]`)
	})
	for _, path := range []string{"/api/wheels", "/api/box", "/api/sittings", "/api/showings"} {
		assert.Equal(t, http.StatusUnauthorized, friend.MustEval(`async (path) => (await fetch(path)).status`, path).Int(), path)
	}
	assert.Empty(t, friend.MustEval(`() => document.cookie`).Str())

	another := p.another(at + "/wheel/1")
	another.rename("Rock pool at noon")
	friend.waitFor("the new name", func() bool { return friend.shows("at noon") })

	p.press("take it back")
	friend.see(nothingShown)
	for _, address := range []string{"/shown", "/shown#AAAAAAAAAAAAAAAAAAAAAAAAAA"} {
		guesser := open(t, at+address)
		guesser.see(nothingShown)
		assert.Equal(t, guesser.text(), friend.text())
	}
}

// What is shown as of today stays so; what is off is not seen, what is on is.
func TestABoxAndAComparisonAreShown(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustNavigate(at + "/box?panel=files").MustWaitLoad()
	p.press("show it to others")
	p.see("Show the box to others")
	p.element("[role=checkbox]", "by your name").MustClick()
	p.choose("seen", "as it is today")
	friend := p.shownTo(at)
	friend.see("by Tide-pool studio")
	friend.see("as of")
	friend.waitFor("its tubes", func() bool {
		return len(friend.all("[aria-label='paints of the box'] > li", "(e) => e.innerText")) == 14
	})
	p.MustNavigate(at + "/compare").MustWaitLoad()
	p.see("Keep this comparison")
	p.write("decision: took which, because", "the first for the anemones")
	p.press("keep it")
	p.see("the first for the anemones")
	p.press("show it to others")
	p.see("Show a comparison to others")
	p.element("[role=checkbox]", "your note and your decision").MustClick()
	other := p.shownTo(at)
	other.see("the first for the anemones")
	other.see("clean hues")
	p.press("take it back")
	other.see(nothingShown)
	assert.True(t, friend.shows("by Tide-pool studio"), "the box is shown still")
}

// A sheet is shown as it is printed; a sitting with its photos, where that was asked for.
func TestASheetAndASittingAreShown(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustNavigate(at + "/bench/1/paper?paper=Letter").MustWaitLoad()
	p.press("show it to others")
	p.see("Show a sheet of Kelp and wet stone to others")
	friend := p.shownTo(at)
	friend.waitFor("the sheet", func() bool {
		return friend.MustEval(`() => [...document.images].some((i) => i.alt.startsWith("page 1 of") && i.naturalWidth > 0)`).Bool()
	})
	p.MustNavigate(at + "/log").MustWaitLoad()
	p.element("a", demoRead).MustClick()
	p.see("What the tubes turned out to be")
	p.press("take it along")
	p.item("show it to others").MustClick()
	p.see("Never: your box, prices, guesses, what your tubes turned out to be, other sittings.")
	p.element("[role=checkbox]", "its photos").MustClick()
	other := p.shownTo(at)
	other.see("of 21 read")
	other.waitFor("the photo", func() bool {
		return other.MustEval(`() => [...document.images].some((i) => i.src.startsWith("blob:") && i.naturalWidth > 0)`).Bool()
	})
	assert.False(t, other.shows("What the tubes turned out to be"))
	p.element("[aria-label='shown now'] button", "take it back").MustClick()
	other.see(nothingShown)
	assert.False(t, friend.shows(nothingShown), "the sheet is shown still")
}
