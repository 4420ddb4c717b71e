package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/exchange"
)

func (s *Server) glazeRoutes() {
	type glazes struct {
		Look
		Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
		Body  struct {
			System    exchange.SystemContent `json:"system"`
			Choices   exchange.WheelChoices  `json:"choices"`
			Ground    string                 `json:"ground,omitempty" maxLength:"60" doc:"a paint; white paper when left out"`
			Layers    []exchange.GlazeLayer  `json:"layers" maxItems:"4" doc:"from below"`
			Thickness float64                `json:"thickness" minimum:"0.05" maximum:"12" doc:"of each slot of the glazed wheel"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "glazes", Tags: []string{"wheels"}, Summary: "The wheel of a system in dry layers", Method: http.MethodPost, Path: "/api/glazes", Metadata: lazily},
		func(ctx context.Context, in *glazes) (*struct{ Body exchange.Glazes }, error) {
			v, system, find, err := s.asked(ctx, in.Look, in.Wheel, in.Body.System)
			if err != nil {
				return nil, s.refusal(err)
			}
			var ground *paint.Paint
			if in.Body.Ground != "" {
				if ground, err = find(in.Body.Ground); err != nil {
					return nil, s.refusal(err)
				}
			}
			out, err := v.Glazes(system, in.Body.Choices, ground, in.Body.Layers, in.Body.Thickness, find)
			return &struct{ Body exchange.Glazes }{out}, s.refusal(err)
		})
}
