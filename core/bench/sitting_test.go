package bench_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/wheel"
)

var morning = time.Date(2026, 3, 1, 9, 0, 0, 0, time.UTC)

// minute is so many minutes into a sitting.
func minute(m float64) time.Time { return morning.Add(time.Duration(m * float64(time.Minute))) }

// sat is a sitting that is being held.
type sat struct {
	t      *testing.T
	plan   *bench.Plan
	events []bench.Event
	now    float64
}

func sit(t *testing.T, w *wheel.Wheel, in string, more func(*bench.Settings)) *sat {
	t.Helper()
	set := bench.Usual(medium(t, in))
	if more != nil {
		more(&set)
	}
	sheet := bench.Wheel(w, bench.Extras{}, set)
	plan, err := bench.Sketch(&sheet, set)
	require.NoError(t, err)
	s := &sat{t: t, plan: plan}
	s.tell(bench.Event{Kind: bench.Begun})
	s.tell(bench.Event{Kind: bench.LaidOut})
	return s
}

// tell adds an event of now; its id is the next number.
func (s *sat) tell(e bench.Event) string {
	e.ID, e.At = fmt.Sprintf("%05d", len(s.events)), minute(s.now)
	require.NoError(s.t, e.Check(s.plan.Sheet))
	s.events = append(s.events, e)
	return e.ID
}

func (s *sat) stands() bench.Sitting { return bench.Fold(s.plan.Sheet, s.plan.Settings, s.events) }

func (s *sat) rest() *bench.Plan {
	s.t.Helper()
	st := s.stands()
	plan, err := st.From(minute(s.now), s.plan)
	require.NoError(s.t, err)
	return plan
}

func (s *sat) id(i int) string { return s.plan.Sheet.Regions[i].ID }

// next does what the plan says until a region has been painted, and that one is wet only
// beside what is dry.
func (s *sat) next() {
	s.t.Helper()
	s.do(s.rest().Steps()[0])
}

// do tells one tap on a step, each of its events when it happened.
func (s *sat) do(step bench.Step) {
	s.t.Helper()
	end := s.now + step.Paint.End
	st := s.stands()
	require.Zero(s.t, st.Places[step.Region].Coats, "%s once", s.id(step.Region))
	if s.plan.Settings.Drying() > 0 && !s.plan.Settings.Gaps {
		for _, k := range s.plan.Sheet.Regions[step.Region].Touches {
			assert.False(s.t, st.Places[k].DryAt.After(minute(s.now+step.Paint.Start+1e-3)), "%s beside wet %s", s.id(step.Region), s.id(k))
		}
	}
	for _, tell := range step.Tells {
		s.now = end - tell.Ahead.Minutes()
		s.tell(tell.Event)
	}
}

func TestASittingThatKeepsToItsPlanTakesItsTime(t *testing.T) {
	for _, in := range []string{"gouache", "watercolour", "acrylic", "oil"} {
		for name, w := range map[string]*wheel.Wheel{"triad": triad(t), "split": split(t)} {
			s := sit(t, w, in, nil)
			washes := 0
			for range s.plan.Sheet.Regions {
				before := s.rest()
				last := before.Actions[len(before.Actions)-1]
				assert.LessOrEqual(t, s.now+last.End, float64(s.plan.Minutes)+1.01, "%s in %s", name, in)
				s.next()
			}
			st := s.stands()
			assert.True(t, st.Done(), in)
			washes = st.Washes
			assert.LessOrEqual(t, s.now, float64(s.plan.Minutes)+1.01, "%s in %s", name, in)
			assert.LessOrEqual(t, washes, s.plan.Washes, "%s in %s", name, in)
			assert.Empty(t, s.rest().Order)
		}
	}
}

// Whatever is done, the rest is planned anew and can be painted.
func TestARestIsPlannedFromAnyState(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 1))
	for n := range 12 {
		w := triad(t)
		if n%2 == 0 {
			w = split(t)
		}
		in := []string{"gouache", "watercolour", "acrylic", "tempera", "oil"}[n%5]
		s := sit(t, w, in, func(set *bench.Settings) {
			set.Brushes, set.Covered = 1+n%2, n%3 == 0
			set.Wells = 3 + n%4
		})
		for range 25 {
			i := r.IntN(len(s.plan.Sheet.Regions))
			s.now += 5 * r.Float64()
			switch r.IntN(11) {
			case 0:
				s.tell(bench.Event{Kind: bench.Painted, Region: s.id(i), Brush: 1 + r.IntN(2)})
			case 1:
				s.tell(bench.Event{Kind: bench.Skipped, Region: s.id(i)})
			case 2:
				s.tell(bench.Event{Kind: bench.Undone, Undoes: s.events[r.IntN(len(s.events))].ID})
			case 3:
				s.tell(bench.Event{Kind: bench.StillWet, Region: s.id(i)})
			case 4:
				s.tell(bench.Event{Kind: bench.Paused})
				s.now += 600 * r.Float64()
				s.tell(bench.Event{Kind: bench.Resumed})
			case 5:
				s.tell(bench.Event{Kind: bench.Mixed, Region: s.id(i), Well: 1 + r.IntN(s.plan.Settings.Wells)})
			case 6:
				s.tell(bench.Event{Kind: bench.Rinsed, Well: 1 + r.IntN(s.plan.Settings.Wells)})
			default:
				if st := s.stands(); !st.Done() {
					s.next()
				}
			}
			st, rest := s.stands(), s.rest()
			for k, at := range st.Places {
				assert.Equal(t, at.Coats == 0 && !at.Skipped, slices.Contains(rest.Order, k), "%d: %s", n, s.id(k))
			}
			assert.Len(t, slices.Compact(slices.Sorted(slices.Values(rest.Order))), len(rest.Order))
		}
		for tries := 0; ; tries++ {
			st := s.stands()
			if st.Done() {
				break
			}
			require.Less(t, tries, 200)
			s.next()
		}
	}
}

// A sitting is the same in whatever order its events come, and however often.
func TestEventsCountByWhenTheyHappened(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 2))
	for range 12 {
		s := sit(t, triad(t), "gouache", nil)
		for range 12 {
			if st := s.stands(); !st.Done() {
				s.next()
			}
			if r.IntN(4) == 0 {
				s.tell(bench.Event{Kind: bench.Undone, Undoes: s.events[2+r.IntN(len(s.events)-2)].ID})
			}
			if r.IntN(4) == 0 {
				s.tell(bench.Event{Kind: bench.StillWet, Region: s.id(r.IntN(12))})
			}
		}
		whole := s.stands()
		mixed := append(slices.Clone(s.events), s.events[:len(s.events)/2]...)
		r.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
		assert.Equal(t, whole, bench.Fold(s.plan.Sheet, s.plan.Settings, mixed))
	}
}

// One tap that told several is taken back whole, and the one before it next.
func TestATapIsTakenBackWhole(t *testing.T) {
	s := sit(t, triad(t), "gouache", nil)
	tap := func(tap string, events ...bench.Event) {
		for _, e := range events {
			e.Tap = tap
			s.now += 0.1
			s.tell(e)
		}
	}
	tap("one", bench.Event{Kind: bench.Mixed, Region: "green", Well: 2}, bench.Event{Kind: bench.Painted, Region: "green"})
	tap("two", bench.Event{Kind: bench.Washed, Brush: 1}, bench.Event{Kind: bench.Mixed, Region: "violet", Well: 3}, bench.Event{Kind: bench.Painted, Region: "violet"})
	st := s.stands()
	require.Len(t, st.Back, 3)
	for n, want := range [][2]string{{"two", "painted: violet"}, {"one", "painted: green"}, {"00001", "laid out"}} {
		assert.Equal(t, want, [2]string{st.Back[n].Tap, st.Back[n].Says})
	}
	assert.Len(t, st.Back[0].Places, 1, "violet is otherwise")
	assert.Len(t, st.Back[1].Places, 2, "and then green too")
	assert.True(t, st.Back[1].LaidOut)
	assert.False(t, st.Back[2].LaidOut)
	assert.Equal(t, 1, st.Washes)

	tap("three", bench.Event{Kind: bench.Undone, Undoes: "two"})
	st = s.stands()
	violet := s.plan.Sheet.Find("violet")
	assert.Zero(t, st.Places[violet].Coats)
	assert.Zero(t, st.Washes)
	assert.Equal(t, -1, st.Wells[2].Region)
	assert.Equal(t, "one", st.Back[0].Tap)
	tap("four", bench.Event{Kind: bench.Undone, Undoes: "three"})
	st = s.stands()
	assert.Equal(t, 1, st.Places[violet].Coats, "an undo is undone by its tap")
	assert.Equal(t, "two", st.Back[0].Tap)
}

// What a tap tells happened before it, in order, and after what was told before.
func TestWhatATapTellsHappenedOneAfterTheOther(t *testing.T) {
	of := func(tap string, at float64, n int) (out []bench.Event) {
		for k := range n {
			out = append(out, bench.Event{ID: fmt.Sprint(tap, k), Tap: tap, At: minute(at)})
		}
		return out
	}
	known := of("known", 10, 1)
	for name, c := range map[string]struct {
		at    float64
		ahead []float64
		want  []float64
	}{
		"with room for all of it":  {20, []float64{3, 2, 0}, []float64{17, 18, 20}},
		"with less room":           {12, []float64{3, 2, 0}, []float64{10.2, 10.8, 12}},
		"before what was known of": {9, []float64{3, 2, 0}, []float64{6, 7, 9}},
	} {
		told, ahead := of("tap", c.at, 3), make([]time.Duration, 3)
		for n, m := range c.ahead {
			ahead[n] = time.Duration(m * float64(time.Minute))
		}
		bench.Apart(known, told, ahead)
		for n, want := range c.want {
			assert.WithinDuration(t, minute(want), told[n].At, time.Millisecond, "%s: %d", name, n)
		}
	}
	// Two taps at once with no room between them: still in order, each tap by itself.
	told := append(of("a", 10, 2), of("b", 10, 3)...)
	bench.Apart(known, told, []time.Duration{time.Minute, 0, time.Minute, time.Minute, 0})
	for n := range told {
		assert.False(t, told[n].At.After(minute(10)))
		if n > 0 && told[n].Tap == told[n-1].Tap {
			assert.True(t, told[n-1].At.Before(told[n].At))
		}
	}
}

func TestTakingBack(t *testing.T) {
	s := sit(t, triad(t), "gouache", nil)
	s.now = 1
	mixed := s.tell(bench.Event{Kind: bench.Mixed, Region: "green", Well: 2})
	s.now = 3
	painted := s.tell(bench.Event{Kind: bench.Painted, Region: "green"})
	green := s.plan.Sheet.Find("green")
	assert.Equal(t, painted, s.stands().Back[0].Tap)

	s.now = 4
	back := s.tell(bench.Event{Kind: bench.Undone, Undoes: mixed})
	st := s.stands()
	assert.Equal(t, 1, st.Places[green].Coats)
	assert.Equal(t, []string{"The mixture of green was taken back; what was painted with it stays."}, st.Says)
	assert.Equal(t, -1, st.Wells[1].Region)

	s.tell(bench.Event{Kind: bench.Undone, Undoes: back})
	st = s.stands()
	assert.Empty(t, st.Says)
	assert.Equal(t, green, st.Wells[1].Region)

	s.tell(bench.Event{Kind: bench.Undone, Undoes: painted})
	st = s.stands()
	assert.Zero(t, st.Places[green].Coats)
	assert.Equal(t, mixed, st.Back[0].Tap)
	rest := s.rest()
	for _, a := range rest.Actions {
		assert.False(t, a.Kind == bench.Mix && a.Region == green, "its pile stands mixed in well 2")
		if a.Kind == bench.Paint && a.Region == green {
			assert.Equal(t, 2, a.Well)
		}
	}

	// Two that take each other back are not believed.
	s.events = append(s.events, bench.Event{ID: "x", Kind: bench.Undone, At: minute(9), Undoes: "y"}, bench.Event{ID: "y", Kind: bench.Undone, At: minute(9), Undoes: "x"})
	assert.Zero(t, s.stands().Places[green].Coats)
}

func TestStillWetTeachesThePace(t *testing.T) {
	s := sit(t, triad(t), "gouache", nil)
	dries := s.plan.Settings.Drying()
	s.now = 1
	s.tell(bench.Event{Kind: bench.Painted, Region: "yellow"})
	s.now = 2
	s.tell(bench.Event{Kind: bench.Painted, Region: "red"})
	red, yellow := s.plan.Sheet.Find("red"), s.plan.Sheet.Find("yellow")
	before := s.stands()
	assert.Equal(t, minute(1+dries), before.Places[yellow].DryAt)
	s.now = 1 + dries
	s.tell(bench.Event{Kind: bench.StillWet, Region: "yellow"})
	st := s.stands()
	assert.Equal(t, minute(1+1.25*dries), st.Places[yellow].DryAt)
	assert.InDelta(t, 1.25, st.Pace, 1e-9)
	assert.Equal(t, minute(2+1.25*dries), st.Places[red].DryAt, "what is wet beside it dries as slowly")
	s.tell(bench.Event{Kind: bench.Painted, Region: "blue"})
	assert.Equal(t, minute(1+2.25*dries), s.stands().Places[s.plan.Sheet.Find("blue")].DryAt, "and what is painted later")
	assert.InDelta(t, 1.25, s.rest().Settings.Pace, 1e-9)
}

func TestResumingEmptiesWhatIsPastItsTime(t *testing.T) {
	s := sit(t, triad(t), "acrylic", nil)
	s.tell(bench.Event{Kind: bench.Mixed, Region: "green", Well: 1})
	s.tell(bench.Event{Kind: bench.Paused})
	assert.False(t, s.stands().PausedAt.IsZero())
	s.now = 600
	s.tell(bench.Event{Kind: bench.Resumed})
	st := s.stands()
	assert.True(t, st.PausedAt.IsZero())
	assert.Equal(t, -1, st.Wells[0].Region)
	s = sit(t, triad(t), "gouache", nil) // is rewetted
	s.tell(bench.Event{Kind: bench.Mixed, Region: "green", Well: 1})
	s.tell(bench.Event{Kind: bench.Paused})
	s.now = 600
	s.tell(bench.Event{Kind: bench.Resumed})
	assert.Equal(t, s.plan.Sheet.Find("green"), s.stands().Wells[0].Region)
}

func TestEventsThatCannotBeAreRefused(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	sheet := bench.Wheel(triad(t), bench.Extras{}, set)
	for says, e := range map[string]bench.Event{
		"has an id":        {Kind: bench.Begun},
		"unknown event":    {ID: "a", Kind: "sneezed"},
		"no place":         {ID: "a", Kind: bench.Painted, Region: "teal"},
		"no well":          {ID: "a", Kind: bench.Rinsed, Well: 99},
		"names what":       {ID: "a", Kind: bench.Undone},
		"1 to 24 paints":   {ID: "a", Kind: bench.Measured, Region: "green"},
		"an amount runs":   {ID: "a", Kind: bench.Measured, Region: "green", Used: []bench.Used{{Paint: "PB29", Amount: -1}}},
		"nothing else doe": {ID: "a", Kind: bench.Waited, Undoes: "b"},
	} {
		e.At = morning
		err := e.Check(&sheet)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
	e := bench.Event{ID: "a", Kind: bench.Begun}
	assert.ErrorContains(t, e.Check(&sheet), "no time")
}
