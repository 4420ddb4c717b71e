package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Settings are the choices a wheel is built and looked at with.
type Settings struct {
	wire.Conditions
	Choices wire.WheelChoices   `json:"choices"`
	Bench   *wire.BenchSettings `json:"bench,omitempty" doc:"how it is painted, where that is not as usual"`
}

func settingsOf(s store.Settings) Settings {
	b := wire.BenchSettingsOf(s.Bench)
	return Settings{wire.Conditions{Medium: s.Medium, Light: s.Light, Judged: s.Judged}, wire.ChoicesOf(s.Choices), &b}
}

// WheelContent is what a painter decides of a wheel.
type WheelContent struct {
	Name     string         `json:"name" maxLength:"200"`
	System   wire.Selection `json:"system"`
	Settings Settings       `json:"settings"`
	Archived bool           `json:"archived,omitempty"`
}

func (c WheelContent) studio() studio.WheelContent {
	s := c.Settings
	out := studio.WheelContent{Name: c.Name, System: c.System.Core(), Settings: store.Settings{Medium: s.Medium, Light: s.Light, Judged: s.Judged, Choices: s.Choices.Core()}, Archived: c.Archived}
	if s.Bench != nil {
		out.Settings.Bench = s.Bench.Core()
	}
	return out
}

func wheelContentOf(c store.WheelContent) WheelContent {
	return WheelContent{c.Name, wire.SelectionOf(c.Snapshot.System), settingsOf(c.Settings), c.Archived}
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
	ID       int64          `json:"id"`
	Name     string         `json:"name"`
	System   wire.Selection `json:"system"`
	Archived bool           `json:"archived"`
	Saved    time.Time      `json:"saved"`
}

// EarlierWheel is a version that a wheel has been through.
type EarlierWheel struct {
	Version int `json:"version"`
	WheelContent
	Saved time.Time `json:"saved"`
}

type keptWheelOutput struct{ Body KeptWheel }

func (s *Server) wheels(ctx context.Context, _ *struct{}) (*struct{ Body []WheelEntry }, error) {
	wheels, err := s.store.Wheels(ctx, painter(ctx).ID)
	out := &struct{ Body []WheelEntry }{[]WheelEntry{}}
	for _, w := range wheels {
		out.Body = append(out.Body, WheelEntry{ID: w.ID, Name: w.Name, System: wire.SelectionOf(w.Snapshot.System), Archived: w.Archived, Saved: w.UpdatedAt})
	}
	return out, err
}

func (s *Server) newWheel(ctx context.Context, in *struct{ Body WheelContent }) (*keptWheelOutput, error) {
	w, err := s.studio.NewWheel(ctx, painter(ctx), in.Body.studio())
	return s.kept(ctx, w, err)
}

func (s *Server) keptWheel(ctx context.Context, in *ThingID) (*keptWheelOutput, error) {
	w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
	return s.kept(ctx, w, err)
}

func (s *Server) earlierWheels(ctx context.Context, in *ThingID) (*struct{ Body []EarlierWheel }, error) {
	versions, err := s.store.WheelHistory(ctx, painter(ctx).ID, in.ID)
	out := &struct{ Body []EarlierWheel }{[]EarlierWheel{}}
	for _, v := range versions {
		out.Body = append(out.Body, EarlierWheel{v.Version, wheelContentOf(v.WheelContent), v.CreatedAt})
	}
	return out, err
}

type saveWheelInput struct {
	ThingID
	Body struct {
		WheelContent
		Version  int   `json:"version" minimum:"1" doc:"the version this change was made on"`
		Resolves int64 `json:"resolves,omitempty" doc:"a refused version that this save settles"`
	}
}

func (s *Server) saveWheel(ctx context.Context, in *saveWheelInput) (*keptWheelOutput, error) {
	w, err := s.studio.SaveWheel(ctx, painter(ctx), in.ID, in.Body.Version, in.Body.WheelContent.studio(), in.Body.Resolves)
	return s.kept(ctx, w, err)
}

type undoWheelInput struct {
	ThingID
	Body struct {
		Version int `json:"version" minimum:"1" doc:"the version to take back"`
	}
}

func (s *Server) undoWheel(ctx context.Context, in *undoWheelInput) (*keptWheelOutput, error) {
	w, err := s.store.UndoWheel(ctx, painter(ctx).ID, in.ID, in.Body.Version)
	return s.kept(ctx, w, err)
}

type dropRefusedInput struct {
	ThingID
	Refused int64 `path:"refused" minimum:"1" doc:"the save that came too late"`
}

func (s *Server) dropRefused(ctx context.Context, in *dropRefusedInput) (*keptWheelOutput, error) {
	if err := s.store.DropRefused(ctx, painter(ctx).ID, in.ID, in.Refused); err != nil {
		return nil, err
	}
	w, err := s.store.Wheel(ctx, painter(ctx).ID, in.ID)
	return s.kept(ctx, w, err)
}

func (s *Server) wheelRoutes() {
	register(s, huma.Operation{OperationID: "wheels", Tags: []string{"wheels"}, Summary: "The painter's wheels, the last changed first", Method: http.MethodGet, Path: "/api/wheels"}, s.wheels)
	register(s, huma.Operation{OperationID: "newWheel", Tags: []string{"wheels"}, Summary: "Keeps a new system and its wheel", Method: http.MethodPost, Path: "/api/wheels"}, s.newWheel)
	register(s, huma.Operation{OperationID: "keptWheel", Tags: []string{"wheels"}, Summary: "A kept wheel", Method: http.MethodGet, Path: "/api/wheels/{id}"}, s.keptWheel)
	register(s, huma.Operation{OperationID: "earlierWheels", Tags: []string{"wheels"}, Summary: "The versions that a wheel has been through", Method: http.MethodGet, Path: "/api/wheels/{id}/earlier"}, s.earlierWheels)
	register(s, huma.Operation{OperationID: "saveWheel", Tags: []string{"wheels"}, Summary: "Saves a wheel, on the version it was made on", Method: http.MethodPut, Path: "/api/wheels/{id}"}, s.saveWheel)
	register(s, huma.Operation{OperationID: "undoWheel", Tags: []string{"wheels"}, Summary: "Takes the last save of a wheel back", Method: http.MethodPost, Path: "/api/wheels/{id}/undo"}, s.undoWheel)
	register(s, huma.Operation{OperationID: "dropRefused", Tags: []string{"wheels"}, Summary: "Lets a save go that came too late", Method: http.MethodDelete, Path: "/api/wheels/{id}/refused/{refused}"}, s.dropRefused)

	s.buildRoutes()
	s.predictionRoutes()
	s.neutralRoutes()
	s.glazeRoutes()
}

// WheelQuery is a question about the wheel of a system.
type WheelQuery struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  struct {
		System  wire.Selection    `json:"system"`
		Choices wire.WheelChoices `json:"choices"`
		Graded  *bool             `json:"graded,omitempty" doc:"slots are drawn out, thinned toward the tip; as suits the medium when left out"`
	}
}

// system is what questions about a system have in common: how to look, and its
// paints, with tubes as they were kept with a wheel.
func (s *Server) system(ctx context.Context, l Look, kept int64, c wire.Selection) (v wire.View, system wheel.System, find paint.Finder, err error) {
	if v, err = l.view(); err != nil {
		return v, system, nil, err
	}
	if c.Core().Mentions(paint.TubePrefix) {
		if v.Doubts, err = s.studio.Doubts(ctx, painterIfAny); err != nil {
			return v, system, nil, err
		}
	}
	system, find, err = s.studio.System(ctx, painterIfAny, kept, c.Core())
	return v, system, find, err
}

// build answers from memory where it built the same wheel of the same library paints
// before.
func (s *Server) build(ctx context.Context, in *WheelQuery) (out wire.Wheel, err error) {
	v, system, _, err := s.system(ctx, in.Look, in.Wheel, in.Body.System)
	if err != nil {
		return out, err
	}
	key, err := keyOf(system, in.Look, in.Body)
	if err != nil {
		return out, err
	}
	remembered := !in.Body.System.Core().Mentions(paint.TubePrefix)
	if out, known := s.built.Get(key); known && remembered {
		return out, nil
	}
	choices := in.Body.Choices.Core()
	options, err := choices.Options(v.Medium)
	if err != nil {
		return out, err
	}
	set, err := bench.Settings{Slots: bench.SlotsSaid(in.Body.Graded)}.In(v.Medium)
	if err != nil {
		return out, err
	}
	out = v.Wheel(wheel.Build(system, options), choices, set.Slots)
	if remembered {
		s.built.Add(key, out)
	}
	return out, nil
}

// keyOf tells a question about a system of library paints from any other: what is
// asked, and what the paints do to light, for a kept wheel has those of its day.
func keyOf(system wheel.System, asked ...any) (string, error) {
	text, err := json.Marshal(asked)
	key := string(text)
	paints := system.Paints()
	for _, r := range wheel.Riders {
		if p := system.Rider(r); p != nil {
			paints = append(paints, p)
		}
	}
	for _, p := range paints {
		key += fmt.Sprintf(" %016x", p.Fingerprint())
	}
	return key, err
}

func (s *Server) buildWheel(ctx context.Context, in *WheelQuery) (*struct{ Body wire.Wheel }, error) {
	out, err := s.build(ctx, in)
	return &struct{ Body wire.Wheel }{out}, err
}

type placesInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  struct {
		System wire.Selection `json:"system"`
	}
}

func (s *Server) places(ctx context.Context, in *placesInput) (*struct{ Body wire.SystemPlaces }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	selection := in.Body.System.Core()
	places, find, err := s.placesOf(ctx, in.Wheel, selection)
	if err != nil {
		return nil, err
	}
	var reached *reach.Reach
	if system, err := selection.System(find); err == nil {
		all := reach.OfSystem(system)
		reached = &all
	}
	return &struct{ Body wire.SystemPlaces }{v.Places(places, reached)}, nil
}

// placesOf are the places of a selection, with what of the painter's box could stand in each.
func (s *Server) placesOf(ctx context.Context, kept int64, of wheel.Selection) (out wheel.Places, find paint.Finder, err error) {
	if find, err = s.studio.Finder(ctx, painterIfAny, kept, of.Mentions(paint.TubePrefix)); err != nil {
		return out, nil, err
	}
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return out, nil, err
	}
	out, err = of.Places(find, box.Candidates())
	return out, find, err
}

type insteadInput struct {
	placesInput
	Role  int `query:"role" minimum:"0" maximum:"2" doc:"which of the three, from 0"`
	Place int `query:"place" minimum:"0" maximum:"20" doc:"of the role, from 0; empty ones too"`
}

// instead is what each paint that could stand in a place would make of the sections it faces.
func (s *Server) instead(ctx context.Context, in *insteadInput) (*struct{ Body []wire.Instead }, error) {
	places, _, err := s.placesOf(ctx, in.Wheel, in.Body.System.Core())
	if err != nil {
		return nil, err
	}
	return &struct{ Body []wire.Instead }{wire.InsteadOf(places.Instead(in.Role, in.Place))}, nil
}

type filledInput struct {
	Kind string `query:"kind" required:"true" format:"systemKind" doc:"of system"`
}

func (s *Server) filled(ctx context.Context, in *filledInput) (*struct{ Body wire.Filling }, error) {
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	out, err := wheel.Filled(in.Kind, box.Candidates())
	return &struct{ Body wire.Filling }{wire.FillingOf(out)}, err
}

func (s *Server) ofBox(ctx context.Context, _ *struct{}) (*struct{ Body wire.Filling }, error) {
	box, err := s.studio.Box(ctx, painter(ctx).ID)
	return &struct{ Body wire.Filling }{wire.FillingOf(wheel.OfBox(box.Candidates()))}, err
}

func (s *Server) buildRoutes() {
	register(s, huma.Operation{OperationID: "buildWheel", Tags: []string{"wheels"}, Summary: "The twelve steps of a system, with rings", Method: http.MethodPost, Path: "/api/wheel", Metadata: painterForTubes}, s.buildWheel)
	register(s, huma.Operation{OperationID: "places", Tags: []string{"systems"}, Summary: "The places of a system, and what could stand in each", Method: http.MethodPost, Path: "/api/system"}, s.places)
	register(s, huma.Operation{OperationID: "instead", Tags: []string{"systems"}, Summary: "What each paint that could stand in a place would make of the sections it faces", Method: http.MethodPost, Path: "/api/system/instead"}, s.instead)
	register(s, huma.Operation{OperationID: "ofBox", Tags: []string{"systems"}, Summary: "The system that the tubes of the box make by themselves, and what it is without", Method: http.MethodGet, Path: "/api/system/of-box"}, s.ofBox)
	register(s, huma.Operation{OperationID: "filled", Tags: []string{"systems"}, Summary: "A system of a kind, filled from the box, and what the box has not", Method: http.MethodGet, Path: "/api/system/filled"}, s.filled)
}

// kept answers with a wheel as it is kept now.
func (s *Server) kept(ctx context.Context, w store.Wheel, err error) (*keptWheelOutput, error) {
	if err != nil {
		return nil, err
	}
	out := KeptWheel{ID: w.ID, WheelContent: wheelContentOf(w.WheelContent), Version: w.Version, Library: w.LibraryVersion, Saved: w.UpdatedAt, Refused: []Refused{}}
	if out.CanUndo, err = s.store.CanUndo(ctx, w); err != nil {
		return nil, err
	}
	refused, err := s.store.RefusedWheels(ctx, painter(ctx).ID, w.ID)
	if err != nil {
		return nil, err
	}
	for _, r := range refused {
		out.Refused = append(out.Refused, Refused{r.ID, wheelContentOf(r.WheelContent), r.CreatedAt})
	}
	return &keptWheelOutput{out}, nil
}
