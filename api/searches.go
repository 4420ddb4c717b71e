package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/exchange"
)

// searches are those under way, by painter and ticket: how far each is, and how
// it is ended.
type searches struct {
	lock sync.Mutex
	now  map[searchKey]*search
}

type searchKey struct {
	painter int64
	ticket  string
}

type search struct {
	end  context.CancelFunc
	lock sync.Mutex
	at   reach.Progress
}

// tell hears how far a search is: the farthest of what it is told.
func (s *search) tell(p reach.Progress) {
	s.lock.Lock()
	defer s.lock.Unlock()
	if p.Looking != s.at.Looking || p.Done > s.at.Done {
		s.at = p
	}
}

// searchTime is how long a search may take, which is more than other requests.
const searchTime = 25 * time.Second

// tooLong says what to do about a search that ran out of time.
func tooLong(err error) error {
	if errors.Is(err, context.DeadlineExceeded) {
		return exchange.Bad("This takes too long to work out: choose from fewer paints, or want fewer colours.")
	}
	return err
}

// begin enters a search; another one with the same ticket is ended. One without
// a ticket is nobody's to ask for.
func (all *searches) begin(ctx context.Context, key searchKey) (context.Context, *search) {
	ctx, end := context.WithTimeout(context.WithoutCancel(ctx), searchTime)
	s := &search{end: end}
	if key.ticket == "" {
		return ctx, s
	}
	all.lock.Lock()
	defer all.lock.Unlock()
	if before := all.now[key]; before != nil {
		before.end()
	}
	if all.now == nil {
		all.now = map[searchKey]*search{}
	}
	all.now[key] = s
	return ctx, s
}

// How many tables of pairs are kept in memory, and of how many paints at most:
// then 6 MB each.
const (
	mostTables = 8
	mostTabled = 100
)

// table is what every two of some paints reach, remembered for as long as they
// are the same.
func (s *Server) table(ctx context.Context, paints []*paint.Paint, tell reach.Tell) (*reach.Table, error) {
	var key strings.Builder
	for _, p := range paints {
		fmt.Fprintf(&key, "%s %016x %s\n", p.ID, p.Fingerprint(), p.Name)
	}
	if t, known := s.tables.Get(key.String()); known {
		return t, nil
	}
	t, err := reach.NewTable(ctx, paints, tell)
	if err == nil && len(paints) <= mostTabled {
		s.tables.Add(key.String(), t)
	}
	return t, err
}

// done strikes a search off.
func (all *searches) done(key searchKey, s *search) {
	s.end()
	all.lock.Lock()
	defer all.lock.Unlock()
	if all.now[key] == s {
		delete(all.now, key)
	}
}

func (all *searches) find(key searchKey) *search {
	all.lock.Lock()
	defer all.lock.Unlock()
	return all.now[key]
}

// Searching is how far a search is.
type Searching struct {
	Looking string `json:"looking" enum:",pairs,systems,paints,fours" doc:"at what; empty when nothing is looked for"`
	Done    int    `json:"done"`
	Of      int    `json:"of"`
}

// Ticket names a search of a painter's own.
type Ticket struct {
	Ticket string `path:"ticket" maxLength:"40"`
}

func (s *Server) searchRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "searching", Method: http.MethodGet, Path: "/api/searches/{ticket}"},
		func(ctx context.Context, in *Ticket) (*struct{ Body Searching }, error) {
			out := &struct{ Body Searching }{}
			if one := s.searches.find(searchKey{painter(ctx).ID, in.Ticket}); one != nil {
				one.lock.Lock()
				defer one.lock.Unlock()
				out.Body = Searching{string(one.at.Looking), one.at.Done, one.at.Of}
			}
			return out, nil
		})
	huma.Register(s.api, huma.Operation{OperationID: "endSearch", Method: http.MethodDelete, Path: "/api/searches/{ticket}", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *Ticket) (*struct{}, error) {
			if one := s.searches.find(searchKey{painter(ctx).ID, in.Ticket}); one != nil {
				one.end()
			}
			return nil, nil
		})
}
