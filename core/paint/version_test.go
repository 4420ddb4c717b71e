package paint

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
)

// A strength in another version of the library is that whose tint is as light: there and back it is what
// it was.
func TestAStrengthIsWhatItWasThereAndBack(t *testing.T) {
	for _, p := range Library() {
		if p.Family == "white" {
			continue
		}
		for _, g := range []float64{0.5, 1, 1.8} {
			is, off, err := StrengthIn(p.ID, "2026.3", LibraryVersion(), g)
			require.NoError(t, err)
			assert.Less(t, off, 4.0, "%s: its hue alone is another", p.ID)
			back, _, err := StrengthIn(p.ID, LibraryVersion(), "2026.3", is)
			require.NoError(t, err)
			assert.InEpsilon(t, g, back, 0.1, "%s at %v", p.ID, g)
			same, none, err := StrengthIn(p.ID, LibraryVersion(), LibraryVersion(), g)
			require.NoError(t, err)
			assert.InEpsilon(t, g, same, 1e-3, p.ID)
			assert.Less(t, none, 0.01)
		}
	}
	_, _, err := StrengthIn("PX999", "2026.3", "2026.4", 1)
	assert.ErrorAs(t, err, new(input.Error))
	_, _, err = StrengthIn("PB29", "2026.3", "2026.4", 0)
	assert.ErrorAs(t, err, new(input.Error))
}

func TestATubeComesToAnotherVersionAsStrongAsItIs(t *testing.T) {
	tube, err := find(t, "PB29").Tube("tube-1", 0.9)
	require.NoError(t, err)
	then, err := tube.As("2026.3")
	require.NoError(t, err)
	assert.Equal(t, "tube-1", then.ID)
	assert.Equal(t, "2026.3", then.Version)
	want, _, err := StrengthIn("PB29", LibraryVersion(), "2026.3", 0.9)
	require.NoError(t, err)
	assert.InDelta(t, want, then.Strength(), 1e-9)
	for _, same := range []string{"", LibraryVersion()} {
		is, err := tube.As(same)
		require.NoError(t, err)
		assert.Same(t, tube, is)
	}
	own := Own("x", "mine", tube.Alone(), nil, TwoSwatch)
	is, err := own.As("2026.3")
	require.NoError(t, err)
	assert.Same(t, own, is, "curves of its own know no version")
}
