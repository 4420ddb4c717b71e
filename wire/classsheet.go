package wire

import (
	"cmp"
	"slices"
	"time"

	"gyrophane/core/colour"
	"gyrophane/studio"
)

// ClassSheet is a sheet of a wheel that a class has painted.
type ClassSheet struct {
	ID       int64        `json:"id"`
	Name     string       `json:"name" doc:"of its wheel"`
	Title    string       `json:"title" doc:"of the sheet"`
	Made     time.Time    `json:"made"`
	Medium   string       `json:"medium" format:"medium"`
	Kind     string       `json:"kind" format:"sheet"`
	Width    float64      `json:"width" doc:"mm"`
	Height   float64      `json:"height" doc:"mm"`
	Computed []ShelfPlace `json:"computed"`
	Class    []ShelfPlace `json:"class" doc:"the mean of what was read; as computed where nothing was"`
	Sheets   []PupilSheet `json:"sheets" doc:"the first first"`
	Places   []ClassPlace `json:"places" doc:"where anything was read, the farthest off first of those where the class has strayed"`
}

// PupilSheet is what was read of one sheet.
type PupilSheet struct {
	ID     int64        `json:"id"`
	Places []ShelfPlace `json:"places" doc:"as computed where nothing was read"`
}

// ClassPlace is how a class painted a place.
type ClassPlace struct {
	Place    int     `json:"place" doc:"index among the computed"`
	Label    string  `json:"label"`
	Read     int     `json:"read" doc:"sheets that it was read of"`
	Computed Shown   `json:"computed"`
	Mean     Shown   `json:"mean"`
	Off      float64 `json:"off" doc:"CIEDE2000 of the mean to the computed"`
	Spread   float64 `json:"spread" doc:"mean CIEDE2000 of each sheet to the mean"`
	Strayed  bool    `json:"strayed" doc:"the class as a whole, beyond what its sheets differ by"`
	Says     string  `json:"says" doc:"how the mean differs from the computed"`
}

// ClassSheetOf shapes a sheet that a class has painted.
func ClassSheetOf(c studio.ClassSheet) ClassSheet {
	sheet := c.Plan.Sheet
	out := ClassSheet{
		ID: c.ID, Name: c.Name, Title: sheet.Title, Made: c.CreatedAt, Medium: c.Plan.Settings.Medium.ID, Kind: string(sheet.Kind), Width: sheet.W, Height: sheet.H,
		Sheets: []PupilSheet{}, Places: []ClassPlace{},
	}
	places := func(of func(i int) *colour.Lab) []ShelfPlace {
		all := []ShelfPlace{}
		for i := range sheet.Regions {
			r := &sheet.Regions[i]
			lab := of(i)
			all = append(all, ShelfPlace{r.Label, BenchShape(r.Shape), lab != nil, shown(orComputed(lab, c.Computed[i]).OKLab())})
		}
		return all
	}
	out.Computed = places(func(i int) *colour.Lab { return &c.Computed[i] })
	out.Class = places(func(i int) *colour.Lab {
		if c.Places[i].Read == 0 {
			return nil
		}
		return &c.Places[i].Mean
	})
	for _, r := range c.Reads {
		out.Sheets = append(out.Sheets, PupilSheet{r.ID, places(func(i int) *colour.Lab { return r.Labs[i] })})
	}
	for i, p := range c.Places {
		if p.Read > 0 {
			out.Places = append(out.Places, ClassPlace{i, sheet.Regions[i].Label, p.Read, shown(c.Computed[i].OKLab()), shown(p.Mean.OKLab()), round(p.Off, 1), round(p.Spread, 1), p.Strayed, p.Says})
		}
	}
	slices.SortStableFunc(out.Places, func(a, b ClassPlace) int {
		if a.Strayed != b.Strayed {
			return map[bool]int{true: -1, false: 1}[a.Strayed]
		}
		return cmp.Compare(b.Off, a.Off)
	})
	return out
}

func orComputed(lab *colour.Lab, computed colour.Lab) colour.Lab {
	if lab == nil {
		return computed
	}
	return *lab
}
