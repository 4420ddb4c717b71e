package api

import (
	"cmp"
	"context"
	"net/http"
	"net/url"
	"reflect"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/recipe"
	"gyrophane/files"
	"gyrophane/studio"
	"gyrophane/wire"
)

type planInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose paints are taken as they were kept with it"`
	Quick bool  `query:"quick" doc:"only what is known at once"`
	Body  struct {
		System  wire.Selection     `json:"system"`
		Choices wire.WheelChoices  `json:"choices"`
		Bench   wire.BenchSettings `json:"bench"`
		Sheet   wire.BenchSheet    `json:"sheet,omitempty" doc:"what is to be painted; the wheel where nothing is said"`
	}
}

func (s *Server) plan(ctx context.Context, in *planInput) (out wire.BenchPlan, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	system, _, err := s.studio.System(ctx, painterIfAny, in.Wheel, in.Body.System.Core())
	if err != nil {
		return out, err
	}
	which, named := in.Body.Sheet.Core()
	wait := studio.PlanWait
	if in.Quick {
		wait = 0
	}
	if v.Doubts, err = s.studio.Doubts(ctx, painterIfAny); err != nil {
		return out, err
	}
	plan, err := s.studio.Plan(ctx, painterIfAny, studio.Sheet{Wheel: in.Wheel, Selected: in.Body.System.Core(), System: system, Choices: in.Body.Choices.Core(), Which: which, Named: named, Set: in.Body.Bench.Core()}, v.Medium, wait)
	if err != nil {
		return out, err
	}
	return v.Planned(plan), nil
}

type surerInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose paints are taken as they were kept with it"`
	Body  struct {
		System  wire.Selection     `json:"system"`
		Choices wire.WheelChoices  `json:"choices"`
		Bench   wire.BenchSettings `json:"bench"`
		ReadBy  string             `json:"readBy,omitempty" doc:"what swatches are read by: eye, photo or instrument; photo when empty"`
		OfBox   bool               `json:"ofBox,omitempty" doc:"for every two paints of the box, not for the mixtures of the wheel alone"`
	}
}

func (s *Server) surer(ctx context.Context, in *surerInput) (out wire.SwatchPlan, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	system, _, err := s.studio.System(ctx, painterIfAny, in.Wheel, in.Body.System.Core())
	if err != nil {
		return out, err
	}
	by := cmp.Or(paint.Source(in.Body.ReadBy), paint.Photo)
	got, err := s.studio.WheelSwatches(ctx, painterIfAny, studio.Sheet{System: system, Choices: in.Body.Choices.Core(), Which: bench.Which{ReadBy: by, OfBox: in.Body.OfBox}, Set: in.Body.Bench.Core()}, v.Medium)
	return wire.SwatchPlanOf(got, string(by)), err
}

// CountedPart is so much of a paint that is counted out.
type CountedPart struct {
	Paint   string          `json:"paint" maxLength:"200"`
	Parts   float64         `json:"parts"`
	LetDown *CountedLetDown `json:"letDown,omitempty"`
	Of      []CountedOf     `json:"of,omitempty" maxItems:"24" doc:"what it was mixed from first"`
}

// CountedLetDown is 1 part in so many of another paint.
type CountedLetDown struct {
	Paint string `json:"paint" maxLength:"60"`
	Parts int    `json:"parts" minimum:"1" maximum:"999"`
}

// CountedOf is one ingredient of what was mixed first.
type CountedOf struct {
	Paint string  `json:"paint" maxLength:"60"`
	Parts float64 `json:"parts"`
}

type countedInput struct {
	Look
	Wheel int64 `query:"wheel" doc:"a kept wheel whose paints are taken as they were kept with it"`
	Body  struct {
		Parts   []CountedPart `json:"parts" minItems:"1" maxItems:"24"`
		Measure string        `json:"measure,omitempty" doc:"dabs, drops, loads, tips, grams or looks; what suits the medium when empty"`
		One     float64       `json:"one,omitempty" doc:"ml of one drop, load or tip; the usual size when 0"`
		ML      float64       `json:"ml,omitempty" minimum:"0" maximum:"1000" doc:"how much of it; as much as a slot of a wheel takes when 0"`
		Times   float64       `json:"times,omitempty" minimum:"0" maximum:"100" doc:"or so many times as much as a slot takes"`
	}
}

func (s *Server) counted(ctx context.Context, in *countedInput) (out wire.Counted, err error) {
	v, err := in.view()
	if err != nil {
		return out, err
	}
	usual := bench.Usual(v.Medium)
	scale := usual.Scale
	if in.Body.Measure != "" {
		scale.Measure = recipe.Measure(in.Body.Measure)
	}
	if scale, err = recipe.NewScale(scale.Measure, in.Body.One); err != nil {
		return out, input.Wrap(err)
	}
	ml := in.Body.ML
	if ml == 0 {
		ml = usual.Slot() * cmp.Or(in.Body.Times, 1)
	}
	var parts []studio.Ingredient
	for _, p := range in.Body.Parts {
		one := studio.Ingredient{Paint: p.Paint, Parts: p.Parts}
		if p.LetDown != nil {
			one.In, one.Thin = p.LetDown.Paint, p.LetDown.Parts
		}
		for _, of := range p.Of {
			one.Of = append(one.Of, studio.Ingredient{Paint: of.Paint, Parts: of.Parts})
		}
		parts = append(parts, one)
	}
	c, r, exact, err := s.studio.CountOut(ctx, painterIfAny, in.Wheel, parts, scale, ml)
	if err != nil {
		return out, err
	}
	return v.Counted(c, r, &exact), nil
}

// Page is a sheet on paper as a file.
type Page struct {
	ContentType        string `header:"Content-Type"`
	ContentDisposition string `header:"Content-Disposition"`
	Pages              string `header:"Sheet-Pages" doc:"how many there are"`
	Body               []byte
}

// Printing says how a sheet is put on paper.
type Printing struct {
	PaperFile
	Flat    bool   `query:"flat" doc:"on its side"`
	Edition string `query:"edition" maxLength:"20" doc:"working (outlines and recipes, also when empty), blank (for a class), key (to a blank) or aimed (the colours aimed at)"`
	Class   int    `query:"class" doc:"so many blanks and one key to them, instead of an edition"`
	Recipes string `query:"recipes" maxLength:"20" doc:"parts, dabs or none; when empty none on a blank, else parts"`
	As      string `query:"as" maxLength:"40" doc:"sheet, plan (in order, to tick off), cards (recipes to cut out) or dabs (at true size); several with commas between are a stack"`
}

// PaperFile says which file of a sheet is wanted.
type PaperFile struct {
	Paper  string `query:"paper" default:"A4" maxLength:"20" doc:"A4, A5 or Letter"`
	Page   int    `query:"page" default:"1" doc:"of an SVG"`
	Format string `query:"format" default:"pdf" enum:"pdf,svg" doc:"of the file"`
}

func (in Printing) options() (o paper.Options, err error) {
	o = paper.Options{Flat: in.Flat, Edition: paper.Edition(in.Edition), Class: in.Class, Recipes: in.Recipes, As: in.As}
	o.Format, err = paper.ParseFormat(in.Paper)
	return o, err
}

// export is pages as the file that is asked for.
func (in PaperFile) export(title string, pages []paper.Page) (out *Page, err error) {
	out = &Page{ContentDisposition: `inline; filename="sheet.pdf"`, Pages: strconv.Itoa(len(pages))}
	if in.Format == "svg" {
		if in.Page < 1 || in.Page > len(pages) {
			return nil, input.Errorf("this sheet has %d pages, and no page %d", len(pages), in.Page)
		}
		out.ContentType, out.ContentDisposition, out.Body = "image/svg+xml", "inline", files.SVG(title, pages[in.Page-1])
		return out, nil
	}
	out.ContentType = "application/pdf"
	out.Body, err = files.PDF(title, pages)
	return out, err
}

type paperInput struct {
	ID      int64    `path:"id" doc:"a kept wheel"`
	Kind    string   `query:"kind" maxLength:"20" doc:"what is painted: wheel, grid, ladder, values, intensity, run, guide, wanted, warmcool, worksheet or glazes"`
	Slot    int      `query:"slot" doc:"of values, intensities, runs, worksheets and what is added"`
	Section int      `query:"section" doc:"of a ladder"`
	Steps   int      `query:"steps" doc:"of ladders and scales"`
	A       string   `query:"a" maxLength:"60" doc:"paint that a ladder begins with; a section of the wheel when empty"`
	B       string   `query:"b" maxLength:"60" doc:"paint that it ends with"`
	Without []string `query:"without" maxItems:"5" doc:"parts that are left out: of a worksheet wheel, greys, runs, values, intensity; of glazes wheel, order, ramp"`
	With    []string `query:"with" maxItems:"4" doc:"what is added to a wheel or a worksheet: dark, earth (neighbours of the slot from one), tube (beside the slot that it looks like), bit (of another slot in it)"`
	Earth   string   `query:"earth" maxLength:"60" doc:"paint that the slot's neighbours are mixed from; the nearest earth when empty"`
	Tube    string   `query:"tube" maxLength:"60" doc:"paint that stands beside the slot; the one that looks most like it when empty"`
	Bit     int      `query:"bit" minimum:"-1" maximum:"11" default:"-1" doc:"index of the slot of which a bit goes into it; the one across from it when -1"`
	Film    float64  `query:"film" doc:"how thick a glaze lies as X, 0.1 to 0.5; 0.3 when 0"`
	Glaze   string   `query:"glaze" maxLength:"60" doc:"paint that glazes are laid of over the others; the clearest of them when empty"`
	ReadBy  string   `query:"readBy" doc:"of swatches that make recipes surer: eye, photo or instrument; photo when empty"`
	OfBox   bool     `query:"ofBox" doc:"of swatches: for every two paints of the box, not for the mixtures of the wheel alone"`
	Round   int64    `query:"round" doc:"a round of a class, whose address a blank has as a code"`
	Measure string   `query:"measure" maxLength:"20" doc:"what is counted out in"`
	One     float64  `query:"one" doc:"ml of one drop, load or tip"`
	Printing
}

// paperAsked is what an address of a sheet on paper asks for behind its question mark. The error is an input.Error.
func paperAsked(query string) (*paperInput, error) {
	said, err := url.ParseQuery(query)
	if err != nil {
		return nil, input.Errorf("which sheet cannot be read: %v", err)
	}
	in := &paperInput{}
	if err := fromQuery(said, reflect.ValueOf(in).Elem()); err != nil {
		return nil, err
	}
	return in, nil
}

// fromQuery sets the fields of a struct that are named in a query, and the others to what they are without it.
func fromQuery(said url.Values, into reflect.Value) error {
	for i := range into.NumField() {
		field, is := into.Type().Field(i), into.Field(i)
		if field.Anonymous {
			if err := fromQuery(said, is); err != nil {
				return err
			}
			continue
		}
		name := field.Tag.Get("query")
		text := cmp.Or(said.Get(name), field.Tag.Get("default"))
		if name == "" || text == "" {
			continue
		}
		var err error
		switch is.Kind() {
		case reflect.String:
			is.SetString(text)
		case reflect.Bool:
			var v bool
			v, err = strconv.ParseBool(text)
			is.SetBool(v)
		case reflect.Int, reflect.Int64:
			var v int64
			v, err = strconv.ParseInt(text, 10, 64)
			is.SetInt(v)
		case reflect.Float64:
			var v float64
			v, err = strconv.ParseFloat(text, 64)
			is.SetFloat(v)
		case reflect.Slice:
			is.Set(reflect.ValueOf(strings.Split(text, ",")))
		}
		if err != nil {
			return input.Errorf("%s cannot be %q", name, input.Clip(text))
		}
	}
	return nil
}

// sheet is which sheet of a wheel is asked for, and how it is put on paper.
func (in *paperInput) sheet() (which bench.Which, named studio.Named, table recipe.Scale, o paper.Options, err error) {
	if o, err = in.options(); err != nil {
		return which, named, table, o, err
	}
	if in.Measure != "" {
		if table, err = recipe.NewScale(recipe.Measure(in.Measure), in.One); err != nil {
			return which, named, table, o, input.Wrap(err)
		}
	}
	sheet := wire.BenchSheet{Kind: in.Kind, Slot: in.Slot, Section: in.Section, Steps: in.Steps, A: in.A, B: in.B, Without: in.Without, With: in.With, Earth: in.Earth, Tube: in.Tube, Film: in.Film, Glaze: in.Glaze, ReadBy: in.ReadBy, OfBox: in.OfBox}
	if in.Bit >= 0 {
		sheet.Bit = &in.Bit
	}
	which, named = sheet.Core()
	return which, named, table, o, nil
}

// paper is a sheet of a kept wheel on paper, to be shown or saved.
func (s *Server) paper(ctx context.Context, in *paperInput) (*Page, error) {
	which, named, table, o, err := in.sheet()
	if err != nil {
		return nil, err
	}
	if in.Round != 0 {
		if o.Code, err = s.roundCode(ctx, in.Round); err != nil {
			return nil, err
		}
	}
	title, pages, err := s.studio.Paper(ctx, painter(ctx), in.ID, which, named, table, o)
	if err != nil {
		return nil, err
	}
	return in.export(title, pages)
}

type boxPaperInput struct {
	Medium string `query:"medium" default:"acrylic" maxLength:"20" doc:"that it is painted in"`
	Printing
}

// boxPaper is the palette guide of the painter's box on paper.
func (s *Server) boxPaper(ctx context.Context, in *boxPaperInput) (*Page, error) {
	o, err := in.options()
	if err != nil {
		return nil, err
	}
	medium, err := paint.ParseMedium(in.Medium)
	if err != nil {
		return nil, input.Wrap(err)
	}
	pages, err := s.studio.BoxPaper(ctx, painter(ctx), medium, o)
	if err != nil {
		return nil, err
	}
	return in.export("The box", pages)
}

type comparePaperInput struct {
	ComparedQuery
	PaperFile
}

// comparePaper are systems side by side on paper.
func (s *Server) comparePaper(ctx context.Context, in *comparePaperInput) (*Page, error) {
	format, err := paper.ParseFormat(in.Paper)
	if err != nil {
		return nil, err
	}
	v, systems, err := s.compared(ctx, &in.ComparedQuery)
	if err != nil {
		return nil, err
	}
	return in.export("Systems side by side", paper.Comparison(systems, v.Medium, format, s.studio.Measure()))
}

func (s *Server) benchRoutes() {
	register(s, huma.Operation{OperationID: "paper", Tags: []string{"bench"}, Summary: "A sheet of a kept wheel on paper, at true size", Method: http.MethodGet, Path: "/api/wheels/{id}/paper"}, s.paper)
	register(s, huma.Operation{OperationID: "boxPaper", Tags: []string{"bench"}, Summary: "The palette guide of the box on paper, at true size", Method: http.MethodGet, Path: "/api/box/paper"}, s.boxPaper)
	register(s, huma.Operation{OperationID: "comparePaper", Tags: []string{"bench"}, Summary: "Systems side by side on paper", Method: http.MethodGet, Path: "/api/compare/paper"}, s.comparePaper)
	register(s, huma.Operation{OperationID: "plan", Tags: []string{"bench"}, Summary: "How to paint a wheel: how much of each paint, and in which order", Method: http.MethodPost, Path: "/api/plan", Metadata: painterForTubes}, bodied(s.plan))
	register(s, huma.Operation{OperationID: "surer", Tags: []string{"bench"}, Summary: "What to paint to be surer of the recipes of a wheel", Method: http.MethodPost, Path: "/api/surer", Metadata: painterForTubes}, bodied(s.surer))
	register(s, huma.Operation{OperationID: "counted", Tags: []string{"bench"}, Summary: "A recipe counted out in dabs, drops, brush loads, knife tips or grams", Method: http.MethodPost, Path: "/api/counted", Metadata: painterForTubes}, bodied(s.counted))
}
