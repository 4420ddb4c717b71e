package beside_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/beside"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

func row(names ...string) (out beside.Row) {
	for _, n := range names {
		out = append(out, beside.Place{Name: n})
	}
	return out
}

func TestWhatLiesEdgeToEdge(t *testing.T) {
	for _, c := range []struct {
		what       string
		one, other beside.Row
		pairs      [][2]int
	}{
		{"one and one", row("a"), row("b"), [][2]int{{0, 0}}},
		{"by name, whatever the order", row("a", "b", "c"), row("c", "b", "a"), [][2]int{{0, 2}, {1, 1}, {2, 0}}},
		{"what the other lacks is left out", row("a", "b", "c"), row("a", "c", "d"), [][2]int{{0, 0}, {2, 1}}},
		{"few names in common: as far along", row("a", "b", "c"), row("a", "x", "y", "z", "w"), [][2]int{{0, 0}, {1, 1}, {1, 2}, {2, 3}, {2, 4}}},
		{"one beside a row", row("a"), row("x", "y"), [][2]int{{0, 0}, {0, 1}}},
		{"without names", row("", ""), row("", ""), [][2]int{{0, 0}, {1, 1}}},
	} {
		assert.Equal(t, c.pairs, beside.Pairs(c.one, c.other), c.what)
	}
}

// Whatever lies beside whatever: every pair is of places that are there, and each place of the longer row is
// met where rows lie as far along.
func TestPairsOfAnyRows(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 400 {
		var one, other beside.Row
		for range 1 + r.IntN(14) {
			one = append(one, beside.Place{Name: fmt.Sprint(r.IntN(20))})
		}
		for range 1 + r.IntN(14) {
			other = append(other, beside.Place{Name: fmt.Sprint(20 + r.IntN(20))})
		}
		met := [2]map[int]bool{{}, {}}
		for _, p := range beside.Pairs(one, other) {
			require.Less(t, p[0], len(one))
			require.Less(t, p[1], len(other))
			met[0][p[0]], met[1][p[1]] = true, true
		}
		assert.Len(t, met[0], len(one))
		assert.Len(t, met[1], len(other))
	}
}

func TestTwoMixturesComeToOneValue(t *testing.T) {
	white := painttest.Paints("PW6")[0]
	light := func(m *paint.Mixture) float64 { s := m.BrushedOut(); return s.Lab().L }
	ids := []string{"PB29", "PB15:3", "PV19", "PR254", "PY184", "PG7", "PBk9", "PBr7-burnt-sienna"}
	for i, a := range ids {
		for _, b := range ids[i:] {
			x, y := painttest.Paints(a)[0].Alone(), painttest.Paints(b)[0].Alone()
			out, reached := beside.AtOneValue(&x, &y, white, light)
			require.True(t, reached, "%s and %s", a, b)
			assert.InDelta(t, light(&out[0].Mixture), light(&out[1].Mixture), 0.5, "%s and %s", a, b)
			assert.InDelta(t, max(light(&x), light(&y)), light(&out[0].Mixture), 0.5, "it is that of the lighter")
			assert.Zero(t, min(out[0].White, out[1].White), "one of them stays as it is")
			back, _ := beside.AtOneValue(&y, &x, white, light)
			assert.InDelta(t, out[0].White, back[1].White, 1e-9, "either way round")
		}
	}
}

func TestWhatDiffersIsSaid(t *testing.T) {
	dark, light := colour.OKLab{L: 0.3, A: 0.1}, colour.OKLab{L: 0.6, A: 0.1}
	same := beside.Pair{Names: [2]string{"green", "green"}, Looks: [2]colour.OKLab{dark, dark}}
	apart := beside.Pair{Names: [2]string{"violet", "violet"}, Looks: [2]colour.OKLab{dark, light}, DE: 30}
	assert.Equal(t, colour.NoDifference, beside.Says([]beside.Pair{same}))
	assert.Equal(t, "much darker", beside.Says([]beside.Pair{apart}))
	assert.Equal(t, "alike at all 2", beside.Says([]beside.Pair{same, same}))
	assert.Equal(t, "alike at 2 of 3; furthest apart at violet: much darker", beside.Says([]beside.Pair{same, apart, same}))
	apart.Names[1] = "blue-violet"
	assert.Contains(t, beside.Says([]beside.Pair{same, apart}), "at violet beside blue-violet")
}
