// Package text holds the one rule for what a painter may write: names, notes,
// decisions. It may be anything that can be shown and read back.
package text

import (
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Unshowable is the first character of s that cannot be shown, and its place,
// counted in characters from 1: control characters, what turns the direction of
// writing, what has no width, and what is no character at all. A line end and a
// tab can be shown. The place is 0 when there is none.
func Unshowable(s string) (r rune, place int) {
	for i := 0; i < len(s); {
		r, size := utf8.DecodeRuneInString(s[i:])
		place++
		if !showable(r) {
			return r, place
		}
		i += size
	}
	return 0, 0
}

// showable: the graphic characters of Unicode, but for those that browsers draw
// as nothing, and line ends and tabs. Bytes that are no UTF-8 read as U+FFFD.
func showable(r rune) bool {
	switch r {
	case '\n', '\r', '\t':
		return true
	case utf8.RuneError, brailleBlank:
		return false
	}
	return unicode.IsGraphic(r) && !unicode.Is(unicode.Other_Default_Ignorable_Code_Point, r)
}

// brailleBlank is a sign of Braille with no dot in it: it looks like a blank and is none.
const brailleBlank = 0x2800

// Line is a text of one line without the blanks around it, or a sentence on
// what is wrong with it: what names the text ("the name of the wheel"), most is
// how many characters it may have. An empty text is a text.
func Line(what, s string, most int) (string, error) {
	s, err := Lines(what, s, most)
	if err == nil && strings.ContainsAny(s, "\n\t") {
		return "", fmt.Errorf("%s has one line: take the line ends and tabs out of it", what)
	}
	return s, err
}

// Lines is a text of any number of lines, as Line is one of a single line; line
// ends are written as a line feed alone.
func Lines(what, s string, most int) (string, error) {
	s = strings.ReplaceAll(strings.ReplaceAll(strings.TrimSpace(s), "\r\n", "\n"), "\r", "\n")
	if r, place := Unshowable(s); place > 0 {
		return "", fmt.Errorf("%s holds a character that cannot be shown (U+%04X, the %s): take it out", what, r, ordinal(place))
	}
	if n := utf8.RuneCountInString(s); n > most {
		return "", fmt.Errorf("%s is too long: it has %d characters, and at most %d find room", what, n, most)
	}
	return s, nil
}

// UpperFirst is s with its first letter, of whatever script, in upper case.
func UpperFirst(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	if size == 0 || r == utf8.RuneError {
		return s
	}
	return string(unicode.ToUpper(r)) + s[size:]
}

// Listed names several things: "a, b and c"; empty for none.
func Listed(names []string) string {
	if len(names) < 2 {
		return strings.Join(names, "")
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}

// Article is a word, in lower case, behind "a" or "an".
func Article(word string) string {
	if word != "" && strings.ContainsRune("aeio", rune(word[0])) {
		return "an " + word
	}
	return "a " + word
}

func ordinal(n int) string {
	ending := "th"
	if n%100 < 11 || n%100 > 13 {
		switch n % 10 {
		case 1:
			ending = "st"
		case 2:
			ending = "nd"
		case 3:
			ending = "rd"
		}
	}
	return fmt.Sprintf("%d%s", n, ending)
}

// Edits is how many letters must be put in, left out, changed or swapped with the next to make one word
// another [Damerau 1964; Levenshtein 1966]; most + 1 where that is more.
func Edits(a, b string, most int) int {
	if max(len(a), len(b))-min(len(a), len(b)) > most {
		return most + 1
	}
	before, last := make([]int, len(b)+1), make([]int, len(b)+1)
	for j := range last {
		last[j] = j
	}
	for i := 1; i <= len(a); i++ {
		row := make([]int, len(b)+1)
		row[0] = i
		for j := 1; j <= len(b); j++ {
			change := 1
			if a[i-1] == b[j-1] {
				change = 0
			}
			row[j] = min(last[j]+1, row[j-1]+1, last[j-1]+change)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				row[j] = min(row[j], before[j-2]+1)
			}
		}
		before, last = last, row
	}
	return min(last[len(b)], most+1)
}
