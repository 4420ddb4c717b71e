package photo

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/colour"
)

// anyRendering is one that phones might have, by the usual spread of each figure.
func anyRendering(r *rand.Rand) Rendering {
	of, spread := UsualRendering()
	for k := range of {
		of[k] += spread[k] * (2*r.Float64() - 1)
	}
	return RenderingOf(of)
}

// What a rendering does is taken out again, in whatever light bare paper lies.
func TestWhatARenderingDoesIsTakenOut(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 1))
	for range 400 {
		bent := anyRendering(r)
		light := 0.4 + 0.4*r.Float64()
		paper := bent.On(Light{light, light * (0.95 + 0.1*r.Float64()), light * (0.95 + 0.1*r.Float64())})
		lab := colour.Lab{L: 25 + 60*r.Float64(), A: 30 * (2*r.Float64() - 1), B: 30 * (2*r.Float64() - 1)}
		seen := paper.Shown(lab)
		back, held := paper.Taken(seen)
		if !held {
			continue // at the end of what the phone can tell
		}
		assert.Less(t, colour.Difference(lab, back), 0.05, "%+v in %v", bent, light)
	}
}

func TestARenderingLeavesBarePaperAndSaysWhatItDoes(t *testing.T) {
	white := colour.Flat(0.9)
	for says, r := range map[string]Rendering{
		"":                         {},
		"adds contrast and colour": {Contrast: 0.5, Saturation: 0.2},
		"adds contrast, makes the middle tones darker": {Contrast: 0.5, Middle: -0.2},
		"takes colour away":                            {Saturation: -0.2},
		"makes the darks bluer":                        {CastB: -3},
	} {
		assert.Equal(t, says, r.Says())
		paper := r.On(Light{0.7, 0.7, 0.7})
		got := white.Lab()
		assert.Less(t, colour.Difference(got, paper.Shown(got)), 0.3, says)
	}
	plain := Rendering{}
	paper := plain.On(Light{0.5, 0.6, 0.7})
	lab := colour.Lab{L: 40, A: 20, B: -30}
	assert.Less(t, colour.Difference(lab, paper.Shown(lab)), 1e-4)
	// More contrast makes darks darker, and a channel at an end is not held.
	strong := Rendering{Contrast: 0.6}
	on := strong.On(Light{0.6, 0.6, 0.6})
	assert.Less(t, on.Shown(lab).L, lab.L)
	_, held := on.Taken(colour.Lab{L: 0.1})
	assert.False(t, held)
	assert.False(t, math.IsNaN(on.Shown(colour.Lab{L: 20, A: 90, B: 90}).L))
}

func TestAGreyThatWasNotMeasuredIsNone(t *testing.T) {
	assert.Zero(t, StepOf(0))
	assert.InDelta(t, 0.1842, StepOf(50), 0.001)
	assert.NoError(t, Light{0.7, 0.7, 0.7}.Check())
	assert.ErrorContains(t, Light{0.7, math.NaN(), 0.7}.Check(), "each channel")
	assert.ErrorContains(t, Greys{Ink: &Grey{Lab: colour.Lab{L: 900}, Light: Light{1, 1, 1}}}.Check(), "no grey does")
}
