package certainty

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// A recipe says what the step of a path says that it is of, however it was come by.
func TestARecipeIsDoubtedAsItsStepIs(t *testing.T) {
	p := path.New(painttest.Paint("PY184"), painttest.Paint("PB29"))
	middle := p.Middle(path.ByHue)
	for range 2 { // once more from memory
		got := OfRecipe(middle.Parts, Usual)
		require.NotNil(t, got)
		want := OfPath(p, path.ByHue, middle.Under.Verdict, middle.Parts, Usual)
		assert.InDelta(t, want.Known, got.Known, 0.06, "counted, it lies a little off half way")
		assert.Equal(t, want.Sure, got.Sure)
	}
	assert.Nil(t, OfRecipe(recipe.Pure(painttest.Paint("PB29")), Usual))
	three := recipe.Of([]paint.Part{{Paint: painttest.Paint("PB29"), Parts: 1}, {Paint: painttest.Paint("PY184"), Parts: 1}, {Paint: painttest.Paint("PR254"), Parts: 1}})
	assert.Equal(t, []*Confidence{nil}, OfRecipes([]recipe.Recipe{three}, Usual))
	white := OfRecipe(recipe.Of([]paint.Part{{Paint: painttest.Paint("PB29"), Parts: 1}, {Paint: painttest.Paint("PW6"), Parts: 9}}), Usual)
	require.NotNil(t, white)
	assert.Empty(t, white.Of[0].Says(), "nothing is in doubt of white, of which there is more")
}

// With tubes drawn from the table nine of ten do not ask for more of a paint than is said, mixed by strength.
func TestMostTubesAskForNoMore(t *testing.T) {
	a, b, c := painttest.Paint("PY184"), painttest.Paint("PB29"), painttest.Paint("PR254")
	mixed := func(p, q *paint.Paint, x, y, ml float64) Mixed {
		return Mixed{recipe.Of([]paint.Part{{Paint: p, Parts: x}, {Paint: q, Parts: y}}), ml}
	}
	all := []Mixed{mixed(a, b, 9, 1, 2), mixed(a, b, 4, 1, 2), mixed(a, c, 5, 1, 2), mixed(c, b, 1, 1, 1), {recipe.Pure(b), 1}}
	more := MoreAsked(all, map[*paint.Paint]float64{a: 100, b: 100, c: 100}, Usual)
	r := rand.New(rand.NewPCG(33, 14))
	of := func(strength map[*paint.Paint]float64, asked *paint.Paint) (sum float64) {
		for _, m := range all {
			parts := m.Recipe.Plain()
			whole := 0.0
			for _, p := range parts {
				whole += p.Parts / strength[p.Paint]
			}
			for _, p := range parts {
				if p.Paint == asked {
					sum += m.ML * p.Parts / strength[p.Paint] / whole
				}
			}
		}
		return sum
	}
	as := map[*paint.Paint]float64{a: 1, b: 1, c: 1}
	for _, asked := range []*paint.Paint{a, b, c} {
		require.Positive(t, more[asked], asked.ID)
		enough, all := 0, 0
		for range 400 {
			strength := map[*paint.Paint]float64{}
			for _, p := range []*paint.Paint{a, b, c} {
				strength[p] = math.Exp(Usual(p).Strength * r.NormFloat64())
			}
			all++
			if of(strength, asked) <= of(as, asked)*(1+more[asked]/100) {
				enough++
			}
		}
		assert.InDelta(t, 0.9, float64(enough)/float64(all), 0.05, asked.ID)
	}
	assert.Empty(t, MoreAsked([]Mixed{{recipe.Pure(b), 1}}, map[*paint.Paint]float64{b: 1}, Usual), "a paint as it comes asks for no more")
}

// The ends are told in the order of the recipe, and in parts of the let-down where it has one: mixed so they are the ends of the range.
func TestEndsAreToldAsARecipeCounts(t *testing.T) {
	yellow, blue := painttest.Paint("PY184"), painttest.Paint("PB15:3")
	for _, r := range []recipe.Recipe{
		{{Paint: yellow, Parts: 29}, {Paint: blue, Parts: 1, In: yellow, Thin: 9}},
		{{Paint: blue, Parts: 1, In: yellow, Thin: 9}, {Paint: yellow, Parts: 4}},
		{{Paint: yellow, Parts: 9}, {Paint: blue, Parts: 1}},
		{{Paint: blue, Parts: 1}, {Paint: yellow, Parts: 9}},
	} {
		said := OfRecipe(r, Usual)
		require.NotNil(t, said)
		thin := r[0].Thin + r[1].Thin
		require.Equal(t, thin > 0, said.LetDown)
		assert.Equal(t, thin > 0, strings.Contains(said.Parts(), " of the let-down: begin with "+said.Begin.String()))
		for _, end := range []struct{ told, plain Ratio }{{said.Begin, said.Range.Less}, {said.Other, said.Range.More}} {
			var told recipe.Recipe
			for n, i := range r {
				told = append(told, recipe.Ingredient{Paint: i.Paint, Parts: float64(end.told[n]), In: i.In, Thin: i.Thin})
			}
			mixed := told.Plain()
			of := map[*paint.Paint]float64{}
			for _, p := range mixed {
				of[p.Paint] += p.Parts
			}
			assert.InDelta(t, math.Log(float64(end.plain[1])/float64(end.plain[0])), math.Log(of[blue]/of[yellow]), 0.12, "%s", r)
		}
	}
}
