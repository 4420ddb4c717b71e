package api_test

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

// stranger looks at what is shown under a token: no cookie, no page of ours before it.
func stranger(t *testing.T, app *fiber.App, token string) (status int, text string, got api.Exhibit) {
	t.Helper()
	nobody := &client{t: t, app: app}
	request := nobody.request("GET", "/api/shown", "")
	request.Header.Set("Showing", token)
	status, text, header := nobody.send(request)
	assert.Empty(t, header.Get("Set-Cookie"))
	assert.Equal(t, "noindex, nofollow", header.Get("X-Robots-Tag"))
	assert.Equal(t, "no-referrer", header.Get("Referrer-Policy"))
	if status == http.StatusOK {
		assert.Equal(t, "no-store", header.Get("Cache-Control"))
		require.NoError(t, json.Unmarshal([]byte(text), &got))
	}
	return status, text, got
}

func (c *client) shows(body string) (out api.MadeShowing) {
	c.t.Helper()
	c.ok("POST", "/api/showings?medium=gouache", body, &out)
	return out
}

// changes saves a kept wheel with something of it changed.
func (c *client) changes(wheel int64, change func(*api.WheelContent)) {
	c.t.Helper()
	at := fmt.Sprintf("/api/wheels/%d", wheel)
	var w api.KeptWheel
	c.ok("GET", at, "", &w)
	change(&w.WheelContent)
	body, err := json.Marshal(struct {
		api.WheelContent
		Version int `json:"version"`
	}{w.WheelContent, w.Version})
	require.NoError(c.t, err)
	c.ok("PUT", at, string(body), nil)
}

// secret is what a painter with things to show has said that others need not know, by what it is told as.
var secret = map[string]string{"notes": "bought on a whim", "prices": "12.34", "name": "Ada of the rocks"}

// showsAll is a painter with a wheel, a comparison and a box, all with something said of them.
func showsAll(t *testing.T, app *fiber.App) (ada *client, things map[string]int64) {
	t.Helper()
	ada = signedUp(t, app, secret["name"])
	w := aWheelOfTubes(ada)
	tube := ada.tube("limpet")
	ada.ok("PUT", at(tube), saying(tube, func(c *wire.TubeContent) {
		price := 12.34
		c.Note, c.Price = secret["notes"], &price
	}), nil)
	// A system of tubes that all have a price.
	ada.ok("POST", "/api/box/paints", `{"paints":["PY65"]}`, nil)
	roles := map[string]string{}
	for _, of := range []string{"PY65", "limpet", "PB29"} {
		tube := ada.tube(of)
		ada.ok("PUT", at(tube), saying(tube, func(c *wire.TubeContent) {
			price := 12.34
			c.Price = &price
		}), nil)
		roles[of] = tube.Paint.ID
	}
	ada.changes(w.ID, func(w *api.WheelContent) {
		w.System.Roles = [3][]string{{roles["PY65"]}, {roles["limpet"]}, {roles["PB29"]}}
	})
	var kept []api.KeptComparison
	ada.ok("POST", "/api/comparisons", fmt.Sprintf(`{"address":"systems=%d","note":%q,"decision":"the first"}`, w.ID, secret["notes"]), &kept)
	// A sitting that was noted in, read and photographed.
	_, sitting, sat := ada.sits()
	ada.readBy(sitting.ID, map[string]float64{"PB29": 1.3})
	ada.ok("POST", sat+"/events", told("noted", "noted", fmt.Sprintf(`,"text":%q`, secret["notes"])), nil)
	ada.ok("POST", sat+"/standin", `{}`, nil)
	return ada, map[string]int64{"wheel": w.ID, "comparison": kept[0].ID, "box": 0, "sheet": w.ID, "sitting": sitting.ID}
}

func showing(kind string, thing int64, more string) string {
	if thing == 0 {
		return fmt.Sprintf(`{"kind":%q%s}`, kind, more)
	}
	return fmt.Sprintf(`{"kind":%q,"thing":%d%s}`, kind, thing, more)
}

func TestOthersSeeWhatIsSaidAndNoMore(t *testing.T) {
	app, _ := server(t, true)
	ada, things := showsAll(t, app)
	for kind, thing := range things {
		var said api.Showable
		ada.ok("GET", "/api/showable/"+kind, "", &said)
		assert.NotEmpty(t, said.Seen)
		may := map[string]string{"notes": said.Notes, "prices": said.Prices, "name": said.Name}
		for _, live := range []bool{true, false} {
			plain := ada.shows(showing(kind, thing, fmt.Sprintf(`,"live":%v`, live)))
			status, text, got := stranger(t, app, plain.Token)
			require.Equal(t, 200, status, text)
			assert.Equal(t, kind, got.Kind)
			assert.Equal(t, live, got.AsOf == nil)
			if kind == "comparison" {
				assert.Nil(t, got.Comparison.Systems[0].Price)
			}
			for what, is := range secret {
				assert.NotContains(t, text, is, "%s: %s is off unless asked for", kind, what)
				on := ada.shows(showing(kind, thing, fmt.Sprintf(`,"live":%v,%q:true`, live, what)))
				_, text, got := stranger(t, app, on.Token)
				seen := strings.Contains(text, is)
				if kind == "comparison" && what == "prices" {
					require.NotNil(t, got.Comparison.Systems[0].Price) // they are told together
					seen = true
				}
				assert.Equal(t, may[what] != "", seen, "%s shows %s where it says so", kind, what)
			}
			if kind == "sitting" {
				assert.Empty(t, got.Sitting.Photos, "off unless asked for")
				assert.NotEmpty(t, got.Sitting.Places)
			}
			if kind == "sheet" {
				assert.Contains(t, got.Sheet[0], "<svg")
			}
			for _, never := range []string{"north wall", "archived", "version\"", ada.cookie} {
				assert.NotContains(t, text, never, kind)
			}
		}
	}
}

func TestAShowingIsLiveOrOfItsDay(t *testing.T) {
	app, _ := server(t, true)
	ada, things := showsAll(t, app)
	live := ada.shows(showing("wheel", things["wheel"], `,"live":true`))
	then := ada.shows(showing("wheel", things["wheel"], `,"live":false`))
	_, before, _ := stranger(t, app, then.Token)
	ada.changes(things["wheel"], func(w *api.WheelContent) {
		w.Name = "Another tide"
		w.System.Roles[2] = []string{"PB15:3"}
	})
	_, text, got := stranger(t, app, live.Token)
	assert.Equal(t, "Another tide", got.Called)
	assert.Contains(t, text, "phthalo")
	_, after, _ := stranger(t, app, then.Token)
	assert.Equal(t, before, after)
}

// Whatever is wrong with an address, the answer is the same to the letter.
func TestNothingTellsWhyNothingIsShown(t *testing.T) {
	app, s := server(t, true)
	now := time.Now()
	s.Clock = func() time.Time { return now }
	ada, things := showsAll(t, app)
	back := ada.shows(showing("wheel", things["wheel"], `,"live":true`))
	ended := ada.shows(showing("box", 0, `,"live":false,"hours":2`))
	gone := ada.shows(showing("comparison", things["comparison"], `,"live":true`))
	var left []api.Showing
	ada.ok("GET", "/api/showings", "", &left)
	assert.Len(t, left, 3)
	ada.ok("DELETE", fmt.Sprintf("/api/showings/%d", back.ID), "", &left)
	assert.Len(t, left, 2)
	ada.ok("DELETE", fmt.Sprintf("/api/comparisons/%d", things["comparison"]), "", nil)
	now = now.Add(3 * time.Hour)
	ada.ok("GET", "/api/showings", "", &left)
	assert.Empty(t, left)
	_, same, _ := stranger(t, app, "")
	for why, token := range map[string]string{"taken back": back.Token, "ended": ended.Token, "its thing is gone": gone.Token, "guessed": "AAAAAAAAAAAAAAAAAAAAAAAAAA", "long": strings.Repeat("A", 4000)} {
		status, text, _ := stranger(t, app, token)
		assert.Equal(t, 404, status, why)
		assert.Equal(t, same, text, why)
		assert.NotContains(t, text, "AAAA", why)
	}
}

func TestWhatIsAnothersCannotBeShown(t *testing.T) {
	app, _ := server(t, true)
	ada, things := showsAll(t, app)
	made := ada.shows(showing("wheel", things["wheel"], `,"live":true`))
	ben := signedUp(t, app, "Ben")
	for kind, thing := range things {
		if kind == "box" {
			continue
		}
		status, text := ben.do("POST", "/api/showings", showing(kind, thing, `,"live":true`))
		assert.Equal(t, 404, status, "%s: %s", kind, text)
	}
	status, _ := ben.do("DELETE", fmt.Sprintf("/api/showings/%d", made.ID), "")
	assert.Equal(t, 404, status)
	for _, body := range []string{`{"kind":"wheel","live":true}`, `{"kind":"sky","live":true}`, `{"kind":"wheel","thing":-1,"live":true}`, `{"kind":"box","live":true,"hours":100000}`} {
		status, text := ada.do("POST", "/api/showings", body)
		assert.Contains(t, []int{404, 422}, status, "%s: %s", body, text)
	}
}

// A token opens what is shown and nothing else, whether it comes as a token or as a cookie.
func TestNothingElseIsReachedFromAShowing(t *testing.T) {
	app, _ := server(t, true)
	ada, things := showsAll(t, app)
	live, back := ada.shows(showing("box", things["box"], `,"live":true`)), ada.shows(showing("wheel", things["wheel"], `,"live":true`))
	ada.ok("DELETE", fmt.Sprintf("/api/showings/%d", back.ID), "", nil)
	nobody := &client{t: t, app: app}
	for _, r := range routes(t) {
		path, _, _ := strings.Cut(r[1], "?")
		if slices.Contains(open, path) || slices.Contains(openToLookers, path) || slices.Contains(openToPupils, path) {
			continue
		}
		for _, token := range []string{live.Token, back.Token} {
			request := nobody.request(r[0], r[1], "{}")
			request.Header.Set("Showing", token)
			request.Header.Set("Cookie", "gyrophane="+token)
			status, text, _ := nobody.send(request)
			assert.Equal(t, http.StatusUnauthorized, status, "%s %s: %s", r[0], r[1], text)
		}
	}
}

// Whoever looks on hears of changes and of the end, whichever process they ask.
func TestWhoeverLooksOnIsTold(t *testing.T) {
	app, s := server(t, true)
	other := api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)})
	stops(t, other)
	ada, things := showsAll(t, app)
	made := ada.shows(showing("wheel", things["wheel"], `,"live":true`))
	asked := (&client{t: t, app: app}).request("GET", "/api/shown/changes", "")
	asked.Header.Set("Showing", made.Token)
	until := hears(t, other.App(), asked)
	until("data: look") // once the line to the database is there
	ada.changes(things["wheel"], func(w *api.WheelContent) { w.Name = "Another tide" })
	until("data: look")
	ada.ok("DELETE", fmt.Sprintf("/api/showings/%d", made.ID), "", nil)
	until("data: over")
	until("")
}

// Photos of a sitting are shown where that was asked for, by the same token alone.
func TestPhotosAreShownWhereThatIsWanted(t *testing.T) {
	app, _ := server(t, true)
	ada, things := showsAll(t, app)
	photo := func(token string, id int64) int {
		request := (&client{t: t, app: app}).request("GET", fmt.Sprintf("/api/shown/photos/%d", id), "")
		request.Header.Set("Showing", token)
		status, _, _ := (&client{t: t, app: app}).send(request)
		return status
	}
	with := ada.shows(showing("sitting", things["sitting"], `,"live":true,"photos":true`))
	_, _, got := stranger(t, app, with.Token)
	require.Len(t, got.Sitting.Photos, 1)
	id := got.Sitting.Photos[0].ID
	assert.Equal(t, 200, photo(with.Token, id))
	assert.Equal(t, 404, photo(with.Token, id+1))
	without := ada.shows(showing("sitting", things["sitting"], `,"live":true`))
	assert.Equal(t, 404, photo(without.Token, id))
	assert.Equal(t, 404, photo(ada.shows(showing("box", 0, `,"live":true,"photos":true`)).Token, id))
	ada.ok("DELETE", fmt.Sprintf("/api/showings/%d", with.ID), "", nil)
	assert.Equal(t, 404, photo(with.Token, id))
}

// Which sheet is shown is what the address of its paper says, and nonsense is told before it is.
func TestTheSheetIsShownThatWasOpen(t *testing.T) {
	app, s := server(t, true)
	ada, things := showsAll(t, app)
	sheet := func(query string) []string {
		_, _, got := stranger(t, app, ada.shows(showing("sheet", things["sheet"], fmt.Sprintf(`,"live":true,"sheet":%q`, query))).Token)
		return got.Sheet
	}
	whole := sheet("kind=wheel&paper=A4&edition=working")
	require.NotEmpty(t, whole)
	assert.NotEqual(t, whole, sheet("kind=wheel&paper=Letter&edition=working"))
	assert.Len(t, sheet("kind=wheel&paper=A4&edition=blank&class=30"), len(sheet("kind=wheel&paper=A4&edition=blank")), "one blank is enough to look at")
	for _, query := range []string{"kind=sky", "paper=A99", "flat=perhaps", "slot=x", "%zz", "edition=pirate", "film=1e999", "slot=99", "bit=99", "section=9", "kind=ladder&steps=100000", "with=sky", "glaze=PX1"} {
		status, text := ada.do("POST", "/api/showings", showing("sheet", things["sheet"], fmt.Sprintf(`,"live":true,"sheet":%q`, query)))
		assert.Equal(t, 422, status, "%s: %s", query, text)
	}
	var noted int
	require.NoError(t, s.Connections().QueryRow("select count(*) from printed_plans").Scan(&noted))
	assert.Zero(t, noted, "nobody printed it")
}
