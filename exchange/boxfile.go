package exchange

import (
	"bytes"
	_ "embed"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// TubeContent is what a painter says of a tube.
type TubeContent struct {
	Nickname string   `json:"nickname" maxLength:"80"`
	Grade    string   `json:"grade" enum:"artist,student"`
	TubeML   *float64 `json:"tubeMl" doc:"millilitres in the tube; null when not said"`
	Price    *float64 `json:"price" doc:"of the tube, in the painter's own money; null when not said"`
	Note     string   `json:"note" maxLength:"1000"`
	Archived bool     `json:"archived"`
}

// Limits of what is said of a tube.
const (
	longestNickname = 80
	longestNote     = 1000
	largestTube     = 5000  // ml
	highestPrice    = 10000 // of whatever money
)

// Check refuses what cannot be said of a tube, and trims names.
func (c TubeContent) Check() (TubeContent, error) {
	if c.Grade == "" {
		c.Grade = string(paint.Artist)
	}
	_, err := paint.ParseGrade(c.Grade)
	if err != nil {
		return c, sentence(err)
	}
	if c.Nickname, err = text.Line("the nickname", c.Nickname, longestNickname); err != nil {
		return c, refused(err)
	}
	if c.Note, err = text.Lines("the note", c.Note, longestNote); err != nil {
		return c, refused(err)
	}
	switch {
	case c.TubeML != nil && !(*c.TubeML > 0 && *c.TubeML <= largestTube):
		return c, bad("a tube of %v ml cannot be: it holds more than 0 and at most %d ml", *c.TubeML, largestTube)
	case c.Price != nil && !(*c.Price >= 0 && *c.Price <= highestPrice):
		return c, bad("a price of %v cannot be: it runs from 0 to %d", *c.Price, highestPrice)
	}
	return c, nil
}

// Strength is the factor that a grade starts with.
func (c TubeContent) Strength() float64 { return paint.Grade(c.Grade).Strength() }

// BoxPaint is a tube as it stands in a box file.
type BoxPaint struct {
	Definition
	TubeContent
}

// BoxFile is a whole box as JSON.
type BoxFile struct {
	Format  string     `json:"format" enum:"gyrophane-box"`
	Version int        `json:"version"`
	Paints  []BoxPaint `json:"paints"`
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
	Paint BoxPaint
	Core  *paint.Paint // nil when refused
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
		return nil, nil, bad("the file holds no paints")
	}
	toWorkOut := 0
	for i := range rows {
		if r := &rows[i]; r.Wrong == "" {
			if r.Paint.Origin != nil && len(r.Paint.K) == 0 {
				toWorkOut++
			}
			if toWorkOut > mostWorkedOut {
				r.Wrong = fmt.Sprintf("more than %d paints of the file have no curves and would have to be worked out; give theirs, or bring them in by several files", mostWorkedOut)
				continue
			}
			if err := r.check(); err != nil {
				r.Wrong, r.Core = err.Error(), nil
			}
		}
	}
	return rows, notes, nil
}

func (r *BoxRow) check() (err error) {
	if r.Paint.TubeContent, err = r.Paint.TubeContent.Check(); err != nil {
		return err
	}
	d := &r.Paint.Definition
	if d.Library != "" {
		p, err := FindPaint(d.Library)
		if err != nil {
			return err
		}
		*d = Definition{Library: p.ID}
	} else {
		if d.Name, err = text.Line("the name", d.Name, longestNickname); err != nil {
			return refused(err)
		}
		if d.Name == "" {
			return bad("no paint is named: give a library paint (PB29) or a paint of its own with a name and its K and S")
		}
	}
	if len(d.K) == 0 && len(d.S) == 0 && d.Origin != nil {
		made, err := d.Origin.Make(d.Name)
		if err != nil {
			return err
		}
		if len(d.Pigments) > 0 {
			made.Pigments = d.Pigments
		}
		*d = made.Definition
	}
	r.Core, err = d.Paint("", r.Paint.Strength())
	return err
}

func readBoxJSON(text string) ([]BoxRow, error) {
	var file struct {
		Format  string            `json:"format"`
		Version int               `json:"version"`
		Paints  []json.RawMessage `json:"paints"`
	}
	if err := json.Unmarshal([]byte(text), &file); err != nil {
		return nil, bad("the file is not sound JSON: %w", err)
	}
	switch {
	case file.Format != boxFormat:
		return nil, bad("the file is JSON but no box: its \"format\" should be %q", boxFormat)
	case file.Version != boxVersion:
		return nil, bad("the box file has version %d, and this Gyrophane reads version %d", file.Version, boxVersion)
	case len(file.Paints) > mostRows:
		return nil, bad("the file holds %d paints, and at most %d are read", len(file.Paints), mostRows)
	}
	var out []BoxRow
	for i, raw := range file.Paints {
		row := BoxRow{Where: fmt.Sprintf("paint %d", i+1)}
		strict := json.NewDecoder(bytes.NewReader(raw))
		strict.DisallowUnknownFields()
		if err := strict.Decode(&row.Paint); err != nil {
			row.Wrong = "cannot be understood: " + strings.TrimPrefix(err.Error(), "json: ")
		}
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
			return nil, nil, bad("line %d: the column %q stands twice", d.lines[0], clip(heading))
		case known:
			at[h] = i
		case heading != "":
			notes = append(notes, fmt.Sprintf("the column %q is not understood and left out", clip(heading)))
		}
	}
	if _, ok := at["paint"]; !ok {
		if _, ok := at["name"]; !ok {
			return nil, nil, bad("line %d: no column is called paint or name; the first line of a box file names its columns: %s", d.lines[0], strings.Join(boxColumns, ", "))
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
		if row.Paint, err = d.boxPaint(cell); err != nil {
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

func (d delimited) boxPaint(cell func(string) string) (p BoxPaint, err error) {
	p.Library, p.Name = rearm(cell("paint")), rearm(cell("name"))
	p.TubeContent = TubeContent{Nickname: rearm(cell("nickname")), Grade: strings.ToLower(cell("grade")), Note: rearm(cell("note"))}
	for column, into := range map[string]**float64{"tube_ml": &p.TubeML, "price": &p.Price} {
		text := cell(column)
		if text == "" {
			continue
		}
		v, err := d.number(text)
		if err != nil {
			return p, bad("%s: %w", column, err)
		}
		*into = &v
	}
	switch strings.ToLower(cell("archived")) {
	case "", "no", "false", "0":
	case "yes", "true", "1":
		p.Archived = true
	default:
		return p, bad("archived: write yes or no, not %q", clip(cell("archived")))
	}
	if p.Library != "" || cell("k380") == "" {
		if p.Library == "" {
			p.Library = byName(p.Name)
		}
		if p.Library == "" && p.Name != "" {
			return p, bad("the library has no paint called %q: give its Colour Index name, like PB29, in the column paint", clip(p.Name))
		}
		if p.Library != "" {
			p.Definition = Definition{Library: p.Library}
		}
		return p, nil
	}
	p.Made = cell("made")
	p.Pigments = strings.Fields(cell("pigments"))
	for i := range colour.Bands {
		for _, curve := range []struct {
			letter string
			into   *[]float64
		}{{"k", &p.K}, {"s", &p.S}} {
			column := fmt.Sprintf("%s%.0f", curve.letter, colour.NM(i))
			v, err := d.number(cell(column))
			if err != nil {
				return p, bad("%s: %w", column, err)
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

//go:embed data/demo-box.json
var demoBox []byte

// OpenBox are the paints of a box, but for what is archived, and what their tubes
// cost. They go by what a command line calls them: the library's id, or the
// name with hyphens for blanks; a second tube of the same has a 2 behind it.
func OpenBox(box []BoxPaint) (paints []*paint.Paint, prices map[string]float64, err error) {
	prices = map[string]float64{}
	times := map[string]int{}
	for _, p := range box {
		if p.Archived {
			continue
		}
		id := p.Library
		if id == "" {
			id = strings.Join(strings.FieldsFunc(p.Name, func(r rune) bool { return unicode.IsSpace(r) || r == ',' }), "-")
		}
		if times[id]++; times[id] > 1 {
			id += "-" + strconv.Itoa(times[id])
		}
		one, err := p.Paint(id, p.Strength())
		if err != nil {
			return nil, nil, err
		}
		paints = append(paints, one)
		if p.Price != nil {
			prices[id] = *p.Price
		}
	}
	return paints, prices, nil
}

// DemoBox is the box of the made-up demo studio.
func DemoBox() ([]BoxPaint, error) {
	rows, _, err := ReadBox(demoBox)
	if err != nil {
		return nil, err
	}
	var out []BoxPaint
	for _, r := range rows {
		if r.Wrong != "" {
			return nil, fmt.Errorf("%s: %s", r.Where, r.Wrong)
		}
		out = append(out, r.Paint)
	}
	return out, nil
}

// WriteBoxJSON writes a box as JSON.
func WriteBoxJSON(paints []BoxPaint) []byte {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	if err := enc.Encode(BoxFile{boxFormat, boxVersion, paints}); err != nil {
		panic(err) // the shapes hold nothing that JSON cannot
	}
	return b.Bytes()
}

// WriteBoxCSV writes a box as CSV with commas, in UTF-8; columns of K and S
// only where some paint has curves of its own.
func WriteBoxCSV(paints []BoxPaint) []byte {
	curves := slices.ContainsFunc(paints, func(p BoxPaint) bool { return p.Library == "" })
	header := slices.Clone(boxColumns)
	if curves {
		for _, letter := range "KS" {
			for i := range colour.Bands {
				header = append(header, fmt.Sprintf("%c%.0f", letter, colour.NM(i)))
			}
		}
	}
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.Write(header) //nolint:errcheck // a buffer takes everything
	for _, p := range paints {
		optional := func(v *float64) string {
			if v == nil {
				return ""
			}
			return strconv.FormatFloat(*v, 'f', -1, 64)
		}
		archived := "no"
		if p.Archived {
			archived = "yes"
		}
		name := p.Name
		if p.Library != "" {
			if found, err := paint.Find(p.Library); err == nil {
				name = found.Name
			}
		}
		row := []string{p.Library, disarm(name), disarm(p.Nickname), p.Grade, optional(p.TubeML), optional(p.Price), disarm(p.Note), archived, p.Made, strings.Join(p.Pigments, " ")}
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
		w.Write(row) //nolint:errcheck // a buffer takes everything
	}
	w.Flush()
	return b.Bytes()
}

// OwnPaint makes a paint of one's own, to be kept.
func OwnPaint(name, grade string, o Origin) (BoxPaint, error) {
	row := BoxRow{Paint: BoxPaint{Definition{Name: name, Origin: &o}, TubeContent{Grade: grade}}}
	err := row.check()
	return row.Paint, err
}

// LibraryFile is the whole library as a file: "cgats", "csv" or "gpl".
func LibraryFile(format string) ([]byte, error) {
	switch format {
	case "cgats":
		return CGATS(paint.Library()), nil
	case "gpl":
		return Palette("Gyrophane library, modelled", paint.Library()), nil
	case "csv":
		var all []BoxPaint
		for _, p := range paint.Library() {
			all = append(all, BoxPaint{Definition{Library: p.ID}, TubeContent{Grade: string(paint.Artist)}})
		}
		return WriteBoxCSV(all), nil
	}
	return nil, bad("unknown format %q: choose cgats, csv or gpl", clip(format))
}
