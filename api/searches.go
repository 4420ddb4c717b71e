package api

import (
	"context"
	"errors"
	"net"
	"net/http"
	"syscall"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// watched is the context of a request that may take longer than others: it ends
// with the asker's connection, and not with the time of a request. Done must be
// called.
func watched(asker context.Context) (ctx context.Context, done func()) {
	ctx, end := context.WithCancelCause(context.WithoutCancel(asker))
	if conn, ok := asker.Value(connKey{}).(net.Conn); ok {
		go endWhenGone(ctx, conn, end)
	}
	return ctx, func() { end(nil) }
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

// chooseKind is what a search is as a job.
const chooseKind = "choose"

// SearchProgress is how far a search is.
type SearchProgress struct {
	Stage string `json:"stage" enum:",queue,pairs,systems,paints,fours" doc:"what is looked at; queue before its turn comes; empty when nothing is looked for"`
	Done  int    `json:"done" doc:"in the queue: the place, 1 being the next"`
	Of    int    `json:"of"`
}

// Ticket names a search of a painter's own.
type Ticket struct {
	Ticket string `path:"ticket" maxLength:"40" doc:"what the search was named"`
}

func (s *Server) searching(ctx context.Context, in *Ticket) (*struct{ Body SearchProgress }, error) {
	at, _, err := s.jobs.Look(ctx, painter(ctx).ID, chooseKind, in.Ticket)
	if err != nil || !at.Under {
		return &struct{ Body SearchProgress }{}, err
	}
	return &struct{ Body SearchProgress }{SearchProgress{at.Stage, at.Done, at.Of}}, nil
}

func (s *Server) endSearch(ctx context.Context, in *Ticket) (*struct{}, error) {
	return nil, s.jobs.End(ctx, painter(ctx).ID, chooseKind, in.Ticket)
}

func (s *Server) searchRoutes() {
	register(s, huma.Operation{OperationID: "searching", Tags: []string{"choosing"}, Summary: "How far a search is, or its place in the line", Method: http.MethodGet, Path: "/api/searches/{ticket}"}, s.searching)
	register(s, huma.Operation{OperationID: "endSearch", Tags: []string{"choosing"}, Summary: "Ends a search", Method: http.MethodDelete, Path: "/api/searches/{ticket}", DefaultStatus: http.StatusNoContent}, s.endSearch)
}
