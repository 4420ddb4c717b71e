package journal

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"gyrophane/core/colour"
)

// A class whose sheets differ has strayed where all of them are off the same way, and not where each is off its own way.
func TestAClassStraysAsAWhole(t *testing.T) {
	r := rand.New(rand.NewPCG(35, 4))
	computed := []colour.Lab{{L: 60, A: 30, B: 40}, {L: 45, A: -30, B: 20}, {L: 30, A: 5, B: -30}}
	strayed, alarms := 0, 0
	const classes = 60
	for range classes {
		var read [][]*colour.Lab
		for range 20 {
			one := make([]*colour.Lab, 3)
			for i, c := range computed[:2] {
				c.L += 3 * r.NormFloat64()
				c.A += 3 * r.NormFloat64()
				c.B += 3 * r.NormFloat64()
				if i == 1 {
					c.B -= 8 // with all of them
				}
				one[i] = &c
			}
			read = append(read, one)
		}
		got := ClassPlaces(computed, read)
		assert.Equal(t, 20, got[0].Read)
		assert.InDelta(t, computed[0].L, got[0].Mean.L, 3)
		assert.Greater(t, got[0].Spread, 1.0)
		if got[0].Strayed {
			alarms++
		}
		if got[1].Strayed {
			strayed++
		}
		assert.Zero(t, got[2], "nothing was read of it")
	}
	assert.Equal(t, classes, strayed)
	assert.Less(t, alarms, classes/5)
}

func TestTwoSheetsAreNoClass(t *testing.T) {
	aimed := colour.Lab{L: 50}
	far := colour.Lab{L: 70, A: 20}
	got := ClassPlaces([]colour.Lab{aimed}, [][]*colour.Lab{{&far}, {&far}, {nil}, {}})
	assert.Equal(t, 2, got[0].Read)
	assert.False(t, got[0].Strayed)
	assert.NotEmpty(t, got[0].Says)
	got = ClassPlaces([]colour.Lab{aimed}, [][]*colour.Lab{{&far}, {&far}, {&far}})
	assert.True(t, got[0].Strayed, "three that are alike")
}
