package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

// Profile is a painter as others see one.
type Profile struct {
	ID         int64  `json:"id"`
	Name       string `json:"name"`
	Demo       bool   `json:"demo"`
	Passphrase bool   `json:"passphrase" doc:"whether a passphrase is asked for"`
}

type profilesOutput struct {
	Body struct {
		Painters []Profile `json:"painters"`
	}
}

func (s *Server) painterRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "listPainters", Method: http.MethodGet, Path: "/api/painters"},
		func(ctx context.Context, _ *struct{}) (*profilesOutput, error) {
			painters, err := s.store.Painters(ctx)
			if err != nil {
				return nil, huma.Error503ServiceUnavailable("the database does not answer")
			}
			out := &profilesOutput{}
			out.Body.Painters = []Profile{}
			for _, p := range painters {
				out.Body.Painters = append(out.Body.Painters, Profile{ID: p.ID, Name: p.Name, Demo: p.Demo, Passphrase: p.PassphraseHash != ""})
			}
			return out, nil
		})
}
