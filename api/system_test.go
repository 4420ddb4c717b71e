package api_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/paint"
	"gyrophane/wire"
)

// ownBlue is a question or a wheel whose blue is a tube of the painter's box.
func ownBlue(text string, tube int64) string {
	return strings.Replace(text, "PB29", fmt.Sprintf("tube-%d", tube), 1)
}

func TestAWheelKeepsItsTubesAsTheyWere(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	blue := ada.tube("PB29")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", ownBlue(newWheel, blue.ID), &w)
	assert.Equal(t, fmt.Sprintf("tube-%d", blue.ID), w.System.Roles[2][0])

	look := func(wheel int64) wire.Wheel {
		var out wire.Wheel
		ada.ok("POST", fmt.Sprintf("/api/wheel?wheel=%d", wheel), ownBlue(question, blue.ID), &out)
		return out
	}
	before := look(w.ID)
	assert.Equal(t, "PB29", before.Slots[8].Parts[0].Code, "it goes by its Colour Index name")
	ada.ok("PUT", at(blue), saying(blue, func(c *wire.TubeContent) { c.Grade = "student" }), nil)
	assert.Equal(t, before, look(w.ID), "the kept wheel has the tube as it was")
	assert.NotEqual(t, before.Slots[10].Parts, look(0).Slots[10].Parts, "a new one has it as it is: weaker")

	ada.ok("PUT", fmt.Sprintf("/api/wheels/%d", w.ID), strings.Replace(ownBlue(newWheel, blue.ID), `{"name":"Rock pool"`, `{"version":1,"name":"Low water"`, 1), &w)
	assert.Equal(t, before, look(w.ID), "renaming it changes nothing")

	eve := signedUp(t, app, "Eve")
	status, text := eve.do("POST", "/api/wheel", ownBlue(question, blue.ID))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no tube of your box")
	nobody := &client{t: t, app: app}
	status, _ = nobody.do("POST", "/api/wheel", ownBlue(question, blue.ID))
	assert.Equal(t, 401, status)
	nobody.ok("POST", "/api/wheel", question, nil)
}

func TestASystemIsFilledVersionedAndArchived(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var places wire.SystemPlaces
	ada.ok("POST", "/api/system", `{"system":{"kind":"split","roles":[[],[],[]],"chosen":[[],[],[]],"riders":{},"note":""}}`, &places)
	assert.NotEmpty(t, places.Wrong, "no wheel can be made of it yet")
	for _, r := range places.Roles {
		assert.Len(t, r.Places, 2)
		assert.NotEmpty(t, r.Places[0].Substitutes)
	}
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	path := fmt.Sprintf("/api/wheels/%d", w.ID)
	archive := strings.Replace(change("PB60", w.Version), `"name"`, `"archived":true,"name"`, 1)
	ada.ok("PUT", path, archive, &w)
	assert.True(t, w.Archived)
	var earlier []api.EarlierWheel
	ada.ok("GET", path+"/earlier", "", &earlier)
	require.Len(t, earlier, 2)
	assert.Equal(t, "PB29", earlier[1].System.Roles[2][0], "the old version keeps its paints")
	status, text := ada.do("POST", "/api/wheels", strings.Replace(newWheel, `"chosen":[[],[],[]]`, `"chosen":[["PY184","PR254"],[],[]]`, 1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "only double and own systems")
}

func TestASystemIsFilledFromTheBoxOfWhoAsks(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60"]}`, nil)
	blue := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	for _, kind := range []string{"triad", "cmy", "split", "double", "leaning-clockwise", "leaning-counter-clockwise", "own"} {
		var hers, theirs wire.Filling
		ada.ok("GET", "/api/system/filled?kind="+kind, "", &hers)
		assert.Contains(t, hers.Own.Roles[2], blue, kind)
		assert.NotEmpty(t, hers.Missing, kind)
		eve.ok("GET", "/api/system/filled?kind="+kind, "", &theirs)
		assert.NotContains(t, theirs.Whole.Roles[2], blue, "another painter's box is not looked into")
		made, err := json.Marshal(hers.Whole)
		require.NoError(t, err)
		ada.ok("POST", "/api/wheels", strings.Replace(newWheel, aSystem, string(made), 1), nil)
	}
	var alone wire.Filling
	ada.ok("GET", "/api/system/of-box", "", &alone)
	assert.False(t, alone.Wheel, "one tube makes no wheel")
	ada.ok("POST", "/api/box/named", `{"names":["lemon yellow","Permanent Rose"],"sold":"students"}`, nil)
	ada.ok("GET", "/api/system/of-box", "", &alone)
	assert.True(t, alone.Wheel)
	assert.Empty(t, alone.Missing)
	status, _ := ada.do("GET", "/api/system/filled?kind=quartet", "")
	assert.Equal(t, 422, status)
}

func TestATubeWithoutANameIsTakenByItsLookAndNotSure(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var box api.Box
	ada.ok("POST", "/api/box/looks", `{"paint":"PB60"}`, &box)
	require.Len(t, box.Tubes, 1)
	tube := box.Tubes[0]
	assert.Equal(t, "blue without a name", tube.Content.Nickname)
	assert.Equal(t, paint.ByLook, tube.Content.NotSure)
	var settled api.Box
	ada.ok("POST", fmt.Sprintf("/api/box/%d/name", tube.ID), fmt.Sprintf(`{"paints":["PB29"],"version":%d}`, tube.Version), &settled)
	require.Len(t, settled.Tubes, 1)
	assert.Equal(t, "PB29", settled.Tubes[0].Definition.Library)
	assert.Empty(t, settled.Tubes[0].Content.NotSure)
	status, text := ada.do("POST", "/api/box/looks", `{"paint":"PX1"}`)
	assert.Equal(t, 422, status, text)
	assert.Contains(t, text, "PX1")
}

func TestAColourIsHeldInRibbons(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var held wire.EyeHeld
	ada.ok("GET", "/api/ribbons?from=52,38,20", "", &held)
	require.Len(t, held.Ribbons, 3)
	assert.True(t, held.AsAimed)
	assert.Equal(t, -15.0, held.Ribbons[0].Stops[0].Off)
	ada.ok("GET", "/api/ribbons?from=%236e6228&lab=60,10,20&off=2", "", &held)
	assert.Contains(t, held.Says, "lighter")
	for _, c := range [][2]string{
		{"/api/ribbons?from=mud", "is no screen colour"}, {"/api/ribbons?from=52,38,20&lab=1,2", "is no colour"},
		{"/api/ribbons?from=52,38,20&off=90", "from 0.1 to 20"}, {"/api/ribbons", "from"},
	} {
		status, text := ada.do("GET", c[0], "")
		assert.Equal(t, 422, status, c[0])
		assert.Contains(t, text, c[1])
	}
}

func TestRidersAreKeptAsTheyWereAndCheckedWhenTheyAreSaved(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PW4"]}`, nil)
	white := ada.tube("PW4")
	riding := func(ref string) string {
		return strings.Replace(newWheel, `"riders":{}`, fmt.Sprintf(`"riders":{"white":"%s"}`, ref), 1)
	}
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", riding(fmt.Sprintf("tube-%d", white.ID)), &w)
	assert.Equal(t, fmt.Sprintf("tube-%d", white.ID), w.System.Riders.White)
	for says, ref := range map[string]string{"cannot ride along as the white": "PB29", "no tube of your box": "tube-999999"} {
		status, text := ada.do("POST", "/api/wheels", riding(ref))
		assert.Equal(t, 422, status, ref)
		assert.Contains(t, text, says)
	}
	status, text := eve.do("POST", "/api/wheels", riding(fmt.Sprintf("tube-%d", white.ID)))
	assert.Equal(t, 422, status, "nor is another painter's tube taken")
	assert.Contains(t, text, "no tube of your box")
}

func TestNeutralsAndGlazesAreAnswered(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var n wire.Neutrals
	ada.ok("POST", "/api/neutrals?slot=2&steps=5", question, &n)
	assert.Len(t, n.Pairs, 6)
	assert.Len(t, n.Intensity, 5)
	assert.Len(t, n.Earths, 3)
	assert.NotEmpty(t, n.Dark.Parts)
	status, _ := ada.do("POST", "/api/neutrals?slot=12", question)
	assert.Equal(t, 422, status)
	status, text := ada.do("POST", "/api/neutrals?slot=2&steps=6", question)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "5 or 7")

	var g wire.Glazes
	glazing := strings.TrimSuffix(question, "}") + `,"layers":[{"paint":"PY184","thickness":0.3},{"paint":"PB29","thickness":0.3}],"thickness":0.6}`
	ada.ok("POST", "/api/glazes", glazing, &g)
	assert.Len(t, g.Stack, 3)
	assert.Len(t, g.Wheel, 12)
	require.NotNil(t, g.Mixed)
	assert.NotEqual(t, g.Stack[2].Shown, g.Turned, "the order of layers matters")
	var over wire.Glazes
	ada.ok("POST", "/api/glazes", strings.Replace(glazing, `"layers"`, `"ground":"PBk9","layers"`, 1), &over)
	assert.NotEqual(t, g.Stack[2].Shown, over.Stack[2].Shown, "so does the ground")
	status, text = ada.do("POST", "/api/glazes", strings.Replace(glazing, `"thickness":0.3}]`, `"thickness":99}]`, 1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "ayer 2")
}

func TestPredictionsAreScoredAndLocked(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	path := fmt.Sprintf("/api/wheels/%d/predictions", w.ID)
	guess := `{"version":1,"guesses":[{"home":2,"hueWord":"orange","verdict":"clean"},{"home":6,"hueWord":"green","verdict":"clean"}]}`
	var all api.Predictions
	ada.ok("POST", path, guess, &all)
	got := all.Predictions
	require.Len(t, got, 2)
	assert.Equal(t, 8, all.OutOf)
	assert.Equal(t, 4, all.Each)
	assert.Equal(t, got[0].Points+got[1].Points, all.Points)
	byHome := map[int]api.Predicted{got[0].Home: got[0], got[1].Home: got[1]}
	assert.True(t, byHome[2].HueRight)
	assert.False(t, byHome[6].HueRight)
	assert.Equal(t, "violet", byHome[6].Name)
	status, text := ada.do("POST", path, guess)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "predicted before")
	for body, says := range map[string]string{
		strings.Replace(guess, "orange", "teal", 1):             "no hue of the wheel",
		strings.Replace(guess, `"home":2`, `"home":0`, 1):       "only mixed slots",
		strings.Replace(guess, `"home":2`, `"home":12`, 1):      "home",
		strings.Replace(guess, `"version":1`, `"version":9`, 1): "changed in the meantime",
	} {
		status, text := ada.do("POST", path, body)
		assert.Equal(t, 422, status, says)
		assert.Contains(t, text, says)
	}
	status, _ = eve.do("POST", path, guess)
	assert.Equal(t, 404, status)
	var theirs api.Predictions
	eve.ok("GET", path, "", &theirs)
	assert.Empty(t, theirs.Predictions)
	assert.Zero(t, theirs.OutOf)
}
