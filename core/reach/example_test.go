package reach_test

import (
	"context"
	"fmt"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

func ExampleTable_Best() {
	box := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	table, err := reach.NewTable(context.Background(), box, 2, nil)
	if err != nil {
		panic(err)
	}
	best, err := table.Best(context.Background(), reach.Criteria{Kind: wheel.RYB})
	if err != nil {
		panic(err)
	}
	for _, p := range best[0].System.Paints() {
		fmt.Print(p.ID, " ")
	}
	fmt.Printf("reach %.0f %% of the hues cleanly\n", 100*best[0].Reach.Clean())
	// Output:
	// PY184 PR122 PB15:3 reach 76 % of the hues cleanly
}

func ExampleNearest() {
	ochre := painttest.Paints("PY43")[0].Alone()
	look := ochre.AsPainted(paint.Media()[0], false)
	match, err := reach.Nearest(look.Lab(), painttest.Paints("PY65", "PR254", "PB29", "PW6"), paint.Media()[0])
	fmt.Printf("%d paints, CIEDE2000 %.1f, %v\n", len(match.Parts), match.DE, err)
	// Output:
	// 4 paints, CIEDE2000 0.2, <nil>
}
