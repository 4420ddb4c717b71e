package wheel

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
)

// A wheel says first which hues it has none of, and where its steps can hardly be told apart.
func TestAWheelSaysFirstWhatItHasNot(t *testing.T) {
	gouache, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	oil, err := paint.ParseMedium("oil")
	require.NoError(t, err)
	for _, c := range []struct {
		name   string
		system System
		in     paint.Medium
		says   []string
	}{
		{"a whole one", of(t, RYB, []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"}), gouache, nil},
		{"an orange for the yellow", of(t, RYB, []string{"PO20"}, []string{"PR254"}, []string{"PB29"}), gouache, []string{"This wheel has no yellow", "In the place of its yellow stands an orange."}},
		{"a black for the blue", of(t, RYB, []string{"PY43"}, []string{"PR254"}, []string{"PBk9"}), gouache, []string{"This wheel has no green", "The bone black stands in for its blue: what it makes are shades."}},
		{"dark blues and violets", of(t, RYB, []string{"PY74"}, []string{"PV23"}, []string{"PB60"}), oil, []string{"In oil the steps from the dioxazine violet to the indanthrone blue can hardly be told apart."}},
	} {
		w := Build(c.system, Options{})
		for i := range w.Slots {
			if home := w.Slots[i].Home; home == 0 && c.name == "an orange for the yellow" {
				assert.Equal(t, "orange, clean", w.Judged(i))
			} else if c.says == nil {
				assert.Equal(t, w.Slots[i].Under.VerdictWords(), w.Judged(i), w.Slots[i].Name)
			}
		}
		got := w.Notes(c.in)
		if c.says == nil {
			assert.Empty(t, got, c.name)
		}
		for i, says := range c.says {
			assert.Contains(t, strings.Join(got, " "), says, c.name)
			if i == 0 && len(got) > 0 && strings.HasPrefix(says, "This") {
				assert.Contains(t, got[0], says, c.name)
			}
		}
	}
}

// A black may be the blue of a limited palette, and nothing else; its mixtures are shades, without a verdict.
func TestABlackMayBeTheBlue(t *testing.T) {
	w := Build(of(t, RYB, []string{"PY43"}, []string{"PR254"}, []string{"PBk9"}), Options{})
	shades := 0
	for _, s := range w.Slots {
		if s.Under.Shade {
			shades++
			assert.Equal(t, paint.Neutral, s.Under.Verdict, s.Name)
			assert.Equal(t, "a shade", s.Under.VerdictWords(), s.Name)
		}
	}
	assert.Equal(t, 6, shades)
	assert.NotEqual(t, paint.Neutral, w.Slots[2].Under.Verdict)
	black, err := paint.Find("PBk9")
	require.NoError(t, err)
	assert.Contains(t, RYB.Fits(black, 2, 0), "stands in for a blue")
	for k, roles := range [][3][]*paint.Paint{{{black}, nil, nil}, {nil, {black}, nil}} {
		for j := range roles {
			if roles[j] == nil {
				p, err := paint.Find([]string{"PY43", "PR254", "PB29"}[j])
				require.NoError(t, err)
				roles[j] = []*paint.Paint{p}
			}
		}
		_, err := NewSystem(RYB, roles)
		assert.ErrorContains(t, err, "no hue of its own", k)
	}
}
