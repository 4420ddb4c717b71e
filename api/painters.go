package api

import (
	"context"
	"errors"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/store"
)

// Profile is a painter as others see one.
type Profile struct {
	ID         int64     `json:"id"`
	Name       string    `json:"name"`
	Demo       bool      `json:"demo"`
	Passphrase bool      `json:"passphrase" doc:"whether a passphrase is asked for"`
	WarmBlue   string    `json:"warmBlue" format:"warmBlue" doc:"the neighbour that the blue called warm leans to"`
	OldBox     bool      `json:"oldBox" doc:"the tubes of the box are called old and mixed: more of them is not known"`
	Since      time.Time `json:"since" doc:"when the painter was made; no other studio has one of the same moment"`
}

func profile(p store.Painter) Profile {
	return Profile{ID: p.ID, Name: p.Name, Demo: p.Demo, Passphrase: p.PassphraseHash != "", WarmBlue: p.WarmBlue, OldBox: p.OldBox, Since: p.CreatedAt}
}

// Session says who is painting here.
type Session struct {
	Painter  *Profile `json:"painter" doc:"null when nobody has been chosen yet"`
	Gone     int64    `json:"gone,omitempty" doc:"the id that the painter had who was signed in here, where all that was theirs was deleted since"`
	Listener Listener `json:"listener" enum:"loopback,home,public" doc:"where the request came in: on this machine, where painters are offered by name; at home; or where anybody can reach it"`
}

type sessionOutput struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      Session
}

func (s *Server) session(ctx context.Context, _ *struct{}) (*struct{ Body Session }, error) {
	out := &struct{ Body Session }{Session{Listener: s.Listener}}
	if p, ok := ctx.Value(painterKey{}).(store.Painter); ok {
		who := profile(p)
		out.Body.Painter = &who
	} else if gone, ok := ctx.Value(goneKey{}).(func(context.Context) int64); ok {
		out.Body.Gone = gone(ctx)
	}
	return out, nil
}

func (s *Server) painters(ctx context.Context, _ *struct{}) (*struct{ Body []Profile }, error) {
	out := &struct{ Body []Profile }{[]Profile{}}
	if s.Listener != Loopback {
		return out, nil // beyond loopback nobody is told who paints here
	}
	painters, err := s.store.Painters(ctx)
	for _, p := range painters {
		out.Body = append(out.Body, profile(p))
	}
	return out, err
}

type newPainterInput struct {
	Body struct {
		Name       string `json:"name" maxLength:"200"`
		Passphrase string `json:"passphrase,omitempty" maxLength:"200"`
	}
}

func (s *Server) newPainter(ctx context.Context, in *newPainterInput) (*sessionOutput, error) {
	if s.Listener != Loopback && in.Body.Passphrase == "" {
		return nil, huma.Error422UnprocessableEntity("Others can reach this server, so a painter needs a passphrase.")
	}
	if s.Listener != Loopback && !s.limits.registers.allows(ctx, address(ctx)) {
		return nil, huma.Error429TooManyRequests("So many new painters came from your address that no more are taken for a while. Try again in some minutes.")
	}
	p, err := s.store.CreatePainter(ctx, in.Body.Name, in.Body.Passphrase)
	if err != nil {
		return nil, err
	}
	return s.enter(ctx, p)
}

type signInInput struct {
	Body struct {
		Painter    int64  `json:"painter,omitempty" doc:"by id, or else by name"`
		Name       string `json:"name,omitempty" maxLength:"200"`
		Passphrase string `json:"passphrase,omitempty" maxLength:"200"`
	}
}

func (s *Server) signInNow(ctx context.Context, in *signInInput) (*sessionOutput, error) {
	// Guessing at one painter from many addresses is slowed down as well.
	at := "painter " + strings.ToLower(in.Body.Name) + strconv.FormatInt(in.Body.Painter, 10)
	if s.limits.wrong.spent(ctx, at) {
		return nil, huma.Error429TooManyRequests(errGuessing.Message)
	}
	var p store.Painter
	var err error
	if in.Body.Painter != 0 && s.Listener == Loopback {
		p, err = s.store.PainterByID(ctx, in.Body.Painter)
	} else {
		p, err = s.store.PainterByName(ctx, in.Body.Name)
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	// The passphrase is looked at whoever it is for, so that the time tells nothing.
	if opens := p.Opens(in.Body.Passphrase); err != nil || !s.mayEnter(p) || !opens {
		s.limits.wrong.allows(ctx, at)
		return nil, huma.Error403Forbidden("That painter and passphrase do not go together.")
	}
	return s.enter(ctx, p)
}

func (s *Server) signOut(ctx context.Context, _ *struct{}) (*sessionOutput, error) {
	if here, ok := ctx.Value(sessionKey{}).(store.Session); ok {
		if err := s.store.EndSession(ctx, here.PainterID, here.ID); err != nil && !errors.Is(err, store.ErrNotFound) {
			return nil, err
		}
	}
	return &sessionOutput{SetCookie: s.cookie("", -1), Body: Session{Listener: s.Listener}}, nil
}

type setSchoolInput struct {
	Body struct {
		WarmBlue string `json:"warmBlue" format:"warmBlue"`
	}
}

func (s *Server) setSchool(ctx context.Context, in *setSchoolInput) (*struct{ Body Profile }, error) {
	p := painter(ctx)
	if err := s.store.SetWarmBlue(ctx, p.ID, in.Body.WarmBlue); err != nil {
		return nil, err
	}
	p.WarmBlue = in.Body.WarmBlue
	return &struct{ Body Profile }{profile(p)}, nil
}

type setBoxAgeInput struct {
	Body struct {
		Old bool `json:"old" doc:"its tubes are old and mixed"`
	}
}

func (s *Server) setBoxAge(ctx context.Context, in *setBoxAgeInput) (*struct{ Body Profile }, error) {
	p := painter(ctx)
	if err := s.store.SetOldBox(ctx, p.ID, in.Body.Old); err != nil {
		return nil, err
	}
	p.OldBox = in.Body.Old
	return &struct{ Body Profile }{profile(p)}, nil
}

type setPassphraseInput struct {
	Body struct {
		Present string `json:"present,omitempty" maxLength:"200" doc:"the passphrase until now"`
		New     string `json:"new,omitempty" maxLength:"200" doc:"empty takes it away"`
	}
}

func (s *Server) setPassphrase(ctx context.Context, in *setPassphraseInput) (*sessionOutput, error) {
	p := painter(ctx)
	if !p.Opens(in.Body.Present) {
		return nil, huma.Error403Forbidden("That is not the present passphrase.")
	}
	if s.Listener != Loopback && in.Body.New == "" {
		return nil, huma.Error422UnprocessableEntity("Others can reach this server, so a painter needs a passphrase.")
	}
	p, err := s.store.SetPassphrase(ctx, p.ID, in.Body.New)
	if err != nil {
		return nil, err
	}
	return s.enter(ctx, p)
}

type deleteMineInput struct {
	Body struct {
		Name       string `json:"name" maxLength:"200" doc:"of the painter, typed: so that nobody does it by mistake"`
		Passphrase string `json:"passphrase,omitempty" maxLength:"200"`
	}
}

// deleteMine deletes all that is a painter's, and the painter.
func (s *Server) deleteMine(ctx context.Context, in *deleteMineInput) (*sessionOutput, error) {
	p := painter(ctx)
	switch {
	case p.Demo:
		return nil, huma.Error422UnprocessableEntity("The demo studio is everybody's: it stays.")
	case in.Body.Name != p.Name:
		return nil, huma.Error422UnprocessableEntity("Type your name as it stands here: " + p.Name + ".")
	case !p.Opens(in.Body.Passphrase):
		return nil, huma.Error403Forbidden("That is not the passphrase.")
	}
	if err := s.store.DropPainter(ctx, p.ID); err != nil {
		return nil, err
	}
	return &sessionOutput{SetCookie: s.cookie("", -1), Body: Session{Listener: s.Listener}}, nil
}

func (s *Server) painterRoutes() {
	register(s, huma.Operation{OperationID: "deleteMine", Tags: []string{"painters"}, Summary: "Deletes all that is the painter's, for good", Method: http.MethodPost, Path: "/api/mine/deleted"}, s.deleteMine)
	register(s, huma.Operation{OperationID: "session", Tags: []string{"painters"}, Summary: "Who is painting here", Method: http.MethodGet, Path: "/api/session", Metadata: signingIn}, s.session)
	register(s, huma.Operation{OperationID: "painters", Tags: []string{"painters"}, Summary: "The painters on this machine; none where others can reach the server", Method: http.MethodGet, Path: "/api/painters", Metadata: painterOptional}, s.painters)
	register(s, huma.Operation{OperationID: "newPainter", Tags: []string{"painters"}, Summary: "Makes a painter and signs in", Method: http.MethodPost, Path: "/api/painters", Metadata: painterOptional}, s.newPainter)
	register(s, huma.Operation{OperationID: "signIn", Tags: []string{"painters"}, Summary: "Signs a painter in", Method: http.MethodPost, Path: "/api/session", Metadata: signingIn}, s.signInNow)
	register(s, huma.Operation{OperationID: "signOut", Tags: []string{"painters"}, Summary: "Ends the session of this browser", Method: http.MethodDelete, Path: "/api/session", Metadata: signingIn}, s.signOut)
	register(s, huma.Operation{OperationID: "setBoxAge", Tags: []string{"painters"}, Summary: "Calls the box fresh, or old and mixed", Method: http.MethodPut, Path: "/api/session/box-age"}, s.setBoxAge)
	register(s, huma.Operation{OperationID: "setSchool", Tags: []string{"painters"}, Summary: "Sets which blue is called warm", Method: http.MethodPut, Path: "/api/session/school"}, s.setSchool)
	register(s, huma.Operation{OperationID: "setPassphrase", Tags: []string{"painters"}, Summary: "Sets, changes or takes away the passphrase; other sessions end", Method: http.MethodPut, Path: "/api/session/passphrase"}, s.setPassphrase)
}

func (s *Server) enter(ctx context.Context, p store.Painter) (*sessionOutput, error) {
	c, err := s.signIn(ctx, p)
	if err != nil {
		return nil, err
	}
	who := profile(p)
	return &sessionOutput{c, Session{Painter: &who, Listener: s.Listener}}, nil
}
