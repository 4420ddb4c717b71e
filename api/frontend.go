package api

import (
	"encoding/json"
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

// assetsPlace is what the build leaves in the service worker for the list of assets.
const assetsPlace = "__ASSETS__"

// installable serves what lets a browser keep the page: the service worker with the list
// of what it keeps, what the page is called, and its mark.
func (s *Server) installable(files, assets fs.FS) {
	read := func(name string) string {
		text, err := fs.ReadFile(files, name)
		if err != nil {
			panic(err) // it is built with the page
		}
		return string(text)
	}
	var names []string
	err := fs.WalkDir(assets, ".", func(name string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() {
			names = append(names, "/assets/"+name)
		}
		return err
	})
	if err != nil {
		panic(err) // they are embedded
	}
	list, err := json.Marshal(names)
	if err != nil {
		panic(err) // strings
	}
	for name, of := range map[string]struct{ kind, text string }{
		"/sw.js":                {"text/javascript; charset=utf-8", strings.Replace(read("sw.js"), assetsPlace, string(list), 1)},
		"/manifest.webmanifest": {"application/manifest+json", read("manifest.webmanifest")},
		"/mark.svg":             {"image/svg+xml", read("mark.svg")},
		"/icon-180.png":         {"image/png", read("icon-180.png")},
		"/icon-192.png":         {"image/png", read("icon-192.png")},
		"/icon-512.png":         {"image/png", read("icon-512.png")},
	} {
		s.app.Get(name, func(c fiber.Ctx) error {
			c.Set(fiber.HeaderCacheControl, "no-cache")
			c.Set(fiber.HeaderContentType, of.kind)
			return c.SendString(of.text)
		})
	}
}

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
	s.installable(files, assets)
	s.app.Get("/*", func(c fiber.Ctx) error {
		if strings.HasPrefix(c.Path(), "/assets/") {
			return fiber.ErrNotFound
		}
		c.Set(fiber.HeaderCacheControl, "no-store")
		nonce, _ := c.Locals(nonceKey{}).(string)
		return c.Type("html", "utf-8").SendString(strings.ReplaceAll(page, noncePlace, nonce))
	})
}
