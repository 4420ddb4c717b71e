// Package table reads the data files that core packages embed. They are part
// of the program and tested with it, so a damaged one is a programming error
// and panics.
package table

import (
	"encoding/csv"
	"strconv"
	"strings"
)

// Rows are the lines of a CSV table below its line of names; lines that begin
// with # are remarks.
func Rows(text string) [][]string {
	r := csv.NewReader(strings.NewReader(text))
	r.Comment = '#'
	rows, err := r.ReadAll()
	if err != nil {
		panic(err)
	}
	return rows[1:]
}

// Number is the number in a field.
func Number(field string) float64 {
	v, err := strconv.ParseFloat(field, 64)
	if err != nil {
		panic(err)
	}
	return v
}
