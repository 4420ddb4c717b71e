package wire

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

func view(t testing.TB, medium, light, judged string) View {
	t.Helper()
	v, err := ParseView(medium, light, judged)
	require.NoError(t, err)
	return v
}

func parts(t testing.TB, texts ...string) []paint.Part {
	t.Helper()
	p, err := paint.ParseParts(texts, paint.Find)
	require.NoError(t, err)
	return p
}

// mix asks what parts make.
func mix(v View, of []paint.Part) (Mix, error) {
	pile, err := paint.NewPile(of)
	if err != nil {
		return Mix{}, err
	}
	return v.Mix(pile), nil
}

// pair asks for the way between two paints.
func pair(v View, a, b *paint.Paint, n int, spacing path.Spacing) (Pair, error) {
	if err := path.CheckSteps(n); err != nil {
		return Pair{}, err
	}
	return v.Pair(path.New(a, b), n, spacing), nil
}

// built asks for the wheel of a system.
func built(v View, s wheel.System, c wheel.Choices) (Wheel, error) {
	o, err := c.Options(v.Medium)
	if err != nil {
		return Wheel{}, err
	}
	return v.Wheel(wheel.Build(s, o), c, bench.Flat), nil
}

func places(v View, c wheel.Selection, find paint.Finder, box []wheel.Candidate) (SystemPlaces, error) {
	p, err := c.Places(find, box)
	if err != nil {
		return SystemPlaces{}, err
	}
	return v.Places(p, nil), nil
}

func TestParseView(t *testing.T) {
	v := view(t, "OIL", "a", "wet")
	assert.Equal(t, Conditions{"oil", "A", "wet"}, v.conditions())
	for _, c := range [][3]string{{"mud", "D65", "dry"}, {"oil", "moon", "dry"}, {"oil", "D65", "damp"}} {
		_, err := ParseView(c[0], c[1], c[2])
		assert.Error(t, err, c)
	}
}

func TestTheViewChangesDisplayedColoursOnly(t *testing.T) {
	of := parts(t, "PB29=1", "PR122=2", "PW6=3")
	day, err := mix(view(t, "acrylic", "D65", "dry"), of)
	require.NoError(t, err)
	lamp, err := mix(view(t, "watercolour", "A", "wet"), of)
	require.NoError(t, err)
	assert.NotEqual(t, day.Masstone, lamp.Masstone)
	assert.NotEqual(t, day.AsPainted, lamp.AsPainted)
	assert.Equal(t, day.Undertone, lamp.Undertone)
	assert.Equal(t, day.Judgement, lamp.Judgement)
	assert.Equal(t, day.Greyness, lamp.Greyness)
	assert.Len(t, day.Spectrum, colour.Bands)
	assert.Equal(t, "violet", day.HueWord)
}

func TestMixOfWhiteAndBlackIsNeutralAndHasNoGreyness(t *testing.T) {
	m, err := mix(view(t, "acrylic", "D65", "dry"), parts(t, "PW6=9", "PBk7=1"))
	require.NoError(t, err)
	assert.Equal(t, "neutral", m.Verdict)
	assert.Nil(t, m.Greyness)
	assert.Nil(t, m.HueError)
}

func TestLibraryListsWhatAPainterLooksFor(t *testing.T) {
	list := view(t, "acrylic", "D65", "dry").Library()
	require.Len(t, list, len(paint.Library()))
	byID := map[string]Paint{}
	for _, p := range list {
		byID[p.ID] = p
		assert.NotEmpty(t, p.Caution, p.ID)
		assert.Len(t, p.Ladder, ladderRungs)
	}
	milk := view(t, "watercolour", "D65", "dry").Library()[0].Ladder[2]
	assert.Equal(t, []any{"milk", 3.0}, []any{milk.Thick, milk.Water})
	assert.Equal(t, "violet", byID["PB29"].Lean.Toward)
	assert.Equal(t, []string{"blue", "cyan"}, byID["PB29"].Roles)
	assert.Nil(t, byID["PW6"].Lean)
	assert.True(t, byID["PY35"].Cautious)
	assert.False(t, byID["PY74"].Cautious)
	assert.Equal(t, "orange", byID["PR264"].Lean.InMass)
}

func TestPair(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	find := func(id string) *paint.Paint { return parts(t, id+"=1")[0].Paint }
	p, err := pair(v, find("PR254"), find("PG7"), 5, path.ByHue)
	require.NoError(t, err)
	assert.Len(t, p.Steps, 5)
	middle := p.Steps[2]
	assert.NotEmpty(t, middle.InTubes)
	middle.Confidence = Confidence{} // that is the pair's own
	assert.Equal(t, middle, p.Middle, "the secondary is the middle step")
	assert.Equal(t, p.Middle.Retention, p.Retention)
	assert.Equal(t, "muddy", p.Verdict)
	assert.Equal(t, "none", p.RuleOfThumb)
	require.Len(t, p.MudZones, 1)
	assert.Less(t, p.MudZones[0].From, p.MudZones[0].To)
	assert.Equal(t, 0.0, p.Samples[0].Share)
	assert.Equal(t, 1.0, p.Samples[len(p.Samples)-1].Share)

	again, err := mix(v, parts(t, "PR254=2", "PG7=1"))
	require.NoError(t, err)
	assert.Equal(t, again.Parts, p.Middle.Parts)
	assert.Equal(t, again.Colours, p.Middle.Colours, "a step shows what its parts make")

	same, err := pair(v, find("PB29"), find("PB29"), 3, path.ByHue)
	require.NoError(t, err)
	assert.True(t, same.Indistinguishable)
	assert.Equal(t, "neutral", same.Verdict)
	for _, n := range []int{0, -1, 12} {
		_, err = pair(v, find("PB29"), find("PR122"), n, path.ByHue)
		assert.ErrorContains(t, err, "from 1 to 11")
	}
}

func system(t testing.TB, kind string, roles ...[]string) wheel.System {
	t.Helper()
	s, err := wheel.Selection{Kind: wheel.SystemKind(kind), Roles: [3][]string(roles)}.System(paint.Find)
	require.NoError(t, err)
	return s
}

func TestWheelsWithEveryRing(t *testing.T) {
	for _, medium := range []string{"watercolour", "oil"} {
		v := view(t, medium, "D65", "dry")
		c := wheel.UsualChoices()
		c.Tints, c.Shades, c.Wash, c.Neutral, c.Highlight = 3, 3, true, true, true
		c.Raise = true
		w, err := built(v, system(t, "double", []string{"PY184", "PY150"}, []string{"PR122", "PR108"}, []string{"PB29", "PB15:3"}), c)
		require.NoError(t, err)
		want := "white"
		if medium == "watercolour" {
			want = "water"
		}
		assert.Equal(t, want, w.Choices.Rings.TintBy, "by the medium")
		assert.NotEmpty(t, w.Raised)
		for _, s := range w.Slots {
			assert.Len(t, s.Rings.Tints, 3)
			assert.NotNil(t, s.Rings.Wash)
			assert.Len(t, s.Schemes, 4)
		}
		assert.Len(t, w.Neutrals, 6)
		_, err = json.Marshal(w)
		require.NoError(t, err)
	}
	c := wheel.UsualChoices()
	c.ShadeBy = "soot"
	_, err := built(view(t, "oil", "D65", "dry"), system(t, "triad", []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"}), c)
	assert.ErrorAs(t, err, new(input.Error))
}

func TestPlacesRankSubstitutesFromTheBoxFirst(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	own, err := parts(t, "PB60=1")[0].Paint.Tube("tube-9", 1)
	require.NoError(t, err)
	c := wheel.Selection{Kind: "split", Roles: [3][]string{{"PY65"}, {"PR255", "PR122"}, {}}}
	got, err := places(v, c, paint.Find, []wheel.Candidate{{Paint: own, Called: "deep water", InBox: true}})
	require.NoError(t, err)
	assert.Len(t, got.Roles[2].Places, 2, "empty places are shown")
	assert.Contains(t, got.Roles[0].Places[0].Warning, "wants one that leans to green")
	blue := got.Roles[2].Places[0]
	assert.Equal(t, "violet", blue.Want)
	require.NotEmpty(t, blue.Substitutes)
	assert.Equal(t, "deep water", blue.Substitutes[0].Name)
	assert.Equal(t, "violet", blue.Substitutes[1].Lean.Toward, "then those of the library that lean as wanted")
	assert.Equal(t, "orange", got.Sections[0].Name)
	assert.Equal(t, "PY65", got.Sections[0].From)
	_, err = places(v, wheel.Selection{Kind: "odd"}, paint.Find, nil)
	assert.ErrorAs(t, err, new(input.Error))
	empty, err := places(v, wheel.Selection{Kind: "double"}, paint.Find, nil)
	require.NoError(t, err)
	assert.Contains(t, empty.Wrong, "at least two")
	assert.Equal(t, 4, empty.Most["double"])
	assert.Equal(t, 1, empty.Most["triad"])
	_, err = places(v, wheel.Selection{Kind: "triad", Roles: [3][]string{{"PX1"}, {}, {}}}, paint.Find, nil)
	assert.ErrorAs(t, err, new(input.Error), "a paint that nobody knows")
}

func TestRidersAreOfferedCheckedAndUsed(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	own, err := parts(t, "blue-grey=1")[0].Paint.Tube("tube-9", 1)
	require.NoError(t, err)
	c := wheel.Selection{Kind: "triad", Roles: [3][]string{{"PY74"}, {"PR254"}, {"PB29"}}}
	offered, err := places(v, c, paint.Find, []wheel.Candidate{{Paint: own, Called: "wet slate", InBox: true}})
	require.NoError(t, err)
	offers := map[string][]string{}
	for _, r := range offered.Riders {
		for _, o := range r.Offers {
			offers[r.Rider] = append(offers[r.Rider], o.Name)
		}
	}
	assert.Equal(t, "wet slate", offers["blueGrey"][0], "a tube of it fits as well as the library's")
	assert.Contains(t, offers["white"], "zinc white")
	assert.NotContains(t, offers["convenience"], "zinc white")
	assert.NotContains(t, offers["black"], "wet slate")

	build := func(r wheel.RiderIDs) Wheel {
		c := c
		c.Riders = r
		s, err := c.System(paint.Find)
		require.NoError(t, err)
		choices := wheel.UsualChoices()
		choices.Tints = 1
		w, err := built(v, s, choices)
		require.NoError(t, err)
		return w
	}
	assert.Equal(t, "titanium white", build(wheel.RiderIDs{}).Slots[2].Rings.Tints[0].With)
	zinc := build(wheel.RiderIDs{White: "PW4"}).Slots[2].Rings.Tints[0]
	assert.Equal(t, "zinc white", zinc.With)
	assert.Greater(t, zinc.Parts[1].Parts, zinc.Parts[0].Parts, "it is weak, so it takes much of it")

	for says, r := range map[string]wheel.RiderIDs{
		"cannot ride along as the white":             {White: "PB29"},
		"cannot ride along as the black":             {Black: "PW6"},
		"cannot ride along as the dark blue-grey":    {BlueGrey: "PY74"},
		"cannot ride along as the convenience paint": {Convenience: "PBk9"},
		"PX1": {Convenience: "PX1"},
	} {
		c := c
		c.Riders = r
		_, err := c.System(paint.Find)
		require.ErrorAs(t, err, new(input.Error), says)
		assert.ErrorContains(t, err, says)
	}
}

func TestTheConveniencePaintHelpsTheEarths(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	of := func(r wheel.RiderIDs) map[string]Earth {
		s, err := wheel.Selection{Kind: "triad", Roles: [3][]string{{"PY74"}, {"PR122"}, {"PB15:3"}}, Riders: r}.System(paint.Find)
		require.NoError(t, err)
		earths, err := reach.Earths(s, v.Medium)
		require.NoError(t, err)
		n := v.Neutrals(wheel.Build(s, wheel.Options{}), 0, 5, earths, paint.Library())
		out := map[string]Earth{}
		for _, e := range n.Earths {
			out[e.Name] = e
		}
		return out
	}
	plain, helped := of(wheel.RiderIDs{}), of(wheel.RiderIDs{Convenience: "PBr7-burnt-sienna"})
	assert.Positive(t, plain["sienna-like"].DE)
	assert.Zero(t, helped["sienna-like"].DE, "it is the earth itself")
	require.Len(t, helped["sienna-like"].Parts, 1)
	assert.Equal(t, "PBr7-burnt-sienna", helped["sienna-like"].Parts[0].Paint)
}

func TestWheel(t *testing.T) {
	v := view(t, "watercolour", "D50", "wet")
	w, err := built(v, system(t, "triad", []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"}), wheel.UsualChoices())
	require.NoError(t, err)
	require.Len(t, w.Slots, 12)
	assert.Equal(t, paint.LibraryVersion(), w.Library)
	assert.Equal(t, 0.7, w.Clean)
	for i, slot := range w.Slots {
		assert.Equal(t, slot.Wet, slot.AsPainted, "judged wet")
		assert.Equal(t, i%4 == 0, slot.Lean != nil)
		assert.Equal(t, [...]string{"yellow", "", "", "", "red", "", "", "", "blue", "", "", ""}[i], slot.Role)
		assert.NotEmpty(t, slot.Because)
		assert.NotEmpty(t, slot.Mixing)
	}
	for _, section := range w.Sections {
		assert.Equal(t, 0.0, section.Band[0].At)
		assert.Equal(t, 1.0, section.Band[len(section.Band)-1].At)
		for i := 1; i < len(section.Band); i++ {
			assert.GreaterOrEqual(t, section.Band[i].At, section.Band[i-1].At)
		}
	}
	_, err = json.Marshal(w)
	require.NoError(t, err)

	for _, c := range [][3]string{{"PY184", "nothing", "PB29"}, {"PY184", "PW6", "PB29"}, {"PB29", "PR122", "PB29"}} {
		_, err := wheel.Selection{Kind: "triad", Roles: [3][]string{{c[0]}, {c[1]}, {c[2]}}}.System(paint.Find)
		assert.ErrorAs(t, err, new(input.Error), c)
	}
}

func TestRoundLeavesNoNegativeZero(t *testing.T) {
	assert.False(t, math.Signbit(round(-1e-9, 3)))
	assert.Equal(t, 0.12, round(0.1234, 2))
}

func BenchmarkWheelAnswer(b *testing.B) {
	v := view(b, "acrylic", "D65", "dry")
	s := system(b, "triad", []string{"PY184"}, []string{"PR254"}, []string{"PB60"})
	for b.Loop() {
		if _, err := built(v, s, wheel.UsualChoices()); err != nil {
			b.Fatal(err)
		}
	}
}

func TestATubeIsDescribedWithItsWhy(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	p, err := paint.Find("PB29")
	require.NoError(t, err)
	other, err := paint.Find("PB15:3")
	require.NoError(t, err)
	tube := v.Tube(p, []*paint.Paint{p, other}, bias.VioletIsWarm)
	assert.Equal(t, "warm", tube.Temperature)
	assert.Equal(t, "the more violet of your two blues", tube.Relative)
	assert.Contains(t, tube.MadeWords, "modelled")
	assert.Len(t, tube.Drawdown, drawnRungs)
	assert.Len(t, tube.Curves.Mass, 36)
	beside := v.Beside(p, other, nil, bias.GreenIsWarm)
	assert.Equal(t, "cool", beside.A.Temperature)
	assert.Greater(t, beside.UndertoneDE, 10.0)
	assert.NotEmpty(t, beside.Differences)
	_, err = json.Marshal(beside)
	require.NoError(t, err)
}

func TestLabelsOfferEveryPaintOfACode(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	found, err := paint.ReadLabel("PBr7, PV300")
	require.NoError(t, err)
	codes := v.LabelCodes(found)
	require.Len(t, codes, 2)
	assert.Len(t, codes[0].Choices, 4)
	assert.Empty(t, codes[1].Choices)
	_, err = paint.ReadLabel("a lovely blue")
	assert.ErrorContains(t, err, "no pigment code")
}
