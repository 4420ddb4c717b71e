package api_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/exchange"
)

func TestPairingsOfASystemAndOfABox(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var got exchange.Pairings
	ada.ok("POST", "/api/pairings?spacing=contrast", `{"system":`+aSystem+`}`, &got)
	assert.Len(t, got.Pairs, 3)
	assert.Equal(t, "contrast", got.Spacing)

	ada.ok("POST", "/api/box/paints", `{"paints":["PB60","PR122","PY74"]}`, nil)
	ada.ok("GET", "/api/box/pairings", "", &got)
	assert.Len(t, got.Pairs, 3)
	assert.Contains(t, got.Paints[0].ID, "tube-")
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
