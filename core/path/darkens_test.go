package path_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/path"
)

func TestARunSaysHowItDarkens(t *testing.T) {
	for _, c := range []struct {
		run  []float64
		says string
	}{
		{[]float64{80, 65, 50, 35, 20}, "It darkens evenly, from value 8.0 to 2.0."},
		{[]float64{20, 35, 50, 65, 80}, "It darkens evenly, from value 8.0 to 2.0."},
		{[]float64{80, 30, 25, 20}, "It darkens unevenly: of value 8.0 to 2.0 one step takes 8.0 to 3.0."},
		{[]float64{80, 40, 20, 15, 30}, "It darkens past the darker of the two: from value 8.0 to 1.5, and comes back to 3.0."},
		{[]float64{80, 50, 60, 40}, "It does not darken all the way: on the way from value 8.0 to 4.0 it lightens once."},
		{[]float64{50, 49, 51}, "The two are about as dark as each other (value 5.1 and 5.0), and so is what lies between."},
		{[]float64{50, 30, 51}, "The two are about as dark as each other (value 5.1 and 5.0); between them it darkens to 3.0."},
		{[]float64{50, 80, 51}, "The two are about as dark as each other (value 5.1 and 5.0); between them it lightens to 8.0."},
		{[]float64{80.4, 70, 70.5, 55, 40.6}, "It darkens evenly, from value 8.0 to 4.1."},
	} {
		assert.Equal(t, c.says, path.Darkens(c.run), "%v", c.run)
		back := make([]float64, 0, len(c.run))
		for i := range c.run {
			back = append(back, c.run[len(c.run)-1-i])
		}
		assert.Equal(t, c.says, path.Darkens(back), "either way round")
	}
}
