package bench_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
)

// heldAt are the events of a sitting that keeps to its plan, its hands so much slower.
func heldAt(p *bench.Plan, slower float64) (out []bench.Event) {
	at := time.Date(2026, 11, 2, 9, 0, 0, 0, time.UTC)
	tell := func(minutes float64, e bench.Event) {
		at = at.Add(time.Duration(minutes * float64(time.Minute)))
		e.ID, e.At = fmt.Sprintf("%03d", len(out)), at
		out = append(out, e)
	}
	tell(0, bench.Event{Kind: bench.Begun})
	tell(1, bench.Event{Kind: bench.LaidOut})
	now := 0.0
	for _, a := range p.Actions {
		if a.Kind == bench.Wait {
			continue
		}
		minutes := a.End - a.Start
		if a.Start > now {
			at = at.Add(time.Duration((a.Start - now) * float64(time.Minute)))
		}
		now = a.End
		if a.Kind == bench.Mix || a.Kind == bench.Paint {
			minutes *= slower
		}
		switch a.Kind {
		case bench.Mix:
			tell(minutes, bench.Event{Kind: bench.Mixed, Region: p.Sheet.Regions[a.Region].ID, Well: max(1, a.Well)})
		case bench.Wash:
			tell(minutes, bench.Event{Kind: bench.Washed})
		case bench.Rinse:
			tell(minutes, bench.Event{Kind: bench.Rinsed, Well: max(1, a.Well)})
		case bench.Water:
			tell(minutes, bench.Event{Kind: bench.WaterChanged})
		case bench.Paint:
			tell(minutes, bench.Event{Kind: bench.Painted, Region: p.Sheet.Regions[a.Region].ID})
		}
	}
	tell(1, bench.Event{Kind: bench.Ended})
	return out
}

func TestAPaintersPaceIsLearnedFromSittings(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	p, err := bench.New(&s, set)
	require.NoError(t, err)
	for _, slower := range []float64{0.6, 1, 1.8} {
		pace := bench.PaceOf(&s, set, heldAt(p, slower))
		assert.InDelta(t, slower, pace.HandPace, 0.1*slower, "the planned times are found again")
		assert.Zero(t, pace.Drying, "nothing was said to be wet still")
	}
	assert.Zero(t, bench.PaceOf(&s, set, heldAt(p, 1)[:3]).HandPace, "too little to tell")

	// A night between two places is none of the hands'.
	slept := heldAt(p, 1.5)
	for i := range slept[len(slept)/2:] {
		slept[len(slept)/2+i].At = slept[len(slept)/2+i].At.Add(9 * time.Hour)
	}
	assert.InDelta(t, 1.5, bench.PaceOf(&s, set, slept).HandPace, 0.2)

	// Planned at it, all takes so much longer.
	set.HandPace = 1.8
	slow, err := bench.New(&s, set)
	require.NoError(t, err)
	assert.Greater(t, slow.Minutes, p.Minutes)
}

func TestTheOwnPaceIsTheMiddleOfSittings(t *testing.T) {
	assert.Equal(t, bench.Pace{}, bench.OwnPace(nil))
	assert.Equal(t, bench.Pace{}, bench.OwnPace([]bench.Pace{{HandPace: 1.02}, {HandPace: 0.97}}), "as usual is none of one's own")
	assert.Equal(t, bench.Pace{HandPace: 1.5, Drying: 1.25}, bench.OwnPace([]bench.Pace{{HandPace: 9}, {HandPace: 1.5, Drying: 1.25}, {HandPace: 0.5}, {}}))
}
