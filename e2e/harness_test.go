package e2e

import (
	"cmp"
	"fmt"
	"io"
	"log"
	"net"
	"net/http/httptest"
	"net/http/httputil"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
	"gyrophane/studio"
)

// patience is how long a page may take to show what is waited for, and lookEvery
// how long it is left alone in between: a look costs the page some work.
const (
	patience  = 20 * time.Second
	lookEvery = 50 * time.Millisecond
)

var (
	browserOnce sync.Once
	shared      *rod.Browser
	browserErr  error
)

// browser is one Chromium for all tests; every visitor gets a context of its own.
// It is the one without windows of its own: a whole Chromium loads the pages of
// its address bar for every visitor.
func browser(t *testing.T) *rod.Browser {
	t.Helper()
	browserOnce.Do(func() {
		l := launcher.New().Bin("/usr/bin/chromium-headless-shell").Leakless(false).Headless(true).
			NoSandbox(os.Geteuid() == 0).
			Set("disable-gpu").Set("disable-quic").Set("disable-component-update").
			Set("disable-extensions").Set("hide-scrollbars").Set("disable-background-networking").
			Set("host-resolver-rules", "MAP *.local 127.0.0.2"). // the house of devices_test.go
			Set("force-color-profile", "srgb").Set("force-prefers-reduced-motion")
		var url string
		if url, browserErr = l.Launch(); browserErr != nil {
			return
		}
		shared = rod.New().ControlURL(url)
		browserErr = shared.Connect()
	})
	require.NoError(t, browserErr, "Chromium must be there: run make test, which installs it")
	return shared
}

func TestMain(m *testing.M) {
	code := m.Run()
	if shared != nil {
		shared.MustClose()
	}
	os.Exit(code)
}

// visitor is a painter in front of a page.
type visitor struct {
	*rod.Page
	t   *testing.T
	own *rod.Browser
	mu  *sync.Mutex
	log *[]string
}

// open shows an address at 1280x800 to somebody new.
func open(t *testing.T, url string) visitor {
	t.Helper()
	return show(t, browser(t).MustIncognito(), url)
}

// another is a second tab of the same painter.
func (v visitor) another(url string) visitor { return show(v.t, v.own, url) }

func show(t *testing.T, own *rod.Browser, url string) visitor {
	t.Helper()
	page := own.MustPage().Timeout(3 * time.Minute)
	v := visitor{page, t, own, &sync.Mutex{}, &[]string{}}
	complain := func(text string) {
		v.mu.Lock()
		defer v.mu.Unlock()
		*v.log = append(*v.log, text)
	}
	listen, stop := page.WithCancel()
	go listen.EachEvent(
		func(e *proto.RuntimeExceptionThrown) { complain(e.ExceptionDetails.Text) },
		func(e *proto.LogEntryAdded) { complain(e.Entry.Text) },
		func(e *proto.RuntimeConsoleAPICalled) { complain(string(e.Type)) },
	)()
	t.Cleanup(func() {
		if t.Failed() {
			if dir := os.Getenv("GYROPHANE_E2E_SHOTS"); dir != "" {
				page.MustScreenshot(filepath.Join(dir, strings.ReplaceAll(t.Name(), "/", "-")+".png"))
			}
		}
		stop()
		require.NoError(t, page.Close())
	})
	page.MustSetViewport(1280, 800, 1, false)
	page.MustNavigate(url).MustWaitLoad()
	return v
}

func (v visitor) complaints() []string {
	v.mu.Lock()
	defer v.mu.Unlock()
	return append([]string(nil), *v.log...)
}

// waitFor waits until something holds, and fails with what was waited for.
func (v visitor) waitFor(what string, holds func() bool) {
	v.t.Helper()
	deadline := time.Now().Add(patience)
	for !holds() {
		if time.Now().After(deadline) {
			require.Fail(v.t, "waited in vain for: "+what, "the page shows: %s\nand says: %v", v.text(), v.complaints())
		}
		<-time.After(lookEvery)
	}
}

// holds lets the requests of a page to some addresses stand until the release of
// each is called. One call holds them all: a page keeps only the last.
func (v visitor) holds(patterns ...string) (release []func()) {
	v.t.Helper()
	router := v.HijackRequests()
	for _, pattern := range patterns {
		released := make(chan struct{})
		router.MustAdd(pattern, func(h *rod.Hijack) {
			<-released
			h.ContinueRequest(&proto.FetchContinueRequest{})
		})
		release = append(release, sync.OnceFunc(func() { close(released) }))
	}
	go router.Run()
	v.t.Cleanup(func() {
		for _, let := range release {
			let()
		}
		router.MustStop()
	})
	return release
}

func (v visitor) text() string {
	return v.MustEval(`() => document.body.innerText`).String()
}

// shows says whether a text is on the page, as a word of its own.
func (v visitor) shows(text string) bool { return strings.Contains(v.text(), text) }

func (v visitor) see(text string) {
	v.t.Helper()
	v.waitFor(fmt.Sprintf("%q", text), func() bool { return v.shows(text) })
}

// saves presses a button and is the file that the page saves then: this page's
// own, whatever is saved beside it by others of the same browser.
func (v visitor) saves(button string) []byte {
	v.t.Helper()
	dir := v.t.TempDir()
	require.NoError(v.t, proto.BrowserSetDownloadBehavior{
		Behavior: proto.BrowserSetDownloadBehaviorBehaviorAllowAndName, BrowserContextID: v.own.BrowserContextID, DownloadPath: dir,
	}.Call(v.own))
	var name string
	whole := v.EachEvent(func(e *proto.PageDownloadWillBegin) {
		name = e.GUID
	}, func(e *proto.PageDownloadProgress) bool {
		return e.GUID == name && e.State == proto.PageDownloadProgressStateCompleted
	})
	v.press(button)
	whole()
	data, err := os.ReadFile(filepath.Join(dir, name))
	require.NoError(v.t, err)
	return data
}

// element finds the element of a kind whose text or label holds some words.
func (v visitor) element(selector, words string) found {
	v.t.Helper()
	return v.find(selector+" "+words, `(selector, words) => [...document.querySelectorAll(selector)].find((e) => {
		const { width, height } = e.getBoundingClientRect();
		return width && height && getComputedStyle(e).visibility !== "hidden" &&
			[e.innerText, e.textContent.replace(/\s+/g, " "), e.getAttribute("aria-label")].some((text) => text?.includes(words));
	})`, selector, words)
}

// found is an element, and how to find it again when the page has drawn it anew.
type found struct {
	*rod.Element
	v     visitor
	again func() (*rod.Element, error)
}

// find waits for an element that a function in the page finds, looking all over
// the page at once.
func (v visitor) find(what, js string, args ...any) found {
	v.t.Helper()
	f := found{v: v, again: func() (*rod.Element, error) {
		return v.Sleeper(rod.NotFoundSleeper).ElementByJS(rod.Eval(js, args...))
	}}
	v.waitFor(what, func() bool {
		var err error
		f.Element, err = f.again()
		return err == nil
	})
	return f
}

// MustElement is the first of a selector, as soon as there is one.
func (v visitor) MustElement(selector string) found {
	v.t.Helper()
	return v.find(selector, `(selector) => document.querySelector(selector)`, selector)
}

// MustClick clicks as soon as the element can be clicked and stays where it is, and
// again when the page moved between the look and the click, so that it met another.
func (f found) MustClick() *rod.Element {
	f.v.t.Helper()
	f.v.waitFor("a click", func() bool {
		still, err := f.Eval(`async () => {
			window.met = false;
			const at = () => { const r = this.getBoundingClientRect(); return [r.x, r.y, r.width, r.height].join(" "); };
			const was = at();
			await new Promise((seen) => requestAnimationFrame(() => requestAnimationFrame(seen)));
			if (this.disabled || was !== at()) return false;
			// What lies behind the rail at the foot, or out of sight, a hand moves to where it can be met.
			const r = this.getBoundingClientRect();
			const top = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2);
			if (!top || !(this.contains(top) || top.contains(this))) {
				this.scrollIntoView({ block: "center" });
				if (was !== at()) return false;
			}
			// One that was drawn anew in its place, by the same words, is the same to a hand.
			const words = this.innerText;
			const meets = (e) => e.composedPath().includes(this) || (words && e.target.closest?.("button, a[href]")?.innerText === words);
			// What the page moved under the hand is not pressed: it looks again, and presses then.
			addEventListener("click", (e) => {
				if (meets(e)) window.met = true;
				else { e.stopImmediatePropagation(); e.preventDefault(); }
			}, { capture: true, once: true });
			return true;
		}`)
		if err == nil && still.Value.Bool() && f.Click(proto.InputMouseButtonLeft, 1) == nil {
			if f.v.met() {
				return true
			}
			// The page moved under the pointer: a menu that was met instead stands in the way.
			if there, _, err := f.v.Has("[role=menu]"); err == nil && there {
				_ = f.v.Keyboard.Press(input.Escape) // the next try says whether it went
			}
		}
		if e, err := f.again(); err == nil {
			f.Element = e
		}
		return false
	})
	return f.Element
}

// met says whether the click met its element; it did too when there is another page now.
func (v visitor) met() bool {
	got, err := v.Eval(`() => window.met !== false`)
	return err != nil || got.Value.Bool()
}

func (v visitor) press(words string) { v.t.Helper(); v.element("button, a[href]", words).MustClick() }

// write puts text into the field of a label that can be seen.
func (v visitor) write(label, text string) {
	v.t.Helper()
	v.field(label).MustInput(text)
}

// all evaluates a function in the page on every element of a selector, at once.
func (v visitor) all(selector, js string) (out []string) {
	v.t.Helper()
	for _, one := range v.MustEval(`(selector) => [...document.querySelectorAll(selector)].map(`+js+`)`, selector).Arr() {
		out = append(out, one.Str())
	}
	return out
}

func (v visitor) field(label string) found {
	v.t.Helper()
	return v.find("a field "+label, `(label) => {
		const of = [...document.querySelectorAll("label[for]")].find((l) => l.innerText.includes(label) && l.getBoundingClientRect().width);
		return of && document.getElementById(of.htmlFor);
	}`, label)
}

func (v visitor) asDemo() {
	v.t.Helper()
	v.press("Tide-pool studio")
	v.see("steps by hue")
	v.see("of nine mixtures")
	v.keys(input.Digit0) // the sentences of the first minute, which say words that stand elsewhere too
	v.waitFor("the first minute put away", func() bool { return !v.shows("Paint it.") })
}

// pick chooses a paint by its id in the list for a role.
func (v visitor) pick(role, id string) {
	v.t.Helper()
	v.element(`[aria-label="paints for the `+role+`"] [data-paint="`+id+`"]`, "").MustClick()
}

// swap puts another paint in a role.
func (v visitor) swap(role, id string) {
	v.t.Helper()
	v.press("swap the " + role)
	v.pick(role, id)
	v.see("of the possible")
}

// slot chooses a slot of the wheel by its name.
func (v visitor) slot(name string) {
	v.t.Helper()
	v.find("slot "+name, `(name) => document.querySelector('[role=radio][data-slot][aria-label^="' + name + ', "]')`, name).MustEval(`() => this.dispatchEvent(new MouseEvent("click", { bubbles: true }))`)
	v.waitFor("the card of "+name, func() bool { return v.MustHas(`[aria-label="step: ` + name + `"]`) })
}

func (v visitor) verdict() string {
	v.t.Helper()
	return *v.MustElement("[data-verdict]").MustAttribute("data-verdict")
}

var spaces = regexp.MustCompile(`\s+`)

// parts is the text under the parts bar.
func (v visitor) parts() string {
	v.t.Helper()
	return spaces.ReplaceAllString(v.MustElement(`[aria-label="parts"]`).MustText(), " ")
}

// painted is the colour a slot is filled with.
func (v visitor) painted(slot int) string {
	v.t.Helper()
	return *v.MustElement(fmt.Sprintf(`[data-slot="%d"] path`, slot)).MustAttribute("fill")
}

func (v visitor) nameOfWheel() string {
	v.t.Helper()
	return v.MustElement(`input[aria-label="name of the wheel"]`).MustProperty("value").String()
}

// choose takes one of the words in a row, or opens a setting and takes one of its list.
func (v visitor) choose(label, word string) {
	v.t.Helper()
	found := v.find("a choice of "+label, `(label) => document.querySelector('[role=radiogroup][aria-label="' + label + '"]') ??
		[...document.querySelectorAll("[data-choice]")].find((e) => (e.dataset.choice === label || e.dataset.choice.startsWith(label + ":")) && e.getClientRects().length)`, label)
	if found.MustMatches("[role=radiogroup]") {
		v.element(`[role=radiogroup][aria-label="`+label+`"] [role=radio]`, word).MustClick()
		return
	}
	found.MustClick()
	v.element("[role=menuitem]", word).MustClick()
}

// setTo is the word that a setting of a label shows.
func (v visitor) setTo(label string) string {
	v.t.Helper()
	_, word, _ := strings.Cut(v.MustElement(`[data-choice^="`+label+`"]`).MustProperty("textContent").Str(), ":")
	return strings.TrimSpace(word)
}

// menu opens a list of choices and takes one.
func (v visitor) menu(label, item string) {
	v.t.Helper()
	v.press(label)
	v.element("[role=menuitem]", item).MustClick()
}

// takenAlong is what a file says that is taken along.
func (v visitor) takenAlong(what string) string {
	v.t.Helper()
	v.press("take it along")
	at := *v.element("[role=menuitem]", what).MustAttribute("href")
	v.close()
	return v.MustEval(`async (at) => (await fetch(at)).text()`, at).Str()
}

// item is the one of an open menu that says just that.
func (v visitor) item(words string) found {
	v.t.Helper()
	return v.find("in the menu: "+words, `(words) => [...document.querySelectorAll("[role=menuitem]")].find((e) => e.innerText === words)`, words)
}

func (v visitor) focusOn(selector, words string) {
	v.t.Helper()
	e := v.element(selector+`:not([tabindex="-1"])`, words)
	v.waitFor("the focus on "+selector, func() bool {
		if e.Focus() == nil {
			return true
		}
		if anew, err := e.again(); err == nil { // it was drawn anew
			e.Element = anew
		}
		return false
	})
}

func (v visitor) keys(keys ...input.Key) {
	v.t.Helper()
	for _, k := range keys {
		v.Keyboard.MustType(k)
		v.drawn() // as fast as a hand that sees what it does
	}
}

// drawn waits until the page has been drawn.
func (v visitor) drawn() {
	v.t.Helper()
	v.MustEval(`() => new Promise((seen) => requestAnimationFrame(() => requestAnimationFrame(seen)))`)
}

// demoDatabase is a database of the test's own with the demo studio in it.
func demoDatabase(t *testing.T) string {
	t.Helper()
	return storetest.Copy(t, "demo", func(address string) error {
		s, err := store.Open(address)
		if err != nil {
			return err
		}
		defer s.Close()
		if err := s.Migrate(t.Context()); err != nil {
			return err
		}
		return studio.SeedDemo(t.Context(), s)
	})
}

// app is a running server with demo data.
type app struct {
	address string
	stop    func()
}

// startApp runs the built server on a database, without a meter unless it is told to have one: once, or as often as
// GYROPHANE_E2E_PROCESSES says, and then every request goes to the next.
func startApp(t *testing.T, url string) app {
	t.Helper()
	one := startAppWith(t, url)
	n, err := strconv.Atoi(cmp.Or(os.Getenv("GYROPHANE_E2E_PROCESSES"), "1"))
	require.NoError(t, err)
	if n == 1 {
		return one
	}
	all := []app{one}
	for range n - 1 {
		all = append(all, startAppWith(t, url))
	}
	var next atomic.Int64
	proxy := httptest.NewServer(&httputil.ReverseProxy{
		Rewrite: func(r *httputil.ProxyRequest) {
			r.Out.URL.Scheme, r.Out.URL.Host = "http", strings.TrimPrefix(all[int(next.Add(1))%n].address, "http://")
			r.Out.Host = r.In.Host
		},
		FlushInterval: -1,
		ErrorLog:      log.New(io.Discard, "", 0),
	})
	t.Cleanup(proxy.CloseClientConnections)
	return app{proxy.URL, func() {
		for _, a := range all {
			a.stop()
		}
	}}
}

// startAppWith runs it with more flags. Every server looks for its meter at an
// address of its own.
func startAppWith(t *testing.T, url string, flags ...string) app {
	t.Helper()
	address := filepath.Join(t.TempDir(), "address")
	cmd := exec.Command(filepath.Join(root(t), "bin", "gyrophane"), append([]string{"serve", "--demo", "--listen", "127.0.0.1:0", "--address-file", address}, flags...)...)
	cmd.Env = append(os.Environ(), "DATABASE_URL="+url, "GYROPHANE_METER="+freeAddress(t))
	log := &strings.Builder{}
	cmd.Stderr = log
	require.NoError(t, cmd.Start(), "the server must be built: run make test")
	stop := sync.OnceFunc(func() {
		require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
		err := cmd.Wait()
		said := log.String()
		require.NoError(t, err, "the server must stop cleanly; it said: %s", said[max(0, len(said)-6000):])
	})
	t.Cleanup(stop)
	deadline := time.Now().Add(patience)
	for time.Now().Before(deadline) {
		if text, err := os.ReadFile(address); err == nil && len(text) > 0 {
			return app{strings.TrimSpace(string(text)), stop}
		}
		<-time.After(20 * time.Millisecond)
	}
	require.Fail(t, "the server did not start", log.String())
	return app{}
}

func freeAddress(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	return l.Addr().String()
}

// cluster is a PostgreSQL of its own, to be stopped and started.
type cluster struct {
	url   string
	state string
	run   func(command string) string
}

// pid is the process of the server.
func (c cluster) pid(t *testing.T) int {
	t.Helper()
	text, err := os.ReadFile(filepath.Join(c.state, "postgres", "postmaster.pid"))
	require.NoError(t, err)
	first, _, _ := strings.Cut(string(text), "\n")
	pid, err := strconv.Atoi(first)
	require.NoError(t, err)
	return pid
}

func ownCluster(t *testing.T) cluster {
	t.Helper()
	state, err := os.MkdirTemp("", "gyrophane-cluster")
	require.NoError(t, err)
	_, port, err := net.SplitHostPort(freeAddress(t))
	require.NoError(t, err)
	run := func(command string) string {
		cmd := exec.Command(filepath.Join(root(t), "scripts", "postgres.sh"), command)
		cmd.Env = append(os.Environ(), "GYROPHANE_STATE="+state, "GYROPHANE_PGPORT="+port)
		out, err := cmd.CombinedOutput()
		require.NoError(t, err, string(out))
		return strings.TrimSpace(string(out))
	}
	run("start")
	t.Cleanup(func() {
		run("stop")
		require.NoError(t, os.RemoveAll(state))
	})
	return cluster{run("url"), state, run}
}

func root(t *testing.T) string {
	t.Helper()
	dir, err := filepath.Abs("..")
	require.NoError(t, err)
	return dir
}
