package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/exchange"
	"gyrophane/store"
)

// Compared is what is asked for of kept systems side by side.
type Compared struct {
	Look
	Wheels []int64 `query:"wheels" required:"true" minItems:"1" maxItems:"4" doc:"kept systems, with commas between"`
}

// WantedKept is a wanted colour beside what each system comes to.
type WantedKept struct {
	ID int64 `json:"id"`
	exchange.WantedColour
}

// sideBySide finds kept systems as they were kept, and what their tubes cost now.
func (s *Server) sideBySide(ctx context.Context, ids []int64) (out []exchange.Named, err error) {
	box, _, err := s.openBox(ctx)
	if err != nil {
		return nil, err
	}
	prices := map[string]float64{}
	for _, o := range box {
		if p := o.kept.Price; p != nil {
			prices[o.paint.ID] = *p
		}
	}
	for _, id := range ids {
		w, err := s.store.Wheel(ctx, painter(ctx).ID, id)
		if err != nil {
			return nil, err
		}
		content, snap, err := contentOf(w.Content)
		if err != nil {
			return nil, err
		}
		system, err := content.System.System(s.finder(ctx, snap.Frozen, nil))
		if err != nil {
			return nil, err
		}
		out = append(out, exchange.Named{Name: w.Name, System: system, Prices: prices})
	}
	return out, nil
}

// matched matches a painter's wanted colours with kept systems.
func (s *Server) matched(ctx context.Context, in *Compared) (*struct{ Body []WantedKept }, error) {
	v, err := in.view()
	if err != nil {
		return nil, s.refusal(err)
	}
	systems, err := s.sideBySide(ctx, in.Wheels)
	if err != nil {
		return nil, s.refusal(err)
	}
	var palettes [][]*paint.Paint
	for _, n := range systems {
		palettes = append(palettes, exchange.MixesFrom(n.System))
	}
	kept, err := s.store.Wanted(ctx, painter(ctx).ID)
	if err != nil {
		return nil, s.refusal(err)
	}
	var wanted []exchange.Wanted
	for _, w := range kept {
		wanted = append(wanted, exchange.Wanted{Name: w.Name, Colour: w.Colour})
	}
	got, err := v.Match(palettes, wanted)
	if err != nil {
		return nil, s.refusal(err)
	}
	out := &struct{ Body []WantedKept }{[]WantedKept{}}
	for i, w := range got {
		out.Body = append(out.Body, WantedKept{kept[i].ID, w})
	}
	return out, nil
}

func (s *Server) compareRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "compare", Method: http.MethodGet, Path: "/api/compare"},
		func(ctx context.Context, in *Compared) (*struct{ Body exchange.Comparison }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			systems, err := s.sideBySide(ctx, in.Wheels)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Compare(systems)
			return &struct{ Body exchange.Comparison }{out}, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "wanted", Method: http.MethodGet, Path: "/api/wanted"}, s.matched)

	type want struct {
		Body []exchange.Wanted `minItems:"1" maxItems:"24"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "want", Method: http.MethodPost, Path: "/api/wanted", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *want) (*struct{}, error) {
			var more []store.WantedColour
			for _, w := range in.Body {
				if err := exchange.CheckWanted(w); err != nil {
					return nil, s.refusal(err)
				}
				more = append(more, store.WantedColour{Name: w.Name, Colour: w.Colour})
			}
			return nil, s.refusal(s.store.Want(ctx, painter(ctx).ID, more))
		})

	huma.Register(s.api, huma.Operation{OperationID: "unwant", Method: http.MethodDelete, Path: "/api/wanted/{id}", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *struct {
			ID int64 `path:"id"`
		}) (*struct{}, error) {
			return nil, s.refusal(s.store.Unwant(ctx, painter(ctx).ID, in.ID))
		})

	type choose struct {
		Look
		Kind     string   `query:"kind" required:"true" enum:"triad,split,double"`
		From     string   `query:"from" default:"box" enum:"box,library"`
		Contains []string `query:"contains" maxItems:"6" doc:"paints that must be in it"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "choose", Method: http.MethodGet, Path: "/api/choose"},
		func(ctx context.Context, in *choose) (*struct{ Body exchange.Chosen }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			box, err := s.boxPaints(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			began := time.Now()
			out, err := v.Choose(wheel.SystemKind(in.Kind), box, in.From == "library", in.Contains)
			if err != nil {
				return nil, s.refusal(err)
			}
			out.ElapsedMs = float64(time.Since(began).Microseconds()) / 1000
			return &struct{ Body exchange.Chosen }{out}, nil
		})
}
