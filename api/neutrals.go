package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/input"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/wire"
)

type neutralsInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Slot  int   `query:"slot" minimum:"0" maximum:"11" doc:"the slot, clockwise from the top"`
	Steps int   `query:"steps" default:"7" minimum:"5" maximum:"7" doc:"of the intensity scale"`
	Body  struct {
		System  wire.Selection    `json:"system"`
		Choices wire.WheelChoices `json:"choices"`
	}
}

func (s *Server) neutrals(ctx context.Context, in *neutralsInput) (*struct{ Body wire.Neutrals }, error) {
	v, system, _, err := s.system(ctx, in.Look, in.Wheel, in.Body.System)
	if err != nil {
		return nil, err
	}
	options, err := in.Body.Choices.Core().Options(v.Medium)
	if err != nil {
		return nil, err
	}
	if err := wheel.CheckIntensity(in.Steps); err != nil {
		return nil, err
	}
	earths, err := reach.Earths(system, v.Medium)
	if err != nil {
		return nil, input.Wrap(err)
	}
	atHand, err := s.studio.AtHand(ctx, painterIfAny)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.Neutrals }{v.Neutrals(wheel.Build(system, options), in.Slot, in.Steps, earths, atHand)}, nil
}

func (s *Server) neutralRoutes() {
	register(s, huma.Operation{OperationID: "neutrals", Tags: []string{"wheels"}, Summary: "Where the complements of a system cancel, and its darks and earths", Method: http.MethodPost, Path: "/api/neutrals", Metadata: painterForTubes}, s.neutrals)
}
