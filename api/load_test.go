package api_test

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

// A bounded load from this machine on this machine: 20 clients ask for wheels
// with rings, 50 times each; every client has paints of its own, so each wheel
// is built once and then answered from memory, as for a painter looking around. It measures and prints; it asserts only that every
// answer is a good one. Run it with make load.
func TestLoad(t *testing.T) {
	if os.Getenv("GYROPHANE_LOAD") == "" {
		t.Skip("GYROPHANE_LOAD is not set")
	}
	const clients, each = 20, 50
	app, _ := serverWith(t, api.Options{Listener: api.Loopback})
	origin := "http://" + listening(t, app)
	split := `{"system":{"kind":"split","roles":[["PY184","PY65"],["PR255","PR122"],["PB29","PB15:3"]],"chosen":[[],[],[]],"riders":{},"note":""},` +
		`"choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":2,"shades":2,"wash":true,"neutral":true,"triple":false}}}`
	blues := []string{"PB29", "PB60", "PB28", "PB15:1", "PB27", "PB35", "PB36", "PB16", "PG50", "blue-grey"}
	for name, body := range map[string]string{"triad": question, "split with rings": split} {
		took := make([]time.Duration, clients*each)
		begin := time.Now()
		var wg sync.WaitGroup
		for c := range clients {
			wg.Go(func() {
				for i := range each {
					own := strings.Replace(body, "PB29", blues[c%len(blues)], 1)
					if c >= len(blues) {
						own = strings.Replace(own, `"hue"`, `"contrast"`, 1)
					}
					r, err := http.NewRequest(http.MethodPost, origin+"/api/wheel", strings.NewReader(own))
					if !assert.NoError(t, err) {
						return
					}
					r.Header.Set("Content-Type", "application/json")
					r.Header.Set("Origin", origin)
					at := time.Now()
					resp, err := http.DefaultClient.Do(r)
					if !assert.NoError(t, err) {
						return
					}
					_, err = io.Copy(io.Discard, resp.Body)
					resp.Body.Close()
					took[c*each+i] = time.Since(at)
					assert.NoError(t, err)
					assert.Equal(t, 200, resp.StatusCode)
				}
			})
		}
		wg.Wait()
		slices.Sort(took)
		fmt.Printf("%s: %d requests by %d clients in %v; median %v, p95 %v, worst %v\n", name, len(took), clients,
			time.Since(begin).Round(time.Millisecond), took[len(took)/2].Round(time.Microsecond), took[len(took)*95/100].Round(time.Microsecond), took[len(took)-1].Round(time.Microsecond))
	}
}

// What one painter sees while another asks for forty searches at once, again and
// again, on a box of 400 tubes, and what becomes of them when he leaves. It measures and prints.
func TestLoadOfSearches(t *testing.T) {
	if os.Getenv("GYROPHANE_LOAD") == "" {
		t.Skip("GYROPHANE_LOAD is not set")
	}
	app, s := server(t, true)
	greedy, other := signedUp(t, app, "Greedy"), signedUp(t, app, "Other")
	who, err := s.PainterByName(t.Context(), "Greedy")
	require.NoError(t, err)
	fillBox(t, s, who.ID, 400, func(i int) float64 { return float64(i%200) / 20 })
	greedy.ok("POST", "/api/wanted", `[{"name":"a","colour":"#f0662b"},{"name":"b","colour":"#4f3d78"},{"name":"c","colour":"#569c2e"}]`, nil)
	origin := "http://" + listening(t, app)
	send := func(ctx context.Context, cookie, method, path, body string) error {
		r, err := http.NewRequestWithContext(ctx, method, origin+path, strings.NewReader(body))
		if err != nil {
			return err
		}
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("Origin", origin)
		r.Header.Set("Cookie", cookie)
		resp, err := http.DefaultClient.Do(r)
		if err != nil {
			return err
		}
		defer resp.Body.Close()
		_, err = io.Copy(io.Discard, resp.Body)
		return err
	}
	measure := func(what string) {
		var took []time.Duration
		for i := range 300 {
			at := time.Now()
			path, method, body := "/api/wheels", "GET", ""
			if i%3 == 0 {
				path, method, body = "/api/wheel", "POST", strings.Replace(question, "PB29", []string{"PB29", "PB60", "PB28", "PB35"}[i%4], 1)
			}
			assert.NoError(t, send(t.Context(), other.cookie, method, path, body))
			took = append(took, time.Since(at))
		}
		slices.Sort(took)
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		fmt.Printf("%s: median %v, p95 %v, worst %v requests of another painter; heap %d MB, from the system %d MB\n", what,
			took[150].Round(time.Microsecond), took[285].Round(time.Microsecond), took[299].Round(time.Microsecond), m.HeapInuse>>20, m.Sys>>20)
	}
	measure("alone")
	ctx, leave := context.WithCancel(t.Context())
	var wg sync.WaitGroup
	for i := range 40 {
		wg.Go(func() {
			// Whoever was ended by the next asks again a little later.
			for again := time.NewTicker(500 * time.Millisecond); ctx.Err() == nil; <-again.C {
				path := fmt.Sprintf("/api/choose?kind=%s&aim=%s", []string{"triad", "split", "double"}[i%3], []string{"coverage", "targets"}[i%2])
				_ = send(ctx, greedy.cookie, "POST", path, "") // ended by the next, or by leaving
			}
		})
	}
	measure("beside forty searches")
	leave()
	wg.Wait()
	measure("after they were left")
}

// Twenty painters at a sitting, mixed: they tap, plan a sheet of their own, print it, and begin
// another. It prints how long each took and what was not answered, and asserts that nothing
// was refused for the server's sake.
func TestLoadOfAClass(t *testing.T) {
	if os.Getenv("GYROPHANE_LOAD") == "" {
		t.Skip("GYROPHANE_LOAD is not set")
	}
	const painters, rounds, taps = 20, 3, 8
	app, _ := server(t, true)
	origin := "http://" + listening(t, app)
	var mu sync.Mutex
	took := map[string][]time.Duration{}
	failed := map[int]int{}
	var wg sync.WaitGroup
	blues := []string{"PB29", "PB60", "PB28", "PB15:1", "PB27", "PB35", "PB36", "PB16", "PG50", "PB15:3"}
	began := time.Now()
	for n := range painters {
		c := signedUp(t, app, fmt.Sprintf("Painter %d", n))
		ask := func(kind, method, path, body string, into any) {
			r, err := http.NewRequest(method, origin+path, strings.NewReader(body))
			if !assert.NoError(t, err) {
				return
			}
			r.Header.Set("Content-Type", "application/json")
			r.Header.Set("Origin", origin)
			r.Header.Set("Cookie", c.cookie)
			at := time.Now()
			resp, err := http.DefaultClient.Do(r)
			if !assert.NoError(t, err) {
				return
			}
			answer, err := io.ReadAll(resp.Body)
			resp.Body.Close()
			spent := time.Since(at)
			assert.NoError(t, err)
			mu.Lock()
			took[kind] = append(took[kind], spent)
			if resp.StatusCode >= 400 {
				failed[resp.StatusCode]++
			}
			mu.Unlock()
			if into != nil && resp.StatusCode < 300 {
				assert.NoError(t, json.Unmarshal(answer, into))
			}
		}
		wg.Go(func() {
			system := strings.Replace(strings.Replace(`{"kind":"split","roles":[["PY184","PY65"],["PR255","PR122"],["PB29","BLUE"]],"chosen":[[],[],[]],"riders":{},"note":""}`, "BLUE", blues[n%len(blues)], 1), `["PB29","PB29"]`, `["PB29","PB60"]`, 1)
			var w api.KeptWheel
			ask("keep", "POST", "/api/wheels", fmt.Sprintf(`{"name":"Class","system":%s,"settings":{"medium":"gouache","light":"D65","judged":"dry","choices":%s}}`, system, choices), &w)
			for round := range rounds {
				diameter := 120 + 10*round + n%7
				ask("plan", "POST", fmt.Sprintf("/api/plan?wheel=%d&medium=gouache", w.ID), fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{"diameter":%d}}`, system, choices, diameter), nil)
				ask("paper", "GET", fmt.Sprintf("/api/wheels/%d/paper?as=sheet,plan", w.ID), "", nil)
				var s wire.Sitting
				ask("begin", "POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
				for tap := range min(taps, len(s.Steps)) {
					ask("tap", "POST", fmt.Sprintf("/api/sittings/%d/events", s.ID), told(fmt.Sprint("tap", tap), "painted", fmt.Sprintf(`,"region":%q`, s.Plan.Regions[s.Steps[tap].Region].ID)), nil)
				}
			}
		})
	}
	wg.Wait()
	fmt.Printf("%d painters, %d cores, %v\n", painters, runtime.NumCPU(), time.Since(began).Round(time.Millisecond))
	for _, kind := range []string{"tap", "plan", "paper", "begin", "keep"} {
		of := took[kind]
		slices.Sort(of)
		fmt.Printf("%-6s %4d requests; median %v, p95 %v, worst %v\n", kind, len(of), of[len(of)/2].Round(time.Millisecond), of[len(of)*95/100].Round(time.Millisecond), of[len(of)-1].Round(time.Millisecond))
	}
	for status, times := range failed {
		fmt.Printf("requests answered with %d: %d\n", status, times)
		assert.Less(t, status, 500)
	}
	if len(failed) == 0 {
		fmt.Println("requests that failed: none")
	}
}
