package api_test

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"net/http/httptest"
	"net/netip"
	"testing"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// What is counted names kinds of addresses and nobody; each request is found again in the log by what its answer carries.
func TestRequestsAreCountedAndFoundAgain(t *testing.T) {
	s, err := store.Open(storetest.Database(t))
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Migrate(t.Context()))
	var log bytes.Buffer
	server := api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.NewJSONHandler(&log, nil)), TrustedProxies: []netip.Prefix{netip.MustParsePrefix("0.0.0.0/32")}})
	ask := func(method, path, id string) (status int, got string) {
		t.Helper()
		r := httptest.NewRequest(method, path, nil)
		r.Host = "127.0.0.1"
		if id != "" {
			r.Header.Set(fiber.HeaderXRequestID, id)
		}
		answer, err := server.App().Test(r, fiber.TestConfig{Timeout: 0})
		require.NoError(t, err)
		defer answer.Body.Close()
		return answer.StatusCode, answer.Header.Get(fiber.HeaderXRequestID)
	}
	logged := func() (out map[string]any) {
		t.Helper()
		lines := bytes.Split(bytes.TrimSpace(log.Bytes()), []byte("\n"))
		require.NoError(t, json.Unmarshal(lines[len(lines)-1], &out))
		return out
	}
	_, one := ask("GET", "/api/label?text=PB29", "")
	assert.NotEmpty(t, one)
	assert.Equal(t, one, logged()["id"])
	_, two := ask("GET", "/api/label?text=PB29", "")
	assert.NotEqual(t, one, two)
	_, given := ask("GET", "/api/label?text=PB29", "proxy-17.a")
	assert.Equal(t, "proxy-17.a", given, "as a proxy that is trusted calls it")
	_, odd := ask("GET", "/api/label?text=PB29", "a line {} \"of its own\"")
	assert.NotContains(t, odd, "line")
	status, _ := ask("GET", "/api/wheels/17", "")
	assert.Equal(t, 401, status)
	ask("GET", "/api/nowhere/ada-lovelace", "")
	ask("BREW", "/api/nowhere", "")
	ada := signedUp(t, server.App(), "Ada")
	stops(t, server)
	ada.ok("POST", "/api/box/paints", `{"paints":["PY184","PR254","PB29"]}`, nil)
	ada.ok("POST", "/api/choose?kind=triad", "", nil)

	answer := httptest.NewRecorder()
	server.Metrics().ServeHTTP(answer, httptest.NewRequest("GET", "/metrics", nil))
	text := answer.Body.String()
	assert.Contains(t, text, `gyrophane_answer_seconds_count{method="GET",route="/api/label",status="200"} 4`)
	assert.Contains(t, text, `route="/api/wheels/:id",status="401"`)
	for _, counted := range []string{"gyrophane_jobs 0", "gyrophane_jobs_waiting 0", `gyrophane_job_waited_seconds_count{kind="choose"} 1`, `gyrophane_job_worked_seconds_count{kind="choose"} 1`, `go_sql_open_connections{db_name="gyrophane"}`, "process_resident_memory_bytes", "go_goroutines"} {
		assert.Contains(t, text, counted)
	}
	assert.NotContains(t, text, "lovelace")
	assert.NotContains(t, text, "BREW")
	r := httptest.NewRequest("GET", "/metrics", nil)
	r.Host = "127.0.0.1"
	page, err := server.App().Test(r, fiber.TestConfig{Timeout: 0})
	require.NoError(t, err)
	defer page.Body.Close()
	body, err := io.ReadAll(page.Body)
	require.NoError(t, err)
	assert.NotContains(t, string(body), "gyrophane_answer", "they have a listener of their own")
}
