package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/gofiber/fiber/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/bench"
	"gyrophane/wire"
)

// told is the body of one event.
func told(id, kind, more string) string {
	return fmt.Sprintf(`{"events":[{"id":%q,"kind":%q,"at":%d,"offsetMs":0,"device":"tablet","number":1,"revision":1%s}]}`, id, kind, time.Now().UnixMilli(), more)
}

func TestASittingIsHeld(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{"measure":"drops"}`, &s)
	assert.Equal(t, "Rock pool", s.Name)
	require.NotEmpty(t, s.Plan.Regions)
	assert.Len(t, s.Places, len(s.Plan.Regions))
	assert.Equal(t, "drops", s.Plan.Settings.Measure)
	assert.InDelta(t, time.Now().UnixMilli(), s.Now, 5000)
	var going []wire.SittingUnderWay
	ada.ok("GET", "/api/under-way", "", &going)
	require.Len(t, going, 1)
	assert.Equal(t, []int{0, len(s.Places)}, []int{going[0].Painted, going[0].Places})
	signedUp(t, app, "Bea").ok("GET", "/api/under-way", "", &going)
	assert.Empty(t, going, "another's")
	events := fmt.Sprintf("/api/sittings/%d/events", s.ID)
	first := s.Plan.Regions[s.Plan.Order[0]]

	// What was told once more changes nothing.
	for range 2 {
		ada.ok("POST", events, told("one", "painted", fmt.Sprintf(`,"region":%q`, first.ID)), &s)
		assert.Equal(t, int64(2), s.Revision)
		assert.Equal(t, 1, s.Places[index(s, first.ID)].Coats)
	}
	assert.Len(t, s.Plan.Order, len(s.Plan.Regions)-1)
	require.Len(t, s.Back, 1)
	assert.Equal(t, "one", s.Back[0].Tap)
	assert.Equal(t, "painted: "+first.Label, s.Back[0].Says)
	assert.Equal(t, []wire.SittingThen{{Region: index(s, first.ID)}}, s.Back[0].Places)
	ada.ok("POST", events, told("two", "undone", `,"undoes":"one"`), &s)
	assert.Zero(t, s.Places[index(s, first.ID)].Coats)

	// A clock that is three minutes fast, and one that is in another year.
	now := time.Now()
	fast := fmt.Sprintf(`{"events":[{"id":"three","kind":"painted","at":%d,"offsetMs":-180000,"device":"a","number":1,"revision":0,"region":%q}]}`, now.Add(3*time.Minute).UnixMilli(), first.ID)
	ada.ok("POST", events, fast, &s)
	assert.InDelta(t, now.UnixMilli(), s.Places[index(s, first.ID)].Painted, 3000)
	ada.ok("POST", events, fmt.Sprintf(`{"events":[{"id":"four","kind":"noted","at":%d,"offsetMs":0,"device":"a","number":2,"revision":0,"text":"the wet stone again"}]}`, now.AddDate(3, 0, 0).UnixMilli()), &s)
	require.Len(t, s.Notes, 1)
	assert.LessOrEqual(t, s.Notes[0].At, time.Now().UnixMilli())

	for body, says := range map[string]string{
		told("x", "sneezed", ""):                    "expected value to be one of",
		`{"events":[]}`:                             "",
		told(strings.Repeat("x", 65), "paused", ""): "",
	} {
		status, text := ada.do("POST", events, body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}
	// Each event is answered by itself; with one that cannot be kept goes its tap, and what takes it back.
	var answer wire.SittingTold
	event := func(id, more string) string {
		return fmt.Sprintf(`{"id":%q,"at":%d,"offsetMs":0,"device":"","number":1,"revision":1,%s}`, id, time.Now().UnixMilli(), more)
	}
	batch := []string{
		event("good", `"kind":"noted","text":"kept"`),
		event("of the tap", `"kind":"washed","tap":"bad tap"`),
		event("bad", `"kind":"painted","tap":"bad tap","region":"teal"`),
		event("back", `"kind":"undone","undoes":"bad tap"`),
		event("well", `"kind":"rinsed","well":99`),
		event("nothing", `"kind":"undone"`),
		event("better", `"kind":"noted","text":"too"`),
	}
	ada.ok("POST", events, `{"events":[`+strings.Join(batch, ",")+`]}`, &answer)
	assert.Equal(t, s.Revision+2, answer.Revision)
	why := map[string]string{}
	for _, u := range answer.Untold {
		why[u.ID] = u.Says
	}
	assert.Len(t, why, 5)
	for id, says := range map[string]string{"of the tap": "no place", "bad": "no place", "back": "no place", "well": "no well 99", "nothing": "names what it takes back"} {
		assert.Contains(t, why[id], says, id)
	}

	eve := signedUp(t, app, "Eve")
	for _, request := range [][2]string{{"GET", fmt.Sprintf("/api/sittings/%d", s.ID)}, {"DELETE", fmt.Sprintf("/api/sittings/%d", s.ID)}} {
		status, _ := eve.do(request[0], request[1], "")
		assert.Equal(t, 404, status, request)
	}
	status, _ := eve.do("POST", events, told("evil", "ended", ""))
	assert.Equal(t, 404, status)
	status, _ = eve.do("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`)
	assert.Equal(t, 404, status)

	ada.ok("POST", events, told("last", "ended", ""), &s)
	assert.True(t, s.Ended)
	var list []wire.SittingListed
	ada.ok("GET", "/api/sittings", "", &list)
	require.Len(t, list, 1)
	assert.True(t, list[0].Ended)
	ada.ok("DELETE", fmt.Sprintf("/api/sittings/%d", s.ID), "", nil)
	ada.ok("GET", "/api/sittings", "", &list)
	assert.Empty(t, list)
}

// What waited in a browser under one painter is never taken for another's.
func TestWhatIsMeantForOnePainterIsNotTakenForAnothers(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var who struct{ Painter api.Profile }
	ada.ok("GET", "/api/session", "", &who)
	eve := signedUp(t, app, "Eve")
	for _, c := range []struct {
		by    *client
		meant string
		want  int
	}{{ada, fmt.Sprint(who.Painter.ID), 200}, {ada, "", 200}, {eve, fmt.Sprint(who.Painter.ID), 403}} {
		r := c.by.request("POST", "/api/wheels", newWheel)
		r.Header.Set("For-Painter", c.meant)
		status, text, _ := c.by.send(r)
		assert.Equal(t, c.want, status, text)
	}
	var wheels []api.KeptWheel
	eve.ok("GET", "/api/wheels", "", &wheels)
	assert.Empty(t, wheels)
}

// The server says what each tap tells, and taking back takes back the whole tap.
func TestATapTellsWhatThePlanHasBeforeIt(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", strings.Replace(newWheel, `"acrylic"`, `"gouache"`, 1), &w)
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	at := fmt.Sprintf("/api/sittings/%d/events", s.ID)
	washed := false
	for n, step := range s.Steps {
		tells := s.Places[step.Region].Tells
		require.NotEmpty(t, tells)
		assert.Equal(t, "painted", tells[len(tells)-1].Kind)
		assert.Equal(t, s.Plan.Regions[step.Region].ID, tells[len(tells)-1].Region)
		want := []string{}
		for _, before := range step.Before {
			for _, tell := range before.Tells {
				want = append(want, tell.Kind)
			}
			if before.Kind == "wash" {
				washed = true
			}
		}
		var got []string
		for k, tell := range tells[:len(tells)-1] {
			got = append(got, tell.Kind)
			assert.GreaterOrEqual(t, tell.AheadMS, tells[k+1].AheadMS, "in the order in which it is done")
		}
		assert.ElementsMatch(t, want, got, "step %d", n)
		for _, before := range step.Before {
			if before.Kind == "wash" {
				assert.Contains(t, got, "washed", "one tap tells its wash")
			}
		}
	}
	assert.True(t, washed)

	// All steps as if out of contact: what they tell was known beforehand.
	var events []string
	for n, step := range s.Steps {
		for k, tell := range s.Places[step.Region].Tells {
			one, err := json.Marshal(map[string]any{"id": fmt.Sprintf("%d.%d", n, k), "tap": fmt.Sprintf("tap %d", n), "kind": tell.Kind, "region": tell.Region, "well": tell.Well, "brush": tell.Brush, "thorough": tell.Thorough, "aheadMs": tell.AheadMS,
				"at": time.Now().UnixMilli(), "offsetMs": 0, "device": "tablet", "number": n, "revision": 1})
			require.NoError(t, err)
			events = append(events, string(one))
		}
	}
	var all wire.SittingTold
	ada.ok("POST", at, `{"events":[`+strings.Join(events, ",")+`]}`, &all)
	assert.Empty(t, all.Untold)
	assert.True(t, all.Done)
	assert.Equal(t, s.Plan.Washes, all.Washes)
	require.Len(t, all.Back, bench.MostBack)
	for n, back := range all.Back[:3] {
		assert.Contains(t, back.Says, "painted: ")
		ada.ok("POST", at, fmt.Sprintf(`{"events":[{"id":"back %d","kind":"undone","undoes":%q,"at":%d,"offsetMs":0,"device":"a","number":99,"revision":1}]}`, n, back.Tap, time.Now().UnixMilli()), &all)
	}
	assert.Len(t, all.Steps, 3)
	assert.Less(t, all.Washes, s.Plan.Washes+1)
	assert.False(t, all.Done)
}

func index(s wire.Sitting, id string) int {
	for i, r := range s.Plan.Regions {
		if r.ID == id {
			return i
		}
	}
	return -1
}

// The sheet of a sitting stays as it was, whatever becomes of the wheel.
func TestASittingKeepsItsSheet(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	for _, kind := range []string{"wheel", "grid", "ladder", "values", "intensity", "run", "guide", "warmcool", "worksheet", "glazes", "swatches"} {
		// A sitting begins with the exact plan where that is there already.
		var plan wire.BenchPlan
		for plan.Working = true; plan.Working; {
			ada.ok("POST", fmt.Sprintf("/api/plan?wheel=%d", w.ID), fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"sheet":{"kind":%q,"slot":2}}`, aSystem, choices, kind), &plan)
		}
		var begun, later wire.Sitting
		ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), fmt.Sprintf(`{"sheet":{"kind":%q,"slot":2}}`, kind), &begun)
		ada.ok("GET", fmt.Sprintf("/api/sittings/%d", begun.ID), "", &later)
		assert.Equal(t, begun.Plan.Regions, later.Plan.Regions, kind)
		assert.Equal(t, begun.Plan.Order, later.Plan.Order, kind)
		assert.Equal(t, plan.Total, begun.Plan.Total, kind)
		for i := range plan.Regions {
			assert.Equal(t, plan.Regions[i].Shown, begun.Plan.Regions[i].Shown, "%s: %s", kind, plan.Regions[i].ID)
			assert.Equal(t, plan.Regions[i].Counted.Lines, begun.Plan.Regions[i].Counted.Lines, "%s: %s", kind, plan.Regions[i].ID)
		}
	}
}

// A device is told of what is done on another, whichever process on the database that was said to.
func TestASecondDeviceIsToldOfWhatIsDone(t *testing.T) {
	app, s := server(t, true)
	other := api.New(s, api.Options{Listener: api.Loopback, Log: slog.New(slog.DiscardHandler)})
	stops(t, other)
	t.Run("of one process", func(t *testing.T) { tells(t, app, app, "Ada") })
	t.Run("of another", func(t *testing.T) { tells(t, app, other.App(), "Ben") })
}

// hears asks a listening process for a stream, and is how to wait for a line of it; "" is its end.
func hears(t *testing.T, at *fiber.App, asked *http.Request) (until func(line string)) {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	t.Cleanup(cancel)
	request, err := http.NewRequestWithContext(ctx, "GET", "http://"+listening(t, at)+asked.URL.Path, nil)
	require.NoError(t, err)
	request.Header = asked.Header
	answer, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	t.Cleanup(func() { answer.Body.Close() }) //nolint:errcheck // read to where it was wanted
	assert.Equal(t, "text/event-stream", answer.Header.Get("Content-Type"))
	lines := bufio.NewScanner(answer.Body)
	return func(line string) {
		t.Helper()
		for lines.Scan() {
			if line != "" && lines.Text() == line {
				return
			}
		}
		require.NoError(t, lines.Err())
		require.Empty(t, line, "the stream ended before")
	}
}

// tells has something done by one process and heard of at another.
func tells(t *testing.T, app, at *fiber.App, name string) {
	t.Parallel()
	ada := signedUp(t, app, name)
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	until := hears(t, at, ada.request("GET", "/api/changes", ""))
	until("data: all") // once the line to the database is there
	ada.ok("POST", fmt.Sprintf("/api/sittings/%d/events", s.ID), told("one", "paused", ""), nil)
	until(fmt.Sprintf("data: %d", s.ID))
}

func TestASheetIsReadFromAPhoto(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", strings.Replace(newWheel, `"acrylic"`, `"gouache"`, 1), &w)
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	at := fmt.Sprintf("/api/sittings/%d", s.ID)
	var taken wire.SittingPhoto
	status, text := ada.file(fmt.Sprintf("sittings/%d/photo", s.ID), drawnSheet(t, s.Plan), &taken)
	require.Equal(t, 200, status, text)
	assert.False(t, taken.Standin)
	of := fmt.Sprintf("%s/photos/%d", at, taken.ID)
	var read wire.PhotoRead
	ada.ok("POST", of+"/read", `{}`, &read)
	require.Empty(t, read.Refused)
	assert.True(t, read.Found)
	require.Len(t, read.Readings, 12)

	// By marks that are given the same; a spot that is left out is not read; one that is
	// moved onto the neighbour reads that.
	body := fmt.Sprintf(`{"marks":[%g,%g,%g,%g,%g,%g,%g,%g],"spots":{"green":{"left":true}}}`, read.Marks[0][0], read.Marks[0][1], read.Marks[1][0], read.Marks[1][1], read.Marks[2][0], read.Marks[2][1], read.Marks[3][0], read.Marks[3][1])
	var again wire.PhotoRead
	ada.ok("POST", of+"/read", body, &again)
	assert.False(t, again.Found)
	assert.Len(t, again.Readings, 11)
	assert.Equal(t, read.Readings[0].AsSeen, again.Readings[0].AsSeen)
	ada.ok("POST", of+"/read", `{"marks":[1,1,900,1,900,600,1,2000]}`, &again)
	assert.Contains(t, again.Refused, "outside of the picture")

	for _, path := range []string{of, of + "/straight", of + "/straight?even=true"} {
		status, text, header := ada.send(ada.request("GET", path, ""))
		assert.Equal(t, 200, status)
		assert.Equal(t, "image/jpeg", header.Get("Content-Type"))
		assert.True(t, strings.HasPrefix(text, "\xff\xd8"))
	}
	status, text = ada.do("GET", of+"/straight?marks=1,2", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "eight numbers")

	// Kept beside those there are, never over them.
	keep := fmt.Sprintf(`{"readings":[{"slot":"green","lab":[%g,%g,%g],"source":"photo","spread":0.4}]}`, read.Readings[2].Lab[0], read.Readings[2].Lab[1], read.Readings[2].Lab[2])
	var reads wire.SittingReads
	ada.ok("POST", at+"/readings", keep, &reads)
	ada.ok("POST", at+"/readings", `{"readings":[{"slot":"green","lab":[50,-30,20],"source":"eye","wet":true,"doubt":"by lamplight"}]}`, &reads)
	require.Len(t, reads.Readings, 2)
	assert.Equal(t, "eye", reads.Readings[1].Source)
	assert.Len(t, reads.Photos, 1)
	for body, says := range map[string]string{
		`{"readings":[{"slot":"teal","lab":[50,0,0],"source":"eye"}]}`:              "no place",
		`{"readings":[{"slot":"green","lab":[150,0,0],"source":"eye"}]}`:            "no colour of a surface",
		`{"readings":[{"slot":"green","lab":[50,0,0],"source":"nose"}]}`:            "",
		`{"readings":[{"slot":"green","lab":[50,0,0],"source":"eye","spread":-1}]}`: "",
	} {
		status, text := ada.do("POST", at+"/readings", body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}

	// A doubt is a line of text; what is sent again is kept once.
	status, text = ada.do("POST", at+"/readings", `{"readings":[{"slot":"green","lab":[50,-30,20],"source":"eye","wet":true,"doubt":"by\u202elamplight"}]}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "U+202E")
	for range 3 {
		ada.ok("POST", at+"/readings", `{"readings":[{"id":"tap 7","slot":"green","lab":[50,-30,20],"source":"eye","wet":true,"doubt":"again"}]}`, &reads)
		require.Len(t, reads.Readings, 3)
	}

	var came wire.SittingJournal
	ada.ok("GET", at+"/journal", "", &came)
	require.Len(t, came.Places, 12)
	assert.Nil(t, came.Learned)
	assert.Contains(t, came.TooFew, "strengths are learned from 3 to")
	for _, r := range read.Readings {
		ada.ok("POST", at+"/readings", fmt.Sprintf(`{"readings":[{"slot":%q,"lab":[%g,%g,%g],"source":"photo","spread":%g,"doubt":%q}]}`, r.Slot, r.Lab[0], r.Lab[1], r.Lab[2], r.Spread, r.Doubt), nil)
	}
	ada.ok("GET", at+"/journal", "", &came)
	require.NotNil(t, came.Learned)
	assert.False(t, came.Learned.Proposed, "the tubes are as they were taken to be")
	assert.Len(t, came.Learned.Strengths, 3)
	reads.Readings = nil

	var held wire.EyeHeld
	ada.ok("GET", at+"/ribbons?slot=green", "", &held)
	require.Len(t, held.Ribbons, 3)
	assert.Equal(t, "no difference to be seen", held.Says)
	assert.True(t, held.AsAimed)
	lighter := held.Ribbons[0].Stops[len(held.Ribbons[0].Stops)-1]
	assert.Equal(t, 6.0, lighter.Off)
	ada.ok("GET", at+"/ribbons?slot=green&off=2&lab="+strings.ReplaceAll(strings.Trim(fmt.Sprint(lighter.Lab), "[]"), " ", ","), "", &held)
	assert.Contains(t, held.Says, "lighter")
	assert.False(t, held.AsAimed)

	eve := signedUp(t, app, "Eve")
	for _, request := range [][3]string{{"GET", of, ""}, {"GET", of + "/straight", ""}, {"POST", of + "/read", "{}"}, {"DELETE", of, ""}, {"GET", at + "/readings", ""}, {"GET", at + "/journal", ""}, {"POST", at + "/readings", keep}, {"GET", at + "/ribbons?slot=green", ""}, {"POST", at + "/standin", "{}"}} {
		status, _ := eve.do(request[0], request[1], request[2])
		assert.Equal(t, 404, status, request)
	}
	status, text = ada.do("POST", fmt.Sprintf("/api/files/sittings/%d/photo", s.ID), "no picture")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no PNG or JPEG")
	ada.ok("DELETE", of, "", nil)
	status, _ = ada.do("GET", of, "")
	assert.Equal(t, 404, status)
	ada.ok("GET", at+"/readings", "", &reads)
	assert.Empty(t, reads.Photos)
	assert.Len(t, reads.Readings, 15, "what was read of it stays")
}
