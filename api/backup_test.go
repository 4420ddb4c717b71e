package api_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/wire"
)

// sends a backup piece by piece.
func (c *client) sends(data string) {
	c.t.Helper()
	for at := 0; at < len(data); at += store.PieceBytes {
		var got struct{ Have int }
		end := min(at+store.PieceBytes, len(data))
		c.file(fmt.Sprintf("backup?at=%d&bytes=%d", at, len(data)), []byte(data[at:end]), &got)
		require.Equal(c.t, end, got.Have)
	}
}

// restores looks at the backup that was sent, or takes it in, and waits for what becomes of it.
func (c *client) restores(keep bool) (out wire.Restoring) {
	c.t.Helper()
	c.ok("POST", "/api/mine/restoring", fmt.Sprintf(`{"keep":%v}`, keep), &out)
	for out.State == "under way" {
		time.Sleep(10 * time.Millisecond)
		c.ok("GET", "/api/mine/restoring", "", &out)
	}
	return out
}

func TestABackupIsTakenInByAnotherPainter(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	aWheelOfTubes(ada)
	var hers, mine wire.Belongings
	ada.ok("GET", "/api/mine", "", &hers)
	assert.Positive(t, hers.Readings)
	status, file, head := ada.send(ada.request("GET", "/api/mine/backup", ""))
	require.Equal(t, 200, status)
	assert.Equal(t, "application/zip", head.Get("Content-Type"))
	assert.Contains(t, head.Get("Content-Disposition"), "gyrophane-Ada-")

	assert.Equal(t, "none", state(eve))
	eve.sends(file)
	seen := eve.restores(false)
	require.Equal(t, "looked at", seen.State, seen.Problem)
	assert.Equal(t, "Ada", seen.Made)
	eve.ok("GET", "/api/mine", "", &mine)
	assert.Zero(t, mine.Tubes, "it was only looked at")
	assert.Equal(t, "none", state(ada), "nobody else's is told of")
	kept := eve.restores(true)
	require.Equal(t, "taken in", kept.State, kept.Problem)
	assert.Equal(t, seen.Kinds, kept.Kinds)
	eve.ok("GET", "/api/mine", "", &mine)
	mine.Backup, mine.Bytes = hers.Backup, hers.Bytes
	assert.Equal(t, hers, mine)
	assert.Equal(t, strengths(ada), strengths(eve))

	status, text := eve.do("POST", "/api/mine/restoring", `{"keep":true}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "not here", "it went when it was taken in")

	// What is no backup is refused, and one that is left goes.
	eve.sends("hello")
	no := eve.restores(true)
	assert.Equal(t, "refused", no.State)
	assert.Contains(t, no.Problem, "no whole backup")
	eve.sends(file)
	eve.ok("DELETE", "/api/mine/restoring", "", nil)
	assert.Equal(t, "none", state(eve))
	status, _ = eve.do("POST", "/api/mine/restoring", `{"keep":false}`)
	assert.Equal(t, 422, status)
	for query, says := range map[string]string{"backup?at=0&bytes=99999999999": "is the most", "backup?at=7&bytes=70": "none of the file", "backup?at=0": "bytes"} {
		status, text := eve.file(query, []byte("x"), nil)
		assert.Equal(t, 422, status, query)
		assert.Contains(t, text, says, query)
	}
	status, _ = eve.file("backup?at=0&bytes=5000000", []byte(strings.Repeat("x", 5_000_000)), nil)
	assert.Equal(t, 413, status)
}

func state(c *client) string {
	c.t.Helper()
	var out wire.Restoring
	c.ok("GET", "/api/mine/restoring", "", &out)
	return out.State
}
