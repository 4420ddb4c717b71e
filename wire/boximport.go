package wire

import "gyrophane/studio"

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

// ImportOf shapes the plan of an import; kept is how many paints were added.
func ImportOf(plan studio.ImportPlan, kept int) Import {
	out := Import{Rows: []ImportRow{}, Notes: append([]string{}, plan.Notes...), Kept: kept}
	for i, r := range plan.Rows {
		row := ImportRow{Row: i, Where: r.Where, Name: r.Tube.Name, CI: r.Tube.Library, Happens: r.Happens, Remark: r.Remark}
		if r.Paint != nil {
			shown := ShownUndertone(r.Paint)
			row.Name, row.CI, row.Shown = r.Paint.Name, r.Paint.CI, &shown
			if r.Tube.Nickname != "" {
				row.Name = r.Tube.Nickname + " (" + r.Paint.Name + ")"
			}
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}
