package api_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/path"
	"gyrophane/wire"
)

func TestPairingsOfASystemAndOfABox(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var got wire.Pairings
	ada.ok("POST", "/api/pairings?spacing=contrast", `{"system":`+aSystem+`}`, &got)
	assert.Len(t, got.Pairs, 3)
	assert.Equal(t, "contrast", got.Spacing)

	ada.ok("POST", "/api/box/paints", `{"paints":["PB60","PR122","PY74"]}`, nil)
	ada.ok("GET", "/api/box/pairings", "", &got)
	assert.Len(t, got.Pairs, 3)
	assert.Contains(t, got.Paints[0].ID, "tube-")
	tube := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	ada.ok("GET", "/api/box/pairings?paints=PY74,PW6,"+tube+",PR254", "", &got)
	assert.Len(t, got.Pairs, 6, "some of the box, some of the library")
	for says, paints := range map[string]string{"2 to 60 paints, not 1": "PY74", "stands twice": "PY74,py74", "PX1": "PY74,PX1"} {
		status, text := ada.do("GET", "/api/box/pairings?paints="+paints, "")
		assert.Equal(t, 422, status, paints)
		assert.Contains(t, text, says)
	}
	status, _ := eve.do("GET", "/api/box/pairings?paints=PY74,"+tube, "")
	assert.Equal(t, 422, status, "another's tube")
	status, text := eve.do("GET", "/api/box/pairings", "")
	assert.Equal(t, 422, status, "another's box is empty")
	assert.Contains(t, text, "2 to 60 paints, not 0")
	status, text = eve.do("POST", "/api/pairings", `{"system":`+strings.Replace(aSystem, "PB29", fmt.Sprintf("tube-%d", ada.tube("PB60").ID), 1)+`}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no tube of your box")
}

func TestPairingsAreMarked(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60"]}`, nil)
	tube := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	var marks []api.PairMark
	ada.ok("PUT", "/api/pairings/marks", fmt.Sprintf(`[{"a":"%s","b":"PR122","mark":"to paint","was":"none"}]`, tube), &marks)
	require.Len(t, marks, 1)
	assert.Equal(t, api.PairMark{A: "PR122", B: tube, Mark: "to paint"}, marks[0])
	for says, body := range map[string]string{
		"cannot be paired with itself": `[{"a":"PR122","b":"PR122","mark":"painted","was":"none"}]`,
		"PX1":                          `[{"a":"PX1","b":"PR122","mark":"painted","was":"none"}]`,
		"expected value to be one of":  `[{"a":"PB29","b":"PR122","mark":"eaten","was":"none"}]`,
	} {
		status, text := ada.do("PUT", "/api/pairings/marks", body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}
	status, text := ada.do("PUT", "/api/pairings/marks", fmt.Sprintf(`[{"a":"PR122","b":"%s","mark":"judged","was":"none"}]`, tube))
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "Nothing was marked")
	status, _ = eve.do("PUT", "/api/pairings/marks", fmt.Sprintf(`[{"a":"PR122","b":"%s","mark":"judged","was":"none"}]`, tube))
	assert.Equal(t, 422, status, "not with another's tube")
	eve.ok("GET", "/api/pairings/marks", "", &marks)
	assert.Empty(t, marks)
}

func TestPathsAndPilesMayNameTubes(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60"]}`, nil)
	tube := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	for _, path := range []string{
		"/api/pair?a=" + tube + "&b=PR122&third=PY74",
		"/api/mix?parts=" + tube + "=2,PW6=1",
		"/api/correct?have=" + tube + "=2&want=" + tube + "=1,PW6=4",
	} {
		ada.ok("GET", path, "", nil)
		status, text := eve.do("GET", path, "")
		assert.Equal(t, 422, status, path)
		assert.Contains(t, text, "no tube of your box")
	}
	held := fmt.Sprintf(`{"here":{"places":[{"name":"here","parts":["%s=2","PW6=1"]}]},"held":{"places":[{"name":"held","parts":["PB29=1"]}]},"oneValue":true}`, tube)
	var edges wire.EdgeToEdge
	ada.ok("POST", "/api/edge-to-edge", held, &edges)
	assert.Equal(t, "here", edges.Pairs[0].One.Name)
	status, text := eve.do("POST", "/api/edge-to-edge", held)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no tube of your box")
	for body, says := range map[string]string{
		`{"here":{"places":[]},"held":{"places":[{"name":"x","parts":["PB29=1"]}]}}`: "1 to 160 colours",
		`{"here":{"sitting":7},"held":{"places":[{"name":"x","parts":["PB29=1"]}]}}`: "",
	} {
		status, text := ada.do("POST", "/api/edge-to-edge", body)
		assert.GreaterOrEqual(t, status, 400)
		assert.Less(t, status, 500)
		assert.Contains(t, text, says)
	}
	var pair wire.Pair
	ada.ok("GET", "/api/pair?a=PB29&b=PR122&third=PY74", "", &pair)
	assert.Equal(t, len(path.TaintShares), len(pair.Taints))
	var c wire.Correction
	ada.ok("GET", "/api/correct?have=PY74=5,PB15:3=2&want=PY74=8,PB15:3=1", "", &c)
	assert.Equal(t, "PY74", c.Add[0].Paint)
	status, _ = ada.do("GET", "/api/correct?have=PY74=1&want=PY74=1,PY3=1,PY65=1,PB29=1,PB60=1,PR122=1,PR254=1", "")
	assert.Equal(t, 422, status, "at most six paints")
}

func TestAColourMayBeWantedAndReadAndQuietened(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60"]}`, nil)
	tube := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	for _, path := range []string{
		"/api/correct?have=PR254=2&colour=%23803060&with=" + tube + ",PW6",
		"/api/locate?a=PR254&b=" + tube + "&colour=40,20,-10",
		"/api/quieten?parts=PR254=2&with=" + tube,
		"/api/quieten?parts=PR254=2&neighbour=" + tube,
	} {
		ada.ok("GET", path, "", nil)
		status, text := eve.do("GET", path, "")
		assert.Equal(t, 422, status, path)
		assert.Contains(t, text, "no tube of your box")
	}
	for says, path := range map[string]string{
		"is no colour":           "/api/correct?have=PR254=2&colour=1,2&with=PW6",
		"at least one paint":     "/api/correct?have=PR254=2&colour=50,0,0",
		"name at least one":      "/api/correct?have=PR254=2",
		"no hue in this":         "/api/quieten?parts=PBk9=1",
		"no colour of a surface": "/api/locate?a=PR254&b=PB29&colour=300,0,0",
	} {
		status, text := ada.do("GET", path, "")
		assert.Equal(t, 422, status, path)
		assert.Contains(t, text, says, path)
	}
}
