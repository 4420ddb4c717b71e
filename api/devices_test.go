package api_test

import (
	"fmt"
	"log/slog"
	"slices"
	"strings"
	"testing"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/store"
)

const homeHost = "192.168.7.20:8640"

// house is one store on this machine, at home, and where anybody can reach it.
type house struct {
	t                  *testing.T
	desk, home, public *fiber.App
	store              *store.Store
}

func newHouse(t *testing.T) house {
	t.Helper()
	_, s := server(t, true)
	at := api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler), Home: func() api.AtHome { return api.AtHome{Address: "http://" + homeHost} }}
	desk := api.New(s, at)
	stops(t, desk)
	at.Listener, at.Names = api.Home, []string{"192.168.7.20", "studio.local"}
	home := desk.Beside(at).App()
	reached := desk.Beside(api.Options{Log: at.Log}).App()
	public.Store(reached, true)
	return house{t, desk.App(), home, reached, s}
}

func (h house) phone() *client { return &client{t: h.t, app: h.home, host: homeHost} }

// code makes a code at the desk.
func (h house) code(desk *client) string {
	var made api.NewDeviceCode
	desk.ok("POST", "/api/devices/code", `{"reachable":true}`, &made)
	return fmt.Sprintf(`{"code":%q}`, made.Code)
}

func TestAPhoneComesInWithACodeThatTheDeskAnswers(t *testing.T) {
	h := newHouse(t)
	desk, phone := signedUp(t, h.desk, "Ada"), h.phone()
	asking := func() (out api.DeviceAsking) {
		desk.ok("GET", "/api/devices/code", "", &out)
		return out
	}
	assert.Equal(t, api.DeviceAsking{Code: "none"}, asking())
	status, text := desk.do("POST", "/api/devices/code", `{}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "You have no passphrase", "one without a passphrase says yes first")
	code := h.code(desk)
	assert.Equal(t, "open", asking().Code)

	for range 2 { // a preview does not burn it
		var opens api.CodeOpens
		phone.ok("POST", "/api/devices/look", code, &opens)
		assert.Equal(t, "Ada", opens.Name)
		assert.False(t, opens.Spent)
	}
	var in api.ComesIn
	phone.ok("POST", "/api/devices/come-in", code, &in)
	status, _ = phone.do("GET", "/api/wheels", "")
	assert.Equal(t, 401, status, "not before the desk has said so")
	another := h.phone()
	status, text = another.do("POST", "/api/devices/come-in", code)
	assert.Equal(t, 409, status, text)
	assert.Equal(t, "asks", asking().Code)
	assert.Equal(t, in.Check, asking().Check, "both show one number")
	status, _ = desk.do("POST", "/api/devices/answer", `{"check":"9","letIn":true}`)
	assert.Equal(t, 404, status)

	var all []api.SignedIn
	desk.ok("POST", "/api/devices/answer", fmt.Sprintf(`{"check":%q,"letIn":true}`, in.Check), &all)
	require.Len(t, all, 2)
	assert.Equal(t, 1, countOf(all, func(s api.SignedIn) bool { return s.AtHome && !s.Here }))
	phone.ok("GET", "/api/wheels", "", nil)
	status, _ = phone.do("POST", "/api/devices/look", code)
	assert.Equal(t, 404, status, "it opens nothing any more")

	there := all[slices.IndexFunc(all, func(s api.SignedIn) bool { return s.AtHome })]
	desk.ok("DELETE", fmt.Sprintf("/api/sessions/%d", there.ID), "", nil)
	status, _ = phone.do("GET", "/api/wheels", "")
	assert.Equal(t, 401, status, "ended at the desk")
}

func TestADeviceThatIsSentAwayStaysOut(t *testing.T) {
	h := newHouse(t)
	desk := signedUp(t, h.desk, "Ada")
	for name, end := range map[string]func(check string){
		"sent away": func(check string) {
			desk.ok("POST", "/api/devices/answer", fmt.Sprintf(`{"check":%q,"letIn":false}`, check), nil)
		},
		"taken back": func(string) { desk.ok("DELETE", "/api/devices/code", "", nil) },
	} {
		t.Run(name, func(t *testing.T) {
			phone := h.phone()
			code := h.code(desk)
			var in api.ComesIn
			phone.ok("POST", "/api/devices/come-in", code, &in)
			end(in.Check)
			status, _ := phone.do("GET", "/api/wheels", "")
			assert.Equal(t, 401, status)
			status, text := phone.do("POST", "/api/devices/look", code)
			assert.Equal(t, 404, status)
			assert.Contains(t, text, "opens nothing")
		})
	}
}

func TestACookieIsGoodWhereItWasGivenAlone(t *testing.T) {
	h := newHouse(t)
	_, err := h.store.CreatePainter(t.Context(), "Ada", "wet on wet 1")
	require.NoError(t, err)
	enter := func(app *fiber.App, host string) *client {
		c := &client{t: t, app: app, host: host}
		r := c.request("POST", "/api/session", `{"name":"Ada","passphrase":"wet on wet 1"}`)
		status, text, head := c.send(r)
		require.Equal(t, 200, status, text)
		assert.Equal(t, app == h.public, strings.Contains(strings.ToLower(head.Get("Set-Cookie")), "secure"), "at home it goes over plain HTTP")
		return c
	}
	at := map[string]*client{"desk": enter(h.desk, ""), "home": enter(h.home, homeHost), "public": enter(h.public, "")}
	apps := map[string]*fiber.App{"desk": h.desk, "home": h.home, "public": h.public}
	for from, c := range at {
		_, token, _ := strings.Cut(c.cookie, "=")
		for to, app := range apps {
			good := from == to || from != "home" && to != "home"
			for _, name := range []string{"gyrophane", "gyrophane-home", "gyrophane-home-tls"} {
				other := &client{t: t, app: app, cookie: name + "=" + token}
				if to == "home" {
					other.host = homeHost
				}
				status, text := other.do("GET", "/api/wheels", "")
				named := strings.HasSuffix(name, "home") == (to == "home") && !strings.HasSuffix(name, "tls")
				assert.Equal(t, map[bool]int{true: 200, false: 401}[good && named], status, "%s's cookie as %s at %s: %s", from, name, to, text)
			}
		}
	}
}

func TestAtHomeNothingIsOpenButToComeIn(t *testing.T) {
	h := newHouse(t)
	_, err := h.store.CreatePainter(t.Context(), "Open", "")
	require.NoError(t, err)
	nobody, forged := h.phone(), h.phone()
	forged.cookie = "gyrophane-home=whoever"
	openThere := []string{"GET /api/session", "POST /api/session", "DELETE /api/session", "POST /api/devices/look", "POST /api/devices/come-in"}
	for _, r := range routes(t) {
		path, _, _ := strings.Cut(r[1], "?")
		if slices.Contains(openThere, r[0]+" "+path) {
			continue
		}
		for _, c := range []*client{nobody, forged} {
			status, text := c.do(r[0], r[1], "{}")
			assert.Equal(t, toAStranger(r[0], path), status, "%s %s: %s", r[0], r[1], text)
		}
	}
	for _, path := range []string{"/api/docs", "/api/openapi.json"} {
		_, text := nobody.do("GET", path, "")
		assert.NotContains(t, text, "/api/wheels", path)
	}
	other := h.phone()
	for _, said := range []string{`{"name":"Open"}`, `{"name":"Tide-pool studio"}`, `{"painter":1}`, `{"name":"Open","passphrase":""}`} {
		status, text := other.do("POST", "/api/session", said)
		assert.Equal(t, 403, status, "%s: %s", said, text)
	}
	for host, want := range map[string]int{"192.168.7.20:8640": 200, "192.168.7.20": 200, "Studio.local:8640": 200, "127.0.0.1:8640": 421, "localhost": 421, "rebound.example": 421} {
		r := nobody.request("GET", "/api/session", "")
		r.Host = host
		status, text, _ := nobody.send(r)
		assert.Equal(t, want, status, "%q: %s", host, text)
	}
	r := nobody.request("POST", "/api/devices/look", `{"code":"x"}`)
	r.Header.Set("Origin", "https://"+homeHost)
	status, _, _ := nobody.send(r)
	assert.Equal(t, 403, status, "a page of another scheme is another's")
}

func TestCodesAreGuessedAtForAWhileOnly(t *testing.T) {
	h := newHouse(t)
	phone := h.phone()
	last := 0
	for range 25 {
		last, _ = phone.do("POST", "/api/devices/look", `{"code":"AAAAAAAAAAAAAAAAAAAAAAAAAA"}`)
	}
	assert.Equal(t, 429, last)
}

func TestACodeIsRefusedWhereNoDeviceCouldUseIt(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	status, text := ada.do("POST", "/api/devices/code", `{"reachable":true}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "gyrophane serve --lan")

	h := newHouse(t)
	desk := signedUp(t, h.desk, "Bea")
	code := h.code(desk)
	c := &client{t: t, app: h.public}
	status, _ = c.do("POST", "/api/devices/look", code)
	assert.Equal(t, 404, status, "beyond the house a painter without a passphrase cannot be entered")
}
