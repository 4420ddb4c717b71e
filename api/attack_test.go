package api_test

import (
	"bufio"
	"bytes"
	"compress/gzip"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"runtime"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/store"
	"gyrophane/store/storetest"
	"gyrophane/wire"
)

// listening serves an application on a port of this machine, for what needs a
// real connection, and returns its address.
func listening(t *testing.T, app *fiber.App) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	go app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) //nolint:errcheck // ends with the test
	t.Cleanup(func() { assert.NoError(t, app.ShutdownWithTimeout(time.Minute)) })
	return l.Addr().String()
}

// socket is a connection on which bytes are written as they are.
type socket struct {
	net.Conn
	t *testing.T
}

func dial(t *testing.T, address string) socket {
	t.Helper()
	c, err := net.Dial("tcp", address)
	require.NoError(t, err)
	require.NoError(t, c.SetDeadline(time.Now().Add(time.Minute)))
	t.Cleanup(func() { c.Close() })
	return socket{c, t}
}

// says writes a request's head and what there is of its body.
func (w socket) says(method, path string, more []string, body string) {
	w.t.Helper()
	host := w.RemoteAddr().String()
	head := append([]string{method + " " + path + " HTTP/1.1", "Host: " + host, "Content-Type: application/json"}, more...)
	if !slices.ContainsFunc(more, func(h string) bool { return strings.HasPrefix(h, "Origin:") }) {
		head = append(head, "Origin: http://"+host)
	}
	_, err := io.WriteString(w, strings.Join(head, "\r\n")+"\r\n\r\n"+body)
	require.NoError(w.t, err)
}

func (w socket) hears() (int, string) {
	w.t.Helper()
	resp, err := http.ReadResponse(bufio.NewReader(w), nil)
	require.NoError(w.t, err)
	defer resp.Body.Close()
	text, err := io.ReadAll(resp.Body)
	require.NoError(w.t, err)
	return resp.StatusCode, string(text)
}

func TestAnEncodedBodyIsRefusedBeforeItIsRead(t *testing.T) {
	app, _ := server(t, true)
	at := listening(t, app)
	for _, encoding := range []string{"gzip", "deflate", "br", "gzip, gzip", "zstd", "identity", "nonsense"} {
		w := dial(t, at)
		// Nothing of the body is sent: whoever waits for it hears nothing.
		w.says("POST", "/api/wheel", []string{"Content-Encoding: " + encoding, "Content-Length: 1000000"}, "")
		status, text := w.hears()
		assert.Equal(t, 415, status, "%s: %s", encoding, text)
		assert.True(t, json.Valid([]byte(text)), "a problem document alone, with %s: %s", encoding, text)
		assert.Contains(t, text, "Content-Encoding")
	}
	var bomb bytes.Buffer
	z := gzip.NewWriter(&bomb)
	_, err := z.Write(make([]byte, 50<<20))
	require.NoError(t, err)
	require.NoError(t, z.Close())
	c := &client{t: t, app: app}
	r := c.request("POST", "/api/wheel", bomb.String()[:1])
	r.Header.Set("Content-Encoding", "gzip")
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	status, _, _ := c.send(r)
	runtime.ReadMemStats(&after)
	assert.Equal(t, 415, status)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(10<<20))

	w := dial(t, at)
	w.says("POST", "/api/wheel", []string{"Content-Length: 70000"}, "")
	status, text := w.hears()
	assert.Equal(t, 413, status, "64 kB are the most, and no more is read")
	assert.Contains(t, text, "too large")
}

func TestNamesOfABodyAreTakenAsTheyAreWritten(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PY184","PY65","PR254","PR122","PB29","PB15:3"]}`, nil)
	var practice api.Practice
	ada.ok("POST", "/api/practice", "", &practice)
	answers := fmt.Sprintf("/api/practice/%d/answers", practice.Round.ID)
	said := `"hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}`
	long := strings.Repeat("n", 60_000)
	for _, c := range []struct{ method, path, body, says string }{
		{"POST", answers, `{"place":0,"PLACE":-1,` + said + `}`, "PLACE: unexpected property"},
		{"POST", answers, `{"place":-1,` + said + `}`, "place"},
		{"POST", answers, `{"place":0,"place":-1,` + said + `}`, "Place stands twice: give each name once"},
		{"POST", "/api/wheels", strings.Replace(newWheel, `"note":""`, `"note":"","Note":"`+long+`"`, 1), "unexpected property"},
		{"POST", "/api/wheels", strings.Replace(newWheel, `"note":""`, `"note":"`+long[:1001]+`"`, 1), "note"},
		{"POST", "/api/wheels", strings.Replace(newWheel, `"settings"`, `"settings":{"MEDIUM":"x"},"settings"`, 1), "Settings stands twice"},
		{"POST", "/api/comparisons", `{"address":"systems=1","note":"","decision":"","DECISION":"` + long + `"}`, "unexpected property"},
		{"POST", "/api/comparisons", `{"address":"` + long[:501] + `","note":"","decision":""}`, "address"},
		{"PUT", "/api/box/paints/1", `{"nickname":"","NICKNAME":"` + long + `","grade":"artist","tubeMl":null,"price":null,"note":"","archived":false,"version":1}`, "unexpected property"},
		{"POST", "/api/wheel", strings.Repeat("[", 5000) + strings.Repeat("]", 5000), "nested deeper"},
	} {
		status, text := ada.do(c.method, c.path, c.body)
		assert.Equal(t, 422, status, "%.80s: %s", c.body, text)
		assert.Contains(t, text, c.says)
	}
}

// unshowables are characters that cannot be shown, as JSON writes them.
var unshowables = []string{`\u0000`, `\u001b`, `\u202e`, `\u200b`, `\u200d`, `\u2066`, `\ufeff`, `\u3164`, `\ufffd`}

func TestUnshowableCharactersAreRefusedWhereverTheyAreWritten(t *testing.T) {
	app, s := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	id := ada.tube("PB29").ID
	refused := func(c [3]string) {
		t.Helper()
		status, text := ada.do(c[0], c[1], c[2])
		assert.Equal(t, 422, status, "%s %s %s: %s", c[0], c[1], c[2], text)
		assert.Contains(t, text, "cannot be shown")
	}
	for _, bad := range unshowables[:5] { // more are too many tries
		refused([3]string{"POST", "/api/painters", `{"name":"a` + bad + `b"}`})
		refused([3]string{"POST", "/api/painters", `{"name":"Eve","passphrase":"wet on wet` + bad + `"}`})
		refused([3]string{"POST", "/api/session", `{"name":"a` + bad + `b","passphrase":""}`})
	}
	for _, bad := range unshowables {
		for _, c := range [][3]string{
			{"POST", "/api/wheels", strings.Replace(newWheel, "Rock pool", "a"+bad+"b", 1)},
			{"POST", "/api/wheels", strings.Replace(newWheel, `"note":""`, `"note":"a`+bad+`b"`, 1)},
			{"POST", "/api/wheels", strings.Replace(newWheel, "PB29", "PB29"+bad, 1)},
			{"PUT", fmt.Sprintf("/api/box/paints/%d", id), `{"nickname":"a` + bad + `b","grade":"artist","tubeMl":null,"price":null,"note":"","archived":false,"version":1}`},
			{"PUT", fmt.Sprintf("/api/box/paints/%d", id), `{"nickname":"","grade":"artist","tubeMl":null,"price":null,"note":"a` + bad + `b","archived":false,"version":1}`},
			{"POST", "/api/own", `{"name":"a` + bad + `b","origin":{"kind":"label","pigments":["PB29"]}}`},
			{"POST", "/api/wanted", `[{"name":"a` + bad + `b","colour":"#f0662b"}]`},
			{"POST", "/api/comparisons", `{"address":"systems=` + bad + `","note":"","decision":""}`},
			{"POST", "/api/comparisons", `{"address":"","note":"a` + bad + `b","decision":""}`},
			{"POST", "/api/comparisons", `{"address":"","note":"","decision":"a` + bad + `b"}`},
			{"PUT", "/api/pairings/marks", `[{"a":"PB29` + bad + `","b":"PR254","mark":"painted","was":"none"}]`},
		} {
			refused(c)
		}
	}
	for _, bad := range []string{"%00", "%e2%80%ae", "%ff", "%e2%80%8b"} {
		for _, path := range []string{"/api/searches/a" + bad, "/api/label?text=PB29" + bad, "/api/pair?a=PB29" + bad + "&b=PR254", "/api/mix?parts=PB29=1" + bad} {
			status, text := ada.do("GET", path, "")
			assert.Equal(t, 422, status, "%s: %s", path, text)
		}
	}
	for _, name := range []string{"a\x00b", "a\u202eb", "\xff"} {
		_, err := s.PainterByName(t.Context(), name)
		assert.ErrorIs(t, err, store.ErrNotFound, "nobody has such a name, whoever asks")
	}
}

func TestAQuestionFromAnotherSiteIsNotAnswered(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	for site, want := range map[string]int{"same-origin": 200, "none": 200, "same-site": 403, "cross-site": 403} {
		r := ada.request("GET", "/api/wheels", "")
		r.Header.Set("Sec-Fetch-Site", site) // another port of this machine is the same site
		status, text, _ := ada.send(r)
		assert.Equal(t, want, status, "%s: %s", site, text)
	}
	for _, search := range []string{"/api/choose?kind=triad", "/api/replace?wheel=1"} {
		status, _ := ada.do("GET", search, "")
		assert.Equal(t, 404, status, "a search is no question that a link could ask: %s", search)
	}
}

func TestLongHeadersAndLongListsAreTaken(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	at := listening(t, app)
	w := dial(t, at)
	w.says("GET", "/api/painters", []string{"X-Long: " + strings.Repeat("x", 15<<10)}, "")
	status, text := w.hears()
	assert.Equal(t, 200, status, text)
	w = dial(t, at)
	w.says("GET", "/api/painters", []string{"X-Long: " + strings.Repeat("x", 20<<10)}, "")
	status, text = w.hears()
	assert.Equal(t, 431, status)
	assert.Contains(t, text, "16 kB at most")

	rows, out := []string{"paint"}, []string{}
	for i := range 2000 {
		rows, out = append(rows, "PB29"), append(out, fmt.Sprint(i))
	}
	r, err := http.NewRequest("POST", "http://"+at+"/api/files/box?leaveOut="+strings.Join(out, ","), strings.NewReader(strings.Join(rows, "\n")))
	require.NoError(t, err)
	r.Header.Set("Origin", "http://"+at)
	r.Header.Set("Cookie", ada.cookie)
	resp, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	defer resp.Body.Close()
	body, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	assert.Equal(t, 200, resp.StatusCode, "as many rows as are promised: %.200s", body)
}

func TestSilentConnectionsKeepNobodyOut(t *testing.T) {
	app, _ := server(t, true)
	at := listening(t, app)
	var silent []socket
	for range 400 {
		silent = append(silent, dial(t, at))
	}
	w := dial(t, at)
	w.says("GET", "/api/session", nil, "")
	status, _ := w.hears()
	assert.Equal(t, 200, status)
	w.Close()
	for _, s := range silent {
		status, _ := s.hears()
		assert.Equal(t, 408, status, "whoever says nothing is sent away")
	}
}

func TestBehindAProxyTheClientIsWhoTheProxySaysItIs(t *testing.T) {
	proxies, err := api.ParseProxies("127.0.0.1, 10.0.0.0/8")
	require.NoError(t, err)
	for name, c := range map[string]struct {
		trusted   []netip.Prefix
		forwarded func(i int) string
		want      int // of the last of 25 wrong tries
	}{
		"another address each time, as the proxy says": {proxies, func(i int) string { return fmt.Sprintf("203.0.113.%d", i) }, 403},
		"one client":                                 {proxies, func(int) string { return "203.0.113.9" }, 429},
		"what the client wrote before":               {proxies, func(i int) string { return fmt.Sprintf("198.51.100.%d, 203.0.113.9", i) }, 429},
		"through a second proxy":                     {proxies, func(i int) string { return fmt.Sprintf("198.51.100.%d, 203.0.113.9, 10.1.2.3", i) }, 429},
		"a network of its own":                       {proxies, func(i int) string { return fmt.Sprintf("2001:db8:1:2::%x", i+1) }, 429},
		"a header that no trusted proxy has written": {nil, func(i int) string { return fmt.Sprintf("203.0.113.%d", i) }, 429},
	} {
		t.Run(name, func(t *testing.T) {
			app, _ := serverWith(t, api.Options{TrustedProxies: c.trusted})
			at := listening(t, app)
			last := 0
			for i := range 25 {
				w := dial(t, at)
				w.says("POST", "/api/painters", []string{"Origin: https://" + at, "X-Forwarded-For: " + c.forwarded(i), "Content-Length: 12"}, `{"name":"Al"}`[:12])
				last, _ = w.hears()
				w.Close()
			}
			if c.want == 403 {
				assert.NotEqual(t, 429, last)
			} else {
				assert.Equal(t, c.want, last)
			}
		})
	}
	_, err = api.ParseProxies("10.0.0.0/8, everywhere")
	assert.ErrorContains(t, err, `"everywhere" is no address of a proxy`)
}

func TestAHeaderNeverMakesAClientLocal(t *testing.T) {
	app, _ := server(t, false)
	at := listening(t, app)
	for _, header := range []string{"X-Forwarded-For: 127.0.0.1", "X-Forwarded-Host: localhost", "X-Real-IP: 127.0.0.1", "Forwarded: for=127.0.0.1"} {
		w := dial(t, at)
		w.says("GET", "/api/session", []string{header}, "")
		_, text := w.hears()
		assert.Contains(t, text, `"listener":"public"`, header)
		w.says("GET", "/api/painters", []string{header}, "")
		_, text = w.hears()
		assert.Equal(t, "[]\n", text, header)
	}
	local, _ := server(t, true)
	w := dial(t, listening(t, local))
	_, err := io.WriteString(w, "GET /api/painters HTTP/1.1\r\nHost: rebound.example\r\nX-Forwarded-Host: localhost\r\n\r\n")
	require.NoError(t, err)
	status, _ := w.hears()
	assert.Equal(t, 421, status, "the name that was asked for counts")
}

func TestASessionEndsOnTheServer(t *testing.T) {
	app, _ := server(t, false)
	ada := &client{t: t, app: app}
	r := ada.request("POST", "/api/painters", `{"name":"Ada","passphrase":"wet on wet 1"}`)
	r.Header.Set("User-Agent", "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0")
	_, _, head := ada.send(r)
	assert.Contains(t, strings.ToLower(head.Get("Set-Cookie")), "secure", "beyond loopback the cookie travels by TLS alone")
	enter := func() *client {
		c := &client{t: t, app: app}
		c.ok("POST", "/api/session", `{"name":"Ada","passphrase":"wet on wet 1"}`, nil)
		return c
	}
	tablet, stolen := enter(), enter()
	var all []api.SignedIn
	ada.ok("GET", "/api/sessions", "", &all)
	require.Len(t, all, 3)
	here := all[slices.IndexFunc(all, func(s api.SignedIn) bool { return s.Here })]
	assert.Equal(t, "Firefox on Linux", here.Device)
	assert.Equal(t, 1, countOf(all, func(s api.SignedIn) bool { return s.Here }))

	// Who is signed out is out, whoever kept the cookie.
	copied := &client{t: t, app: app, cookie: tablet.cookie}
	tablet.ok("DELETE", "/api/session", "", nil)
	status, _ := copied.do("GET", "/api/wheels", "")
	assert.Equal(t, 401, status)

	// And a session that was lost is ended from another.
	stolen.ok("GET", "/api/sessions", "", &all)
	lost := all[slices.IndexFunc(all, func(s api.SignedIn) bool { return s.Here })].ID
	eve := &client{t: t, app: app}
	eve.ok("POST", "/api/painters", `{"name":"Eve","passphrase":"wet on wet 2"}`, nil)
	status, _ = eve.do("DELETE", fmt.Sprintf("/api/sessions/%d", lost), "")
	assert.Equal(t, 404, status, "another painter's is out of reach")
	ada.ok("DELETE", fmt.Sprintf("/api/sessions/%d", lost), "", &all)
	assert.Len(t, all, 1)
	status, _ = stolen.do("GET", "/api/wheels", "")
	assert.Equal(t, 401, status)
	ada.ok("GET", "/api/wheels", "", nil)
}

func countOf[T any](all []T, holds func(T) bool) (n int) {
	for _, one := range all {
		if holds(one) {
			n++
		}
	}
	return n
}

func TestAQuestionAboutLibraryPaintsNeverWaitsForTheDatabase(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0") // takes connections, and says nothing
	require.NoError(t, err)
	defer l.Close()
	s, err := store.Open("postgres://nobody:nothing@" + l.Addr().String() + "/nowhere")
	require.NoError(t, err)
	defer s.Close()
	ada := &client{t: t, app: api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)}).App(), cookie: "gyrophane=whoever"}
	for _, path := range []string{"/api/pair?a=PY184&b=PR254", "/api/mix?parts=PB29=1,PR122=2"} {
		ada.ok("GET", path, "", nil)
	}
	ada.ok("POST", "/api/wheel", question, nil)
	ada.ok("POST", "/api/edge-to-edge", `{"here":{"places":[{"name":"a","parts":["PB29=1"]}]},"held":{"places":[{"name":"b","parts":["PB60=1"]}]}}`, nil)
	require.NoError(t, l.(*net.TCPListener).SetDeadline(time.Now()))
	_, err = l.Accept()
	assert.Error(t, err, "nobody has asked it anything")
}

func TestAReadOnlyDatabaseIsReadAndSaysSo(t *testing.T) {
	address := storetest.Database(t)
	s, err := store.Open(address)
	require.NoError(t, err)
	require.NoError(t, s.Migrate(t.Context()))
	ada := signedUp(t, api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)}).App(), "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	require.NoError(t, s.Close())

	u, err := url.Parse(address)
	require.NoError(t, err)
	u.RawQuery = "default_transaction_read_only=on&" + u.RawQuery
	again, err := store.Open(u.String())
	require.NoError(t, err)
	defer again.Close()
	require.NoError(t, again.Migrate(t.Context()))
	ada.app = api.New(again, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)}).App()
	status, text := ada.do("GET", "/readyz", "")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, "the database takes no changes")
	var list []api.WheelEntry
	ada.ok("GET", "/api/wheels", "", &list)
	assert.Len(t, list, 1)
	ada.ok("GET", "/api/box", "", nil)
	for _, write := range [][3]string{
		{"PUT", fmt.Sprintf("/api/wheels/%d", w.ID), change("PB60", 1)},
		{"POST", "/api/box/paints", `{"paints":["PB29"]}`},
		{"POST", "/api/painters", `{"name":"Eve"}`},
		{"DELETE", "/api/session", ""},
	} {
		status, text := ada.do(write[0], write[1], write[2])
		assert.Equal(t, 503, status, "%s %s: %s", write[0], write[1], text)
		assert.Contains(t, text, "takes no changes just now, so nothing was changed")
	}
}

func TestABoxOfManyTubesIsSearchedExactlyOrRefusedAtOnce(t *testing.T) {
	app, s := server(t, true)
	ada := signedUp(t, app, "Ada")
	who, err := s.PainterByName(t.Context(), "Ada")
	require.NoError(t, err)
	fill := func(n int, shift func(i int) float64) { fillBox(t, s, who.ID, n, shift) }
	fill(150, func(int) float64 { return 0 }) // three tubes of each
	var got wire.Chosen
	ada.ok("POST", "/api/choose?kind=split", "", &got)
	assert.Len(t, got.RunnersUp, reach.RunnersUp)
	distinct := map[string]bool{}
	for _, name := range got.Best.Paints {
		distinct[name] = true
	}
	assert.Len(t, distinct, 6)
	fill(250, func(i int) float64 { return float64(i%200)/10 - 10 })
	for _, kind := range []string{"split", "double"} {
		status, text := ada.do("POST", "/api/choose?kind="+kind, "")
		assert.Equal(t, 422, status)
		assert.Contains(t, text, "too many for an exact answer: leave some out")
	}
	var practice api.Practice
	ada.ok("POST", "/api/practice", "", &practice)
	assert.Len(t, practice.Round.Pairs, 10)
}

// fillBox puts n tubes into a box that are like library paints in turn, their
// absorption shifted by so many nanometres.
func fillBox(t *testing.T, s *store.Store, painter int64, n int, shift func(i int) float64) {
	t.Helper()
	var tubes []store.NewTube
	for i := range n {
		m, err := paint.Adjusted(paint.Library()[i%len(paint.Library())], 1, shift(i), 0)
		require.NoError(t, err)
		k, scattering := m.K(), m.S()
		tubes = append(tubes, store.NewTube{
			Definition: paint.Definition{Name: fmt.Sprintf("paint %d", i), Making: paint.Changed, K: k[:], S: scattering[:]},
			Content:    store.ContentOf(paint.TubeDetails{Grade: "artist"}),
		})
	}
	_, err := s.AddTubes(t.Context(), painter, "filled", tubes)
	require.NoError(t, err)
}
