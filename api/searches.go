package api

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"slices"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/exchange"
)

// searches are those under way and those that wait for their turn. A painter has
// one for each question, for a new one ends the one before, and of a painter one
// is worked on at a time.
type searches struct {
	lock    sync.Mutex
	of      map[searchKey]*search
	waiting []*search // in the order they came
	running map[int64]*search
}

type searchKey struct {
	painter int64
	about   string // the operation that asks
}

// mostSearching is how many searches are worked on at the same time.
const mostSearching = 2

// searchWorkers is how many threads each of them takes, so that other painters
// find room beside them.
const searchWorkers = 1

// search is one that a painter waits for.
type search struct {
	searchKey
	ticket string
	end    context.CancelCauseFunc
	turn   chan struct{} // closed when it is worked on
	lock   sync.Mutex
	at     reach.Progress
}

// tell hears how far a search is: the farthest of what it is told.
func (s *search) tell(p reach.Progress) {
	s.lock.Lock()
	defer s.lock.Unlock()
	if p.Looking != s.at.Looking || p.Done > s.at.Done {
		s.at = p
	}
}

// How long a search may take once it is worked on, which is more than other
// requests, and how long it may wait for that.
const (
	searchTime = 20 * time.Second
	queueTime  = 2 * time.Minute
)

// tooLong says what to do about a search that ran out of time.
func tooLong(err error) error {
	var many reach.TooMany
	if errors.As(err, &many) {
		return exchange.Bad("%s", text.UpperFirst(many.Sentence)+".")
	}
	if errors.Is(err, context.DeadlineExceeded) {
		return exchange.Bad("Too many for an exact answer in %d seconds: leave some out, or want fewer colours.", int(searchTime.Seconds()))
	}
	return err
}

// errAnother ends a search when its painter begins another one.
var errAnother = errors.New("another search of the painter's began")

// search runs a painter's search when its turn comes. It ends with the asker's
// connection, with another search of the same painter, and when its time is over.
func (s *Server) search(ctx context.Context, about, ticket string, work func(context.Context, *search) error) error {
	asker := ctx
	ctx, end := context.WithCancelCause(context.WithoutCancel(ctx))
	defer end(nil)
	if conn, ok := asker.Value(connKey{}).(net.Conn); ok {
		go endWhenGone(ctx, conn, end)
	}
	one := &search{searchKey: searchKey{painter(ctx).ID, about}, ticket: ticket, end: end, turn: make(chan struct{})}
	done := s.searches.enter(one)
	defer done()
	queue, patience := context.WithTimeout(ctx, queueTime)
	defer patience()
	select {
	case <-one.turn:
	case <-queue.Done():
		if ctx.Err() != nil {
			return context.Cause(ctx)
		}
		return huma.Error503ServiceUnavailable("So many searches are waited for that yours did not come to its turn. Try again in a moment.")
	}
	limited, cancel := context.WithTimeout(ctx, searchTime)
	defer cancel()
	err := work(limited, one)
	if err != nil && ctx.Err() != nil {
		return context.Cause(ctx) // why it was ended, not where
	}
	return err
}

// enter lets a search wait for its turn, and ends the painter's one before. Done
// must be called when it is over, whether or not its turn came.
func (all *searches) enter(one *search) (done func()) {
	all.lock.Lock()
	defer all.lock.Unlock()
	if all.of == nil {
		all.of, all.running = map[searchKey]*search{}, map[int64]*search{}
	}
	if before := all.of[one.searchKey]; before != nil {
		before.end(errAnother)
	}
	all.of[one.searchKey] = one
	all.waiting = append(all.waiting, one)
	all.next()
	return func() {
		all.lock.Lock()
		defer all.lock.Unlock()
		if all.of[one.searchKey] == one {
			delete(all.of, one.searchKey)
		}
		if at := slices.Index(all.waiting, one); at >= 0 {
			all.waiting = slices.Delete(all.waiting, at, at+1)
		} else {
			delete(all.running, one.painter)
		}
		all.next()
	}
}

// next gives turns to those who wait for longest, as long as there are some.
func (all *searches) next() {
	for len(all.running) < mostSearching {
		at := slices.IndexFunc(all.waiting, func(s *search) bool { return all.running[s.painter] == nil })
		if at < 0 {
			return
		}
		one := all.waiting[at]
		all.waiting = slices.Delete(all.waiting, at, at+1)
		all.running[one.painter] = one
		close(one.turn)
	}
}

// find is a painter's search of a ticket; nil when there is none. The lock must
// be held.
func (all *searches) find(painter int64, ticket string) *search {
	for key, one := range all.of {
		if key.painter == painter && one.ticket == ticket {
			return one
		}
	}
	return nil
}

// progress is how far a painter's search is: its place in the queue before its
// turn comes.
func (all *searches) progress(painter int64, ticket string) (out Searching) {
	all.lock.Lock()
	defer all.lock.Unlock()
	one := all.find(painter, ticket)
	if one == nil {
		return out
	}
	if at := slices.Index(all.waiting, one); at >= 0 {
		return Searching{inQueue, at + 1, len(all.waiting)}
	}
	one.lock.Lock()
	defer one.lock.Unlock()
	return Searching{string(one.at.Looking), one.at.Done, one.at.Of}
}

// stop ends a painter's search of a ticket.
func (all *searches) stop(painter int64, ticket string) {
	all.lock.Lock()
	defer all.lock.Unlock()
	if one := all.find(painter, ticket); one != nil {
		one.end(context.Canceled)
	}
}

// connKey carries the connection that a request came over.
type connKey struct{}

// lookEvery is how often a connection is looked at while somebody waits.
const lookEvery = 40 * time.Millisecond

// endWhenGone ends something when the other end of a connection has closed it.
// It looks at what has arrived without taking it.
func endWhenGone(ctx context.Context, conn net.Conn, end context.CancelCauseFunc) {
	socket, ok := conn.(syscall.Conn)
	if !ok {
		return
	}
	raw, err := socket.SyscallConn()
	if err != nil {
		return
	}
	tick := time.NewTicker(lookEvery)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		gone := false
		err := raw.Control(func(fd uintptr) {
			var one [1]byte
			n, _, err := syscall.Recvfrom(int(fd), one[:], syscall.MSG_PEEK|syscall.MSG_DONTWAIT)
			gone = n == 0 && err == nil || errors.Is(err, syscall.ECONNRESET)
		})
		if gone || err != nil {
			end(context.Canceled)
			return
		}
	}
}

// How many tables of pairs are kept in memory, and of how many different paints
// at most: then some 3 MB each.
const (
	mostTables = 8
	mostTabled = 100
)

// table is what every two of some paints reach, remembered for as long as they
// are the same.
func (s *Server) table(ctx context.Context, paints []*paint.Paint, workers int, tell reach.Tell) (*reach.Table, error) {
	var key strings.Builder
	for _, p := range paints {
		fmt.Fprintf(&key, "%s %016x %s\n", p.ID, p.Fingerprint(), p.Name)
	}
	if t, known := s.tables.Get(key.String()); known {
		return t, nil
	}
	t, err := reach.NewTable(ctx, paints, workers, tell)
	if err == nil && t.Size() <= mostTabled {
		s.tables.Add(key.String(), t)
	}
	return t, err
}

// inQueue is what a search does before its turn comes.
const inQueue = "queue"

// Searching is how far a search is.
type Searching struct {
	Looking string `json:"looking" enum:",queue,pairs,systems,paints,fours" doc:"at what; queue before its turn comes; empty when nothing is looked for"`
	Done    int    `json:"done" doc:"in the queue: the place, 1 being the next"`
	Of      int    `json:"of"`
}

// Ticket names a search of a painter's own.
type Ticket struct {
	Ticket string `path:"ticket" maxLength:"40" doc:"what the search was named"`
}

func (s *Server) searchRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "searching", Tags: []string{"choosing"}, Summary: "How far a search is, or its place in the line", Method: http.MethodGet, Path: "/api/searches/{ticket}"},
		func(ctx context.Context, in *Ticket) (*struct{ Body Searching }, error) {
			return &struct{ Body Searching }{s.searches.progress(painter(ctx).ID, in.Ticket)}, nil
		})
	huma.Register(s.api, huma.Operation{OperationID: "endSearch", Tags: []string{"choosing"}, Summary: "Ends a search", Method: http.MethodDelete, Path: "/api/searches/{ticket}", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *Ticket) (*struct{}, error) {
			s.searches.stop(painter(ctx).ID, in.Ticket)
			return nil, nil
		})
}
