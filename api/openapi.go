package api

import (
	"encoding/json"
	"log/slog"

	"gyrophane/store"
)

// OpenAPI returns the OpenAPI 3.1 description of the API as JSON; the front
// end's types are made from it.
func OpenAPI() ([]byte, error) {
	s, err := store.Open("postgres://localhost/never-connected")
	if err != nil {
		return nil, err
	}
	defer s.Close()
	doc, err := json.MarshalIndent(New(s, Options{Log: slog.New(slog.DiscardHandler)}).api.OpenAPI(), "", "  ")
	return append(doc, '\n'), err
}
