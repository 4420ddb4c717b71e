package paint

import (
	_ "embed"
	"strings"
	"sync"

	"gyrophane/core/internal/table"
)

//go:embed data/sets.csv
var setsCSV string

// StartingSet is a box to begin with, and why.
type StartingSet struct {
	Name, Why string
	Paints    []*Paint
}

// StartingSets are boxes of library paints to begin with. They must not be
// changed.
var StartingSets = sync.OnceValue(func() (out []StartingSet) {
	for _, row := range table.Rows(setsCSV) {
		set := StartingSet{Name: row[0], Why: row[1]}
		for _, id := range strings.Fields(row[2]) {
			p, err := Find(id)
			if err != nil {
				panic(err) // the table is embedded and tested
			}
			set.Paints = append(set.Paints, p)
		}
		out = append(out, set)
	}
	return out
})
