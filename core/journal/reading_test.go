package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

func TestRibbonsRunAsFarAsTheyAreSaidTo(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 3))
	for range 200 {
		at := colour.Lab{L: 15 + 70*r.Float64(), A: 120*r.Float64() - 60, B: 120*r.Float64() - 60}
		for _, off := range Rounds {
			seen := map[string]bool{}
			for _, ribbon := range Ribbons(at, off) {
				for _, end := range []string{ribbon.From, ribbon.To} {
					assert.NotEmpty(t, end)
					assert.False(t, seen[end], "%v: %s twice", at, end)
					seen[end] = true
				}
				if at.Chroma() > 20 {
					assert.Len(t, ribbon.Stops, 2*halfStops+1, "%v %s to %s", at, ribbon.From, ribbon.To)
				}
				assert.IsIncreasing(t, offs(ribbon))
				assert.Contains(t, offs(ribbon), 0.0)
				for _, stop := range ribbon.Stops {
					assert.InDelta(t, math.Abs(stop.Off), colour.Difference(at, stop.Lab), 0.01, "%v %s to %s", at, ribbon.From, ribbon.To)
				}
			}
			assert.Len(t, seen, 6)
		}
	}
	ends := func(lab colour.Lab) (out []string) {
		for _, ribbon := range Ribbons(lab, 3) {
			out = append(out, ribbon.From, ribbon.To)
		}
		return out
	}
	assert.Equal(t, []string{"darker", "lighter", "greener", "redder", "bluer", "yellower"}, ends(colour.Lab{L: 50, A: 1, B: 1}))
	assert.Equal(t, []string{"darker", "lighter", "quieter", "brighter", "bluer", "yellower"}, ends(colour.Lab{L: 50, A: 60, B: 30}))
	assert.Equal(t, []string{"redder", "greener"}, ends(colour.Lab{L: 85, A: -2, B: 85})[4:])
	assert.Equal(t, []string{"greener", "redder"}, ends(colour.Lab{L: 35, A: 10, B: -50})[4:])
}

func TestARibbonEndsWhereThereIsNoSuchColour(t *testing.T) {
	light := Ribbons(colour.Lab{L: 98.5, A: 2, B: 7}, 6)
	assert.Len(t, light[0].Stops, halfStops+1+1, "no lighter than white")
	assert.Greater(t, len(light[1].Stops), halfStops)
	for _, ribbon := range light {
		for _, stop := range ribbon.Stops {
			assert.LessOrEqual(t, stop.Lab.L, 100.0)
		}
	}
	quiet := Ribbons(colour.Lab{L: 50, A: 4, B: 5}, 10)[1]
	assert.Equal(t, "quieter", quiet.From)
	assert.Less(t, len(quiet.Stops), 2*halfStops+1, "no quieter than grey")
}

func offs(r Ribbon) (out []float64) {
	for _, stop := range r.Stops {
		out = append(out, stop.Off)
	}
	return out
}

func TestReadingsThatCannotBeAreRefused(t *testing.T) {
	for says, r := range map[string]Reading{"minutes after": {Minutes: -1}, "a spread runs": {Spread: 1000}} {
		err := r.Check()
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
	assert.NoError(t, (&Reading{Region: "green"}).Check())
}
