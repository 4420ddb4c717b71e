package files

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

func named(t *testing.T, name, kind string, ids ...string) reach.Named {
	t.Helper()
	roles, err := wheel.ParseRoles(ids)
	require.NoError(t, err)
	s, err := wheel.Selection{Kind: wheel.SystemKind(kind), Roles: roles}.System(paint.Find)
	require.NoError(t, err)
	return reach.Named{Name: name, System: s}
}

func TestAComparisonGoesOutAsAFile(t *testing.T) {
	in, err := paint.ParseMedium("acrylic")
	require.NoError(t, err)
	got, err := reach.SideBySide([]reach.Named{named(t, `=three <&> "quoted"`, "triad", "PY65", "PR254", "PB29"), named(t, "six", "split", "PY184", "PY65", "PR255", "PR122", "PB29", "PB15:3")}, in)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(ComparisonCSV(got, certainty.Usual))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, `'=three <&> "quoted"`, rows[1][0], "no spreadsheet takes it for a formula")
	assert.Equal(t, figure(got[1].Reach.Clean(), 4), rows[2][3])
	assert.Equal(t, figure(got[1].Reach[71], 4), rows[2][len(rows[2])-1])

	var svg struct {
		Paths []struct {
			Dash string `xml:"stroke-dasharray,attr"`
		} `xml:"path"`
		Texts []string `xml:"text"`
	}
	require.NoError(t, xml.Unmarshal(ComparisonSVG(got), &svg), "well-formed, whatever a system is called")
	assert.Len(t, svg.Paths, 4, "an outline and a key for each")
	assert.NotEqual(t, svg.Paths[0].Dash, svg.Paths[2].Dash)
	assert.Contains(t, strings.Join(svg.Texts, "\n"), `=three <&> "quoted": 2`)
}

func TestWantedColoursAreReadFromFiles(t *testing.T) {
	rows, err := ReadWanted([]byte("GIMP Palette\nName: pool\nColumns: 2\n#\n240 102  43\tstarfish orange\n 86 156 46\n300 0 0\tbeyond\nnonsense\n"))
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, WantedRow{Line: 5, Wanted: reach.Wanted{Name: "starfish orange", Colour: "#f0662b"}, Lab: rows[0].Lab}, rows[0])
	assert.Equal(t, "#f0662b", rows[0].Lab.OKLab().Screen().Hex)
	assert.Equal(t, "#569c2e", rows[1].Colour)
	assert.Contains(t, rows[2].Problem, "0 to 255")
	assert.Contains(t, rows[3].Problem, "0 to 255")

	rows, err = ReadWanted([]byte("\xef\xbb\xbfName;Hex;L;a;b\nkelp;#6e6228;;;\nstone;;43,5;-1,5;-6\nodd;teal;;;\nbare;;;;\n"))
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, "#6e6228", rows[0].Colour)
	assert.Equal(t, "43.5,-1.5,-6", rows[1].Colour, "a decimal comma")
	assert.Contains(t, rows[2].Problem, "is no screen colour")
	assert.Contains(t, rows[3].Problem, "no colour stands here")
	for says, file := range map[string]string{"is empty": "", "names no colours": "a,b\n1,2\n", "holds no colours": "GIMP Palette\n", "not UTF-8": "name,colour\n\xff\n"} {
		_, err := ReadWanted([]byte(file))
		assert.ErrorContains(t, err, says)
	}
}

func FuzzReadWanted(f *testing.F) {
	f.Add([]byte("GIMP Palette\nName: x\n1 2 3 a\n256 -1 0\n"))
	f.Add([]byte("name,colour\nkelp,#6e6228\n,\n"))
	f.Add([]byte("name;L;a;b\nx;1,5;2;3\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := ReadWanted(data)
		if err != nil {
			assert.ErrorAs(t, err, new(input.Error))
			return
		}
		for _, r := range rows {
			assert.NotEqual(t, r.Colour == "", r.Problem == "", "a colour, or what is wrong")
			if r.Colour != "" {
				assert.NoError(t, r.Wanted.Check(), "what is offered can be wanted")
			}
		}
	})
}
