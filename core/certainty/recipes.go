package certainty

import (
	"math"
	"runtime"
	"slices"
	"sync"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// askedRecipe is what is said of a recipe of two depends on, whatever its paints are called.
type askedRecipe struct {
	a, b   uint64 // fingerprints
	doubts [2]Doubt
	joint  uint64
	ratio  float64
}

// rememberedRecipes are recipes of which it was said before.
var rememberedRecipes = struct {
	sync.Mutex
	of map[askedRecipe]Confidence
}{of: map[askedRecipe]Confidence{}}

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
	key := askedRecipe{a: a.Fingerprint(), b: b.Fingerprint(), doubts: of, joint: fingerprint(of), ratio: math.Log(parts[1].Parts / parts[0].Parts)}
	for i := range key.doubts {
		key.doubts[i].Learned, key.doubts[i].Tube = nil, 0
	}
	rememberedRecipes.Lock()
	out, before := rememberedRecipes.of[key]
	rememberedRecipes.Unlock()
	if !before {
		out = ofRecipe(r, a, b, key.ratio, doubt)
		rememberedRecipes.Lock()
		if len(rememberedRecipes.of) >= mostRemembered {
			clear(rememberedRecipes.of)
		}
		rememberedRecipes.of[key] = out
		rememberedRecipes.Unlock()
	}
	if out.Sure == "" {
		return nil
	}
	out.A, out.B, out.Of = a, b, of
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

// MoreAsked is how much more than the recipes have of each paint, as a share of it, is enough in nine of ten cases: mixed to
// the hue a weak tube is taken more of, in all of its mixtures alike. Paints of which nothing is in doubt are left out.
func MoreAsked(all []Mixed, doubt Doubts) map[*paint.Paint]float64 {
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
		slope := make([]float64, len(paints))
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
					slope[at[p.Paint]] -= m.ML * mine * (1 - mine)
				} else {
					slope[at[p.Paint]] += m.ML * mine * c
				}
			}
		}
		variance := 0.0
		for i, x := range slope {
			for k, y := range slope {
				variance += x * y * joint.Covariance[perTube*i][perTube*k]
			}
		}
		if more := within80 * math.Sqrt(max(0, variance)) / total[asked]; more > 0 {
			out[asked] = more
		}
	}
	return out
}
