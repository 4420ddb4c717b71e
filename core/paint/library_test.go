package paint

import (
	"encoding/csv"
	"os"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// numbers reads a test table: the id of each row and its numbers.
func numbers(t *testing.T, file string, skip int) map[string][]float64 {
	t.Helper()
	f, err := os.Open(file)
	require.NoError(t, err)
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	require.NoError(t, err)
	out := map[string][]float64{}
	for _, row := range rows[1:] {
		for _, field := range row[skip:] {
			if field == "table" || field == "us" {
				continue // who says so
			}
			v, err := strconv.ParseFloat(field, 64)
			require.NoError(t, err)
			out[row[0]] = append(out[row[0]], v)
		}
	}
	return out
}

func TestLibraryHoldsEveryPaint(t *testing.T) {
	assert.Len(t, Library(), 72)
	assert.NotEmpty(t, LibraryVersion())
	seen := map[string]bool{}
	for _, p := range Library() {
		assert.False(t, seen[p.ID], p.ID)
		seen[p.ID] = true
		assert.NotEmpty(t, p.Name, p.ID)
		assert.Contains(t, []string{"opaque", "semi", "transparent"}, p.Hiding, p.ID)
		assert.Contains(t, []string{"yellow", "orange", "red", "magenta", "violet", "blue", "cyan", "green", "earth", "black", "white"}, p.Family, p.ID)
		assert.InDelta(t, 3, p.StrengthClass, 2, p.ID)
		assert.NotEmpty(t, p.Caution, p.ID)
		assert.Equal(t, 1.0, p.Strength(), p.ID)
	}
}

// The tables are of the library that firstVersion names: of those that were refitted
// since, it had other curves.
const firstVersion = "2026.1"

func TestParametersGiveTheTabulatedSpectra(t *testing.T) {
	for id, want := range numbers(t, "testdata/spectra.csv", 3) {
		p, err := FindOf(id, firstVersion)
		require.NoError(t, err)
		for i := range colour.Bands {
			assert.InEpsilon(t, want[i], p.alone.k[i], 1e-5, "%s K at %v nm", id, colour.NM(i))
			assert.InEpsilon(t, want[colour.Bands+i], p.alone.s[i], 1e-5, "%s S at %v nm", id, colour.NM(i))
		}
	}
}

func TestMasstoneAndTintAsTabulated(t *testing.T) {
	rows := numbers(t, "testdata/expected.csv", 1)
	require.Len(t, rows, 51)
	for id, want := range rows {
		p, err := FindOf(id, firstVersion)
		require.NoError(t, err)
		tint, err := Mix(Part{p, 1}, Part{titanium, 9})
		require.NoError(t, err)
		for i, m := range []Mixture{p.Alone(), tint} {
			s := m.Masstone()
			lab := s.Lab()
			assert.InDelta(t, want[3*i], lab.L, 0.1, "%s L*", id)
			assert.InDelta(t, want[3*i+1], lab.A, 0.1, "%s a*", id)
			assert.InDelta(t, want[3*i+2], lab.B, 0.1, "%s b*", id)
		}
	}
}

// Masstones of what was fitted since the first library lie near the draw-downs of their class: dry,
// satin. The dark transparent ones stay darker than their class is measured, for they cannot scatter
// more and be transparent.
func TestMasstonesLieNearTheDrawDownsOfTheirClass(t *testing.T) {
	rows := numbers(t, "testdata/drawdowns.csv", 1)
	require.Len(t, rows, 29)
	for id, want := range rows {
		p := find(t, id)
		aimed := colour.Lab{L: want[0], A: want[1], B: want[2]}
		s := p.alone.Opaque(surface("satin"))
		is := s.Lab()
		assert.LessOrEqual(t, colour.Difference(aimed, is), 5.0, "%s: %.1f, aimed at %.1f", id, is, aimed)
	}
}

// One scale of strength: the 1:9 tint of every coloured paint and black lies near what its class looks
// like there (acrylic, dry), and its masstone where it was.
func TestTintsLieOnOneScaleOfStrength(t *testing.T) {
	rows := numbers(t, "testdata/tints.csv", 1)
	require.Len(t, rows, 69)
	in := acrylic(t)
	var off []float64
	for _, p := range Library() {
		if p.Family == "white" || p.ID == "blue-grey" {
			continue
		}
		want := rows[p.ID]
		require.Len(t, want, 3, p.ID)
		aimed := colour.Lab{L: want[0], A: want[1], B: want[2]}
		tint := p.alone.LetDown(TintShare)
		s := tint.AsPainted(in, false)
		is := s.Lab()
		de := colour.Difference(aimed, is)
		assert.LessOrEqual(t, de, 5.0, "%s: %.1f, aimed at %.1f", p.ID, is, aimed)
		off = append(off, de)

		before, err := FindOf(p.ID, "2026.3")
		require.NoError(t, err)
		now, then := p.alone.Masstone(), before.alone.Masstone()
		assert.LessOrEqual(t, colour.Difference(then.Lab(), now.Lab()), 3.0, "%s: its masstone", p.ID)
	}
	slices.Sort(off)
	assert.Less(t, off[len(off)/2], 2.5, "the median")
}

func TestTheHidingOfAPaintIsThatOfItsFilm(t *testing.T) {
	for _, p := range Library() {
		if p.ID != "blue-grey" { // hides by the black in it
			assert.Equal(t, hidingOf(&p.alone), p.Hiding, p.ID)
		}
	}
}

func TestAPaintAsTheLibraryOnceHadIt(t *testing.T) {
	for _, c := range []struct {
		id, version string
		another     bool
	}{
		{"PB27", "2026.2", true}, {"pb27", "2026.1", true}, {"PB27", LibraryVersion(), false}, {"PB27", "", false}, {"PB27", "1066.1", false},
		{"PB29", "2026.3", true}, {"PB27", "2026.3", true}, {"blue-grey", "2026.3", true}, {"PW6", "2026.1", false}, {"PO48", "2026.3", false},
	} {
		then, err := FindOf(c.id, c.version)
		require.NoError(t, err)
		now := find(t, c.id)
		assert.Equal(t, c.another, then.Fingerprint() != now.Fingerprint(), c)
		assert.Equal(t, now.Name, then.Name)
		assert.Positive(t, then.Undertone().Chroma)
	}
	_, err := FindOf("PX999", "2026.2")
	assert.Error(t, err)
}

func TestBlueGreyIsTheMixtureItSays(t *testing.T) {
	p, err := Find("blue-grey")
	require.NoError(t, err)
	want := mix(t, "PB29", 3, "PBk9", 2)
	is := p.Alone()
	assert.Equal(t, want.K(), is.K())
	assert.Equal(t, want.S(), is.S())
	assert.False(t, want.Neutral(), "there is a blue in it")
}

func TestFind(t *testing.T) {
	for _, id := range []string{"PB15:3", "pb15:3", " PB15:3 "} {
		p, err := Find(id)
		require.NoError(t, err)
		assert.Equal(t, "PB15:3", p.ID)
	}
	_, err := Find("PBr7")
	assert.ErrorContains(t, err, "PBr7-raw-umber", "one Colour Index name, several paints")
	_, err = Find("PX999")
	assert.ErrorContains(t, err, `unknown paint "PX999"`)
	_, err = Find("")
	assert.Error(t, err)
}

func TestReadLibraryRefusesWhatNoPaintCanBe(t *testing.T) {
	for name, text := range map[string]string{
		"not JSON":             `paints`,
		"no scattering":        `{"paints":[{"id":"X","params":{"k_floor":1,"s550":0,"s_power":1}}]}`,
		"negative absorption":  `{"paints":[{"id":"X","params":{"k_floor":-1,"s550":1,"s_power":1}}]}`,
		"mixture of nobody":    `{"paints":[{"id":"X","mixture":[{"paint":"Y","parts":1}]}]}`,
		"mixture with 0 parts": `{"paints":[{"id":"Y","params":{"k_floor":1,"s550":1,"s_power":1}},{"id":"X","mixture":[{"paint":"Y","parts":0}]}]}`,
	} {
		_, err := readLibrary([]byte(text))
		assert.Error(t, err, name)
	}
}
