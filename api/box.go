package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/exchange"
	"gyrophane/store"
)

// Box is a painter's box as it is looked at.
type Box struct {
	Tubes     []KeptTube              `json:"tubes" doc:"in hue order"`
	Archived  []KeptTube              `json:"archived"`
	Arcs      []exchange.Arc          `json:"arcs"`
	Cautions  []exchange.CautionGroup `json:"cautions" doc:"the gravest first"`
	Deferring string                  `json:"deferring" doc:"what goes before every caution"`
	Warm      exchange.WarmHalf       `json:"warm"`
	WarmBlue  string                  `json:"warmBlue" enum:"violet,green"`
	Undo      *BoxUndo                `json:"undo" doc:"what undoing would take back; null when nothing"`
	Sets      []exchange.StartingSet  `json:"sets" doc:"to begin with"`
}

// BoxUndo is the last thing done to a box.
type BoxUndo struct {
	Change  int64  `json:"change"`
	Summary string `json:"summary"`
}

// KeptTube is a tube as it is kept.
type KeptTube struct {
	ID         int64                `json:"id"`
	Paint      exchange.Tube        `json:"paint"`
	Content    exchange.TubeContent `json:"content"`
	Definition TubeDefinition       `json:"definition"`
	Version    int                  `json:"version" doc:"a save names the version it was made on"`
	Saved      time.Time            `json:"saved"`
	Refused    []RefusedTube        `json:"refused" doc:"saves made on an outdated version, kept until the painter chooses"`
}

// TubeDefinition is what a tube is, without its curves.
type TubeDefinition struct {
	Library  string           `json:"library,omitempty"`
	Pigments []string         `json:"pigments,omitempty"`
	Origin   *exchange.Origin `json:"origin,omitempty"`
}

// RefusedTube is a save that came too late, kept beside the tube.
type RefusedTube struct {
	ID      int64                `json:"id"`
	Content exchange.TubeContent `json:"content"`
	Saved   time.Time            `json:"saved"`
}

func contentOfTube(c store.TubeContent) exchange.TubeContent {
	return exchange.TubeContent{Nickname: c.Nickname, Grade: c.Grade, TubeML: c.TubeML, Price: c.Price, Note: c.Note, Archived: c.State == store.Archived}
}

func keptContent(c exchange.TubeContent) store.TubeContent {
	state := store.InBox
	if c.Archived {
		state = store.Archived
	}
	return store.TubeContent{Nickname: c.Nickname, Grade: c.Grade, TubeML: c.TubeML, Price: c.Price, Note: c.Note, State: state}
}

// NewTubes are box paints as the store keeps them.
func NewTubes(paints []exchange.BoxPaint) ([]store.NewTube, error) {
	var out []store.NewTube
	for _, p := range paints {
		definition, err := json.Marshal(p.Definition)
		if err != nil {
			return nil, err
		}
		out = append(out, store.NewTube{Definition: definition, Content: keptContent(p.TubeContent)})
	}
	return out, nil
}

// tubeID is what a tube's paint is called among the paints of its box.
func tubeID(id int64) string { return fmt.Sprintf("%s%d", exchange.TubePrefix, id) }

// opened is a tube read back from the store.
type opened struct {
	kept       store.Tube
	definition exchange.Definition
	paint      *paint.Paint
}

func openTube(t store.Tube) (opened, error) {
	o := opened{kept: t}
	if err := json.Unmarshal(t.Definition, &o.definition); err != nil {
		return o, fmt.Errorf("tube %d: %w", t.ID, err)
	}
	var err error
	o.definition = o.definition.Kept()
	o.paint, err = o.definition.Paint(tubeID(t.ID), contentOfTube(t.TubeContent).Strength())
	return o, err
}

// tubeKey names a tube as it was at one of its versions: it is never another.
type tubeKey struct {
	id      int64
	version int
}

// mostOpened is how many tubes are remembered once they have been read, some
// kilobytes each.
const mostOpened = 4000

// open reads a tube back from the store, or remembers it: to read a large box
// takes some hundredths of a second.
func (s *Server) open(t store.Tube) (opened, error) {
	key := tubeKey{t.ID, t.Version}
	if known, there := s.opened.Get(key); there {
		known.kept = t
		return known, nil
	}
	o, err := openTube(t)
	if err == nil {
		s.opened.Add(key, o)
	}
	return o, err
}

func boxPaints(tubes []opened) []exchange.BoxPaint {
	var out []exchange.BoxPaint
	for _, o := range tubes {
		out = append(out, exchange.BoxPaint{Definition: o.definition, TubeContent: contentOfTube(o.kept.TubeContent)})
	}
	return out
}

// BoxPaints are kept tubes as a box file holds them.
func BoxPaints(tubes []store.Tube) ([]exchange.BoxPaint, error) {
	var all []opened
	for _, t := range tubes {
		o, err := openTube(t)
		if err != nil {
			return nil, err
		}
		all = append(all, o)
	}
	return boxPaints(all), nil
}

// openBox reads a painter's tubes, in hue order.
func (s *Server) openBox(ctx context.Context) (in, archived []opened, err error) {
	tubes, err := s.store.Tubes(ctx, painter(ctx).ID)
	if err != nil {
		return nil, nil, err
	}
	byPaint := map[*paint.Paint]opened{}
	var paints []*paint.Paint
	for _, t := range tubes {
		o, err := s.open(t)
		if err != nil {
			return nil, nil, err
		}
		byPaint[o.paint] = o
		paints = append(paints, o.paint)
	}
	bias.InHueOrder(paints)
	for _, p := range paints {
		if o := byPaint[p]; o.kept.State == store.Archived {
			archived = append(archived, o)
		} else {
			in = append(in, o)
		}
	}
	return in, archived, nil
}

func paintsOf(tubes []opened) []*paint.Paint {
	var out []*paint.Paint
	for _, t := range tubes {
		out = append(out, t.paint)
	}
	return out
}

// look answers with the box as it is now.
func (s *Server) look(ctx context.Context, l Look) (*struct{ Body Box }, error) {
	v, err := l.view()
	if err != nil {
		return nil, s.refusal(err)
	}
	in, archived, err := s.openBox(ctx)
	if err != nil {
		return nil, s.refusal(err)
	}
	refused, err := s.store.RefusedTubes(ctx, painter(ctx).ID)
	if err != nil {
		return nil, s.refusal(err)
	}
	who := painter(ctx)
	box := paintsOf(in)
	out := Box{
		Tubes: []KeptTube{}, Archived: []KeptTube{}, Arcs: exchange.Arcs(box), Cautions: exchange.Cautions(box),
		Deferring: paint.Deferring, Warm: exchange.Warm(), WarmBlue: who.WarmBlue, Sets: exchange.StartingSets(),
	}
	keep := func(o opened) KeptTube {
		k := KeptTube{
			ID: o.kept.ID, Paint: v.Tube(o.paint, box, bias.School(who.WarmBlue)), Content: contentOfTube(o.kept.TubeContent),
			Definition: TubeDefinition{o.definition.Library, o.definition.Pigments, o.definition.Origin},
			Version:    o.kept.Version, Saved: o.kept.UpdatedAt, Refused: []RefusedTube{},
		}
		for _, r := range refused {
			if r.TubeID == o.kept.ID {
				k.Refused = append(k.Refused, RefusedTube{r.ID, contentOfTube(r.Content), r.CreatedAt})
			}
		}
		return k
	}
	for _, o := range in {
		out.Tubes = append(out.Tubes, keep(o))
	}
	for _, o := range archived {
		out.Archived = append(out.Archived, keep(o))
	}
	change, err := s.store.LastChange(ctx, who.ID)
	if err == nil {
		out.Undo = &BoxUndo{change.ID, change.Summary}
	} else if err != store.ErrNothingToUndo {
		return nil, s.refusal(err)
	}
	return &struct{ Body Box }{out}, nil
}

// TubeID is the tube a request is about.
type TubeID struct {
	ID int64 `path:"id" minimum:"1" doc:"which one"`
}

func (s *Server) boxRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "box", Tags: []string{"box"}, Summary: "The painter's box", Method: http.MethodGet, Path: "/api/box"},
		func(ctx context.Context, in *Look) (*struct{ Body Box }, error) { return s.look(ctx, *in) })

	type addPaints struct {
		Look
		Body struct {
			Paints []string `json:"paints" minItems:"1" maxItems:"60" doc:"library ids"`
			Grade  string   `json:"grade,omitempty" enum:"artist,student"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "addPaints", Tags: []string{"box"}, Summary: "Adds paints of the library to the box, all or none", Method: http.MethodPost, Path: "/api/box/paints"},
		func(ctx context.Context, in *addPaints) (*struct{ Body Box }, error) {
			var paints []exchange.BoxPaint
			for _, id := range in.Body.Paints {
				p, err := exchange.FindPaint(id)
				if err != nil {
					return nil, s.refusal(err)
				}
				content, err := exchange.TubeContent{Grade: in.Body.Grade}.Check()
				if err != nil {
					return nil, s.refusal(err)
				}
				paints = append(paints, exchange.BoxPaint{Definition: exchange.Definition{Library: p.ID}, TubeContent: content})
			}
			summary := "added " + paints[0].Library
			if len(paints) > 1 {
				summary = "added " + countPaints(len(paints))
			}
			if err := s.add(ctx, summary, paints); err != nil {
				return nil, s.refusal(err)
			}
			return s.look(ctx, in.Look)
		})

	type saveTube struct {
		TubeID
		Look
		Body struct {
			exchange.TubeContent
			Version  int   `json:"version" minimum:"1" doc:"the version this change was made on"`
			Resolves int64 `json:"resolves,omitempty" doc:"a refused version that this save settles"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "saveTube", Tags: []string{"box"}, Summary: "Saves what is said of a tube, on the version it was made on", Method: http.MethodPut, Path: "/api/box/paints/{id}"},
		func(ctx context.Context, in *saveTube) (*struct{ Body Box }, error) {
			content, err := in.Body.TubeContent.Check()
			if err != nil {
				return nil, s.refusal(err)
			}
			was, err := s.store.Tube(ctx, painter(ctx).ID, in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			o, err := s.open(was)
			if err != nil {
				return nil, s.refusal(err)
			}
			summary := changeInWords(o, content)
			if _, err := s.store.SaveTube(ctx, painter(ctx).ID, in.ID, in.Body.Version, summary, keptContent(content), in.Body.Resolves); err != nil {
				return nil, s.refusal(err)
			}
			return s.look(ctx, in.Look)
		})

	type undoBox struct {
		Look
		Body struct {
			Change int64 `json:"change" minimum:"1" doc:"what is to be taken back, as the box named it"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "undoBox", Tags: []string{"box"}, Summary: "Takes the last change of the box back", Method: http.MethodPost, Path: "/api/box/undo"},
		func(ctx context.Context, in *undoBox) (*struct{ Body Box }, error) {
			if err := s.store.UndoBox(ctx, painter(ctx).ID, in.Body.Change); err != nil {
				return nil, s.refusal(err)
			}
			return s.look(ctx, in.Look)
		})

	type refusedTube struct {
		TubeID
		Look
		Refused int64 `path:"refused" minimum:"1" doc:"the save that came too late"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "dropRefusedTube", Tags: []string{"box"}, Summary: "Lets a save go that came too late", Method: http.MethodDelete, Path: "/api/box/paints/{id}/refused/{refused}"},
		func(ctx context.Context, in *refusedTube) (*struct{ Body Box }, error) {
			if err := s.store.DropRefusedTube(ctx, painter(ctx).ID, in.ID, in.Refused); err != nil {
				return nil, s.refusal(err)
			}
			return s.look(ctx, in.Look)
		})

	type two struct {
		Look
		A int64 `query:"a" required:"true" minimum:"1" doc:"tube"`
		B int64 `query:"b" required:"true" minimum:"1" doc:"tube"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "beside", Tags: []string{"box"}, Summary: "Two tubes held beside each other", Method: http.MethodGet, Path: "/api/box/beside"},
		func(ctx context.Context, in *two) (*struct{ Body exchange.Beside }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			var pair [2]opened
			for i, id := range []int64{in.A, in.B} {
				t, err := s.store.Tube(ctx, painter(ctx).ID, id)
				if err != nil {
					return nil, s.refusal(err)
				}
				if pair[i], err = s.open(t); err != nil {
					return nil, s.refusal(err)
				}
			}
			box, _, err := s.openBox(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			out := v.Beside(pair[0].paint, pair[1].paint, paintsOf(box), bias.School(painter(ctx).WarmBlue))
			return &struct{ Body exchange.Beside }{out}, nil
		})

	s.boxFiles()
}

// add keeps paints as new tubes.
func (s *Server) add(ctx context.Context, summary string, paints []exchange.BoxPaint) error {
	tubes, err := NewTubes(paints)
	if err != nil {
		return err
	}
	_, err = s.store.AddTubes(ctx, painter(ctx).ID, summary, tubes)
	return err
}

func countPaints(n int) string {
	if n == 1 {
		return "1 paint"
	}
	return fmt.Sprintf("%d paints", n)
}

func rowsAreWrong(n int) string {
	if n == 1 {
		return "1 row is wrong; mend it"
	}
	return fmt.Sprintf("%d rows are wrong; mend them", n)
}

// changeInWords names a change for the undo.
func changeInWords(was opened, now exchange.TubeContent) string {
	name := was.paint.Name
	if was.kept.Nickname != "" {
		name = was.kept.Nickname
	}
	before := contentOfTube(was.kept.TubeContent)
	switch {
	case now.Archived && !before.Archived:
		return "archived " + name
	case !now.Archived && before.Archived:
		return "restored " + name
	case now.Nickname != before.Nickname:
		return "renamed " + name
	}
	return "changed " + name
}

// Export is a file to be kept.
type Export struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Body               []byte
}

func (s *Server) boxFiles() {
	type export struct {
		Format string `query:"format" required:"true" enum:"csv,json,gpl,cgats" doc:"of the file"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "exportBox", Tags: []string{"box"}, Summary: "The box as a file", Method: http.MethodGet, Path: "/api/box/export"},
		func(ctx context.Context, in *export) (*Export, error) {
			tubes, archived, err := s.openBox(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			paints := boxPaints(append(tubes[:len(tubes):len(tubes)], archived...))
			out := &Export{ContentType: "text/plain; charset=utf-8"}
			ending := in.Format
			switch in.Format {
			case "csv":
				out.ContentType, out.Body = "text/csv; charset=utf-8", exchange.WriteBoxCSV(paints)
			case "json":
				out.ContentType, out.Body = "application/json", exchange.WriteBoxJSON(paints)
			case "gpl":
				out.Body = exchange.Palette(painter(ctx).Name, named(tubes))
			case "cgats":
				ending, out.Body = "txt", exchange.CGATS(named(tubes))
			}
			out.ContentDisposition = fmt.Sprintf("attachment; filename=%q", "box."+ending)
			return out, nil
		})

	type bring struct {
		Keep     bool  `query:"keep" doc:"add the paints; otherwise only say what would happen"`
		LeaveOut []int `query:"leaveOut" maxItems:"2000" doc:"rows that are not added"`
		RawBody  []byte
	}
	huma.Register(s.api, huma.Operation{OperationID: "importBox", Tags: []string{"box"}, Summary: "Reads a box file: what would be added, or adds it", Method: http.MethodPost, Path: filesBelow + "box", MaxBodyBytes: exchange.MostFileBytes + 1<<10},
		func(ctx context.Context, in *bring) (*struct{ Body exchange.Import }, error) {
			rows, notes, err := exchange.ReadBox(in.RawBody)
			if err != nil {
				return nil, s.refusal(err)
			}
			tubes, archived, err := s.openBox(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, paints, wrong := exchange.PlanImport(rows, notes, boxPaints(append(tubes, archived...)), in.LeaveOut)
			if !in.Keep {
				return &struct{ Body exchange.Import }{out}, nil
			}
			switch {
			case wrong > 0:
				return nil, huma.Error422UnprocessableEntity("Nothing was added: " + rowsAreWrong(wrong) + " in the file, or leave out what is wrong.")
			case len(paints) == 0:
				return nil, huma.Error422UnprocessableEntity("Nothing was added: every row was left out.")
			}
			if err := s.add(ctx, fmt.Sprintf("brought in %s from a file", countPaints(len(paints))), paints); err != nil {
				return nil, s.refusal(err)
			}
			out.Kept = len(paints)
			return &struct{ Body exchange.Import }{out}, nil
		})
}

// named are a box's paints under the names they go by.
func named(tubes []opened) []*paint.Paint {
	var out []*paint.Paint
	for _, o := range tubes {
		out = append(out, o.paint.Called(o.definition.Library, o.kept.Nickname))
	}
	return out
}
