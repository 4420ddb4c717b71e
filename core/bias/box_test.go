package bias

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

func TestTemperatureFollowsTheSchool(t *testing.T) {
	for id, words := range map[string][2]string{
		"PB29":   {"warm", "cool"},
		"PB15:3": {"cool", "warm"},
		"PB28":   {"", ""}, // centred
		"PY65":   {"warm", "warm"},
		"PY184":  {"cool", "cool"},
		"PR255":  {"warm", "warm"},
		"PR122":  {"cool", "cool"},
		"PG7":    {"", ""},
		"PY43":   {"", ""}, // an earth
		"PBk7":   {"", ""},
	} {
		p := painttest.Paints(id)[0]
		assert.Equal(t, words[0], Temperature(p, VioletIsWarm), id)
		assert.Equal(t, words[1], Temperature(p, GreenIsWarm), id)
	}
	_, err := ParseSchool("red")
	assert.Error(t, err)
	from, to := WarmHalf()
	assert.InDelta(t, 180, colour.Turn(to-from), 1e-9)
	assert.Equal(t, "orange", colour.HueWord(colour.Turn(from+90)), "orange is in the middle of it")
}

func TestRelativeLeanInsideAFamily(t *testing.T) {
	box := painttest.Paints("PB29", "PB28", "PB15:3", "PR254", "PR122", "PY74", "PG7", "PBk7", "PY43")
	want := map[string]string{
		"PB29":   "the most violet of your three blues",
		"PB28":   "between the others of your three blues",
		"PB15:3": "the most green of your three blues",
		"PR254":  "the more orange of your two reds",
		"PR122":  "the more violet of your two reds",
		"PY74":   "", "PG7": "", "PBk7": "", "PY43": "",
	}
	for _, p := range box {
		assert.Equal(t, want[p.ID], Relative(p, box), p.ID)
	}
	twins := painttest.Paints("PB29", "PB29")
	second, err := twins[1].Tube("tube-2", 0.5)
	require.NoError(t, err)
	assert.Empty(t, Relative(twins[0], []*paint.Paint{twins[0], second}), "alike is not more")
}

// Two paints are as like another up to a degree of lean.
func TestRelativeLeanNeedsMoreThanADegree(t *testing.T) {
	var alike, near int
	for _, p := range paint.Library() {
		for _, q := range paint.Library() {
			a, okA := LeanIn(p, "")
			b, okB := LeanIn(q, "")
			if p == q || !okA || !okB || RoleOf(FamilyOf(p)) == "" || RoleOf(FamilyOf(p)) != RoleOf(FamilyOf(q)) {
				continue
			}
			switch off := math.Abs(a.Degrees - b.Degrees); {
			case off <= 1:
				alike++
				assert.Empty(t, Relative(p, []*paint.Paint{p, q}), "%s beside %s", p.ID, q.ID)
			case off < 3:
				near++
				assert.Contains(t, Relative(p, []*paint.Paint{p, q}), "the more ", "%s beside %s", p.ID, q.ID)
			}
		}
	}
	assert.Positive(t, alike)
	assert.Positive(t, near)
}

func TestAnArcIsThirtyDegreesToEitherSideAtLeast(t *testing.T) {
	for id, want := range map[string]float64{"PY74": 30, "PB29": 30, "PR122": 30} {
		arcs := Arcs(painttest.Paints(id))
		require.Len(t, arcs, 1, id)
		assert.Equal(t, want, arcs[0].Span, id)
	}
}

func TestArcsHoldEveryHuedPaintOnceWithinTheirSpan(t *testing.T) {
	seen := map[string]int{}
	for _, a := range Arcs(paint.Library()) {
		assert.NotEmpty(t, a.Lower)
		assert.NotEmpty(t, a.Higher)
		last := -a.Span
		for _, p := range a.Places {
			seen[p.Paint.ID]++
			assert.LessOrEqual(t, p.Lean.Degrees, a.Span, p.Paint.ID)
			assert.GreaterOrEqual(t, p.Lean.Degrees, last, "by rising hue")
			last = p.Lean.Degrees
		}
	}
	for _, p := range paint.Library() {
		_, leans := LeanIn(p, "")
		want := 0
		if leans {
			want = 1
		}
		assert.Equal(t, want, seen[p.ID], p.ID)
	}
	assert.Empty(t, Arcs(nil))
}

func TestInHueOrderKeepsFamiliesTogether(t *testing.T) {
	box := painttest.Paints("PW6", "PBk7", "PB29", "PY43", "PG7", "PY184", "PR254", "PY65", "PR122")
	InHueOrder(box)
	var ids []string
	for _, p := range box {
		ids = append(ids, p.ID)
	}
	assert.Equal(t, "PY184 PY65 PR254 PR122 PB29 PG7 PY43 PW6 PBk7", strings.Join(ids, " "))
}

func TestDifferencesSayWhatAPainterWouldSee(t *testing.T) {
	said := func(a, b string) string {
		p := painttest.Paints(a, b)
		return strings.Join(Differences(p[0], p[1]), " ")
	}
	blues := said("PB29", "PB15:3")
	assert.Contains(t, blues, "31 degrees nearer to green")
	assert.Contains(t, blues, "stronger than the ultramarine blue by two classes")
	yellows := said("PY184", "PY65")
	assert.Contains(t, yellows, "nearer to orange")
	assert.Contains(t, yellows, "half opaque")
	assert.Contains(t, said("PBk7", "PB29"), "The carbon black has no hue to speak of.")
	assert.Equal(t, "No difference a painter would see: one will do.", said("PB29", "PB29"))
	half, err := painttest.Paints("PB29")[0].Tube("x", 0.8)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(Differences(painttest.Paints("PB29")[0], half), " "), "on the left is 1.2 times as strong")
}

func TestPrintSentenceNamesTheThirds(t *testing.T) {
	say := func(id string) string {
		m := painttest.Paints(id)[0].Alone()
		return PrintSentence(&m)
	}
	assert.Equal(t, "Of the three thirds of the light it takes blue most, hardly touches the green, and leaves the red alone, so there is no grey in it.", say("PY184"))
	assert.Contains(t, say("PG18"), "takes 41 % as much of the green too, which greys it strongly")
	for id, grey := range map[string]bool{"PBr7-raw-umber": true, "PG23": true, "blue-grey": false, "PG17": false, "PY43": false} {
		assert.Equal(t, grey, strings.HasSuffix(say(id), "It is nearly grey, so the hue error says little of it."), id)
	}
	assert.Empty(t, say("PBk7"))
	assert.Empty(t, say("PW6"))
}
