package reach

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
)

func painted(m paint.Mixture, in paint.Medium) colour.Lab {
	r := m.AsPainted(in, false)
	return r.Lab()
}

func TestNearestFindsWhatWasMixed(t *testing.T) {
	box := painttest.Paints("PY74", "PR254", "PB29", "PW6", "PBk9")
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	for _, parts := range [][]float64{{1, 0, 0, 0, 0}, {3, 1, 0, 0, 0}, {2, 1, 1, 0, 0}, {4, 1, 0, 6, 0}, {0, 1, 2, 8, 1}} {
		var of []paint.Part
		for i, n := range parts {
			if n > 0 {
				of = append(of, paint.Part{Paint: box[i], Parts: n})
			}
		}
		m, err := paint.Mix(of...)
		require.NoError(t, err)
		got, err := Nearest(painted(m, acrylic), box, acrylic)
		require.NoError(t, err)
		assert.Less(t, got.DE, 1.2, parts)
		assert.LessOrEqual(t, len(got.Parts), 4)
		for _, p := range got.Parts {
			assert.Positive(t, p.Parts)
			assert.Equal(t, math.Trunc(p.Parts), p.Parts)
		}
		assert.LessOrEqual(t, got.Parts.Total(), 40.0)
		again, err := paint.Mix(got.Parts.Volumes()...)
		require.NoError(t, err)
		assert.InDelta(t, 0, colour.Difference(got.Lab, painted(again, acrylic)), 1e-9, "what is said is what the parts make")
	}
	_, err = Nearest(colour.Lab{L: 50}, nil, acrylic)
	assert.Error(t, err)
}

func TestATraceOfAStrongPaintIsLetDownFirst(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	box := painttest.Paints("PY184", "PB15:3", "PR255", "PW6")
	m, err := paint.Mix(paint.Part{Paint: box[0], Parts: 150}, paint.Part{Paint: box[1], Parts: 1})
	require.NoError(t, err)
	got, err := Nearest(painted(m, acrylic), box, acrylic)
	require.NoError(t, err)
	assert.Less(t, got.DE, 1.0)
	let := 0
	for _, p := range got.Parts {
		if p.In != nil {
			let++
			assert.Equal(t, "PB15:3", p.Paint.ID)
			assert.Equal(t, "PY184", p.In.ID)
		}
	}
	assert.Equal(t, 1, let, "1 part in 150 cannot be counted out")
	assert.LessOrEqual(t, got.Parts.Total(), 40.0)
	again, err := paint.Mix(got.Parts.Volumes()...)
	require.NoError(t, err)
	assert.InDelta(t, 0, colour.Difference(got.Lab, painted(again, acrylic)), 1e-6, "what is said is what the parts make")
}

func TestEarthsAreReachedFromPrimaries(t *testing.T) {
	box := painttest.Paints("PY74", "PR254", "PB29", "PW6")
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	for _, id := range []string{"PY43", "PBr7-burnt-sienna", "PBr7-raw-umber"} {
		got, err := Nearest(painted(painttest.Paints(id)[0].Alone(), acrylic), box, acrylic)
		require.NoError(t, err)
		assert.Less(t, got.DE, 5.0, id)
	}
}

func TestWhatASystemsPaintsMakeIsRecovered(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	random := rand.New(rand.NewPCG(1, 2))
	for _, ids := range [][]string{
		{"PY184", "PR255", "PB29", "PW6"},
		{"PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3", "PW6"},
		{"PY184", "PY43", "PBr7-burnt-sienna", "PR122", "PB29", "PB15:3", "PW6", "PBk9"},
	} {
		box := painttest.Paints(ids...)
		for range 60 {
			var of []paint.Part
			for _, i := range random.Perm(len(box))[:1+random.IntN(4)] {
				of = append(of, paint.Part{Paint: box[i], Parts: float64(1 + random.IntN(10))})
			}
			m, err := paint.Mix(of...)
			require.NoError(t, err)
			got, err := Nearest(painted(m, acrylic), box, acrylic)
			require.NoError(t, err)
			assert.Less(t, got.DE, 1.0, of)
		}
	}
}

// Pale, middle and dark mixtures of the library's paints, in every medium, are found
// again from those paints, in parts that can be counted.
func TestRandomMixturesAreRecovered(t *testing.T) {
	random := rand.New(rand.NewPCG(14, 1))
	var coloured []*paint.Paint
	for _, p := range paint.Library() {
		if m := p.Alone(); !m.Neutral() {
			coloured = append(coloured, p)
		}
	}
	missed, all := 0, 500
	for n := range all {
		in := paint.Media()[n%len(paint.Media())]
		var of []paint.Part
		for _, i := range random.Perm(len(coloured))[:2+random.IntN(3)] {
			of = append(of, paint.Part{Paint: coloured[i], Parts: float64(1 + random.IntN(10))})
		}
		switch n / len(paint.Media()) % 3 {
		case 0: // pale
			of[0] = paint.Part{Paint: paint.White(), Parts: math.Exp(3 + 3*random.Float64())}
		case 1:
			of[0] = paint.Part{Paint: painttest.Paint("PBk9"), Parts: float64(1 + random.IntN(10))}
		}
		m, err := paint.Mix(of...)
		require.NoError(t, err)
		var box []*paint.Paint
		for _, p := range of {
			box = append(box, p.Paint)
		}
		got, err := Nearest(painted(m, in), box, in)
		require.NoError(t, err)
		again, err := paint.Mix(got.Parts.Volumes()...)
		require.NoError(t, err)
		assert.InDelta(t, 0, colour.Difference(got.Lab, painted(again, in)), 1e-6, "what is said is what the parts make")
		for _, step := range got.Parts.Steps() {
			assert.LessOrEqual(t, step.Total(), float64(recipe.MostParts))
		}
		if got.DE > 1 {
			missed++
			t.Logf("%s: %.2f: wanted %v, got %v", in.ID, got.DE, recipe.Of(of), got.Parts)
		}
	}
	assert.LessOrEqual(t, missed, all/100)
}

func TestAColourPassesForTheWantedOneUpToThree(t *testing.T) {
	assert.True(t, Match{DE: 3}.Reached())
	assert.False(t, Match{DE: 3.01}.Reached())
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	ochre := painttest.Paint("PY43")
	m := ochre.Alone()
	lab := painted(m, in)
	for _, c := range []struct {
		de   float64
		says string
	}{
		{0.9, "Mix 1 of the yellow ochre."},
		{1.1, "Mix 1 of the yellow ochre. That is close: a little darker."},
		{3.1, "It cannot be reached: the nearest is 1 of the yellow ochre, and is a little darker."},
	} {
		got := Match{Parts: recipe.Pure(ochre), Mixture: m, DE: c.de}.Sentence(colour.Lab{L: lab.L + 2, A: lab.A, B: lab.B}, in)
		assert.Equal(t, c.says, got)
	}
}

func BenchmarkNearest(b *testing.B) {
	box := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3", "PW6", "PBk9")
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	want := painted(painttest.Paints("PY43")[0].Alone(), acrylic)
	for b.Loop() {
		if _, err := Nearest(want, box, acrylic); err != nil {
			b.Fatal(err)
		}
	}
}

// Of recipes that come as near, that which a hand strays in least is taken, and never one that misses what
// the other reaches.
func TestEqualMatchesAreOrderedByWhatAHandStrays(t *testing.T) {
	yellow, red, blue := painttest.Paint("PY74"), painttest.Paint("PR254"), painttest.Paint("PB15:3")
	match := func(de float64, parts ...paint.Part) Match {
		m, err := paint.Mix(parts...)
		require.NoError(t, err)
		return Match{Parts: recipe.Of(parts), Mixture: m, DE: de}
	}
	delicate := match(0.4, paint.Part{Paint: yellow, Parts: 39}, paint.Part{Paint: blue, Parts: 1})
	steady := match(0.8, paint.Part{Paint: yellow, Parts: 1}, paint.Part{Paint: red, Parts: 1})
	assert.Equal(t, steady.Parts, steadiest(delicate, []Match{delicate, steady}).Parts)
	assert.Equal(t, steady.Parts, steadiest(steady, []Match{delicate, steady}).Parts)
	steady.DE = 1.05 // it is not reached any more
	delicate.DE = 0.9
	assert.Equal(t, delicate.Parts, steadiest(delicate, []Match{delicate, steady}).Parts)
}
