// Package files reads and writes the open formats in which things come into the
// house and leave it: bytes on one side, values of the core on the other.
package files

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"

	"gyrophane/core/input"
)

// Limits of the files that are read.
const (
	MostFileBytes = 2 << 20 // of a text file
	mostRows      = 2000
	mostColumns   = 200
	longestField  = 2000 // bytes
)

// textOf checks that a file is text of a bearable size, and takes off a byte
// order mark.
func textOf(data []byte) (string, error) {
	if len(data) == 0 {
		return "", input.Errorf("the file is empty")
	}
	if len(data) > MostFileBytes {
		return "", input.Errorf("the file is larger than %d MB, the most that is read", MostFileBytes>>20)
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	if !utf8.Valid(data) {
		return "", input.Errorf("the file is not UTF-8 text: save it as UTF-8 and try again")
	}
	if bytes.IndexByte(data, 0) >= 0 {
		return "", input.Errorf("the file holds zero bytes, so it is not text")
	}
	return string(data), nil
}

// delimited is a table from a CSV file, and how it is written.
type delimited struct {
	rows  [][]string
	lines []int // of the file, where each row begins
	comma bool  // numbers are written with a decimal comma
}

// readDelimited reads CSV with commas, semicolons or tabs between the fields,
// whichever the first line has most of.
func readDelimited(data []byte) (delimited, error) {
	text, err := textOf(data)
	if err != nil {
		return delimited{}, err
	}
	first, _, _ := strings.Cut(text, "\n")
	sep, most := ',', strings.Count(first, ",")
	for _, c := range ";\t" {
		if n := strings.Count(first, string(c)); n > most {
			sep, most = c, n
		}
	}
	out := delimited{comma: sep == ';'}
	r := csv.NewReader(strings.NewReader(text))
	r.Comma = sep
	r.FieldsPerRecord = -1
	r.TrimLeadingSpace = true
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			var at *csv.ParseError
			if errors.As(err, &at) {
				return delimited{}, input.Errorf("line %d: %s; check the quotation marks there", at.Line, strings.TrimPrefix(at.Err.Error(), "csv: "))
			}
			return delimited{}, input.Errorf("the file cannot be read as CSV: %w", err)
		}
		line, _ := r.FieldPos(0)
		if len(out.rows) > mostRows { // the first names the columns
			return delimited{}, input.Errorf("line %d: more than %d rows, the most that is read", line, mostRows)
		}
		if len(row) > mostColumns {
			return delimited{}, input.Errorf("line %d: %d columns, and at most %d are read", line, len(row), mostColumns)
		}
		empty := true
		for i, field := range row {
			row[i] = strings.TrimSpace(field)
			empty = empty && row[i] == ""
			if len(field) > longestField {
				return delimited{}, input.Errorf("line %d, column %d: the field is longer than %d characters", line, i+1, longestField)
			}
		}
		if !empty {
			out.rows = append(out.rows, row)
			out.lines = append(out.lines, line)
		}
	}
	if len(out.rows) == 0 {
		return delimited{}, input.Errorf("the file holds no rows")
	}
	return out, nil
}

// columns are where the first row names each column, in lower case; of two that are
// called the same the first.
func (d delimited) columns() map[string]int {
	at := map[string]int{}
	for i, name := range d.rows[0] {
		if _, twice := at[strings.ToLower(name)]; !twice {
			at[strings.ToLower(name)] = i
		}
	}
	return at
}

// number reads a figure; where fields are parted by semicolons the decimal
// comma is understood too.
func (d delimited) number(text string) (float64, error) {
	if d.comma && strings.Count(text, ",") == 1 && !strings.Contains(text, ".") {
		text = strings.Replace(text, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || v != v || v > 1e12 || v < -1e12 {
		return 0, fmt.Errorf("%q is not a number", input.Clip(text))
	}
	return v, nil
}

// A spreadsheet takes a field that begins with one of these for a formula, so
// such text leaves with an apostrophe before it, which is taken off again when
// it comes back.
const formulaSigns = "=+-@\t\r"

func disarm(text string) string {
	if text != "" && strings.ContainsRune(formulaSigns+"'", rune(text[0])) {
		return "'" + text
	}
	return text
}

func rearm(text string) string {
	if len(text) > 1 && text[0] == '\'' && strings.ContainsRune(formulaSigns+"'", rune(text[1])) {
		return text[1:]
	}
	return text
}
