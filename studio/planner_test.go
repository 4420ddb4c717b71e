package studio

import (
	"context"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/jobs"
	"gyrophane/store"
)

// sheetOfMM is a small sheet that differs from all others of another diameter.
func sheetOfMM(t *testing.T, mm float64) (*bench.Sheet, bench.Settings) {
	t.Helper()
	system, err := wheel.Triad(painttest.Paint("PY65"), painttest.Paint("PR254"), painttest.Paint("PB29"))
	require.NoError(t, err)
	set, err := bench.Settings{Medium: paint.Media()[1], Diameter: mm}.Complete()
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	return &sheet, set
}

// gatedQueue is a queue of one worker that works only as often as it is let.
func gatedQueue(t *testing.T) (q *planQueue, let func(), solved *[]float64) {
	t.Helper()
	gate, order := make(chan struct{}), []float64{}
	var mu sync.Mutex
	q = newPlanQueue(1)
	q.solve = func(s *bench.Sheet, set bench.Settings) (*bench.Plan, error) {
		<-gate
		mu.Lock()
		order = append(order, set.Diameter)
		mu.Unlock()
		return bench.Sketch(s, set)
	}
	return q, func() { gate <- struct{}{} }, &order
}

func TestTheSameSheetIsWorkedOutOnce(t *testing.T) {
	q := newPlanQueue(2)
	var solved atomic.Int32
	q.solve = func(s *bench.Sheet, set bench.Settings) (*bench.Plan, error) {
		solved.Add(1)
		return bench.New(s, set)
	}
	var plans sync.Map
	var wg sync.WaitGroup
	for n := range 8 {
		sheet, set := sheetOfMM(t, 120) // each asker's own
		wg.Go(func() {
			plan, err := q.Plan(t.Context(), fmt.Sprint(n%3), sheet, set)
			if assert.NoError(t, err) {
				assert.Same(t, sheet, plan.Sheet)
				plans.Store(n, plan)
			}
		})
	}
	wg.Wait()
	assert.Equal(t, int32(1), solved.Load())
	first, _ := plans.Load(0)
	for n := range 8 {
		plan, _ := plans.Load(n)
		assert.Equal(t, first.(*bench.Plan).Actions, plan.(*bench.Plan).Actions)
		assert.Equal(t, first.(*bench.Plan).Mark(), plan.(*bench.Plan).Mark())
		assert.True(t, plan.(*bench.Plan).Proved)
	}
}

// Nobody's sheets stand behind all of another's, and work goes on when whoever asked has left.
func TestAskersTakeTurns(t *testing.T) {
	q, let, solved := gatedQueue(t)
	var wg sync.WaitGroup
	ask := func(ctx context.Context, asker string, mm float64) {
		sheet, set := sheetOfMM(t, mm)
		started := len(q.under)
		wg.Go(func() { _, _ = q.Plan(ctx, asker, sheet, set) })
		require.Eventually(t, func() bool { q.mu.Lock(); defer q.mu.Unlock(); return len(q.under) > started || started > 6 }, time.Second, time.Millisecond)
	}
	gone, leave := context.WithCancel(t.Context())
	ask(t.Context(), "greedy", 100)
	ask(t.Context(), "greedy", 110)
	ask(gone, "greedy", 120)
	ask(t.Context(), "other", 130)
	leave()
	for range 4 {
		let()
	}
	wg.Wait()
	require.Eventually(t, func() bool { q.mu.Lock(); defer q.mu.Unlock(); return q.workers == 0 }, time.Second, time.Millisecond)
	assert.Equal(t, []float64{100, 110, 130, 120}, *solved, "the first was begun already; then they take turns")
}

// Of an asker with too many sheets the one asked for first gives way.
func TestAnAskerWithManySheetsLetsTheFirstGo(t *testing.T) {
	q, let, _ := gatedQueue(t)
	errs := make(chan error, 10)
	for n := range jobs.MostOfPainter + 2 {
		sheet, set := sheetOfMM(t, float64(100+10*n))
		go func() {
			_, err := q.Plan(t.Context(), "one", sheet, set)
			errs <- err
		}()
		require.Eventually(t, func() bool { q.mu.Lock(); defer q.mu.Unlock(); return len(q.under) == min(n, jobs.MostOfPainter)+1 }, time.Second, time.Millisecond)
	}
	assert.ErrorIs(t, <-errs, jobs.ErrNoTurn)
	for range jobs.MostOfPainter + 1 {
		let()
		assert.NoError(t, <-errs)
	}
}

// What was worked out is kept with the painter, and used for paper and for the sitting.
func TestAPlanIsKeptByWhatWentIntoIt(t *testing.T) {
	s, db, ada, w := aStudio(t)
	q, let, solved := gatedQueue(t)
	s.planner = q
	go let()
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	require.Len(t, *solved, 1)
	fresh := New(db)
	fresh.planner, _, solved = gatedQueue(t) // nothing is worked out by it
	of, system, err := fresh.KeptSystem(t.Context(), ada, w.ID)
	require.NoError(t, err)
	in, err := paint.ParseMedium(of.Settings.Medium)
	require.NoError(t, err)
	plan, err := fresh.Plan(t.Context(), As(ada), Sheet{Wheel: w.ID, System: system, Choices: of.Settings.Choices, Set: of.Settings.Bench}, in, time.Minute)
	require.NoError(t, err)
	assert.True(t, plan.Exact)
	assert.Equal(t, begun.Plan.Order, plan.Order)
	assert.Empty(t, *solved)
	nobody, err := fresh.Plan(t.Context(), func(context.Context) (store.Painter, error) { return store.Painter{}, store.ErrNotFound }, Sheet{System: system, Choices: of.Settings.Choices, Set: of.Settings.Bench}, in, time.Millisecond)
	require.NoError(t, err)
	assert.False(t, nobody.Exact, "it is ada's")
}

// A sitting begins with what is known at once where the exact plan takes long, takes that over
// when it comes before the first tap, and keeps what it began with when it comes after.
func TestASittingBeginsWithTheSketchAndTakesTheExactPlanOver(t *testing.T) {
	for _, tapped := range []bool{false, true} {
		s, _, ada, w := aStudio(t)
		q, let, _ := gatedQueue(t)
		sketch := q.solve
		q.solve = func(sheet *bench.Sheet, set bench.Settings) (*bench.Plan, error) {
			plan, err := sketch(sheet, set)
			if err == nil { // another order than the sketch's
				worked := plan.Worked()
				worked.Moves[0], worked.Moves[1] = worked.Moves[1], worked.Moves[0]
				if other, err := bench.Again(sheet, set, worked); err == nil {
					return other, nil
				}
			}
			return plan, err
		}
		s.planner = q
		begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
		require.NoError(t, err)
		told, stop := s.Watch(ada)
		require.Zero(t, <-told, "the line is there")
		if tapped {
			_, _, err = s.Tell(t.Context(), ada, begun.ID, []Told{{Event: bench.Event{ID: "tap", Kind: bench.LaidOut, At: time.Now()}}})
			require.NoError(t, err)
			<-told
		}
		let()
		if !tapped {
			assert.Equal(t, begun.ID, <-told)
		}
		require.Eventually(t, func() bool { q.mu.Lock(); defer q.mu.Unlock(); return q.workers == 0 }, 5*time.Second, time.Millisecond)
		later, err := s.Sitting(t.Context(), ada, begun.ID)
		require.NoError(t, err)
		if tapped {
			assert.Equal(t, begun.Plan.Order, later.Plan.Order)
		} else {
			assert.NotEqual(t, begun.Plan.Order, later.Plan.Order)
		}
		stop()
	}
}

func TestASheetThatWasPrintedEarlierIsSpokenOf(t *testing.T) {
	s, db, ada, w := aStudio(t)
	begun, err := s.BeginSitting(t.Context(), ada, w.ID, bench.Which{}, Named{}, recipe.Scale{})
	require.NoError(t, err)
	assert.Empty(t, begun.Printed)
	sheet := printedAs(begun.Plan.Sheet)
	require.NoError(t, db.Printed(t.Context(), ada.ID, w.ID, sheet, begun.Plan.Mark()))
	later, err := s.Sitting(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Empty(t, later.Printed, "it follows the same plan")
	require.NoError(t, db.Printed(t.Context(), ada.ID, w.ID, sheet, "abc123"))
	later, err = s.Sitting(t.Context(), ada, begun.ID)
	require.NoError(t, err)
	assert.Contains(t, later.Printed, "abc123")
	assert.Contains(t, later.Printed, begun.Plan.Mark())
}
