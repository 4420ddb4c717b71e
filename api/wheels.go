package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/exchange"
	"gyrophane/store"
)

// Roles are the paints of a triad, by library id.
type Roles struct {
	Yellow string `json:"yellow" maxLength:"60"`
	Red    string `json:"red" maxLength:"60"`
	Blue   string `json:"blue" maxLength:"60"`
}

// Settings are the choices a wheel is looked at with.
type Settings struct {
	Spacing string `json:"spacing" enum:"hue,contrast,parts"`
	exchange.Conditions
}

// WheelContent is what a painter decides of a wheel.
type WheelContent struct {
	Name     string   `json:"name" maxLength:"200"`
	Roles    Roles    `json:"roles"`
	Settings Settings `json:"settings"`
}

// KeptWheel is a wheel as it is kept.
type KeptWheel struct {
	ID int64 `json:"id"`
	WheelContent
	Version int       `json:"version" doc:"a save names the version it was made on"`
	Library string    `json:"library" doc:"version of the paint library at the last save"`
	Saved   time.Time `json:"saved"`
	CanUndo bool      `json:"canUndo"`
	Refused []Refused `json:"refused" doc:"saves made on an outdated version, kept until the painter chooses"`
}

// Refused is a save that came too late, kept beside the wheel.
type Refused struct {
	ID int64 `json:"id"`
	WheelContent
	Saved time.Time `json:"saved"`
}

// WheelEntry is a wheel in a list.
type WheelEntry struct {
	ID    int64     `json:"id"`
	Name  string    `json:"name"`
	Roles Roles     `json:"roles"`
	Saved time.Time `json:"saved"`
}

func contentOf(c store.Content) WheelContent {
	return WheelContent{c.Name, Roles(c.Snapshot), Settings{c.Settings.Spacing,
		exchange.Conditions{Medium: c.Settings.Medium, Light: c.Settings.Light, Judged: c.Settings.Judged}}}
}

// content checks what a painter decided, and writes paints' ids as the library
// does.
func (c WheelContent) content() (store.Content, error) {
	system, err := exchange.FindTriad(c.Roles.Yellow, c.Roles.Red, c.Roles.Blue)
	if err != nil {
		return store.Content{}, err
	}
	if _, _, err := exchange.ParseLook(c.Settings.Medium, c.Settings.Light, c.Settings.Judged, c.Settings.Spacing); err != nil {
		return store.Content{}, err
	}
	p := system.Primaries()
	return store.Content{
		Name:     c.Name,
		Snapshot: store.Roles{Yellow: p[0].ID, Red: p[1].ID, Blue: p[2].ID},
		Settings: store.Settings{Spacing: c.Settings.Spacing, Medium: c.Settings.Medium, Light: c.Settings.Light, Judged: c.Settings.Judged},
	}, nil
}

type keptWheelOutput struct{ Body KeptWheel }

// WheelID is the wheel a request is about.
type WheelID struct {
	ID int64 `path:"id" minimum:"1"`
}

func (s *Server) wheelRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "wheels", Method: http.MethodGet, Path: "/api/wheels"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body []WheelEntry }, error) {
			wheels, err := s.store.Wheels(ctx, painter(ctx).ID)
			out := &struct{ Body []WheelEntry }{[]WheelEntry{}}
			for _, w := range wheels {
				out.Body = append(out.Body, WheelEntry{w.ID, w.Name, Roles(w.Snapshot), w.UpdatedAt})
			}
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "newWheel", Method: http.MethodPost, Path: "/api/wheels", DefaultStatus: http.StatusCreated},
		func(ctx context.Context, in *struct{ Body WheelContent }) (*keptWheelOutput, error) {
			c, err := in.Body.content()
			if err != nil {
				return nil, s.refusal(err)
			}
			w, err := s.store.CreateWheel(ctx, painter(ctx).ID, c)
			return s.kept(ctx, w, err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "keptWheel", Method: http.MethodGet, Path: "/api/wheels/{id}"},
		func(ctx context.Context, in *WheelID) (*keptWheelOutput, error) {
			w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			return s.kept(ctx, w, err)
		})

	type save struct {
		WheelID
		Body struct {
			WheelContent
			Version  int   `json:"version" minimum:"1" doc:"the version this change was made on"`
			Resolves int64 `json:"resolves,omitempty" doc:"a refused version that this save settles"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "saveWheel", Method: http.MethodPut, Path: "/api/wheels/{id}"},
		func(ctx context.Context, in *save) (*keptWheelOutput, error) {
			c, err := in.Body.content()
			if err != nil {
				return nil, s.refusal(err)
			}
			w, err := s.store.SaveWheel(ctx, painter(ctx).ID, in.ID, in.Body.Version, c, in.Body.Resolves)
			return s.kept(ctx, w, err)
		})

	type undo struct {
		WheelID
		Body struct {
			Version int `json:"version" minimum:"1" doc:"the version to take back"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "undoWheel", Method: http.MethodPost, Path: "/api/wheels/{id}/undo"},
		func(ctx context.Context, in *undo) (*keptWheelOutput, error) {
			w, err := s.store.UndoWheel(ctx, painter(ctx).ID, in.ID, in.Body.Version)
			return s.kept(ctx, w, err)
		})

	type refused struct {
		WheelID
		Refused int64 `path:"refused" minimum:"1"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "dropRefused", Method: http.MethodDelete, Path: "/api/wheels/{id}/refused/{refused}"},
		func(ctx context.Context, in *refused) (*keptWheelOutput, error) {
			if err := s.store.DropRefused(ctx, painter(ctx).ID, in.ID, in.Refused); err != nil {
				return nil, s.refusal(err)
			}
			w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			return s.kept(ctx, w, err)
		})
}

// kept answers with a wheel as it is kept now.
func (s *Server) kept(ctx context.Context, w store.Wheel, err error) (*keptWheelOutput, error) {
	if err != nil {
		return nil, s.refusal(err)
	}
	out := KeptWheel{ID: w.ID, WheelContent: contentOf(w.Content), Version: w.Version, Library: w.LibraryVersion, Saved: w.UpdatedAt, Refused: []Refused{}}
	if out.CanUndo, err = s.store.CanUndo(ctx, w); err != nil {
		return nil, s.refusal(err)
	}
	refused, err := s.store.Refused(ctx, painter(ctx).ID, w.ID)
	if err != nil {
		return nil, s.refusal(err)
	}
	for _, r := range refused {
		out.Refused = append(out.Refused, Refused{r.ID, contentOf(r.Content), r.CreatedAt})
	}
	return &keptWheelOutput{out}, nil
}
