package path

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

func pile(t testing.TB, parts map[string]float64) (out []paint.Part) {
	t.Helper()
	for _, id := range []string{"PY74", "PY65", "PR254", "PB15:3", "PB29", "PW6"} {
		if parts[id] > 0 {
			p, err := paint.Find(id)
			require.NoError(t, err)
			out = append(out, paint.Part{Paint: p, Parts: parts[id]})
		}
	}
	return out
}

func TestAPileIsCorrectedWithTheLeastPaint(t *testing.T) {
	have, want := pile(t, map[string]float64{"PY74": 5, "PB15:3": 2}), pile(t, map[string]float64{"PY74": 8, "PB15:3": 1})
	c, err := Correct(have, want)
	require.NoError(t, err)
	require.True(t, c.Reached)
	require.Len(t, c.Add, 1)
	assert.Equal(t, "PY74", c.Add[0].Paint.ID, "too blue: more yellow")
	assert.LessOrEqual(t, c.Add[0].Parts, 11.0, "16 to 2 is the same colour")
	assert.InDelta(t, (7+c.Add[0].Parts)/7, c.Grows, 1e-9)
	assert.Equal(t, 7.0, c.StartOver)
	assert.InDelta(t, 7+c.Add[0].Parts-9, c.Waste, 1e-9)
	assert.Equal(t, c.Waste <= 7, c.Better())
	wanted, err := paint.Mix(want...)
	require.NoError(t, err)
	assert.InDelta(t, c.Miss, c.Pile.BrushedOutColour().Distance(wanted.BrushedOutColour()), 1e-9)
	// One part less is not enough.
	less, err := paint.Mix(append(have[:2:2], paint.Part{Paint: c.Add[0].Paint, Parts: c.Add[0].Parts - 1})...)
	require.NoError(t, err)
	assert.Greater(t, less.BrushedOutColour().Distance(wanted.BrushedOutColour()), recipe.NearEnough)
}

func TestCorrectionsByHand(t *testing.T) {
	for name, c := range map[string]struct {
		have, want map[string]float64
		reached    bool
		nothing    bool
		better     bool
	}{
		"right already":                        {map[string]float64{"PY74": 8, "PB15:3": 1}, map[string]float64{"PY74": 8, "PB15:3": 1}, true, true, true},
		"the same in half the parts":           {map[string]float64{"PY74": 16, "PB15:3": 2}, map[string]float64{"PY74": 8, "PB15:3": 1}, true, true, true},
		"two paints are missing":               {map[string]float64{"PW6": 4}, map[string]float64{"PW6": 4, "PR254": 2, "PB29": 2}, true, false, true},
		"far too much of a strong paint":       {map[string]float64{"PY74": 1, "PB15:3": 6}, map[string]float64{"PY74": 20, "PB15:3": 1}, true, false, false},
		"a third paint cannot be taken out":    {map[string]float64{"PY74": 4, "PR254": 4}, map[string]float64{"PY74": 8, "PB15:3": 1}, false, false, false},
		"what is missing is added to the pile": {map[string]float64{"PY74": 4, "PB29": 1}, map[string]float64{"PY74": 4, "PB29": 1, "PW6": 3}, true, false, true},
	} {
		t.Run(name, func(t *testing.T) {
			got, err := Correct(pile(t, c.have), pile(t, c.want))
			require.NoError(t, err)
			assert.Equal(t, c.reached, got.Reached, "misses by %v", got.Miss)
			assert.Equal(t, c.nothing, len(got.Add) == 0)
			assert.Equal(t, c.better, got.Better(), "wastes %v, or %v", got.Waste, got.StartOver)
			for _, a := range got.Add {
				assert.Equal(t, math.Trunc(a.Parts), a.Parts, "whole parts")
			}
		})
	}
	_, err := Correct(nil, pile(t, map[string]float64{"PY74": 1}))
	assert.Error(t, err)
	_, err = Correct(pile(t, map[string]float64{"PY74": 1}), nil)
	assert.Error(t, err)
	_, err = CorrectTo(pile(t, map[string]float64{"PY74": 1}), Target{Look: (*paint.Mixture).BrushedOutColour}, nil, 1)
	assert.ErrorContains(t, err, "at least one paint")
}

// Where all of a pile would grow too large, a part of it is kept.
func TestAPartOfAPileIsKept(t *testing.T) {
	have, want := pile(t, map[string]float64{"PY65": 10, "PR254": 3}), pile(t, map[string]float64{"PY65": 13, "PR254": 1})
	c, err := Correct(have, want)
	require.NoError(t, err)
	assert.InDelta(t, 4.33, c.Keep, 0.01)
	require.Len(t, c.KeepAdd, 1)
	assert.Equal(t, "PY65", c.KeepAdd[0].Paint.ID)
	assert.InDelta(t, 9.67, c.KeepAdd[0].Parts, 0.01)
	advice, says := c.Advise("an orange")
	assert.Equal(t, KeepPart, advice)
	assert.Contains(t, says, "Keep 4.3 parts of it and add 9.7 of the arylide yellow deep: 8.7 are set by.")
	// What is kept and what is added come to what is wanted, and to no more.
	kept := map[string]float64{}
	for _, p := range have {
		kept[p.Paint.ID] += p.Parts * c.Keep / recipe.Volume(have)
	}
	for _, i := range c.KeepAdd {
		kept[i.Paint.ID] += i.Parts
	}
	for _, p := range want {
		assert.InDelta(t, p.Parts, kept[p.Paint.ID], 1e-9)
	}
	c, err = Correct(pile(t, map[string]float64{"PY74": 4, "PR254": 4}), pile(t, map[string]float64{"PY74": 8, "PB15:3": 1}))
	require.NoError(t, err)
	assert.Zero(t, c.Keep, "the red cannot be had out of any part")
}

func TestATaintLeavesItsMarkOnEveryMixture(t *testing.T) {
	c := couples(t, [2]string{"PY74", "PB15:3"}, [2]string{"PR254", "PR254"})
	p, red := New(c[0].A, c[0].B), c[1].A
	none, some, more := p.Taint(red, 0), p.Taint(red, 0.02), p.Taint(red, 0.10)
	for i, s := range p.Samples {
		assert.InDelta(t, s.Under.Retention, none.Samples[i].Under.Retention, 1e-9)
		assert.Equal(t, s.Share, some.Samples[i].Share)
		mixed, err := paint.Mix(paint.Part{Paint: red, Parts: 0.02}, paint.Part{Paint: c[0].A, Parts: math.Max(1e-12, 0.98*(1-s.Share))}, paint.Part{Paint: c[0].B, Parts: math.Max(1e-12, 0.98*s.Share)})
		require.NoError(t, err)
		assert.Less(t, mixed.BrushedOutColour().Distance(some.Samples[i].Brushed), 1e-6)
	}
	middle := len(p.Samples) / 2
	assert.Less(t, more.Samples[middle].Under.Retention, some.Samples[middle].Under.Retention)
	assert.Less(t, some.Samples[middle].Under.Retention, p.Samples[middle].Under.Retention, "a trace of the third primary dulls")
}

func BenchmarkCorrect(b *testing.B) {
	have, want := pile(b, map[string]float64{"PY74": 5, "PB15:3": 2, "PW6": 4}), pile(b, map[string]float64{"PY74": 8, "PB15:3": 1, "PR254": 1})
	b.ReportAllocs()
	for b.Loop() {
		Correct(have, want)
	}
}
