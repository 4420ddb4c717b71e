package api_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

// Tubes come into the box by the words on them; which of several it is is settled later, as one change.
func TestTubesComeByTheWordsOnThem(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var named wire.NamedTube
	ada.ok("GET", "/api/names?words=phthalo+blu&sold=students", "", &named)
	require.NotEmpty(t, named.Found)
	assert.Equal(t, "PB15:3", named.Found[0].Paint)
	var sets []wire.NamedSet
	ada.ok("GET", "/api/names/sets", "", &sets)
	assert.Len(t, sets, 4)

	status, text := ada.do("POST", "/api/box/named", `{"names":["lemon yellow","unobtainium"]}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "unobtainium")
	var box api.Box
	ada.ok("GET", "/api/box", "", &box)
	assert.Empty(t, box.Tubes, "all or none")

	ada.ok("POST", "/api/box/named", `{"names":["Lemon Yellow","sap green","PB29"]}`, &box)
	require.Len(t, box.Tubes, 3)
	by := map[string]api.KeptTube{}
	for _, tube := range box.Tubes {
		by[tube.Content.Nickname] = tube
	}
	lemon := by["Lemon Yellow"]
	assert.Equal(t, "Lemon Yellow", lemon.Content.NotSure)
	assert.Equal(t, "PY3", lemon.Definition.Library)
	assert.Equal(t, []string{"PG7", "PY150"}, by["sap green"].Definition.Origin.Pigments)
	assert.Empty(t, by["PB29"].Content.NotSure)

	at := fmt.Sprintf("/api/box/%d/name", lemon.ID)
	status, _ = eve.do("POST", at, `{"paints":["PY184"],"version":1}`)
	assert.Equal(t, 404, status, "another painter's tube")
	status, _ = ada.do("POST", at, `{"paints":["PY184"],"version":9}`)
	assert.Equal(t, 422, status, "changed meanwhile")
	status, _ = ada.do("POST", at, `{"paints":["PX1"],"version":1}`)
	assert.Equal(t, 422, status)
	box = api.Box{}
	ada.ok("POST", at, `{"paints":["PY184"],"version":1}`, &box)
	require.Len(t, box.Tubes, 3)
	require.Len(t, box.Archived, 1)
	for _, tube := range box.Tubes {
		if tube.Content.Nickname == "Lemon Yellow" {
			assert.Equal(t, "PY184", tube.Definition.Library)
			assert.Empty(t, tube.Content.NotSure)
		}
	}
	undo := box.Undo.Change
	box = api.Box{}
	ada.ok("POST", "/api/box/undo", fmt.Sprintf(`{"change":%d}`, undo), &box)
	assert.Empty(t, box.Archived, "both are one change")
	assert.Len(t, box.Tubes, 3)
}
