//go:build trouble

package trouble

import (
	"bufio"
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"io"
	mathrand "math/rand/v2"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// pupils are so many phones in one round, on loopback.
const pupils = 300

// class is a round with its phones, each on one of two applications.
type class struct {
	*studio
	client http.Client
	words  []string
	mu     sync.Mutex
	told   []time.Time // when each phone last saw what the teacher did
	seen   []int       // and which version of the round it was
}

func (c *class) asks(n int, method, path, body string) (status int, text string) {
	at := c.processes[n%2].at()
	r, err := http.NewRequest(method, at+path, strings.NewReader(body))
	require.NoError(c.t, err)
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Origin", at)
	r.Header.Set("Pupil", c.words[n])
	answer, err := c.client.Do(r)
	if err != nil {
		return 0, err.Error()
	}
	defer answer.Body.Close()
	all, err := io.ReadAll(answer.Body)
	require.NoError(c.t, err)
	return answer.StatusCode, string(all)
}

// listens is a phone: it hears the teacher, and looks then.
func (c *class) listens(ctx context.Context, n int) {
	for ctx.Err() == nil {
		r, err := http.NewRequestWithContext(ctx, "GET", c.processes[n%2].at()+"/api/together/changes", nil)
		require.NoError(c.t, err)
		r.Header.Set("Pupil", c.words[n])
		answer, err := c.client.Do(r)
		if err != nil {
			continue
		}
		lines := bufio.NewScanner(answer.Body)
		for lines.Scan() {
			if !strings.HasPrefix(lines.Text(), "data:") {
				continue
			}
			if status, text := c.asks(n, "GET", "/api/together", ""); status == 200 {
				var seat struct{ Version int }
				require.NoError(c.t, json.Unmarshal([]byte(text), &seat))
				c.mu.Lock()
				if seat.Version > c.seen[n] {
					c.told[n], c.seen[n] = time.Now(), seat.Version
				}
				c.mu.Unlock()
			}
		}
		answer.Body.Close()
	}
}

// A class of 300 guesses within some seconds, and at once, while the teacher's wall counts along.
func TestAClassOfThreeHundred(t *testing.T) {
	s := newStudio(t)
	ada := s.comes("Ada")
	ctx, stop := context.WithCancel(t.Context())
	c := &class{studio: s, told: make([]time.Time, pupils), seen: make([]int, pupils)}
	c.client.Transport = &http.Transport{MaxIdleConnsPerHost: 2 * pupils}
	var listening sync.WaitGroup
	defer listening.Wait()
	defer stop()
	type round struct {
		ID, Version, Guessed, Joined int64
		Code                         string
		Pairings                     []struct{ Tally *struct{ NoMud int } }
	}
	var r round
	require.Equal(t, 200, ada.ask(ctx, "make a round", "POST", "/api/class/rounds", fmt.Sprintf(`{"wheel":%d}`, ada.wheel), &r))
	moves := func(move string, place int) {
		version, id := r.Version, r.ID
		r = round{}
		require.Equal(t, 200, ada.ask(ctx, move, "POST", fmt.Sprintf("/api/class/rounds/%d/moves", id), fmt.Sprintf(`{"version":%d,"move":%q,"place":%d}`, version, move, place), &r))
	}
	moves("open", 0)
	for n := range pupils {
		c.words = append(c.words, rand.Text())
		status, text := c.asks(n, "POST", "/api/together", fmt.Sprintf(`{"at":%q}`, r.Code))
		require.Equal(t, 200, status, text)
	}
	for n := range pupils {
		listening.Go(func() { c.listens(ctx, n) })
	}
	// The wall counts along.
	wall := make(chan time.Time, 1) // when it first showed that all have guessed
	listening.Go(func() {
		for ctx.Err() == nil {
			asked, err := http.NewRequestWithContext(ctx, "GET", c.processes[1].at()+fmt.Sprintf("/api/class/rounds/%d/changes", r.ID), nil)
			require.NoError(t, err)
			asked.Header.Set("Cookie", ada.cookie)
			answer, err := c.client.Do(asked)
			if err != nil {
				continue
			}
			lines := bufio.NewScanner(answer.Body)
			for lines.Scan() {
				if strings.Contains(lines.Text(), fmt.Sprintf(`"guessed":%d`, pupils)) {
					select {
					case wall <- time.Now():
					default:
					}
				}
			}
			answer.Body.Close()
		}
	})
	require.Eventually(t, func() bool {
		c.mu.Lock()
		defer c.mu.Unlock()
		for _, v := range c.seen {
			if v == 0 {
				return false
			}
		}
		return true
	}, 30*time.Second, 50*time.Millisecond, "every phone hears the teacher")
	for place, within := range []time.Duration{10 * time.Second, time.Second} {
		if place > 0 {
			moves("go to", place)
		}
		select {
		case <-wall:
		default:
		}
		var mu sync.Mutex
		var took []time.Duration
		var last time.Time
		var all sync.WaitGroup
		for n := range pupils {
			all.Go(func() {
				time.Sleep(mathrand.N(within))
				begun := time.Now()
				status, text := c.asks(n, "PUT", "/api/together/guess", fmt.Sprintf(`{"place":%d,"hueWord":%q,"verdict":"clean","mud":{"nowhere":true,"at":0}}`, place, colour.HueWords()[n%12]))
				mu.Lock()
				defer mu.Unlock()
				assert.Equal(t, 204, status, text)
				took = append(took, time.Since(begun))
				last = time.Now()
			})
		}
		all.Wait()
		shown := (<-wall).Sub(last)
		before := r.Version + 1
		lifted := time.Now()
		moves("lift", 0)
		require.NotNil(t, r.Pairings[place].Tally)
		assert.Equal(t, pupils, r.Pairings[place].Tally.NoMud, "everybody is counted once")
		var known []time.Duration
		require.Eventually(t, func() bool {
			c.mu.Lock()
			defer c.mu.Unlock()
			known = nil
			for n := range pupils {
				if int64(c.seen[n]) >= before {
					known = append(known, c.told[n].Sub(lifted))
				}
			}
			return len(known) == pupils
		}, 30*time.Second, 20*time.Millisecond, "every phone sees what is so")
		ms := func(d time.Duration) int64 { return max(0, d.Milliseconds()) }
		slices.Sort(took)
		slices.Sort(known)
		fmt.Printf("%d phones of a class that guess within %v: a guess took %d ms (p95 %d), the wall showed the last %d ms after its answer, 95 of 100 phones showed what is so %d ms after the cover was lifted\n",
			pupils, within, ms(took[pupils/2]), ms(took[pupils*95/100]), ms(shown), ms(known[pupils*95/100]))
	}
}
