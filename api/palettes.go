package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/studio"
)

// PaletteFormat is which file a palette becomes.
type PaletteFormat struct {
	Format string `query:"format" required:"true" enum:"gpl,csv,json,cgats,sp,svg" doc:"a GIMP palette, a table, JSON, CGATS.17, spectra for colour tools, or a drawing"`
}

// palette is some swatches as the file that is asked for.
func (in PaletteFormat) palette(name, about string, all []files.Swatch) (*Export, error) {
	f, err := files.Swatches(files.SwatchFormat(in.Format), name, about, all)
	if err != nil {
		return nil, err
	}
	return &Export{ContentType: f.ContentType, ContentDisposition: fmt.Sprintf("attachment; filename=%q", "palette."+f.Ending), Body: f.Body}, nil
}

// driedIn says how the colours of a palette look.
func driedIn(in paint.Medium) string { return "dry, in " + in.Name }

type wheelPaletteInput struct {
	ID int64 `path:"id" doc:"a kept wheel"`
	PaletteFormat
}

// wheelPalette are the slots of a kept wheel, with its rings.
func (s *Server) wheelPalette(ctx context.Context, in *wheelPaletteInput) (*Export, error) {
	w, system, err := s.studio.KeptSystem(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	medium, err := paint.ParseMedium(w.Settings.Medium)
	if err != nil {
		return nil, input.Wrap(err)
	}
	options, err := w.Settings.Choices.Options(medium)
	if err != nil {
		return nil, err
	}
	sheet := bench.Wheel(wheel.Build(system, options), bench.ExtrasOf(w.Settings.Choices), bench.Usual(medium))
	return in.palette(w.Name, driedIn(medium), files.SheetSwatches(&sheet, medium, ""))
}

type pairPaletteInput struct {
	Look
	Spaced
	A     string `query:"a" required:"true" maxLength:"60" doc:"paint"`
	B     string `query:"b" required:"true" maxLength:"60" doc:"paint"`
	Steps int    `query:"steps" default:"3" minimum:"1" maximum:"11" doc:"inner steps"`
	Wheel int64  `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	PaletteFormat
}

// pairPalette are the ends and the steps of the way between two paints.
func (s *Server) pairPalette(ctx context.Context, in *pairPaletteInput) (*Export, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return nil, err
	}
	found, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, in.A, in.B)
	if err != nil {
		return nil, err
	}
	way := path.New(found[0], found[1])
	if way.Indistinguishable() {
		return nil, input.Errorf("%s and %s look the same: there are no steps between them", found[0].ShortName(), found[1].ShortName())
	}
	sheet := bench.Ladder(way, in.Steps, spacing)
	return in.palette(found[0].ShortName()+" to "+found[1].ShortName(), driedIn(v.Medium), files.SheetSwatches(&sheet, v.Medium, ""))
}

type comparePaletteInput struct {
	ComparedQuery
	PaletteFormat
}

// comparePalette are the slots of systems side by side.
func (s *Server) comparePalette(ctx context.Context, in *comparePaletteInput) (*Export, error) {
	v, systems, err := s.compared(ctx, &in.ComparedQuery)
	if err != nil {
		return nil, err
	}
	var all []files.Swatch
	for n := range systems {
		sheet := bench.Wheel(systems[n].Wheel, bench.Extras{}, bench.Usual(v.Medium))
		all = append(all, files.SheetSwatches(&sheet, v.Medium, systems[n].Name)...)
	}
	return in.palette("Systems side by side", driedIn(v.Medium), all)
}

type sittingPaletteInput struct {
	ID int64 `path:"id" doc:"a sitting"`
	PaletteFormat
}

// sittingPalette are the colours of a sitting as they were painted.
func (s *Server) sittingPalette(ctx context.Context, in *sittingPaletteInput) (*Export, error) {
	a, err := s.studio.Account(ctx, painter(ctx), in.ID)
	if err != nil {
		return nil, err
	}
	return in.palette(a.Name, "painted in "+a.Medium.Name, files.PaintedSwatches(&a))
}

func (s *Server) paletteRoutes() {
	register(s, huma.Operation{OperationID: "wheelPalette", Tags: []string{"wheels"}, Summary: "The colours of a kept wheel as a file", Method: http.MethodGet, Path: "/api/wheels/{id}/palette"}, s.wheelPalette)
	register(s, huma.Operation{OperationID: "pairPalette", Tags: []string{"paints"}, Summary: "The colours of a way between two paints as a file", Method: http.MethodGet, Path: "/api/pair/palette", Metadata: painterForTubes}, s.pairPalette)
	register(s, huma.Operation{OperationID: "comparePalette", Tags: []string{"comparing"}, Summary: "The colours of systems side by side as a file", Method: http.MethodGet, Path: "/api/compare/palette"}, s.comparePalette)
	register(s, huma.Operation{OperationID: "sittingPalette", Tags: []string{"log"}, Summary: "The painted colours of a sitting as a file", Method: http.MethodGet, Path: "/api/sittings/{id}/palette"}, s.sittingPalette)
}
