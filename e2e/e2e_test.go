// Package e2e drives the real interface in Chromium, as a painter would.
package e2e

import (
	"fmt"
	"strings"
	"syscall"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

func TestFirstRunToAWheelOfThreeChosenPaints(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.see("Know the wheel before you paint it")
	p.see("Tide-pool studio")
	p.write("your name", "Ada")
	p.press("begin")
	p.see("Three paints make a wheel")
	p.pick("yellow", "PY184")
	p.pick("red", "PR122")
	p.pick("blue", "PB15:3")
	p.press("see the wheel")
	p.see("of nine mixtures")
	assert.Equal(t, "First wheel", p.nameOfWheel())
	assert.Len(t, p.MustElements(`[role=radio][data-slot]`), 12)

	p.slot("green")
	p.see("of the possible")
	assert.Equal(t, "clean", p.verdict())
	assert.Contains(t, p.parts(), "PB15:3")
	p.see("both lean to green")
}

func TestSwappingAPaintChangesPartsAndVerdictAndStays(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("green")
	before := p.parts()
	assert.Equal(t, "muddy", p.verdict(), "an orange-leaning yellow and a violet-leaning blue")

	p.swap("blue", "PB15:3")
	p.slot("green")
	p.waitFor("the green is made with the new blue", func() bool { return strings.Contains(p.parts(), "PB15:3") })
	assert.NotEqual(t, before, p.parts())
	assert.NotEqual(t, "muddy", p.verdict())
	p.see("saved")

	p.MustReload().MustWaitLoad()
	p.slot("green")
	assert.Contains(t, p.parts(), "PB15:3", "reload keeps it")

	p.press("undo")
	p.slot("green")
	p.waitFor("the old blue is back", func() bool { return p.parts() == before })
}

func TestMediumLightAndWetnessChangeWhatIsShown(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("violet")
	verdict, painted := p.verdict(), p.painted(6)
	for _, change := range []func(){
		func() { p.choose("light", "warm lamp") },
		func() { p.choose("judged", "wet") },
		func() { p.menu("medium: acrylic", "watercolour") },
	} {
		change()
		p.waitFor("the slot looks different", func() bool { return p.painted(6) != painted })
		painted = p.painted(6)
		assert.Equal(t, verdict, p.verdict(), "the verdict never depends on the view")
	}
	p.see("thinned with water")
	p.see("saved")
	address := p.MustInfo().URL
	assert.Contains(t, address, "light=A")
	p.MustNavigate(strings.Split(address, "?")[0]).MustWaitLoad()
	p.see("thinned with water")
	p.waitFor("the conditions are as they were left", func() bool { return p.painted(6) == painted })

	p.menu("steps: half way in hue", "equal parts")
	p.slot("green")
	p.waitFor("equal parts", func() bool { return strings.Contains(p.parts(), "1 PY65") })
}

func TestPickerSearchesByNameAndColourIndex(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("red")
	p.press("swap this paint")
	p.see("Which red?")
	search := p.MustElement(`input[aria-label="search a red"]`)
	search.MustInput("rubine")
	p.waitFor("found by name", func() bool { return len(p.MustElements("[role=option]")) == 1 })
	search.MustSelectAllText().MustInput("pr255")
	p.see("pyrrole scarlet")
	search.MustSelectAllText().MustInput("no such thing")
	p.see("No paint of the library is called that")
	search.MustSelectAllText().MustInput("PR255").MustType(input.Enter)
	p.slot("red")
	p.see("PR255 pyrrole scarlet")
}

func TestKeyboardOnly(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.see("Tide-pool studio")
	p.focusOn("button", "Tide-pool studio")
	p.keys(input.Enter)
	p.see("of nine mixtures")
	p.focusOn(`[role=radio][data-slot]`, "")
	for range 4 {
		p.keys(input.ArrowRight)
	}
	p.see("slot 5 · primary")
	p.keys(input.ArrowLeft, input.ArrowRight, input.Enter)
	p.see("Which red?")
	p.MustElement(`input[aria-label="search a red"]`).MustInput("PV19")
	p.keys(input.ArrowDown, input.Enter)
	p.see("PV19 quinacridone rose")
	p.see("saved")
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyZ).MustDo()
	p.see("PR254 pyrrole red")
}

func TestTheDatabaseStopsAndComesBack(t *testing.T) {
	t.Parallel()
	cluster := ownCluster(t)
	app := startApp(t, cluster.url)
	p := open(t, app.address)
	p.asDemo()
	cluster.run("stop")
	p.swap("blue", "PB60")
	p.see("does not answer")
	p.see("not saved yet")
	p.slot("blue")
	p.see("PB60 indanthrone blue")
	p.MustReload().MustWaitLoad()
	p.see("Not there just now")
	cluster.run("start")
	p.see("of nine mixtures")
	p.see("PB60 indanthrone blue")
	p.waitFor("saved after all", func() bool { return p.MustHas(`[role=status]`) && p.shows("saved") && !p.shows("not saved yet") })

	app.stop()
	cluster.run("stop")
	cluster.run("start")
	again := open(t, startApp(t, cluster.url).address)
	again.asDemo()
	again.slot("blue")
	again.see("PB60 indanthrone blue")
}

func TestTheClusterRecoversFromBeingKilled(t *testing.T) {
	t.Parallel()
	cluster := ownCluster(t)
	s, err := store.Open(cluster.url)
	require.NoError(t, err)
	require.NoError(t, s.Migrate(t.Context()))
	_, err = s.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	require.NoError(t, s.Close())

	require.NoError(t, syscall.Kill(cluster.pid(t), syscall.SIGKILL))
	cluster.run("start")
	assert.Equal(t, "running", cluster.run("status"))
	cluster.run("start")
	s, err = store.Open(cluster.run("url"))
	require.NoError(t, err)
	defer s.Close()
	_, err = s.PainterByName(t.Context(), "Ada")
	assert.NoError(t, err, "what was kept is still there")
}

func TestAPassphraseIsGivenLater(t *testing.T) {
	t.Parallel()
	app := startApp(t, demoDatabase(t))
	p := open(t, app.address)
	p.write("your name", "Ada")
	p.press("begin")
	p.see("Three paints make a wheel")
	p.menu("painter: Ada", "passphrase")
	p.write("the new passphrase", "let it dry first")
	p.press("keep it")
	p.waitFor("the dialog closes", func() bool { return !p.shows("keep it") })
	other := open(t, app.address)
	other.press("Ada")
	other.write("passphrase of Ada", "let it dry first")
	other.press("come in")
	other.see("Three paints make a wheel")

	p.menu("painter: Ada", "where I am signed in")
	p.see("Where Ada is painting")
	p.see("here")
	p.press("sign out")
	p.waitFor("the other is gone", func() bool { return !p.MustHas(`button[aria-label^="sign out"]`) })
	p.press("close")
	other.MustReload().MustWaitLoad()
	other.see("Know the wheel before you paint it")
	p.MustReload().MustWaitLoad()
	p.see("Three paints make a wheel")
}

func TestTwoTabsNeverOverwriteEachOther(t *testing.T) {
	t.Parallel()
	app := startApp(t, demoDatabase(t))
	first := open(t, app.address)
	first.asDemo()
	first.see("of nine mixtures")
	second := first.another(first.MustInfo().URL)
	second.see("of nine mixtures")

	first.MustActivate()
	first.swap("blue", "PB60")
	first.see("saved")
	second.MustActivate()
	second.swap("blue", "PB28")
	second.see("changed in two places at once")
	second.slot("blue")
	second.see("PB60 indanthrone blue")
	second.press("take the one kept beside")
	second.see("PB28 cobalt blue")
	second.waitFor("the notice goes", func() bool { return !second.shows("changed in two places at once") })
	second.see("saved")
	first.MustActivate()
	first.MustReload().MustWaitLoad()
	first.slot("blue")
	first.see("PB28 cobalt blue")
}

func TestPassphraseIsAskedFor(t *testing.T) {
	t.Parallel()
	app := startApp(t, demoDatabase(t))
	p := open(t, app.address)
	p.see("Tide-pool studio")
	p.write("your name", "Ada")
	p.press("with a passphrase")
	p.write("a passphrase of 8 characters or more", "short")
	p.press("begin")
	p.see("A passphrase has 8 to 200 characters.")
	p.MustElement(`input[type=password]`).MustSelectAllText().MustInput("wet on wet 1")
	p.press("begin")
	p.see("Three paints make a wheel")

	other := open(t, app.address)
	other.press("Ada")
	other.write("passphrase of Ada", "wet on dry 1")
	other.press("come in")
	other.see("do not go together")
	other.MustElement(`input[type=password]`).MustSelectAllText().MustInput("wet on wet 1")
	other.press("come in")
	other.see("Three paints make a wheel")
}

func TestAnothersWheelIsNotShown(t *testing.T) {
	t.Parallel()
	app := startApp(t, demoDatabase(t))
	demo := open(t, app.address)
	demo.asDemo()
	address := strings.Split(demo.MustInfo().URL, "?")[0]
	eve := open(t, app.address)
	eve.write("your name", "Eve")
	eve.press("begin")
	eve.see("Three paints make a wheel")
	eve.MustNavigate(address).MustWaitLoad()
	eve.see("This wheel is not here")
}

func TestNothingIsRefusedByThePolicyNorLeftInTheConsole(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.slot("red")
	p.press("swap this paint")
	p.see("Which red?")
	assert.Empty(t, p.complaints(), "the console stays empty")
}

func TestAtTabletWidthNothingIsCutOff(t *testing.T) {
	t.Parallel()
	app := startApp(t, demoDatabase(t))
	for _, width := range []int{768, 1024, 1280} {
		p := open(t, app.address)
		p.MustSetViewport(width, 800, 1, false)
		p.asDemo()
		p.fits(fmt.Sprintf("the wheel at %d px", width))
	}
}
