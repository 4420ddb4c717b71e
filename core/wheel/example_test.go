package wheel_test

import (
	"fmt"

	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func ExampleBuild() {
	triad, err := wheel.Triad(painttest.Paint("PY184"), painttest.Paint("PR254"), painttest.Paint("PB29"))
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
	_, err := wheel.Triad(painttest.Paint("PW6"), painttest.Paint("PR255"), painttest.Paint("PB29"))
	fmt.Println(err)
	// Output:
	// PW6 (titanium white) cannot be the yellow: it has no hue of its own; choose a coloured paint
}
