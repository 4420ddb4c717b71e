package main

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMetricsHaveAListenerOfTheirOwn(t *testing.T) {
	var log bytes.Buffer
	said := slog.New(slog.NewJSONHandler(&log, nil))
	ends, err := serveMetrics("127.0.0.1:0", http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { _, _ = io.WriteString(w, "counted 1") }), said)
	require.NoError(t, err)
	var line struct{ Address string }
	require.NoError(t, json.Unmarshal(log.Bytes(), &line))
	answer, err := http.Get(line.Address)
	require.NoError(t, err)
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	assert.Equal(t, "counted 1", string(text))
	_, err = serveMetrics(line.Address[len("http://"):len(line.Address)-len("/metrics")], nil, said)
	assert.ErrorContains(t, err, "--metrics 127.0.0.1:", "it is taken")
	ends()
	_, err = http.Get(line.Address) //nolint:bodyclose // there is none
	assert.Error(t, err)
}
