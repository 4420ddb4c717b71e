package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/exchange"
	"gyrophane/store"
)

// Settings are the choices a wheel is built and looked at with.
type Settings struct {
	exchange.Conditions
	Choices exchange.WheelChoices `json:"choices"`
}

// WheelContent is what a painter decides of a wheel.
type WheelContent struct {
	Name     string                 `json:"name" maxLength:"200"`
	System   exchange.SystemContent `json:"system"`
	Settings Settings               `json:"settings"`
	Archived bool                   `json:"archived,omitempty"`
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
	ID       int64                  `json:"id"`
	Name     string                 `json:"name"`
	System   exchange.SystemContent `json:"system"`
	Archived bool                   `json:"archived"`
	Saved    time.Time              `json:"saved"`
}

// EarlierWheel is a version that a wheel has been through.
type EarlierWheel struct {
	Version int `json:"version"`
	WheelContent
	Saved time.Time `json:"saved"`
}

// snapshot is how a system is kept: its paints by reference, and each tube as
// it was when they were chosen, so that a wheel keeps its paints.
type snapshot struct {
	System exchange.SystemContent `json:"system"`
	Frozen map[string]frozenTube  `json:"frozen"`
}

type frozenTube struct {
	Definition exchange.Definition `json:"definition"`
	Strength   float64             `json:"strength"`
}

// finder finds library paints by their ids, and a painter's tubes as they are
// now or, where they were kept with a wheel, as they were then. What it finds
// among the tubes it notes in found.
func (s *Server) finder(ctx context.Context, frozen map[string]frozenTube, found map[string]frozenTube) exchange.Finder {
	return func(ref string) (*paint.Paint, error) {
		number, isTube := strings.CutPrefix(ref, exchange.TubePrefix)
		if !isTube {
			return exchange.FindPaint(ref)
		}
		t, known := frozen[ref]
		if !known {
			id, err := strconv.ParseInt(number, 10, 64)
			if err != nil {
				return nil, exchange.Bad("%.40q is no tube of your box", ref)
			}
			p, err := painterIfAny(ctx)
			if err != nil {
				return nil, err
			}
			kept, err := s.store.Tube(ctx, p.ID, id)
			if errors.Is(err, store.ErrNotFound) {
				return nil, exchange.Bad("%s is no tube of your box", ref)
			}
			if err != nil {
				return nil, err
			}
			o, err := s.open(kept)
			if err != nil {
				return nil, err
			}
			t = frozenTube{o.definition, contentOfTube(kept.TubeContent).Strength()}
		}
		if found != nil {
			found[ref] = t
		}
		return t.Definition.Kept().Paint(ref, t.Strength)
	}
}

func contentOf(c store.Content) (WheelContent, snapshot, error) {
	var snap snapshot
	out := WheelContent{Name: c.Name, Archived: c.Archived}
	if err := json.Unmarshal(c.Snapshot, &snap); err != nil {
		return out, snap, err
	}
	out.System = snap.System
	return out, snap, json.Unmarshal(c.Settings, &out.Settings)
}

// content checks what a painter decided, and freezes the tubes it is made of:
// those that were in the wheel before stay as they were.
func (s *Server) content(ctx context.Context, c WheelContent, before map[string]frozenTube) (store.Content, error) {
	found := map[string]frozenTube{}
	system, err := c.System.System(s.finder(ctx, before, found))
	if err != nil {
		return store.Content{}, err
	}
	v, err := exchange.ParseView(c.Settings.Medium, c.Settings.Light, c.Settings.Judged)
	if err != nil {
		return store.Content{}, err
	}
	if err := v.CheckChoices(c.Settings.Choices); err != nil {
		return store.Content{}, err
	}
	for k := range c.System.Roles {
		for i, p := range system.Role(k) {
			c.System.Roles[k][i] = p.ID // as the library writes it
		}
	}
	kept, err := json.Marshal(snapshot{c.System, found})
	if err != nil {
		return store.Content{}, err
	}
	settings, err := json.Marshal(c.Settings)
	return store.Content{Name: c.Name, Kind: c.System.Kind, Snapshot: kept, Settings: settings, Archived: c.Archived}, err
}

// DemoWheels are the systems of a made-up studio that paints panels of
// tide-pool life; the last is the one shown first.
func DemoWheels() ([]store.Content, error) {
	var out []store.Content
	for _, d := range exchange.DemoSystems() {
		kept, err := json.Marshal(snapshot{d.System, map[string]frozenTube{}})
		if err != nil {
			return nil, err
		}
		settings, err := json.Marshal(Settings{exchange.Conditions{Medium: "acrylic", Light: "D65", Judged: "dry"}, exchange.PlainChoices()})
		if err != nil {
			return nil, err
		}
		out = append(out, store.Content{Name: d.Name, Kind: d.System.Kind, Snapshot: kept, Settings: settings})
	}
	return out, nil
}

type keptWheelOutput struct{ Body KeptWheel }

// WheelID is the wheel a request is about.
type WheelID struct {
	ID int64 `path:"id" minimum:"1" doc:"which one"`
}

func (s *Server) wheelRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "wheels", Tags: []string{"wheels"}, Summary: "The painter's wheels, the last changed first", Method: http.MethodGet, Path: "/api/wheels"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body []WheelEntry }, error) {
			wheels, err := s.store.Wheels(ctx, painter(ctx).ID)
			out := &struct{ Body []WheelEntry }{[]WheelEntry{}}
			for _, w := range wheels {
				c, _, err := contentOf(w.Content)
				if err != nil {
					return nil, s.refusal(err)
				}
				out.Body = append(out.Body, WheelEntry{w.ID, w.Name, c.System, w.Archived, w.UpdatedAt})
			}
			return out, s.refusal(err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "newWheel", Tags: []string{"wheels"}, Summary: "Keeps a new system and its wheel", Method: http.MethodPost, Path: "/api/wheels"},
		func(ctx context.Context, in *struct{ Body WheelContent }) (*keptWheelOutput, error) {
			c, err := s.content(ctx, in.Body, nil)
			if err != nil {
				return nil, s.refusal(err)
			}
			w, err := s.store.CreateWheel(ctx, painter(ctx).ID, c)
			return s.kept(ctx, w, err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "keptWheel", Tags: []string{"wheels"}, Summary: "A kept wheel", Method: http.MethodGet, Path: "/api/wheels/{id}"},
		func(ctx context.Context, in *WheelID) (*keptWheelOutput, error) {
			w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			return s.kept(ctx, w, err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "earlierWheels", Tags: []string{"wheels"}, Summary: "The versions that a wheel has been through", Method: http.MethodGet, Path: "/api/wheels/{id}/earlier"},
		func(ctx context.Context, in *WheelID) (*struct{ Body []EarlierWheel }, error) {
			versions, err := s.store.Earlier(ctx, painter(ctx).ID, in.ID)
			out := &struct{ Body []EarlierWheel }{[]EarlierWheel{}}
			for _, v := range versions {
				c, _, err := contentOf(v.Content)
				if err != nil {
					return nil, s.refusal(err)
				}
				out.Body = append(out.Body, EarlierWheel{v.Version, c, v.CreatedAt})
			}
			return out, s.refusal(err)
		})

	type save struct {
		WheelID
		Body struct {
			WheelContent
			Version  int   `json:"version" minimum:"1" doc:"the version this change was made on"`
			Resolves int64 `json:"resolves,omitempty" doc:"a refused version that this save settles"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "saveWheel", Tags: []string{"wheels"}, Summary: "Saves a wheel, on the version it was made on", Method: http.MethodPut, Path: "/api/wheels/{id}"},
		func(ctx context.Context, in *save) (*keptWheelOutput, error) {
			was, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			_, before, err := contentOf(was.Content)
			if err != nil {
				return nil, s.refusal(err)
			}
			c, err := s.content(ctx, in.Body.WheelContent, before.Frozen)
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
	huma.Register(s.api, huma.Operation{OperationID: "undoWheel", Tags: []string{"wheels"}, Summary: "Takes the last save of a wheel back", Method: http.MethodPost, Path: "/api/wheels/{id}/undo"},
		func(ctx context.Context, in *undo) (*keptWheelOutput, error) {
			w, err := s.store.UndoWheel(ctx, painter(ctx).ID, in.ID, in.Body.Version)
			return s.kept(ctx, w, err)
		})

	type refused struct {
		WheelID
		Refused int64 `path:"refused" minimum:"1" doc:"the save that came too late"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "dropRefused", Tags: []string{"wheels"}, Summary: "Lets a save go that came too late", Method: http.MethodDelete, Path: "/api/wheels/{id}/refused/{refused}"},
		func(ctx context.Context, in *refused) (*keptWheelOutput, error) {
			if err := s.store.DropRefused(ctx, painter(ctx).ID, in.ID, in.Refused); err != nil {
				return nil, s.refusal(err)
			}
			w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
			return s.kept(ctx, w, err)
		})

	s.buildRoutes()
	s.predictionRoutes()
	s.neutralRoutes()
	s.glazeRoutes()
}

// Built is a wheel of a system, as asked for.
type Built struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  struct {
		System  exchange.SystemContent `json:"system"`
		Choices exchange.WheelChoices  `json:"choices"`
	}
}

// systemFinder finds the paints of a system that is asked about: tubes as they
// were kept with a wheel, where there is one.
func (s *Server) systemFinder(ctx context.Context, wheel int64, c exchange.SystemContent) (exchange.Finder, error) {
	var frozen map[string]frozenTube
	if wheel != 0 && c.Names(exchange.TubePrefix) {
		p, err := painterIfAny(ctx)
		if err != nil {
			return nil, err
		}
		w, err := s.store.Wheel(ctx, p.ID, wheel)
		if err != nil {
			return nil, err
		}
		_, snap, err := contentOf(w.Content)
		if err != nil {
			return nil, err
		}
		frozen = snap.Frozen
	}
	return s.finder(ctx, frozen, nil), nil
}

// asked is what questions about a system have in common: how to look, the
// system, and where its paints are found.
func (s *Server) asked(ctx context.Context, l Look, kept int64, c exchange.SystemContent) (v exchange.View, system wheel.System, find exchange.Finder, err error) {
	if v, err = l.view(); err != nil {
		return v, system, nil, err
	}
	if find, err = s.systemFinder(ctx, kept, c); err != nil {
		return v, system, nil, err
	}
	system, err = c.System(find)
	return v, system, find, err
}

// build answers from memory where it built the same wheel of library paints
// before.
func (s *Server) build(ctx context.Context, in *Built) (out exchange.Wheel, err error) {
	key := ""
	if !in.Body.System.Names(exchange.TubePrefix) {
		asked, err := json.Marshal(struct {
			Look Look
			Body any
		}{in.Look, in.Body})
		if err != nil {
			return out, err
		}
		key = string(asked)
		if out, known := s.built.Get(key); known {
			return out, nil
		}
	}
	v, system, _, err := s.asked(ctx, in.Look, in.Wheel, in.Body.System)
	if err != nil {
		return out, err
	}
	if out, err = v.Wheel(system, in.Body.Choices); err == nil && key != "" {
		s.built.Add(key, out)
	}
	return out, err
}

func (s *Server) buildRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "buildWheel", Tags: []string{"wheels"}, Summary: "The twelve steps of a system, with rings", Method: http.MethodPost, Path: "/api/wheel", Metadata: lazily},
		func(ctx context.Context, in *Built) (*struct{ Body exchange.Wheel }, error) {
			out, err := s.build(ctx, in)
			return &struct{ Body exchange.Wheel }{out}, s.refusal(err)
		})

	type places struct {
		Look
		Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
		Body  struct {
			System exchange.SystemContent `json:"system"`
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "places", Tags: []string{"systems"}, Summary: "The places of a system, and what could stand in each", Method: http.MethodPost, Path: "/api/system"},
		func(ctx context.Context, in *places) (*struct{ Body exchange.SystemPlaces }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			find, err := s.systemFinder(ctx, in.Wheel, in.Body.System)
			if err != nil {
				return nil, s.refusal(err)
			}
			box, err := s.candidates(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Places(in.Body.System, find, box)
			return &struct{ Body exchange.SystemPlaces }{out}, s.refusal(err)
		})

	type filled struct {
		Kind string `query:"kind" required:"true" enum:"triad,cmy,split,double,leaning-clockwise,leaning-counter-clockwise,own" doc:"of system"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "filled", Tags: []string{"systems"}, Summary: "A system of a kind, filled from the box", Method: http.MethodGet, Path: "/api/system/filled"},
		func(ctx context.Context, in *filled) (*struct{ Body exchange.SystemContent }, error) {
			box, err := s.candidates(ctx)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := exchange.Fill(in.Kind, box)
			return &struct{ Body exchange.SystemContent }{out}, s.refusal(err)
		})
}

// candidates are the tubes of the painter's box, for the places of a system.
func (s *Server) candidates(ctx context.Context) ([]wheel.Candidate, error) {
	box, _, err := s.openBox(ctx)
	var out []wheel.Candidate
	for _, o := range box {
		out = append(out, wheel.Candidate{Paint: o.paint, Called: o.kept.Nickname, InBox: true, Price: o.kept.Price})
	}
	return out, err
}

// boxPaints are the paints of the painter's box.
func (s *Server) boxPaints(ctx context.Context) (out []*paint.Paint, err error) {
	box, _, err := s.openBox(ctx)
	for _, o := range box {
		out = append(out, o.paint)
	}
	return out, err
}

// kept answers with a wheel as it is kept now.
func (s *Server) kept(ctx context.Context, w store.Wheel, err error) (*keptWheelOutput, error) {
	if err != nil {
		return nil, s.refusal(err)
	}
	content, _, err := contentOf(w.Content)
	if err != nil {
		return nil, s.refusal(fmt.Errorf("wheel %d: %w", w.ID, err))
	}
	out := KeptWheel{ID: w.ID, WheelContent: content, Version: w.Version, Library: w.LibraryVersion, Saved: w.UpdatedAt, Refused: []Refused{}}
	if out.CanUndo, err = s.store.CanUndo(ctx, w); err != nil {
		return nil, s.refusal(err)
	}
	refused, err := s.store.Refused(ctx, painter(ctx).ID, w.ID)
	if err != nil {
		return nil, s.refusal(err)
	}
	for _, r := range refused {
		c, _, err := contentOf(r.Content)
		if err != nil {
			return nil, s.refusal(err)
		}
		out.Refused = append(out.Refused, Refused{r.ID, c, r.CreatedAt})
	}
	return &keptWheelOutput{out}, nil
}
