package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/files"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Box is a painter's box as it is looked at.
type Box struct {
	Tubes         []KeptTube          `json:"tubes" doc:"in hue order"`
	Archived      []KeptTube          `json:"archived"`
	Arcs          []wire.Arc          `json:"arcs"`
	Cautions      []wire.CautionGroup `json:"cautions" doc:"the gravest first"`
	CautionNotice string              `json:"cautionNotice" doc:"what goes before every caution"`
	Warm          wire.WarmHalf       `json:"warm"`
	WarmBlue      string              `json:"warmBlue" format:"warmBlue"`
	Undo          *BoxUndo            `json:"undo" doc:"what undoing would take back; null when nothing"`
	Sets          []wire.StartingSet  `json:"sets" doc:"to begin with"`
}

// BoxUndo is the last thing done to a box.
type BoxUndo struct {
	Change  int64  `json:"change"`
	Summary string `json:"summary"`
}

// KeptTube is a tube as it is kept.
type KeptTube struct {
	ID         int64            `json:"id"`
	Paint      wire.Tube        `json:"paint"`
	Content    wire.TubeContent `json:"content"`
	Definition TubeDefinition   `json:"definition"`
	Version    int              `json:"version" doc:"a save names the version it was made on"`
	Saved      time.Time        `json:"saved"`
	Refused    []RefusedTube    `json:"refused" doc:"saves made on an outdated version, kept until the painter chooses"`
	Learned    bool             `json:"learned" doc:"its strength is what readings told, and was taken into the box"`
}

// TubeDefinition is what a tube is, without its curves.
type TubeDefinition struct {
	Library  string       `json:"library,omitempty"`
	Pigments []string     `json:"pigments,omitempty"`
	Origin   *wire.Origin `json:"origin,omitempty"`
}

// RefusedTube is a save that came too late, kept beside the tube.
type RefusedTube struct {
	ID      int64            `json:"id"`
	Content wire.TubeContent `json:"content"`
	Saved   time.Time        `json:"saved"`
}

// box answers with the box as it is now.
func (s *Server) box(ctx context.Context, l *Look) (*struct{ Body Box }, error) {
	v, err := l.view()
	if err != nil {
		return nil, err
	}
	who := painter(ctx)
	box, err := s.studio.Box(ctx, who.ID)
	if err != nil {
		return nil, err
	}
	refused, err := s.store.RefusedTubes(ctx, who.ID)
	if err != nil {
		return nil, err
	}
	paints := box.Paints()
	out := Box{
		Tubes: []KeptTube{}, Archived: []KeptTube{}, Arcs: wire.Arcs(paints), Cautions: wire.Cautions(paints),
		CautionNotice: paint.CautionNotice, Warm: wire.Warm(), WarmBlue: who.WarmBlue, Sets: wire.StartingSets(),
	}
	keep := func(t studio.Tube) KeptTube {
		k := KeptTube{
			ID: t.ID, Paint: v.Tube(t.Paint, paints, bias.School(who.WarmBlue)), Content: wire.TubeContent(t.Details()),
			Definition: TubeDefinition{t.Definition.Library, t.Definition.Pigments, wire.OriginOf(t.Definition.Origin)},
			Version:    t.Version, Saved: t.UpdatedAt, Refused: []RefusedTube{}, Learned: t.Learned != nil,
		}
		for _, r := range refused {
			if r.TubeID == t.ID {
				k.Refused = append(k.Refused, RefusedTube{r.ID, wire.TubeContent(r.Content.Details()), r.CreatedAt})
			}
		}
		return k
	}
	for _, t := range box.Tubes {
		out.Tubes = append(out.Tubes, keep(t))
	}
	for _, t := range box.Archived {
		out.Archived = append(out.Archived, keep(t))
	}
	change, err := s.store.LastChange(ctx, who.ID)
	if err == nil {
		out.Undo = &BoxUndo{change.ID, change.Summary}
	} else if err != store.ErrNothingToUndo {
		return nil, err
	}
	return &struct{ Body Box }{out}, nil
}

type addPaintsInput struct {
	Look
	Body struct {
		Paints []string `json:"paints" minItems:"1" maxItems:"60" doc:"library ids"`
		Grade  string   `json:"grade,omitempty" format:"grade"`
	}
}

func (s *Server) addPaints(ctx context.Context, in *addPaintsInput) (*struct{ Body Box }, error) {
	if err := s.studio.AddPaints(ctx, painter(ctx).ID, in.Body.Paints, in.Body.Grade); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type addByLookInput struct {
	Look
	Body struct {
		Paint string `json:"paint" doc:"library id of what it looks like"`
	}
}

func (s *Server) addByLook(ctx context.Context, in *addByLookInput) (*struct{ Body Box }, error) {
	if err := s.studio.AddByLook(ctx, painter(ctx).ID, in.Body.Paint); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type namesInput struct {
	Words string `query:"words" required:"true" minLength:"1" maxLength:"80" doc:"as they stand on the tube, or a code"`
	Sold  string `query:"sold" default:"artists" enum:"artists,students,pans" doc:"as what"`
}

func (s *Server) names(_ context.Context, in *namesInput) (*struct{ Body wire.NamedTube }, error) {
	named, err := paint.NameOf(in.Words, paint.Sold(in.Sold))
	return &struct{ Body wire.NamedTube }{wire.NamedTubeOf(named)}, err
}

func (s *Server) namedSets(context.Context, *struct{}) (*struct{ Body []wire.NamedSet }, error) {
	return &struct{ Body []wire.NamedSet }{wire.NamedSets()}, nil
}

type looksInput struct {
	Family string `query:"family" required:"true" maxLength:"20" doc:"of its hue"`
	Hiding string `query:"hiding" maxLength:"20" doc:"opaque, semi or transparent over a black stripe; empty for not looked at"`
	Toward string `query:"toward" maxLength:"20" doc:"the neighbour that its tint leans to, or centred; empty for not looked at"`
}

func (s *Server) looks(_ context.Context, in *looksInput) (*struct{ Body wire.LookedFor }, error) {
	look := bias.Look{Family: in.Family, Hiding: in.Hiding, Toward: in.Toward}
	fits, err := bias.Looking(look)
	return &struct{ Body wire.LookedFor }{wire.LookedForOf(look, fits)}, err
}

type addNamedInput struct {
	Look
	Body struct {
		Names []string `json:"names" minItems:"1" maxItems:"60" doc:"the words on each tube"`
		Sold  string   `json:"sold,omitempty" enum:"artists,students,pans" doc:"as what; artists' when empty"`
	}
}

func (s *Server) addNamed(ctx context.Context, in *addNamedInput) (*struct{ Body Box }, error) {
	sold, err := paint.ParseSold(in.Body.Sold)
	if err != nil {
		return nil, err
	}
	if err := s.studio.AddNamed(ctx, painter(ctx).ID, in.Body.Names, sold); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type settleNameInput struct {
	ThingID
	Look
	Body struct {
		Paints  []string `json:"paints" minItems:"1" maxItems:"6" doc:"library ids of the pigments that it has"`
		Version int      `json:"version" minimum:"1" doc:"the version that was looked at"`
	}
}

func (s *Server) settleName(ctx context.Context, in *settleNameInput) (*struct{ Body Box }, error) {
	if err := s.studio.SettleName(ctx, painter(ctx).ID, in.ID, in.Body.Version, in.Body.Paints); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type saveTubeInput struct {
	ThingID
	Look
	Body struct {
		wire.TubeContent
		Version  int   `json:"version" minimum:"1" doc:"the version this change was made on"`
		Resolves int64 `json:"resolves,omitempty" doc:"a refused version that this save settles"`
	}
}

func (s *Server) saveTube(ctx context.Context, in *saveTubeInput) (*struct{ Body Box }, error) {
	if err := s.studio.SaveTube(ctx, painter(ctx).ID, in.ID, in.Body.Version, paint.TubeDetails(in.Body.TubeContent), in.Body.Resolves); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type undoBoxInput struct {
	Look
	Body struct {
		Change int64 `json:"change" minimum:"1" doc:"what is to be taken back, as the box named it"`
	}
}

func (s *Server) undoBox(ctx context.Context, in *undoBoxInput) (*struct{ Body Box }, error) {
	if err := s.store.UndoBox(ctx, painter(ctx).ID, in.Body.Change); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type dropRefusedTubeInput struct {
	ThingID
	Look
	Refused int64 `path:"refused" minimum:"1" doc:"the save that came too late"`
}

func (s *Server) dropRefusedTube(ctx context.Context, in *dropRefusedTubeInput) (*struct{ Body Box }, error) {
	if err := s.store.DropRefusedTube(ctx, painter(ctx).ID, in.ID, in.Refused); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type besideInput struct {
	Look
	A int64 `query:"a" required:"true" minimum:"1" doc:"tube"`
	B int64 `query:"b" required:"true" minimum:"1" doc:"tube"`
}

func (s *Server) beside(ctx context.Context, in *besideInput) (*struct{ Body wire.Beside }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	a, err := s.studio.Tube(ctx, painter(ctx).ID, in.A)
	if err != nil {
		return nil, err
	}
	b, err := s.studio.Tube(ctx, painter(ctx).ID, in.B)
	if err != nil {
		return nil, err
	}
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	out := v.Beside(a.Paint, b.Paint, box.Paints(), bias.School(painter(ctx).WarmBlue))
	return &struct{ Body wire.Beside }{out}, nil
}

func (s *Server) boxRoutes() {
	register(s, huma.Operation{OperationID: "box", Tags: []string{"box"}, Summary: "The painter's box", Method: http.MethodGet, Path: "/api/box"}, s.box)
	register(s, huma.Operation{OperationID: "names", Tags: []string{"box"}, Summary: "The pigments that are usually behind the words on a tube", Method: http.MethodGet, Path: "/api/names", Metadata: painterForTubes}, s.names)
	register(s, huma.Operation{OperationID: "namedSets", Tags: []string{"box"}, Summary: "Boxes as they are sold, by the words on their tubes", Method: http.MethodGet, Path: "/api/names/sets", Metadata: painterForTubes}, s.namedSets)
	register(s, huma.Operation{OperationID: "looks", Tags: []string{"box"}, Summary: "The paints of the library that look as a tube without a name does", Method: http.MethodGet, Path: "/api/names/looks", Metadata: painterForTubes}, s.looks)
	register(s, huma.Operation{OperationID: "addNamed", Tags: []string{"box"}, Summary: "Adds tubes by the words on them, all or none; not sure which where that may be one of several", Method: http.MethodPost, Path: "/api/box/named"}, s.addNamed)
	register(s, huma.Operation{OperationID: "settleName", Tags: []string{"box"}, Summary: "Takes another of the pigments behind the words on a tube for the one it has", Method: http.MethodPost, Path: "/api/box/{id}/name"}, s.settleName)
	register(s, huma.Operation{OperationID: "addPaints", Tags: []string{"box"}, Summary: "Adds paints of the library to the box, all or none", Method: http.MethodPost, Path: "/api/box/paints"}, s.addPaints)
	register(s, huma.Operation{OperationID: "addByLook", Tags: []string{"box"}, Summary: "Adds a tube without a name, as what it looks like", Method: http.MethodPost, Path: "/api/box/looks"}, s.addByLook)
	register(s, huma.Operation{OperationID: "saveTube", Tags: []string{"box"}, Summary: "Saves what is said of a tube, on the version it was made on", Method: http.MethodPut, Path: "/api/box/paints/{id}"}, s.saveTube)
	register(s, huma.Operation{OperationID: "undoBox", Tags: []string{"box"}, Summary: "Takes the last change of the box back", Method: http.MethodPost, Path: "/api/box/undo"}, s.undoBox)
	register(s, huma.Operation{OperationID: "dropRefusedTube", Tags: []string{"box"}, Summary: "Lets a save go that came too late", Method: http.MethodDelete, Path: "/api/box/paints/{id}/refused/{refused}"}, s.dropRefusedTube)
	register(s, huma.Operation{OperationID: "beside", Tags: []string{"box"}, Summary: "Two tubes held beside each other", Method: http.MethodGet, Path: "/api/box/beside"}, s.beside)

	s.boxFiles()
}

// Export is a file to be kept.
type Export struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

type exportBoxInput struct {
	Format string `query:"format" required:"true" enum:"csv,json,gpl,cgats,sp" doc:"of the file"`
}

func (s *Server) exportBox(ctx context.Context, in *exportBoxInput) (*Export, error) {
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	out := &Export{ContentType: "text/plain; charset=utf-8"}
	ending := in.Format
	switch in.Format {
	case "csv":
		out.ContentType, out.Body = "text/csv; charset=utf-8", files.WriteBoxCSV(box.Whole())
	case "json":
		out.ContentType, out.Body = "application/json", files.WriteBoxJSON(box.Whole())
	case "gpl":
		out.Body = files.Palette(painter(ctx).Name, box.Named())
	case "cgats":
		ending, out.Body = "txt", files.PaintsCGATS(box.Named())
	case "sp":
		out.Body = files.PaintsSPECT(box.Named())
	}
	out.ContentDisposition = fmt.Sprintf("attachment; filename=%q", "box."+ending)
	return out, nil
}

type importBoxInput struct {
	Keep     bool  `query:"keep" doc:"add the paints; otherwise only say what would happen"`
	LeaveOut []int `query:"leaveOut" maxItems:"2000" doc:"rows that are not added"`
	RawBody  []byte
}

func (s *Server) importBox(ctx context.Context, in *importBoxInput) (*struct{ Body wire.Import }, error) {
	rows, notes, err := files.ReadBox(in.RawBody)
	if err != nil {
		return nil, err
	}
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	plan := studio.PlanImport(rows, notes, box.Whole(), in.LeaveOut)
	if !in.Keep {
		return &struct{ Body wire.Import }{wire.ImportOf(plan, 0)}, nil
	}
	if err := s.studio.Import(ctx, painter(ctx).ID, plan); err != nil {
		return nil, err
	}
	return &struct{ Body wire.Import }{wire.ImportOf(plan, len(plan.Added))}, nil
}

func (s *Server) boxFiles() {
	register(s, huma.Operation{OperationID: "exportBox", Tags: []string{"box"}, Summary: "The box as a file", Method: http.MethodGet, Path: "/api/box/export"}, s.exportBox)
	register(s, huma.Operation{OperationID: "importBox", Tags: []string{"box"}, Summary: "Reads a box file: what would be added, or adds it", Method: http.MethodPost, Path: filesBelow + "box", MaxBodyBytes: files.MostFileBytes + 1<<10}, s.importBox)
}
