package api

import (
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

type sittingPhoto struct {
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

func (s *Server) readingRoutes() {
	type sitting struct {
		ID int64 `path:"id" doc:"a sitting"`
	}
	type reads struct{ Body wire.SittingReads }
	list := func(ctx context.Context, id int64) (*reads, error) {
		got, err := s.studio.Reads(ctx, painter(ctx), id)
		return &reads{wire.SittingReadsOf(got)}, s.refusal(err)
	}
	huma.Register(s.api, huma.Operation{OperationID: "sittingReads", Tags: []string{"sitting"}, Summary: "The readings and photos of a sitting", Method: http.MethodGet, Path: "/api/sittings/{id}/readings"},
		func(ctx context.Context, in *sitting) (*reads, error) { return list(ctx, in.ID) })

	type keepReads struct {
		ID   int64 `path:"id" doc:"a sitting"`
		Body struct {
			Readings []wire.ReadToKeep `json:"readings" minItems:"1" maxItems:"200"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "keepReadings", Tags: []string{"sitting"}, Summary: "Keeps readings of a sitting, all or none, beside those there are", Method: http.MethodPost, Path: "/api/sittings/{id}/readings"},
		func(ctx context.Context, in *keepReads) (*reads, error) {
			var all []studio.NewReading
			for _, r := range in.Body.Readings {
				all = append(all, r.Core())
			}
			if err := s.studio.KeepReadings(ctx, painter(ctx), in.ID, all); err != nil {
				return nil, s.refusal(err)
			}
			return list(ctx, in.ID)
		})

	type chipsAsked struct {
		ID   int64   `path:"id" doc:"a sitting"`
		Slot string  `query:"slot" required:"true" maxLength:"200" doc:"id of the region"`
		Lab  string  `query:"lab" maxLength:"60" doc:"L,a,b of the colour in the middle; the computed one when empty"`
		Off  float64 `query:"off" default:"3" doc:"how far the chips lie off, CIEDE2000"`
		Wet  bool    `query:"wet" doc:"the place is wet"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "eyeChips", Tags: []string{"sitting"}, Summary: "Six colours round one, to read a place by eye", Method: http.MethodGet, Path: "/api/sittings/{id}/chips"},
		func(ctx context.Context, in *chipsAsked) (*struct{ Body wire.EyeChips }, error) {
			middle, all, err := s.studio.Chips(ctx, painter(ctx), in.ID, in.Slot, in.Lab, in.Wet, in.Off)
			return &struct{ Body wire.EyeChips }{wire.EyeChipsOf(middle, all)}, s.refusal(err)
		})

	type onePhoto struct{ Body wire.SittingPhoto }
	type sent struct {
		ID      int64 `path:"id" doc:"a sitting"`
		RawBody []byte
	}
	huma.Register(s.api, huma.Operation{OperationID: "keepPhoto", Tags: []string{"sitting"}, Summary: "Keeps a photo of a sitting, without what a camera notes in it", Method: http.MethodPost, Path: filesBelow + "sittings/{id}/photo", MaxBodyBytes: largestFile},
		func(ctx context.Context, in *sent) (*onePhoto, error) {
			out := &onePhoto{}
			err := s.reading(ctx, func() error {
				kept, err := s.studio.KeepPhoto(ctx, painter(ctx), in.ID, in.RawBody)
				out.Body = wire.SittingPhotoOf(kept)
				return err
			})
			return out, err
		})

	type standinShot struct {
		ID   int64 `path:"id" doc:"a sitting"`
		Body struct {
			Seed     uint64             `json:"seed,omitempty" maximum:"1000000"`
			Light    string             `json:"light,omitempty" maxLength:"10" doc:"D65, D50 or A"`
			Strength map[string]float64 `json:"strength,omitempty" doc:"true strengths of tubes over those on the plan"`
			Shadow   bool               `json:"shadow,omitempty"`
			Glare    int                `json:"glare,omitempty" minimum:"0" maximum:"128"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "standinPhoto", Tags: []string{"sitting"}, Summary: "A photo of the sheet by the stand-in camera: rendered, and not taken", Method: http.MethodPost, Path: "/api/sittings/{id}/standin"},
		func(ctx context.Context, in *standinShot) (*onePhoto, error) {
			if !s.Local {
				return nil, huma.Error422UnprocessableEntity("The stand-in camera takes photos only where Gyrophane serves its own machine.")
			}
			shot := devices.Shot{Seed: in.Body.Seed, Strength: in.Body.Strength, Shadow: in.Body.Shadow, Glare: in.Body.Glare}
			if in.Body.Light != "" {
				light, err := colour.ParseLight(in.Body.Light)
				if err != nil {
					return nil, s.refusal(input.Wrap(err))
				}
				shot.Light = light
			}
			out := &onePhoto{}
			err := s.reading(ctx, func() error {
				kept, err := s.studio.StandinPhoto(ctx, painter(ctx), in.ID, shot)
				out.Body = wire.SittingPhotoOf(kept)
				return err
			})
			return out, err
		})

	huma.Register(s.api, huma.Operation{OperationID: "sittingPhoto", Tags: []string{"sitting"}, Summary: "A photo of a sitting", Method: http.MethodGet, Path: "/api/sittings/{id}/photos/{photo}"},
		func(ctx context.Context, in *sittingPhoto) (*Export, error) {
			jpeg, err := s.studio.Photo(ctx, painter(ctx), in.ID, in.Photo)
			return &Export{ContentType: "image/jpeg", ContentDisposition: "inline", Body: jpeg}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "dropPhoto", Tags: []string{"sitting"}, Summary: "Deletes a photo; what was read of it stays", Method: http.MethodDelete, Path: "/api/sittings/{id}/photos/{photo}"},
		func(ctx context.Context, in *sittingPhoto) (*struct{}, error) {
			return nil, s.refusal(s.studio.DropPhoto(ctx, painter(ctx), in.ID, in.Photo))
		})

	type photoToRead struct {
		ID    int64 `path:"id" doc:"a sitting"`
		Photo int64 `path:"photo" doc:"one of its photos"`
		Body  struct {
			Drawn bool                      `json:"drawn,omitempty" doc:"the sheet was drawn freely: the marks are the quarter points of its rim, from the top, or its corners"`
			Marks []float64                 `json:"marks,omitempty" maxItems:"8" doc:"x and y of the upper left, upper right, lower right and lower left mark; found by the program when empty"`
			Spots map[string]wire.PhotoSpot `json:"spots,omitempty" doc:"moved or left out, by the ids of their regions"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "readPhoto", Tags: []string{"sitting"}, Summary: "What a photo says of the sheet; nothing is kept", Method: http.MethodPost, Path: "/api/sittings/{id}/photos/{photo}/read"},
		func(ctx context.Context, in *photoToRead) (*struct{ Body wire.PhotoRead }, error) {
			var marks *photo.Corners
			if len(in.Body.Marks) == 8 {
				marks = &photo.Corners{}
				for i, v := range in.Body.Marks {
					marks[i/2][i%2] = v
				}
			}
			spots := map[string]photo.Spot{}
			for id, spot := range in.Body.Spots {
				spots[id] = spot.Core()
			}
			out := &struct{ Body wire.PhotoRead }{}
			err := s.reading(ctx, func() error {
				got, err := s.studio.ReadPhoto(ctx, painter(ctx), in.ID, in.Photo, marks, in.Body.Drawn, spots)
				if err == nil {
					out.Body = wire.PhotoReadOf(got.Sheet, got.Read, got.Found, got.Refused)
				}
				return err
			})
			return out, err
		})

	type straight struct {
		ID    int64  `path:"id" doc:"a sitting"`
		Photo int64  `path:"photo" doc:"one of its photos"`
		Marks string `query:"marks" maxLength:"200" doc:"eight numbers with commas between; found by the program when empty"`
		Drawn bool   `query:"drawn" doc:"the sheet was drawn freely"`
		Even  bool   `query:"even" doc:"with the light evened out"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "straightPhoto", Tags: []string{"sitting"}, Summary: "The sheet of a photo, straightened", Method: http.MethodGet, Path: "/api/sittings/{id}/photos/{photo}/straight"},
		func(ctx context.Context, in *straight) (*Export, error) {
			marks, err := parseMarks(in.Marks)
			if err != nil {
				return nil, s.refusal(err)
			}
			out := &Export{ContentType: "image/jpeg", ContentDisposition: "inline"}
			err = s.reading(ctx, func() error {
				got, err := s.studio.ReadPhoto(ctx, painter(ctx), in.ID, in.Photo, marks, in.Drawn, nil)
				if err == nil {
					out.Body, err = got.Straight(in.Even)
				}
				return err
			})
			return out, err
		})
}
