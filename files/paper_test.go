package files_test

import (
	"encoding/xml"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/paper"
	"gyrophane/files"
)

func run(t *testing.T, name string, args ...string) string {
	t.Helper()
	out, err := exec.Command(name, args...).CombinedOutput()
	require.NoError(t, err, "%s: %s", name, out)
	return string(out)
}

func pages() []paper.Page {
	p := paper.Page{W: 210, H: 297, Marks: []paper.Mark{
		{Kind: paper.Sector, X: 105, Y: 120, Inner: 35, Outer: 70, From: -15, To: 15, Fill: "#e06010", Stroke: 0.25},
		{Kind: paper.Circle, X: 105, Y: 120, Outer: 10, Stroke: 0.25},
		{Kind: paper.Rect, X: 20, Y: 200, W: 40, H: 20, Fill: "#112233"},
		{Kind: paper.Line, X: 20, Y: 20, X2: 70, Y2: 20, Stroke: 0.6},
		{Kind: paper.Text, X: 20, Y: 30, Size: 4, Font: paper.Bold, Text: `yellow-green <é> "&"`},
		{Kind: paper.Text, X: 105, Y: 40, Size: 3, Align: paper.Middle, Text: "PY184 + PB15:3"},
		{Kind: paper.Text, X: 190, Y: 50, Size: 3, Font: paper.Figures, Align: paper.End, Text: "13 : 1"},
	}}
	return []paper.Page{p, {W: 148, H: 210, Marks: p.Marks[4:5]}}
}

func TestAPDFIsSoundAndHasItsFonts(t *testing.T) {
	body, err := files.PDF("Rock pool", pages())
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, body, 0o600))
	run(t, "qpdf", "--check", file)
	info := run(t, "pdfinfo", "-f", "1", "-l", "2", file)
	assert.Contains(t, info, "Pages:           2")
	assert.Contains(t, info, "595.28 x 841.89")
	assert.Contains(t, info, "419.53 x 595.28")
	fonts := strings.Split(strings.TrimSpace(run(t, "pdffonts", file)), "\n")[2:]
	assert.Len(t, fonts, 3)
	for _, f := range fonts {
		assert.Contains(t, f, "yes", "embedded: %s", f)
	}
	text := run(t, "pdftotext", file, "-")
	assert.Contains(t, text, `yellow-green <é> "&"`)
	assert.Contains(t, text, "13 : 1")
}

func TestAnSVGIsInMillimetresAndWellFormed(t *testing.T) {
	body := string(files.SVG(`Rock <pool>`, pages()[0]))
	assert.Contains(t, body, `width="210mm" height="297mm" viewBox="0 0 210 297"`)
	d := xml.NewDecoder(strings.NewReader(body))
	var texts []string
	for {
		token, err := d.Token()
		if err == io.EOF {
			break
		}
		require.NoError(t, err)
		if c, ok := token.(xml.CharData); ok {
			texts = append(texts, string(c))
		}
	}
	assert.Contains(t, texts, `yellow-green <é> "&"`)
	assert.Contains(t, texts, "Rock <pool>")
}

func TestTextsAreMeasured(t *testing.T) {
	m := files.Measure()
	assert.Greater(t, m("yellow-orange", paper.Bold, 4), m("yellow-orange", paper.Plain, 4))
	assert.InDelta(t, 2*m("red", paper.Plain, 3), m("red", paper.Plain, 6), 0.01)
	assert.Zero(t, m("", paper.Figures, 3))
}
