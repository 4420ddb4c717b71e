package wheel

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/path"
)

func couplesOf(b Block) (out []string) {
	for _, p := range b.Pairings {
		out = append(out, p.A.ID+" "+p.B.ID)
	}
	return out
}

func TestBlocksHoldEveryPairingOfASystem(t *testing.T) {
	s := of(t, Double, []string{"PY184", "PY43"}, []string{"PR122", "PR254"}, []string{"PB29", "PB15:3"})
	got := s.Blocks(path.ByHue)
	require.Len(t, got, 4)
	pairs := 0
	for i, name := range []string{"orange", "violet", "green", WithinFamily} {
		assert.Equal(t, name, got[i].Name)
		assert.Equal(t, i < 3, got[i].Section)
		pairs += len(got[i].Pairings)
	}
	assert.Equal(t, 6*5/2, pairs, "six paints, every two of them")
	assert.ElementsMatch(t, []string{"PY184 PY43", "PR122 PR254", "PB29 PB15:3"}, couplesOf(got[3]))
	w := Build(s, Options{})
	for k := range w.Sections {
		assert.Equal(t, w.Sections[k].A.ID+" "+w.Sections[k].B.ID, couplesOf(got[k])[0], "the brightest fills the wheel")
	}
	cmy := of(t, CMY, []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"}).Blocks(path.ByHue)
	assert.Len(t, cmy[1].Pairings, 1)
	assert.Equal(t, [2]string{"magenta", "cyan"}, [2]string{string(cmy[1].Pairings[0].RoleA), string(cmy[1].Pairings[0].RoleB)})
	assert.Empty(t, cmy[3].Pairings)
}

func TestBlocksOfABoxGoByFamily(t *testing.T) {
	paints := paintsOf(t, []string{"PB29", "PY184", "PG36", "PR122", "PW6", "PY43", "PB15:3"})[0]
	got := BlocksOf(paints, path.ByContrast)
	require.Len(t, got, 5)
	assert.ElementsMatch(t, []string{"PY184 PR122", "PY43 PR122"}, couplesOf(got[0]), "the yellow first, and an ochre among the yellows")
	assert.ElementsMatch(t, []string{"PR122 PB29", "PR122 PB15:3"}, couplesOf(got[1]))
	assert.ElementsMatch(t, []string{"PB29 PY184", "PB29 PY43", "PB15:3 PY184", "PB15:3 PY43"}, couplesOf(got[2]))
	assert.ElementsMatch(t, []string{"PY184 PY43", "PB29 PB15:3"}, couplesOf(got[3]))
	assert.Len(t, got[4].Pairings, 11, "whatever has the green or the white")
	for _, b := range got {
		for i := 1; i < len(b.Pairings); i++ {
			assert.GreaterOrEqual(t, b.Pairings[i-1].Middle.Under.Retention, b.Pairings[i].Middle.Under.Retention)
		}
	}
}
