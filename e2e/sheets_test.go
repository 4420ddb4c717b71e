package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Sheets that are no wheel are painted, with two slips, read and looked up like one.
func TestASheetIsPaintedReadAndLookedUp(t *testing.T) {
	t.Parallel()
	for sheet, c := range map[string]struct {
		places      string
		more, other string // where it was taken too much, and too little
	}{
		"warm and cool": {"18", "warm/violet", "cool with warm/orange"},
		"a worksheet":   {"44", "red-violet", "intensity/grey between"},
	} {
		t.Run(sheet, func(t *testing.T) {
			t.Parallel()
			p := atTheBench(t, "Six from the harbour")
			p.menu("medium", "gouache")
			p.menu("sheet", sheet)
			if sheet == "a worksheet" {
				p.press("all of it")
				p.element("[role=menuitemcheckbox]", "the darkest dark, and its tint").MustClick()
				p.see("all of it, and 1 more")
				p.close()
			}
			p.exact()
			p.element("button, a", "begin").MustClick()
			p.press("painted as planned")
			p.waitFor("all of it", func() bool { return p.shows("All painted") && p.shows("all kept") })
			for place, how := range map[string]string{c.more: "more ", c.other: "less "} {
				p.region(place)
				p.press("took more, or less")
				p.element("button", how).MustClick()
				p.press("keep this")
				p.waitFor("it to be kept", func() bool { return p.shows("all kept") })
			}
			p.press("read what was painted")
			p.see("0 of " + c.places + " read")
			p.press("it is dry")
			p.press("take a photo with the stand-in")
			p.see("of " + c.places + " read, light of about")
			p.press("keep ")
			p.waitFor("most to be read", func() bool { return p.MustHas("main") && !p.shows("0 of "+c.places+" read") })
			p.goTo("Log")
			p.element("a", ": "+sheet).MustClick()
			p.see("of " + c.places + " read; under way")
			assert.Empty(t, p.complaints())
		})
	}
}
