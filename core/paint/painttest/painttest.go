// Package painttest gives tests and examples paints of the library by name.
package painttest

import (
	"os"

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

// InFull is how often something is drawn: few times in a usual run, and as often as in full where GYROPHANE_IN_FULL is set, as the
// figures of docs/science.md are found.
func InFull(few, full int) int {
	if os.Getenv("GYROPHANE_IN_FULL") != "" {
		return full
	}
	return few
}
