package paint_test

import (
	"fmt"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

func ExampleMix() {
	green, err := paint.Mix(paint.Part{Paint: painttest.Paint("PY184"), Parts: 12}, paint.Part{Paint: painttest.Paint("PB15:3"), Parts: 1})
	if err != nil {
		panic(err)
	}
	u := green.Undertone()
	fmt.Printf("%s, %s\n", u.HueWord(), u.Verdict)
	// Output:
	// green, clean
}

func ExamplePaint_Undertone() {
	violet := painttest.Paint("PV23")
	mass := violet.Alone()
	s := mass.Masstone()
	fmt.Printf("in the mass L* %.0f; let down it is a %s\n", s.Lab().L, violet.Undertone().HueWord())
	// Output:
	// in the mass L* 4; let down it is a violet
}

func ExampleCodes() {
	fmt.Println(paint.Codes("Phthalo blue (PB 15:3), with PW6"))
	// Output:
	// [PB15:3 PW6]
}
