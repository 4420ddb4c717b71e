package paint

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
)

func TestParseParts(t *testing.T) {
	got, err := ParseParts([]string{"PB15:3=2.5", "pw6= 3", "PBr7-raw-umber=1e2"}, Find)
	require.NoError(t, err)
	require.Len(t, got, 3)
	assert.Equal(t, "PB15:3", got[0].Paint.ID)
	assert.Equal(t, 2.5, got[0].Parts)
	assert.Equal(t, 100.0, got[2].Parts)
	for text, says := range map[string]string{
		"PB29":                                  "PAINT=PARTS",
		"PB29=":                                 "must be a number",
		"PB29=0":                                "from 0.000001 to 1000000",
		"PB29=-3":                               "must be a number",
		"PB29=NaN":                              "must be a number",
		"PB29=Inf":                              "must be a number",
		"PB29=1e400":                            "must be a number",
		"PX1=1":                                 `unknown paint "PX1"`,
		"=1":                                    "unknown paint",
		"PBr7=1":                                "several paints",
		"PB29=1,PB29=1":                         "stands twice",
		"":                                      "at least one",
		strings.Repeat("PB29=1,", 30) + "PW6=1": "at most 24",
	} {
		var texts []string
		if text != "" {
			texts = strings.Split(text, ",")
		}
		_, err := ParseParts(texts, Find)
		require.Error(t, err, text)
		assert.ErrorAs(t, err, new(input.Error))
		assert.Contains(t, err.Error(), says, text)
		assert.NotContains(t, err.Error(), "\n")
	}
}

func FuzzParseParts(f *testing.F) {
	for _, seed := range []string{"PB29=1", "PB15:3=2.5,PW6=1", "=", "PB29==1", "PB29=0x1p4", "\x00=\xff", "PB29=1_0"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		got, err := ParseParts(strings.Split(text, ","), Find)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		pile, err := NewPile(got)
		require.NoError(t, err)
		u := pile.Mixture.Undertone()
		require.False(t, math.IsNaN(u.Chroma+u.WheelHue+u.Retention), "no NaN may get out")
	})
}

func TestColoursAreReadAsHexOrFigures(t *testing.T) {
	in, err := ParseMedium("oil")
	require.NoError(t, err)
	for text, ok := range map[string]bool{
		"#2a6fb0": true, "#000000": true, "#ffffff": true, "2A6FB0": true, "52, 38, 20": true, "52 38 -20.5": true, "52;0;0": true,
		"": false, "#12": false, "##123456": false, "52,38": false, "52,38,20,1": false, "a,b,c": false, "120,0,0": false, "NaN,0,0": false, "50,1e9,0": false,
	} {
		r, err := ParseColour(text, in, true)
		assert.Equal(t, ok, err == nil, text)
		if ok {
			assert.Equal(t, "oil wet", r.Medium+" "+r.Judged)
		} else {
			assert.ErrorAs(t, err, new(input.Error), text)
		}
	}
}

func FuzzParseColour(f *testing.F) {
	for _, seed := range []string{"#2a6fb0", "52, 38, 20", "52;-1e2 3", "", "#", "NaN,Inf,0"} {
		f.Add(seed)
	}
	m, err := ParseMedium("acrylic")
	require.NoError(f, err)
	f.Fuzz(func(t *testing.T, text string) {
		r, err := ParseColour(text, m, false)
		if err != nil {
			assert.LessOrEqual(t, len(err.Error()), 500)
			return
		}
		_, err = r.Parse("it")
		assert.NoError(t, err, "what was read is a colour")
	})
}
