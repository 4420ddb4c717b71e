package files

import (
	"bufio"
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Sample is one measured spectrum of a file.
type Sample struct {
	Name     string
	Line     int             // of the file
	Spectrum colour.Spectrum // reflectance, 0 to 1
	Held     int             // how many bands at the ends were not measured and are held flat
}

// Spectra are the samples of a file, and what was understood of it.
type Spectra struct {
	Format  string // "CGATS" or "CSV"
	Percent bool   // the file counts to 100
	Grid    string // the wavelengths in words
	Samples []Sample
}

// rawSample is a row of a file before it is understood.
type rawSample struct {
	name   string
	line   int
	values []float64
}

// ReadSpectra reads measured reflectances from CGATS.17 text or CSV.
func ReadSpectra(data []byte) (Spectra, error) {
	text, err := textOf(data)
	if err != nil {
		return Spectra{}, err
	}
	if looksLikeCGATS(text) {
		nm, raw, err := readCGATS(text)
		if err != nil {
			return Spectra{}, err
		}
		return understood("CGATS", nm, raw)
	}
	nm, raw, err := readSpectralCSV(data)
	if err != nil {
		return Spectra{}, err
	}
	return understood("CSV", nm, raw)
}

// mostPercent is the reflectance above which a file must be counting to 100.
const mostPercent = 1.5

func understood(format string, nm []float64, raw []rawSample) (Spectra, error) {
	if len(raw) == 0 {
		return Spectra{}, input.Errorf("the file holds no samples")
	}
	order := make([]int, len(nm))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(nm[a], nm[b]) })
	sorted := make([]float64, len(nm))
	for i, at := range order {
		sorted[i] = nm[at]
	}
	out := Spectra{Format: format}
	highest := 0.0
	for _, r := range raw {
		highest = max(highest, slices.Max(r.values))
	}
	scale := 1.0
	if out.Percent = highest > mostPercent; out.Percent {
		scale = 0.01
	}
	if len(sorted) > 1 {
		out.Grid = fmt.Sprintf("%v to %v nm, %d values", sorted[0], sorted[len(sorted)-1], len(sorted))
	}
	for _, r := range raw {
		m := colour.Measured{NM: sorted}
		for _, at := range order {
			m.Value = append(m.Value, r.values[at]*scale)
		}
		s, held, err := m.Resample()
		if err != nil {
			return Spectra{}, input.Errorf("line %d, %s: %w", r.line, input.Clip(r.name), err)
		}
		if _, err := paint.SpectrumReading(s, paint.Instrument, false, paint.Media()[0]); err != nil {
			return Spectra{}, input.Errorf("line %d, %s: %w", r.line, input.Clip(r.name), err)
		}
		out.Samples = append(out.Samples, Sample{Name: r.name, Line: r.line, Spectrum: s, Held: held})
	}
	return out, nil
}

var spectralColumn = regexp.MustCompile(`(?i)^(?:SPECTRAL|SPEC|NM|R)?_?(?:NM_?)?(\d{3}(?:\.\d+)?)(?:\s*nm)?$`)

// wavelength reads the wavelength a column is named for: SPECTRAL_380,
// SPEC_380, SPECTRAL_NM380, "380 nm" or 380.
func wavelength(name string) (float64, bool) {
	m := spectralColumn.FindStringSubmatch(strings.TrimSpace(name))
	if m == nil {
		return 0, false
	}
	nm, err := strconv.ParseFloat(m[1], 64)
	return nm, err == nil && nm >= 300 && nm <= 999
}

// leastWavelengths is how many columns make a file of spectra.
const leastWavelengths = 10

func readSpectralCSV(data []byte) ([]float64, []rawSample, error) {
	d, err := readDelimited(data)
	if err != nil {
		return nil, nil, err
	}
	var columns []int
	var nm []float64
	for i, name := range d.rows[0] {
		if w, ok := wavelength(name); ok {
			columns, nm = append(columns, i), append(nm, w)
		}
	}
	if len(columns) < leastWavelengths {
		return d.standing()
	}
	if err := distinct(nm); err != nil {
		return nil, nil, err
	}
	name := nameColumn(d.rows[0], columns)
	var out []rawSample
	for r, row := range d.rows[1:] {
		s := rawSample{name: fmt.Sprintf("row %d", r+1), line: d.lines[r+1]}
		if name < len(row) && row[name] != "" {
			s.name = row[name]
		}
		for i, c := range columns {
			if c >= len(row) || row[c] == "" {
				return nil, nil, input.Errorf("line %d: no value at %v nm", s.line, nm[i])
			}
			v, err := d.number(row[c])
			if err != nil {
				return nil, nil, input.Errorf("line %d, at %v nm: %w", s.line, nm[i], err)
			}
			s.values = append(s.values, v)
		}
		out = append(out, s)
	}
	return nm, out, nil
}

// standing reads a table whose wavelengths run down the first column, a sample
// a column.
func (d delimited) standing() ([]float64, []rawSample, error) {
	var nm []float64
	var out []rawSample
	header := d.rows[0]
	for r, row := range d.rows {
		w, ok := wavelength(row[0])
		if !ok {
			if r == 0 {
				continue
			}
			return nil, nil, input.Errorf("line %d: %q is no wavelength. A file of spectra has columns named for wavelengths (380, 390 ... or SPECTRAL_380 ...), or the wavelengths down its first column", d.lines[r], input.Clip(row[0]))
		}
		if len(nm) == 0 {
			for c := 1; c < len(row); c++ {
				s := rawSample{name: fmt.Sprintf("column %d", c+1), line: d.lines[0]}
				if r > 0 && c < len(header) && header[c] != "" {
					s.name = header[c]
				}
				out = append(out, s)
			}
		}
		nm = append(nm, w)
		for i := range out {
			if i+1 >= len(row) {
				return nil, nil, input.Errorf("line %d: no value for %s", d.lines[r], input.Clip(out[i].name))
			}
			v, err := d.number(row[i+1])
			if err != nil {
				return nil, nil, input.Errorf("line %d, %s: %w", d.lines[r], input.Clip(out[i].name), err)
			}
			out[i].values = append(out[i].values, v)
		}
	}
	if len(nm) < leastWavelengths || len(out) == 0 {
		return nil, nil, input.Errorf("the file has no spectra: at least %d wavelengths are needed, as columns (380, 390 ... or SPECTRAL_380 ...) or down the first column", leastWavelengths)
	}
	return nm, out, distinct(nm)
}

func distinct(nm []float64) error {
	seen := map[float64]bool{}
	for _, w := range nm {
		if seen[w] {
			return input.Errorf("the wavelength %v nm stands twice", w)
		}
		seen[w] = true
	}
	return nil
}

// nameColumn is the column that names the samples: one so called, or the first
// that holds no wavelength.
func nameColumn(header []string, spectral []int) int {
	for _, want := range []string{"sample_name", "name", "sample", "sample_id", "id"} {
		for i, name := range header {
			if strings.EqualFold(name, want) {
				return i
			}
		}
	}
	for i := range header {
		if !slices.Contains(spectral, i) {
			return i
		}
	}
	return len(header)
}

func looksLikeCGATS(text string) bool {
	return strings.Contains(text, "BEGIN_DATA_FORMAT") || strings.HasPrefix(strings.TrimSpace(text), "CGATS")
}

// readCGATS reads the first table of a CGATS.17 text [ANSI CGATS.17-2009].
func readCGATS(text string) ([]float64, []rawSample, error) {
	var fields []string
	var out []rawSample
	var columns []int
	var nm []float64
	name := 0
	var row []string
	rowLine, line := 0, 0
	state := "header"
	scan := bufio.NewScanner(strings.NewReader(text))
	scan.Buffer(nil, 1<<20)
	for scan.Scan() {
		line++
		words, err := cgatsWords(scan.Text())
		if err != nil {
			return nil, nil, input.Errorf("line %d: %w", line, err)
		}
		if len(words) == 0 {
			continue
		}
		switch {
		case words[0] == "BEGIN_DATA_FORMAT":
			state, words = "format", words[1:]
		case words[0] == "END_DATA_FORMAT":
			state = "header"
			for i, f := range fields {
				if w, ok := wavelength(f); ok {
					columns, nm = append(columns, i), append(nm, w)
				}
			}
			if len(columns) < leastWavelengths {
				return nil, nil, input.Errorf("line %d: only %d of the %d fields are spectral; columns such as SPECTRAL_380 or SPEC_380 are needed", line, len(columns), len(fields))
			}
			if err := distinct(nm); err != nil {
				return nil, nil, err
			}
			name = nameColumn(fields, columns)
			continue
		case words[0] == "BEGIN_DATA":
			if fields == nil {
				return nil, nil, input.Errorf("line %d: the data begin before BEGIN_DATA_FORMAT has said what they are", line)
			}
			if columns == nil {
				return nil, nil, input.Errorf("line %d: the data begin before END_DATA_FORMAT: it is missing, or cut in two", line)
			}
			state, words = "data", words[1:]
		case words[0] == "END_DATA":
			if len(row) > 0 {
				return nil, nil, input.Errorf("line %d: the last set has %d of %d values", rowLine, len(row), len(fields))
			}
			return nm, out, nil
		}
		switch state {
		case "format":
			if fields = append(fields, words...); len(fields) > mostColumns {
				return nil, nil, input.Errorf("line %d: more than %d fields", line, mostColumns)
			}
		case "data":
			for _, word := range words {
				if len(row) == 0 {
					rowLine = line
				}
				if row = append(row, word); len(row) < len(fields) {
					continue
				}
				if len(out) == mostRows {
					return nil, nil, input.Errorf("line %d: more than %d sets, the most that is read", line, mostRows)
				}
				s := rawSample{name: fmt.Sprintf("set %d", len(out)+1), line: rowLine}
				if name < len(row) && row[name] != "" {
					s.name = row[name]
				}
				for i, c := range columns {
					v, err := delimited{}.number(row[c])
					if err != nil {
						return nil, nil, input.Errorf("line %d, at %v nm: %w", rowLine, nm[i], err)
					}
					s.values = append(s.values, v)
				}
				out = append(out, s)
				row = row[:0]
			}
		}
	}
	if state == "data" {
		return nil, nil, input.Errorf("the file ends without END_DATA: it may have been cut off")
	}
	return nil, nil, input.Errorf("the file has no data: BEGIN_DATA is missing")
}

// cgatsWords parts a line at its white space; quoted words may hold some, and
// what follows a # outside quotes is a remark.
func cgatsWords(line string) ([]string, error) {
	var words []string
	var word strings.Builder
	quoted, any := false, false
	end := func() {
		if any {
			words = append(words, word.String())
		}
		word.Reset()
		any = false
	}
	for _, r := range line {
		switch {
		case r == '"':
			quoted, any = !quoted, true
		case quoted:
			word.WriteRune(r)
		case r == '#':
			end()
			return words, nil
		case r == ' ' || r == '\t' || r == '\r':
			end()
		default:
			word.WriteRune(r)
			any = true
		}
		if word.Len() > longestField {
			return nil, fmt.Errorf("a word is longer than %d characters", longestField)
		}
	}
	if quoted {
		return nil, fmt.Errorf("a quotation mark is not closed")
	}
	end()
	return words, nil
}

// ofPaints says what is written of paints.
const ofPaints = "masstone and 1:9 tint with PW6 of each paint, wet, specular excluded"

// PaintsCGATS writes the spectra of paints as CGATS.17 text: the masstone and a tint of 1 part in 9 of titanium
// white, wet, as reflectance from 0 to 1.
func PaintsCGATS(paints []*paint.Paint) []byte {
	return cgats(ofPaints, paintSwatches(paints), false)
}

// PaintsSPECT writes the same so that colour tools compute from it as it is.
func PaintsSPECT(paints []*paint.Paint) []byte { return spect(ofPaints, paintSwatches(paints)) }

// cgatsName has no quotation marks or line ends, which would end the word.
func cgatsName(p *paint.Paint, what string) string {
	id := p.ID
	if id == "" {
		id = p.CI
	}
	return ascii(strings.TrimSpace(id + " " + p.Name + " " + what))
}

// ascii is a text without quotation marks and line ends, in the characters that every
// program reads.
func ascii(text string) string {
	return strings.Map(func(r rune) rune {
		if r == '"' || r == '\\' || r < ' ' || r > 126 {
			return '_'
		}
		return r
	}, text)
}
