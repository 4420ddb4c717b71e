package recipe_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
)

func ExampleRecipe_Mixing() {
	white, yellow, blue := painttest.Paint("PW6"), painttest.Paint("PY65"), painttest.Paint("PB15:3")
	r := recipe.Recipe{{Paint: yellow, Parts: 9}, {Paint: blue, Parts: 1, In: yellow, Thin: 9}, {Paint: white, Parts: 4}}
	fmt.Println(r)
	for _, line := range r.Mixing() {
		fmt.Println(line)
	}
	// Output:
	// 9 PY65 : 1 PB15:3 (let down 1:9 in PY65) : 4 PW6
	// Let the phthalo blue green shade down first: 1 part in 9 parts of the arylide yellow deep.
	// Lay out 4 parts of the titanium white, the weakest.
	// Add the arylide yellow deep a little at a time, up to 9 parts.
	// Add this let-down of the phthalo blue green shade a little at a time, up to 1 part.
}

func TestAPaintAloneComesStraightFromTheTube(t *testing.T) {
	white := painttest.Paint("PW6")
	want := []string{"Straight from the tube: the titanium white as it comes."}
	assert.Equal(t, want, recipe.Pure(white).Mixing())
	assert.Equal(t, want, recipe.Pure(white).MixingFrom(white))
	assert.Equal(t, "1 of the titanium white", recipe.Pure(white).Words())
	assert.Equal(t, recipe.Pure(white), recipe.OfTwo(white, painttest.Paint("PB29"), [2]int{3, 0}))
}

func TestPartsAreReduced(t *testing.T) {
	a, b := painttest.Paint("PY74"), painttest.Paint("PB29")
	for _, c := range []struct{ given, want [2]int }{
		{[2]int{4, 6}, [2]int{2, 3}}, {[2]int{3, 7}, [2]int{3, 7}}, {[2]int{40, 40}, [2]int{1, 1}},
	} {
		r := recipe.OfTwo(a, b, c.given)
		assert.Equal(t, c.want, [2]int{int(r[0].Parts), int(r[1].Parts)})
		assert.Equal(t, float64(c.want[0]+c.want[1]), r.Total())
	}
}

// A stirred recipe, its volumes and its ingredients mixed are the same paint.
func TestARecipeIsOneMixtureHoweverItIsMade(t *testing.T) {
	yellow, blue, white := painttest.Paint("PY74"), painttest.Paint("PB15:3"), painttest.Paint("PW6")
	r := recipe.Recipe{{Paint: yellow, Parts: 7}, {Paint: blue, Parts: 3, In: yellow, Thin: 19}, {Paint: white, Parts: 2}}
	stirred, err := r.Stir("green", "green")
	require.NoError(t, err)
	mixed, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	alone := stirred.Alone()
	a, b := mixed.K(), alone.K()
	assert.InDeltaSlice(t, a[:], b[:], 1e-9)
	sum := 0.0
	for _, v := range r.Volumes() {
		sum += v.Parts
	}
	assert.InDelta(t, 12, sum, 1e-9)
	var plain []string
	for _, v := range (recipe.Recipe{{Paint: stirred, Parts: 6}, {Paint: blue, Parts: 1}}).Plain() {
		plain = append(plain, fmt.Sprintf("%s %.3f", v.Paint.ID, v.Parts))
	}
	assert.Equal(t, []string{"PY74 4.925", "PB15:3 1.075", "PW6 1.000"}, plain, "each paint once, whatever it came in")
	assert.True(t, recipe.Pure(blue).IsPlain())
	assert.False(t, r.IsPlain())
	_, err = recipe.Recipe{}.Stir("nothing", "nothing")
	assert.Error(t, err)
}

// The smallest whole numbers by brute force: no smaller total would have done.
func TestARatioIsTheSmallestThatIsNearEnough(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 9))
	for range 500 {
		share := random.Float64()
		steep := 0.2 + 3*random.Float64()
		off := func(t float64) float64 { return steep * math.Abs(t-share) }
		parts, ok := recipe.Search{Share: share, High: 1, Off: off}.Ratio()
		rounded, okRounded := recipe.Search{Share: share, Off: off}.Ratio()
		assert.Equal(t, parts, rounded, "where farther is worse, only what the share rounds to can be the nearest")
		assert.Equal(t, ok, okRounded)
		at := func(p [2]int) float64 { return off(float64(p[1]) / float64(p[0]+p[1])) }
		assert.Equal(t, ok, at(parts) <= recipe.NearEnough)
		for total := 2; total <= recipe.MostParts; total++ {
			for b := 1; b < total; b++ {
				other := [2]int{total - b, b}
				if ok && total < parts[0]+parts[1] {
					assert.Greater(t, at(other), recipe.NearEnough, "%v would have done for %v", other, share)
				}
				if !ok {
					assert.GreaterOrEqual(t, at(other), at(parts)-1e-12)
				}
			}
		}
	}
}

func TestATraceIsLetDown(t *testing.T) {
	const share = 1.0 / 300
	off := func(t float64) float64 { return 10 * math.Abs(t-share) }
	_, ok := recipe.Search{Share: share, High: 0.05, Off: off}.Ratio()
	require.False(t, ok)
	parts, thin, ok := recipe.Search{Share: share, High: 0.05, Off: off}.LetDown()
	require.True(t, ok)
	assert.Equal(t, 9, thin, "the weaker let-down first")
	assert.LessOrEqual(t, off(float64(parts[1])/float64((parts[0]+parts[1])*(thin+1))), recipe.NearEnough)
	_, _, ok = recipe.Search{Share: share, High: 0.05, Off: func(float64) float64 { return 1 }}.LetDown()
	assert.False(t, ok)
}

func TestAPartMoreMustBeWorthCounting(t *testing.T) {
	paints := []*paint.Paint{painttest.Paint("PY74"), painttest.Paint("PR254"), painttest.Paint("PB29")}
	shares := []float64{0.6, 0.3, 0.1}
	off := func(r recipe.Recipe) float64 {
		sum := map[*paint.Paint]float64{}
		total := 0.0
		for _, v := range r.Volumes() {
			sum[v.Paint] += v.Parts
			total += v.Parts
		}
		d := 0.0
		for i, p := range paints {
			d += math.Abs(sum[p]/total - shares[i])
		}
		return d
	}
	r, d := recipe.Counted(paints, shares, func(r recipe.Recipe) float64 { return 10 * off(r) })
	assert.Zero(t, math.Round(d*1e9))
	assert.Equal(t, 10.0, r.Total())
	rough, _ := recipe.Counted(paints, shares, func(r recipe.Recipe) float64 { return 0.1 * off(r) })
	assert.Less(t, rough.Total(), 10.0)

	let, _ := recipe.CountedLetDown(paints, []float64{0.7, 0.297, 0.003}, off)
	require.Len(t, let, 3)
	assert.Equal(t, paints[0], let[2].In, "the least in the most")
	_, d = recipe.CountedLetDown(paints[:1], []float64{1}, off)
	assert.True(t, math.IsInf(d, 1))
}

func TestRaisedPaintsComeToTheLightnessAskedFor(t *testing.T) {
	white := paint.White()
	for _, id := range []string{"PB60", "PR83", "PB15:3", "PV23"} {
		p, raised := recipe.Raise(painttest.Paint(id), white, 60)
		require.True(t, raised, id)
		m := p.Alone()
		assert.InDelta(t, 60, m.BrushedOut().Lab().L, 3, id)
		assert.LessOrEqual(t, p.Of[0].Parts+p.Of[1].Parts, float64(recipe.MostParts))
		assert.Same(t, white, p.Of[1].Paint)
	}
	_, raised := recipe.Raise(painttest.Paint("PY184"), white, 50)
	assert.False(t, raised, "it is lighter already")
	_, raised = recipe.Raise(painttest.Paint("PBk9"), white, 50)
	assert.False(t, raised, "a black is not raised")
}
