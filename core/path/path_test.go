package path

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
)

func of(t testing.TB, a, b string) *Path { return New(painttest.Paint(a), painttest.Paint(b)) }

// everyPair visits all ordered pairs of the library, or a part of them when
// tests are run short.
func everyPair(t *testing.T, visit func(*Path)) {
	lib := paint.Library()
	for i, a := range lib {
		for j, b := range lib {
			if i == j || testing.Short() && (i+j)%7 != 0 {
				continue
			}
			visit(New(a, b))
		}
	}
}

func TestStepsOfEveryPairOfTheLibrary(t *testing.T) {
	letDowns := 0
	everyPair(t, func(p *Path) {
		name := p.A.ID + " to " + p.B.ID
		n := len(p.Samples)
		require.GreaterOrEqual(t, n, 33, name)
		require.LessOrEqual(t, n, 257, name)
		for i := 1; i < n; i++ {
			a, b := p.Samples[i-1], p.Samples[i]
			require.Greater(t, b.Share, a.Share, name)
			if n < 257 {
				require.Less(t, a.Brushed.Distance(b.Brushed), recipe.NearEnough, name)
			}
		}
		if p.Indistinguishable() {
			return
		}
		for _, spacing := range []Spacing{ByHue, ByContrast, EqualParts} {
			last := 0.0
			for i, s := range p.Steps(3, spacing) {
				total := 0.0
				for _, part := range s.Parts {
					require.Positive(t, part.Parts, name)
					total += part.Parts
					if part.In != nil {
						letDowns++
						require.Contains(t, []int{9, 19}, part.Thin, name)
					}
				}
				require.LessOrEqual(t, total, 40.0, name)
				require.GreaterOrEqual(t, s.Share, last, "%s: steps never run back", name)
				last = s.Share
				if spacing == EqualParts {
					require.InDelta(t, float64(i+1)/4, s.Share, 1e-12)
					continue
				}
				want := p.At(p.ShareAt(float64(i+1)/4, spacing))
				require.LessOrEqual(t, s.Brushed.Distance(want.BrushedOutColour()), recipe.NearEnough, "%s step %d by %v: the parts meet the tolerance", name, i+1, spacing)
			}
		}
	})
	assert.Positive(t, letDowns, "somewhere a trace of a strong paint is wanted")
}

func TestTheHalfWayStepByHueLooksHalfWay(t *testing.T) {
	for _, pair := range [][2]string{{"PY184", "PB15:3"}, {"PR122", "PB29"}, {"PY74", "PR254"}} {
		p := of(t, pair[0], pair[1])
		end := p.Samples[len(p.Samples)-1].Turn
		middle := p.At(p.ShareAt(0.5, ByHue))
		turned := colour.TurnBetween(p.Samples[0].Under.WheelHue, middle.Undertone().WheelHue)
		assert.InDelta(t, end/2, turned, 0.6, "%v", pair)
	}
	green := of(t, "PY184", "PB15:3").Middle(ByHue)
	assert.Equal(t, "green", green.Under.HueWord())
	assert.Less(t, green.Share, 0.1, "a trace of the strong blue is enough")
}

func TestByContrastStepsAreEvenInArc(t *testing.T) {
	p := of(t, "PY74", "PR254")
	along := p.Along(ByContrast)
	for i, f := range []float64{0.25, 0.5, 0.75} {
		share := p.ShareAt(f, ByContrast)
		var arc float64
		for j, s := range p.Samples {
			if s.Share <= share {
				arc = along[j]
			}
		}
		assert.InDelta(t, f, arc, recipe.NearEnough/p.Length(), "step %d", i+1)
	}
}

func TestPartsAreTheSmallestThatDo(t *testing.T) {
	p := of(t, "PY74", "PR254")
	for _, share := range []float64{0.05, 0.2, 0.37, 0.5, 0.81} {
		r := p.Parts(share)
		want := p.At(share)
		total := int(r.Parts.Total())
		for n := 2; n < total; n++ {
			for b := 1; b < n; b++ {
				m := p.At(float64(b) / float64(n))
				assert.Greater(t, m.BrushedOutColour().Distance(want.BrushedOutColour()), recipe.NearEnough, "%d:%d would have done for share %v", n-b, b, share)
			}
		}
	}
}

func TestATraceOfAStrongPaintIsLetDownFirst(t *testing.T) {
	p := of(t, "PW6", "PB15:3")
	r := p.Parts(0.004)
	require.Len(t, r.Parts, 2)
	let := r.Parts[1]
	require.NotNil(t, let.In)
	assert.Equal(t, "PB15:3", let.Paint.ID)
	assert.Equal(t, "PW6", let.In.ID)
	assert.InDelta(t, let.Parts/(r.Parts.Total()*float64(let.Thin+1)), r.Share, 1e-12)
	assert.Equal(t, recipe.Recipe{{Paint: p.A, Parts: 1}}, p.Parts(0).Parts, "the ends are the paints themselves")
	assert.Equal(t, recipe.Recipe{{Paint: p.B, Parts: 1}}, p.Parts(1).Parts)
	back := of(t, "PB15:3", "PW6").Parts(0.996)
	require.NotNil(t, back.Parts[0].In, "the same from the other end")
	assert.InDelta(t, 1-r.Share, back.Share, 1e-12)
}

func TestNoDifferent(t *testing.T) {
	p := of(t, "PB29", "PB29")
	assert.True(t, p.Indistinguishable())
	assert.Empty(t, p.Mud())
	for _, s := range p.Steps(3, ByHue) {
		assert.Equal(t, recipe.Recipe{{Paint: p.A, Parts: 1}}, s.Parts)
	}
}

func TestMudAndDullStretches(t *testing.T) {
	p := of(t, "PR254", "PG7")
	mud := p.Mud()
	require.Len(t, mud, 1, "red to green goes once through the grey")
	assert.Less(t, mud[0].From, mud[0].To)
	assert.Less(t, mud[0].Lowest, 0.33)
	dull := p.Dull()
	require.NotEmpty(t, dull)
	assert.LessOrEqual(t, dull[0].From, mud[0].From, "what is muddy is dull")
	assert.Empty(t, of(t, "PY184", "PB15:3").Mud(), "a clean green all the way")
	for _, s := range p.Samples {
		inside := s.Share >= mud[0].From && s.Share <= mud[0].To
		assert.Equal(t, inside, s.Under.Verdict == paint.Muddy, "share %v", s.Share)
	}
}

func TestLowestIsTheWorstOnTheWay(t *testing.T) {
	p := of(t, "PR254", "PG7")
	assert.InDelta(t, p.Mud()[0].Lowest, p.Lowest(0, 1), 1e-12)
	assert.GreaterOrEqual(t, p.Lowest(0, 0.0001), p.Lowest(0, 1))
}

func TestAGreyGapIsBridged(t *testing.T) {
	p := of(t, "PR254", "PG7")
	grey := 0
	for i, s := range p.Samples {
		require.False(t, math.IsNaN(s.Turn))
		if !s.Under.HasHue() {
			grey++
			require.NotZero(t, i)
		}
	}
	require.Positive(t, grey, "this path has neutral samples")
	blackened := of(t, "PBk7", "PY74")
	assert.False(t, math.IsNaN(blackened.ShareAt(0.5, ByHue)))
	greys := of(t, "PBk7", "PW6")
	assert.Equal(t, greys.ShareAt(0.5, ByContrast), greys.ShareAt(0.5, ByHue), "no hue anywhere: even contrast")
}

func TestParseSpacing(t *testing.T) {
	for _, s := range []Spacing{ByHue, ByContrast, EqualParts} {
		got, err := ParseSpacing(s.String())
		require.NoError(t, err)
		assert.Equal(t, s, got)
	}
	_, err := ParseSpacing("golden")
	assert.ErrorContains(t, err, "golden")
}

func BenchmarkPath(b *testing.B) {
	x, y := painttest.Paint("PY184"), painttest.Paint("PB15:3")
	New(x, y)
	b.ReportAllocs()
	for b.Loop() {
		New(x, y)
	}
}

func TestMixingStartsFromWhatThereIsMostOf(t *testing.T) {
	p := of(t, "PB15:3", "PY184")
	assert.Equal(t, "PY184", p.Weaker().ID)
	says := p.Mixing(p.Middle(ByHue).Ratio)
	require.GreaterOrEqual(t, len(says), 3)
	assert.Contains(t, says[len(says)-3], "Start with 4 parts of the bismuth yellow.")
	assert.Contains(t, says[len(says)-2], "a trace at a time")

	white := of(t, "PW6", "PB15:3")
	says = white.Mixing(white.Parts(0.004))
	assert.Contains(t, says[0], "Let the phthalo blue green shade down first: 1 part in 9")
	assert.Contains(t, says[1], "titanium white")
	assert.Contains(t, says[2], "this let-down")

	same := of(t, "PB29", "PB29")
	assert.Equal(t, []string{"Straight from the tube: the ultramarine blue as it comes."}, same.Mixing(same.Middle(ByHue).Ratio))
}

func BenchmarkPathWithPartsEverywhere(b *testing.B) {
	x, y := painttest.Paint("PY65"), painttest.Paint("PB29")
	b.ReportAllocs()
	for b.Loop() {
		p := New(x, y)
		p.Steps(MostSteps, ByHue)
		p.Mud()
		for _, s := range p.Samples {
			p.Parts(s.Share)
		}
	}
}

// A path's verdict never changes for one sample alone.
func TestAPathDoesNotFlicker(t *testing.T) {
	lib := paint.Library()
	for i := 0; i < len(lib); i += 3 {
		for j := i + 1; j < len(lib); j += 4 {
			s := New(lib[i], lib[j]).Samples
			for k := 1; k < len(s)-1; k++ {
				before, here, after := s[k-1].Under.Verdict, s[k].Under.Verdict, s[k+1].Under.Verdict
				if before == after && before != paint.Neutral {
					assert.Equal(t, before, here, "%s to %s, sample %d", lib[i].ID, lib[j].ID, k)
				}
			}
		}
	}
}

// What beginners are told, three or four of yellow to one of red, holds for student paints.
func TestAnOrangeOfThreeToOneIsReachedWithStudentPaints(t *testing.T) {
	yellow, err := paint.Definition{Library: "PY37"}.Graded("y", paint.Student)
	require.NoError(t, err)
	red, err := paint.Definition{Library: "PR188"}.Graded("r", paint.Student)
	require.NoError(t, err)
	assert.Equal(t, "4 y : 1 r", New(yellow, red).Middle(ByHue).Parts.String())
}
