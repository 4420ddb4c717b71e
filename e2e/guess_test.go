package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// expect says what is expected of a covered pairing; mud is where it starts, as
// a share of the way, or negative for nowhere.
func (v visitor) expect(of, hue, drop string, mud float64) {
	v.t.Helper()
	const starts = "where the mud starts, "
	track := v.element(`[role=slider][aria-label^="`+starts+`"]`, of)
	of = strings.TrimPrefix(*track.MustAttribute("aria-label"), starts)
	if mud < 0 {
		v.element("[role=checkbox]", "never turns muddy").MustClick()
	} else {
		box := track.MustShape().Box()
		require.NoError(v.t, v.Mouse.MoveTo(proto.NewPoint(box.X+mud*box.Width, box.Y+box.Height/2)))
		v.Mouse.MustClick(proto.InputMouseButtonLeft)
	}
	v.press("hue of " + of)
	v.item(hue).MustClick()
	v.choose("brightness of "+of, drop)
}

func TestPairingsArePredictedUnderTheirCovers(t *testing.T) {
	t.Parallel()
	a := startApp(t, demoDatabase(t))
	p := open(t, a.address)
	p.asDemo()
	p.wheelOf("Six from the harbour")
	p.goTo("Pairings")
	p.press("predict first")
	p.see("Covered until you say")
	assert.False(t, p.shows("of the possible") || p.shows("clean"), "nothing tells what is under the covers")
	covered := p.pairs(`[aria-label="green"]`)
	assert.NotEqual(t, []string{"PB15:3~PY184"}, covered[:1], "and neither does the order")

	// One cell.
	p.element("[data-pair]", "phthalo blue green shade with bismuth yellow: covered").MustClick()
	assert.NotNil(t, p.element("button", "commit and lift").MustAttribute("disabled"))
	p.expect("phthalo blue green shade with bismuth yellow", "green", "clean", -1)
	p.press("commit and lift")
	p.see("You said green, clean, no mud. It is green, clean, no mud. 6 of 6")

	// A block: what was said of several is committed together.
	for _, pair := range []string{"phthalo blue green shade with arylide yellow deep", "ultramarine blue with bismuth yellow"} {
		p.element("[data-pair]", pair+": covered").MustClick()
		p.expect(pair, "violet", "muddy", 0.5)
	}
	p.see("you say violet, muddy, muddy 50 % of the way")
	p.element(`section[aria-label="green"] button`, "commit 2").MustClick()
	p.element("[data-pair]", "phthalo blue green shade with arylide yellow deep").MustClick()
	p.see("You said violet, muddy")

	// The same in another tab, which has not seen that it was said.
	q := p.another(a.address)
	q.wheelOf("Six from the harbour")
	q.goTo("Pairings")
	q.press("predict first")
	q.choose("laid out", "by lean")
	q.element("[data-pair]", "pyrrole scarlet with ultramarine blue: covered").MustClick()
	q.expect("pyrrole scarlet with ultramarine blue", "violet", "softened", -1)
	p.MustActivate()
	p.element("[data-pair]", "pyrrole scarlet with ultramarine blue: covered").MustClick()
	p.expect("pyrrole scarlet with ultramarine blue", "red-violet", "muddy", 0.3)
	p.press("commit and lift")
	p.see("You said red-violet, muddy, muddy 30 % of the way")
	q.MustActivate()
	q.press("commit and lift")
	q.see("was predicted before")
	q.see("You said red-violet, muddy")

	q.press("lift all covers")
	q.see("6 clean, 4 softened, 2 muddy")
	assert.Empty(t, p.complaints())
}

func TestAPathIsPredictedUnderItsCover(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Path")
	p.choose("from", "phthalo blue green shade")
	p.choose("to", "pyrrole scarlet")
	p.press("predict first")
	of := "phthalo blue green shade to pyrrole scarlet"
	p.MustElement(`[aria-label="the covered way"]`)
	assert.False(t, p.MustHas("[data-flag]"), "no step is shown")
	track := p.element(`[role=slider][aria-label^="where the mud starts"]`, of)
	track.MustFocus()
	p.keys(input.ArrowRight, input.ArrowLeft, input.ArrowLeft)
	assert.Equal(t, "45 percent of the way", *track.MustAttribute("aria-valuetext"))
	p.expect(of, "blue", "clean", -1)
	p.press("commit and lift the cover")
	p.see("You said blue, clean, no mud. It is ")
	p.see("of 6")
	p.MustElement("[data-flag]")
	p.MustReload().MustWaitLoad()
	p.see("You said blue, clean, no mud.")
	assert.Empty(t, p.complaints())
}

func TestARoundOfPracticeIsPlayedAndKept(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Pairings")
	p.press("practice")
	p.press("begin a round")
	for i := range 10 {
		p.see(fmt.Sprintf("%d of 10", i+1))
		p.expect("", "green", "softened", 0.4)
		p.press("commit and lift the cover")
		p.see("You said green, softened, muddy 40 % of the way")
		if i == 4 {
			p.MustReload().MustWaitLoad()
			p.see("6 of 10")
			p.element("[aria-label='places of the round'] button", "1: ").MustClick()
			p.see("You said green, softened")
			p.press("the next one")
			continue
		}
		if i < 9 {
			p.press("the next one")
		}
	}
	p.see("another round")
	p.see("30 guesses")
	dots := func() int { return len(p.MustElements(`[aria-label="how the eye has fared"] circle`)) }
	assert.Equal(t, 3, dots(), "after the two of the demo studio")
	p.press("another round")
	p.see("1 of 10")
	p.expect("", "orange", "clean", -1)
	p.press("commit and lift the cover")
	p.see("You said orange, clean, no mud")
	p.waitFor("the next round among the scores", func() bool { return dots() == 4 })
	p.press("put this round away")
	p.see("begin a round")
	p.MustSetViewport(768, 1024, 1, false)
	p.fits("the page")
	assert.Empty(t, p.complaints())
}
