package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/jobs"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// ComparedQuery is what is asked for of kept systems side by side.
type ComparedQuery struct {
	Look
	Wheels []int64 `query:"wheels" required:"true" minItems:"1" maxItems:"4" doc:"kept systems, with commas between"`
}

// WantedKept is a wanted colour beside what each system comes to.
type WantedKept struct {
	ID int64 `json:"id"`
	wire.WantedColour
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

func (s *Server) comparisons(ctx context.Context, _ *struct{}) (*struct{ Body []KeptComparison }, error) {
	kept, err := s.store.Comparisons(ctx, painter(ctx).ID)
	out := &struct{ Body []KeptComparison }{[]KeptComparison{}}
	for _, c := range kept {
		out.Body = append(out.Body, KeptComparison{ID: c.ID, Address: c.Address, Note: c.Note, Decision: c.Decision, Version: c.Version, Made: c.CreatedAt})
	}
	return out, err
}

type keepComparisonInput struct {
	Body struct {
		Address  string `json:"address" maxLength:"500"`
		Note     string `json:"note" maxLength:"2000"`
		Decision string `json:"decision" maxLength:"2000"`
		Told     string `json:"told,omitempty" maxLength:"40" doc:"by which the page knows it: sent again it is kept once"`
	}
}

func (s *Server) keepComparison(ctx context.Context, in *keepComparisonInput) (*struct{ Body []KeptComparison }, error) {
	if _, err := s.store.KeepComparison(ctx, painter(ctx).ID, store.Comparison{Address: in.Body.Address, Note: in.Body.Note, Decision: in.Body.Decision, Told: in.Body.Told}, store.WheelsOf); err != nil {
		return nil, err
	}
	return s.comparisons(ctx, nil)
}

type noteComparisonInput struct {
	ID   int64 `path:"id" doc:"which one"`
	Body struct {
		Note     string `json:"note" maxLength:"2000"`
		Decision string `json:"decision" maxLength:"2000"`
		Version  int    `json:"version" doc:"that was looked at"`
	}
}

func (s *Server) noteComparison(ctx context.Context, in *noteComparisonInput) (*struct{ Body []KeptComparison }, error) {
	change := store.Comparison{ID: in.ID, Note: in.Body.Note, Decision: in.Body.Decision, Version: in.Body.Version}
	if err := s.store.NoteComparison(ctx, painter(ctx).ID, change, store.WheelsOf); err != nil {
		return nil, err
	}
	return s.comparisons(ctx, nil)
}

func (s *Server) dropComparison(ctx context.Context, in *ThingID) (*struct{ Body []KeptComparison }, error) {
	if err := s.store.DropComparison(ctx, painter(ctx).ID, in.ID); err != nil {
		return nil, err
	}
	return s.comparisons(ctx, nil)
}

func (s *Server) comparisonRoutes() {
	register(s, huma.Operation{OperationID: "comparisons", Tags: []string{"comparing"}, Summary: "The comparisons that were kept", Method: http.MethodGet, Path: "/api/comparisons"}, s.comparisons)
	register(s, huma.Operation{OperationID: "keepComparison", Tags: []string{"comparing"}, Summary: "Keeps a comparison with a note and a decision", Method: http.MethodPost, Path: "/api/comparisons"}, s.keepComparison)
	register(s, huma.Operation{OperationID: "noteComparison", Tags: []string{"comparing"}, Summary: "Changes note and decision of a kept comparison", Method: http.MethodPut, Path: "/api/comparisons/{id}"}, s.noteComparison)
	register(s, huma.Operation{OperationID: "dropComparison", Tags: []string{"comparing"}, Summary: "Takes a kept comparison away", Method: http.MethodDelete, Path: "/api/comparisons/{id}"}, s.dropComparison)
}

// compared are kept systems side by side, in the medium they are looked at in.
func (s *Server) compared(ctx context.Context, in *ComparedQuery) (v wire.View, out []reach.Compared, err error) {
	if v, err = in.view(); err != nil {
		return v, nil, err
	}
	systems, err := s.studio.SideBySide(ctx, painter(ctx), in.Wheels)
	if err != nil {
		return v, nil, err
	}
	out, err = reach.SideBySide(systems, v.Medium)
	return v, out, err
}

// matched are a painter's wanted colours matched with kept systems.
type matched struct {
	view    wire.View
	systems []reach.Named
	kept    []store.WantedColour
	wanted  []reach.Wanted
	matches []reach.TargetMatch
}

func (s *Server) matched(ctx context.Context, in *ComparedQuery) (m matched, err error) {
	if m.view, err = in.view(); err != nil {
		return m, err
	}
	if m.systems, err = s.studio.SideBySide(ctx, painter(ctx), in.Wheels); err != nil {
		return m, err
	}
	if m.kept, m.wanted, err = s.studio.Wanted(ctx, painter(ctx).ID); err != nil {
		return m, err
	}
	m.matches, err = s.studio.Match(ctx, m.systems, m.wanted, m.view.Medium)
	return m, err
}

func (s *Server) compare(ctx context.Context, in *ComparedQuery) (*struct{ Body wire.Comparison }, error) {
	v, systems, err := s.compared(ctx, in)
	if err != nil {
		return nil, err
	}
	if v.Doubts, err = s.studio.Doubts(ctx, studio.As(painter(ctx))); err != nil {
		return nil, err
	}
	return &struct{ Body wire.Comparison }{v.Comparison(systems)}, nil
}

type exportComparisonInput struct {
	ComparedQuery
	Format string `query:"format" required:"true" enum:"svg,csv" doc:"of the file"`
}

func (s *Server) exportComparison(ctx context.Context, in *exportComparisonInput) (*Export, error) {
	_, systems, err := s.compared(ctx, &in.ComparedQuery)
	if err != nil {
		return nil, err
	}
	doubts, err := s.studio.Doubts(ctx, studio.As(painter(ctx)))
	if err != nil {
		return nil, err
	}
	out := &Export{ContentType: "text/csv; charset=utf-8", ContentDisposition: fmt.Sprintf("attachment; filename=%q", "comparison."+in.Format)}
	if in.Format == "svg" {
		out.ContentType, out.Body = "image/svg+xml", files.ComparisonSVG(systems)
	} else {
		out.Body = files.ComparisonCSV(systems, doubts)
	}
	return out, nil
}

type readWantedInput struct{ RawBody []byte }

func (s *Server) readWanted(_ context.Context, in *readWantedInput) (*struct{ Body []wire.WantedRow }, error) {
	rows, err := files.ReadWanted(in.RawBody)
	out := &struct{ Body []wire.WantedRow }{}
	for _, r := range rows {
		out.Body = append(out.Body, wire.WantedRowOf(r.Line, r.Wanted, r.Lab, r.Problem))
	}
	return out, err
}

func (s *Server) wanted(ctx context.Context, in *ComparedQuery) (*struct{ Body []WantedKept }, error) {
	m, err := s.matched(ctx, in)
	if err != nil {
		return nil, err
	}
	out := &struct{ Body []WantedKept }{[]WantedKept{}}
	for i, w := range m.view.Matches(m.wanted, m.matches) {
		out.Body = append(out.Body, WantedKept{m.kept[i].ID, w})
	}
	return out, nil
}

func (s *Server) exportRecipes(ctx context.Context, in *ComparedQuery) (*Export, error) {
	m, err := s.matched(ctx, in)
	if err != nil {
		return nil, err
	}
	return &Export{ContentType: "text/csv; charset=utf-8", ContentDisposition: `attachment; filename="recipes.csv"`, Body: files.RecipesCSV(m.systems, m.wanted, m.matches, m.view.Medium)}, nil
}

type wantInput struct {
	Body []wire.Wanted `minItems:"1" maxItems:"24"`
}

func (s *Server) want(ctx context.Context, in *wantInput) (*struct{}, error) {
	var more []reach.Wanted
	for _, w := range in.Body {
		more = append(more, reach.Wanted(w))
	}
	return nil, s.studio.Want(ctx, painter(ctx).ID, more)
}

func (s *Server) unwant(ctx context.Context, in *ThingID) (*struct{}, error) {
	return nil, s.store.RemoveWanted(ctx, painter(ctx).ID, in.ID)
}

type replaceInput struct {
	Look
	Wheel int64    `query:"wheel" required:"true" doc:"a kept system"`
	From  string   `query:"from" default:"box" enum:"box,library" doc:"from which paints"`
	Tried []string `query:"tried" maxItems:"12" doc:"a tube of the system and what is tried in its place, with ~ between"`
}

func (s *Server) replace(ctx context.Context, in *replaceInput) (*struct{ Body []wire.Swapped }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	r := studio.Replacing{Wheel: in.Wheel, Library: in.From == "library", Tried: map[string]string{}}
	for _, pair := range in.Tried {
		out, put, _ := strings.Cut(pair, "~")
		r.Tried[out] = put
	}
	system, swaps, err := s.studio.Replace(ctx, painter(ctx), r)
	if err != nil {
		return nil, err
	}
	return &struct{ Body []wire.Swapped }{v.Swaps(system.System, swaps)}, nil
}

type chooseInput struct {
	Look
	Kind     string   `query:"kind" required:"true" format:"chosenKind" doc:"of system"`
	From     string   `query:"from" default:"box" enum:"box,library" doc:"from which paints"`
	Aim      string   `query:"aim" default:"coverage" format:"aim" doc:"what for: the most clean hues, the least price, the fewest tubes, the wanted colours"`
	Careful  bool     `query:"careful" doc:"no paint whose class carries a special hazard"`
	Lasting  bool     `query:"lasting" doc:"only paints of a lightfastness of I or II, typical of their class"`
	Without  []string `query:"without" maxItems:"12" doc:"no paint of these classes of caution"`
	Contains []string `query:"contains" maxItems:"6" doc:"paints that must be in it"`
	Ticket   string   `query:"ticket" maxLength:"40" doc:"names the search, so that one can ask how far it is, and end it; a painter may have four at once, one more ends the oldest"`
}

func (s *Server) choose(ctx context.Context, in *chooseInput) (*struct{ Body wire.Chosen }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	r := reach.Request{Kind: wheel.SystemKind(in.Kind), Aim: reach.Aim(in.Aim), Library: in.From == "library", Contains: in.Contains, Careful: in.Careful, Lasting: in.Lasting, Without: in.Without, Medium: v.Medium}
	r.Report = func(at reach.Progress) { report(ctx, jobs.Progress{Stage: string(at.Stage), Done: at.Done, Of: at.Of}) }
	began := time.Now()
	got, err := s.studio.Choose(ctx, painter(ctx).ID, r)
	if err != nil {
		return nil, err
	}
	if v.Doubts, err = s.studio.Doubts(ctx, studio.As(painter(ctx))); err != nil {
		return nil, err
	}
	out := v.Chosen(r, got)
	out.ElapsedMs = float64(time.Since(began).Microseconds()) / 1000
	return &struct{ Body wire.Chosen }{out}, nil
}

func (s *Server) compareRoutes() {
	register(s, huma.Operation{OperationID: "compare", Tags: []string{"comparing"}, Summary: "Kept systems side by side: reach, figures, steps, differences", Method: http.MethodGet, Path: "/api/compare"}, s.compare)
	register(s, huma.Operation{OperationID: "exportComparison", Tags: []string{"comparing"}, Summary: "A comparison as a drawing or a table", Method: http.MethodGet, Path: "/api/compare/export"}, s.exportComparison)
	register(s, huma.Operation{OperationID: "readWanted", Tags: []string{"comparing"}, Summary: "Reads wanted colours from a palette or a table; nothing is kept", Method: http.MethodPost, Path: filesBelow + "wanted", MaxBodyBytes: files.MostFileBytes + 1<<10}, s.readWanted)
	register(s, huma.Operation{OperationID: "wanted", Tags: []string{"comparing"}, Summary: "The wanted colours, and the best recipe of each system for each", Method: http.MethodGet, Path: "/api/wanted"}, s.wanted)
	register(s, huma.Operation{OperationID: "exportRecipes", Tags: []string{"comparing"}, Summary: "The recipes for the wanted colours as a table", Method: http.MethodGet, Path: "/api/wanted/export"}, s.exportRecipes)
	register(s, huma.Operation{OperationID: "want", Tags: []string{"comparing"}, Summary: "Keeps more wanted colours, all or none", Method: http.MethodPost, Path: "/api/wanted", DefaultStatus: http.StatusNoContent}, s.want)
	register(s, huma.Operation{OperationID: "unwant", Tags: []string{"comparing"}, Summary: "Takes a wanted colour away", Method: http.MethodDelete, Path: "/api/wanted/{id}", DefaultStatus: http.StatusNoContent}, s.unwant)
	deferred(s, huma.Operation{OperationID: "replace", Tags: []string{"choosing"}, Summary: "What replaces each tube of a kept system best", Method: http.MethodPost, Path: "/api/replace"}, searchLine, searchTime, unnamed, s.replace)
	deferred(s, huma.Operation{OperationID: chooseKind, Tags: []string{"choosing"}, Summary: "The best system of a kind for an aim, exactly", Method: http.MethodPost, Path: "/api/choose"}, searchLine, searchTime, func(in *chooseInput) string { return in.Ticket }, s.choose)
}
