package certainty

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// coloured are the paints of the library that have a hue.
func coloured() (out []*paint.Paint) {
	for _, p := range paint.Library() {
		if p.Undertone().HasHue() && p.Family != "white" && p.Family != "black" {
			out = append(out, p)
		}
	}
	return out
}

// tube is another tube of a paint, drawn from what is not known of it.
func tube(t testing.TB, p *paint.Paint, d Doubt, r *rand.Rand) *paint.Paint {
	t.Helper()
	out, err := p.Variant(d.Shade*r.NormFloat64(), min(max(d.Cleanness*r.NormFloat64(), paint.MostDuller), paint.MostCleaner))
	require.NoError(t, err)
	out, err = out.Tube(p.ID, paint.BoundedStrength(math.Exp(d.Strength*r.NormFloat64())))
	require.NoError(t, err)
	return out
}

func TestDoubtsGoByHowAPaintWasComeBy(t *testing.T) {
	assert.Equal(t, Doubt{Strength: 0.25, Shade: 4, Cleanness: 0.06, Origin: LibraryArtist}, Usual(painttest.Paint("PB29")))
	assert.Equal(t, Doubt{Strength: 0.40, Shade: 5, Cleanness: 0.10, Origin: LibraryStudent}, LibraryStudent.Doubt())
	assert.Equal(t, Doubt{}, Usual(painttest.Paint("PW6")), "white is the measure")
	assert.Equal(t, LibraryArtist.Doubt(), Origin("unheard of").Doubt())
	for _, o := range []Origin{LibraryArtist, LibraryStudent, Label, SwatchesSeen, SwatchesMeasured} {
		assert.NotEmpty(t, o.Doubt().Says(), o)
	}
	old := LibraryArtist.Doubt().Older()
	assert.InDelta(t, 0.35, old.Strength, 1e-12)
	assert.Contains(t, old.Says(), "old and mixed")
	assert.Equal(t, Doubt{}, Doubt{}.Older(), "white is white")
	assert.Empty(t, Doubt{}.Says())
	stirred, err := paint.Stir("green", "green", paint.Part{Paint: painttest.Paint("PW6"), Parts: 9}, paint.Part{Paint: painttest.Paint("PB29"), Parts: 1})
	require.NoError(t, err)
	assert.Equal(t, Doubt{}, Usual(stirred), "what colours it most is white")
	for making, origin := range map[paint.Making]Origin{paint.FromALabel: Label, paint.TwoSwatch: SwatchesSeen, paint.FromCurves: SwatchesMeasured, paint.Changed: LibraryArtist} {
		p := paint.Own("x", "x", painttest.Paint("PB29").Alone(), nil, making)
		assert.Equal(t, origin, OriginOf(p), making)
	}
}

// With strengths alone in doubt the logarithm of the parts strays by both together, wherever the step lies.
func TestStrengthsAloneStrayTheParts(t *testing.T) {
	p := path.New(painttest.Paint("PY184"), painttest.Paint("PB15:3"))
	only := func(*paint.Paint) Doubt { return Doubt{Strength: 0.3} }
	for _, s := range Steps(p, path.ByHue, only, Position{Step: 1}, HalfWay, Position{Step: 3}) {
		assert.InDelta(t, 0.3*math.Sqrt2, s.Deviation(), 1e-12)
		sure, could := s.Verdict(s.under.Verdict)
		assert.Equal(t, Sure, sure)
		assert.Equal(t, []paint.Verdict{s.under.Verdict}, could)
	}
	// A stronger second paint is taken less of.
	middle := Steps(p, path.ByHue, only, HalfWay)[0]
	stronger, err := p.B.Tube("stronger", math.Exp(0.3))
	require.NoError(t, err)
	q := path.New(p.A, stronger)
	then := stepOf(q, HalfWay.share(q, path.ByHue))
	assert.InDelta(t, middle.Ratio+middle.ratio[3], then.Ratio, 0.03)

	known := Steps(p, path.ByHue, func(*paint.Paint) Doubt { return Doubt{} }, HalfWay)[0]
	_, doubted := known.Range(known.Ratio)
	assert.False(t, doubted, "nothing is in doubt")
	equal := Steps(p, path.EqualParts, only, HalfWay)[0]
	_, doubted = equal.Range(equal.Ratio)
	assert.False(t, doubted, "equal parts are equal parts")
	assert.NotZero(t, length(equal.retention), "but what comes of them is not known")
}

func TestEndsAreCountedInTheFewestParts(t *testing.T) {
	for _, c := range []struct {
		ln   float64
		want Ratio
	}{
		{0, Ratio{1, 1}}, {math.Log(2), Ratio{1, 2}}, {math.Log(1.55), Ratio{2, 3}}, {-math.Log(13), Ratio{12, 1}}, {-math.Log(8), Ratio{8, 1}}, {math.Log(200), Ratio{1, 200}}, {-math.Log(90), Ratio{90, 1}},
	} {
		assert.Equal(t, c.want, counted(c.ln), "%v", c.ln)
	}
	for x := -3.5; x < 3.5; x += 0.01 {
		r := counted(x)
		assert.InDelta(t, x, math.Log(float64(r[1])/float64(r[0])), near+1e-9)
	}
	assert.Equal(t, "13 : 1", Ratio{13, 1}.String())
	// A recipe that looks the same in fewer parts lies within what is said of it.
	p := path.New(painttest.Paint("PR122"), painttest.Paint("PBr7-burnt-sienna"))
	middle := p.Middle(path.ByHue)
	said := OfPath(p, path.ByHue, middle.Under.Verdict, middle.Parts, Usual)
	assert.Equal(t, Ratio{1, 3}, said.Range.Less)
}

// Tubes drawn from what is not known of them: as many as are said lie within the ranges, and what is called sure is.
func TestWhatIsSaidHoldsForTubesAsTheyDiffer(t *testing.T) {
	pairs := painttest.InFull(160, 3000)
	if testing.Short() {
		pairs = 60
	}
	paints := coloured()
	r := rand.New(rand.NewPCG(33, 1))
	in, sure, sureRight, likely, likelyRight, either, all := 0, 0, 0, 0, 0, 0, 0
	for all < pairs {
		a, b := paints[r.IntN(len(paints))], paints[r.IntN(len(paints))]
		if a == b {
			continue
		}
		p := path.New(a, b)
		if p.Indistinguishable() {
			continue
		}
		said := Steps(p, path.ByHue, Usual, HalfWay)[0]
		if !said.known {
			continue
		}
		q := path.New(tube(t, a, Usual(a), r), tube(t, b, Usual(b), r))
		came := stepOf(q, HalfWay.share(q, path.ByHue))
		all++
		if math.Abs(came.Ratio-said.Ratio) <= within80*said.Deviation() {
			in++
		}
		right := came.under.Verdict == said.under.Verdict
		switch is, _ := said.Verdict(said.under.Verdict); is {
		case Sure:
			sure++
			if right {
				sureRight++
			}
		case Likely:
			likely++
			if right {
				likelyRight++
			}
		default:
			either++
		}
	}
	share := func(n, of int) float64 { return float64(n) / float64(max(of, 1)) }
	t.Logf("%d pairs: %.0f %% of the parts within; sure %d, right in %.0f %%; likely %d, right in %.0f %%; either way %d", all, 100*share(in, all), sure, 100*share(sureRight, sure), likely, 100*share(likelyRight, likely), either)
	assert.InDelta(t, 0.81, share(in, all), 0.08)
	assert.Greater(t, share(sureRight, sure), 0.93)
	assert.Greater(t, share(likelyRight, likely), 0.55, "so few of them: within chance of 0.70")
	assert.Less(t, share(either, all), 0.17)
	assert.Greater(t, sure, likely+either)
}

func BenchmarkSection(b *testing.B) {
	p := path.New(painttest.Paint("PY184"), painttest.Paint("PB29"))
	of := [2]Doubt{Usual(p.A), Usual(p.B)}
	for b.Loop() {
		steps(p, path.ByHue, of, []Position{{Step: 1}, HalfWay, {Step: 3}})
	}
}

func TestAWheelSaysHowSureEachSlotIs(t *testing.T) {
	for _, c := range []struct {
		kind  wheel.SystemKind
		roles [3][]string
	}{
		{wheel.RYB, [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}},
		{wheel.Split, [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}},
		{wheel.Double, [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}},
	} {
		system, err := wheel.Selection{Kind: c.kind, Roles: c.roles}.System(paint.Find)
		require.NoError(t, err)
		w := wheel.Build(system, wheel.Options{Order: wheel.RunOn})
		said := 0
		for i, one := range OfWheel(w, Usual) {
			slot := &w.Slots[i]
			require.NotNil(t, one, "%s %s", c.kind, slot.Name)
			if slot.Kind == wheel.Primary {
				assert.Empty(t, one.Parts(), "%s: a paint as it comes", slot.Name)
				assert.Contains(t, one.Could, slot.Under.Verdict)
				continue
			}
			said++
			assert.Contains(t, one.Could, slot.Under.Verdict)
			assert.Contains(t, one.Parts(), "begin with "+one.Begin.String())
			assert.Greater(t, one.Known, 0.2)
			assert.Less(t, one.Known, 1.0)
			if one.Sure != EitherWay {
				assert.Empty(t, one.Verdict())
			}
			// The parts of the recipe lie within their own range.
			ratio := [2]float64{}
			for _, p := range slot.Parts.Plain() {
				if p.Paint == one.A {
					ratio[0] = p.Parts
				} else if p.Paint == one.B {
					ratio[1] = p.Parts
				}
			}
			if ratio[0]*ratio[1] > 0 {
				ln := math.Log(ratio[1] / ratio[0])
				at := func(r Ratio) float64 { return math.Log(float64(r[1]) / float64(r[0])) }
				assert.Greater(t, ln, at(one.Range.Less)-0.01, "%s: %s in %v", slot.Name, slot.Parts, one.Range)
				assert.Less(t, ln, at(one.Range.More)+0.01, "%s: %s in %v", slot.Name, slot.Parts, one.Range)
			}
		}
		assert.Equal(t, 9, said)
	}
}

func BenchmarkWheel(b *testing.B) {
	system, err := wheel.Selection{Kind: wheel.Split, Roles: [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}}.System(paint.Find)
	require.NoError(b, err)
	w := wheel.Build(system, wheel.Options{Order: wheel.RunOn})
	b.Run("built", func(b *testing.B) {
		for b.Loop() {
			wheel.Build(system, wheel.Options{Order: wheel.RunOn})
		}
	})
	b.Run("how sure", func(b *testing.B) {
		for b.Loop() {
			remembered.of = nil
			OfWheel(w, Usual)
		}
	})
	b.Run("how sure, once more", func(b *testing.B) {
		for b.Loop() {
			OfWheel(w, Usual)
		}
	})
}

// What is known of two tubes together counts: the ratio of two of which only it is known is known, and either strength is not.
func TestWhatIsKnownTogetherNarrowsTheRatio(t *testing.T) {
	p := path.New(painttest.Paint("PY184"), painttest.Paint("PB15:3"))
	joint := &Joint{Off: make([]float64, 6), Covariance: make([][]float64, 6)}
	for i := range 6 {
		joint.Covariance[i] = make([]float64, 6)
		joint.Covariance[i][i] = []float64{0.09, 1, 0.0004}[i%3]
	}
	knows := func(q *paint.Paint) Doubt {
		if q.Code() == "PY184" {
			return joint.Doubt(0)
		}
		return joint.Doubt(1)
	}
	require.NoError(t, joint.Check(2))
	apart := Steps(p, path.ByHue, knows, HalfWay)[0]
	joint.Covariance[0][3], joint.Covariance[3][0] = 0.088, 0.088
	require.NoError(t, joint.Check(2))
	together := Steps(p, path.ByHue, knows, HalfWay)[0]
	assert.Less(t, together.Deviation(), 0.4*apart.Deviation())
	assert.InDelta(t, apart.Ratio, together.Ratio, 1e-9)
	// Where the second most likely is stronger, less of it is asked for, and the range lies round that.
	joint.Off[3] = 0.3
	assert.InDelta(t, together.Ratio-0.3, Steps(p, path.ByHue, knows, HalfWay)[0].Ratio, 0.02)
	assert.Equal(t, joint.Covariance[3][3], joint.Of(1).Covariance[0][0])
	assert.Equal(t, 0.3, joint.Rows(1).Off[0])
	again, err := OfRows([]*Rows{joint.Rows(0), joint.Rows(1)})
	require.NoError(t, err)
	assert.Equal(t, joint, again)
	alone, err := OfRows([]*Rows{joint.Rows(1)})
	require.NoError(t, err, "where the other is no more")
	assert.Equal(t, joint.Of(1), alone)
	odd := *joint.Rows(1)
	odd.Place = 5
	_, err = OfRows([]*Rows{&odd})
	assert.Error(t, err)
	odd.Place = -1
	_, err = OfRows([]*Rows{&odd})
	assert.Error(t, err)
}

func TestWhatIsNoCovarianceIsRefused(t *testing.T) {
	good := func() *Joint {
		j := &Joint{Off: make([]float64, 3), Covariance: [][]float64{{0.1, 0, 0}, {0, 1, 0}, {0, 0, 0.01}}}
		return j
	}
	require.NoError(t, good().Check(1))
	for name, spoil := range map[string]func(j *Joint){
		"another length": func(j *Joint) { j.Off = j.Off[:2] },
		"a short row":    func(j *Joint) { j.Covariance[1] = j.Covariance[1][:2] },
		"not symmetric":  func(j *Joint) { j.Covariance[0][1] = 0.05 },
		"not definite":   func(j *Joint) { j.Covariance[0][1], j.Covariance[1][0] = 5, 5 },
		"no number":      func(j *Joint) { j.Covariance[2][2] = math.NaN() },
		"far off":        func(j *Joint) { j.Off[0] = 1e6 },
	} {
		j := good()
		spoil(j)
		assert.Error(t, j.Check(1), name)
	}
	assert.Error(t, good().Check(2))
	assert.Error(t, (&Joint{}).Check(0))
}
