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

// aWheelOfTubes is a wheel of a painter's tubes, one of them learned and one of the painter's own making.
func aWheelOfTubes(ada *client) (w api.KeptWheel) {
	t := ada.t
	t.Helper()
	_, s, at := ada.sits()
	ada.readBy(s.ID, map[string]float64{"PB29": 1.6})
	var came wire.SittingJournal
	ada.ok("GET", at+"/journal", "", &came)
	ada.ok("POST", at+"/strengths", offered(came), nil)
	ada.ok("POST", "/api/own", `{"name":"limpet","grade":"student","origin":{"kind":"adjusted","paint":"PR254","factor":0.8,"shift":5}}`, nil)
	tubes := map[string]string{}
	for _, tube := range ada.box().Tubes {
		tubes[tube.Paint.Name] = tube.Paint.ID
	}
	require.Contains(t, tubes, "limpet")
	blue := ""
	for _, tube := range ada.box().Tubes {
		if tube.Paint.CI == "PB29" {
			blue = tube.Paint.ID
		}
	}
	body := fmt.Sprintf(`{"name":"Limpet & wrack","system":{"kind":"triad","roles":[["PY65"],[%q],[%q]],"chosen":[[],[],[]],"riders":{},"note":"for the north wall"},"settings":{"medium":"gouache","light":"D65","judged":"dry","choices":%s}}`, tubes["limpet"], blue, choices)
	ada.ok("POST", "/api/wheels", body, &w)
	return w
}

// Another painter opens a wheel with all that it needs: it looks the same, and the tubes are as strong.
func TestAWheelIsCarriedToAnotherPainter(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	w := aWheelOfTubes(ada)
	status, file := ada.do("GET", fmt.Sprintf("/api/wheels/%d/file", w.ID), "")
	require.Equal(t, 200, status, file)
	status, _ = eve.do("GET", fmt.Sprintf("/api/wheels/%d/file", w.ID), "")
	assert.Equal(t, 404, status, "nobody else's is carried away")

	var seen, kept, again wire.Carried
	eve.file("wheel", []byte(file), &seen)
	assert.Equal(t, "Limpet & wrack", seen.Name)
	happens := map[string]int{}
	for _, p := range seen.Paints {
		happens[p.Happens]++
	}
	assert.Equal(t, 2, happens["added"])
	assert.Zero(t, happens["yours"])
	assert.Empty(t, eve.box().Tubes, "it was only looked at")

	eve.file("wheel?keep=true", []byte(file), &kept)
	require.Positive(t, kept.Kept)
	// How sure it is differs: of what readings told, the file has the strength and its interval.
	was, is := wheelOf(ada, w.ID).Slots, withoutIDs(wheelOf(eve, kept.Kept), eve, ada).Slots
	require.Len(t, is, len(was))
	for i := range was {
		was[i].Confidence, is[i].Confidence = wire.Confidence{}, wire.Confidence{}
	}
	assert.Equal(t, was, is)
	mine, theirs := strengths(ada), strengths(eve)
	assert.InDelta(t, mine["PB29"], theirs["PB29"], 1e-9)
	var takings []wire.Taking
	eve.ok("GET", "/api/takings", "", &takings)
	require.Len(t, takings, 1)
	var hers []wire.Taking
	ada.ok("GET", "/api/takings", "", &hers)
	assert.Equal(t, hers[0].Strengths[0].Low, takings[0].Strengths[0].Low, "with its interval")
	assert.Equal(t, "a wheel that was brought in", takings[0].From)

	// Once more: the box has them already, and so does hers.
	eve.file("wheel?keep=true", []byte(file), &again)
	assert.NotEqual(t, kept.Kept, again.Kept)
	assert.Len(t, eve.box().Tubes, 2)
	ada.file("wheel", []byte(file), &again)
	for _, p := range again.Paints {
		assert.NotEqual(t, "added", p.Happens, p.Name)
	}
	// It goes on to a third the same.
	status, onward := eve.do("GET", fmt.Sprintf("/api/wheels/%d/file", kept.Kept), "")
	require.Equal(t, 200, status)
	var third wire.Carried
	signedUp(t, app, "Bo").file("wheel", []byte(onward), &third)
	third.Kept = 0
	assert.Equal(t, seen, third)
}

// withoutIDs is a wheel with one painter's tubes called as another's are.
func withoutIDs(w wire.Wheel, mine, theirs *client) (out wire.Wheel) {
	body, err := json.Marshal(w)
	require.NoError(mine.t, err)
	text := string(body)
	for _, a := range mine.box().Tubes {
		for _, b := range theirs.box().Tubes {
			if a.Paint.Name == b.Paint.Name {
				text = strings.ReplaceAll(text, fmt.Sprintf("%q", a.Paint.ID), fmt.Sprintf("%q", b.Paint.ID))
			}
		}
	}
	require.NoError(mine.t, json.Unmarshal([]byte(text), &out))
	return out
}

// A file that cannot be is refused in a sentence, and nothing of it is taken.
func TestABrokenWheelIsRefusedWhole(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	w := aWheelOfTubes(ada)
	_, file := ada.do("GET", fmt.Sprintf("/api/wheels/%d/file", w.ID), "")
	var before []api.WheelEntry
	eve.ok("GET", "/api/wheels", "", &before)
	change := func(from, to string) string {
		require.Contains(t, file, from)
		return strings.Replace(file, from, to, 1)
	}
	for name, c := range map[string]struct{ body, says string }{
		"no JSON":            {"hello", "no wheel's file"},
		"another format":     {change("gyrophane-wheel", "gyrophane-box"), "no wheel's file"},
		"a later version":    {change(`"version": 1`, `"version": 2`), "newer Gyrophane"},
		"an unknown field":   {change(`"library"`, `"colour": 3, "library"`), "cannot be understood"},
		"two of them":        {file + file, "no wheel's file"},
		"a medium of dreams": {change(`"gouache"`, `"encaustic"`), "unknown medium"},
		"a paint of dreams":  {change(`"PY65"`, `"PX9"`), "unknown paint"},
		"a tube without":     {strings.Replace(file, `"frozen": {`, `"frozen": {}, "was": {`, 1), "cannot be understood"},
		"no such strength":   {change(`"low": `, `"low": -`), "cannot be"},
		"a short curve":      {change(`"k": [`, `"k": [1, `), "values"},
		"a name too long":    {change(`"Limpet \u0026 wrack"`, `"`+strings.Repeat("x", 300)+`"`), "name"},
	} {
		status, text := eve.file("wheel?keep=true", []byte(c.body), nil)
		assert.Equal(t, 422, status, "%s: %s", name, text)
		assert.Contains(t, text, c.says, name)
	}
	assert.Empty(t, eve.box().Tubes, "nothing is half taken")
	var after []api.WheelEntry
	eve.ok("GET", "/api/wheels", "", &after)
	assert.Equal(t, before, after)
}

// All that is a painter's is deleted once the name was typed, and with it the way in; a wheel is, and what was
// painted of it stays.
func TestWhatIsDeletedIsGone(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	w, s, at := ada.sits()
	var hers api.KeptWheel
	eve.ok("POST", "/api/wheels", newWheel, &hers)
	status, _ := eve.do("DELETE", fmt.Sprintf("/api/wheels/%d", w.ID), "")
	assert.Equal(t, 404, status, "nobody else's")
	ada.readBy(s.ID, map[string]float64{"PB29": 1.6})
	var came wire.SittingJournal
	ada.ok("GET", at+"/journal", "", &came)
	ada.ok("POST", at+"/strengths", offered(came), nil)
	ada.ok("DELETE", fmt.Sprintf("/api/wheels/%d", w.ID), "", nil)
	status, _ = ada.do("GET", fmt.Sprintf("/api/wheels/%d", w.ID), "")
	assert.Equal(t, 404, status)
	ada.ok("GET", at+"/journal", "", &came)
	assert.NotEmpty(t, came.Places, "what was painted stays")
	ada.ok("DELETE", at, "", nil)
	var takings []wire.Taking
	ada.ok("GET", "/api/takings", "", &takings)
	require.Len(t, takings, 1)
	assert.Contains(t, takings[0].From, "the evidence deleted since")
	assert.InDelta(t, 1.6, strengths(ada)["PB29"], 0.25, "what was taken stays")

	for body, says := range map[string]string{`{"name":"ada"}`: "Type your name", `{"name":"Eve"}`: "Type your name", `{}`: "name"} {
		status, text := ada.do("POST", "/api/mine/deleted", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, says)
	}
	ada.ok("PUT", "/api/session/passphrase", `{"new":"salt on the sill"}`, nil)
	status, _ = ada.do("POST", "/api/mine/deleted", `{"name":"Ada"}`)
	assert.Equal(t, 403, status)
	ada.ok("POST", "/api/mine/deleted", `{"name":"Ada","passphrase":"salt on the sill"}`, nil)
	status, _ = ada.do("GET", "/api/box", "")
	assert.Equal(t, 401, status)
	eve.ok("GET", fmt.Sprintf("/api/wheels/%d", hers.ID), "", nil)
}

// Another painter opens a sitting with all that it needs: every place came out the same, for the same reasons.
func TestASittingIsCarriedToAnotherPainter(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	_, s, at := ada.sits()
	ada.readBy(s.ID, map[string]float64{"PB29": 1.6})
	status, file := ada.do("GET", at+"/file", "")
	require.Equal(t, 200, status, file)
	status, _ = eve.do("GET", at+"/file", "")
	assert.Equal(t, 404, status, "nobody else's is carried away")
	assert.NotContains(t, file, "painter_id")

	var seen, kept, again wire.Carried
	eve.file("sitting", []byte(file), &seen)
	assert.Positive(t, seen.Readings)
	var list []wire.SittingListed
	eve.ok("GET", "/api/sittings", "", &list)
	assert.Empty(t, list, "it was only looked at")
	eve.file("sitting?keep=true", []byte(file), &kept)
	theirs := fmt.Sprintf("/api/sittings/%d", kept.Kept)
	var hers, mine wire.SittingJournal
	ada.ok("GET", at+"/journal", "", &hers)
	eve.ok("GET", theirs+"/journal", "", &mine)
	require.Len(t, mine.Places, len(hers.Places))
	for i := range hers.Places {
		assert.Equal(t, hers.Places[i], mine.Places[i])
	}
	// What was learned of it can be taken into the other box as well.
	eve.ok("POST", theirs+"/strengths", offered(mine), nil)
	assert.InDelta(t, 1.6, strengths(eve)["PB29"], 0.25)

	// Once more it is the same one; it goes back to whom it came from as hers.
	eve.file("sitting?keep=true", []byte(file), &again)
	assert.Equal(t, kept.Kept, again.Kept)
	eve.ok("GET", "/api/sittings", "", &list)
	assert.Len(t, list, 1)
	_, back := eve.do("GET", theirs+"/file", "")
	ada.file("sitting?keep=true", []byte(back), &again)
	assert.Equal(t, s.ID, again.Kept)

	for name, c := range map[string]struct{ from, to, says string }{
		"another format":    {"gyrophane-whole-sitting", "gyrophane-wheel", "no sitting's file"},
		"a later version":   {`"version": 1,`, `"version": 2,`, "newer Gyrophane"},
		"an unknown field":  {`"tubes"`, `"colour": 3, "tubes"`, "cannot be understood"},
		"an unknown column": {`"next_time"`, `"next_year"`, "nothing is known here"},
		"a place too many":  {`"order": [`, `"order": [999, `, "which the sheet has not"},
		"no such place":     {`"region": "`, `"region": "nowhere `, "there is no place"},
		"a paint of dreams": {`"library": "P`, `"library": "XP`, "another paint"},
		"no such colour":    {`"l": `, `"l": 7`, "no colour of a surface"},
	} {
		require.Contains(t, file, c.from, name)
		status, text := eve.file("sitting?keep=true", []byte(strings.Replace(file, c.from, c.to, 1)), nil)
		assert.Equal(t, 422, status, "%s: %s", name, text)
		assert.Contains(t, text, c.says, name)
	}
}
