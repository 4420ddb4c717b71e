package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/wire"
)

// readingsOf is a file of readings of mixtures, the ultramarine so many times as strong.
func readingsOf(t *testing.T, times float64) string {
	t.Helper()
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	var b strings.Builder
	b.WriteString("parts,L,a,b,state\n")
	for _, text := range []string{"PY65=12 PB29=1", "PY65=4 PB29=1", "PY65=1 PB29=1", "PR254=3 PB29=1", "PR254=1 PB29=2", "PY65=6 PR254=1", "PY65=2 PR254=1", "PY65=1", "PB29=1", "PR254=1"} {
		parts, err := paint.ParseParts(strings.Fields(text), paint.Find)
		require.NoError(t, err)
		m, err := paint.Strengthened(parts, func(i int) float64 {
			if parts[i].Paint == painttest.Paint("PB29") {
				return times
			}
			return 1
		})
		require.NoError(t, err)
		look := m.AsPainted(in, false)
		lab := look.Lab()
		fmt.Fprintf(&b, "%s,%.2f,%.2f,%.2f,dry\n", text, lab.L, lab.A, lab.B)
	}
	b.WriteString("PY65=1,80,0,70,wet\n")
	file := filepath.Join(t.TempDir(), "readings.csv")
	require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o600))
	return file
}

func TestStrengthsAreLearnedAndDifferencesExplained(t *testing.T) {
	file := readingsOf(t, 1.7)
	var learned wire.Learned
	callJSON(t, "learn --readings "+file+" --medium gouache", &learned)
	assert.True(t, learned.Proposed)
	assert.Equal(t, 10, learned.Readings, "wet ones are left out")
	ratio := map[string]float64{}
	for _, s := range learned.Strengths {
		ratio[s.Paint] = s.New / s.Old
	}
	assert.InDelta(t, 1.7, ratio["PB29"]/ratio["PY65"], 0.15)
	assert.Less(t, learned.After, learned.Before)
	assert.Contains(t, text(t, "learn --readings "+file+" --medium gouache"), "proposed")

	var explained []wire.ExplainedReading
	callJSON(t, "explain --readings "+file+" --medium gouache", &explained)
	require.Len(t, explained, 10)
	assert.Contains(t, text(t, "explain --readings "+file+" --medium gouache"), "ultramarine")

	none := readingsOf(t, 1)
	callJSON(t, "learn --readings "+none+" --medium gouache", &learned)
	assert.False(t, learned.Proposed)
	assert.NotContains(t, text(t, "explain --readings "+none+" --medium gouache"), "times")

	bad := filepath.Join(t.TempDir(), "bad.csv")
	require.NoError(t, os.WriteFile(bad, []byte("parts,L,a,b\nPX1=1,50,0,0\n"), 0o600))
	for args, says := range map[string]string{"learn": "name a file", "learn --readings " + bad: "line 2", "explain --readings " + bad + ".no": "no such file"} {
		code, _, errText := call(t, args)
		assert.Equal(t, 2, code, args)
		assert.Contains(t, errText, says, args)
	}
}

// A phone's photo of a painted sheet is learned from, what the phone did to colours taken out.
func TestAPhotoIsLearnedFrom(t *testing.T) {
	dir := t.TempDir()
	plan, photo := filepath.Join(dir, "plan.json"), filepath.Join(dir, "sheet.jpg")
	require.NoError(t, os.WriteFile(plan, []byte(text(t, "plan --system triad PY65 PR254 PB29 --medium gouache --json")), 0o600))
	text(t, "photo --plan "+plan+" --strength PB29=1.8 --rendering phone --seed 3 --size 1000x750 "+photo)
	var learned wire.Learned
	callJSON(t, "learn --photo "+photo+" --plan "+plan, &learned)
	assert.True(t, learned.Proposed)
	assert.Contains(t, learned.Photos[0], "adds contrast and colour")
	for _, s := range learned.Strengths {
		if s.Named {
			assert.Equal(t, "PB29", s.Paint)
			assert.InDelta(t, 1.8, s.New, 0.3)
		}
	}
	var read wire.PhotoRead
	callJSON(t, "read "+photo+" --plan "+plan, &read)
	for _, r := range read.Readings {
		assert.Equal(t, r.Doubt != "", r.AsSeen == r.Lab, r.Slot)
	}
	assert.Contains(t, read.Does, "taken out")
	for args, says := range map[string]string{"photo --plan " + plan + " --rendering glossy " + photo: "plain, phone, strong", "photo --plan " + plan + " --gamma 9 " + photo: "the gamma of a rendering"} {
		code, _, errText := call(t, args)
		assert.NotZero(t, code)
		assert.Contains(t, errText, says)
	}
}
