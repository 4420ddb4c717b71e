package bench_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// as is a pile as it looks where one of its tubes is so many times as strong.
func as(parts []paint.Part, tube string, strong float64) []paint.Part {
	out := times(parts, 1)
	for k := range out {
		if out[k].Paint.ID == tube {
			out[k].Parts *= strong
		}
	}
	return out
}

// looks is a pile painted as a region is, wet.
func looks(t *testing.T, s *sat, i int, parts []paint.Part) colour.Lab {
	t.Helper()
	m, err := paint.Mix(parts...)
	require.NoError(t, err)
	r := s.plan.Sheet.Regions[i]
	r.Mixture = m
	look := r.Appearance(s.plan.Settings.Medium, true)
	return look.Lab()
}

func off(t *testing.T, s *sat, i int, parts []paint.Part) float64 {
	t.Helper()
	return colour.Difference(looks(t, s, i, parts), looks(t, s, i, s.plan.Sheet.Regions[i].Recipe.Plain()))
}

// stepTo is the step of the rest that paints a region.
func (s *sat) stepTo(i int) bench.Step {
	s.t.Helper()
	for _, step := range s.rest().Steps() {
		if step.Region == i {
			return step
		}
	}
	require.Fail(s.t, "no step paints it", s.id(i))
	return bench.Step{}
}

// A tube that is stronger than it was taken for shows in a test swatch: what is added then brings the
// real pile to what was aimed at, and what was told of amounts stays what is learned from.
func TestATestSwatchSaysWhatToAdd(t *testing.T) {
	for _, in := range []string{"gouache", "acrylic", "oil"} {
		for _, strong := range []float64{0.5, 1.6, 2.5} {
			s := sit(t, triad(t), in, nil)
			mixed := -1
			for mixed < 0 {
				step := s.rest().Steps()[0]
				if step.Paint.Well == 0 {
					s.do(step)
					continue
				}
				mixed = step.Region
				for _, tell := range step.Measures {
					s.tell(tell.Event)
				}
			}
			st := s.stands()
			held := st.Wells[0].Holds
			tube := held[0].Paint.ID
			if held[1].Parts < held[0].Parts {
				tube = held[1].Paint.ID // the lesser
			}
			really := as(held, tube, strong)
			seen := looks(t, s, mixed, really)
			was := off(t, s, mixed, really)
			s.tell(bench.Event{Kind: bench.Tested, Region: s.id(mixed), Looks: &seen})

			st = s.stands()
			assert.True(t, st.Places[mixed].Tested)
			require.Len(t, st.Swatches, 1)
			assert.Equal(t, held, st.Wells[0].Holds, "what was told of amounts stays")
			assert.Less(t, st.Wells[0].Unlike, 0.3, "%s %v", in, strong)
			assert.Contains(t, st.PileSays(s.plan.Sheet, mixed), "looks as")
			step := s.stepTo(mixed)
			require.NotEmpty(t, step.Remedies, "%s %v, %.1f off", in, strong, was)
			first := step.Remedies[0]
			require.NotEqual(t, bench.Anew, first.Kind, "another of the same amounts would look the same")
			kept := times(held, first.Keep)
			s.tell(first.Tells[0].Event)
			st = s.stands()
			kept = append(kept, first.Counted.Volumes()...)
			assert.InDelta(t, holds(kept), holds(st.Wells[0].Holds), 1e-6)
			is := off(t, s, mixed, as(kept, tube, strong))
			assert.Less(t, is, max(1.5, was/2), "%s %v: %.1f off before", in, strong, was)
			assert.Empty(t, s.stepTo(mixed).Remedies, "nothing is left to mend")
		}
	}
}

func TestATestSwatchAsAimedChangesNothing(t *testing.T) {
	s := sit(t, triad(t), "gouache", nil)
	step := s.rest().Steps()[0]
	for step.Paint.Well == 0 {
		s.do(step)
		step = s.rest().Steps()[0]
	}
	for _, tell := range step.Measures {
		s.tell(tell.Event)
	}
	aimed := looks(t, s, step.Region, s.plan.Sheet.Regions[step.Region].Recipe.Plain())
	s.tell(bench.Event{Kind: bench.Tested, Region: s.id(step.Region), Looks: &aimed})
	assert.Empty(t, s.stepTo(step.Region).Remedies)
	// What its paints cannot make is said to be something else.
	st := s.stands()
	grey := colour.Lab{L: 40}
	s.tell(bench.Event{Kind: bench.Tested, Region: s.id(step.Region), Looks: &grey})
	st = s.stands()
	assert.Contains(t, st.PileSays(s.plan.Sheet, step.Region), "Its paints do not make that colour")
	assert.Len(t, st.Swatches, 2)
}

func TestOnlyATestSwatchLooksLikeSomething(t *testing.T) {
	s := sit(t, triad(t), "gouache", nil)
	for says, e := range map[string]bench.Event{
		"only a test swatch": {Kind: bench.Painted, Region: "green", Looks: &colour.Lab{L: 50}},
		"no colour":          {Kind: bench.Tested, Region: "green", Looks: &colour.Lab{L: 500}},
	} {
		e.ID, e.At = "a", morning
		err := e.Check(s.plan.Sheet)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
}

// What was run into is gone over once it is dry, from its well where that reaches.
func TestWhatWasRunIntoIsGoneOverWhenItIsDry(t *testing.T) {
	for _, in := range []string{"gouache", "acrylic", "watercolour", "oil"} {
		s := sit(t, triad(t), in, nil)
		s.next()
		s.next()
		var ran int
		for i, p := range s.stands().Places {
			if p.Coats > 0 {
				ran = i
			}
		}
		s.tell(bench.Event{Kind: bench.Ran, Region: s.id(ran)})
		st := s.stands()
		assert.True(t, st.Places[ran].Ran)
		assert.False(t, st.Done())
		dries := s.plan.Settings.Drying()
		step := s.stepTo(ran)
		assert.GreaterOrEqual(t, step.Paint.Start+1e-6, dries, "%s: not before it is dry", in)
		assert.Len(t, s.rest().Order, len(st.Places)-1, "with all that was not painted yet")
		tell := step.Tells[len(step.Tells)-1].Event
		require.Equal(t, bench.Painted, tell.Kind)
		for len(s.rest().Order) > 0 {
			next := s.rest().Steps()[0]
			for _, tell := range next.Tells {
				s.now += 0.01
				s.tell(tell.Event)
			}
			s.now += next.Paint.End
		}
		st = s.stands()
		assert.Equal(t, 2, st.Places[ran].Coats, in)
		assert.False(t, st.Places[ran].Ran)
	}
	s := sit(t, triad(t), "gouache", nil)
	s.tell(bench.Event{Kind: bench.Ran, Region: "green"})
	assert.False(t, s.stands().Places[s.plan.Sheet.Find("green")].Ran, "nothing can run into bare paper")
}

// A sheet that was painted away from the screen is told of at once; a slip that is told afterwards
// counts for all that was mixed from that pile.
func TestASheetIsToldAtOnceAndItsSlipsAfterwards(t *testing.T) {
	for _, in := range []string{"watercolour", "gouache"} {
		s := sit(t, triad(t), in, func(set *bench.Settings) { set.Fill, set.Gaps = bench.FromWeaker, true })
		s.now = 200
		rest := s.rest()
		for _, tell := range rest.AsPlanned() {
			e := tell.Event
			e.Tap = "all of it"
			s.events = append(s.events, e)
			told := &s.events[len(s.events)-1]
			told.ID, told.At = fmt.Sprintf("%05d", len(s.events)-1), minute(s.now).Add(-tell.Ahead)
			require.NoError(t, told.Check(s.plan.Sheet))
		}
		st := s.stands()
		require.True(t, st.Done(), in)
		assert.Zero(t, bench.PaceOf(s.plan.Sheet, s.plan.Settings, s.events).HandPace, "it says nothing of how fast the painter is")
		for i, p := range st.Places {
			if len(s.plan.Sheet.Regions[i].Recipe.Plain()) > 1 {
				assert.Less(t, off(t, s, i, p.Held), 3.0, "%s %s", in, s.id(i))
			}
		}
		first, next := -1, -1
		for _, step := range rest.Steps() {
			for _, tell := range step.Tells {
				if tell.Kind == bench.Mixed && tell.Adds && next < 0 {
					next = step.Region
				}
			}
		}
		require.GreaterOrEqual(t, next, 0, in)
		for i, r := range s.plan.Sheet.Regions {
			if of := &s.plan.Sheet.Regions[next]; r.Section == of.Section && r.Main && len(st.Places[i].Told) > 1 {
				first = i // the beginning of the run
			}
		}
		require.GreaterOrEqual(t, first, 0)
		really := slices.Clone(st.Places[first].Told)
		really[0].Amount *= 2
		s.tell(bench.Event{Kind: bench.Measured, Region: s.id(first), Used: really})
		since := s.stands()
		assert.Greater(t, holds(since.Places[first].Held), holds(st.Places[first].Held))
		assert.Greater(t, holds(since.Places[next].Held), holds(st.Places[next].Held)+0.001, "what went on from it holds that too")
	}
}
