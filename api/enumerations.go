package api

import (
	"github.com/danielgtaylor/huma/v2"

	"gyrophane/wire"
)

// nameEnumerations gives every field whose format is that of an enumeration of the
// core its words, as one named schema that all of them refer to.
func nameEnumerations(doc *huma.OpenAPI) {
	of := map[string]wire.Enumeration{}
	for _, e := range wire.Enumerations() {
		of[e.Format] = e
	}
	registry := doc.Components.Schemas
	seen := map[*huma.Schema]bool{}
	var visit func(s *huma.Schema)
	visit = func(s *huma.Schema) {
		if s == nil || seen[s] {
			return
		}
		seen[s] = true
		if e, known := of[s.Format]; known && s.Type == huma.TypeString {
			if registry.Map()[e.Name] == nil {
				registry.Map()[e.Name] = enumerated(e)
			}
			*s = huma.Schema{Ref: "#/components/schemas/" + e.Name, Description: s.Description, Default: s.Default}
			return
		}
		for _, p := range s.Properties {
			visit(p)
		}
		visit(s.Items)
		if more, ok := s.AdditionalProperties.(*huma.Schema); ok {
			visit(more)
		}
	}
	content := func(media map[string]*huma.MediaType) {
		for _, m := range media {
			visit(m.Schema)
		}
	}
	for _, item := range doc.Paths {
		for _, op := range []*huma.Operation{item.Get, item.Post, item.Put, item.Delete} {
			if op == nil {
				continue
			}
			for _, p := range op.Parameters {
				visit(p.Schema)
			}
			if op.RequestBody != nil {
				content(op.RequestBody.Content)
			}
			for _, r := range op.Responses {
				content(r.Content)
			}
		}
	}
	all := []*huma.Schema{}
	for _, s := range registry.Map() {
		all = append(all, s)
	}
	for _, s := range all {
		visit(s)
	}
}

func enumerated(e wire.Enumeration) *huma.Schema {
	s := &huma.Schema{Type: huma.TypeString, Description: e.Doc}
	for _, v := range e.Values {
		s.Enum = append(s.Enum, v)
	}
	s.PrecomputeMessages()
	return s
}
