package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/core/paint"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/wire"
)

func (c *client) box() (b api.Box) {
	c.t.Helper()
	c.ok("GET", "/api/box", "", &b)
	return b
}

func (c *client) tube(name string) api.KeptTube {
	c.t.Helper()
	b := c.box()
	for _, t := range append(b.Tubes, b.Archived...) {
		if t.Paint.CI == name || t.Content.Nickname == name || t.Paint.Name == name {
			return t
		}
	}
	require.Fail(c.t, "no tube "+name)
	return api.KeptTube{}
}

// saying is a save of a tube with its content changed.
func saying(t api.KeptTube, change func(*wire.TubeContent)) string {
	change(&t.Content)
	content, _ := json.Marshal(t.Content) //nolint:errcheck // plain values
	return fmt.Sprintf(`{"version":%d,%s`, t.Version, content[1:])
}

func at(t api.KeptTube) string { return fmt.Sprintf("/api/box/paints/%d", t.ID) }

func TestAnEmptyBoxOffersThreeSetsAndFills(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	b := ada.box()
	assert.Empty(t, b.Tubes)
	assert.Nil(t, b.Undo)
	require.Len(t, b.Sets, 3)
	add, err := json.Marshal(map[string]any{"paints": b.Sets[0].Paints})
	require.NoError(t, err)
	ada.ok("POST", "/api/box/paints", string(add), &b)
	assert.Len(t, b.Tubes, len(b.Sets[0].Paints))
	assert.Equal(t, "added 7 paints", b.Undo.Summary)
	assert.Equal(t, "PY184", b.Tubes[0].Paint.CI, "in hue order")
	assert.NotEmpty(t, b.Arcs)
	ada.ok("POST", "/api/box/undo", fmt.Sprintf(`{"change":%d}`, b.Undo.Change), &b)
	assert.Empty(t, b.Tubes, "undone as one")
	status, text := ada.do("POST", "/api/box/paints", `{"paints":["PB29","PX1"]}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "PX1")
	assert.Empty(t, ada.box().Tubes, "all or none")
}

func TestATubeIsRenamedGradedArchivedAndRestored(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29","PB15:3"]}`, nil)
	blue := ada.tube("PB29")
	assert.Equal(t, "warm", blue.Paint.Temperature)
	assert.Equal(t, "the more violet of your two blues", blue.Paint.Relative)

	ada.ok("PUT", at(blue), saying(blue, func(c *wire.TubeContent) { c.Nickname, c.Grade = "  night  ", "student" }), nil)
	blue = ada.tube("night")
	assert.Equal(t, paint.Student.Strength(3), blue.Paint.G)
	assert.Equal(t, "renamed ultramarine blue", ada.box().Undo.Summary)

	ada.ok("PUT", at(blue), saying(blue, func(c *wire.TubeContent) { c.Archived = true }), nil)
	assert.Len(t, ada.box().Archived, 1)
	assert.Empty(t, ada.tube("PB15:3").Paint.Relative, "archived paints are not compared with")
	blue = ada.tube("night")
	ada.ok("PUT", at(blue), saying(blue, func(c *wire.TubeContent) { c.Archived = false }), nil)
	assert.Len(t, ada.box().Tubes, 2)

	ada.ok("PUT", "/api/session/school", `{"warmBlue":"green"}`, nil)
	var profile api.Profile
	ada.ok("PUT", "/api/session/box-age", `{"old":true}`, &profile)
	assert.True(t, profile.OldBox)
	assert.Equal(t, "cool", ada.tube("night").Paint.Temperature)

	for says, change := range map[string]func(*wire.TubeContent){
		"tube of -1 ml":   func(c *wire.TubeContent) { v := -1.0; c.TubeML = &v },
		"price of 20000":  func(c *wire.TubeContent) { v := 20000.0; c.Price = &v },
		"cannot be shown": func(c *wire.TubeContent) { c.Nickname = "a\u0000b" },
	} {
		blue = ada.tube("night")
		status, text := ada.do("PUT", at(blue), saying(blue, change))
		assert.Equal(t, 422, status, says)
		assert.Contains(t, text, says)
	}
}

func TestALateSaveOfATubeIsKeptBeside(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	was := ada.tube("PB29")
	ada.ok("PUT", at(was), saying(was, func(c *wire.TubeContent) { c.Nickname = "first" }), nil)
	status, text := ada.do("PUT", at(was), saying(was, func(c *wire.TubeContent) { c.Nickname = "second" }))
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "Both versions are kept")
	now := ada.tube("first")
	require.Len(t, now.Refused, 1)
	assert.Equal(t, "second", now.Refused[0].Content.Nickname)
	ada.ok("DELETE", fmt.Sprintf("%s/refused/%d", at(now), now.Refused[0].ID), "", nil)
	assert.Empty(t, ada.tube("first").Refused)
}

func TestNobodySeesAnothersBox(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29","PR122"]}`, nil)
	blue, red := ada.tube("PB29"), ada.tube("PR122")
	assert.Empty(t, eve.box().Tubes)
	for path, method := range map[string]string{
		fmt.Sprintf("/api/box/beside?a=%d&b=%d", blue.ID, red.ID): "GET",
		at(blue):                "PUT",
		at(blue) + "/refused/1": "DELETE",
	} {
		status, _ := eve.do(method, path, saying(blue, func(*wire.TubeContent) {}))
		assert.Equal(t, 404, status, path)
	}
	nobody := &client{t: t, app: app}
	for _, path := range []string{"/api/box", "/api/box/export?format=csv"} {
		status, _ := nobody.do("GET", path, "")
		assert.Equal(t, 401, status, path)
	}
	for _, path := range []string{"/api/files/box", "/api/files/photo?paper=0,0,0.1", "/api/files/spectra", "/api/meter/readings", "/api/own", "/api/own/preview"} {
		status, _ := nobody.do("POST", path, "{}")
		assert.Equal(t, 401, status, path)
	}
}

func TestTwoPaintsAreHeldSideBySide(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29","PB15:3"]}`, nil)
	var b wire.Beside
	ada.ok("GET", fmt.Sprintf("/api/box/beside?a=%d&b=%d", ada.tube("PB29").ID, ada.tube("PB15:3").ID), "", &b)
	assert.Contains(t, strings.Join(b.Differences, " "), "nearer to green")
}

// file sends bytes to a place for files.
func (c *client) file(path string, data []byte, into any) (int, string) {
	c.t.Helper()
	r := c.request("POST", "/api/files/"+path, string(data))
	r.Header.Set("Content-Type", "application/octet-stream")
	status, text, _ := c.send(r)
	if into != nil {
		require.Less(c.t, status, 300, text)
		require.NoError(c.t, json.Unmarshal([]byte(text), into))
	}
	return status, text
}

func TestABoxIsBroughtInWholeOrNotAtAll(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB29"]}`, nil)
	file := []byte("paint,grade\nPB29,artist\nPX1,artist\nPR122,student\n")
	var look wire.Import
	ada.file("box", file, &look)
	require.Len(t, look.Rows, 3)
	assert.Equal(t, "added", look.Rows[0].Happens)
	assert.Contains(t, look.Rows[0].Remark, "already")
	assert.Equal(t, "refused", look.Rows[1].Happens)
	assert.Equal(t, "line 3", look.Rows[1].Where)
	assert.Zero(t, look.Kept)
	assert.Len(t, ada.box().Tubes, 1, "a preview keeps nothing")

	status, text := ada.file("box?keep=true", file, nil)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "Nothing was added: 1 row is wrong; mend it in the file, or leave out what is wrong.")
	assert.Len(t, ada.box().Tubes, 1)

	ada.file("box?keep=true&leaveOut=0,1", file, &look)
	assert.Equal(t, 1, look.Kept)
	assert.Len(t, ada.box().Tubes, 2)
	assert.Equal(t, "brought in 1 paint from a file", ada.box().Undo.Summary)
	status, _ = ada.file("box?keep=true&leaveOut=0,1,2", file, nil)
	assert.Equal(t, 422, status)
}

func TestABoxMovesFromPainterToPainter(t *testing.T) {
	app, _ := server(t, true)
	demo := &client{t: t, app: app}
	var painters []api.Profile
	demo.ok("GET", "/api/painters", "", &painters)
	demo.ok("POST", "/api/session", fmt.Sprintf(`{"painter":%d}`, painters[0].ID), nil)
	want := demo.box()
	require.Len(t, want.Tubes, 14)
	for _, format := range []string{"csv", "json"} {
		eve := signedUp(t, app, "Eve "+format)
		status, text, header := demo.send(demo.request("GET", "/api/box/export?format="+format, ""))
		require.Equal(t, 200, status)
		assert.Contains(t, header.Get("Content-Disposition"), "box."+format)
		eve.file("box?keep=true", []byte(text), nil)
		got := eve.box()
		require.Len(t, got.Tubes, 14, format)
		for i := range want.Tubes {
			assert.Equal(t, want.Tubes[i].Paint.Masstone, got.Tubes[i].Paint.Masstone, format)
			assert.Equal(t, want.Tubes[i].Content, got.Tubes[i].Content, format)
			assert.Equal(t, want.Tubes[i].Paint.Made, got.Tubes[i].Paint.Made, format)
		}
	}
	for format, begins := range map[string]string{"gpl": "GIMP Palette", "cgats": "CGATS.17"} {
		status, text := demo.do("GET", "/api/box/export?format="+format, "")
		assert.Equal(t, 200, status)
		assert.True(t, strings.HasPrefix(text, begins), format)
	}
}

const likeBlue = `{"kind":"adjusted","paint":"PB29","factor":2,"shift":5}`

func TestAnOwnPaintIsPreviewedThenKept(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	var p api.Preview
	ada.ok("POST", "/api/own/preview", `{"origin":`+likeBlue+`}`, &p)
	assert.Equal(t, "adjusted", p.Paint.Made)
	assert.Empty(t, ada.box().Tubes)
	status, text := ada.do("POST", "/api/own", `{"name":" ","origin":`+likeBlue+`}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "name")
	ada.ok("POST", "/api/own", `{"name":"harbour blue","origin":`+likeBlue+`}`, nil)
	kept := ada.tube("harbour blue")
	assert.Equal(t, p.Paint.Masstone, kept.Paint.Masstone)
	assert.Equal(t, "PB29", kept.Definition.Origin.Paint, "the story of its making is kept")
	status, text = ada.do("POST", "/api/own/preview", `{"origin":{"kind":"label","pigments":[]}}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "at least one pigment")
	var codes []wire.LabelCode
	ada.ok("GET", "/api/label?text=PBr7", "", &codes)
	assert.Len(t, codes[0].Choices, 4)
}

func TestPhotoAndSpectraAreRead(t *testing.T) {
	app, _ := server(t, true)
	ada := signedUp(t, app, "Ada")
	m := image.NewNRGBA(image.Rect(0, 0, 90, 30))
	for x := range 90 {
		for y := range 30 {
			m.Set(x, y, []color.NRGBA{{200, 200, 190, 255}, {40, 60, 120, 255}, {120, 140, 180, 255}}[x/30])
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, m))
	var picked map[string]wire.Measured
	ada.file("photo?paper=0.15,0.5,0.05&mass=0.5,0.5,0.05&tint=0.85,0.5,0.05", b.Bytes(), &picked)
	assert.EqualValues(t, "photo", picked["mass"].Reading.Source)
	assert.Greater(t, picked["tint"].Reading.Lab[0], picked["mass"].Reading.Lab[0])
	status, text := ada.file("photo?paper=nowhere", b.Bytes(), nil)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "bare paper")
	status, text = ada.file("photo?paper=0,0,0.1", make([]byte, files.MostPhotoBytes+1), nil)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "larger than 20 MB")
	status, _ = ada.file("spectra", make([]byte, 3<<20), nil)
	assert.Equal(t, 413, status)

	file, err := files.LibraryFile("cgats")
	require.NoError(t, err)
	var samples wire.Samples
	ada.file("spectra", file, &samples)
	assert.Len(t, samples.Samples, 144)
}

func TestTheMeterIsReadOrSaidNotToBeThere(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	device := &devices.StandInMeter{Swatch: paint.ParseSwatch, Seed: 3}
	go device.Serve(l) //nolint:errcheck // ends with the listener
	app, _ := serverWith(t, api.Options{Listener: api.Loopback, Meter: l.Addr().String()})
	ada := signedUp(t, app, "Ada")
	var got struct {
		Reading wire.Reading `json:"reading"`
		Colour  wire.Colour  `json:"colour"`
	}
	ada.ok("POST", "/api/meter/readings", `{"swatch":"PB29=1 PW6=9","medium":"oil","judged":"wet"}`, &got)
	assert.Len(t, got.Reading.Spectrum, 36)
	assert.EqualValues(t, "instrument", got.Reading.Source)
	assert.InDelta(t, 56.7, got.Colour.Lab[0], 3)
	status, text := ada.do("POST", "/api/meter/readings", `{"swatch":"PX1=1","medium":"oil","judged":"wet"}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "PX1")
	l.Close()
	gone, _ := serverWith(t, api.Options{Listener: api.Loopback, Meter: "127.0.0.1:1"})
	eve := signedUp(t, gone, "Eve")
	status, text = eve.do("POST", "/api/meter/readings", `{"swatch":"PB29=1","medium":"oil","judged":"wet"}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "not connected")
}
