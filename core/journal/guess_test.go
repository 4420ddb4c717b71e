package journal

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

func TestAGuessIsScoredForTheStartOfTheMudToo(t *testing.T) {
	green := paint.Undertone{Chroma: 0.1, WheelHue: 182, Verdict: paint.Softened}
	for _, c := range []struct {
		nowhere bool
		at      float64
		came    MudStart
		points  int
	}{
		{true, 0, MudStart{Nowhere: true}, 6},
		{true, 0.7, MudStart{Nowhere: true}, 6}, // a place that is not meant
		{true, 0, MudStart{At: 0.1}, 4},
		{false, 0.1, MudStart{Nowhere: true}, 4},
		{false, 0.4, MudStart{At: 0.5}, 6},
		{false, 0.4, MudStart{At: 0.524}, 6},
		{false, 0.4, MudStart{At: 0.526}, 5},
		{false, 0.4, MudStart{At: 0.649}, 5},
		{false, 0.4, MudStart{At: 0.651}, 4},
		{false, 0.4, MudStart{At: 0.7}, 4},
	} {
		g, err := ParseGuess("green", "softened", c.nowhere, c.at)
		require.NoError(t, err)
		assert.Equal(t, c.points, g.Against(green, c.came, Open{}).Points, c)
	}
	// What may go either way does not count against it.
	g, err := ParseGuess("green", "clean", true, 0)
	require.NoError(t, err)
	open := Open{Could: []paint.Verdict{paint.Clean, paint.Softened}, Mud: certainty.Edge{Low: 0.3, High: 0.9}}
	assert.Equal(t, 6, g.Against(green, MudStart{Nowhere: true}, open).Points)
	assert.Equal(t, 3, g.Against(green, MudStart{Nowhere: false, At: 0.5}, Open{}).Points)
	g, err = ParseGuess("green", "softened", false, 0.85)
	require.NoError(t, err)
	assert.True(t, g.Against(green, MudStart{At: 0.5}, open).MudRight, "within the stretch where it begins")
	open.Could = []paint.Verdict{paint.Softened, paint.Muddy}
	assert.True(t, g.Against(green, MudStart{Nowhere: true}, open).MudRight, "mud or none")
	for _, at := range []float64{-0.1, 1.1, math.NaN(), math.Inf(1)} {
		_, err := ParseGuess("green", "softened", false, at)
		assert.ErrorContains(t, err, "from 0 to 1", at)
	}
	_, err = ParseGuess("teal", "softened", true, 0)
	assert.Error(t, err)
}

func TestMudStartsWhereThePathTurnsMuddy(t *testing.T) {
	// A dull red with a green-leaning blue is muddy along the middle.
	p := path.New(painttest.Paint("PR101"), painttest.Paint("PB15:3"))
	require.NotEmpty(t, p.Mud())
	for _, s := range []path.Spacing{path.ByHue, path.ByContrast, path.EqualParts} {
		got := StartOfMud(p, s)
		require.False(t, got.Nowhere)
		at := p.At(p.ShareAt(got.At, s) + 1e-9)
		assert.Equal(t, paint.Muddy, at.Undertone().Verdict, s)
	}
	assert.Equal(t, MudStart{Nowhere: true}, StartOfMud(path.New(painttest.Paint("PY74"), painttest.Paint("PB15:3")), path.ByHue))
}

func TestAKeyNamesTwoPaintsAsTheyStand(t *testing.T) {
	a, b := painttest.Paint("PY74"), painttest.Paint("PB15:3")
	assert.Equal(t, PairKey(a, b, path.ByHue), PairKey(b, a, path.ByHue))
	assert.NotEqual(t, PairKey(a, b, path.ByHue), PairKey(a, b, path.ByContrast))
	weak, err := a.Tube("PY74", 0.5)
	require.NoError(t, err)
	assert.NotEqual(t, PairKey(a, b, path.ByHue), PairKey(weak, b, path.ByHue), "of another strength it is another paint")
}

func TestPracticeDrawsWhereGuessesWereWrong(t *testing.T) {
	sections := []Drawable{
		{40, Record{60, 60}}, // the eye is right here
		{40, Record{10, 60}}, // and wrong here
		{40, Record{}},       // and has not been tried here
		{0, Record{0, 60}},   // nothing to draw
	}
	random := rand.New(rand.NewPCG(7, 7))
	var times [4]int
	for range 400 {
		round := Draw(sections, RoundLength, random)
		require.Len(t, round, RoundLength)
		seen := map[DrawnPairing]bool{}
		for _, d := range round {
			assert.False(t, seen[d], "none twice")
			seen[d] = true
			require.Less(t, d.Pairing, sections[d.Section].Pairings)
			times[d.Section]++
		}
	}
	assert.Greater(t, times[1], times[2])
	assert.Greater(t, times[2], times[0])
	assert.Positive(t, times[0], "what is known is not left out for good")
	assert.InDelta(t, sections[1].Weight()/sections[0].Weight(), float64(times[1])/float64(times[0]), 0.4)

	assert.Len(t, Draw([]Drawable{{Pairings: 2}, {Pairings: 1}}, RoundLength, random), 3, "all there are")
	assert.Empty(t, Draw(nil, RoundLength, random))
	assert.Equal(t, Draw(sections, 5, rand.New(rand.NewPCG(1, 2))), Draw(sections, 5, rand.New(rand.NewPCG(1, 2))), "by the source alone")
}

func TestARoundComesFromTheBox(t *testing.T) {
	ids := func(round []path.Couple) (out []string) {
		for _, c := range round {
			out = append(out, c.A.ID+" "+c.B.ID)
		}
		return out
	}
	box := func(ids ...string) (out []*paint.Paint) {
		for _, id := range ids {
			out = append(out, painttest.Paint(id))
		}
		return out
	}
	random := rand.New(rand.NewPCG(3, 4))
	many := box("PY74", "PY65", "PR254", "PR122", "PB29", "PB15:3", "PW6", "PBk9", "PG7")
	round, err := Practice(many, nil, random)
	require.NoError(t, err)
	require.Len(t, round, RoundLength)
	for _, c := range round {
		assert.NotEqual(t, c.RoleA, c.RoleB, "from the sections, while they have enough: %s %s", c.A.ID, c.B.ID)
	}

	// Twelve pairings stand in the sections: what is known by heart is drawn less.
	wrong := map[string]int{}
	for range 200 {
		round, err := Practice(many, map[string]Record{"green": {60, 60}, "orange": {60, 60}, "violet": {0, 60}}, random)
		require.NoError(t, err)
		for _, c := range round[:3] {
			wrong[wheel.SectionOf(c.A, c.B)]++
		}
	}
	assert.Greater(t, wrong["violet"], wrong["green"]+wrong["orange"])

	few, err := Practice(box("PY74", "PR254", "PB29", "PW6", "PBk9"), nil, random)
	require.NoError(t, err)
	assert.Len(t, few, 6, "all of the ten but those with black")
	assert.NotContains(t, ids(few), "PW6 PBk9")
	assert.NotContains(t, ids(few), "PBk9 PW6")
	_, err = Practice(box("PY74", "PR254", "PW6"), nil, random)
	require.NoError(t, err, "three pairings are worth a round")
	_, err = Practice(box("PY74", "PW6"), nil, random)
	assert.ErrorContains(t, err, "the paints of your box make 1: add paints")
	_, err = Practice(nil, nil, random)
	assert.ErrorContains(t, err, "make 0")
}

func TestWhatCanBePredicted(t *testing.T) {
	same, err := painttest.Paint("PY74").Tube("again", 1)
	require.NoError(t, err)
	for _, c := range []struct {
		a, b *paint.Paint
		can  bool
	}{
		{painttest.Paint("PY74"), painttest.Paint("PB29"), true},
		{painttest.Paint("PW6"), painttest.Paint("PB29"), true},
		{painttest.Paint("PW6"), painttest.Paint("PBk9"), false},  // no hue between them
		{painttest.Paint("PY74"), painttest.Paint("PBk9"), false}, // a shade
		{painttest.Paint("PY74"), same, false},                    // no different
	} {
		assert.Equal(t, c.can, Predictable(path.New(c.a, c.b)), "%s with %s", c.a.ID, c.b.ID)
	}
}

func TestAKeyIsFoundAgainUnderOtherIDs(t *testing.T) {
	yellow, err := paint.Find("PY74")
	require.NoError(t, err)
	blue, err := paint.Find("PB29")
	require.NoError(t, err)
	was, err := blue.Tube("tube-7", 1.5)
	require.NoError(t, err)
	is, err := blue.Tube("tube-41", 1.5)
	require.NoError(t, err)
	named := func(id string) string {
		if id == "tube-7" {
			return "tube-41"
		}
		return id
	}
	assert.Equal(t, PairKey(is, yellow, path.ByHue), PairKeyWith(PairKey(yellow, was, path.ByHue), named))
	assert.Equal(t, "no key", PairKeyWith("no key", named))
}
