package files

import (
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/text"
)

// WantedRow is one colour of a file of wanted colours, and what is wrong with it.
type WantedRow struct {
	Line int
	reach.Wanted
	Lab     *colour.Lab // of the colour, under D65; nil where something is wrong
	Problem string      // a sentence; empty when sound
}

// ReadWanted reads wanted colours from a GIMP palette, or from CSV whose columns
// are called name and colour (or hex), or name, L, a and b. Nothing is kept.
func ReadWanted(data []byte) ([]WantedRow, error) {
	whole, err := textOf(data)
	if err != nil {
		return nil, err
	}
	var rows []WantedRow
	if strings.HasPrefix(whole, "GIMP Palette") {
		rows, err = readPalette(whole)
	} else {
		rows, err = readWantedTable(data)
	}
	if err != nil {
		return nil, err
	}
	if len(rows) == 0 {
		return nil, input.Errorf("the file holds no colours")
	}
	for i := range rows {
		r := &rows[i]
		if rs := []rune(r.Name); len(rs) > paint.LongestNickname {
			r.Name = string(rs[:paint.LongestNickname])
		}
		if _, err := text.Line("the name", r.Name, paint.LongestNickname); err != nil && r.Problem == "" {
			r.Colour, r.Problem = "", err.Error()
		}
		if r.Problem != "" {
			continue
		}
		reading, err := reach.Wanted{Colour: r.Colour}.Reading(paint.Media()[0])
		if err != nil {
			r.Colour, r.Problem = "", err.Error()
			continue
		}
		r.Lab = &reading.Lab
	}
	return rows, nil
}

func readPalette(text string) (out []WantedRow, err error) {
	for n, line := range strings.Split(text, "\n")[1:] {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "#") || strings.HasPrefix(line, "Name:") || strings.HasPrefix(line, "Columns:") {
			continue
		}
		if len(out) == mostRows {
			return nil, input.Errorf("line %d: more than %d colours, the most that is read", n+2, mostRows)
		}
		row := WantedRow{Line: n + 2}
		fields := strings.Fields(line)
		hex := "#"
		for i := 0; i < 3 && i < len(fields); i++ {
			v, err := strconv.Atoi(fields[i])
			if err != nil || v < 0 || v > 255 {
				break
			}
			hex += strconv.FormatInt(int64(v)+256, 16)[1:]
		}
		if len(hex) == 7 {
			row.Colour, row.Name = hex, strings.Join(fields[3:], " ")
		} else {
			row.Name = input.Clip(line)
			row.Problem = "a palette row begins with three numbers from 0 to 255"
		}
		out = append(out, row)
	}
	return out, nil
}

func readWantedTable(data []byte) (out []WantedRow, err error) {
	table, err := readDelimited(data)
	if err != nil {
		return nil, err
	}
	at := table.columns()
	column := func(names ...string) int {
		for _, n := range names {
			if i, ok := at[n]; ok {
				return i
			}
		}
		return -1
	}
	name, hex := column("name", "colour name", "color name"), column("colour", "color", "hex", "rgb")
	lab := [3]int{column("l", "l*", "lab_l"), column("a", "a*", "lab_a"), column("b", "b*", "lab_b")}
	if hex < 0 && (lab[0] < 0 || lab[1] < 0 || lab[2] < 0) {
		return nil, input.Errorf("the first line names no colours: call a column colour (with #rrggbb in it), or three of them L, a and b")
	}
	field := func(row []string, i int) string {
		if i < 0 || i >= len(row) {
			return ""
		}
		return row[i]
	}
	for n, cells := range table.rows[1:] {
		row := WantedRow{Line: table.lines[n+1], Wanted: reach.Wanted{Name: field(cells, name)}}
		if row.Colour = field(cells, hex); row.Colour == "" {
			var parts []string
			for _, i := range lab {
				v, err := table.number(field(cells, i))
				if err != nil {
					row.Problem = "no colour stands here: " + err.Error()
					break
				}
				parts = append(parts, strconv.FormatFloat(v, 'f', -1, 64))
			}
			row.Colour = strings.Join(parts, ",")
			if row.Problem != "" {
				row.Colour = ""
			}
		}
		out = append(out, row)
	}
	return out, nil
}
