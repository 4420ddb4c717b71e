package bench_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

func worksheetOf(t *testing.T, system wheel.System, without ...bench.Part) bench.Sheet {
	t.Helper()
	set := bench.Usual(paint.Media()[1])
	s, err := bench.Worksheet(wheel.Build(system, wheel.Options{ShadeBy: wheel.ByComplement}), bench.Which{Slot: 1, Without: without}, bench.Material{}, set)
	require.NoError(t, err)
	return s
}

func TestAWorksheetHoldsAllThatIsPaintedToKnowASystem(t *testing.T) {
	s := worksheetOf(t, systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"))
	count := map[string]int{}
	for _, r := range s.Regions {
		name, _, grouped := strings.Cut(r.ID, "/")
		if !grouped {
			name = "wheel"
		}
		count[name]++
	}
	assert.Equal(t, map[string]int{"wheel": 12, "grey": 3, "run 1": 5, "run 2": 5, "values": 7, "intensity": 7}, count)

	for _, left := range bench.Parts {
		of := worksheetOf(t, systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), left)
		assert.Less(t, len(of.Regions), len(s.Regions), "without %s", left)
	}
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", ""), wheel.Options{})
	_, err := bench.Worksheet(w, bench.Which{Slot: 1, Without: []bench.Part{"tints"}}, bench.Material{}, bench.Usual(paint.Media()[1]))
	assert.ErrorContains(t, err, `no part "tints"`)
	_, err = bench.Worksheet(w, bench.Which{Slot: 1, Without: bench.Parts}, bench.Material{}, bench.Usual(paint.Media()[1]))
	assert.ErrorContains(t, err, "nothing is left on a worksheet")
	_, err = bench.Which{Kind: bench.ValuesSheet, Slot: 1}.Of(w, bench.Material{}, bench.Extras{}, bench.Usual(paint.Media()[1]))
	assert.ErrorContains(t, err, "nothing to be shaded with")
	two, err := bench.Worksheet(w, bench.Which{Slot: 1}, bench.Material{}, bench.Usual(paint.Media()[1]))
	require.NoError(t, err)
	for _, r := range two.Regions {
		assert.NotEmpty(t, r.Recipe, "%s: nothing of an empty slot is painted", r.ID)
	}
}

func TestAWorksheetTakesMoreBesideIt(t *testing.T) {
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), wheel.Options{ShadeBy: wheel.ByComplement})
	at := func(name string) int {
		return slices.IndexFunc(w.Slots[:], func(s wheel.Slot) bool { return s.Name == name })
	}
	earth, err := paint.Find("PY43")
	require.NoError(t, err)
	tube, err := paint.Find("PG7")
	require.NoError(t, err)
	have := bench.Material{Earth: earth, Tube: tube}
	set := bench.Usual(paint.Media()[1])
	s, err := bench.Worksheet(w, bench.Which{Slot: at("green"), Without: bench.Parts[1:], With: []bench.Part{bench.DarkPart, bench.EarthPart, bench.TubePart}}, have, set)
	require.NoError(t, err)
	found := map[string]string{}
	for _, r := range s.Regions {
		if _, id, extra := strings.Cut(r.ID, "/"); extra {
			found[id] = r.Parents
		}
	}
	assert.Len(t, found, 2+3+2)
	for i := range 3 {
		of := found[fmt.Sprint(i+1)]
		assert.True(t, strings.Contains(of, "PY43") && strings.Contains(of, "PB29"), "greens from an earth: %s", of)
	}
	assert.Equal(t, "PG7", found["tube"])
	assert.Contains(t, found["mixed"], "PY65")
	assert.Contains(t, found["tint"], "PW6")
	for _, r := range s.Regions {
		assert.LessOrEqual(t, r.X+r.W, 182.0, r.ID)
	}

	plain, err := bench.Worksheet(w, bench.Which{Slot: at("yellow"), With: bench.WhenAsked}, bench.Material{}, set)
	require.NoError(t, err)
	for _, r := range plain.Regions {
		assert.False(t, strings.HasPrefix(r.ID, "earth/") || strings.HasPrefix(r.ID, "tube/"), "there is neither")
	}
	_, err = bench.Worksheet(w, bench.Which{With: []bench.Part{"cake"}}, have, set)
	assert.ErrorContains(t, err, `no part "cake" to add`)
}

// However large the painter's own wheel is, that of a worksheet is as large as the sheet has room for.
func TestAWorksheetsWheelIsOneSize(t *testing.T) {
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), wheel.Options{ShadeBy: wheel.ByComplement})
	for _, diameter := range []float64{60, 112, 400} {
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: diameter}.Complete()
		require.NoError(t, err)
		s, err := bench.Worksheet(w, bench.Which{Slot: 1}, bench.Material{}, set)
		require.NoError(t, err)
		for _, r := range s.Regions {
			if r.To > r.From {
				assert.InDelta(t, 56, r.Outer, 1e-9, "%s of %.0f mm", r.ID, diameter)
				assert.InDelta(t, 28, r.Inner, 1e-9, "%s of %.0f mm", r.ID, diameter)
			}
		}
	}
}

func TestAWorksheetIsDrawnPartByPart(t *testing.T) {
	s := worksheetOf(t, systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"))
	s.Lay(182)
	said := strings.Join(s.Draw(bench.Ruler).Steps, "\n")
	for _, line := range []string{
		"Mark the middle of its wheel 56 mm from the left and 56 mm from the top.",
		"3 places 18 mm by 16 mm, 22 mm from one to the next.", // greys
		"2 places 18 mm by 16 mm", // the end of a run
		"a strip 182 mm by 20 mm, parted into 7.",
	} {
		assert.Contains(t, said, line)
	}
	assert.NotContains(t, said, " 0 mm by", "no place is without a size")
	six, err := bench.WarmCool(systemOf(t, wheel.Split, "PY184 PY65", "PR255 PR122", "PB29 PB15:3"), "violet", 0)
	require.NoError(t, err)
	said = strings.Join(six.Draw(bench.Ruler).Steps, "\n")
	assert.Equal(t, 2, strings.Count(said, "3 places 22 mm by 20 mm, 24 mm from one to the next."))
	assert.Equal(t, 4, strings.Count(said, "3 places 32 mm by 20 mm, 36 mm from one to the next."))
}

func TestAWorksheetsPlacesLieApartAndWithinItsWidth(t *testing.T) {
	for _, system := range []wheel.System{systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), systemOf(t, wheel.Split, "PY184 PY65", "PR255 PR122", "PB29 PB15:3")} {
		for _, without := range [][]bench.Part{nil, {bench.WheelPart}, {bench.GreysPart, bench.RunsPart}, {bench.ValuesPart, bench.IntensityPart}, {bench.GreysPart}} {
			s := worksheetOf(t, system, without...)
			for _, width := range []float64{120, 182, 187.9, 269, 182} {
				s.Lay(width)
				about := fmt.Sprintf("without %v, at %.0f mm", without, width)
				assert.LessOrEqual(t, s.W, width+1e-9, about)
				ids := map[string]bool{}
				for i := range s.Regions {
					a := &s.Regions[i]
					assert.False(t, ids[a.ID], "%s: %s stands twice", about, a.ID)
					ids[a.ID] = true
					for k, at := range a.Within(0) {
						if k%29 > 0 {
							continue
						}
						assert.True(t, at[0] >= 0 && at[0] <= s.W && at[1] >= 0 && at[1] <= s.H, "%s: %s leaves the sheet", about, a.ID)
						for j := range s.Regions {
							assert.Equal(t, i == j, s.Regions[j].Holds(at[0], at[1], 0), "%s: %s and %s at %v", about, a.ID, s.Regions[j].ID, at)
						}
					}
					for _, j := range a.Touches {
						b := &s.Regions[j]
						assert.Equal(t, a.W > 0, b.W > 0, "%s: %s touches %s", about, a.ID, b.ID)
						if a.W > 0 {
							assert.True(t, a.Y == b.Y && math.Abs(math.Abs(a.X-b.X)-a.W) < 1e-9, "%s: %s touches %s", about, a.ID, b.ID)
						}
					}
				}
			}
		}
	}
}

// slotOf is the index of a slot of a wheel by its name.
func slotOf(w *wheel.Wheel, name string) int {
	return slices.IndexFunc(w.Slots[:], func(s wheel.Slot) bool { return s.Name == name })
}

// What is added to a wheel, of any size, lies beneath it, apart and as wide as it; and the wheel stays what it
// was.
func TestAWheelTakesMoreBeneathIt(t *testing.T) {
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), wheel.Options{ShadeBy: wheel.ByComplement})
	have := bench.Material{Earth: painttest.Paint("PY43"), Tube: painttest.Paint("PG7")}
	for _, diameter := range []float64{60, 112, 180, 400} {
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: diameter}.Complete()
		require.NoError(t, err)
		alone := bench.Wheel(w, bench.Extras{Tints: 1}, set)
		s, err := bench.Which{Slot: slotOf(w, "green"), With: bench.WhenAsked}.Of(w, have, bench.Extras{Tints: 1}, set)
		require.NoError(t, err)
		require.Len(t, s.Regions, len(alone.Regions)+2+3+2+2)
		assert.Equal(t, alone.Regions, s.Regions[:len(alone.Regions)])
		left, _, right, bottom := s.Bounds()
		for i := len(alone.Regions); i < len(s.Regions); i++ {
			a := &s.Regions[i]
			assert.False(t, a.Main, a.ID)
			assert.Greater(t, a.Y, diameter/2, a.ID)
			assert.True(t, a.X >= left && a.X+a.W <= right && a.Y+a.H <= bottom, "%s of %.0f mm", a.ID, diameter)
			for j := range s.Regions {
				assert.Equal(t, i == j, s.Regions[j].Holds(a.X+a.W/2, a.Y+a.H/2, 0), "%s and %s", a.ID, s.Regions[j].ID)
			}
		}
		for n, m := range s.Marks() {
			for i := range s.Regions {
				assert.False(t, s.Regions[i].Holds(m[0], m[1], -bench.MarkRadius), "%.0f mm: mark %d lies over %s", diameter, n, s.Regions[i].ID)
			}
		}
		for _, by := range bench.DrawBys {
			assert.Contains(t, strings.Join(s.Draw(by).Steps, "\n"), "9 places 25 mm by 14 mm")
		}
	}
	set := bench.Usual(paint.Media()[1])
	_, err := bench.Which{With: []bench.Part{"tints"}}.Of(w, have, bench.Extras{}, set)
	assert.ErrorContains(t, err, `a wheel has no part "tints" to add`)
	_, err = bench.Which{Without: []bench.Part{bench.WheelPart}}.Of(w, have, bench.Extras{}, set)
	assert.ErrorContains(t, err, "no parts that could be left out")
}

// What is chosen is no paint of the system, nor a tube of the same.
func TestWhatIsAddedIsAnotherPaint(t *testing.T) {
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), wheel.Options{})
	mine, err := painttest.Paint("PR254").Tube("tube:1", 1.4)
	require.NoError(t, err)
	have := bench.Material{}
	have.Choose(w, slotOf(w, "red"), []*paint.Paint{mine, painttest.Paint("PB29"), painttest.Paint("PR149")})
	require.NotNil(t, have.Tube)
	assert.Equal(t, "PR149", have.Tube.ID)
	named := bench.Material{Tube: painttest.Paint("PG7")}
	named.Choose(w, slotOf(w, "red"), paint.Library())
	assert.Equal(t, "PG7", named.Tube.ID, "what was named stays")
	assert.NotNil(t, named.Earth)
}

// A bit of this in that: eight parts of the one pile to one of the other, both ways round.
func TestABitOfOnePileGoesIntoAnother(t *testing.T) {
	w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "PR254", "PB29"), wheel.Options{ShadeBy: wheel.ByComplement})
	set := bench.Usual(paint.Media()[1])
	orange, violet := slotOf(w, "orange"), slotOf(w, "violet")
	for _, c := range []struct {
		of   *int
		both [2]string
	}{
		{nil, [2]string{"orange, a bit of blue", "blue, a bit of orange"}},
		{&orange, [2]string{"orange, a bit of blue", "blue, a bit of orange"}},
		{&violet, [2]string{"orange, a bit of violet", "violet, a bit of orange"}},
	} {
		s, err := bench.Which{Slot: orange, With: []bench.Part{bench.BitPart}, Bit: c.of}.Of(w, bench.Material{}, bench.Extras{}, set)
		require.NoError(t, err)
		for i, label := range c.both {
			r := &s.Regions[len(s.Regions)-2+i]
			assert.Equal(t, label, r.Label)
			mixed, err := paint.Mix(r.Recipe.Volumes()...)
			require.NoError(t, err)
			one, other := mixed.BrushedOut(), r.Mixture.BrushedOut()
			assert.Less(t, colour.Difference(one.Lab(), other.Lab()), 0.01, "%s: %s", label, r.Recipe)
		}
	}
}
