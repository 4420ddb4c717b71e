package exchange

import (
	"encoding/json"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
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
	p, err := ParseParts(texts, FindPaint)
	require.NoError(t, err)
	return p
}

func TestParseParts(t *testing.T) {
	got := parts(t, "PB15:3=2.5", "pw6= 3", "PBr7-raw-umber=1e2")
	require.Len(t, got, 3)
	assert.Equal(t, "PB15:3", got[0].Paint.ID)
	assert.Equal(t, 2.5, got[0].Parts)
	assert.Equal(t, 100.0, got[2].Parts)
	for text, says := range map[string]string{
		"PB29":                                  "PAINT=PARTS",
		"PB29=":                                 "must be a number",
		"PB29=0":                                "from 0.000001 to 1000000",
		"PB29=-3":                               "must be a number",
		"PB29=NaN":                              "must be a number",
		"PB29=Inf":                              "must be a number",
		"PB29=1e400":                            "must be a number",
		"PX1=1":                                 `unknown paint "PX1"`,
		"=1":                                    "unknown paint",
		"PBr7=1":                                "several paints",
		"PB29=1,PB29=1":                         "stands twice",
		"":                                      "at least one",
		strings.Repeat("PB29=1,", 30) + "PW6=1": "at most 24",
	} {
		var texts []string
		if text != "" {
			texts = strings.Split(text, ",")
		}
		_, err := ParseParts(texts, FindPaint)
		require.Error(t, err, text)
		assert.ErrorAs(t, err, new(BadInput))
		assert.Contains(t, err.Error(), says, text)
		assert.NotContains(t, err.Error(), "\n")
	}
}

func FuzzParseParts(f *testing.F) {
	for _, seed := range []string{"PB29=1", "PB15:3=2.5,PW6=1", "=", "PB29==1", "PB29=0x1p4", "\x00=\xff", "PB29=1_0"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		got, err := ParseParts(strings.Split(text, ","), FindPaint)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		m, err := View{Medium: paint.Media()[0]}.Mix(got)
		require.NoError(t, err)
		_, err = json.Marshal(m)
		require.NoError(t, err, "no NaN may get out")
	})
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
	day, err := view(t, "acrylic", "D65", "dry").Mix(of)
	require.NoError(t, err)
	lamp, err := view(t, "watercolour", "A", "wet").Mix(of)
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
	m, err := view(t, "acrylic", "D65", "dry").Mix(parts(t, "PW6=9", "PBk7=1"))
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
	assert.Equal(t, "violet", byID["PB29"].Lean.Toward)
	assert.Equal(t, []string{"blue", "cyan"}, byID["PB29"].Roles)
	assert.Nil(t, byID["PW6"].Lean)
	assert.True(t, byID["PY35"].Cautious)
	assert.False(t, byID["PY74"].Cautious)
	assert.Equal(t, "green", byID["PY150"].Lean.InWash)
}

func TestPair(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	find := func(id string) *paint.Paint { return parts(t, id+"=1")[0].Paint }
	p, err := v.Pair(find("PR254"), find("PG7"), 5, path.ByHue)
	require.NoError(t, err)
	assert.Len(t, p.Steps, 5)
	assert.Equal(t, p.Steps[2], p.Middle, "the secondary is the middle step")
	assert.Equal(t, p.Middle.Retention, p.Retention)
	assert.Equal(t, "muddy", p.Verdict)
	assert.Equal(t, "none", p.RuleOfThumb)
	require.Len(t, p.MudZones, 1)
	assert.Less(t, p.MudZones[0].From, p.MudZones[0].To)
	assert.Equal(t, 0.0, p.Samples[0].Share)
	assert.Equal(t, 1.0, p.Samples[len(p.Samples)-1].Share)

	again, err := v.Mix(parts(t, "PR254=2", "PG7=1"))
	require.NoError(t, err)
	assert.Equal(t, again.Parts, p.Middle.Parts)
	assert.Equal(t, again.Colours, p.Middle.Colours, "a step shows what its parts make")

	same, err := v.Pair(find("PB29"), find("PB29"), 3, path.ByHue)
	require.NoError(t, err)
	assert.True(t, same.NoDifferent)
	assert.Equal(t, "neutral", same.Verdict)
	for _, n := range []int{0, -1, 12} {
		_, err = v.Pair(find("PB29"), find("PR122"), n, path.ByHue)
		assert.ErrorContains(t, err, "from 1 to 11")
	}
}

func system(t testing.TB, kind string, roles ...[]string) wheel.System {
	t.Helper()
	s, err := SystemContent{Kind: kind, Roles: [3][]string(roles)}.System(FindPaint)
	require.NoError(t, err)
	return s
}

func TestWheelsWithEveryRing(t *testing.T) {
	for _, medium := range []string{"watercolour", "oil"} {
		v := view(t, medium, "D65", "dry")
		c := PlainChoices()
		c.Rings = Rings{Tints: 3, Shades: 3, Wash: true, Neutral: true, Triple: true}
		c.Raise = true
		w, err := v.Wheel(system(t, "double", []string{"PY184", "PY150"}, []string{"PR122", "PR108"}, []string{"PB29", "PB15:3"}), c)
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
	c := PlainChoices()
	c.Rings.ShadeBy = "soot"
	_, err := view(t, "oil", "D65", "dry").Wheel(system(t, "triad", []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"}), c)
	assert.ErrorAs(t, err, new(BadInput))
}

func TestSortIntoRoles(t *testing.T) {
	for text, want := range map[string][3][]string{
		"PY74 PR254 PB29":                  {{"PY74"}, {"PR254"}, {"PB29"}},
		"PY184 PY65 PR255 PR122 PB29 PB60": {{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB60"}},
		"PY74 PY43 PR254 PB29":             {{"PY74", "PY43"}, {"PR254"}, {"PB29"}},
		"PY74 / PR254 PR122 / PB29":        {{"PY74"}, {"PR254", "PR122"}, {"PB29"}},
		"PY74 // PB29":                     {{"PY74"}, {}, {"PB29"}},
	} {
		got, err := SortIntoRoles(strings.Fields(text))
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
}

func TestPlacesRankSubstitutesFromTheBoxFirst(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	own, err := parts(t, "PB60=1")[0].Paint.Tube("tube-9", 1)
	require.NoError(t, err)
	c := SystemContent{Kind: "split", Roles: [3][]string{{"PY65"}, {"PR255", "PR122"}, {}}}
	got, err := v.Places(c, FindPaint, []wheel.Candidate{{Paint: own, Called: "deep water", InBox: true}})
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
	_, err = v.Places(SystemContent{Kind: "odd"}, FindPaint, nil)
	assert.ErrorAs(t, err, new(BadInput))
	empty, err := v.Places(SystemContent{Kind: "double"}, FindPaint, nil)
	require.NoError(t, err)
	assert.Contains(t, empty.Wrong, "at least two")
	assert.Equal(t, 4, empty.Most["double"])
	assert.Equal(t, 1, empty.Most["triad"])
	_, err = v.Places(SystemContent{Kind: "triad", Roles: [3][]string{{"PX1"}, {}, {}}}, FindPaint, nil)
	assert.ErrorAs(t, err, new(BadInput), "a paint that nobody knows")
}

func TestRidersAreOfferedCheckedAndUsed(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	own, err := parts(t, "blue-grey=1")[0].Paint.Tube("tube-9", 1)
	require.NoError(t, err)
	c := SystemContent{Kind: "triad", Roles: [3][]string{{"PY74"}, {"PR254"}, {"PB29"}}}
	places, err := v.Places(c, FindPaint, []wheel.Candidate{{Paint: own, Called: "wet slate", InBox: true}})
	require.NoError(t, err)
	offers := map[string][]string{}
	for _, r := range places.Riders {
		for _, o := range r.Offers {
			offers[r.Rider] = append(offers[r.Rider], o.Name)
		}
	}
	assert.Equal(t, "wet slate", offers["blueGrey"][0], "a tube of it fits as well as the library's")
	assert.Contains(t, offers["white"], "zinc white")
	assert.NotContains(t, offers["convenience"], "zinc white")
	assert.NotContains(t, offers["black"], "wet slate")

	build := func(r Riders) Wheel {
		c := c
		c.Riders = r
		s, err := c.System(FindPaint)
		require.NoError(t, err)
		choices := PlainChoices()
		choices.Rings.Tints = 1
		w, err := v.Wheel(s, choices)
		require.NoError(t, err)
		return w
	}
	assert.Equal(t, "titanium white", build(Riders{}).Slots[2].Rings.Tints[0].With)
	zinc := build(Riders{White: "PW4"}).Slots[2].Rings.Tints[0]
	assert.Equal(t, "zinc white", zinc.With)
	assert.Greater(t, zinc.Parts[1], zinc.Parts[0], "it is weak, so it takes much of it")

	for says, r := range map[string]Riders{
		"cannot ride along as the white":             {White: "PB29"},
		"cannot ride along as the black":             {Black: "PW6"},
		"cannot ride along as the dark blue-grey":    {BlueGrey: "PY74"},
		"cannot ride along as the convenience paint": {Convenience: "PBk9"},
		"PX1": {Convenience: "PX1"},
	} {
		c := c
		c.Riders = r
		_, err := c.System(FindPaint)
		require.ErrorAs(t, err, new(BadInput), says)
		assert.ErrorContains(t, err, says)
	}
}

func TestTheConveniencePaintHelpsTheEarths(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	of := func(r Riders) map[string]Earth {
		s, err := SystemContent{Kind: "triad", Roles: [3][]string{{"PY74"}, {"PR122"}, {"PB15:3"}}, Riders: r}.System(FindPaint)
		require.NoError(t, err)
		n, err := v.Neutrals(s, PlainChoices(), 0, 5)
		require.NoError(t, err)
		out := map[string]Earth{}
		for _, e := range n.Earths {
			out[e.Name] = e
		}
		return out
	}
	plain, helped := of(Riders{}), of(Riders{Convenience: "PBr7-burnt-sienna"})
	assert.Positive(t, plain["sienna-like"].DE)
	assert.Zero(t, helped["sienna-like"].DE, "it is the earth itself")
	require.Len(t, helped["sienna-like"].Parts, 1)
	assert.Equal(t, "PBr7-burnt-sienna", helped["sienna-like"].Parts[0].Paint)
}

func TestASystemIsFilledFromTheBoxFirst(t *testing.T) {
	own, err := parts(t, "PB60=1")[0].Paint.Tube("tube-9", 1)
	require.NoError(t, err)
	for _, kind := range wheel.Kinds {
		got, err := Fill(string(kind), []wheel.Candidate{{Paint: own, InBox: true}})
		require.NoError(t, err)
		assert.Contains(t, got.Roles[2], "tube-9", kind)
		find := func(ref string) (*paint.Paint, error) {
			if ref == own.ID {
				return own, nil
			}
			return FindPaint(ref)
		}
		_, err = got.System(find)
		assert.NoError(t, err, "what was filled is sound")
		_, err = json.Marshal(got)
		assert.NoError(t, err)
	}
	_, err = Fill("quartet", nil)
	assert.ErrorAs(t, err, new(BadInput))
}

func TestWheel(t *testing.T) {
	v := view(t, "watercolour", "D50", "wet")
	w, err := v.Wheel(system(t, "triad", []string{"PY184"}, []string{"PR122"}, []string{"PB15:3"}), PlainChoices())
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
		_, err := SystemContent{Kind: "triad", Roles: [3][]string{{c[0]}, {c[1]}, {c[2]}}}.System(FindPaint)
		assert.ErrorAs(t, err, new(BadInput), c)
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
		if _, err := v.Wheel(s, PlainChoices()); err != nil {
			b.Fatal(err)
		}
	}
}
