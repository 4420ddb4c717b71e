package wire

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

func TestPairingsOfABox(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got := v.PaintPairings(painttest.Paints("PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3"), path.ByHue, bias.VioletIsWarm)
	assert.Len(t, got.Pairs, 15)
	assert.Len(t, got.Paints, 6)
	one := map[string]PairingOfBoth{}
	for _, p := range got.Pairs {
		one[p.A+" "+p.B] = p
		assert.Equal(t, p.Retention, p.Middle.Retention)
		assert.LessOrEqual(t, p.Lowest, p.Retention)
		assert.LessOrEqual(t, len(p.Band), bandPoints+2)
		assert.Zero(t, p.Band[0].At)
		assert.Equal(t, 1.0, p.Band[len(p.Band)-1].At)
	}
	violet, alone := one["PR122 PB29"], path.Couple{A: painttest.Paints("PR122")[0], B: painttest.Paints("PB29")[0]}.Pair(path.ByHue)
	assert.Equal(t, "violet", violet.Section)
	assert.Equal(t, "bright", violet.RuleOfThumb)
	assert.Equal(t, []string{"toward", "toward"}, []string{violet.LeanA, violet.LeanB})
	assert.InDelta(t, alone.Middle.Under.Retention, violet.Retention, 1e-4, "the same as the path alone")
	assert.Equal(t, []string{"away", "away"}, []string{one["PR255 PB15:3"].LeanA, one["PR255 PB15:3"].LeanB})
	assert.Equal(t, "none", one["PY184 PY65"].RuleOfThumb)
	assert.Empty(t, one["PY184 PY65"].LeanA)
	total := 0
	for _, b := range got.Blocks {
		total += b.Clean + b.Softened + b.Muddy
	}
	assert.Equal(t, 15, total)
	other := v.PaintPairings(painttest.Paints("PY184", "PB29"), path.ByHue, bias.GreenIsWarm)
	assert.Equal(t, []string{"warm", "cool"}, []string{got.Paints[4].Warmth, other.Paints[1].Warmth}, "the school decides which blue is warm")
	for _, p := range got.Paints {
		for _, share := range p.Takes {
			assert.True(t, share >= 0 && share < 1, p.ID)
		}
	}
}

func TestPairingsSayWhereTheRuleIsWrong(t *testing.T) {
	v := view(t, "oil", "A", "wet")
	got := v.PaintPairings(painttest.Paints("PR254", "PR255", "PR122", "PV19", "PR108", "PB29", "PB15:3", "PB60", "PB28"), path.ByHue, bias.VioletIsWarm)
	parted := 0
	for _, p := range got.Pairs {
		assert.Equal(t, p.Agrees, p.Parting == "")
		if !p.Agrees {
			parted++
		}
	}
	assert.Equal(t, got.Blocks[0].Parted+got.Blocks[1].Parted+got.Blocks[2].Parted, parted)
	assert.Positive(t, parted)
	plain := view(t, "acrylic", "D65", "dry").PaintPairings(painttest.Paints("PR254", "PB29"), path.ByHue, bias.VioletIsWarm)
	for _, p := range got.Pairs {
		if p.A == "PR254" && p.B == "PB29" {
			assert.Equal(t, plain.Pairs[0].Retention, p.Retention, "the light changes no verdict")
			assert.NotEqual(t, plain.Pairs[0].Middle.AsPainted, p.Middle.AsPainted)
		}
	}
}

func TestManyPairingsAreTold(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got := v.PaintPairings(paint.Library()[:30], path.ByHue, bias.VioletIsWarm)
	assert.Len(t, got.Pairs, 435)
	assert.Nil(t, got.Pairs[0].Band, "too many to draw")
	_, err := json.Marshal(got)
	assert.NoError(t, err)
	for says, ids := range map[string][]string{"2 to 60": {"PB29"}, "twice": {"PB29", "PB29"}} {
		err := wheel.CheckPaired(painttest.Paints(ids...))
		require.ErrorAs(t, err, new(input.Error))
		assert.ErrorContains(t, err, says)
	}
}
