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
		"glazes":        {"68", "mixed/violet", "mixed/yellow-orange"},
		"the wheel":     {"21", "bit/1", "dark/dark"},
	} {
		t.Run(sheet, func(t *testing.T) {
			t.Parallel()
			p := atTheBench(t, "Six from the harbour")
			p.menu("medium", "gouache")
			p.menu("sheet", sheet)
			switch sheet {
			case "a worksheet":
				p.press("all of it")
				p.element("[role=menuitemcheckbox]", "the darkest dark, and its tint").MustClick()
				p.see("all of it, and 1 more")
				p.close()
			case "the wheel":
				p.press("nothing beside it")
				for _, more := range []string{"the darkest dark, and its tint", "a tube beside it", "a bit of another in it"} {
					p.element("[role=menuitemcheckbox]", more).MustClick()
				}
				p.see("and 3 more")
				p.close()
				p.menu("of the slot", "green")
				p.menu("beside it stands", "PG7 phthalo green blue shade")
				p.menu("a bit of which", "orange")
			case "glazes":
				p.menu("how thick each glaze lies", "0.2, thin")
				p.menu("over the others lies", "PB15:3 phthalo blue green shade")
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
			link := ": " + sheet
			if sheet == "the wheel" {
				link = "Six from the harbour"
			}
			p.element("a", link).MustClick()
			p.see("of " + c.places + " read; under way")
			assert.Empty(t, p.complaints())
		})
	}
}
