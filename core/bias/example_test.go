package bias_test

import (
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/paint/painttest"
)

func ExampleLeanIn() {
	for _, id := range []string{"PB29", "PB15:3", "PR255"} {
		p := painttest.Paint(id)
		lean, _ := bias.LeanIn(p, bias.RoleAmong(p))
		fmt.Printf("%s leans to %s, %s\n", id, lean.Toward, bias.Temperature(p, bias.VioletIsWarm))
	}
	// Output:
	// PB29 leans to violet, warm
	// PB15:3 leans to green, cool
	// PR255 leans to orange, warm
}

func ExampleRuleOfThumb() {
	rule, ok := bias.RuleOfThumb(painttest.Paint("PR122"), painttest.Paint("PB29"), "", "")
	fmt.Println(rule.Rating, ok)
	// Output:
	// bright true
}
