package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paper"
	"gyrophane/files"
	"gyrophane/studio"
	"gyrophane/wire"
)

type journalOutput struct{ Body wire.SittingJournal }

// came is what came of a sitting.
func (s *Server) came(ctx context.Context, in *ThingID) (*journalOutput, error) {
	got, err := s.studio.SittingJournal(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &journalOutput{wire.SittingJournalOf(got)}, nil
}

type takingsOutput struct{ Body []wire.Taking }

func (s *Server) takings(ctx context.Context, _ *struct{}) (*takingsOutput, error) {
	all, err := s.studio.Takings(ctx, painter(ctx))
	return &takingsOutput{wire.TakingsOf(all)}, err
}

type seen struct {
	Paint string  `json:"paint" minLength:"1" maxLength:"60"`
	Is    float64 `json:"is" doc:"the strength that was offered"`
}

type sayNextTimeInput struct {
	ThingID
	Body struct {
		Was  string `json:"was" maxLength:"2000" doc:"as it was when the painter looked"`
		Says string `json:"says" maxLength:"2000"`
	}
}

func (s *Server) sayNextTime(ctx context.Context, in *sayNextTimeInput) (*journalOutput, error) {
	if err := s.studio.SayNextTime(ctx, painter(ctx), in.ID, in.Body.Was, in.Body.Says); err != nil {
		return nil, err
	}
	return s.came(ctx, &in.ThingID)
}

type takeStrengthsInput struct {
	ThingID
	Body struct {
		Strengths []seen  `json:"strengths" maxItems:"100" doc:"all that is offered, as the painter saw it"`
		Film      float64 `json:"film,omitempty" doc:"the film that is offered"`
	}
}

func (s *Server) takeStrengths(ctx context.Context, in *takeStrengthsInput) (*journalOutput, error) {
	var all []studio.Seen
	for _, one := range in.Body.Strengths {
		all = append(all, studio.Seen{Paint: one.Paint, New: one.Is})
	}
	if err := s.studio.TakeStrengths(ctx, painter(ctx), in.ID, all, in.Body.Film); err != nil {
		return nil, err
	}
	return s.came(ctx, &in.ThingID)
}

type saySureInput struct {
	ThingID
	Body struct {
		Tube string `json:"tube,omitempty" maxLength:"60" doc:"id of its paint: it is what it was taken for; empty of the light"`
		Sure bool   `json:"sure"`
	}
}

func (s *Server) saySure(ctx context.Context, in *saySureInput) (*journalOutput, error) {
	if err := s.studio.SaySure(ctx, painter(ctx), in.ID, in.Body.Tube, in.Body.Sure); err != nil {
		return nil, err
	}
	return s.came(ctx, &in.ThingID)
}

type undoTakingInput struct {
	ID   int64 `path:"id" doc:"a taking"`
	Body struct {
		Undone bool `json:"undone"`
	}
}

func (s *Server) undoTaking(ctx context.Context, in *undoTakingInput) (*takingsOutput, error) {
	if err := s.studio.UndoTaking(ctx, painter(ctx), in.ID, in.Body.Undone); err != nil {
		return nil, err
	}
	return s.takings(ctx, nil)
}

// logRoutes are what came of sittings, and what was learned from them.
func (s *Server) logRoutes() {
	register(s, huma.Operation{OperationID: "sittingJournal", Tags: []string{"log"}, Summary: "What came of a sitting: each place as expected, computed and read, why it differs, and what the tubes turned out to be", Method: http.MethodGet, Path: "/api/sittings/{id}/journal"}, s.came)
	register(s, huma.Operation{OperationID: "sayNextTime", Tags: []string{"log"}, Summary: "Keeps what to do otherwise when the sitting's wheel is painted again", Method: http.MethodPut, Path: "/api/sittings/{id}/next-time"}, s.sayNextTime)
	register(s, huma.Operation{OperationID: "takeStrengths", Tags: []string{"log"}, Summary: "Takes what the tubes turned out to be into the box, where it still is what was seen", Method: http.MethodPost, Path: "/api/sittings/{id}/strengths"}, s.takeStrengths)

	register(s, huma.Operation{OperationID: "saySure", Tags: []string{"log"}, Summary: "Keeps that the painter is sure of the light that a sitting was read in, or of one of its tubes", Method: http.MethodPut, Path: "/api/sittings/{id}/sure"}, s.saySure)
	register(s, huma.Operation{OperationID: "takings", Tags: []string{"log"}, Summary: "What was taken into the box from readings, the last one first", Method: http.MethodGet, Path: "/api/takings"}, s.takings)
	register(s, huma.Operation{OperationID: "undoTaking", Tags: []string{"log"}, Summary: "Takes strengths back or, again, as they were taken", Method: http.MethodPut, Path: "/api/takings/{id}"}, s.undoTaking)

	s.redrawRoutes()
	s.shelfRoutes()
	s.paletteRoutes()
	s.carryRoutes()
	s.sittingFiles()
}

type exportSittingInput struct {
	ID     int64  `path:"id" doc:"a sitting"`
	Format string `query:"format" required:"true" enum:"csv,json" doc:"a table, or all of it"`
}

func (s *Server) exportSitting(ctx context.Context, in *exportSittingInput) (*Export, error) {
	a, err := s.studio.Account(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	out := &Export{}
	switch in.Format {
	case "csv":
		out.ContentType, out.Body = "text/csv; charset=utf-8", files.SittingCSV(&a)
	case "json":
		out.ContentType = "application/json"
		out.Body, err = files.SittingJSON(&a)
	}
	out.ContentDisposition = fmt.Sprintf("attachment; filename=%q", "sitting."+in.Format)
	return out, err
}

type sittingPaperInput struct {
	ID int64 `path:"id" doc:"a sitting"`
	PaperFile
}

func (s *Server) sittingPaper(ctx context.Context, in *sittingPaperInput) (*Page, error) {
	format, err := paper.ParseFormat(in.Paper)
	if err != nil {
		return nil, err
	}
	title, pages, err := s.studio.SittingPaper(ctx, painter(ctx), in.ID, format)
	if err != nil {
		return nil, err
	}
	out, err := in.export(title, pages)
	return out, err
}

type importReadingsInput struct {
	ID       int64 `path:"id" doc:"a sitting"`
	Keep     bool  `query:"keep" doc:"keep the readings; otherwise only say what they are"`
	LeaveOut []int `query:"leaveOut" maxItems:"2000" doc:"rows that are not kept"`
	RawBody  []byte
}

func (s *Server) importReadings(ctx context.Context, in *importReadingsInput) (*struct{ Body wire.SlotsRead }, error) {
	got, err := s.studio.ReadSlots(ctx, painter(ctx), in.ID, in.RawBody, in.LeaveOut, in.Keep)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.SlotsRead }{wire.SlotsReadOf(got, in.Keep)}, nil
}

// sittingFiles are sittings out of the house, and readings into it.
func (s *Server) sittingFiles() {
	register(s, huma.Operation{OperationID: "exportSitting", Tags: []string{"log"}, Summary: "A sitting as a file", Method: http.MethodGet, Path: "/api/sittings/{id}/export"}, s.exportSitting)
	register(s, huma.Operation{OperationID: "sittingPaper", Tags: []string{"log"}, Summary: "What came of a sitting, on paper", Method: http.MethodGet, Path: "/api/sittings/{id}/paper"}, s.sittingPaper)
	register(s, huma.Operation{OperationID: "importReadings", Tags: []string{"log"}, Summary: "Reads a file of readings of a sitting's places: what it holds, or keeps them", Method: http.MethodPost, Path: filesBelow + "sittings/{id}/readings", MaxBodyBytes: files.MostFileBytes + 1<<10}, s.importReadings)
}

type remindersOutput struct {
	Body struct {
		Reminder *wire.Reminder `json:"reminder,omitempty" doc:"absent where nothing was said"`
	}
}

type redrawnOutput struct{ Body wire.Redrawn }

type redrawnInput struct {
	ID int64 `path:"id" doc:"a kept wheel"`
}

func (s *Server) redrawn(ctx context.Context, in *redrawnInput) (*redrawnOutput, error) {
	got, err := s.studio.Redraw(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &redrawnOutput{wire.RedrawnOf(got)}, nil
}

type redrawInput struct {
	ID   int64 `path:"id" doc:"a kept wheel"`
	Body struct {
		Version int `json:"version" doc:"that the painter saw"`
	}
}

func (s *Server) redraw(ctx context.Context, in *redrawInput) (*redrawnOutput, error) {
	if _, err := s.studio.RedrawWheel(ctx, painter(ctx), in.ID, in.Body.Version); err != nil {
		return nil, err
	}
	got, err := s.studio.Redraw(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &redrawnOutput{wire.RedrawnOf(got)}, nil
}

func (s *Server) reminder(ctx context.Context, in *redrawnInput) (*remindersOutput, error) {
	got, err := s.studio.Reminder(ctx, painter(ctx), in.ID)
	out := &remindersOutput{}
	if got != nil {
		out.Body.Reminder = &wire.Reminder{Sitting: got.Sitting, At: got.At, Says: got.Says}
	}
	return out, err
}

// redrawRoutes are kept wheels with what their tubes turned out to be.
func (s *Server) redrawRoutes() {
	register(s, huma.Operation{OperationID: "redrawn", Tags: []string{"log"}, Summary: "A kept wheel beside what it would be with what its tubes turned out to be", Method: http.MethodGet, Path: "/api/wheels/{id}/redrawn"}, s.redrawn)
	register(s, huma.Operation{OperationID: "redraw", Tags: []string{"log"}, Summary: "Saves a kept wheel with what its tubes turned out to be; it is undone like any other change", Method: http.MethodPost, Path: "/api/wheels/{id}/redrawn"}, s.redraw)
	register(s, huma.Operation{OperationID: "reminder", Tags: []string{"log"}, Summary: "What the painter wanted to do otherwise when a wheel was painted last", Method: http.MethodGet, Path: "/api/wheels/{id}/reminder"}, s.reminder)
}

type shelfInput struct {
	Words  string `query:"words" maxLength:"100" doc:"each stands in the name, the paints, the system, the medium or the notes"`
	Medium string `query:"medium" maxLength:"20" doc:"that it was painted in; all when empty"`
	System string `query:"system" maxLength:"20" doc:"kind of its wheel's system; all when empty"`
	Only   string `query:"only" enum:"read,unread,under way" doc:"what stands on the shelf; all when empty"`
}

func (s *Server) shelf(ctx context.Context, in *shelfInput) (*struct{ Body wire.Shelf }, error) {
	found, all, err := s.studio.Shelf(ctx, painter(ctx), studio.Shelf{Words: in.Words, Medium: in.Medium, Kind: in.System, Only: in.Only})
	return &struct{ Body wire.Shelf }{wire.ShelfOf(found, all)}, err
}

type sittingsBesideInput struct {
	ID    int64 `path:"id" doc:"a sitting"`
	Other int64 `path:"other" doc:"another"`
}

func (s *Server) sittingsBeside(ctx context.Context, in *sittingsBesideInput) (*struct{ Body wire.SittingsBeside }, error) {
	got, err := s.studio.Beside(ctx, painter(ctx), in.ID, in.Other)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.SittingsBeside }{wire.SittingsBesideOf(got)}, nil
}

func (s *Server) expectations(ctx context.Context, _ *struct{}) (*struct{ Body wire.Expectations }, error) {
	got, err := s.studio.Expectations(ctx, painter(ctx))
	return &struct{ Body wire.Expectations }{wire.ExpectationsOf(got)}, err
}

// shelfRoutes are all sittings, and what became of expectations.
func (s *Server) shelfRoutes() {
	register(s, huma.Operation{OperationID: "shelf", Tags: []string{"log"}, Summary: "What was painted, the last first: as it was read or, where it was not, as it is computed", Method: http.MethodGet, Path: "/api/shelf"}, s.shelf)
	register(s, huma.Operation{OperationID: "sittingsBeside", Tags: []string{"log"}, Summary: "Two sittings beside each other, and what differs in sentences", Method: http.MethodGet, Path: "/api/sittings/{id}/beside/{other}"}, s.sittingsBeside)
	register(s, huma.Operation{OperationID: "expectations", Tags: []string{"log"}, Summary: "What became of all that was expected, by month and by section", Method: http.MethodGet, Path: "/api/expectations"}, s.expectations)
}
