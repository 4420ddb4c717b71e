package jobs

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// house is a database with some painters, on which processes work.
type house struct {
	t        *testing.T
	address  string
	painters []int64

	mu    sync.Mutex
	began []string                 // "process job", in the order in which they began
	let   map[string]chan struct{} // by job, closed when it may end
}

func newHouse(t *testing.T, painters int) *house {
	h := &house{t: t, let: map[string]chan struct{}{}}
	h.address = storetest.Copy(t, "jobs", func(address string) error {
		s, err := store.Open(address)
		if err != nil {
			return err
		}
		defer s.Close()
		return s.Migrate(t.Context())
	})
	s := h.store()
	for i := range painters {
		p, err := s.CreatePainter(t.Context(), fmt.Sprint("painter ", i), "")
		require.NoError(t, err)
		h.painters = append(h.painters, p.ID)
	}
	return h
}

func (h *house) store() *store.Store {
	s, err := store.Open(h.address)
	require.NoError(h.t, err)
	h.t.Cleanup(func() { _ = s.Close() })
	return s
}

// process is one that works on the database's jobs, so many at once.
func (h *house) process(name string, hands int) *Queue {
	of := map[Line]int{"searches": hands, "photos": hands}
	if hands == 0 {
		of = nil
	}
	q := New(h.store(), of, slog.New(slog.DiscardHandler))
	held := func(ctx context.Context, _ int64, args []byte, report func(Progress)) ([]byte, error) {
		job := string(args)
		h.mu.Lock()
		h.began = append(h.began, name+" "+job)
		let := h.gate(job)
		h.mu.Unlock()
		report(Progress{"pairs", 3, 7})
		report(Progress{"pairs", 2, 7})
		select {
		case <-let:
			return []byte(name + " did " + job), nil
		case <-ctx.Done():
			return nil, context.Cause(ctx)
		}
	}
	q.Handle("search", "searches", time.Minute, held)
	q.Handle("photo", "photos", time.Minute, held)
	q.Handle("refused", "searches", time.Minute, func(context.Context, int64, []byte, func(Progress)) ([]byte, error) {
		return nil, errors.New("no such thing")
	})
	q.Handle("breaks", "searches", time.Minute, func(context.Context, int64, []byte, func(Progress)) ([]byte, error) { panic("oh") })
	q.Handle("long", "searches", 50*time.Millisecond, held)
	require.NoError(h.t, q.Start(h.t.Context()))
	h.t.Cleanup(func() {
		bye, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		_ = q.Stop(bye)
	})
	return q
}

// gate is what a job waits for; the lock is held.
func (h *house) gate(job string) chan struct{} {
	if h.let[job] == nil {
		h.let[job] = make(chan struct{})
	}
	return h.let[job]
}

func (h *house) lets(jobs ...string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, j := range jobs {
		close(h.gate(j))
	}
}

func (h *house) has(began ...string) func() bool {
	return func() bool {
		h.mu.Lock()
		defer h.mu.Unlock()
		return fmt.Sprint(h.began) == fmt.Sprint(began)
	}
}

type came struct {
	result string
	err    error
}

func (h *house) asks(ctx context.Context, q *Queue, j Job) chan came {
	out := make(chan came, 1)
	go func() {
		got, err := q.Do(ctx, j)
		out <- came{string(got), err}
	}()
	return out
}

// asked asks for a search that is named by its ticket, and waits until it is in line or worked on.
func (h *house) asked(q *Queue, painter int64, ticket string) chan came {
	out := h.asks(h.t.Context(), q, Job{Painter: painter, Kind: "search", Ticket: ticket, Args: []byte(ticket)})
	h.until("it is there: "+ticket, func() bool { _, under := h.at(q, painter, ticket); return under })
	return out
}

func (h *house) at(q *Queue, painter int64, ticket string) (Progress, bool) {
	at, _, err := q.Look(h.t.Context(), painter, "search", ticket)
	require.NoError(h.t, err)
	return at.Progress, at.Under
}

func (h *house) until(what string, holds func() bool) {
	h.t.Helper()
	require.Eventually(h.t, holds, 30*time.Second, 5*time.Millisecond, what)
}

func TestAJobIsDoneByWhoeverHasAHandFree(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 2)
	asker, worker := h.process("asker", 1), h.process("worker", 1)
	ada, eve := h.painters[0], h.painters[1]
	a := h.asked(asker, ada, "a")
	h.until("one is worked on", func() bool { at, _ := h.at(asker, ada, "a"); return at == Progress{"pairs", 3, 7} })
	b := h.asked(asker, eve, "b")
	h.until("both are worked on", func() bool { at, _ := h.at(worker, eve, "b"); return at.Stage == "pairs" })
	h.mu.Lock()
	first, second := h.began[0], h.began[1]
	h.mu.Unlock()
	assert.NotEqual(t, first[:5], second[:5], "by one each: %s, %s", first, second)
	h.lets("b", "a")
	assert.Equal(t, came{first[:len(first)-2] + " did a", nil}, <-a)
	assert.Equal(t, came{second[:len(second)-2] + " did b", nil}, <-b)
	_, known, err := asker.Look(t.Context(), ada, "search", "a")
	require.NoError(t, err)
	assert.False(t, known, "nothing is kept of what was had")
}

func TestAPainterHasOneTurnAtATimeInEachLine(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 3)
	q := h.process("p", 2)
	ada, eve, fay := h.painters[0], h.painters[1], h.painters[2]
	a1, a2 := h.asked(q, ada, "a1"), h.asked(q, ada, "a2")
	a3 := h.asked(q, ada, "a3")
	h.until("the first is worked on", h.has("p a1"))
	photo := h.asks(t.Context(), q, Job{Painter: ada, Kind: "photo", Args: []byte("photo")})
	h.until("another line has turns of its own", h.has("p a1", "p photo"))
	e1 := h.asked(q, eve, "e1")
	h.until("another painter has one at once", h.has("p a1", "p photo", "p e1"))
	f1 := h.asked(q, fay, "f1")
	for ticket, place := range map[string]int{"a2": 1, "a3": 2, "f1": 3} {
		painter := map[byte]int64{'a': ada, 'f': fay}[ticket[0]]
		at, under := h.at(q, painter, ticket)
		assert.True(t, under)
		assert.Equal(t, Progress{Queued, place, 3}, at, ticket)
	}
	under, waiting, err := q.Count(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []int{3, 3}, []int{under, waiting})
	h.lets("a1")
	h.until("fay comes before ada's second", h.has("p a1", "p photo", "p e1", "p f1"))
	h.lets("e1", "f1", "a2", "a3", "photo")
	for _, one := range []chan came{a1, photo, e1, f1, a2, a3} {
		require.NoError(t, (<-one).err)
	}
}

func TestAPaintersOldestJobEndsWhenThereAreMany(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 2)
	q := h.process("p", 1)
	ada, eve := h.painters[0], h.painters[1]
	var all []chan came
	for i := range 12 {
		all = append(all, h.asked(q, ada, fmt.Sprint(i)))
		if i >= MostOfPainter {
			require.ErrorIs(t, (<-all[i-MostOfPainter]).err, ErrMany)
		}
	}
	e := h.asked(q, eve, "e")
	h.lets("e", "8")
	require.NoError(t, (<-e).err, "another painter has a turn after one of them")
	h.lets("9", "10", "11")
	for _, one := range all[12-MostOfPainter:] {
		require.NoError(t, (<-one).err)
	}
}

func TestAJobEndsWithWhoeverAskedOrWhenItIsEnded(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	asker, worker := h.process("asker", 0), h.process("worker", 1)
	ada := h.painters[0]
	ctx, leave := context.WithCancel(t.Context())
	a := h.asks(ctx, asker, Job{Painter: ada, Kind: "search", Ticket: "a", Args: []byte("a")})
	h.until("it is worked on", h.has("worker a"))
	b := h.asked(asker, ada, "b")
	leave()
	require.ErrorIs(t, (<-a).err, context.Canceled)
	h.until("the next is, though the first was not let go", h.has("worker a", "worker b"))
	require.NoError(t, worker.End(t.Context(), ada+1, "search", "b"))
	_, under := h.at(asker, ada, "b")
	require.True(t, under, "another painter's ticket is another")
	require.NoError(t, worker.End(t.Context(), ada, "search", "b"))
	require.ErrorIs(t, (<-b).err, context.Canceled)
	c := h.asked(asker, ada, "c")
	h.until("and the next", h.has("worker a", "worker b", "worker c"))
	require.NoError(t, h.store().DropPainter(t.Context(), ada))
	require.ErrorIs(t, (<-c).err, context.Canceled, "it goes with its painter")
}

func TestAJobApartGoesOnAndIsTheSameForAllWhoAsk(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	q := h.process("p", 1)
	ada := h.painters[0]
	j := Job{Painter: ada, Kind: "search", Ticket: "sheet", Args: []byte("sheet"), Apart: true}
	ctx, leave := context.WithCancel(t.Context())
	one := h.asks(ctx, q, j)
	h.until("it is worked on", h.has("p sheet"))
	other := h.asks(t.Context(), q, j)
	h.until("both wait for it", func() bool {
		q.mu.Lock()
		defer q.mu.Unlock()
		for _, all := range q.waiters {
			return len(all) == 2
		}
		return false
	})
	leave()
	require.ErrorIs(t, (<-one).err, context.Canceled)
	h.lets("sheet")
	assert.Equal(t, came{"p did sheet", nil}, <-other)
	at, known, err := q.Look(t.Context(), ada, "search", "sheet")
	require.NoError(t, err)
	assert.True(t, known)
	assert.Equal(t, State{Progress{}, []byte("sheet"), false, []byte("p did sheet"), nil}, at, "what came of it is kept for a while")
	require.True(t, h.has("p sheet")(), "it was done once")
	require.NoError(t, q.End(t.Context(), ada, "search", "sheet"))
	_, known, err = q.Look(t.Context(), ada, "search", "sheet")
	require.NoError(t, err)
	assert.False(t, known)
}

func TestAJobThatFailsSaysWhy(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	q := h.process("p", 1)
	for kind, says := range map[string]string{"refused": "no such thing", "breaks": "it came to grief", "long": context.DeadlineExceeded.Error(), "unheard of": "no job is of the kind"} {
		_, err := q.Do(t.Context(), Job{Painter: h.painters[0], Kind: kind})
		require.ErrorContains(t, err, says)
	}
}

func TestAnotherProcessGoesOnWithWhatOneLeaves(t *testing.T) {
	t.Parallel()
	for how, leave := range map[string]func(q *Queue){
		"it stops": func(q *Queue) {
			bye, cancel := context.WithTimeout(context.Background(), 5*time.Second)
			defer cancel()
			_ = q.Stop(bye)
		},
		"it dies": func(q *Queue) { q.pool.Close() },
	} {
		t.Run(how, func(t *testing.T) {
			t.Parallel()
			h := newHouse(t, 2)
			asker, first := h.process("asker", 0), h.process("first", 1)
			a := h.asked(asker, h.painters[0], "a")
			h.until("it is worked on", h.has("first a"))
			b := h.asked(asker, h.painters[1], "b")
			go leave(first)
			h.process("second", 2)
			h.until("another works on both", func() bool {
				h.mu.Lock()
				defer h.mu.Unlock()
				return len(h.began) == 3
			})
			h.lets("a", "b")
			assert.Equal(t, came{"second did a", nil}, <-a)
			assert.Equal(t, came{"second did b", nil}, <-b)
		})
	}
}

func TestAProcessThatHasStoppedTakesNoMore(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	q := h.process("p", 1)
	require.NoError(t, q.Stop(t.Context()))
	_, err := q.Do(t.Context(), Job{Painter: h.painters[0], Kind: "search"})
	require.ErrorIs(t, err, ErrStopped)
}

// What kills every process that tries it is not tried for ever.
func TestAJobThatIsAlwaysLostEnds(t *testing.T) {
	t.Parallel()
	h := newHouse(t, 1)
	q := h.process("p", 1)
	a := h.asked(q, h.painters[0], "a")
	h.until("it is worked on", h.has("p a"))
	_, err := q.pool.Exec(t.Context(), "update jobs set tries = $1, beat_at = now() - interval '1 hour'", mostTries)
	require.NoError(t, err)
	_, err = q.pool.Exec(t.Context(), "update river_job set attempted_at = now() - interval '1 hour'")
	require.NoError(t, err)
	require.NoError(t, q.tidy(t.Context()))
	require.ErrorIs(t, (<-a).err, ErrLost)
}
