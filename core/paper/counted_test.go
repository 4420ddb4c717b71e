package paper_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/recipe/recipetest"
	"gyrophane/core/wheel"
)

// behind are the texts of some pages that follow each label, so many at most, in the order in which they
// are drawn, joined: a recipe that was broken into lines is whole again.
func behind(pages []paper.Page, label string, most int) (out []string) {
	for _, p := range pages {
		var texts []string
		for _, m := range p.Marks {
			if m.Kind == paper.Text {
				texts = append(texts, m.Text)
			}
		}
		for n, text := range texts {
			if text == label {
				out = append(out, strings.Join(texts[n+1:min(len(texts), n+1+most)], " "))
			}
		}
	}
	return out
}

// What is printed is what is planned: each amount stands beside its own paint, whatever the
// order in which a place is named. A painter who mixes what stands there comes where the plan
// does; and no tube is asked for more than the list says, nor is more left of it than the loss.
func TestWhatIsPrintedMixesToWhatIsPlanned(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 1))
	read, adds, lets, rows := 0, 0, 0, 0
	for n := range 120 {
		kind, per := wheel.RYB, 1
		if n%2 == 0 {
			kind, per = wheel.Split, 2
		}
		roles := rolesOf(r, per)
		var paints []*paint.Paint
		codes := map[string]bool{}
		for _, role := range roles {
			for _, p := range role {
				paints, codes[p.Code()] = append(paints, p), true
			}
		}
		if len(codes) < len(paints) {
			continue // two that are written alike
		}
		system, err := wheel.NewSystem(kind, roles)
		require.NoError(t, err)
		medium := paint.Media()[n%len(paint.Media())]
		fill := bench.FromWeaker
		if n%3 == 0 {
			fill = bench.OwnPiles
		}
		set, err := bench.Settings{Medium: medium, Diameter: 120, Fill: fill, Gaps: true, Covered: true, Scale: recipe.Scale{Measure: []recipe.Measure{recipe.Dabs, recipe.Drops}[n%2]}}.Complete()
		require.NoError(t, err)
		sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
		if four, err := bench.WarmCool(system, bias.VioletIsWarm, path.ByHue); n%4 == 2 && err == nil && four.Title == "warm and cool" {
			sheet = four
			rows++
		}
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		about := fmt.Sprintf("%d: %s in %s, %s, %s", n, strings.Join(ids(paints), " "), medium.ID, plan.Fill, set.Scale.Measure)
		format, err := paper.ParseFormat("A4")
		require.NoError(t, err)
		for _, as := range []string{"plan", "sheet"} {
			pages, err := paper.Sheet(plan, paper.Options{Format: format, Recipes: "dabs", As: as, Title: "Low water"}, rough)
			require.NoError(t, err, about)
			piles := map[int]map[string]float64{}
			asked := map[string]float64{}
			for _, i := range plan.Order {
				region := &sheet.Regions[i]
				c := &plan.Counted[i]
				if len(region.Recipe) < 2 {
					for _, p := range c.FromTubes() {
						asked[p.Paint.Code()] += p.Parts
					}
					continue
				}
				var got recipetest.Read
				err := fmt.Errorf("%s: %s is not printed", about, region.Label)
				for _, text := range behind(pages, region.Label, 5) {
					if got, err = recipetest.Short(text, set.Scale); err == nil {
						break
					}
				}
				require.NoError(t, err, "%s: %s", about, region.Label)
				read++
				pile := got.Into
				if got.Adds {
					adds++
					pile = piles[region.Section]
					for code, ml := range got.Into {
						pile[code] += ml
					}
				}
				if len(c.Before) > 0 {
					lets++
				}
				for code, ml := range got.Tubes {
					asked[code] += ml
				}
				mixed, err := paint.Mix(recipetest.Pile(pile, paints)...)
				require.NoError(t, err, about)
				is, planned := mixed.BrushedOut(), c.Mixture.BrushedOut()
				assert.Less(t, colour.Difference(is.Lab(), planned.Lab()), 0.05, "%s: %s as %s", about, region.Label, as)
				sum := 0.0
				for _, ml := range pile {
					sum += ml
				}
				took := set.Need(region) / (1 + set.Thinner(region))
				for code := range pile {
					pile[code] *= max(0.05, 1-took/sum)
				}
				piles[region.Section] = pile
			}
			for _, a := range plan.Amounts() {
				assert.LessOrEqual(t, asked[a.Paint.Code()], a.ML+1e-9, "%s: %s is short", about, a.Paint.Code())
				assert.InDelta(t, asked[a.Paint.Code()]*(1+set.Loss), a.ML, 1e-6, "%s: %s", about, a.Paint.Code())
			}
		}
	}
	assert.Greater(t, read, 900)
	assert.Greater(t, adds, 100)
	assert.Greater(t, lets, 30)
	assert.Positive(t, rows, "warm and cool sheets")
}

// listed are what the list of recipes says of each place, by its number in the order of painting.
func listed(pages []paper.Page) map[int]string {
	out := map[int]string{}
	for _, p := range pages {
		n, inList := 0, false
		for _, m := range p.Marks {
			switch {
			case m.Kind != paper.Text:
			case strings.HasPrefix(m.Text, "What each place is mixed from"):
				inList = true
			case inList && m.Font == paper.Figures && m.Align == paper.End:
				n, _ = strconv.Atoi(m.Text)
			case inList && n > 0 && m.Font == paper.Plain:
				out[n] = strings.TrimSpace(out[n] + " " + m.Text)
			case n == 0 && m.Font == paper.Bold && strings.HasPrefix(m.Text, "Low water"):
				inList = len(out) > 0 // the list goes on
			}
		}
	}
	return out
}

// What is listed of sheets on which a name may stand twice: mixed and thinned as it stands there, each place
// comes where the plan does, and the tubes give what is squeezed out.
func TestWhatIsListedMixesToWhatIsPlanned(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 1))
	read, thinned := 0, 0
	for n := range 60 {
		kind, per := wheel.RYB, 1
		if n%2 == 0 {
			kind, per = wheel.Split, 2
		}
		roles := rolesOf(r, per)
		system, err := wheel.NewSystem(kind, roles)
		require.NoError(t, err)
		options := wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement}
		if n%3 == 0 {
			for home := range options.Called {
				options.Called[home] = fmt.Sprintf("MW mussel water %02d", home)
			}
		}
		w := wheel.Build(system, options)
		medium := paint.Media()[n%len(paint.Media())]
		set, err := bench.Settings{Medium: medium, Diameter: 120, Fill: bench.OwnPiles, Gaps: true, Scale: recipe.Scale{Measure: []recipe.Measure{recipe.Dabs, recipe.Drops}[n%2]}}.Complete()
		require.NoError(t, err)
		which := bench.Which{Kind: []bench.SheetKind{bench.WorksheetSheet, bench.GlazesSheet, bench.WheelSheet}[n%3], Slot: r.IntN(12)}
		var have bench.Material
		if which.Kind != bench.GlazesSheet {
			which.With = bench.WhenAsked
			have.Choose(w, which.Slot, paint.Library())
		}
		sheet, err := which.Of(w, have, bench.Extras{}, set)
		require.NoError(t, err)
		codes := map[string]string{}
		alike := false
		paints := sheet.Paints()
		for _, p := range paints {
			alike = alike || codes[p.Code()] != ""
			codes[p.Code()] = p.ID
		}
		if alike {
			continue // two that are written alike
		}
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		about := fmt.Sprintf("%d: %s in %s, %s", n, which.Kind, medium.ID, set.Scale.Measure)
		pages, err := paper.Sheet(plan, paper.Options{Format: paper.Formats[0], Recipes: "dabs", Title: "Low water"}, rough)
		require.NoError(t, err, about)
		list := listed(pages)
		asked := map[string]float64{}
		for at, i := range plan.Order {
			region, c := &sheet.Regions[i], &plan.Counted[i]
			says := list[at+1]
			if by := set.Thinned(region); by != "" {
				require.Contains(t, says, by, "%s: %s", about, region.ID)
				var told float64
				_, err := fmt.Sscanf(by, "thinned 1 : %f", &told)
				require.NoError(t, err)
				assert.InDelta(t, set.Thinner(region), told, 0.051, about)
				thinned++
			}
			if says == "" {
				require.Len(t, region.Recipe, 1, "%s: %s is not listed", about, region.ID)
				for _, p := range c.FromTubes() {
					asked[p.Paint.Code()] += p.Parts
				}
				continue
			}
			got, err := recipetest.Short(says, set.Scale)
			require.NoError(t, err, "%s: %s: %s", about, region.ID, says)
			read++
			for code, ml := range got.Tubes {
				asked[code] += ml
			}
			mixed, err := paint.Mix(recipetest.Pile(got.Into, paints)...)
			require.NoError(t, err, about)
			is, planned := mixed.BrushedOut(), c.Mixture.BrushedOut()
			assert.Less(t, colour.Difference(is.Lab(), planned.Lab()), 0.05, "%s: %s: %s", about, region.ID, says)
		}
		for _, a := range plan.Amounts() {
			assert.InDelta(t, asked[a.Paint.Code()]*(1+set.Loss), a.ML, 1e-6, "%s: %s", about, a.Paint.Code())
		}
	}
	assert.Greater(t, read, 1500)
	assert.Greater(t, thinned, 500)
}

func TestACardHoldsAllOfItsSteps(t *testing.T) {
	system, err := wheel.NewSystem(wheel.RYB, rolesOf(rand.New(rand.NewPCG(26, 2)), 1))
	require.NoError(t, err)
	for _, size := range []string{"A4", "A5"} {
		format, err := paper.ParseFormat(size)
		require.NoError(t, err)
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 60, Fill: bench.OwnPiles}.Complete()
		require.NoError(t, err)
		sheet := bench.Wheel(wheel.Build(system, wheel.Options{TintBy: wheel.ByWhite, ShadeBy: wheel.ByComplement}), bench.Extras{Tints: 1, Shades: 1, Neutral: true}, set)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		pages, err := paper.Sheet(plan, paper.Options{Format: format, Recipes: "dabs", As: "cards", Title: "Low water"}, rough)
		require.NoError(t, err)
		var words []string
		for _, p := range pages {
			for _, m := range p.Marks {
				words = append(words, m.Text)
			}
		}
		all := strings.Join(words, " ")
		for i := range sheet.Regions {
			if len(sheet.Regions[i].Recipe.Plain()) < 2 {
				continue
			}
			for _, step := range plan.Counted[i].Lines() {
				assert.Contains(t, all, step, "%s: %s", size, sheet.Regions[i].Label)
			}
		}
	}
}

var inTubes = regexp.MustCompile(`^.*?In most tubes (\d+):(\d+) to (\d+):(\d+)( of the let-down)?: begin with (\d+):(\d+) and creep`)

// What most tubes ask for is read back as the recipe beside it is written: that lies within, and one begins with the most of the
// weaker paint, so that the stronger one creeps in.
func TestWhatMostTubesAskForIsOfTheRecipeBesideIt(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 20))
	read, lets := 0, 0
	for range 12 {
		system, err := wheel.NewSystem(wheel.Split, rolesOf(r, 2))
		require.NoError(t, err)
		set, err := bench.Settings{Medium: paint.Media()[3], Diameter: 120, Fill: bench.OwnPiles}.Complete()
		require.NoError(t, err)
		sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		for _, as := range []string{"plan", "cards"} {
			pages, err := paper.Sheet(plan, paper.Options{Format: paper.Formats[0], As: as, Title: "Low water", Doubts: certainty.Usual}, rough)
			require.NoError(t, err)
			for i := range sheet.Regions {
				region := &sheet.Regions[i]
				if len(region.Recipe) != 2 || as == "plan" && len(region.Label) > 12 {
					continue
				}
				for _, text := range behind(pages, region.Label, 12) {
					found := inTubes.FindStringSubmatch(text)
					if found == nil {
						continue
					}
					ln := func(n int) float64 {
						a, err := strconv.ParseFloat(found[n], 64)
						require.NoError(t, err)
						b, err := strconv.ParseFloat(found[n+1], 64)
						require.NoError(t, err)
						return math.Log(a / b)
					}
					of := region.Recipe
					assert.Equal(t, found[5] != "", of[0].In != nil || of[1].In != nil, "%s in %s", region.Label, text)
					written := math.Log(of[0].Parts / of[1].Parts)
					from, to, begin := ln(1), ln(3), ln(6)
					assert.GreaterOrEqual(t, written, min(from, to)-0.15, "%s in %s", of, text)
					assert.LessOrEqual(t, written, max(from, to)+0.15, "%s in %s", of, text)
					assert.InDelta(t, to, begin, 1e-9)
					weakerFirst := path.New(of[0].Paint, of[1].Paint).Weaker() == of[0].Paint
					assert.Equal(t, weakerFirst, begin > from, "%s in %s", of, text)
					read++
					if found[5] != "" {
						lets++
					}
				}
			}
		}
	}
	assert.Greater(t, read, 80)
	assert.Greater(t, lets, 5)
}

func ids(of []*paint.Paint) (out []string) {
	for _, p := range of {
		out = append(out, p.ID)
	}
	return out
}

// The number in each place is its turn in the order of painting.
func TestNumbersOnPaperAreTheOrderOfPainting(t *testing.T) {
	system, err := wheel.NewSystem(wheel.RYB, rolesOf(rand.New(rand.NewPCG(26, 4)), 1))
	require.NoError(t, err)
	set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 120, Fill: bench.OwnPiles}.Complete()
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.Sketch(&sheet, set)
	require.NoError(t, err)
	pages, err := paper.Sheet(plan, paper.Options{Format: paper.Formats[0], Title: "Low water", Recipes: "none"}, rough)
	require.NoError(t, err)
	// A number stands in its sector; sectors are drawn in the order of the sheet.
	var sectors []paper.Mark
	turn := map[int]string{}
	for _, m := range pages[0].Marks {
		switch {
		case m.Kind == paper.Sector:
			sectors = append(sectors, m)
		case m.Kind == paper.Text && m.Font == paper.Figures && len(sectors) > 0 && len(turn) < len(sectors):
			turn[len(sectors)-1] = m.Text
		}
	}
	require.Len(t, sectors, 12)
	require.Len(t, turn, 12)
	for n, region := range plan.Order {
		assert.Equal(t, fmt.Sprint(n+1), turn[region], sheet.Regions[region].Label)
	}
	text := ""
	for _, m := range pages[0].Marks {
		text += m.Text + "\n"
	}
	assert.Contains(t, text, "plan "+plan.Mark())
}
