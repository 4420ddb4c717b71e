package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/exchange"
)

// Look is how a question wants its colours shown.
type Look struct {
	Medium string `query:"medium" default:"acrylic" enum:"watercolour,gouache,tempera,acrylic,oil"`
	Light  string `query:"light" default:"D65" enum:"D65,D50,A"`
	Judged string `query:"judged" default:"dry" enum:"wet,dry"`
}

func (l Look) view() (exchange.View, error) { return exchange.ParseView(l.Medium, l.Light, l.Judged) }

// Spaced is a question about steps.
type Spaced struct {
	Spacing string `query:"spacing" default:"hue" enum:"hue,contrast,parts"`
}

type mixInput struct {
	Look
	Parts []string `query:"parts" required:"true" maxItems:"24" doc:"PAINT=PARTS, with commas between"`
}

type pairInput struct {
	Look
	Spaced
	A     string `query:"a" required:"true" maxLength:"60" doc:"paint"`
	B     string `query:"b" required:"true" maxLength:"60" doc:"paint"`
	Steps int    `query:"steps" default:"3" minimum:"1" maximum:"11"`
	Third string `query:"third" maxLength:"60" doc:"a paint that is traced into it"`
	Wheel int64  `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

// pair follows the way between two paints of the library, of the painter's box,
// or as they were kept with a wheel.
func (s *Server) pair(ctx context.Context, in *pairInput) (out exchange.Pair, err error) {
	v, spacing, err := exchange.ParseLook(in.Medium, in.Light, in.Judged, in.Spacing)
	if err != nil {
		return out, err
	}
	asked := exchange.SystemContent{Roles: [3][]string{{in.A}, {in.B}, {in.Third}}}
	find, err := s.systemFinder(ctx, in.Wheel, asked)
	if err != nil {
		return out, err
	}
	a, err := find(in.A)
	if err != nil {
		return out, err
	}
	b, err := find(in.B)
	if err != nil {
		return out, err
	}
	if out, err = v.Pair(a, b, in.Steps, spacing); err != nil || in.Third == "" {
		return out, err
	}
	third, err := find(in.Third)
	if err != nil {
		return out, err
	}
	return v.Contaminated(out, a, b, third, spacing, exchange.TaintShares)
}

// askRoutes answer what only needs computing: nothing is kept, nobody's rows
// are read.
func (s *Server) askRoutes() {
	ask(s, "paints", func(in *Look) ([]exchange.Paint, error) {
		v, err := in.view()
		if err != nil {
			return nil, err
		}
		return v.Library(), nil
	})
	ask(s, "mix", func(in *mixInput) (out exchange.Mix, err error) {
		v, err := in.view()
		if err != nil {
			return out, err
		}
		parts, err := exchange.ParseParts(in.Parts)
		if err != nil {
			return out, err
		}
		return v.Mix(parts)
	})
	huma.Register(s.api, huma.Operation{OperationID: "pair", Method: http.MethodGet, Path: "/api/pair", Metadata: lazily},
		func(ctx context.Context, in *pairInput) (*struct{ Body exchange.Pair }, error) {
			out, err := s.pair(ctx, in)
			return &struct{ Body exchange.Pair }{out}, s.refusal(err)
		})
}

// ask registers a question under /api/name.
func ask[In, Out any](s *Server, name string, answer func(*In) (Out, error)) {
	op := huma.Operation{OperationID: name, Method: http.MethodGet, Path: "/api/" + name, Metadata: anyones}
	huma.Register(s.api, op, func(_ context.Context, in *In) (*struct{ Body Out }, error) {
		out, err := answer(in)
		return &struct{ Body Out }{out}, s.refusal(err)
	})
}
