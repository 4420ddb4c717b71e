//go:build trouble

// Package trouble has a year of trouble in some minutes: what it finds stands in docs/reliability.md. Run it with make trouble.
package trouble

import (
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// How many times something is killed, how often, and by how many at once it is written meanwhile.
const (
	killings = 50
	writers  = 4
)

// process is an application on the database, killed and started again.
type process struct {
	t       *testing.T
	url     string
	mu      sync.Mutex
	cmd     *exec.Cmd
	address string
}

func (p *process) start() {
	p.t.Helper()
	at := filepath.Join(p.t.TempDir(), "address")
	cmd := exec.Command("../bin/gyrophane", "serve", "--listen", "127.0.0.1:0", "--address-file", at, "--log-file", at+"-log")
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
	store     *store.Store
	cookie    string
	painter   int64
	wheel     int64
	sitting   int64
	mu        sync.Mutex
	kept      []string // sitting events that were acknowledged
	wheels    map[string]bool
	refused   map[int]int // answers that are no success, by status
	broken    atomic.Int64
	slowest   atomic.Int64 // ns, until a write was acknowledged by whichever process
}

func begin(t *testing.T) *campaign {
	t.Helper()
	url := storetest.Database(t)
	c := &campaign{t: t, wheels: map[string]bool{}, refused: map[int]int{}}
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
	var w, s struct{ ID int64 }
	require.True(t, c.ask(0, "POST", "/api/wheels", wheelNamed("Low water"), &w))
	c.wheel = w.ID
	require.True(t, c.ask(1, "POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s))
	c.sitting = s.ID
	return c
}

func wheelNamed(name string) string {
	return fmt.Sprintf(`{"name":%q,"system":{"kind":"triad","roles":[["PY65"],["PR254"],["PB29"]],"chosen":[[],[],[]],"riders":{},"note":""},"settings":{"medium":"gouache","light":"D65","judged":"dry","choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":0,"shades":0,"wash":false,"neutral":false,"triple":false}}}}`, name)
}

// ask asks one of the processes; false where that has no answer, or none that is a success.
func (c *campaign) ask(of int, method, path, body string, out any) bool {
	at := c.processes[of].at()
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
	client := http.Client{Timeout: 15 * time.Second, Transport: &http.Transport{DisableKeepAlives: true}}
	answer, err := client.Do(r)
	if err != nil {
		c.broken.Add(1)
		return false
	}
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	if err != nil {
		c.broken.Add(1)
		return false
	}
	if answer.StatusCode >= 300 {
		c.mu.Lock()
		c.refused[answer.StatusCode]++
		c.mu.Unlock()
		return false
	}
	if set := answer.Header.Get("Set-Cookie"); set != "" && c.cookie == "" {
		c.cookie, _, _ = strings.Cut(set, ";")
	}
	return out == nil || json.Unmarshal(text, out) == nil
}

// write writes until it is told to stop: taps of a sitting, said again until they are acknowledged, and wheels, said once.
func (c *campaign) write(n int, stop <-chan struct{}) {
	r := rand.New(rand.NewPCG(34, uint64(n)))
	for k := 0; ; k++ {
		select {
		case <-stop:
			return
		case <-time.After(20 * time.Millisecond):
		}
		id := fmt.Sprintf("tap %d %d", n, k)
		body := fmt.Sprintf(`{"events":[{"id":%q,"kind":"paused","at":%d,"offsetMs":0,"device":"tablet %d","number":%d,"revision":1}]}`, id, time.Now().UnixMilli(), n, k+1)
		begun := time.Now()
		for of := r.IntN(2); ; of = 1 - of {
			if c.ask(of, "POST", fmt.Sprintf("/api/sittings/%d/events", c.sitting), body, nil) {
				break
			}
			select {
			case <-stop:
				return
			case <-time.After(20 * time.Millisecond):
			}
		}
		took := int64(time.Since(begun))
		for before := c.slowest.Load(); took > before && !c.slowest.CompareAndSwap(before, took); before = c.slowest.Load() {
		}
		c.mu.Lock()
		c.kept = append(c.kept, id)
		c.mu.Unlock()
		if k%12 == 0 && k/12 < 60 {
			name := fmt.Sprintf("pool %d %d", n, k)
			acknowledged := c.ask(r.IntN(2), "POST", "/api/wheels", wheelNamed(name), nil)
			c.mu.Lock()
			c.wheels[name] = acknowledged
			c.mu.Unlock()
		}
	}
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

	_, events, err := c.store.Sitting(c.t.Context(), c.painter, c.sitting)
	require.NoError(c.t, err)
	there := map[string]int{}
	for _, e := range events {
		there[e.EventID]++
	}
	lost, doubled := 0, 0
	for _, id := range c.kept {
		if there[id] == 0 {
			lost++
		}
	}
	for _, n := range there {
		if n > 1 {
			doubled++
		}
	}
	kept, err := c.store.Wheels(c.t.Context(), c.painter)
	require.NoError(c.t, err)
	named := map[string]int{}
	for _, w := range kept {
		named[w.Name]++
	}
	for name, acknowledged := range c.wheels {
		if acknowledged && named[name] == 0 {
			lost++
		}
		if named[name] > 1 {
			doubled++
		}
	}
	fmt.Printf("%s: %d taps and %d wheels acknowledged, %d lost, %d doubled; the slowest acknowledged after %v; %d connections broke, other answers %v\n",
		what, len(c.kept), len(c.wheels), lost, doubled, time.Duration(c.slowest.Load()).Round(time.Millisecond), c.broken.Load(), c.refused)
	assert.Zero(c.t, lost, "of what was acknowledged")
	assert.Zero(c.t, doubled)
	assert.Greater(c.t, len(c.kept), killings)
}

func TestKilledApplicationsLoseNothing(t *testing.T) {
	c := begin(t)
	r := rand.New(rand.NewPCG(34, 100))
	c.while(fmt.Sprintf("an application killed %d times beside another", killings), func() {
		for n := range killings {
			time.Sleep(time.Duration(300+r.IntN(700)) * time.Millisecond)
			c.processes[n%2].kill()
			c.processes[n%2].start()
		}
	})
	assert.Empty(t, c.refused, "a painter sees a wait, and no error")
}

func TestAKilledDatabaseLosesNothing(t *testing.T) {
	state := os.Getenv("GYROPHANE_STATE")
	require.NotEmpty(t, state, "run it with make trouble")
	c := begin(t)
	const times = killings / 5
	c.while(fmt.Sprintf("the database killed %d times", times), func() {
		for range times {
			time.Sleep(1500 * time.Millisecond)
			text, err := os.ReadFile(filepath.Join(state, "postgres", "postmaster.pid"))
			require.NoError(t, err)
			pid, err := strconv.Atoi(strings.TrimSpace(strings.Split(string(text), "\n")[0]))
			require.NoError(t, err)
			require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))
			require.Eventually(t, func() bool {
				started, err := exec.Command("../scripts/postgres.sh", "start").CombinedOutput()
				if err != nil {
					t.Logf("%s", started)
				}
				return err == nil
			}, time.Minute, 200*time.Millisecond)
		}
	})
	var statuses []int
	for status := range c.refused {
		statuses = append(statuses, status)
	}
	slices.Sort(statuses)
	assert.NotContains(t, statuses, http.StatusInternalServerError)
}
