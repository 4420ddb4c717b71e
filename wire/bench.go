package wire

import (
	"fmt"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/studio"
)

// Portion is so much of one ingredient, in a measure.
type Portion struct {
	Paint  string  `json:"paint"`
	Code   string  `json:"code"`
	Name   string  `json:"name" doc:"short, with what is said of a let-down"`
	In     string  `json:"in,omitempty" doc:"the paint it is let down in"`
	Thin   int     `json:"thin,omitempty" doc:"parts of that to 1"`
	Amount float64 `json:"amount" doc:"mm across for dabs, grams, else a number; 0 for looks"`
	Says   string  `json:"says" doc:"the amount in words"`
	ML     float64 `json:"ml"`
	Shown
}

// CountedPile is what is counted out and mixed in one go.
type CountedPile struct {
	Taken  []Portion `json:"taken"`
	ML     float64   `json:"ml"`
	Needed float64   `json:"needed" doc:"ml: of a let-down what goes on, of the recipe what was asked for"`
}

// Counted is a recipe counted out in a measure.
type Counted struct {
	Measure string        `json:"measure" format:"measure"`
	Before  []CountedPile `json:"before" doc:"let-downs, in the order in which they are made"`
	CountedPile
	Shown           // what the counted amounts make, as painted
	DE     float64  `json:"de00" doc:"CIEDE2000 to the exact step, brushed out"`
	Spread float64  `json:"spread" doc:"CIEDE2000 that a hand strays by"`
	Advice string   `json:"advice" doc:"which amount matters where a hand strays far; else empty"`
	Says   string   `json:"says" doc:"the recipe in short, each paint beside its own amount"`
	Lines  []string `json:"lines" doc:"how to count it out, in order"`
	Adds   bool     `json:"adds" doc:"it is added to a pile that there is already"`
}

// Counted shapes a recipe that was counted out.
func (v View) Counted(c recipe.Counted, r recipe.Recipe, exact *paint.Mixture) Counted {
	out := v.amounts(&c)
	out.Advice = c.Advice(r, exact)
	return *out
}

// amounts shapes a recipe that was counted out, without advice.
func (v View) amounts(c *recipe.Counted) *Counted {
	out := Counted{
		Measure: string(c.Measure), Before: []CountedPile{}, CountedPile: v.countedPile(c.Scale, c.Pile), Shown: v.painted(&c.Mixture),
		DE: round(c.DE, 2), Spread: round(c.Spread, 2), Says: c.String(), Lines: append([]string{}, c.Lines()...), Adds: c.Adds,
	}
	for _, p := range c.Before {
		out.Before = append(out.Before, v.countedPile(c.Scale, p))
	}
	return &out
}

func (v View) countedPile(s recipe.Scale, p recipe.Pile) CountedPile {
	out := CountedPile{ML: round(p.ML, 3), Needed: round(p.Needed, 3), Taken: []Portion{}}
	for _, c := range p.Counts {
		m := c.Mixture()
		one := Portion{Paint: c.Paint.ID, Code: c.Code(), Name: c.Called(), Thin: c.Thin, Amount: round(c.Amount, 2), Says: s.Says(c.Amount), ML: round(c.ML, 4), Shown: v.painted(&m)}
		if c.In != nil {
			one.In = c.In.ID
		}
		out.Taken = append(out.Taken, one)
	}
	return out
}

// BenchShape is where a region lies, in mm: a sector where to is above from, a rectangle
// where it has a width, else a circle.
type BenchShape struct {
	From  float64 `json:"from" doc:"degrees clockwise from the top"`
	To    float64 `json:"to"`
	Inner float64 `json:"inner" doc:"radius"`
	Outer float64 `json:"outer" doc:"radius"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
	H     float64 `json:"h"`
}

// BenchRegion is one place of a sheet that is painted in one colour.
type BenchRegion struct {
	ID      string       `json:"id"`
	Label   string       `json:"label"`
	Parents string       `json:"parents" doc:"what it is mixed from, in short"`
	Home    int          `json:"home" doc:"of a wheel's slot; -1 elsewhere"`
	Index   int          `json:"index"`
	Main    bool         `json:"main" doc:"of the ring of twelve"`
	Section int          `json:"section" doc:"-1 for what is no mixed slot"`
	AreaMM2 float64      `json:"areaMm2"`
	ML      float64      `json:"ml" doc:"of its mixture that it takes, in watercolour with its water"`
	Thinner float64      `json:"thinner" doc:"parts of what the medium is thinned with to 1 of paint, 0 where it is laid as it comes"`
	Thin    string       `json:"thin" doc:"how it is thinned, in a sentence; empty where nothing thins it"`
	Touches []int        `json:"touches" doc:"regions whose edge it shares"`
	Graded  bool         `json:"graded"`
	Drawn   []Shown      `json:"drawn,omitempty" doc:"a graded region from its rim to its tip, in even steps"`
	Aim     *Shown       `json:"aim,omitempty" doc:"the colour that is wanted where it is another than the recipe's"`
	Shape   BenchShape   `json:"shape"`
	Film    float64      `json:"film,omitempty" doc:"how thick it lies as X, where that is another film than the medium's"`
	Beneath []int        `json:"beneath,omitempty" doc:"regions that it is laid over, from below: each is dry before the next"`
	Seen    BenchShape   `json:"seen" doc:"what is seen of it when others are laid over the rest"`
	Parts   []Ingredient `json:"parts"`
	Swatch  string       `json:"swatch" doc:"its paints by volume, let-downs resolved, as the stand-in meter takes them: PB29=1 PW6=9"`
	Counted Counted      `json:"counted"`
	Shown                // dry
	Confidence
}

// BenchAmount is how much of a paint a sheet takes.
type BenchAmount struct {
	Paint    string   `json:"paint"`
	Code     string   `json:"code"`
	Name     string   `json:"name"`
	ML       float64  `json:"ml"`
	MoreML   float64  `json:"moreMl" doc:"with which nine of ten sets of tubes have enough; 0 where next to nothing more is asked for"`
	RibbonMM float64  `json:"ribbonMm" doc:"out of the nozzle; 0 from a pan"`
	Loads    int      `json:"loads" doc:"brush loads out of the pan; 0 where it is squeezed out"`
	TubeML   *float64 `json:"tubeMl" doc:"what the tube holds; null where that is not known"`
	Short    bool     `json:"short" doc:"the tube holds less"`
	Shown
}

// BenchAction is one thing to do.
type BenchAction struct {
	Kind     string  `json:"kind" format:"benchAction"`
	Region   int     `json:"region" doc:"-1 for none"`
	Slot     string  `json:"slot" doc:"the region's label; empty for none"`
	Start    float64 `json:"start" doc:"minutes from the beginning"`
	End      float64 `json:"end"`
	Dry      float64 `json:"dry" doc:"when what was painted is dry; 0 for what is not painted"`
	Well     int     `json:"well" doc:"1 up; 0 for a paint beside the wells"`
	Brush    int     `json:"brush" doc:"1 or 2; 0 where none is used"`
	Thorough bool    `json:"thorough" doc:"of a wash"`
	From     int     `json:"from,omitempty" doc:"the well of which a part is taken to mix"`
	FromML   float64 `json:"fromMl,omitempty" doc:"how much of it"`
	Because  string  `json:"because"`
}

func actionOf(a bench.Action, s *bench.Sheet) BenchAction {
	out := BenchAction{Kind: string(a.Kind), Region: a.Region, Start: round(a.Start, 2), End: round(a.End, 2), Dry: round(a.Dry, 2), Well: a.Well, Brush: a.Brush, Thorough: a.Thorough, From: a.From, FromML: round(a.FromML, 3), Because: a.Because}
	if a.Region >= 0 {
		out.Slot = s.Regions[a.Region].Label
	}
	return out
}

// BenchWay is one of the ways to fill a section.
type BenchWay struct {
	Fill     string  `json:"fill" format:"fill"`
	Start    float64 `json:"startMl" doc:"the starting pile"`
	Smallest float64 `json:"smallestMl" doc:"the smallest addition"`
	Takes    string  `json:"takes" doc:"the smallest addition in the measure"`
	LetDown  bool    `json:"letDown" doc:"the smallest additions are of a let-down"`
	Wells    int     `json:"wells"`
	Slip     float64 `json:"slipMl" doc:"what it takes to come back from an addition 30 % too large"`
}

// BenchSection is a section, and the ways to fill it side by side.
type BenchSection struct {
	Section int        `json:"section"`
	From    string     `json:"from"`
	To      string     `json:"to"`
	Ways    []BenchWay `json:"ways"`
}

// BenchDrawing is how a sheet is drawn with one of the tools.
type BenchDrawing struct {
	By      string       `json:"by" format:"drawBy"`
	Steps   []string     `json:"steps"`
	Points  [][2]float64 `json:"points" doc:"mm from the middle, x to the right, y down"`
	Circles []float64    `json:"circles" doc:"radii in mm"`
	Square  float64      `json:"square" doc:"side in mm, 0 for none"`
}

// BenchPlan is how a sheet is painted.
type BenchPlan struct {
	Conditions
	Settings  BenchSettings  `json:"settings" doc:"with what is usual filled in"`
	Kind      string         `json:"kind" format:"sheet"`
	Title     string         `json:"title"`
	Width     float64        `json:"width" doc:"mm"`
	Height    float64        `json:"height" doc:"mm"`
	Regions   []BenchRegion  `json:"regions"`
	Amounts   []BenchAmount  `json:"amounts"`
	Actions   []BenchAction  `json:"actions"`
	Order     []int          `json:"order" doc:"regions in the order in which they are painted"`
	Sections  []BenchSection `json:"sections"`
	Drawings  []BenchDrawing `json:"drawings"`
	Fill      string         `json:"fill" format:"fill"`
	Late      string         `json:"late" doc:"why the lightest mixture does not come early; empty where it does"`
	Why       string         `json:"why" doc:"where sections are not filled as one would, the reason"`
	Washes    int            `json:"washes"`
	Total     int            `json:"totalMinutes"`
	AllDry    float64        `json:"allDryMinutes"`
	Naive     int            `json:"naiveMinutes" doc:"slot after slot round the wheel"`
	NaiveWash int            `json:"naiveWashes"`
	ByKind    int            `json:"byKindMinutes" doc:"primaries, secondaries, tertiaries"`
	KindWash  int            `json:"byKindWashes"`
	Low       int            `json:"lowerBoundMinutes" doc:"no order is shorter"`
	Optimal   bool           `json:"optimal"`
	Says      string         `json:"says" doc:"how good the order is"`
	Asked     int            `json:"askedMinutes" doc:"what the painter's own wishes cost"`
	Working   bool           `json:"working" doc:"a better one is still being worked out: ask again"`
	Mark      string         `json:"mark" doc:"tells its order and recipes from those of another plan; sheets carry it"`
	Apart     string         `json:"apart,omitempty" doc:"that its tubes cannot be told from each other, and what would mend that"`
	OwnHand   float64        `json:"ownHand,omitempty" doc:"the painter's own pace of mixing and painting, where it was planned at that"`
	OwnDrying float64        `json:"ownDrying,omitempty" doc:"and of drying"`
}

// BenchSheet says what is to be painted of a system.
type BenchSheet struct {
	Kind    string   `json:"kind,omitempty" doc:"wheel, grid of pairings, ladder, values, intensity, run of neighbours, palette guide, wanted colours, warm and cool, worksheet, glazes, or swatches that make the recipes surer"`
	Slot    int      `json:"slot,omitempty" doc:"index of the slot, of values, intensities, runs, worksheets and what is added"`
	Section int      `json:"section,omitempty" doc:"of a ladder"`
	Steps   int      `json:"steps,omitempty" doc:"inner steps of a ladder, places of a scale"`
	A       string   `json:"a,omitempty" maxLength:"60" doc:"paint that a ladder begins with; a section of the wheel when empty"`
	B       string   `json:"b,omitempty" maxLength:"60" doc:"paint that it ends with"`
	Without []string `json:"without,omitempty" maxItems:"5" doc:"parts that are left out: of a worksheet wheel, greys, runs, values, intensity; of glazes wheel, order, ramp"`
	With    []string `json:"with,omitempty" maxItems:"4" doc:"what is added to a wheel or a worksheet: dark, earth (neighbours of the slot from one), tube (beside the slot that it looks like), bit (of another slot in it)"`
	Earth   string   `json:"earth,omitempty" maxLength:"60" doc:"paint that the slot's neighbours are mixed from; the nearest earth when empty"`
	Tube    string   `json:"tube,omitempty" maxLength:"60" doc:"paint that stands beside the slot; the one that looks most like it when empty"`
	Bit     *int     `json:"bit,omitempty" minimum:"0" maximum:"11" doc:"index of the slot of which a bit goes into it; the one across from it when null"`
	Film    float64  `json:"film,omitempty" doc:"how thick a glaze lies as X, 0.1 to 0.5; 0.3 when 0"`
	Glaze   string   `json:"glaze,omitempty" maxLength:"60" doc:"paint that glazes are laid of over the others; the clearest of them when empty"`
	ReadBy  string   `json:"readBy,omitempty" doc:"of swatches that make recipes surer: eye, photo or instrument; photo when empty"`
	OfBox   bool     `json:"ofBox,omitempty" doc:"of swatches: for every two paints of the box, not for the mixtures of the wheel alone"`
}

// Core is what is to be painted, and the paints that are named for it.
func (s BenchSheet) Core() (which bench.Which, named studio.Named) {
	return bench.Which{Kind: bench.SheetKind(s.Kind), Slot: s.Slot, Section: s.Section, Steps: s.Steps, Without: bench.PartsOf(s.Without), With: bench.PartsOf(s.With), Bit: s.Bit, Film: s.Film, ReadBy: paint.Source(s.ReadBy), OfBox: s.OfBox},
		studio.Named{A: s.A, B: s.B, Earth: s.Earth, Tube: s.Tube, Glaze: s.Glaze}
}

// BenchSettings are how a sheet is painted; what is 0 or empty is as usual.
type BenchSettings struct {
	Diameter float64     `json:"diameter,omitempty" doc:"of a wheel, mm"`
	Inner    float64     `json:"inner,omitempty" doc:"radius of its hole, mm"`
	Coats    int         `json:"coats,omitempty"`
	Loss     float64     `json:"loss,omitempty" doc:"share that stays in brush and well"`
	Graded   *bool       `json:"graded,omitempty" doc:"slots are drawn out, thinned toward the tip; as suits the medium when left out"`
	Gaps     bool        `json:"gaps,omitempty" doc:"hairline gaps between slots"`
	Brushes  int         `json:"brushes,omitempty"`
	Wells    int         `json:"wells,omitempty"`
	Waters   int         `json:"waters,omitempty" doc:"jars of water"`
	Dryer    bool        `json:"dryer,omitempty"`
	Covered  bool        `json:"covered,omitempty" doc:"wells stay under a cover"`
	Fill     string      `json:"fill,omitempty" doc:"weaker, stronger, secondary or own"`
	Pace     float64     `json:"pace,omitempty" doc:"the painter's own drying over the medium's"`
	Hand     float64     `json:"hand,omitempty" doc:"the painter's own pace of mixing and painting, over the usual times"`
	Measure  string      `json:"measure,omitempty" doc:"dabs, drops, loads, tips, grams or looks"`
	One      float64     `json:"one,omitempty" doc:"ml of one drop, load or tip"`
	Nozzle   float64     `json:"nozzle,omitempty" doc:"of the tubes, mm"`
	Residue  float64     `json:"residue,omitempty" doc:"ml of the last mixture that a wiped brush still holds"`
	Knife    bool        `json:"knife,omitempty" doc:"piles are mixed with a knife"`
	First    []int       `json:"first,omitempty" maxItems:"3" doc:"sections that are painted before the others"`
	Before   [][2]string `json:"before,omitempty" maxItems:"200" doc:"regions, each of which is painted before another"`
}

// Core are the settings as they are said, without a medium.
func (s BenchSettings) Core() bench.Settings {
	return bench.Settings{
		Diameter: s.Diameter, Inner: s.Inner, Coats: s.Coats, Loss: s.Loss, Slots: bench.SlotsSaid(s.Graded), Gaps: s.Gaps, Brushes: s.Brushes, Wells: s.Wells, Waters: s.Waters,
		Dryer: s.Dryer, Covered: s.Covered, Fill: bench.Fill(s.Fill), Pace: s.Pace, HandPace: s.Hand, Scale: recipe.Scale{Measure: recipe.Measure(s.Measure), Size: s.One}, Nozzle: s.Nozzle, Residue: s.Residue, Knife: s.Knife,
		First: s.First, Before: s.Before,
	}
}

// BenchSettingsOf shapes settings.
func BenchSettingsOf(s bench.Settings) BenchSettings {
	return BenchSettings{
		Diameter: s.Diameter, Inner: s.Inner, Coats: s.Coats, Loss: s.Loss, Graded: s.Slots.Said(), Gaps: s.Gaps, Brushes: s.Brushes, Wells: s.Wells, Waters: s.Waters, Dryer: s.Dryer, Covered: s.Covered, Fill: string(s.Fill), Pace: s.Pace, Hand: s.HandPace, Measure: string(s.Scale.Measure), One: s.Scale.Size, Nozzle: s.Nozzle, Residue: s.Residue, Knife: s.Knife,
		First: s.First, Before: s.Before,
	}
}

// swatchOf are the paints of a recipe by volume, each as PAINT=PARTS.
func swatchOf(r recipe.Recipe) string {
	var parts []string
	for _, p := range r.Plain() {
		id := p.Paint.ID
		if _, err := paint.Find(id); err != nil { // of a tube what lies under the stand-in is the library's paint
			if of, err := paint.Find(p.Paint.CI); err == nil {
				id = of.ID
			}
		}
		parts = append(parts, fmt.Sprintf("%s=%.6g", id, p.Parts))
	}
	return strings.Join(parts, " ")
}

// Planned shapes a plan, with what its painter should know before.
func (v View) Planned(p studio.Planned) BenchPlan {
	out := v.Plan(p.Plan, p.Tubes)
	out.Working = !p.Exact
	out.Apart, out.OwnHand, out.OwnDrying = p.Apart, p.Own.HandPace, p.Own.Drying
	return out
}

// Plan shapes a plan. Tubes are what the tubes of its paints hold in ml, where that is
// known.
func (v View) Plan(p *bench.Plan, tubes map[string]float64) BenchPlan {
	s := p.Sheet
	out := BenchPlan{
		Conditions: v.conditions(), Settings: BenchSettingsOf(p.Settings), Kind: string(s.Kind), Title: s.Title, Width: s.W, Height: s.H,
		Amounts: []BenchAmount{}, Actions: []BenchAction{}, Sections: []BenchSection{}, Drawings: []BenchDrawing{}, Order: append([]int{}, p.Order...), Fill: string(p.Fill), Why: p.Why, Late: p.Late, Washes: p.Washes, Total: p.Minutes,
		AllDry: round(p.AllDry, 1), Naive: p.RoundTheWheel.Minutes, NaiveWash: p.RoundTheWheel.Washes, ByKind: p.ByKind.Minutes, KindWash: p.ByKind.Washes,
		Low: p.Low, Optimal: p.Proved, Says: p.Says(), Asked: p.Asked, Mark: p.Mark(),
	}
	var recipes []recipe.Recipe
	for i := range s.Regions {
		r := &s.Regions[i]
		recipes = append(recipes, r.Recipe)
	}
	sure, more := certainty.OfRecipes(recipes, v.doubts()), p.MoreAsked(v.doubts())
	for i := range s.Regions {
		r := &s.Regions[i]
		look := r.Appearance(v.Medium, v.Wet)
		touches := r.Touches
		if touches == nil {
			touches = []int{}
		}
		one := BenchRegion{
			ID: r.ID, Label: r.Label, Parents: r.Parents, Home: r.Home, Index: r.Index, Main: r.Main, Section: r.Section, AreaMM2: round(r.Area(), 1),
			ML: round(p.Settings.Need(r), 3), Thinner: round(p.Settings.Thinner(r), 2), Thin: p.Settings.Thinning(r), Touches: touches, Graded: r.Graded, Shape: BenchShape(r.Shape), Film: r.Film, Beneath: r.Beneath, Seen: BenchShape(r.Seen()),
			Parts: v.Recipe(r.Recipe), Swatch: swatchOf(r.Recipe), Counted: v.Counted(p.Counted[i], r.Recipe, &r.Mixture), Shown: shown(look.OKLab(v.Light)), Confidence: ConfidenceOf(sure[i]),
		}
		if r.Graded {
			one.Drawn = v.drawn(&r.Mixture, v.Medium, v.Wet)
		}
		if r.Aim != nil {
			wanted := shown(r.Aim.OKLab())
			one.Aim = &wanted
		}
		out.Regions = append(out.Regions, one)
	}
	for _, a := range p.Amounts() {
		m := a.Paint.Alone()
		one := BenchAmount{Paint: a.Paint.ID, Code: a.Paint.Code(), Name: a.Paint.Name, ML: round(a.ML, 3), MoreML: round(more[a.Paint], 2), RibbonMM: round(a.Ribbon, 0), Loads: a.Loads, Shown: v.painted(&m)}
		if holds, known := tubes[a.Paint.ID]; known {
			one.TubeML, one.Short = &holds, holds < a.ML
		}
		out.Amounts = append(out.Amounts, one)
	}
	for _, a := range p.Actions {
		out.Actions = append(out.Actions, actionOf(a, s))
	}
	for k := range 3 {
		section := BenchSection{Section: k}
		for _, w := range bench.Fillings(s, k, p.Settings) {
			section.Ways = append(section.Ways, BenchWay{Fill: string(w.Fill), Start: round(w.Start, 3), Smallest: round(w.Smallest, 4), Takes: p.Settings.Scale.Roughly(w.Smallest), LetDown: w.LetDown, Wells: w.Wells, Slip: round(w.Slip, 3)})
		}
		if len(section.Ways) > 0 {
			section.From, section.To = s.Between(k)
			out.Sections = append(out.Sections, section)
		}
	}
	for _, by := range bench.DrawBys {
		if d := s.Draw(by); d.By == by {
			out.Drawings = append(out.Drawings, BenchDrawing{By: string(d.By), Steps: d.Steps, Points: d.Points, Circles: d.Circles, Square: d.Square})
		}
	}
	return out
}
