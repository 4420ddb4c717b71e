package e2e

import (
	"fmt"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/httputil"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// slowWay is a way to a server on which every answer takes its time, and what was
// answered to writes that were refused.
type slowWay struct {
	address string
	mu      sync.Mutex
	refused []string
	writes  int
}

// slowly puts a slow way before a server: each answer is held back by up to most.
func slowly(t *testing.T, address string, most time.Duration) *slowWay {
	t.Helper()
	to, err := url.Parse(address)
	require.NoError(t, err)
	way := &slowWay{}
	random := rand.New(rand.NewPCG(11, 13))
	proxy := &httputil.ReverseProxy{
		Rewrite: func(r *httputil.ProxyRequest) {
			r.SetURL(to)
			r.Out.Host = r.In.Host
		},
		ModifyResponse: func(r *http.Response) error {
			if !strings.HasPrefix(r.Request.URL.Path, "/api/") {
				return nil
			}
			way.mu.Lock()
			held := time.Duration(random.Int64N(int64(most)))
			if r.Request.Method != http.MethodGet {
				way.writes++
				if r.StatusCode >= 400 {
					way.refused = append(way.refused, fmt.Sprintf("%s %s: %d", r.Request.Method, r.Request.URL.Path, r.StatusCode))
				}
			}
			way.mu.Unlock()
			<-time.After(held)
			return nil
		},
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	server := &http.Server{Handler: proxy}
	go server.Serve(l) //nolint:errcheck // ends with the test
	t.Cleanup(func() { server.Close() })
	way.address = "http://" + l.Addr().String()
	return way
}

func (w *slowWay) said() (writes int, refused []string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.writes, append([]string(nil), w.refused...)
}

// tap clicks an element wherever it has moved to in the meantime.
func (v visitor) tap(selector, words string) {
	v.t.Helper()
	v.element(selector, words).MustEval(`() => this.click()`)
}

// rename writes another name over that of the wheel.
func (v visitor) rename(name string) {
	v.t.Helper()
	v.waitFor("the name of the wheel", func() bool { return v.MustHas(`input[aria-label="name of the wheel"]`) })
	v.MustElement(`input[aria-label="name of the wheel"]`).MustSelectAllText().MustInput(name).MustType(input.Enter)
}

// Whoever works quickly on a slow connection has many writes under way, and reads
// beside them; nothing of that is a change made elsewhere.
func TestQuickEditsOnASlowConnectionNeverConflict(t *testing.T) {
	t.Parallel()
	way := slowly(t, startApp(t, demoDatabase(t)).address, 1500*time.Millisecond)
	p := open(t, way.address)
	p.asDemo()
	p.goTo("Box")
	p.strip("ultramarine blue")
	edits := 0
	edit := func(act func()) {
		act()
		edits++
		p.waitFor("no menu in the way", func() bool { return !p.MustHas(`[role=menu]`) })
	}
	price := func(v string) func() {
		return func() { p.field("price").MustSelectAllText().MustInput(v).MustBlur() }
	}
	const rounds = 5
	media := []string{"oil", "gouache", "tempera", "watercolour", "acrylic"}
	for i := range rounds {
		p.goTo("Wheel")
		p.see("of nine mixtures")
		for n, m := range []string{"oil", "gouache", "acrylic", media[i]} {
			edit(func() { p.tap("button", "medium: "); p.tap("[role=menuitem]", m) })
			if n%2 == 0 {
				edit(func() { p.rename(fmt.Sprintf("Round %d.%d", i, n)) })
			}
		}
		// The last is taken back, whatever is still on its way, and said again.
		edit(func() { p.rename("Taken back") })
		edit(func() { p.tap("button", "undo") })
		p.goTo("System")
		note := p.element(`textarea[aria-label="note to the system"]`, "")
		edit(func() { p.rename(fmt.Sprintf("Round %d", i)) })
		edit(func() {
			note.MustSelectAllText().MustInput(fmt.Sprintf("note %d", i)).MustBlur()
		})

		p.goTo("Pairings")
		p.element("[data-pair]", "").MustClick()
		for _, mark := range []string{"to paint", "painted", "judged"} {
			edit(func() { p.mark(mark) })
		}
		p.goTo("Box")
		p.strip("ultramarine blue")
		for n := range 3 {
			edit(price(fmt.Sprintf("%d.%d", i+1, n)))
			edit(func() { p.choose("grade", []string{"student", "artist"}[n%2]) })
		}
		edit(p.undo) // the grade
		p.goTo("Compare")
		edit(func() {
			p.field("decision").MustInput(fmt.Sprintf("decision %d", i))
			p.press("keep it")
			p.see(fmt.Sprintf("decision %d", i))
		})
	}
	require.GreaterOrEqual(t, edits, 90)
	p.goTo("Wheel")
	p.see("of nine mixtures")
	p.saved()
	p.waitFor("the last name", func() bool { return p.nameOfWheel() == fmt.Sprintf("Round %d", rounds-1) })
	p.goTo("Box")
	p.see("Fourteen paints")
	p.saved()
	// What is kept, as a newcomer to the page sees it.
	p.MustReload().MustWaitLoad()
	p.strip("ultramarine blue")
	p.waitFor("the price", func() bool { return p.field("price").MustProperty("value").String() == fmt.Sprintf("%d.2", rounds) })
	p.waitFor("the grade before the last", func() bool {
		return p.setTo("grade") == "artist"
	})
	p.goTo("System")
	p.waitFor("the note", func() bool {
		return p.element(`textarea[aria-label="note to the system"]`, "").MustProperty("value").String() == fmt.Sprintf("note %d", rounds-1)
	})
	assert.Equal(t, fmt.Sprintf("Round %d", rounds-1), p.nameOfWheel())
	assert.NotContains(t, p.text(), "changed in two places")
	p.goTo("Pairings")
	p.element("[data-pair]", "").MustClick()
	p.waitFor("the mark", func() bool {
		return p.setTo("mark of ") == "judged"
	})
	writes, refused := way.said()
	assert.Empty(t, refused, "of %d writes", writes)
	t.Logf("%d edits, %d writes", edits, writes)
}
