package journal

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// sectionsOf are the paths that a split wheel of these roles mixes along.
func sectionsOf(t testing.TB, roles [3][]string) (paths []*path.Path, paints []*paint.Paint) {
	t.Helper()
	system, err := wheel.NewSystem(wheel.Split, [3][]*paint.Paint{painttest.Paints(roles[0]...), painttest.Paints(roles[1]...), painttest.Paints(roles[2]...)})
	require.NoError(t, err)
	w := wheel.Build(system, wheel.Options{})
	for _, s := range w.Sections {
		paths = append(paths, s.Path)
	}
	return paths, system.Paints()
}

func reading(t testing.TB, source paint.Source) SwatchOptions {
	return SwatchOptions{In: gouache(t), Spacing: path.ByHue, White: painttest.Paint("PW6"), Source: source, Doubts: certainty.Usual}
}

// chosen begins to choose swatches for the wheel of some roles.
func chosen(t testing.TB, roles [3][]string, o SwatchOptions) (*swatchSearch, []*mat.Dense) {
	t.Helper()
	paths, paints := sectionsOf(t, roles)
	s, err := newSwatchSearch(paths, paints, o)
	require.NoError(t, err)
	all := s.candidates()
	return s, s.telling(all)
}

// after is the spread when some candidates were read.
func (s *swatchSearch) after(telling []*mat.Dense, which ...int) float64 {
	is := *s
	is.known = mat.NewSymDense(len(s.off), nil)
	is.known.CopySym(s.known)
	for _, i := range which {
		is.read(telling[i])
	}
	return is.spread()
}

var boxesOfSix = [][3][]string{
	{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}},
	{{"PY3", "PY83"}, {"PR254", "PV19"}, {"PB60", "PB16"}},
	{{"PY35", "PY74"}, {"PR108", "PR122"}, {"PB28", "PB15:1"}},
}

// By meter and by photo three swatches bring a wheel of six far down, by eye not half; six chosen ones leave less than six
// random ones do.
func TestSwatchesAreChosenThatTell(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 4))
	for _, source := range []paint.Source{paint.Instrument, paint.Photo, paint.Eye} {
		for _, roles := range boxesOfSix[:1] {
			paths, paints := sectionsOf(t, roles)
			got, err := PlanSwatches(paths, paints, reading(t, source))
			require.NoError(t, err)
			s, telling := chosen(t, roles, reading(t, source))
			assert.InDelta(t, got.Now, s.spread(), 1e-12)
			random := 0.0
			const draws = 40
			for range draws {
				random += s.after(telling, r.Perm(len(telling))[:6]...) / draws
			}
			require.NotEmpty(t, got.Swatches)
			var curve []float64
			before := got.Now
			for _, one := range got.Swatches {
				assert.Less(t, one.Spread, before)
				before = one.Spread
				curve = append(curve, math.Round(1000*certainty.KnownTo(one.Spread))/10)
			}
			t.Logf("%s: %.1f %% now, then %v; six random ones leave %.1f %%", source, 100*certainty.KnownTo(got.Now), curve, 100*certainty.KnownTo(random))
			assert.Less(t, before, 0.85*random, source)
			assert.LessOrEqual(t, len(got.Swatches), MostSwatches)
		}
	}
}

// One after the other they come near the best set.
func TestSwatchesAreNearTheBestSet(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 5))
	near, cases := 0, 0
	for _, roles := range boxesOfSix {
		for range painttest.InFull(4, 34) {
			s, telling := chosen(t, roles, reading(t, paint.Photo))
			eight := r.Perm(len(telling))[:8]
			best := math.Inf(1)
			for i := range eight {
				for k := range i {
					for l := range k {
						best = min(best, s.after(telling, eight[i], eight[k], eight[l]))
					}
				}
			}
			var taken []int
			for range 3 {
				next := slices.MinFunc(eight, func(a, b int) int {
					return cmp.Compare(s.after(telling, append(slices.Clone(taken), a)...), s.after(telling, append(slices.Clone(taken), b)...))
				})
				taken = append(taken, next)
			}
			cases++
			over := s.after(telling, taken...) / best
			if over < 1.05 {
				near++
			}
			assert.Less(t, over, 1.2)
		}
	}
	t.Logf("within 5 %% of the best three of eight in %d of %d", near, cases)
	assert.GreaterOrEqual(t, float64(near), 0.9*float64(cases))
}

// What was read and kept is not asked for again: the same swatches bring less, and others come first.
func TestWhatIsKnownIsNotAskedForAgain(t *testing.T) {
	paths, paints := sectionsOf(t, boxesOfSix[0])
	o := reading(t, paint.Instrument)
	first, err := PlanSwatches(paths, paints, o)
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(33, 7))
	really := map[*paint.Paint]*paint.Paint{}
	for _, p := range paints {
		really[p] = drawn(t, p, r)
	}
	var recipes [][]paint.Part
	for _, one := range first.Swatches {
		recipes = append(recipes, one.Recipe.Plain())
	}
	got, err := Learn(readOf(t, r, recipes, really, o.In, 0.4), o.In, Sure{})
	require.NoError(t, err)
	require.NotNil(t, got.Joint)
	o.Doubts = func(p *paint.Paint) certainty.Doubt {
		for i, s := range got.Strengths {
			if s.Paint == p {
				return got.Joint.Doubt(i)
			}
		}
		return certainty.Usual(p)
	}
	then, err := PlanSwatches(paths, paints, o)
	require.NoError(t, err)
	t.Logf("%.3f, promised %.3f, came to %.3f", first.Now, first.Swatches[len(first.Swatches)-1].Spread, then.Now)
	assert.Less(t, then.Now, 0.6*first.Now)
	assert.InDelta(t, first.Swatches[len(first.Swatches)-1].Spread, then.Now, 0.08, "what was promised came")
}

func TestWhatCannotBeSurerIsSaid(t *testing.T) {
	paths, paints := sectionsOf(t, boxesOfSix[0])
	_, err := PlanSwatches(nil, paints, reading(t, paint.Eye))
	assert.ErrorContains(t, err, "no recipe of two")
	_, err = PlanSwatches(paths, painttest.Paints("PW6"), reading(t, paint.Eye))
	assert.ErrorContains(t, err, "coloured paints")
}

func BenchmarkToBeSurer(b *testing.B) {
	paths, paints := sectionsOf(b, boxesOfSix[0])
	o := reading(b, paint.Photo)
	for b.Loop() {
		if _, err := PlanSwatches(paths, paints, o); err != nil {
			b.Fatal(err)
		}
	}
}

// Swatches of a box are for every two of its paints, and those without a hue are no part of it.
func TestSwatchesOfABoxTellEveryTwo(t *testing.T) {
	o := reading(t, paint.Photo)
	o.White = nil
	box := painttest.Paints("PY184", "PR122", "PB29", "PB15:3", "PW6", "PBk9")
	got, err := PlanBoxSwatches(box, o)
	require.NoError(t, err)
	require.NotEmpty(t, got.Swatches)
	sum, pairs := 0.0, 0
	for i, a := range box[:4] {
		for _, b := range box[:i] {
			d := certainty.Steps(path.New(b, a), path.ByHue, certainty.Usual, certainty.HalfWay)[0].Deviation()
			sum, pairs = sum+d*d, pairs+1
		}
	}
	assert.InDelta(t, math.Sqrt(sum/float64(pairs)), got.Now, 0.02, "the mean of every two")
	for _, s := range got.Swatches {
		for _, p := range s.Recipe.Plain() {
			assert.NotEqual(t, "PBk9", p.Paint.ID)
		}
	}
	assert.Less(t, got.Swatches[len(got.Swatches)-1].Spread, 0.75*got.Now)
	many := reading(t, paint.Instrument)
	wide, err := PlanBoxSwatches(painttest.Paints("PY184", "PY65", "PO73", "PR255", "PR122", "PV23", "PB29", "PB15:3", "PG7"), many)
	require.NoError(t, err)
	assert.Equal(t, "Three do not halve it: so many recipes ask for more of them.", wide.Says(), "a meter is what it is read by")
	_, err = PlanBoxSwatches(paint.Library(), o)
	assert.ErrorContains(t, err, "choose the swatches of a wheel")
	_, err = PlanBoxSwatches(painttest.Paints("PW6", "PY184"), o)
	assert.Error(t, err, "there are no two")
	o.In, err = paint.ParseMedium("watercolour")
	require.NoError(t, err)
	washed, err := PlanBoxSwatches(box, o)
	require.NoError(t, err)
	for _, s := range washed.Swatches {
		for _, p := range s.Recipe.Plain() {
			assert.NotEqual(t, "PW6", p.Paint.ID, "water lightens")
		}
	}
}

func BenchmarkSwatchesOfABoxOfFourteen(b *testing.B) {
	o := reading(b, paint.Photo)
	box := painttest.Paints("PY184", "PY65", "PY43", "PO73", "PR255", "PR108", "PR122", "PV19", "PV23", "PB29", "PB28", "PB15:3", "PG7", "PBr7-burnt-sienna")
	for b.Loop() {
		if _, err := PlanBoxSwatches(box, o); err != nil {
			b.Fatal(err)
		}
	}
}
