package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"
)

// register serves an operation; what its handler refuses is answered with a problem document.
func register[I, O any](s *Server, op huma.Operation, handle func(context.Context, *I) (*O, error)) {
	huma.Register(s.api, op, func(ctx context.Context, in *I) (*O, error) {
		out, err := handle(ctx, in)
		return out, s.refusal(err)
	})
}

// bodied makes a handler of what answers a question.
func bodied[I, T any](answer func(context.Context, *I) (T, error)) func(context.Context, *I) (*struct{ Body T }, error) {
	return func(ctx context.Context, in *I) (*struct{ Body T }, error) {
		out, err := answer(ctx, in)
		return &struct{ Body T }{out}, err
	}
}

// ThingID names the thing that a request is about.
type ThingID struct {
	ID int64 `path:"id" minimum:"1" doc:"which one"`
}
