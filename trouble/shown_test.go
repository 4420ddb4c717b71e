//go:build trouble

package trouble

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// named are what stands in braces in the path of a route.
var named = regexp.MustCompile(`\{[^}]+\}`)

// Every route is tried with the token of something that was taken back, as its token, as a pupil's word and as a cookie: each answers
// as it does to somebody who has none.
func TestWhatWasTakenBackOpensNothing(t *testing.T) {
	s := newStudio(t)
	ada := s.comes("Ada")
	var made struct {
		ID    int64
		Token string
	}
	require.Less(t, ada.ask(t.Context(), "show", "POST", "/api/showings", fmt.Sprintf(`{"kind":"wheel","thing":%d,"live":true}`, ada.wheel), &made), 300)
	at := s.processes[0].at()
	asks := func(method, path, token string) (int, string) {
		r, err := http.NewRequest(method, at+path, strings.NewReader("{}"))
		require.NoError(t, err)
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("Origin", at)
		if token != "" {
			r.Header.Set("Showing", token)
			r.Header.Set("Pupil", token)
			r.Header.Set("Cookie", "gyrophane="+token)
		}
		answer, err := http.DefaultClient.Do(r)
		require.NoError(t, err, path)
		defer answer.Body.Close()
		said, err := io.ReadAll(answer.Body)
		require.NoError(t, err, path)
		return answer.StatusCode, string(said)
	}
	status, _ := asks("GET", "/api/shown", made.Token)
	require.Equal(t, http.StatusOK, status, "it is shown before it is taken back")
	require.Less(t, ada.ask(t.Context(), "take back", "DELETE", fmt.Sprintf("/api/showings/%d", made.ID), "", nil), 300)
	var doc struct {
		Paths map[string]map[string]json.RawMessage
	}
	require.Equal(t, 200, ada.ask(t.Context(), "routes", "GET", "/api/openapi.json", "", &doc))
	tried := 0
	for path, methods := range doc.Paths {
		path = named.ReplaceAllString(path, "1")
		for method := range methods {
			status, said := asks(strings.ToUpper(method), path, "")
			token, with := asks(strings.ToUpper(method), path, made.Token)
			assert.Equal(t, status, token, "%s %s: %s", method, path, with)
			if status >= 400 {
				assert.Equal(t, said, with, "%s %s", method, path)
			}
			tried++
		}
	}
	fmt.Printf("%d routes were tried with what was taken back: each answered as to a stranger\n", tried)
	assert.Greater(t, tried, 100)
}
