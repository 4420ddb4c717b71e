package api

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Look is how a question wants its colours shown.
type Look struct {
	Medium string `query:"medium" default:"acrylic" format:"medium" doc:"what is painted with"`
	Light  string `query:"light" default:"D65" format:"light" doc:"what it is looked at by: daylight, gallery, warm lamp"`
	Judged string `query:"judged" default:"dry" format:"judged" doc:"as it is being painted, or when it is dry"`
}

func (l Look) view() (wire.View, error) { return wire.ParseView(l.Medium, l.Light, l.Judged) }

// Spaced is a question about steps.
type Spaced struct {
	Spacing string `query:"spacing" default:"hue" format:"spacing" doc:"what the steps are even in"`
}

type mixInput struct {
	Look
	Parts []string `query:"parts" required:"true" maxItems:"24" doc:"PAINT=PARTS, with commas between"`
	Wheel int64    `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

type correctInput struct {
	Look
	Have   []string `query:"have" required:"true" maxItems:"6" doc:"what is in the pile: PAINT=PARTS, with commas between"`
	Want   []string `query:"want" maxItems:"6" doc:"what it should be, and how much of it"`
	Colour string   `query:"colour" maxLength:"60" doc:"or the colour that it should have, as it was read: #rrggbb, or CIELAB as L,a,b"`
	With   []string `query:"with" maxItems:"24" doc:"then the paints that may be added"`
	Wheel  int64    `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

type locateInput struct {
	Look
	A      string `query:"a" required:"true" maxLength:"60" doc:"paint"`
	B      string `query:"b" required:"true" maxLength:"60" doc:"paint"`
	Colour string `query:"colour" required:"true" maxLength:"60" doc:"as it was read: #rrggbb, or CIELAB as L,a,b"`
	Wheel  int64  `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

type quietenInput struct {
	Look
	Parts      []string `query:"parts" required:"true" maxItems:"6" doc:"PAINT=PARTS, with commas between"`
	With       []string `query:"with" maxItems:"60" doc:"the paints at hand"`
	Complement string   `query:"complement" maxLength:"60" doc:"the paint to take for it"`
	Neighbour  string   `query:"neighbour" maxLength:"60" doc:"the paint to take for the neighbour"`
	Earth      string   `query:"earth" maxLength:"60" doc:"the paint to take for the earth"`
	Wheel      int64    `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

// correct brings a pile to parts or to a colour.
func (s *Server) correct(ctx context.Context, in *correctInput) (out wire.Correction, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	have, err := s.studio.Pile(ctx, painterIfAny, in.Wheel, in.Have)
	if err != nil {
		return out, err
	}
	if in.Colour == "" {
		want, err := s.studio.Pile(ctx, painterIfAny, in.Wheel, in.Want)
		if err != nil {
			return out, err
		}
		c, err := path.Correct(have.Parts, want.Parts)
		if err != nil {
			return out, input.Wrap(err)
		}
		return v.Correction(have, want, c), nil
	}
	want, err := v.ParseColour(in.Colour)
	if err != nil {
		return out, err
	}
	with, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, in.With...)
	if err != nil {
		return out, err
	}
	c, err := path.CorrectToReading(have.Parts, want, with)
	if err != nil {
		return out, input.Wrap(err)
	}
	return v.CorrectionTo(have, want, c), nil
}

// quieten cools or dulls a colour.
func (s *Server) quieten(ctx context.Context, in *quietenInput) (out wire.Quiet, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	pile, err := s.studio.Pile(ctx, painterIfAny, in.Wheel, in.Parts)
	if err != nil {
		return out, err
	}
	hand, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, in.With...)
	if err != nil {
		return out, err
	}
	given := map[path.QuietWay]*paint.Paint{}
	for way, id := range map[path.QuietWay]string{path.ByComplement: in.Complement, path.ByNeighbour: in.Neighbour, path.ByEarth: in.Earth} {
		if id == "" {
			continue
		}
		found, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, id)
		if err != nil {
			return out, err
		}
		given[way] = found[0]
	}
	ways, err := path.QuietenPile(pile.Parts, hand, given)
	if err != nil {
		return out, err
	}
	return v.Quiet(pile, ways), nil
}

// locate finds a colour that was read on the way between two paints.
func (s *Server) locate(ctx context.Context, in *locateInput) (out wire.Located, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	read, err := v.ParseColour(in.Colour)
	if err != nil {
		return out, err
	}
	couple, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, in.A, in.B)
	if err != nil {
		return out, err
	}
	return v.Located(read, path.New(couple[0], couple[1]).Find(read)), nil
}

// edgeToEdge lays a thing beside another that is held.
func (s *Server) edgeToEdge(ctx context.Context, in *edgeToEdgeInput) (*struct{ Body wire.EdgeToEdge }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	here, err := s.studio.Row(ctx, painterIfAny, in.Body.Here.Studio())
	if err != nil {
		return nil, err
	}
	held, err := s.studio.Row(ctx, painterIfAny, in.Body.Held.Studio())
	if err != nil {
		return nil, err
	}
	var white *paint.Paint
	if in.Body.OneValue {
		white = wheel.UsualWhite()
	}
	return &struct{ Body wire.EdgeToEdge }{v.EdgeToEdge(here, held, white)}, nil
}

type edgeToEdgeInput struct {
	Look
	Body struct {
		Here     wire.HeldRow `json:"here"`
		Held     wire.HeldRow `json:"held" doc:"what it is laid beside"`
		OneValue bool         `json:"oneValue,omitempty" doc:"the darker of every two raised with white to the value of the lighter"`
	}
}

type pairInput struct {
	Look
	Spaced
	A     string `query:"a" required:"true" maxLength:"60" doc:"paint"`
	B     string `query:"b" required:"true" maxLength:"60" doc:"paint"`
	Steps int    `query:"steps" default:"3" minimum:"1" maximum:"11" doc:"inner steps"`
	Third string `query:"third" maxLength:"60" doc:"a paint that is traced into it"`
	Wheel int64  `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

// pair follows the way between two paints of the library, of the painter's box,
// or as they were kept with a wheel.
func (s *Server) pair(ctx context.Context, in *pairInput) (out wire.Pair, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return out, err
	}
	if err := path.CheckSteps(in.Steps); err != nil {
		return out, err
	}
	ids := []string{in.A, in.B}
	if in.Third != "" {
		ids = append(ids, in.Third)
	}
	found, err := s.studio.Paints(ctx, painterIfAny, in.Wheel, ids...)
	if err != nil {
		return out, err
	}
	if slices.ContainsFunc(ids, func(id string) bool { return strings.HasPrefix(id, paint.TubePrefix) }) {
		if v.Doubts, err = s.studio.Doubts(ctx, painterIfAny); err != nil {
			return out, err
		}
	}
	way := path.New(found[0], found[1])
	if in.Third == "" {
		return v.Pair(way, in.Steps, spacing), nil
	}
	taints, err := way.Taints(found[2], path.TaintShares)
	if err != nil {
		return out, err
	}
	return v.Contaminated(way, found[2], taints, in.Steps, spacing), nil
}

// askRoutes answer what only needs computing: nothing is kept, nobody's rows
// are read.
func (s *Server) askRoutes() {
	ask(s, "paints", "The paint library, as it looks under given conditions", func(in *Look) ([]wire.Paint, error) {
		v, err := in.view()
		if err != nil {
			return nil, err
		}
		return v.Library(), nil
	})
	answer(s, huma.Operation{OperationID: "mix", Summary: "What some parts of some paints make"}, func(ctx context.Context, in *mixInput) (out wire.Mix, err error) {
		v, err := in.view()
		if err != nil {
			return out, err
		}
		pile, err := s.studio.Pile(ctx, painterIfAny, in.Wheel, in.Parts)
		if err != nil {
			return out, err
		}
		return v.Mix(pile), nil
	})
	answer(s, huma.Operation{OperationID: "correct", Summary: "The least that brings a pile to parts or to a colour, or whether to start over"}, s.correct)
	answer(s, huma.Operation{OperationID: "locate", Summary: "Where on the way between two paints a colour that was read lies"}, s.locate)
	answer(s, huma.Operation{OperationID: "quieten", Summary: "Ways to cool or dull a colour, side by side"}, s.quieten)
	register(s, huma.Operation{OperationID: "edgeToEdge", Tags: []string{"mixing"}, Summary: "Two things edge to edge, as they are or raised to one value, and what differs", Method: http.MethodPost, Path: "/api/edge-to-edge", Metadata: painterForTubes}, s.edgeToEdge)
	answer(s, huma.Operation{OperationID: "pair", Summary: "The way from one paint to another: steps, parts, where it turns dull or muddy"}, s.pair)
}

// answer registers a question about mixing under /api/ and its name.
func answer[In, Out any](s *Server, op huma.Operation, handle func(context.Context, *In) (Out, error)) {
	op.Tags, op.Method, op.Path, op.Metadata = []string{"mixing"}, http.MethodGet, "/api/"+op.OperationID, painterForTubes
	register(s, op, bodied(handle))
}

// ask registers a question under /api/name.
func ask[In, Out any](s *Server, name, summary string, answer func(*In) (Out, error)) {
	op := huma.Operation{OperationID: name, Tags: []string{"paints"}, Summary: summary, Method: http.MethodGet, Path: "/api/" + name, Metadata: noPainter}
	register(s, op, bodied(func(_ context.Context, in *In) (Out, error) { return answer(in) }))
}
