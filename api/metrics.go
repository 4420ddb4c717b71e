package api

import (
	"context"
	"database/sql"
	"math"
	"net/http"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"gyrophane/jobs"
)

// metrics are how a process fares, for Prometheus: how long answers took by the kind of address, what is worked on and waits, the
// connections to the database, and the process itself. No painter, no name and no address of anybody is in them.
type metrics struct {
	registry *prometheus.Registry
	answers  *prometheus.HistogramVec
	waited   *prometheus.HistogramVec
	worked   *prometheus.HistogramVec
}

// newMetrics counts the jobs of a queue, and the connections to a database.
func newMetrics(q *jobs.Queue, database *sql.DB) *metrics {
	m := &metrics{registry: prometheus.NewRegistry(), answers: prometheus.NewHistogramVec(prometheus.HistogramOpts{
		Name: "gyrophane_answer_seconds", Help: "How long requests took, by method, kind of address and status.",
		Buckets: []float64{0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10},
	}, []string{"method", "route", "status"})}
	m.waited = ofJobs("gyrophane_job_waited_seconds", "How long jobs waited for their turn, by kind.")
	m.worked = ofJobs("gyrophane_job_worked_seconds", "How long jobs were worked on, by kind.")
	q.Done = func(kind string, waited, worked time.Duration) {
		m.waited.WithLabelValues(kind).Observe(waited.Seconds())
		m.worked.WithLabelValues(kind).Observe(worked.Seconds())
	}
	counted := func(name, help string, of func(underWay, waiting int) int) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, func() float64 {
			underWay, waiting, err := q.Count(context.Background())
			if err != nil {
				return math.NaN() // the database does not say
			}
			return float64(of(underWay, waiting))
		})
	}
	m.registry.MustRegister(m.answers, m.waited, m.worked,
		counted("gyrophane_jobs", "Jobs that are worked on, by whatever process.", func(underWay, _ int) int { return underWay }),
		counted("gyrophane_jobs_waiting", "Jobs that wait for their turn.", func(_, waiting int) int { return waiting }),
		collectors.NewDBStatsCollector(database, "gyrophane"),
		collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
	)
	return m
}

func ofJobs(name, help string) *prometheus.HistogramVec {
	return prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: name, Help: help, Buckets: []float64{0.05, 0.2, 0.5, 1, 2, 5, 10, 20, 60, 120}}, []string{"kind"})
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
