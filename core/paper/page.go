// Package paper lays sheets out on pages, in millimetres: what stands where, for
// whatever prints or draws it.
package paper

import (
	"fmt"
	"strings"

	"gyrophane/core/input"
)

// Page is a sheet of paper and what stands on it, the first lowest.
type Page struct {
	W, H  float64 // mm
	Marks []Mark
}

// Mark is one thing on a page. Lengths are mm from the upper left corner; angles are
// degrees clockwise from the top.
type Mark struct {
	Kind MarkKind
	X, Y float64 // of a line its beginning, of a rectangle its corner, of text where its line of writing begins, ends or is centred, else the middle
	// X2 and Y2 are the end of a line; W and H the sides of a rectangle.
	X2, Y2, W, H float64
	// Inner, Outer, From and To are of a sector; Outer is the radius of a circle.
	Inner, Outer, From, To float64
	Points                 [][2]float64 // corners of a polygon
	Fill                   string       // "#rrggbb"; empty for none
	Stroke                 float64      // width of the outline or the line; 0 for none
	Grey                   float64      // of outline, line and text: 0 for black to 1 for white
	Text                   string
	Size                   float64 // of text, from line to line of its font
	Font                   Font
	Align                  Align
}

// MarkKind is what a mark is.
type MarkKind uint8

// The kinds of marks.
const (
	Line MarkKind = iota
	Rect
	Circle
	Sector
	Polygon
	Text
)

// Font is one of the three that text is set in.
type Font uint8

// Plain and bold for words, and a font for figures.
const (
	Plain Font = iota
	Bold
	Figures
)

// Align is which point of a text its place is.
type Align uint8

// A text begins, is centred, or ends at its place.
const (
	Start Align = iota
	Middle
	End
)

// Measure is how wide a text is in mm, set in a font of a size in mm.
type Measure func(text string, f Font, size float64) float64

// Box is the space that a text takes: left, top, right and bottom in mm.
type Box [4]float64

// Box is the space that a text takes as it is measured.
func (m Mark) Box(measure Measure) Box {
	w := measure(m.Text, m.Font, m.Size)
	left := m.X
	switch m.Align {
	case Middle:
		left -= w / 2
	case End:
		left -= w
	}
	return Box{left, m.Y - 0.75*m.Size, left + w, m.Y + 0.22*m.Size}
}

// Overlaps says that two boxes share some space.
func (b Box) Overlaps(c Box) bool {
	return b[0] < c[2] && c[0] < b[2] && b[1] < c[3] && c[1] < b[3]
}

// Format is a kind of paper, upright.
type Format struct {
	Name string
	W, H float64 // mm
}

// Formats are the kinds of paper there are.
var Formats = []Format{{"A4", 210, 297}, {"A5", 148, 210}, {"Letter", 215.9, 279.4}}

// ParseFormat reads a kind of paper. The error is an input.Error.
func ParseFormat(name string) (Format, error) {
	var names []string
	for _, f := range Formats {
		if strings.EqualFold(f.Name, name) {
			return f, nil
		}
		names = append(names, f.Name)
	}
	return Format{}, input.Errorf("unknown paper %q: choose %s", input.Clip(name), strings.Join(names, ", "))
}

// flat is the paper turned on its side.
func (f Format) flat() Format { return Format{f.Name + ", flat", f.H, f.W} }

func (p *Page) add(m Mark) { p.Marks = append(p.Marks, m) }

func (p *Page) text(x, y, size float64, f Font, a Align, grey float64, format string, v ...any) {
	p.add(Mark{Kind: Text, X: x, Y: y, Size: size, Font: f, Align: a, Grey: grey, Text: fmt.Sprintf(format, v...)})
}

func (p *Page) line(x, y, x2, y2, width, grey float64) {
	p.add(Mark{Kind: Line, X: x, Y: y, X2: x2, Y2: y2, Stroke: width, Grey: grey})
}
