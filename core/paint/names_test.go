package paint

import (
	_ "embed"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/internal/table"
)

//go:embed testdata/labels.csv
var labelsCSV string

func ids(b Behind) string {
	var out []string
	for _, p := range b.Paints {
		out = append(out, p.ID)
	}
	return strings.Join(out, "+")
}

// Of what stands on ordinary tubes nearly all is found, and mostly with the pigment that a painter would name.
func TestWhatStandsOnTubesIsFound(t *testing.T) {
	all, found, first := 0, 0, 0
	for _, row := range table.Rows(labelsCSV) {
		all++
		got, err := NameOf(row[0], Artists)
		require.NoError(t, err, row[0])
		if len(got.Found) == 0 {
			t.Logf("%s: %s", row[0], got.Says)
			continue
		}
		found++
		if ids(got.Found[0]) == row[1] {
			first++
		} else {
			t.Logf("%s, taken for %s: %s, and not %s", row[0], got.As, ids(got.Found[0]), row[1])
		}
	}
	t.Logf("found %d of %d, the likeliest first %d", found, all, first)
	assert.Equal(t, 79, all)
	assert.GreaterOrEqual(t, found, 75)
	assert.GreaterOrEqual(t, first, 65)
}

// The table names each name once, at least 250 of them, and finds each under itself.
func TestTheTableOfNamesIsSound(t *testing.T) {
	names := map[string]bool{}
	for _, row := range table.Rows(namesCSV) {
		for _, name := range strings.Split(row[0], ";") {
			assert.False(t, names[name], "%s stands twice", name)
			names[name] = true
			got, err := NameOf(name, Artists)
			require.NoError(t, err)
			assert.True(t, got.Exact, "%s is taken for %s", name, got.As)
		}
	}
	assert.GreaterOrEqual(t, len(names), 250)
}

// Every name of a set as it is sold is found, and each set makes more than one hue.
func TestSetsAsTheyAreSoldAreFound(t *testing.T) {
	for _, set := range NamedSets() {
		_, err := ParseSold(string(set.Sold))
		require.NoError(t, err)
		families := map[string]bool{}
		for _, name := range set.Names {
			got, err := NameOf(name, set.Sold)
			require.NoError(t, err)
			require.NotEmpty(t, got.Found, "%s: %s", set.Name, name)
			assert.True(t, got.Exact, "%s: %s", set.Name, name)
			families[got.Found[0].Paints[0].Family] = true
		}
		assert.GreaterOrEqual(t, len(families), 3, set.Name)
	}
}

func TestNamesAreForgivenAndExplained(t *testing.T) {
	for _, c := range []struct {
		words, as, first string
		sold             Sold
		exact, notSure   bool
	}{
		{"PB15.3", "PB15:3", "PB15:3", Artists, true, false},
		{"C.I. pigment: pv 19", "PV19", "PV19-red", Artists, true, true},
		{"Burnt Sienna PBr7", "PBr7", "PBr7-burnt-sienna", Artists, true, false},
		{"PBr7", "PBr7", "PBr7-raw-umber", Artists, true, true},
		{"PG7, PY 150", "PG7 PY150", "PG7+PY150", Artists, true, false},
		{"  phthalo   BLUE (Green shade) ", "phthalo blue green shade", "PB15:3", Artists, true, false},
		{"alizarine crimsn", "alizarin crimson", "PR83", Artists, false, true},
		{"cadmium yellow", "cadmium yellow", "PY35", Artists, true, true},
		{"cadmium yellow", "cadmium yellow", "PY74", Students, true, false},
		{"permanent rose", "permanent rose", "PR122", Pans, true, false},
		{"dioxazine violet", "dioxazine violet", "PV23", Students, true, false},
	} {
		got, err := NameOf(c.words, c.sold)
		require.NoError(t, err, c.words)
		require.NotEmpty(t, got.Found, c.words)
		assert.Equal(t, c.as, got.As, c.words)
		assert.Equal(t, c.exact, got.Exact, c.words)
		assert.Equal(t, c.notSure, got.NotSure(), c.words)
		assert.True(t, slices.ContainsFunc(got.Found, func(b Behind) bool { return ids(b) == c.first }), "%s: %s", c.words, got.Found[0].Code())
		if !strings.HasPrefix(c.words, "P") && !strings.HasPrefix(c.words, "C") {
			assert.Equal(t, c.first, ids(got.Found[0]), c.words)
		}
	}
	for _, none := range []string{"phthalo red", "zzz", "cobalt magenta", "bicycle"} {
		got, err := NameOf(none, Artists)
		require.NoError(t, err)
		assert.Empty(t, got.Found, "%s is taken for %s", none, got.As)
		assert.Contains(t, got.Says, "look for a code on the label")
	}
	for _, wrong := range []string{"", "  ", strings.Repeat("a", 81), "a\x00b"} {
		_, err := NameOf(wrong, Artists)
		assert.ErrorAs(t, err, new(input.Error), "%q", wrong)
	}
	_, err := ParseSold("crates")
	assert.ErrorContains(t, err, "artists, students or pans")
}

func FuzzNameOf(f *testing.F) {
	for _, seed := range []string{"lemon yellow", "PB15.3", "cad. red med. hue", "pbr7 burnt", "é'’"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, words string) {
		got, err := NameOf(words, Students)
		if err != nil {
			assert.ErrorAs(t, err, new(input.Error))
			return
		}
		if len(got.Found) == 0 {
			assert.NotEmpty(t, got.Says)
		}
	})
}
