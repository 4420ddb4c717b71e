package path

import (
	"fmt"
	"math"
	"slices"
)

// A run's ends are as dark as each other below sameValue of L*; a rise or a fall past an
// end below waver of it is not seen; and a run is even in which no step falls more than
// unevenFall times the mean.
const (
	sameValue  = 5
	waver      = 1
	unevenFall = 2
)

// Darkens says whether a run darkens evenly from its lighter end to its darker one, in
// values (L*/10). Given is L* of each place, at least two, the ends of the run among them.
func Darkens(run []float64) string {
	if run[0] < run[len(run)-1] {
		run = slices.Clone(run)
		slices.Reverse(run)
	}
	light, dark := run[0], run[len(run)-1]
	low, high := slices.Min(run), slices.Max(run)
	if light-dark < sameValue {
		switch ends := fmt.Sprintf("The two are about as dark as each other (value %s and %s)", value(light), value(dark)); {
		case dark-low > sameValue:
			return fmt.Sprintf("%s; between them it darkens to %s.", ends, value(low))
		case high-light > sameValue:
			return fmt.Sprintf("%s; between them it lightens to %s.", ends, value(high))
		default:
			return ends + ", and so is what lies between."
		}
	}
	if dark-low > waver {
		return fmt.Sprintf("It darkens past the darker of the two: from value %s to %s, and comes back to %s.", value(light), value(low), value(dark))
	}
	most, at := 0.0, 0
	wavers := high-light > waver
	for i, l := range run[1:] {
		if fall := run[i] - l; fall > most {
			most, at = fall, i
		} else if fall < -waver {
			wavers = true
		}
	}
	switch {
	case wavers:
		return fmt.Sprintf("It does not darken all the way: on the way from value %s to %s it lightens once.", value(light), value(dark))
	case most > unevenFall*(light-dark)/float64(len(run)-1):
		return fmt.Sprintf("It darkens unevenly: of value %s to %s one step takes %s to %s.", value(light), value(dark), value(run[at]), value(run[at+1]))
	default:
		return fmt.Sprintf("It darkens evenly, from value %s to %s.", value(light), value(dark))
	}
}

// value is L*/10 to one place.
func value(l float64) string { return fmt.Sprintf("%.1f", math.Abs(l)/10) }
