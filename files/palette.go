package files

import (
	"bytes"
	"fmt"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Palette writes paints as a GIMP palette: the undertone of each, and its
// masstone, in sRGB.
func Palette(name string, paints []*paint.Paint) []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "GIMP Palette\nName: %s\nColumns: 2\n#\n", oneLine(name))
	for _, p := range paints {
		m := p.Alone()
		mass := m.Masstone()
		for _, c := range []struct {
			what string
			o    colour.OKLab
		}{{"masstone", mass.OKLab(colour.D65)}, {"undertone", p.Undertone().Colour}} {
			paletteLine(&b, c.o, strings.TrimSpace(p.CI+" "+p.Name)+", "+c.what)
		}
	}
	return b.Bytes()
}

// paletteLine writes a colour of a palette.
func paletteLine(b *bytes.Buffer, c colour.OKLab, name string) {
	var red, green, blue uint8
	fmt.Sscanf(c.Screen().Hex, "#%02x%02x%02x", &red, &green, &blue)
	fmt.Fprintf(b, "%3d %3d %3d\t%s\n", red, green, blue, oneLine(name))
}

func oneLine(s string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' {
			return ' '
		}
		return r
	}, s)
}
