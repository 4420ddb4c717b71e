package api

import (
	"io/fs"
	"strings"

	"github.com/gofiber/fiber/v3"
	"github.com/gofiber/fiber/v3/middleware/etag"
	"github.com/gofiber/fiber/v3/middleware/static"

	"gyrophane/ui"
)

// unbuilt is shown when the Go code was compiled before the front end.
const unbuilt = `<!doctype html>
<html lang="en"><meta charset="utf-8"><title>Gyrophane</title>
<h1>The front end is not built yet</h1>
<p>Run <code>make demo</code> in the project folder; it builds everything and starts Gyrophane.</p>
</html>`

// noncePlace is what the build leaves in the page for the style nonce.
const noncePlace = "__CSP_NONCE__"

func (s *Server) frontEnd() {
	files, built := ui.Files()
	if !built {
		s.app.Get("/*", func(c fiber.Ctx) error {
			return c.Type("html", "utf-8").SendString(unbuilt)
		})
		return
	}
	index, err := fs.ReadFile(files, "index.html")
	if err != nil {
		panic(err) // Files has just seen it
	}
	assets, err := fs.Sub(files, "assets")
	if err != nil {
		panic(err) // a constant path
	}
	page := string(index)
	s.app.Use("/assets", etag.New(), func(c fiber.Ctx) error {
		// Embedded files have no honest date; the etag speaks for them.
		c.Request().Header.Del(fiber.HeaderIfModifiedSince)
		err := c.Next()
		c.Response().Header.Del(fiber.HeaderLastModified)
		return err
	}, static.New("", static.Config{FS: assets, MaxAge: 365 * 24 * 3600, CacheDuration: -1}))
	s.app.Get("/*", func(c fiber.Ctx) error {
		if strings.HasPrefix(c.Path(), "/assets/") {
			return fiber.ErrNotFound
		}
		c.Set(fiber.HeaderCacheControl, "no-store")
		nonce, _ := c.Locals(nonceKey{}).(string)
		return c.Type("html", "utf-8").SendString(strings.ReplaceAll(page, noncePlace, nonce))
	})
}
