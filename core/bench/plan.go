package bench

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// ActionKind is what is done.
type ActionKind string

// The actions of a plan.
const (
	LayOut ActionKind = "lay out"
	Mix    ActionKind = "mix"
	Paint  ActionKind = "paint"
	Wash   ActionKind = "wash"
	Rinse  ActionKind = "rinse"
	Water  ActionKind = "water"
	Wait   ActionKind = "wait"
)

// ActionKinds lists them.
var ActionKinds = []ActionKind{LayOut, Mix, Paint, Wash, Rinse, Water, Wait}

// Action is one thing to do, in minutes from the beginning.
type Action struct {
	Kind       ActionKind
	Region     int // index of the region, -1 where it is for none
	Start, End float64
	Dry        float64 // when what was painted is dry; 0 for what is not painted
	Well       int     // 1 up; 0 for a paint beside the wells
	Brush      int     // 1 or 2; 0 where none is used
	Thorough   bool    // of a wash
	From       int     // the well of which a part is taken to mix; 0 for none
	FromML     float64 // how much of it
	Because    string
}

// Baseline is how long another order takes.
type Baseline struct {
	Minutes int
	Washes  int
}

// Plan is the order in which a sheet is painted.
type Plan struct {
	Sheet    *Sheet
	Settings Settings
	Fill     Fill
	Why      string // where sections are not filled as one would, the reason
	Actions  []Action
	Order    []int // regions in the order in which they are painted
	Minutes  int   // until the last is painted
	AllDry   float64
	Washes   int
	Low      int  // minutes that no order comes below
	Proved   bool // that no other order is quicker, and of those as quick none washes less
	// RoundTheWheel paints slot after slot, ByKind the primaries, then secondaries, then
	// tertiaries; each a pile for itself and one brush.
	RoundTheWheel, ByKind Baseline
	// Counted are the recipes of the regions counted out for what they need, in watercolour
	// without the water; of a run what goes into the pile for each of its steps.
	Counted []recipe.Counted
	// Late is why the lightest mixture does not come early, where it does not.
	Late string
	// Asked is what the painter's own wishes cost, in minutes; 0 where there are none.
	Asked int
	// Remedies are, by region, the ways on from a pile that stands mixed and is not what it was
	// meant to be, the one that is advised first.
	Remedies map[int][]Remedy
	own      []recipe.Counted // each recipe by itself, where sections are filled otherwise
	parted   []float64        // ml of the secondary that are taken for a region
	rest     *problem         // of what is left, from where a sitting stands
}

// New plans a sheet. The error is an input.Error.
func New(s *Sheet, set Settings) (*Plan, error) { return plan(s, set, false) }

// RestoredPlan is the plan that a sitting began with, of what was kept of it.
func RestoredPlan(s *Sheet, set Settings, fill Fill, why string, order []int) *Plan {
	out := &Plan{Sheet: s, Settings: set, Fill: fill, Why: why, Order: order}
	out.count()
	return out
}

// Sketch is New in a few hundredths of a second: the order that is found at once, and
// a bound that is quick to know. The error is an input.Error.
func Sketch(s *Sheet, set Settings) (*Plan, error) { return plan(s, set, true) }

func plan(s *Sheet, set Settings, quick bool) (*Plan, error) {
	set, err := set.Complete()
	if err != nil {
		return nil, err
	}
	out := &Plan{Sheet: s, Settings: set, Fill: OwnPiles}
	var known []*state
	out.count()
	own, err := newProblem(s, set, OwnPiles, regions{}, out.Counted, nil)
	if err != nil {
		return nil, err
	}
	round, kinds := own.baselines(s)
	out.RoundTheWheel, out.ByKind = baselineOf(round), baselineOf(kinds)

	out.Fill = set.Fill
	if out.Fill == "" {
		out.Fill = usualFill(s, set)
	}
	var p *problem
	var best *state
	var low cost
	if out.Fill != OwnPiles {
		out.count()
		if p, err = newProblem(s, set, out.Fill, regions{}, out.Counted, nil); err != nil {
			return nil, err
		}
		if best, low, out.Proved = p.solve(quick); best == nil {
			out.Why = "No order keeps the runs: " + set.againstRuns() + " Each step has a pile of its own."
			out.Fill = OwnPiles
			out.count()
		}
	} else if set.Fill == "" && s.ways != [3]*path.Path{} && set.Workable() > 0 && set.Drying() > set.Workable() {
		out.Why = "A run cannot be: " + set.againstRuns() + " Each step has a pile of its own."
	}
	if best == nil {
		if set.First == nil && set.Before == nil {
			known = []*state{own.follow(orderOf(round)), own.follow(orderOf(kinds))}
		}
		p = own
		best, low, out.Proved = own.solve(quick, known...)
	}
	if best == nil {
		return nil, fmt.Errorf("no order was found") // own piles can always be painted
	}
	light := lightness(out.Counted)
	best = p.lightFirst(best, light)
	out.Late = out.lateLight(p, best, light)
	out.Minutes, out.Washes, out.Low = cost{best.t, best.washes}.whole(), best.washes, low.whole()
	for _, at := range best.order() {
		out.Order = append(out.Order, at.job)
	}
	out.act(p, best)
	if len(set.First) > 0 || len(set.Before) > 0 {
		free := set
		free.First, free.Before, free.Fill = nil, nil, out.Fill
		if without, err := plan(s, free, quick); err == nil {
			out.Asked = out.Minutes - without.Minutes
		}
	}
	return out, nil
}

// againstRuns is why runs are not kept, and what would let them be.
func (s Settings) againstRuns() string {
	lasts := s.Workable()
	var why string
	switch {
	case lasts == 0:
		return fmt.Sprintf("their piles need more wells than %d.", s.Wells)
	case s.Drying() > 0 && !s.Gaps:
		why = fmt.Sprintf("neighbours need %.0f minutes between them, and a pile lasts %.0f.", s.Drying()+paintTime*s.HandPace, lasts)
	default:
		why = fmt.Sprintf("a pile lasts %.0f minutes, and painting what is painted from it takes longer.", lasts)
	}
	if covered := s; !s.Covered {
		covered.Covered = true
		why += fmt.Sprintf(" Cover the wells, and it lasts %.0f.", covered.Workable())
	}
	return why
}

// usualFill is a run where one can be kept, or the secondary first where the wheel is
// mixed by that school: in watercolour, and where nothing has to dry or a pile is covered.
func usualFill(s *Sheet, set Settings) Fill {
	switch {
	case s.ways == [3]*path.Path{}, !set.Medium.LightenWithWater && set.Drying() > 0 && !set.Gaps && !set.Covered:
		return OwnPiles
	case s.wheel != nil && s.wheel.Order == wheel.SecondaryFirst:
		return SecondaryFirst
	}
	return FromWeaker
}

func baselineOf(s *state) Baseline {
	if s == nil {
		return Baseline{}
	}
	return Baseline{cost{s.t, s.washes}.whole(), s.washes}
}

func orderOf(s *state) (out []int) {
	if s == nil {
		return nil
	}
	for _, at := range s.order() {
		out = append(out, at.job)
	}
	return out
}

// baselines are what becomes of a sheet painted slot after slot, and by kinds, with
// one brush, whatever the painter wishes.
func (p *problem) baselines(s *Sheet) (round, kinds *state) {
	plain := *p
	plain.jobs = slices.Clone(p.jobs)
	for i := range plain.jobs {
		plain.jobs[i].after = regions{}
		for _, k := range s.Regions[i].Beneath {
			plain.jobs[i].after = plain.jobs[i].after.with(k)
		}
	}
	order := make([]int, len(s.Regions))
	for i := range order {
		order[i] = i
	}
	around := func(i int) int {
		if s.Regions[i].Main {
			return s.Regions[i].Index
		}
		return 1000*(1+i/12) + s.Regions[i].Index
	}
	slices.SortStableFunc(order, func(a, b int) int { return around(a) - around(b) })
	round = plain.follow(order)
	rank := map[wheel.Kind]int{wheel.Primary: 0, wheel.Secondary: 1, wheel.Tertiary: 2}
	slices.SortStableFunc(order, func(a, b int) int {
		ra, rb := &s.Regions[a], &s.Regions[b]
		if ra.Main != rb.Main {
			return around(a) - around(b)
		}
		if d := rank[ra.Kind] - rank[rb.Kind]; d != 0 {
			return d
		}
		return around(a) - around(b)
	})
	return round, plain.follow(order)
}

// act writes down what is done, with the reason of each wait and wash.
func (out *Plan) act(p *problem, best *state) {
	s := out.Sheet
	add := func(a Action) { out.Actions = append(out.Actions, a) }
	add(Action{Kind: LayOut, Region: -1})
	wells := newRack(p)
	for _, at := range best.order() {
		was, j := at.parent, at.job
		of := &p.jobs[j]
		t := was.t
		if w := p.wash(was.brush[at.by], j); w > 0 {
			add(Action{Kind: Wash, Region: j, Start: t, End: t + w, Brush: at.by + 1, Thorough: w == thoroughWash, Because: p.because(s, was.brush[at.by], j)})
			t += w
			if at.washes%p.water == 0 {
				add(Action{Kind: Water, Region: -1, Start: t, End: t + waterTime, Because: fmt.Sprintf("Before it tints the mixtures: it has taken %d washes.", p.water)})
				t += waterTime
			}
		}
		well := 0
		switch ready := wells.ready[j]; {
		case ready > 0:
			well = ready
		case of.well:
			well = wells.take(j)
			if at.piles > p.wells {
				add(Action{Kind: Rinse, Region: -1, Start: t, End: t + rinseTime, Well: well, Because: "All wells have been used."})
				t += rinseTime
			}
		case of.section >= 0:
			well = wells.of[of.section]
		}
		parting := wells.of[of.section] // the well of the secondary
		wells.painted(j)
		start := at.t - of.paint
		if mixed := start - of.mix; mixed > t+1e-9 {
			add(Action{Kind: Wait, Region: j, Start: t, End: mixed, Because: out.wet(was, j, of.mix)})
			t = mixed
		}
		if of.mix > 0 {
			mix := Action{Kind: Mix, Region: j, Start: t, End: t + of.mix, Well: well, Because: out.mixing(p, j)}
			if of.section >= 0 && of.place == 2 && out.Fill == SecondaryFirst {
				mix.From, mix.FromML = parting, out.parted[j]
			}
			if all := out.Remedies[j]; len(all) > 0 {
				mix.From, mix.FromML = all[0].Tells[0].From, all[0].Tells[0].FromML
			}
			add(mix)
		}
		add(Action{Kind: Paint, Region: j, Start: start, End: at.t, Dry: at.t + p.drying, Well: well, Brush: at.by + 1})
		out.AllDry = max(out.AllDry, at.t+p.drying)
	}
}

// rack is which of the wells hold a pile that is still needed.
type rack struct {
	p    *problem
	of   map[int]int // the well of the run that a section is, while it is needed
	left map[int]int // steps that a section still has
	used []bool
	last int
	// ready are the wells, 1 up, of piles that stand mixed, by their regions.
	ready map[int]int
}

func newRack(p *problem) *rack {
	r := &rack{p: p, of: map[int]int{}, left: map[int]int{}, used: make([]bool, p.wells), ready: map[int]int{}}
	for i := range p.jobs {
		if k := p.jobs[i].section; k >= 0 && (p.from == nil || !p.from.done.has(i)) {
			r.left[k]++
		}
	}
	if p.from == nil {
		return r
	}
	for _, n := range p.from.used {
		r.used[n], r.last = true, n+1
	}
	for k, well := range p.from.well {
		if well > 0 && r.left[k] > 0 {
			r.of[k] = well
		}
	}
	for n, holds := range p.from.wells {
		if holds >= 0 && p.from.ready.has(holds) {
			r.ready[holds] = n + 1
		}
	}
	return r
}

// take is the well, 1 up, in which a region's pile is mixed: a clean one or, where there
// is none, the one that has been free the longest.
func (r *rack) take(j int) int {
	needed := func(well int) bool {
		for _, of := range []map[int]int{r.of, r.ready} {
			for _, w := range of {
				if w == well {
					return true
				}
			}
		}
		return false
	}
	well := 0
	for by := 1; by <= len(r.used); by++ {
		w := (r.last+by-1)%len(r.used) + 1
		if needed(w) {
			continue
		}
		if !r.used[w-1] {
			well = w
			break
		}
		if well == 0 {
			well = w
		}
	}
	if well == 0 {
		well = r.last%len(r.used) + 1 // all are needed: it has to go
	}
	r.used[well-1], r.last = true, well
	if k := r.p.jobs[j].section; k >= 0 && r.p.jobs[j].place == 1 {
		r.of[k] = well
	}
	return well
}

// painted lets the well of a run go with its last step.
func (r *rack) painted(j int) {
	delete(r.ready, j)
	if k := r.p.jobs[j].section; k >= 0 {
		if r.left[k]--; r.left[k] == 0 {
			delete(r.of, k)
		}
	}
}

// wet names what a region waits for.
func (out *Plan) wet(was *state, j int, mix float64) string {
	last, until := -1, was.dry[j]
	if until > 0 {
		last = j
	}
	for _, k := range out.Sheet.Regions[j].waitsFor() {
		if was.done.has(k) && was.dry[k] > until {
			last, until = k, was.dry[k]
		}
	}
	switch last {
	case -1:
		return ""
	case j:
		return fmt.Sprintf("Something ran into %s: it is gone over when it is dry, at minute %.0f.", out.Sheet.Regions[j].Label, math.Ceil(until))
	}
	lies := "touches"
	if slices.Contains(out.Sheet.Regions[j].Beneath, last) {
		lies = "lies over"
	}
	return fmt.Sprintf("%s %s %s, which is wet until minute %.0f.", out.Sheet.Regions[j].Label, lies, out.Sheet.Regions[last].Label, math.Ceil(until))
}

// mixing says what a pile is mixed from: paints, or the step before it in its run.
func (out *Plan) mixing(p *problem, j int) string {
	for i := range p.jobs {
		if p.run(i, j) && out.Fill != SecondaryFirst {
			return fmt.Sprintf("It goes on from %s.", out.Sheet.Regions[i].Label)
		}
		if p.run(i, j) {
			return fmt.Sprintf("Part of %s is taken for it.", out.Sheet.Regions[i].Label)
		}
	}
	return ""
}

// count counts the recipes out: each by itself, those of runs as they are added to.
func (out *Plan) count() {
	s, set := out.Sheet, out.Settings
	if out.own == nil {
		out.own = make([]recipe.Counted, len(s.Regions))
		for i := range s.Regions {
			r := &s.Regions[i]
			out.own[i] = recipe.CountOut(r.Recipe, &r.Mixture, set.Scale, set.paintOf(r))
		}
	}
	out.Counted = slices.Clone(out.own)
	if out.Fill == OwnPiles {
		return
	}
	out.parted = make([]float64, len(s.Regions))
	for k := range s.ways {
		ways := Fillings(s, k, set)
		at := slices.IndexFunc(ways, func(w Filling) bool { return w.Fill == out.Fill })
		if at < 0 {
			continue
		}
		if out.Fill == SecondaryFirst {
			out.countParted(k, ways[at])
		} else {
			out.countRun(k, ways[at])
		}
	}
}

// from are the paints that a section is run from and toward, and its steps in that order.
func (out *Plan) from(section int) (weak, strong *paint.Paint, steps []int) {
	way := out.Sheet.ways[section]
	steps = out.Sheet.section(section)
	weak, strong = way.A, way.B
	if (way.Weaker().ID == way.B.ID) == (out.Fill != FromStronger) {
		weak, strong = way.B, way.A
		slices.Reverse(steps)
	}
	return weak, strong, steps
}

// countRun counts out the starting pile and what is added to it before each step, each
// addition by what there is in the pile by then.
func (out *Plan) countRun(section int, way Filling) {
	s, set := out.Sheet, out.Settings
	from, toward, steps := out.from(section)
	begin := recipe.Of([]paint.Part{{Paint: from, Parts: way.Adds[0].Pile}}).With(recipe.Recipe{way.Adds[0].of(from, toward)})
	var pile []paint.Part
	for n, i := range steps {
		r := &s.Regions[i]
		add := way.Adds[n]
		if n == 0 {
			out.Counted[i] = recipe.CountOut(begin, &r.Mixture, set.Scale, add.Pile+add.Add)
			pile = out.Counted[i].Volumes()
		} else {
			had := recipe.Volume(pile)
			share := shareIn(pile, toward)
			wanted := r.Share
			if toward != out.Sheet.ways[section].B {
				wanted = 1 - r.Share
			}
			ml := had * (wanted - share) / (add.Sigma - wanted)
			if !(ml > 0) {
				ml = add.Add
			}
			one := add.of(from, toward)
			out.Counted[i] = recipe.AddTo(pile, one, ml, &r.Mixture, set.Scale)
			pile = append(pile, out.Counted[i].Volumes()...)
		}
		// What the step takes is gone from the pile.
		left := max(0.05, 1-set.paintOf(r)/recipe.Volume(pile))
		for p := range pile {
			pile[p].Parts *= left
		}
	}
}

// countParted counts out the secondary for all three steps, and what is added to the
// parts of it.
func (out *Plan) countParted(section int, way Filling) {
	s, set := out.Sheet, out.Settings
	weak, strong, steps := out.from(section)
	mid := &s.Regions[steps[1]]
	out.Counted[steps[1]] = recipe.CountOut(mid.Recipe, &mid.Mixture, set.Scale, way.Start)
	whole := out.Counted[steps[1]].Volumes()
	for n, add := range map[int]*paint.Paint{0: weak, 2: strong} {
		part := way.Adds[n/2+1]
		var pile []paint.Part
		for _, p := range whole {
			pile = append(pile, paint.Part{Paint: p.Paint, Parts: p.Parts * part.Pile / recipe.Volume(whole)})
		}
		r := &s.Regions[steps[n]]
		out.parted[steps[n]] = part.Pile
		out.Counted[steps[n]] = recipe.AddTo(pile, recipe.Ingredient{Paint: add, Parts: 1}, part.Add, &r.Mixture, set.Scale)
	}
}

// of is what is added: the other paint, or its let-down.
func (a Addition) of(from, toward *paint.Paint) recipe.Ingredient {
	i := recipe.Ingredient{Paint: toward, Parts: a.Add}
	if a.Sigma < 1 {
		i.In, i.Thin = from, int(math.Round(1/a.Sigma))-1
	}
	return i
}

// shareIn is the share of a paint in a pile, 0 to 1.
func shareIn(pile []paint.Part, of *paint.Paint) float64 {
	return recipe.InPile(pile, of) / recipe.Volume(pile)
}

// Says is how good the order is, in words.
func (out *Plan) Says() string {
	switch {
	case out.Proved:
		return "shortest possible"
	case out.Minutes == out.Low:
		return "shortest possible, though fewer washes may do"
	}
	return fmt.Sprintf("at most %.0f %% over the shortest possible", math.Ceil(100*float64(out.Minutes-out.Low)/float64(out.Low)))
}
