package files

import (
	"bytes"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/wheel"
)

// demo is the box of the made-up demo studio.
func demo(t testing.TB) (box []paint.Tube) {
	t.Helper()
	data, err := os.ReadFile("../studio/data/demo-box.json")
	require.NoError(t, err)
	rows, _, err := ReadBox(data)
	require.NoError(t, err)
	for _, r := range rows {
		require.Empty(t, r.Wrong, r.Where)
		box = append(box, r.Tube)
	}
	return box
}

func TestTheDemoBoxShowsEveryWayToMakeAPaint(t *testing.T) {
	box := demo(t)
	assert.Len(t, box, 14)
	made := map[string]bool{}
	for _, p := range box {
		made[string(p.Making)] = true
	}
	assert.Equal(t, map[string]bool{"": true, "label": true, "swatches": true, "adjusted": true}, made)
}

func TestABoxGoesOutAndComesBackTheSame(t *testing.T) {
	box := demo(t)
	seven := 7.5
	box[0].Nickname, box[0].Note, box[0].Price = "=SUM(A1)", "'quoted', with \"marks\"\nand a second line", &seven
	box[1].Archived = true
	for format, file := range map[string][]byte{"json": WriteBoxJSON(box), "csv": WriteBoxCSV(box), "csv with a byte order mark": append([]byte("\xef\xbb\xbf"), WriteBoxCSV(box)...)} {
		rows, notes, err := ReadBox(file)
		require.NoError(t, err, format)
		assert.Empty(t, notes, format)
		require.Len(t, rows, len(box), format)
		for i, r := range rows {
			require.Empty(t, r.Wrong, "%s, %s", format, r.Where)
			assert.Equal(t, box[i].TubeDetails, r.Tube.TubeDetails, "%s, %s", format, r.Where)
			assert.Equal(t, box[i].Library, r.Tube.Library)
			assert.InDeltaSlice(t, append(box[i].K, 0), append(r.Tube.K, 0), 1e-9, "%s, %s", format, r.Where)
			assert.InDeltaSlice(t, append(box[i].S, 0), append(r.Tube.S, 0), 1e-9)
			if format == "json" {
				assert.Equal(t, box[i].Origin, r.Tube.Origin, "JSON keeps the story of its making")
			}
		}
	}
	assert.Contains(t, string(WriteBoxCSV(box)), "'=SUM(A1)", "a spreadsheet does not run it")
	for _, cell := range []string{"", "plain", "=1+1", "'=1", "'", "-3", "''x", "@x"} {
		assert.Equal(t, cell, rearm(disarm(cell)), cell)
	}
}

func TestAHandWrittenCSVIsUnderstood(t *testing.T) {
	rows, notes, err := ReadBox([]byte("Pigment;Nickname;Grade;tube_ml;price;shelf\nPB29;night;Student;37;12,50;top\npb15:3;;;;;\n;;;;;\n"))
	require.NoError(t, err)
	require.Len(t, rows, 2)
	assert.Equal(t, []string{`the column "shelf" is not understood and left out`}, notes)
	assert.Equal(t, "line 2", rows[0].Where)
	assert.Equal(t, "student", rows[0].Tube.Grade)
	assert.Equal(t, 12.5, *rows[0].Tube.Price)
	assert.Equal(t, paint.Student.Strength(3), rows[0].Paint.Strength())
	assert.Equal(t, "PB15:3", rows[1].Tube.Library)
	assert.Equal(t, "artist", rows[1].Tube.Grade)
	rows, _, err = ReadBox([]byte("name\nultramarine blue\nno such paint\n"))
	require.NoError(t, err)
	assert.Equal(t, "PB29", rows[0].Tube.Library, "found by its name")
	assert.Contains(t, rows[1].Wrong, `no paint called "no such paint"`)
}

func TestEachWrongRowOfABoxSaysWhat(t *testing.T) {
	long := strings.Repeat("x", 81)
	for row, says := range map[string]string{
		"PX9,,,,,":                  `unknown paint "PX9"`,
		"PBr7,,,,,":                 "several paints",
		"PB29,,gold,,,":             `nknown grade "gold"`,
		"PB29,,,-4,,":               "a tube of -4 ml",
		"PB29,,,lots,,":             `"lots" is not a number`,
		"PB29,,,NaN,,":              "is not a number",
		"PB29,,,,1e9,":              "a price of",
		"PB29," + long + ",,,,":     "too long",
		"PB29,,,,,maybe":            "write yes or no",
		"\"PB29\",\"a\tb\x07\",,,,": "cannot be shown",
		",,,,,":                     "",
	} {
		rows, _, err := ReadBox([]byte("paint,nickname,grade,tube_ml,price,archived\n" + row + "\nPB60,,,,,\n"))
		require.NoError(t, err, row)
		if says == "" {
			assert.Len(t, rows, 1, "an empty line is no row")
			continue
		}
		assert.Contains(t, rows[0].Wrong, says, row)
		assert.Nil(t, rows[0].Paint)
		assert.Empty(t, rows[1].Wrong, "the next row stands by itself")
	}
}

func TestFilesThatAreNoBoxAreRefusedWhole(t *testing.T) {
	for file, says := range map[string]string{
		"":                         "empty",
		"\xff\xfe":                 "UTF-8",
		"paint\x00":                "zero bytes",
		"colour,price\nred,3\n":    "no column is called paint",
		"paint,paint\nPB29,PB29\n": "stands twice",
		"paint\n\"PB29\n":          "line 2",
		"{\"format\":\"x\"}":       "should be",
		"{\"format\":":             "not sound JSON",
		`{"format":"gyrophane-box","version":2,"paints":[]}`: "version 2",
		`{"format":"gyrophane-box","version":1,"paints":[]}`: "no paints",
		"paint\n":                            "no paints",
		strings.Repeat("x", MostFileBytes+1): "larger than",
		"paint\n" + strings.Repeat("PB29\n", mostRows+1): "more than",
		"paint\n" + strings.Repeat("x", longestField+1):  "longer than",
		strings.Repeat("a,", mostColumns+1) + "\n":       "columns",
	} {
		_, _, err := ReadBox([]byte(file))
		require.Error(t, err, "%.40q", file)
		assert.ErrorAs(t, err, new(input.Error))
		assert.Contains(t, err.Error(), says, "%.40q", file)
	}
	rows, _, err := ReadBox([]byte(`{"format":"gyrophane-box","version":1,"paints":[{"library":"PB29","colour":"x"},{"name":"n","k":[1],"s":[1],"made":"swatches"},{"library":3}]}`))
	require.NoError(t, err)
	assert.Contains(t, rows[0].Wrong, `unknown field "colour"`)
	assert.Contains(t, rows[1].Wrong, "36 values")
	assert.Contains(t, rows[2].Wrong, "cannot be understood")
}

func TestOnlySoManyPaintsOfAFileAreWorkedOut(t *testing.T) {
	paints := make([]paint.Tube, mostWorkedOut+1)
	for i := range paints {
		paints[i] = paint.Tube{Definition: paint.Definition{Name: "n", Origin: &paint.Origin{Kind: "label", Pigments: []string{"PB29"}}}}
	}
	rows, _, err := ReadBox(WriteBoxJSON(paints))
	require.NoError(t, err)
	assert.Empty(t, rows[mostWorkedOut-1].Wrong)
	assert.Contains(t, rows[mostWorkedOut].Wrong, "worked out")
}

func TestPaletteIsOneColourALine(t *testing.T) {
	p, err := paint.Find("PB29")
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(string(Palette("box\nof blue", []*paint.Paint{p}))), "\n")
	require.Len(t, lines, 6)
	assert.Equal(t, "GIMP Palette", lines[0])
	assert.Equal(t, "Name: box of blue", lines[1])
	assert.Regexp(t, `^  0 +\d+ +\d+\tPB29 ultramarine blue, masstone$`, lines[4])
}

func TestLibraryFiles(t *testing.T) {
	for _, format := range []string{"cgats", "csv", "gpl"} {
		file, err := LibraryFile(format)
		require.NoError(t, err)
		assert.Contains(t, string(file), "ultramarine")
	}
	file, err := LibraryFile("csv")
	require.NoError(t, err)
	rows, _, err := ReadBox(file)
	require.NoError(t, err)
	assert.Len(t, rows, len(paint.Library()))
	_, err = LibraryFile("doc")
	assert.ErrorContains(t, err, "choose cgats, sp, csv or gpl")
}

// paintWith does with a paint what a painter does: everything must come to a
// number.
func paintWith(t *testing.T, p *paint.Paint) {
	t.Helper()
	blue := painttest.Paint("PB29")
	m, err := paint.Mix(paint.Part{Paint: p, Parts: 1}, paint.Part{Paint: blue, Parts: 3})
	require.NoError(t, err)
	for _, mixture := range []paint.Mixture{p.Alone(), m} {
		u := mixture.Undertone()
		require.False(t, math.IsNaN(u.Chroma+u.WheelHue+u.Retention), "an undertone")
		for _, in := range paint.Media() {
			r := mixture.AsPainted(in, true)
			require.False(t, math.IsNaN(r.Lab().L+r.Lab().A+r.Lab().B), "a colour as painted")
		}
	}
	bias.LeanIn(p, bias.RoleAmong(p))
	for k := range 3 {
		roles := [3][]*paint.Paint{{painttest.Paint("PY184")}, {painttest.Paint("PR254")}, {painttest.Paint("PB29")}}
		roles[k] = append(roles[k], p)
		if s, err := wheel.NewSystem(wheel.OwnSystem, roles); err == nil {
			wheel.Build(s, wheel.Options{})
		}
	}
}

func TestExtremeCurvesAreRefusedWithTheRowAndTheBound(t *testing.T) {
	row := func(k, s float64) paint.Tube {
		return paint.Tube{Definition: paint.Definition{Name: "extreme", Making: paint.TwoSwatch, K: slices.Repeat([]float64{k}, colour.Bands), S: slices.Repeat([]float64{s}, colour.Bands)}}
	}
	box := []paint.Tube{row(0.5, 0.5)}
	for _, c := range []struct {
		k, s float64
		says string
	}{
		{0, 1e-16, "the scattering at 380 nm is 1e-16, and a paint has from 0.0001 to 100"},
		{1e-100, 9999, "the scattering at 380 nm is 9999, and a paint has from 0.0001 to 100"},
		{1001, 1, "the absorption at 380 nm is 1001, and a paint has from 0 to 1000"},
	} {
		rows, _, err := ReadBox(WriteBoxJSON(append(box, row(c.k, c.s))))
		require.NoError(t, err)
		assert.Empty(t, rows[0].Wrong)
		assert.Equal(t, "paint 2", rows[1].Where)
		assert.Contains(t, rows[1].Wrong, c.says)
		_, err = row(c.k, c.s).WithinBounds().Paint("tube-1", 1)
		assert.NoError(t, err, "what was kept before there were bounds opens still")
	}
	for _, edge := range [][2]float64{{0, paint.LeastScattering}, {paint.MostAbsorption, paint.LeastScattering}, {0, paint.MostScattering}, {paint.MostAbsorption, paint.MostScattering}} {
		p, err := row(edge[0], edge[1]).Paint("tube-1", 1)
		require.NoError(t, err)
		paintWith(t, p)
	}
}

func FuzzReadBox(f *testing.F) {
	box := demo(f)
	// Small files, with a paint of the library and one that has curves: a large one
	// takes so long that the fuzzer hardly moves.
	own := box[slices.IndexFunc(box, func(p paint.Tube) bool { return len(p.K) > 0 })]
	f.Add(WriteBoxCSV(box[:2]))
	f.Add(WriteBoxCSV([]paint.Tube{own}))
	f.Add(WriteBoxJSON([]paint.Tube{own}))
	for _, seed := range []string{"paint\nPB29", "paint;price\nPB29;1,5", "name,k380\nx,1", "{}", `{"format":"gyrophane-box","version":1,"paints":[{"name":"a","origin":{"kind":"label","pigments":["PB29"]}}]}`, "\xef\xbb\xbf", "\"", "paint\t\n=\t"} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, _, err := ReadBox(data)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		var sound []paint.Tube
		for _, r := range rows {
			require.Equal(t, r.Wrong == "", r.Paint != nil, r.Where)
			if r.Wrong == "" {
				sound = append(sound, r.Tube)
			}
		}
		if i := slices.IndexFunc(rows, func(r BoxRow) bool { return r.Paint != nil }); i >= 0 {
			paintWith(t, rows[i].Paint)
		}
		again, _, err := ReadBox(WriteBoxJSON(sound))
		if len(sound) == 0 {
			return
		}
		require.NoError(t, err)
		for i, r := range again {
			require.Empty(t, r.Wrong, "what was read and written is read again")
			require.True(t, bytes.Equal(WriteBoxJSON(sound[i:i+1]), WriteBoxJSON([]paint.Tube{r.Tube})), fmt.Sprint(i))
		}
	})
}
