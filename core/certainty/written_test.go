package certainty

import (
	"encoding/csv"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

// Outside of its own dice: of what painters say of mixtures, written down before they were computed, at most one of twenty is called
// sure and comes otherwise. The sixty allow two words where practice does; the seventy that paths are held against have one each.
func TestSureVerdictsAreWhatPaintersSay(t *testing.T) {
	for file, want := range map[string]int{"testdata/verdicts.csv": 60, "../path/testdata/judged.csv": 70} {
		f, err := os.Open(file)
		require.NoError(t, err)
		defer f.Close()
		in := csv.NewReader(f)
		in.Comment, in.FieldsPerRecord = '#', -1
		rows, err := in.ReadAll()
		require.NoError(t, err)
		require.Len(t, rows[1:], want, file)
		counts := map[Sureness][2]int{} // right, wrong
		for _, row := range rows[1:] {
			words := strings.Split(row[2], "|")
			for _, w := range words {
				require.Contains(t, []string{paint.Clean.String(), paint.Quiet.String(), paint.Softened.String(), paint.Muddy.String()}, w)
			}
			step := Steps(path.New(painttest.Paint(row[0]), painttest.Paint(row[1])), path.ByHue, Usual, HalfWay)[0]
			came := step.under.Verdict
			is, could := step.Verdict(came)
			n := counts[is]
			if slices.Contains(words, came.String()) {
				n[0]++
			} else {
				n[1]++
				t.Logf("%s and %s: %s comes %v (could be %v), painters say %s", row[0], row[1], is, came, could, row[2])
			}
			counts[is] = n
		}
		t.Logf("%s: right and wrong: sure %v, likely %v, either way %v", file, counts[Sure], counts[Likely], counts[EitherWay])
		assert.LessOrEqual(t, counts[Sure][1], want/20)
	}
}
