package api_test

import (
	"encoding/csv"
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

func TestKeptSystemsAreComparedAndMatched(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var kept [2]api.KeptWheel
	for i := range kept {
		ada.ok("POST", "/api/wheels", newWheel, &kept[i])
	}
	both := fmt.Sprintf("?wheels=%d,%d", kept[0].ID, kept[1].ID)
	var c wire.Comparison
	ada.ok("GET", "/api/compare"+both, "", &c)
	require.Len(t, c.Systems, 2)
	assert.Equal(t, "Rock pool", c.Systems[0].Name)
	status, _ := eve.do("GET", "/api/compare"+both, "")
	assert.Equal(t, http.StatusNotFound, status, "another's systems")
	status, _ = ada.do("GET", "/api/compare?wheels=1,2,3,4,5", "")
	assert.Equal(t, 422, status)

	var wanted []api.WantedKept
	ada.ok("GET", "/api/wanted"+both, "", &wanted)
	assert.Empty(t, wanted)
	ada.ok("POST", "/api/wanted", `[{"name":"kelp","colour":"#6e6228"},{"name":"","colour":"52, 38, 20"}]`, nil)
	ada.ok("GET", "/api/wanted"+both, "", &wanted)
	require.Len(t, wanted, 2)
	assert.Len(t, wanted[0].Matches, 2)
	assert.NotEmpty(t, wanted[0].Matches[0].Recipe)
	for says, body := range map[string]string{
		"is no screen colour":  `[{"name":"odd","colour":"#xyz"}]`,
		"is no colour":         `[{"name":"ok","colour":"#000000"},{"name":"odd","colour":"1,2"}]`,
		"expected length >= 3": `[{"name":"none","colour":""}]`,
	} {
		status, text := ada.do("POST", "/api/wanted", body)
		assert.Equal(t, 422, status, body)
		assert.Contains(t, text, says)
	}
	status, _ = eve.do("DELETE", fmt.Sprintf("/api/wanted/%d", wanted[0].ID), "")
	assert.Equal(t, 404, status)
	ada.ok("DELETE", fmt.Sprintf("/api/wanted/%d", wanted[0].ID), "", nil)
	ada.ok("GET", "/api/wanted"+both, "", &wanted)
	assert.Len(t, wanted, 1)
}

func TestATubeOfAKeptSystemIsReplaced(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	var got []wire.Swapped
	ada.ok("POST", fmt.Sprintf("/api/replace?wheel=%d", w.ID), "", &got)
	assert.Empty(t, got, "an empty box has nothing to put there")
	ada.ok("POST", fmt.Sprintf("/api/replace?wheel=%d&from=library", w.ID), "", &got)
	assert.Len(t, got, 3)
	ada.ok("POST", fmt.Sprintf("/api/replace?wheel=%d&from=library&tried=PR254~PR255", w.ID), "", &got)
	assert.Contains(t, []string{got[0].In.ID, got[1].In.ID, got[2].In.ID}, "PR255")
	status, text := ada.do("POST", fmt.Sprintf("/api/replace?wheel=%d&tried=PR254~PX1", w.ID), "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "unknown paint")
	status, _ = ada.do("POST", fmt.Sprintf("/api/replace?wheel=%d&tried=PR254", w.ID), "")
	assert.Equal(t, 422, status)
	status, _ = eve.do("POST", fmt.Sprintf("/api/replace?wheel=%d", w.ID), "")
	assert.Equal(t, 404, status)
}

func TestTheBestSystemOfABoxIsChosen(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	status, text := ada.do("POST", "/api/choose?kind=triad", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "Your box is empty")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60","PB29","PR122","PR254","PY74","PY65","PW6"]}`, nil)
	var got wire.Chosen
	ada.ok("POST", "/api/choose?kind=triad", "", &got)
	assert.Contains(t, got.Best.Paints[0], "tube-")
	assert.NotEmpty(t, got.BuyNext)
	again := wire.Chosen{}
	ada.ok("POST", "/api/choose?kind=triad", "", &again)
	again.ElapsedMs = got.ElapsedMs
	assert.Equal(t, got, again, "what is remembered is what was worked out")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB15:3"]}`, nil)
	ada.ok("POST", "/api/choose?kind=triad", "", &again)
	assert.Greater(t, again.Best.CleanCoverage, got.Best.CleanCoverage, "with one more paint in the box")
	must := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	ada.ok("POST", "/api/choose?kind=triad&contains="+must, "", &got)
	assert.Contains(t, got.Best.Paints, must)
	ada.ok("POST", "/api/choose?kind=split&from=library", "", &got)
	assert.Len(t, got.Best.Paints, 6)
	status, _ = ada.do("POST", "/api/choose?kind=ring", "")
	assert.Equal(t, 422, status)
}

func TestComparisonsAreKeptNotedAndExported(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	var w api.KeptWheel
	ada.ok("POST", "/api/wheels", newWheel, &w)
	var kept []api.KeptComparison
	ada.ok("POST", "/api/comparisons", fmt.Sprintf(`{"address":"systems=%d","note":"","decision":"took it, because it is the only one"}`, w.ID), &kept)
	require.Len(t, kept, 1)
	at := fmt.Sprintf("/api/comparisons/%d", kept[0].ID)
	ada.ok("PUT", at, `{"note":"ferry","decision":"","version":1}`, &kept)
	assert.Equal(t, "ferry", kept[0].Note)
	status, text := ada.do("PUT", at, `{"note":"older","decision":"","version":1}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "changed elsewhere")
	status, _ = eve.do("DELETE", at, "")
	assert.Equal(t, 404, status)
	status, _ = eve.do("POST", "/api/comparisons", fmt.Sprintf(`{"address":"systems=%d","note":"","decision":""}`, w.ID))
	assert.Equal(t, 404, status, "another's wheel")
	eve.ok("GET", "/api/comparisons", "", &kept)
	assert.Empty(t, kept)
	ada.ok("DELETE", at, "", &kept)
	assert.Empty(t, kept)

	for format, has := range map[string]string{"svg": "<svg ", "csv": "clean_coverage"} {
		status, text, header := ada.send(ada.request("GET", fmt.Sprintf("/api/compare/export?wheels=%d&format=%s", w.ID, format), ""))
		assert.Equal(t, 200, status)
		assert.Contains(t, text, has)
		assert.Contains(t, header.Get("Content-Disposition"), "comparison."+format)
	}
	ada.ok("POST", "/api/wanted", `[{"name":"=kelp","colour":"#6e6228"}]`, nil)
	status, text, header := ada.send(ada.request("GET", fmt.Sprintf("/api/wanted/export?wheels=%d", w.ID), ""))
	assert.Equal(t, 200, status)
	assert.Contains(t, header.Get("Content-Disposition"), "recipes.csv")
	table, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	require.Len(t, table, 2)
	assert.Equal(t, "'=kelp", table[1][0], "no formula for a spreadsheet")
	assert.Equal(t, "Rock pool", table[1][4])
	assert.Contains(t, table[1][9], "Start with ")
	status, _ = eve.do("GET", fmt.Sprintf("/api/wanted/export?wheels=%d", w.ID), "")
	assert.Equal(t, 404, status)
	var rows []wire.WantedRow
	ada.ok("POST", "/api/files/wanted", "name,colour\nkelp,#6e6228\nodd,teal\n", &rows)
	require.Len(t, rows, 2)
	assert.NotEmpty(t, rows[1].Problem)
	status, text = ada.do("POST", "/api/files/wanted", "a,b\n1,2\n")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "names no colours")
}

func TestASearchIsAskedHowFarItIsAndEnded(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PY184","PR254","PB29"]}`, nil)
	ada.ok("POST", "/api/wanted", `[{"name":"a","colour":"#f0662b"},{"name":"b","colour":"#4f3d78"},{"name":"c","colour":"#569c2e"},{"name":"d","colour":"#c8203c"},{"name":"e","colour":"#00a6b0"},{"name":"f","colour":"#6e6228"}]`, nil)
	type answer struct {
		status int
		text   string
	}
	ended := make(chan answer)
	go func() {
		status, text := ada.do("POST", "/api/choose?kind=split&aim=targets&from=library&ticket=one", "")
		ended <- answer{status, text}
	}()
	var far api.SearchProgress
	require.Eventually(t, func() bool {
		ada.ok("GET", "/api/searches/one", "", &far)
		return far.Stage != "queue" && far.Done > 0
	}, 20*time.Second, 20*time.Millisecond)
	assert.Greater(t, far.Of, far.Done)
	eve.ok("GET", "/api/searches/one", "", &far)
	assert.Zero(t, far.Of, "another's search is nobody else's to see")
	eve.ok("DELETE", "/api/searches/one", "", nil)
	ada.ok("GET", "/api/searches/one", "", &far)
	assert.Positive(t, far.Of, "or to end")
	ada.ok("DELETE", "/api/searches/one", "", nil)
	got := <-ended
	assert.Equal(t, 409, got.status)
	assert.Contains(t, got.text, "left before it was done")
	ada.ok("GET", "/api/searches/one", "", &far)
	assert.Empty(t, far.Stage, "nothing is looked for")
	ada.ok("POST", "/api/choose?kind=triad&ticket=one", "", nil)
}
