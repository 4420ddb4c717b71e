package bench

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"gyrophane/core/recipe"
	"gyrophane/core/text"
)

// Tell is an event that a tap tells.
type Tell struct {
	Event               // without an id and a time
	Ahead time.Duration // how long before the tap it happened, as the plan has it
}

// tells is what is told of an action that was done; false for one of which nothing is told.
func (out *Plan) tells(a *Action) (of Tell, ok bool) {
	s := out.Sheet
	kinds := map[ActionKind]EventKind{Mix: Mixed, Wash: Washed, Rinse: Rinsed, Water: WaterChanged, Paint: Painted}
	if of.Kind, ok = kinds[a.Kind]; !ok {
		return of, false
	}
	switch a.Kind {
	case Mix:
		c := &out.Counted[a.Region]
		of.Region, of.Well, of.Used, of.ML = s.Regions[a.Region].ID, a.Well, usedOf(c), c.ML
		of.Adds, of.From, of.FromML = c.Adds && a.From == 0, a.From, a.FromML
	case Rinse:
		of.Well = a.Well
	case Wash:
		of.Brush, of.Thorough = a.Brush, a.Thorough
	case Paint:
		of.Region, of.Brush, of.Well = s.Regions[a.Region].ID, a.Brush, a.Well
	}
	return of, true
}

// Step is what leads to the painting of one region: what is done before it, and that.
type Step struct {
	Region int
	Before []Action
	Paint  Action
	Tells  []Tell // one tap on it, in the order in which it was done
	// Each tells what is told of one of the actions before it by itself; nil for a wait.
	Each []*Tell
	// Bare says that what it lies over is not painted yet; empty where it is.
	Bare string
	// Counted is what is counted out for it as it is painted here, Remedies the ways on where its
	// pile stands mixed and is not what it was meant to be.
	Counted  recipe.Counted
	Remedies []Remedy
	// Measures is what is told before it is said what its pile really took, Anew that another pile
	// was mixed for it in its place.
	Measures, Anew []Tell
}

// Steps are the steps of a plan, one for each region that is left.
func (out *Plan) Steps() (steps []Step) {
	var of Step
	for _, a := range out.Actions {
		switch a.Kind {
		case LayOut:
			continue
		case Paint:
			of.Region, of.Paint, of.Counted, of.Remedies = a.Region, a, out.Counted[a.Region], out.Remedies[a.Region]
			for _, before := range append(slices.Clone(of.Before), a) {
				if tell, ok := out.tells(&before); ok {
					tell.Ahead = time.Duration((a.End - before.End) * float64(time.Minute))
					of.Tells = append(of.Tells, tell)
				}
			}
			if of.Paint.Well > 0 {
				if of.Measures = of.Tells[:len(of.Tells)-1]; out.rest != nil && out.rest.from.ready.has(a.Region) {
					of.Measures = nil
				}
				anew := out.alone(a.Region)
				of.Anew = []Tell{{Event: Event{Kind: Mixed, Region: out.Sheet.Regions[a.Region].ID, Well: a.Well, Used: usedOf(&anew), ML: anew.ML}}}
			}
			steps = append(steps, of)
			of = Step{}
		default:
			of.Before = append(of.Before, a)
			if tell, ok := out.tells(&a); ok {
				of.Each = append(of.Each, &tell)
			} else {
				of.Each = append(of.Each, nil)
			}
		}
	}
	return steps
}

// AsPlanned is what one tap tells that all that is left was painted as it was planned, away from the
// screen, in the order in which it was done.
func (out *Plan) AsPlanned() (tells []Tell) {
	steps := out.Steps()
	for _, step := range steps {
		for _, tell := range step.Tells {
			tell.Ahead += time.Duration((steps[len(steps)-1].Paint.End - step.Paint.End) * float64(time.Minute))
			tells = append(tells, tell)
		}
	}
	return tells
}

// Instead is the step to a region that is left, painted before all that the plan has before it: a
// step of a run whose turn it is not has a pile of its own. It is of a plan from where a sitting
// stands.
func (out *Plan) Instead(i int) Step {
	p := *out.rest
	p.jobs = slices.Clone(p.jobs)
	root, j := p.begin(), &p.jobs[i]
	counted := out.Counted
	if !p.from.ready.has(i) && j.section >= 0 && !(root.done.covers(j.after) && (j.place == 1 || p.from.well[j.section] > 0)) {
		counted = slices.Clone(counted)
		counted[i] = out.alone(i)
		*j = p.alone(*j)
	}
	j.after = regions{}
	move, _ := p.timed(i, 0, root.brush[0], root.t, p.ready(root, i), root.washes, root.piles, root.since)
	one := Plan{Sheet: out.Sheet, Settings: out.Settings, Fill: out.Fill, Counted: counted, Remedies: out.Remedies, own: out.own, parted: out.parted, rest: out.rest}
	one.act(&p, p.after(root, move))
	step := one.Steps()[0]
	step.Bare = out.Sheet.bare(i, root.done)
	return step
}

// bare says that something that a region lies over is not painted, in a sentence; empty where all of it is.
func (s *Sheet) bare(i int, done regions) string {
	var missing []string
	for _, k := range s.Regions[i].Beneath {
		if !done.has(k) {
			missing = append(missing, s.Regions[k].Label)
		}
	}
	if len(missing) == 0 {
		return ""
	}
	return fmt.Sprintf("It lies over %s, not painted yet: paint that first, or this lies on the paper alone.", text.Listed(missing))
}

// alone is a job of a run as a pile of its own.
func (p *problem) alone(j job) job {
	j.section, j.place, j.well, j.mix = -1, 0, true, mixTime*p.hand
	return j
}

// Straightaway is what a tap tells that says a region was painted for which no step is planned.
func (s *Sheet) Straightaway(region int) []Tell {
	return []Tell{{Event: Event{Kind: Painted, Region: s.Regions[region].ID, Brush: 1}}}
}

// roomUsed is the share of the time since the tap before that the events of a tap may be
// laid over.
const roomUsed = 0.9

// Apart lets what a tap told happen one after the other: each as long before the tap as its
// step takes, though not before what other taps are known to have told before it. Times are
// those of the taps; told stands in the order in which it was told, and ahead beside it.
func Apart(known, told []Event, ahead []time.Duration) {
	for from := 0; from < len(told); {
		to := from + 1
		for to < len(told) && told[to].tap() == told[from].tap() {
			to++
		}
		of, by := told[from:to], ahead[from:to]
		room := time.Duration(1<<63 - 1)
		for _, others := range [][]Event{known, told[:from]} {
			for i := range others {
				if e := &others[i]; e.tap() != of[0].tap() && !e.At.After(of[0].At) {
					room = min(room, of[0].At.Sub(e.At))
				}
			}
		}
		scale := 1.0
		if whole := slices.MaxFunc(by, func(a, b time.Duration) int { return cmp.Compare(a, b) }); whole > 0 {
			scale = min(1, roomUsed*float64(room)/float64(whole))
		}
		for n := len(of) - 1; n >= 0; n-- {
			at := of[n].At.Add(-time.Duration(scale * float64(by[n])))
			if n+1 < len(of) && !at.Before(of[n+1].At) { // in order, also where no time was left
				at = of[n+1].At.Add(-time.Microsecond)
			}
			of[n].At = at.Truncate(time.Microsecond)
		}
		from = to
	}
}
