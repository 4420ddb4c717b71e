package bench

import (
	"cmp"
	"slices"
	"time"
)

// Tell is an event that a tap tells.
type Tell struct {
	Event               // without an id and a time
	Ahead time.Duration // how long before the tap it happened, as the plan has it
}

// tells is what is told of an action that was done; false for one of which nothing is told.
func (a *Action) tells(s *Sheet) (out Tell, ok bool) {
	kinds := map[ActionKind]EventKind{Mix: Mixed, Wash: Washed, Rinse: Rinsed, Water: WaterChanged, Paint: Painted}
	if out.Kind, ok = kinds[a.Kind]; !ok {
		return out, false
	}
	switch a.Kind {
	case Mix:
		out.Region, out.Well = s.Regions[a.Region].ID, a.Well
	case Rinse:
		out.Well = a.Well
	case Wash:
		out.Brush, out.Thorough = a.Brush, a.Thorough
	case Paint:
		out.Region, out.Brush = s.Regions[a.Region].ID, a.Brush
	}
	return out, true
}

// Step is what leads to the painting of one region: what is done before it, and that.
type Step struct {
	Region int
	Before []Action
	Paint  Action
	Tells  []Tell // one tap on it, in the order in which it was done
	// Each tells what is told of one of the actions before it by itself; nil for a wait.
	Each []*Tell
}

// Steps are the steps of a plan, one for each region that is left.
func (out *Plan) Steps() (steps []Step) {
	var of Step
	for _, a := range out.Actions {
		switch a.Kind {
		case LayOut:
			continue
		case Paint:
			of.Region, of.Paint = a.Region, a
			for _, before := range append(slices.Clone(of.Before), a) {
				if tell, ok := before.tells(out.Sheet); ok {
					tell.Ahead = time.Duration((a.End - before.End) * float64(time.Minute))
					of.Tells = append(of.Tells, tell)
				}
			}
			steps = append(steps, of)
			of = Step{}
		default:
			of.Before = append(of.Before, a)
			if tell, ok := a.tells(out.Sheet); ok {
				of.Each = append(of.Each, &tell)
			} else {
				of.Each = append(of.Each, nil)
			}
		}
	}
	return steps
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
