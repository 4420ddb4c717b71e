package bench

import (
	"math"
	"slices"
	"time"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// byID finds the paints of a sheet.
func (s *Sheet) byID() map[string]*paint.Paint {
	out := map[string]*paint.Paint{}
	for _, p := range s.Paints() {
		out[p.ID] = p
	}
	return out
}

// usedOf is what a counted recipe takes, as it is told.
func usedOf(c *recipe.Counted) (out []Used) {
	if c.Measure == recipe.ByLooks {
		return nil
	}
	for _, of := range c.Counts {
		one := Used{Paint: of.Paint.ID, Amount: of.Amount}
		if of.In != nil {
			one.In, one.Thin = of.In.ID, of.Thin
		}
		out = append(out, one)
	}
	return out
}

// portions are what was told of amounts as they are counted out; what is no paint of the sheet is
// left out.
func (st *Sitting) portions(used []Used, scale recipe.Scale) (out []recipe.Portion) {
	for _, u := range used {
		one := recipe.Ingredient{Paint: st.paints[u.Paint], Parts: 1, In: st.paints[u.In], Thin: u.Thin}
		if one.Paint == nil || (one.In == nil) != (u.In == "") || !(u.Amount > 0) {
			continue
		}
		out = append(out, recipe.Portion{Ingredient: one, Amount: u.Amount, ML: scale.VolumeOf(one, u.Amount)})
	}
	return out
}

// pile is paints put together, each once.
func pile(parts ...[]paint.Part) []paint.Part {
	return recipe.Of(recipe.Of(slices.Concat(parts...)).Plain()).Volumes()
}

// scaled is so many times as much of a pile.
func scaled(parts []paint.Part, by float64) []paint.Part {
	out := slices.Clone(parts)
	for i := range out {
		out[i].Parts *= by
	}
	return out
}

// less is a pile from which so many ml were taken.
func less(parts []paint.Part, ml float64) []paint.Part {
	all := recipe.Volume(parts)
	if all <= ml {
		return nil
	}
	return scaled(parts, 1-ml/all)
}

// asPlanned is so much of a region's mixture as its recipe says.
func (r *Region) asPlanned(ml float64) []paint.Part {
	parts := r.Recipe.Plain()
	return scaled(parts, ml/recipe.Volume(parts))
}

// offBy is the CIEDE2000 of a pile, brushed out, from the mixture of a region; infinite for none.
func (r *Region) offBy(parts []paint.Part) float64 {
	m, err := paint.Mix(parts...)
	if err != nil {
		return math.Inf(1)
	}
	is, want := m.BrushedOut(), r.Mixture.BrushedOut()
	return colour.Difference(is.Lab(), want.Lab())
}

// mixed is a region's pile that is mixed into a well: into what that holds where it adds to it, or
// from what another one holds.
func (st *Sitting) mixed(s *Sheet, set Settings, e *Event, i int) {
	w, place, r := &st.Wells[e.Well-1], &st.Places[i], &s.Regions[i]
	var had, seemed []paint.Part // by what was told, and by the looks of a test swatch
	since := e.At
	asTold := len(e.Used) > 0 || e.ML > 0
	switch {
	case e.From >= 1 && e.From <= len(st.Wells):
		from := &st.Wells[e.From-1]
		taken := min(e.FromML, recipe.Volume(from.Holds))
		if taken > 0 {
			share := taken / recipe.Volume(from.Holds)
			had, seemed, since = scaled(from.Holds, share), scaled(from.Seems, share), from.Since
		}
		if e.From != e.Well {
			from.take(taken)
		}
	case e.Adds, !asTold && w.Region >= 0 && s.goesOn(w.Region, i, set.Fill):
		had, seemed = w.Holds, w.Seems
		if w.Region >= 0 {
			since = w.Since // a pile is as old as its beginning
		}
	}
	used, off := e.Used, false
	if really := st.really[e.ID]; len(really) > 0 {
		used, off = really, true
	}
	holds := pile(had, st.volumes(used, set.Scale))
	if len(used) == 0 && !e.Adds && e.From == 0 || set.Scale.Measure == recipe.ByLooks {
		// By looks, or of before amounts were told: what it was meant to be. A pile that nothing needs to
		// be added to stays what it is.
		holds = r.asPlanned(max(e.ML, recipe.Volume(had), set.paintOf(r)))
	}
	*w = Well{Region: i, Since: since, Used: true, Holds: holds, Told: used, Off: off, added: len(had) > 0}
	if len(seemed) > 0 {
		w.Seems = pile(seemed, st.volumes(used, set.Scale))
	}
	place.well, place.Told = e.Well, used
}

// volumes are the paints in ml of what was told of amounts; each telling is opened once.
func (st *Sitting) volumes(used []Used, scale recipe.Scale) (out []paint.Part) {
	if len(used) == 0 {
		return nil
	}
	if out, known := st.opened[&used[0]]; known {
		return out
	}
	for _, of := range st.portions(used, scale) {
		out = append(out, scale.Opened(of.Ingredient, of.ML)...)
	}
	out = pile(out)
	st.opened[&used[0]] = out
	return out
}

// measured is what a region's pile really took: the mixture that was told of holds that. Of one that
// nothing was told of it is known what it was painted with, where it can be.
func (st *Sitting) measured(set Settings, r *Region, e *Event, i int) {
	place := &st.Places[i]
	if place.well == 0 && place.Coats > 0 && set.Scale.Measure != recipe.ByLooks {
		if of := pile(st.volumes(e.Used, set.Scale)); len(of) == len(r.Recipe.Plain()) {
			place.Held = of
		}
	}
}

// measuredOf finds what mixtures were measured to have taken, whenever that was told: of each the
// last told after it and before the next of its region or, where none was told of that yet, the one
// that was told before its first.
func measuredOf(events []Event, counts map[string]bool) map[string][]Used {
	out, mixed, early := map[string][]Used{}, map[string]string{}, map[string][]Used{}
	for i := range events {
		switch e := &events[i]; {
		case !counts[e.ID]:
		case e.Kind == Mixed:
			if mixed[e.Region] == "" && len(early[e.Region]) > 0 {
				out[e.ID] = early[e.Region]
			}
			mixed[e.Region] = e.ID
		case e.Kind == Measured && mixed[e.Region] != "":
			out[mixed[e.Region]] = e.Used
		case e.Kind == Measured:
			early[e.Region] = e.Used
		}
	}
	return out
}

// painted is what a region is painted with, and what of that its well still holds.
func (st *Sitting) painted(s *Sheet, set Settings, e *Event, i int) {
	place, r := &st.Places[i], &s.Regions[i]
	well := e.Well
	if well == 0 {
		well = 1 + slices.IndexFunc(st.Wells, func(w Well) bool { return w.Region == i })
	}
	if well < 1 || well > len(st.Wells) || st.Wells[well-1].Region != i || len(st.Wells[well-1].Holds) == 0 {
		return // a paint as it comes, or from nothing that is known of
	}
	w := &st.Wells[well-1]
	place.Held = w.Holds
	drawn := set.paintOf(r)
	if place.Coats > 1 {
		drawn /= float64(set.Coats)
	}
	w.take(drawn)
}

// take takes so many ml out of a well.
func (w *Well) take(ml float64) {
	w.Holds = less(w.Holds, ml)
	if w.Seems != nil {
		w.Seems = less(w.Seems, ml)
	}
}

// filling is how the mixtures that are left come into being, from what the wells hold.
type filling struct {
	counted  []recipe.Counted
	gone     regions // steps of runs that have piles of their own after all
	ready    regions // whose pile stands in a well
	well     [3]int  // the well, 1 up, of the run of each section that goes on; 0 for none
	parted   []float64
	remedies map[int][]Remedy
}

// left says that a region is still to be painted, or to be gone over.
func (st *Sitting) left(i int) bool {
	p := &st.Places[i]
	return p.Coats == 0 && !p.Skipped || p.Ran
}

// holding says that a well holds what can be painted with at a time.
func (w *Well) holding(set Settings, now time.Time) bool {
	return w.Region >= 0 && len(w.Holds) > 0 && workableAt(set, w.Since, now)
}

// filling works out what becomes of the wells. Without runs every mixture that is left and not
// mixed has a pile of its own.
func (st *Sitting) filling(now time.Time, before *Plan, set Settings, withoutRuns bool) filling {
	f := filling{counted: slices.Clone(before.Counted), parted: slices.Clone(before.parted), remedies: map[int][]Remedy{}}
	for n := range st.Wells {
		w := &st.Wells[n]
		if !w.holding(set, now) || !st.left(w.Region) {
			continue
		}
		if r := &before.Sheet.Regions[w.Region]; st.Places[w.Region].Ran && recipe.Volume(w.Holds) < set.paintOf(r)*recipe.NearlyAll {
			continue // it does not reach for a coat more
		}
		f.ready = f.ready.with(w.Region)
		if all := st.remedies(before, n+1, w.Region); len(all) > 0 {
			f.remedies[w.Region] = all
			f.counted[w.Region] = all[0].Counted
		} else if told := st.portions(w.Told, set.Scale); len(told) > 0 {
			f.counted[w.Region] = asMixed(told, set.Scale, w, &before.Sheet.Regions[w.Region], w.added)
		}
	}
	if before.Fill != OwnPiles {
		for k := range before.Sheet.ways {
			st.goOn(&f, now, before, set, k, withoutRuns)
		}
	}
	return f
}

// MixedFrom is what a region's pile was mixed from, as it was told last; nil where nothing was.
func (st *Sitting) MixedFrom(of *Plan, i int) *recipe.Counted {
	told := st.portions(st.Places[i].Told, of.Settings.Scale)
	if len(told) == 0 {
		return nil
	}
	c := recipe.Counted{Scale: of.Settings.Scale, Decides: -1}
	c.Counts = told
	c.ML = recipe.Volume(c.Volumes())
	c.Mixture, _ = paint.Mix(c.Volumes()...) // it is of something
	return &c
}

// asMixed is what was counted out into a well.
func asMixed(told []recipe.Portion, scale recipe.Scale, w *Well, r *Region, adds bool) recipe.Counted {
	c := recipe.Counted{Scale: scale, Decides: -1, Adds: adds, DE: r.offBy(w.reckoned())}
	c.Counts, c.ML, c.Needed = told, recipe.Volume(w.Holds), recipe.Volume(w.Holds)
	c.Mixture, _ = paint.Mix(w.reckoned()...) // it holds something
	return c
}

// goOn works out which steps of a section go on from a pile that a well holds, and gives the others
// that are left piles of their own.
func (st *Sitting) goOn(f *filling, now time.Time, before *Plan, set Settings, k int, withoutRuns bool) {
	s := before.Sheet
	if s.ways[k] == nil {
		return
	}
	from, toward, steps := before.from(k)
	if before.Fill == SecondaryFirst && len(steps) == 3 {
		steps = []int{steps[1], steps[0], steps[2]}
	}
	well := 0
	begun := slices.ContainsFunc(steps, func(i int) bool { return !st.left(i) })
	for n := range st.Wells {
		w := &st.Wells[n]
		at := slices.Index(steps, w.Region)
		if at < 0 || !w.holding(set, now) || before.Fill == SecondaryFirst && at > 0 {
			continue
		}
		begun = true
		if well == 0 || recipe.Volume(w.Holds) > recipe.Volume(st.Wells[well-1].Holds) {
			well = n + 1
		}
	}
	if !begun {
		return // as planned
	}
	own := func(i int) {
		if st.left(i) && !f.ready.has(i) {
			f.gone = f.gone.with(i)
			f.counted[i] = before.alone(i)
		}
	}
	if well == 0 || withoutRuns {
		for _, i := range steps {
			own(i)
		}
		return
	}
	holds, at := st.Wells[well-1].reckoned(), slices.Index(steps, st.Wells[well-1].Region)
	if i := steps[at]; f.ready.has(i) {
		if all := f.remedies[i]; len(all) > 0 {
			held := scaled(holds, all[0].Keep)
			holds = pile(held, all[0].Counted.Volumes())
		}
		holds = less(holds, set.paintOf(&s.Regions[i]))
	}
	goes := false
	for n, i := range steps {
		switch {
		case !st.left(i) || f.ready.has(i):
			continue
		case n <= at:
			own(i)
			continue
		}
		var c recipe.Counted
		var took float64
		var ok bool
		if before.Fill == SecondaryFirst {
			add := toward
			if n == 1 {
				add = from
			}
			c, ok = parted(before, i, holds, add, f.parted[i])
			took = f.parted[i]
		} else {
			c, ok = added(before, i, k, holds, from, toward)
			took = set.paintOf(&s.Regions[i])
		}
		if !ok {
			own(i)
			continue
		}
		f.counted[i], goes = c, true
		if before.Fill != SecondaryFirst {
			holds = pile(holds, c.Volumes())
		}
		holds = less(holds, took)
	}
	if goes {
		f.well[k] = well
	}
}

// added is what goes into the pile of a run for one of its steps; false where the pile is not on its
// way there, or comes nearer from nothing.
func added(before *Plan, i, k int, holds []paint.Part, from, toward *paint.Paint) (recipe.Counted, bool) {
	s, set := before.Sheet, before.Settings
	r := &s.Regions[i]
	all := recipe.Volume(holds)
	if all < leastPile || shareIn(holds, from)+shareIn(holds, toward) < 1-1e-6 {
		return recipe.Counted{}, false
	}
	wanted, is := r.Share, shareIn(holds, toward)
	if toward != s.ways[k].B {
		wanted = 1 - r.Share
	}
	if is > wanted && r.offBy(holds) > rightAnyway {
		return recipe.Counted{}, false
	}
	needed := set.paintOf(r)
	add, sigma := recipe.Ingredient{Paint: toward, Parts: 1}, 1.0
	if c := before.Counted[i]; c.Adds && len(c.Counts) == 1 && c.Counts[0].In == from && wanted < 1/float64(c.Counts[0].Thin+1) {
		add = c.Counts[0].Ingredient // its let-down, as it was planned
		sigma = 1 / float64(add.Thin+1)
	}
	ml := all * (wanted - is) / (sigma - wanted)
	var c recipe.Counted
	if is >= wanted || all+ml < needed*recipe.NearlyAll {
		c = recipe.Mend(holds, r.Recipe, &r.Mixture, set.Scale, needed)
	} else {
		c = recipe.AddTo(holds, add, ml, &r.Mixture, set.Scale)
	}
	return c, c.DE <= before.mayMiss(i) && c.ML >= needed*recipe.NearlyAll
}

// mayMiss is the CIEDE2000 up to which what is added to a pile serves for a region: it is near, or
// not much worse than a pile of its own, or than what was planned.
func (out *Plan) mayMiss(i int) float64 {
	own := out.alone(i)
	return max(mendsTo, own.DE+worseThanNew, out.Counted[i].DE+worseThanNew)
}

// leastPile is how many ml of a pile are worth to go on from.
const leastPile = 0.02

// parted is what goes into the part of a secondary that is taken for another step of its section.
func parted(before *Plan, i int, holds []paint.Part, add *paint.Paint, part float64) (recipe.Counted, bool) {
	r, set := &before.Sheet.Regions[i], before.Settings
	if part <= 0 || recipe.Volume(holds) < 0.9*part {
		return recipe.Counted{}, false
	}
	taken := scaled(holds, min(1, part/recipe.Volume(holds)))
	wanted := 0.0
	parts := r.Recipe.Plain()
	for _, p := range parts {
		if p.Paint == add {
			wanted = p.Parts / recipe.Volume(parts)
		}
	}
	ml := recipe.Volume(taken) * (wanted - shareIn(taken, add)) / (1 - wanted)
	if !(ml > 0) {
		return recipe.Counted{}, false
	}
	c := recipe.AddTo(taken, recipe.Ingredient{Paint: add, Parts: 1}, ml, &r.Mixture, set.Scale)
	return c, c.DE <= before.mayMiss(i) && c.ML >= set.paintOf(r)*recipe.NearlyAll
}

// alone is a region's recipe counted out by itself.
func (out *Plan) alone(i int) recipe.Counted {
	if out.own != nil {
		return out.own[i]
	}
	return out.Counted[i]
}
