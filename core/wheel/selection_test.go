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
