package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// violation is a rule of axe-core that a page breaks, and where.
type violation struct {
	ID    string `json:"id"`
	Help  string `json:"help"`
	Nodes []struct {
		Target         []any  `json:"target"`
		HTML           string `json:"html"`
		FailureSummary string `json:"failureSummary"`
	} `json:"nodes"`
}

// breaks runs axe-core on the page as it is.
func (v visitor) breaks() (out []violation) {
	v.t.Helper()
	if !v.MustEval(`() => !!window.axe`).Bool() {
		source, err := os.ReadFile(filepath.Join(root(v.t), "ui", "node_modules", "axe-core", "axe.min.js"))
		require.NoError(v.t, err, "axe-core comes with the front end's packages: run make test")
		v.MustEval(`(source) => { (0, eval)(source) }`, string(source))
	}
	found := v.MustEval(`async () => JSON.stringify((await axe.run(document, { resultTypes: ["violations"] })).violations)`).String()
	require.NoError(v.t, json.Unmarshal([]byte(found), &out))
	return out
}

// tooWide is what stands out of the page to the right, when the page can be scrolled there.
func (v visitor) tooWide() string {
	v.t.Helper()
	return v.MustEval(`() => {
		const seen = document.documentElement.clientWidth;
		if (document.documentElement.scrollWidth <= seen) return "";
		const out = (e) => e.getBoundingClientRect().right > seen + 0.5;
		const clipped = (e) => e !== document.body && (getComputedStyle(e).overflowX !== "visible" || clipped(e.parentElement));
		return [...document.body.querySelectorAll("*")]
			.filter((e) => out(e) && !clipped(e.parentElement) && ![...e.children].some(out))
			.map((e) => e.parentElement.outerHTML.slice(0, 300) + " to " + Math.round(e.getBoundingClientRect().right))
			.slice(0, 4)
			.join("\n");
	}`).String()
}

// The places, each as a painter finds it, and what stands on it when it is there.
var places = []struct{ address, shows string }{
	{"/words", "riding along"},
	{"/mine", "save a backup"},
	{"/show", "Nothing is shown to anybody"},
	{"/class", "Predict with a class"},
	{"/class/1", "put it on the wall"},
	{"/wall/1", "lift the next"},
	{"/wall/1/2", "lift the next"},
	{"/together", "letters that stand on the wall"},
	{"/show/wheel/1", "make the address"},
	{"/phone", "gyrophane serve --lan"},
	{"/box", "ultramarine blue"},
	{"/box?view=leans", "the blue called warm leans to"},
	{"/box?tube=1", "masstone"},
	{"/box?panel=add", "Add paints"},
	{"/box?panel=files", "Take the box along"},
	{"/box?panel=care", "Take care"},
	{"/box/new", "two swatches"},
	{"/begin", "begin"},
	{"/system/1", "riding along"},
	{"/wheel/1", "of nine mixtures"},
	{"/wheel/1?cover=on", "What will it be?"},
	{"/wheel/1?view=neutrals", "ochre-like"},
	{"/wheel/1?view=glazes", "The wheel, glazed"},
	{"/begin/file", "before anything is kept"},
	{"/log/file", "Photos stay where they are"},
	{"/pairings/1", "quinacridone magenta"},
	{"/pairings/1?look=lean", "by lean"},
	{"/pairings/1?of=box&look=map", "the disc’s area"},
	{"/pairings/1/practice", "How the eye has fared"},
	{"/path/1", "other ways of these two"},
	{"/path/1?view=pile", "the pile"},
	{"/path/1?view=sheet", "let down below"},
	{"/path/1?view=quiet", "by its neighbour"},
	{"/bench/1", "Paint for 12 places"},
	{"/bench/1?view=order&region=green", "a hand strays"},
	{"/bench/1?view=draw&sheet=values", "7 places"},
	{"/bench/1?view=ways", "a slip costs"},
	{"/bench/1/paper", "save as PDF"},
	{"/bench/1?sheet=worksheet&slot=6", "Paint for 39 places"},
	{"/bench/1/paper?sheet=worksheet&edition=blank", "save as PDF"},
	{"/bench/1?sheet=glazes&without=ramp,order", "Paint for 30 places"},
	{"/bench/1?sheet=swatches&readBy=eye", "as they are known now"},
	{"/box/paper", "save as PDF"},
	{"/compare/paper?systems=1", "save as PDF"},
	{"/bench/sitting/1", "12 of 12 painted"},
	{"/bench/sitting/3", "Go on in an hour or tomorrow"},
	{"/bench/sitting/1/readings", "mark upper left"},
	{"/bench/sitting/1/readings?by=eye", "hold it on the bar"},
	{"/bench/sitting/1/readings?by=meter", "has no lens"},
	{"/bench/sitting/3/readings?by=file", "choose a file of readings"},
	{"/log", "3 sittings"},
	{"/log?words=kelp", "Starfish and anemone"},
	{"/log/1", "What the tubes turned out to be"},
	{"/log/2", "take it into the box"},
	{"/log/3", "strengths are learned from"},
	{"/log/2/beside/1", "in the place of"},
	{"/log/redraw/1", "there is nothing to redraw"},
	{"/compare", "mussel violet"},
	{"/compare?show=steps", "by their names"},
	{"/compare?show=steps&layout=rows", "by their names"},
	{"/compare?show=choose", "buy next"},
}

// Every place of the demo, loaded once: nobody is kept out by how a page is built (axe-core finds nothing at any
// width, each has one heading of the first level, and nothing has to be scrolled sideways), it can be squinted at, and used on a phone.
func TestEveryPlaceIsForEverybody(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	for some := range slices.Chunk(places, 5) {
		t.Run("from "+some[0].address, func(t *testing.T) {
			t.Parallel()
			p := open(t, at)
			p.see("look around") // who paints here is asked first
			p.isOpen("the door")
			p.asDemo()
			for _, place := range some {
				p.MustNavigate(at + place.address).MustWaitLoad()
				p.waitFor(place.address, func() bool { return p.isThere(place.shows) })
				p.isSquintedAt(place.address)
				p.isUsedWithAThumb(place.address)
				p.isOpen(place.address)
			}
		})
	}
}

// isThere says whether words can be read on the page, or are the label of something.
func (v visitor) isThere(words string) bool {
	return strings.Contains(strings.ToLower(v.text()), strings.ToLower(words)) || v.MustHas(`[aria-label="`+words+`"]`)
}

// isOpen looks at the page at every width.
func (v visitor) isOpen(here string) {
	v.t.Helper()
	v.MustSetViewport(1024, 800, 1, false)
	v.fits(here + " at 1024 px")
	require.NoError(v.t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(v.Page))
	for _, size := range [][2]int{{390, 844}, {768, 1024}, {1280, 800}} { // the last is what is gone on with
		width := size[0]
		v.MustSetViewport(width, size[1], 1, false)
		v.fits(fmt.Sprintf("%s at %d px", here, width))
		for _, b := range v.breaks() {
			for _, n := range b.Nodes {
				assert.Fail(v.t, b.ID, "%s at %d px: %s: %v %.200s", here, width, b.Help, n.Target, n.HTML)
			}
		}
		assert.Equal(v.t, 1, v.MustEval(`() => document.querySelectorAll("h1").length`).Int(), "%s at %d px: headings of the first level", here, width)
		filled := v.all("button, a", `(e) => { const s = getComputedStyle(e); return e.getClientRects().length && s.backgroundColor === "rgb(22, 22, 22)" ? e.innerText : ""; }`)
		filled = slices.DeleteFunc(filled, func(words string) bool { return words == "" })
		assert.LessOrEqual(v.t, len(filled), 1, "%s at %d px: one filled button a page, not %q", here, width, filled)
		deeds := v.all("button, a[role=button]", `(e) => e.getAttribute("role") !== "radio" && parseFloat(getComputedStyle(e).borderBottomWidth) > 1 && getComputedStyle(e).borderBottomColor === "rgb(22, 22, 22)" && parseFloat(getComputedStyle(e).borderTopWidth) === 0 ? e.innerText : ""`)
		deeds = slices.DeleteFunc(deeds, func(words string) bool { return words == "" })
		assert.Empty(v.t, deeds, "%s at %d px: what one does is not underlined like what one looks at", here, width)
	}
	require.NoError(v.t, proto.EmulationSetTouchEmulationEnabled{Enabled: false}.Call(v.Page))
}

// fits waits until nothing has to be scrolled sideways: a page takes a moment to
// lay itself out anew. Under load Chromium 156 now and then keeps the styles of the width
// before for what came in while it was narrowed, though its media queries answer for the new
// one; it is made wide and narrow once more.
func (v visitor) fits(here string) {
	v.t.Helper()
	const again = 20
	wide, looks := "", 0
	defer func() {
		if wide != "" {
			v.t.Log("it stands out: " + wide)
		}
	}()
	v.waitFor(here+": nothing scrolls sideways", func() bool {
		v.drawn()
		if wide = v.tooWide(); wide != "" {
			if looks++; looks%again == 0 {
				width := v.MustEval(`() => innerWidth`).Int()
				v.MustSetViewport(1280, 800, 1, false)
				v.drawn()
				v.MustSetViewport(width, 800, 1, false)
				v.t.Logf("%s: told its width again", here)
			}
		}
		return wide == ""
	})
}
