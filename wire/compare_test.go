package wire

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

func named(t *testing.T, name, kind string, refs ...string) reach.Named {
	t.Helper()
	roles, err := wheel.ParseRoles(refs)
	require.NoError(t, err)
	s, err := wheel.Selection{Kind: wheel.SystemKind(kind), Roles: roles}.System(paint.Find)
	require.NoError(t, err)
	return reach.Named{Name: name, System: s}
}

func compare(v View, systems []reach.Named) (Comparison, error) {
	out, err := reach.SideBySide(systems, v.Medium)
	if err != nil {
		return Comparison{}, err
	}
	return v.Comparison(out), nil
}

func match(t *testing.T, v View, palettes [][]*paint.Paint, wanted []reach.Wanted) ([]WantedColour, error) {
	readings, err := reach.Readings(wanted, v.Medium)
	if err != nil {
		return nil, err
	}
	matches, err := reach.MatchAll(t.Context(), palettes, readings, v.Medium, reach.Nearest)
	if err != nil {
		return nil, err
	}
	return v.Matches(wanted, matches), nil
}

func TestSystemsAreLaidBesideEachOther(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	three, six := named(t, "three", "triad", "PY65", "PR254", "PB29"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	three.Prices = map[string]float64{"PY65": 6, "PR254": 9, "PB29": 5}
	six.Prices = map[string]float64{"PY65": 6}
	got, err := compare(v, []reach.Named{three, six})
	require.NoError(t, err)
	require.Len(t, got.Systems, 2)
	a, b := got.Systems[0], got.Systems[1]
	assert.Less(t, a.CleanCoverage, b.CleanCoverage)
	assert.Len(t, a.Reach, 72)
	assert.Len(t, a.Shades, 72)
	assert.Len(t, a.Slots, 12)
	assert.Equal(t, 3, a.Tubes)
	assert.Equal(t, 20.0, *a.Price)
	assert.Nil(t, b.Price, "one of its prices is not known")
	assert.Equal(t, "yellow-orange", a.WidestGap.From)
	assert.Empty(t, b.WidestGap.From)
	assert.Contains(t, b.Says, "six is clean all the way round")
	assert.Contains(t, a.Says, "three is clean ")
	require.Len(t, got.Differences, 1)
	assert.Contains(t, got.Differences[0].Says, "six is cleaner from yellow")

	_, err = compare(v, nil)
	assert.ErrorAs(t, err, new(input.Error))
	_, err = compare(v, []reach.Named{three, six, three, six, three})
	assert.ErrorContains(t, err, "not 5")
}

func TestWantedColoursAreMatchedByEachPalette(t *testing.T) {
	v := view(t, "acrylic", "A", "wet")
	three := reach.Palette(named(t, "three", "triad", "PY65", "PR254", "PB29").System)
	six := reach.Palette(named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3").System)
	got, err := match(t, v, [][]*paint.Paint{three, six}, []reach.Wanted{{Name: "kelp", Colour: "#6e5a28"}, {Name: "turquoise", Colour: "#00a6b0"}, {Name: "nothing has it", Colour: "97,-90,90"}, {Name: "night", Colour: "10,0,-1"}})
	require.NoError(t, err)
	require.Len(t, got, 4)
	for _, w := range got {
		require.Len(t, w.Matches, 2)
		for _, m := range w.Matches {
			assert.LessOrEqual(t, len(m.Recipe), 4)
			assert.Equal(t, m.DE <= 3, m.Reached)
		}
	}
	assert.Less(t, got[1].Matches[1].DE, got[1].Matches[0].DE, "the green-leaning blue makes a turquoise")
	assert.Contains(t, got[1].Matches[0].Says, "quieter")
	assert.Contains(t, got[2].Matches[0].Says, "It cannot be reached: the nearest is ")
	require.NotNil(t, got[0].Matches[0].DELamp)
	assert.Nil(t, got[2].Matches[0].DELamp, "no surface is so bright a green")
	assert.Contains(t, got[2].Matches[0].LampSays, "no surface has this colour")
	assert.Nil(t, got[3].Matches[0].DELamp)
	assert.Equal(t, "under a warm lamp too dark to judge", got[3].Matches[0].LampSays)

	for _, c := range got {
		assert.Equal(t, min(c.Matches[0].DE, c.Matches[1].DE), c.Least, c.Name)
		assert.Equal(t, max(c.Matches[0].DE, c.Matches[1].DE), c.Most, c.Name)
	}
	_, err = match(t, v, [][]*paint.Paint{three}, []reach.Wanted{{Name: "odd", Colour: "teal"}})
	assert.ErrorContains(t, err, "odd: ")
	_, err = match(t, v, [][]*paint.Paint{three}, make([]reach.Wanted, 25))
	assert.ErrorContains(t, err, "at most 24")
}

func TestAComparisonStandsOnOneFooting(t *testing.T) {
	three, six := named(t, "three", "triad", "PY65", "PR254", "PG50"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	day, err := compare(view(t, "acrylic", "D65", "dry"), []reach.Named{three, six})
	require.NoError(t, err)
	lamp, err := compare(view(t, "acrylic", "A", "wet"), []reach.Named{six, three})
	require.NoError(t, err)
	greys := 0
	for i, s := range day.Systems {
		other := lamp.Systems[1-i]
		assert.Equal(t, s.Reach, other.Reach, "reach is no matter of light or wetness, nor of who stands beside")
		assert.Equal(t, s.CleanCoverage, other.CleanCoverage)
		assert.Equal(t, s.Evenness, other.Evenness)
		for n, slot := range s.Slots {
			assert.Equal(t, slot.Name, other.Slots[n].Name)
			assert.Equal(t, slot.Verdict, other.Slots[n].Verdict)
			require.Len(t, slot.Alike, 2)
			assert.Equal(t, slot.Alike[1-i], other.Slots[n].Alike[i])
			if strings.HasPrefix(slot.HueWord, "grey") {
				greys++
				assert.Equal(t, []int{-1, -1}, slot.Alike, "a grey has no step like it in hue")
			} else {
				assert.Equal(t, n, slot.Alike[i], "on its own wheel it is itself")
			}
		}
		for bin, shade := range s.Shades {
			assert.Equal(t, s.Reach[bin] == 0, shade.SRGB == "", "a colour where something is reached")
			assert.Contains(t, []string{"clean", "softened", "muddy"}, s.Verdicts[bin])
		}
	}
	assert.Positive(t, greys, "orange-red and cobalt teal make a grey")
	assert.NotEqual(t, day.Systems[0].Slots[2].AsPainted, lamp.Systems[1].Slots[2].AsPainted)
	one, err := compare(view(t, "acrylic", "D65", "dry"), []reach.Named{six})
	require.NoError(t, err)
	assert.Empty(t, one.Differences)
}

func TestALetDownIsSaidInARecipe(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := mix(v, parts(t, "PY184=150", "PB15:3=1"))
	require.NoError(t, err)
	got, err := match(t, v, [][]*paint.Paint{painttest.Paints("PY184", "PB15:3", "PR255", "PW6")}, []reach.Wanted{{Name: "lettuce tip", Colour: m.AsPainted.SRGB}})
	require.NoError(t, err)
	nearest := got[0].Matches[0]
	assert.True(t, nearest.Reached)
	assert.Contains(t, nearest.Says, "let down 1:")
	let := slices.IndexFunc(nearest.Recipe, func(p Ingredient) bool { return p.LetDown != nil })
	require.GreaterOrEqual(t, let, 0)
	assert.Equal(t, "PB15:3", nearest.Recipe[let].Paint)
	assert.Equal(t, "PY184", nearest.Recipe[let].LetDown.Paint)
	assert.Contains(t, nearest.Mixing[0], "Let the phthalo blue green shade down first", "before anything else")
	assert.Contains(t, nearest.Mixing[1], "Start with ")
}
