package wheel

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
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
	paints := paintsOf([]string{"PB29", "PY184", "PG36", "PR122", "PW6", "PY43", "PB15:3"})[0]
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

func named(couples []path.Couple) (out []string) {
	for _, c := range couples {
		out = append(out, c.A.ID+" "+c.B.ID)
	}
	return out
}

func TestTheWaysThatASystemPaintsWith(t *testing.T) {
	for kind, c := range map[SystemKind]struct {
		s    System
		ways []string
	}{
		RYB:   {of(t, RYB, []string{"PY74"}, []string{"PR254"}, []string{"PB29"}), []string{"PY74 PR254", "PR254 PB29", "PB29 PY74"}},
		CMY:   {of(t, CMY, []string{"PY74"}, []string{"PR122"}, []string{"PB15:3"}), []string{"PY74 PR122", "PR122 PB15:3", "PB15:3 PY74"}},
		Split: {of(t, Split, yellows, reds, blues), []string{"PY65 PR255", "PY184 PY65", "PR122 PB29", "PR255 PR122", "PB15:3 PY184", "PB29 PB15:3"}},
		Double: {of(t, Double, yellows, reds, blues), []string{
			"PY184 PR255", "PY184 PR122", "PY65 PR255", "PY65 PR122", "PY184 PY65",
			"PR255 PB29", "PR255 PB15:3", "PR122 PB29", "PR122 PB15:3", "PR255 PR122",
			"PB29 PY184", "PB29 PY65", "PB15:3 PY184", "PB15:3 PY65", "PB29 PB15:3",
		}},
		OwnSystem: {of(t, OwnSystem, []string{"PY74"}, nil, []string{"PB29"}), []string{"PB29 PY74"}},
	} {
		assert.ElementsMatch(t, c.ways, named(c.s.Allowed()), kind)
	}
}

func TestTwoOfARoleFaceEitherSide(t *testing.T) {
	for _, ids := range [][2]string{{"PY184", "PY65"}, {"PR255", "PR122"}, {"PB29", "PB15:3"}} {
		p := paintsOf(ids[:])[0]
		before, after := Facing(p[0], p[1])
		again, too := Facing(p[1], p[0])
		assert.Equal(t, before, again, "whichever is named first")
		assert.Equal(t, after, too)
		assert.NotEqual(t, before, after)
	}
	// The green-leaning yellow faces the blue before it, the orange-leaning one the red.
	p := paintsOf(yellows)[0]
	before, after := Facing(p[0], p[1])
	assert.Equal(t, "PY184", before.ID)
	assert.Equal(t, "PY65", after.ID)
}

func TestTheSectionOfTwoPaintsDoesNotDependOnTheirOrder(t *testing.T) {
	for pair, want := range map[[2]string]string{
		{"PY74", "PR254"}: "orange", {"PR122", "PB29"}: "violet", {"PB15:3", "PY184"}: "green",
		{"PY74", "PY43"}: WithinFamily, {"PB29", "PB15:3"}: WithinFamily,
		{"PY74", "PW6"}: Elsewhere, {"PG7", "PR254"}: Elsewhere, {"PV23", "PB29"}: Elsewhere,
	} {
		p := paintsOf(pair[:])[0]
		assert.Equal(t, want, SectionOf(p[0], p[1]), pair)
		assert.Equal(t, want, SectionOf(p[1], p[0]), pair)
		in := 0
		for _, g := range CouplesOf(p) {
			if len(g.Of) > 0 {
				assert.Equal(t, want, g.Name, pair)
			}
			in += len(g.Of)
		}
		assert.Equal(t, 1, in, "two paints are one couple")
	}
}

func TestASwapLeavesTheRestOfASystemAsItIs(t *testing.T) {
	s := of(t, Double, yellows, reds, blues)
	other := paintsOf([]string{"PY43", "PR254", "PBk7"})[0]
	p := s.Paints()
	s, err := s.WithPair(0, p[0], p[2])
	require.NoError(t, err)
	s, err = s.WithPair(1, p[3], p[4])
	require.NoError(t, err)
	s, err = s.WithRider(BlackRider, other[2])
	require.NoError(t, err)

	swapped, err := s.WithSwap(0, p[0], other[0])
	require.NoError(t, err)
	assert.Equal(t, []string{"PY43", "PY65", "PR255", "PR122", "PB29", "PB15:3"}, ids(swapped.Paints()))
	assert.Equal(t, []string{"PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"}, ids(s.Paints()), "the system it came from stays")
	assert.Equal(t, "PBk7", swapped.Rider(BlackRider).ID)
	w := Build(swapped, Options{})
	assert.False(t, w.Sections[0].Chosen, "its pair is no longer there")
	assert.True(t, w.Sections[1].Chosen)

	for says, ask := range map[string][3]any{
		"is no red of this system": {1, p[0], other[1]},
		"stands twice":             {0, p[0], p[1]},
	} {
		_, err := s.WithSwap(ask[0].(int), ask[1].(*paint.Paint), ask[2].(*paint.Paint))
		assert.ErrorContains(t, err, says)
	}
	_, err = s.WithSwap(0, p[0], p[2])
	assert.Error(t, err, "a red of the system cannot be its yellow too")
}

func ids(paints []*paint.Paint) (out []string) {
	for _, p := range paints {
		out = append(out, p.ID)
	}
	return out
}
