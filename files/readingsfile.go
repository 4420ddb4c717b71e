package files

import (
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
)

// ReadingRow is one reading of a file, and what is wrong with it.
type ReadingRow struct {
	Line    int
	Sample  journal.Sample
	Wet     bool
	Problem string // a sentence; empty when sound
}

// ReadReadings reads readings of painted mixtures from CSV with the columns parts (like
// "PY184=8 PB29=1"), L, a, b and state (wet or dry; dry where there is none). Their paints
// are found by find; what they stray by is that of a photo.
func ReadReadings(data []byte, in paint.Medium, find paint.Finder) (out []ReadingRow, err error) {
	table, err := readDelimited(data)
	if err != nil {
		return nil, err
	}
	at := table.columns()
	for _, name := range []string{"parts", "l", "a", "b"} {
		if _, there := at[name]; !there {
			return nil, input.Errorf("line %d: there is no column %q: readings have the columns parts, L, a, b and state", table.lines[0], name)
		}
	}
	for n, row := range table.rows[1:] {
		field := func(name string) string {
			if i, there := at[name]; there && i < len(row) {
				return row[i]
			}
			return ""
		}
		one := ReadingRow{Line: table.lines[n+1]}
		if one.Sample, one.Wet, err = readingOf(field, table, in, find); err != nil {
			one.Problem = input.Sentence(err).Error()
		}
		out = append(out, one)
	}
	if len(out) == 0 {
		return nil, input.Errorf("the file holds no readings below its first line")
	}
	return out, nil
}

// mostParts is how many paints a mixture of a file may have.
const mostParts = 24

func readingOf(field func(string) string, table delimited, in paint.Medium, find paint.Finder) (s journal.Sample, wet bool, err error) {
	texts := strings.Fields(field("parts"))
	if len(texts) == 0 || len(texts) > mostParts {
		return s, false, input.Errorf("the parts are like PY184=8 PB29=1, of 1 to %d paints", mostParts)
	}
	if s.Parts, err = paint.ParseParts(texts, find); err != nil {
		return s, false, err
	}
	if _, err := paint.Mix(s.Parts...); err != nil {
		return s, false, input.Wrap(err)
	}
	switch state := strings.ToLower(field("state")); state {
	case "", "dry":
	case "wet":
		wet = true
	default:
		return s, false, input.Errorf("the state is wet or dry, and not %q", input.Clip(state))
	}
	var lab [3]float64
	for k, name := range []string{"l", "a", "b"} {
		if lab[k], err = table.number(field(name)); err != nil {
			return s, wet, input.Errorf("%s: %w", strings.ToUpper(name), err)
		}
	}
	reading, err := paint.LabReading(colour.Lab{L: lab[0], A: lab[1], B: lab[2]}, paint.Photo, wet, in)
	if err != nil {
		return s, wet, input.Wrap(err)
	}
	s.Lab, s.Noise = reading.Lab, journal.NoiseOf(paint.Photo, 0)
	return s, wet, nil
}
