package path

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
)

func couples(t testing.TB, pairs ...[2]string) (out []Couple) {
	t.Helper()
	for _, p := range pairs {
		a, err := paint.Find(p[0])
		require.NoError(t, err)
		b, err := paint.Find(p[1])
		require.NoError(t, err)
		out = append(out, Couple{A: a, B: b})
	}
	return out
}

func TestPairingsStandInTheOrderOfTheCouples(t *testing.T) {
	asked := couples(t, [2]string{"PY65", "PB29"}, [2]string{"PY184", "PB15:3"}, [2]string{"PR122", "PB29"}, [2]string{"PY65", "PR255"})
	got := PairAll(asked, ByHue)
	require.Len(t, got, 4)
	for i, p := range got {
		one := asked[i].Pair(ByHue)
		assert.Equal(t, asked[i], p.Couple)
		assert.Equal(t, one.Middle.Share, p.Middle.Share)
		assert.Equal(t, one.Lowest(ByHue), p.Lowest(ByHue))
		assert.LessOrEqual(t, p.Lowest(ByHue), p.Middle.Under.Retention+1e-9)
	}
	SortBright(got)
	for i := 1; i < len(got); i++ {
		assert.GreaterOrEqual(t, got[i-1].Middle.Under.Retention, got[i].Middle.Under.Retention)
	}
	assert.Empty(t, PairAll(nil, ByHue))
}

func TestRuleAndComputationPartOnlyByMoreThanATenth(t *testing.T) {
	var all [][2]string
	for _, r := range []string{"PR254", "PR255", "PR122", "PV19", "PR108"} {
		for _, b := range []string{"PB29", "PB15:3", "PB60", "PB28"} {
			all = append(all, [2]string{r, b})
		}
	}
	section := PairAll(couples(t, all...), ByHue)
	order := map[string]int{"dull": 0, "moderate": 1, "bright": 2}
	parted := 0
	for i, j := range RuleConflicts(section) {
		if j < 0 {
			continue
		}
		parted++
		mine, _ := section[i].Rule()
		its, _ := section[j].Rule()
		by := section[i].Middle.Under.Retention - section[j].Middle.Under.Retention
		assert.Greater(t, by*float64(order[its.Rating]-order[mine.Rating]), 0.10)
		says := section[i].ExplainConflict(&section[j])
		assert.Contains(t, says, "The rule of thumb calls it "+mine.Rating)
		assert.Contains(t, says, map[bool]string{true: "keeps more", false: "keeps less"}[by > 0])
		assert.Regexp(t, `both take \S+ light|same \S+ light|hardly meet`, says)
	}
	assert.Positive(t, parted, "there are such pairs among these")
	assert.Less(t, parted, len(section))
	assert.Equal(t, []int{-1}, RuleConflicts(section[:1]), "a pair alone parts with nothing")
	assert.Equal(t, []int{-1, -1}, RuleConflicts(PairAll(couples(t, [2]string{"PG7", "PB29"}, [2]string{"PW6", "PB29"}), ByHue)), "nor what has no rule")
}

func BenchmarkPairTableOfTheLibrary(b *testing.B) {
	library := paint.Library()
	var all []Couple
	for i, p := range library {
		for _, q := range library[:i] {
			all = append(all, Couple{A: q, B: p})
		}
	}
	paint.Envelope(0)
	b.ReportAllocs()
	for b.Loop() {
		PairAll(all, ByHue)
	}
}
