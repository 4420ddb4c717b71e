package reach

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

func TestTheSystemThatSuitsWantedColours(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	table := tableOf(t, painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"))
	helpers := Helpers{painttest.Paint("PW6"), painttest.Paint("PBk9")}
	mixed := func(parts ...paint.Part) colour.Lab {
		m, err := paint.Mix(parts...)
		require.NoError(t, err)
		return painted(m, acrylic)
	}
	p := painttest.Paints("PY184", "PR122", "PB15:3", "PW6")
	// What one triad makes is what that triad suits best.
	wanted := []colour.Lab{
		mixed(paint.Part{Paint: p[0], Parts: 8}, paint.Part{Paint: p[2], Parts: 1}),
		mixed(paint.Part{Paint: p[1], Parts: 6}, paint.Part{Paint: p[2], Parts: 1}, paint.Part{Paint: p[3], Parts: 9}),
		mixed(paint.Part{Paint: p[0], Parts: 6}, paint.Part{Paint: p[1], Parts: 2}),
	}
	got, err := table.NearestTo(context.Background(), Criteria{Kind: wheel.RYB, Most: 8}, helpers, wanted, acrylic)
	require.NoError(t, err)
	require.Len(t, got, 8, "every triad was looked at")
	assert.Equal(t, []*paint.Paint{p[0], p[1], p[2]}, got[0].System.Paints())
	assert.Equal(t, 3, got[0].Reached)
	assert.Less(t, got[0].Mean, 0.3)
	for i, s := range got[1:] {
		assert.GreaterOrEqual(t, got[i].Reached, s.Reached, "the most reached first")
		for c, d := range s.DE {
			one, err := Nearest(wanted[c], append(s.System.Paints(), helpers.White, helpers.Black), acrylic)
			require.NoError(t, err)
			assert.LessOrEqual(t, d, one.DE+0.8, "hardly worse than what the matcher finds in whole parts")
		}
	}
	split, err := table.NearestTo(context.Background(), Criteria{Kind: wheel.Split, Most: 1}, helpers, wanted, acrylic)
	require.NoError(t, err)
	assert.LessOrEqual(t, split[0].Mean, got[0].Mean+0.1, "six paints do what three of them do")

	gone, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = table.NearestTo(gone, Criteria{Kind: wheel.RYB}, helpers, wanted, acrylic)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = table.NearestTo(context.Background(), Criteria{Kind: wheel.RYB}, helpers, nil, acrylic)
	assert.ErrorContains(t, err, "no colour is wanted")
}

// What is said of a system is what all fours of its paints with white and black come to, looked at one by one.
func TestNoFourOfASystemComesNearerThanIsSaid(t *testing.T) {
	for _, medium := range []string{"acrylic", "watercolour"} {
		in, err := paint.ParseMedium(medium)
		require.NoError(t, err)
		table := tableOf(t, painttest.Paints("PY184", "PY65", "PY43", "PR255", "PR122", "PB29", "PB15:3"))
		help := Helpers{painttest.Paint("PW6"), painttest.Paint("PBk9")}
		rng := rand.New(rand.NewPCG(33, 1))
		var wanted []colour.Lab
		for n := range 10 {
			hue, chroma := 2*math.Pi*rng.Float64(), 60*rng.Float64()
			if n == 0 {
				hue, chroma = 0.7, 75 // no paint of these comes near
			}
			wanted = append(wanted, colour.Lab{L: 25 + 55*rng.Float64(), A: chroma * math.Cos(hue), B: chroma * math.Sin(hue)})
		}
		for _, kind := range []wheel.SystemKind{wheel.RYB, wheel.Split} {
			got, err := table.NearestTo(t.Context(), Criteria{Kind: kind, Most: 20, Workers: 2}, help, wanted, in)
			require.NoError(t, err)
			require.Len(t, got, map[wheel.SystemKind]int{wheel.RYB: 12, wheel.Split: 3}[kind], "every system")
			said, worse, all := 0.0, 0, 0
			for i, one := range got {
				palette := append(one.System.Paints(), help.White, help.Black)
				for c, want := range wanted {
					s := newSearch(want, palette, in)
					oracle := math.Inf(1)
					for _, four := range foursOf(len(palette)) {
						oracle = min(oracle, s.four(four).miss)
					}
					all++
					if one.DE[c] > oracle+recipe.Unseen/2 {
						worse++
						said = max(said, one.DE[c]-oracle)
					}
				}
				if i > 0 && one.Reached == got[0].Reached && one.Mean <= got[0].Mean+0.5 {
					assert.LessOrEqual(t, OfSystem(one.System).Mean(), OfSystem(got[i-1].System).Mean()+1e-9, "of those that come as near the one that reaches more is first")
				}
			}
			assert.LessOrEqual(t, worse, all/50, "%s %s: worse by up to %.1f", medium, kind, said)
		}
	}
}

func foursOf(n int) (out [][]int) {
	for a := range n {
		for b := range a {
			for c := range b {
				for d := range c {
					out = append(out, []int{a, b, c, d})
				}
			}
		}
	}
	return out
}

func TestSoManyPaintsAreNotHeldAgainstColours(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	var many []*paint.Paint
	for n := range 3 {
		for _, p := range paint.Library() {
			tube, err := p.Tube(fmt.Sprintf("tube-%d-%s", n, p.ID), 1+0.1*float64(n))
			require.NoError(t, err)
			many = append(many, tube)
		}
	}
	table, _ := sorted(many)
	help, wanted := Helpers{painttest.Paint("PW6"), painttest.Paint("PBk9")}, []colour.Lab{{L: 50, A: 40, B: 30}, {L: 40, A: -10, B: -25}, {L: 20}}
	_, err = table.NearestTo(t.Context(), Criteria{Kind: wheel.RYB}, help, wanted, acrylic)
	assert.ErrorContains(t, err, "choose from fewer paints", "and not after an age")

	gone, cancel := context.WithCancel(t.Context())
	cancel()
	few, err := tableOf(t, painttest.Paints("PY184", "PR122", "PB15:3")).NearestTo(gone, Criteria{Kind: wheel.RYB}, help, wanted, acrylic)
	assert.ErrorIs(t, err, context.Canceled)
	assert.Empty(t, few)
}

// Six colours that a split of the whole library should come near: some of them it cannot reach.
func BenchmarkSuitedOfTheLibrary(b *testing.B) {
	table := tableOf(b, paint.Library())
	help := Helpers{painttest.Paint("PW6"), painttest.Paint("PBk9")}
	wanted := []colour.Lab{{L: 60, A: 60, B: 50}, {L: 75, A: -40, B: 50}, {L: 41, A: -33, B: -48}, {L: 30, A: 11, B: -17}, {L: 33, A: 10, B: 19}, {L: 70, A: 18, B: 57}}
	for _, medium := range []string{"acrylic", "watercolour"} {
		b.Run(medium, func(b *testing.B) {
			in, err := paint.ParseMedium(medium)
			require.NoError(b, err)
			for b.Loop() {
				if _, err := table.NearestTo(b.Context(), Criteria{Kind: wheel.Split, Most: 5, Workers: 2}, help, wanted, in); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

func BenchmarkSuitedOfABoxOfTwelve(b *testing.B) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	table := tableOf(b, painttest.Paints("PY184", "PY65", "PY43", "PR255", "PR254", "PR122", "PB29", "PB28", "PB15:3", "PB60", "PV19", "PY74"))
	var wanted []colour.Lab
	for i := range 7 {
		wanted = append(wanted, colour.Lab{L: 30 + 7*float64(i), A: 40 - 12*float64(i), B: -30 + 10*float64(i)})
	}
	for b.Loop() {
		if _, err := table.NearestTo(context.Background(), Criteria{Kind: wheel.Split, Most: 5, Workers: 2}, Helpers{painttest.Paint("PW6"), painttest.Paint("PBk9")}, wanted, acrylic); err != nil {
			b.Fatal(err)
		}
	}
}
