package certainty

import (
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// askedRecipe is what is said of a recipe of two depends on.
type askedRecipe struct {
	pairKey
	ratio float64
}

var rememberedRecipes memo[askedRecipe, Confidence]

// OfRecipe is what is said of a recipe of two paints, that of which there is more first, as a hand takes them; nil of what is
// none, or of which nothing is in doubt.
func OfRecipe(r recipe.Recipe, doubt Doubts) *Confidence {
	parts := r.Plain()
	if len(parts) != 2 || parts[0].Paint == parts[1].Paint || parts[0].Parts <= 0 || parts[1].Parts <= 0 {
		return nil
	}
	if parts[1].Parts > parts[0].Parts {
		slices.Reverse(parts)
	}
	a, b := parts[0].Paint, parts[1].Paint
	of := [2]Doubt{doubt(a), doubt(b)}
	ratio := math.Log(parts[1].Parts / parts[0].Parts)
	out := rememberedRecipes.get(askedRecipe{pairKeyOf(a, b, of), ratio}, func() Confidence { return ofRecipe(r, a, b, ratio, doubt) })
	if out.Sure == "" {
		return nil
	}
	out.A, out.B, out.Of = a, b, of
	out.countIn(r)
	return &out
}

func ofRecipe(r recipe.Recipe, a, b *paint.Paint, ratio float64, doubt Doubts) Confidence {
	p := path.New(a, b)
	if p.Indistinguishable() {
		return Confidence{}
	}
	share := 1 / (1 + math.Exp(-ratio))
	at := Position{Along: min(max(p.ReachedAt(share, path.ByHue), 1e-6), 1-1e-6)}
	step := Steps(p, path.ByHue, doubt, at)[0]
	m := p.At(share)
	return *confidenceIn(p, &step, m.Undertone().Verdict, r, doubt)
}

// OfRecipes is what is said of each of some recipes.
func OfRecipes(all []recipe.Recipe, doubt Doubts) []*Confidence {
	out := make([]*Confidence, len(all))
	var working errgroup.Group
	working.SetLimit(runtime.GOMAXPROCS(0))
	for i, r := range all {
		working.Go(func() error {
			out[i] = OfRecipe(r, doubt)
			return nil
		})
	}
	if err := working.Wait(); err != nil {
		panic(err) // none fails
	}
	return out
}

// Mixed is so many ml of a recipe.
type Mixed struct {
	Recipe recipe.Recipe
	ML     float64
}

// leastSetAside is the least that is set aside of a paint, ml.
const leastSetAside = 0.05

// MoreAsked is how many ml more than is laid out of each paint are enough in nine of ten cases: mixed to the hue a weak tube is
// taken more of, in all of its mixtures alike. Laid out is more than the mixtures hold, and what is asked for grows with it.
// Paints of which next to nothing more is asked for are left out.
func MoreAsked(all []Mixed, laidOut map[*paint.Paint]float64, doubt Doubts) map[*paint.Paint]float64 {
	var paints []*paint.Paint
	at := map[*paint.Paint]int{}
	total := map[*paint.Paint]float64{}
	for _, m := range all {
		parts := m.Recipe.Plain()
		whole := recipe.Volume(parts)
		for _, p := range parts {
			if _, there := at[p.Paint]; !there {
				at[p.Paint], paints = len(paints), append(paints, p.Paint)
			}
			total[p.Paint] += m.ML * p.Parts / whole
		}
	}
	joint := Together(paints, doubt)
	out := map[*paint.Paint]float64{}
	for _, asked := range paints {
		// How its total changes with the logarithm of each tube's strength: c_i moves by -c_i (1 - c_i) with its own, and by
		// c_i c_j with another's.
		slopes := make([]float64, perTube*len(paints))
		for _, m := range all {
			parts := m.Recipe.Plain()
			whole := recipe.Volume(parts)
			mine := 0.0
			for _, p := range parts {
				if p.Paint == asked {
					mine = p.Parts / whole
				}
			}
			for _, p := range parts {
				if c := p.Parts / whole; p.Paint == asked {
					slopes[perTube*at[p.Paint]] -= m.ML * mine * (1 - mine)
				} else {
					slopes[perTube*at[p.Paint]] += m.ML * mine * c
				}
			}
		}
		if more := laidOut[asked] * within80 * joint.deviation(slopes) / total[asked]; more >= leastSetAside {
			out[asked] = more
		}
	}
	return out
}
