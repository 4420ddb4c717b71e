package bench_test

import (
	"fmt"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func ExampleNew() {
	triad, err := wheel.Triad(painttest.Paint("PY65"), painttest.Paint("PR254"), painttest.Paint("PB29"))
	if err != nil {
		panic(err)
	}
	gouache, err := paint.ParseMedium("gouache")
	if err != nil {
		panic(err)
	}
	set := bench.Usual(gouache)
	sheet := bench.Wheel(wheel.Build(triad, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.New(&sheet, set)
	if err != nil {
		panic(err)
	}
	fmt.Printf("%d minutes and %d washes, %s\n", plan.Minutes, plan.Washes, plan.Says())
	for _, a := range plan.Amounts() {
		fmt.Printf("%s %.2f ml\n", a.Paint.ID, a.ML)
	}
	// Output:
	// 66 minutes and 2 washes, shortest possible
	// PY65 1.76 ml
	// PB29 1.12 ml
	// PR254 0.85 ml
}
