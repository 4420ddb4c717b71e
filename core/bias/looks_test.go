package bias

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Each paint of the library is found by its own look, among those that fit all three answers.
func TestAPaintIsFoundByItsLook(t *testing.T) {
	for _, p := range paint.Library() {
		look := Look{Family: p.Family, Hiding: p.Hiding}
		if lean, ok := LeanIn(p, ""); ok {
			look.Toward = lean.Toward
		}
		got, err := Looking(look)
		require.NoError(t, err, p.ID)
		fits, there := got[0].Fits, false
		for _, one := range got {
			assert.LessOrEqual(t, one.Fits, fits)
			assert.Equal(t, p.Family, one.Paint.Family)
			there = there || one.Paint == p && one.Fits == one.Of
		}
		assert.Equal(t, got[0].Of, fits, p.ID)
		if len(got) < lookedFor {
			assert.True(t, there, p.ID)
		}
	}
}

func TestLooksAreChecked(t *testing.T) {
	for _, wrong := range []Look{{}, {Family: "plaid"}, {Family: "red", Hiding: "glittering"}, {Family: "red", Toward: "green"}} {
		_, err := Looking(wrong)
		assert.ErrorAs(t, err, new(input.Error), "%+v", wrong)
	}
	some, err := Looking(Look{Family: "blue"})
	require.NoError(t, err)
	assert.NotEmpty(t, some)
	assert.Contains(t, Leanings("blue"), "violet")
	assert.Contains(t, Families(), "earth")
}
