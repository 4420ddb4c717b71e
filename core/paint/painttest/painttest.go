// Package painttest gives tests and examples paints of the library by name.
package painttest

import (
	"flag"

	"gyrophane/core/paint"
)

// Paint is a library paint that is known to be there.
func Paint(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err)
	}
	return p
}

// Paints are several of them.
func Paints(ids ...string) (out []*paint.Paint) {
	for _, id := range ids {
		out = append(out, Paint(id))
	}
	return out
}

var inFull = flag.Bool("in-full", false, "draw as often as the figures of docs/science.md ask")

// InFull is how often something is drawn: few times in a usual run, and in full with the flag -in-full of the tests.
func InFull(few, full int) int {
	if *inFull {
		return full
	}
	return few
}
