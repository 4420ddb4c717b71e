package paper_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/reach"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// rough measures texts about as wide as the fonts are, on the wide side.
func rough(text string, f paper.Font, size float64) float64 {
	wide := 0.56
	if f == paper.Bold {
		wide = 0.6
	}
	return wide * size * float64(len([]rune(text)))
}

// aims are coloured paints that can play a role.
func rolesOf(r *rand.Rand, n int) (out [3][]*paint.Paint) {
	var of [3][]*paint.Paint
	for _, p := range paint.Library() {
		switch p.Family {
		case "yellow":
			of[0] = append(of[0], p)
		case "red", "magenta":
			of[1] = append(of[1], p)
		case "blue":
			of[2] = append(of[2], p)
		}
	}
	for k := range of {
		for len(out[k]) < n {
			if p := of[k][r.IntN(len(of[k]))]; !slices.Contains(out[k], p) && p.ID != "blue-grey" {
				out[k] = append(out[k], p)
			}
		}
	}
	return out
}

// No text of any sheet lies over another, or leaves the page.
func TestTextsStandApartOnThePage(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 1))
	laid := 0
	for n := range 200 {
		kind, paints := wheel.RYB, 1
		if n%2 == 0 {
			kind, paints = wheel.Split, 2
		}
		system, err := wheel.NewSystem(kind, rolesOf(r, paints))
		require.NoError(t, err)
		options := wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement}
		if n%3 == 1 {
			for home := range options.Called {
				options.Called[home] = fmt.Sprintf("MW mussel water %02d", home) // as long as they may be, and wide
			}
		}
		w := wheel.Build(system, options)
		set, err := bench.Settings{Medium: paint.Media()[r.IntN(len(paint.Media()))], Diameter: float64(60 + 10*r.IntN(14)), Fill: bench.OwnPiles, Slots: []bench.Slots{bench.Flat, bench.Graded}[n%4%2]}.Complete()
		require.NoError(t, err)
		o := paper.Options{Format: paper.Formats[r.IntN(len(paper.Formats))], Flat: r.IntN(4) == 0, Edition: paper.Editions[r.IntN(len(paper.Editions))], Recipes: []string{"parts", "dabs", "none", ""}[r.IntN(4)], As: []string{"sheet", "sheet", "plan", "cards", "dabs", "sheet,plan,cards,dabs"}[r.IntN(6)], Title: strings.Repeat("Low water ", 1+r.IntN(6)), About: "split primaries, gouache", Doubts: certainty.Usual}
		if n%2 == 1 {
			o.Code = dark(37)
		}
		extras := bench.Extras{}
		var wanted []bench.Wanted
		var surer []recipe.Recipe
		for _, slot := range w.Slots {
			if !slot.Empty {
				surer = append(surer, slot.Parts)
				wanted = append(wanted, bench.Wanted{Name: "wanted, like " + slot.Name, Colour: colour.Lab{L: 50, A: 10, B: float64(n%40 - 20)}, Recipe: slot.Parts, Mixture: slot.Mixture})
			}
		}
		if n%3 == 0 {
			extras = bench.Extras{Tints: r.IntN(3), Shades: r.IntN(2), Wash: r.IntN(2) == 0, Neutral: r.IntN(2) == 0}
		}
		which := bench.Which{Width: o.Wide()}
		if n%5 == 0 {
			which.Kind = bench.SheetKinds[r.IntN(len(bench.SheetKinds))]
		}
		have := bench.Material{Couples: system.Allowed(), Wanted: wanted, Swatches: surer}
		if n%4 == 1 && (which.Kind == "" || which.Kind == bench.WorksheetSheet) {
			which.Slot, which.With = r.IntN(12), bench.WhenAsked
			have.Choose(w, which.Slot, paint.Library())
		}
		sheet, err := which.Of(w, have, extras, set)
		require.NoError(t, err)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		pages, err := paper.Sheet(plan, o, rough)
		if err != nil {
			assert.ErrorAs(t, err, new(input.Error))
			assert.Contains(t, err.Error(), "fit on")
			continue
		}
		laid++
		about := fmt.Sprintf("sheet %d: %s of %s, %.0f mm on %s, flat %v, %+v", n, o.Edition, sheet.Kind, set.Diameter, o.Format.Name, o.Flat, extras)
		for _, p := range pages {
			apart(t, p, about)
		}
	}
	assert.Greater(t, laid, 120)
}

// dark is a code that is dark all over.
func dark(n int) (out [][]bool) {
	for range n {
		out = append(out, slices.Repeat([]bool{true}, n))
	}
	return out
}

func apart(t *testing.T, p paper.Page, about string) {
	t.Helper()
	var boxes []paper.Box
	var texts []string
	var rings []paper.Mark
	for _, m := range p.Marks {
		if m.Kind == paper.Circle && (m.Outer == bench.MarkRadius || m.Outer == bench.GreyRadius) {
			rings = append(rings, m)
			assert.True(t, m.X-m.Outer >= 4 && m.X+m.Outer <= p.W-4 && m.Y-m.Outer >= 4 && m.Y+m.Outer <= p.H-4, "%s: a mark leaves the page", about)
		}
	}
	for _, m := range p.Marks {
		if m.Kind != paper.Text || m.Text == "" {
			continue
		}
		assert.GreaterOrEqual(t, m.Size*72/25.4, 8.0, "%s: %q is under 8 points", about, m.Text)
		assert.NotRegexp(t, `\d\.\d{3}\d* P`, m.Text, "%s: no hand makes that", about)
		assert.NotContains(t, m.Text, "…", "%s: it is cut", about)
		b := m.Box(rough)
		assert.True(t, b[0] >= 2 && b[1] >= 2 && b[2] <= p.W-2 && b[3] <= p.H-2, "%s: %q leaves the page: %.1f", about, m.Text, b)
		for _, ring := range rings {
			near := paper.Box{ring.X - ring.Outer, ring.Y - ring.Outer, ring.X + ring.Outer, ring.Y + ring.Outer}
			assert.False(t, b.Overlaps(near), "%s: %q lies over a mark or the grey step", about, m.Text)
		}
		for _, code := range p.Marks {
			if code.Kind == paper.Rect && code.Fill == "#161616" && code.H < 1 {
				assert.False(t, b.Overlaps(paper.Box{code.X, code.Y, code.X + code.W, code.Y + code.H}), "%s: %q lies over the code", about, m.Text)
			}
		}
		for k, other := range boxes {
			assert.False(t, b.Overlaps(other), "%s: %q lies over %q", about, m.Text, texts[k])
		}
		boxes, texts = append(boxes, b), append(texts, m.Text)
	}
}

func TestAWheelIsItsSizeAndTheBarIsFifty(t *testing.T) {
	system, err := wheel.NewSystem(wheel.RYB, rolesOf(rand.New(rand.NewPCG(1, 1)), 1))
	require.NoError(t, err)
	set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 140, Fill: bench.OwnPiles}.Complete()
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.Sketch(&sheet, set)
	require.NoError(t, err)
	pages, err := paper.Sheet(plan, paper.Options{Format: paper.Formats[0], Title: "Low water"}, rough)
	require.NoError(t, err)
	outer, bar, marks := 0.0, false, 0
	for _, m := range pages[0].Marks {
		if m.Kind == paper.Sector {
			outer = max(outer, m.Outer)
		}
		bar = bar || m.Kind == paper.Line && m.X2-m.X == 50
		if m.Kind == paper.Circle && m.Outer == bench.MarkRadius {
			marks++
		}
	}
	assert.Equal(t, 70.0, outer)
	assert.True(t, bar)
	assert.Equal(t, 4, marks)
	_, err = paper.Sheet(plan, paper.Options{Format: paper.Formats[1], Title: "Low water", Recipes: "pinches"}, rough)
	assert.ErrorContains(t, err, "choose parts, dabs or none")
	for as, says := range map[string]string{"napkin": "choose sheet, plan, cards or dabs", "plan,plan,plan,plan,plan": "at most 4"} {
		_, err = paper.Sheet(plan, paper.Options{Format: paper.Formats[0], As: as}, rough)
		assert.ErrorContains(t, err, says)
	}
	_, err = paper.ParseFormat("papyrus")
	assert.ErrorContains(t, err, "choose A4, A5, Letter")
}

func TestAClassGetsABlankEachAndOneKey(t *testing.T) {
	system, err := wheel.NewSystem(wheel.RYB, rolesOf(rand.New(rand.NewPCG(1, 1)), 1))
	require.NoError(t, err)
	set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 120, Fill: bench.OwnPiles}.Complete()
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.Sketch(&sheet, set)
	require.NoError(t, err)
	o := paper.Options{Format: paper.Formats[0], Title: "Low water", Class: 30, Recipes: "none", As: "plan"}
	pages, err := paper.Sheet(plan, o, rough)
	require.NoError(t, err)
	says := func(p paper.Page, text string) bool {
		return slices.ContainsFunc(p.Marks, func(m paper.Mark) bool { return m.Kind == paper.Text && strings.Contains(m.Text, text) })
	}
	blanks, keys := 0, 0
	for _, p := range pages {
		switch {
		case says(p, "the key"):
			keys++
			continue
		case says(p, "true size"):
			blanks++
		}
		for _, told := range []string{" : ", "clean", "softened", "muddy", "Squeeze out", "minutes"} {
			assert.False(t, says(p, told), "a blank tells %q", told)
		}
		for _, m := range p.Marks {
			coloured := m.Kind == paper.Sector && m.Fill != ""
			assert.False(t, coloured, "a blank is an outline")
		}
	}
	assert.Equal(t, 30, blanks)
	o.Code = dark(37)
	coded, err := paper.Sheet(plan, o, rough)
	require.NoError(t, err)
	with := 0
	for i, p := range coded {
		if len(p.Marks) == len(pages[i].Marks)+37 {
			with++
		}
	}
	assert.Equal(t, 30, with, "each blank has the code, and the key has none")
	o.Code = nil
	assert.Positive(t, keys)
	assert.True(t, says(pages[30], "Squeeze out") || says(pages[len(pages)-1], " : "))
	for _, n := range []int{-1, 61} {
		o.Class = n
		_, err = paper.Sheet(plan, o, rough)
		assert.ErrorContains(t, err, "1 to 60 blanks")
	}
	_, err = paper.Sheet(plan, paper.Options{Format: paper.Formats[0], Edition: "pirate"}, rough)
	assert.ErrorContains(t, err, "choose working blank key aimed")
}

func TestAComparisonStandsOnItsPage(t *testing.T) {
	r := rand.New(rand.NewPCG(16, 2))
	acrylic, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	for n := 2; n <= 4; n++ {
		var of []reach.Named
		for k := range n {
			kind, paints := wheel.RYB, 1
			if k%2 == 1 {
				kind, paints = wheel.Split, 2
			}
			system, err := wheel.NewSystem(kind, rolesOf(r, paints))
			require.NoError(t, err)
			of = append(of, reach.Named{Name: strings.Repeat("Low water ", k+1), System: system})
		}
		systems, err := reach.SideBySide(of, acrylic)
		require.NoError(t, err)
		for _, f := range paper.Formats {
			for _, p := range paper.Comparison(systems, acrylic, f, rough) {
				apart(t, p, fmt.Sprintf("%d systems on %s", n, f.Name))
			}
		}
	}
}
