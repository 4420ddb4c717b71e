package api

import (
	"cmp"
	"context"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/photo"
	"gyrophane/devices"
	"gyrophane/studio"
	"gyrophane/wire"
)

type sittingPhotoInput struct {
	ID    int64 `path:"id" doc:"a sitting"`
	Photo int64 `path:"photo" doc:"one of its photos"`
}

// parseMarks reads the middles of four marks: eight numbers with commas between.
func parseMarks(text string) (*photo.Corners, error) {
	if text == "" {
		return nil, nil
	}
	fields := strings.Split(text, ",")
	out := &photo.Corners{}
	for i, f := range fields {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil || len(fields) != 8 || !(v >= -1e5 && v <= 1e5) {
			return nil, input.Errorf("marks are eight numbers with commas between: x and y of the upper left, upper right, lower right and lower left")
		}
		out[i/2][i%2] = v
	}
	return out, nil
}

type (
	sittingInput struct {
		ID int64 `path:"id" doc:"a sitting"`
	}
	sittingReads    struct{ Body wire.SittingReads }
	oneSittingPhoto struct{ Body wire.SittingPhoto }
)

func (s *Server) sittingReads(ctx context.Context, in *sittingInput) (*sittingReads, error) {
	got, err := s.studio.Reads(ctx, painter(ctx), in.ID)
	return &sittingReads{wire.SittingReadsOf(got)}, err
}

type keepReadingsInput struct {
	ID   int64 `path:"id" doc:"a sitting"`
	Body struct {
		Readings []wire.ReadToKeep `json:"readings" minItems:"1" maxItems:"200"`
	}
}

func (s *Server) keepReadings(ctx context.Context, in *keepReadingsInput) (*sittingReads, error) {
	var all []studio.NewReading
	for _, r := range in.Body.Readings {
		all = append(all, r.Core())
	}
	if err := s.studio.KeepReadings(ctx, painter(ctx), in.ID, all); err != nil {
		return nil, err
	}
	return s.sittingReads(ctx, &sittingInput{in.ID})
}

type ribbonsInput struct {
	ID   int64   `path:"id" doc:"a sitting"`
	Slot string  `query:"slot" required:"true" maxLength:"200" doc:"id of the region"`
	Lab  string  `query:"lab" maxLength:"60" doc:"L,a,b of the colour in the middle; the computed one when empty"`
	Off  float64 `query:"off" default:"6" doc:"how far the ribbons run either way, CIEDE2000"`
	Wet  bool    `query:"wet" doc:"the place is wet"`
}

func (s *Server) eyeRibbons(ctx context.Context, in *ribbonsInput) (*struct{ Body wire.EyeHeld }, error) {
	held, err := s.studio.Ribbons(ctx, painter(ctx), in.ID, in.Slot, in.Lab, in.Wet, in.Off)
	return &struct{ Body wire.EyeHeld }{wire.EyeHeldOf(held)}, err
}

type ribbonsFromInput struct {
	From string  `query:"from" required:"true" maxLength:"60" doc:"a colour that comes near it: #rrggbb, or CIELAB"`
	Lab  string  `query:"lab" maxLength:"60" doc:"L,a,b of the colour in the middle; the one begun at when empty"`
	Off  float64 `query:"off" default:"15" doc:"how far the ribbons run either way, CIEDE2000"`
}

func (s *Server) ribbonsFrom(_ context.Context, in *ribbonsFromInput) (*struct{ Body wire.EyeHeld }, error) {
	held, err := studio.RibbonsFrom(in.From, in.Lab, in.Off)
	return &struct{ Body wire.EyeHeld }{wire.EyeHeldOf(held)}, err
}

type keepPhotoInput struct {
	ID      int64 `path:"id" doc:"a sitting"`
	RawBody []byte
}

func (s *Server) keepPhoto(ctx context.Context, in *keepPhotoInput) (*oneSittingPhoto, error) {
	kept, err := s.studio.KeepPhoto(ctx, painter(ctx), in.ID, in.RawBody)
	return &oneSittingPhoto{wire.SittingPhotoOf(kept)}, err
}

type standinInput struct {
	ID   int64 `path:"id" doc:"a sitting"`
	Body struct {
		Seed      uint64             `json:"seed,omitempty" maximum:"1000000"`
		Light     string             `json:"light,omitempty" maxLength:"10" doc:"D65, D50 or A"`
		Strength  map[string]float64 `json:"strength,omitempty" doc:"true strengths of tubes over those on the plan"`
		Shadow    bool               `json:"shadow,omitempty"`
		Rendering string             `json:"rendering,omitempty" maxLength:"20" doc:"plain, phone (when empty) or strong: what the stand-in does to colours, as phones do"`
		Glare     int                `json:"glare,omitempty" minimum:"0" maximum:"128"`
	}
}

func (s *Server) standinPhoto(ctx context.Context, in *standinInput) (*oneSittingPhoto, error) {
	if s.Listener == Public {
		return nil, input.Errorf("The stand-in camera takes photos only where Gyrophane serves a machine of your own.")
	}
	shot := devices.Shot{Seed: in.Body.Seed, Strength: in.Body.Strength, Shadow: in.Body.Shadow, Glare: in.Body.Glare}
	var err error
	if shot.Rendering, err = devices.ParseRendering(cmp.Or(in.Body.Rendering, "phone")); err != nil {
		return nil, input.Wrap(err)
	}
	if in.Body.Light != "" {
		light, err := colour.ParseLight(in.Body.Light)
		if err != nil {
			return nil, input.Wrap(err)
		}
		shot.Light = light
	}
	kept, err := s.studio.StandinPhoto(ctx, painter(ctx), in.ID, shot)
	return &oneSittingPhoto{wire.SittingPhotoOf(kept)}, err
}

func (s *Server) sittingPhoto(ctx context.Context, in *sittingPhotoInput) (*Export, error) {
	jpeg, err := s.studio.Photo(ctx, painter(ctx), in.ID, in.Photo)
	return &Export{ContentType: "image/jpeg", ContentDisposition: "inline", Body: jpeg}, err
}

func (s *Server) dropPhoto(ctx context.Context, in *sittingPhotoInput) (*struct{}, error) {
	return nil, s.studio.DropPhoto(ctx, painter(ctx), in.ID, in.Photo)
}

type readPhotoInput struct {
	ID    int64 `path:"id" doc:"a sitting"`
	Photo int64 `path:"photo" doc:"one of its photos"`
	Body  struct {
		Drawn bool                      `json:"drawn,omitempty" doc:"the sheet was drawn freely: the marks are the quarter points of its rim, from the top, or its corners"`
		Marks []float64                 `json:"marks,omitempty" maxItems:"8" doc:"x and y of the upper left, upper right, lower right and lower left mark; found by the program when empty"`
		Wet   bool                      `json:"wet,omitempty" doc:"what is painted is wet"`
		Grey  float64                   `json:"grey,omitempty" minimum:"0" maximum:"100" doc:"L* that the grey step was measured to have; 0 where it was not"`
		Spots map[string]wire.PhotoSpot `json:"spots,omitempty" doc:"moved or left out, by the ids of their regions"`
	}
}

func (s *Server) readPhoto(ctx context.Context, in *readPhotoInput) (*struct{ Body wire.PhotoRead }, error) {
	how := studio.HowRead{Drawn: in.Body.Drawn, Wet: in.Body.Wet, Step: photo.StepOf(in.Body.Grey), Spots: map[string]photo.Spot{}}
	if len(in.Body.Marks) == 8 {
		how.Marks = &photo.Corners{}
		for i, v := range in.Body.Marks {
			how.Marks[i/2][i%2] = v
		}
	}
	for id, spot := range in.Body.Spots {
		how.Spots[id] = spot.Core()
	}
	got, err := s.studio.ReadPhoto(ctx, painter(ctx), in.ID, in.Photo, how)
	if err != nil {
		return nil, err
	}
	return &struct{ Body wire.PhotoRead }{wire.PhotoReadOf(got.Sheet, got.Read, got.Found, got.Refused, &got.Told)}, nil
}

type straightInput struct {
	ID    int64  `path:"id" doc:"a sitting"`
	Photo int64  `path:"photo" doc:"one of its photos"`
	Marks string `query:"marks" maxLength:"200" doc:"eight numbers with commas between; found by the program when empty"`
	Drawn bool   `query:"drawn" doc:"the sheet was drawn freely"`
	Even  bool   `query:"even" doc:"with the light evened out"`
}

func (s *Server) straightPhoto(ctx context.Context, in *straightInput) (*Export, error) {
	marks, err := parseMarks(in.Marks)
	if err != nil {
		return nil, err
	}
	out := &Export{ContentType: "image/jpeg", ContentDisposition: "inline"}
	got, err := s.studio.ReadPhoto(ctx, painter(ctx), in.ID, in.Photo, studio.HowRead{Marks: marks, Drawn: in.Drawn})
	if err == nil {
		out.Body, err = got.Straight(in.Even)
	}
	return out, err
}

func (s *Server) readingRoutes() {
	register(s, huma.Operation{OperationID: "sittingReads", Tags: []string{"sitting"}, Summary: "The readings and photos of a sitting", Method: http.MethodGet, Path: "/api/sittings/{id}/readings"}, s.sittingReads)
	register(s, huma.Operation{OperationID: "keepReadings", Tags: []string{"sitting"}, Summary: "Keeps readings of a sitting, all or none, beside those there are", Method: http.MethodPost, Path: "/api/sittings/{id}/readings"}, s.keepReadings)
	register(s, huma.Operation{OperationID: "eyeRibbons", Tags: []string{"sitting"}, Summary: "Three ribbons through a colour, to read a place by eye", Method: http.MethodGet, Path: "/api/sittings/{id}/ribbons"}, s.eyeRibbons)
	register(s, huma.Operation{OperationID: "ribbonsFrom", Tags: []string{"comparing"}, Summary: "Three ribbons through a colour, to find one that is held beside the screen", Method: http.MethodGet, Path: "/api/ribbons"}, s.ribbonsFrom)
	deferred(s, huma.Operation{OperationID: "keepPhoto", Tags: []string{"sitting"}, Summary: "Keeps a photo of a sitting, without what a camera notes in it", Method: http.MethodPost, Path: filesBelow + "sittings/{id}/photo", MaxBodyBytes: largestFile}, photoLine, photoTime, unnamed, s.keepPhoto)
	deferred(s, huma.Operation{OperationID: "standinPhoto", Tags: []string{"sitting"}, Summary: "A photo of the sheet by the stand-in camera: rendered, and not taken", Method: http.MethodPost, Path: "/api/sittings/{id}/standin"}, photoLine, photoTime, unnamed, s.standinPhoto)
	register(s, huma.Operation{OperationID: "sittingPhoto", Tags: []string{"sitting"}, Summary: "A photo of a sitting", Method: http.MethodGet, Path: "/api/sittings/{id}/photos/{photo}"}, s.sittingPhoto)
	register(s, huma.Operation{OperationID: "dropPhoto", Tags: []string{"sitting"}, Summary: "Deletes a photo; what was read of it stays", Method: http.MethodDelete, Path: "/api/sittings/{id}/photos/{photo}"}, s.dropPhoto)
	deferred(s, huma.Operation{OperationID: "readPhoto", Tags: []string{"sitting"}, Summary: "What a photo says of the sheet; nothing is kept", Method: http.MethodPost, Path: "/api/sittings/{id}/photos/{photo}/read"}, photoLine, photoTime, unnamed, s.readPhoto)
	deferred(s, huma.Operation{OperationID: "straightPhoto", Tags: []string{"sitting"}, Summary: "The sheet of a photo, straightened", Method: http.MethodGet, Path: "/api/sittings/{id}/photos/{photo}/straight"}, photoLine, photoTime, unnamed, s.straightPhoto)
}
