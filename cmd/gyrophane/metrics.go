package main

import (
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"time"
)

// serveMetrics answers Prometheus at an address until ends is called. It is a listener of its own, so that a proxy never passes
// it on.
func serveMetrics(address string, metrics http.Handler, log *slog.Logger) (ends func(), err error) {
	l, err := net.Listen("tcp", address)
	if err != nil {
		return nil, fmt.Errorf("--metrics %s: %w", address, err)
	}
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", metrics)
	server := &http.Server{Handler: mux, ReadHeaderTimeout: 5 * time.Second, WriteTimeout: 30 * time.Second, MaxHeaderBytes: 16 << 10}
	go func() {
		if err := server.Serve(l); !errors.Is(err, http.ErrServerClosed) {
			log.Error("metrics stopped", "error", err.Error())
		}
	}()
	log.Info("metrics", "address", "http://"+l.Addr().String()+"/metrics")
	return func() { _ = server.Close() }, nil
}
