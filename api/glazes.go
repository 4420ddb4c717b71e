package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/wire"
)

type glazesInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  struct {
		System    wire.Selection    `json:"system"`
		Choices   wire.WheelChoices `json:"choices"`
		Ground    string            `json:"ground,omitempty" maxLength:"60" doc:"a paint; white paper when left out"`
		Layers    []wire.GlazeLayer `json:"layers" maxItems:"4" doc:"from below"`
		Thickness float64           `json:"thickness" minimum:"0.05" maximum:"12" doc:"of each slot of the glazed wheel"`
	}
}

func (s *Server) glazes(ctx context.Context, in *glazesInput) (*struct{ Body wire.Glazes }, error) {
	v, system, find, err := s.system(ctx, in.Look, in.Wheel, in.Body.System)
	if err != nil {
		return nil, err
	}
	options, err := in.Body.Choices.Core().Options(v.Medium)
	if err != nil {
		return nil, err
	}
	var ground *paint.Paint
	if in.Body.Ground != "" {
		if ground, err = find(in.Body.Ground); err != nil {
			return nil, err
		}
	}
	var layers []wheel.GlazeLayer
	for _, l := range in.Body.Layers {
		layers = append(layers, wheel.GlazeLayer(l))
	}
	top := v.Medium.Surface(v.Wet)
	stack, err := wheel.StackOf(ground, layers, top, find)
	if err != nil {
		return nil, err
	}
	w := wheel.Build(system, options)
	slots, err := w.Glazed(wheel.GroundOf(ground), in.Body.Thickness, top)
	if err != nil {
		return nil, input.Sentence(err)
	}
	return &struct{ Body wire.Glazes }{v.Glazes(stack, w, slots)}, nil
}

func (s *Server) glazeRoutes() {
	register(s, huma.Operation{OperationID: "glazes", Tags: []string{"wheels"}, Summary: "The wheel of a system in dry layers", Method: http.MethodPost, Path: "/api/glazes", Metadata: painterForTubes}, s.glazes)
}
