package exchange

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/path"
)

func TestAGuessIsScoredAgainstWhatThePageShows(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	for _, pair := range [][2]string{{"PY74", "PB15:3"}, {"PR255", "PB29"}, {"PB29", "PY65"}, {"PY184", "PR122"}} {
		couple := hand(t, pair[0], pair[1])
		shown, err := v.Pair(couple[0], couple[1], 3, path.ByHue)
		require.NoError(t, err)
		said := Expected{HueWord: "green", Verdict: shown.Verdict}
		got, key, err := ScorePair(couple[0], couple[1], path.ByHue, said)
		require.NoError(t, err)
		assert.Equal(t, shown.Key, key)
		assert.Equal(t, shown.Verdict, got.Came)
		assert.Equal(t, shown.Middle.HueWord, got.Computed)
		assert.Equal(t, shown.Retention, got.Retention)
		assert.Equal(t, len(shown.MudZones) == 0, got.MudCame.Nowhere, pair)
		assert.True(t, got.VerdictRight)

		right := Expected{HueWord: got.Computed, Verdict: got.Came, Mud: got.MudCame}
		all, _, err := ScorePair(couple[0], couple[1], path.ByHue, right)
		require.NoError(t, err)
		assert.Equal(t, MostOfGuess, all.Points, "who says what comes is right in everything")
	}
	for says, e := range map[string]Expected{
		"no hue of the wheel": {HueWord: "teal", Verdict: "clean"},
		"no verdict":          {HueWord: "green", Verdict: "neutral"},
		"from 0 to 1":         {HueWord: "green", Verdict: "clean", Mud: MudStart{At: 1.5}},
	} {
		couple := hand(t, "PY74", "PB29")
		_, _, err := ScorePair(couple[0], couple[1], path.ByHue, e)
		require.ErrorAs(t, err, new(BadInput))
		assert.ErrorContains(t, err, says)
	}
	couple := hand(t, "PW6", "PBk9")
	_, _, err := ScorePair(couple[0], couple[1], path.ByHue, Expected{HueWord: "green", Verdict: "clean"})
	assert.ErrorContains(t, err, "no hue between them")
}

func TestACoveredPairTellsNothingOfWhatItHides(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	couple := hand(t, "PR255", "PB29")
	text, err := json.Marshal(v.Asked(couple[0], couple[1], bias.VioletIsWarm))
	require.NoError(t, err)
	for _, tells := range []string{"retention", "verdict", "because", "band", "outcome", "mud", "softened", "computed"} {
		assert.NotContains(t, string(text), tells)
	}
	said := Expected{HueWord: "violet", Verdict: "muddy", Mud: MudStart{At: 0.3}}
	outcome, _, err := ScorePair(couple[0], couple[1], path.ByHue, said)
	require.NoError(t, err)
	lifted := v.Lifted(couple[0], couple[1], bias.VioletIsWarm, path.ByHue, said, outcome)
	assert.Equal(t, said, *lifted.Said)
	assert.NotEmpty(t, lifted.Band)
	assert.Contains(t, lifted.Because, "Softened")
	assert.Equal(t, v.Asked(couple[0], couple[1], bias.VioletIsWarm).A, lifted.A)
}

func TestWhatIsSaidOfAPairDoesNotDependOnHowItIsLookedAt(t *testing.T) {
	couple := hand(t, "PR255", "PB29")
	daylight, err := view(t, "acrylic", "D65", "dry").Pair(couple[0], couple[1], 3, path.ByHue)
	require.NoError(t, err)
	for _, look := range [][3]string{{"oil", "A", "wet"}, {"watercolour", "D50", "dry"}, {"gouache", "D65", "wet"}} {
		other, err := view(t, look[0], look[1], look[2]).Pair(couple[0], couple[1], 3, path.ByHue)
		require.NoError(t, err)
		assert.Equal(t, daylight.Key, other.Key, look)
		assert.Equal(t, daylight.Retention, other.Retention, look)
		assert.Equal(t, daylight.Verdict, other.Verdict, look)
		assert.Equal(t, daylight.Because, other.Because, look)
		assert.Equal(t, len(daylight.MudZones), len(other.MudZones), look)
		assert.NotEqual(t, daylight.Middle.AsPainted, other.Middle.AsPainted, "only its looks")
	}
}

func TestTheDemoStudiosGuessesAreWholeRounds(t *testing.T) {
	said, err := DemoGuesses()
	require.NoError(t, err)
	days := map[int]int{}
	for _, g := range said {
		days[g.DaysAgo]++
		couple := hand(t, g.A, g.B)
		_, _, err := ScorePair(couple[0], couple[1], path.ByHue, g.Said)
		assert.NoError(t, err, "%s with %s", g.A, g.B)
	}
	for day, n := range days {
		assert.Equal(t, 10, n, "%d days ago", day)
	}
}
