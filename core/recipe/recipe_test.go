package recipe_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
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
	// Start with 9 parts of the arylide yellow deep.
	// Add the titanium white a little at a time, up to 4 parts.
	// Add this let-down of the phthalo blue green shade a trace at a time, up to 1 part.
}

func TestAPaintAloneComesStraightFromTheTube(t *testing.T) {
	white := painttest.Paint("PW6")
	want := []string{"Straight from the tube: the titanium white as it comes."}
	assert.Equal(t, want, recipe.Pure(white).Mixing())
	assert.Equal(t, want, recipe.Pure(white).MixingToTaste())
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

// look is the masstone of some paints by shares.
func look(t *testing.T, paints []*paint.Paint) func([]float64) colour.Lab {
	return func(shares []float64) colour.Lab {
		var parts []paint.Part
		for i, share := range shares {
			if share > 0 { // what is wanted, or what was counted
				parts = append(parts, paint.Part{Paint: paints[i], Parts: share})
			}
		}
		m, err := paint.Mix(parts...)
		require.NoError(t, err)
		seen := m.Masstone()
		return seen.Lab()
	}
}

func TestSmallNumbersAreCountedBeforeADifferenceNobodySees(t *testing.T) {
	paints := painttest.Paints("PY74", "PR254", "PB29")
	see := look(t, paints)
	// By brute force: no recipe of fewer parts would have been worth it.
	for _, shares := range [][]float64{{0.6, 0.3, 0.1}, {0.5, 0.45, 0.05}, {0.21, 0.37, 0.42}, {0.1, 0.8, 0.1}} {
		want := see(shares)
		got, _, cost := recipe.Blend{Paints: paints, Shares: shares, Colour: want, Look: see}.Countable()
		require.True(t, got.IsPlain())
		for total := 1; total <= recipe.MostParts; total++ {
			n := [3]float64{}
			sum := 0.0
			for i, share := range shares {
				n[i] = math.Round(share * float64(total))
				sum += n[i]
			}
			if sum == 0 {
				continue
			}
			other := colour.Difference(want, see([]float64{n[0] / sum, n[1] / sum, n[2] / sum}))
			assert.LessOrEqual(t, cost, other+0.03*sum+1e-9, "%v would have been better for %v than %v", n, shares, got)
		}
	}
}

func TestTracesAreLetDownOneByOneOrAsAHue(t *testing.T) {
	white, yellow, red, blue := painttest.Paint("PW6"), painttest.Paint("PY184"), painttest.Paint("PR254"), painttest.Paint("PB29")
	paints := []*paint.Paint{white, yellow, red, blue}
	see := look(t, paints)
	for _, c := range []struct {
		parts []float64
		hue   bool
	}{
		{[]float64{4000, 170, 20, 10}, true},
		{[]float64{30, 9, 0.05, 0.03}, false},
	} {
		sum := c.parts[0] + c.parts[1] + c.parts[2] + c.parts[3]
		shares := make([]float64, 4)
		for i := range shares {
			shares[i] = c.parts[i] / sum
		}
		got, off, _ := recipe.Blend{Paints: paints, Shares: shares, Colour: see(shares), Look: see}.Countable()
		assert.Less(t, off, 1.0)
		assert.Equal(t, c.hue, strings.Contains(got.String(), "hue ("), got)
		assert.Equal(t, !c.hue, strings.Contains(got.String(), "let down 1:"), got)
		volumes := make([]float64, 4)
		for _, v := range got.Plain() {
			volumes[slices.Index(paints, v.Paint)] += v.Parts / got.Total()
		}
		assert.InDelta(t, 0, colour.Difference(see(volumes), see(shares))-off, 1e-6, "the difference is of what the recipe makes")
		for _, step := range got.Steps() {
			assert.LessOrEqual(t, step.Total(), float64(recipe.MostParts))
			for _, i := range step {
				assert.Equal(t, math.Trunc(i.Parts), i.Parts)
			}
		}
	}
}

func TestAHueIsMixedFirstAndLetDownTwice(t *testing.T) {
	white, yellow, red := painttest.Paint("PW6"), painttest.Paint("PY184"), painttest.Paint("PR254")
	hue, err := recipe.OfTwo(yellow, red, [2]int{8, 1}).Stir(recipe.HueID, "hue")
	require.NoError(t, err)
	r := recipe.Recipe{{Paint: white, Parts: 5}, {Paint: hue, Parts: 2, In: white, Thin: 99}}
	assert.Equal(t, "5 PW6 : 2 hue (8 PY184 : 1 PR254) (let down 1:99 in PW6)", r.String())
	assert.Equal(t, []string{
		"Mix the hue first: 8 parts of the bismuth yellow, then 1 of the pyrrole red.",
		"Let the hue down, twice: 1 part in 9 parts of the titanium white, then 1 part of that in 9 parts more.",
		"Start with 5 parts of the titanium white.",
		"Add this let-down of the hue a little at a time, up to 2 parts.",
	}, r.Mixing())
	assert.Len(t, r.Steps(), 4, "the hue, twice let down, and the recipe")
}

func TestMixingBeginsWithWhatMakesMostOfThePile(t *testing.T) {
	random := rand.New(rand.NewPCG(14, 7))
	library := paint.Library()
	for range 200 {
		var r recipe.Recipe
		for _, i := range random.Perm(len(library))[:2+random.IntN(3)] {
			r = append(r, recipe.Ingredient{Paint: library[i], Parts: float64(1 + random.IntN(4))})
		}
		order := r.InOrder()
		assert.ElementsMatch(t, r, order)
		for i, b := range order[1:] {
			a := order[i]
			x, y := a.Mixture(), b.Mixture()
			assert.True(t, a.Parts > b.Parts || a.Parts == b.Parts && x.Absorption() <= y.Absorption(), r)
		}
		assert.Contains(t, r.Mixing()[0], "Start with "+recipe.Count(order[0].Parts)+" of the "+order[0].Paint.ShortName())
	}
}

func TestWhatToAddIsSaidByHueOrByLightness(t *testing.T) {
	of := func(a, b string) string {
		return recipe.ToTaste(recipe.Ingredient{Paint: painttest.Paint(a)}, recipe.Ingredient{Paint: painttest.Paint(b)})
	}
	assert.Equal(t, "Too near red: more of the arylide yellow light. Still too near yellow: more of the pyrrole red.", of("PY3", "PR254"))
	assert.Equal(t, "Too pale: more of the pyrrole red. Too dark: more of the titanium white.", of("PW6", "PR254"))
	assert.Equal(t, "Too pale: more of the bone black. Too dark: more of the titanium white.", of("PBk9", "PW6"))
	assert.Equal(t, "Too near the arylide yellow light: more of the bismuth yellow. Still too near the bismuth yellow: more of the arylide yellow light.", of("PY184", "PY3"))
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
