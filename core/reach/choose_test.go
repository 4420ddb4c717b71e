package reach

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func systemOf(t testing.TB, kind wheel.SystemKind, yellows, reds, blues []string) wheel.System {
	t.Helper()
	s, err := wheel.NewSystem(kind, [3][]*paint.Paint{painttest.Paints(yellows...), painttest.Paints(reds...), painttest.Paints(blues...)})
	require.NoError(t, err)
	return s
}

func tableOf(t testing.TB, paints []*paint.Paint) *Table {
	t.Helper()
	table, err := NewTable(t.Context(), paints, 2, nil)
	require.NoError(t, err)
	return table
}

func TestReachOfSystems(t *testing.T) {
	triad := OfSystem(systemOf(t, wheel.RYB, []string{"PY74"}, []string{"PR254"}, []string{"PB29"}))
	split := OfSystem(systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}))
	double := OfSystem(systemOf(t, wheel.Double, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}))
	assert.Less(t, triad.Clean(), split.Clean())
	assert.Greater(t, split.Clean(), 0.9)
	for i := range split {
		assert.GreaterOrEqual(t, double[i], split[i], "every way of the split system is allowed in the double one")
		assert.LessOrEqual(t, split[i], 1.0)
	}
	assert.GreaterOrEqual(t, triad.Soft(), triad.Clean())
	gap := triad.WidestGap()
	assert.Greater(t, gap.Degrees, 30.0)
	for d := 2.5; d < gap.Degrees; d += 5 {
		assert.Less(t, triad[int((gap.From+d)/Width)%Bins], paint.CleanFrom(), "nothing in the gap is clean")
	}
	assert.Equal(t, Gap{}, Reach(all(1)).WidestGap())
	assert.Equal(t, 360.0, Reach{}.WidestGap().Degrees)
}

func all(v float64) (r [Bins]float64) {
	for i := range r {
		r[i] = v
	}
	return r
}

// bruteForce builds every system of a kind and asks each for its reach.
func bruteForce(t *testing.T, kind wheel.SystemKind, roles [3][]*paint.Paint) (best float64) {
	t.Helper()
	var fills [3][][]*paint.Paint
	for k, r := range roles {
		for i, a := range r {
			if kind == wheel.RYB {
				fills[k] = append(fills[k], []*paint.Paint{a})
			}
			for _, b := range r[:i] {
				if kind != wheel.RYB {
					fills[k] = append(fills[k], []*paint.Paint{a, b})
				}
			}
		}
	}
	for _, y := range fills[0] {
		for _, r := range fills[1] {
			for _, b := range fills[2] {
				s, err := wheel.NewSystem(kind, [3][]*paint.Paint{y, r, b})
				require.NoError(t, err)
				best = max(best, OfSystem(s).Clean())
			}
		}
	}
	return best
}

func TestTheBestSystemOfABoxIsExact(t *testing.T) {
	yellows, reds, blues := painttest.Paints("PY184", "PY65", "PY43"), painttest.Paints("PR255", "PR122", "PR101"), painttest.Paints("PB29", "PB15:3", "PB28")
	box := append(append(append(painttest.Paints("PW6", "PG7"), yellows...), reds...), blues...)
	table := tableOf(t, box)
	for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split, wheel.Double} {
		got, err := table.Best(t.Context(), Criteria{Kind: kind, Most: 5})
		require.NoError(t, err)
		require.NotEmpty(t, got)
		yellowRole := append(yellows[:3:3], reds[2]) // the red oxide counts with the yellows
		assert.Equal(t, bruteForce(t, kind, [3][]*paint.Paint{yellowRole, reds[:2], blues}), got[0].Reach.Clean(), kind)
		for i, c := range got {
			for bin, v := range OfSystem(c.System) {
				assert.InDelta(t, v, c.Reach[bin], 1e-9, "the figures are the system's own")
			}
			if i > 0 {
				assert.LessOrEqual(t, c.Reach.Clean(), got[i-1].Reach.Clean(), "the best first")
			}
		}
	}
}

func TestWhatIsChosenObeysTheWish(t *testing.T) {
	table := tableOf(t, painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3", "PW6"))
	got, err := table.Best(t.Context(), Criteria{Kind: wheel.RYB, Contains: []string{"PR255", "PY65"}, Most: 9})
	require.NoError(t, err)
	require.Len(t, got, 2)
	for _, c := range got {
		assert.Equal(t, "PY65", c.System.Role(0)[0].ID)
		assert.Equal(t, "PR255", c.System.Role(1)[0].ID)
	}
	// The cheapest that reach nearly as much, against every system by hand.
	prices := map[string]float64{"PY184": 9, "PY65": 6, "PR255": 12, "PR122": 8, "PB29": 5, "PB15:3": 7}
	every, err := table.Best(t.Context(), Criteria{Kind: wheel.RYB, Most: 100})
	require.NoError(t, err)
	cheap, err := table.Best(t.Context(), Criteria{Kind: wheel.RYB, Prices: prices, Most: 100})
	require.NoError(t, err)
	least := math.Inf(1)
	cost := func(c Choice) (sum float64) {
		for _, p := range c.System.Paints() {
			sum += prices[p.ID]
		}
		return sum
	}
	for _, c := range every {
		if c.Reach.Clean() >= 0.95*every[0].Reach.Clean() {
			least = min(least, cost(c))
		}
	}
	assert.Equal(t, least, cost(cheap[0]))
	for i, c := range cheap {
		assert.GreaterOrEqual(t, c.Reach.Clean(), 0.95*every[0].Reach.Clean()-1e-9)
		if i > 0 {
			assert.GreaterOrEqual(t, cost(c), cost(cheap[i-1]))
		}
	}
	few, err := table.Best(t.Context(), Criteria{Kind: wheel.Split, Fewest: true, Most: 200})
	require.NoError(t, err)
	six, err := table.Best(t.Context(), Criteria{Kind: wheel.Split, Most: 1})
	require.NoError(t, err)
	for i, c := range few {
		assert.GreaterOrEqual(t, c.Reach.Clean(), 0.95*six[0].Reach.Clean()-1e-9)
		for bin, v := range OfSystem(c.System) {
			assert.InDelta(t, v, c.Reach[bin], 1e-9, "a role of one paint is what it is")
		}
		if i > 0 {
			assert.GreaterOrEqual(t, len(c.System.Paints()), len(few[i-1].System.Paints()), "the fewest first")
		}
	}
	assert.Less(t, len(few[0].System.Paints()), 6, "five do nearly as well as six here")
	bare, err := tableOf(t, paint.Library()).Best(t.Context(), Criteria{Kind: wheel.Split, Without: []string{"cobalt", "zinc"}, Most: 50})
	require.NoError(t, err)
	others := 0
	for _, c := range bare {
		for _, p := range c.System.Paints() {
			assert.NotContains(t, []string{"cobalt", "zinc"}, p.CautionClass, p.ID)
			if p.Hazardous() {
				others++
			}
		}
	}
	assert.Positive(t, others, "what else there is to be careful with may stay")
	safe, err := tableOf(t, paint.Library()).Best(t.Context(), Criteria{Kind: wheel.Split, Careful: true, Most: 3})
	require.NoError(t, err)
	for _, c := range safe {
		for _, p := range c.System.Paints() {
			assert.False(t, p.Hazardous(), p.ID)
		}
	}
	delete(prices, "PB29")
	delete(prices, "PB15:3")
	_, err = table.Best(t.Context(), Criteria{Kind: wheel.RYB, Prices: prices})
	assert.ErrorContains(t, err, "too few paints for the role of the blue")

	for says, w := range map[string]Criteria{
		"is not chosen":          {Kind: wheel.OwnSystem},
		"PW6 is not among":       {Kind: wheel.RYB, Contains: []string{"PW6"}},
		"cannot be in one triad": {Kind: wheel.RYB, Contains: []string{"PB29", "PB15:3"}},
	} {
		_, err := table.Best(t.Context(), w)
		assert.ErrorContains(t, err, says)
	}
	_, err = tableOf(t, painttest.Paints("PY184", "PR255")).Best(t.Context(), Criteria{Kind: wheel.RYB})
	assert.ErrorContains(t, err, "too few paints for the role of the blue")
	_, err = tableOf(t, painttest.Paints("PY184", "PR255", "PB29")).Best(t.Context(), Criteria{Kind: wheel.Split})
	assert.ErrorContains(t, err, "needs 2")
}

func TestATubeIsReplacedByWhatServesBest(t *testing.T) {
	s := systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"})
	others := painttest.Paints("PY184", "PY74", "PR122", "PB15:3", "PB60", "PW6", "PG7", "PB29")
	twin, err := s.Role(1)[0].Tube("tube-1", 1)
	require.NoError(t, err)
	none, err := Swaps(t.Context(), s, []*paint.Paint{twin})
	require.NoError(t, err)
	assert.Empty(t, none, "another tube of the same paint is nothing else")
	swaps, err := Swaps(t.Context(), s, others)
	require.NoError(t, err)
	require.Len(t, swaps, 3, "a best one for each tube")
	for i, w := range swaps {
		var roles [3][]*paint.Paint
		at := -1
		for k := range 3 {
			roles[k] = s.Role(k)
			if s.Role(k)[0].ID == w.Out.ID {
				roles[k], at = []*paint.Paint{w.In}, k
			}
		}
		require.GreaterOrEqual(t, at, 0)
		with, err := wheel.NewSystem(wheel.RYB, roles)
		require.NoError(t, err)
		assert.Equal(t, OfSystem(with), w.Reach)
		for _, q := range others {
			if q.ID == w.In.ID || q.ID == w.Out.ID || !wheel.RYB.Roles()[at].Accepts(q) {
				continue
			}
			other, err := s.WithSwap(at, w.Out, q)
			require.NoError(t, err)
			assert.LessOrEqual(t, OfSystem(other).Clean(), w.Reach.Clean(), "%s for %s", q.ID, w.Out.ID)
		}
		if i > 0 {
			assert.LessOrEqual(t, w.Reach.Clean(), swaps[i-1].Reach.Clean())
		}
	}
	_, err = s.WithSwap(0, others[2], others[0])
	assert.ErrorContains(t, err, "is no yellow")
}

func BenchmarkBestOfTheLibraryCold(b *testing.B) {
	paint.Envelope(0)
	for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split} {
		b.Run(string(kind), func(b *testing.B) {
			for b.Loop() {
				if _, err := tableOf(b, paint.Library()).Best(b.Context(), Criteria{Kind: kind, Most: 5}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func BenchmarkBestOfTheLibraryWithTheTable(b *testing.B) {
	table := tableOf(b, paint.Library())
	for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split, wheel.Double} {
		b.Run(string(kind), func(b *testing.B) {
			for b.Loop() {
				if _, err := table.Best(b.Context(), Criteria{Kind: kind, Most: 5}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func TestASearchTellsHowFarItIsAndEndsWhenItIsLeft(t *testing.T) {
	var told []Progress
	table, err := NewTable(t.Context(), paint.Library(), 2, func(p Progress) { told = append(told, p) })
	require.NoError(t, err)
	require.Greater(t, len(told), 1, "a table of many pairs says more than once how far it is")
	for i, p := range told {
		assert.Equal(t, Progress{PairsStage, i * atOnce, told[0].Of}, p)
	}
	told = nil
	w := Criteria{Kind: wheel.RYB, Report: func(p Progress) { told = append(told, p) }}
	_, err = table.Best(t.Context(), w)
	require.NoError(t, err)
	require.NotEmpty(t, told)
	for i, p := range told {
		assert.Equal(t, SystemsStage, p.Stage)
		assert.Less(t, p.Done, p.Of)
		if i > 0 {
			assert.Greater(t, p.Done, told[i-1].Done)
		}
	}
	told = nil
	box := painttest.Paints("PY184", "PR254", "PB29")
	w.Among = []string{"PY184", "PR254", "PB29"}
	_, err = tableOf(t, append(box, NotIn(box)...)).BuyNext(t.Context(), w, NotIn(box))
	require.NoError(t, err)
	assert.Equal(t, len(NotIn(box)), len(told))
	assert.Equal(t, Progress{PaintsStage, 0, len(told)}, told[0])

	ctx, leave := context.WithCancel(t.Context())
	w = Criteria{Kind: wheel.Double, Report: func(p Progress) {
		if p.Done > 0 {
			leave()
		}
	}}
	_, err = table.Best(ctx, w)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = table.BuyNext(ctx, w, NotIn(nil))
	assert.ErrorIs(t, err, context.Canceled)
	_, err = NewTable(ctx, box, 2, nil)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = Swaps(ctx, systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"}), paint.Library())
	assert.ErrorIs(t, err, context.Canceled)
}

// Only paints that keep their colour are chosen where that is asked for.
func TestLastingPaintsAloneAreChosen(t *testing.T) {
	paints := painttest.Paints("PY3", "PY184", "PR83", "PR254", "PB29", "PB15:3")
	table, err := NewTable(t.Context(), paints, 1, nil)
	require.NoError(t, err)
	best, err := table.Best(t.Context(), Criteria{Kind: wheel.RYB, Lasting: true, Most: 10})
	require.NoError(t, err)
	require.NotEmpty(t, best)
	for _, c := range best {
		for _, p := range c.System.Paints() {
			assert.True(t, p.Lasting(), p.ID)
		}
	}
}
