package wheel

import (
	"fmt"
	"slices"
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
		assert.Contains(t, got.Own.Roles[2], "tube-9", kind)
		assert.Equal(t, []string{"tube-9"}, slices.Concat(got.Own.Roles[:]...), "nothing is taken that is not in the box")
		assert.NotEmpty(t, got.Missing, "it is said what is missing")
		assert.Len(t, slices.Concat(got.Whole.Roles[:]...), 1+len(got.Missing))
		inBox := func(ref string) (*paint.Paint, error) {
			if ref == own.ID {
				return own, nil
			}
			return paint.Find(ref)
		}
		_, err = got.Whole.System(inBox)
		assert.NoError(t, err, "what was filled is sound")
	}
	_, err = Filled("quartet", nil)
	assert.ErrorAs(t, err, new(input.Error))
}

// The tubes of a box make a wheel by themselves: six that lean split primaries, others a triad; a black is
// the blue of a limited palette.
func TestTheTubesOfABoxMakeAWheel(t *testing.T) {
	box := func(ids ...string) (out []Candidate) {
		for i, id := range ids {
			p, err := paint.Find(id)
			require.NoError(t, err)
			tube, err := p.Tube(fmt.Sprintf("tube-%d", i), 1)
			require.NoError(t, err)
			out = append(out, Candidate{Paint: tube, InBox: true})
		}
		return out
	}
	six := OfBox(box("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3", "PW6"))
	assert.Equal(t, Split, six.Own.Kind)
	assert.Empty(t, six.Missing)
	three := OfBox(box("PY3", "PV19", "PB29"))
	assert.Equal(t, RYB, three.Own.Kind)
	assert.Equal(t, [3][]string{{"tube-0"}, {"tube-1"}, {"tube-2"}}, three.Own.Roles)
	assert.Empty(t, three.Missing)
	limited := OfBox(box("PY43", "PR254", "PBk9"))
	assert.Equal(t, [3][]string{{"tube-0"}, {"tube-1"}, {"tube-2"}}, limited.Own.Roles)
	two := OfBox(box("PY3", "PB29"))
	require.Len(t, two.Missing, 1)
	assert.Equal(t, "red", string(two.Missing[0].Role))
	assert.NotNil(t, two.Missing[0].Would)
	assert.Regexp(t, `^Your box is without a red \(an? .* would do\)\.$`, two.Says())
	assert.Empty(t, three.Says())
	split, err := Filled("split", box("PY3", "PV19", "PB29"))
	require.NoError(t, err)
	assert.Contains(t, split.Says(), "another yellow (an ")
	assert.Len(t, OfBox(nil).Missing, 3)
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
