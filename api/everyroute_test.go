package api_test

import (
	"encoding/json"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
)

// routes are every method and path of the API, ids and required questions
// filled in somehow.
func routes(t *testing.T) (out [][2]string) {
	t.Helper()
	doc, err := api.OpenAPI()
	require.NoError(t, err)
	var spec struct {
		Paths map[string]map[string]struct {
			Parameters []struct {
				Name, In string
				Required bool
			}
		}
	}
	require.NoError(t, json.Unmarshal(doc, &spec))
	for path, methods := range spec.Paths {
		for method, op := range methods {
			at, sep := path, "?"
			for _, p := range op.Parameters {
				switch {
				case p.In == "path":
					at = strings.ReplaceAll(at, "{"+p.Name+"}", "1")
				case p.In == "query" && p.Required:
					at, sep = at+sep+p.Name+"=1", "&"
				}
			}
			out = append(out, [2]string{strings.ToUpper(method), at})
		}
	}
	slices.SortFunc(out, func(a, b [2]string) int { return strings.Compare(a[0]+a[1], b[0]+b[1]) })
	return out
}

// open are the routes that anybody may ask: who paints here, and what only
// needs computing from the library.
var open = []string{
	"/api/counted", "/api/plan", "/api/surer",
	"/api/session", "/api/painters", "/api/paints", "/api/mix", "/api/correct", "/api/locate", "/api/quieten", "/api/edge-to-edge", "/api/pair", "/api/pair/palette",
	"/api/pairings", "/api/wheel", "/api/system", "/api/neutrals", "/api/glazes", "/api/label",
	"/api/names", "/api/names/sets", "/api/names/looks", "/api/devices/look", "/api/devices/come-in",
}

// openToLookers are the routes of those to whom something is shown, at home too: without a token there is nothing.
var openToLookers = []string{"/api/shown", "/api/shown/changes", "/api/shown/photos/1"}

// openToPupils are those of phones in a round of a class: without its token or code nothing is kept or told.
var openToPupils = []string{"/api/together", "/api/together/guess", "/api/together/score", "/api/together/changes"}

// toAStranger is what a route answers to somebody who is not known and says nothing.
func toAStranger(method, path string) int {
	switch {
	case slices.Contains(openToPupils, path) && method != http.MethodGet:
		return http.StatusUnprocessableEntity
	case slices.Contains(openToPupils, path), slices.Contains(openToLookers, path):
		return http.StatusNotFound
	}
	return http.StatusUnauthorized
}

func TestEveryRouteThatKeepsSomethingAsksWhoIsThere(t *testing.T) {
	app, _ := server(t, true)
	nobody := &client{t: t, app: app}
	all := routes(t)
	require.Greater(t, len(all), 50)
	asked := 0
	for _, r := range all {
		path, _, _ := strings.Cut(r[1], "?")
		if slices.Contains(open, path) {
			continue
		}
		status, text := nobody.do(r[0], r[1], "{}")
		assert.Equal(t, toAStranger(r[0], path), status, "%s %s: %s", r[0], r[1], text)
		asked++
	}
	assert.Greater(t, asked, 35)
}

func TestEveryWriteFromElsewhereIsRefused(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	for _, r := range routes(t) {
		if r[0] == http.MethodGet {
			continue
		}
		request := ada.request(r[0], r[1], "{}")
		request.Header.Set("Origin", "http://elsewhere.example")
		request.Header.Set("Sec-Fetch-Site", "cross-site")
		status, text, _ := ada.send(request)
		assert.Equal(t, http.StatusForbidden, status, "%s %s: %s", r[0], r[1], text)
	}
}

func TestEveryRouteAnswersNonsenseInOneSentence(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	for _, r := range routes(t) {
		if r[1] == "/api/changes" {
			continue // it streams
		}
		for _, body := range []string{"", "[]", "{", `{"a":null}`, `"text"`, "\x00\xff"} {
			status, text := ada.do(r[0], r[1], body)
			assert.Less(t, status, 500, "%s %s with %q: %s", r[0], r[1], body, text)
			if status < 400 || text == "" {
				continue
			}
			var problem struct {
				Detail string
				Status int
			}
			require.NoError(t, json.Unmarshal([]byte(text), &problem), "%s %s with %q: %s", r[0], r[1], body, text)
			assert.NotEmpty(t, problem.Detail, "%s %s with %q", r[0], r[1], body)
			assert.Equal(t, status, problem.Status)
			assert.NotContains(t, problem.Detail, "gyrophane/", "nothing of the inside")
		}
		if r[0] == http.MethodDelete && strings.Contains(r[1], "/session") {
			ada = signedUp(t, app, "Ada after "+r[1]) // the one before has left
		}
	}
}
