package journal

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

func TestChipsLieRoundAColourAsFarAsTheyAreSaidTo(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 3))
	for range 200 {
		at := colour.Lab{L: 15 + 70*r.Float64(), A: 120*r.Float64() - 60, B: 120*r.Float64() - 60}
		for _, off := range Steps {
			chips := Chips(at, off)
			assert.Len(t, chips, 6)
			seen := map[string]bool{}
			for _, c := range chips {
				assert.InDelta(t, off, colour.Difference(at, c.Lab), 0.01, "%v %s", at, c.Says)
				assert.NotEmpty(t, c.Says)
				assert.False(t, seen[c.Says], "%v: %s twice", at, c.Says)
				seen[c.Says] = true
			}
			assert.Greater(t, chips[0].Lab.L, at.L)
			assert.Less(t, chips[3].Lab.Chroma(), at.Chroma()+off)
		}
	}
	says := func(lab colour.Lab) (out []string) {
		for _, c := range Chips(lab, 3) {
			out = append(out, c.Says)
		}
		return out
	}
	assert.Equal(t, []string{"lighter", "darker", "redder", "greener", "yellower", "bluer"}, says(colour.Lab{L: 50, A: 1, B: 1}))
	assert.Equal(t, []string{"lighter", "darker", "brighter", "duller", "yellower", "more violet"}, says(colour.Lab{L: 50, A: 60, B: 30}))
}

func TestReadingsThatCannotBeAreRefused(t *testing.T) {
	for says, r := range map[string]Reading{"minutes after": {Minutes: -1}, "a spread runs": {Spread: 1000}} {
		err := r.Check()
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
	assert.NoError(t, (&Reading{Region: "green"}).Check())
}
