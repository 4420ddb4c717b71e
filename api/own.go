package api

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/wire"
)

// Preview is a paint of one's own before it is kept.
type Preview struct {
	Paint  wire.Tube    `json:"paint"`
	Fit    *wire.Fit    `json:"fit" doc:"null where nothing was given to agree with"`
	Shares []wire.Share `json:"shares" doc:"of the pigments of a label"`
}

// meterTime is how long one reading with the meter may take in all.
const meterTime = 8 * time.Second

type meterReading struct {
	wire.Measured
	Spread  float64 `json:"spread" doc:"largest standard deviation of the repeats, in reflectance"`
	Repeats int     `json:"repeats"`
	Device  string  `json:"device"`
}

type labelInput struct {
	Look
	Text string `query:"text" required:"true" maxLength:"300" doc:"what the label says"`
}

type previewOwnInput struct {
	Look
	Body struct {
		Name   string      `json:"name,omitempty" maxLength:"80"`
		Origin wire.Origin `json:"origin"`
	}
}

func (s *Server) previewOwn(ctx context.Context, in *previewOwnInput) (*struct{ Body Preview }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		name = "new paint"
	}
	derived, err := in.Body.Origin.Core().Derive(name)
	if err != nil {
		return nil, err
	}
	p, err := derived.Paint("preview", 1)
	if err != nil {
		return nil, err
	}
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	out := Preview{Paint: v.Tube(p, append(box.Paints(), p), bias.School(painter(ctx).WarmBlue)), Fit: wire.FitOf(derived), Shares: wire.SharesOf(derived)}
	if out.Shares == nil {
		out.Shares = []wire.Share{}
	}
	return &struct{ Body Preview }{out}, nil
}

type keepOwnInput struct {
	Look
	Body struct {
		Name   string      `json:"name" maxLength:"200"`
		Grade  string      `json:"grade,omitempty" format:"grade"`
		Origin wire.Origin `json:"origin"`
	}
}

func (s *Server) keepOwn(ctx context.Context, in *keepOwnInput) (*struct{ Body Box }, error) {
	if err := s.studio.AddOwn(ctx, painter(ctx).ID, in.Body.Name, in.Body.Grade, in.Body.Origin.Core()); err != nil {
		return nil, err
	}
	return s.box(ctx, &in.Look)
}

type pickFromPhotoInput struct {
	Paper   string `query:"paper" required:"true" maxLength:"80" doc:"spot of bare paper: x,y,r in fractions of the picture"`
	Mass    string `query:"mass" maxLength:"80" doc:"spot of the masstone"`
	Tint    string `query:"tint" maxLength:"80" doc:"spot of the tint"`
	Medium  string `query:"medium" default:"acrylic" format:"medium" doc:"what is painted with"`
	Judged  string `query:"judged" default:"dry" format:"judged" doc:"as it is being painted, or when it is dry"`
	RawBody []byte
}

func (s *Server) pickFromPhoto(ctx context.Context, in *pickFromPhotoInput) (*struct{ Body map[string]wire.Measured }, error) {
	paper, err := files.ParseSpot("bare paper", in.Paper)
	if err != nil {
		return nil, err
	}
	spots := map[string]files.Spot{}
	for what, text := range map[string]string{"mass": in.Mass, "tint": in.Tint} {
		if text == "" {
			continue
		}
		if spots[what], err = files.ParseSpot(what, text); err != nil {
			return nil, err
		}
	}
	picture, err := files.ReadPhoto(ctx, in.RawBody)
	if err != nil {
		return nil, err
	}
	picked, err := picture.Pick(paper, spots, in.Medium, in.Judged)
	return &struct{ Body map[string]wire.Measured }{wire.Picked(picked)}, err
}

type readSpectraInput struct{ RawBody []byte }

func (s *Server) readSpectra(_ context.Context, in *readSpectraInput) (*struct{ Body wire.Samples }, error) {
	got, err := files.ReadSpectra(in.RawBody)
	out := wire.Samples{Format: got.Format, Percent: got.Percent, Grid: got.Grid, Samples: []wire.Sample{}}
	for _, sample := range got.Samples {
		out.Samples = append(out.Samples, wire.SampleOf(sample.Name, sample.Line, sample.Spectrum, sample.Held))
	}
	return &struct{ Body wire.Samples }{out}, err
}

type readMeterInput struct {
	Body struct {
		Swatch string `json:"swatch" maxLength:"200" doc:"what the stand-in is to lay under itself: PB29=1 PW6=9"`
		Medium string `json:"medium" format:"medium"`
		Judged string `json:"judged" format:"judged"`
	}
}

func (s *Server) readMeter(ctx context.Context, in *readMeterInput) (*struct{ Body meterReading }, error) {
	ctx, cancel := context.WithTimeout(ctx, meterTime)
	defer cancel()
	got, err := devices.Meter{Address: s.Meter}.Measure(ctx, strings.TrimSpace(in.Body.Swatch+" "+in.Body.Medium+" "+in.Body.Judged))
	var refused devices.Refusal
	switch {
	case errors.Is(err, devices.ErrNotConnected), errors.Is(err, context.DeadlineExceeded):
		return nil, huma.Error422UnprocessableEntity("The meter is not connected: nothing answers at " + s.Meter + ". Start the stand-in with gyrophane meter, or type the colour.")
	case errors.As(err, &refused):
		return nil, huma.Error422UnprocessableEntity("The meter refuses: " + refused.Sentence)
	case err != nil:
		return nil, huma.Error422UnprocessableEntity("The meter answered, but not with a reading: " + err.Error())
	}
	return &struct{ Body meterReading }{meterReading{wire.MeasuredOf(got.Spectrum, in.Body.Medium, in.Body.Judged), got.Spread, got.Repeats, got.Serial}}, nil
}

func (s *Server) ownRoutes() {
	register(s, huma.Operation{OperationID: "previewOwn", Tags: []string{"paints"}, Summary: "A paint of one's own before it is kept", Method: http.MethodPost, Path: "/api/own/preview"}, s.previewOwn)
	register(s, huma.Operation{OperationID: "keepOwn", Tags: []string{"box"}, Summary: "Keeps a paint of one's own in the box", Method: http.MethodPost, Path: "/api/own"}, s.keepOwn)

	ask(s, "label", "Finds the Colour Index names in what a label says", func(in *labelInput) ([]wire.LabelCode, error) {
		v, err := in.view()
		if err != nil {
			return nil, err
		}
		codes, err := paint.ReadLabel(in.Text)
		if err != nil {
			return nil, err
		}
		return v.LabelCodes(codes), nil
	})
	deferred(s, huma.Operation{OperationID: "pickFromPhoto", Tags: []string{"paints"}, Summary: "Reads swatches off a photo, against bare paper", Method: http.MethodPost, Path: filesBelow + "photo", MaxBodyBytes: largestFile}, photoLine, photoTime, unnamed, s.pickFromPhoto)
	register(s, huma.Operation{OperationID: "readSpectra", Tags: []string{"paints"}, Summary: "Reads measured spectra from a file; nothing is kept", Method: http.MethodPost, Path: filesBelow + "spectra", MaxBodyBytes: files.MostFileBytes + 1<<10}, s.readSpectra)
	register(s, huma.Operation{OperationID: "readMeter", Tags: []string{"paints"}, Summary: "Reads a swatch with the colour meter", Method: http.MethodPost, Path: "/api/meter/readings"}, s.readMeter)
}
