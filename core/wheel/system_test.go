package wheel

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// of makes a system of ids, a role a slice.
func of(t testing.TB, kind SystemKind, roles ...[]string) System {
	t.Helper()
	s, err := NewSystem(kind, paintsOf(roles...))
	require.NoError(t, err)
	return s
}

func paintsOf(roles ...[]string) (out [3][]*paint.Paint) {
	for k, ids := range roles {
		out[k] = painttest.Paints(ids...)
	}
	return out
}

var (
	yellows = []string{"PY184", "PY65"}
	reds    = []string{"PR255", "PR122"}
	blues   = []string{"PB29", "PB15:3"}
)

func TestASplitSystemUsesThePaintsThatFaceEachOther(t *testing.T) {
	for _, order := range [][3][]string{
		{yellows, reds, blues},
		{{"PY65", "PY184"}, {"PR122", "PR255"}, {"PB15:3", "PB29"}},
	} {
		w := Build(of(t, Split, order[0], order[1], order[2]), Options{})
		pairs := [3][2]string{{"PY65", "PR255"}, {"PR122", "PB29"}, {"PB15:3", "PY184"}}
		for k, want := range pairs {
			assert.Equal(t, want[0], w.Sections[k].A.ID, "whatever the order they are named in")
			assert.Equal(t, want[1], w.Sections[k].B.ID)
		}
		for k := range 3 {
			require.Len(t, w.Slots[4*k].Halves, 2)
		}
		assert.Equal(t, "PY184", w.Slots[0].Halves[0].Parts[0].Paint.ID, "the half that faces green comes first")
		for _, i := range []int{2, 6, 10} {
			assert.Equal(t, paint.Clean, w.Slots[i].Under.Verdict, w.Slots[i].Name)
		}
	}
}

func TestASplitSystemOfAlikesEqualsItsTriad(t *testing.T) {
	same := func(id string) []*paint.Paint {
		p, err := paint.Find(id)
		require.NoError(t, err)
		twin, err := p.Tube(id+" too", 1)
		require.NoError(t, err)
		return []*paint.Paint{p, twin}
	}
	s, err := NewSystem(Split, [3][]*paint.Paint{same("PY74"), same("PR254"), same("PB29")})
	require.NoError(t, err)
	split, plain := Build(s, Options{}), Build(triad(t, "PY74", "PR254", "PB29"), Options{})
	for i := range 12 {
		assert.InDelta(t, 0, split.Slots[i].Brushed.Distance(plain.Slots[i].Brushed), 1e-12, "slot %d", i)
	}
}

func TestADoubleSystemTakesTheBrightestPairingUnlessToldOtherwise(t *testing.T) {
	s := of(t, Double, []string{"PY184", "PY43"}, []string{"PR122", "PBr7-burnt-sienna"}, blues)
	w := Build(s, Options{})
	for k, section := range w.Sections {
		require.Len(t, section.Others, 3)
		last := section.Middle.Under.Retention
		for _, p := range section.Others {
			assert.LessOrEqual(t, p.Middle.Under.Retention, last, "section %d, brightest first", k)
			last = p.Middle.Under.Retention
		}
	}
	a, b := paintsOf([]string{"PY43"})[0][0], paintsOf([]string{"PBr7-burnt-sienna"})[0][0]
	chosen, err := s.WithPair(0, a, b)
	require.NoError(t, err)
	quiet := Build(chosen, Options{})
	assert.True(t, quiet.Sections[0].Chosen)
	assert.Equal(t, "PY43", quiet.Sections[0].A.ID)
	assert.Len(t, quiet.Sections[0].Others, 3)
	// The yellow slot still shows the yellow of the green section or the earth;
	// the tertiary beside a primary of another section mixes three paints.
	three := 0
	for _, slot := range quiet.Slots {
		for _, p := range slot.Parts {
			if p.Paint.Of != nil {
				three++
				assert.Equal(t, Tertiary, slot.Kind)
			}
		}
	}
	assert.Positive(t, three)
	_, err = s.WithPair(1, a, b)
	assert.ErrorContains(t, err, "are not a red and a blue")
	_, err = of(t, Split, yellows, reds, blues).WithPair(0, a, b)
	assert.ErrorContains(t, err, "only double and own")
}

func TestHalfAWheelOfTwoRoles(t *testing.T) {
	w := Build(of(t, OwnSystem, []string{"PY74"}, nil, []string{"PB29", "PB15:3"}), Options{})
	empty := 0
	for _, s := range w.Slots {
		if s.Empty {
			empty++
		}
	}
	assert.Equal(t, 7, empty, "red, and the sections on either side of it")
	assert.Equal(t, "A role is missing here, so nothing fills it.", w.Because(4))
	assert.False(t, w.Slots[10].Empty)
	assert.Nil(t, w.Tints(4, 2, ByWhite))
	assert.NotEmpty(t, w.Mixing(10, RunOn))
	w.Dark()
}

func TestSystemsThatCannotBeAreRefused(t *testing.T) {
	for says, c := range map[string]struct {
		kind  SystemKind
		roles [][]string
	}{
		"cannot be the red":       {RYB, [][]string{{"PY74"}, {"PW6"}, {"PB29"}}},
		"stands twice":            {Double, [][]string{{"PY74", "PY74"}, {"PR254"}, {"PB29"}}},
		"both the yellow and the": {Double, [][]string{{"PY74"}, {"PY74"}, {"PB29"}}},
		"at most 1":               {RYB, [][]string{{"PY74", "PY3"}, {"PR254"}, {"PB29"}}},
		"at least two":            {OwnSystem, [][]string{{"PY74"}, nil, nil}},
	} {
		_, err := NewSystem(c.kind, paintsOf(c.roles...))
		assert.ErrorContains(t, err, says)
	}
	_, err := NewSystem(OwnSystem, paintsOf([]string{"PY74"}, []string{"PY74"}, []string{"PB29"}))
	assert.NoError(t, err, "in an own system a paint may play several roles")
	_, err = ParseSystemKind("quartet")
	assert.ErrorContains(t, err, "choose triad")
}

func TestPlacesSayWhatTheyWantAndWarnWithoutForbidding(t *testing.T) {
	find := func(id string) *paint.Paint { return paintsOf([]string{id})[0][0] }
	assert.Equal(t, "green", Split.Want(0, 0))
	assert.Equal(t, "orange", Split.Want(0, 1))
	assert.Empty(t, Split.Fits(find("PY184"), 0, 0))
	assert.Contains(t, Split.Fits(find("PY65"), 0, 0), "leans to orange; this place wants one that leans to green")
	assert.Contains(t, Split.Fits(find("PY74"), 0, 0), "centred")
	assert.Empty(t, LeaningCW.Fits(find("PB15:3"), 2, 0))
	assert.Contains(t, LeaningCCW.Fits(find("PB15:3"), 2, 0), "wants one that leans to violet")
	assert.Contains(t, RYB.Fits(find("PG7"), 2, 0), "not usually a blue")
	assert.Empty(t, RYB.Fits(find("PB29"), 2, 0))
	assert.Equal(t, [3]bias.Role{"yellow", "magenta", "cyan"}, CMY.Roles())
}

func TestReversingTheDirectionMirrorsTheWheel(t *testing.T) {
	for _, s := range []System{triad(t, "PY184", "PR254", "PB60"), of(t, Split, yellows, reds, blues), of(t, Double, yellows, reds, blues)} {
		for _, top := range []bias.Role{"", "yellow", "red", "blue"} {
			there, back := Build(s, Options{Top: top}), Build(s, Options{Top: top, CCW: true})
			for i := range 12 {
				a, b := there.Slots[i], back.Slots[(12-i)%12]
				assert.Equal(t, a.Name, b.Name)
				assert.Equal(t, a.Brushed, b.Brushed)
			}
			if top != "" {
				assert.Equal(t, string(top), there.Slots[0].Name)
			}
			assert.InDelta(t, there.Median, back.Median, 1e-12)
		}
	}
}

// No two neighbours of a wheel are the same recipe: where steps by hue would be, the tertiaries stand half
// way to the eye, and say so.
func TestNoTwoNeighboursAreTheSameRecipe(t *testing.T) {
	byArc, near := 0, 0
	for _, y := range []string{"PY3", "PY184", "PY65", "PY43"} {
		for _, r := range []string{"PR254", "PR122", "PR108"} {
			for _, b := range []string{"PB29", "PB15:3", "PB60", "PB28"} {
				w := Build(triad(t, y, r, b), Options{})
				for i := range 12 {
					at, next := &w.Slots[i], &w.Slots[(i+1)%12]
					assert.NotEqual(t, at.Parts.String(), next.Parts.String(), "%s %s %s: %s and %s", y, r, b, at.Name, next.Name)
					if at.Brushed.Distance(next.Brushed) < 0.02 {
						near++
					}
					s := &w.Sections[at.Home/4]
					if at.Kind == Tertiary && s.ByArc {
						byArc++
						assert.Contains(t, w.Because(i), "half way to the eye")
						assert.Equal(t, s.Middle.Parts, w.Slots[w.place(4*(at.Home/4)+2)].Parts, "the secondary stays half way in hue")
					}
				}
			}
		}
	}
	assert.Positive(t, byArc)
	assert.LessOrEqual(t, near, 15, "of 576 neighbours")
}

func TestAPainterCallsSlotsByOwnNames(t *testing.T) {
	gouache, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	options, err := Choices{Called: OwnNames{10: " sea lettuce ", 2: "Apricot"}}.Options(gouache)
	require.NoError(t, err)
	w := Build(triad(t, "PY74", "PR254", "PB29"), options)
	for i, slot := range w.Slots {
		switch slot.Home {
		case 10:
			assert.Equal(t, []string{"sea lettuce", "green"}, []string{slot.Name, slot.SetName})
		case 2:
			assert.Equal(t, []string{"Apricot", "orange"}, []string{slot.Name, slot.SetName})
		default:
			assert.Equal(t, slot.SetName, slot.Name, i)
		}
	}
	for says, names := range map[string]OwnNames{
		"called anyway":    {6: "Red"},
		"both be called":   {6: "Kelp", 2: "kelp"},
		"a comma or a str": {6: "kelp, wet"},
		"at most 18":       {6: "the green of sea lettuce at low water"},
	} {
		_, err := Choices{Called: names}.Options(gouache)
		assert.ErrorContains(t, err, says)
		assert.ErrorAs(t, err, new(input.Error))
	}
}

func TestNamesOfTheCMYWheel(t *testing.T) {
	s := of(t, CMY, []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"})
	painters, printers := Build(s, Options{}), Build(s, Options{Names: "printers"})
	assert.Equal(t, "magenta-orange", painters.Slots[3].Name)
	assert.Equal(t, "red", printers.Slots[2].Name)
	assert.Equal(t, "blue", printers.Slots[6].Name)
	assert.Equal(t, "yellow-red", printers.Slots[1].Name, "the primary first")
	assert.Equal(t, "orange", Build(triad(t, "PY74", "PR122", "PB15:3"), Options{Names: "printers"}).Slots[2].Name, "other systems have painters' names only")
	six := Build(s, Options{Six: true})
	for i, slot := range six.Slots {
		assert.Equal(t, i%2 == 1, slot.Empty)
	}
}

func TestPrimariesStandFourApartAndPartsReproduceTheirColours(t *testing.T) {
	systems := []System{triad(t, "PY184", "PR254", "PB60"), of(t, Split, yellows, reds, blues), of(t, Double, []string{"PY184", "PY43"}, []string{"PR122", "PBr7-burnt-sienna"}, blues)}
	for _, s := range systems {
		for _, spacing := range []path.Spacing{path.ByHue, path.ByContrast, path.EqualParts} {
			w := Build(s, Options{Spacing: spacing})
			for i, slot := range w.Slots {
				assert.Equal(t, i%4 == 0, slot.Kind == Primary)
				p, err := slot.Parts.Stir(slot.Name, slot.Name)
				require.NoError(t, err)
				m := p.Alone()
				assert.LessOrEqual(t, m.BrushedOutColour().Distance(slot.Brushed), recipe.NearEnough, "%s %s", s.Kind, slot.Name)
			}
		}
	}
}

// Of all role pairs of the library the secondary's hue word holds the expected
// one ("red-violet", "violet" and "blue-violet" are violets) often enough. Earths
// in the yellow role are told apart: an umber with a red makes a red, and says so.
func TestSecondariesOfTheLibraryAreCalledWhatPaintersExpect(t *testing.T) {
	for _, c := range []struct {
		a, b    bias.Role
		word    string
		atLeast float64
	}{{"red", "blue", "violet", 0.85}, {"yellow", "blue", "green", 0.90}, {"yellow", "red", "orange", 0.95}} {
		right, all := 0.0, 0.0
		for _, a := range paint.Library() {
			for _, b := range paint.Library() {
				if !c.a.Accepts(a) || !c.b.Accepts(b) || a.Family == "earth" {
					continue
				}
				all++
				if strings.Contains(path.New(a, b).Middle(path.ByHue).Under.HueWord(), c.word) {
					right++
				}
			}
		}
		t.Logf("%s with %s: %.1f %% of %v pairs are called %s", c.a, c.b, 100*right/all, all, c.word)
		assert.GreaterOrEqual(t, right/all, c.atLeast, "%s and %s", c.a, c.b)
	}
}

func TestDarkTransparentPaintsAreRaisedUntilTheirHueShows(t *testing.T) {
	s := of(t, Double, []string{"PY150", "PY35"}, []string{"PR108", "PR83"}, []string{"PB60", "PB28"})
	w := Build(s, Options{Raise: true})
	require.NotEmpty(t, w.Raised)
	for id, p := range w.Raised {
		m := p.Alone()
		assert.InDelta(t, 2, float64(len(p.Of)), 0)
		assert.Equal(t, "PW6", p.Of[1].Paint.ID, id)
		_ = m
	}
	require.Contains(t, w.Raised, "PR83")
	for _, id := range []string{"PY150", "PY35", "PR108", "PB28"} {
		assert.NotContains(t, w.Raised, id, "yellows, and what is light or hides, stay")
	}
	for id, p := range w.Raised {
		own, is := p.Of[0].Paint.Alone(), p.Alone()
		rung := own.LetDown(p.Of[0].Paint.Undertone().Share)
		assert.Greater(t, lightness(&is), lightness(&own), id)
		assert.LessOrEqual(t, lightness(&is), lightness(&rung)+1, "%s: never past its undertone's rung", id)
	}
	assert.Empty(t, Build(s, Options{}).Raised)
	assert.Empty(t, Build(triad(t, "PY184", "PR254", "PB28"), Options{Raise: true}).Raised, "nothing needs it")
}

func TestRingsStepEvenlyInLightness(t *testing.T) {
	w := Build(triad(t, "PY184", "PR254", "PB29"), Options{})
	for _, i := range []int{0, 2, 4, 6, 8, 10} {
		own := massLightness(&w.Slots[i].Mixture)
		for _, by := range []Additive{ByWhite, ByWater} {
			tints := w.Tints(i, 3, by)
			require.Len(t, tints, 3)
			last := 0.0
			for n, r := range tints {
				if n < 2 {
					assert.True(t, r.Reached, "%s tint %d by %s", w.Slots[i].Name, n+1, by)
				}
				assert.GreaterOrEqual(t, r.L, last)
				last = r.L
			}
			assert.InDelta(t, 92, last, 8, "a let-down of 1:9 in 39 parts of white still shows")
		}
		for _, by := range []Additive{ByBlack, ByBlueGrey, ByMixedBlack} {
			shades := w.Shades(i, 3, by)
			if own <= darkestShade+leastShade {
				assert.Empty(t, shades, "it is dark already")
			}
			if i == 0 && by == ByBlack {
				assert.InDelta(t, 20, shades[2].L, 2.5, "a yellow can be taken down to 20")
			}
			last := own
			for _, r := range shades {
				assert.Less(t, r.L, last+1, "%s by %s", w.Slots[i].Name, by)
				last = r.L
			}
		}
		high, low, ok := w.Triple(i, ByBlack)
		require.True(t, ok)
		assert.Greater(t, high.L, own)
		assert.LessOrEqual(t, low.L, own+0.1)
	}
	yellowByViolet := w.Shades(0, 2, ByComplement)
	assert.Equal(t, "violet", yellowByViolet[0].With)
	neighbour := w.Tints(4, 1, ByNeighbour)
	assert.Equal(t, "orange", neighbour[0].With, "red is lightened with the orange beside it")
	assert.Len(t, w.Values(4, 7, ByBlack), 7)
	_, err := ParseAdditive("soot", Shading)
	assert.Error(t, err)
}

func TestComplementsBalanceToGrey(t *testing.T) {
	w := Build(triad(t, "PY74", "PR122", "PB15:3"), Options{})
	medium := paint.Media()[3]
	for i := range 6 {
		b := BalanceOf(w.SlotPaint(i), w.SlotPaint(i+6), medium)
		a, c := b.A.Alone(), b.B.Alone()
		assert.Less(t, b.Lab.Chroma(), a.AsPainted(medium, false).Lab().Chroma())
		assert.Less(t, b.Lab.Chroma(), c.AsPainted(medium, false).Lab().Chroma())
		if b.Neutral() {
			assert.Contains(t, b.Says, "equal parts")
		} else {
			assert.Contains(t, b.Says, "not a grey")
		}
		for _, n := range []int{5, 7} {
			steps := b.Intensity(n)
			require.Len(t, steps, n)
			assert.Equal(t, recipe.Pure(b.A), steps[0].Parts)
			assert.Equal(t, recipe.Pure(b.B), steps[n-1].Parts)
			assert.Equal(t, b.Parts, steps[n/2].Parts)
		}
	}
	dark := w.Dark()
	assert.Less(t, dark.Lab.L, 25.0)
	assert.Equal(t, dark.Neutral, dark.Lab.Chroma() <= 4)
	assert.NotEmpty(t, dark.Hidden)
	assert.GreaterOrEqual(t, len(dark.Parts), 2)
}

func TestSchemesAreReadOffTheWheel(t *testing.T) {
	w := Build(triad(t, "PY74", "PR122", "PB15:3"), Options{})
	assert.Equal(t, []int{2, 8}, w.SchemeSlots(2, Complement))
	assert.Equal(t, []int{2, 7, 9}, w.SchemeSlots(2, SplitComplement))
	assert.Equal(t, []int{11, 0, 1}, w.SchemeSlots(0, Analogous))
	assert.Equal(t, []int{11, 3, 7}, w.SchemeSlots(11, TriadScheme))
}

func TestARunAddsToWhatOneHas(t *testing.T) {
	w := Build(triad(t, "PY74", "PR122", "PB15:3"), Options{})
	found := 0
	for k := range 3 {
		run, ok := w.RunOf(k)
		if !ok {
			continue
		}
		found++
		weak, strong := run.Weak.Alone(), run.Strong.Alone()
		have := 0
		for i, add := range run.Add {
			assert.Positive(t, add)
			have += add
			m := paint.Between(&weak, &strong, float64(have)/float64(run.Base+have))
			slot := w.At(4*k + 1 + i)
			if run.Backward {
				slot = w.At(4*k + 3 - i)
			}
			assert.LessOrEqual(t, m.BrushedOutColour().Distance(slot.Brushed), 2*recipe.NearEnough)
		}
	}
	assert.Positive(t, found)
	for i := range 12 {
		assert.NotEmpty(t, w.Mixing(i, RunOn))
		assert.NotEmpty(t, w.Mixing(i, SecondaryFirst))
	}
	assert.Contains(t, w.Mixing(3, SecondaryFirst)[0], "Take a third of the orange")
	jumpy := Build(triad(t, "PY74", "PR122", "PB15:3"), Options{Spacing: path.EqualParts})
	mend, ok := jumpy.BridgeJump()
	require.True(t, ok)
	a := mend.Mixture.BrushedOutColour().Distance(jumpy.Slots[mend.From].Brushed)
	assert.Less(t, a, mend.Jump)
}

func TestTheGlazedWheelIsTheSameWheelInLayers(t *testing.T) {
	w := Build(triad(t, "PY150", "PR122", "PB15:3"), Options{})
	glazed, err := w.Glazed(paint.Paper(), paint.UsualGlaze, paint.Matt)
	require.NoError(t, err)
	for i, g := range glazed {
		want := 2
		if i%4 == 0 {
			want = 1
			assert.Equal(t, g.Mixed, g.Spectrum, "a primary alone is the same either way")
		}
		assert.Len(t, g.Layers, want)
	}
	assert.NotEqual(t, glazed[10].Spectrum, glazed[10].Other, "the order of layers matters")
	_, err = w.Glazed(paint.Paper(), 0.01, paint.Matt)
	assert.Error(t, err)
}

func BenchmarkSplitWheelWithRings(b *testing.B) {
	s := of(b, Split, yellows, reds, blues)
	b.ReportAllocs()
	for b.Loop() {
		w := Build(s, Options{})
		for i := range 12 {
			w.Because(i)
			w.Tints(i, 3, ByWhite)
			w.Shades(i, 3, ByComplement)
			w.Triple(i, ByComplement)
		}
		for i := range 6 {
			BalanceOf(w.SlotPaint(i), w.SlotPaint(i+6), paint.Media()[3])
		}
	}
}

func BenchmarkDoubleWheelOfNinePairings(b *testing.B) {
	s := of(b, Double, []string{"PY184", "PY65", "PY43"}, []string{"PR255", "PR122", "PBr7-burnt-sienna"}, []string{"PB29", "PB15:3", "PB60"})
	b.ReportAllocs()
	for b.Loop() {
		Build(s, Options{})
	}
}

func TestOppositesThatMakeNoGreyAreCalledWhatTheyMake(t *testing.T) {
	medium := paint.Media()[0]
	find := func(id string) *paint.Paint {
		p, err := paint.Find(id)
		require.NoError(t, err)
		return p
	}
	brown := BalanceOf(find("PY74"), find("PV19"), medium)
	require.False(t, brown.Neutral())
	assert.Regexp(t, "^These two make an? .+, not a grey.$", brown.Says)
	help, ok := brown.Neutraliser(paint.Library(), medium)
	require.True(t, ok, brown.Says)
	assert.LessOrEqual(t, help.Lab.Chroma(), 12.0)
	m, err := paint.Mix(help.Parts.Plain()...)
	require.NoError(t, err)
	assert.InDelta(t, help.Lab.Chroma(), m.AsPainted(medium, false).Lab().Chroma(), 1e-9, "the parts make what is promised")
	assert.LessOrEqual(t, help.Parts.Total(), float64(recipe.MostParts))

	_, ok = brown.Neutraliser([]*paint.Paint{find("PW6"), find("PBk7"), find("PY74")}, medium)
	assert.False(t, ok, "neither white nor black is a help, nor one of the two")
	grey := BalanceOf(find("PO20"), find("PB35"), medium)
	require.True(t, grey.Neutral(), grey.Says)
	_, ok = grey.Neutraliser(paint.Library(), medium)
	assert.False(t, ok, "what is a grey needs none")
}

// A painter who puts one paint into two roles has a system of one paint: its darkest dark is that paint.
func TestASystemOfOnePaintHasADarkestDark(t *testing.T) {
	one := of(t, OwnSystem, []string{"PB29"}, []string{"PB29"}, nil)
	w := Build(one, Options{})
	dark := w.Dark()
	assert.Equal(t, "1 PB29", dark.Parts.String())
	assert.Less(t, dark.Lab.L, 35.0)
}
