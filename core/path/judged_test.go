package path

import (
	"encoding/csv"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paint"
)

// What painters would say of seventy pairs, written down before any of them was computed: the verdicts
// agree, or are one off; nothing was tuned to it.
func TestVerdictsAgreeWithWhatWasWrittenDownBefore(t *testing.T) {
	f, err := os.Open("testdata/judged.csv")
	require.NoError(t, err)
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	require.NoError(t, err)
	same, near := 0, 0
	for _, row := range rows[1:] {
		a, err := paint.Find(row[0])
		require.NoError(t, err)
		b, err := paint.Find(row[1])
		require.NoError(t, err)
		is := New(a, b).Middle(ByHue).Under.Verdict
		k := slices.IndexFunc(paint.Verdicts, func(v paint.Verdict) bool { return v.String() == row[2] })
		require.GreaterOrEqual(t, k, 0, row[2])
		said := paint.Verdicts[k]
		off := int(is) - int(said)
		switch {
		case off == 0:
			same, near = same+1, near+1
		case off*off == 1 || is == paint.Softened && said == paint.Clean || is == paint.Clean && said == paint.Softened:
			near++
			t.Logf("%s and %s: %s, said %s", row[0], row[1], is, said)
		default:
			t.Logf("%s and %s: %s, said %s: far off", row[0], row[1], is, said)
		}
	}
	t.Logf("%d of %d the same, %d the same or next to it", same, len(rows)-1, near)
	assert.GreaterOrEqual(t, 100*same, 60*(len(rows)-1))
	assert.GreaterOrEqual(t, 100*near, 90*(len(rows)-1))
}
