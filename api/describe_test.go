package api_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
)

func TestEveryOperationIsDescribed(t *testing.T) {
	doc, err := api.OpenAPI()
	require.NoError(t, err)
	var spec struct {
		Paths map[string]map[string]struct {
			Summary    string
			Tags       []string
			Parameters []struct {
				Name, Description string
			}
			Responses map[string]struct{ Description string }
		}
	}
	require.NoError(t, json.Unmarshal(doc, &spec))
	app, _ := server(t, true)
	c := &client{t: t, app: app}
	status, page, head := c.send(c.request("GET", "/api/docs", ""))
	require.Equal(t, 200, status)
	assert.Contains(t, head.Get("Content-Type"), "text/html")
	operations := 0
	for path, methods := range spec.Paths {
		for method, op := range methods {
			operations++
			at := strings.ToUpper(method) + " " + path
			assert.NotEmpty(t, op.Summary, at)
			assert.Len(t, op.Tags, 1, at)
			for _, p := range op.Parameters {
				assert.NotEmpty(t, p.Description, "%s: %s", at, p.Name)
			}
			for _, status := range []string{"400", "422", "429"} {
				assert.NotEmpty(t, op.Responses[status].Description, "%s: %s", at, status)
			}
			assert.Contains(t, page, at, "the page has it too")
		}
	}
	assert.Greater(t, operations, 60)
	assert.NotContains(t, page, "http://", "nothing is fetched from elsewhere")
	status, _ = c.do("GET", "/api/docs.css", "")
	assert.Equal(t, 200, status)
	status, served := c.do("GET", "/api/openapi.json", "")
	assert.Equal(t, 200, status)
	assert.Contains(t, served, "systemPairings")
}
