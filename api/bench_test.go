package api_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

const toPlan = `{"system":{"kind":"triad","roles":[["PY184"],["PR254"],["PB29"]],"chosen":[[],[],[]],"riders":{},"note":""},"choices":{"spacing":"hue","order":"run","names":"painters","rings":{"tints":0,"shades":0,"wash":false,"neutral":false,"triple":false}},"bench":{"diameter":160,"brushes":2}}`

func TestAWheelIsPlannedQuicklyAndThenExactly(t *testing.T) {
	app, _ := server(t, true)
	nobody := &client{t: t, app: app}
	var quick, exact wire.BenchPlan
	nobody.ok("POST", "/api/plan?medium=gouache&quick=true", toPlan, &quick)
	assert.True(t, quick.Working)
	for exact.Working = true; exact.Working; { // on a busy machine it is not there at once
		nobody.ok("POST", "/api/plan?medium=gouache", toPlan, &exact)
	}
	assert.True(t, exact.Optimal)
	assert.LessOrEqual(t, exact.Total, quick.Total)
	assert.GreaterOrEqual(t, exact.Low, quick.Low)
	assert.Len(t, exact.Regions, 12)
	assert.Equal(t, 160.0, exact.Settings.Diameter)
	assert.Equal(t, "dabs", exact.Settings.Measure, "what is usual is filled in")
	assert.Nil(t, exact.Amounts[0].TubeML, "nobody's tubes are known")

	for wrong, says := range map[string]string{
		`"diameter":160`: `"diameter":16`, `"brushes":2`: `"brushes":9`,
	} {
		status, text := nobody.do("POST", "/api/plan?medium=gouache", strings.Replace(toPlan, wrong, says, 1))
		assert.Equal(t, 422, status)
		assert.Contains(t, text, "runs from")
	}
}

func TestAPlanKnowsWhatTheTubesHoldAndIsKeptWithTheWheel(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	blue := ada.tube("PB29")
	ada.ok("PUT", at(blue), saying(blue, func(c *wire.TubeContent) { ml := 0.5; c.TubeML = &ml }), nil)
	var p wire.BenchPlan
	ada.ok("POST", "/api/plan?medium=gouache", strings.Replace(strings.Replace(toPlan, "PB29", fmt.Sprintf("tube-%d", blue.ID), 1), `"diameter":160`, `"diameter":300`, 1), &p)
	short := 0
	for _, a := range p.Amounts {
		if a.Short {
			short++
			assert.Equal(t, 0.5, *a.TubeML)
		}
	}
	assert.Equal(t, 1, short)

	var w api.KeptWheel
	bench := `"bench":{"diameter":210,"dryer":true,"before":[["violet","yellow"]]}`
	require.Contains(t, newWheel, `"choices":`)
	ada.ok("POST", "/api/wheels", strings.Replace(newWheel, `"choices":`, bench+`,"choices":`, 1), &w)
	var kept api.KeptWheel
	ada.ok("GET", fmt.Sprintf("/api/wheels/%d", w.ID), "", &kept)
	assert.Equal(t, 210.0, kept.Settings.Bench.Diameter)
	assert.True(t, kept.Settings.Bench.Dryer)
	assert.Equal(t, [][2]string{{"violet", "yellow"}}, kept.Settings.Bench.Before)
	status, _ := ada.do("POST", "/api/wheels", strings.Replace(newWheel, `"choices":`, `"bench":{"wells":999},"choices":`, 1))
	assert.Equal(t, 422, status)
}

func TestARecipeIsCountedOut(t *testing.T) {
	app, _ := server(t, true)
	nobody := &client{t: t, app: app}
	var c wire.Counted
	nobody.ok("POST", "/api/counted?medium=acrylic", `{"parts":[{"paint":"PY184","parts":13},{"paint":"PB29","parts":1}],"measure":"dabs","ml":0.9}`, &c)
	require.Len(t, c.Taken, 2)
	assert.Equal(t, "PY184", c.Taken[0].Paint)
	assert.Greater(t, c.Taken[0].Amount, c.Taken[1].Amount)
	assert.GreaterOrEqual(t, c.ML, 0.9)
	assert.Len(t, c.Lines, 2)

	nobody.ok("POST", "/api/counted?medium=acrylic", `{"parts":[{"paint":"PY184","parts":3},{"paint":"PB29","parts":2,"letDown":{"paint":"PY184","parts":9}},{"paint":"green","parts":1,"of":[{"paint":"PG7","parts":1},{"paint":"PY3","parts":4}]}],"measure":"drops"}`, &c)
	assert.NotEmpty(t, c.Lines)
	for body, says := range map[string]string{
		`{"parts":[{"paint":"PX9","parts":1}]}`:                   "unknown paint",
		`{"parts":[{"paint":"PB29","parts":-1}]}`:                 "above 0",
		`{"parts":[{"paint":"PB29","parts":1}],"measure":"cups"}`: "choose dabs",
		`{"parts":[{"paint":"PB29","parts":1e300}]}`:              "at most",
		`{"parts":[]}`: "",
		`{"parts":[{"paint":"PB29","parts":1}],"ml":1e9}`:                       "",
		`{"parts":[{"paint":"g","parts":1,"of":[{"paint":"PB29","parts":0}]}]}`: "above 0",
	} {
		status, text := nobody.do("POST", "/api/counted", body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}
}

func TestAWayToFillThatIsUnknownIsSaidShort(t *testing.T) {
	app, _ := server(t, true)
	c := &client{t: t, app: app}
	status, text := c.do("POST", "/api/plan", fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{"fill":%q}}`, aSystem, choices, strings.Repeat("x", 60_000)))
	assert.Equal(t, 422, status)
	assert.Less(t, len(text), 1000)
	assert.Contains(t, text, "x")
}

func TestAKeptWheelIsPutOnPaper(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	at := fmt.Sprintf("/api/wheels/%d/paper?kind=guide", w.ID)
	for query, begins := range map[string]string{"&format=pdf": "%PDF-", "&format=svg&measure=drops&recipes=dabs": "<svg "} {
		status, text, header := ada.send(ada.request("GET", at+query, ""))
		assert.Equal(t, 200, status, text)
		assert.True(t, strings.HasPrefix(text, begins), query)
		assert.Contains(t, header.Get("Content-Disposition"), "inline")
	}
	for _, query := range []string{"&paper=papyrus", "&format=svg&page=9", "&measure=cups", "&recipes=pinch"} {
		status, _ := ada.do("GET", at+query, "")
		assert.Equal(t, 422, status, query)
	}
	// Whatever a name may hold is printed.
	var drawn api.KeptWheel
	ada.ok("POST", "/api/wheels", strings.Replace(newWheel, `"name":"`, `"name":"🌊 海 `, 1), &drawn)
	for _, as := range []string{"sheet", "plan", "cards"} {
		status, text := ada.do("GET", fmt.Sprintf("/api/wheels/%d/paper?as=%s", drawn.ID, as), "")
		assert.Equal(t, 200, status, text)
	}
	// A ladder of two paints of one's own choice, and what comes nearest to wanted colours.
	ladder := strings.Replace(at, "kind=guide", "kind=ladder&a=PY74&b=PB15:3&steps=7", 1)
	_, text, header := ada.send(ada.request("GET", ladder+"&format=svg", ""))
	assert.Contains(t, text, "PY74")
	assert.Equal(t, "2", header.Get("Sheet-Pages"), "its let-downs find no room beside it")
	_, text, _ = ada.send(ada.request("GET", ladder+"&format=svg&page=2", ""))
	assert.Contains(t, text, "PB15:3 (let down 1:")
	wanted := strings.Replace(at, "kind=guide", "kind=wanted&as=sheet,cards", 1)
	status, text := ada.do("GET", wanted, "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no wanted colours yet")
	ada.ok("POST", "/api/wanted", `[{"name":"kelp","colour":"#6e6228"}]`, nil)
	_, text, header = ada.send(ada.request("GET", wanted+"&format=svg&page=3", ""))
	assert.Contains(t, text, "CIEDE2000")
	assert.Equal(t, "3", header.Get("Sheet-Pages"))
	status, _ = ada.do("GET", strings.Replace(ladder, "PY74", "PX99", 1), "")
	assert.Equal(t, 422, status)

	_, text, _ = ada.send(ada.request("GET", fmt.Sprintf("/api/compare/paper?wheels=%d&paper=A5", w.ID), ""))
	assert.True(t, strings.HasPrefix(text, "%PDF-"))

	eve := signedUp(t, app, "Eve")
	for _, theirs := range []string{at, ladder, wanted, fmt.Sprintf("/api/compare/paper?wheels=%d", w.ID)} {
		status, _ = eve.do("GET", theirs, "")
		assert.Equal(t, 404, status, "another's wheel is not there")
	}
	status, text = eve.do("GET", "/api/box/paper", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no coloured paints in the box")
	eve.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	_, text, _ = eve.send(eve.request("GET", "/api/box/paper?format=svg&medium=gouache", ""))
	assert.Contains(t, text, "ultramarine")
}

// What to paint to be surer: by eye more of it, and what was painted of it is a sheet like any other.
func TestASheetOfWhatMakesRecipesSurer(t *testing.T) {
	app, _ := server(t, true)
	nobody := &client{t: t, app: app}
	known := map[string]float64{}
	for _, by := range []string{"eye", "photo", "instrument"} {
		var got wire.SwatchPlan
		nobody.ok("POST", "/api/surer?medium=gouache", fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"readBy":%q}`, aSystem, choices, by), &got)
		require.Equal(t, by, got.ReadBy)
		require.NotEmpty(t, got.Swatches)
		before := got.Now
		for _, one := range got.Swatches {
			assert.Less(t, one.Spread, before)
			assert.NotEmpty(t, one.Says)
			assert.Len(t, one.Parts, 2)
			before = one.Spread
		}
		known[by] = before
	}
	assert.Less(t, known["instrument"], known["photo"])
	assert.Less(t, known["photo"], known["eye"])
	status, text := nobody.do("POST", "/api/surer", fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"readBy":"nose"}`, aSystem, choices))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "choose eye, photo or instrument")

	status, text = nobody.do("POST", "/api/surer", fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"ofBox":true}`, aSystem, choices))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "for who has one")

	var plan wire.BenchPlan
	nobody.ok("POST", "/api/plan?medium=gouache", fmt.Sprintf(`{"system":%s,"choices":%s,"bench":{},"sheet":{"kind":"swatches"}}`, aSystem, choices), &plan)
	assert.Equal(t, "swatches", plan.Kind)
	assert.LessOrEqual(t, len(plan.Regions), 6)
	assert.Len(t, plan.Order, len(plan.Regions))
}
