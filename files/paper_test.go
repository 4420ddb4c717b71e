package files_test

import (
	"context"
	"encoding/xml"
	"errors"
	"image"
	"image/png"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"unicode"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/paper"
	"gyrophane/core/photo"
	"gyrophane/core/recipe/recipetest"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
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
	said := run(t, "pdftotext", file, "-")
	assert.Contains(t, said, `yellow-green <é> "&"`)
	assert.Contains(t, said, "13 : 1")
}

// Whatever a painter may write is printed, drawn or as a plain mark, and the file is sound.
func TestAnyTextPrints(t *testing.T) {
	var all strings.Builder
	for r := range rune(unicode.MaxRune) {
		if _, place := text.Unshowable(string(r)); place == 0 && (r < 0x3000 || r%97 == 0) {
			all.WriteRune(r)
		}
	}
	every := []rune(all.String())
	page := paper.Page{W: 210, H: 297}
	for n := 0; n < len(every); n += 80 {
		line := string(every[n:min(len(every), n+80)])
		for _, f := range []paper.Font{paper.Plain, paper.Bold, paper.Figures} {
			page.Marks = append(page.Marks, paper.Mark{Kind: paper.Text, X: 20, Y: 100, Size: 3, Font: f, Text: line})
			assert.GreaterOrEqual(t, files.Measure()(line, f, 3), 0.0)
		}
	}
	say := paper.Mark{Kind: paper.Text, X: 20, Y: 30, Size: 4, Text: "starfish 🌊🖌️ cafe\u0301 海"}
	page.Marks = append(page.Marks, say)
	body, err := files.PDF("Low water 🌊", []paper.Page{page})
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, body, 0o600))
	run(t, "qpdf", "--check", file)
	assert.Contains(t, run(t, "pdftotext", file, "-"), "starfish •• café •")
	assert.Contains(t, run(t, "pdfinfo", file), "Low water •")
	alone, err := files.PDF("alone", []paper.Page{{W: 100, H: 100, Marks: []paper.Mark{say}}})
	require.NoError(t, err)
	assert.NotEmpty(t, alone)
}

// The recipes that a PDF of a plan, of a sheet and of cards holds, read back from the file
// and mixed, come where the plan does.
func TestAPrintedPlanReadBackMixesTrue(t *testing.T) {
	for name, of := range map[string]struct {
		kind  wheel.SystemKind
		roles [3][]*paint.Paint
	}{
		"triad": {wheel.RYB, [3][]*paint.Paint{painttest.Paints("PY74"), painttest.Paints("PR254"), painttest.Paints("PB29")}},
		"split": {wheel.Split, [3][]*paint.Paint{painttest.Paints("PY184", "PY65"), painttest.Paints("PR255", "PR122"), painttest.Paints("PB29", "PB15:3")}},
	} {
		system, err := wheel.NewSystem(of.kind, of.roles)
		require.NoError(t, err)
		paints := slices.Concat(of.roles[:]...)
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 120, Fill: bench.OwnPiles}.Complete()
		require.NoError(t, err)
		sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		for _, as := range []string{"plan", "sheet", "cards"} {
			laid, err := paper.Sheet(plan, paper.Options{Format: paper.Formats[0], As: as, Recipes: "dabs", Title: "Low water"}, files.Measure())
			require.NoError(t, err)
			body, err := files.PDF("Low water", laid)
			require.NoError(t, err)
			file := filepath.Join(t.TempDir(), "plan.pdf")
			require.NoError(t, os.WriteFile(file, body, 0o600))
			printed := run(t, "pdftotext", "-raw", file, "-")
			for i := range sheet.Regions {
				region := &sheet.Regions[i]
				if len(region.Recipe) < 2 {
					continue
				}
				got, err := recipetest.Read{}, errors.New("its label is not there")
				lines := strings.Split(printed, "\n")
				label := regexp.MustCompile(`(?:^|[^a-z-])` + region.Label + `(?:\s|$)`)
				for n, line := range lines {
					at := label.FindStringIndex(line)
					if at == nil || err == nil {
						continue
					}
					behind := line[at[1]:] + " " + strings.Join(lines[n+1:min(len(lines), n+4)], " ")
					if as == "cards" { // the paints stand between
						_, behind, _ = strings.Cut(behind, region.Parents)
					}
					got, err = recipetest.Short(behind, set.Scale)
				}
				if err != nil && as == "cards" { // no room in short: its steps stand there whole
					whole := strings.Join(strings.Fields(printed), " ")
					for _, step := range plan.Counted[i].Lines() {
						assert.Contains(t, whole, step, "%s as %s: %s", name, as, region.Label)
					}
					continue
				}
				require.NoError(t, err, "%s as %s: %s", name, as, region.Label)
				mixed, err := paint.Mix(recipetest.Pile(got.Into, paints)...)
				require.NoError(t, err)
				is, planned := mixed.BrushedOut(), plan.Counted[i].Mixture.BrushedOut()
				assert.Less(t, colour.Difference(is.Lab(), planned.Lab()), 0.05, "%s as %s: %s", name, as, region.Label)
			}
		}
	}
}

// onPage are the paths of a PDF's pages: their points in mm from the upper left corner.
func onPage(t *testing.T, file string, high float64) (out [][][2]float64) {
	t.Helper()
	plain := file + ".plain"
	run(t, "qpdf", "--qdf", "--stream-data=uncompress", "--object-streams=disable", file, plain)
	body, err := os.ReadFile(plain)
	require.NoError(t, err)
	var path [][2]float64
	for _, line := range strings.Split(string(body), "\n") {
		words := strings.Fields(line)
		for n, w := range words {
			if (w == "m" || w == "l") && n >= 2 {
				x, errX := strconv.ParseFloat(words[n-2], 64)
				y, errY := strconv.ParseFloat(words[n-1], 64)
				require.NoError(t, errors.Join(errX, errY), line)
				if w == "m" && len(path) > 0 {
					out, path = append(out, path), nil
				}
				path = append(path, [2]float64{x / 72 * 25.4, high - y/72*25.4})
			}
		}
	}
	return append(out, path)
}

// The wheel and the bar are as large as they are said to be, in the file itself.
func TestAWheelAndTheBarMeasureTrueInThePDF(t *testing.T) {
	system := triad(t)
	for _, c := range []struct {
		paper    string
		flat     bool
		diameter float64
	}{{"A4", false, 140}, {"A4", true, 120}, {"A5", false, 100}, {"Letter", false, 150}} {
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: c.diameter, Fill: bench.OwnPiles}.Complete()
		require.NoError(t, err)
		sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		format, err := paper.ParseFormat(c.paper)
		require.NoError(t, err)
		laid, err := paper.Sheet(plan, paper.Options{Format: format, Flat: c.flat, Title: "Low water"}, files.Measure())
		require.NoError(t, err)
		body, err := files.PDF("Low water", laid)
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), "wheel.pdf")
		require.NoError(t, os.WriteFile(file, body, 0o600))
		run(t, "qpdf", "--check", file)
		wide, high := format.W, format.H
		if c.flat {
			wide, high = high, wide
		}
		left, right, bars := wide, 0.0, 0
		for _, path := range onPage(t, file, high) {
			if len(path) == 2 && path[0][1] == path[1][1] && math.Abs(math.Abs(path[1][0]-path[0][0])-50) < 0.02 {
				bars++
			}
			if len(path) > 20 { // a sector
				for _, at := range path {
					left, right = min(left, at[0]), max(right, at[0])
				}
			}
		}
		assert.GreaterOrEqual(t, bars, 1, c.paper)
		assert.InDelta(t, c.diameter, right-left, 0.02, c.paper)
	}
}

// The marks that are printed are those that a photo is read by, whatever else stands on
// the page.
// triad is a yellow, a red and a blue.
func triad(t *testing.T) wheel.System {
	t.Helper()
	var roles [3][]*paint.Paint
	for k, id := range []string{"PY65", "PR254", "PB29"} {
		p, err := paint.Find(id)
		require.NoError(t, err)
		roles[k] = []*paint.Paint{p}
	}
	system, err := wheel.NewSystem(wheel.RYB, roles)
	require.NoError(t, err)
	return system
}

func TestThePrintedMarksAreFound(t *testing.T) {
	for _, kind := range []string{"wheel", "values", "guide", "warmcool", "worksheet", "glazes"} {
		system := triad(t)
		format, err := paper.ParseFormat("A4")
		require.NoError(t, err)
		o := paper.Options{Format: format, Edition: map[bool]paper.Edition{true: paper.Aimed}[kind != "wheel"], Title: "Low water"}
		set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 120, Fill: bench.OwnPiles}.Complete()
		require.NoError(t, err)
		sheet, err := bench.Which{Kind: bench.SheetKind(kind), Slot: 2, Width: o.Wide()}.Of(wheel.Build(system, wheel.Options{ShadeBy: wheel.ByComplement}), bench.Material{}, bench.Extras{Neutral: true, Tints: 1}, set)
		require.NoError(t, err)
		plan, err := bench.Sketch(&sheet, set)
		require.NoError(t, err)
		laid, err := paper.Sheet(plan, o, files.Measure())
		require.NoError(t, err)
		body, err := files.PDF("Low water", laid)
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), "sheet.pdf")
		require.NoError(t, os.WriteFile(file, body, 0o600))
		run(t, "pdftoppm", "-r", "120", "-f", "1", "-l", "1", "-singlefile", "-png", file, strings.TrimSuffix(file, ".pdf"))
		data, err := os.ReadFile(strings.TrimSuffix(file, ".pdf") + ".png")
		require.NoError(t, err)
		picture, err := files.ReadPhoto(context.Background(), data)
		require.NoError(t, err)
		p := picture.Picture()
		found, err := photo.FindMarks(&p, &sheet)
		require.NoError(t, err, kind)
		n := 0
		for _, m := range laid[0].Marks {
			if m.Kind == paper.Circle && m.Outer == bench.MarkRadius {
				assert.InDelta(t, m.X/25.4*120, found[n][0], 1, "%s %d", kind, n)
				assert.InDelta(t, m.Y/25.4*120, found[n][1], 1, "%s %d", kind, n)
				n++
			}
		}
		assert.Equal(t, 4, n)
	}
}

// The code of a round is read off a printed blank by a camera.
func TestThePrintedCodeIsRead(t *testing.T) {
	const address = "https://gyrophane.a-school.example:8443/together#ABCDEFGHIJKLMNOPQRSTUVWXYZ"
	code, err := files.QRCode(address)
	require.NoError(t, err)
	system := triad(t)
	set, err := bench.Settings{Medium: paint.Media()[1], Diameter: 120, Fill: bench.OwnPiles}.Complete()
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, set)
	plan, err := bench.Sketch(&sheet, set)
	require.NoError(t, err)
	for _, format := range paper.Formats {
		laid, err := paper.Sheet(plan, paper.Options{Format: format, Edition: paper.Blank, Title: strings.Repeat("Low water ", 6), Code: code}, files.Measure())
		require.NoError(t, err)
		body, err := files.PDF("Low water", laid)
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), "sheet.pdf")
		require.NoError(t, os.WriteFile(file, body, 0o600))
		run(t, "pdftoppm", "-r", "400", "-f", "1", "-l", "1", "-singlefile", "-png", file, strings.TrimSuffix(file, ".pdf"))
		page, err := os.Open(strings.TrimSuffix(file, ".pdf") + ".png")
		require.NoError(t, err)
		picture, err := png.Decode(page)
		require.NoError(t, page.Close())
		require.NoError(t, err)
		corner := picture.Bounds() // a camera is held at it
		corner.Min.X, corner.Max.Y = corner.Max.X-40*16, 35*16
		bitmap, err := gozxing.NewBinaryBitmapFromImage(picture.(interface {
			SubImage(r image.Rectangle) image.Image
		}).SubImage(corner))
		require.NoError(t, err)
		read, err := qrcode.NewQRCodeReader().Decode(bitmap, nil)
		require.NoError(t, err, format.Name)
		assert.Equal(t, address, read.GetText())
	}
	_, err = files.QRCode(strings.Repeat("long ", 1000))
	assert.ErrorAs(t, err, new(input.Error))
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
