package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// wheelFile is a kept wheel as one file that another painter opens.
func (s *Server) wheelFile(ctx context.Context, in *ThingID) (*Export, error) {
	body, err := s.studio.WheelFile(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &Export{ContentType: "application/json", ContentDisposition: `attachment; filename="wheel.json"`, Body: body}, nil
}

// sittingFile is a sitting as one file that another painter opens.
func (s *Server) sittingFile(ctx context.Context, in *ThingID) (*Export, error) {
	body, err := s.studio.SittingFile(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return &Export{ContentType: "application/json", ContentDisposition: `attachment; filename="sitting.json"`, Body: body}, nil
}

type bringInput struct {
	Keep    bool `query:"keep" doc:"keep it; otherwise only say what would happen"`
	RawBody []byte
}

// bringing reads something out of a file and, where that is asked for, keeps it with its paints.
func (s *Server) bringing(read func(context.Context, store.Painter, []byte) (studio.Carried, error), keep func(context.Context, store.Painter, studio.Carried) (int64, error)) func(context.Context, *bringInput) (*struct{ Body wire.Carried }, error) {
	return func(ctx context.Context, in *bringInput) (*struct{ Body wire.Carried }, error) {
		got, err := read(ctx, painter(ctx), in.RawBody)
		if err != nil {
			return nil, err
		}
		out := wire.CarriedOf(got)
		if in.Keep {
			if out.Kept, err = keep(ctx, painter(ctx), got); err != nil {
				return nil, err
			}
		}
		return &struct{ Body wire.Carried }{out}, nil
	}
}

// dropWheel deletes a kept wheel; its sittings stay.
func (s *Server) dropWheel(ctx context.Context, in *ThingID) (*struct{}, error) {
	return nil, s.store.DropWheel(ctx, painter(ctx).ID, in.ID)
}

func (s *Server) carryRoutes() {
	register(s, huma.Operation{OperationID: "dropWheel", Tags: []string{"wheels"}, Summary: "Deletes a kept wheel; its sittings stay, as they were painted", Method: http.MethodDelete, Path: "/api/wheels/{id}"}, s.dropWheel)
	register(s, huma.Operation{OperationID: "wheelFile", Tags: []string{"wheels"}, Summary: "A kept wheel as one file, with the paints that it needs", Method: http.MethodGet, Path: "/api/wheels/{id}/file"}, s.wheelFile)
	register(s, huma.Operation{OperationID: "sittingFile", Tags: []string{"sitting"}, Summary: "A sitting as one file, with the paints that it needs, without its photos", Method: http.MethodGet, Path: "/api/sittings/{id}/file"}, s.sittingFile)
	register(s, huma.Operation{OperationID: "bringWheel", Tags: []string{"wheels"}, Summary: "Reads a wheel out of a file: what bringing it in would do, or keeps it", Method: http.MethodPost, Path: filesBelow + "wheel", MaxBodyBytes: store.MostWheelBytes + 1<<10},
		s.bringing(s.studio.ReadWheelFile, func(ctx context.Context, p store.Painter, c studio.Carried) (int64, error) {
			w, err := s.studio.BringWheel(ctx, p, c)
			return w.ID, err
		}))
	register(s, huma.Operation{OperationID: "bringSitting", Tags: []string{"sitting"}, Summary: "Reads a sitting out of a file: what bringing it in would do, or keeps it", Method: http.MethodPost, Path: filesBelow + "sitting", MaxBodyBytes: store.MostSittingBytes + 1<<10},
		s.bringing(s.studio.ReadSittingFile, func(ctx context.Context, p store.Painter, c studio.Carried) (int64, error) {
			kept, err := s.studio.BringSitting(ctx, p, c)
			return kept.ID, err
		}))
}
