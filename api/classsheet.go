package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/recipe"
	"gyrophane/wire"
)

// ClassSheetEntry is one of the sheets that a painter's classes have painted.
type ClassSheetEntry struct {
	ID     int64     `json:"id"`
	Name   string    `json:"name" doc:"of its wheel"`
	Made   time.Time `json:"made"`
	Sheets int       `json:"sheets" doc:"pupils' that were read"`
}

func (s *Server) classSheets(ctx context.Context, _ *struct{}) (*struct{ Body []ClassSheetEntry }, error) {
	kept, read, err := s.store.ClassSheets(ctx, painter(ctx).ID)
	out := &struct{ Body []ClassSheetEntry }{[]ClassSheetEntry{}}
	for _, c := range kept {
		out.Body = append(out.Body, ClassSheetEntry{c.ID, c.Name, c.CreatedAt, read[c.ID]})
	}
	return out, err
}

type newClassSheetInput struct {
	Body struct {
		Wheel int64           `json:"wheel" minimum:"1" doc:"a kept wheel"`
		Sheet wire.BenchSheet `json:"sheet,omitempty" doc:"the wheel when left out"`
	}
}

type classSheetOutput struct{ Body wire.ClassSheet }

func (s *Server) newClassSheet(ctx context.Context, in *newClassSheetInput) (*classSheetOutput, error) {
	which, named := in.Body.Sheet.Core()
	id, err := s.studio.NewClassSheet(ctx, painter(ctx), in.Body.Wheel, which, named, recipe.Scale{})
	if err != nil {
		return nil, err
	}
	return s.classSheet(ctx, &ThingID{id})
}

func (s *Server) classSheet(ctx context.Context, in *ThingID) (*classSheetOutput, error) {
	got, err := s.studio.ClassSheet(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &classSheetOutput{wire.ClassSheetOf(got)}, nil
}

type readClassSheetInput struct {
	ID      int64 `path:"id" doc:"a sheet of a class"`
	RawBody []byte
}

// PupilRead is what became of a photo of a pupil's sheet.
type PupilRead struct {
	Places int `json:"places" doc:"that were read"`
}

func (s *Server) readClassSheet(ctx context.Context, in *readClassSheetInput) (*struct{ Body PupilRead }, error) {
	places, err := s.studio.ReadClassSheet(ctx, painter(ctx), in.ID, in.RawBody)
	return &struct{ Body PupilRead }{PupilRead{places}}, err
}

type pupilSheetID struct {
	ID   int64 `path:"id" minimum:"1" doc:"a sheet of a class"`
	Read int64 `path:"read" minimum:"1" doc:"what was read of one pupil's"`
}

func (s *Server) dropPupilSheet(ctx context.Context, in *pupilSheetID) (*classSheetOutput, error) {
	if err := s.store.DropClassRead(ctx, painter(ctx).ID, in.ID, in.Read); err != nil {
		return nil, err
	}
	return s.classSheet(ctx, &ThingID{in.ID})
}

func (s *Server) dropClassSheet(ctx context.Context, in *ThingID) (*struct{ Body []ClassSheetEntry }, error) {
	if err := s.store.DropClassSheet(ctx, painter(ctx).ID, in.ID); err != nil {
		return nil, err
	}
	return s.classSheets(ctx, nil)
}

func (s *Server) classSheetRoutes() {
	tags := []string{"class"}
	register(s, huma.Operation{OperationID: "classSheets", Tags: tags, Summary: "The sheets that classes have painted", Method: http.MethodGet, Path: "/api/class/sheets"}, s.classSheets)
	register(s, huma.Operation{OperationID: "newClassSheet", Tags: tags, Summary: "Keeps a sheet of a wheel, as it is planned now, for a class's to be read by", Method: http.MethodPost, Path: "/api/class/sheets"}, s.newClassSheet)
	register(s, huma.Operation{OperationID: "classSheet", Tags: tags, Summary: "What a class painted: each sheet, the mean of them, and where the class as a whole strayed", Method: http.MethodGet, Path: "/api/class/sheets/{id}"}, s.classSheet)
	register(s, huma.Operation{OperationID: "dropClassSheet", Tags: tags, Summary: "Deletes a sheet with all that was read of it", Method: http.MethodDelete, Path: "/api/class/sheets/{id}"}, s.dropClassSheet)
	register(s, huma.Operation{OperationID: "dropPupilSheet", Tags: tags, Summary: "Deletes what was read of one pupil's sheet", Method: http.MethodDelete, Path: "/api/class/sheets/{id}/reads/{read}"}, s.dropPupilSheet)
	deferred(s, huma.Operation{OperationID: "readClassSheet", Tags: tags, Summary: "Reads a photo of one pupil's sheet by its printed marks; the photo is not kept", Method: http.MethodPost, Path: filesBelow + "class/sheets/{id}/photo", MaxBodyBytes: largestFile}, photoLine, photoTime, unnamed, s.readClassSheet)
}
