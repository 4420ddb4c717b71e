// Package minimum finds where a cost is least.
package minimum

import "math"

// Golden is where, between two bounds, a cost with one lowest place is least, by golden sections; each
// round leaves 0.618 of what lies between them [Kiefer 1953].
func Golden(low, high float64, rounds int, cost func(at float64) float64) float64 {
	for range rounds {
		a, b := high-(high-low)/math.Phi, low+(high-low)/math.Phi
		if cost(a) < cost(b) {
			high = b
		} else {
			low = a
		}
	}
	return (low + high) / 2
}
