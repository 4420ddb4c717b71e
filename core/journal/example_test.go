package journal_test

import (
	"fmt"

	"gyrophane/core/journal"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func ExamplePrediction_Against() {
	said, err := journal.ParsePrediction("orange", "clean")
	if err != nil {
		panic(err)
	}
	way := path.New(painttest.Paint("PY65"), painttest.Paint("PR254"))
	score := said.Against(way.Middle(path.ByHue).Under)
	fmt.Println(score.HueRight, score.VerdictRight, score.Points, "of", journal.MaxSlotPoints)
	// Output:
	// true true 4 of 4
}
