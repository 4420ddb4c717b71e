package e2e

import (
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sitsDown begins to paint the sheet at the bench, all laid out.
func (v visitor) sitsDown() {
	v.t.Helper()
	v.press("begin to paint")
	v.see("Squeeze out")
	v.press("it is laid out")
	v.see("another slot")
}

// coats are the places that are painted, by how many coats.
func (v visitor) coats() map[string]string {
	v.t.Helper()
	out := map[string]string{}
	for _, place := range v.all("[data-place]", `(e) => e.dataset.place + "=" + e.dataset.coats`) {
		name, coats, _ := strings.Cut(place, "=")
		if coats != "0" {
			out[name] = coats
		}
	}
	return out
}

// nextSlot is what is to be painted.
func (v visitor) nextSlot() string {
	v.t.Helper()
	return strings.ToLower(v.MustElement(`section[aria-label=next] h2`).MustText())
}

// paints taps "painted" once, and waits until so many are.
func (v visitor) paints(n int) {
	v.t.Helper()
	v.find("painted", `() => [...document.querySelectorAll("main button")].find((b) => b.innerText === "painted")`).MustClick()
	v.waitFor(fmt.Sprintf("%d painted", n), func() bool { return len(v.coats()) == n })
}

// region taps a place of the sheet.
func (v visitor) region(id string) {
	v.t.Helper()
	v.find("place "+id, `(id) => document.querySelector('[data-place="'+id+'"]')`, id).MustClick()
}

func TestASittingIsPaintedByTouch(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Starfish and anemone")
	p.menu("medium", "gouache")
	p.exact()
	p.sitsDown()
	p.MustSetViewport(768, 1024, 1, true)
	require.NoError(t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(p.Page))
	p.waitFor("targets that a wet finger hits", func() bool {
		return p.MustEval(`() => document.documentElement.scrollWidth <= 768 && [...document.querySelectorAll("section[aria-label=next] button")].every((b) => b.getBoundingClientRect().height >= 56)`).Bool()
	})
	first := p.nextSlot()
	p.find("painted", `() => [...document.querySelectorAll("main button")].find((b) => b.innerText === "painted")`).MustTap()
	p.waitFor("it to be painted", func() bool { return len(p.coats()) == 1 })
	assert.NotEqual(t, first, p.nextSlot())
	p.see("all kept")

	// What it took, a test, another slot, a skip, a note.
	p.press("took more")
	p.element("button", "more ").MustClick()
	p.press("keep this")
	p.press("a test swatch")
	p.press("just tested")
	p.see("tested: once more")
	skipped := p.nextSlot()
	p.press("skip")
	p.waitFor("the next but one", func() bool { return p.nextSlot() != skipped })
	p.press("another slot")
	p.see("Which one instead?")
	p.find("the one that was skipped", `(name) => [...document.querySelectorAll('section[aria-label="another slot"] button')].find((b) => b.innerText.trim() === name)`, skipped).MustClick()
	p.see("instead")
	p.paints(2)
	p.press("a note")
	p.write("a note", "wet stone again")
	p.press("keep the note")
	p.see("all kept")

	// A place that is painted: still wet, and a coat more; taken back.
	p.region(first)
	p.see("back to what is next")
	p.press("still wet")
	p.see("take back (still wet")
	p.see("is wet until ")
	p.see(" now, and what waits for it with it.")
	p.region(first)
	p.press("a coat more")
	p.waitFor("a second coat", func() bool { return p.coats()[first] == "2" })
	p.press("take back (painted")
	p.waitFor("one coat", func() bool { return p.coats()[first] == "1" })

	p.press("pause")
	p.see("Go on in an hour or tomorrow")
	p.press("go on painting")
	for n := 3; n <= 12; n++ {
		p.paints(n)
	}
	p.see("All painted")
	p.press("end the sitting")
	p.see("12 of 12 painted")
	p.see("wet stone again")
	p.MustReload()
	p.see("12 of 12 painted")
	assert.Empty(t, p.complaints())
}

func TestASittingIsPaintedByKeys(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Sea lettuce and mussel")
	p.exact()
	p.focusOn("button", "begin to paint")
	p.keys(input.Enter)
	p.see("Squeeze out")
	key := func(k input.Key, what string, holds func() bool) {
		t.Helper()
		p.keys(k)
		p.waitFor(what, holds)
	}
	key(input.KeyP, "the first slot", func() bool { return p.shows("another slot") })
	for n := 1; n <= 11; n++ {
		key(input.KeyP, fmt.Sprintf("%d painted", n), func() bool { return len(p.coats()) == n })
	}
	p.see("all kept")
	key(input.KeyZ, "one less", func() bool { return len(p.coats()) == 10 })
	p.see("all kept")
	slot := p.nextSlot()
	key(input.KeyS, "it to be skipped", func() bool { return p.nextSlot() != slot })
	p.see("take back (skipped")
	// By then another may be quicker to paint first, so that it need not be the next again.
	key(input.KeyZ, "it to be painted still", func() bool { return !p.shows("take back (skipped") })
	for n := 11; n <= 12; n++ {
		key(input.KeyP, fmt.Sprintf("%d painted", n), func() bool { return len(p.coats()) == n })
	}
	p.see("All painted")
	key(input.KeyP, "the end", func() bool { return p.shows("12 of 12 painted") })
}

// killable is a server that is killed, and started again at the same address.
type killable struct {
	t       *testing.T
	url     string
	address string
	cmd     *exec.Cmd
}

func (k *killable) start(listen string) {
	k.t.Helper()
	file := filepath.Join(k.t.TempDir(), "address")
	k.cmd = exec.Command(filepath.Join(root(k.t), "bin", "gyrophane"), "serve", "--demo", "--listen", listen, "--address-file", file)
	k.cmd.Env = append(os.Environ(), "DATABASE_URL="+k.url, "GYROPHANE_METER="+freeAddress(k.t))
	require.NoError(k.t, k.cmd.Start())
	deadline := time.Now().Add(patience)
	for time.Now().Before(deadline) {
		if text, err := os.ReadFile(file); err == nil && len(text) > 0 {
			k.address = strings.TrimSpace(string(text))
			return
		}
		<-time.After(20 * time.Millisecond)
	}
	require.Fail(k.t, "the server did not start")
}

func (k *killable) kill() {
	k.t.Helper()
	require.NoError(k.t, k.cmd.Process.Signal(syscall.SIGKILL))
	_ = k.cmd.Wait() // it says that it was killed
}

// cable is a way to a server that can be cut.
type cable struct {
	address string
	mu      sync.Mutex
	off     bool
	open    map[net.Conn]bool
}

func connect(t *testing.T, server string) *cable {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	c := &cable{address: "http://" + l.Addr().String(), open: map[net.Conn]bool{}}
	to := strings.TrimPrefix(server, "http://")
	go func() {
		for {
			near, err := l.Accept()
			if err != nil {
				return // the test is over
			}
			go c.carry(near, to)
		}
	}()
	t.Cleanup(func() {
		_ = l.Close()
		c.cut(true)
	})
	return c
}

func (c *cable) carry(near net.Conn, to string) {
	defer near.Close()
	far, err := net.Dial("tcp", to)
	if err != nil {
		return
	}
	defer far.Close()
	c.mu.Lock()
	off := c.off
	c.open[near] = true
	c.mu.Unlock()
	if off {
		return
	}
	go func() {
		_, _ = io.Copy(far, near)
		_ = far.Close()
	}()
	_, _ = io.Copy(near, far)
}

// cut cuts what is open and lets nothing through, or lets it through again.
func (c *cable) cut(off bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.off = off
	for conn := range c.open {
		_ = conn.Close()
		delete(c.open, conn)
	}
}

// A sitting with everything against it: the server killed in the middle, the database
// stopped and started, the connection cut, a clock that is off, two windows. Nothing that
// was tapped is lost, and nothing is there twice.
func TestNothingOfASittingIsLost(t *testing.T) {
	t.Parallel()
	own := ownCluster(t)
	k := &killable{t: t, url: own.url}
	k.start("127.0.0.1:0")
	t.Cleanup(func() { _ = k.cmd.Process.Kill() })
	cable := connect(t, k.address)
	p := open(t, cable.address)
	// This browser's clock is three minutes fast.
	_, err := p.EvalOnNewDocument(`{ const now = Date.now; Date.now = () => now() + 180000; }`)
	require.NoError(t, err)
	p.MustReload()
	p.asDemo()
	p.wheelOf("Starfish and anemone")
	p.goTo("Bench")
	p.exact()
	p.sitsDown()
	p.paints(1)
	address := p.MustInfo().URL
	second := p.another(strings.Replace(address, cable.address, k.address, 1))
	second.waitFor("what the first painted", func() bool { return len(second.coats()) == 1 })

	// Each window sees what the other taps.
	second.paints(2)
	p.waitFor("what the second painted", func() bool { return len(p.coats()) == 2 })

	// Killed in the middle: what is tapped waits, and a page that is opened anew shows it.
	p.waitFor("the page to be kept", func() bool {
		return p.MustEval(`async () => !!(await navigator.serviceWorker.ready).active && !!(await caches.match("/")) && !!(await caches.match("/api/session")) && !!(await caches.match("/api/sittings/" + location.pathname.split("/").pop()))`).Bool()
	})
	listen := strings.TrimPrefix(k.address, "http://")
	k.kill()
	p.paints(3)
	p.see("Out of contact")
	p.MustReload()
	p.waitFor("what was painted before", func() bool { return len(p.coats()) == 3 })
	p.paints(4)
	p.see("Out of contact")
	k.start(listen)
	p.see("all kept")
	second.waitFor("what waited", func() bool { return len(second.coats()) == 4 })

	// The database stops, and comes back.
	own.run("stop")
	p.paints(5)
	p.see("Out of contact")
	own.run("start")
	p.see("all kept")

	// The connection is cut for a while, and both windows go on: the second by another way.
	cable.cut(true)
	p.paints(6)
	p.see("Out of contact")
	second.paints(6)
	cable.cut(false)
	p.see("all kept")
	both := func() bool {
		a, b := p.coats(), second.coats()
		return len(a) == len(b) && fmt.Sprint(a) == fmt.Sprint(b)
	}
	p.waitFor("the same in both windows", both)

	// To the end, and no slot more often than it was tapped.
	taps := 7
	for left := 12 - len(p.coats()); left > 0; left-- {
		p.paints(13 - left)
		taps++
	}
	p.see("All painted")
	second.waitFor("the end", func() bool { return len(second.coats()) == 12 })
	painted := 0
	for _, coats := range p.coats() {
		n, err := strconv.Atoi(coats)
		require.NoError(t, err)
		painted += n
	}
	assert.Equal(t, taps, painted, "two hands that painted the same slot are two coats")
	// The clocks agree to some seconds in spite of the browser's.
	answer := p.MustEval(`async () => { const s = await (await fetch("/api/sittings/" + location.pathname.split("/").pop())).json(); return s.places.map((x) => x.painted).concat(s.now); }`).Arr()
	var times []int64
	for _, at := range answer {
		times = append(times, int64(at.Int()))
	}
	now := times[len(times)-1]
	assert.LessOrEqual(t, slices.Max(times), now)
	assert.Greater(t, slices.Min(times), now-170_000, "none is put three minutes off")
}

func TestWhatWasPaintedIsRead(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Starfish and anemone")
	p.menu("medium", "gouache")
	p.exact()
	p.sitsDown()
	p.paints(1)
	p.element("a", "read what was painted").MustClick()
	p.see("0 of 12 read")

	// By photo: marks that are found, spots that are left out, the light evened.
	p.press("take a photo with the stand-in")
	p.see("of 12 read, light of about")
	p.see("rendered and not taken")
	spots := func(n int) func() bool {
		return func() bool { return len(p.all("[data-spot]", `(e) => e.dataset.spot`)) == n }
	}
	p.waitFor("its spots", spots(12))
	p.find("the spot of green", `() => document.querySelector('[data-spot="green"]')`).MustFocus()
	p.keys(input.Enter)
	p.press("leave it out")
	p.waitFor("one spot less", spots(11))
	p.press("leave it out")
	p.waitFor("all spots", spots(12))
	for _, picture := range []string{"straightened", "light evened"} {
		p.choose("picture", picture)
		p.waitFor(picture, func() bool {
			return p.MustEval(`(what) => { const i = [...document.images].find((i) => i.alt.includes(what)); return !!i && i.complete && i.naturalWidth > 0; }`, picture).Bool()
		})
	}
	p.choose("picture", "as taken")
	p.press("put the marks by hand")
	p.waitFor("marks to move", func() bool { return len(p.all("[role=slider]", `(e) => e.ariaLabel`)) == 4 })
	p.find("a mark", `() => document.querySelector('[role=slider][aria-label="mark upper left"]')`).MustFocus()
	p.keys(input.ArrowRight)
	p.press("find the marks again")
	p.press("keep 12 readings")
	p.see("12 of 12 read")

	// What is no photo of it is refused, and nothing is lost.
	p.upload("another photo", swatchPhoto(t))
	p.see("the four marks of the sheet were not found")
	p.press("delete this photo")
	p.see("rendered and not taken")

	// By eye, closing in; by the meter, which is not connected here.
	p.choose("read", "by eye")
	p.see("as aimed at")
	p.element(`section[aria-label="by eye"] button`, "lighter").MustClick()
	p.see("lighter")
	p.find("the ribbon of hues", `() => document.querySelectorAll('section[aria-label="by eye"] [role=slider]')[2]`).MustFocus()
	p.keys(input.ArrowRight)
	p.press("closer")
	p.press("keep this")
	p.see("13 readings in all")
	p.choose("it is", "wet")
	p.choose("read", "by meter")
	p.press("read the yellow")
	p.see("The meter is not connected")
	p.MustReload()
	p.see("13 readings in all")
}

// demoRead is what the shelf says of the demo's last ended sitting.
const demoRead = "17 read, 4 as computed"

// The demo's ended sitting tells that its ultramarine is stronger than it was taken for,
// and what got into its green; what it tells is taken into the box, taken back, and a wheel
// is redrawn with it.
func TestTheLogSaysWhatCameOfASitting(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Log")
	p.see("3 sittings")
	p.element("a", demoRead).MustClick()
	p.see("The ultramarine blue is about 2.1 times as strong as it was taken for.")
	green := p.MustElement(`[data-place="green"]`).MustText()
	assert.Contains(t, green, "a trace of pyrrole scarlet, about 1 in")
	assert.Contains(t, p.MustElement(`[data-place="blue-green"]`).MustText(), "doubted")
	assert.Contains(t, p.MustElement(`[data-place="orange"]`).MustText(), "as computed")
	p.see("1 of 9 expectations failed")
	assert.Contains(t, p.MustElement(`[data-place="red-violet"] [data-failed=true]`).MustText(), "clean")
	p.see("without 1 that the tubes are not the cause of")
	before := p.MustElement(`[role=table]`).MustText()

	p.press("not now")
	p.see("Left as it was.")
	p.press("look again")
	p.press("take it into the box")
	p.see("They are as they are taken to be now.")
	p.see("Taken: ")
	assert.Equal(t, before, p.MustElement(`[role=table]`).MustText(), "the sitting opens as it was")

	// The box follows, and the wheel offers to be redrawn and shows both.
	p.goTo("Box")
	p.strip("ultramarine blue")
	p.see("times the modelled, as you painted it")
	p.goTo("Wheel")
	p.wheelOf("Six from the harbour")
	p.see("turned out to be another than this wheel was drawn with")
	p.element("a", "see it redrawn").MustClick()
	p.see("The ultramarine blue: 2.1 times as strong as in this wheel.")
	p.see("as it was kept")
	p.see("with what the tubes turned out to be")
	p.press("redraw it")
	p.waitFor("the wheel, redrawn", func() bool {
		return p.shows("saved") && !p.shows("than this wheel was drawn with") && !p.shows("redraw it")
	})

	// Taken back from the shelf, and taken again.
	p.goTo("Log")
	p.press("take it back")
	p.see("Taken back: ")
	p.goTo("Box")
	p.strip("ultramarine blue")
	p.waitFor("the modelled strength", func() bool { return p.shows("5 of 5") || p.shows("of 5") && !p.shows("as you painted it") })
	p.goTo("Log")
	p.press("take it again")
	p.see("Taken: ")
	assert.Empty(t, p.complaints())
}

// The shelf is looked through, and two sittings are laid beside each other.
func TestTheShelfIsLookedThrough(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Log")
	p.see("3 sittings")
	onShelf := func(n int) func() bool {
		return func() bool { return len(p.all("[data-sitting]", `(e) => e.innerText`)) == n }
	}
	p.field("look for").MustInput("kelp")
	p.waitFor("what was noted", onShelf(1))
	p.see("Starfish and anemone")
	p.field("look for").MustSelectAllText().MustInput("nothing of it")
	p.see("None of them has that.")
	p.press("show all")
	p.waitFor("all of them", onShelf(3))
	p.press("each of them")
	p.see("red-violet of Six from the harbour")
	p.see("as painted")
	p.menu("sittings", "read")
	p.waitFor("those that were read", onShelf(2))
	for range 2 {
		p.element("button", "lay beside another").MustClick()
	}
	p.element("a", "lay the two beside each other").MustClick()
	p.see("The first, beside the second")
	p.see("in the place of")
	p.press("all sittings")

	// What to do next time is kept, and comes up at the bench.
	p.element("a", "7 of 15 painted").MustClick()
	p.see("strengths are learned from 3")
	p.field("next time").MustInput("Paint the violets first.")
	p.press("keep")
	p.waitFor("it is kept", func() bool { return !p.MustHas(`section[aria-label="next time"] button`) })
	p.MustReload()
	p.waitFor("it is still there", func() bool { return p.field("next time").MustText() == "Paint the violets first." })
	p.goTo("Wheel")
	p.wheelOf("Six from the harbour")
	p.goTo("Bench")
	p.see("Paint the violets first.")
	p.see("groups of tubes never meet")
	assert.Empty(t, p.complaints())
}

// Readings come from a table: what is wrong is said row by row, and nothing is kept of it
// before it is mended or left out.
func TestReadingsComeFromATable(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Log")
	p.element("a", "7 of 15 painted").MustClick()
	p.element("a", "read what was painted").MustClick()
	p.choose("read", "from a file")
	file := func(name, content string) string {
		at := filepath.Join(t.TempDir(), name)
		require.NoError(t, os.WriteFile(at, []byte(content), 0o600))
		return at
	}
	p.upload("choose a file of readings", file("bad.csv", "slot,L,a\ngreen,50,-30\n"))
	p.see("no column")
	p.upload("choose a file of readings", file("worse.csv", "slot,L,a,b,state\ngreen,52,-30,25,dry\nteal,50,0,0,dry\norange,500,0,0,dry\n"))
	p.see("2 rows are wrong")
	p.see("no place")
	p.see("0 of 15 read")
	p.press("leave out what is wrong")
	p.press("keep one reading")
	p.see("1 of 15 read")
	p.see("Kept, beside what was read before.")
}

// tookMore says that a step took more of one of its paints than was counted out.
func (v visitor) tookMore(by int) {
	v.t.Helper()
	v.press("took more, or less")
	for range by {
		v.find("more of the last", `() => [...document.querySelectorAll('section[aria-label="what it took"] button[aria-label^="more "]')].at(-1)`).MustClick()
	}
	v.press("keep this")
}

// untilMixed paints until the next place has a pile of its own, and answers with how many are.
func (v visitor) untilMixed(painted int) int {
	v.t.Helper()
	for !v.shows("Mix in well") {
		painted++
		v.paints(painted)
		v.see("all kept")
	}
	return painted
}

// A whole wheel with five slips, a skip, another slot first, test swatches, a bleed, a pause and a
// reload: the card says how to get back each time, and what follows is worked out from what the wells
// hold; then it is read.
func TestASittingFollowsTheHand(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Starfish and anemone")
	p.menu("medium", "gouache")
	p.exact()
	p.sitsDown()
	n := 0
	next := func() {
		t.Helper()
		n++
		p.paints(n)
		p.see("all kept")
	}
	wayBack := func(words string) {
		t.Helper()
		// Where that way is not among them the one that is advised is taken.
		p.find(words, `(words) => [...document.querySelectorAll("section[aria-label=next] button")].find((b) => b.innerText.includes(words)) ??
			[...document.querySelectorAll("section[aria-label=next] button")].find((b) => /mended|another is mixed/.test(b.innerText))`, words).MustClick()
		p.waitFor("the way back to be gone", func() bool { return !p.shows("is not what it was meant to be") })
	}
	slip := func(way string) {
		t.Helper()
		n = p.untilMixed(n)
		p.tookMore(3)
		p.see("is not what it was meant to be")
		p.see("aimed at is")
		if way == "painted as it is" {
			p.press(way)
			n++
			p.waitFor("it to be painted", func() bool { return len(p.coats()) == n })
		} else {
			wayBack(way)
			next()
		}
		p.see("all kept")
	}
	slip("painted as it is")
	slip("mended")
	slip("another is mixed")
	left := p.keptSitting()
	for _, step := range left["steps"].([]any) {
		counted := step.(map[string]any)["counted"].(map[string]any)
		assert.Less(t, counted["de00"].(float64), 3.0)
	}

	// A test swatch that is too red says what to add; one that is as aimed says to paint.
	n = p.untilMixed(n)
	p.press("a test swatch")
	p.see("it looks as aimed")
	ribbon := p.find("the ribbon of hues", `() => document.querySelectorAll('section[aria-label="a test swatch"] [role=slider]')[2]`)
	ribbon.MustFocus()
	for range 5 {
		p.keys(input.ArrowRight)
	}
	p.press("it looks like this")
	p.see("The pile looks as")
	p.see("aimed at is")
	wayBack("mended")
	p.see("By its test swatch this pile is near enough")
	next()

	skipped := p.nextSlot()
	p.press("skip")
	p.see("take back (skipped")
	p.press("another slot")
	p.find("the last", `() => [...document.querySelectorAll('section[aria-label="another slot"] button')].at(-2)`).MustClick()
	p.see("instead")
	assert.False(t, p.shows("Add to what is in well"), "it has a pile of its own")
	next()
	p.MustReload()
	p.waitFor("what was painted", func() bool { return len(p.coats()) == n })

	// It is named in the bar of every place, and before another of its wheel is begun.
	p.goTo("Compare")
	p.element("header a", fmt.Sprintf("%d of 12, since ", n))
	p.goTo("Bench")
	p.see("begin another")
	p.element("main a", "go on: ").MustClick()
	p.waitFor("the sitting again", func() bool { return len(p.coats()) == n })
	assert.False(t, p.MustHas(`header a[href^="/bench/sitting/"]`), "it is here")

	// A pause, a bleed that is gone over when it is dry, and the rest.
	p.press("pause")
	p.see("Go on in an hour or tomorrow")
	p.press("go on painting")
	p.press("it ran")
	ran := strings.ToLower(p.find("one that is wet", `() => document.querySelector('section[aria-label="it ran"] button')`).MustClick().MustText())
	p.see("Blot " + ran + " now")
	p.see("all kept")
	for len(p.coats()) < 12 && !p.shows("All painted") {
		slot := p.nextSlot()
		if slot == ran {
			p.find("painted", `() => [...document.querySelectorAll("main button")].find((b) => b.innerText === "painted")`).MustClick()
			p.waitFor("its second coat", func() bool { return p.coats()[ran] == "2" })
			continue
		}
		if slot != skipped && n < 11 && p.shows("Mix in well") && p.shows("took more, or less") {
			slip("mended")
			continue
		}
		next()
		if n == 11 && p.shows("All painted but what was skipped") {
			break
		}
	}
	for p.coats()[ran] != "2" {
		p.find("painted", `() => [...document.querySelectorAll("main button")].find((b) => b.innerText === "painted")`).MustClick()
		p.see("all kept")
	}
	if len(p.coats()) < 12 {
		p.see("All painted but what was skipped")
		p.region(skipped)
		next()
	}
	p.see("All painted")

	// What was painted is read: what is wet yet is kept as wet.
	p.press("read it")
	p.see("0 of 12 read")
	p.see("test swatch was read by eye")
	p.see("wet yet, by the time it takes")
	p.press("it is dry")
	p.press("take a photo with the stand-in")
	p.see("of 12 read, light of about")
	p.press("keep ")
	p.waitFor("all to be read", func() bool { return p.shows("12 of 12 read") || p.shows("11 of 12 read") })
	p.choose("read", "by eye")
	p.see("as aimed at")
	p.element(`section[aria-label="by eye"] button`, "darker").MustClick()
	p.see("beside what was aimed at: ")
	p.press("closer")
	p.press("keep this")
	p.see("13 readings in all")
	assert.Empty(t, p.complaints())
}

// From the paper alone: said in one go, and a slip afterwards.
func TestASheetPaintedAwayFromTheScreenIsToldAtOnce(t *testing.T) {
	t.Parallel()
	p := atTheBench(t, "Sea lettuce and mussel")
	p.menu("medium", "watercolour")
	p.see("in tubes or in pans?")
	p.press("tubes")
	p.waitFor("it to be asked once", func() bool { return !p.shows("in tubes or in pans?") })
	p.exact()
	p.press("begin to paint")
	p.press("painted as planned")
	p.see("All painted")
	p.waitFor("all of it", func() bool { return len(p.coats()) == 12 && p.shows("all kept") })
	p.region("orange")
	p.press("took more, or less")
	p.element("button", "more ").MustClick()
	p.press("keep this")
	p.see("all kept")
	p.press("take back (measured")
	p.press("take back (painted")
	p.waitFor("nothing to be painted", func() bool { return len(p.coats()) == 0 })
	assert.Empty(t, p.complaints())
}

func TestSlotsGoByThePaintersNames(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Wheel")
	p.wheelOf("Six from the harbour")
	call := func(slot, name string) {
		t.Helper()
		p.slot(slot)
		p.press("call it")
		p.write(slot+" is called", name)
		p.keys(input.Enter)
	}
	call("green", "Sea lettuce")
	p.see("Sea lettuce")
	p.see("· green ·")
	p.waitFor("it to be kept", func() bool { return p.shows("saved") })
	call("orange", "blue")
	p.see("is what a slot is called anyway")
	p.press("let it go")
	p.goTo("Bench")
	p.exact()
	p.see("Sea lettuce")
	p.press("begin another")
	p.see("Squeeze out")
	p.see("Sea lettuce")
}

func TestAWheelIsPaintedFromItsPage(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Wheel")
	p.element("main a", "paint it").MustClick()
	p.see("begin to paint")
}
