package api

import (
	"bufio"
	"context"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/valyala/fasthttp"

	"gyrophane/core/input"
	"gyrophane/core/recipe"
	"gyrophane/studio"
	"gyrophane/wire"
)

// shapedSitting is a sitting seen in a light, in its own medium and dry.
func (s *Server) shapedSitting(ctx context.Context, of studio.Sitting, light string) (*oneSitting, error) {
	v, err := s.sittingView(ctx, of, light)
	if err != nil {
		return nil, err
	}
	return &oneSitting{v.Sitting(of)}, nil
}

func (s *Server) sittingView(ctx context.Context, of studio.Sitting, light string) (wire.View, error) {
	v, err := Look{Medium: of.Medium.ID, Light: light, Judged: "dry"}.view()
	if err == nil {
		v.Doubts, err = s.studio.Doubts(ctx, painterIfAny)
	}
	return v, err
}

type sittingID struct {
	ID    int64  `path:"id" doc:"a sitting"`
	Light string `query:"light" default:"D65" format:"light" doc:"that its colours are seen in"`
}

type oneSitting struct{ Body wire.Sitting }

type beginInput struct {
	ID   int64 `path:"id" doc:"a kept wheel"`
	Body struct {
		Sheet   wire.BenchSheet `json:"sheet,omitempty" doc:"what is to be painted; the wheel where nothing is said"`
		Measure string          `json:"measure,omitempty" maxLength:"20" doc:"what is counted out in; the wheel's own when empty"`
		One     float64         `json:"one,omitempty" doc:"ml of one drop, load or tip"`
	}
}

func (s *Server) beginSitting(ctx context.Context, in *beginInput) (*oneSitting, error) {
	table := recipe.Scale{}
	if in.Body.Measure != "" {
		var err error
		if table, err = recipe.NewScale(recipe.Measure(in.Body.Measure), in.Body.One); err != nil {
			return nil, input.Wrap(err)
		}
	}
	which, named := in.Body.Sheet.Core()
	begun, err := s.studio.BeginSitting(ctx, painter(ctx), in.ID, which, named, table)
	if err != nil {
		return nil, err
	}
	return s.shapedSitting(ctx, begun, "D65")
}

func (s *Server) sittings(ctx context.Context, _ *struct{}) (*struct{ Body []wire.SittingListed }, error) {
	kept, err := s.studio.Sittings(ctx, painter(ctx))
	out := &struct{ Body []wire.SittingListed }{[]wire.SittingListed{}}
	for _, one := range kept {
		out.Body = append(out.Body, wire.SittingListedOf(one))
	}
	return out, err
}

func (s *Server) underWay(ctx context.Context, _ *struct{}) (*struct{ Body []wire.SittingUnderWay }, error) {
	all, err := s.studio.UnderWay(ctx, painter(ctx))
	out := &struct{ Body []wire.SittingUnderWay }{[]wire.SittingUnderWay{}}
	for _, one := range all {
		out.Body = append(out.Body, wire.SittingUnderWayOf(one))
	}
	return out, err
}

func (s *Server) sitting(ctx context.Context, in *sittingID) (*oneSitting, error) {
	got, err := s.studio.Sitting(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return s.shapedSitting(ctx, got, in.Light)
}

type tellInput struct {
	ID    int64  `path:"id" doc:"a sitting"`
	Light string `query:"light" default:"D65" format:"light" doc:"that its colours are seen in"`
	Body  struct {
		Events []wire.SittingEvent `json:"events" minItems:"1" maxItems:"500"`
	}
}

func (s *Server) tellSitting(ctx context.Context, in *tellInput) (*struct{ Body wire.SittingTold }, error) {
	var events []studio.Told
	for _, e := range in.Body.Events {
		events = append(events, e.Core())
	}
	got, untold, err := s.studio.Tell(ctx, painter(ctx), in.ID, events)
	if err != nil {
		return nil, err
	}
	v, err := s.sittingView(ctx, got, in.Light)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.SittingTold }{v.Told(got, untold)}, nil
}

// changes streams, as server-sent events, which of the painter's sittings something was done in.
func (s *Server) changes(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
	told, stop := s.studio.Watch(painter(ctx))
	return s.streamed(ctx, told, stop, streamTime, func(sitting int64) (string, bool) {
		if sitting == 0 {
			return "all", true
		}
		return strconv.FormatInt(sitting, 10), true
	}), nil
}

func (s *Server) sittingRoutes() {
	register(s, huma.Operation{OperationID: "beginSitting", Tags: []string{"sitting"}, Summary: "Begins to paint a sheet of a kept wheel", Method: http.MethodPost, Path: "/api/wheels/{id}/sittings"}, s.beginSitting)
	register(s, huma.Operation{OperationID: "sittings", Tags: []string{"sitting"}, Summary: "The painter's sittings, the last one first", Method: http.MethodGet, Path: "/api/sittings"}, s.sittings)
	register(s, huma.Operation{OperationID: "underWay", Tags: []string{"sitting"}, Summary: "The sittings that were begun and not ended, and how far they have come", Method: http.MethodGet, Path: "/api/under-way"}, s.underWay)
	register(s, huma.Operation{OperationID: "sitting", Tags: []string{"sitting"}, Summary: "Where a sitting stands, and what is left planned from there", Method: http.MethodGet, Path: "/api/sittings/{id}"}, s.sitting)
	register(s, huma.Operation{OperationID: "tellSitting", Tags: []string{"sitting"}, Summary: "Says what was done in a sitting, each event by itself; what was said before changes nothing", Method: http.MethodPost, Path: "/api/sittings/{id}/events"}, s.tellSitting)
	register(s, huma.Operation{OperationID: "dropSitting", Tags: []string{"sitting"}, Summary: "Takes a sitting away with all that belongs to it", Method: http.MethodDelete, Path: "/api/sittings/{id}"},
		func(ctx context.Context, in *sittingID) (*struct{}, error) {
			return nil, s.studio.DropSitting(ctx, painter(ctx), in.ID)
		})
	register(s, huma.Operation{OperationID: "changes", Tags: []string{"sitting"}, Summary: "Server-sent events: one, with its id, whenever something was done in one of the painter's sittings", Method: http.MethodGet, Path: "/api/changes"}, s.changes)
}

// How long changes are streamed at a time, how often a silent stream says that it is
// there, and after how long a browser asks again.
const (
	streamTime = 25 * time.Second
	streamBeat = 5 * time.Second
	streamWait = 300 * time.Millisecond
)

// streamed is an answer that goes on as stream does; at its end stop is called.
func (s *Server) streamed(ctx context.Context, told <-chan int64, stop func(), long time.Duration, inWords func(told int64) (words string, more bool)) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(h huma.Context) {
		h.SetHeader("Content-Type", "text/event-stream")
		h.SetHeader("Cache-Control", "no-store")
		request, _ := ctx.Value(requestKey{}).(*fasthttp.RequestCtx)
		request.SetBodyStreamWriter(func(w *bufio.Writer) {
			defer stop()
			s.stream(w, told, long, inWords)
		})
	}}
}

// stream tells a browser of changes, in words, until those say that there are no more, it goes away, so long has passed or
// the server stops; the browser then asks again.
func (s *Server) stream(w *bufio.Writer, told <-chan int64, long time.Duration, inWords func(told int64) (words string, more bool)) {
	end, beat := time.NewTimer(long), time.NewTicker(streamBeat)
	defer end.Stop()
	defer beat.Stop()
	say := func(what string) bool {
		_, _ = w.WriteString(what) // Flush says whether it got there
		return w.Flush() == nil
	}
	if !say(fmt.Sprintf("retry: %d\n\n", streamWait.Milliseconds())) {
		return
	}
	for {
		select {
		case of := <-told:
			words, more := inWords(of)
			if !say("data: "+words+"\n\n") || !more {
				return
			}
		case <-beat.C:
			if !say(": here\n\n") {
				return
			}
		case <-end.C:
			return
		case <-s.stopping:
			return
		}
	}
}
