package wire

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

func quiet(v View, parts []paint.Part, hand []*paint.Paint, given map[path.QuietWay]*paint.Paint) (Quiet, error) {
	pile, err := paint.NewPile(parts)
	if err != nil {
		return Quiet{}, err
	}
	ways, err := path.QuietenPile(parts, hand, given)
	return v.Quiet(pile, ways), err
}

func correctTo(v View, have []paint.Part, want paint.Reading, with []*paint.Paint) (Correction, error) {
	c, err := path.CorrectToReading(have, want, with)
	if err != nil {
		return Correction{}, err
	}
	pile, err := paint.NewPile(have)
	return v.CorrectionTo(pile, want, c), err
}

func TestARedIsQuietenedThreeWays(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got, err := quiet(v, parts(t, "PR254=1"), painttest.Paints("PB29", "PG7", "PR101", "PW6", "PY74"), nil)
	require.NoError(t, err)
	require.Len(t, got.Ways, 3)
	for i, with := range []string{"PG7", "PB29", "PR101"} {
		way := got.Ways[i]
		assert.True(t, strings.HasPrefix(way.With.Paint, with), "%s: %s", way.Way, way.With.Paint)
		assert.False(t, way.Library)
		require.NotEmpty(t, way.Rungs, way.Way)
		for j, r := range way.Rungs[:min(2, len(way.Rungs))] {
			assert.InDelta(t, path.Losses[j], r.Lost, 0.12)
			assert.Contains(t, r.Beside, "quieter", way.Way)
			total := 0.0
			for _, p := range r.Parts {
				total += p.Parts
			}
			assert.LessOrEqual(t, total, 40.0)
		}
	}
	assert.Negative(t, got.Ways[1].Rungs[1].Turned, "a blue turns it")
	assert.Contains(t, got.Ways[1].Rungs[0].Beside, "nearer to ", "and says so")

	got, err = quiet(v, parts(t, "PR254=3", "PY74=1"), painttest.Paints("PR254"), map[path.QuietWay]*paint.Paint{path.ByNeighbour: painttest.Paints("PB60")[0], path.ByEarth: painttest.Paints("PBr7-burnt-umber")[0]})
	require.NoError(t, err)
	assert.True(t, got.Ways[0].Library, "no complement at hand")
	assert.Equal(t, "PB60", got.Ways[1].With.Paint, "the one that was given")
	assert.True(t, strings.HasPrefix(got.Ways[2].With.Paint, "PBr7"))
	assert.NotEmpty(t, got.Ways[0].Rungs[0].Parts[0].Of, "the pile, and what is in it")

	_, err = quiet(v, parts(t, "PBk9=1", "PW6=2"), painttest.Paints("PG7"), nil)
	assert.ErrorAs(t, err, new(input.Error))
}

func TestAPileIsBroughtToAColourThatWasTyped(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := mix(v, parts(t, "PY74=5", "PB15:3=1", "PW6=3"))
	require.NoError(t, err)
	want, err := v.ParseColour(m.AsPainted.SRGB)
	require.NoError(t, err)
	got, err := correctTo(v, parts(t, "PY74=5", "PB15:3=1"), want, painttest.Paints("PY74", "PB15:3", "PR254", "PW6", "PBk9"))
	require.NoError(t, err)
	assert.True(t, got.Reached, got.Says)
	assert.Contains(t, got.Says, "titanium white")
	assert.Nil(t, got.Want)
	assert.Equal(t, m.AsPainted.SRGB, got.Aim.SRGB)
	assert.Contains(t, got.Off, "darker")
	_, err = correctTo(v, parts(t, "PY74=5"), want, nil)
	assert.ErrorContains(t, err, "at least one paint")
}

func TestAReadingIsFoundBetweenTwoPaints(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := mix(v, parts(t, "PY74=5", "PB15:3=2"))
	require.NoError(t, err)
	couple := painttest.Paints("PY74", "PB15:3")
	read, err := v.ParseColour(strings.Trim(strings.Join(strings.Fields(fmt.Sprint(m.AsPainted.Lab)), ","), "[]"))
	require.NoError(t, err)
	way := path.New(couple[0], couple[1])
	got := v.Located(read, way.Find(read))
	assert.True(t, got.Fits)
	assert.Less(t, got.DE, 3.0, "the smallest parts that look like it")
	assert.InDelta(t, 2.0/7, got.Share, 0.06)
	assert.Contains(t, got.Says, "It looks like")
	read, err = v.ParseColour("#b01020")
	require.NoError(t, err)
	got = v.Located(read, way.Find(read))
	assert.False(t, got.Fits)
	assert.Contains(t, got.Says, "Nothing between these two looks like that")
}
