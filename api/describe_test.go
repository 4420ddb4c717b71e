package api_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
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

// A set of words of the core stands in the description once, by its name.
func TestEnumerationsAreNamedOnce(t *testing.T) {
	doc, err := api.OpenAPI()
	require.NoError(t, err)
	var all struct {
		Components struct {
			Schemas map[string]struct{ Enum []string }
		}
	}
	require.NoError(t, json.Unmarshal(doc, &all))
	for _, e := range wire.Enumerations() {
		assert.Equal(t, e.Values, all.Components.Schemas[e.Name].Enum, e.Name)
		inline, err := json.Marshal(e.Values)
		require.NoError(t, err)
		packed := pack(doc)
		assert.Equal(t, 1, strings.Count(packed, `"enum":`+pack(inline)), e.Name)
		assert.NotContains(t, packed, `"format":"`+e.Format+`"`)
	}
}

func pack(text []byte) string { return strings.Join(strings.Fields(string(text)), "") }

func TestAWordThatIsNotOfItsSetIsRefused(t *testing.T) {
	app, _ := server(t, true)
	ada := &client{t: t, app: app}
	status, text := ada.do("GET", "/api/mix?parts=PB29=1&medium=wax", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "watercolour")
	status, text = ada.do("POST", "/api/wheel", `{"system":{"kind":"quartet","roles":[["PY74"],["PR254"],["PB29"]],"chosen":[[],[],[]],"riders":{},"note":""},"choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":0,"shades":0,"wash":false,"neutral":false,"triple":false}}}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "leaning-clockwise")
}
