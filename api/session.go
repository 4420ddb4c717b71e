package api

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/mileusna/useragent"

	"gyrophane/store"
)

const sessionDays = 90

// cookieName is not the same at home, where one host may be asked with TLS at one time and without
// at another: a browser does not let a cookie of the second take the place of one of the first.
func (s *Server) cookieName() string {
	switch {
	case s.Listener != Home:
		return "gyrophane"
	case s.TLS:
		return "gyrophane-home-tls"
	}
	return "gyrophane-home"
}

type (
	painterKey struct{}
	sessionKey struct{}
	// askPainterKey carries how an operation that may go without a painter asks
	// for one.
	askPainterKey struct{}
)

// How operations that need not know their painter say so: painterOptional goes
// without one, noPainter has no use for one, painterForTubes asks for one only
// where a tube of a box is meant, and otherwise goes on while the database is away.
var (
	painterOptional = map[string]any{painterNeed: "optional"}
	noPainter       = map[string]any{painterNeed: "none"}
	painterForTubes = map[string]any{painterNeed: "for tubes"}
	// signingIn is open to somebody who is not known yet, at home too.
	signingIn = map[string]any{painterNeed: "optional", openAtHome: true}
	// forPupils is open to the phones of a class, at home too.
	forPupils = map[string]any{painterNeed: "pupil", openAtHome: true}
)

// The keys of an operation's metadata for this.
const (
	painterNeed = "painter"
	openAtHome  = "open at home"
)

// whoPaints finds the painter of a request, and turns requests without one
// away from all that belongs to somebody.
func (s *Server) whoPaints(ctx huma.Context, next func(huma.Context)) {
	need := ctx.Operation().Metadata[painterNeed]
	if s.Listener == Home && ctx.Operation().Metadata[openAtHome] == nil {
		need = nil // whatever is asked, by somebody who is known
	}
	if need == "none" {
		s.inTurn(ctx, s.caller(ctx), next)
		return
	}
	if need == "pupil" {
		s.inTurn(ctx, s.phone(ctx), next)
		return
	}
	if need == "for tubes" {
		ask := sync.OnceValues(func() (store.Painter, error) {
			_, p, err := s.signedIn(ctx)
			return p, err
		})
		s.inTurn(huma.WithValue(ctx, askPainterKey{}, ask), s.caller(ctx), next)
		return
	}
	session, p, err := s.signedIn(ctx)
	switch {
	case err == nil:
		s.asPainter(huma.WithValue(huma.WithValue(ctx, painterKey{}, p), sessionKey{}, session), p, next)
	case need == "optional" && errors.Is(err, errNobody):
		next(huma.WithValue(ctx, goneKey{}, func(asked context.Context) int64 { return s.goneBy(asked, ctx) }))
	default:
		s.answerProblem(ctx, s.refusal(err))
	}
}

// caller is whose turn a request takes before its painter is known: of those on
// this machine each browser has turns of its own, of others each address.
func (s *Server) caller(ctx huma.Context) string {
	if cookie, err := huma.ReadCookie(ctx, s.cookieName()); err == nil && s.Listener == Loopback {
		return "browser " + cookie.Value
	}
	return address(ctx.Context())
}

// phone is whose turn a pupil's request takes: a class stands behind one address, so that each phone has turns of its own.
func (s *Server) phone(ctx huma.Context) string {
	if word := ctx.Header("Pupil"); pupilWord.MatchString(word) {
		return "phone " + word
	}
	return s.caller(ctx)
}

// answerProblem answers with what was refused.
func (s *Server) answerProblem(ctx huma.Context, err error) {
	var problem huma.StatusError
	if !errors.As(err, &problem) {
		problem = huma.Error500InternalServerError(err.Error())
	}
	if later(problem.GetStatus()) {
		ctx.SetHeader("Retry-After", retryAfter)
	}
	huma.WriteErr(s.api, ctx, problem.GetStatus(), problem.Error()) //nolint:errcheck // the answer is the error
}

var errNobody = errors.New("nobody")

// goneKey carries how to learn which painter was deleted since who was signed in where a request comes from.
type goneKey struct{}

// goneBy is the id that the painter had of the browser of a request, where all that was theirs was deleted; 0 else,
// and where that cannot be known just now.
func (s *Server) goneBy(asked context.Context, ctx huma.Context) int64 {
	cookie, err := huma.ReadCookie(ctx, s.cookieName())
	if err != nil || len(cookie.Value) > 100 {
		return 0
	}
	was, err := s.store.GoneBy(asked, cookie.Value)
	if err != nil {
		return 0
	}
	return was
}

// signedIn is the session of a request, and who paints in it; errNobody when
// there is none.
func (s *Server) signedIn(ctx huma.Context) (store.Session, store.Painter, error) {
	cookie, err := huma.ReadCookie(ctx, s.cookieName())
	if err != nil || len(cookie.Value) > 100 {
		return store.Session{}, store.Painter{}, errNobody
	}
	session, p, err := s.store.BySession(ctx.Context(), cookie.Value)
	if errors.Is(err, store.ErrNotFound) || err == nil && !s.goodHere(session, p) {
		err = errNobody
	}
	return session, p, err
}

// goodHere: a session is good at home or elsewhere, as it was begun; what was begun at home without a
// passphrase was let in by the painter.
func (s *Server) goodHere(one store.Session, p store.Painter) bool {
	if s.Listener == Home {
		return one.AtHome
	}
	return !one.AtHome && s.mayEnter(p)
}

// mayEnter says whether a painter can sign in by name: beyond loopback that needs a passphrase.
func (s *Server) mayEnter(p store.Painter) bool {
	return s.Listener == Loopback || p.PassphraseHash != ""
}

// painter is the one who paints in this request.
func painter(ctx context.Context) store.Painter {
	return ctx.Value(painterKey{}).(store.Painter)
}

// painterIfAny is the one who paints in this request; errNobody, or why one
// cannot know, where it may go without.
func painterIfAny(ctx context.Context) (store.Painter, error) {
	if p, ok := ctx.Value(painterKey{}).(store.Painter); ok {
		return p, nil
	}
	if ask, ok := ctx.Value(askPainterKey{}).(func() (store.Painter, error)); ok {
		return ask()
	}
	return store.Painter{}, errNobody
}

// signIn begins a session, and is its cookie.
func (s *Server) signIn(ctx context.Context, p store.Painter) (http.Cookie, error) {
	token := rand.Text()
	from, _ := ctx.Value(deviceKey{}).(string)
	err := s.store.BeginSession(ctx, token, store.Session{PainterID: p.ID, Device: from, AtHome: s.Listener == Home, ExpiresAt: s.store.Now().AddDate(0, 0, sessionDays)})
	return s.cookie(token, sessionDays*24*3600), err
}

func (s *Server) cookie(value string, seconds int) http.Cookie {
	return http.Cookie{Name: s.cookieName(), Value: value, Path: "/", MaxAge: seconds, HttpOnly: true, Secure: s.scheme() == "https", SameSite: http.SameSiteLaxMode}
}

// deviceKey carries the browser of a request, in words.
type deviceKey struct{}

// device says in words which browser a request comes from.
func device(header string) string {
	if len(header) > 500 {
		return "another program"
	}
	ua := useragent.Parse(header)
	switch {
	case ua.Name == "" || ua.Bot:
		return "another program"
	case ua.OS == "":
		return ua.Name
	}
	return ua.Name + " on " + ua.OS
}

// SignedIn is one browser in which a painter is signed in.
type SignedIn struct {
	ID     int64     `json:"id"`
	Device string    `json:"device" doc:"the browser, in words"`
	Since  time.Time `json:"since"`
	Seen   time.Time `json:"seen" doc:"when it was last used, to within ten minutes"`
	AtHome bool      `json:"atHome" doc:"it came in over the home network"`
	Here   bool      `json:"here" doc:"the one that asks"`
}

func (s *Server) sessions(ctx context.Context, _ *struct{}) (*struct{ Body []SignedIn }, error) {
	kept, err := s.store.Sessions(ctx, painter(ctx).ID)
	here, _ := ctx.Value(sessionKey{}).(store.Session)
	out := &struct{ Body []SignedIn }{[]SignedIn{}}
	for _, one := range kept {
		out.Body = append(out.Body, SignedIn{ID: one.ID, Device: one.Device, Since: one.CreatedAt, Seen: one.SeenAt, AtHome: one.AtHome, Here: one.ID == here.ID})
	}
	return out, err
}

func (s *Server) endSession(ctx context.Context, in *ThingID) (*struct{ Body []SignedIn }, error) {
	if err := s.store.EndSession(ctx, painter(ctx).ID, in.ID); err != nil {
		return nil, err
	}
	return s.sessions(ctx, nil)
}

func (s *Server) sessionRoutes() {
	register(s, huma.Operation{OperationID: "sessions", Tags: []string{"painters"}, Summary: "Where the painter is signed in", Method: http.MethodGet, Path: "/api/sessions"}, s.sessions)
	register(s, huma.Operation{OperationID: "endSession", Tags: []string{"painters"}, Summary: "Signs the painter out of one browser", Method: http.MethodDelete, Path: "/api/sessions/{id}"}, s.endSession)
}
