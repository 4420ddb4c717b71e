package api_test

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/colour"
	"gyrophane/wire"
)

// phone is a pupil's: no cookie, no name.
type phone struct {
	*client
	word string
}

func newPhone(t *testing.T, app *fiber.App) phone {
	return phone{&client{t: t, app: app}, rand.Text()}
}

func (p phone) asks(method, path, body string) (status int, text string, header http.Header) {
	p.t.Helper()
	request := p.request(method, path, body)
	request.Header.Set("Pupil", p.word)
	return p.send(request)
}

func (p phone) joins(at string) (status int, text string) {
	p.t.Helper()
	status, text, _ = p.asks("POST", "/api/together", fmt.Sprintf(`{"at":%q}`, at))
	return status, text
}

func (p phone) seat() (out api.ClassSeat) {
	p.t.Helper()
	status, text, header := p.asks("GET", "/api/together", "")
	require.Equal(p.t, http.StatusOK, status, text)
	assert.Empty(p.t, header.Get("Set-Cookie"))
	assert.Equal(p.t, "no-store", header.Get("Cache-Control"))
	require.NoError(p.t, json.Unmarshal([]byte(text), &out))
	return out
}

func (p phone) says(place int, hue, verdict string, mud string) (status int, text string) {
	p.t.Helper()
	status, text, _ = p.asks("PUT", "/api/together/guess", fmt.Sprintf(`{"place":%d,"hueWord":%q,"verdict":%q,"mud":%s}`, place, hue, verdict, mud))
	return status, text
}

const noMud = `{"nowhere":true,"at":0}`

// classRound is a round of a painter's first wheel.
func (c *client) classRound() (r api.ClassRound) {
	c.t.Helper()
	w := aWheelOfTubes(c)
	c.ok("POST", "/api/class/rounds", fmt.Sprintf(`{"wheel":%d}`, w.ID), &r)
	require.NotEmpty(c.t, r.Pairings)
	return r
}

// moves does what a teacher does, and looks at the round then.
func (c *client) moves(r *api.ClassRound, move string, place int) {
	c.t.Helper()
	id, version := r.ID, r.Version
	*r = api.ClassRound{}
	c.ok("POST", fmt.Sprintf("/api/class/rounds/%d/moves", id), fmt.Sprintf(`{"version":%d,"move":%q,"place":%d}`, version, move, place), r)
}

func (c *client) looks(r *api.ClassRound) {
	c.t.Helper()
	id := r.ID
	*r = api.ClassRound{}
	c.ok("GET", fmt.Sprintf("/api/class/rounds/%d", id), "", r)
}

// A class predicts: what is asked stays covered until the teacher lifts it, everybody counts once, and only numbers are kept.
func TestAClassPredictsTogether(t *testing.T) {
	app, s := server(t, true)
	ada := signedUp(t, app, "Ada")
	r := ada.classRound()
	assert.False(t, r.Open)
	assert.Empty(t, r.Code)
	early := newPhone(t, app)
	status, text := early.joins(r.Token)
	require.Equal(t, http.StatusOK, status, text)
	assert.Nil(t, early.seat().Face, "nothing is asked before the round is open")
	status, text = early.says(0, "green", "clean", noMud)
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)

	ada.moves(&r, "open", 0)
	require.True(t, r.Open)
	assert.Regexp(t, "^[BCDFGHJKLMNPQRSTVWXZ]{6}$", r.Code)
	late := newPhone(t, app)
	status, text = late.joins(" " + r.Code[:3] + " " + r.Code[3:])
	require.Equal(t, http.StatusOK, status, text)
	for range 3 { // an answer that was lost is asked for again
		status, _ = late.joins(r.Code)
		require.Equal(t, http.StatusOK, status)
	}
	seat := late.seat()
	require.NotNil(t, seat.Face)
	assert.Nil(t, seat.Truth)
	assert.Nil(t, seat.Lifted)
	assert.Nil(t, seat.Tally)
	for _, p := range []phone{early, late} {
		for range 2 { // twice, and another one then: it counts once
			status, text = p.says(0, "green", "clean", noMud)
			require.Equal(t, http.StatusNoContent, status, text)
		}
	}
	status, text = late.says(0, "blue", "muddy", `{"nowhere":false,"at":0.26}`)
	require.Equal(t, http.StatusNoContent, status, text)
	assert.Equal(t, wire.Expected{HueWord: "blue", Verdict: "muddy", Mud: wire.MudStart{At: 0.25}}, *late.seat().Said)
	ada.looks(&r)
	assert.Equal(t, [2]int{2, 2}, [2]int{r.Joined, r.Guessed})
	assert.Nil(t, r.Pairings[0].Truth, "the teacher's page stands on the wall")
	status, text, _ = late.asks("POST", "/api/together/score", `{"place":0,"hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}}`)
	assert.Equal(t, http.StatusUnprocessableEntity, status, "nothing is told under the cover: %s", text)
	assert.Nil(t, r.Pairings[0].Tally)

	// The teacher has counted four hands for orange.
	hands := wire.ClassTally{Hues: make([]int, 12), Verdicts: make([]int, 4), Mud: make([]int, 21)}
	hands.Hues[2] = 4
	body, err := json.Marshal(hands)
	require.NoError(t, err)
	none, err := json.Marshal(wire.ClassTally{Hues: make([]int, 12), Verdicts: make([]int, 4), Mud: make([]int, 21)})
	require.NoError(t, err)
	counts := fmt.Sprintf("/api/class/rounds/%d/hands", r.ID)
	for range 2 { // told again
		ada.ok("PUT", counts, fmt.Sprintf(`{"place":0,"was":%s,"hands":%s}`, none, body), &r)
	}
	status, text = ada.do("PUT", counts, fmt.Sprintf(`{"place":0,"was":%s,"hands":%s}`, none, strings.Replace(string(body), "4", "7", 1)))
	assert.Equal(t, http.StatusUnprocessableEntity, status, "another window has counted: %s", text)
	ada.moves(&r, "lift", 0)
	tally := r.Pairings[0].Tally
	require.NotNil(t, tally)
	hues := make([]int, 12)
	for i, word := range colour.HueWords() {
		hues[i] = map[string]int{"green": 1, "blue": 1}[word]
	}
	hues[2] += 4
	assert.Equal(t, hues, tally.Hues)
	assert.Equal(t, []int{1, 0, 0, 1}, tally.Verdicts)
	assert.Equal(t, 1, tally.NoMud)
	assert.Equal(t, 1, tally.Mud[5])
	assert.Equal(t, 6, r.Pairings[0].Score.Hue.Said)
	require.NotNil(t, r.Pairings[0].Truth)

	seat = early.seat()
	assert.Equal(t, r.Pairings[0].Truth, seat.Truth)
	// The phone remembers what it said, and is told what of it was right.
	truth := r.Pairings[0].Truth
	is := fmt.Sprintf(`{"place":0,"hueWord":%q,"verdict":%q,"mud":{"nowhere":%v,"at":%v}}`, truth.HueWord, truth.Verdict, truth.Mud.Nowhere, truth.Mud.At)
	status, text, _ = early.asks("POST", "/api/together/score", is)
	require.Equal(t, http.StatusOK, status, text)
	assert.Contains(t, text, `"right":3`)
	status, text, _ = early.asks("POST", "/api/together/score", strings.Replace(is, `"place":0`, `"place":1`, 1))
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	assert.Equal(t, tally, seat.Tally)
	assert.Nil(t, seat.Said, "who said what is gone")
	status, text = early.says(0, "green", "clean", noMud)
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	assert.Contains(t, text, "The cover was lifted before your guess came")
	status, text = ada.do("POST", fmt.Sprintf("/api/class/rounds/%d/moves", r.ID), fmt.Sprintf(`{"version":%d,"move":"lift"}`, r.Version))
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)

	ada.moves(&r, "go to", 1)
	assert.Equal(t, 1, early.seat().Place)
	status, _ = early.says(0, "green", "clean", noMud)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	status, _ = early.says(1, "green", "clean", noMud)
	assert.Equal(t, http.StatusNoContent, status)
	status, text = ada.do("POST", fmt.Sprintf("/api/class/rounds/%d/moves", r.ID), fmt.Sprintf(`{"version":%d,"move":"go to","place":9}`, r.Version))
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	status, text = ada.do("POST", fmt.Sprintf("/api/class/rounds/%d/moves", r.ID), fmt.Sprintf(`{"version":%d,"move":"lift"}`, r.Version-1))
	assert.Equal(t, http.StatusUnprocessableEntity, status, "another window was ahead: %s", text)

	code, token := r.Code, r.Token
	ada.moves(&r, "end", 0)
	assert.True(t, r.Ended)
	assert.Empty(t, r.Token+r.Code)
	for _, at := range []string{code, token, "AAAAAA", rand.Text()} {
		status, text := newPhone(t, app).joins(at)
		assert.Equal(t, http.StatusNotFound, status, text)
		assert.Contains(t, text, "No class is asked anything here.")
	}
	status, _, _ = early.asks("GET", "/api/together", "")
	assert.Equal(t, http.StatusNotFound, status)

	// What is left of it are numbers.
	var all api.ClassRounds
	ada.ok("GET", "/api/class/rounds", "", &all)
	require.Len(t, all.Rounds, 1)
	assert.Equal(t, 1, all.Rounds[0].Lifted)
	require.Len(t, all.Eyes, 1)
	assert.Equal(t, 6, all.Eyes[0].Hue.Said)
	for _, table := range []string{"class_guesses", "class_pupils"} {
		var left int
		require.NoError(t, s.Connections().QueryRow("select count(*) from "+table).Scan(&left))
		assert.Zero(t, left, table)
	}
}

func TestARoundOpensNothingElseAndIsNobodyElses(t *testing.T) {
	app, _ := server(t, true)
	ada, ben := signedUp(t, app, "Ada"), signedUp(t, app, "Ben")
	r := ada.classRound()
	at := fmt.Sprintf("/api/class/rounds/%d", r.ID)
	for _, c := range [][2]string{{"GET", at}, {"DELETE", at}, {"POST", at + "/moves"}, {"PUT", at + "/hands"}, {"GET", at + "/changes"}} {
		body := map[string]string{"POST": `{"version":1,"move":"open"}`, "PUT": `{"place":0,"was":{"hues":[0,0,0,0,0,0,0,0,0,0,0,0],"verdicts":[0,0,0,0],"mud":[0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0],"noMud":0},"hands":{"hues":[0,0,0,0,0,0,0,0,0,0,0,0],"verdicts":[0,0,0,0],"mud":[0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0],"noMud":0}}`}[c[0]]
		status, text := ben.do(c[0], c[1], body)
		assert.Equal(t, http.StatusNotFound, status, "%v: %s", c, text)
	}
	status, text := ben.do("POST", "/api/class/rounds", `{"wheel":1}`)
	assert.Equal(t, http.StatusNotFound, status, text)
	theirs := aWheelOfTubes(ben)
	for pairs, says := range map[string]string{
		strings.Repeat(`{"a":"x","b":"y"},`, 40) + `{"a":"x","b":"y"}`: "41 pairings are too many for a round: choose 40 at most",
		`{"a":"PY999","b":"PB29"}`:                                     "is no pairing of this wheel",
	} {
		status, text := ben.do("POST", "/api/class/rounds", fmt.Sprintf(`{"wheel":%d,"pairs":[%s]}`, theirs.ID, pairs))
		assert.Equal(t, http.StatusUnprocessableEntity, status)
		assert.Contains(t, text, says)
	}
	ada.moves(&r, "open", 0)
	pupil := newPhone(t, app)
	status, text = pupil.joins(r.Code)
	require.Equal(t, http.StatusOK, status, text)
	for _, route := range routes(t) {
		if route[0] != http.MethodGet {
			continue
		}
		request := pupil.request(route[0], route[1], "")
		request.Header.Set("Pupil", pupil.word)
		request.Header.Set("Showing", r.Token)
		if path := request.URL.Path; slices.Contains(open, path) || path == "/api/together" || path == "/api/together/changes" {
			continue
		}
		status, text, _ := pupil.send(request)
		assert.Contains(t, []int{http.StatusUnauthorized, http.StatusNotFound}, status, "%v: %s", route, text)
	}
	for _, c := range []struct{ word, at, says string }{
		{"short", r.Code, "26 letters"},
		{"AAAAAAAAAAAAAAAAAAAAAAAAA!", r.Code, "26 letters"},
		{"", r.Code, "26 letters"},
		{pupil.word, "", "at"},
		{pupil.word, "' or 1=1 --", "No class"},
		{pupil.word, "BCDFG%", "No class"},
	} {
		status, text := phone{pupil.client, c.word}.joins(c.at)
		assert.GreaterOrEqual(t, status, 400, c)
		assert.Less(t, status, 500, c)
		assert.Contains(t, text, c.says, c)
	}
	for _, bad := range []string{`{"place":0,"hueWord":"teal","verdict":"clean","mud":{"nowhere":true,"at":0}}`, `{"place":0,"hueWord":"green","verdict":"neutral","mud":{"nowhere":true,"at":0}}`, `{"place":0,"hueWord":"green","verdict":"clean","mud":{"nowhere":false,"at":2}}`, `{"place":-1,"hueWord":"green","verdict":"clean","mud":{"nowhere":false,"at":0}}`} {
		status, text, _ := pupil.asks("PUT", "/api/together/guess", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	}
}

// Who tries codes is slowed down.
func TestCodesCannotBeTriedOut(t *testing.T) {
	app, _ := server(t, true)
	slowed := 0
	for range 80 {
		status, _ := newPhone(t, app).joins("BBBBBB")
		if status == http.StatusTooManyRequests {
			slowed++
		}
	}
	assert.Greater(t, slowed, 10)
}

// A class guesses at once while the teacher lifts the cover: every guess that was taken is counted, and none that was refused.
func TestEveryGuessThatIsTakenIsCounted(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	r := ada.classRound()
	ada.moves(&r, "open", 0)
	var mu sync.Mutex
	taken, lifted := 0, false
	var all sync.WaitGroup
	phones := make([]phone, 24)
	for n := range phones {
		phones[n] = newPhone(t, app)
		status, text := phones[n].joins(r.Code)
		require.Equal(t, http.StatusOK, status, text)
	}
	for n, p := range phones {
		all.Go(func() {
			status, text := p.says(0, colour.HueWords()[n%12], "clean", noMud)
			mu.Lock()
			defer mu.Unlock()
			switch status {
			case http.StatusNoContent:
				taken++
			default:
				assert.Contains(t, text, "The cover was lifted before", status)
			}
			if taken == 12 && !lifted {
				lifted = true
				ada.moves(&r, "lift", 0)
			}
		})
	}
	all.Wait()
	ada.looks(&r)
	require.NotNil(t, r.Pairings[0].Tally)
	assert.Equal(t, taken, r.Pairings[0].Tally.NoMud)
	assert.GreaterOrEqual(t, taken, 12)
}

// A round that nobody ends is over by itself, and gives its code back.
func TestARoundIsOverByItself(t *testing.T) {
	app, s := server(t, true)
	ada := signedUp(t, app, "Ada")
	r := ada.classRound()
	ada.moves(&r, "open", 0)
	p := newPhone(t, app)
	status, _ := p.joins(r.Code)
	require.Equal(t, http.StatusOK, status)
	s.Clock = func() time.Time { return time.Now().Add(13 * time.Hour) }
	status, _, _ = p.asks("GET", "/api/together", "")
	assert.Equal(t, http.StatusNotFound, status)
	status, _ = newPhone(t, app).joins(r.Code)
	assert.Equal(t, http.StatusNotFound, status)
	ada.looks(&r)
	assert.True(t, r.Ended)
	assert.Empty(t, r.Code)
	// Whoever makes another one lets go what is left of it.
	signedUp(t, app, "Ben").classRound()
	var left int
	require.NoError(t, s.Connections().QueryRow("select count(*) from class_pupils").Scan(&left))
	assert.Zero(t, left)
}

// A blank has the address of a painter's own round, as long as it is not over.
func TestABlankCarriesItsRound(t *testing.T) {
	app, _ := server(t, true)
	ada, ben := signedUp(t, app, "Ada"), signedUp(t, app, "Ben")
	r := ada.classRound()
	var all api.ClassRounds
	ada.ok("GET", "/api/class/rounds", "", &all)
	at := fmt.Sprintf("/api/wheels/%d/paper?edition=blank&format=svg", *all.Rounds[0].Wheel)
	_, without := ada.do("GET", at, "")
	status, with := ada.do("GET", fmt.Sprintf("%s&round=%d", at, r.ID), "")
	require.Equal(t, http.StatusOK, status)
	assert.Greater(t, len(with), len(without)+1000)
	theirs := aWheelOfTubes(ben)
	status, text := ben.do("GET", fmt.Sprintf("/api/wheels/%d/paper?edition=blank&format=svg&round=%d", theirs.ID, r.ID), "")
	assert.Equal(t, http.StatusNotFound, status, text)
	ada.moves(&r, "end", 0)
	status, text = ada.do("GET", fmt.Sprintf("%s&round=%d", at, r.ID), "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "This round is over")
}

// A class's sheets are read in one go, each by its marks: without names, and without the photos.
func TestAClassIsReadAsAWhole(t *testing.T) {
	app, s := server(t, true)
	ada, ben := signedUp(t, app, "Ada"), signedUp(t, app, "Ben")
	w, _, sat := ada.sits()
	var sheet wire.ClassSheet
	ada.ok("POST", "/api/class/sheets", fmt.Sprintf(`{"wheel":%d}`, w.ID), &sheet)
	require.NotEmpty(t, sheet.Computed)
	assert.Empty(t, sheet.Sheets)
	at := fmt.Sprintf("/api/class/sheets/%d", sheet.ID)
	upload := fmt.Sprintf("class/sheets/%d/photo", sheet.ID)
	for n := range 3 {
		// A blue that is stronger than anybody knows, on all of them.
		var taken wire.SittingPhoto
		ada.ok("POST", sat+"/standin", fmt.Sprintf(`{"seed":%d,"strength":{"PB29":2.2},"rendering":"plain"}`, n+1), &taken)
		_, jpeg := ada.do("GET", fmt.Sprintf("%s/photos/%d", sat, taken.ID), "")
		var read api.PupilRead
		status, text := ada.file(upload, []byte(jpeg), &read)
		require.Equal(t, http.StatusOK, status, text)
		assert.Greater(t, read.Places, 8)
	}
	ada.ok("GET", at, "", &sheet)
	require.Len(t, sheet.Sheets, 3)
	strayed := 0
	for _, p := range sheet.Places {
		assert.NotEmpty(t, p.Says)
		if p.Strayed {
			strayed++
			assert.Greater(t, p.Off, p.Spread/2)
		}
	}
	assert.Positive(t, strayed)
	assert.True(t, sheet.Places[0].Strayed, "what strayed comes first")
	var all []api.ClassSheetEntry
	ada.ok("GET", "/api/class/sheets", "", &all)
	assert.Equal(t, 3, all[0].Sheets)

	status, text := ada.file(upload, []byte("no photo at all"), nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	for _, path := range []string{at, at + fmt.Sprintf("/reads/%d", sheet.Sheets[0].ID)} {
		for _, method := range []string{"GET", "DELETE"} {
			status, _ := ben.do(method, path, "")
			assert.Contains(t, []int{http.StatusNotFound, http.StatusMethodNotAllowed}, status, "%s %s", method, path)
		}
	}
	status, _ = ben.do("POST", "/api/class/sheets", fmt.Sprintf(`{"wheel":%d}`, w.ID))
	assert.Equal(t, http.StatusNotFound, status)
	ada.ok("DELETE", at+fmt.Sprintf("/reads/%d", sheet.Sheets[0].ID), "", &sheet)
	assert.Len(t, sheet.Sheets, 2)
	ada.ok("DELETE", at, "", &all)
	assert.Empty(t, all)
	var left int
	require.NoError(t, s.Connections().QueryRow("select count(*) from class_reads").Scan(&left))
	assert.Zero(t, left)
}
