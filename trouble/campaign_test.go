//go:build trouble

// Package trouble has a year of trouble in some minutes: what it finds stands in docs/reliability.md. Run it with make trouble.
package trouble

import (
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// writers is by how many devices of a painter at once it is written.
const writers = 4

// process is an application on the database, killed and started again.
type process struct {
	t       *testing.T
	url     string
	listen  string // the same each time that it is started
	mu      sync.Mutex
	cmd     *exec.Cmd
	address string
}

func (p *process) start() {
	p.t.Helper()
	at := filepath.Join(p.t.TempDir(), "address")
	if p.listen == "" {
		p.listen = free(p.t)
	}
	cmd := exec.Command("../bin/gyrophane", "serve", "--listen", p.listen, "--address-file", at, "--log-file", at+"-log")
	cmd.Env = append(os.Environ(), "DATABASE_URL="+p.url)
	require.NoError(p.t, cmd.Start(), "the application is built by make trouble")
	var address string
	require.Eventually(p.t, func() bool {
		text, err := os.ReadFile(at)
		address = strings.TrimSpace(string(text))
		return err == nil && address != ""
	}, 30*time.Second, 10*time.Millisecond)
	p.mu.Lock()
	defer p.mu.Unlock()
	p.cmd, p.address = cmd, address
}

func (p *process) at() string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.address
}

// free is an address of this machine that nobody listens at.
func free(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	return l.Addr().String()
}

// kill ends it at once, whatever it is doing.
func (p *process) kill() {
	p.mu.Lock()
	cmd := p.cmd
	p.address = ""
	p.mu.Unlock()
	_ = cmd.Process.Kill()
	_ = cmd.Wait()
}

// campaign are two applications on one database, and a painter who writes through either.
type campaign struct {
	t         *testing.T
	processes [2]*process
	way       func(n int) string // the address that is asked next
	store     *store.Store
	cookie    string
	painter   int64
	wheel     int64
	sitting   int64
	place     string // of the sitting, that is read
	mu        sync.Mutex
	kept      map[string]map[string]bool // what was written, by kind and name, and whether it was acknowledged
	refused   map[string]map[int]int     // answers that are no success, to what was read and to what was written, by status
	broken    map[string]int             // and connections that broke
	slowest   map[string]time.Duration   // until something was answered by whichever process
}

func begin(t *testing.T) *campaign {
	t.Helper()
	url := storetest.Database(t)
	c := &campaign{t: t, kept: map[string]map[string]bool{}, refused: map[string]map[int]int{}, broken: map[string]int{}, slowest: map[string]time.Duration{}}
	c.way = func(n int) string { return c.processes[n%2].at() }
	for i := range c.processes {
		c.processes[i] = &process{t: t, url: url}
		c.processes[i].start()
		t.Cleanup(c.processes[i].kill)
	}
	var err error
	c.store, err = store.Open(url)
	require.NoError(t, err)
	t.Cleanup(func() { _ = c.store.Close() })
	var session struct{ Painter struct{ ID int64 } }
	require.True(t, c.ask(0, "POST", "/api/painters", `{"name":"Ada"}`, &session))
	c.painter = session.Painter.ID
	var w struct{ ID int64 }
	require.True(t, c.ask(0, "POST", "/api/wheels", wheelNamed("Low water"), &w))
	c.wheel = w.ID
	var begun struct {
		ID   int64
		Plan struct{ Regions []struct{ ID string } }
	}
	require.True(t, c.ask(1, "POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &begun))
	c.sitting, c.place = begun.ID, begun.Plan.Regions[0].ID
	return c
}

func wheelNamed(name string) string {
	return fmt.Sprintf(`{"name":%q,"system":{"kind":"triad","roles":[["PY65"],["PR254"],["PB29"]],"chosen":[[],[],[]],"riders":{},"note":""},"settings":{"medium":"gouache","light":"D65","judged":"dry","choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":0,"shades":0,"wash":false,"neutral":false,"triple":false}}}}`, name)
}

// ask asks the way of n; false where that has no answer, or none that is a success.
func (c *campaign) ask(n int, method, path, body string, out any) bool {
	at := c.way(n)
	if at == "" {
		return false
	}
	r, err := http.NewRequest(method, at+path, strings.NewReader(body))
	if err != nil {
		return false
	}
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Origin", at)
	if c.cookie != "" {
		r.Header.Set("Cookie", c.cookie)
	}
	what := "written"
	if method == "GET" {
		what = "read"
	}
	broke := func() bool {
		c.mu.Lock()
		defer c.mu.Unlock()
		c.broken[what]++
		return false
	}
	client := http.Client{Timeout: 15 * time.Second, Transport: &http.Transport{DisableKeepAlives: true}}
	answer, err := client.Do(r)
	if err != nil {
		return broke()
	}
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	if err != nil {
		return broke()
	}
	if answer.StatusCode >= 300 {
		c.mu.Lock()
		defer c.mu.Unlock()
		if c.refused[what] == nil {
			c.refused[what] = map[int]int{}
		}
		c.refused[what][answer.StatusCode]++
		return false
	}
	if set := answer.Header.Get("Set-Cookie"); set != "" && c.cookie == "" {
		c.cookie, _, _ = strings.Cut(set, ";")
	}
	return out == nil || json.Unmarshal(text, out) == nil
}

// said notes that something was written, and how long until it was acknowledged.
func (c *campaign) said(kind, name string, acknowledged bool, begun time.Time) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.kept[kind] == nil {
		c.kept[kind] = map[string]bool{}
	}
	c.kept[kind][name] = acknowledged
	if acknowledged {
		c.slowest[kind] = max(c.slowest[kind], time.Since(begun))
	}
}

// A painter has so many comparisons and wheels at most.
const mostNew = 40

// write writes until it is told to stop, and reads what it wrote. Taps, readings and comparisons have a name by which the page knows
// them, and are said again until they are acknowledged; wheels and tubes are said once.
func (c *campaign) write(n int, stop <-chan struct{}) {
	r := rand.New(rand.NewPCG(34, uint64(n)))
	again := func(kind, name, path, body string) bool {
		begun := time.Now()
		for way := r.IntN(2); !c.ask(way, "POST", path, body, nil); way++ {
			select {
			case <-stop:
				c.said(kind, name, false, begun)
				return false
			case <-time.After(20 * time.Millisecond):
			}
		}
		c.said(kind, name, true, begun)
		return true
	}
	for k := 0; ; k++ {
		select {
		case <-stop:
			return
		case <-time.After(20 * time.Millisecond):
		}
		name := fmt.Sprintf("%d %d", n, k)
		if !again("tap", name, fmt.Sprintf("/api/sittings/%d/events", c.sitting),
			fmt.Sprintf(`{"events":[{"id":%q,"kind":"paused","at":%d,"offsetMs":0,"device":"tablet %d","number":%d,"revision":1}]}`, name, time.Now().UnixMilli(), n, k+1)) {
			return
		}
		if k%4 == 0 && !again("reading", name, fmt.Sprintf("/api/sittings/%d/readings", c.sitting),
			fmt.Sprintf(`{"readings":[{"id":%q,"slot":%q,"lab":[50,10,%v],"source":"instrument"}]}`, name, c.place, r.IntN(50))) {
			return
		}
		begun := time.Now()
		if k%5 == 0 {
			for way := r.IntN(2); !c.ask(way, "GET", fmt.Sprintf("/api/wheels/%d", c.wheel), "", nil); way++ {
				select {
				case <-stop:
					return
				case <-time.After(20 * time.Millisecond):
				}
			}
			c.said("look", name, true, begun)
		}
		if k%12 != 0 || k/12 >= mostNew {
			continue
		}
		if !again("comparison", name, "/api/comparisons", fmt.Sprintf(`{"told":%q,"address":"systems=%d","note":%q,"decision":""}`, name, c.wheel, name)) {
			return
		}
		begun = time.Now()
		c.said("wheel", name, c.ask(r.IntN(2), "POST", "/api/wheels", wheelNamed(name), nil), begun)
		begun = time.Now()
		c.said("tube", name, c.ask(r.IntN(2), "POST", "/api/box/paints?medium=gouache", `{"paints":["PB29"],"grade":"artist"}`, nil), begun)
	}
}

// there counts what the database holds of each kind, by name.
func (c *campaign) there() map[string]map[string]int {
	ctx, out := c.t.Context(), map[string]map[string]int{"tap": {}, "reading": {}, "comparison": {}, "wheel": {}, "tube": {}}
	_, events, err := c.store.Sitting(ctx, c.painter, c.sitting)
	require.NoError(c.t, err)
	for _, e := range events {
		out["tap"][e.EventID]++
	}
	readings, err := c.store.Readings(ctx, c.painter, c.sitting)
	require.NoError(c.t, err)
	for _, r := range readings {
		out["reading"][r.Told]++
	}
	comparisons, err := c.store.Comparisons(ctx, c.painter)
	require.NoError(c.t, err)
	for _, one := range comparisons {
		out["comparison"][one.Note]++
	}
	wheels, err := c.store.Wheels(ctx, c.painter)
	require.NoError(c.t, err)
	for _, w := range wheels {
		out["wheel"][w.Name]++
	}
	tubes, err := c.store.Tubes(ctx, c.painter)
	require.NoError(c.t, err)
	out["tube"]["all"] = len(tubes) // they have no name
	return out
}

// while has it written while trouble is made, and holds what was acknowledged against what is there.
func (c *campaign) while(what string, trouble func()) {
	c.t.Helper()
	stop := make(chan struct{})
	var all sync.WaitGroup
	for n := range writers {
		all.Go(func() { c.write(n, stop) })
	}
	trouble()
	close(stop)
	all.Wait()

	there := c.there()
	lost, doubled, acknowledged := 0, 0, map[string]int{}
	for kind, names := range c.kept {
		for name, yes := range names {
			if yes {
				acknowledged[kind]++
			}
			if kind == "tube" || kind == "look" {
				continue
			}
			if yes && there[kind][name] == 0 {
				lost++
			}
			if there[kind][name] > 1 {
				doubled++
			}
		}
	}
	tubes := there["tube"]["all"]
	lost += max(0, acknowledged["tube"]-tubes)
	doubled += max(0, tubes-len(c.kept["tube"]))
	var slowest []string
	for _, kind := range slices.Sorted(maps.Keys(c.slowest)) {
		slowest = append(slowest, fmt.Sprintf("%s %v", kind, c.slowest[kind].Round(time.Millisecond)))
	}
	fmt.Printf("%s: acknowledged %v; %d lost, %d doubled; slowest %s; connections that broke %v, other answers %v\n",
		what, acknowledged, lost, doubled, strings.Join(slowest, ", "), c.broken, c.refused)
	assert.Zero(c.t, lost, "of what was acknowledged")
	assert.Zero(c.t, doubled)
	for kind := range there {
		assert.Positive(c.t, acknowledged[kind], kind)
	}
	assert.Zero(c.t, c.refused["read"][http.StatusInternalServerError]+c.refused["written"][http.StatusInternalServerError])
}
