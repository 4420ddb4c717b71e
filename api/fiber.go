package api

import (
	"bytes"
	"context"
	"crypto/tls"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gofiber/fiber/v3"
)

// fiberAdapter lets Huma (typed requests, validation, problem documents,
// OpenAPI) register its operations on a Fiber v3 application.
type fiberAdapter struct{ app *fiber.App }

func (a fiberAdapter) Handle(op *huma.Operation, handler func(huma.Context)) {
	path := strings.NewReplacer("{", ":", "}", "").Replace(op.Path)
	a.app.Add([]string{op.Method}, path, func(c fiber.Ctx) error {
		ctx := context.WithValue(c.Context(), connKey{}, c.RequestCtx().Conn())
		c.SetContext(context.WithValue(ctx, requestKey{}, c.RequestCtx()))
		handler(&fiberContext{op: op, c: c})
		return nil
	})
}

// requestKey carries the request itself, for answers that are streamed.
type requestKey struct{}

// ServeHTTP runs one request through the application without a socket.
func (a fiberAdapter) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	resp, err := a.app.Test(r)
	if err != nil {
		http.Error(w, err.Error(), http.StatusInternalServerError)
		return
	}
	defer resp.Body.Close()
	for name, values := range resp.Header {
		w.Header()[name] = values
	}
	w.WriteHeader(resp.StatusCode)
	io.Copy(w, resp.Body) //nolint:errcheck // the reader has gone; nobody to tell
}

// fiberContext is one request, as Huma wants to see it. Fiber reuses its
// buffers, so every string that leaves the request is copied.
type fiberContext struct {
	op *huma.Operation
	c  fiber.Ctx
}

func (f *fiberContext) Operation() *huma.Operation { return f.op }
func (f *fiberContext) Context() context.Context   { return f.c.Context() }
func (f *fiberContext) TLS() *tls.ConnectionState  { return f.c.RequestCtx().TLSConnectionState() }
func (f *fiberContext) Version() huma.ProtoVersion {
	return huma.ProtoVersion{Proto: f.c.Protocol()}
}
func (f *fiberContext) Method() string            { return f.c.Method() }
func (f *fiberContext) Host() string              { return strings.Clone(f.c.Host()) }
func (f *fiberContext) RemoteAddr() string        { return f.c.RequestCtx().RemoteAddr().String() }
func (f *fiberContext) Param(name string) string  { return strings.Clone(f.c.Params(name)) }
func (f *fiberContext) Query(name string) string  { return strings.Clone(f.c.Query(name)) }
func (f *fiberContext) Header(name string) string { return strings.Clone(f.c.Get(name)) }
func (f *fiberContext) BodyReader() io.Reader     { return bytes.NewReader(f.c.BodyRaw()) }
func (f *fiberContext) BodyWriter() io.Writer     { return f.c.RequestCtx() }
func (f *fiberContext) Status() int               { return f.c.Response().StatusCode() }
func (f *fiberContext) SetStatus(code int)        { f.c.Status(code) }
func (f *fiberContext) SetHeader(name, value string) {
	f.c.Set(name, value)
}
func (f *fiberContext) AppendHeader(name, value string) {
	f.c.RequestCtx().Response.Header.Add(name, value)
}
func (f *fiberContext) GetMultipartForm() (*multipart.Form, error) { return f.c.MultipartForm() }
func (f *fiberContext) SetReadDeadline(t time.Time) error {
	return f.c.RequestCtx().Conn().SetReadDeadline(t)
}

func (f *fiberContext) URL() url.URL {
	u, err := url.ParseRequestURI(string(f.c.Request().RequestURI()))
	if err != nil {
		return url.URL{}
	}
	return *u
}

func (f *fiberContext) EachHeader(visit func(name, value string)) {
	for name, value := range f.c.Request().Header.All() {
		visit(string(name), string(value))
	}
}
