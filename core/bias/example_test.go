package bias_test

import (
	"fmt"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// find is a paint of the library that is known to be there.
func find(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err)
	}
	return p
}

func ExampleLeanIn() {
	for _, id := range []string{"PB29", "PB15:3", "PR255"} {
		p := find(id)
		lean, _ := bias.LeanIn(p, bias.RoleAmong(p))
		fmt.Printf("%s leans to %s, %s\n", id, lean.Toward, bias.Temperature(p, bias.VioletIsWarm))
	}
	// Output:
	// PB29 leans to violet, warm
	// PB15:3 leans to green, cool
	// PR255 leans to orange, warm
}

func ExampleRuleOfThumb() {
	rule, ok := bias.RuleOfThumb(find("PR122"), find("PB29"), "", "")
	fmt.Println(rule.Word, ok)
	// Output:
	// bright true
}
