package studio

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/store"
)

// Queue are the searches under way and those that wait for their turn. A painter
// may have a few, one for each page that is open, and of a painter one is worked
// on at a time. The zero value is ready.
type Queue struct {
	lock    sync.Mutex
	of      map[int64][]*search // by painter, in the order they came
	waiting []*search           // in the order they came
	running map[int64]*search   // by painter
}

// mostOfPainter is how many searches a painter may have: one more ends the oldest.
// A page ends what it left by itself.
const mostOfPainter = 4

// mostSearching is how many searches are worked on at the same time.
const mostSearching = 2

// searchWorkers is how many threads each of them takes, so that other painters
// find room beside them.
const searchWorkers = 1

// search is one that a painter waits for.
type search struct {
	painter int64
	ticket  string
	end     context.CancelCauseFunc
	turn    chan struct{} // closed when it is worked on
	lock    sync.Mutex
	at      reach.Progress
}

// report keeps how far a search is: the farthest of what it is told.
func (s *search) report(p reach.Progress) {
	s.lock.Lock()
	defer s.lock.Unlock()
	if p.Stage != s.at.Stage || p.Done > s.at.Done {
		s.at = p
	}
}

// How long a search may take once it is worked on, and how long it may wait for
// that.
const (
	searchTime = 20 * time.Second
	queueTime  = 2 * time.Minute
)

// Why a search did not come to its end.
var (
	ErrManySearches = errors.New("too many searches of the painter's began after it")
	ErrNoTurn       = errors.New("the turn of the search did not come")
)

// SearchRequest is a search to be run.
type SearchRequest struct {
	Painter int64
	Ticket  string // names it, so that one can ask how far it is, and end it
}

// Run works on a search when its turn comes, until its context ends, too many of
// the same painter's have begun after it, or its time is over. The error is that of
// the work, an input.Error where it asks too much, ErrManySearches, ErrNoTurn, or
// context.Canceled.
func (q *Queue) Run(ctx context.Context, s SearchRequest, work func(ctx context.Context, report reach.Report) error) error {
	ctx, end := context.WithCancelCause(ctx)
	defer end(nil)
	one := &search{painter: s.Painter, ticket: s.Ticket, end: end, turn: make(chan struct{})}
	defer q.enter(one)()
	wait, cancel := context.WithTimeout(ctx, queueTime)
	defer cancel()
	select {
	case <-one.turn:
	case <-wait.Done():
		if ctx.Err() != nil {
			return context.Cause(ctx)
		}
		return ErrNoTurn
	}
	limited, stop := context.WithTimeout(ctx, searchTime)
	defer stop()
	err := work(limited, one.report)
	if err != nil && ctx.Err() != nil {
		return context.Cause(ctx) // why it was ended, not where
	}
	return tooLong(err)
}

// tooLong says what to do about a search that asked too much, or ran out of time.
func tooLong(err error) error {
	var many reach.TooMany
	switch {
	case errors.As(err, &many):
		return input.Errorf("%s", text.UpperFirst(many.Sentence)+".")
	case errors.Is(err, context.DeadlineExceeded):
		return input.Errorf("Too many for an exact answer in %d seconds: leave some out, or want fewer colours.", int(searchTime.Seconds()))
	}
	return err
}

// Count is how many searches are worked on, and how many wait.
func (q *Queue) Count() (underWay, waiting int) {
	q.lock.Lock()
	defer q.lock.Unlock()
	return len(q.running), len(q.waiting)
}

// enter lets a search wait for its turn, and ends the painter's oldest when there
// are too many. Done must be called when it is over, whether or not its turn came.
func (q *Queue) enter(one *search) (done func()) {
	q.lock.Lock()
	defer q.lock.Unlock()
	if q.of == nil {
		q.of, q.running = map[int64][]*search{}, map[int64]*search{}
	}
	if all := q.of[one.painter]; len(all) >= mostOfPainter {
		all[len(all)-mostOfPainter].end(ErrManySearches)
	}
	q.of[one.painter] = append(q.of[one.painter], one)
	q.waiting = append(q.waiting, one)
	q.next()
	return func() {
		q.lock.Lock()
		defer q.lock.Unlock()
		all := slices.DeleteFunc(q.of[one.painter], func(s *search) bool { return s == one })
		if q.of[one.painter] = all; len(all) == 0 {
			delete(q.of, one.painter)
		}
		if at := slices.Index(q.waiting, one); at >= 0 {
			q.waiting = slices.Delete(q.waiting, at, at+1)
		} else {
			delete(q.running, one.painter)
		}
		q.next()
	}
}

// next gives turns to those who wait for longest, as long as there are some.
func (q *Queue) next() {
	for len(q.running) < mostSearching {
		at := slices.IndexFunc(q.waiting, func(s *search) bool { return q.running[s.painter] == nil })
		if at < 0 {
			return
		}
		one := q.waiting[at]
		q.waiting = slices.Delete(q.waiting, at, at+1)
		q.running[one.painter] = one
		close(one.turn)
	}
}

// find is a painter's search of a ticket; nil when there is none. The lock must
// be held.
func (q *Queue) find(painter int64, ticket string) *search {
	for _, one := range q.of[painter] {
		if one.ticket == ticket {
			return one
		}
	}
	return nil
}

// Queued is what a search does before its turn comes: then Done is its place in
// the queue, 1 being the next, and Of how many there are.
const Queued reach.Stage = "queue"

// Progress is how far a painter's search is; zero when there is none.
func (q *Queue) Progress(painter int64, ticket string) reach.Progress {
	q.lock.Lock()
	defer q.lock.Unlock()
	one := q.find(painter, ticket)
	if one == nil {
		return reach.Progress{}
	}
	if at := slices.Index(q.waiting, one); at >= 0 {
		return reach.Progress{Stage: Queued, Done: at + 1, Of: len(q.waiting)}
	}
	one.lock.Lock()
	defer one.lock.Unlock()
	return one.at
}

// Stop ends a painter's search of a ticket.
func (q *Queue) Stop(painter int64, ticket string) {
	q.lock.Lock()
	defer q.lock.Unlock()
	if one := q.find(painter, ticket); one != nil {
		one.end(context.Canceled)
	}
}

// How many tables of pairs are kept in memory, and of how many different paints
// at most: then some 3 MB each.
const (
	mostTables = 8
	mostTabled = 100
)

// Table is reach.NewTable, remembered for as long as the paints are the same.
func (s *Studio) Table(ctx context.Context, paints []*paint.Paint, workers int, report reach.Report) (*reach.Table, error) {
	key := paintsKey(paints)
	if t, known := s.tables.Get(key); known {
		return t, nil
	}
	t, err := reach.NewTable(ctx, paints, workers, report)
	if err == nil && t.Size() <= mostTabled {
		s.tables.Add(key, t)
	}
	return t, err
}

// paintsKey tells apart what is worked out of some paints, and what is shown of
// them with it.
func paintsKey(paints []*paint.Paint) string {
	var key strings.Builder
	for _, p := range paints {
		fmt.Fprintf(&key, "%016x %q %q %q %q %q %q\n", p.Fingerprint(), p.ID, p.CI, p.Name, p.Family, p.Hiding, p.Caution)
		for _, of := range p.Of {
			fmt.Fprintf(&key, "of %g %s", of.Parts, paintsKey([]*paint.Paint{of.Paint}))
		}
	}
	return key.String()
}

// Choose finds the best systems for a request, from a painter's box, its prices
// and wanted colours; as a search with a ticket.
func (s *Studio) Choose(ctx context.Context, painter int64, ticket string, r reach.Request) (out reach.Result, err error) {
	err = s.Searches.Run(ctx, SearchRequest{painter, ticket}, func(ctx context.Context, report reach.Report) error {
		box, err := s.Box(ctx, painter)
		if err != nil {
			return err
		}
		if r.Aim == reach.NearestTargets {
			_, wanted, err := s.Wanted(ctx, painter)
			if err != nil {
				return err
			}
			if r.Targets, err = reach.Targets(wanted, r.Medium); err != nil {
				return err
			}
		}
		r.Prices, r.Workers, r.Report, r.Table = box.Prices(), searchWorkers, report, s.Table
		out, err = reach.Choose(ctx, box.Paints(), r)
		return err
	})
	return out, err
}

// Replacing is what to replace the tubes of a kept system with.
type Replacing struct {
	Wheel   int64
	Library bool              // from the library; from the box otherwise
	Tried   map[string]string // by the id of a tube, of what is tried in its place
}

// Replace says for each tube of a kept system what replaces it best; as a search.
func (s *Studio) Replace(ctx context.Context, p store.Painter, r Replacing) (system reach.Named, swaps []reach.Swap, err error) {
	err = s.Searches.Run(ctx, SearchRequest{Painter: p.ID}, func(ctx context.Context, _ reach.Report) error {
		systems, err := s.SideBySide(ctx, p, []int64{r.Wheel})
		if err != nil {
			return err
		}
		system = systems[0]
		candidates := paint.Library()
		if !r.Library {
			box, err := s.Box(ctx, p.ID)
			if err != nil {
				return err
			}
			candidates = box.Paints()
		}
		find, tried := s.finder(ctx, As(p), nil, nil), map[string]*paint.Paint{}
		for out, in := range r.Tried {
			if tried[out], err = find(in); err != nil {
				return err
			}
		}
		swaps, err = reach.SwapsWith(ctx, system.System, candidates, tried)
		return err
	})
	return system, swaps, err
}
