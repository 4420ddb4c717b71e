package api

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"math/big"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/store"
)

// codeTime is how long a code for another device is good, and how long whoever has come with it may
// then wait to be let in.
const codeTime = 2 * time.Minute

// AtHome is how other devices of the house reach the server.
type AtHome struct {
	Address     string `json:"address" doc:"of its pages; empty where it listens on this machine alone"`
	TLS         bool   `json:"tls"`
	Authority   string `json:"authority" doc:"where the certificate of its own authority can be had; empty when it has none"`
	Fingerprint string `json:"fingerprint" doc:"of that certificate: SHA-256, in pairs of hexadecimal digits"`
}

// Access is how a server is come to.
type Access struct {
	Listener Listener `json:"listener" enum:"loopback,home,public"`
	Home     AtHome   `json:"home"`
}

func (s *Server) access(context.Context, *struct{}) (Access, error) {
	return Access{s.Listener, s.atHome()}, nil
}

func (s *Server) atHome() AtHome {
	if s.Home == nil {
		return AtHome{}
	}
	return s.Home()
}

// NewDeviceCode is a code for one more device.
type NewDeviceCode struct {
	Code  string    `json:"code"`
	Until time.Time `json:"until"`
}

type newDeviceCodeInput struct {
	Body struct {
		Reachable bool `json:"reachable,omitempty" doc:"a painter without a passphrase says with it: whoever holds a device that was let in reaches all that is mine"`
	}
}

var (
	errUnreached   = huma.Error422UnprocessableEntity("No other device can reach this server: start it with gyrophane serve --lan.")
	errUnlocked    = huma.Error422UnprocessableEntity("You have no passphrase: whoever holds a device that was let in reaches all that is yours. Say that this is as you want it, or take a passphrase.")
	errCodeSpent   = huma.Error409Conflict("This code has been used already. Make another one where it was shown.")
	errNoCode      = huma.Error404NotFound("This code opens nothing, or no more: it is good for two minutes, and once. Make another one where it was shown.")
	errNobodyWaits = huma.Error404NotFound("Nobody waits with this number any more; make another code.")
)

func (s *Server) newDeviceCode(ctx context.Context, in *newDeviceCodeInput) (out NewDeviceCode, err error) {
	p := painter(ctx)
	switch {
	case s.Listener == Loopback && s.atHome().Address == "":
		return out, errUnreached
	case p.PassphraseHash == "" && !in.Body.Reachable:
		return out, errUnlocked
	}
	out = NewDeviceCode{Code: rand.Text(), Until: s.store.Now().Add(codeTime)}
	return out, s.store.NewDeviceCode(ctx, p.ID, out.Code, out.Until)
}

// DeviceAsking is how far a code for another device has come.
type DeviceAsking struct {
	Code   string `json:"code" enum:"none,open,asks" doc:"none: it was used, taken back, or is too old; open: nobody has come with it; asks: a device waits to be let in"`
	Device string `json:"device" doc:"the browser that asks, in words"`
	Check  string `json:"check" doc:"the number that it shows"`
}

func (s *Server) deviceCode(ctx context.Context, _ *struct{}) (DeviceAsking, error) {
	one, err := s.store.DeviceCodeOf(ctx, painter(ctx).ID)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return DeviceAsking{Code: "none"}, nil
	case err != nil:
		return DeviceAsking{}, err
	case !one.Spent():
		return DeviceAsking{Code: "open"}, nil
	}
	return DeviceAsking{Code: "asks", Device: one.Device, Check: one.Check}, nil
}

type answerDeviceInput struct {
	Body struct {
		Check string `json:"check" maxLength:"10" doc:"the number that the device shows"`
		LetIn bool   `json:"letIn"`
	}
}

func (s *Server) answerDevice(ctx context.Context, in *answerDeviceInput) (*struct{ Body []SignedIn }, error) {
	err := s.store.AnswerDevice(ctx, painter(ctx).ID, in.Body.Check, in.Body.LetIn, s.store.Now().AddDate(0, 0, sessionDays))
	if errors.Is(err, store.ErrNotFound) {
		err = errNobodyWaits
	}
	if err != nil {
		return nil, err
	}
	return s.sessions(ctx, nil)
}

func (s *Server) endDeviceCode(ctx context.Context, _ *struct{}) (*struct{}, error) {
	return nil, s.store.EndDeviceCode(ctx, painter(ctx).ID)
}

type codeInput struct {
	Body struct {
		Code string `json:"code" minLength:"1" maxLength:"100"`
	}
}

// CodeOpens is whose studio a code opens.
type CodeOpens struct {
	Painter int64  `json:"painter"`
	Name    string `json:"name"`
	Spent   bool   `json:"spent" doc:"a device has come with it and waits to be let in"`
}

func (s *Server) codeOpens(ctx context.Context, code string) (store.DeviceCode, store.Painter, error) {
	one, p, err := s.store.PainterOfCode(ctx, code)
	if errors.Is(err, store.ErrNotFound) || err == nil && s.Listener == Public && p.PassphraseHash == "" {
		err = errNoCode
	}
	return one, p, err
}

func (s *Server) lookAtCode(ctx context.Context, in *codeInput) (CodeOpens, error) {
	one, p, err := s.codeOpens(ctx, in.Body.Code)
	return CodeOpens{p.ID, p.Name, one.Spent()}, err
}

// ComesIn is what a device shows that waits to be let in.
type ComesIn struct {
	Check string    `json:"check" doc:"the number that both devices show"`
	Until time.Time `json:"until"`
}

type comeInOutput struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      ComesIn
}

// comeIn spends a code. The cookie is worth nothing before the device was let in.
func (s *Server) comeIn(ctx context.Context, in *codeInput) (*comeInOutput, error) {
	if _, _, err := s.codeOpens(ctx, in.Body.Code); err != nil {
		return nil, err
	}
	n, err := rand.Int(rand.Reader, big.NewInt(90))
	if err != nil {
		return nil, err
	}
	token := rand.Text()
	from, _ := ctx.Value(deviceKey{}).(string)
	asks := store.DeviceCode{Device: from, Check: fmt.Sprint(10 + n.Int64()), AtHome: s.Listener == Home, ExpiresAt: s.store.Now().Add(codeTime)}
	switch err := s.store.SpendDeviceCode(ctx, in.Body.Code, token, asks); {
	case errors.Is(err, store.ErrSpent):
		return nil, errCodeSpent
	case errors.Is(err, store.ErrNotFound):
		return nil, errNoCode
	case err != nil:
		return nil, err
	}
	return &comeInOutput{s.cookie(token, sessionDays*24*3600), ComesIn{asks.Check, asks.ExpiresAt}}, nil
}

func (s *Server) deviceRoutes() {
	tags := []string{"painters"}
	register(s, huma.Operation{OperationID: "access", Tags: tags, Summary: "How other devices reach this server", Method: http.MethodGet, Path: "/api/devices/access"}, bodied(s.access))
	register(s, huma.Operation{OperationID: "newDeviceCode", Tags: tags, Summary: "Makes a code that lets one more device of the painter come in, once", Method: http.MethodPost, Path: "/api/devices/code"}, bodied(s.newDeviceCode))
	register(s, huma.Operation{OperationID: "deviceCode", Tags: tags, Summary: "How far the painter's code for another device has come", Method: http.MethodGet, Path: "/api/devices/code"}, bodied(s.deviceCode))
	register(s, huma.Operation{OperationID: "endDeviceCode", Tags: tags, Summary: "Takes the code back, and sends away whoever waits with it", Method: http.MethodDelete, Path: "/api/devices/code"}, s.endDeviceCode)
	register(s, huma.Operation{OperationID: "answerDevice", Tags: tags, Summary: "Lets the device in that waits, or sends it away", Method: http.MethodPost, Path: "/api/devices/answer"}, s.answerDevice)
	register(s, huma.Operation{OperationID: "lookAtCode", Tags: tags, Summary: "Whose studio a code opens; it is not spent by this", Method: http.MethodPost, Path: "/api/devices/look", Metadata: signingIn}, bodied(s.lookAtCode))
	register(s, huma.Operation{OperationID: "comeIn", Tags: tags, Summary: "Spends a code: the device waits from now on to be let in", Method: http.MethodPost, Path: "/api/devices/come-in", Metadata: signingIn}, s.comeIn)
}
