package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/store"
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

type bringWheelInput struct {
	Keep    bool `query:"keep" doc:"keep it; otherwise only say what would happen"`
	RawBody []byte
}

// bringWheel reads a wheel out of a file and, where that is asked for, keeps it with its paints.
func (s *Server) bringWheel(ctx context.Context, in *bringWheelInput) (*struct{ Body wire.Carried }, error) {
	got, err := s.studio.ReadWheelFile(ctx, painter(ctx), in.RawBody)
	if err != nil {
		return nil, err
	}
	out := wire.CarriedOf(got)
	if in.Keep {
		w, err := s.studio.Bring(ctx, painter(ctx), got)
		if err != nil {
			return nil, err
		}
		out.Wheel = w.ID
	}
	return &struct{ Body wire.Carried }{out}, nil
}

// dropWheel deletes a kept wheel; its sittings stay.
func (s *Server) dropWheel(ctx context.Context, in *ThingID) (*struct{}, error) {
	return nil, s.store.DropWheel(ctx, painter(ctx).ID, in.ID)
}

func (s *Server) carryRoutes() {
	register(s, huma.Operation{OperationID: "dropWheel", Tags: []string{"wheels"}, Summary: "Deletes a kept wheel; its sittings stay, as they were painted", Method: http.MethodDelete, Path: "/api/wheels/{id}"}, s.dropWheel)
	register(s, huma.Operation{OperationID: "wheelFile", Tags: []string{"wheels"}, Summary: "A kept wheel as one file, with the paints that it needs", Method: http.MethodGet, Path: "/api/wheels/{id}/file"}, s.wheelFile)
	register(s, huma.Operation{OperationID: "bringWheel", Tags: []string{"wheels"}, Summary: "Reads a wheel out of a file: what bringing it in would do, or keeps it", Method: http.MethodPost, Path: filesBelow + "wheel", MaxBodyBytes: store.MostWheelBytes + 1<<10}, s.bringWheel)
}
