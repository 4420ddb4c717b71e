package certainty

import (
	_ "embed"
	"encoding/csv"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/path"
)

//go:embed testdata/verdicts.csv
var writtenCSV string

// Outside of its own dice: of what painters say of sixty mixtures, written down beforehand, what is called sure is wrong in one of
// twenty at most.
func TestSureVerdictsAreWhatPaintersSay(t *testing.T) {
	in := csv.NewReader(strings.NewReader(writtenCSV))
	in.Comment = '#'
	rows, err := in.ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 1+60)
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
	t.Logf("right and wrong: sure %v, likely %v, either way %v", counts[Sure], counts[Likely], counts[EitherWay])
	assert.LessOrEqual(t, counts[Sure][1], 3)
}
