package files

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// boxFile is a whole box as JSON.
type boxFile struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	Paints  []boxTube `json:"paints"`
}

// boxTube is a tube as it stands in a box file.
type boxTube struct {
	definition
	details
}

type definition struct {
	Library  string       `json:"library,omitempty"`
	Name     string       `json:"name,omitempty"`
	Making   paint.Making `json:"made,omitempty"`
	Pigments []string     `json:"pigments,omitempty"`
	K        []float64    `json:"k,omitempty"`
	S        []float64    `json:"s,omitempty"`
	Origin   *origin      `json:"origin,omitempty"`
}

type details struct {
	Nickname string   `json:"nickname"`
	Grade    string   `json:"grade"`
	TubeML   *float64 `json:"tubeMl"`
	Price    *float64 `json:"price"`
	Note     string   `json:"note"`
	NotSure  string   `json:"notSure,omitempty"`
	Archived bool     `json:"archived"`
}

type origin struct {
	Kind       string   `json:"kind"`
	Mass       *reading `json:"mass,omitempty"`
	Tint       *reading `json:"tint,omitempty"`
	WhiteShare float64  `json:"whiteShare,omitempty"`
	Pigments   []string `json:"pigments,omitempty"`
	Paint      string   `json:"paint,omitempty"`
	Factor     float64  `json:"factor,omitempty"`
	Shift      float64  `json:"shift,omitempty"`
}

type reading struct {
	Lab      *[3]float64  `json:"lab,omitempty"`
	Hex      string       `json:"hex,omitempty"`
	Spectrum []float64    `json:"spectrum,omitempty"`
	Source   paint.Source `json:"source"`
	Medium   string       `json:"medium"`
	Judged   string       `json:"judged"`
}

func boxTubeOf(t paint.Tube) boxTube {
	d := t.Definition
	out := boxTube{definition{Library: d.Library, Name: d.Name, Making: d.Making, Pigments: d.Pigments, K: d.K, S: d.S}, details(t.TubeDetails)}
	if o := d.Origin; o != nil {
		out.Origin = &origin{Kind: o.Kind, Mass: (*reading)(o.Mass), Tint: (*reading)(o.Tint), WhiteShare: o.WhiteShare, Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
	}
	return out
}

func (t boxTube) tube() paint.Tube {
	out := paint.Tube{
		Definition:  paint.Definition{Library: t.Library, Name: t.Name, Making: t.Making, Pigments: t.Pigments, K: t.K, S: t.S},
		TubeDetails: paint.TubeDetails(t.details),
	}
	if o := t.Origin; o != nil {
		out.Origin = &paint.Origin{Kind: o.Kind, Mass: (*paint.RawReading)(o.Mass), Tint: (*paint.RawReading)(o.Tint), WhiteShare: o.WhiteShare,
			Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
	}
	return out
}

const (
	boxFormat  = "gyrophane-box"
	boxVersion = 1
	// mostWorkedOut is how many paints of one file may come without curves, for
	// each takes some hundredths of a second.
	mostWorkedOut = 40
)

// BoxRow is one paint of a file that was read, or what is wrong with it.
type BoxRow struct {
	Where string // "line 3", "paint 3"
	Tube  paint.Tube
	Paint *paint.Paint // of the tube; nil when refused
	Wrong string       // a sentence, empty when sound
}

// ReadBox reads a box file, JSON or CSV. The notes say what was not understood
// and left out. Each row stands or falls by itself; the error is for a file that
// cannot be read at all.
func ReadBox(data []byte) (rows []BoxRow, notes []string, err error) {
	whole, err := textOf(data)
	if err != nil {
		return nil, nil, err
	}
	if strings.HasPrefix(strings.TrimSpace(whole), "{") {
		rows, err = readBoxJSON(whole)
	} else {
		rows, notes, err = readBoxCSV(data)
	}
	if err != nil {
		return nil, nil, err
	}
	if len(rows) == 0 {
		return nil, nil, input.Errorf("the file holds no paints")
	}
	toWorkOut := 0
	for i := range rows {
		if r := &rows[i]; r.Wrong == "" {
			if r.Tube.Origin != nil && len(r.Tube.K) == 0 {
				toWorkOut++
			}
			if toWorkOut > mostWorkedOut {
				r.Wrong = fmt.Sprintf("more than %d paints of the file have no curves and would have to be worked out; give theirs, or bring them in by several files", mostWorkedOut)
				continue
			}
			if r.Tube, r.Paint, err = r.Tube.Complete(); err != nil {
				r.Wrong, r.Paint = err.Error(), nil
			}
		}
	}
	return rows, notes, nil
}

func readBoxJSON(text string) ([]BoxRow, error) {
	var file struct {
		Format  string            `json:"format"`
		Version int               `json:"version"`
		Paints  []json.RawMessage `json:"paints"`
	}
	if err := json.Unmarshal([]byte(text), &file); err != nil {
		return nil, input.Errorf("the file is not sound JSON: %w", err)
	}
	switch {
	case file.Format != boxFormat:
		return nil, input.Errorf("the file is JSON but no box: its \"format\" should be %q", boxFormat)
	case file.Version != boxVersion:
		return nil, input.Errorf("the box file has version %d, and this Gyrophane reads version %d", file.Version, boxVersion)
	case len(file.Paints) > mostRows:
		return nil, input.Errorf("the file holds %d paints, and at most %d are read", len(file.Paints), mostRows)
	}
	var out []BoxRow
	for i, raw := range file.Paints {
		row := BoxRow{Where: fmt.Sprintf("paint %d", i+1)}
		strict := json.NewDecoder(bytes.NewReader(raw))
		strict.DisallowUnknownFields()
		var t boxTube
		if err := strict.Decode(&t); err != nil {
			row.Wrong = "cannot be understood: " + strings.TrimPrefix(err.Error(), "json: ")
		}
		row.Tube = t.tube()
		out = append(out, row)
	}
	return out, nil
}

// boxColumns are the columns of a box as CSV, before those of K and S.
var boxColumns = []string{"paint", "name", "nickname", "grade", "tube_ml", "price", "note", "archived", "made", "pigments"}

// alsoCalled are other headings that are understood.
var alsoCalled = map[string]string{"id": "paint", "ci": "paint", "pigment": "paint", "library": "paint", "tube": "tube_ml", "ml": "tube_ml"}

func readBoxCSV(data []byte) (out []BoxRow, notes []string, err error) {
	d, err := readDelimited(data)
	if err != nil {
		return nil, nil, err
	}
	at := map[string]int{}
	for i, heading := range d.rows[0] {
		h := strings.ToLower(heading)
		if real, ok := alsoCalled[h]; ok {
			h = real
		}
		known := slices.Contains(boxColumns, h) || curveColumn(h)
		_, twice := at[h]
		switch {
		case known && twice:
			return nil, nil, input.Errorf("line %d: the column %q stands twice", d.lines[0], input.Clip(heading))
		case known:
			at[h] = i
		case heading != "":
			notes = append(notes, fmt.Sprintf("the column %q is not understood and left out", input.Clip(heading)))
		}
	}
	if _, ok := at["paint"]; !ok {
		if _, ok := at["name"]; !ok {
			return nil, nil, input.Errorf("line %d: no column is called paint or name; the first line of a box file names its columns: %s", d.lines[0], strings.Join(boxColumns, ", "))
		}
	}
	for r, fields := range d.rows[1:] {
		cell := func(column string) string {
			if i, ok := at[column]; ok && i < len(fields) {
				return fields[i]
			}
			return ""
		}
		row := BoxRow{Where: fmt.Sprintf("line %d", d.lines[r+1])}
		if row.Tube, err = d.tube(cell); err != nil {
			row.Wrong = err.Error()
		}
		out = append(out, row)
	}
	return out, notes, nil
}

func curveColumn(h string) bool {
	if len(h) != 4 || h[0] != 'k' && h[0] != 's' {
		return false
	}
	nm, err := strconv.Atoi(h[1:])
	return err == nil && nm >= colour.FirstNM && nm <= int(colour.NM(colour.Bands-1)) && nm%colour.StepNM == 0
}

func (d delimited) tube(cell func(string) string) (p paint.Tube, err error) {
	p.Library, p.Name = rearm(cell("paint")), rearm(cell("name"))
	p.TubeDetails = paint.TubeDetails{Nickname: rearm(cell("nickname")), Grade: strings.ToLower(cell("grade")), Note: rearm(cell("note"))}
	for column, into := range map[string]**float64{"tube_ml": &p.TubeML, "price": &p.Price} {
		text := cell(column)
		if text == "" {
			continue
		}
		v, err := d.number(text)
		if err != nil {
			return p, input.Errorf("%s: %w", column, err)
		}
		*into = &v
	}
	switch strings.ToLower(cell("archived")) {
	case "", "no", "false", "0":
	case "yes", "true", "1":
		p.Archived = true
	default:
		return p, input.Errorf("archived: write yes or no, not %q", input.Clip(cell("archived")))
	}
	if p.Library != "" || cell("k380") == "" {
		if p.Library == "" {
			p.Library = byName(p.Name)
		}
		if p.Library == "" && p.Name != "" {
			return p, input.Errorf("the library has no paint called %q: give its Colour Index name, like PB29, in the column paint", input.Clip(p.Name))
		}
		if p.Library != "" {
			p.Definition = paint.Definition{Library: p.Library}
		}
		return p, nil
	}
	p.Making = paint.Making(cell("made"))
	p.Pigments = strings.Fields(cell("pigments"))
	for i := range colour.Bands {
		for _, curve := range []struct {
			letter string
			into   *[]float64
		}{{"k", &p.K}, {"s", &p.S}} {
			column := fmt.Sprintf("%s%.0f", curve.letter, colour.NM(i))
			v, err := d.number(cell(column))
			if err != nil {
				return p, input.Errorf("%s: %w", column, err)
			}
			*curve.into = append(*curve.into, v)
		}
	}
	return p, nil
}

// byName is the id of the library paint of a name; empty when there is none.
func byName(name string) string {
	for _, p := range paint.Library() {
		if strings.EqualFold(p.Name, name) {
			return p.ID
		}
	}
	return ""
}

// WriteBoxJSON writes a box as JSON.
func WriteBoxJSON(tubes []paint.Tube) []byte {
	file := boxFile{boxFormat, boxVersion, []boxTube{}}
	for _, t := range tubes {
		file.Paints = append(file.Paints, boxTubeOf(t))
	}
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	if err := enc.Encode(file); err != nil {
		panic(err) // the shapes hold nothing that JSON cannot
	}
	return b.Bytes()
}

// WriteBoxCSV writes a box as CSV with commas, in UTF-8; columns of K and S
// only where some paint has curves of its own.
func WriteBoxCSV(tubes []paint.Tube) []byte {
	curves := slices.ContainsFunc(tubes, func(p paint.Tube) bool { return p.Library == "" })
	header := slices.Clone(boxColumns)
	if curves {
		for _, letter := range "KS" {
			for i := range colour.Bands {
				header = append(header, fmt.Sprintf("%c%.0f", letter, colour.NM(i)))
			}
		}
	}
	rows := [][]string{header}
	for _, p := range tubes {
		name := p.Name
		if p.Library != "" {
			if found, err := paint.Find(p.Library); err == nil {
				name = found.Name
			}
		}
		row := []string{p.Library, disarm(name), disarm(p.Nickname), p.Grade, optional(p.TubeML), optional(p.Price), disarm(p.Note), yesNo(p.Archived), string(p.Making), strings.Join(p.Pigments, " ")}
		if curves {
			for _, curve := range [][]float64{p.K, p.S} {
				for i := range colour.Bands {
					text := ""
					if i < len(curve) {
						text = strconv.FormatFloat(curve[i], 'g', -1, 64)
					}
					row = append(row, text)
				}
			}
		}
		rows = append(rows, row)
	}
	return table(rows)
}

// LibraryFile is the whole library as a file: "cgats", "sp", "csv" or "gpl".
func LibraryFile(format string) ([]byte, error) {
	switch format {
	case "cgats":
		return PaintsCGATS(paint.Library()), nil
	case "sp":
		return PaintsSPECT(paint.Library()), nil
	case "gpl":
		return Palette("Gyrophane library, modelled", paint.Library()), nil
	case "csv":
		var all []paint.Tube
		for _, p := range paint.Library() {
			all = append(all, paint.Tube{Definition: paint.Definition{Library: p.ID}, TubeDetails: paint.TubeDetails{Grade: string(paint.Artist)}})
		}
		return WriteBoxCSV(all), nil
	}
	return nil, input.Errorf("unknown format %q: choose cgats, sp, csv or gpl", input.Clip(format))
}
