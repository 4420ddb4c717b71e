package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/wire"
)

func text(t *testing.T, line string) string {
	t.Helper()
	code, out, errText := call(t, line)
	require.Zero(t, code, errText)
	return out
}

func TestPlanTellsWhatToLayOutAndInWhichOrder(t *testing.T) {
	var p wire.BenchPlan
	callJSON(t, "plan --system split PY184 PY65 PR255 PR122 PB29 PB15:3 --medium gouache --diameter 160 --brushes 2 --wells 4 --measure drops", &p)
	assert.Len(t, p.Regions, 15)
	assert.Len(t, p.Amounts, 6)
	assert.Less(t, float64(p.Total), 1.1*float64(p.Low))
	assert.Less(t, p.Total, p.Naive)
	assert.LessOrEqual(t, p.Total, p.ByKind)
	painted := 0
	for _, a := range p.Actions {
		if a.Kind == "paint" {
			painted++
			assert.NotEmpty(t, a.Slot)
			assert.Greater(t, a.Dry, a.End)
		}
		assert.LessOrEqual(t, a.Well, 4)
	}
	assert.Equal(t, 15, painted)
	for _, r := range p.Regions {
		assert.Equal(t, "drops", r.Counted.Measure)
		assert.GreaterOrEqual(t, r.Counted.ML, r.ML-1e-3)
	}
	require.Len(t, p.Sections, 3)
	assert.Len(t, p.Sections[0].Ways, 4)
	assert.Len(t, p.Drawings, 3)

	out := text(t, "plan PY65 PR254 PB29 --medium acrylic")
	assert.Contains(t, out, "shortest possible")
	assert.Contains(t, out, "A run cannot be: neighbours need 21 minutes between them, and a pile lasts 8.")
	assert.Contains(t, text(t, "plan PY65 PR254 PB29 --medium gouache"), "which is wet until minute ")
}

func TestPlanRefusesWhatCannotBe(t *testing.T) {
	for args, says := range map[string]string{
		"plan PY65 PR254 PB29 --diameter 5":      "diameter",
		"plan PY65 PR254 PB29 --measure cups":    "choose dabs",
		"plan PY65 PR254 PB29 --fill pour":       "choose weaker",
		"plan PY65 PR254 PB29 --brushes 7":       "brushes",
		"plan PY65 PR254":                        "a yellow, a red and a blue",
		"draw --diameter NaN":                    "diameter",
		"draw --with string":                     "choose compass",
		"mix PB29=1 --measure dabs --ml -1":      "--ml above 0",
		"mix PB29=1 --measure drops --one 40":    "holds from",
		"mix PB29=1 PW6=2 --measure thimblefuls": "choose dabs",
	} {
		code, _, errText := call(t, args)
		assert.Equal(t, 2, code, args)
		assert.Contains(t, errText, says, args)
	}
}

func TestDrawAndDabs(t *testing.T) {
	assert.Contains(t, text(t, "draw --diameter 180"), "Open it to 46.5 mm and step round")
	assert.Contains(t, text(t, "draw --diameter 200 --with ruler"), "27 mm to the left")
	assert.Contains(t, text(t, "mix PY184=13 PB29=1 --measure dabs --ml 0.9"), "Start with a dab")
	var m struct{ Counted wire.Counted }
	callJSON(t, "mix PY184=37 PB15:3=1 --measure drops", &m)
	require.Len(t, m.Counted.Before, 1)
	assert.Equal(t, "1 drop", m.Counted.Before[0].Taken[0].Says)
}

func TestASheetIsWrittenToAFile(t *testing.T) {
	dir := t.TempDir()
	for file, begins := range map[string]string{"wheel.pdf": "%PDF-", "wheel.svg": "<svg "} {
		file = filepath.Join(dir, file)
		text(t, "sheet wheel PY65 PR254 PB29 --medium gouache --diameter 140 --out "+file)
		body, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(string(body), begins), file)
	}
	assert.True(t, strings.HasPrefix(text(t, "sheet guide PY65 PR254 PB29 --paper A5 --edition aimed"), "%PDF-"))
	for _, args := range []string{
		"sheet ladder PY65 PB29 --steps 7 --as sheet,dabs", "sheet wanted PY65 PR254 PB29 --wanted kelp=#5a5a2a --wanted anemone=45,50,20 --as cards",
		"sheet guide PY65 PB29", "sheet grid PY65 PR254 PB29 --paper Letter --flat", "sheet run PY65 PR254 PB29 --slot 2",
	} {
		assert.True(t, strings.HasPrefix(text(t, args), "%PDF-"), args)
	}
	beside := filepath.Join(dir, "beside.pdf")
	text(t, "compare --system three:triad:PY65,PR254,PB29 --system other:triad:PY184,PR122,PB15:3 --out "+beside)
	assert.FileExists(t, beside)
	for args, says := range map[string]string{
		"sheet wanted PY65 PR254 PB29 --wanted kelp":  "write NAME=COLOUR",
		"sheet wanted PY65 PR254 PB29":                "no wanted colours yet",
		"sheet napkin PY65 PR254 PB29":                "unknown sheet",
		"sheet wheel PY65 PR254 PB29 --paper papyrus": "choose A4",
		"sheet wheel PY65 PR254 PB29 --diameter 400":  "does not fit on A4",
		"sheet wheel PY65 PR254 PB29 --recipes pinch": "choose parts",
	} {
		code, _, errText := call(t, args)
		assert.Equal(t, 2, code, args)
		assert.Contains(t, errText, says, args)
	}
}
