package path_test

import (
	"fmt"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func ExamplePath_Steps() {
	way := path.New(painttest.Paint("PY65"), painttest.Paint("PR254"))
	for _, s := range way.Steps(3, path.ByHue) {
		fmt.Println(s.Under.HueWord(), s.Under.Verdict)
	}
	// Output:
	// orange clean
	// red-orange clean
	// red-orange clean
}

func ExamplePath_Mud() {
	way := path.New(painttest.Paint("PR254"), painttest.Paint("PG7"))
	fmt.Println("muddy stretches:", len(way.Mud()))
	// Output:
	// muddy stretches: 1
}

func ExampleCorrect() {
	yellow, blue := painttest.Paint("PY74"), painttest.Paint("PB15:3")
	have := []paint.Part{{Paint: yellow, Parts: 5}, {Paint: blue, Parts: 2}}
	want := []paint.Part{{Paint: yellow, Parts: 8}, {Paint: blue, Parts: 1}}
	c, err := path.Correct(have, want)
	fmt.Printf("%d to add, %v\n", len(c.Add), err)
	for _, p := range c.Add {
		fmt.Println(p.Parts, p.Paint.ID)
	}
	// Output:
	// 1 to add, <nil>
	// 9 PY74
}
