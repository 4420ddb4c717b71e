package bench_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

func medium(t testing.TB, id string) paint.Medium {
	t.Helper()
	in, err := paint.ParseMedium(id)
	require.NoError(t, err)
	return in
}

func TestTheRegionsOfAWheelFillItsRing(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	all := bench.Extras{Tints: 2, Shades: 1, Wash: true, Neutral: true}
	for name, c := range map[string]struct {
		w      *wheel.Wheel
		extras bench.Extras
		main   int
	}{
		"triad": {triad(t), bench.Extras{}, 12}, "split": {split(t), bench.Extras{}, 15}, "rings": {triad(t), all, 12},
	} {
		s := bench.Wheel(c.w, c.extras, set)
		main, area := 0, 0.0
		for i := range s.Regions {
			r := &s.Regions[i]
			assert.NotEmpty(t, r.Label, name)
			assert.NotEmpty(t, r.Parents, name)
			if r.Main {
				main++
				area += r.Area()
			}
			for _, k := range r.Touches {
				assert.Contains(t, s.Regions[k].Touches, i, "%s: edges are shared", name)
			}
			switch {
			case strings.HasPrefix(r.ID, "neutral/"):
				assert.Empty(t, r.Touches, "circles stand apart")
			case r.Main && name != "rings":
				assert.Len(t, r.Touches, 2, "%s: %s lies between two", name, r.ID)
			case r.Main:
				assert.GreaterOrEqual(t, len(r.Touches), 3, "%s: and between rings", r.ID)
			}
		}
		assert.Equal(t, c.main, main, name)
		if name != "rings" {
			assert.InDelta(t, math.Pi*(90*90-45*45), area, 1e-6, "nothing is left out")
		}
	}
	six, err := wheel.NewSystem(wheel.RYB, [3][]*paint.Paint{painttest.Paints("PY65"), painttest.Paints("PR254"), painttest.Paints("PB29")})
	require.NoError(t, err)
	s := bench.Wheel(wheel.Build(six, wheel.Options{Six: true}), bench.Extras{}, set)
	require.Len(t, s.Regions, 6)
	for _, r := range s.Regions {
		assert.Empty(t, r.Touches, "an empty slot lies between")
	}
}

func TestSplitHalvesFaceWhatTheyAreMixedInto(t *testing.T) {
	w := split(t)
	s := bench.Wheel(w, bench.Extras{}, bench.Usual(medium(t, "oil")))
	for i := range s.Regions {
		r := &s.Regions[i]
		for _, k := range r.Touches {
			other := &s.Regions[k]
			if r.Kind == wheel.Primary && other.Kind == wheel.Tertiary {
				assert.Contains(t, other.Parents, r.Recipe[0].Paint.ID, "%s beside %s", r.ID, other.ID)
			}
		}
	}
}

func TestOtherSheets(t *testing.T) {
	w := triad(t)
	acrylic := medium(t, "acrylic")
	p := path.New(painttest.Paint("PY65"), painttest.Paint("PB29"))
	intensity, ok := bench.Intensity(w, 0, 7, acrylic)
	require.True(t, ok)
	guide := wheel.System{}
	guide, err := w.System.WithRider(wheel.WhiteRider, painttest.Paint("PW6"))
	require.NoError(t, err)
	for _, c := range []struct {
		sheet    bench.Sheet
		kind     bench.SheetKind
		regions  int
		touching bool
	}{
		{bench.Ladder(p, 5, path.ByHue), "ladder", 7, true},
		{bench.Values(w, 2, 7), "values", 7, true},
		{intensity, "intensity", 7, true},
		{bench.Run(w, 2), "run", 6, false},
		{bench.Guide(guide.Paints(), guide.Rider(wheel.WhiteRider)), "guide", 6, false},
		{bench.Grid([]path.Pairing{path.Couple{A: p.A, B: p.B}.Pair(path.ByHue)}), "grid", 1, false},
	} {
		assert.Equal(t, c.kind, c.sheet.Kind)
		assert.Len(t, c.sheet.Regions, c.regions, c.kind)
		assert.Contains(t, bench.SheetKinds, c.kind)
		for i, r := range c.sheet.Regions {
			assert.LessOrEqual(t, r.X+r.W, c.sheet.W+1e-9, c.kind)
			assert.LessOrEqual(t, r.Y+r.H, c.sheet.H+1e-9, c.kind)
			assert.Equal(t, c.touching && c.regions > 1, len(r.Touches) > 0, "%s %d", c.kind, i)
		}
		plan, err := bench.New(&c.sheet, bench.Usual(acrylic))
		require.NoError(t, err)
		simulate(t, plan, string(c.kind))
		assert.NotEmpty(t, c.sheet.Draw(bench.Ruler).Steps)
	}
}

func TestALadderIsARunWhereItCanBe(t *testing.T) {
	s := bench.Ladder(path.New(painttest.Paint("PY184"), painttest.Paint("PB29")), 5, path.ByHue)
	set := bench.Usual(medium(t, "watercolour"))
	p, err := bench.New(&s, set)
	require.NoError(t, err)
	assert.Equal(t, bench.FromWeaker, p.Fill)
	simulate(t, p, "a ladder")
	assert.Len(t, bench.Fillings(&s, 0, set), 3, "there is no secondary of five steps")
	from, to := s.Between(0)
	assert.Equal(t, "bismuth yellow to ultramarine blue", from+" to "+to)
}

func TestEverySheetOfASystemIsFound(t *testing.T) {
	w := split(t)
	set := bench.Usual(medium(t, "gouache"))
	have := bench.Material{Couples: w.System.Allowed(), Wanted: []bench.Wanted{{"kelp", colour.Lab{L: 38, A: -4, B: 28}, w.Slots[2].Parts, w.Slots[2].Mixture}}, Swatches: []recipe.Recipe{w.Slots[2].Parts, w.Slots[1].Parts}}
	for _, kind := range append(bench.SheetKinds, "") {
		s, err := bench.Which{Kind: kind, Slot: 2}.Of(w, have, bench.Extras{}, set)
		require.NoError(t, err, kind)
		assert.NotEmpty(t, s.Regions, kind)
	}
	for says, which := range map[string]bench.Which{
		"unknown sheet": {Kind: "napkin"}, "there is no slot": {Slot: 12}, "no slot 0 of section": {Section: 3}, "steps": {Kind: "ladder", Steps: 99}, "not 6": {Kind: "intensity", Steps: 6},
	} {
		_, err := which.Of(w, bench.Material{}, bench.Extras{}, set)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
	_, err := bench.Which{Kind: "grid"}.Of(w, bench.Material{}, bench.Extras{}, set)
	assert.ErrorContains(t, err, "no pairings")
	_, err = bench.Which{Kind: "wanted"}.Of(w, bench.Material{}, bench.Extras{}, set)
	assert.ErrorContains(t, err, "no wanted colours yet")
}

// Rows keep within the width they are given, and touch only within a row.
func TestRowsKeepWithinTheirWidth(t *testing.T) {
	w := split(t)
	set := bench.Usual(medium(t, "gouache"))
	way := path.New(painttest.Paint("PY65"), painttest.Paint("PB29"))
	s, err := bench.Which{Kind: "ladder", Steps: 7, Width: 120}.Of(w, bench.Material{Way: way}, bench.Extras{}, set)
	require.NoError(t, err)
	require.Len(t, s.Regions, 9)
	assert.Equal(t, 100.0, s.W, "of rows as long as each other")
	assert.Equal(t, 2*40+bench.Beneath, s.H)
	assert.Equal(t, []int{3}, s.Regions[4].Touches, "the last of its row")
	assert.Equal(t, []int{6}, s.Regions[5].Touches, "the first of the next")
	assert.Equal(t, "arylide yellow deep", s.Regions[0].Label)
	run, err := bench.Which{Kind: "run", Width: 60}.Of(w, bench.Material{}, bench.Extras{}, set)
	require.NoError(t, err)
	for i := range run.Regions {
		for j := range i {
			a, b := run.Regions[i].Shape, run.Regions[j].Shape
			assert.False(t, a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H, "%d over %d", i, j)
		}
	}
	_, err = bench.Which{Kind: "ladder"}.Of(w, bench.Material{Way: path.New(painttest.Paint("PY65"), painttest.Paint("PY65"))}, bench.Extras{}, set)
	assert.ErrorContains(t, err, "look the same")
}

// Of the four marks none lies on what is painted.
func TestMarksLieBesideWhatIsPainted(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	s := bench.Wheel(split(t), bench.Extras{}, set)
	for _, m := range s.Marks() {
		assert.Greater(t, math.Hypot(m[0], m[1])-bench.MarkRadius, 90.0)
	}
	s = bench.Values(split(t), 2, 7)
	for _, m := range s.Marks() {
		for _, r := range s.Regions {
			assert.False(t, m[0]+bench.MarkRadius > r.X && m[0]-bench.MarkRadius < r.X+r.W && m[1]+bench.MarkRadius > r.Y && m[1]-bench.MarkRadius < r.Y+r.H)
		}
	}
}

func TestAGradedSlotFadesToItsTip(t *testing.T) {
	in := medium(t, "watercolour")
	set := bench.Usual(in)
	set.Slots = bench.Graded
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	for i := range s.Regions {
		r := &s.Regions[i]
		require.True(t, r.Graded)
		rim, whole := r.GradedAt(&r.Mixture, in, false, 0), r.Appearance(in, false)
		assert.InDelta(t, whole.Lab().L, rim.Lab().L, 0.01, r.Label)
		last := rim.Lab().L
		for at := 0.25; at <= 1; at += 0.25 {
			look := r.GradedAt(&r.Mixture, in, false, at)
			assert.Greater(t, look.Lab().L, last, "%s at %v", r.Label, at)
			last = look.Lab().L
		}
	}
}

func TestAWheelIsDrawnWithEachTool(t *testing.T) {
	s := bench.Wheel(split(t), bench.Extras{Neutral: true, Tints: 1}, bench.Usual(medium(t, "gouache")))
	for _, by := range bench.DrawBys {
		d := s.Draw(by)
		require.Len(t, d.Points, 12, by)
		assert.Equal(t, 90.0, d.Circles[0])
		text := strings.Join(d.Steps, " ")
		assert.Contains(t, text, "Halve the slots of yellow, red and blue")
		assert.Contains(t, text, "draw 6 circles")
		for k, p := range d.Points {
			angle := math.Atan2(p[0], -p[1]) * 180 / math.Pi
			off := math.Mod(angle+360, 30)
			assert.InDelta(t, 15, off, 1e-9, "%s: mark %d lies between slots", by, k)
		}
	}
	assert.Contains(t, strings.Join(s.Draw(bench.Compass).Steps, " "), "Open it to 46.5 mm")
	assert.Contains(t, strings.Join(s.Draw(bench.Ruler).Steps, " "), "24 mm to the left")
	assert.InDelta(t, 2*90*math.Sin(math.Pi/12), bench.Chord(90, 30), 1e-9)
	_, err := bench.ParseDrawBy("string")
	assert.Error(t, err)
}

func TestAGouacheWheelTakesWhatItTakes(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	assert.InDelta(t, 0.21, set.Need(&s.Regions[0]), 0.005, "a slot")
	assert.InDelta(t, set.Slot(), set.Need(&s.Regions[0]), 1e-9)
	sum := 0.0
	for i := range s.Regions {
		sum += set.Need(&s.Regions[i])
	}
	assert.InDelta(t, 2.5, sum, 0.05)
	assert.InDelta(t, 88, bench.RibbonMM(sum, set.Nozzle), 3, "9 cm")

	graded := set
	graded.Slots = bench.Graded
	half := bench.Wheel(triad(t), bench.Extras{}, graded)
	assert.InDelta(t, set.Need(&s.Regions[0])/2, graded.Need(&half.Regions[0]), 1e-9)
	small := bench.Region{Shape: bench.Shape{Outer: 2}}
	assert.Equal(t, 0.10, set.Need(&small), "never under what a brush can use")

	water := bench.Usual(medium(t, "watercolour"))
	wash := bench.Wheel(triad(t), bench.Extras{Wash: true}, water)
	assert.InDelta(t, 2/1.2-1, water.Thinner(&wash.Regions[0]), 1e-9)
	assert.InDelta(t, 2/0.3-1, water.Thinner(&wash.Regions[12]), 1e-9, "a wash is thinner")
}

// A pile that is followed step by step never runs dry, and ends with nothing.
func TestRunsFollowBackwardAndNeverRunDry(t *testing.T) {
	for _, c := range []struct{ shares, takes, sigma []float64 }{
		{[]float64{0.02, 0.08, 0.3}, []float64{0.2, 0.2, 0.2}, []float64{1, 1, 1}},
		{[]float64{0.02, 0.08, 0.3}, []float64{0.1, 0.3, 0.2}, []float64{0.1, 0.1, 1}},
		{[]float64{0.5}, []float64{1}, []float64{1}},
	} {
		start, adds := bench.RunPile(c.shares, c.takes, c.sigma)
		pile, other := start, 0.0 // ml in all, and of the other paint
		for i, a := range adds {
			assert.InDelta(t, pile, a.Pile, 1e-12)
			assert.Positive(t, a.Add)
			pile, other = pile+a.Add, other+a.Add*c.sigma[i]
			assert.InDelta(t, c.shares[i], other/pile, 1e-9, "step %d", i)
			assert.GreaterOrEqual(t, pile, c.takes[i]-1e-12, "enough for it")
			other -= other / pile * c.takes[i]
			pile -= c.takes[i]
		}
		assert.InDelta(t, 0, pile, 1e-9, "and nothing is left")
	}
}

func TestTheFourWaysTakeTheSameAndDifferInWhatTheyRisk(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	for k := range 3 {
		ways := bench.Fillings(&s, k, set)
		require.Len(t, ways, 4, "section %d", k)
		by := map[bench.Fill]bench.Filling{}
		for _, w := range ways {
			by[w.Fill] = w
			assert.Positive(t, w.Start)
			assert.Positive(t, w.Smallest)
			assert.Positive(t, w.Slip)
		}
		if k == 0 {
			assert.Greater(t, by[bench.FromWeaker].Slip, by[bench.FromStronger].Slip, "too much of the strong red takes much yellow to mend")
			assert.Less(t, by[bench.FromWeaker].Start, 0.63, "less than the slots take")
		}
		assert.Equal(t, 1, by[bench.FromWeaker].Wells)
		assert.Equal(t, 3, by[bench.OwnPiles].Wells)
		used := func(w bench.Filling) (ml float64) {
			ml = w.Start
			for _, a := range w.Adds {
				ml += a.Add
			}
			return ml
		}
		assert.InDelta(t, used(by[bench.FromWeaker]), used(by[bench.FromStronger]), 1e-9)
	}
	assert.Nil(t, bench.Fillings(&s, 7, set))
}

func TestEachRegionIsCountedOutForWhatItNeeds(t *testing.T) {
	set := bench.Usual(medium(t, "gouache"))
	s := bench.Wheel(split(t), bench.Extras{}, set)
	p, err := bench.New(&s, set)
	require.NoError(t, err)
	for i := range s.Regions {
		c := p.Counted[i]
		assert.GreaterOrEqual(t, c.ML, set.Need(&s.Regions[i])-1e-9)
		assert.Equal(t, recipe.Dabs, c.Measure)
	}
}

func BenchmarkAmounts(b *testing.B) {
	set := bench.Usual(medium(b, "gouache"))
	s := bench.Wheel(split(b), bench.Extras{Tints: 1, Shades: 1, Neutral: true}, set)
	p, err := bench.Sketch(&s, set)
	require.NoError(b, err)
	for b.Loop() {
		p.Amounts()
	}
}

// Out of pans nothing is squeezed: they are wetted, and used for so many brush loads.
func TestPansAreWettedAndNotSqueezed(t *testing.T) {
	set := bench.Usual(medium(t, "watercolour"))
	set.Scale = recipe.Scale{Measure: recipe.ByLooks}
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	p, err := bench.Sketch(&s, set)
	require.NoError(t, err)
	fluid, loads := 0.0, 0
	for i := range s.Regions {
		fluid += set.Need(&s.Regions[i])
	}
	for _, a := range p.Amounts() {
		assert.Zero(t, a.Ribbon)
		loads += a.Loads
	}
	assert.InDelta(t, fluid/0.03, float64(loads), float64(len(p.Amounts())))
}

// The places of a scale go by what they are.
func TestScalesNameTheirPlaces(t *testing.T) {
	labels := func(s bench.Sheet) (out []string) {
		for _, r := range s.Regions {
			out = append(out, r.Label)
		}
		return out
	}
	w := triad(t)
	red := slices.IndexFunc(w.Slots[:], func(s wheel.Slot) bool { return s.Name == "red" })
	values := labels(bench.Values(w, red, 7))
	assert.Contains(t, values, "red")
	assert.Contains(t, values, "tint 1")
	assert.Contains(t, values, "shade 1")
	at := slices.Index(values, "red")
	assert.Equal(t, "tint 1", values[at-1], "the tint beside it is the first")
	assert.Equal(t, "shade 1", values[at+1])
	s, ok := bench.Intensity(w, red, 5, medium(t, "gouache"))
	require.True(t, ok)
	assert.Equal(t, []string{"red", "red quieter 1", "grey between", "green quieter 1", "green"}, labels(s))
}
