package api

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
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
	ask := func(local bool) (last int) {
		s := New(none, Options{Local: local, Log: slog.New(slog.DiscardHandler)})
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
	assert.Equal(t, 429, ask(false))
	assert.Equal(t, 200, ask(true), "on one's own machine nobody is counted")

	slow := newPace(time.Hour, 2)
	assert.True(t, slow.allows("ada"))
	assert.False(t, slow.spent("ada"))
	assert.True(t, slow.allows("ada"))
	assert.True(t, slow.spent("ada"))
	assert.False(t, slow.allows("ada"))
	assert.True(t, slow.allows("eve"), "another has a count of her own")
}

// searcher asks for searches of a server that has no database.
type searcher struct {
	t *testing.T
	s *Server
}

// begin lets a painter search, until the returned end is closed; how it ended is
// heard on the channel. Begun is closed when it is worked on.
func (q searcher) begin(ctx context.Context, id int64, about, ticket string) (begun chan struct{}, end chan struct{}, ended chan error) {
	begun, end, ended = make(chan struct{}), make(chan struct{}), make(chan error, 1)
	ctx = context.WithValue(ctx, painterKey{}, store.Painter{ID: id})
	entered := make(chan struct{})
	go func() {
		close(entered)
		ended <- q.s.search(ctx, about, ticket, func(ctx context.Context, _ *search) error {
			close(begun)
			select {
			case <-end:
				return nil
			case <-ctx.Done():
				return ctx.Err()
			}
		})
	}()
	<-entered
	return begun, end, ended
}

func (q searcher) waiting() int {
	q.s.searches.lock.Lock()
	defer q.s.searches.lock.Unlock()
	return len(q.s.searches.waiting)
}

func (q searcher) until(what string, holds func() bool) {
	q.t.Helper()
	require.Eventually(q.t, holds, 20*time.Second, time.Millisecond, what)
}

func TestTwoSearchesAreWorkedOnAndTheRestWaitInLine(t *testing.T) {
	q := searcher{t, &Server{}}
	begun1, end1, ended1 := q.begin(t.Context(), 1, "choose", "a")
	<-begun1
	begun2, end2, ended2 := q.begin(t.Context(), 2, "choose", "a")
	<-begun2
	begun3, end3, ended3 := q.begin(t.Context(), 3, "choose", "a")
	q.until("the third waits", func() bool { return q.waiting() == 1 })
	begun4, end4, ended4 := q.begin(t.Context(), 4, "choose", "a")
	q.until("the fourth waits", func() bool { return q.waiting() == 2 })
	assert.Equal(t, Searching{"queue", 1, 2}, q.s.searches.progress(3, "a"))
	assert.Equal(t, Searching{"queue", 2, 2}, q.s.searches.progress(4, "a"))
	assert.Zero(t, q.s.searches.progress(4, "b"), "another ticket is another search")
	assert.Zero(t, q.s.searches.progress(5, "a"))

	// A painter's second question waits for the first, and lets others go before.
	begunR, endR, endedR := q.begin(t.Context(), 1, "replace", "")
	q.until("the replacing waits", func() bool { return q.waiting() == 3 })
	close(end2)
	require.NoError(t, <-ended2)
	<-begun3
	assert.Equal(t, Searching{"queue", 1, 2}, q.s.searches.progress(4, "a"))
	close(end1)
	require.NoError(t, <-ended1)
	<-begun4
	close(end3)
	require.NoError(t, <-ended3)
	<-begunR
	close(endR)
	close(end4)
	require.NoError(t, errors.Join(<-endedR, <-ended4))
	assert.Empty(t, q.s.searches.of)
	assert.Empty(t, q.s.searches.running)
}

func TestANewSearchEndsThePaintersOneBefore(t *testing.T) {
	q := searcher{t, &Server{}}
	var before chan error
	var end chan struct{}
	for i := range 40 { // as one who asks again and again
		begun, e, ended := q.begin(t.Context(), 1, "choose", fmt.Sprint(i))
		if before != nil {
			require.ErrorIs(t, <-before, errAnother)
		}
		<-begun
		before, end = ended, e
	}
	begun, endE, endedE := q.begin(t.Context(), 2, "choose", "a")
	<-begun // and another painter has a turn at once
	close(endE)
	close(end)
	require.NoError(t, errors.Join(<-before, <-endedE))
}

func TestASearchEndsWhenTheAskerLeaves(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	asker, err := net.Dial("tcp", l.Addr().String())
	require.NoError(t, err)
	conn, err := l.Accept()
	require.NoError(t, err)
	defer conn.Close()
	q := searcher{t, &Server{}}
	ctx, late := context.WithCancel(context.WithValue(t.Context(), connKey{}, conn))
	begun, _, ended := q.begin(ctx, 1, "choose", "a")
	<-begun
	late() // the time of ordinary requests does not end a search
	_, err = asker.Write([]byte("GET / HTTP/1.1\r\n"))
	require.NoError(t, err)
	first := make([]byte, 3)
	_, err = conn.Read(first)
	require.NoError(t, err)
	assert.Equal(t, "GET", string(first), "what has arrived is still there to be read")
	_, err = conn.Read(make([]byte, 100))
	require.NoError(t, err)
	select {
	case err := <-ended:
		require.Fail(t, "it ended while the asker waited", "%v", err)
	default:
	}
	require.NoError(t, asker.Close())
	require.ErrorIs(t, <-ended, context.Canceled)
}
