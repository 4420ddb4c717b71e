package e2e

import (
	"image"
	"image/color"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// inTheBox is the demo painter in front of the box.
func inTheBox(t *testing.T, a app) visitor {
	t.Helper()
	p := open(t, a.address)
	p.asDemo()
	p.goTo("Box")
	p.see("Fourteen paints")
	return p
}

// goTo goes to a place by the rail, and waits until the page of the place before has left: it stands until all of the next is here.
func (v visitor) goTo(place string) {
	v.t.Helper()
	link := v.element("nav a", place)
	here := link.MustAttribute("aria-current") != nil
	v.MustEval(`() => { window.placeBefore = document.querySelector("main"); }`)
	link.MustClick()
	v.waitFor("the place before "+place+" to leave", func() bool {
		return here || v.MustEval(`() => !window.placeBefore?.isConnected`).Bool()
	})
}

// strips are the names on the strips, in order.
func (v visitor) strips() (out []string) {
	v.t.Helper()
	return v.all("[role=option][data-tube] .name", `(e) => e.innerText.replaceAll("\n", " ")`)
}

func (v visitor) strip(name string) {
	v.t.Helper()
	v.element("[role=option][data-tube]", name).MustClick()
	v.see("hold another beside it")
}

// say writes over something that is said of a tube, and leaves it.
func (v visitor) say(label, text string) {
	v.t.Helper()
	f := v.MustElement(`[aria-label="` + label + `"]`)
	f.MustFocus()
	f.MustSelectAllText().MustInput(text)
	f.MustBlur()
}

// undo presses the button once it can be.
func (v visitor) undo() {
	v.t.Helper()
	v.waitFor("something to undo", func() bool {
		disabled, err := v.element("button", "undo").Attribute("disabled")
		return err == nil && disabled == nil
	})
	v.press("undo")
}

func (v visitor) saved() {
	v.t.Helper()
	v.waitFor("saved", func() bool { return v.shows("saved") && !v.shows("saving") && !v.shows("not saved") })
}

func TestAnEmptyBoxIsFilledWithTheKeyboard(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.write("your name", "Ada")
	p.press("begin")
	p.see("Three paints make a wheel")
	p.goTo("Box")
	p.see("Nothing in it yet")
	p.see("Six that lean")
	p.element(`[aria-label="three and a white"] button`, "begin with these").MustClick()
	p.see("Four paints")
	assert.Equal(t, []string{"arylide yellow medium", "quinacridone magenta", "phthalo blue green shade", "titanium white"}, p.strips())

	p.press("add paints")
	search := p.MustElement(`[aria-label="search the library"]`)
	search.MustInput("umber")
	p.waitFor("two umbers", func() bool { return len(p.MustElements("[role=option][data-paint]")) == 2 })
	p.keys(input.ArrowDown, input.Space, input.ArrowDown, input.Space)
	p.see("add 2 paints")
	p.keys(input.Enter)
	p.see("Six paints")
	p.press("undo")
	p.see("Four paints")
	p.press("add paints")
	p.MustElement(`[aria-label="search the library"]`).MustInput("PB29")
	p.keys(input.Enter)
	p.see("Five paints")
	p.see("of your two blues")
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyZ).MustDo()
	p.see("Four paints")
	assert.Empty(t, p.complaints())
}

func TestTheBoxIsSearchedFilteredAndSorted(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	all := p.strips()
	require.Len(t, all, 14)
	assert.Equal(t, "bismuth yellow", all[0])
	assert.Equal(t, "titanium white", all[13])
	p.choose("sorted by", "price")
	p.waitFor("the cheapest first", func() bool { return p.strips()[0] == "shallow-water turquoise" })
	p.choose("sorted by", "lightness")
	p.waitFor("the lightest first", func() bool { return p.strips()[0] == "titanium white" })
	p.choose("sorted by", "hue")
	p.choose("families", "blues")
	p.waitFor("the blues", func() bool { return len(p.strips()) == 3 })
	p.choose("families", "all families")
	p.MustElement(`[aria-label="search the box"]`).MustInput("quinacridone artist")
	p.waitFor("the one that is both", func() bool { return len(p.strips()) == 1 })
	p.MustElement(`[aria-label="search the box"]`).MustSelectAllText().MustInput("nothing like it")
	p.see("No paint of the box is like that")
	p.press("show all")
	p.press("student-safe only")
	p.waitFor("no cobalt", func() bool { return len(p.strips()) == 11 && !p.shows("cobalt blue") })
	address := p.MustInfo().URL
	p.MustNavigate(address).MustWaitLoad()
	p.waitFor("a link opens the same picture", func() bool { return len(p.strips()) == 11 })
	p.press("cautions")
	p.see("bismuth vanadate")
	p.see("qualified adviser")
}

func TestATubeIsNamedGradedArchivedAndBroughtBack(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.strip("ultramarine blue")
	p.see("the most violet of your four blues")
	p.see("typical of the pigment class")
	p.say("nickname", "the blue of the deep pool, where the mussels sit under the ledge and wait")
	p.saved()
	p.waitFor("the strip has it too", func() bool { return strings.Contains(strings.Join(p.strips(), "|"), "the blue of the deep") })
	p.choose("grade", "student")
	p.see("at half strength")
	p.field("price").MustSelectAllText().MustInput("12,5").MustBlur()
	p.field("tube, ml").MustSelectAllText().MustInput("lots").MustBlur()
	p.see("a number, please")
	p.field("tube, ml").MustSelectAllText().MustInput("-3").MustBlur()
	p.see("A tube of -3 ml cannot be")
	p.see("Not kept: ultramarine blue as you changed it")
	p.press("let it go")
	p.press("archive")
	p.see("Thirteen paints")
	p.press("back into the box")
	p.see("Fourteen paints")
	p.MustReload().MustWaitLoad()
	p.see("at half strength")
	assert.Equal(t, "12.5", p.field("price").MustProperty("value").String())
	for _, strips := range []int{13, 14} {
		p.undo()
		p.waitFor("archiving and bringing back are undone first", func() bool { return len(p.strips()) == strips })
	}
	p.undo()
	p.waitFor("then the price", func() bool { return p.field("price").MustProperty("value").String() == "8.1" })
}

func TestLeansDialsAndTheSchool(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.strip("ultramarine blue")
	p.see("leans to violet 16°, warm")
	p.choose("shown as", "leans")
	p.see("the blue called warm leans to")
	assert.GreaterOrEqual(t, len(p.MustElements(`svg[role=group] [role=button]`)), 13+13, "on its arc and on the circle")
	p.choose("the warm blue leans to", "green")
	p.see("leans to violet 16°, cool")
	p.element(`svg[role=group] [role=button]`, "PB15:3").MustClick()
	p.see("leans to green 16°, warm")
	p.choose("the warm blue leans to", "violet")
	p.see("leans to green 16°, cool")

	p.choose("shown as", "strips")
	p.press("hold another beside it")
	p.see("Now choose the paint")
	p.element("[role=option][data-tube]", "ultramarine blue").MustClick()
	p.see("nearer to violet")
	p.see("CIEDE2000 between the masstones")
	p.press("put back")
	p.see("hold another beside it")
}

func (v visitor) way(word string) {
	v.t.Helper()
	v.choose("the way to make it", word)
}

// keepAs gives a previewed paint a name and keeps it.
func (v visitor) keepAs(name string) {
	v.t.Helper()
	v.write("name of the paint", name)
	v.press("keep it in my box")
	v.waitFor("it is in the box", func() bool { return strings.Contains(strings.Join(v.strips(), "|"), name) })
}

func (v visitor) choosing(label, value string) {
	v.t.Helper()
	v.field(label).MustEval(`(v) => {
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(this, v);
		this.dispatchEvent(new Event("change", { bubbles: true }));
	}`, value)
}

// upload gives a file to the button of a label.
func (v visitor) upload(label, path string) {
	v.t.Helper()
	v.waitFor("a place for a file: "+label, func() bool {
		for _, e := range v.MustElements(`input[type=file]`) {
			if *e.MustAttribute("aria-label") == label && e.MustEval(`() => !!this.previousElementSibling.offsetParent`).Bool() {
				e.MustSetFiles(path)
				return true
			}
		}
		return false
	})
}

func fileOf(t *testing.T, name string, data []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, data, 0o600))
	return path
}

func TestAPaintFromTwoTypedSwatches(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.press("make a paint")
	p.see("Paint two swatches")
	p.write("masstone: CIELAB", "43 -33 -18")
	p.write("tint: CIELAB", "#8fc3cb")
	p.see("from two swatches")
	p.see("hardly visible")
	tint := p.field("tint: CIELAB")
	tint.MustSelectAllText().MustInput("20 0 0")
	p.see("the wrong way round?")
	tint.MustSelectAllText().MustInput("72 -30")
	p.see("three figures of CIELAB")
	tint.MustSelectAllText().MustInput("72 -30 -15")
	white := p.MustElement(`[aria-label="parts of white"]`)
	white.MustSelectAllText().MustInput("0")
	p.see("share of white of 0")
	white.MustSelectAllText().MustInput("9")
	p.write("pigment codes", "PB35")
	p.see("Contains a cobalt compound")
	p.keepAs("ferry turquoise")
	p.see("from two swatches")
	p.press("undo")
	p.waitFor("undone", func() bool { return !strings.Contains(strings.Join(p.strips(), "|"), "ferry turquoise") })
}

// swatchPhoto is a picture of a masstone and a tint on warm white paper.
func swatchPhoto(t *testing.T) string {
	t.Helper()
	m := image.NewNRGBA(image.Rect(0, 0, 400, 300))
	for x := range 400 {
		for y := range 300 {
			c := color.NRGBA{215, 208, 190, 255}
			if y > 30 && y < 270 && x > 120 && x < 200 {
				c = color.NRGBA{60, 30, 90, 255}
			} else if y > 30 && y < 270 && x > 240 && x < 320 {
				c = color.NRGBA{140, 110, 160, 255}
			}
			m.Set(x, y, c)
		}
	}
	path := filepath.Join(t.TempDir(), "swatches.png")
	f, err := os.Create(path)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, m))
	require.NoError(t, f.Close())
	return path
}

func TestAPaintFromAPhoto(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.press("make a paint")
	p.choose("colours are", "from a photo")
	p.upload("choose a photo", fileOf(t, "holiday.png", []byte("this is no picture")))
	p.see("no PNG or JPEG picture")
	p.upload("another photo", swatchPhoto(t))
	p.see("from two swatches")
	p.see("hardly visible")
	before := p.MustElement(`[aria-label="masstone found"]`).MustText()
	paper := p.MustElement(`[data-spot=paper]`)
	paper.MustFocus()
	for range 6 {
		p.KeyActions().Press(input.ShiftLeft).Type(input.ArrowRight).MustDo() // onto the masstone
	}
	p.see("bare paper:")
	for range 6 {
		p.KeyActions().Press(input.ShiftLeft).Type(input.ArrowLeft).MustDo()
	}
	p.waitFor("the same colours again", func() bool {
		return p.MustHas(`[aria-label="masstone found"]`) && p.MustElement(`[aria-label="masstone found"]`).MustText() == before
	})
	p.keepAs("mussel from a photo")
	assert.Empty(t, p.complaintsBut("422"))
}

// complaintsBut leaves out what the browser says of refusals that were meant.
func (v visitor) complaintsBut(meant string) (out []string) {
	for _, c := range v.complaints() {
		if !strings.Contains(c, meant) {
			out = append(out, c)
		}
	}
	return out
}

func TestAPaintFromTheMeter(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startAppWith(t, demoDatabase(t), "--with-meter"))
	p.press("make a paint")
	p.choose("colours are", "with the meter")
	p.choosing("under the meter lies", "PR122")
	p.press("read the masstone")
	p.see("mean of 3 measurements")
	p.press("read the tint")
	p.see("measured: from spectra of two swatches")
	p.see("leans to violet 26°")
	p.keepAs("metered magenta")

	unplugged := inTheBox(t, startApp(t, demoDatabase(t)))
	unplugged.press("make a paint")
	unplugged.choose("colours are", "with the meter")
	unplugged.choosing("under the meter lies", "PR122")
	unplugged.press("read the masstone")
	unplugged.see("The meter is not connected")
}

func TestAPaintFromASpectralFile(t *testing.T) {
	t.Parallel()
	spectra, err := exec.Command(filepath.Join(root(t), "bin", "gyrophane"), "paints", "--format", "cgats").Output()
	require.NoError(t, err)
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.press("make a paint")
	p.way("a spectral file")
	p.upload("choose a spectral file", fileOf(t, "cut.txt", spectra[:3000]))
	p.see("cut.txt: ")
	p.upload("choose a spectral file", fileOf(t, "library.txt", spectra))
	p.see("CGATS, 144 spectra, 380 to 730 nm, 36 values, from 0 to 1.")
	p.see("o single paint gives both swatches")
	p.menu("swatches painted in", "gouache") // glossy while it is wet, as the spectra of the library are
	p.choosing("masstone", "50")
	p.choosing("tint", "51")
	p.see("whether the swatch was wet or dry")
	p.choose("swatches are", "wet")
	p.see("measured: from spectra of two swatches")
	p.see("among the reds")
	p.keepAs("red from a file")
}

func TestAPaintFromTheLabelAndOneLikeAnother(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.press("make a paint")
	p.way("from the label")
	p.write("what the label says", "PV23, PBr7, PY300")
	p.see("The library has no PY300")
	p.choose("which PBr7", "burnt sienna")
	p.see("36 %") // less of the stronger violet
	p.see("64 %")
	p.see("PBr7-burnt-sienna")
	p.field("masstone: CIELAB").MustInput("17 6 -2")
	p.see("Laid out again it misses the masstone by")
	p.keepAs("label violet")

	p.press("make a paint")
	p.way("like another, but")
	p.choosing("like", "PB29")
	p.see("leans to violet 16°")
	slider := p.MustElement(`input[aria-label="shift of the absorption"]`)
	slider.MustFocus()
	for range 3 {
		p.KeyActions().Type(input.PageUp).MustDo()
	}
	p.waitFor("it has moved", func() bool { return p.shows("+") && !p.shows("leans to violet 16°") })
	p.keepAs("ultramarine, greener")
	p.see("adjusted: a modelled paint made like yours by hand")
}

func TestABoxFileIsLookedAtRowByRow(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.press("files")
	p.upload("choose a box file", fileOf(t, "notes.csv", []byte("colour,price\nred,3\n")))
	p.see("notes.csv: line 1: no column is called paint or name")
	p.upload("choose a box file", fileOf(t, "studio.csv", []byte("paint;nickname;price\nPB60;night;12,50\nPX9;;\n")))
	p.see("One row is wrong")
	p.see(`unknown paint "PX9"`)
	assert.NotNil(t, p.element("button", "add 1 paint").MustAttribute("disabled"))
	p.press("leave out what is wrong")
	p.waitFor("it can be added", func() bool { return p.element("button", "add 1 paint").MustAttribute("disabled") == nil })
	p.press("add 1 paint")
	p.see("Fifteen paints")
	p.strip("night")
	assert.Equal(t, "12.5", p.field("price").MustProperty("value").String())
	p.press("files")
	p.see("Take the box along")
	for _, format := range []string{"csv", "json", "cgats", "gpl"} {
		text := p.MustEval(`async (f) => { const a = [...document.querySelectorAll("a[download]")].find((a) => a.href.endsWith("=" + f)); return (await fetch(a.href)).text() }`, format).String()
		assert.Contains(t, text, "night", format)
	}
}

func TestTwoTabsOnOnePaintNeverOverwriteEachOther(t *testing.T) {
	t.Parallel()
	first := inTheBox(t, startApp(t, demoDatabase(t)))
	first.strip("cobalt blue")
	second := first.another(first.MustInfo().URL)
	second.see("hold another beside it")
	first.MustActivate()
	first.say("note", "panels 2 and 9")
	first.saved()
	second.MustActivate()
	second.say("note", "keep for the ferry")
	second.see("cobalt blue was changed in two places at once")
	second.see("panels 2 and 9")
	second.press("take the one kept beside")
	second.waitFor("the notice goes", func() bool { return !second.shows("changed in two places at once") })
	first.MustActivate()
	first.MustReload().MustWaitLoad()
	first.waitFor("it is everywhere", func() bool {
		return first.MustHas(`textarea[aria-label="note"]`) && first.MustElement(`textarea[aria-label="note"]`).MustProperty("value").String() == "keep for the ferry"
	})
}

func TestABoxChangeWaitsForTheDatabase(t *testing.T) {
	t.Parallel()
	cluster := ownCluster(t)
	p := inTheBox(t, startApp(t, cluster.url))
	p.strip("burnt sienna")
	cluster.run("stop")
	p.say("nickname", "kelp brown")
	p.see("not saved yet")
	cluster.run("start")
	p.saved()
	p.MustReload().MustWaitLoad()
	p.waitFor("kept", func() bool { return strings.Contains(strings.Join(p.strips(), "|"), "kelp brown") })
}

func TestSurroundAndWideScreens(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	ground := func() string { return p.MustEval(`() => getComputedStyle(document.body).backgroundColor`).String() }
	light := ground()
	p.choose("surround", "dark")
	p.waitFor("it is dark", func() bool { return ground() != light })
	p.MustReload().MustWaitLoad()
	p.see("Fourteen paints")
	assert.Equal(t, "rgb(26, 26, 26)", ground(), "kept in this browser")
	p.choose("surround", "mid grey")
	p.waitFor("it is grey", func() bool { return ground() == "rgb(145, 145, 145)" })

	cut := func() int { return len(p.MustElements("[data-cut]")) }
	before := cut()
	assert.Positive(t, before, "some paints are brighter than sRGB")
	assert.NotContains(t, p.MustHTML(), "color(display-p3")
	require.NoError(t, proto.EmulationSetEmulatedMedia{Features: []*proto.EmulationMediaFeature{{Name: "color-gamut", Value: "p3"}}}.Call(p))
	p.waitFor("the screen is wide", func() bool { return p.MustEval(`() => matchMedia("(color-gamut: p3)").matches`).Bool() })
	p.waitFor("it gets more of a colour", func() bool { return strings.Contains(p.MustHTML(), "color(display-p3") })
	assert.Less(t, cut(), before, "fewer paints are brighter than the screen")
}

func TestNumberKeysGoToPlaces(t *testing.T) {
	t.Parallel()
	p := inTheBox(t, startApp(t, demoDatabase(t)))
	p.MustElement("body").MustFocus()
	p.keys(input.Digit3)
	p.see("of nine mixtures")
	p.keys(input.Digit2)
	p.see("riding along")
	p.keys(input.Digit1)
	p.see("Fourteen paints")
	p.MustElement(`[aria-label="search the box"]`).MustInput("2")
	p.see("Fourteen paints")
}
