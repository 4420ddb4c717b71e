package files

import (
	"bytes"
	"embed"
	"encoding/base64"
	"encoding/xml"
	"fmt"
	"math"
	"strings"
	"sync"

	"codeberg.org/go-pdf/fpdf"

	"gyrophane/core/paper"
)

// The fonts that papers are set in: Proza Libre and B612, under the SIL Open Font
// License 1.1.
//
//go:embed fonts/*.ttf
var fonts embed.FS

var fontFiles = map[paper.Font]string{paper.Plain: "proza-libre-400", paper.Bold: "proza-libre-600", paper.Figures: "b612-400"}

func fontFile(f paper.Font) []byte {
	b, err := fonts.ReadFile("fonts/" + fontFiles[f] + ".ttf")
	if err != nil {
		panic(err) // it is embedded
	}
	return b
}

// pdfOf is an empty document with the fonts.
func pdfOf(w, h float64) *fpdf.Fpdf {
	p := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: w, Ht: h}})
	p.SetMargins(0, 0, 0)
	p.SetAutoPageBreak(false, 0)
	for f, name := range fontFiles {
		p.AddUTF8FontFromBytes(name, "", fontFile(f))
	}
	return p
}

// pointsOf is a size in mm in points.
func pointsOf(mm float64) float64 { return mm / 25.4 * 72 }

// Measure is how wide papers' texts are; it may be used by several at a time.
func Measure() paper.Measure {
	var lock sync.Mutex
	p := pdfOf(100, 100)
	return func(text string, f paper.Font, size float64) float64 {
		lock.Lock()
		defer lock.Unlock()
		p.SetFont(fontFiles[f], "", pointsOf(size))
		return p.GetStringWidth(drawable(text, f))
	}
}

// PDF is pages as a PDF, their fonts embedded.
func PDF(title string, pages []paper.Page) ([]byte, error) {
	p := pdfOf(pages[0].W, pages[0].H)
	p.SetTitle(inTitle(title), true)
	p.SetCreator("Gyrophane", true)
	for _, page := range pages {
		p.AddPageFormat("", fpdf.SizeType{Wd: page.W, Ht: page.H})
		for _, m := range page.Marks {
			markPDF(p, m)
		}
	}
	var out bytes.Buffer
	if err := p.Output(&out); err != nil {
		return nil, fmt.Errorf("the PDF could not be written: %w", err)
	}
	return out.Bytes(), nil
}

func markPDF(p *fpdf.Fpdf, m paper.Mark) {
	grey := int(math.Round(255 * m.Grey))
	p.SetDrawColor(grey, grey, grey)
	p.SetLineWidth(max(m.Stroke, 0.01))
	style := ""
	if m.Fill != "" {
		var r, g, b int
		_, _ = fmt.Sscanf(m.Fill, "#%02x%02x%02x", &r, &g, &b) // it is written by the core
		p.SetFillColor(r, g, b)
		style = "F"
	}
	if m.Stroke > 0 {
		style += "D"
	}
	switch m.Kind {
	case paper.Line:
		p.Line(m.X, m.Y, m.X2, m.Y2)
	case paper.Rect:
		p.Rect(m.X, m.Y, m.W, m.H, style)
	case paper.Circle:
		p.Circle(m.X, m.Y, m.Outer, style)
	case paper.Sector, paper.Polygon:
		for n, at := range outline(m) {
			if n == 0 {
				p.MoveTo(at[0], at[1])
			} else {
				p.LineTo(at[0], at[1])
			}
		}
		p.ClosePath()
		p.DrawPath(style)
	case paper.Text:
		p.SetTextColor(grey, grey, grey)
		p.SetFont(fontFiles[m.Font], "", pointsOf(m.Size))
		x, text := m.X, drawable(m.Text, m.Font)
		switch w := p.GetStringWidth(text); m.Align {
		case paper.Middle:
			x -= w / 2
		case paper.End:
			x -= w
		}
		p.Text(x, m.Y, text)
	}
}

// outline are the corners of a polygon, or of a sector, its arcs by chords of half a degree, which
// stray by less than a hundredth of a mm from them.
func outline(m paper.Mark) (out [][2]float64) {
	if m.Kind == paper.Polygon {
		return m.Points
	}
	steps := int(math.Ceil((m.To - m.From) * 2))
	at := func(r float64, k int) [2]float64 {
		a := (m.From + (m.To-m.From)*float64(k)/float64(steps)) * math.Pi / 180
		return [2]float64{m.X + r*math.Sin(a), m.Y - r*math.Cos(a)}
	}
	for k := range steps + 1 {
		out = append(out, at(m.Outer, k))
	}
	for k := steps; k >= 0; k-- {
		out = append(out, at(m.Inner, k))
	}
	return out
}

// SVG is a page as an SVG in mm, its fonts within it.
func SVG(title string, page paper.Page) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g" text-rendering="geometricPrecision">`, page.W, page.H, page.W, page.H)
	fmt.Fprintf(&b, "<title>%s</title><style>", escaped(title))
	for _, f := range []paper.Font{paper.Plain, paper.Bold, paper.Figures} {
		fmt.Fprintf(&b, "@font-face{font-family:%s;src:url(data:font/ttf;base64,%s)}", fontFiles[f], base64.StdEncoding.EncodeToString(fontFile(f)))
	}
	b.WriteString(`</style><rect width="100%" height="100%" fill="#fff"/>`)
	for _, m := range page.Marks {
		markSVG(&b, m)
	}
	b.WriteString("</svg>\n")
	return []byte(b.String())
}

func escaped(s string) string {
	var b bytes.Buffer
	_ = xml.EscapeText(&b, []byte(s)) // a buffer takes all
	return b.String()
}

func markSVG(b *strings.Builder, m paper.Mark) {
	grey := int(math.Round(255 * m.Grey))
	ink := fmt.Sprintf("#%02x%02x%02x", grey, grey, grey)
	fill, stroke := "none", ""
	if m.Fill != "" {
		fill = m.Fill
	}
	if m.Stroke > 0 {
		stroke = fmt.Sprintf(` stroke="%s" stroke-width="%g"`, ink, m.Stroke)
	}
	switch m.Kind {
	case paper.Line:
		fmt.Fprintf(b, `<path d="M%.3f %.3f L%.3f %.3f"%s/>`, m.X, m.Y, m.X2, m.Y2, stroke)
	case paper.Rect:
		fmt.Fprintf(b, `<rect x="%.3f" y="%.3f" width="%.3f" height="%.3f" fill="%s"%s/>`, m.X, m.Y, m.W, m.H, fill, stroke)
	case paper.Circle:
		fmt.Fprintf(b, `<circle cx="%.3f" cy="%.3f" r="%.3f" fill="%s"%s/>`, m.X, m.Y, m.Outer, fill, stroke)
	case paper.Sector, paper.Polygon:
		b.WriteString(`<path d="`)
		for n, at := range outline(m) {
			command := "L"
			if n == 0 {
				command = "M"
			}
			fmt.Fprintf(b, "%s%.3f %.3f", command, at[0], at[1])
		}
		fmt.Fprintf(b, `Z" fill="%s"%s/>`, fill, stroke)
	case paper.Text:
		anchor := map[paper.Align]string{paper.Start: "start", paper.Middle: "middle", paper.End: "end"}[m.Align]
		fmt.Fprintf(b, `<text x="%.3f" y="%.3f" font-family="%s" font-size="%g" text-anchor="%s" fill="%s">%s</text>`, m.X, m.Y, fontFiles[m.Font], m.Size, anchor, ink, escaped(m.Text))
	}
}
