package reach

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func TestTheSystemThatSuitsWantedColours(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	table := tableOf(t, painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"))
	helpers := painttest.Paints("PW6", "PBk9")
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
			one, err := Nearest(wanted[c], append(s.System.Paints(), helpers...), acrylic)
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
	_, err = tableOf(t, paint.Library()).NearestTo(context.Background(), Criteria{Kind: wheel.Split}, helpers, wanted, acrylic)
	assert.ErrorContains(t, err, "choose from fewer paints")
	_, err = table.NearestTo(context.Background(), Criteria{Kind: wheel.RYB}, helpers, nil, acrylic)
	assert.ErrorContains(t, err, "no colour is wanted")
}

func TestWantedColoursAreSuitedFromFewPaintsOfALargeBox(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	few := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	var among []string
	for _, p := range few {
		among = append(among, p.ID)
	}
	var large []*paint.Paint
	for n := range 2 {
		for _, p := range paint.Library() {
			tube, err := p.Tube(fmt.Sprintf("tube-%d-%s", n, p.ID), 1)
			require.NoError(t, err)
			large = append(large, tube)
		}
	}
	table := tableOf(t, append(large, few...))
	require.Greater(t, len(table.paints), 64, "more than a set of bits holds")
	helpers, wanted := painttest.Paints("PW6", "PBk9"), []colour.Lab{{L: 50, A: 40, B: 30}, {L: 40, A: -10, B: -25}, {L: 20}}
	w := Criteria{Kind: wheel.Split, Among: among, Most: 3}
	got, err := table.NearestTo(t.Context(), w, helpers, wanted, acrylic)
	require.NoError(t, err)
	want, err := tableOf(t, few).NearestTo(t.Context(), w, helpers, wanted, acrylic)
	require.NoError(t, err)
	require.Len(t, want, 1)
	require.Len(t, got, 1)
	assert.InDeltaSlice(t, want[0].DE, got[0].DE, 0.05)

	w.Among = nil
	_, err = table.NearestTo(t.Context(), w, helpers, wanted, acrylic)
	assert.ErrorContains(t, err, "choose from fewer paints", "and not after an age")
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
		if _, err := table.NearestTo(context.Background(), Criteria{Kind: wheel.Split, Most: 5, Workers: 2}, painttest.Paints("PW6", "PBk9"), wanted, acrylic); err != nil {
			b.Fatal(err)
		}
	}
}
