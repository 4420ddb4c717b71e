package api

import (
	"context"
	"io"
	"log/slog"
	"net"
	"net/http/httptest"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

func TestOneAskerHasAFewTurnsAndAnotherHasOthers(t *testing.T) {
	var all turns
	var mine []func()
	for range mostAtOnce {
		release, err := all.take(t.Context(), "ada")
		require.NoError(t, err)
		mine = append(mine, release)
	}
	over, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := all.take(over, "ada")
	assert.ErrorIs(t, err, errTooMany, "the next one waits, and this one may not")
	release, err := all.take(t.Context(), "eve")
	require.NoError(t, err, "another asker does not")
	release()
	waited := make(chan func())
	go func() {
		release, err := all.take(t.Context(), "ada")
		assert.NoError(t, err)
		waited <- release
	}()
	mine[0]()
	(<-waited)()
	for _, release := range mine[1:] {
		release()
	}
	assert.Empty(t, all.of, "nobody who is not here is remembered")
}

func TestWhoeverAsksTooOftenWaitsWhereOthersCanReachTheServer(t *testing.T) {
	none, err := store.Open("postgres://nobody@127.0.0.1:1/nothing")
	require.NoError(t, err)
	defer none.Close()
	ask := func(at Listener) (last int) {
		s := New(none, Options{Listener: at, Log: slog.New(slog.DiscardHandler)})
		s.limits.ofAddress = newPace(time.Hour, 2)
		for range 3 {
			r := httptest.NewRequest("GET", "/api/label?text=PB29", nil)
			r.Host = "127.0.0.1"
			resp, err := s.app.Test(r, fiber.TestConfig{Timeout: 0})
			require.NoError(t, err)
			resp.Body.Close()
			last = resp.StatusCode
		}
		return last
	}
	assert.Equal(t, 429, ask(Public))
	assert.Equal(t, 200, ask(Loopback), "on one's own machine nobody is counted")

	slow := newPace(time.Hour, 2)
	assert.True(t, slow.allows("ada"))
	assert.False(t, slow.spent("ada"))
	assert.True(t, slow.allows("ada"))
	assert.True(t, slow.spent("ada"))
	assert.False(t, slow.allows("ada"))
	assert.True(t, slow.allows("eve"), "another has a count of her own")
}

func TestGuessesAndNewPaintersAreFewInAWhile(t *testing.T) {
	s, err := store.Open(storetest.Database(t))
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Migrate(t.Context()))
	for _, c := range []struct {
		name, path, body string
		at               Listener
		first            int
		refusal          string
	}{
		{"guesses at a passphrase", "/api/session", `{"name":"nobody","passphrase":"a guess at it"}`, Loopback, 403, "wait"},
		{"new painters", "/api/painters", `{"name":"Painter %d","passphrase":"wet on wet 1"}`, Public, 200, "no more are taken for a while"},
	} {
		t.Run(c.name, func(t *testing.T) {
			var servers [2]*Server // two processes on one database
			for n := range servers {
				servers[n] = New(s, Options{Listener: c.at, Log: slog.New(slog.DiscardHandler)})
				servers[n].limits.wrong, servers[n].limits.registers = newAttempts(s, "wrong at "+c.name, time.Hour, 2), newAttempts(s, "registers at "+c.name, time.Hour, 2)
			}
			for i := range 3 {
				server := servers[i%2]
				r := httptest.NewRequest("POST", c.path, strings.NewReader(strings.ReplaceAll(c.body, "%d", strconv.Itoa(i))))
				r.Host = "127.0.0.1"
				r.Header.Set("Content-Type", "application/json")
				r.Header.Set("Origin", server.scheme()+"://127.0.0.1")
				r.Header.Set("Sec-Fetch-Site", "same-origin")
				resp, err := server.app.Test(r, fiber.TestConfig{Timeout: 0})
				require.NoError(t, err)
				text, err := io.ReadAll(resp.Body)
				require.NoError(t, err)
				require.NoError(t, resp.Body.Close())
				if i < 2 {
					assert.Equal(t, c.first, resp.StatusCode, "%s", text)
					continue
				}
				assert.Equal(t, 429, resp.StatusCode)
				assert.Contains(t, string(text), c.refusal)
			}
		})
	}
}

// connected are the two ends of a connection: the asker's, and the server's.
func connected(t *testing.T) (asker, conn net.Conn) {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	asker, err = net.Dial("tcp", l.Addr().String())
	require.NoError(t, err)
	conn, err = l.Accept()
	require.NoError(t, err)
	t.Cleanup(func() { _ = conn.Close() })
	return asker, conn
}

func TestASearchEndsWhenTheAskerLeaves(t *testing.T) {
	asker, conn := connected(t)
	request, late := context.WithCancel(context.WithValue(t.Context(), connKey{}, conn))
	ctx, done := watched(request)
	defer done()
	late() // the time of ordinary requests does not end a search
	_, err := asker.Write([]byte("GET / HTTP/1.1\r\n"))
	require.NoError(t, err)
	first := make([]byte, 3)
	_, err = conn.Read(first)
	require.NoError(t, err)
	assert.Equal(t, "GET", string(first), "what has arrived is still there to be read")
	_, err = conn.Read(make([]byte, 100))
	require.NoError(t, err)
	select {
	case <-ctx.Done():
		require.Fail(t, "it ended while the asker waited")
	default:
	}
	require.NoError(t, asker.Close())
	<-ctx.Done()
	require.ErrorIs(t, context.Cause(ctx), context.Canceled)
}
