package colour_test

import (
	"fmt"

	"gyrophane/core/colour"
)

func ExampleWheelHue() {
	for _, oklch := range []float64{29, 110, 142, 264} {
		w := colour.WheelHue(oklch)
		fmt.Printf("OKLCh %.0f stands at %.0f degrees of the painter's circle: %s\n", oklch, w, colour.HueWord(w))
	}
	// Output:
	// OKLCh 29 stands at 18 degrees of the painter's circle: red-orange
	// OKLCh 110 stands at 132 degrees of the painter's circle: yellow
	// OKLCh 142 stands at 172 degrees of the painter's circle: green
	// OKLCh 264 stands at 256 degrees of the painter's circle: blue-violet
}

func ExampleDifference() {
	sky, sea := colour.Lab{L: 60, A: -5, B: -30}, colour.Lab{L: 58, A: -9, B: -28}
	fmt.Printf("CIEDE2000 %.1f\n", colour.Difference(sky, sea))
	// Output:
	// CIEDE2000 3.3
}

func ExampleParseHex() {
	xyz, err := colour.ParseHex("#4f3d78")
	fmt.Println(xyz.OKLab().Words(), err)
	// Output:
	// dark quiet violet <nil>
}
