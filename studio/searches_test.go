package studio

import (
	"context"
	"errors"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
)

// searcher asks for searches of a queue.
type searcher struct {
	t *testing.T
	s *Queue
}

// begin lets a painter search, until the returned end is closed; how it ended is
// heard on the channel. Begun is closed when it is worked on.
func (q searcher) begin(ctx context.Context, id int64, ticket string) (begun chan struct{}, end chan struct{}, ended chan error) {
	begun, end, ended = make(chan struct{}), make(chan struct{}), make(chan error, 1)
	entered := make(chan struct{})
	go func() {
		close(entered)
		ended <- q.s.Run(ctx, SearchRequest{id, ticket}, func(ctx context.Context, _ reach.Report) error {
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
	q.s.lock.Lock()
	defer q.s.lock.Unlock()
	return len(q.s.waiting)
}

// had says whether a painter's search of a ticket has come and is not over.
func (q searcher) had(id int64, ticket string) bool {
	q.s.lock.Lock()
	defer q.s.lock.Unlock()
	return q.s.find(id, ticket) != nil
}

func (q searcher) until(what string, holds func() bool) {
	q.t.Helper()
	require.Eventually(q.t, holds, 20*time.Second, time.Millisecond, what)
}

func TestTwoSearchesAreWorkedOnAndTheRestWaitInLine(t *testing.T) {
	q := searcher{t, &Queue{}}
	begun1, end1, ended1 := q.begin(t.Context(), 1, "a")
	<-begun1
	begun2, end2, ended2 := q.begin(t.Context(), 2, "a")
	<-begun2
	begun3, end3, ended3 := q.begin(t.Context(), 3, "a")
	q.until("the third waits", func() bool { return q.waiting() == 1 })
	begun4, end4, ended4 := q.begin(t.Context(), 4, "a")
	q.until("the fourth waits", func() bool { return q.waiting() == 2 })
	assert.Equal(t, reach.Progress{Stage: Queued, Done: 1, Of: 2}, q.s.Progress(3, "a"))
	assert.Equal(t, reach.Progress{Stage: Queued, Done: 2, Of: 2}, q.s.Progress(4, "a"))
	assert.Zero(t, q.s.Progress(4, "b"), "another ticket is another search")
	assert.Zero(t, q.s.Progress(5, "a"))

	// A painter's second question waits for the first, and lets others go before.
	begunR, endR, endedR := q.begin(t.Context(), 1, "")
	q.until("the replacing waits", func() bool { return q.waiting() == 3 })
	close(end2)
	require.NoError(t, <-ended2)
	<-begun3
	assert.Equal(t, reach.Progress{Stage: Queued, Done: 1, Of: 2}, q.s.Progress(4, "a"))
	close(end1)
	require.NoError(t, <-ended1)
	<-begun4
	close(end3)
	require.NoError(t, <-ended3)
	<-begunR
	close(endR)
	close(end4)
	require.NoError(t, errors.Join(<-endedR, <-ended4))
	assert.Empty(t, q.s.of)
	assert.Empty(t, q.s.running)
}

// A painter may look in a few tabs at once, and asking again and again keeps
// nobody else from a turn.
func TestAPaintersOldestSearchEndsWhenThereAreMany(t *testing.T) {
	q := searcher{t, &Queue{}}
	var ends []chan struct{}
	var ended []chan error
	for i := range 40 {
		_, e, over := q.begin(t.Context(), 1, fmt.Sprint(i))
		q.until("it has come", func() bool { return q.had(1, fmt.Sprint(i)) })
		ends, ended = append(ends, e), append(ended, over)
		if i >= mostOfPainter {
			require.ErrorIs(t, <-ended[i-mostOfPainter], ErrManySearches)
		}
	}
	begun, endE, endedE := q.begin(t.Context(), 2, "a")
	<-begun // another painter has a turn at once
	close(endE)
	require.NoError(t, <-endedE)
	for i := 40 - mostOfPainter; i < 40; i++ {
		close(ends[i])
		require.NoError(t, <-ended[i], "the last few come to their turns")
	}
	assert.Empty(t, q.s.of)
}

func TestARecipeIsRememberedForItsPaintsAlone(t *testing.T) {
	s := New(nil)
	palette := func(names ...string) (out []*paint.Paint) {
		for _, n := range names {
			p, err := paint.Find(n)
			require.NoError(t, err)
			out = append(out, p)
		}
		return out
	}
	want := colour.Lab{L: 52, A: 38, B: 20}
	few, more := palette("PY184", "PR254"), palette("PY184", "PR254", "PB29")
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	oil, err := paint.ParseMedium("oil")
	require.NoError(t, err)
	for range 2 { // worked out, then remembered
		for _, paints := range [][]*paint.Paint{few, more} {
			for _, in := range []paint.Medium{acrylic, oil} {
				plain, err := reach.Nearest(want, paints, in)
				require.NoError(t, err)
				got, err := s.nearest(want, paints, in)
				require.NoError(t, err)
				assert.Equal(t, plain, got)
			}
		}
	}
	assert.Equal(t, 4, s.matches.Len())
	one := paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the blue"}})
	assert.NotEqual(t, one, paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the other blue"}}), "renamed, it is shown by its new name")
	assert.NotEqual(t, one, paintsKey([]*paint.Paint{{ID: "tube-1", Name: "the blue", Of: []paint.Part{{Paint: few[0], Parts: 2}}}}))
}
