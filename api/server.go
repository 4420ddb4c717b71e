// Package api is the HTTP face of Gyrophane: it decodes a request, calls the
// core or the store, and encodes the answer. It holds no rule of the job.
package api

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"

	"gyrophane/store"
)

// Server answers for one store.
type Server struct {
	store *store.Store
	app   *fiber.App
	api   huma.API
}

// New builds the server: health, the API below /api, and the front end.
func New(s *store.Store) *Server {
	app := fiber.New(fiber.Config{
		AppName:      "Gyrophane",
		BodyLimit:    256 << 10,
		ReadTimeout:  15 * time.Second,
		WriteTimeout: 30 * time.Second,
		IdleTimeout:  60 * time.Second,
		Concurrency:  2048,
	})
	config := huma.DefaultConfig("Gyrophane", "1")
	config.CreateHooks = nil
	huma.DefaultArrayNullable = false
	config.DocsPath = ""
	config.OpenAPIPath = ""
	config.SchemasPath = ""
	srv := &Server{store: s, app: app}
	app.Get("/healthz", func(c fiber.Ctx) error { return c.JSON(fiber.Map{"status": "alive"}) })
	app.Get("/readyz", srv.ready)
	srv.api = huma.NewAPI(config, fiberAdapter{app})
	srv.painterRoutes()
	srv.frontEnd()
	return srv
}

// App is the Fiber application, ready to listen.
func (s *Server) App() *fiber.App { return s.app }

func (s *Server) ready(c fiber.Ctx) error {
	ctx, cancel := context.WithTimeout(c.Context(), 2*time.Second)
	defer cancel()
	if err := s.store.Ping(ctx); err != nil {
		return c.Status(fiber.StatusServiceUnavailable).JSON(fiber.Map{"status": "the database does not answer"})
	}
	return c.JSON(fiber.Map{"status": "ready"})
}
