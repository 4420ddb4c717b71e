package main

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"io"
	"log/slog"
	"net/http"
	"net/netip"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/store"
)

// housed serves at home at an address that can be changed.
func housed(t *testing.T, own *authority) (*homeServer, *atomic.Pointer[netip.Addr]) {
	t.Helper()
	s, err := store.Open("postgres://nobody@127.0.0.1:1/nothing")
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	at := &atomic.Pointer[netip.Addr]{}
	first := netip.MustParseAddr("127.0.0.2")
	at.Store(&first)
	desk := api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)})
	h := &homeServer{
		find: func() (netip.Addr, error) { return *at.Load(), nil }, lookAgain: 20 * time.Millisecond, authority: own, log: slog.New(slog.DiscardHandler),
		server: func(names []string, tls bool) *api.Server {
			return desk.Beside(api.Options{Listener: api.Home, Names: names, TLS: tls, Log: slog.New(slog.DiscardHandler)})
		},
	}
	ctx, cancel := context.WithCancel(t.Context())
	wait, err := h.run(ctx)
	require.NoError(t, err)
	t.Cleanup(func() { cancel(); wait() })
	return h, at
}

func fetched(t *testing.T, c *http.Client, address string) (int, []byte) {
	t.Helper()
	resp, err := c.Get(address)
	require.NoError(t, err)
	defer resp.Body.Close()
	body, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	return resp.StatusCode, body
}

func TestTheServerAtHomeMovesWithTheAddress(t *testing.T) {
	h, at := housed(t, nil)
	first := h.reached()
	assert.True(t, strings.HasPrefix(first.Address, "http://127.0.0.2:"), first.Address)
	assert.False(t, first.TLS)
	status, body := fetched(t, http.DefaultClient, first.Address+"/api/painters")
	assert.Equal(t, 401, status, "%s", body)

	moved := netip.MustParseAddr("127.0.0.3")
	at.Store(&moved)
	require.Eventually(t, func() bool { return strings.HasPrefix(h.reached().Address, "http://127.0.0.3:") }, 10*time.Second, 5*time.Millisecond)
	status, _ = fetched(t, http.DefaultClient, h.reached().Address+"/healthz")
	assert.Equal(t, 200, status)
	http.DefaultClient.CloseIdleConnections()
	_, err := http.Get(first.Address + "/healthz")
	assert.Error(t, err, "nothing is left at the address of before")
}

func TestADeviceTakesTheAuthorityAndThenComesByTLS(t *testing.T) {
	own, err := openAuthority(filepath.Join(t.TempDir(), "authority"))
	require.NoError(t, err)
	h, _ := housed(t, own)
	reached := h.reached()
	assert.True(t, strings.HasPrefix(reached.Address, "https://127.0.0.2:"), reached.Address)
	assert.Equal(t, own.fingerprint(), reached.Fingerprint)

	status, raw := fetched(t, http.DefaultClient, reached.Authority)
	require.Equal(t, 200, status)
	taken, err := x509.ParseCertificate(raw)
	require.NoError(t, err)
	status, _ = fetched(t, http.DefaultClient, strings.TrimSuffix(reached.Authority, authorityPath)+"/api/session")
	assert.Equal(t, 404, status, "nothing else is there")

	roots := x509.NewCertPool()
	roots.AddCert(taken)
	with := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}}}
	defer with.CloseIdleConnections()
	status, _ = fetched(t, with, reached.Address+"/healthz")
	assert.Equal(t, 200, status)
	_, err = http.Get(reached.Address)
	assert.ErrorContains(t, err, "certificate", "a device without it is warned")
}
