package reach

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// twins are paints with further tubes of the same beside them.
func twins(t *testing.T, paints []*paint.Paint, of int) (out []*paint.Paint) {
	t.Helper()
	for n := range of {
		for _, p := range paints {
			tube, err := p.Tube(fmt.Sprintf("%s-%d", p.ID, n), 1)
			require.NoError(t, err)
			out = append(out, tube)
		}
	}
	return out
}

func TestFurtherTubesOfTheSameChangeNothing(t *testing.T) {
	box := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3", "PB28")
	alone, many := tableOf(t, box), tableOf(t, twins(t, box, 4))
	assert.Equal(t, alone.Size(), many.Size(), "each is followed once")
	for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split, wheel.Double} {
		a, err := alone.Best(t.Context(), Criteria{Kind: kind, Most: 3})
		require.NoError(t, err)
		b, err := many.Best(t.Context(), Criteria{Kind: kind, Most: 3})
		require.NoError(t, err)
		require.Len(t, b, len(a))
		for i := range a {
			assert.Equal(t, a[i].Reach, b[i].Reach)
		}
	}
}

func TestOfTubesOfTheSameTheCheapestIsTakenOrTheOneThatMust(t *testing.T) {
	many := twins(t, painttest.Paints("PY184", "PR255", "PB29"), 3)
	table := tableOf(t, many)
	prices := map[string]float64{}
	for i, p := range many {
		prices[p.ID] = float64(20 - i)
	}
	got, err := table.Best(t.Context(), Criteria{Kind: wheel.RYB, Prices: prices})
	require.NoError(t, err)
	for _, p := range got[0].System.Paints() {
		assert.Contains(t, p.ID, "-2", "the last tube of each is the cheapest")
	}
	got, err = table.Best(t.Context(), Criteria{Kind: wheel.RYB, Prices: prices, Contains: []string{"PB29-0"}})
	require.NoError(t, err)
	assert.Equal(t, "PB29-0", got[0].System.Role(2)[0].ID)
	got, err = table.Best(t.Context(), Criteria{Kind: wheel.Split, Contains: []string{"PB29-0", "PB29-1"}})
	require.NoError(t, err, "two tubes of the same are a pair where there is nothing else")
	assert.Len(t, got[0].System.Paints(), 6)
}

// shifted are n different paints, like those of the library.
func shifted(t *testing.T, n int) (out []*paint.Paint) {
	t.Helper()
	for i := range n {
		p := paint.Library()[i%len(paint.Library())]
		m, err := paint.Adjusted(p, 1, float64(i)/float64(n), 0)
		require.NoError(t, err)
		out = append(out, paint.Own(fmt.Sprintf("own-%d", i), p.Name, m, nil, paint.Changed))
	}
	return out
}

func TestTooManyForAnExactAnswerIsSaidAtOnce(t *testing.T) {
	var many TooMany
	_, err := NewTable(t.Context(), shifted(t, 400), 2, nil)
	require.ErrorAs(t, err, &many)
	assert.Contains(t, many.Sentence, "too many for an exact answer: leave some out")
	some := shifted(t, 200)
	assert.NoError(t, Criteria{Kind: wheel.RYB}.CheckSize(some))
	require.ErrorAs(t, Criteria{Kind: wheel.Split}.CheckSize(some), &many)
	assert.NoError(t, Criteria{Kind: wheel.Split}.CheckSize(some[:80]))
	assert.NoError(t, Criteria{Kind: wheel.Split}.CheckSize(twins(t, paint.Library(), 4)), "tubes of the same count once")
	// What must be in it makes fewer systems.
	blue := some[0]
	for _, p := range some[:100] {
		if wheel.RYB.Roles()[2].Accepts(p) {
			blue = p
		}
	}
	require.ErrorAs(t, Criteria{Kind: wheel.Split}.CheckSize(some[:130]), &many)
	assert.NoError(t, Criteria{Kind: wheel.Split, Contains: []string{blue.ID}}.CheckSize(some[:130]))
}

// Only systems with the new paint are looked at; all of them give the same.
func TestBuyNextIsWhatAddingOneByOneGives(t *testing.T) {
	box := painttest.Paints("PY184", "PY65", "PR254", "PR112", "PB29", "PB60")
	table := tableOf(t, append(box, NotIn(box)...))
	for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split} {
		w := Criteria{Kind: kind}
		for _, p := range box {
			w.Among = append(w.Among, p.ID)
		}
		got, err := table.BuyNext(t.Context(), w, NotIn(box))
		require.NoError(t, err)
		require.NotEmpty(t, got)
		gains := map[string]float64{}
		for _, b := range got {
			gains[b.Paint.ID] = b.Gain
		}
		without, err := table.Best(t.Context(), w)
		require.NoError(t, err)
		for _, p := range NotIn(box) {
			with := w
			with.Among = append([]string{p.ID}, w.Among...)
			best, err := table.Best(t.Context(), with)
			require.NoError(t, err)
			assert.InDelta(t, best[0].Reach.Clean()-without[0].Reach.Clean(), gains[p.ID], 1e-12, p.ID)
		}
	}
}
