package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/exchange"
)

func (s *Server) neutralRoutes() {
	type neutrals struct {
		Look
		Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
		Slot  int   `query:"slot" minimum:"0" maximum:"11" doc:"the slot, clockwise from the top"`
		Steps int   `query:"steps" default:"7" minimum:"5" maximum:"7" doc:"of the intensity scale"`
		Body  struct {
			System  exchange.SystemContent `json:"system"`
			Choices exchange.WheelChoices  `json:"choices"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "neutrals", Tags: []string{"wheels"}, Summary: "Where the complements of a system cancel, and its darks and earths", Method: http.MethodPost, Path: "/api/neutrals", Metadata: lazily},
		func(ctx context.Context, in *neutrals) (*struct{ Body exchange.Neutrals }, error) {
			v, system, _, err := s.asked(ctx, in.Look, in.Wheel, in.Body.System)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Neutrals(system, in.Body.Choices, in.Slot, in.Steps)
			return &struct{ Body exchange.Neutrals }{out}, s.refusal(err)
		})
}
