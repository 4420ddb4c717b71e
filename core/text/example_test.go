package text_test

import (
	"fmt"

	"gyrophane/core/text"
)

func ExampleLine() {
	fmt.Println(text.Line("the name of the wheel", "  Rock pool ", 80))
	_, err := text.Line("the name of the wheel", "Rock\u202epool", 80)
	fmt.Println(err)
	// Output:
	// Rock pool <nil>
	// the name of the wheel holds a character that cannot be shown (U+202E, the 5th): take it out
}
