package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/exchange"
	"gyrophane/store"
)

// Predicted is a prediction beside what became of it.
type Predicted struct {
	Version int       `json:"version" doc:"of the wheel"`
	Home    int       `json:"home" doc:"the slot, clockwise with the first role on top"`
	HueWord string    `json:"hueWord"`
	Verdict string    `json:"verdict"`
	Made    time.Time `json:"made"`
	exchange.Outcome
}

func (s *Server) predicted(ctx context.Context, wheel int64) (*struct{ Body []Predicted }, error) {
	kept, err := s.store.Predictions(ctx, painter(ctx).ID, wheel)
	if err != nil {
		return nil, s.refusal(err)
	}
	out := &struct{ Body []Predicted }{[]Predicted{}}
	for _, p := range kept {
		one := Predicted{Version: p.WheelVersion, Home: p.Home, HueWord: p.HueWord, Verdict: p.Verdict, Made: p.CreatedAt}
		if err := json.Unmarshal(p.Outcome, &one.Outcome); err != nil {
			return nil, s.refusal(err)
		}
		out.Body = append(out.Body, one)
	}
	return out, nil
}

func (s *Server) predictionRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "predictions", Method: http.MethodGet, Path: "/api/wheels/{id}/predictions"},
		func(ctx context.Context, in *WheelID) (*struct{ Body []Predicted }, error) {
			return s.predicted(ctx, in.ID)
		})

	type predict struct {
		WheelID
		Body struct {
			Version int              `json:"version" minimum:"1"`
			Guesses []exchange.Guess `json:"guesses" minItems:"1" maxItems:"12"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "predict", Method: http.MethodPost, Path: "/api/wheels/{id}/predictions"},
		func(ctx context.Context, in *predict) (*struct{ Body []Predicted }, error) {
			w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			content, snap, err := contentOf(w.Content)
			if err != nil {
				return nil, s.refusal(err)
			}
			system, err := content.System.System(s.finder(ctx, snap.Frozen, nil))
			if err != nil {
				return nil, s.refusal(err)
			}
			outcomes, err := exchange.Score(system, content.Settings.Choices, in.Body.Guesses)
			if err != nil {
				return nil, s.refusal(err)
			}
			var rows []store.Prediction
			for i, g := range in.Body.Guesses {
				outcome, err := json.Marshal(outcomes[i])
				if err != nil {
					return nil, s.refusal(err)
				}
				rows = append(rows, store.Prediction{Home: g.Home, HueWord: g.HueWord, Verdict: g.Verdict, Outcome: outcome})
			}
			if err := s.store.Predict(ctx, painter(ctx).ID, in.ID, in.Body.Version, rows); err != nil {
				return nil, s.refusal(err)
			}
			return s.predicted(ctx, in.ID)
		})

	type neutrals struct {
		Look
		Wheel int64 `query:"wheel"`
		Slot  int   `query:"slot" minimum:"0" maximum:"11"`
		Steps int   `query:"steps" default:"7" minimum:"5" maximum:"7"`
		Body  struct {
			System  exchange.SystemContent `json:"system"`
			Choices exchange.WheelChoices  `json:"choices"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "neutrals", Method: http.MethodPost, Path: "/api/neutrals", Metadata: lazily},
		func(ctx context.Context, in *neutrals) (*struct{ Body exchange.Neutrals }, error) {
			v, system, find, err := s.asked(ctx, in.Look, in.Wheel, in.Body.System)
			if err != nil {
				return nil, s.refusal(err)
			}
			var riders []*paint.Paint
			if ref := in.Body.System.Riders.Convenience; ref != "" {
				p, err := find(ref)
				if err != nil {
					return nil, s.refusal(err)
				}
				riders = append(riders, p)
			}
			out, err := v.Neutrals(system, in.Body.Choices, in.Slot, in.Steps, riders)
			return &struct{ Body exchange.Neutrals }{out}, s.refusal(err)
		})

	type glazes struct {
		Look
		Wheel int64 `query:"wheel"`
		Body  struct {
			System    exchange.SystemContent `json:"system"`
			Choices   exchange.WheelChoices  `json:"choices"`
			Ground    string                 `json:"ground,omitempty" maxLength:"60" doc:"a paint; white paper when left out"`
			Layers    []exchange.GlazeLayer  `json:"layers" maxItems:"4" doc:"from below"`
			Thickness float64                `json:"thickness" minimum:"0.05" maximum:"12" doc:"of each slot of the glazed wheel"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "glazes", Method: http.MethodPost, Path: "/api/glazes", Metadata: lazily},
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
