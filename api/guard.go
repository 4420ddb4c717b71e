package api

import (
	"context"
	"crypto/rand"
	"net"
	"net/netip"
	"net/url"
	"runtime/debug"
	"strings"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/gofiber/fiber/v3/middleware/limiter"
	recovery "github.com/gofiber/fiber/v3/middleware/recover"
)

// requestTime is how long one request may take in all.
const requestTime = 10 * time.Second

// filesBelow is where files may be sent to.
const filesBelow = "/api/files/"

// guards are what every request passes before it is looked at.
func (s *Server) guards() {
	s.app.Use(s.logged)
	s.app.Use(recovery.New(recovery.Config{EnableStackTrace: true, StackTraceHandler: func(c fiber.Ctx, e any) {
		s.Log.Error("panic", "path", c.Path(), "error", e, "stack", string(debug.Stack()))
	}}))
	s.app.Use(headers)
	s.app.Use(func(c fiber.Ctx) error {
		if s.Local && !loopbackHost(c.Host()) {
			return fiber.NewError(fiber.StatusMisdirectedRequest, "This server answers on this machine only, under localhost or 127.0.0.1.")
		}
		return c.Next()
	})
	s.app.Use(sameOrigin)
	s.app.Use(func(c fiber.Ctx) error {
		if len(c.Body()) > largestBody && !strings.HasPrefix(c.Path(), filesBelow) {
			return fiber.ErrRequestEntityTooLarge
		}
		return c.Next()
	})
	s.app.Use(func(c fiber.Ctx) error {
		ctx, cancel := context.WithTimeout(c.Context(), requestTime)
		defer cancel()
		c.SetContext(ctx)
		return c.Next()
	})
	// Guessing passphrases: twenty wrong ones a minute from one address.
	slow := limiter.New(limiter.Config{
		Max: 20, Expiration: time.Minute, SkipSuccessfulRequests: true,
		LimitReached: func(fiber.Ctx) error {
			return fiber.NewError(fiber.StatusTooManyRequests, "Too many tries; wait a minute and try again.")
		},
	})
	for _, path := range []string{"/api/session", "/api/painters"} {
		s.app.Use(path, func(c fiber.Ctx) error {
			if writes(c.Method()) {
				return slow(c)
			}
			return c.Next()
		})
	}
}

func (s *Server) logged(c fiber.Ctx) error {
	s.busy.Add(1)
	defer s.busy.Add(-1)
	start := time.Now()
	err := c.Next()
	if err != nil {
		// The answer is written here, so that its status can be logged.
		if err := c.App().ErrorHandler(c, err); err != nil {
			return err
		}
	}
	s.Log.Info("request", "method", c.Method(), "path", c.Path(), "status", c.Response().StatusCode(),
		"ms", float64(time.Since(start).Microseconds())/1000)
	return nil
}

// headers tell the browser how little these pages need.
func headers(c fiber.Ctx) error {
	nonce := rand.Text()
	c.Locals(nonceKey{}, nonce)
	for name, value := range map[string]string{
		"Content-Security-Policy": "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce + "'; " +
			"img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
		"X-Content-Type-Options":       "nosniff",
		"X-Frame-Options":              "DENY",
		"Referrer-Policy":              "no-referrer",
		"Cross-Origin-Opener-Policy":   "same-origin",
		"Cross-Origin-Resource-Policy": "same-origin",
		"Permissions-Policy":           "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
	} {
		c.Set(name, value)
	}
	return c.Next()
}

type nonceKey struct{}

func writes(method string) bool {
	return method != fiber.MethodGet && method != fiber.MethodHead && method != fiber.MethodOptions
}

// sameOrigin lets a write through only when the browser says that it comes
// from one of this server's own pages.
func sameOrigin(c fiber.Ctx) error {
	if !writes(c.Method()) {
		return c.Next()
	}
	refuse := fiber.NewError(fiber.StatusForbidden, "This request does not come from Gyrophane's own pages, so nothing was changed.")
	if site := c.Get("Sec-Fetch-Site"); site != "" && site != "same-origin" {
		return refuse
	}
	origin, err := url.Parse(c.Get(fiber.HeaderOrigin))
	if err != nil || origin.Host == "" || !strings.EqualFold(origin.Host, c.Host()) {
		return refuse
	}
	return c.Next()
}

// loopbackHost guards a server without passphrases against pages elsewhere
// that point a name of their own at this machine.
func loopbackHost(host string) bool {
	name := host
	if h, _, err := net.SplitHostPort(host); err == nil {
		name = h
	}
	name = strings.Trim(name, "[]")
	if strings.EqualFold(name, "localhost") {
		return true
	}
	ip, err := netip.ParseAddr(name)
	return err == nil && ip.IsLoopback()
}
