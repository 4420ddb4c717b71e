package main

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/reach"
	"gyrophane/wire"
)

func call(t *testing.T, line string) (code int, out, errText string) {
	t.Helper()
	var stdout, stderr bytes.Buffer
	code = run(strings.Fields(line), &stdout, &stderr)
	return code, stdout.String(), stderr.String()
}

func callJSON(t *testing.T, line string, into any) {
	t.Helper()
	code, out, errText := call(t, line+" --json")
	require.Zero(t, code, errText)
	require.NoError(t, json.Unmarshal([]byte(out), into))
}

func TestMixJSON(t *testing.T) {
	var raw map[string]any
	callJSON(t, "mix PB29=1 PR122=2 PW6=3 --medium acrylic --light D65", &raw)
	for _, field := range []string{"parts", "spectrum", "masstone", "brushedOut", "asPainted", "undertone", "retention", "verdict", "greyness", "hueError"} {
		assert.Contains(t, raw, field)
	}
	for _, field := range []string{"lab", "oklch", "srgb", "clipped"} {
		assert.Contains(t, raw["masstone"], field)
	}
}

func TestPairWheelAndPaintsJSON(t *testing.T) {
	var pair wire.Pair
	callJSON(t, "pair PB29 PR122 --steps 3", &pair)
	assert.Len(t, pair.Steps, 3)
	assert.Equal(t, "bright", pair.RuleOfThumb)
	assert.Contains(t, pair.Because, "red light get past both")

	for _, spacing := range []string{"hue", "contrast", "parts"} {
		var wheel wire.Wheel
		callJSON(t, "wheel PY184 PR254 PB60 --spacing "+spacing, &wheel)
		require.Len(t, wheel.Slots, 12)
		assert.Equal(t, []string{"PR254"}, wheel.Slots[4].Paints)
		assert.Equal(t, spacing, wheel.Spacing)
		violet := wheel.Slots[6]
		assert.Contains(t, []string{"sure", "likely", "either way"}, violet.Sure)
		assert.Contains(t, violet.CouldBe, violet.Verdict)
		if spacing == "parts" {
			assert.Empty(t, violet.Low, "equal parts are equal parts")
			continue
		}
		require.Len(t, violet.Low, 2)
		assert.Equal(t, "PR254", violet.Low[0].Paint)
		assert.Less(t, violet.Low[1].Parts/violet.Low[0].Parts, violet.High[1].Parts/violet.High[0].Parts)
	}

	var paints []wire.Paint
	callJSON(t, "paints", &paints)
	assert.Len(t, paints, 72)
}

func TestTablesAreReadable(t *testing.T) {
	for line, says := range map[string]string{
		"mix PB29=1 PR122=2 PW6=3":                 "violet, clean",
		"pair PR254 PG7":                           "muddy",
		"wheel PY184 PR254 PB60":                   "let down 1:9 in PY184",
		"paints":                                   "to violet 10",
		"wheel PY184 PR122 PB15:3 --spacing parts": "jumps",
	} {
		code, out, errText := call(t, line)
		assert.Zero(t, code, errText)
		assert.Contains(t, out, says, line)
	}
}

func TestBadInputIsOneSentenceAndExitCode2(t *testing.T) {
	for line, says := range map[string]string{
		"mix":                                         "name at least one paint",
		"mix PB29=-1":                                 "must be a number",
		"mix PB29=1 --medium mud":                     "unknown medium",
		"mix PB29=1 --light moon":                     "unknown light",
		"mix PB29=1 --judged damp":                    "choose wet or dry",
		"pair PB29":                                   "name two paints",
		"pair PB29 PX1":                               "unknown paint",
		"pair PB29 PR122 --steps 99":                  "from 1 to 11",
		"pair PB29 PR122 --steps two":                 "invalid argument",
		"wheel PY184 PR254":                           "a yellow, a red and a blue",
		"wheel PY184 PW6 PB29":                        "has no hue of its own",
		"wheel PY184 PR254 PB60 --system six":         "unknown kind of system",
		"wheel PY184 PR254 PB60 --ring moss":          "unknown ring",
		"wheel PY184 PR254 PB60 --ring tints=9":       "1 to 3 rungs",
		"wheel PY184 PR254 PB60 --ring shades=1:soot": "unknown way",
		"wheel PY184 PR254 PB60 --names mine":         "unknown names",
		"wheel PY184 / PR254":                         "two slashes",
		"neutral PB29":                                "name two paints",
		"neutral PB29 PO20 --steps 6":                 "5 or 7",
		"wheel PY184 PR254 PB60 --spacing up":         "unknown spacing",
		"paints extra":                                "unknown command",
		"paint":                                       "unknown command",
		"serve --listen nowhere":                      "DATABASE_URL is not set",
	} {
		t.Setenv("DATABASE_URL", "")
		code, out, errText := call(t, line)
		assert.Equal(t, 2, code, line)
		assert.Empty(t, out, line)
		assert.Contains(t, errText, says, line)
		assert.Equal(t, 1, strings.Count(errText, "\n"), "one sentence: %q", errText)
	}
}

func TestPaintsAsFiles(t *testing.T) {
	for format, begins := range map[string]string{"cgats": "CGATS.17\n", "sp": "SPECT\n", "csv": "paint,name,nickname,grade", "gpl": "GIMP Palette\n"} {
		code, out, errText := call(t, "paints --format "+format)
		require.Zero(t, code, errText)
		assert.True(t, strings.HasPrefix(out, begins), format)
	}
	code, _, errText := call(t, "paints --format pdf")
	assert.Equal(t, 2, code)
	assert.Contains(t, errText, "choose cgats, sp, csv or gpl")
}

func TestRefitGivesTheFiguresOfTheRoundTrip(t *testing.T) {
	var trip wire.RoundTrip
	callJSON(t, "refit", &trip)
	assert.Equal(t, 2556, trip.Pairs)
	assert.Len(t, trip.Each, trip.Paints)
	assert.Less(t, trip.Opaque.Median, trip.Opaque.P95)
	assert.Less(t, trip.Opaque.P95, trip.Opaque.Worst)
	assert.NotEmpty(t, trip.Film.WorstPair[0])
}

func TestTheMeterStaysOnThisMachine(t *testing.T) {
	for line, says := range map[string]string{
		"meter --listen 0.0.0.0:0":              "this machine only",
		"meter --listen nowhere":                "give an address and a port",
		"meter --listen 127.0.0.1:0 --swatch X": "unknown medium",
	} {
		code, _, errText := call(t, line)
		assert.Equal(t, 2, code, line)
		assert.Contains(t, errText, says, line)
	}
}

func TestWheelsOfEveryKindAsJSON(t *testing.T) {
	var w wire.Wheel
	callJSON(t, "wheel --system split PY184 PY65 PR255 PR122 PB29 PB15:3 --ring tints=2:white,shades=2:complement,neutral,wash,triple --top blue", &w)
	require.Len(t, w.Slots, 12)
	assert.Equal(t, "blue", w.Slots[0].Name)
	assert.Len(t, w.Slots[0].Halves, 2)
	assert.Len(t, w.Slots[0].Rings.Tints, 2)
	assert.NotNil(t, w.Slots[0].Rings.Highlight)
	assert.Len(t, w.Neutrals, 6)

	callJSON(t, "wheel --system double PY184 PY43 PR122 PBr7-burnt-sienna PB29 PB15:3", &w)
	for _, i := range []int{2, 6, 10} {
		assert.Len(t, w.Slots[i].OtherPairings, 3)
	}
	callJSON(t, "wheel --system cmy PY74 PR122 PB15:3 --names printers", &w)
	assert.Equal(t, "red", w.Slots[2].Name)
	callJSON(t, "wheel --system own PY74 PY43 / PR254 / PB29", &w)
	assert.Equal(t, "own", w.System)
	callJSON(t, "wheel --system own PY74 / / PB29", &w)
	assert.True(t, w.Slots[4].Empty)

	var n wire.Complements
	callJSON(t, "neutral PB29 PO20 --steps 5", &n)
	assert.Len(t, n.Intensity, 5)
	assert.Less(t, n.Balance.Chroma, 15.0)
}

func TestPairsJSON(t *testing.T) {
	var raw struct{ Pairs []map[string]any }
	callJSON(t, "pairs PY184 PR122 PB29", &raw)
	require.Len(t, raw.Pairs, 3)
	for _, field := range []string{"a", "b", "section", "retention", "lowest", "verdict", "ruleOfThumb", "agrees", "because", "middle"} {
		assert.Contains(t, raw.Pairs[0], field)
	}
	for says, line := range map[string]string{"2 to 60 paints, not 1": "pairs PB29", "PX9": "pairs PB29 PX9", "PB29 stands twice": "pairs PB29 PB29"} {
		code, _, errText := call(t, line)
		assert.NotZero(t, code, line)
		assert.Contains(t, errText, says)
	}
	_, table, _ := call(t, "pairs PY184 PR122 PB29")
	assert.Contains(t, table, "PR122 with PB29")
}

func TestCorrectAndContaminateJSON(t *testing.T) {
	var c wire.Correction
	callJSON(t, "correct --have PY74=5,PB15:3=2 --want PY74=8,PB15:3=1", &c)
	require.NotEmpty(t, c.Add)
	assert.Equal(t, "PY74", c.Add[0].Paint)
	assert.Greater(t, c.Grows, 1.0)
	_, table, _ := call(t, "correct --have PY74=5,PB15:3=2 --want PY74=8,PB15:3=1")
	assert.Contains(t, table, "have")
	var pair wire.Pair
	callJSON(t, "pair PB29 PR122 --contaminate PY74=0.02", &pair)
	require.Len(t, pair.Taints, 1)
	assert.Less(t, pair.Taints[0].Retention, pair.Retention)
	for says, line := range map[string]string{
		"--have: name at least one": "correct --want PY74=8", "--want: \"PY74\": write a paint": "correct --have PY74=1 --want PY74",
		"a share from 0 to 0.5": "pair PB29 PR122 --contaminate PY74=2",
	} {
		code, _, errText := call(t, line)
		assert.NotZero(t, code, line)
		assert.Contains(t, errText, says)
	}
}

func TestCompareMatchAndChooseJSON(t *testing.T) {
	t.Setenv("DATABASE_URL", "")
	var raw struct{ Systems []map[string]any }
	callJSON(t, "compare --system three:triad:PY65,PR254,PB29 --system six:split:PY184,PY65,PR255,PR122,PB29,PB15:3", &raw)
	require.Len(t, raw.Systems, 2)
	for _, field := range []string{"name", "cleanCoverage", "softCoverage", "widestGap", "reach", "darkest", "evenness", "tubes"} {
		assert.Contains(t, raw.Systems[0], field)
	}
	_, table, _ := call(t, "compare --system three:triad:PY65,PR254,PB29 --system uneven:double:PY184,PY43/PR255,PR122/PB29,PB15:3")
	assert.Contains(t, table, "uneven is cleaner")

	var m wire.Matched
	callJSON(t, "match --lab 52,38,20 --from PY184,PR254,PB29,PW6", &m)
	assert.NotEmpty(t, m.Recipe)
	assert.Positive(t, m.DE)
	require.NotNil(t, m.DELamp)

	var c wire.Chosen
	callJSON(t, "choose --kind triad --from library --aim coverage", &c)
	assert.Len(t, c.Best.Paints, 3)
	assert.Greater(t, c.Best.CleanCoverage, 0.9)
	assert.Positive(t, c.ElapsedMs)
	assert.Len(t, c.RunnersUp, reach.RunnersUp)
	_, table, _ = call(t, "choose --kind split --from box --box PY184,PY65,PR255,PR122,PB29,PB60")
	assert.Contains(t, table, "buy next")

	callJSON(t, "choose --kind split --from library --aim tubes", &c)
	assert.Less(t, len(c.Best.Paints), 6)
	_, table, _ = call(t, "choose --kind triad --from box --box PY184,PY65,PR255,PR122,PB29 --aim targets --want #f0662b --want 35,20,-30")
	assert.Contains(t, table, "wanted colours reached, CIEDE2000")

	for says, line := range map[string]string{
		"write NAME:KIND:PAINT":         "compare --system three:PY65",
		"not 0":                         "compare",
		"unknown kind":                  "compare --system a:ring:PY65,PR254,PB29",
		"name one wanted colour":        "match --from PY65",
		"there are no paints":           "match --lab 50,0,0",
		"is no colour":                  "match --lab 50,0 --from PY65",
		`"beauty" is no aim`:            "choose --aim beauty",
		"knows no prices":               "choose --aim price",
		"o colour is wanted":            "choose --aim targets --from box --box PY65,PR254,PB29",
		`--from "shop"`:                 "choose --from shop",
		"is no class of caution: take ": "choose --without lead",
		"paint PW6 is not among":        "choose --contains PW6",
	} {
		code, _, errText := call(t, line)
		assert.NotZero(t, code, line)
		assert.Contains(t, errText, says, line)
	}
}
