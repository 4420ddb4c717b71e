package recipe_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

func scale(t testing.TB, m recipe.Measure) recipe.Scale {
	t.Helper()
	s, err := recipe.NewScale(m, 0)
	require.NoError(t, err)
	return s
}

func TestADabIsHalfAnEllipsoidAThirdAsHighAsWide(t *testing.T) {
	assert.InDelta(t, math.Pi*1728/18/1000, recipe.DabML(12), 1e-12)
	assert.InDelta(t, 12, recipe.DabMM(recipe.DabML(12)), 1e-9)
	assert.InDelta(t, 13, recipe.DabML(11.76)/recipe.DabML(5), 0.1, "13 to 1 is 12 mm beside 5")
}

func TestMeasuresAreReadAndUsualByMedium(t *testing.T) {
	for _, m := range recipe.Measures {
		read, err := recipe.ParseMeasure(string(m))
		require.NoError(t, err)
		assert.Equal(t, m, read)
	}
	_, err := recipe.ParseMeasure("cups")
	assert.ErrorContains(t, err, "choose dabs, drops")
	for _, in := range paint.Media() {
		assert.Contains(t, recipe.Measures, recipe.UsualMeasure(in), in.ID)
	}
	for _, ml := range []float64{-1, 0.001, 6, math.NaN(), math.Inf(1)} {
		_, err := recipe.NewScale(recipe.Drops, ml)
		assert.Error(t, err, ml)
	}
	own, err := recipe.NewScale(recipe.Drops, 0.04)
	require.NoError(t, err)
	assert.Equal(t, []float64{0.04, 0.05, 0}, []float64{own.One(), scale(t, recipe.Drops).One(), scale(t, recipe.Dabs).One()})
}

// steps are steps of random pairs of coloured paints.
func steps(n int) (out []path.Step) {
	r := rand.New(rand.NewPCG(15, 3))
	for len(out) < n {
		a, b := paint.Library()[r.IntN(len(paint.Library()))], paint.Library()[r.IntN(len(paint.Library()))]
		p := path.New(a, b)
		if a != b && !p.Indistinguishable() {
			out = append(out, p.Steps(3, path.ByHue)...)
		}
	}
	return out
}

func TestWhatIsCountedOutIsEnoughAndNear(t *testing.T) {
	for _, m := range recipe.Measures {
		s := scale(t, m)
		var off []float64
		for _, step := range steps(300) {
			for _, ml := range []float64{0.1, 0.2, 0.5} {
				c := recipe.CountOut(step.Parts, &step.Mixture, s, ml)
				assert.GreaterOrEqual(t, c.ML, ml, "%s of %s", m, step.Parts)
				assert.LessOrEqual(t, len(c.Counts), 2)
				for _, of := range append(slices.Clone(c.Counts), before(c)...) {
					whole := of.Amount
					if m == recipe.Grams {
						whole *= 100
					}
					assert.InDelta(t, math.Round(whole), whole, 1e-9, "%s of %s", m, step.Parts)
				}
				off = append(off, c.DE)
				assert.NotEmpty(t, c.Lines())
			}
		}
		slices.Sort(off)
		t.Logf("%s: median %.2f, nine in ten under %.2f, worst %.2f", m, off[len(off)/2], off[len(off)*9/10], off[len(off)-1])
		if m == recipe.Dabs {
			assert.Less(t, off[len(off)/2], 0.6)
			assert.Less(t, off[len(off)*9/10], 2.0)
		}
	}
}

func before(c recipe.Counted) (out []recipe.Portion) {
	for _, p := range c.Before {
		out = append(out, p.Counts...)
	}
	return out
}

func TestATraceIsLetDownFirst(t *testing.T) {
	yellow, blue := painttest.Paint("PY184"), painttest.Paint("PB15:3")
	r := recipe.OfTwo(yellow, blue, [2]int{37, 1})
	exact, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	c := recipe.CountOut(r, &exact, scale(t, recipe.Drops), 0.2)
	require.Len(t, c.Before, 1, "37 to 1 of four drops is a tenth of a drop")
	assert.Equal(t, "PB15:3", c.Before[0].Counts[0].Paint.ID)
	assert.GreaterOrEqual(t, c.Before[0].ML, c.Before[0].Needed)
	lines := strings.Join(c.Lines(), " ")
	assert.Contains(t, lines, "Let the phthalo blue green shade down first: 1 drop of it in 9 drops of the bismuth yellow.")
	assert.Contains(t, lines, "are left for the next")

	looks := recipe.CountOut(r, &exact, scale(t, recipe.ByLooks), 0.2)
	assert.Equal(t, []string{
		"Rewet the bismuth yellow and brush out a puddle of it.",
		"Add the phthalo blue green shade, the least touch at a time, until it stands a third of the way to it.",
	}, looks.Lines())
}

// From pans a mixture is told by where it stands between its paints: the further, the more of the other.
func TestLooksSayHowFarAPuddleIsTurned(t *testing.T) {
	yellow, blue := painttest.Paint("PY184"), painttest.Paint("PB29")
	var said []string
	for _, of := range []int{1, 4, 10, 20, 40, 90} {
		r := recipe.OfTwo(yellow, blue, [2]int{100, of})
		exact, err := paint.Mix(r.Volumes()...)
		require.NoError(t, err)
		c := recipe.CountOut(r, &exact, scale(t, recipe.ByLooks), 0.2)
		lines := c.Lines()
		require.Len(t, lines, 2)
		_, until, found := strings.Cut(lines[1], "until it stands ")
		require.True(t, found)
		if len(said) == 0 || said[len(said)-1] != until {
			said = append(said, until)
		}
	}
	assert.GreaterOrEqual(t, len(said), 4, "%v", said)
	seen := map[string]bool{}
	for _, words := range said {
		assert.False(t, seen[words], "%s comes back", words)
		seen[words] = true
	}
	assert.Contains(t, strings.Join(said, " "), "half way between the two")
}

func TestAHandStraysLessFromALargerPile(t *testing.T) {
	for _, step := range steps(40) {
		if len(step.Parts) < 2 {
			continue
		}
		s := scale(t, recipe.Dabs)
		small := recipe.CountOut(step.Parts, &step.Mixture, s, 0.1)
		large := recipe.CountOut(step.Parts, &step.Mixture, s, 3)
		assert.Less(t, large.Spread, small.Spread+0.05, step.Parts.String())
		if advice := small.Advice(step.Parts, &step.Mixture); small.Spread > 2 {
			assert.Contains(t, advice, small.Counts[small.Decides].Paint.ShortName())
		} else {
			assert.Empty(t, advice)
		}
	}
}

// Where a hand strays by 3 or more and a let-down brings that lower, the let-down is the recipe;
// its own dabs count, and are a pile that a hand can make.
func TestALetDownIsTheRecipeWhereItHelps(t *testing.T) {
	r := recipe.OfTwo(painttest.Paint("PY65"), painttest.Paint("PR254"), [2]int{13, 1})
	exact, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	c := recipe.CountOut(r, &exact, scale(t, recipe.Dabs), 0.21)
	require.Len(t, c.Before, 1)
	assert.Less(t, c.Spread, 4.1, "what a hand strays by without it")
	helped := 0
	for _, step := range steps(60) {
		for _, ml := range []float64{0.1, 0.2, 0.6} {
			c := recipe.CountOut(step.Parts, &step.Mixture, scale(t, recipe.Dabs), ml)
			for _, pile := range c.Before {
				assert.GreaterOrEqual(t, max(pile.Counts[0].Amount, pile.Counts[1].Amount), 6.0, "%s: %s", step.Parts, c.String())
			}
			if len(c.Before) > 0 {
				helped++
			}
		}
	}
	assert.Greater(t, helped, 10)
}

// What is advised is better than what it is advised for.
func TestAdviceIsBetterThanWhatItIsFor(t *testing.T) {
	figures := regexp.MustCompile(`(?:miss|strays) by ([\d.]+)(?: here)?(?:, and by ([\d.]+) )?`)
	advised := 0
	check := func(r recipe.Recipe, exact *paint.Mixture, ml float64) {
		c := recipe.CountOut(r, exact, scale(t, recipe.Dabs), ml)
		found := figures.FindStringSubmatch(c.Advice(r, exact))
		if found == nil || found[2] == "" {
			return
		}
		advised++
		now, err := strconv.ParseFloat(found[1], 64)
		require.NoError(t, err)
		then, err := strconv.ParseFloat(found[2], 64)
		require.NoError(t, err)
		assert.Less(t, then, now, "%s of %v ml: %s", r, ml, c.Advice(r, exact))
	}
	for _, step := range steps(60) {
		for _, ml := range []float64{0.1, 0.2, 0.6} {
			check(step.Parts, &step.Mixture, ml)
		}
	}
	r := recipe.OfTwo(painttest.Paint("PY3"), painttest.Paint("PB15:3"), [2]int{399, 1})
	exact, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	for _, ml := range []float64{0.1, 0.2, 0.4, 1} {
		check(r, &exact, ml)
	}
	assert.Greater(t, advised, 20)
}

func TestGramsFollowTheClass(t *testing.T) {
	white, blue := painttest.Paint("PW6"), painttest.Paint("PB15:3")
	assert.Greater(t, recipe.Density(white), recipe.Density(blue))
	r := recipe.OfTwo(white, blue, [2]int{9, 1})
	exact, err := paint.Mix(r.Volumes()...)
	require.NoError(t, err)
	c := recipe.CountOut(r, &exact, scale(t, recipe.Grams), 2)
	assert.InDelta(t, 9*recipe.Density(white)/recipe.Density(blue), c.Counts[0].Amount/c.Counts[1].Amount, 0.5)
	assert.Equal(t, "Start with 3.42 g of the titanium white.", c.Lines()[0])
}

func BenchmarkCountOut(b *testing.B) {
	step := steps(3)[1]
	s := scale(b, recipe.Dabs)
	for b.Loop() {
		recipe.CountOut(step.Parts, &step.Mixture, s, 0.2)
	}
}

func ExampleCountOut() {
	r := recipe.OfTwo(painttest.Paint("PY65"), painttest.Paint("PR254"), [2]int{13, 1})
	exact, err := paint.Mix(r.Volumes()...)
	if err != nil {
		panic(err)
	}
	dabs, err := recipe.NewScale(recipe.Dabs, 0)
	if err != nil {
		panic(err)
	}
	counted := recipe.CountOut(r, &exact, dabs, 0.21)
	for _, line := range counted.Lines() {
		fmt.Println(line)
	}
	// Output:
	// Let the pyrrole red down first: a dab 6 mm wide of it in a dab 10 mm wide of the arylide yellow deep. 0.13 ml of it go on, 0.08 ml are left for the next.
	// Start with a dab 10 mm wide of the arylide yellow deep.
	// Add a dab 9 mm wide of the pyrrole red let down.
}

// A hand strays less, in shares, from more of it.
func TestAHandStraysByAShare(t *testing.T) {
	for _, m := range []recipe.Measure{recipe.Dabs, recipe.Drops, recipe.Loads, recipe.Grams, recipe.ByLooks} {
		s := recipe.Scale{Measure: m}
		last := 2.0
		for _, ml := range []float64{0.001, 0.05, 0.3, 2} {
			share := s.StrayOf(ml)
			assert.True(t, share > 0 && share <= 1, "%s of %v ml: %v", m, ml, share)
			assert.LessOrEqual(t, share, last, "%s of %v ml", m, ml)
			last = share
		}
	}
	assert.InDelta(t, 0.09, recipe.Scale{Measure: recipe.Dabs}.StrayOf(recipe.DabML(10)), 1e-9)
}

// What is too little to take is let down before it is added, and the pile comes nearer so.
func TestATraceThatIsAddedIsLetDownFirst(t *testing.T) {
	yellow, blue := painttest.Paint("PY184"), painttest.Paint("PB15:3")
	pile := []paint.Part{{Paint: yellow, Parts: 0.3}}
	for _, m := range []recipe.Measure{recipe.Dabs, recipe.Drops} {
		s := scale(t, m)
		const wanted = 0.0012
		exact, err := paint.Mix(append(slices.Clone(pile), paint.Part{Paint: blue, Parts: wanted})...)
		require.NoError(t, err)
		c := recipe.AddTo(pile, recipe.Ingredient{Paint: blue, Parts: 1}, wanted, &exact, s)
		require.Len(t, c.Before, 1, m)
		assert.Equal(t, yellow, c.Counts[0].In, "in the paint of which there is most")
		straight, err := paint.Mix(append(slices.Clone(pile), paint.Part{Paint: blue, Parts: s.VolumeOf(recipe.Ingredient{Paint: blue}, map[recipe.Measure]float64{recipe.Dabs: 2, recipe.Drops: 1}[m])})...)
		require.NoError(t, err)
		is, want := straight.BrushedOut(), exact.BrushedOut()
		assert.Less(t, c.DE, colour.Difference(is.Lab(), want.Lab()), "%s: better than the least that can be taken straight", m)
		// What is enough to take is added as it is.
		plain := recipe.AddTo(pile, recipe.Ingredient{Paint: blue, Parts: 1}, 0.06, &exact, s)
		assert.Empty(t, plain.Before)
		assert.Nil(t, plain.Counts[0].In)
	}
}

// A pile in which there is too much of something comes to its recipe by the least of the others.
func TestAPileIsMended(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 1))
	grams := scale(t, recipe.Grams)
	for _, step := range steps(80) {
		plain := step.Parts.Plain()
		if len(plain) < 2 {
			continue
		}
		total, ml := recipe.Of(plain).Total(), 0.2+0.4*r.Float64()
		var pile []paint.Part
		for n, p := range plain {
			by := 1.0
			if n == len(plain)-1 {
				by = 0.6 + 1.2*r.Float64()
			}
			pile = append(pile, paint.Part{Paint: p.Paint, Parts: 4 * ml * p.Parts / total * by})
		}
		c := recipe.Mend(pile, step.Parts, &step.Mixture, grams, ml)
		is, err := paint.Mix(pile...)
		require.NoError(t, err)
		off := func(m *paint.Mixture) float64 {
			is, want := m.BrushedOut(), step.Mixture.BrushedOut()
			return colour.Difference(is.Lab(), want.Lab())
		}
		assert.LessOrEqual(t, c.DE, off(&is)+1e-9, "%s: never worse", step.Parts)
		assert.Less(t, c.DE, 2.5, "%s of %v ml: %s", step.Parts, ml, c.String())
		all := slices.Concat(pile, c.Volumes())
		made, err := paint.Mix(all...)
		require.NoError(t, err)
		assert.InDelta(t, c.DE, off(&made), 1e-6, "what is said comes of what is added")
		assert.InDelta(t, recipe.Of(all).Total(), c.ML, 1e-6)
	}
	right := []paint.Part{{Paint: painttest.Paint("PY65"), Parts: 0.26}, {Paint: painttest.Paint("PR254"), Parts: 0.02}}
	thirteen := recipe.OfTwo(painttest.Paint("PY65"), painttest.Paint("PR254"), [2]int{13, 1})
	exact, err := paint.Mix(right...)
	require.NoError(t, err)
	nothing := recipe.Mend(right, thirteen, &exact, scale(t, recipe.Dabs), 0.25)
	assert.Empty(t, nothing.Counts, "it is right")
	assert.Empty(t, nothing.Pieces())
	little := recipe.Mend(right, thirteen, &exact, scale(t, recipe.Dabs), 0.6)
	assert.Len(t, little.Counts, 2, "more of both where it is too little")
	assert.GreaterOrEqual(t, little.ML, 0.57)
}

// However much is asked of a let-down, what it is made of is found at once, and is the smallest.
func TestLetDownsOfAnySizeAreMade(t *testing.T) {
	blue, yellow := painttest.Paint("PB15:3"), painttest.Paint("PY184")
	for _, m := range []recipe.Measure{recipe.Dabs, recipe.Drops, recipe.Grams, recipe.Tips} {
		s := scale(t, m)
		for _, thin := range []int{4, 9, 49, 99} {
			i := recipe.Ingredient{Paint: blue, Parts: 1, In: yellow, Thin: thin}
			for _, ml := range []float64{0.01, 0.3, 5, 900, 170_000} {
				opened := s.Opened(i, ml)
				require.Len(t, opened, 2)
				assert.InDelta(t, ml, opened[0].Parts+opened[1].Parts, 1e-6*ml)
				if ml > 1 {
					assert.InEpsilon(t, ml/float64(thin+1), opened[0].Parts, 0.5, "%s 1:%d of %v ml", m, thin, ml)
				}
			}
		}
	}
}
