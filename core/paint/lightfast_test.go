package paint_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
)

// Every library paint has a rating that says the same as its word, and a reason.
func TestLightfastnessOfTheLibrary(t *testing.T) {
	words := map[string]string{"I": "excellent", "II": "good", "III": "fair", "IV": "poor"}
	for _, p := range paint.Library() {
		l := p.Lightfastness()
		assert.Equal(t, p.Lightfast, words[l.Rating], p.ID)
		assert.NotEmpty(t, l.Reason, p.ID)
		assert.Equal(t, p.Lightfast == "excellent" || p.Lightfast == "good", p.Lasting(), p.ID)
	}
	tube, err := painttest.Paint("PR83").Tube("tube-3", 1.5)
	require.NoError(t, err)
	assert.Equal(t, "IV", tube.Lightfastness().Rating, "a tube is what its paint is")
	label := paint.Own("mussel", "mussel", painttest.Paint("PB29").Alone(), nil, paint.FromALabel)
	assert.Empty(t, label.Lightfastness(), "nothing is known of it")
	label.CI = "PB29, PR83"
	assert.Equal(t, "IV", label.Lightfastness().Rating, "the worst of its pigments")
	label.CI = "PB29, PR999"
	assert.Empty(t, label.Lightfastness())
}
