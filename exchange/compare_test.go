package exchange

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/xml"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/wheel"
)

func named(t *testing.T, name, kind string, refs ...string) Named {
	t.Helper()
	roles, err := SortIntoRoles(refs)
	require.NoError(t, err)
	s, err := SystemContent{Kind: kind, Roles: roles}.System(FindPaint)
	require.NoError(t, err)
	return Named{Name: name, System: s}
}

func TestSystemsAreLaidBesideEachOther(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	three, six := named(t, "three", "triad", "PY65", "PR254", "PB29"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	three.Prices = map[string]float64{"PY65": 6, "PR254": 9, "PB29": 5}
	six.Prices = map[string]float64{"PY65": 6}
	got, err := v.Compare([]Named{three, six})
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
	assert.Equal(t, "yellow", a.WidestGap.From)
	assert.Empty(t, b.WidestGap.From)
	assert.Contains(t, b.Says, "six is clean all the way round")
	assert.Contains(t, a.Says, "three is clean ")
	require.Len(t, got.Differences, 1)
	assert.Contains(t, got.Differences[0].Says, "six is cleaner from yellow")

	_, err = v.Compare(nil)
	assert.ErrorAs(t, err, new(BadInput))
	_, err = v.Compare([]Named{three, six, three, six, three})
	assert.ErrorContains(t, err, "not 5")
}

func TestWantedColoursAreMatchedByEachPalette(t *testing.T) {
	v := view(t, "acrylic", "A", "wet")
	three := MixesFrom(named(t, "three", "triad", "PY65", "PR254", "PB29").System)
	six := MixesFrom(named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3").System)
	got, err := v.Match([][]*paint.Paint{three, six}, []Wanted{{"kelp", "#6e5a28"}, {"turquoise", "#00a6b0"}, {"nothing has it", "97,-90,90"}})
	require.NoError(t, err)
	require.Len(t, got, 3)
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

	for _, c := range got {
		assert.Equal(t, min(c.Matches[0].DE, c.Matches[1].DE), c.Least, c.Name)
		assert.Equal(t, max(c.Matches[0].DE, c.Matches[1].DE), c.Most, c.Name)
	}
	_, err = v.Match([][]*paint.Paint{three}, []Wanted{{"odd", "teal"}})
	assert.ErrorContains(t, err, "odd: ")
	_, err = v.Match([][]*paint.Paint{three}, make([]Wanted, 25))
	assert.ErrorContains(t, err, "at most 24")
}

func TestAComparisonGoesOutAsAFile(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got, err := v.Compare([]Named{named(t, `=three <&> "quoted"`, "triad", "PY65", "PR254", "PB29"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")})
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(got.CSV())).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, `'=three <&> "quoted"`, rows[1][0], "no spreadsheet takes it for a formula")
	assert.Equal(t, plain(got.Systems[1].CleanCoverage), rows[2][3])
	assert.Equal(t, plain(got.Systems[1].Reach[71]), rows[2][len(rows[2])-1])

	var svg struct {
		Paths []struct {
			Dash string `xml:"stroke-dasharray,attr"`
		} `xml:"path"`
		Texts []string `xml:"text"`
	}
	require.NoError(t, xml.Unmarshal(got.SVG(), &svg), "well-formed, whatever a system is called")
	assert.Len(t, svg.Paths, 4, "an outline and a key for each")
	assert.NotEqual(t, svg.Paths[0].Dash, svg.Paths[2].Dash)
	assert.Contains(t, strings.Join(svg.Texts, "\n"), `=three <&> "quoted": 3`)
}

func TestWantedColoursAreReadFromFiles(t *testing.T) {
	rows, err := ReadWanted([]byte("GIMP Palette\nName: pool\nColumns: 2\n#\n240 102  43\tstarfish orange\n 86 156 46\n300 0 0\tbeyond\nnonsense\n"))
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, WantedRow{Line: 5, Name: "starfish orange", Colour: "#f0662b", Shown: rows[0].Shown}, rows[0])
	assert.Equal(t, "#f0662b", rows[0].Shown.SRGB)
	assert.Equal(t, "#569c2e", rows[1].Colour)
	assert.Contains(t, rows[2].Problem, "0 to 255")
	assert.Contains(t, rows[3].Problem, "0 to 255")

	rows, err = ReadWanted([]byte("\xef\xbb\xbfName;Hex;L;a;b\nkelp;#6e6228;;;\nstone;;43,5;-1,5;-6\nodd;teal;;;\nbare;;;;\n"))
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, "#6e6228", rows[0].Colour)
	assert.Equal(t, "43.5,-1.5,-6", rows[1].Colour, "a decimal comma")
	assert.Contains(t, rows[2].Problem, "is no screen colour")
	assert.Contains(t, rows[3].Problem, "no colour stands here")
	for says, file := range map[string]string{"is empty": "", "names no colours": "a,b\n1,2\n", "holds no colours": "GIMP Palette\n", "not UTF-8": "name,colour\n\xff\n"} {
		_, err := ReadWanted([]byte(file))
		assert.ErrorContains(t, err, says)
	}
}

func FuzzReadWanted(f *testing.F) {
	f.Add([]byte("GIMP Palette\nName: x\n1 2 3 a\n256 -1 0\n"))
	f.Add([]byte("name,colour\nkelp,#6e6228\n,\n"))
	f.Add([]byte("name;L;a;b\nx;1,5;2;3\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := ReadWanted(data)
		if err != nil {
			assert.ErrorAs(t, err, new(BadInput))
			return
		}
		for _, r := range rows {
			assert.NotEqual(t, r.Colour == "", r.Problem == "", "a colour, or what is wrong")
			if r.Colour != "" {
				assert.NoError(t, CheckWanted(Wanted{r.Name, r.Colour}), "what is offered can be wanted")
			}
		}
	})
}

func TestTheBestOfABoxAndWhatToBuyNext(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got, err := v.Choose(context.Background(), hand(t, "PY184", "PY65", "PR255", "PR122", "PB29", "PB60", "PY43", "PW6"), Choosing{Kind: wheel.Split, Aim: "coverage"})
	require.NoError(t, err)
	assert.Equal(t, []string{"PY184", "PY65", "PR255", "PR122", "PB29", "PB60"}, got.Best.Paints)
	require.NotEmpty(t, got.RunnersUp)
	for _, r := range got.RunnersUp {
		assert.LessOrEqual(t, r.CleanCoverage, got.Best.CleanCoverage)
		assert.NotEmpty(t, r.Loses)
	}
	require.NotEmpty(t, got.BuyNext, "a blue that leans to green is missing")
	for _, b := range got.BuyNext {
		assert.Equal(t, byte('B'), b.Paint.ID[1], b.Paint.ID)
		assert.InDelta(t, got.Best.CleanCoverage+b.Gain, b.CleanCoverage, 1e-3)
	}
	got, err = v.Choose(context.Background(), nil, Choosing{Kind: wheel.RYB, Aim: "coverage", Library: true, Contains: []string{"PB29"}})
	require.NoError(t, err)
	assert.Contains(t, got.Best.Paints, "PB29")
	three := hand(t, "PY184", "PR254", "PB29", "PB60")
	cheap, err := v.Choose(context.Background(), three, Choosing{Kind: wheel.RYB, Aim: "price", Prices: map[string]float64{"PY184": 4, "PR254": 5, "PB29": 6}})
	require.NoError(t, err)
	assert.Equal(t, []string{"PY184", "PR254", "PB29"}, cheap.Best.Paints)
	assert.Equal(t, 15.0, *cheap.Best.Price)
	suits, err := v.Choose(context.Background(), hand(t, "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"), Choosing{Kind: wheel.RYB, Aim: "targets", Wanted: DemoWanted})
	require.NoError(t, err)
	require.NotNil(t, suits.Best.MeanDE)
	for _, r := range suits.RunnersUp {
		assert.LessOrEqual(t, r.Reached, suits.Best.Reached)
		assert.Contains(t, r.Loses, "It comes ")
	}
	for says, ask := range map[string]struct {
		box []*paint.Paint
		c   Choosing
	}{
		"box is empty":        {nil, Choosing{Kind: wheel.RYB, Aim: "coverage"}},
		"too few":             {three, Choosing{Kind: wheel.Split, Aim: "coverage"}},
		"few paints":          {three, Choosing{Kind: wheel.RYB, Aim: "price"}},
		"is not chosen":       {nil, Choosing{Kind: wheel.OwnSystem, Aim: "coverage", Library: true}},
		"knows no prices":     {nil, Choosing{Kind: wheel.RYB, Aim: "price", Library: true}},
		"colour is wanted":    {three, Choosing{Kind: wheel.RYB, Aim: "targets"}},
		"odd: ":               {three, Choosing{Kind: wheel.RYB, Aim: "targets", Wanted: []Wanted{{"odd", "teal"}}}},
		"no class of caution": {three, Choosing{Kind: wheel.RYB, Aim: "coverage", Without: []string{"lead"}}},
		"is no aim":           {three, Choosing{Kind: wheel.RYB, Aim: "beauty"}},
	} {
		_, err := v.Choose(context.Background(), ask.box, ask.c)
		assert.ErrorContains(t, err, says)
	}
}

func TestWhatReplacesATube(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	s := named(t, "three", "triad", "PY65", "PR254", "PB29").System
	got, err := v.Replace(t.Context(), s, hand(t, "PY184", "PR122", "PB15:3", "PW6"), nil)
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Positive(t, got[0].Gain)
	assert.Contains(t, got[0].Says, "With it the system is cleaner ")
	none, err := v.Replace(t.Context(), s, hand(t, "PW6"), nil)
	require.NoError(t, err)
	assert.Empty(t, none)
	blue, red := hand(t, "PB60")[0], hand(t, "PR255")[0]
	tried, err := v.Replace(t.Context(), s, hand(t, "PY184", "PR122", "PW6"), map[string]*paint.Paint{"PB29": blue, "PR254": red})
	require.NoError(t, err)
	put := map[string]string{}
	for _, w := range tried {
		put[w.Out.ID] = w.In.ID
	}
	assert.Equal(t, map[string]string{"PY65": "PY184", "PR254": "PR255", "PB29": "PB60"}, put, "what is tried, or the best where nothing is")
	_, err = v.Replace(t.Context(), s, nil, map[string]*paint.Paint{"PB29": hand(t, "PW6")[0]})
	assert.ErrorContains(t, err, "no hue of its own")
}

func BenchmarkMatchTwelveColoursByFourSystems(b *testing.B) {
	var palettes [][]*paint.Paint
	for _, d := range DemoSystems() {
		s, err := d.System.System(FindPaint)
		require.NoError(b, err)
		palettes = append(palettes, MixesFrom(s))
	}
	var wanted []Wanted
	for _, hex := range []string{"#f0662b", "#c8203c", "#4f3d78", "#00a6b0", "#569c2e", "#6e6228", "#656e78", "#d8c8a0", "#203040", "#b07050", "#90b0c8", "#e8d040"} {
		wanted = append(wanted, Wanted{hex, hex})
	}
	v, err := ParseView("acrylic", "D65", "dry")
	require.NoError(b, err)
	for b.Loop() {
		if _, err := v.Match(palettes, wanted); err != nil {
			b.Fatal(err)
		}
	}
}

func TestAComparisonStandsOnOneFooting(t *testing.T) {
	three, six := named(t, "three", "triad", "PY65", "PR254", "PB29"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")
	day, err := view(t, "acrylic", "D65", "dry").Compare([]Named{three, six})
	require.NoError(t, err)
	lamp, err := view(t, "acrylic", "A", "wet").Compare([]Named{six, three})
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
	assert.Positive(t, greys, "orange-red and ultramarine make a grey")
	assert.NotEqual(t, day.Systems[0].Slots[2].AsPainted, lamp.Systems[1].Slots[2].AsPainted)
	one, err := view(t, "acrylic", "D65", "dry").Compare([]Named{six})
	require.NoError(t, err)
	assert.Empty(t, one.Differences)
}

func TestALetDownIsSaidInARecipe(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := v.Mix(parts(t, "PY184=150", "PB15:3=1"))
	require.NoError(t, err)
	got, err := v.Match([][]*paint.Paint{hand(t, "PY184", "PB15:3", "PR255", "PW6")}, []Wanted{{"lettuce tip", m.AsPainted.SRGB}})
	require.NoError(t, err)
	match := got[0].Matches[0]
	assert.True(t, match.Reached)
	assert.Contains(t, match.Says, "let down 1:")
	let := slices.IndexFunc(match.Recipe, func(p Ingredient) bool { return p.LetDown != nil })
	require.GreaterOrEqual(t, let, 0)
	assert.Equal(t, "PB15:3", match.Recipe[let].Paint)
	assert.Equal(t, "PY184", match.Recipe[let].LetDown.Paint)
	assert.Contains(t, match.Mixing[0], "Let the phthalo blue green shade down first: 1 part in ", "before anything else")
	assert.Contains(t, match.Mixing[1], "Lay out ")
}
