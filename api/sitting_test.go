package api_test

import (
	"bufio"
	"context"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
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
	events := fmt.Sprintf("/api/sittings/%d/events", s.ID)
	first := s.Plan.Regions[s.Plan.Order[0]]

	// What was told once more changes nothing.
	for range 2 {
		ada.ok("POST", events, told("one", "painted", fmt.Sprintf(`,"region":%q`, first.ID)), &s)
		assert.Equal(t, int64(2), s.Revision)
		assert.Equal(t, 1, s.Places[index(s, first.ID)].Coats)
	}
	assert.Len(t, s.Plan.Order, len(s.Plan.Regions)-1)
	assert.Equal(t, "one", s.Last)
	assert.Equal(t, "painted: "+first.Label, s.LastSays)
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
		told("x", "painted", `,"region":"teal"`):    "no place",
		told("x", "sneezed", ""):                    "expected value to be one of",
		told("x", "undone", ""):                     "names what it takes back",
		told("x", "rinsed", `,"well":99`):           "no well 99",
		`{"events":[]}`:                             "",
		told(strings.Repeat("x", 65), "paused", ""): "",
	} {
		status, text := ada.do("POST", events, body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}
	// All or none.
	status, _ := ada.do("POST", events, strings.Replace(told("good", "paused", ""), "]}", `,{"id":"bad","kind":"painted","at":1,"offsetMs":0,"device":"","number":1,"revision":1,"region":"teal"}]}`, 1))
	assert.Equal(t, 422, status)
	var again wire.Sitting
	ada.ok("GET", fmt.Sprintf("/api/sittings/%d", s.ID), "", &again)
	assert.Zero(t, again.Paused)
	assert.Equal(t, s.Revision, again.Revision)

	eve := signedUp(t, app, "Eve")
	for _, request := range [][2]string{{"GET", fmt.Sprintf("/api/sittings/%d", s.ID)}, {"GET", fmt.Sprintf("/api/sittings/%d/changes", s.ID)}, {"DELETE", fmt.Sprintf("/api/sittings/%d", s.ID)}} {
		status, _ := eve.do(request[0], request[1], "")
		assert.Equal(t, 404, status, request)
	}
	status, _ = eve.do("POST", events, told("evil", "ended", ""))
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
	for _, kind := range []string{"wheel", "grid", "ladder", "values", "intensity", "run", "guide"} {
		var begun, later wire.Sitting
		ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), fmt.Sprintf(`{"sheet":{"kind":%q,"slot":2}}`, kind), &begun)
		ada.ok("GET", fmt.Sprintf("/api/sittings/%d", begun.ID), "", &later)
		assert.Equal(t, begun.Plan.Regions, later.Plan.Regions, kind)
		assert.Equal(t, begun.Plan.Order, later.Plan.Order, kind)
		var plan wire.BenchPlan
		ada.ok("POST", fmt.Sprintf("/api/plan?wheel=%d", w.ID), fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"sheet":{"kind":%q,"slot":2}}`, aSystem, choices, kind), &plan)
		assert.Equal(t, plan.Total, begun.Plan.Total, kind)
		for i := range plan.Regions {
			assert.Equal(t, plan.Regions[i].Shown, begun.Plan.Regions[i].Shown, "%s: %s", kind, plan.Regions[i].ID)
			assert.Equal(t, plan.Regions[i].Counted.Lines, begun.Plan.Regions[i].Counted.Lines, "%s: %s", kind, plan.Regions[i].ID)
		}
	}
}

func TestASecondDeviceIsToldOfWhatIsDone(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	var s wire.Sitting
	ada.ok("POST", fmt.Sprintf("/api/wheels/%d/sittings", w.ID), `{}`, &s)
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, "GET", "http://"+listening(t, app)+fmt.Sprintf("/api/sittings/%d/changes", s.ID), nil)
	require.NoError(t, err)
	for name, value := range ada.request("GET", "/", "").Header {
		request.Header[name] = value
	}
	answer, err := http.DefaultClient.Do(request) //nolint:bodyclose // cancelled below
	require.NoError(t, err)
	assert.Equal(t, "text/event-stream", answer.Header.Get("Content-Type"))
	lines := bufio.NewScanner(answer.Body)
	until := func(line string) {
		t.Helper()
		for lines.Scan() {
			if lines.Text() == line {
				return
			}
		}
		require.Fail(t, "the stream ended before "+line)
	}
	until("data: here")
	ada.ok("POST", fmt.Sprintf("/api/sittings/%d/events", s.ID), told("one", "paused", ""), nil)
	until("data: changed")
}
