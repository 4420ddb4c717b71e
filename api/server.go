// Package api is the HTTP face of Gyrophane: it decodes a request, asks the
// studio, and encodes the answer. It holds no rule of the job.
package api

import (
	"cmp"
	"context"
	"errors"
	"log/slog"
	"net/netip"
	"sync/atomic"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"
	lru "github.com/hashicorp/golang-lru/v2"

	"gyrophane/files"
	"gyrophane/jobs"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Options say how a server stands in the world.
type Options struct {
	// Listener is where its requests come in; Public when empty.
	Listener Listener
	// Names are the hosts that a server at home goes by.
	Names []string
	// TLS says that a server at home speaks it.
	TLS bool
	// TrustedProxies are believed about where a request comes from; nobody else is.
	TrustedProxies []netip.Prefix
	Log            *slog.Logger
	// Home says how other devices of the house reach it now; nil where they never do.
	Home func() AtHome
	// Meter is the address of the hand-held meter, on this machine.
	Meter string
}

// Server answers for one store.
type Server struct {
	Options
	store  *store.Store
	studio *studio.Studio
	app    *fiber.App
	api    huma.API
	busy   atomic.Int64 // requests under way
	// stopping is closed when no more is streamed.
	stopping chan struct{}
	jobs     *jobs.Queue
	limits   *limits
	backups  chan struct{} // that are being written
	metrics  *metrics
	// built are the wheels last built of library paints alone: they are the same
	// every time.
	built *lru.Cache[string, wire.Wheel]
}

// mostBuilt is how many built wheels are kept in memory, some 200 kB each.
const mostBuilt = 128

// largestBody is the most bytes a request may carry, but for files: those have
// limits of their own below largestFile.
const (
	largestBody = 64 << 10
	largestFile = files.MostPhotoBytes + 1<<10
)

// New builds the server: health, the API below /api, and the front end.
func New(s *store.Store, o Options) *Server {
	of, queue := studio.New(s), jobs.New(s, hands, o.Log)
	of.WorkBy(queue)
	return (&Server{store: s, studio: of, jobs: queue, limits: newLimits(s), backups: make(chan struct{}, mostBackups), metrics: newMetrics(queue, s.Connections()), built: lastUsed[string, wire.Wheel](mostBuilt)}).Beside(o)
}

// Beside is a server for another listener that works with the same painters, memories and limits.
func (s *Server) Beside(o Options) *Server {
	o.Listener = cmp.Or(o.Listener, Public)
	srv := &Server{Options: o, store: s.store, studio: s.studio, jobs: s.jobs, limits: s.limits, backups: s.backups, metrics: s.metrics, built: s.built, stopping: make(chan struct{})}
	srv.app = fiber.New(fiber.Config{
		AppName:                      "Gyrophane",
		BodyLimit:                    largestFile,
		ReadBufferSize:               longestHeaders,
		ReadTimeout:                  headerTime,
		WriteTimeout:                 30 * time.Second,
		IdleTimeout:                  60 * time.Second,
		Concurrency:                  mostConnections,
		CaseSensitive:                true, // as the guards compare addresses
		DisablePreParseMultipartForm: true, // bodies are taken as they are
		ErrorHandler:                 srv.problem,
	})
	srv.app.Server().HeaderReceived = atTheHeaders
	srv.guards()
	srv.app.Get("/healthz", func(c fiber.Ctx) error { return c.JSON(fiber.Map{"status": "alive"}) })
	srv.app.Get("/readyz", srv.ready)

	config := huma.DefaultConfig("Gyrophane", "1")
	config.CreateHooks = nil
	config.Formats = formats()
	config.OnAddOperation = append(config.OnAddOperation, describeErrors)
	config.DocsPath, config.OpenAPIPath, config.SchemasPath = "", "", ""
	huma.DefaultArrayNullable = false
	srv.api = huma.NewAPI(config, fiberAdapter{srv.app})
	srv.api.UseMiddleware(srv.whoPaints)
	srv.painterRoutes()
	srv.sessionRoutes()
	srv.deviceRoutes()
	srv.askRoutes()
	srv.wheelRoutes()
	srv.benchRoutes()
	srv.sittingRoutes()
	srv.readingRoutes()
	srv.logRoutes()
	srv.boxRoutes()
	srv.pairingRoutes()
	srv.guessRoutes()
	srv.compareRoutes()
	srv.searchRoutes()
	srv.comparisonRoutes()
	srv.ownRoutes()
	srv.backupRoutes()
	srv.showingRoutes()
	srv.classRoutes()
	nameEnumerations(srv.api.OpenAPI())
	if o.Listener != Home {
		srv.docs()
	}
	srv.app.All("/api/*", func(fiber.Ctx) error {
		return fiber.NewError(fiber.StatusNotFound, "There is nothing at this address of the API.")
	})
	srv.frontEnd()
	return srv
}

// lastUsed is a memory for the last used things, so many of them.
func lastUsed[K comparable, V any](most int) *lru.Cache[K, V] {
	cache, err := lru.New[K, V](most)
	if err != nil {
		panic(err) // a constant size above 0
	}
	return cache
}

// App is the Fiber application, ready to listen.
func (s *Server) App() *fiber.App { return s.app }

// Stop takes no more connections and lets the requests under way finish, for
// as long as ctx allows. Browsers keep connections open that carry no request;
// those are not waited for.
func (s *Server) Stop(ctx context.Context) error {
	close(s.stopping)
	closing, cancel := context.WithTimeout(ctx, time.Second)
	defer cancel()
	err := s.app.ShutdownWithContext(closing)
	if !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	for s.busy.Load() > 0 {
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(20 * time.Millisecond):
		}
	}
	return nil
}

func (s *Server) ready(c fiber.Ctx) error {
	ctx, cancel := context.WithTimeout(c.Context(), 2*time.Second)
	defer cancel()
	readOnly, err := s.store.Ready(ctx)
	switch {
	case err != nil:
		return c.Status(fiber.StatusServiceUnavailable).JSON(fiber.Map{"status": err.Error()})
	case readOnly:
		return c.JSON(fiber.Map{"status": "ready to read; the database takes no changes"})
	}
	return c.JSON(fiber.Map{"status": "ready"})
}
