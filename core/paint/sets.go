package paint

import (
	_ "embed"
	"strings"
	"sync"

	"gyrophane/core/internal/table"
)

//go:embed data/sets.csv
var setsCSV string

//go:embed data/namedsets.csv
var namedSetsCSV string

// NamedSet is a box as it is sold: the words on its tubes or pans.
type NamedSet struct {
	Name  string
	Sold  Sold
	Names []string
}

// NamedSets are boxes as they are sold, to strike out from. They must not be changed.
var NamedSets = sync.OnceValue(func() (out []NamedSet) {
	for _, row := range table.Rows(namedSetsCSV) {
		out = append(out, NamedSet{Name: row[0], Sold: Sold(row[1]), Names: strings.Split(row[2], ";")})
	}
	return out
})

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
