package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/core/path"
	"gyrophane/exchange"
	"gyrophane/store"
)

// PairMark is how far a painter has come with a pairing.
type PairMark struct {
	A    string `json:"a" doc:"paint"`
	B    string `json:"b"`
	Mark string `json:"mark" enum:"to paint,painted,judged"`
}

func (s *Server) marks(ctx context.Context) (*struct{ Body []PairMark }, error) {
	kept, err := s.store.PairMarks(ctx, painter(ctx).ID)
	out := &struct{ Body []PairMark }{[]PairMark{}}
	for _, m := range kept {
		out.Body = append(out.Body, PairMark{m.A, m.B, m.Mark})
	}
	return out, s.refusal(err)
}

// school is which blue the painter calls warm; the usual one where nobody is
// signed in, or nobody can say who.
func (s *Server) school(ctx context.Context) bias.School {
	p, err := painterIfAny(ctx)
	if err != nil {
		return bias.VioletIsWarm
	}
	return bias.School(p.WarmBlue)
}

func (s *Server) pairingRoutes() {
	type ofSystem struct {
		Look
		Spaced
		Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
		Body  struct {
			System exchange.SystemContent `json:"system"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "systemPairings", Tags: []string{"pairings"}, Summary: "Every two paints of a system", Method: http.MethodPost, Path: "/api/pairings", Metadata: lazily},
		func(ctx context.Context, in *ofSystem) (*struct{ Body exchange.Pairings }, error) {
			v, system, _, err := s.asked(ctx, in.Look, in.Wheel, in.Body.System)
			if err != nil {
				return nil, s.refusal(err)
			}
			spacing, err := path.ParseSpacing(in.Spacing)
			if err != nil {
				return nil, s.refusal(exchange.Bad("%w", err))
			}
			return &struct{ Body exchange.Pairings }{v.SystemPairings(system, spacing, s.school(ctx))}, nil
		})

	type ofBox struct {
		Look
		Spaced
		Paints []string `query:"paints" maxItems:"60" doc:"only these, of the box or of the library; all of the box when none is named"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "boxPairings", Tags: []string{"pairings"}, Summary: "Every two paints of the box, or of some paints", Method: http.MethodGet, Path: "/api/box/pairings"},
		func(ctx context.Context, in *ofBox) (*struct{ Body exchange.Pairings }, error) {
			v, spacing, err := exchange.ParseLook(in.Medium, in.Light, in.Judged, in.Spacing)
			if err != nil {
				return nil, s.refusal(err)
			}
			paints, err := s.paints(ctx, 0, in.Paints)
			if len(in.Paints) == 0 {
				paints, err = s.boxPaints(ctx)
			}
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.BoxPairings(paints, spacing, s.school(ctx))
			return &struct{ Body exchange.Pairings }{out}, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "pairMarks", Tags: []string{"pairings"}, Summary: "How far the painter has come with each pairing", Method: http.MethodGet, Path: "/api/pairings/marks"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body []PairMark }, error) { return s.marks(ctx) })

	type marking struct {
		Body []struct {
			A    string `json:"a" minLength:"1" maxLength:"60"`
			B    string `json:"b" minLength:"1" maxLength:"60"`
			Mark string `json:"mark" enum:"to paint,painted,judged,none"`
			Was  string `json:"was" enum:"to paint,painted,judged,none" doc:"as it was when the painter looked"`
		} `minItems:"1" maxItems:"240"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "markPairs", Tags: []string{"pairings"}, Summary: "Marks pairings, all or none", Method: http.MethodPut, Path: "/api/pairings/marks"},
		func(ctx context.Context, in *marking) (*struct{ Body []PairMark }, error) {
			plain := map[string]string{"to paint": "to paint", "painted": "painted", "judged": "judged"}
			find := s.finder(ctx, nil, nil)
			var changes []store.MarkChange
			for _, m := range in.Body {
				if m.A == m.B {
					return nil, s.refusal(exchange.Bad("%s cannot be paired with itself", m.A))
				}
				var refs [2]string
				for i, ref := range []string{m.A, m.B} {
					p, err := find(ref)
					if err != nil {
						return nil, s.refusal(err)
					}
					refs[i] = p.ID
				}
				changes = append(changes, store.MarkChange{A: refs[0], B: refs[1], Mark: plain[m.Mark], Was: plain[m.Was]})
			}
			if err := s.store.MarkPairs(ctx, painter(ctx).ID, changes); err != nil {
				return nil, s.refusal(err)
			}
			return s.marks(ctx)
		})
}
