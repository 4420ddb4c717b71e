package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/journal"
	"gyrophane/wire"
)

// Predicted is a prediction beside what became of it.
type Predicted struct {
	Version int       `json:"version" doc:"of the wheel"`
	Home    int       `json:"home" doc:"the slot, clockwise with the first role on top"`
	HueWord string    `json:"hueWord"`
	Verdict string    `json:"verdict"`
	Made    time.Time `json:"made"`
	wire.Outcome
}

// Predictions are what was predicted of a wheel, and the score.
type Predictions struct {
	Predictions []Predicted `json:"predictions" doc:"the newest first"`
	Points      int         `json:"points"`
	OutOf       int         `json:"outOf" doc:"the points of so many predictions that are right"`
	Each        int         `json:"each" doc:"the points of one that is right"`
}

func (s *Server) predicted(ctx context.Context, wheel int64) (*struct{ Body Predictions }, error) {
	kept, err := s.store.Predictions(ctx, painter(ctx).ID, wheel)
	if err != nil {
		return nil, err
	}
	out := &struct{ Body Predictions }{Predictions{Predictions: []Predicted{}, Each: journal.MaxSlotPoints}}
	for _, p := range kept {
		one := Predicted{Version: p.WheelVersion, Home: p.Home, HueWord: p.HueWord, Verdict: p.Verdict, Made: p.CreatedAt, Outcome: wire.OutcomeOf(p.Outcome)}
		out.Body.Predictions = append(out.Body.Predictions, one)
		out.Body.Points += one.Points
		out.Body.OutOf += journal.MaxSlotPoints
	}
	return out, nil
}

func (s *Server) predictions(ctx context.Context, in *ThingID) (*struct{ Body Predictions }, error) {
	return s.predicted(ctx, in.ID)
}

type predictInput struct {
	ThingID
	Body struct {
		Version int          `json:"version" minimum:"1"`
		Guesses []wire.Guess `json:"guesses" minItems:"1" maxItems:"12"`
	}
}

func (s *Server) predict(ctx context.Context, in *predictInput) (*struct{ Body Predictions }, error) {
	var guesses []journal.SlotGuess
	for _, g := range in.Body.Guesses {
		guesses = append(guesses, journal.SlotGuess(g))
	}
	if err := s.studio.Predict(ctx, painter(ctx), in.ID, in.Body.Version, guesses); err != nil {
		return nil, err
	}
	return s.predicted(ctx, in.ID)
}

func (s *Server) predictionRoutes() {
	register(s, huma.Operation{OperationID: "predictions", Tags: []string{"practice"}, Summary: "What was predicted of a wheel, and the score", Method: http.MethodGet, Path: "/api/wheels/{id}/predictions"}, s.predictions)
	register(s, huma.Operation{OperationID: "predict", Tags: []string{"practice"}, Summary: "Keeps predictions of a wheel's slots, scored, all or none", Method: http.MethodPost, Path: "/api/wheels/{id}/predictions"}, s.predict)
}
