package devices

import (
	"bytes"
	"errors"
	"image"
	"image/jpeg"
	"math"
	"math/rand/v2"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// wheelSheet is a triad or a split wheel in a medium, with its neutral circles where they are wanted.
func wheelSheet(t *testing.T, medium string, kind wheel.SystemKind, roles [3][]string, neutral bool) (bench.Sheet, paint.Medium) {
	t.Helper()
	in, err := paint.ParseMedium(medium)
	require.NoError(t, err)
	system, err := wheel.NewSystem(kind, [3][]*paint.Paint{painttest.Paints(roles[0]...), painttest.Paints(roles[1]...), painttest.Paints(roles[2]...)})
	require.NoError(t, err)
	return bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{Neutral: neutral}, bench.Usual(in)), in
}

var (
	triadRoles = [3][]string{{"PY65"}, {"PR254"}, {"PB29"}}
	splitRoles = [3][]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}}
)

// kept is a picture as a phone keeps it: a JPEG of a quality.
func kept(t *testing.T, img image.Image, quality int) image.Image {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, img, &jpeg.Options{Quality: quality}))
	back, err := jpeg.Decode(&out)
	require.NoError(t, err)
	return back
}

// anyRendering is one that phones might have: singly or together.
func anyRendering(r *rand.Rand) (out Rendering) {
	all := r.IntN(2) == 0
	only := r.IntN(5)
	is := func(n int) bool { return all && r.IntN(4) > 0 || only == n }
	if is(0) {
		out.Contrast = 2 + 2*r.Float64()
	}
	if is(1) {
		out.Saturation = 1.1 + 0.2*r.Float64()
	}
	if is(2) {
		out.Gamma = 0.85 + 0.35*r.Float64()
	}
	if is(3) {
		out.Cast = 0.05 * float64(2*r.IntN(2)-1)
	}
	if is(4) {
		out.Sharpened = 0.3 + 0.5*r.Float64()
	}
	out.ColourFirst = r.IntN(2) == 0
	return out
}

// phoned is what a phone's photo of a painted sheet gives to learn from, and the colours that truly are
// there; none of both where the photo is refused.
func phoned(t *testing.T, s *bench.Sheet, in paint.Medium, shot Shot, step float64) (samples []journal.Sample, true []colour.Lab) {
	t.Helper()
	img, err := Photograph(s, in, small(shot))
	require.NoError(t, err)
	read, err := readOff(kept(t, img, 85), s)
	if errors.As(err, new(input.Error)) {
		return nil, nil
	}
	require.NoError(t, err)
	for _, one := range read.Readings {
		if one.Doubt != "" {
			continue
		}
		r := &s.Regions[one.Region]
		m, err := shot.True(r)
		require.NoError(t, err)
		look := m.FilmIn(in, shot.film(r, in, bench.ReadAt), false)
		true = append(true, look.Lab())
	}
	return journal.SamplesOf(s, in, &read, step), true
}

// drawsOf is how many draws are made: GYROPHANE_DRAWS asks for more.
func drawsOf(usual int) int {
	if n, err := strconv.Atoi(os.Getenv("GYROPHANE_DRAWS")); err == nil {
		return n
	}
	return usual
}

// ratioTold is what is said of two tubes beside each other, the first over the second.
var ratioTold = regexp.MustCompile(`this (.*) is about ([0-9.]+) times this (.*); which`)

// The figures that photos as phones keep them are held to, over fewer draws than they were measured over.
func TestPhonesRenderingsAreTakenOut(t *testing.T) {
	draws := drawsOf(3)
	sheets := []struct {
		name, medium string
		kind         wheel.SystemKind
		roles        [3][]string
		circles      bool
	}{
		{"triad in gouache", "gouache", wheel.RYB, triadRoles, false},
		{"split with circles in gouache", "gouache", wheel.Split, splitRoles, true},
		{"split with circles in acrylic", "acrylic", wheel.Split, splitRoles, true},
		{"split with circles in oil", "oil", wheel.Split, splitRoles, true},
		{"split with circles in watercolour", "watercolour", wheel.Split, splitRoles, true},
		{"triad with circles in tempera", "tempera", wheel.RYB, triadRoles, true},
		{"split without circles in gouache", "gouache", wheel.Split, splitRoles, false},
	}
	var all, worst []float64
	same, falsely, strong, found, others, few, refused := 0, 0, 0, 0, 0, 0, 0
	for n, one := range sheets {
		if draws < len(sheets) && n%draws != 0 {
			continue // some of them
		}
		s, in := wheelSheet(t, one.medium, one.kind, one.roles, one.circles)
		r := rand.New(rand.NewPCG(28, uint64(n)))
		var before, after []float64
		was := [4]int{falsely, found, others, few}
		for seed := range draws {
			for _, strength := range []float64{1, 1.8} {
				shot := Shot{Seed: uint64(1000*n + seed), Rendering: anyRendering(r), Strength: map[string]float64{"PB29": strength}}
				samples, true := phoned(t, &s, in, shot, 0)
				if len(samples) == 0 {
					refused++
					continue
				}
				told := journal.Explain(samples, in, journal.Sure{})
				for i, p := range told.Places {
					before = append(before, colour.Difference(samples[i].Lab, true[i]))
					after = append(after, colour.Difference(p.Read, true[i]))
				}
				learned, err := journal.Learn(samples, in, journal.Sure{})
				if errors.As(err, new(input.Error)) {
					few++
					continue // it says that too little is seen
				}
				require.NoError(t, err)
				offered := learned.Offer()
				isOther := func(s journal.Strength) bool { return s.Paint.CI != "PB29" }
				if strength == 1 {
					if same++; len(offered) > 0 || learned.Film != nil {
						falsely++
					}
					continue
				}
				strong++
				if len(offered) == 1 && !isOther(offered[0]) && math.Abs(math.Log(offered[0].New/strength)) < math.Log(1.2) {
					found++
				} else if ratio := ratioTold.FindStringSubmatch(strings.Join(learned.Says(), " ")); !one.circles && len(offered) == 0 && ratio != nil {
					is, err := strconv.ParseFloat(ratio[2], 64)
					require.NoError(t, err)
					if ratio[1] != "ultramarine blue" {
						is = 1 / is
					}
					if math.Abs(math.Log(is/strength)) < math.Log(1.2) {
						found++
					}
				} else {
					t.Logf("%s: %v %v", one.name, learned.Says(), shot.Rendering)
				}
				if slices.ContainsFunc(offered, isOther) || learned.Film != nil {
					others++
				}
			}
		}
		slices.Sort(before)
		slices.Sort(after)
		t.Logf("%s, %d photos: median %.2f before, %.2f after, worst %.1f; falsely %d, found %d, others %d, too few places %d", one.name, 2*draws, before[len(before)/2], after[len(after)/2], after[len(after)-1], falsely-was[0], found-was[1], others-was[2], few-was[3])
		all, worst = append(all, after...), append(worst, after[len(after)-1])
		assert.Less(t, after[len(after)/2], 2.0, one.name)
	}
	slices.Sort(all)
	t.Logf("all: median %.2f, worst %.1f of %d places; as they were: named %d of %d; one stronger: found %d of %d, others %d; too few %d, refused %d", all[len(all)/2], slices.Max(worst), len(all), falsely, same, found, strong, others, few, refused)
	assert.LessOrEqual(t, float64(few+refused), 0.05*float64(same+strong)+0.5)
	assert.Less(t, slices.Max(worst), 6.0)
	assert.LessOrEqual(t, float64(falsely), 0.05*float64(same)+0.5)
	assert.GreaterOrEqual(t, float64(found), 0.8*float64(strong)-0.5)
	assert.LessOrEqual(t, float64(others), 0.05*float64(strong)+0.5)
}

// A watercolour sheet that lies thin all over is told from a photo by its greys: always where the step was
// measured, mostly by the ink of its marks; where neither is seen it is undecided, and never a strength.
func TestAThinSheetIsNoStrength(t *testing.T) {
	draws := drawsOf(2)
	films, enough := [2]int{}, 0
	for n, one := range []struct {
		kind    wheel.SystemKind
		roles   [3][]string
		circles bool
	}{{wheel.RYB, triadRoles, true}, {wheel.Split, splitRoles, true}, {wheel.Split, splitRoles, false}} {
		s, in := wheelSheet(t, "watercolour", one.kind, one.roles, one.circles)
		r := rand.New(rand.NewPCG(28, uint64(50+n)))
		without, few := 0, 0
		was := films
		for seed := range draws {
			shot := Shot{Seed: uint64(5000 + 100*n + seed), Rendering: anyRendering(r), Film: 0.5}
			samples, _ := phoned(t, &s, in, shot, GreyStep)
			if len(samples) == 0 {
				few++
				continue
			}
			greys := samples[0].Photo.Of.Greys
			for k, known := range [][]journal.Grey{greys, greys[:1], nil} {
				of := &journal.Photograph{Greys: known}
				for i := range samples {
					samples[i].Photo = &journal.PhotoSpot{Of: of, Light: samples[i].Photo.Light, Spread: samples[i].Photo.Spread}
				}
				told, err := journal.Learn(samples, in, journal.Sure{})
				if errors.As(err, new(input.Error)) {
					few++
					break
				}
				require.NoError(t, err)
				assert.Empty(t, told.Offer())
				is := func(kind journal.CauseKind) bool {
					return slices.ContainsFunc(told.Overall, func(c journal.Cause) bool { return c.Kind == kind })
				}
				switch {
				case k == 2:
					assert.Nil(t, told.Film)
					if is(journal.ThinOrPhoto) {
						without++
					}
				case told.Film != nil || is(journal.OfFilm):
					films[k]++
				}
			}
		}
		enough += draws - few
		t.Logf("%s, circles %v, of %d (refused or too few places in %d): the film by the measured step %d, by the ink %d; without them undecided %d", one.kind, one.circles, draws, few, films[0]-was[0], films[1]-was[1], without)
	}
	assert.GreaterOrEqual(t, films[0], enough*90/100)
	assert.GreaterOrEqual(t, films[1], enough/2)
}

// A printed sheet of the six swatches that make a wheel surer is learned from by one photo: its greys say what the phone does.
// No strength is offered that is none, and the ranges of what was mixed hold.
func TestASheetOfSwatchesIsReadOffAPhoto(t *testing.T) {
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	system, err := wheel.Selection{Kind: wheel.Split, Roles: splitRoles}.System(paint.Find)
	require.NoError(t, err)
	w := wheel.Build(system, wheel.Options{})
	got, err := journal.PlanWheelSwatches(w, journal.SwatchOptions{In: in, Source: paint.Photo, Doubts: certainty.Usual})
	require.NoError(t, err)
	var recipes []recipe.Recipe
	for _, s := range got.Swatches {
		recipes = append(recipes, s.Recipe)
	}
	sheet := bench.Swatches(recipes)
	r := rand.New(rand.NewPCG(33, 30))
	draws := drawsOf(8)
	learned, within, all, deviation := 0, 0, 0, 0.0
	for seed := range draws {
		truth := map[string]float64{}
		for _, p := range system.Paints() {
			truth[p.ID] = math.Exp(0.25 * r.NormFloat64())
		}
		samples, _ := phoned(t, &sheet, in, Shot{Seed: uint64(33_000 + seed), Rendering: anyRendering(r), Strength: truth}, GreyStep)
		told, err := journal.Learn(samples, in, journal.Sure{})
		if errors.As(err, new(input.Error)) {
			continue
		}
		require.NoError(t, err)
		require.NotNil(t, told.Joint)
		learned++
		at := map[*paint.Paint]int{}
		for i, s := range told.Strengths {
			at[s.Paint] = i
		}
		for _, p := range w.Paths() {
			i, one := at[p.A]
			k, two := at[p.B]
			if !one || !two {
				continue
			}
			knows := func(q *paint.Paint) certainty.Doubt { return told.Joint.Doubt(at[q]) }
			now := certainty.Steps(p, path.ByHue, knows, certainty.HalfWay)[0]
			off := told.Joint.Off[3*k] - told.Joint.Off[3*i] - math.Log(truth[p.B.ID]/truth[p.A.ID])
			for _, s := range told.Offer() { // what is known is beside what would be taken then
				switch s.Paint {
				case p.A:
					off -= math.Log(s.New / s.Old)
				case p.B:
					off += math.Log(s.New / s.Old)
				}
			}
			all, deviation = all+1, deviation+now.Deviation()
			if math.Abs(off) <= 1.2816*now.Deviation() {
				within++
			}
		}
	}
	t.Logf("learned from %d of %d; %d of %d within; deviation %.3f, promised %.3f, before %.3f", learned, draws, within, all, deviation/float64(all), got.Swatches[len(got.Swatches)-1].Spread, got.Now)
	assert.GreaterOrEqual(t, learned, draws*85/100)
	assert.GreaterOrEqual(t, float64(within), 0.75*float64(all))
	assert.Less(t, deviation/float64(all), 0.7*got.Now)
}
