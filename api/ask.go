package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/paint"
	"gyrophane/exchange"
)

// Look is how a question wants its colours shown.
type Look struct {
	Medium string `query:"medium" default:"acrylic" enum:"watercolour,gouache,tempera,acrylic,oil" doc:"what is painted with"`
	Light  string `query:"light" default:"D65" enum:"D65,D50,A" doc:"what it is looked at by: daylight, gallery, warm lamp"`
	Judged string `query:"judged" default:"dry" enum:"wet,dry" doc:"as it is being painted, or when it is dry"`
}

func (l Look) view() (exchange.View, error) { return exchange.ParseView(l.Medium, l.Light, l.Judged) }

// Spaced is a question about steps.
type Spaced struct {
	Spacing string `query:"spacing" default:"hue" enum:"hue,contrast,parts" doc:"what the steps are even in"`
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
func (s *Server) correct(ctx context.Context, in *correctInput) (out exchange.Correction, err error) {
	if in.Colour == "" {
		v, have, want, err := s.twoPiles(ctx, in.Look, in.Wheel, in.Have, in.Want)
		if err != nil {
			return out, err
		}
		return v.Correct(have, want)
	}
	v, err := in.view()
	if err != nil {
		return out, err
	}
	want, err := v.ParseReading(in.Colour)
	if err != nil {
		return out, err
	}
	have, err := s.parts(ctx, in.Wheel, in.Have)
	if err != nil {
		return out, err
	}
	with, err := s.paints(ctx, in.Wheel, in.With)
	if err != nil {
		return out, err
	}
	return v.CorrectTo(have, want, with)
}

// quieten cools or dulls a colour.
func (s *Server) quieten(ctx context.Context, in *quietenInput) (out exchange.Quiet, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	parts, err := s.parts(ctx, in.Wheel, in.Parts)
	if err != nil {
		return out, err
	}
	hand, err := s.paints(ctx, in.Wheel, in.With)
	if err != nil {
		return out, err
	}
	given := map[string]*paint.Paint{}
	for way, ref := range map[string]string{"complement": in.Complement, "neighbour": in.Neighbour, "earth": in.Earth} {
		if ref == "" {
			continue
		}
		found, err := s.paints(ctx, in.Wheel, []string{ref})
		if err != nil {
			return out, err
		}
		given[way] = found[0]
	}
	return v.Quieten(parts, hand, given)
}

// paints finds paints by reference.
func (s *Server) paints(ctx context.Context, wheel int64, refs []string) (out []*paint.Paint, err error) {
	find, err := s.systemFinder(ctx, wheel, exchange.SystemContent{Roles: [3][]string{refs}})
	if err != nil {
		return nil, err
	}
	for _, ref := range refs {
		p, err := find(ref)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

type laidInput struct {
	Look
	Here  []string `query:"here" required:"true" maxItems:"6" doc:"PAINT=PARTS, with commas between"`
	Held  []string `query:"held" required:"true" maxItems:"6" doc:"what it is laid beside"`
	Wheel int64    `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
}

// twoPiles reads two lists of ingredients, and how to look at them.
func (s *Server) twoPiles(ctx context.Context, l Look, wheel int64, a, b []string) (v exchange.View, first, second []paint.Part, err error) {
	if v, err = l.view(); err != nil {
		return v, nil, nil, err
	}
	if first, err = s.parts(ctx, wheel, a); err != nil {
		return v, nil, nil, err
	}
	second, err = s.parts(ctx, wheel, b)
	return v, first, second, err
}

// parts reads ingredients written as PAINT=PARTS.
func (s *Server) parts(ctx context.Context, wheel int64, texts []string) ([]paint.Part, error) {
	var refs []string
	for _, text := range texts {
		ref, _, _ := strings.Cut(text, "=")
		refs = append(refs, ref)
	}
	find, err := s.systemFinder(ctx, wheel, exchange.SystemContent{Roles: [3][]string{refs}})
	if err != nil {
		return nil, err
	}
	return exchange.ParseParts(texts, find)
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
func (s *Server) pair(ctx context.Context, in *pairInput) (out exchange.Pair, err error) {
	v, spacing, err := exchange.ParseLook(in.Medium, in.Light, in.Judged, in.Spacing)
	if err != nil {
		return out, err
	}
	refs := []string{in.A, in.B}
	if in.Third != "" {
		refs = append(refs, in.Third)
	}
	found, err := s.paints(ctx, in.Wheel, refs)
	if err != nil {
		return out, err
	}
	if in.Third == "" {
		return v.Pair(found[0], found[1], in.Steps, spacing)
	}
	return v.Contaminated(found[0], found[1], found[2], in.Steps, spacing, exchange.TaintShares)
}

// askRoutes answer what only needs computing: nothing is kept, nobody's rows
// are read.
func (s *Server) askRoutes() {
	ask(s, "paints", "The paint library, as it looks under given conditions", func(in *Look) ([]exchange.Paint, error) {
		v, err := in.view()
		if err != nil {
			return nil, err
		}
		return v.Library(), nil
	})
	huma.Register(s.api, huma.Operation{OperationID: "mix", Tags: []string{"mixing"}, Summary: "What some parts of some paints make", Method: http.MethodGet, Path: "/api/mix", Metadata: lazily},
		func(ctx context.Context, in *mixInput) (*struct{ Body exchange.Mix }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			parts, err := s.parts(ctx, in.Wheel, in.Parts)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Mix(parts)
			return &struct{ Body exchange.Mix }{out}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "correct", Tags: []string{"mixing"}, Summary: "The least that brings a pile to parts or to a colour, or whether to start over", Method: http.MethodGet, Path: "/api/correct", Metadata: lazily},
		func(ctx context.Context, in *correctInput) (*struct{ Body exchange.Correction }, error) {
			out, err := s.correct(ctx, in)
			return &struct{ Body exchange.Correction }{out}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "locate", Tags: []string{"mixing"}, Summary: "Where on the way between two paints a colour that was read lies", Method: http.MethodGet, Path: "/api/locate", Metadata: lazily},
		func(ctx context.Context, in *locateInput) (*struct{ Body exchange.Located }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			read, err := v.ParseReading(in.Colour)
			if err != nil {
				return nil, s.refusal(err)
			}
			couple, err := s.paints(ctx, in.Wheel, []string{in.A, in.B})
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Locate(couple[0], couple[1], read)
			return &struct{ Body exchange.Located }{out}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "quieten", Tags: []string{"mixing"}, Summary: "Ways to cool or dull a colour, side by side", Method: http.MethodGet, Path: "/api/quieten", Metadata: lazily},
		func(ctx context.Context, in *quietenInput) (*struct{ Body exchange.Quiet }, error) {
			out, err := s.quieten(ctx, in)
			return &struct{ Body exchange.Quiet }{out}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "laid", Tags: []string{"mixing"}, Summary: "Two piles laid beside each other, and what differs", Method: http.MethodGet, Path: "/api/laid", Metadata: lazily},
		func(ctx context.Context, in *laidInput) (*struct{ Body exchange.Laid }, error) {
			v, here, held, err := s.twoPiles(ctx, in.Look, in.Wheel, in.Here, in.Held)
			if err != nil {
				return nil, s.refusal(err)
			}
			out, err := v.Lay(here, held)
			return &struct{ Body exchange.Laid }{out}, s.refusal(err)
		})
	huma.Register(s.api, huma.Operation{OperationID: "pair", Tags: []string{"mixing"}, Summary: "The way from one paint to another: steps, parts, where it turns dull or muddy", Method: http.MethodGet, Path: "/api/pair", Metadata: lazily},
		func(ctx context.Context, in *pairInput) (*struct{ Body exchange.Pair }, error) {
			out, err := s.pair(ctx, in)
			return &struct{ Body exchange.Pair }{out}, s.refusal(err)
		})
}

// ask registers a question under /api/name.
func ask[In, Out any](s *Server, name, summary string, answer func(*In) (Out, error)) {
	op := huma.Operation{OperationID: name, Tags: []string{"paints"}, Summary: summary, Method: http.MethodGet, Path: "/api/" + name, Metadata: anyones}
	huma.Register(s.api, op, func(_ context.Context, in *In) (*struct{ Body Out }, error) {
		out, err := answer(in)
		return &struct{ Body Out }{out}, s.refusal(err)
	})
}
