//go:build trouble

package trouble

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store/storetest"
)

// studio are two applications on one database and the painters at work in it; each request goes to the next.
type studio struct {
	t         *testing.T
	processes [2]*process
	mu        sync.Mutex
	next      int
	took      map[string][]time.Duration
	failed    map[string]int // by what was asked and the status, that are the server's fault; 0 for no answer
}

func newStudio(t *testing.T) *studio {
	s := &studio{t: t, took: map[string][]time.Duration{}, failed: map[string]int{}}
	url := storetest.Database(t)
	for i := range s.processes {
		s.processes[i] = &process{t: t, url: url}
		s.processes[i].start()
		t.Cleanup(s.processes[i].kill)
	}
	return s
}

// person is a painter who asks.
type person struct {
	*studio
	cookie  string
	wheel   int64
	sitting int64
	tapped  int
}

func (p *person) ask(ctx context.Context, what, method, path, body string, out any) int {
	p.mu.Lock()
	p.next++
	at := p.processes[p.next%2].at()
	p.mu.Unlock()
	r, err := http.NewRequestWithContext(ctx, method, at+path, strings.NewReader(body))
	require.NoError(p.t, err)
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Origin", at)
	r.Header.Set("Cookie", p.cookie)
	begun := time.Now()
	answer, err := http.DefaultClient.Do(r)
	status := 0
	if err == nil {
		defer answer.Body.Close()
		var text []byte
		if text, err = io.ReadAll(answer.Body); err == nil {
			status = answer.StatusCode
		}
		if set := answer.Header.Get("Set-Cookie"); set != "" && p.cookie == "" {
			p.cookie, _, _ = strings.Cut(set, ";")
		}
		if out != nil && status < 300 {
			require.NoError(p.t, json.Unmarshal(text, out))
		}
	}
	if ctx.Err() != nil {
		return status
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	p.took[what] = append(p.took[what], time.Since(begun))
	if status == 0 || status >= 500 {
		p.failed[fmt.Sprintf("%s: %d", what, status)]++
	}
	return status
}

func (s *studio) comes(name string) *person {
	p := &person{studio: s}
	ctx := s.t.Context()
	require.Equal(s.t, 200, p.ask(ctx, "come in", "POST", "/api/painters", fmt.Sprintf(`{"name":%q}`, name), nil))
	require.Less(s.t, p.ask(ctx, "box", "POST", "/api/box/paints?medium=gouache", `{"paints":["PY184","PY65","PR254","PR122","PB29","PB15:3","PW6"],"grade":"artist"}`, nil), 300)
	require.Less(s.t, p.ask(ctx, "want", "POST", "/api/wanted", `[{"name":"kelp","colour":"#6e6228"},{"name":"starfish","colour":"#f0662b"}]`, nil), 300)
	var w, begun struct{ ID int64 }
	require.Equal(s.t, 200, p.ask(ctx, "keep a wheel", "POST", "/api/wheels", wheelNamed(name), &w))
	require.Equal(s.t, 200, p.ask(ctx, "begin a sitting", "POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &begun))
	p.wheel, p.sitting = w.ID, begun.ID
	return p
}

// paints does one thing that painters do.
func (p *person) paints(ctx context.Context, r *rand.Rand) {
	blues := []string{"PB29", "PB60", "PB28", "PB15:1", "PB27", "PB35", "PB36", "PB16", "PG50", "PB15:3"}
	draft := fmt.Sprintf(`{"system":{"kind":"triad","roles":[["PY65"],["PR254"],[%q]],"chosen":[[],[],[]],"riders":{},"note":""},"choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":%d,"shades":0,"wash":false,"neutral":false,"triple":false}}}`, blues[r.IntN(len(blues))], r.IntN(3))
	switch k := r.IntN(20); {
	case k < 8:
		p.tapped++
		p.ask(ctx, "tap", "POST", fmt.Sprintf("/api/sittings/%d/events", p.sitting),
			fmt.Sprintf(`{"events":[{"id":"tap %d","kind":"paused","at":%d,"offsetMs":0,"device":"tablet","number":%d,"revision":1}]}`, p.tapped, time.Now().UnixMilli(), p.tapped), nil)
	case k < 11:
		p.ask(ctx, "look at the sitting", "GET", fmt.Sprintf("/api/sittings/%d", p.sitting), "", nil)
	case k < 14:
		p.ask(ctx, "build a wheel", "POST", "/api/wheel?medium=gouache", draft, nil)
	case k < 16:
		p.ask(ctx, "look at the box", "GET", "/api/box?medium=gouache", "", nil)
	case k < 17:
		p.ask(ctx, "compare", "GET", fmt.Sprintf("/api/compare?wheels=%d", p.wheel), "", nil)
	case k < 18:
		p.ask(ctx, "wanted", "GET", fmt.Sprintf("/api/wanted?wheels=%d", p.wheel), "", nil)
	case k < 19:
		p.ask(ctx, "log", "GET", "/api/sittings", "", nil)
	default:
		p.ask(ctx, "search", "POST", "/api/choose?kind=triad&aim=targets&medium=gouache&from="+[]string{"box", "library"}[r.IntN(2)], "", nil)
	}
}

func (s *studio) says(what string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	for _, kind := range slices.Sorted(maps.Keys(s.took)) {
		took := s.took[kind]
		slices.Sort(took)
		fmt.Printf("%s: painters asked %d times to %s: median %v, p95 %v, worst %v\n", what, len(took), kind,
			took[len(took)/2].Round(time.Millisecond), took[len(took)*95/100].Round(time.Millisecond), took[len(took)-1].Round(time.Millisecond))
	}
	assert.Empty(s.t, s.failed, "no answer is the server's fault")
}

// memory is what a process holds, in MB.
func (p *process) memory() int {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", p.cmd.Process.Pid))
	require.NoError(p.t, err)
	n, err := strconv.Atoi(string(regexp.MustCompile(`VmRSS:\s+(\d+)`).FindSubmatch(text)[1]))
	require.NoError(p.t, err)
	return n >> 10
}

func TestTwentyPaintersForAWhile(t *testing.T) {
	minutes, err := strconv.ParseFloat(cmp.Or(os.Getenv("TROUBLE_MINUTES"), "10"), 64)
	require.NoError(t, err)
	s := newStudio(t)
	ctx, end := context.WithTimeout(t.Context(), time.Duration(minutes*float64(time.Minute)))
	defer end()
	var all sync.WaitGroup
	for n := range 20 {
		p := s.comes(fmt.Sprint("Painter ", n))
		r := rand.New(rand.NewPCG(20, uint64(n)))
		all.Go(func() {
			for ctx.Err() == nil {
				p.paints(ctx, r)
				time.Sleep(time.Duration(200+r.IntN(600)) * time.Millisecond)
			}
		})
	}
	var held [][2]int
	for range 10 {
		time.Sleep(time.Duration(minutes * float64(time.Minute) / 10.5))
		held = append(held, [2]int{s.processes[0].memory(), s.processes[1].memory()})
	}
	all.Wait()
	s.says(fmt.Sprintf("%v minutes", minutes))
	fmt.Printf("twenty painters: the two processes held, in MB, each tenth of the time: %v\n", held)
	for i := range s.processes {
		before := 0
		for _, h := range held[3:7] {
			before = max(before, h[i])
		}
		assert.LessOrEqual(t, held[9][i], before*13/10+20, "it grows no more")
	}
}

// Ten painters search at once; others tap and look meanwhile.
func TestSearchesLeaveOthersRoom(t *testing.T) {
	s := newStudio(t)
	ctx, end := context.WithCancel(t.Context())
	var all sync.WaitGroup
	for n := range 10 {
		p := s.comes(fmt.Sprint("Searcher ", n))
		all.Go(func() {
			for ctx.Err() == nil {
				p.ask(ctx, "search", "POST", "/api/choose?kind=split&aim=coverage&from=library&medium=gouache", "", nil)
			}
		})
	}
	other := s.comes("Other")
	time.Sleep(2 * time.Second)
	s.mu.Lock()
	clear(s.took)
	s.mu.Unlock()
	for n := range 300 {
		if n%2 == 0 {
			other.tapped++
			other.ask(t.Context(), "tap", "POST", fmt.Sprintf("/api/sittings/%d/events", other.sitting),
				fmt.Sprintf(`{"events":[{"id":"tap %d","kind":"paused","at":%d,"offsetMs":0,"device":"tablet","number":%d,"revision":1}]}`, other.tapped, time.Now().UnixMilli(), other.tapped), nil)
		} else {
			other.ask(t.Context(), "look at the wheels", "GET", "/api/wheels", "", nil)
		}
		time.Sleep(50 * time.Millisecond)
	}
	end()
	all.Wait()
	s.says("beside ten searches")
	for _, kind := range []string{"tap", "look at the wheels"} {
		took := s.took[kind]
		assert.Less(t, took[len(took)*95/100], 200*time.Millisecond, kind)
	}
}
