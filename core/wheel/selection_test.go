package wheel

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

func TestPaintsArePartedIntoRoles(t *testing.T) {
	for text, want := range map[string][3][]string{
		"PY74 PR254 PB29":                  {{"PY74"}, {"PR254"}, {"PB29"}},
		"PY184 PY65 PR255 PR122 PB29 PB60": {{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB60"}},
		"PY74 PY43 PR254 PB29":             {{"PY74", "PY43"}, {"PR254"}, {"PB29"}},
		"PY74 / PR254 PR122 / PB29":        {{"PY74"}, {"PR254", "PR122"}, {"PB29"}},
		"PY74 // PB29":                     {{"PY74"}, {}, {"PB29"}},
	} {
		got, err := ParseRoles(strings.Fields(text))
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
}

func TestASystemIsFilledFromTheBoxFirst(t *testing.T) {
	known, err := paint.Find("PB60")
	require.NoError(t, err)
	own, err := known.Tube("tube-9", 1)
	require.NoError(t, err)
	for _, kind := range Kinds {
		got, err := Filled(string(kind), []Candidate{{Paint: own, InBox: true}})
		require.NoError(t, err)
		assert.Contains(t, got.Roles[2], "tube-9", kind)
		inBox := func(ref string) (*paint.Paint, error) {
			if ref == own.ID {
				return own, nil
			}
			return paint.Find(ref)
		}
		_, err = got.System(inBox)
		assert.NoError(t, err, "what was filled is sound")
	}
	_, err = Filled("quartet", nil)
	assert.ErrorAs(t, err, new(input.Error))
}

func TestPaintsOfASelectionTakeThePlacesOfOthers(t *testing.T) {
	before := Selection{Kind: Split, Roles: [3][]string{{"PY3", "PY65"}, {"PR254"}, {"PB29"}}, Chosen: [3][]string{{}, {"PR254", "PB29"}, {}}, Riders: RiderIDs{White: "PW6"}, Note: "kept"}
	after := before.With(func(id string) string {
		if id == "PB29" {
			return "tube-4"
		}
		return id
	})
	assert.Equal(t, [3][]string{{"PY3", "PY65"}, {"PR254"}, {"tube-4"}}, after.Roles)
	assert.Equal(t, []string{"PR254", "tube-4"}, after.Chosen[1])
	assert.Equal(t, RiderIDs{White: "PW6"}, after.Riders, "who is not there stays away")
	assert.Equal(t, "kept", after.Note)
	assert.Equal(t, "PB29", before.Roles[2][0], "the one it is made from is as it was")
}

func TestAJumpIsOverTheMedianAndSeen(t *testing.T) {
	for _, c := range []struct {
		distances    []float64
		median, from float64
	}{
		{[]float64{0.1}, 0.1, 0.16}, {[]float64{0.3, 0.1, 0.2}, 0.2, 0.32}, {[]float64{0.1, 0.4, 0.2, 0.3}, 0.25, 0.4}, {[]float64{0.01, 0.02, 0.01}, 0.01, 0.06},
	} {
		median, from := JumpsFrom(c.distances)
		assert.InDelta(t, c.median, median, 1e-9)
		assert.InDelta(t, c.from, from, 1e-9, "%v", c.distances)
	}
}
