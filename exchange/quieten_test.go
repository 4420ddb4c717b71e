package exchange

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

func hand(t *testing.T, ids ...string) (out []*paint.Paint) {
	t.Helper()
	for _, id := range ids {
		p, err := FindPaint(id)
		require.NoError(t, err)
		out = append(out, p)
	}
	return out
}

func TestARedIsQuietenedThreeWays(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	got, err := v.Quieten(parts(t, "PR254=1"), hand(t, "PB29", "PG7", "PR101", "PW6", "PY74"), nil)
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

	got, err = v.Quieten(parts(t, "PR254=3", "PY74=1"), hand(t, "PR254"), map[string]*paint.Paint{"neighbour": hand(t, "PB60")[0], "earth": hand(t, "PBr7-burnt-umber")[0]})
	require.NoError(t, err)
	assert.True(t, got.Ways[0].Library, "no complement at hand")
	assert.Equal(t, "PB60", got.Ways[1].With.Paint, "the one that was given")
	assert.True(t, strings.HasPrefix(got.Ways[2].With.Paint, "PBr7"))
	assert.NotEmpty(t, got.Ways[0].Rungs[0].Parts[0].Of, "the pile, and what is in it")

	_, err = v.Quieten(parts(t, "PBk9=1", "PW6=2"), hand(t, "PG7"), nil)
	assert.ErrorAs(t, err, new(BadInput))
}

func TestAPileIsBroughtToAColourThatWasTyped(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := v.Mix(parts(t, "PY74=5", "PB15:3=1", "PW6=3"))
	require.NoError(t, err)
	want, err := v.ParseReading(m.AsPainted.SRGB)
	require.NoError(t, err)
	got, err := v.CorrectTo(parts(t, "PY74=5", "PB15:3=1"), want, hand(t, "PY74", "PB15:3", "PR254", "PW6", "PBk9"))
	require.NoError(t, err)
	assert.True(t, got.Reached, got.Says)
	assert.Contains(t, got.Says, "titanium white")
	assert.Nil(t, got.Want)
	assert.Equal(t, m.AsPainted.SRGB, got.Aim.SRGB)
	assert.Contains(t, got.Off, "darker")
	_, err = v.CorrectTo(parts(t, "PY74=5"), want, nil)
	assert.ErrorContains(t, err, "at least one paint")
}

func TestAReadingIsFoundBetweenTwoPaints(t *testing.T) {
	v := view(t, "acrylic", "D65", "dry")
	m, err := v.Mix(parts(t, "PY74=5", "PB15:3=2"))
	require.NoError(t, err)
	couple := hand(t, "PY74", "PB15:3")
	read, err := v.ParseReading(strings.Trim(strings.Join(strings.Fields(fmt.Sprint(m.AsPainted.Lab)), ","), "[]"))
	require.NoError(t, err)
	got, err := v.Locate(couple[0], couple[1], read)
	require.NoError(t, err)
	assert.True(t, got.Fits)
	assert.Less(t, got.DE, 3.0, "the smallest parts that look like it")
	assert.InDelta(t, 2.0/7, got.Share, 0.06)
	assert.Contains(t, got.Says, "It looks like")
	read, err = v.ParseReading("#b01020")
	require.NoError(t, err)
	got, err = v.Locate(couple[0], couple[1], read)
	require.NoError(t, err)
	assert.False(t, got.Fits)
	assert.Contains(t, got.Says, "Nothing between these two looks like that")
}

func TestColoursAreReadAsHexOrFigures(t *testing.T) {
	v := view(t, "oil", "D65", "wet")
	for text, ok := range map[string]bool{
		"#2a6fb0": true, "#000000": true, "#ffffff": true, "2A6FB0": true, "52, 38, 20": true, "52 38 -20.5": true, "52;0;0": true,
		"": false, "#12": false, "##123456": false, "52,38": false, "52,38,20,1": false, "a,b,c": false, "120,0,0": false, "NaN,0,0": false, "50,1e9,0": false,
	} {
		r, err := v.ParseReading(text)
		assert.Equal(t, ok, err == nil, text)
		if ok {
			assert.Equal(t, "oil wet", r.Medium+" "+r.Judged)
		} else {
			assert.ErrorAs(t, err, new(BadInput), text)
		}
	}
}

func FuzzParseReading(f *testing.F) {
	for _, seed := range []string{"#2a6fb0", "52, 38, 20", "52;-1e2 3", "", "#", "NaN,Inf,0"} {
		f.Add(seed)
	}
	m, err := paint.ParseMedium("acrylic")
	require.NoError(f, err)
	f.Fuzz(func(t *testing.T, text string) {
		r, err := View{Medium: m}.ParseReading(text)
		if err != nil {
			assert.LessOrEqual(t, len(err.Error()), 500)
			return
		}
		_, err = r.core("it")
		assert.NoError(t, err, "what was read is a colour")
	})
}
