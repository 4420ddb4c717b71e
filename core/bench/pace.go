package bench

import (
	"math"
	"slices"
)

// Pace is how fast a painter was in a sitting, over the usual times.
type Pace struct {
	HandPace float64 // of mixing and painting; 0 where too little says it
	Drying   float64 // of the paint, as "still wet" taught it; 0 where it never was
}

// What of a sitting says how fast a painter is: so many places, each painted in no more
// than so many minutes after what was done before it, and within what a hand can be.
const (
	fewestPaced     = 5
	longestPaced    = 30
	quickest, slack = 0.3, 4.0
)

// PaceOf is how fast a painter was: the median over the places that could be painted as
// soon as what was done before them was done, for none beside them was wet. The settings
// are those that were planned with.
func PaceOf(s *Sheet, set Settings, events []Event) (out Pace) {
	st := Fold(s, set, events)
	if st.Pace != 1 {
		out.Drying = st.Pace * set.Pace
	}
	events = inOrder(events)
	counts := counting(events)
	wetUntil := make([]float64, len(s.Regions)) // minutes from the first event
	since := func(e *Event) float64 { return e.At.Sub(events[0].At).Minutes() }
	away := tapsOfSeveral(events) // told afterwards: nobody knows how long it took
	var ratios []float64
	var before *Event
	for i := range events {
		e := &events[i]
		if !counts[e.ID] || e.Kind == Noted || e.Kind == Photographed || e.Kind == Read || e.Kind == Measured {
			continue
		}
		if away[e.tap()] {
			before = nil
			continue
		}
		if k := s.Find(e.Region); e.Kind == Painted && k >= 0 {
			usual := set.hand(&s.Regions[k], before != nil && before.Kind == Mixed && before.Region == e.Region)
			waited := before == nil || before.Kind == Paused || before.Kind == Begun || slices.ContainsFunc(s.Regions[k].waitsFor(), func(t int) bool { return wetUntil[t] > since(before) })
			if !waited {
				if took := e.At.Sub(before.At).Minutes(); took > 0 && took <= longestPaced {
					ratios = append(ratios, took/usual)
				}
			}
			wetUntil[k] = since(e) + s.Drying(set)
		}
		before = e
	}
	if len(ratios) >= fewestPaced {
		slices.Sort(ratios)
		n := len(ratios)
		out.HandPace = math.Min(slack, math.Max(quickest, (ratios[(n-1)/2]+ratios[n/2])/2))
	}
	return out
}

// tapsOfSeveral are the taps that tell of more than one painting.
func tapsOfSeveral(events []Event) map[string]bool {
	painted, out := map[string]bool{}, map[string]bool{}
	for i := range events {
		if e := &events[i]; e.Kind == Painted {
			out[e.tap()] = painted[e.tap()]
			painted[e.tap()] = true
		}
	}
	return out
}

// hand is how many minutes it usually takes to mix and paint a region; to paint it alone
// where it is mixed.
func (s Settings) hand(r *Region, mixed bool) float64 {
	minutes := paintTime + paintPerCM2*r.Area()/100
	if !mixed && len(r.Recipe.Plain()) > 1 {
		minutes += mixTime
	}
	return minutes
}

// asUsual is how near to the usual a pace is that is none of the painter's own.
const asUsual = 0.05

// OwnPace is the median of what sittings say of a painter; 0 where none does, or where it
// is as usual.
func OwnPace(all []Pace) Pace {
	median := func(of func(Pace) float64) float64 {
		var known []float64
		for _, p := range all {
			if v := of(p); v > 0 {
				known = append(known, v)
			}
		}
		if len(known) == 0 {
			return 0
		}
		slices.Sort(known)
		n := len(known)
		if m := (known[(n-1)/2] + known[n/2]) / 2; math.Abs(m-1) >= asUsual {
			return math.Round(100*m) / 100
		}
		return 0
	}
	return Pace{median(func(p Pace) float64 { return p.HandPace }), median(func(p Pace) float64 { return p.Drying })}
}
