package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// gate stands before some of what is told to the server, and may answer in the server's place.
type gate struct {
	mu     sync.Mutex
	cut    bool                     // no answer at all
	answer []int                    // statuses, one for each request, before any goes through
	change func(body string) string // what is sent on
	asked  int
}

func (g *gate) set(change func(g *gate)) {
	g.mu.Lock()
	defer g.mu.Unlock()
	change(g)
}

func (g *gate) requests() int {
	g.mu.Lock()
	defer g.mu.Unlock()
	return g.asked
}

// gated puts a gate before what a page tells of sittings.
func (v visitor) gated() *gate {
	v.t.Helper()
	return v.gatedAt("*/api/sittings/*/events*")
}

// gatedAt puts a gate before requests to addresses of a pattern.
func (v visitor) gatedAt(pattern string) *gate {
	v.t.Helper()
	g := &gate{}
	// What goes by way of the service worker, which takes the page over when it is ready, is met by no gate.
	require.NoError(v.t, proto.NetworkSetBypassServiceWorker{Bypass: true}.Call(v.Page))
	router := v.HijackRequests()
	router.MustAdd(pattern, func(h *rod.Hijack) {
		g.mu.Lock()
		g.asked++
		cut, change := g.cut, g.change
		status := 0
		if !cut && len(g.answer) > 0 {
			status, g.answer = g.answer[0], g.answer[1:]
		}
		g.mu.Unlock()
		switch {
		case cut:
			h.Response.Fail(proto.NetworkErrorReasonConnectionRefused)
		case status != 0:
			h.Response.Payload().ResponseCode = status
			h.Response.SetHeader("Content-Type", "application/problem+json", "Retry-After", "1")
			h.Response.SetBody(fmt.Sprintf(`{"status":%d,"detail":"The gate says %d."}`, status, status))
		case change != nil:
			h.ContinueRequest(&proto.FetchContinueRequest{PostData: []byte(change(h.Request.Body()))})
		default:
			h.ContinueRequest(&proto.FetchContinueRequest{})
		}
	})
	go router.Run()
	v.t.Cleanup(func() { _ = router.Stop() }) // its page may be closed
	return g
}

// ask asks the server, as the page would, and answers with the status and what came.
func (v visitor) ask(method, path string, body any) (int, map[string]any) {
	v.t.Helper()
	text, err := json.Marshal(body)
	require.NoError(v.t, err)
	got := v.MustEval(`async (method, path, body) => {
		const r = await fetch(path, { method, ...(method !== "GET" && { body, headers: { "Content-Type": "application/json" } }) });
		const text = await r.text();
		return [r.status, text.startsWith("{") ? text : "{}"];
	}`, method, path, string(text)).Arr()
	var out map[string]any
	require.NoError(v.t, json.Unmarshal([]byte(got[1].Str()), &out))
	return got[0].Int(), out
}

// keptSitting is the sitting of the address as the server has it.
func (v visitor) keptSitting() map[string]any {
	v.t.Helper()
	id := v.MustEval(`() => location.pathname.split("/").pop()`).Str()
	status, s := v.ask(http.MethodGet, "/api/sittings/"+id, nil)
	require.Equal(v.t, 200, status)
	return s
}

// keptCoats is how many coats the server knows of.
func (v visitor) keptCoats() (n int) {
	v.t.Helper()
	for _, p := range v.keptSitting()["places"].([]any) {
		n += int(p.(map[string]any)["coats"].(float64))
	}
	return n
}

// atASitting is the demo painter at the beginning of a sitting.
func atASitting(t *testing.T) visitor {
	t.Helper()
	p := atTheBench(t, "Starfish and anemone")
	p.menu("medium", "gouache")
	p.exact()
	p.sitsDown()
	p.see("all kept")
	return p
}

// tapPainted taps "painted", whatever comes of it.
func (v visitor) tapPainted() {
	v.t.Helper()
	v.find("painted", `() => [...document.querySelectorAll("main button")].find((b) => b.innerText === "painted")`).MustClick()
}

func TestWhatWaitsSurvivesASessionThatEnded(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	p.paints(1)
	p.see("all kept")
	p.MustEval(`async () => { const [s] = await (await fetch("/api/sessions")).json(); await fetch("/api/sessions/" + s.id, { method: "DELETE" }); }`)
	p.tapPainted()
	p.see("Know the wheel before you paint it")
	p.see("1 thing of Tide-pool studio waits here")
	p.waitFor("what was seen to go", func() bool {
		return p.MustEval(`async () => { const c = await caches.open("gyrophane-seen"); return (await c.keys()).every((r) => new URL(r.url).pathname === "/api/session"); }`).Bool()
	})
	p.press("Tide-pool studio")
	p.waitFor("what waited", func() bool { return len(p.coats()) == 2 })
	p.see("all kept")
	assert.Equal(t, 2, p.keptCoats())
}

func TestAPassphraseChangedInMidSittingLosesNothing(t *testing.T) {
	t.Parallel()
	address := startApp(t, demoDatabase(t)).address
	p := open(t, address)
	status, _ := p.ask(http.MethodPost, "/api/painters", map[string]any{"name": "Ada", "passphrase": "wet on wet 1"})
	require.Equal(t, 200, status)
	status, wheel := p.ask(http.MethodPost, "/api/wheels", map[string]any{"name": "Rock pool",
		"system":   map[string]any{"kind": "triad", "roles": [][]string{{"PY184"}, {"PR254"}, {"PB29"}}, "chosen": [][]string{{}, {}, {}}, "riders": map[string]any{}, "note": ""},
		"settings": asUsual})
	require.Equal(t, 200, status, wheel)
	status, sitting := p.ask(http.MethodPost, fmt.Sprintf("/api/wheels/%.0f/sittings", wheel["id"]), map[string]any{})
	require.Equal(t, 200, status, sitting)
	at := fmt.Sprintf("%s/bench/sitting/%.0f", address, sitting["id"])
	p.MustNavigate(at).MustWaitLoad()
	p.press("it is laid out")
	p.paints(1)
	p.see("all kept")

	elsewhere := open(t, address)
	status, _ = elsewhere.ask(http.MethodPost, "/api/session", map[string]any{"name": "Ada", "painter": wheelOwner(p), "passphrase": "wet on wet 1"})
	require.Equal(t, 200, status)
	status, _ = elsewhere.ask(http.MethodPut, "/api/session/passphrase", map[string]any{"present": "wet on wet 1", "new": "wet on dry 2"})
	require.Less(t, status, 300)

	p.tapPainted()
	p.see("Know the wheel before you paint it")
	p.see("1 thing of Ada waits here")
	p.press("Ada")
	p.field("passphrase of Ada").MustInput("wet on dry 2")
	p.press("come in")
	p.waitFor("what waited", func() bool { return len(p.coats()) == 2 })
	p.see("all kept")
	assert.Equal(t, 2, p.keptCoats())
}

// wheelOwner is who is signed in.
func wheelOwner(v visitor) any {
	_, s := v.ask(http.MethodGet, "/api/session", nil)
	return s["painter"].(map[string]any)["id"]
}

func TestASittingWaitsWhereTooMuchIsAsked(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	g := p.gated()
	g.set(func(g *gate) { g.answer = []int{429, 503, 429, 408} })
	p.paints(1)
	p.see("Out of contact")
	p.see("all kept")
	assert.Equal(t, 1, p.keptCoats())
	assert.GreaterOrEqual(t, g.requests(), 5)
}

func TestOneRefusedTapDoesNotTakeTheOthersWithIt(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	g := p.gated()
	g.set(func(g *gate) { g.cut = true })
	for n := 1; n <= 10; n++ {
		p.paints(n)
	}
	p.see("10 things wait here")
	// One of them names a place that is not on the sheet, on its way.
	spoilt := ""
	g.set(func(g *gate) {
		g.change = func(body string) string {
			var told struct {
				Events []map[string]any `json:"events"`
			}
			if json.Unmarshal([]byte(body), &told) != nil {
				return body
			}
			for _, e := range told.Events {
				if e["kind"] == "painted" && (spoilt == "" || spoilt == e["id"]) {
					spoilt, _ = e["id"].(string)
					e["region"] = "nowhere"
				}
			}
			out, _ := json.Marshal(told)
			return string(out)
		}
		g.cut = false
	})
	p.see("Not kept: painted: ")
	p.see("there is no place")
	p.see("some put aside")
	p.waitFor("the other nine", func() bool { return p.keptCoats() == 9 })
	assert.Len(t, p.coats(), 9)

	// Over a reload it is there still; sent again it is kept.
	p.MustReload()
	p.see("Not kept: painted: ")
	g.set(func(g *gate) { g.change = nil })
	p.press("send it again")
	p.see("all kept")
	assert.Equal(t, 10, p.keptCoats())
}

func TestSigningOutWithSomethingWaitingAsks(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	g := p.gated()
	g.set(func(g *gate) { g.cut = true })
	p.paints(1)
	p.press("painter: ")
	p.element("[role=menuitem]", "somebody else is painting").MustClick()
	p.see("Not everything has been kept yet")
	p.see("1 thing of yours waits to be sent")
	p.press("stay")
	p.waitFor("the question to go", func() bool { return !p.shows("Not everything has been kept yet") })
	p.press("painter: ")
	p.element("[role=menuitem]", "somebody else is painting").MustClick()
	p.press("send them now") // in vain; what is tried again later goes by itself
	g.set(func(g *gate) { g.cut = false })
	p.MustEval(`() => void dispatchEvent(new Event("online"))`)
	p.see("Know the wheel before you paint it")
	p.press("Tide-pool studio")
	p.waitFor("the sittings to be there", func() bool {
		_, all := p.ask(http.MethodGet, "/api/session", nil)
		return all["painter"] != nil
	})

	// Let go of, it is gone, and one leaves.
	id := p.MustEval(`async () => (await (await fetch("/api/sittings")).json())[0].id`).Int()
	p.MustNavigate(p.MustEval(`() => location.origin`).Str() + fmt.Sprintf("/bench/sitting/%d", id)).MustWaitLoad()
	p.waitFor("what was sent", func() bool { return len(p.coats()) == 1 })
	g.set(func(g *gate) { g.cut = true })
	p.paints(2)
	p.press("painter: ")
	p.element("[role=menuitem]", "somebody else is painting").MustClick()
	p.press("let them go")
	p.see("Know the wheel before you paint it")
	assert.False(t, p.shows("waits here"))
}

// What waits for one painter is never sent while another is signed in by the same browser.
func TestWhatWaitsIsHeldForItsOwner(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	g := p.gated()
	g.set(func(g *gate) { g.cut = true })
	p.paints(1)
	p.see("Out of contact")
	address := p.MustInfo().URL
	origin := p.MustEval(`() => location.origin`).Str()
	other := p.another(origin)
	status, _ := other.ask(http.MethodPost, "/api/painters", map[string]any{"name": "Eve"})
	require.Equal(t, 200, status)
	g.set(func(g *gate) { g.cut = false })
	p.waitFor("the page to be Eve's", func() bool { return p.shows("Eve") && !p.shows("Out of contact") })
	other.ask(http.MethodPost, "/api/session", map[string]any{"painter": demoPainter(other)})
	p.MustNavigate(address).MustWaitLoad()
	p.see("all kept")
	p.waitFor("what waited", func() bool { return len(p.coats()) == 1 })
	assert.Equal(t, 1, p.keptCoats())
}

// demoPainter is the id of the demo painter.
func demoPainter(v visitor) int {
	return v.MustEval(`async () => (await (await fetch("/api/painters")).json()).find((p) => p.demo).id`).Int()
}

func TestTwoTabsClosedOutOfContactLoseNothing(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	address := p.MustInfo().URL
	var tabs []*rod.Page
	for range 2 {
		page := p.own.MustPage().Timeout(patience * 6)
		v := visitor{page, t, p.own, &sync.Mutex{}, &[]string{}}
		page.MustSetViewport(1280, 800, 1, false)
		page.MustNavigate(address).MustWaitLoad()
		v.see("all kept")
		v.gated().set(func(g *gate) { g.cut = true })
		v.tapPainted()
		v.see("Out of contact")
		tabs = append(tabs, page)
	}
	for _, page := range tabs {
		page.MustClose()
	}
	third := p.another(address)
	third.waitFor("what both tapped", func() bool { return third.keptCoats() == 2 })
	third.see("all kept")
}

// A mark that is set out of contact is shown, waits over a reload, and is sent.
func TestAMarkSetOutOfContactIsSent(t *testing.T) {
	t.Parallel()
	address := startApp(t, demoDatabase(t)).address
	cable := connect(t, address)
	p := open(t, cable.address)
	p.asDemo()
	p.goTo("Pairings")
	p.element("[data-pair]", "").MustClick()
	marked := func() bool { return p.setTo("mark of ") == "painted" }
	p.MustElement(`[data-choice^="mark of "]`)
	cable.cut(true)
	p.mark("painted")
	p.waitFor("the mark, though it is not kept", marked)
	kept := func() int {
		return p.MustEval(`async () => { try { return (await (await fetch("/api/pairings/marks")).json()).filter((m) => m.mark === "painted").length; } catch { return -1; } }`).Int()
	}
	cable.cut(false)
	before := -1
	p.waitFor("the mark to be kept", func() bool { before = kept(); return before > 0 && marked() })
	p.waitFor("nothing to wait", func() bool {
		return p.MustEval(`() => Object.keys(localStorage).every((k) => !k.startsWith("gyrophane.outbox/"))`).Bool()
	})
}

// What a page of before there was an outbox left unsent is sent.
func TestWhatAnOlderPageLeftIsSent(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	id := p.MustEval(`() => location.pathname.split("/").pop()`).Str()
	p.MustEval(`(id) => {
		localStorage.setItem("gyrophane.sittings#12", JSON.stringify({ [id]: { version: 0, changes: [{ id: "old-1", content: { id: "old-1", kind: "painted", region: "green", at: Date.now(), offsetMs: 0, device: "d", number: 1, revision: 1 } }] } }));
		localStorage.setItem("gyrophane.unsaved.box#12", "{broken");
		localStorage.setItem("gyrophane.painters", "{broken");
	}`, id)
	p.MustReload()
	p.waitFor("what was left", func() bool { return p.keptCoats() == 1 })
	p.see("all kept")
}

func TestThreeTapsAreTakenBackOutOfContact(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	for n := 1; n <= 3; n++ {
		p.paints(n)
	}
	p.see("all kept")
	g := p.gated()
	g.set(func(g *gate) { g.cut = true })
	p.paints(4)
	for n := 3; n >= 1; n-- {
		p.press("take back (painted")
		p.waitFor(fmt.Sprintf("%d painted", n), func() bool { return len(p.coats()) == n })
	}
	assert.Len(t, p.coats(), 1)
	g.set(func(g *gate) { g.cut = false })
	p.see("all kept")
	assert.Equal(t, 1, p.keptCoats())
	assert.Len(t, p.coats(), 1)
	back := p.keptSitting()["back"].([]any)
	assert.Contains(t, back[0].(map[string]any)["says"], "painted: ")
}

func TestADeviceClockThatIsSlowIsPutRight(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	_, err := p.EvalOnNewDocument(`{ const now = Date.now; Date.now = () => now() - 180000; }`)
	require.NoError(t, err)
	p.MustReload()
	p.asDemo()
	p.wheelOf("Starfish and anemone")
	p.goTo("Bench")
	p.exact()
	p.sitsDown()
	p.paints(1)
	g := p.gated()
	g.set(func(g *gate) { g.cut = true })
	p.paints(2)
	p.MustReload()
	p.waitFor("both", func() bool { return len(p.coats()) == 2 })
	g.set(func(g *gate) { g.cut = false })
	p.see("all kept")
	s := p.keptSitting()
	now := s["now"].(float64)
	painted := 0
	for _, place := range s["places"].([]any) {
		if at := place.(map[string]any)["painted"].(float64); at > 0 {
			painted++
			assert.InDelta(t, now, at, 90_000, "not three minutes off")
			assert.LessOrEqual(t, at, now)
		}
	}
	assert.Equal(t, 2, painted)
}

// One tap on "painted" tells what the server said it would: the wash, the well, the place.
func TestWhatOnePaintedTells(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	for n := 1; n <= 12; n++ {
		before := p.keptSitting()
		step := before["steps"].([]any)[0].(map[string]any)
		region := int(step["region"].(float64))
		tells := before["places"].([]any)[region].(map[string]any)["tells"].([]any)
		washes, well := 0, 0
		for _, tell := range tells {
			of := tell.(map[string]any)
			if of["kind"] == "washed" {
				washes++
			}
			if of["kind"] == "mixed" {
				well = int(of["well"].(float64))
			}
		}
		p.paints(n)
		p.see("all kept")
		after := p.keptSitting()
		assert.Equal(t, before["revision"].(float64)+float64(len(tells)), after["revision"], "step %d", n)
		assert.Equal(t, before["washes"].(float64)+float64(washes), after["washes"], "step %d", n)
		assert.InDelta(t, 1, after["places"].([]any)[region].(map[string]any)["coats"], 0)
		if well > 0 {
			assert.InDelta(t, region, after["wells"].([]any)[well-1].(map[string]any)["region"], 0)
		}
		assert.True(t, strings.HasPrefix(after["back"].([]any)[0].(map[string]any)["says"].(string), "painted: "))
	}
}

// A browser opens six connections to a server: the seventh tab works all the same, and all of
// them hear what one of them does.
func TestSevenTabsOfOneSitting(t *testing.T) {
	t.Parallel()
	p := atASitting(t)
	address := p.MustInfo().URL
	var tabs []visitor
	for range 6 {
		tab := p.another(address)
		tab.see("another slot")
		tabs = append(tabs, tab)
	}
	p.paints(1)
	for _, tab := range tabs {
		tab.waitFor("what the first painted", func() bool { return len(tab.coats()) == 1 })
	}
}

func TestAComparisonKeptOutOfContactArrives(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.goTo("Compare")
	const words = `section[aria-label="kept comparisons"] textarea:not([aria-hidden])`
	p.waitFor("its two fields", func() bool { return len(p.MustElements(words)) == 2 })
	p.MustElements(words)[1].MustInput("took the six")
	g := p.gatedAt("*/api/comparisons*")
	g.set(func(g *gate) { g.cut = true })
	p.press("keep it")
	p.see("took the six · on its way")
	p.waitFor("a try", func() bool { return g.requests() > 0 })
	g.set(func(g *gate) { g.cut, g.answer = false, []int{503, 429} })
	p.waitFor("its arrival", func() bool { return p.shows("took the six") && !p.shows("on its way") })
	p.press("write on it")
	p.waitFor("its own fields", func() bool { return len(p.MustElements(words)) == 4 })
	g.set(func(g *gate) { g.answer = []int{422} })
	p.MustElements(words)[2].MustInput("for the ferry")
	p.element("button", "save").MustClick()
	p.see("Not kept: what you wrote “took the six”")
	p.press("send it again")
	p.see("took the six · for the ferry")
	p.press("drop it")
	p.waitFor("gone", func() bool {
		return p.MustEval(`async () => (await (await fetch("/api/comparisons")).json()).length`).Int() == 0 && !p.shows("for the ferry")
	})
}

// asUsual are a wheel's settings in gouache.
var asUsual = map[string]any{"medium": "gouache", "light": "D65", "judged": "dry", "choices": map[string]any{"spacing": "hue", "order": "run", "names": "painters", "rings": map[string]any{"tints": 0, "shades": 0, "wash": false, "neutral": false, "triple": false}}}
