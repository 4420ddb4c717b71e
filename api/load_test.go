package api_test

import (
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
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
	app, _ := serverWith(t, api.Options{Local: true})
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	go app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) //nolint:errcheck // ends with the test
	t.Cleanup(func() { assert.NoError(t, app.Shutdown()) })
	origin := "http://" + l.Addr().String()
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
