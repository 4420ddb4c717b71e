package bench_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
)

// A plan that was worked out comes back the same, whatever the medium and the ways.
func TestAWorkedPlanComesBackTheSame(t *testing.T) {
	for n, in := range []string{"gouache", "watercolour", "acrylic", "oil"}[:few(4)] {
		for _, brushes := range []int{1 + n%2} {
			set := bench.Usual(medium(t, in))
			set.Brushes, set.First = brushes, []int{1}
			s := bench.Wheel(split(t), bench.Extras{}, set)
			plan, err := bench.New(&s, set)
			require.NoError(t, err)
			again, err := bench.Again(&s, set, plan.Worked())
			require.NoError(t, err)
			assert.Equal(t, plan, again, "%s with %d brushes", in, brushes)
			spoilt := plan.Worked()
			spoilt.Moves = slices.Clone(spoilt.Moves)
			spoilt.Moves[0] = spoilt.Moves[1]
			_, err = bench.Again(&s, set, spoilt)
			assert.ErrorContains(t, err, "of another sheet")
			spoilt.Moves = spoilt.Moves[2:]
			_, err = bench.Again(&s, set, spoilt)
			assert.Error(t, err)
		}
	}
}

func TestTheKeyTellsWhatIsPlannedOtherwise(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	sheet := func(blue string, e bench.Extras) *bench.Sheet {
		s := bench.Wheel(build(t, "triad", []string{"PY65"}, []string{"PR254"}, []string{blue}), e, set)
		return &s
	}
	keys := map[string]string{}
	add := func(what, key string) {
		for other, k := range keys {
			assert.NotEqual(t, k, key, "%s and %s", what, other)
		}
		keys[what] = key
	}
	add("as usual", bench.Key(sheet("PB29", bench.Extras{}), set))
	assert.Equal(t, keys["as usual"], bench.Key(sheet("PB29", bench.Extras{}), set), "worked out anew it is the same")
	add("another blue", bench.Key(sheet("PB60", bench.Extras{}), set))
	add("a ring more", bench.Key(sheet("PB29", bench.Extras{Tints: 1}), set))
	for what, change := range map[string]func(*bench.Settings){
		"two brushes": func(s *bench.Settings) { s.Brushes = 2 }, "a dryer": func(s *bench.Settings) { s.Dryer = true },
		"a section first": func(s *bench.Settings) { s.First = []int{2} }, "one before another": func(s *bench.Settings) { s.Before = [][2]string{{"red", "blue"}} },
		"another pace": func(s *bench.Settings) { s.Pace = 1.25 },
	} {
		other := set
		change(&other)
		add(what, bench.Key(sheet("PB29", bench.Extras{}), other))
	}

	s := sheet("PB29", bench.Extras{})
	plan, err := bench.Sketch(s, set)
	require.NoError(t, err)
	mark := plan.Mark()
	assert.Len(t, mark, 6)
	plan.Order[0], plan.Order[1] = plan.Order[1], plan.Order[0]
	assert.NotEqual(t, mark, plan.Mark())
}
