package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image/png"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// camera reads a picture of a code on the page, as a phone does.
func (v visitor) camera(title string) string {
	v.t.Helper()
	taken, err := v.MustElementX(fmt.Sprintf(`//*[local-name()="svg"][*[local-name()="title"][contains(., %q)]]/..`, title)).Screenshot(proto.PageCaptureScreenshotFormatPng, 0)
	require.NoError(v.t, err)
	picture, err := png.Decode(bytes.NewReader(taken))
	require.NoError(v.t, err)
	bitmap, err := gozxing.NewBinaryBitmapFromImage(picture)
	require.NoError(v.t, err)
	read, err := qrcode.NewQRCodeReader().Decode(bitmap, nil)
	require.NoError(v.t, err)
	return read.GetText()
}

// byName is an address at home by the name of this machine: a browser takes a loopback address for as
// good as TLS, and a name of the house not.
func byName(t *testing.T, address string) string {
	t.Helper()
	host, err := os.Hostname()
	require.NoError(t, err)
	host, _, _ = strings.Cut(strings.ToLower(host), ".")
	return strings.Replace(address, "127.0.0.2", host+".local", 1)
}

// holding shows an address on a phone.
func holding(t *testing.T, address string) visitor {
	t.Helper()
	p := show(t, browser(t).MustIncognito(), address)
	p.MustSetViewport(390, 844, 1, true)
	return p
}

func (v visitor) path() string { return v.MustEval(`() => location.pathname`).Str() }

// asksForAPhone opens at the desk what lets a phone in, and reads the picture.
func (v visitor) asksForAPhone() string {
	v.t.Helper()
	v.choose("painter", "open this on my phone")
	v.press("yes, show a code")
	v.see("Good once")
	return v.camera("for the phone’s camera")
}

func TestAPhoneOpensWhatStandsOnTheDesk(t *testing.T) {
	t.Parallel()
	desk := open(t, startAppWith(t, demoDatabase(t), "--lan=127.0.0.2").address)
	desk.asDemo()
	desk.element("header a", "go on").MustClick()
	desk.see("Paused")
	sitting := desk.path()
	address := desk.asksForAPhone()
	at, err := url.Parse(address)
	require.NoError(t, err)
	assert.Equal(t, "127.0.0.2", at.Hostname())
	assert.Equal(t, "/come-in", at.Path, "the code is in the fragment, which no server is told")
	code, to, _ := strings.Cut(at.Fragment, "/")
	assert.GreaterOrEqual(t, len(code), 26, "128 bits")
	assert.Equal(t, sitting, "/"+to)

	preview := holding(t, byName(t, address))
	preview.see("This device enters the studio of")
	phone := holding(t, byName(t, address))
	phone.see("This device enters the studio of")
	assert.False(t, phone.MustEval(`() => isSecureContext`).Bool(), "over plain HTTP")
	assert.True(t, desk.shows("Good once"), "looking does not spend it")
	phone.press("come in")
	phone.see("Waiting for the desk")
	desk.see("would like to come in")
	check := phone.MustElement("[role=status]").MustText()
	number := strings.Fields(desk.MustElement("main [role=status]").MustText())
	assert.Contains(t, check, number[len(number)-4], "both show one number")
	preview.press("come in")
	preview.see("has been used already")
	desk.press("let it in")
	desk.see("It is in")
	phone.waitFor("the sitting", func() bool { return phone.path() == sitting })

	// Two hands, as at one table.
	phone.see("Paused")
	phone.press("go on painting")
	phone.see("another slot")
	desk.MustNavigateBack()
	desk.waitFor("it goes on at the desk too", func() bool { return desk.shows("another slot") })

	desk.choose("painter", "where I am signed in")
	desk.see("over the network at home")
	desk.element("[role=dialog] button", "sign out").MustClick()
	desk.waitFor("it is gone", func() bool { return !desk.shows("over the network at home") })
	phone.MustReload()
	phone.see("Without a passphrase")
	assert.False(t, phone.shows("With your own tubes"), "nobody begins there")
	assert.Empty(t, desk.complaints())
}

func TestAPhoneIsSentAway(t *testing.T) {
	t.Parallel()
	desk := open(t, startAppWith(t, demoDatabase(t), "--lan=127.0.0.2", "--tls-self="+filepath.Join(t.TempDir(), "authority")).address)
	desk.asDemo()
	address := desk.asksForAPhone()
	assert.True(t, strings.HasPrefix(address, "https://127.0.0.2:"), address)
	assert.True(t, strings.HasSuffix(desk.camera("where the certificate is"), ".crt"))
	desk.isOpen("/phone, with a code")
	assert.Regexp(t, `([0-9A-F]{2}:){31}[0-9A-F]{2}`, desk.text(), "its fingerprint, to compare")

	phone := show(t, browser(t).MustIncognito().MustIgnoreCertErrors(true), address)
	phone.see("This device enters the studio of")
	phone.isOpen("/come-in")
	phone.MustSetViewport(390, 844, 1, true)
	assert.Empty(t, phone.smallTexts())
	assert.Empty(t, phone.smallTargets(48))
	phone.press("come in")
	desk.see("would like to come in")
	desk.isOpen("/phone, when one asks")
	desk.press("send it away")
	desk.see("It was sent away")
	phone.see("did not let this device in")
	phone.press("come in by name")
	phone.see("Without a passphrase")
}

func TestWithoutAHomeThePageSaysHowToBegin(t *testing.T) {
	t.Parallel()
	p := open(t, startApp(t, demoDatabase(t)).address)
	p.asDemo()
	p.choose("painter", "open this on my phone")
	p.see("gyrophane serve --lan")
	assert.Empty(t, p.complaints())
}

// When the machine has got another address, what waits on the phone comes home as a file.
func TestWhatWaitedOnAPhoneIsTakenInAtTheDesk(t *testing.T) {
	t.Parallel()
	database := demoDatabase(t)
	first := startAppWith(t, database, "--lan=127.0.0.2")
	desk := open(t, first.address)
	desk.asDemo()
	desk.element("header a", "go on").MustClick()
	desk.see("Paused")
	phone := holding(t, byName(t, desk.asksForAPhone()))
	phone.press("come in")
	desk.press("let it in")
	desk.see("It is in")
	phone.press("go on painting")
	phone.see("another slot")
	first.stop()
	phone.press("painted")
	phone.waitFor("it offers to save", func() bool { return phone.shows("as a file") })
	phone.MustEval(`() => {
		const make = URL.createObjectURL;
		URL.createObjectURL = (file) => {
			void file.text().then((text) => (window.saved = text));
			return make(file);
		};
	}`)
	phone.element("button", "as a file").MustClick()
	phone.waitFor("the file", func() bool { return phone.MustEval(`() => !!window.saved`).Bool() })
	saved := phone.MustEval(`() => window.saved`).Str()
	var file struct {
		Painter struct{ Name string }
		Lines   map[string]struct{ Waiting []struct{ Says string } }
	}
	require.NoError(t, json.Unmarshal([]byte(saved), &file))
	assert.Equal(t, "Tide-pool studio", file.Painter.Name)
	require.Len(t, file.Lines, 1)

	second := startApp(t, database)
	again := open(t, second.address)
	again.asDemo()
	painted := again.MustElement(`header a[href^="/bench/sitting/"]`).MustText()
	again.MustNavigate(second.address + "/phone").MustWaitLoad()
	give := func(text string) {
		path := filepath.Join(t.TempDir(), "gyrophane-waiting.json")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		again.upload("take in what waited", path)
	}
	for _, c := range []struct{ text, says string }{
		{"no file", "no file of what waited"},
		{"[]", "no file of what waited"},
		{"{}", "no file of what waited"},
		{strings.Replace(saved, `"lines"`, `"other"`, 1), "not whole"},
		{strings.Replace(saved, `"id": 1`, `"id": 7`, 1), "in another studio"},
		{strings.Replace(saved, `"since": "2`, `"since": "1`, 1), "in another studio"},
		{strings.Replace(saved, `"sitting/`, `"secret/`, 1), "not whole"},
		{strings.Replace(saved, `"says": `, `"says": 7, "said": `, 1), "not whole"},
		{strings.Replace(saved, `"waiting": [`, `"waiting": [null, `, 1), "not whole"},
		{saved + strings.Repeat(" ", 2_000_000), "too large"},
	} {
		give(c.text)
		again.waitFor(c.says, func() bool {
			return again.MustHas("main [role=alert]") && strings.Contains(again.MustElement("main [role=alert]").MustText(), c.says)
		})
	}
	give(saved)
	again.see("1 thing was taken in")
	again.waitFor("it is painted", func() bool {
		return again.MustElement(`header a[href^="/bench/sitting/"]`).MustText() != painted
	})
}
