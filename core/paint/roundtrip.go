package paint

import (
	"cmp"
	"slices"

	"gyrophane/core/colour"
)

// RoundTrip says how well two swatches stand for a paint: every library paint
// is worked out anew from the CIELAB of its masstone and of a tint of 1 part in
// 9 of white alone, and mixtures of the new paints are held against those of
// the old. Whites, which a tint in white cannot tell, stay as they are.
type RoundTrip struct {
	Paints []PaintTrip
	Pairs  int
	// Opaque and Film are CIEDE2000 over all pairs, each mixed 1:3, 1:1 and 3:1:
	// laid out opaque, and brushed out thin over white.
	Opaque, Film Spread
}

// PaintTrip is one paint's own share: how far its refit misses what was given.
type PaintTrip struct {
	Paint *Paint
	Fit   Fit
}

// Spread sums up many differences.
type Spread struct {
	Median, P95, Worst float64
	WorstPair          [2]string // ids
}

// TripTint is the share of white in the tints of a round trip.
const TripTint = 0.9

// NewRoundTrip makes the round trip; about two seconds of work.
func NewRoundTrip() (RoundTrip, error) {
	var trip RoundTrip
	var refits []Mixture
	for _, p := range Library() {
		m := p.alone
		if p.Family != "white" {
			mass, tint := m.Masstone(), p.alone.LetDown(1-TripTint)
			wet := Medium{Wet: Gloss}
			refit, fit, err := FromSwatches(Swatches{
				Mass:       Reading{Lab: mass.Lab(), Source: Eye, Wet: true, Medium: wet},
				Tint:       Reading{Lab: tint.Masstone().Lab(), Source: Eye, Wet: true, Medium: wet},
				WhiteShare: TripTint,
			})
			if err != nil {
				return RoundTrip{}, err
			}
			m = refit
			trip.Paints = append(trip.Paints, PaintTrip{p, fit})
		}
		refits = append(refits, m)
	}
	var opaque, film []pairDifference
	for i, a := range Library() {
		for j, b := range Library()[:i] {
			trip.Pairs++
			for _, t := range []float64{0.25, 0.5, 0.75} {
				was, is := Between(&a.alone, &b.alone, t), Between(&refits[i], &refits[j], t)
				pair := [2]string{a.ID, b.ID}
				opaque = append(opaque, pairDifference{colour.Difference(was.Masstone().Lab(), is.Masstone().Lab()), pair})
				film = append(film, pairDifference{colour.Difference(was.BrushedOut().Lab(), is.BrushedOut().Lab()), pair})
			}
		}
	}
	trip.Opaque, trip.Film = spread(opaque), spread(film)
	return trip, nil
}

type pairDifference struct {
	difference float64
	pair       [2]string
}

func spread(d []pairDifference) Spread {
	slices.SortFunc(d, func(a, b pairDifference) int { return cmp.Compare(a.difference, b.difference) })
	last := d[len(d)-1]
	return Spread{d[len(d)/2].difference, d[len(d)*95/100].difference, last.difference, last.pair}
}
