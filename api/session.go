package api

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"errors"
	"net/http"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/store"
)

const (
	cookieName  = "gyrophane"
	sessionDays = 90
)

// keyring holds the signing key once it has been read.
type keyring struct {
	mu  sync.Mutex
	key []byte
}

func (k *keyring) get(ctx context.Context, s *store.Store) ([]byte, error) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.key == nil {
		key, err := s.SessionKey(ctx)
		if err != nil {
			return nil, err
		}
		k.key = key
	}
	return k.key, nil
}

// token is "painter.expiry.passphrase mark.signature": whoever holds it paints
// as that painter until it expires or the passphrase changes.
func token(key []byte, p store.Painter, expires time.Time) string {
	body := strconv.FormatInt(p.ID, 10) + "." + strconv.FormatInt(expires.Unix(), 10) + "." + passphraseMark(p)
	return body + "." + sign(key, body)
}

func sign(key []byte, body string) string {
	mac := hmac.New(sha256.New, key)
	mac.Write([]byte(body))
	return base64.RawURLEncoding.EncodeToString(mac.Sum(nil))
}

func passphraseMark(p store.Painter) string {
	sum := sha256.Sum256([]byte(p.PassphraseHash))
	return hex.EncodeToString(sum[:8])
}

// read checks a token's signature and expiry.
func readToken(key []byte, token string, now time.Time) (painter int64, mark string, ok bool) {
	body, signature, found := cutLast(token, ".")
	if !found || !hmac.Equal([]byte(signature), []byte(sign(key, body))) {
		return 0, "", false
	}
	fields := strings.Split(body, ".")
	if len(fields) != 3 {
		return 0, "", false
	}
	painter, err1 := strconv.ParseInt(fields[0], 10, 64)
	expires, err2 := strconv.ParseInt(fields[1], 10, 64)
	if err1 != nil || err2 != nil || now.Unix() > expires {
		return 0, "", false
	}
	return painter, fields[2], true
}

func cutLast(s, sep string) (before, after string, found bool) {
	i := strings.LastIndex(s, sep)
	if i < 0 {
		return s, "", false
	}
	return s[:i], s[i+len(sep):], true
}

type painterKey struct{}

// open marks the operations that go without a painter, anyones those that
// have no use for one, lazily those that ask for one only where a tube of a box
// is meant, and otherwise go on while the database is away.
var (
	lazily  = map[string]any{"lazily": true}
	open    = map[string]any{"open": true}
	anyones = map[string]any{"anyones": true}
)

// whoPaints finds the painter of a request, and turns requests without one
// away from all that belongs to somebody.
func (s *Server) whoPaints(ctx huma.Context, next func(huma.Context)) {
	if ctx.Operation().Metadata["anyones"] == true {
		next(ctx)
		return
	}
	p, err := s.painterOf(ctx)
	switch {
	case err != nil && ctx.Operation().Metadata["lazily"] == true:
		next(huma.WithValue(ctx, noPainterKey{}, err))
	case err == nil:
		next(huma.WithValue(ctx, painterKey{}, p))
	case ctx.Operation().Metadata["open"] == true && !store.Unavailable(err):
		next(ctx)
	case errors.Is(err, errNobody):
		huma.WriteErr(s.api, ctx, http.StatusUnauthorized, "Say first who is painting.") //nolint:errcheck // the answer is the error
	default:
		problem := s.refusal(err).(huma.StatusError)
		huma.WriteErr(s.api, ctx, problem.GetStatus(), problem.Error()) //nolint:errcheck // the answer is the error
	}
}

// noPainterKey carries why a request has no painter, where it may go without.
type noPainterKey struct{}

var errNobody = errors.New("nobody")

func (s *Server) painterOf(ctx huma.Context) (store.Painter, error) {
	cookie, err := huma.ReadCookie(ctx, cookieName)
	if err != nil {
		return store.Painter{}, errNobody
	}
	key, err := s.keys.get(ctx.Context(), s.store)
	if err != nil {
		return store.Painter{}, err
	}
	id, mark, ok := readToken(key, cookie.Value, time.Now())
	if !ok {
		return store.Painter{}, errNobody
	}
	p, err := s.store.PainterByID(ctx.Context(), id)
	if errors.Is(err, store.ErrNotFound) {
		return p, errNobody
	}
	if err == nil && (mark != passphraseMark(p) || !s.mayEnter(p)) {
		return p, errNobody
	}
	return p, err
}

// mayEnter: beyond loopback every painter needs a passphrase.
func (s *Server) mayEnter(p store.Painter) bool { return s.Local || p.PassphraseHash != "" }

// painter is the one who paints in this request.
func painter(ctx context.Context) store.Painter {
	return ctx.Value(painterKey{}).(store.Painter)
}

// signIn is the cookie for a painter.
func (s *Server) signIn(ctx context.Context, p store.Painter) (http.Cookie, error) {
	key, err := s.keys.get(ctx, s.store)
	if err != nil {
		return http.Cookie{}, err
	}
	expires := time.Now().Add(sessionDays * 24 * time.Hour)
	return cookie(token(key, p, expires), sessionDays*24*3600), nil
}

func cookie(value string, seconds int) http.Cookie {
	return http.Cookie{Name: cookieName, Value: value, Path: "/", MaxAge: seconds, HttpOnly: true, SameSite: http.SameSiteLaxMode}
}
