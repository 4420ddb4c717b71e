package reach

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

func TestSystemsStandBesideEachOther(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	triad := Measure(systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"}), acrylic)
	split := Measure(systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}), acrylic)
	assert.Greater(t, split.Reach.Clean(), triad.Reach.Clean())
	for _, s := range []Metrics{triad, split} {
		assert.Positive(t, s.Evenness)
		assert.LessOrEqual(t, s.Evenness, 1.0)
		assert.Positive(t, s.Lamp.DE)
		assert.Less(t, s.Dark.Lab.L, 25.0)
		assert.Positive(t, s.Middles)
		for bin, c := range s.Shades {
			if s.Reach[bin] > 0.2 {
				assert.NotNil(t, c, "what is reached has a colour to draw it in: %v degrees", Middle(bin))
			}
		}
	}
}

func TestOneSentenceDecides(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	triad := Named{Name: "Triad", System: systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"})}
	split := Named{Name: "Split", System: systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"})}
	cyan := Named{Name: "Printers", System: systemOf(t, wheel.CMY, []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"})}
	of := func(systems ...Named) string {
		all, err := SideBySide(systems, acrylic)
		require.NoError(t, err)
		return Decide(all)
	}
	assert.Equal(t, "Split reaches furthest: clean at 100 % of the hues, Triad at 28 %; Split takes 6 tubes, Triad 3.", of(triad, split))
	assert.Equal(t, of(triad, split), of(split, triad), "whichever comes first")
	assert.Regexp(t, "^Split .*; Split takes 6 tubes, Printers 3.$", of(triad, cyan, split))
	assert.Regexp(t, "^Split and Split again reach about as far as each other: clean at 100 % and 100 % of the hues.$", of(split, Named{Name: "Split again", System: split.System}))
	assert.Contains(t, of(triad), "Triad is clean from")
}

func TestWhatIsTooDarkToJudgeShiftsNowhere(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	dark := Measure(systemOf(t, wheel.OwnSystem, []string{"PV23"}, []string{"PB60"}, []string{"PB27"}), acrylic)
	assert.Equal(t, Shift{Slot: -1}, dark.Lamp)
	mixed := Measure(systemOf(t, wheel.OwnSystem, []string{"PY184"}, []string{"PV23"}, []string{"PB60"}), acrylic)
	look := mixed.Wheel.Slots[mixed.Lamp.Slot].Mixture.AsPainted(acrylic, false)
	assert.GreaterOrEqual(t, look.Lab().L, 14.0)
}

func TestDifferencesAreSaid(t *testing.T) {
	round := func(from, to int, v float64) (r Reach) {
		for i := from; i <= to; i++ {
			r[i%Bins] = v
		}
		return r
	}
	for _, c := range []struct {
		a, b Reach
		says string
	}{
		{round(0, 71, 1), round(0, 71, 0.9), "A and B are as clean as each other everywhere."},
		{round(0, 71, 1), Reach{}, "A is cleaner all the way round."},
		{round(0, 71, 0.8), round(0, 71, 0.8).With(round(0, 0, 1)), "A and B are as clean as each other everywhere."},
		{round(42, 60, 1), round(10, 14, 1), "A is cleaner from blue-green to violet; B is cleaner in the orange."},
		{round(70, 73, 0.5), round(36, 37, 0.5), "A is cleaner in the red; B is cleaner in the green."},
		{round(0, 71, 0.4), round(0, 71, 0.4).With(round(5, 5, 0.9)), "A and B are as clean as each other everywhere."}, // a single bin is not spoken of
		{round(0, 71, 0.8).With(round(10, 14, 0.95)), round(0, 71, 0.8).With(round(47, 52, 1)), "A and B are as clean as each other everywhere; A is brighter in the orange; B is brighter from blue to blue-violet."},
		{round(0, 71, 0.4).With(round(10, 14, 0.95)), round(0, 71, 0.4).With(round(47, 52, 0.6)), "A is cleaner in the orange."}, // what is brighter is left to the drawing
	} {
		assert.Equal(t, c.says, Compare(c.a, c.b).Sentence("A", "B"))
	}
}

func BenchmarkStand(b *testing.B) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(b, err)
	s := systemOf(b, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"})
	for b.Loop() {
		Measure(s, acrylic)
	}
}

func TestAPathReachesTheSameFromEitherEnd(t *testing.T) {
	for _, c := range [][2]string{{"PY74", "PB15:3"}, {"PR255", "PB29"}, {"PR122", "PB29"}, {"PY65", "PR254"}, {"PR254", "PG7"}} {
		p := painttest.Paints(c[0], c[1])
		there, back := OfPath(path.New(p[0], p[1])), OfPath(path.New(p[1], p[0]))
		reached := 0
		for bin := range there {
			assert.InDelta(t, there[bin], back[bin], 0.01, "%v at %v degrees", c, Middle(bin))
			if there[bin] > 0 {
				reached++
			}
		}
		assert.Positive(t, reached, c)
		assert.Less(t, reached, Bins, "no two paints go all the way round")
	}
}

func TestAReachNeverPassesTheEnvelope(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	s := Measure(systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}), acrylic)
	for bin, v := range s.Reach {
		assert.GreaterOrEqual(t, v, 0.0)
		assert.LessOrEqual(t, v, 1.0)
		if c := s.Shades[bin]; c != nil {
			lch := c.OKLCh()
			assert.InDelta(t, 0, colour.TurnBetween(Middle(bin), colour.WheelHue(lch.H)), 3, "the colour of a bin has its hue")
			assert.LessOrEqual(t, lch.C, paint.Envelope(Middle(bin))*1.02)
		}
	}
	assert.InDelta(t, s.Reach.Mean(), Reach(s.Reach).With(Reach{}).Mean(), 1e-12, "nothing added")
}

func TestEveryBinIsOnOneSideOfADifference(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	a := Measure(systemOf(t, wheel.RYB, []string{"PY65"}, []string{"PR254"}, []string{"PB29"}), acrylic)
	b := Measure(systemOf(t, wheel.CMY, []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"}), acrylic)
	d, back := Compare(a.Reach, b.Reach), Compare(b.Reach, a.Reach)
	assert.Equal(t, d.First, back.Second, "from the other side it is the other way round")
	assert.Equal(t, d.Second, back.First)
	assert.Equal(t, d.FirstBrighter, back.SecondBrighter)
	seen := map[int]bool{}
	for _, runs := range [][]HueRange{d.First, d.Second, d.FirstBrighter, d.SecondBrighter} {
		for _, r := range runs {
			assert.Less(t, r.From, r.To)
			for bin := r.From; bin <= r.To; bin++ {
				assert.False(t, seen[bin%Bins], "no bin twice")
				seen[bin%Bins] = true
			}
		}
	}
	for _, r := range d.Second {
		for bin := r.From; bin <= r.To; bin++ {
			assert.Greater(t, paint.VerdictAt(b.Reach[bin%Bins]), paint.VerdictAt(a.Reach[bin%Bins]))
		}
	}
	assert.Equal(t, Difference{}, Compare(a.Reach, a.Reach))
}

func TestRunsAreNamedInOrder(t *testing.T) {
	for says, runs := range map[string][]HueRange{
		"":                               {},
		"in the red":                     {{71, 73}},
		"all the way round":              {{0, 71}},
		"in the orange and in the green": {{11, 13}, {35, 37}},
		"in the orange, in the green and from blue to violet": {{11, 13}, {35, 37}, {47, 60}},
	} {
		assert.Equal(t, says, Runs(runs))
	}
}

func TestTheStepNearestInHueIsFoundOnTheOtherWheel(t *testing.T) {
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	s := Measure(systemOf(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}), acrylic)
	for home := range 12 {
		slot := s.Wheel.At(home)
		assert.Equal(t, home, s.NearestSlot(slot), "itself, on its own wheel: %s", slot.Name)
	}
	half := Measure(systemOf(t, wheel.OwnSystem, []string{"PY74"}, nil, []string{"PB29"}), acrylic)
	for at := range 12 {
		one := s.Wheel.At(at)
		home := half.NearestSlot(one)
		require.GreaterOrEqual(t, home, 0)
		assert.False(t, half.Wheel.At(home).Empty, "no step that is not there")
		own := math.Abs(colour.TurnBetween(half.Wheel.At(home).Under.WheelHue, one.Under.WheelHue))
		for other := range 12 {
			if slot := half.Wheel.At(other); !slot.Empty && slot.Under.HasHue() {
				assert.GreaterOrEqual(t, math.Abs(colour.TurnBetween(slot.Under.WheelHue, one.Under.WheelHue)), own)
			}
		}
		if missing := half.Wheel.At(at); missing.Empty {
			assert.Equal(t, -1, s.NearestSlot(missing), "a step that is not there is like none")
		}
	}
}

func TestWhatToBuyNextIsExact(t *testing.T) {
	box := painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PW6")
	offered := painttest.Paints("PB15:3", "PB28", "PY43", "PG7", "PB60")
	table := tableOf(t, append(box[:len(box):len(box)], offered...))
	criteria := Criteria{Kind: wheel.RYB}
	for _, p := range box {
		criteria.Among = append(criteria.Among, p.ID)
	}
	got, err := table.BuyNext(t.Context(), criteria, offered)
	require.NoError(t, err)
	require.NotEmpty(t, got)
	own, err := tableOf(t, box).Best(t.Context(), Criteria{Kind: wheel.RYB})
	require.NoError(t, err)
	gains := map[string]float64{}
	for i, b := range got {
		assert.Positive(t, b.Gain)
		if i > 0 {
			assert.LessOrEqual(t, b.Gain, got[i-1].Gain, "the one that adds most first")
		}
		gains[b.Paint.ID] = b.Gain
	}
	for _, p := range offered {
		with, err := tableOf(t, append(box[:len(box):len(box)], p)).Best(t.Context(), Criteria{Kind: wheel.RYB})
		require.NoError(t, err)
		assert.InDelta(t, max(0, with[0].Reach.Clean()-own[0].Reach.Clean()), gains[p.ID], 1e-9, p.ID)
	}
	news := NotIn(box)
	for _, p := range news {
		assert.NotContains(t, box, p)
	}
	assert.Len(t, news, len(paint.Library())-len(box))
	_, err = table.BuyNext(t.Context(), Criteria{Kind: wheel.OwnSystem}, offered)
	assert.Error(t, err)
}
