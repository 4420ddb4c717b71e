package exchange

import "slices"

// Import says, row by row, what a box file brings.
type Import struct {
	Rows  []ImportRow `json:"rows"`
	Notes []string    `json:"notes" doc:"what was not understood and left out"`
	Kept  int         `json:"kept" doc:"how many paints were added; 0 for a preview"`
}

// ImportRow is one paint of a box file.
type ImportRow struct {
	Row     int    `json:"row" doc:"from 0, as named in leaveOut"`
	Where   string `json:"where"`
	Name    string `json:"name"`
	CI      string `json:"ci"`
	Shown   *Shown `json:"shown" doc:"its undertone; null when refused"`
	Happens string `json:"happens" enum:"added,archived,refused,left out"`
	Remark  string `json:"remark,omitempty" doc:"what is wrong, or what to know"`
}

// PlanImport says what becomes of the rows of a box file beside the tubes that
// are there: what would be added, in the order of the file, and how many rows
// are wrong. Rows are left out by number, from 0.
func PlanImport(rows []BoxRow, notes []string, there []BoxPaint, leaveOut []int) (out Import, added []BoxPaint, wrong int) {
	known := map[string]bool{}
	for _, p := range there {
		known[alike(p)] = true
	}
	out = Import{Rows: []ImportRow{}, Notes: append([]string{}, notes...)}
	for i, r := range rows {
		row := ImportRow{Row: i, Where: r.Where, Name: r.Paint.Name, CI: r.Paint.Library, Happens: "added"}
		if r.Core != nil {
			shown := ShownUndertone(r.Core)
			row.Name, row.CI, row.Shown = r.Core.Name, r.Core.CI, &shown
			if r.Paint.Nickname != "" {
				row.Name = r.Paint.Nickname + " (" + r.Core.Name + ")"
			}
			if r.Paint.Archived {
				row.Happens = "archived"
			}
		}
		switch {
		case slices.Contains(leaveOut, i):
			row.Happens = "left out"
		case r.Wrong != "":
			row.Happens, row.Remark = "refused", r.Wrong
			wrong++
		default:
			if known[alike(r.Paint)] {
				row.Remark = "a tube like this is in the box already; this will be a second one"
			}
			known[alike(r.Paint)] = true
			added = append(added, r.Paint)
		}
		out.Rows = append(out.Rows, row)
	}
	return out, added, wrong
}

// alike is equal for tubes that a painter would take for the same.
func alike(p BoxPaint) string {
	return p.Library + "\x00" + p.Definition.Name + "\x00" + p.Nickname + "\x00" + p.Grade
}
