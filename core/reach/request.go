package reach

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// Aim is what a system is chosen for.
type Aim string

// The aims: the most clean hues; the least price, or the fewest tubes, of those
// that reach nearly as many (95 %); the nearest to some target colours.
const (
	MostHues       Aim = "coverage"
	LeastPrice     Aim = "price"
	FewestTubes    Aim = "tubes"
	NearestTargets Aim = "targets"
)

// Aims lists them.
var Aims = []Aim{MostHues, LeastPrice, FewestTubes, NearestTargets}

// Kinds are the kinds of system that are chosen.
var Kinds = []wheel.SystemKind{wheel.RYB, wheel.Split, wheel.Double}

// Target is a colour that a system should come near to, as painted and dry.
type Target struct {
	Name string
	Lab  colour.Lab
}

// Request is what a system is chosen for, and from what.
type Request struct {
	Kind     wheel.SystemKind // RYB, Split or Double
	Aim      Aim
	Targets  []Target
	Medium   paint.Medium // the targets are painted in
	Library  bool         // from the whole library; from the box otherwise
	Contains []string     // ids of paints that must be in it
	Careful  bool         // no paint whose class carries a special hazard
	Lasting  bool         // only paints that keep their colour in light, I and II
	Without  []string     // nor one of these classes of caution
	Prices   map[string]float64
	Workers  int    // how much of the machine it may take: at least 1
	Report   Report // is told how far the search is; may be nil
	// Table finds the table of some paints where it is known already; NewTable
	// when nil.
	Table func(ctx context.Context, paints []*paint.Paint, workers int, report Report) (*Table, error)
}

// Result is the best system for a request, and what comes next.
type Result struct {
	Best      Ranked
	RunnersUp []Ranked
	BuyNext   []Purchase           // library paints that let the best system of the box reach more, the best first
	Cautions  []paint.CautionGroup // of the paints that are chosen from, the gravest first
}

// Ranked is a system that was looked at.
type Ranked struct {
	Choice
	Price   *float64 // of its tubes; nil where one is not known
	Reached int      // targets within CIEDE2000 3
	MeanDE  *float64 // CIEDE2000 to the targets, before parts are made whole; nil without targets
	Loses   string   // of a runner-up: a sentence on what it loses against the best
}

// RunnersUp is how many choices are given beside the best.
const RunnersUp = 4

const mostBought = 5

// Choose finds the best systems for a request from a box of paints: exactly,
// every one is looked at. From a box it says as well which paint of the library
// would add most. The error is TooMany, that of the context, or an input.Error.
func Choose(ctx context.Context, box []*paint.Paint, r Request) (Result, error) {
	criteria := Criteria{Kind: r.Kind, Contains: r.Contains, Careful: r.Careful, Lasting: r.Lasting, Without: r.Without, Most: 1 + RunnersUp, Workers: r.Workers, Report: r.Report}
	switch {
	case r.Aim == LeastPrice && r.Library:
		return Result{}, input.Errorf("The library knows no prices: choose by price from the box, where its tubes have some.")
	case r.Aim == LeastPrice:
		criteria.Prices = r.Prices
		if criteria.Prices == nil {
			criteria.Prices = map[string]float64{}
		}
	case r.Aim == FewestTubes:
		criteria.Fewest = true
	case !slices.Contains(Aims, r.Aim):
		return Result{}, input.Errorf("%q is no aim: choose coverage, price, tubes or targets", input.Clip(string(r.Aim)))
	}
	all, from := paint.Library(), paint.Library()
	if !r.Library {
		if len(box) == 0 {
			return Result{}, input.Errorf("Your box is empty: add paints to it, or choose from the library.")
		}
		criteria.Among = paint.IDs(box)
		all, from = append(slices.Clone(box), NotIn(box)...), box
	}
	out := Result{Cautions: paint.Cautions(from)}
	if err := knownClasses(r.Without, from); err != nil {
		return out, err
	}
	if r.Aim != NearestTargets {
		if err := criteria.CheckSize(all); err != nil {
			return out, err
		}
	}
	if r.Table == nil {
		r.Table = NewTable
	}
	table, err := r.Table(ctx, all, r.Workers, r.Report)
	if err != nil {
		return out, ended(ctx, err)
	}
	if r.Aim == NearestTargets {
		return out, ended(ctx, out.nearest(ctx, table, criteria, r))
	}
	if err := out.best(ctx, table, criteria, r); err != nil || r.Library {
		return out, ended(ctx, err)
	}
	criteria.Prices, criteria.Fewest = nil, false // what is not bought yet has no price
	bought, err := table.BuyNext(ctx, criteria, NotIn(box))
	out.BuyNext = bought[:min(mostBought, len(bought))]
	return out, ended(ctx, err)
}

// knownClasses refuses classes of caution that no paint of the library, or of
// some more paints, carries.
func knownClasses(without []string, more []*paint.Paint) error {
	var known []string
	for _, g := range paint.Cautions(slices.Concat(paint.Library(), more)) {
		known = append(known, g.Class)
	}
	for _, class := range without {
		if !slices.Contains(known, class) {
			return input.Errorf("%q is no class of caution: take %s", input.Clip(class), strings.Join(known, ", "))
		}
	}
	return nil
}

// ended is why a search failed: it was ended, asked too much, or refused what it
// was asked for.
func ended(ctx context.Context, err error) error {
	var many TooMany
	switch {
	case err == nil:
		return nil
	case ctx.Err() != nil:
		return ctx.Err()
	case errors.As(err, &many):
		return err
	}
	return input.Sentence(err)
}

// add ranks one more system: the first is the best.
func (r *Result) add(one Ranked, rank int) {
	if rank == 0 {
		r.Best = one
		return
	}
	r.RunnersUp = append(r.RunnersUp, one)
}

func (r *Result) best(ctx context.Context, table *Table, criteria Criteria, request Request) error {
	choices, err := table.Best(ctx, criteria)
	if err != nil {
		return err
	}
	for i, c := range choices {
		one := Ranked{Choice: c, Price: PriceOf(c.System.Paints(), request.Prices)}
		if d := Compare(choices[0].Reach, c.Reach); !d.Same() {
			one.Loses = d.Sentence("The best", "this one")
		} else {
			one.Loses = fmt.Sprintf("As clean everywhere; on the whole it keeps %.3f of the possible, the best %.3f.", c.Reach.Mean(), choices[0].Reach.Mean())
		}
		r.add(one, i)
	}
	r.Best.Loses = ""
	return nil
}

// nearest ranks the systems that come nearest to the targets.
func (r *Result) nearest(ctx context.Context, table *Table, criteria Criteria, request Request) error {
	var labs []colour.Lab
	for _, t := range request.Targets {
		labs = append(labs, t.Lab)
	}
	usual := wheel.System{}
	fits, err := table.NearestTo(ctx, criteria, Helpers{White: usual.Rider(wheel.WhiteRider), Black: usual.Rider(wheel.BlackRider)}, labs, request.Medium)
	if err != nil {
		return err
	}
	for i, s := range fits {
		one := Ranked{Choice: Choice{System: s.System, Reach: OfSystem(s.System)}, Price: PriceOf(s.System.Paints(), request.Prices), Reached: s.Reached, MeanDE: &s.Mean}
		if i > 0 {
			one.Loses = misses(request.Targets, fits[0].DE, s.DE)
		}
		r.add(one, i)
	}
	return nil
}

// equalWithin is the CIEDE2000 up to which one match is as good as another.
const equalWithin = 0.5

// misses says which targets a system misses by more than the best does.
func misses(targets []Target, best, its []float64) string {
	var names []string
	for i, d := range its {
		if d > best[i]+1 {
			names = append(names, fmt.Sprintf("%s (%.1f, not %.1f)", targets[i].Name, d, best[i]))
		}
	}
	if len(names) == 0 {
		return "It comes as near to every wanted colour, or nearly."
	}
	return "It comes less near to " + strings.Join(names, ", ") + "."
}

// PriceOf is what tubes cost together, by the ids of their paints; nil where one
// has no price.
func PriceOf(paints []*paint.Paint, prices map[string]float64) *float64 {
	sum := 0.0
	for _, p := range paints {
		one, ok := prices[p.ID]
		if !ok {
			return nil
		}
		sum += one
	}
	return &sum
}

// Sentence says what changes with a swap: where the system is cleaner or less
// clean than before, brighter or duller.
func (s Swap) Sentence(before Reach) string {
	d := Compare(s.Reach, before)
	out := "As clean as before everywhere"
	if !d.Same() {
		out = text.UpperFirst(strings.TrimSuffix(d.Sentence("with it the system", "as it is, it"), "."))
	}
	if len(d.FirstBrighter) > 0 {
		out += "; brighter " + Runs(d.FirstBrighter)
	}
	if len(d.SecondBrighter) > 0 {
		out += "; duller " + Runs(d.SecondBrighter)
	}
	return out + "."
}

// SwapsWith are Swaps, but that a tube for which another is tried (by the id of
// the tube) is replaced by that one. The error is that of the context, or an
// input.Error.
func SwapsWith(ctx context.Context, s wheel.System, candidates []*paint.Paint, tried map[string]*paint.Paint) ([]Swap, error) {
	swaps, err := Swaps(ctx, s, candidates)
	if err != nil {
		return nil, err
	}
	for _, p := range s.Paints() {
		in := tried[p.ID]
		if in == nil {
			continue
		}
		one, err := SwapOf(s, p, in)
		if err != nil {
			return nil, input.Sentence(err)
		}
		if at := slices.IndexFunc(swaps, func(w Swap) bool { return w.Out.ID == p.ID }); at >= 0 {
			swaps[at] = one
		} else {
			swaps = append(swaps, one)
		}
	}
	return swaps, nil
}

// Sentence says where a system, by its name, is clean: "The triad is clean from
// red to yellow, softened elsewhere."
func (r Reach) Sentence(name string) string {
	rest := "softened elsewhere"
	if r.Soft() < 1 {
		rest = "softened or muddy elsewhere"
	}
	switch runs := r.CleanRuns(); {
	case r.Clean() == 1:
		return fmt.Sprintf("%s is clean all the way round, and vivid in %.0f %% of it.", name, 100*r.Vivid())
	case len(runs) == 0:
		return fmt.Sprintf("%s is clean nowhere for long, %s.", name, rest)
	default:
		return fmt.Sprintf("%s is clean %s, %s.", name, Runs(runs), rest)
	}
}
