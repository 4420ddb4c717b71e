package api

import (
	"bytes"
	_ "embed" // the page
	"html/template"
	"maps"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"
)

// errorsOf says what an operation may answer instead of what was asked for.
func errorsOf(op *huma.Operation) map[int]string {
	out := map[int]string{
		http.StatusBadRequest:          "The request could not be read.",
		http.StatusForbidden:           "It does not come from Gyrophane's own pages.",
		http.StatusUnprocessableEntity: "Something in it cannot be: the sentence says what, where and what to do.",
		http.StatusTooManyRequests:     "Too much at once, or too often.",
	}
	if op.Metadata[painterNeed] != "none" {
		out[http.StatusServiceUnavailable] = "The database does not answer, or takes no changes."
	}
	if op.Metadata == nil {
		out[http.StatusUnauthorized] = "Nobody is signed in."
		if strings.Contains(op.Path, "{") {
			out[http.StatusNotFound] = "There is no such thing, or it is another painter's."
		}
	}
	if op.Method == http.MethodPut || strings.HasSuffix(op.Path, "/choose") || strings.HasSuffix(op.Path, "/replace") {
		out[http.StatusConflict] = "It was changed elsewhere in the meantime, or a later search took its place."
	}
	return out
}

// describeErrors writes the errors of an operation into its description, as
// problem documents (RFC 9457).
func describeErrors(_ *huma.OpenAPI, op *huma.Operation) {
	problem := op.Responses["default"]
	if problem == nil {
		return
	}
	for status, why := range errorsOf(op) {
		op.Responses[strconv.Itoa(status)] = &huma.Response{Description: why, Content: problem.Content}
	}
}

//go:embed docs.html
var docsPage string

//go:embed docs.css
var docsStyle string

// docs is the description of the API for people to read: one page, made once,
// of what is shipped with the application.
func (s *Server) docs() {
	page := template.Must(template.New("docs").Parse(docsPage))
	var out bytes.Buffer
	if err := page.Execute(&out, operationsByTag(s.api.OpenAPI())); err != nil {
		panic(err) // the page is part of the program
	}
	s.app.Get("/api/docs", func(c fiber.Ctx) error { return c.Type("html", "utf-8").Send(out.Bytes()) })
	s.app.Get("/api/docs.css", func(c fiber.Ctx) error { return c.Type("css", "utf-8").SendString(docsStyle) })
	s.app.Get("/api/openapi.json", func(c fiber.Ctx) error { return c.JSON(s.api.OpenAPI()) })
}

type describedTag struct {
	Name       string
	Operations []describedOperation
}

type describedOperation struct {
	*huma.Operation
	Takes  []string // the names of what its body holds
	Errors []describedError
}

type describedError struct {
	Status string
	Why    string
}

func operationsByTag(of *huma.OpenAPI) (out []describedTag) {
	byTag := map[string][]describedOperation{}
	for _, path := range slices.Sorted(maps.Keys(of.Paths)) {
		at := of.Paths[path]
		for _, op := range []*huma.Operation{at.Get, at.Post, at.Put, at.Delete} {
			if op == nil {
				continue
			}
			one := describedOperation{Operation: op}
			if op.RequestBody != nil {
				if media := op.RequestBody.Content["application/json"]; media != nil {
					schema := media.Schema
					if schema.Ref != "" {
						schema = of.Components.Schemas.SchemaFromRef(schema.Ref)
					}
					one.Takes = slices.Sorted(maps.Keys(schema.Properties))
				}
			}
			for _, status := range slices.Sorted(maps.Keys(op.Responses)) {
				if status > "399" && status != "default" {
					one.Errors = append(one.Errors, describedError{status, op.Responses[status].Description})
				}
			}
			byTag[op.Tags[0]] = append(byTag[op.Tags[0]], one)
		}
	}
	for _, tag := range slices.Sorted(maps.Keys(byTag)) {
		out = append(out, describedTag{tag, byTag[tag]})
	}
	return out
}
