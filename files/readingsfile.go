package files

import (
	"slices"
	"strings"

	"gyrophane/core/bench"
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
	err = eachReading(data, "parts", func(line int, table delimited, field func(string) string) {
		one := ReadingRow{Line: line}
		var err error
		if one.Sample, one.Wet, err = readingOf(field, table, in, find); err != nil {
			one.Problem = input.Sentence(err).Error()
		}
		out = append(out, one)
	})
	return out, err
}

// eachReading calls each with the readings of a table, whose columns are one that says what
// was read, L, a, b and what else there is. The error is an input.Error.
func eachReading(data []byte, first string, each func(line int, table delimited, field func(name string) string)) error {
	table, err := readDelimited(data)
	if err != nil {
		return err
	}
	at := table.columns()
	for _, name := range []string{first, "l", "a", "b"} {
		if _, there := at[name]; !there {
			return input.Errorf("line %d: there is no column %q: the columns are %s, L, a, b and state", table.lines[0], name, first)
		}
	}
	if len(table.rows) < 2 {
		return input.Errorf("the file holds no readings below its first line")
	}
	for n, row := range table.rows[1:] {
		each(table.lines[n+1], table, func(name string) string {
			if i, there := at[name]; there && i < len(row) {
				return row[i]
			}
			return ""
		})
	}
	return nil
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
	if wet, err = wetOf(field); err != nil {
		return s, false, err
	}
	reading, err := labReadingOf(field, table, in, wet, paint.Photo)
	if err != nil {
		return s, wet, err
	}
	s.Lab, s.Noise = reading.Lab, journal.NoiseOf(paint.Photo, 0)
	return s, wet, nil
}

// wetOf reads the state of a reading: dry where there is none.
func wetOf(field func(string) string) (bool, error) {
	switch state := strings.ToLower(field("state")); state {
	case "", "dry":
		return false, nil
	case "wet":
		return true, nil
	default:
		return false, input.Errorf("the state is wet or dry, and not %q", input.Clip(state))
	}
}

// labReadingOf reads L, a and b.
func labReadingOf(field func(string) string, table delimited, in paint.Medium, wet bool, source paint.Source) (paint.Reading, error) {
	var lab [3]float64
	for k, name := range []string{"l", "a", "b"} {
		var err error
		if lab[k], err = table.number(field(name)); err != nil {
			return paint.Reading{}, input.Errorf("%s: %w", strings.ToUpper(name), err)
		}
	}
	reading, err := paint.LabReading(colour.Lab{L: lab[0], A: lab[1], B: lab[2]}, source, wet, in)
	if err != nil {
		return paint.Reading{}, input.Wrap(err)
	}
	return reading, nil
}

// SlotRow is a reading of one place of a sheet, and what is wrong with it.
type SlotRow struct {
	Line    int
	Slot    string // as the file has it
	Region  int    // of the sheet; -1 where there is none of that name
	Reading journal.Reading
	Problem string // a sentence; empty when sound
}

// ReadSlots reads readings of a sheet's places from CSV with the columns slot (the id of a
// place, or its label), L, a, b and, where they are there, state (wet or dry; dry where
// there is none), source (eye, photo or instrument; instrument where there is none), spread
// and doubt.
func ReadSlots(data []byte, sheet *bench.Sheet, in paint.Medium) (out []SlotRow, err error) {
	err = eachReading(data, "slot", func(line int, table delimited, field func(string) string) {
		one := SlotRow{Line: line, Slot: rearm(field("slot")), Region: -1}
		if err := one.read(field, table, sheet, in); err != nil {
			one.Problem = input.Sentence(err).Error()
		}
		out = append(out, one)
	})
	return out, err
}

func (one *SlotRow) read(field func(string) string, table delimited, sheet *bench.Sheet, in paint.Medium) error {
	one.Region = slices.IndexFunc(sheet.Regions, func(r bench.Region) bool {
		return strings.EqualFold(r.ID, one.Slot) || strings.EqualFold(r.Label, one.Slot)
	})
	if one.Region < 0 {
		return input.Errorf("there is no place %q on the sheet", input.Clip(one.Slot))
	}
	wet, err := wetOf(field)
	if err != nil {
		return err
	}
	source := paint.Instrument
	if said := strings.ToLower(field("source")); said != "" {
		if source = paint.Source(said); !slices.Contains(paint.Sources, source) {
			return input.Errorf("the source is eye, photo or instrument, and not %q", input.Clip(said))
		}
	}
	one.Reading = journal.Reading{Region: sheet.Regions[one.Region].ID, Doubt: rearm(field("doubt"))}
	if one.Reading.Reading, err = labReadingOf(field, table, in, wet, source); err != nil {
		return err
	}
	if said := field("spread"); said != "" {
		if one.Reading.Spread, err = table.number(said); err != nil {
			return input.Errorf("spread: %w", err)
		}
	}
	return one.Reading.Check()
}
