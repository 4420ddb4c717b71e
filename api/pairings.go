package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/studio"
	"gyrophane/wire"
)

// PairMark is how far a painter has come with a pairing.
type PairMark struct {
	A    string `json:"a" doc:"paint"`
	B    string `json:"b"`
	Mark string `json:"mark" enum:"to paint,painted,judged"`
}

func (s *Server) pairMarks(ctx context.Context, _ *struct{}) (*struct{ Body []PairMark }, error) {
	kept, err := s.store.PairMarks(ctx, painter(ctx).ID)
	out := &struct{ Body []PairMark }{[]PairMark{}}
	for _, m := range kept {
		out.Body = append(out.Body, PairMark{m.A, m.B, m.Mark})
	}
	return out, err
}

type systemPairingsInput struct {
	Look
	Spaced
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  struct {
		System wire.Selection `json:"system"`
	}
}

func (s *Server) systemPairings(ctx context.Context, in *systemPairingsInput) (*struct{ Body wire.Pairings }, error) {
	v, system, _, err := s.system(ctx, in.Look, in.Wheel, in.Body.System)
	if err != nil {
		return nil, err
	}
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.Pairings }{v.SystemPairings(system, spacing, s.studio.School(ctx, painterIfAny))}, nil
}

type boxPairingsInput struct {
	Look
	Spaced
	Paints []string `query:"paints" maxItems:"60" doc:"only these, of the box or of the library; all of the box when none is named"`
}

func (s *Server) boxPairings(ctx context.Context, in *boxPairingsInput) (*struct{ Body wire.Pairings }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return nil, err
	}
	paints, err := s.studio.PairedPaints(ctx, painter(ctx), in.Paints)
	if err != nil {
		return nil, err
	}
	if v.Doubts, err = s.studio.Doubts(ctx, studio.As(painter(ctx))); err != nil {
		return nil, err
	}
	return &struct{ Body wire.Pairings }{v.PaintPairings(paints, spacing, bias.School(painter(ctx).WarmBlue))}, nil
}

type markPairsInput struct {
	Body []struct {
		A    string `json:"a" minLength:"1" maxLength:"60"`
		B    string `json:"b" minLength:"1" maxLength:"60"`
		Mark string `json:"mark" enum:"to paint,painted,judged,none"`
		Was  string `json:"was" enum:"to paint,painted,judged,none" doc:"as it was when the painter looked"`
	} `minItems:"1" maxItems:"240"`
}

func (s *Server) markPairs(ctx context.Context, in *markPairsInput) (*struct{ Body []PairMark }, error) {
	plain := map[string]string{"to paint": "to paint", "painted": "painted", "judged": "judged"}
	var markings []studio.Marking
	for _, m := range in.Body {
		markings = append(markings, studio.Marking{A: m.A, B: m.B, Mark: plain[m.Mark], Was: plain[m.Was]})
	}
	if err := s.studio.Mark(ctx, painter(ctx), markings); err != nil {
		return nil, err
	}
	return s.pairMarks(ctx, nil)
}

func (s *Server) pairingRoutes() {
	register(s, huma.Operation{OperationID: "systemPairings", Tags: []string{"pairings"}, Summary: "Every two paints of a system", Method: http.MethodPost, Path: "/api/pairings", Metadata: painterForTubes}, s.systemPairings)
	register(s, huma.Operation{OperationID: "boxPairings", Tags: []string{"pairings"}, Summary: "Every two paints of the box, or of some paints", Method: http.MethodGet, Path: "/api/box/pairings"}, s.boxPairings)

	register(s, huma.Operation{OperationID: "pairMarks", Tags: []string{"pairings"}, Summary: "How far the painter has come with each pairing", Method: http.MethodGet, Path: "/api/pairings/marks"}, s.pairMarks)
	register(s, huma.Operation{OperationID: "markPairs", Tags: []string{"pairings"}, Summary: "Marks pairings, all or none", Method: http.MethodPut, Path: "/api/pairings/marks"}, s.markPairs)
}
