package api

import (
	"context"
	"crypto/rand"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"runtime/debug"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"
	recovery "github.com/gofiber/fiber/v3/middleware/recover"
	"github.com/valyala/fasthttp"

	"gyrophane/core/text"
	"gyrophane/store"
)

// How long a request may take.
const (
	requestTime = 10 * time.Second // to be answered, in all
	headerTime  = 5 * time.Second  // for its headers to arrive
	bodyTime    = 15 * time.Second // and then for its body
)

const (
	// longestHeaders is how many bytes the headers may have, with the address.
	longestHeaders = 16 << 10
	// mostConnections is how many may be open at once, silent ones among them.
	mostConnections = 4096
	// filesBelow is where files may be sent to.
	filesBelow = "/api/files/"
)

// atTheHeaders looks at a request before its body is read: how long that may
// take, and how large it may be.
func atTheHeaders(h *fasthttp.RequestHeader) fasthttp.RequestConfig {
	largest := largestBody
	switch {
	case len(h.ContentEncoding()) > 0:
		largest = 1 // refused in any case, and not worth reading
	case strings.HasPrefix(string(h.RequestURI()), filesBelow):
		largest = largestFile
	}
	return fasthttp.RequestConfig{ReadTimeout: bodyTime, MaxRequestBodySize: largest}
}

var (
	errEncoded  = fiber.NewError(http.StatusUnsupportedMediaType, "Send the request as it is: a Content-Encoding is not read here.")
	errNotOurs  = fiber.NewError(http.StatusForbidden, "This request does not come from Gyrophane's own pages, so nothing was done.")
	errPaced    = fiber.NewError(http.StatusTooManyRequests, "Too much is asked for in a short time; wait a moment and try again.")
	errGuessing = fiber.NewError(http.StatusTooManyRequests, "Too many tries; wait a minute and try again.")
)

var errNotItsName = map[Listener]string{
	Loopback: "This server answers on this machine only, under localhost or 127.0.0.1.",
	Home:     "This server answers at home only, under the address that its pages show.",
}

// limits are how often things may be done on a server that others can reach.
type limits struct {
	turns     turns
	ofPainter *pace    // requests
	ofAddress *pace    // requests, of one client address
	wrong     attempts // passphrases that were wrong, by client address and by name
	registers attempts // painters that were made, by client address
	codes     attempts // of a class that were wrong, by client address
}

// attempts are how often something may be tried, whichever process on the database is asked: counted there and, for as long as
// that does not answer or takes no changes, here.
type attempts struct {
	store *store.Store
	what  string
	rate  store.Rate
	here  *pace
}

func newAttempts(s *store.Store, what string, every time.Duration, burst int) attempts {
	return attempts{s, what, store.Rate{Every: every, Burst: burst}, newPace(every, burst)}
}

// allows counts one more, and says whether that is not too many.
func (a attempts) allows(ctx context.Context, who string) bool {
	here := a.here.allows(who)
	allowed, err := a.store.Try(ctx, a.what+" "+who, a.rate)
	return here && (allowed || err != nil)
}

// spent says that no more is allowed just now, without counting.
func (a attempts) spent(ctx context.Context, who string) bool {
	if a.here.spent(who) {
		return true
	}
	spent, err := a.store.Spent(ctx, a.what+" "+who, a.rate)
	return err == nil && spent
}

// The paces: sustained, and at once. A class behind one address is thirty
// people who drag along paths.
func newLimits(s *store.Store) *limits {
	return &limits{
		ofPainter: newPace(time.Second/40, 400),
		ofAddress: newPace(time.Second/300, 3000),
		wrong:     newAttempts(s, "wrong", 3*time.Second, 20),
		registers: newAttempts(s, "registers", 2*time.Minute, 30),
		codes:     newAttempts(s, "class code", 5*time.Second, 60), // a class that mistypes, all behind one address
	}
}

// guards are what every request passes before it is looked at.
func (s *Server) guards() {
	s.app.Use(s.logged)
	s.app.Use(recovery.New(recovery.Config{EnableStackTrace: true, StackTraceHandler: func(c fiber.Ctx, e any) {
		s.Log.Error("panic", "id", requestID(c), "path", c.Path(), "error", e, "stack", string(debug.Stack()))
	}}))
	s.app.Use(headers)
	s.app.Use(func(c fiber.Ctx) error {
		if !s.answersTo(c.Host()) {
			return fiber.NewError(fiber.StatusMisdirectedRequest, errNotItsName[s.Listener])
		}
		return c.Next()
	})
	s.app.Use(s.sameOrigin)
	s.app.Use(func(c fiber.Ctx) error {
		if len(c.Request().Header.ContentEncoding()) > 0 {
			return errEncoded
		}
		if len(c.BodyRaw()) > largestBody && !strings.HasPrefix(c.Path(), filesBelow) {
			return fiber.ErrRequestEntityTooLarge
		}
		return c.Next()
	})
	s.app.Use(readableAddress)
	s.app.Use(func(c fiber.Ctx) error {
		ctx, cancel := context.WithTimeout(c.Context(), requestTime)
		defer cancel()
		c.SetContext(context.WithValue(ctx, deviceKey{}, device(c.Get(fiber.HeaderUserAgent))))
		return c.Next()
	})
	s.app.Use("/api", func(c fiber.Ctx) error {
		from := household(s.clientAddress(c))
		c.SetContext(context.WithValue(c.Context(), addressKey{}, from))
		if s.Listener != Loopback && !s.limits.ofAddress.allows(from) {
			return errPaced
		}
		return c.Next()
	})
	// Guessing passphrases and codes: twenty wrong ones at once from one address,
	// then one in three seconds.
	for _, path := range []string{"/api/session", "/api/painters", "/api/devices/look", "/api/devices/come-in"} {
		s.app.Use(path, func(c fiber.Ctx) error {
			if !writes(c.Method()) {
				return c.Next()
			}
			from := address(c.Context())
			if s.limits.wrong.spent(c.Context(), from) {
				return errGuessing
			}
			err := c.Next()
			if err != nil || c.Response().StatusCode() >= 400 {
				s.limits.wrong.allows(c.Context(), from)
			}
			return err
		})
	}
}

// addressKey carries where a request comes from.
type addressKey struct{}

func address(ctx context.Context) string {
	from, _ := ctx.Value(addressKey{}).(string)
	return from
}

// forPainter is the header in which a page says whose request it is: what waited in a browser
// is never taken for another painter's who has signed in since.
const forPainter = "For-Painter"

// asPainter goes on with a painter's request, when it is the painter's turn.
func (s *Server) asPainter(ctx huma.Context, p store.Painter, next func(huma.Context)) {
	id := strconv.FormatInt(p.ID, 10)
	if meant := ctx.Header(forPainter); meant != "" && meant != id {
		s.answerProblem(ctx, huma.Error403Forbidden("Another painter is signed in here now, so nothing was done."))
		return
	}
	who := "painter " + id
	if s.Listener != Loopback && !s.limits.ofPainter.allows(who) {
		s.answerProblem(ctx, huma.Error429TooManyRequests(errPaced.Message))
		return
	}
	s.inTurn(ctx, who, next)
}

// inTurn goes on with a request when it is its turn among those of one asker.
func (s *Server) inTurn(ctx huma.Context, who string, next func(huma.Context)) {
	release, err := s.limits.turns.take(ctx.Context(), who)
	if err != nil {
		s.answerProblem(ctx, huma.Error429TooManyRequests(errTooMany.Message))
		return
	}
	defer release()
	next(ctx)
}

func (s *Server) logged(c fiber.Ctx) error {
	s.busy.Add(1)
	defer s.busy.Add(-1)
	start := time.Now()
	c.Locals(requestIDKey{}, s.newRequestID(c))
	c.Set(fiber.HeaderXRequestID, requestID(c))
	err := c.Next()
	if err != nil {
		// The answer is written here, so that its status can be logged.
		if err := c.App().ErrorHandler(c, err); err != nil {
			return err
		}
	}
	took := time.Since(start)
	s.metrics.answered(c, took)
	s.Log.Info("request", "id", requestID(c), "method", c.Method(), "path", c.Path(), "status", c.Response().StatusCode(),
		"ms", float64(took.Microseconds())/1000)
	return nil
}

type requestIDKey struct{}

// requestID is what a request is found again by in the log.
func requestID(c fiber.Ctx) string {
	id, _ := c.Locals(requestIDKey{}).(string)
	return id
}

// newRequestID is what a trusted proxy calls a request, where that is a plain word, or a new one.
func (s *Server) newRequestID(c fiber.Ctx) string {
	if given := c.Get(fiber.HeaderXRequestID); plainID.MatchString(given) && s.trusts(addressOf(c.RequestCtx().RemoteAddr().String())) {
		return given
	}
	return rand.Text()
}

var plainID = regexp.MustCompile(`^[A-Za-z0-9._-]{1,64}$`)

// headers tell the browser how little these pages need.
func headers(c fiber.Ctx) error {
	nonce := rand.Text()
	c.Locals(nonceKey{}, nonce)
	for name, value := range map[string]string{
		"Content-Security-Policy": "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce + "'; " +
			"img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
		"X-Content-Type-Options":       "nosniff",
		"X-Frame-Options":              "DENY",
		"Referrer-Policy":              "no-referrer",
		"Cross-Origin-Opener-Policy":   "same-origin",
		"Cross-Origin-Resource-Policy": "same-origin",
		"Permissions-Policy":           "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
	} {
		c.Set(name, value)
	}
	if c.Path() == shownAt || c.Path() == togetherAt || strings.HasPrefix(c.Path(), "/api/") {
		c.Set("X-Robots-Tag", "noindex, nofollow")
	}
	return c.Next()
}

type nonceKey struct{}

func writes(method string) bool {
	return method != fiber.MethodGet && method != fiber.MethodHead && method != fiber.MethodOptions
}

// sameOrigin lets a question through unless the browser says that another site's
// page asks it (a page on another port of this machine is another), and a write
// only when the browser says that it comes from one of this server's own pages.
func (s *Server) sameOrigin(c fiber.Ctx) error {
	site := c.Get("Sec-Fetch-Site")
	if !writes(c.Method()) {
		if strings.HasPrefix(strings.ToLower(c.Path()), "/api/") && site != "" && site != "same-origin" && site != "none" {
			return errNotOurs
		}
		return c.Next()
	}
	if site != "" && site != "same-origin" {
		return errNotOurs
	}
	origin, err := url.Parse(c.Get(fiber.HeaderOrigin))
	if err != nil || origin.Host == "" || !strings.EqualFold(origin.Host, c.Host()) || origin.Scheme != s.scheme() {
		return errNotOurs
	}
	return c.Next()
}

// readableAddress refuses an address with characters that cannot be shown, in
// its path or behind its question mark.
func readableAddress(c fiber.Ctx) error {
	path, err := url.PathUnescape(c.Path())
	if err != nil {
		path = c.Path()
	}
	said := path
	for name, value := range c.Request().URI().QueryArgs().All() {
		said += string(name) + string(value)
	}
	if r, place := text.Unshowable(said); place > 0 {
		return fiber.NewError(http.StatusUnprocessableEntity, fmt.Sprintf("The address of the request holds a character that cannot be shown (U+%04X).", r))
	}
	return c.Next()
}
