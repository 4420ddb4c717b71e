package store

import (
	"cmp"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// SittingPlan is a sheet, frozen as it was when a sitting began: what a later program
// would make of the wheel does not matter to it.
type SittingPlan struct {
	Medium   string
	Film     float64        // how thick the painter lays it, over the usual
	Settings bench.Settings // complete, but for the medium
	Fill     bench.Fill
	Why      string
	Order    []int
	Sheet    bench.Sheet // its regions without recipes and mixtures
	Recipes  [][]KeptPart
	Ends     [3][2]string          // paints that each section runs between
	Paints   map[string]FrozenTube // all of it, by their ids
}

// KeptPart is so much of a paint in a recipe, by its id.
type KeptPart struct {
	Paint string
	Parts float64
	In    string // the paint it is let down in; empty for none
	Thin  int
	Name  string     // of what was mixed first
	Of    []KeptPart // what that was mixed from
}

type keptSittingPlan struct {
	versioned
	Medium   string                `json:"medium"`
	Film     float64               `json:"film,omitempty"` // 1 where there is none
	Settings *keptBench            `json:"settings"`
	Fill     string                `json:"fill"`
	Why      string                `json:"why,omitempty"`
	Order    []int                 `json:"order"`
	Kind     string                `json:"kind"`
	Title    string                `json:"title"`
	W        float64               `json:"w"`
	H        float64               `json:"h"`
	Inner    float64               `json:"inner,omitempty"`
	Rings    []float64             `json:"rings,omitempty"`
	Regions  []keptRegion          `json:"regions"`
	Ends     [3][2]string          `json:"ends"`
	Paints   map[string]keptFrozen `json:"paints"`
}

type keptRegion struct {
	ID      string      `json:"id"`
	Label   string      `json:"label"`
	Parents string      `json:"parents"`
	Parts   []keptPart  `json:"parts"`
	Film    float64     `json:"film,omitempty"`
	Home    int         `json:"home"`
	Index   int         `json:"index"`
	Kind    string      `json:"kind"`
	Main    bool        `json:"main,omitempty"`
	Section int         `json:"section"`
	Place   int         `json:"place,omitempty"`
	Share   float64     `json:"share,omitempty"`
	Shape   keptShape   `json:"shape"`
	Touches []int       `json:"touches,omitempty"`
	Beneath []int       `json:"beneath,omitempty"`
	InSight *keptShape  `json:"inSight,omitempty"` // nil for all of it
	Graded  bool        `json:"graded,omitempty"`
	Verdict string      `json:"verdict,omitempty"` // of what is mixed of two paints
	Aim     *[3]float64 `json:"aim,omitempty"`
}

// keptShape is from, to, inner, outer, x, y, w, h.
type keptShape [8]float64

func keepShape(s bench.Shape) keptShape {
	return keptShape{s.From, s.To, s.Inner, s.Outer, s.X, s.Y, s.W, s.H}
}

func (s keptShape) open() bench.Shape {
	return bench.Shape{From: s[0], To: s[1], Inner: s[2], Outer: s[3], X: s[4], Y: s[5], W: s[6], H: s[7]}
}

type keptPart struct {
	Paint string     `json:"paint"`
	Parts float64    `json:"parts"`
	In    string     `json:"in,omitempty"`
	Thin  int        `json:"thin,omitempty"`
	Name  string     `json:"name,omitempty"`
	Of    []keptPart `json:"of,omitempty"`
}

func regionKind(word string) wheel.Kind {
	for _, k := range wheel.SlotKinds {
		if k.String() == word {
			return k
		}
	}
	return wheel.Tertiary
}

func keepVerdict(v paint.Verdict) string {
	if v == paint.Neutral {
		return ""
	}
	return v.String()
}

func openVerdict(word string) paint.Verdict {
	for _, v := range paint.ChromaticVerdicts {
		if v.String() == word {
			return v
		}
	}
	return paint.Neutral
}

func keepParts(parts []KeptPart) (out []keptPart) {
	for _, p := range parts {
		out = append(out, keptPart{Paint: p.Paint, Parts: p.Parts, In: p.In, Thin: p.Thin, Name: p.Name, Of: keepParts(p.Of)})
	}
	return out
}

func openParts(parts []keptPart) (out []KeptPart) {
	for _, p := range parts {
		out = append(out, KeptPart{Paint: p.Paint, Parts: p.Parts, In: p.In, Thin: p.Thin, Name: p.Name, Of: openParts(p.Of)})
	}
	return out
}

func keepSittingPlan(p SittingPlan) keptSittingPlan {
	s := p.Sheet
	out := keptSittingPlan{versioned: sittingPlanShape, Medium: p.Medium, Film: p.Film, Settings: keepBench(p.Settings), Fill: string(p.Fill), Why: p.Why, Order: p.Order,
		Kind: string(s.Kind), Title: s.Title, W: s.W, H: s.H, Inner: s.Inner, Rings: s.Rings, Ends: p.Ends, Paints: map[string]keptFrozen{}}
	for i, r := range s.Regions {
		one := keptRegion{ID: r.ID, Label: r.Label, Parents: r.Parents, Parts: keepParts(p.Recipes[i]), Film: r.Film, Home: r.Home, Index: r.Index, Kind: r.Kind.String(), Main: r.Main,
			Section: r.Section, Place: r.Step, Share: r.Share, Shape: keepShape(r.Shape), Touches: r.Touches, Beneath: r.Beneath, Graded: r.Graded, Verdict: keepVerdict(r.Verdict)}
		if r.InSight != (bench.Shape{}) {
			seen := keepShape(r.InSight)
			one.InSight = &seen
		}
		if r.Aim != nil {
			one.Aim = &[3]float64{r.Aim.L, r.Aim.A, r.Aim.B}
		}
		out.Regions = append(out.Regions, one)
	}
	for id, t := range p.Paints {
		out.Paints[id] = keptFrozen{keepDefinition(t.Definition), t.Strength}
	}
	return out
}

func (p keptSittingPlan) open() SittingPlan {
	out := SittingPlan{Medium: p.Medium, Film: cmp.Or(p.Film, 1), Settings: p.Settings.open(), Fill: bench.Fill(p.Fill), Why: p.Why, Order: p.Order, Ends: p.Ends, Paints: map[string]FrozenTube{},
		Sheet: bench.Sheet{Kind: bench.SheetKind(p.Kind), Title: p.Title, W: p.W, H: p.H, Inner: p.Inner, Rings: p.Rings}}
	for _, r := range p.Regions {
		one := bench.Region{ID: r.ID, Label: r.Label, Parents: r.Parents, Film: r.Film, Home: r.Home, Index: r.Index, Kind: regionKind(r.Kind), Main: r.Main,
			Section: r.Section, Step: r.Place, Share: r.Share, Shape: r.Shape.open(), Touches: r.Touches, Beneath: r.Beneath, Graded: r.Graded, Verdict: openVerdict(r.Verdict)}
		if r.InSight != nil {
			one.InSight = r.InSight.open()
		}
		if r.Aim != nil {
			one.Aim = &colour.Lab{L: r.Aim[0], A: r.Aim[1], B: r.Aim[2]}
		}
		out.Sheet.Regions = append(out.Sheet.Regions, one)
		out.Recipes = append(out.Recipes, openParts(r.Parts))
	}
	for id, t := range p.Paints {
		out.Paints[id] = FrozenTube{t.Definition.open(), t.Strength}
	}
	return out
}

// RecipeParts is how a recipe is kept.
func RecipeParts(r recipe.Recipe) (out []KeptPart) {
	for _, i := range r {
		one := KeptPart{Paint: i.Paint.ID, Parts: i.Parts, Thin: i.Thin}
		if i.In != nil {
			one.In = i.In.ID
		}
		if len(i.Paint.Of) > 0 {
			one.Name, one.Of = i.Paint.Name, RecipeParts(recipe.Of(i.Paint.Of))
		}
		out = append(out, one)
	}
	return out
}

type keptEvent struct {
	versioned
	ID       string      `json:"id"`
	Kind     string      `json:"kind"`
	At       time.Time   `json:"at"`
	Region   string      `json:"region,omitempty"`
	Well     int         `json:"well,omitempty"`
	Brush    int         `json:"brush,omitempty"`
	Thorough bool        `json:"thorough,omitempty"`
	Took     []keptTook  `json:"took,omitempty"`
	Text     string      `json:"text,omitempty"`
	Looks    *[3]float64 `json:"looks,omitempty"` // of a test swatch
	Undoes   string      `json:"undoes,omitempty"`
	Tap      string      `json:"tap,omitempty"`
	Adds     bool        `json:"adds,omitempty"`
	From     int         `json:"from,omitempty"`
	FromML   float64     `json:"fromMl,omitempty"`
	ML       float64     `json:"ml,omitempty"`
}

type keptTook struct {
	Paint  string  `json:"paint"`
	Amount float64 `json:"amount"`
	In     string  `json:"in,omitempty"`
	Thin   int     `json:"thin,omitempty"`
}

func keepEvent(e bench.Event) keptEvent {
	out := keptEvent{versioned: eventShape, ID: e.ID, Kind: string(e.Kind), At: e.At, Region: e.Region, Well: e.Well, Brush: e.Brush, Thorough: e.Thorough, Text: e.Text, Undoes: e.Undoes, Tap: e.Tap, Adds: e.Adds, From: e.From, FromML: e.FromML, ML: e.ML}
	if e.Looks != nil {
		out.Looks = &[3]float64{e.Looks.L, e.Looks.A, e.Looks.B}
	}
	for _, t := range e.Used {
		out.Took = append(out.Took, keptTook(t))
	}
	return out
}

func (e keptEvent) open() bench.Event {
	out := bench.Event{ID: e.ID, Kind: bench.EventKind(e.Kind), At: e.At, Region: e.Region, Well: e.Well, Brush: e.Brush, Thorough: e.Thorough, Text: e.Text, Undoes: e.Undoes, Tap: e.Tap, Adds: e.Adds, From: e.From, FromML: e.FromML, ML: e.ML}
	if e.Looks != nil {
		out.Looks = &colour.Lab{L: e.Looks[0], A: e.Looks[1], B: e.Looks[2]}
	}
	for _, t := range e.Took {
		out.Used = append(out.Used, bench.Used(t))
	}
	return out
}
