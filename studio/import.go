package studio

import (
	"slices"

	"gyrophane/core/paint"
	"gyrophane/files"
)

// ImportPlan says what becomes of the rows of a box file.
type ImportPlan struct {
	Rows  []ImportRow
	Notes []string     // what was not understood and left out
	Added []paint.Tube // in the order of the file
	Wrong int          // rows that are refused
}

// ImportRow is a row of a box file and what becomes of it.
type ImportRow struct {
	files.BoxRow
	Happens string // "added", "archived", "refused" or "left out"
	Remark  string // what is wrong, or what to know
}

// PlanImport says what becomes of the rows of a box file beside the tubes that
// are there. Rows are left out by number, from 0.
func PlanImport(rows []files.BoxRow, notes []string, there []paint.Tube, leaveOut []int) ImportPlan {
	known := map[string]bool{}
	for _, t := range there {
		known[likeness(t)] = true
	}
	out := ImportPlan{Notes: notes}
	for i, r := range rows {
		row := ImportRow{BoxRow: r, Happens: "added"}
		switch {
		case slices.Contains(leaveOut, i):
			row.Happens = "left out"
		case r.Wrong != "":
			row.Happens, row.Remark = "refused", r.Wrong
			out.Wrong++
		default:
			if r.Tube.Archived {
				row.Happens = "archived"
			}
			if known[likeness(r.Tube)] {
				row.Remark = "a tube like this is in the box already; this will be a second one"
			}
			known[likeness(r.Tube)] = true
			out.Added = append(out.Added, r.Tube)
		}
		out.Rows = append(out.Rows, row)
	}
	return out
}

// likeness is equal for tubes that a painter would take for the same.
func likeness(t paint.Tube) string {
	return t.Library + "\x00" + t.Name + "\x00" + t.Nickname + "\x00" + t.Grade
}
