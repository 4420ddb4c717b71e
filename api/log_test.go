package api_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

// readBy gives a sitting readings of tubes that are as strong as is said.
func (c *client) readBy(sitting int64, strengths map[string]float64) {
	c.t.Helper()
	at := fmt.Sprintf("/api/sittings/%d", sitting)
	var s wire.Sitting
	c.ok("GET", at, "", &s)
	c.ok("POST", at+"/readings", readOf(c.t, s.Plan, strengths), nil)
}

// sits keeps a wheel in gouache and begins to paint it.
func (c *client) sits() (w api.KeptWheel, s wire.Sitting, at string) {
	c.t.Helper()
	c.ok("POST", "/api/wheels", strings.Replace(newWheel, "acrylic", "gouache", 1), &w)
	c.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	return w, s, fmt.Sprintf("/api/sittings/%d", s.ID)
}

// offered is the body that takes what a sitting offers.
func offered(came wire.SittingJournal) string {
	var all []string
	for _, s := range came.Offered {
		all = append(all, fmt.Sprintf(`{"paint":%q,"is":%g}`, s.Paint, s.Is))
	}
	return `{"strengths":[` + strings.Join(all, ",") + `]}`
}

func TestStrengthsAreTakenIntoTheBoxAndTakenBack(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	w, s, at := ada.sits()
	ada.readBy(s.ID, map[string]float64{"PB29": 1.6})
	var came wire.SittingJournal
	ada.ok("GET", at+"/journal", "", &came)
	require.Len(t, came.Offered, 1, "the blue alone")
	wheelBefore := wheelOf(ada, w.ID)
	places := came.Places

	// Nothing is taken that the painter did not see.
	status, text := ada.do("POST", at+"/strengths", strings.Replace(offered(came), `"is":`, `"is":9`, 1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "since you looked")

	ada.ok("POST", at+"/strengths", offered(came), &came)
	assert.Empty(t, came.Offered, "the tubes are taken for what they turned out to be")
	require.Len(t, came.Takings, 1)
	assert.Equal(t, "12 dry readings of one sitting", strings.Replace(came.Takings[0].From, fmt.Sprint(came.Learned.Readings), "12", 1))
	assert.Equal(t, places, came.Places, "a sitting opens as it was")
	assert.Equal(t, wheelBefore, wheelOf(ada, w.ID), "a kept wheel opens as it was")

	// The box has the tubes now, as strong as they turned out to be.
	g := strengths(ada)
	require.Len(t, g, 1, "the others stay as they were")
	assert.InDelta(t, 1.6, g["PB29"], 0.25)

	// The wheel is redrawn when that is wanted, and its redrawing undone.
	var redrawn wire.Redrawn
	redraw := fmt.Sprintf("/api/wheels/%d/redrawn", w.ID)
	ada.ok("GET", redraw, "", &redrawn)
	require.Len(t, redrawn.Changes, 1)
	assert.NotEmpty(t, redrawn.Says)
	status, _ = ada.do("POST", redraw, `{"version":7}`)
	assert.Equal(t, 409, status)
	ada.ok("POST", redraw, fmt.Sprintf(`{"version":%d}`, redrawn.Version), &redrawn)
	assert.Empty(t, redrawn.Changes)
	assert.Equal(t, redrawn.Kept, redrawn.Now)
	status, text = ada.do("POST", redraw, fmt.Sprintf(`{"version":%d}`, redrawn.Version))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "nothing to redraw")
	after := wheelOf(ada, w.ID)
	assert.NotEqual(t, wheelBefore, after)
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/undo", w.ID), fmt.Sprintf(`{"version":%d}`, redrawn.Version), nil)
	assert.Equal(t, wheelBefore, wheelOf(ada, w.ID))

	// Taken back at any time, even after other changes, and taken again.
	id := came.Takings[0].ID
	ada.ok("POST", "/api/box/paints", `{"paints":["PY3"],"grade":"artist"}`, nil)
	var takings []wire.Taking
	ada.ok("PUT", fmt.Sprintf("/api/takings/%d", id), `{"undone":true}`, &takings)
	assert.True(t, takings[0].Undone)
	assert.Equal(t, 1.0, strengths(ada)["PB29"])
	ada.ok("GET", at+"/journal", "", &came)
	assert.Len(t, came.Offered, 1, "it is offered again")
	ada.ok("PUT", fmt.Sprintf("/api/takings/%d", id), `{"undone":false}`, &takings)
	assert.InDelta(t, g["PB29"], strengths(ada)["PB29"], 1e-9)

	// Another painter sees and changes nothing of it.
	eve := signedUp(t, app, "Eve")
	for _, r := range [][3]string{{"GET", at + "/journal", ""}, {"POST", at + "/strengths", offered(came)}, {"PUT", fmt.Sprintf("/api/takings/%d", id), `{"undone":true}`}, {"GET", redraw, ""}, {"POST", redraw, `{"version":1}`}, {"PUT", at + "/next-time", `{"was":"","says":"x"}`}, {"GET", at + fmt.Sprintf("/beside/%d", s.ID), ""}} {
		status, _ := eve.do(r[0], r[1], r[2])
		assert.Equal(t, 404, status, r)
	}
	eve.ok("GET", "/api/takings", "", &takings)
	assert.Empty(t, takings)
}

// strengths are those of the tubes in a painter's box, by the library paints they are of.
func strengths(c *client) map[string]float64 {
	c.t.Helper()
	out := map[string]float64{}
	for _, tube := range c.box().Tubes {
		out[tube.Paint.CI] = tube.Paint.G
	}
	return out
}

// wheelOf is a kept wheel as it is computed of the paints as they were kept.
func wheelOf(c *client, id int64) (out wire.Wheel) {
	c.t.Helper()
	var w api.KeptWheel
	c.ok("GET", fmt.Sprintf("/api/wheels/%d", id), "", &w)
	system, err := json.Marshal(w.System)
	require.NoError(c.t, err)
	c.ok("POST", fmt.Sprintf("/api/wheel?medium=gouache&wheel=%d", id), `{"system":`+string(system)+`,"choices":`+choices+`}`, &out)
	return out
}

func TestTheShelfHoldsWhatWasPainted(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	w, one, _ := ada.sits()
	ada.readBy(one.ID, map[string]float64{})
	var two wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &two)
	for _, c := range []struct {
		ask   string
		finds int
	}{
		{"", 2}, {"?words=rock", 2}, {"?words=pb29+gouache", 2}, {"?words=PYRROLE", 2}, {"?words=mussel", 0},
		{"?medium=gouache", 2}, {"?medium=oil", 0}, {"?system=triad", 2}, {"?system=split", 0},
		{"?only=read", 1}, {"?only=unread", 1}, {"?only=under+way", 2},
	} {
		var shelf wire.Shelf
		ada.ok("GET", "/api/shelf"+c.ask, "", &shelf)
		assert.Len(t, shelf.Sittings, c.finds, c.ask)
		assert.Equal(t, 2, shelf.All)
	}
	var shelf wire.Shelf
	ada.ok("GET", "/api/shelf", "", &shelf)
	assert.Zero(t, shelf.Sittings[0].Read, "the last one first: nothing was read of it")
	assert.Equal(t, shelf.Sittings[1].Read, 12-doubted(ada, one.ID))

	// What was read changes it; it is put together anew.
	ada.readBy(two.ID, map[string]float64{"PB29": 2})
	ada.ok("GET", "/api/shelf?only=read", "", &shelf)
	assert.Len(t, shelf.Sittings, 2)

	var beside wire.SittingsBeside
	ada.ok("GET", fmt.Sprintf("/api/sittings/%d/beside/%d", two.ID, one.ID), "", &beside)
	assert.Contains(t, strings.Join(beside.Says, "\n"), "Greens: ")
	ada.ok("GET", fmt.Sprintf("/api/sittings/%d/beside/%d", one.ID, one.ID), "", &beside)
	assert.Contains(t, beside.Says[0], "No hue differs")
}

// doubted counts the places of a sitting whose dry reading is doubted.
func doubted(c *client, sitting int64) (n int) {
	c.t.Helper()
	var came wire.SittingJournal
	c.ok("GET", fmt.Sprintf("/api/sittings/%d/journal", sitting), "", &came)
	for _, p := range came.Places {
		if p.Doubt != "" {
			n++
		}
	}
	return n
}

func TestWhatToDoNextTimeIsRememberedByTheWheel(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	w, _, at := ada.sits()
	at += "/next-time"
	var reminder struct{ Reminder *wire.Reminder }
	ask := fmt.Sprintf("/api/wheels/%d/reminder", w.ID)
	ada.ok("GET", ask, "", &reminder)
	assert.Nil(t, reminder.Reminder)
	ada.ok("PUT", at, `{"was":"","says":"Rinse before the green."}`, nil)
	ada.ok("PUT", at, `{"was":"","says":"Rinse before the green."}`, nil) // sent again: its answer was lost
	status, text := ada.do("PUT", at, `{"was":"","says":"Less blue."}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "changed elsewhere")
	ada.ok("GET", ask, "", &reminder)
	require.NotNil(t, reminder.Reminder)
	assert.Equal(t, "Rinse before the green.", reminder.Reminder.Says)
	status, _ = ada.do("PUT", at, `{"was":"Rinse before the green.","says":"`+strings.Repeat("x", 600)+`"}`)
	assert.Equal(t, 422, status)
}

func TestASittingLeavesAndReadingsComeIn(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	_, s, at := ada.sits()
	bring := fmt.Sprintf("/api/files/sittings/%d/readings", s.ID)
	file := "slot,L,a,b,state\ngreen,40,-10,8,dry\nred,40,50,30,wet\nteal,1,2,3,dry\n"

	var got wire.SlotsRead
	ada.ok("POST", bring, file, &got)
	require.Len(t, got.Rows, 3)
	assert.Equal(t, 1, got.Wrong)
	assert.Contains(t, got.Rows[2].Problem, "no place")
	assert.Greater(t, got.Rows[0].Difference, 0.0)
	status, text := ada.do("POST", bring+"?keep=true", file)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "Nothing was kept")
	var reads wire.SittingReads
	ada.ok("GET", at+"/readings", "", &reads)
	assert.Empty(t, reads.Readings, "all or none")
	ada.ok("POST", bring+"?keep=true&leaveOut=2", file, &got)
	assert.True(t, got.Kept)
	ada.ok("GET", at+"/readings", "", &reads)
	require.Len(t, reads.Readings, 2)
	assert.Equal(t, "instrument", reads.Readings[0].Source)
	for file, says := range map[string]string{" ": "no rows", "a,b\n1,2\n": "no column", "slot,L,a,b\n": "no readings"} {
		status, text := ada.do("POST", bring, file)
		assert.Equal(t, 422, status)
		assert.Contains(t, text, says)
	}

	for format, begins := range map[string]string{
		"/export?format=csv": "slot,label,", "/export?format=json": "{\n \"format\": \"gyrophane-sitting\"",
		"/palette?format=gpl": "GIMP Palette", "/palette?format=cgats": "CGATS.17", "/palette?format=svg": "<svg", "/palette?format=csv": "system,name,", "/palette?format=json": "{\n \"format\": \"gyrophane-palette\"",
	} {
		status, text, header := ada.send(ada.request("GET", at+format, ""))
		assert.Equal(t, 200, status)
		assert.True(t, strings.HasPrefix(text, begins), format)
		assert.Contains(t, header.Get("Content-Disposition"), "attachment")
	}
	status, text, header := ada.send(ada.request("GET", at+"/paper", ""))
	assert.Equal(t, 200, status)
	assert.Equal(t, "application/pdf", header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(text, "%PDF"))
	status, text = ada.do("GET", at+"/paper?paper=napkin", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "unknown paper")

	eve := signedUp(t, app, "Eve")
	for _, r := range [][3]string{{"GET", at + "/export?format=json", ""}, {"GET", at + "/paper", ""}, {"POST", bring, file}, {"POST", bring + "?keep=true&leaveOut=2", file}} {
		status, _ := eve.do(r[0], r[1], r[2])
		assert.Equal(t, 404, status, r)
	}
}

func TestWhatBecameOfExpectationsIsCounted(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var came wire.Expectations
	ada.ok("GET", "/api/expectations", "", &came)
	assert.Empty(t, came.Months)
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", strings.Replace(newWheel, "acrylic", "gouache", 1), &w)
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/predictions", w.ID), fmt.Sprintf(`{"version":%d,"guesses":[{"home":10,"hueWord":"green","verdict":"clean"},{"home":2,"hueWord":"blue","verdict":"muddy"}]}`, w.Version), nil)
	ada.ok("GET", "/api/expectations", "", &came)
	require.Len(t, came.Months, 1)
	assert.Equal(t, 2, came.Months[0].Expectations)
	assert.Zero(t, came.Months[0].Painted.Expectations)
	require.Len(t, came.Each, 2)
	assert.Equal(t, "orange of Rock pool", came.Each[0].Of)
	assert.Equal(t, "blue", came.Each[0].HueSaid)
	assert.False(t, came.Each[0].Painted)

	// Painted as computed, it is held against paint.
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	ada.readBy(s.ID, map[string]float64{})
	ada.ok("GET", "/api/expectations", "", &came)
	assert.Positive(t, came.Months[0].Painted.Expectations)
	var journal wire.SittingJournal
	ada.ok("GET", fmt.Sprintf("/api/sittings/%d/journal", s.ID), "", &journal)
	for _, p := range journal.Places {
		if p.Slot == "orange" {
			require.NotNil(t, p.Expected)
			assert.False(t, p.Expected.HueRight)
			assert.NotEmpty(t, p.Expected.Painted)
		}
	}
}
