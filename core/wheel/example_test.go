package wheel_test

import (
	"fmt"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// find is a paint of the library that is known to be there.
func find(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err)
	}
	return p
}

func ExampleBuild() {
	triad, err := wheel.Triad(find("PY184"), find("PR254"), find("PB29"))
	if err != nil {
		panic(err)
	}
	w := wheel.Build(triad, wheel.Options{})
	for _, slot := range []int{0, 2, 4, 6, 8, 10} {
		s := w.Slots[slot]
		fmt.Println(s.Name, s.Under.Verdict)
	}
	// Output:
	// yellow clean
	// orange clean
	// red clean
	// violet softened
	// blue clean
	// green softened
}

func ExampleTriad() {
	_, err := wheel.Triad(find("PW6"), find("PR255"), find("PB29"))
	fmt.Println(err)
	// Output:
	// PW6 (titanium white) cannot be the yellow: it has no hue of its own; choose a coloured paint
}
