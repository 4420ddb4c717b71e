package text_test

import (
	"fmt"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/text"
)

func TestWhatCanBeShownIsKept(t *testing.T) {
	for _, s := range []string{"", "Rock pool", "élan noir", "海の青", "رسام", "Ångström’s – “blue”", "a brush 🖌️", "one\ntwo\tthree", "no\u00a0break"} {
		kept, err := text.Lines("the note", s, 100)
		require.NoError(t, err, "%q", s)
		assert.Equal(t, s, kept)
	}
	kept, err := text.Lines("the note", "  one\r\ntwo\rthree \n", 100)
	require.NoError(t, err)
	assert.Equal(t, "one\ntwo\nthree", kept)
}

func TestWhatCannotBeShownIsRefusedAndNamed(t *testing.T) {
	for name, r := range map[string]rune{
		"NUL": 0, "bell": 7, "delete": 0x7f, "next line": 0x85, "right-to-left override": 0x202e, "isolate": 0x2066, "zero-width space": 0x200b,
		"zero-width joiner": 0x200d, "word joiner": 0x2060, "byte order mark": 0xfeff, "soft hyphen": 0xad, "line separator": 0x2028, "paragraph separator": 0x2029,
		"hangul filler": 0x3164, "half-width filler": 0xffa0, "private use": 0xe000, "unassigned": 0x0378, "no character": 0xfffe, "replacement": 0xfffd, "tag": 0xe0041, "Braille blank": 0x2800,
	} {
		_, err := text.Line("the name of the wheel", "ab"+string(r)+"c", 80)
		if assert.Error(t, err, name) {
			assert.Contains(t, err.Error(), fmt.Sprintf("the name of the wheel holds a character that cannot be shown (U+%04X, the 3rd)", r), name)
		}
	}
	_, place := text.Unshowable("ab\xff")
	assert.Equal(t, 3, place, "bytes that are no UTF-8")
}

func TestALineIsOneLineAndNotTooLong(t *testing.T) {
	_, err := text.Line("the name", "two\nlines", 80)
	assert.ErrorContains(t, err, "has one line")
	_, err = text.Line("the name", strings.Repeat("é", 81), 80)
	assert.EqualError(t, err, "the name is too long: it has 81 characters, and at most 80 find room")
	_, err = text.Line("the name", strings.Repeat("é", 80), 80)
	assert.NoError(t, err)
}

func TestAFirstLetterIsAWholeLetter(t *testing.T) {
	for from, want := range map[string]string{"": "", "élan noir": "Élan noir", "ultramarine": "Ultramarine", "ñ": "Ñ", "海": "海", "\xffx": "\xffx", "1:9": "1:9"} {
		assert.Equal(t, want, text.UpperFirst(from))
	}
}

func FuzzLines(f *testing.F) {
	for _, s := range []string{"Rock pool", "a\x00b", "\u202e", "\xff", " \r\n ", "🖌️"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		kept, err := text.Lines("it", s, 40)
		if err != nil {
			if !utf8.ValidString(err.Error()) {
				t.Fatalf("%q: %q", s, err)
			}
			return
		}
		again, err := text.Lines("it", kept, 40)
		if err != nil || again != kept || !utf8.ValidString(kept) || strings.Contains(kept, "\x00") {
			t.Fatalf("%q kept as %q, then %q, %v", s, kept, again, err)
		}
	})
}
