package minimum

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestGoldenFindsTheLowestPlace(t *testing.T) {
	for _, c := range []struct{ low, high, is float64 }{
		{-1, 4, 1.5}, {1.5, 4, 1.5}, {-3, 1.5, 1.5}, // inside, and at either bound
		{2, 4, 2}, {-3, 0, 0}, // outside: at the bound that is nearest
	} {
		const rounds = 30
		at := Golden(c.low, c.high, rounds, func(x float64) float64 { return math.Abs(x - 1.5) })
		assert.InDelta(t, c.is, at, (c.high-c.low)*math.Pow(math.Phi, -rounds))
	}
}
