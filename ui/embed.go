// Package ui carries the built front end. A clean clone holds only an empty
// dist folder, so the Go code compiles before the front end is built.
package ui

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files returns the built front end (index.html and assets/), and whether it
// has been built at all.
func Files() (files fs.FS, built bool) {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the folder is embedded above
	}
	_, err = fs.Stat(files, "index.html")
	return files, err == nil
}
