package wire

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func TestAGuessIsScoredAgainstWhatThePageShows(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	for _, ids := range [][2]string{{"PY74", "PB15:3"}, {"PR255", "PB29"}, {"PB29", "PY65"}, {"PY184", "PR122"}} {
		couple := painttest.Paints(ids[0], ids[1])
		shown, err := pair(v, couple[0], couple[1], 3, path.ByHue)
		require.NoError(t, err)
		said := journal.Expected{HueWord: "green", Verdict: shown.Verdict}
		got, key, err := journal.ScorePair(couple[0], couple[1], path.ByHue, said, certainty.Usual)
		require.NoError(t, err)
		assert.Equal(t, shown.Key, key)
		assert.Equal(t, shown.Verdict, got.Verdict)
		assert.Equal(t, shown.Middle.HueWord, got.HueWord)
		assert.Equal(t, shown.Retention, got.Retention)
		assert.Equal(t, len(shown.MudZones) == 0, got.Mud.Nowhere, ids)
		assert.True(t, got.VerdictRight)

		if !slices.Contains(colour.HueWords(), got.HueWord) {
			continue // what comes has no hue
		}
		right := journal.Expected{HueWord: got.HueWord, Verdict: got.Verdict, Mud: got.Mud}
		all, _, err := journal.ScorePair(couple[0], couple[1], path.ByHue, right, certainty.Usual)
		require.NoError(t, err)
		assert.Equal(t, journal.MaxGuessPoints, all.Points, "who says what comes is right in everything")
	}
	for says, e := range map[string]journal.Expected{
		"no hue of the wheel": {HueWord: "teal", Verdict: "clean"},
		"no verdict":          {HueWord: "green", Verdict: "neutral"},
		"from 0 to 1":         {HueWord: "green", Verdict: "clean", Mud: journal.MudStart{At: 1.5}},
	} {
		couple := painttest.Paints("PY74", "PB29")
		_, _, err := journal.ScorePair(couple[0], couple[1], path.ByHue, e, certainty.Usual)
		require.ErrorAs(t, err, new(input.Error))
		assert.ErrorContains(t, err, says)
	}
	couple := painttest.Paints("PW6", "PBk9")
	_, _, err := journal.ScorePair(couple[0], couple[1], path.ByHue, journal.Expected{HueWord: "green", Verdict: "clean"}, certainty.Usual)
	assert.ErrorContains(t, err, "no hue between them")
}

func TestACoveredPairTellsNothingOfWhatItHides(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	couple := painttest.Paints("PR255", "PB29")
	text, err := json.Marshal(v.CoveredPair(couple[0], couple[1], bias.VioletIsWarm))
	require.NoError(t, err)
	for _, tells := range []string{"retention", "verdict", "because", "band", "outcome", "mud", "softened", "computed"} {
		assert.NotContains(t, string(text), tells)
	}
	said := journal.Expected{HueWord: "violet", Verdict: "muddy", Mud: journal.MudStart{At: 0.3}}
	outcome, _, err := journal.ScorePair(couple[0], couple[1], path.ByHue, said, certainty.Usual)
	require.NoError(t, err)
	lifted := v.GuessedPair(couple[0], couple[1], bias.VioletIsWarm, path.ByHue, said, outcome)
	assert.Equal(t, ExpectedOf(said), *lifted.Said)
	assert.NotEmpty(t, lifted.Band)
	assert.Contains(t, lifted.Because, "Softened")
	assert.Equal(t, v.CoveredPair(couple[0], couple[1], bias.VioletIsWarm).A, lifted.A)
}

func TestWhatIsSaidOfAPairDoesNotDependOnHowItIsLookedAt(t *testing.T) {
	couple := painttest.Paints("PR255", "PB29")
	daylight, err := pair(view(t, "acrylic", "D65", "dry"), couple[0], couple[1], 3, path.ByHue)
	require.NoError(t, err)
	for _, look := range [][3]string{{"oil", "A", "wet"}, {"watercolour", "D50", "dry"}, {"gouache", "D65", "wet"}} {
		other, err := pair(view(t, look[0], look[1], look[2]), couple[0], couple[1], 3, path.ByHue)
		require.NoError(t, err)
		assert.Equal(t, daylight.Key, other.Key, look)
		assert.Equal(t, daylight.Retention, other.Retention, look)
		assert.Equal(t, daylight.Verdict, other.Verdict, look)
		assert.Equal(t, daylight.Because, other.Because, look)
		assert.Equal(t, len(daylight.MudZones), len(other.MudZones), look)
		assert.NotEqual(t, daylight.Middle.AsPainted, other.Middle.AsPainted, "only its looks")
	}
}
