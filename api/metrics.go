package api

import (
	"database/sql"
	"net/http"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"gyrophane/studio"
)

// metrics are how a process fares, for Prometheus: how long answers took by the kind of address, what is searched and waits, the
// connections to the database, and the process itself. No painter, no name and no address of anybody is in them.
type metrics struct {
	registry *prometheus.Registry
	answers  *prometheus.HistogramVec
}

// newMetrics counts what a studio works on, and its connections to a database.
func newMetrics(s *studio.Studio, database *sql.DB) *metrics {
	m := &metrics{registry: prometheus.NewRegistry(), answers: prometheus.NewHistogramVec(prometheus.HistogramOpts{
		Name: "gyrophane_answer_seconds", Help: "How long requests took, by method, kind of address and status.",
		Buckets: []float64{0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10},
	}, []string{"method", "route", "status"})}
	searches := func(name, help string, of func(underWay, waiting int) int) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, func() float64 { return float64(of(s.Searches.Count())) })
	}
	m.registry.MustRegister(m.answers,
		searches("gyrophane_searches", "Searches that are worked on.", func(underWay, _ int) int { return underWay }),
		searches("gyrophane_searches_waiting", "Searches that wait for their turn.", func(_, waiting int) int { return waiting }),
		collectors.NewDBStatsCollector(database, "gyrophane"),
		collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
	)
	return m
}

// answered counts an answer. What no route is for is one kind, for anybody may ask for anything.
func (m *metrics) answered(c fiber.Ctx, took time.Duration) {
	route := c.Route().Path
	if status := c.Response().StatusCode(); status == http.StatusNotFound || route == "" || route == "/" {
		route = "other"
	}
	m.answers.WithLabelValues(methodOf(c.Method()), route, strconv.Itoa(c.Response().StatusCode())).Observe(took.Seconds())
}

// methodOf is a method that is known; a client may send any word.
func methodOf(method string) string {
	switch method {
	case http.MethodGet, http.MethodHead, http.MethodPost, http.MethodPut, http.MethodPatch, http.MethodDelete, http.MethodOptions:
		return method
	}
	return "other"
}

// Metrics answers for Prometheus, on a listener of its own: nobody is asked who they are.
func (s *Server) Metrics() http.Handler {
	return promhttp.HandlerFor(s.metrics.registry, promhttp.HandlerOpts{Timeout: 5 * time.Second})
}
