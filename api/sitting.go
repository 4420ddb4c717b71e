package api

import (
	"bufio"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/valyala/fasthttp"

	"gyrophane/core/input"
	"gyrophane/core/recipe"
	"gyrophane/studio"
	"gyrophane/wire"
)

// shapedSitting is a sitting seen in a light, in its own medium and dry.
func shapedSitting(of studio.Sitting, light string) (*oneSitting, error) {
	v, err := Look{Medium: of.Medium.ID, Light: light, Judged: "dry"}.view()
	if err != nil {
		return nil, err
	}
	return &oneSitting{v.Sitting(of)}, nil
}

type sittingID struct {
	ID    int64  `path:"id" doc:"a sitting"`
	Light string `query:"light" default:"D65" format:"light" doc:"that its colours are seen in"`
}

type oneSitting struct{ Body wire.Sitting }

func (s *Server) sittingRoutes() {
	type begin struct {
		ID   int64 `path:"id" doc:"a kept wheel"`
		Body struct {
			Sheet   wire.BenchSheet `json:"sheet,omitempty" doc:"what is to be painted; the wheel where nothing is said"`
			Measure string          `json:"measure,omitempty" maxLength:"20" doc:"what is counted out in; the wheel's own when empty"`
			One     float64         `json:"one,omitempty" doc:"ml of one drop, load or tip"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "beginSitting", Tags: []string{"sitting"}, Summary: "Begins to paint a sheet of a kept wheel", Method: http.MethodPost, Path: "/api/wheels/{id}/sittings"},
		func(ctx context.Context, in *begin) (*oneSitting, error) {
			table := recipe.Scale{}
			if in.Body.Measure != "" {
				var err error
				if table, err = recipe.NewScale(recipe.Measure(in.Body.Measure), in.Body.One); err != nil {
					return nil, s.refusal(input.Wrap(err))
				}
			}
			which, ladder := in.Body.Sheet.Core()
			begun, err := s.studio.BeginSitting(ctx, painter(ctx), in.ID, which, ladder, table)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := shapedSitting(begun, "D65")
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "sittings", Tags: []string{"sitting"}, Summary: "The painter's sittings, the last one first", Method: http.MethodGet, Path: "/api/sittings"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body []wire.SittingListed }, error) {
			kept, err := s.studio.Sittings(ctx, painter(ctx))
			out := &struct{ Body []wire.SittingListed }{[]wire.SittingListed{}}
			for _, one := range kept {
				out.Body = append(out.Body, wire.SittingListedOf(one))
			}
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "sitting", Tags: []string{"sitting"}, Summary: "Where a sitting stands, and what is left planned from there", Method: http.MethodGet, Path: "/api/sittings/{id}"},
		func(ctx context.Context, in *sittingID) (*oneSitting, error) {
			got, err := s.studio.Sitting(ctx, painter(ctx), in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := shapedSitting(got, in.Light)
			return out, s.refusal(err)
		})

	type told struct {
		ID    int64  `path:"id" doc:"a sitting"`
		Light string `query:"light" default:"D65" format:"light" doc:"that its colours are seen in"`
		Body  struct {
			Events []wire.SittingEvent `json:"events" minItems:"1" maxItems:"500"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "tellSitting", Tags: []string{"sitting"}, Summary: "Says what was done in a sitting; what was said before changes nothing", Method: http.MethodPost, Path: "/api/sittings/{id}/events"},
		func(ctx context.Context, in *told) (*oneSitting, error) {
			var events []studio.Told
			for _, e := range in.Body.Events {
				events = append(events, e.Core())
			}
			got, err := s.studio.Tell(ctx, painter(ctx), in.ID, events)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := shapedSitting(got, in.Light)
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "dropSitting", Tags: []string{"sitting"}, Summary: "Takes a sitting away with all that belongs to it", Method: http.MethodDelete, Path: "/api/sittings/{id}"},
		func(ctx context.Context, in *sittingID) (*struct{}, error) {
			return nil, s.refusal(s.studio.DropSitting(ctx, painter(ctx), in.ID))
		})

	huma.Register(s.api, huma.Operation{OperationID: "watchSitting", Tags: []string{"sitting"}, Summary: "Server-sent events: one whenever something was done in the sitting", Method: http.MethodGet, Path: "/api/sittings/{id}/changes"},
		func(ctx context.Context, in *sittingID) (*huma.StreamResponse, error) {
			told, stop, err := s.studio.Watch(ctx, painter(ctx), in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			return &huma.StreamResponse{Body: func(h huma.Context) {
				h.SetHeader("Content-Type", "text/event-stream")
				h.SetHeader("Cache-Control", "no-store")
				request, _ := ctx.Value(requestKey{}).(*fasthttp.RequestCtx)
				request.SetBodyStreamWriter(func(w *bufio.Writer) {
					defer stop()
					s.stream(w, told)
				})
			}}, nil
		})
}

// How long changes are streamed at a time, how often a silent stream says that it is
// there, and after how long a browser asks again.
const (
	streamTime = 25 * time.Second
	streamBeat = 5 * time.Second
	streamWait = 300 * time.Millisecond
)

// stream tells a browser of changes until it goes away, the time is over or the server
// stops; the browser then asks again.
func (s *Server) stream(w *bufio.Writer, told <-chan struct{}) {
	end, beat := time.NewTimer(streamTime), time.NewTicker(streamBeat)
	defer end.Stop()
	defer beat.Stop()
	say := func(what string) bool {
		_, _ = w.WriteString(what) // Flush says whether it got there
		return w.Flush() == nil
	}
	if !say(fmt.Sprintf("retry: %d\ndata: here\n\n", streamWait.Milliseconds())) {
		return
	}
	for {
		select {
		case <-told:
			if !say("data: changed\n\n") {
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
