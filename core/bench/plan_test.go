package bench_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
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

func build(t testing.TB, kind wheel.SystemKind, yellows, reds, blues []string) *wheel.Wheel {
	t.Helper()
	s, err := wheel.NewSystem(kind, [3][]*paint.Paint{painttest.Paints(yellows...), painttest.Paints(reds...), painttest.Paints(blues...)})
	require.NoError(t, err)
	return wheel.Build(s, wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement})
}

func triad(t testing.TB) *wheel.Wheel {
	return build(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"})
}

func split(t testing.TB) *wheel.Wheel {
	return build(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"})
}

func double(t testing.TB) *wheel.Wheel {
	return build(t, wheel.Double, []string{"PY184", "PY43"}, []string{"PBr7-burnt-sienna", "PR122"}, []string{"PB29", "PB15:3"})
}

// bound is by how much a pile may be moved by what a brush carries into it.
func bound(r *bench.Region) float64 {
	if len(r.Recipe.Plain()) == 1 {
		return 1
	}
	return 2
}

// carried is by how much some of what a wiped brush holds of one region moves the pile of another.
func carried(t *testing.T, p *bench.Plan, from, to int, share float64) float64 {
	t.Helper()
	of, c := &p.Counted[from], &p.Counted[to]
	ml := share * p.Settings.Residue / (1 + p.Settings.Thinner(&p.Sheet.Regions[from]))
	m := paint.Between(&c.Mixture, &of.Mixture, ml/(ml+c.ML))
	is, was := m.BrushedOut(), c.Mixture.BrushedOut()
	if !c.Adds && !of.Adds { // the same by what lies in the pile
		stirred, err := paint.Mix(slices.Concat(c.Volumes(), times(of.Volumes(), ml/of.ML))...)
		require.NoError(t, err)
		seen := stirred.BrushedOut()
		assert.InDelta(t, colour.Difference(is.Lab(), was.Lab()), colour.Difference(seen.Lab(), was.Lab()), 0.02)
	}
	return colour.Difference(is.Lab(), was.Lab())
}

// simulate goes through a plan action by action and holds it against all that binds it.
func simulate(t *testing.T, p *bench.Plan, about string) {
	t.Helper()
	painted, dry := map[int]float64{}, map[int]float64{}
	clock := 0.0
	wells := map[int]float64{} // since when each holds what it holds
	last := map[int]int{}      // region each brush painted last
	clean := map[int]bool{1: true, 2: true}
	washes := 0
	runs, left := map[int]int{}, map[int]int{} // the well of each run that is open, and its steps to come
	if p.Fill != bench.OwnPiles {
		for i := range p.Sheet.Regions {
			if r := &p.Sheet.Regions[i]; r.Step > 0 {
				left[r.Section]++
			}
		}
	}
	for _, a := range p.Actions {
		require.GreaterOrEqual(t, a.Start, clock-1e-6, "%s: one thing at a time", about)
		require.GreaterOrEqual(t, a.End, a.Start-1e-6, about)
		clock = a.End
		switch a.Kind {
		case bench.Wash:
			washes++
			assert.Greater(t, carried(t, p, last[a.Brush], a.Region, 1), bound(&p.Sheet.Regions[a.Region]), "%s: nothing would show", about)
			assert.Equal(t, carried(t, p, last[a.Brush], a.Region, 0.1) > bound(&p.Sheet.Regions[a.Region]), a.Thorough, about)
			clean[a.Brush] = true
			assert.NotEmpty(t, a.Because, about)
		case bench.Wait:
			assert.NotEmpty(t, a.Because, "%s: a wait has its reason", about)
		case bench.Mix:
			require.Positive(t, a.Well, about)
			require.LessOrEqual(t, a.Well, p.Settings.Wells, about)
			r := &p.Sheet.Regions[a.Region]
			for section, well := range runs {
				if section != r.Section || r.Step == 0 {
					require.NotEqual(t, well, a.Well, "%s: the pile of a run is needed yet", about)
				}
			}
			if _, open := runs[r.Section]; left[r.Section] > 0 && r.Step > 0 && !open {
				runs[r.Section] = a.Well
			}
			if _, there := wells[a.Well]; !there || p.Sheet.Regions[a.Region].Step <= 1 || p.Fill == bench.OwnPiles {
				wells[a.Well] = a.Start
			}
		case bench.Paint:
			r := &p.Sheet.Regions[a.Region]
			_, twice := painted[a.Region]
			require.False(t, twice, "%s: %s once", about, r.ID)
			painted[a.Region], dry[a.Region] = a.Start, a.Dry
			if left[r.Section]--; r.Step > 0 && left[r.Section] == 0 {
				delete(runs, r.Section)
			}
			if p.Settings.Drying() > 0 && !p.Settings.Gaps {
				for _, k := range r.Touches {
					if until, there := dry[k]; there {
						require.GreaterOrEqual(t, a.Start, until-1e-6, "%s: %s beside wet %s", about, r.ID, p.Sheet.Regions[k].ID)
					}
				}
			}
			require.InDelta(t, a.End+p.Sheet.Drying(p.Settings), a.Dry, 1e-6, about)
			for _, k := range r.Beneath {
				until, there := dry[k]
				require.True(t, there, "%s: %s before what it lies over", about, r.ID)
				require.GreaterOrEqual(t, a.Start, until-1e-6, "%s: %s over wet %s", about, r.ID, p.Sheet.Regions[k].ID)
			}
			if limit := p.Settings.Workable(); limit > 0 && a.Well > 0 && p.Fill != bench.SecondaryFirst {
				require.LessOrEqual(t, a.Start, wells[a.Well]+limit+1e-6, "%s: %s from a pile that is past it", about, r.ID)
			}
			if before, used := last[a.Brush]; used && !clean[a.Brush] {
				assert.LessOrEqual(t, carried(t, p, before, a.Region, 1), bound(r), "%s: the brush carries %s into %s", about, p.Sheet.Regions[before].ID, r.ID)
			}
			last[a.Brush], clean[a.Brush] = a.Region, false
		}
	}
	assert.Len(t, painted, len(p.Sheet.Regions), "%s: every region once", about)
	assert.Equal(t, p.Washes, washes, about)
	assert.Equal(t, p.Minutes, int(math.Ceil(clock-1e-4)), about)
	assert.LessOrEqual(t, p.Low, p.Minutes, about)
}

// few is so many tries, or a quarter of them where the tests are to be short.
func few(tries int) int {
	if testing.Short() {
		return (tries + 3) / 4
	}
	return tries
}

func TestEveryPlanKeepsWhatBindsIt(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 1))
	wheels := []*wheel.Wheel{triad(t), split(t), double(t), build(t, wheel.CMY, []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"})}
	six, err := wheel.NewSystem(wheel.RYB, [3][]*paint.Paint{painttest.Paints("PY3"), painttest.Paints("PR209"), painttest.Paints("PB60")})
	require.NoError(t, err)
	wheels = append(wheels, wheel.Build(six, wheel.Options{Six: true, CCW: true, Top: "red"}))
	for n := range few(painttest.InFull(10, 20)) {
		w := wheels[r.IntN(len(wheels))]
		in := paint.Media()[r.IntN(len(paint.Media()))]
		set := bench.Settings{
			Medium: in, Diameter: float64(60 + r.IntN(300)), Brushes: 1 + r.IntN(2), Wells: 3 + r.IntN(8), Dryer: r.IntN(2) == 0,
			Gaps: r.IntN(4) == 0, Covered: r.IntN(3) == 0, Pace: 0.5 + 2*r.Float64(), Fill: append([]bench.Fill{""}, bench.Fills...)[r.IntN(5)],
		}
		set, err := set.Complete()
		require.NoError(t, err)
		extras := bench.Extras{}
		if r.IntN(4) == 0 {
			extras = bench.Extras{Tints: r.IntN(2), Shades: r.IntN(2), Wash: r.IntN(2) == 0, Neutral: r.IntN(2) == 0}
		}
		s := bench.Wheel(w, extras, set)
		p, err := bench.New(&s, set)
		require.NoError(t, err)
		about := fmt.Sprintf("plan %d: %d regions in %s, %+v", n, len(s.Regions), in.ID, extras)
		simulate(t, p, about)
		if p.Fill == bench.OwnPiles {
			for _, b := range []bench.Baseline{p.RoundTheWheel, p.ByKind} {
				assert.True(t, p.Minutes < b.Minutes || p.Minutes == b.Minutes && p.Washes <= b.Washes, "%s: %d min and %d washes against %v", about, p.Minutes, p.Washes, b)
			}
		}
		if n < 5 {
			again, err := bench.New(&s, set)
			require.NoError(t, err)
			assert.Equal(t, p.Order, again.Order, "%s: the same each time", about)
		}
	}
}

// Against every order there is, of small sheets.
func TestSmallSheetsArePlannedAsEveryOrderTriedWould(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 2))
	pairs := [][2]string{{"PY184", "PB15:3"}, {"PY65", "PR254"}, {"PR122", "PB29"}, {"PY3", "PG7"}}
	for n := range 40 {
		pair := pairs[r.IntN(len(pairs))]
		in := paint.Media()[r.IntN(len(paint.Media()))]
		set, err := bench.Settings{Medium: in, Fill: bench.OwnPiles, Brushes: 1 + n%2, Wells: 1 + r.IntN(4), Pace: 0.1 + 0.6*r.Float64(), Dryer: r.IntN(2) == 0}.Complete()
		require.NoError(t, err)
		s := bench.Ladder(path.New(painttest.Paint(pair[0]), painttest.Paint(pair[1])), 1+r.IntN(4), path.ByHue)
		p, err := bench.New(&s, set)
		require.NoError(t, err)
		simulate(t, p, in.ID)
		minutes, washes := everyOrder(t, p)
		assert.True(t, p.Proved)
		assert.Equal(t, minutes, p.Minutes, "%v in %s, %d regions", pair, in.ID, len(s.Regions))
		assert.Equal(t, washes, p.Washes, "%v in %s, %d regions", pair, in.ID, len(s.Regions))
	}
}

// everyOrder tries every order and every brush, by the rules of the page and nothing
// else.
func everyOrder(t *testing.T, p *bench.Plan) (minutes, washes int) {
	s, set := p.Sheet, p.Settings
	minutes = math.MaxInt
	moved := make([][]float64, len(s.Regions))
	for i := range s.Regions {
		for j := range s.Regions {
			wash := 0.0
			switch {
			case i != j && carried(t, p, i, j, 0.1) > bound(&s.Regions[j]):
				wash = 1
			case i != j && carried(t, p, i, j, 1) > bound(&s.Regions[j]):
				wash = 0.5
			}
			moved[i] = append(moved[i], wash)
		}
	}
	type hand struct {
		t      float64
		washes int
		piles  int
		held   [2]int
		dry    map[int]float64
	}
	var walk func(h hand)
	walk = func(h hand) {
		if len(h.dry) == len(s.Regions) {
			if whole := int(math.Ceil(h.t - 1e-4)); whole < minutes || whole == minutes && h.washes < washes {
				minutes, washes = whole, h.washes
			}
			return
		}
		for j := range s.Regions {
			if _, done := h.dry[j]; done {
				continue
			}
			for by := range set.Brushes {
				next := h
				next.dry = map[int]float64{}
				for k, v := range h.dry {
					next.dry[k] = v
				}
				r := &s.Regions[j]
				if was := h.held[by]; was >= 0 && moved[was][j] > 0 {
					next.t += moved[was][j]
					if next.washes++; next.washes%8 == 0 {
						next.t += 1.5
					}
				}
				if len(r.Recipe.Plain()) > 1 {
					if next.piles++; next.piles > set.Wells {
						next.t += 0.5
					}
					next.t++
				}
				for _, k := range r.Touches {
					if until, there := h.dry[k]; there && set.Drying() > 0 {
						next.t = max(next.t, until)
					}
				}
				lies := true // on what is painted
				for _, k := range r.Beneath {
					until, there := h.dry[k]
					lies = lies && there
					next.t = max(next.t, until)
				}
				if !lies {
					continue
				}
				next.t += 1 + 0.2*r.Area()/100
				next.dry[j] = next.t + s.Drying(set)
				next.held[by] = j
				walk(next)
			}
		}
	}
	walk(hand{held: [2]int{-1, -1}, dry: map[int]float64{}})
	return minutes, washes
}

func TestOwnPilesOfPlainAndSplitWheelsAreProved(t *testing.T) {
	for _, w := range []*wheel.Wheel{triad(t), split(t)} {
		for _, in := range paint.Media() {
			set := bench.Usual(in)
			set.Fill = bench.OwnPiles
			s := bench.Wheel(w, bench.Extras{}, set)
			p, err := bench.New(&s, set)
			require.NoError(t, err)
			assert.True(t, p.Proved, in.ID)
			assert.Equal(t, "shortest possible", p.Says())
		}
	}
	set := bench.Usual(paint.Media()[1])
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	p, err := bench.New(&s, set)
	require.NoError(t, err)
	assert.InDelta(t, 66, p.Minutes, 3, "gouache")
	assert.InDelta(t, 326, p.RoundTheWheel.Minutes, 10)
	assert.InDelta(t, 78, p.ByKind.Minutes, 4)
}

func TestALargeSheetComesNearItsBound(t *testing.T) {
	for _, in := range paint.Media() {
		set := bench.Usual(in)
		set.Fill = bench.OwnPiles
		s := bench.Wheel(split(t), bench.Extras{Tints: 1, Shades: 1, Wash: true, Neutral: true}, set)
		p, err := bench.New(&s, set)
		require.NoError(t, err)
		simulate(t, p, in.ID)
		assert.Less(t, float64(p.Minutes), 1.1*float64(p.Low), in.ID)
		assert.Contains(t, p.Says(), "over the shortest possible")
	}
}

func TestRunsAreKeptWhereTheyCanBe(t *testing.T) {
	media := map[string]paint.Medium{}
	for _, in := range paint.Media() {
		media[in.ID] = in
	}
	for _, c := range []struct {
		medium  string
		covered bool
		fill    bench.Fill
		kept    bool
	}{
		{"watercolour", false, "", true}, {"oil", false, "", true}, {"gouache", false, "", false}, {"acrylic", false, bench.FromWeaker, false},
		{"gouache", false, bench.FromStronger, true}, {"watercolour", false, bench.SecondaryFirst, true},
	} {
		set := bench.Usual(media[c.medium])
		set.Fill, set.Covered = c.fill, c.covered
		s := bench.Wheel(triad(t), bench.Extras{}, set)
		p, err := bench.New(&s, set)
		require.NoError(t, err)
		assert.Equal(t, c.kept, p.Fill != bench.OwnPiles, c)
		if c.medium == "acrylic" {
			assert.Contains(t, p.Why, "a pile lasts 8")
		}
		at := map[string]int{}
		for n, i := range p.Order {
			at[s.Regions[i].ID] = n
		}
		switch p.Fill {
		case bench.FromWeaker:
			assert.Less(t, at["yellow-orange"], at["orange"], "from the yellow")
			assert.Less(t, at["orange"], at["red-orange"])
		case bench.FromStronger:
			assert.Greater(t, at["yellow-orange"], at["orange"])
		case bench.SecondaryFirst:
			assert.Less(t, at["orange"], min(at["yellow-orange"], at["red-orange"]))
		}
		simulate(t, p, fmt.Sprint(c))
	}
}

// What is counted out for a run goes into one pile: it is enough for each step, and
// comes near it.
func TestRunsAreCountedOutAsTheyAreAddedTo(t *testing.T) {
	for _, fill := range []bench.Fill{bench.FromWeaker, bench.FromStronger, bench.SecondaryFirst} {
		for _, w := range []*wheel.Wheel{triad(t), split(t)} {
			oil, err := paint.ParseMedium("oil")
			require.NoError(t, err)
			set := bench.Usual(oil)
			set.Fill = fill
			s := bench.Wheel(w, bench.Extras{}, set)
			p, err := bench.New(&s, set)
			require.NoError(t, err)
			require.Equal(t, fill, p.Fill)
			added := 0
			for i, c := range p.Counted {
				r := &s.Regions[i]
				assert.GreaterOrEqual(t, c.ML, 0.85*set.Need(r), "%s %s: enough", fill, r.ID)
				assert.Less(t, c.DE, 5.0, "%s %s: %v", fill, r.ID, c.Lines())
				if c.Adds {
					added++
					assert.Len(t, c.Counts, 1)
					assert.Contains(t, c.Lines()[len(c.Lines())-1], "to what is in the well")
				}
			}
			assert.Equal(t, 6, added, "two steps of each section go on from another")
		}
	}
}

func TestThePaintersWishesArePutFirstAndCounted(t *testing.T) {
	set := bench.Usual(paint.Media()[1])
	set.First = []int{2}
	s := bench.Wheel(triad(t), bench.Extras{}, set)
	p, err := bench.New(&s, set)
	require.NoError(t, err)
	for n, i := range p.Order {
		assert.Equal(t, n < 3, s.Regions[i].Section == 2, "the greens first")
	}
	assert.Positive(t, p.Asked, "and what that costs")
	simulate(t, p, "greens first")

	set.First, set.Before = nil, [][2]string{{"violet", "yellow"}, {"gone", "yellow"}}
	p, err = bench.New(&s, set)
	require.NoError(t, err)
	violet := slices.IndexFunc(p.Order, func(i int) bool { return s.Regions[i].ID == "violet" })
	yellow := slices.IndexFunc(p.Order, func(i int) bool { return s.Regions[i].ID == "yellow" })
	assert.Less(t, violet, yellow)

	set.Before = [][2]string{{"violet", "yellow"}, {"yellow", "green"}, {"green", "violet"}}
	_, err = bench.New(&s, set)
	assert.ErrorAs(t, err, new(input.Error))
	assert.ErrorContains(t, err, "round in a circle")
}

func TestASketchIsAPlanToo(t *testing.T) {
	w := split(t)
	for _, in := range paint.Media() {
		for _, extras := range []bench.Extras{{}, {Tints: 1, Neutral: true}} {
			set := bench.Usual(in)
			s := bench.Wheel(w, extras, set)
			quick, err := bench.Sketch(&s, set)
			require.NoError(t, err)
			simulate(t, quick, in.ID)
			p, err := bench.New(&s, set)
			require.NoError(t, err)
			assert.LessOrEqual(t, p.Minutes, quick.Minutes, in.ID)
			assert.GreaterOrEqual(t, p.Low, quick.Low, in.ID)
		}
	}
}

func BenchmarkSketch(b *testing.B) {
	w := split(b)
	for name, extras := range map[string]bench.Extras{"split": {}, "rings": {Tints: 3, Shades: 3, Wash: true, Neutral: true}} {
		b.Run(name, func(b *testing.B) {
			set := bench.Usual(paint.Media()[1])
			s := bench.Wheel(w, extras, set)
			for b.Loop() {
				_, err := bench.Sketch(&s, set)
				require.NoError(b, err)
			}
		})
	}
}

func TestSettingsAreRefused(t *testing.T) {
	in := paint.Media()[0]
	for _, set := range []bench.Settings{
		{Diameter: 20}, {Diameter: math.NaN()}, {Inner: 85}, {Coats: 9}, {Loss: -1}, {Brushes: 3}, {Wells: 100}, {Pace: 50}, {Fill: "pour"}, {Nozzle: 99},
		{Scale: recipe.Scale{Measure: recipe.Drops, Size: 99}},
	} {
		set.Medium = in
		_, err := set.Complete()
		assert.ErrorAs(t, err, new(input.Error), "%+v", set)
	}
}

func BenchmarkPlanSplit(b *testing.B) {
	w := split(b)
	for _, in := range paint.Media() {
		b.Run(in.ID, func(b *testing.B) {
			set := bench.Usual(in)
			set.Fill = bench.OwnPiles
			s := bench.Wheel(w, bench.Extras{}, set)
			for b.Loop() {
				_, err := bench.New(&s, set)
				require.NoError(b, err)
			}
		})
	}
}

func BenchmarkPlanRings(b *testing.B) {
	w := split(b)
	set := bench.Usual(paint.Media()[1])
	s := bench.Wheel(w, bench.Extras{Tints: 1, Shades: 1, Wash: true, Neutral: true}, set)
	for b.Loop() {
		_, err := bench.New(&s, set)
		require.NoError(b, err)
	}
}

// Among orders that take as long and wash as often, light goes before dark.
func TestLightGoesBeforeDark(t *testing.T) {
	for _, in := range paint.Media() {
		for name, w := range map[string]*wheel.Wheel{"triad": triad(t), "split": split(t)} {
			set := bench.Usual(in)
			set.Fill = bench.OwnPiles
			s := bench.Wheel(w, bench.Extras{}, set)
			p, err := bench.New(&s, set)
			require.NoError(t, err)
			light := func(i int) float64 {
				seen := p.Counted[i].Mixture.BrushedOut()
				return seen.Lab().L
			}
			dark, pairs := 0, 0
			for at, i := range p.Order {
				for _, j := range p.Order[at+1:] {
					if d := light(j) - light(i); d > 5 || d < -5 {
						pairs++
						if d > 5 {
							dark++
						}
					}
				}
			}
			t.Logf("%s in %s: %d of %d pairs dark first, %d washes. %s", name, in.ID, dark, pairs, p.Washes, p.Late)
			yellow := slices.IndexFunc(p.Order, func(i int) bool { return s.Regions[i].ID == "yellow" })
			if yellow > 4 {
				assert.Regexp(t, "^Light before dark, but for yellow: first, it would take .* (longer|more washes?)", p.Late, "%s in %s", name, in.ID)
			}
			if in.MayTouch {
				assert.Less(t, float64(dark), 0.35*float64(pairs), "%s in %s", name, in.ID)
			}
		}
	}
}

func TestWhyRunsAreNotKept(t *testing.T) {
	for says, c := range map[string]func(*bench.Settings){
		"a pile lasts 8. Cover the wells, and it lasts 60": func(*bench.Settings) {},
		"a pile lasts 8 minutes, and painting":             func(s *bench.Settings) { s.Gaps, s.Fill, s.Diameter = true, bench.FromWeaker, 400 },
		"need more wells than 1.": func(s *bench.Settings) {
			s.Medium, s.Gaps, s.Fill, s.Wells = medium(t, "gouache"), false, bench.SecondaryFirst, 1
		},
	} {
		set := bench.Usual(medium(t, "acrylic"))
		c(&set)
		s := bench.Wheel(triad(t), bench.Extras{}, set)
		p, err := bench.Sketch(&s, set)
		require.NoError(t, err)
		assert.Contains(t, p.Why, says)
		if set.Gaps {
			assert.NotContains(t, p.Why, "neighbours", "nobody waits for them")
		}
	}
}
