package files

import (
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font/sfnt"
	"golang.org/x/text/unicode/norm"

	"gyrophane/core/paper"
)

// plainMark stands for a character that the fonts have no glyph for.
const plainMark = '•'

// parsedFonts are the fonts that papers are set in, to be asked what they can draw.
var parsedFonts = sync.OnceValue(func() map[paper.Font]*sfnt.Font {
	out := map[paper.Font]*sfnt.Font{}
	for f := range fontFiles {
		font, err := sfnt.Parse(fontFile(f))
		if err != nil {
			panic(err) // it is embedded
		}
		out[f] = font
	}
	return out
})

// drawable is a text of which a font can draw every character: those that it cannot are
// plain marks, and accents that it cannot set fall away from their letters.
func drawable(text string, f paper.Font) string {
	font := parsedFonts()[f]
	var buffer sfnt.Buffer
	var out strings.Builder
	for _, r := range norm.NFC.String(text) {
		glyph, err := font.GlyphIndex(&buffer, r)
		switch {
		case err == nil && glyph != 0 && r <= 0xffff: // the PDF's fonts go no further
			out.WriteRune(r)
		case unicode.IsSpace(r):
			out.WriteRune(' ')
		case !unicode.In(r, unicode.Mn, unicode.Me):
			out.WriteRune(plainMark)
		}
	}
	return out.String()
}

// inTitle is a title as the head of a PDF takes it: whatever lies beyond U+FFFF is a plain
// mark.
func inTitle(title string) string {
	return strings.Map(func(r rune) rune {
		if r > 0xffff {
			return plainMark
		}
		return r
	}, title)
}
