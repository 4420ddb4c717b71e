package studio

import (
	"context"
	"errors"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/reach"
)

// searcher asks for searches of a queue.
type searcher struct {
	t *testing.T
	s *Queue
}

// begin lets a painter search, until the returned end is closed; how it ended is
// heard on the channel. Begun is closed when it is worked on.
func (q searcher) begin(ctx context.Context, id int64, about, ticket string) (begun chan struct{}, end chan struct{}, ended chan error) {
	begun, end, ended = make(chan struct{}), make(chan struct{}), make(chan error, 1)
	entered := make(chan struct{})
	go func() {
		close(entered)
		ended <- q.s.Run(ctx, SearchRequest{id, about, ticket}, func(ctx context.Context, _ reach.Report) error {
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

func (q searcher) until(what string, holds func() bool) {
	q.t.Helper()
	require.Eventually(q.t, holds, 20*time.Second, time.Millisecond, what)
}

func TestTwoSearchesAreWorkedOnAndTheRestWaitInLine(t *testing.T) {
	q := searcher{t, &Queue{}}
	begun1, end1, ended1 := q.begin(t.Context(), 1, "choose", "a")
	<-begun1
	begun2, end2, ended2 := q.begin(t.Context(), 2, "choose", "a")
	<-begun2
	begun3, end3, ended3 := q.begin(t.Context(), 3, "choose", "a")
	q.until("the third waits", func() bool { return q.waiting() == 1 })
	begun4, end4, ended4 := q.begin(t.Context(), 4, "choose", "a")
	q.until("the fourth waits", func() bool { return q.waiting() == 2 })
	assert.Equal(t, reach.Progress{Stage: Queued, Done: 1, Of: 2}, q.s.Progress(3, "a"))
	assert.Equal(t, reach.Progress{Stage: Queued, Done: 2, Of: 2}, q.s.Progress(4, "a"))
	assert.Zero(t, q.s.Progress(4, "b"), "another ticket is another search")
	assert.Zero(t, q.s.Progress(5, "a"))

	// A painter's second question waits for the first, and lets others go before.
	begunR, endR, endedR := q.begin(t.Context(), 1, "replace", "")
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

func TestANewSearchEndsThePaintersOneBefore(t *testing.T) {
	q := searcher{t, &Queue{}}
	var before chan error
	var end chan struct{}
	for i := range 40 { // as one who asks again and again
		begun, e, ended := q.begin(t.Context(), 1, "choose", fmt.Sprint(i))
		if before != nil {
			require.ErrorIs(t, <-before, ErrAnotherSearch)
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
