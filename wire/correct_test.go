package wire

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

func correct(v View, have, want []paint.Part) (Correction, error) {
	c, err := path.Correct(have, want)
	if err != nil {
		return Correction{}, err
	}
	there, err := paint.NewPile(have)
	if err != nil {
		return Correction{}, err
	}
	wanted, err := paint.NewPile(want)
	return v.Correction(there, wanted, c), err
}

func TestCorrectionsAreAdvised(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	for name, c := range map[string]struct {
		have, want []string
		advice     string
		says       string
	}{
		"too blue":              {[]string{"PY74=5", "PB15:3=2"}, []string{"PY74=8", "PB15:3=1"}, "", "of the arylide yellow"},
		"right":                 {[]string{"PY74=16", "PB15:3=2"}, []string{"PY74=8", "PB15:3=1"}, "leave it", "near enough"},
		"red cannot be had out": {[]string{"PY74=4", "PR254=4"}, []string{"PY74=8", "PB15:3=1"}, "start over", "Whatever is added, up to 40 times the pile"},
		"far too much blue":     {[]string{"PY74=1", "PB15:3=6"}, []string{"PY74=20", "PB15:3=1"}, "start over", "are thrown away"},
		"a little more":         {[]string{"PY74=4", "PR254=1"}, []string{"PY74=8", "PR254=2", "PW6=6"}, "add", "Add "},
	} {
		t.Run(name, func(t *testing.T) {
			got, err := correct(v, parts(t, c.have...), parts(t, c.want...))
			require.NoError(t, err)
			if c.advice != "" {
				assert.Equal(t, c.advice, got.Advice, got.Says)
			}
			assert.Contains(t, got.Says, c.says)
			again, err := mix(v, parts(t, c.have...))
			require.NoError(t, err)
			assert.Equal(t, again.Colours, got.Have.Colours)
			if got.Advice == "leave it" {
				assert.Empty(t, got.Add)
				assert.Equal(t, got.Have.Colours, got.Pile.Colours)
			}
		})
	}
}

func TestAMixtureShowsItsTintAndWash(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := mix(v, parts(t, "PB29=1", "PR122=2"))
	require.NoError(t, err)
	let, err := mix(v, parts(t, "PB29=1", "PR122=2", "PW6=27"))
	require.NoError(t, err)
	assert.Equal(t, let.Masstone.SRGB, m.Tint.SRGB, "1 in 9 of white")
	assert.NotEqual(t, m.Tint, m.Wash)
	assert.Contains(t, m.Words, "violet")
}
