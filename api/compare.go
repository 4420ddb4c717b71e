package api

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"
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

// prices are what the tubes of the painter's box cost, by paint; a paint of the
// library costs what the cheapest tube of it does.
func (s *Server) prices(ctx context.Context) (map[string]float64, error) {
	box, _, err := s.openBox(ctx)
	return pricesOf(box), err
}

func pricesOf(box []opened) map[string]float64 {
	out := map[string]float64{}
	for _, o := range box {
		p := o.kept.Price
		if p == nil {
			continue
		}
		out[o.paint.ID] = *p
		if id := o.definition.Library; id != "" {
			if least, ok := out[id]; !ok || *p < least {
				out[id] = *p
			}
		}
	}
	return out
}

// sideBySide finds kept systems as they were kept, and what their tubes cost now.
func (s *Server) sideBySide(ctx context.Context, ids []int64) (out []exchange.Named, err error) {
	prices, err := s.prices(ctx)
	if err != nil {
		return nil, err
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

// KeptComparison is a comparison that was kept, and what came of it.
type KeptComparison struct {
	ID       int64     `json:"id"`
	Address  string    `json:"address" maxLength:"500" doc:"of the page, behind its question mark: opens the same picture again"`
	Note     string    `json:"note" maxLength:"2000"`
	Decision string    `json:"decision" maxLength:"2000" doc:"what was decided, and why"`
	Version  int       `json:"version"`
	Made     time.Time `json:"made"`
}

func (s *Server) comparisons(ctx context.Context) (*struct{ Body []KeptComparison }, error) {
	kept, err := s.store.Comparisons(ctx, painter(ctx).ID)
	out := &struct{ Body []KeptComparison }{[]KeptComparison{}}
	for _, c := range kept {
		out.Body = append(out.Body, KeptComparison{c.ID, c.Address, c.Note, c.Decision, c.Version, c.CreatedAt})
	}
	return out, s.refusal(err)
}

// wheelsOf are the kept systems that the address of a comparison names.
func wheelsOf(address string) (out []int64) {
	asked, err := url.ParseQuery(address)
	if err != nil {
		return nil
	}
	for _, text := range strings.Split(asked.Get("systems"), ",") {
		if id, err := strconv.ParseInt(text, 10, 64); err == nil {
			out = append(out, id)
		}
	}
	return out
}

func (s *Server) comparisonRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "comparisons", Tags: []string{"comparing"}, Summary: "The comparisons that were kept", Method: http.MethodGet, Path: "/api/comparisons"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body []KeptComparison }, error) {
			return s.comparisons(ctx)
		})

	type keep struct {
		Body struct {
			Address  string `json:"address" maxLength:"500"`
			Note     string `json:"note" maxLength:"2000"`
			Decision string `json:"decision" maxLength:"2000"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "keepComparison", Tags: []string{"comparing"}, Summary: "Keeps a comparison with a note and a decision", Method: http.MethodPost, Path: "/api/comparisons"},
		func(ctx context.Context, in *keep) (*struct{ Body []KeptComparison }, error) {
			if _, err := s.store.KeepComparison(ctx, painter(ctx).ID, store.Comparison{Address: in.Body.Address, Note: in.Body.Note, Decision: in.Body.Decision}, wheelsOf); err != nil {
				return nil, s.refusal(err)
			}
			return s.comparisons(ctx)
		})

	type note struct {
		ID   int64 `path:"id" doc:"which one"`
		Body struct {
			Note     string `json:"note" maxLength:"2000"`
			Decision string `json:"decision" maxLength:"2000"`
			Version  int    `json:"version" doc:"that was looked at"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "noteComparison", Tags: []string{"comparing"}, Summary: "Changes note and decision of a kept comparison", Method: http.MethodPut, Path: "/api/comparisons/{id}"},
		func(ctx context.Context, in *note) (*struct{ Body []KeptComparison }, error) {
			change := store.Comparison{ID: in.ID, Note: in.Body.Note, Decision: in.Body.Decision, Version: in.Body.Version}
			if err := s.store.NoteComparison(ctx, painter(ctx).ID, change, wheelsOf); err != nil {
				return nil, s.refusal(err)
			}
			return s.comparisons(ctx)
		})

	huma.Register(s.api, huma.Operation{OperationID: "dropComparison", Tags: []string{"comparing"}, Summary: "Takes a kept comparison away", Method: http.MethodDelete, Path: "/api/comparisons/{id}"},
		func(ctx context.Context, in *struct {
			ID int64 `path:"id" doc:"which one"`
		}) (*struct{ Body []KeptComparison }, error) {
			if err := s.store.DropComparison(ctx, painter(ctx).ID, in.ID); err != nil {
				return nil, s.refusal(err)
			}
			return s.comparisons(ctx)
		})
}

func (s *Server) compare(ctx context.Context, in *Compared) (out exchange.Comparison, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	systems, err := s.sideBySide(ctx, in.Wheels)
	if err != nil {
		return out, err
	}
	return v.Compare(systems)
}

func (s *Server) wanted(ctx context.Context) ([]exchange.Wanted, error) {
	kept, err := s.store.Wanted(ctx, painter(ctx).ID)
	return wantedOf(kept), err
}

func wantedOf(kept []store.WantedColour) (out []exchange.Wanted) {
	for _, w := range kept {
		out = append(out, exchange.Wanted{Name: w.Name, Colour: w.Colour})
	}
	return out
}

// matches matches a painter's wanted colours with kept systems.
func (s *Server) matches(ctx context.Context, in *Compared) (systems []exchange.Named, kept []store.WantedColour, got []exchange.WantedColour, err error) {
	v, err := in.view()
	if err != nil {
		return nil, nil, nil, err
	}
	if systems, err = s.sideBySide(ctx, in.Wheels); err != nil {
		return nil, nil, nil, err
	}
	var palettes [][]*paint.Paint
	for _, n := range systems {
		palettes = append(palettes, exchange.MixesFrom(n.System))
	}
	if kept, err = s.store.Wanted(ctx, painter(ctx).ID); err != nil {
		return nil, nil, nil, err
	}
	got, err = v.Match(palettes, wantedOf(kept))
	return systems, kept, got, err
}

func (s *Server) compareRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "compare", Tags: []string{"comparing"}, Summary: "Kept systems side by side: reach, figures, steps, differences", Method: http.MethodGet, Path: "/api/compare"},
		func(ctx context.Context, in *Compared) (*struct{ Body exchange.Comparison }, error) {
			out, err := s.compare(ctx, in)
			return &struct{ Body exchange.Comparison }{out}, s.refusal(err)
		})

	type export struct {
		Compared
		Format string `query:"format" required:"true" enum:"svg,csv" doc:"of the file"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "exportComparison", Tags: []string{"comparing"}, Summary: "A comparison as a drawing or a table", Method: http.MethodGet, Path: "/api/compare/export"},
		func(ctx context.Context, in *export) (*Export, error) {
			c, err := s.compare(ctx, &in.Compared)
			if err != nil {
				return nil, s.refusal(err)
			}
			out := &Export{ContentType: "text/csv; charset=utf-8", ContentDisposition: fmt.Sprintf("attachment; filename=%q", "comparison."+in.Format)}
			if in.Format == "svg" {
				out.ContentType, out.Body = "image/svg+xml", c.SVG()
			} else {
				out.Body = c.CSV()
			}
			return out, nil
		})

	type file struct{ RawBody []byte }
	huma.Register(s.api, huma.Operation{OperationID: "readWanted", Tags: []string{"comparing"}, Summary: "Reads wanted colours from a palette or a table; nothing is kept", Method: http.MethodPost, Path: filesBelow + "wanted", MaxBodyBytes: exchange.MostFileBytes + 1<<10},
		func(_ context.Context, in *file) (*struct{ Body []exchange.WantedRow }, error) {
			rows, err := exchange.ReadWanted(in.RawBody)
			return &struct{ Body []exchange.WantedRow }{rows}, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "wanted", Tags: []string{"comparing"}, Summary: "The wanted colours, and the best recipe of each system for each", Method: http.MethodGet, Path: "/api/wanted"},
		func(ctx context.Context, in *Compared) (*struct{ Body []WantedKept }, error) {
			_, kept, got, err := s.matches(ctx, in)
			out := &struct{ Body []WantedKept }{[]WantedKept{}}
			for i, w := range got {
				out.Body = append(out.Body, WantedKept{kept[i].ID, w})
			}
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "exportRecipes", Tags: []string{"comparing"}, Summary: "The recipes for the wanted colours as a table", Method: http.MethodGet, Path: "/api/wanted/export"},
		func(ctx context.Context, in *Compared) (*Export, error) {
			systems, _, got, err := s.matches(ctx, in)
			if err != nil {
				return nil, s.refusal(err)
			}
			return &Export{ContentType: "text/csv; charset=utf-8", ContentDisposition: `attachment; filename="recipes.csv"`, Body: exchange.RecipesCSV(systems, got)}, nil
		})

	type want struct {
		Body []exchange.Wanted `minItems:"1" maxItems:"24"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "want", Tags: []string{"comparing"}, Summary: "Keeps more wanted colours, all or none", Method: http.MethodPost, Path: "/api/wanted", DefaultStatus: http.StatusNoContent},
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

	huma.Register(s.api, huma.Operation{OperationID: "unwant", Tags: []string{"comparing"}, Summary: "Takes a wanted colour away", Method: http.MethodDelete, Path: "/api/wanted/{id}", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *struct {
			ID int64 `path:"id" doc:"which one"`
		}) (*struct{}, error) {
			return nil, s.refusal(s.store.Unwant(ctx, painter(ctx).ID, in.ID))
		})

	type replace struct {
		Look
		Wheel int64    `query:"wheel" required:"true" doc:"a kept system"`
		From  string   `query:"from" default:"box" enum:"box,library" doc:"from which paints"`
		Tried []string `query:"tried" maxItems:"12" doc:"a tube of the system and what is tried in its place, with ~ between"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "replace", Tags: []string{"choosing"}, Summary: "What replaces each tube of a kept system best", Method: http.MethodPost, Path: "/api/replace"},
		func(ctx context.Context, in *replace) (*struct{ Body []exchange.Swapped }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			var out []exchange.Swapped
			err = s.search(ctx, "replace", "", func(ctx context.Context, _ *search) error {
				systems, err := s.sideBySide(ctx, []int64{in.Wheel})
				if err != nil {
					return err
				}
				candidates := paint.Library()
				if in.From == "box" {
					if candidates, err = s.boxPaints(ctx); err != nil {
						return err
					}
				}
				find, tried := s.finder(ctx, nil, nil), map[string]*paint.Paint{}
				for _, pair := range in.Tried {
					out, put, _ := strings.Cut(pair, "~")
					if tried[out], err = find(put); err != nil {
						return err
					}
				}
				out, err = v.Replace(ctx, systems[0].System, candidates, tried)
				return err
			})
			return &struct{ Body []exchange.Swapped }{out}, s.refusal(tooLong(err))
		})

	type choose struct {
		Look
		Kind     string   `query:"kind" required:"true" enum:"triad,split,double" doc:"of system"`
		From     string   `query:"from" default:"box" enum:"box,library" doc:"from which paints"`
		Aim      string   `query:"aim" default:"coverage" enum:"coverage,price,tubes,targets" doc:"what for: the most clean hues, the least price, the fewest tubes, the wanted colours"`
		Careful  bool     `query:"careful" doc:"no paint whose class carries a special hazard"`
		Without  []string `query:"without" maxItems:"12" doc:"no paint of these classes of caution"`
		Contains []string `query:"contains" maxItems:"6" doc:"paints that must be in it"`
		Ticket   string   `query:"ticket" maxLength:"40" doc:"names the search, so that one can ask how far it is, and end it; the painter's search of before is ended in any case"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "choose", Tags: []string{"choosing"}, Summary: "The best system of a kind for an aim, exactly", Method: http.MethodPost, Path: "/api/choose"},
		func(ctx context.Context, in *choose) (*struct{ Body exchange.Chosen }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			var out exchange.Chosen
			err = s.search(ctx, "choose", in.Ticket, func(ctx context.Context, one *search) error {
				tubes, _, err := s.openBox(ctx)
				if err != nil {
					return err
				}
				box, prices := paintsOf(tubes), pricesOf(tubes)
				wanted, err := s.wanted(ctx)
				if err != nil {
					return err
				}
				began := time.Now()
				out, err = v.Choose(ctx, box, exchange.Choosing{Kind: wheel.SystemKind(in.Kind), Aim: in.Aim, Library: in.From == "library", Contains: in.Contains, Careful: in.Careful, Without: in.Without, Prices: prices, Wanted: wanted, Workers: searchWorkers, Tell: one.tell, Table: s.table})
				out.ElapsedMs = float64(time.Since(began).Microseconds()) / 1000
				return err
			})
			if err != nil {
				return nil, s.refusal(tooLong(err))
			}
			return &struct{ Body exchange.Chosen }{out}, nil
		})
}
