package colour

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Things that everybody has the same word for, as colours of a screen.
func TestColoursHaveThePaintersNames(t *testing.T) {
	for _, c := range []struct{ of, hex, want string }{
		{"chocolate bar", "#5a3a22", "dark brown"},
		{"saddle", "#8b4513", "brown"},
		{"walnut", "#5c4033", "dark brown"},
		{"chestnut", "#7b3f24", "brown"},
		{"milky coffee", "#a67b5b", "light brown"},
		{"burnt umber", "#4a2f22", "dark brown"},
		{"green olive", "#808000", "olive"},
		{"olive drab", "#6b6b2a", "olive"},
		{"dark olive", "#4b4a1e", "dark olive"},
		{"dry moss", "#8a8f4a", "olive"},
		{"khaki drill", "#7d7447", "olive"},
		{"ochre wall", "#c68a2c", "ochre"},
		{"mustard", "#c9a227", "light ochre"},
		{"sandstone", "#b8863b", "ochre"},
		{"raw sienna", "#b5742d", "ochre"},
		{"baby pink", "#f4c2c2", "light pink"},
		{"hot pink", "#ff69b4", "pink"},
		{"rose petal", "#e8909c", "pink"},
		{"salmon flesh", "#e9967a", "pink"},
		{"shell pink", "#f7d4d4", "light pink"},
		{"navy cloth", "#1b2a49", "navy"},
		{"midnight", "#191970", "navy"},
		{"ink", "#1c2340", "navy"},
		{"maroon cloth", "#701c2a", "maroon"},
		{"oxblood", "#4a0c14", "dark maroon"},
		{"burgundy", "#6b1630", "maroon"},
		{"garnet", "#7a1128", "maroon"},
		{"teal glaze", "#008080", "teal"},
		{"deep teal", "#0a4a4c", "dark teal"},
		{"petrol", "#1f6b75", "teal"},
		{"cream", "#f7ecc8", "cream"},
		{"old ivory", "#f2e6c0", "cream"},
		{"custard", "#fdf0c4", "cream"},
		{"buff paper", "#dcc39a", "buff"},
		{"sand", "#d9c08c", "buff"},
		{"parchment", "#e3cfa4", "buff"},
		{"carmine", "#c8102e", "red"},
		{"pumpkin", "#f08a1d", "orange"},
		{"lemon", "#fbe232", "yellow"},
		{"grass", "#3f9a35", "green"},
		{"cornflower", "#2f6fc4", "blue"},
		{"aubergine flower", "#7b3fa0", "violet"},
	} {
		x, err := ParseHex(c.hex)
		require.NoError(t, err)
		o := x.OKLab()
		if got := o.Words(); c.want != got && (o.Name() != "" || !strings.HasSuffix(got, c.want)) {
			lch := o.OKLCh()
			assert.Equal(t, c.want, got, "%s: L %.2f C %.3f w %.0f", c.of, lch.L, lch.C, WheelHue(lch.H))
		}
	}
}

// No name of a colour is out of reach behind another.
func TestEveryNameIsUsed(t *testing.T) {
	used := map[string]bool{}
	for l := 0.02; l < 1; l += 0.02 {
		for c := 0.03; c < 0.3; c += 0.01 {
			for h := 0.0; h < 360; h += 4 {
				name := OKLCh{l, c, h}.OKLab().Name()
				used[name[strings.LastIndex(name, " ")+1:]] = true
			}
		}
	}
	for _, r := range regions {
		assert.True(t, used[r.name], r.name)
	}
}
