package journal

import (
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
	"gyrophane/core/photo"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// painted are the places of a wheel, their tubes really so many times as strong, read with
// noise: 1.4 in each of L*, a* and b*, as an eye and a phone together stray.
func painted(t testing.TB, r *rand.Rand, kind wheel.SystemKind, roles [3][]string, neutral bool, strength map[string]float64, in paint.Medium) (out []Sample) {
	t.Helper()
	system, err := wheel.NewSystem(kind, [3][]*paint.Paint{painttest.Paints(roles[0]...), painttest.Paints(roles[1]...), painttest.Paints(roles[2]...)})
	require.NoError(t, err)
	s := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{Neutral: neutral}, bench.Usual(in))
	for i := range s.Regions {
		parts := s.Regions[i].Recipe.Plain()
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if g := strength[parts[n].Paint.ID]; g > 0 {
				return g
			}
			return 1
		})
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		lab := look.Lab()
		if r != nil {
			lab = colour.Lab{L: lab.L + 1.4*r.NormFloat64(), A: lab.A + 1.4*r.NormFloat64(), B: lab.B + 1.4*r.NormFloat64()}
		}
		out = append(out, Sample{Region: s.Regions[i].ID, Parts: parts, Lab: lab, Noise: 1.2})
	}
	return out
}

var (
	triadRoles = [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}
	splitRoles = [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}
)

func gouache(t testing.TB) paint.Medium {
	t.Helper()
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	return in
}

// Without noise the true ratios come back.
func TestStrengthsAreLearned(t *testing.T) {
	in := gouache(t)
	got, err := Learn(painted(t, nil, wheel.RYB, triadRoles, false, map[string]float64{"PB29": 1.8}, in), in, Sure{})
	require.NoError(t, err)
	assert.True(t, got.Proposed)
	assert.Equal(t, 1, got.Separate)
	ratio := map[string]float64{}
	for _, s := range got.Strengths {
		ratio[s.Paint.ID] = s.New / s.Old
		assert.True(t, s.Settled, s.Paint.ID)
		assert.True(t, s.Low < s.New && s.New < s.High)
	}
	assert.InDelta(t, 1.8, ratio["PB29"]/ratio["PY65"], 0.12)
	assert.InDelta(t, 1, ratio["PR254"]/ratio["PY65"], 0.1)
	assert.Less(t, got.After, 0.3*got.Before)
}

// Tubes that no mixture joins cannot be told apart; neutral circles join them.
func TestTubesThatNeverMeetAreSaidSo(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(18, 1))
	apart, err := Learn(painted(t, r, wheel.Split, splitRoles, false, nil, in), in, Sure{})
	require.NoError(t, err)
	assert.Equal(t, 3, apart.Separate)
	joined, err := Learn(painted(t, r, wheel.Split, splitRoles, true, nil, in), in, Sure{})
	require.NoError(t, err)
	assert.Equal(t, 1, joined.Separate)
}

// The figures that bench.md holds learning to, over fewer draws than they were measured
// over.
func TestLearningHoldsWhatItPromises(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(18, 2))
	const draws = 40
	var off []float64
	within, all := 0, 0
	better := 0
	for n := range draws {
		kind, roles, neutral := wheel.RYB, triadRoles, true
		if n%2 == 1 {
			kind, roles = wheel.Split, splitRoles
		}
		truth := map[string]float64{}
		for _, role := range roles {
			for _, id := range role {
				truth[id] = math.Exp((2*r.Float64() - 1) * math.Ln2)
			}
		}
		got, err := Learn(painted(t, r, kind, roles, neutral, truth, in), in, Sure{})
		require.NoError(t, err)
		kept, shift := gauges(&got, truth)
		for _, s := range got.Strengths {
			off = append(off, math.Abs(math.Log(s.New/s.Old/truth[s.Paint.ID])-shift))
			truly := truth[s.Paint.ID] / math.Exp(kept)
			all++
			if s.Low/s.Old <= truly && truly <= s.High/s.Old {
				within++
			}
		}
		if got.LeftOut < 0.5*got.Before {
			better++
		}
	}
	slices.Sort(off)
	assert.Less(t, off[len(off)/2], math.Log(1.15), "median of the ratios")
	assert.GreaterOrEqual(t, float64(within), 0.9*float64(all), "intervals hold the truth")
	t.Logf("median ratio off %.3f, within %d of %d, error halved in %d of %d", off[len(off)/2], within, all, better, draws)

	none, stronger := 0, 0
	for range draws {
		got, err := Learn(painted(t, r, wheel.RYB, triadRoles, true, nil, in), in, Sure{})
		require.NoError(t, err)
		if !got.Proposed {
			none++
		}
		got, err = Learn(painted(t, r, wheel.RYB, triadRoles, true, map[string]float64{"PB29": 1.5}, in), in, Sure{})
		require.NoError(t, err)
		if got.Proposed {
			stronger++
		}
	}
	t.Logf("no proposal without a difference %d of %d, proposed at 1.5 %d of %d", none, draws, stronger, draws)
	assert.GreaterOrEqual(t, none, draws*95/100)
	assert.GreaterOrEqual(t, stronger, draws*75/100)
}

// gauges are the common factors, as logarithms, that no reading tells: of the tubes that are not named to
// what they truly are, and of all of them as they were learned.
func gauges(l *Learned, truth map[string]float64) (kept, shift float64) {
	n := 0.0
	for _, s := range l.Strengths {
		if g := math.Log(truth[s.Paint.ID]); !s.Named {
			kept, n = kept+g, n+1
		}
		shift += math.Log(s.New/s.Old/truth[s.Paint.ID]) / float64(len(l.Strengths))
	}
	return kept / math.Max(n, 1), shift
}

// unseen are mixtures of every two tubes, one to one and three to one, that no wheel was
// painted of.
func unseen(tubes []*paint.Paint, seen []Sample) (out [][]paint.Part) {
	for i, a := range tubes {
		for _, b := range tubes[:i] {
			if slices.ContainsFunc(seen, func(s Sample) bool {
				has := func(p *paint.Paint) bool {
					return slices.ContainsFunc(s.Parts, func(q paint.Part) bool { return q.Paint == p })
				}
				return len(s.Parts) == 2 && has(a) && has(b)
			}) {
				continue
			}
			out = append(out, []paint.Part{{Paint: a, Parts: 1}, {Paint: b, Parts: 1}}, []paint.Part{{Paint: a, Parts: 3}, {Paint: b, Parts: 1}})
		}
	}
	return out
}

// What is learned from the pairs of a wheel halves the error of those that it has not, and
// of the pairs that it has in other parts.
func TestLearningHalvesTheErrorOfUnseenPairs(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(18, 5))
	before, after, mixtures := 0.0, 0.0, 0
	for range 20 {
		truth := map[string]float64{}
		for _, role := range splitRoles {
			for _, id := range role {
				truth[id] = math.Exp((2*r.Float64() - 1) * math.Ln2)
			}
		}
		samples := painted(t, r, wheel.Split, splitRoles, true, truth, in)
		got, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		learned := map[string]float64{}
		var tubes []*paint.Paint
		for _, s := range got.Strengths {
			learned[s.Paint.ID], tubes = s.New, append(tubes, s.Paint)
		}
		look := func(parts []paint.Part, strength map[string]float64) colour.Lab {
			m, err := paint.Strengthened(parts, func(n int) float64 {
				if g := strength[parts[n].Paint.ID]; g > 0 {
					return g
				}
				return 1
			})
			require.NoError(t, err)
			l := m.AsPainted(in, false)
			return l.Lab()
		}
		for _, parts := range unseen(tubes, samples) {
			really := look(parts, truth)
			before += colour.Difference(really, look(parts, nil))
			after += colour.Difference(really, look(parts, learned))
			mixtures++
		}
	}
	t.Logf("mean error of %d unseen mixtures %.2f, then %.2f", mixtures, before/float64(mixtures), after/float64(mixtures))
	require.Greater(t, mixtures, 100)
	assert.Less(t, after, 0.5*before)
}

// A hand's dabs stray by 0.3 mm; what is stated of the strengths holds all the same.
func TestIntervalsHoldWithDabsOfAHand(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(18, 6))
	dabs, err := recipe.NewScale(recipe.Dabs, 0)
	require.NoError(t, err)
	set := bench.Usual(in)
	within, all := 0, 0
	for range painttest.InFull(70, 200) {
		truth := map[string]float64{}
		for _, role := range triadRoles {
			truth[role[0]] = math.Exp((2*r.Float64() - 1) * math.Ln2)
		}
		clean := painted(t, nil, wheel.RYB, triadRoles, true, nil, in)
		samples := clean
		for i := range samples {
			s := &samples[i]
			whole := 0.0
			for _, p := range s.Parts {
				whole += p.Parts
			}
			really := slices.Clone(s.Parts)
			for n := range really {
				hand := dabs.StrayOf(set.Slot() * really[n].Parts / whole)
				s.Strays = append(s.Strays, hand)
				if really[n].Parts *= 1 + hand*r.NormFloat64(); really[n].Parts <= 0 {
					really[n].Parts = 0.01
				}
			}
			m, err := paint.Strengthened(really, func(n int) float64 { return truth[really[n].Paint.ID] })
			require.NoError(t, err)
			look := m.AsPainted(in, false)
			lab := look.Lab()
			s.Lab = colour.Lab{L: lab.L + 1.4*r.NormFloat64(), A: lab.A + 1.4*r.NormFloat64(), B: lab.B + 1.4*r.NormFloat64()}
		}
		got, err := Learn(samples, in, Sure{})
		require.NoError(t, err)
		kept, _ := gauges(&got, truth)
		for _, s := range got.Strengths {
			truly := truth[s.Paint.ID] / math.Exp(kept)
			all++
			if s.Low/s.Old <= truly && truly <= s.High/s.Old {
				within++
			}
		}
	}
	t.Logf("intervals hold %d of %d", within, all)
	assert.GreaterOrEqual(t, float64(within), 0.9*float64(all))
}

// The fewest tubes change: one that is stronger is named alone, and the others stay as they were; of
// what is as likely both are said and nothing is taken; of two tubes only their ratio is known.
func TestTheFewestTubesChange(t *testing.T) {
	in := gouache(t)
	named := func(l *Learned) (out []string) {
		for _, s := range l.Offer() {
			out = append(out, s.Paint.ID)
		}
		return out
	}
	alone, exact, false1 := 0, 0, 0
	r := rand.New(rand.NewPCG(28, 4))
	draws := painttest.InFull(18, 40)
	for range draws {
		none, err := Learn(painted(t, r, wheel.Split, splitRoles, true, nil, in), in, Sure{})
		require.NoError(t, err)
		if len(named(&none)) > 0 {
			false1++
		}
		one, err := Learn(painted(t, r, wheel.Split, splitRoles, true, map[string]float64{"PB29": 1.8}, in), in, Sure{})
		require.NoError(t, err)
		if slices.Equal(named(&one), []string{"PB29"}) {
			if is := one.Offer()[0]; math.Abs(is.New/is.Old-1.8) <= 0.36 {
				alone++ // within a fifth
			}
		}
		for _, s := range one.Strengths {
			if !s.Named {
				assert.Equal(t, s.Old, s.New, "%s stays", s.Paint.ID)
			}
		}
		two, err := Learn(painted(t, r, wheel.Split, splitRoles, true, map[string]float64{"PB29": 1.8, "PY184": 0.55}, in), in, Sure{})
		require.NoError(t, err)
		if got := named(&two); slices.Contains(got, "PB29") && slices.Contains(got, "PY184") && len(got) == 2 {
			exact++
		}
	}
	t.Logf("of %d: none named where none changed but in %d, one alone in %d, two exactly in %d", draws, false1, alone, exact)
	assert.LessOrEqual(t, false1, draws*5/100)
	assert.GreaterOrEqual(t, alone, draws*80/100)
	assert.GreaterOrEqual(t, exact, draws*80/100)
}

func TestOfTwoTubesOnlyTheirRatioIsTold(t *testing.T) {
	in := gouache(t)
	var samples []Sample
	for _, s := range painted(t, nil, wheel.RYB, triadRoles, false, map[string]float64{"PB29": 1.8}, in) {
		if !slices.ContainsFunc(s.Parts, func(p paint.Part) bool { return p.Paint.ID == "PR254" }) {
			samples = append(samples, s)
		}
	}
	got, err := Learn(samples, in, Sure{})
	require.NoError(t, err)
	assert.Empty(t, got.Offer())
	require.Len(t, got.Says(), 1)
	assert.Contains(t, got.Says()[0], "which of the two it is, these readings cannot tell")
}

// What is taken is what was quoted: the errors are those of the named tubes alone.
func TestWhatIsQuotedIsOfWhatIsTaken(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(28, 5))
	samples := painted(t, r, wheel.RYB, triadRoles, true, map[string]float64{"PB29": 1.6}, in)
	got, err := Learn(samples, in, Sure{})
	require.NoError(t, err)
	require.Len(t, got.Offer(), 1)
	taken := got.Offer()[0]
	mean := 0.0
	for _, s := range samples {
		m, err := paint.Strengthened(s.Parts, func(n int) float64 {
			if s.Parts[n].Paint == taken.Paint {
				return taken.New / taken.Old
			}
			return 1
		})
		require.NoError(t, err)
		look := m.FilmIn(in, in.Thickness, false)
		mean += colour.Difference(look.Lab(), s.Lab) / float64(len(samples))
	}
	assert.InDelta(t, mean, got.After, 0.02)
}

// Readings of something else are called that, without figures; nothing is proposed.
func TestNonsenseIsCalledThat(t *testing.T) {
	in := gouache(t)
	r := rand.New(rand.NewPCG(28, 6))
	samples := painted(t, r, wheel.Split, splitRoles, true, nil, in)
	labs := make([]colour.Lab, len(samples))
	for i := range samples {
		labs[i] = samples[(i+7)%len(samples)].Lab
	}
	for i := range samples {
		samples[i].Lab = labs[i]
	}
	got, err := Learn(samples, in, Sure{})
	require.NoError(t, err)
	assert.True(t, got.Nonsense)
	assert.Empty(t, got.Offer())
	require.Len(t, got.Says(), 1)
	assert.NotRegexp(t, `[0-9]`, got.Says()[0])
	sound, err := Learn(painted(t, r, wheel.Split, splitRoles, true, map[string]float64{"PB29": 2}, in), in, Sure{})
	require.NoError(t, err)
	assert.False(t, sound.Nonsense)
}

func TestOnlyTheNamedAreOffered(t *testing.T) {
	other := Strength{Paint: painttest.Paint("PB29"), Old: 1, New: 1.6, Low: 1.4, High: 1.8, Settled: true, Named: true}
	same := Strength{Paint: painttest.Paint("PY65"), Old: 1, New: 1, Low: 0.9, High: 1.05, Settled: true}
	l := Learned{Strengths: []Strength{other, same}}
	assert.Empty(t, l.Offer(), "chance makes as much")
	l.Proposed = true
	assert.Equal(t, []Strength{other}, l.Offer())
}

func TestWhatCannotBeLearnedFromIsRefused(t *testing.T) {
	in := gouache(t)
	_, err := Learn(nil, in, Sure{})
	assert.ErrorContains(t, err, "from 3 to")
	assert.ErrorAs(t, err, new(input.Error))
	white := painttest.Paint("PW6")
	var whites []Sample
	for range 3 {
		whites = append(whites, Sample{Parts: []paint.Part{{Paint: white, Parts: 1}}, Noise: 1})
	}
	_, err = Learn(whites, in, Sure{})
	assert.ErrorContains(t, err, "no coloured paints")
}

func BenchmarkLearnFrom200ReadingsOf14Tubes(b *testing.B) { benchmarkLearning(b, 0) }

func BenchmarkLearnFrom200ReadingsOf14TubesOffPhotos(b *testing.B) { benchmarkLearning(b, 5) }

// benchmarkLearning learns from 200 readings of 14 tubes, read by an instrument or off so many photos.
func benchmarkLearning(b *testing.B, photos int) {
	in := gouache(b)
	r := rand.New(rand.NewPCG(18, 3))
	ids := []string{"PY184", "PY65", "PY74", "PY43", "PR255", "PR254", "PR122", "PV23", "PB29", "PB15:3", "PB28", "PG7", "PO20", "PBk9"}
	rendering := photo.Rendering{Contrast: 0.4, Saturation: 0.15, Grey: 0.5}
	light := photo.Light{0.7, 0.7, 0.7}
	paper := rendering.On(light)
	var of []*Photograph
	for range photos {
		of = append(of, &Photograph{})
	}
	var samples []Sample
	for len(samples) < 200 {
		a, c := painttest.Paint(ids[r.IntN(len(ids))]), painttest.Paint(ids[r.IntN(len(ids))])
		if a == c {
			continue
		}
		parts := []paint.Part{{Paint: a, Parts: float64(1 + r.IntN(12))}, {Paint: c, Parts: 1}}
		m, err := paint.Mix(parts...)
		require.NoError(b, err)
		look := m.AsPainted(in, false)
		one := Sample{Parts: parts, Lab: look.Lab(), Noise: 1.2}
		if photos > 0 {
			one.Lab = paper.Shown(one.Lab)
			one.Photo = &PhotoSpot{Of: of[len(samples)%photos], Light: light}
		}
		one.Lab.L += 1.4 * r.NormFloat64()
		samples = append(samples, one)
	}
	for b.Loop() {
		_, err := Learn(samples, in, Sure{})
		require.NoError(b, err)
	}
}
