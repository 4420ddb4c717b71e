package bench_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

// glazesOf is a sheet of glazes that is laid for a medium.
func glazesOf(t *testing.T, system wheel.System, without ...bench.Part) bench.Sheet {
	t.Helper()
	s, err := bench.Glazes(wheel.Build(system, wheel.Options{}), 0, without, bench.Material{})
	require.NoError(t, err)
	return s
}

func threePaints(t *testing.T) wheel.System { return systemOf(t, wheel.RYB, "PY65", "PR254", "PB29") }
func sixPaints(t *testing.T) wheel.System {
	return systemOf(t, wheel.Split, "PY184 PY65", "PR255 PR122", "PB29 PB15:3")
}

// What lies over others looks as the film formula has it layer by layer; and the parts, left out or not.
func TestGlazesLieOverEachOther(t *testing.T) {
	s := glazesOf(t, threePaints(t))
	at := func(id string) *bench.Region {
		i := s.Find(id)
		require.GreaterOrEqual(t, i, 0, id)
		return &s.Regions[i]
	}
	over, under := at("order/PY65/PB29"), at("order/PY65/PB29/first")
	assert.Equal(t, []int{s.Find(under.ID)}, over.Beneath)
	for _, in := range paint.Media() {
		if in.Uneven > 0 {
			continue
		}
		want, err := paint.Glaze(colour.Flat(in.Ground), []paint.Layer{{Mixture: under.Mixture, Thickness: 0.3}, {Mixture: over.Mixture, Thickness: 0.3}}, in.Dry)
		require.NoError(t, err)
		got := over.Appearance(in, false)
		assert.InDeltaSlice(t, want[:], got[:], 1e-9, in.ID)
		other := at("order/PB29/PY65").Appearance(in, false)
		if in.ID == "gouache" {
			assert.Greater(t, colour.Difference(got.Lab(), other.Lab()), 3.0, "the order of layers tells where paint hides")
		}
	}
	// The wheel: each mixed slot in two layers as thick as the one that is mixed.
	green, first, mixed := at("glazed/green"), at("first/green"), at("mixed/green")
	assert.InDelta(t, mixed.Film, green.Film+first.Film, 1e-9)
	assert.Equal(t, first.InSight.Outer, green.Inner, "what is seen of the first ends where the second begins")
	assert.Equal(t, first.Inner, mixed.Outer)
	assert.Contains(t, green.Touches, s.Find("glazed/blue-green"))
	assert.Contains(t, green.Touches, s.Find("first/yellow-green"), "a layer bleeds into the one beside it")
	assert.NotContains(t, green.Touches, s.Find("mixed/green"))
	// A ramp over paper and the two others.
	for n, film := range []float64{0.15, 0.3, 0.6} {
		for _, id := range []string{"paper", "PR254", "PY65"} {
			assert.Equal(t, film, at(fmt.Sprintf("ramp/%s/%d", id, n+1)).Film)
		}
	}
	assert.Equal(t, "PB29 over PY65, 0.15", at("ramp/PY65/1").Label, "the clearest paint lies over the others")

	for _, left := range bench.GlazeParts {
		assert.Less(t, len(glazesOf(t, threePaints(t), left).Regions), len(s.Regions), "without %s", left)
	}
	w := wheel.Build(threePaints(t), wheel.Options{})
	for _, c := range []struct {
		film    float64
		without []bench.Part
		says    string
	}{
		{0.05, nil, "from 0.1 to 0.5 thick, and not 0.05"}, {math.NaN(), nil, "and not NaN"},
		{0.3, []bench.Part{bench.GreysPart}, `no part "greys"`}, {0.3, bench.GlazeParts, "nothing is left on a sheet of glazes"},
	} {
		_, err := bench.Glazes(w, c.film, c.without, bench.Material{})
		assert.ErrorContains(t, err, c.says)
	}
}

// An uneven layer counts by the mean of what it sends up: near to all thicknesses over all others.
func TestUnevenLayersAreNearTheirMean(t *testing.T) {
	s := glazesOf(t, sixPaints(t))
	in, err := paint.ParseMedium("watercolour")
	require.NoError(t, err)
	even := in
	even.Uneven = 0
	for _, id := range []string{"order/PY184/PB15:3", "order/PR255/PY65", "glazed/violet"} {
		if s.Find(id) < 0 {
			continue
		}
		over := s.Regions[s.Find(id)]
		under := &s.Regions[over.Beneath[0]]
		var sum colour.Spectrum
		whole := 0.0
		for z := -4.0; z <= 4; z += 0.25 {
			weight := math.Exp(-z * z / 2)
			layer := in.Under(nil)
			lower := under.Mixture.FilmOver(paint.Medium{Ground: in.Ground}, under.Film*math.Exp(in.Uneven*z), layer, false)
			for y := -4.0; y <= 4; y += 0.25 {
				both := weight * math.Exp(-y*y/2)
				seen := over.Mixture.FilmOver(even, over.Film*math.Exp(in.Uneven*y), lower, false)
				whole += both
				for i, r := range seen {
					sum[i] += both * r
				}
			}
		}
		for i := range sum {
			sum[i] /= whole
		}
		got := over.Appearance(in, false)
		assert.Less(t, colour.Difference(sum.Lab(), got.Lab()), 1.0, id)
	}
}

func TestAGlazeTakesWhatItsThicknessTakes(t *testing.T) {
	for _, in := range paint.Media() {
		set := bench.Usual(in)
		s := glazesOf(t, threePaints(t))
		paintIn := func(id string) float64 {
			r := s.Regions[s.Find(id)]
			r.W, r.H = 100, 100 // beyond the smallest pile
			return set.Need(&r) / (1 + set.Thinner(&r))
		}
		thin, twice := paintIn("ramp/paper/1"), paintIn("ramp/paper/3")
		assert.InDelta(t, 4, twice/thin, 1e-9, "%s: four times as thick takes four times as much", in.ID)
		r := &s.Regions[s.Find("ramp/paper/2")]
		assert.Contains(t, set.Thinning(r), in.Thinner+" to 1 of paint", in.ID)
		base := &s.Regions[s.Find("ramp/PY65")]
		if !in.LightenWithWater {
			assert.Zero(t, set.Thinner(base), "%s: what a ramp is laid over is laid as it comes", in.ID)
		}
	}
}

func TestALayerIsPaintedWhenWhatItLiesOverIsDry(t *testing.T) {
	for n, in := range paint.Media() {
		set := bench.Usual(in)
		set.Gaps = n%2 == 1
		s := glazesOf(t, threePaints(t))
		if n%2 == 0 {
			s = glazesOf(t, sixPaints(t), bench.WheelPart)
		}
		p, err := bench.Sketch(&s, set)
		require.NoError(t, err)
		simulate(t, p, in.ID)
		assert.NotZero(t, p.RoundTheWheel.Minutes)
		assert.NotZero(t, p.ByKind.Minutes)
		if in.ID == "oil" {
			assert.Greater(t, p.Minutes, 2880, "a layer of oil waits for days")
		}
	}
	// Small ones against every order there is.
	for n, in := range paint.Media() {
		w := wheel.Build(systemOf(t, wheel.RYB, "PY65", "", "PB29"), wheel.Options{})
		s, err := bench.Glazes(w, 0.2, []bench.Part{bench.WheelPart, bench.RampPart}, bench.Material{})
		require.NoError(t, err)
		set, err := bench.Settings{Medium: in, Brushes: 1 + n%2}.Complete()
		require.NoError(t, err)
		p, err := bench.New(&s, set)
		require.NoError(t, err)
		minutes, washes := everyOrder(t, p)
		assert.Equal(t, []int{minutes, washes}, []int{p.Minutes, p.Washes}, in.ID)
		assert.True(t, p.Proved)
	}
}

// On every width all places lie within the sheet, and no point is of two places but where one lies over the
// other and only the upper is seen.
func TestGlazesLieApartButForWhatTheyLieOver(t *testing.T) {
	for _, system := range []wheel.System{threePaints(t), sixPaints(t)} {
		for _, without := range [][]bench.Part{nil, {bench.WheelPart}, {bench.OrderPart}, {bench.RampPart}, {bench.WheelPart, bench.OrderPart}} {
			s := glazesOf(t, system, without...)
			for _, width := range []float64{120, 182, 187.9, 269, 182} {
				s.Lay(width)
				about := fmt.Sprintf("without %v, at %.0f mm", without, width)
				assert.LessOrEqual(t, s.W, width+1e-9, about)
				for i := range s.Regions {
					a := &s.Regions[i]
					for k, at := range a.Seen().Within(0) {
						if k%29 > 0 {
							continue
						}
						require.True(t, a.Holds(at[0], at[1], -1e-9), "%s: %s is seen where it is not", about, a.ID)
						require.True(t, at[0] >= 0 && at[0] <= s.W && at[1] >= 0 && at[1] <= s.H, "%s: %s leaves the sheet", about, a.ID)
						for j := range s.Regions {
							b := &s.Regions[j]
							require.Equal(t, i == j, b.Seen().Holds(at[0], at[1], 0), "%s: %s and %s at %v", about, a.ID, b.ID, at)
						}
					}
					for _, k := range a.Beneath {
						for _, at := range a.Within(0.01) {
							require.True(t, s.Regions[k].Holds(at[0], at[1], 0), "%s: %s lies over %s", about, a.ID, s.Regions[k].ID)
						}
					}
				}
			}
		}
	}
}

// In a sitting a layer waits for what it lies over, whatever was skipped or painted first; and who paints one
// before that is told so.
func TestASittingLaysDryOverDry(t *testing.T) {
	for _, in := range []string{"acrylic", "oil"} {
		medium, err := paint.ParseMedium(in)
		require.NoError(t, err)
		sheet := glazesOf(t, threePaints(t), bench.WheelPart)
		plan, err := bench.Sketch(&sheet, bench.Usual(medium))
		require.NoError(t, err)
		s := &sat{t: t, plan: plan}
		s.tell(bench.Event{Kind: bench.Begun})
		top := sheet.Find("order/PY65/PB29")
		bottom := sheet.Regions[top].Beneath[0]
		assert.Contains(t, s.rest().Instead(top).Bare, "It lies over PY65, first, not painted yet", in)
		assert.Empty(t, s.rest().Instead(bottom).Bare, in)
		s.do(s.rest().Instead(bottom))
		instead := s.rest().Instead(top)
		assert.Empty(t, instead.Bare)
		assert.GreaterOrEqual(t, instead.Paint.Start, sheet.Drying(plan.Settings)-1e-6, "%s: over what is wet yet", in)
		skipped := sheet.Find("ramp/PR254")
		s.tell(bench.Event{Kind: bench.Skipped, Region: sheet.Regions[skipped].ID})
		for range len(sheet.Regions) - 2 {
			step := s.rest().Steps()[0]
			for _, k := range sheet.Regions[step.Region].Beneath {
				at := s.stands().Places[k]
				require.True(t, at.Coats > 0 && !at.DryAt.After(minute(s.now+step.Paint.Start+1e-3)) || k == skipped, "%s: %s over %s", in, s.id(step.Region), s.id(k))
			}
			s.do(step)
		}
		st := s.stands()
		assert.True(t, st.Done(), in)
	}
}
