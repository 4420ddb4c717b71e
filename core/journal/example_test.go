package journal_test

import (
	"fmt"

	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// find is a paint of the library that is known to be there.
func find(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err)
	}
	return p
}

func ExamplePrediction_Against() {
	said, err := journal.Parse("orange", "clean")
	if err != nil {
		panic(err)
	}
	way := path.New(find("PY65"), find("PR254"))
	score := said.Against(way.Middle(path.ByHue).Under)
	fmt.Println(score.HueRight, score.VerdictRight, score.Points, "of", journal.MostPoints)
	// Output:
	// true true 4 of 4
}
