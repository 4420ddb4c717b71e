package bench

import (
	"fmt"
	"math"
	"slices"
	"strings"
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
	all := sum(parts)
	if all <= ml {
		return nil
	}
	return scaled(parts, 1-ml/all)
}

// asPlanned is so much of a region's mixture as its recipe says.
func (r *Region) asPlanned(ml float64) []paint.Part {
	parts := r.Recipe.Plain()
	return scaled(parts, ml/sum(parts))
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
	var had []paint.Part
	since := e.At
	asTold := len(e.Used) > 0 || e.ML > 0
	switch {
	case e.From >= 1 && e.From <= len(st.Wells):
		from := &st.Wells[e.From-1]
		taken := min(e.FromML, sum(from.Holds))
		if taken > 0 {
			had, since = scaled(from.Holds, taken/sum(from.Holds)), from.Since
		}
		if e.From != e.Well {
			from.Holds = less(from.Holds, taken)
		}
	case e.Adds, !asTold && w.Region >= 0 && s.goesOn(w.Region, i, set.Fill):
		had = w.Holds
		if w.Region >= 0 {
			since = w.Since // a pile is as old as its beginning
		}
	}
	used, off := e.Used, false
	if place.well == 0 && len(place.Used) > 0 {
		used, off = place.Used, true // it was measured before it was mixed
	}
	holds := pile(had, st.volumes(used, set.Scale))
	if len(used) == 0 || set.Scale.Measure == recipe.ByLooks {
		// By looks, or of before amounts were told: what it was meant to be.
		holds = r.asPlanned(max(e.ML, sum(had), set.paintOf(r)))
	}
	*w = Well{Region: i, Since: since, Used: true, Holds: holds, Told: used, Off: off, had: had}
	place.well = e.Well
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

// measured is what a region's pile really took the last time: what its well holds, and what it was
// painted with, follow from that.
func (st *Sitting) measured(s *Sheet, set Settings, e *Event, i int) {
	place, r := &st.Places[i], &s.Regions[i]
	place.Used = e.Used
	if set.Scale.Measure == recipe.ByLooks {
		return
	}
	if place.well == 0 {
		if place.Coats > 0 { // painted, and nothing is known of its mixing
			if of := pile(st.volumes(e.Used, set.Scale)); len(of) == len(r.Recipe.Plain()) {
				place.Held = of
			}
		}
		return
	}
	w := &st.Wells[place.well-1]
	if w.Region != i {
		return // the well holds something else by now
	}
	holds := pile(w.had, st.volumes(e.Used, set.Scale))
	w.Told, w.Off = e.Used, true
	if place.Coats > 0 && place.Held != nil {
		place.Held = holds
		holds = less(holds, place.drawn)
	}
	w.Holds = holds
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
	place.Held, place.drawn = w.Holds, set.paintOf(r)
	if place.Coats > 1 {
		place.drawn /= float64(set.Coats)
	}
	w.Holds = less(w.Holds, place.drawn)
}

// RemedyKind is a way on from a pile that is not what it was meant to be.
type RemedyKind string

// The ways.
const (
	MendIt   RemedyKind = "mend"  // the least is added to it
	KeepPart RemedyKind = "part"  // a part of it is kept and mended, the rest set by
	AsItIs   RemedyKind = "as is" // it is painted with as it is
	Anew     RemedyKind = "anew"
)

// RemedyKinds lists them.
var RemedyKinds = []RemedyKind{MendIt, KeepPart, AsItIs, Anew}

// Remedy is one way on from a pile that is not what it was meant to be.
type Remedy struct {
	Kind    RemedyKind
	Counted recipe.Counted // what is counted out; nothing for as it is
	Keep    float64        // share of the pile that is kept, 0 to 1
	SetBy   float64        // ml that are set by
	ML      float64        // of the pile then
	DE      float64        // CIEDE2000 of it to what is aimed at, brushed out
	Takes   float64        // ml out of the tubes
	Tells   []Tell         // one tap on it that does not paint; nothing for as it is
}

const (
	// rightAnyway is the CIEDE2000 up to which a pile passes for what it was meant to be.
	rightAnyway = 1
	// mendsTo is how near a remedy brings a pile at the least, or as near as a new one would be
	// and by so much.
	mendsTo, worseThanNew = 1.5, 0.5
	// keepsPart is the share of a pile above which all of it is kept, and of what a new one takes
	// up to which it is worth to part it.
	keepsPart, worthParting = 0.8, 0.8
)

// remedies are the ways on from a region's pile, the one that is advised first; none where the pile
// passes for what it was meant to be, or nothing brings it nearer.
func (st *Sitting) remedies(before *Plan, well, i int) []Remedy {
	w, r, set := &st.Wells[well-1], &before.Sheet.Regions[i], before.Settings
	off := r.offBy(w.Holds)
	if !w.Off || off <= rightAnyway || set.Scale.Measure == recipe.ByLooks {
		return nil
	}
	needed := set.paintOf(r)
	anew := before.alone(i)
	if c := before.Counted[i]; before.Fill != OwnPiles && r.Step > 0 && !c.Adds {
		anew, needed = c, c.ML
	}
	newOne := Remedy{Kind: Anew, Counted: anew, SetBy: sum(w.Holds), ML: anew.ML, DE: anew.DE, Takes: sum(anew.FromTubes())}
	mended := func(kind RemedyKind, keep float64) (Remedy, bool) {
		held := scaled(w.Holds, keep)
		c := recipe.Mend(held, r.Recipe, &r.Mixture, set.Scale, needed)
		out := Remedy{Kind: kind, Counted: c, Keep: keep, SetBy: (1 - keep) * sum(w.Holds), ML: c.ML, DE: c.DE, Takes: sum(c.FromTubes())}
		return out, len(c.Counts) > 0 && c.DE <= max(mendsTo, anew.DE+worseThanNew) && c.DE < off-worseThanNew
	}
	var out []Remedy
	mend, mends := mended(MendIt, 1)
	if mends && mend.Takes <= newOne.Takes {
		out = append(out, mend)
	}
	whole := needed // what it comes to where nothing is too much in it
	wanted := r.Recipe.Plain()
	for _, p := range wanted {
		whole = max(whole, shareIn(w.Holds, p.Paint)*sum(w.Holds)*sum(wanted)/p.Parts)
	}
	if keep := partOf(needed / whole); keep < keepsPart {
		if part, ok := mended(KeepPart, keep); ok && part.Takes <= worthParting*newOne.Takes {
			out = append(out, part)
		}
	}
	out = append(out, newOne)
	if mends && mend.Takes > newOne.Takes {
		out = append(out, mend)
	}
	out = append(out, Remedy{Kind: AsItIs, Keep: 1, ML: sum(w.Holds), DE: off})
	for n := range out {
		out[n].Tells = out[n].tells(r, well, sum(w.Holds))
	}
	return out
}

// parts are the shares of a pile that an eye can keep, in words.
var parts = []struct {
	share float64
	words string
}{{0.2, "a fifth"}, {0.25, "a quarter"}, {1. / 3, "a third"}, {0.4, "two fifths"}, {0.5, "half"}, {0.6, "three fifths"}, {2. / 3, "two thirds"}, {0.75, "three quarters"}}

// partOf is the least share that an eye can keep which is so much at the least; else all of it.
func partOf(share float64) float64 {
	for _, of := range parts {
		if of.share >= share-0.02 {
			return of.share
		}
	}
	return 1
}

// Says is a remedy in a sentence.
func (of *Remedy) Says() string {
	switch of.Kind {
	case MendIt:
		return fmt.Sprintf("Add this to it: it grows to %.2f ml and is %.1f off then.", of.ML, of.DE)
	case KeepPart:
		words := ""
		for _, p := range parts {
			if p.share == of.Keep {
				words = p.words
			}
		}
		return fmt.Sprintf("Keep %s of it, set the rest by, and add this to what is kept: it is %.1f off then.", words, of.DE)
	case Anew:
		return fmt.Sprintf("Set it by and mix another: %.2f ml are left over.", of.SetBy)
	}
	return fmt.Sprintf("It is %.1f off; what comes after it in its run is worked out from it.", of.DE)
}

// tells is what is told of a remedy when it was mixed.
func (of *Remedy) tells(r *Region, well int, held float64) []Tell {
	e := Event{Kind: Mixed, Region: r.ID, Well: well, Used: usedOf(&of.Counted), ML: of.ML}
	switch of.Kind {
	case AsItIs:
		return nil
	case MendIt:
		e.Adds = true
	case KeepPart:
		e.From, e.FromML = well, of.Keep*held
	}
	return []Tell{{Event: e}}
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

// left says that a region is still to be painted.
func (st *Sitting) left(i int) bool { return st.Places[i].Coats == 0 && !st.Places[i].Skipped }

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
		f.ready = f.ready.with(w.Region)
		if all := st.remedies(before, n+1, w.Region); len(all) > 0 {
			f.remedies[w.Region] = all
			f.counted[w.Region] = all[0].Counted
		} else if told := st.portions(w.Told, set.Scale); len(told) > 0 {
			f.counted[w.Region] = asMixed(told, set.Scale, w, &before.Sheet.Regions[w.Region])
		}
	}
	if before.Fill != OwnPiles {
		for k := range before.Sheet.ways {
			st.goOn(&f, now, before, set, k, withoutRuns)
		}
	}
	return f
}

// asMixed is what was counted out into a well.
func asMixed(told []recipe.Portion, scale recipe.Scale, w *Well, r *Region) recipe.Counted {
	c := recipe.Counted{Scale: scale, Decides: -1, Adds: len(w.had) > 0, DE: r.offBy(w.Holds)}
	c.Counts, c.ML, c.Needed = told, sum(w.Holds), sum(w.Holds)
	c.Mixture, _ = paint.Mix(w.Holds...) // it holds something
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
		if well == 0 || sum(w.Holds) > sum(st.Wells[well-1].Holds) {
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
	holds, at := st.Wells[well-1].Holds, slices.Index(steps, st.Wells[well-1].Region)
	if i := steps[at]; st.left(i) {
		if all := f.remedies[i]; len(all) > 0 {
			held := scaled(holds, all[0].Keep)
			holds = pile(held, all[0].Counted.Volumes())
		}
		holds = less(holds, set.paintOf(&s.Regions[i]))
	}
	goes := false
	for n, i := range steps {
		switch {
		case n == at || !st.left(i) || f.ready.has(i):
			continue
		case n < at:
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
	all := sum(holds)
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
	if is >= wanted || all+ml < needed*nearlyAll {
		c = recipe.Mend(holds, r.Recipe, &r.Mixture, set.Scale, needed)
	} else {
		c = recipe.AddTo(holds, add, ml, &r.Mixture, set.Scale)
	}
	return c, c.DE <= before.mayMiss(i) && c.ML >= needed*nearlyAll
}

// mayMiss is the CIEDE2000 up to which what is added to a pile serves for a region: it is near, or
// not much worse than a pile of its own, or than what was planned.
func (out *Plan) mayMiss(i int) float64 {
	own := out.alone(i)
	return max(mendsTo, own.DE+worseThanNew, out.Counted[i].DE+worseThanNew)
}

// leastPile is how many ml of a pile are worth to go on from.
const leastPile = 0.02

// nearlyAll is the share of what is needed that passes for it: what is lost is in that.
const nearlyAll = 0.95

// parted is what goes into the part of a secondary that is taken for another step of its section.
func parted(before *Plan, i int, holds []paint.Part, add *paint.Paint, part float64) (recipe.Counted, bool) {
	r, set := &before.Sheet.Regions[i], before.Settings
	if part <= 0 || sum(holds) < 0.9*part {
		return recipe.Counted{}, false
	}
	taken := scaled(holds, min(1, part/sum(holds)))
	wanted := 0.0
	parts := r.Recipe.Plain()
	for _, p := range parts {
		if p.Paint == add {
			wanted = p.Parts / sum(parts)
		}
	}
	ml := sum(taken) * (wanted - shareIn(taken, add)) / (1 - wanted)
	if !(ml > 0) {
		return recipe.Counted{}, false
	}
	c := recipe.AddTo(taken, recipe.Ingredient{Paint: add, Parts: 1}, ml, &r.Mixture, set.Scale)
	return c, c.DE <= before.mayMiss(i) && c.ML >= set.paintOf(r)*nearlyAll
}

// alone is a region's recipe counted out by itself.
func (out *Plan) alone(i int) recipe.Counted {
	if out.own != nil {
		return out.own[i]
	}
	return out.Counted[i]
}

// PileSays is what the pile that stands mixed for a region is beside what it was meant to be: "The
// pile is 8 PY65 : 1 PB29; aimed at is 18 PY65 : 1 PB29." It is empty where none stands.
func (st *Sitting) PileSays(s *Sheet, i int) string {
	well := 1 + slices.IndexFunc(st.Wells, func(w Well) bool { return w.Region == i && len(w.Holds) > 0 })
	if well == 0 {
		return ""
	}
	r := &s.Regions[i]
	in := func(of []paint.Part) string {
		least := math.Inf(1)
		for _, p := range of {
			least = min(least, p.Parts)
		}
		var words []string
		for _, p := range recipe.Of(of).InOrder() {
			words = append(words, fmt.Sprintf("%.3g %s", p.Parts/least, p.Paint.Code()))
		}
		return strings.Join(words, " : ")
	}
	return fmt.Sprintf("The pile is %s; aimed at is %s.", in(st.Wells[well-1].Holds), in(r.Recipe.Plain()))
}
