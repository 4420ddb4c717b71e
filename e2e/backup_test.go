package e2e

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// savesABackup is what the page saves as a file.
func (v visitor) savesABackup(at string) []byte {
	v.t.Helper()
	v.MustNavigate(at + "/mine").MustWaitLoad()
	v.see("Carry it away")
	data := v.saves("save a backup")
	v.see("Saved as gyrophane-")
	require.Equal(v.t, "PK", string(data[:2]))
	return data
}

// bringsBack chooses a backup and takes it in.
func (v visitor) bringsBack(at string, data []byte) {
	v.t.Helper()
	v.MustNavigate(at + "/mine").MustWaitLoad()
	v.see("Bring it back")
	v.upload("choose a backup", fileOf(v.t, "backup.zip", data))
	v.see("A backup of ")
	v.press("take it in")
	v.see("It is taken in.")
}

// stands is what stands in the place that is open; empty where some of it is still coming.
func (v visitor) stands() string {
	return v.MustEval(`() => document.querySelector("main[aria-busy=false]")?.innerText.trim() ?? ""`).Str()
}

// everyPlace is what stands in each place of the house, where it has come to rest and nothing is still being looked at, or waits
// until it is what it was.
func (v visitor) everyPlace(was map[string]string) map[string]string {
	v.t.Helper()
	out := map[string]string{}
	// What comes last in each.
	for _, p := range [][2]string{
		{"Box", "Lean is measured"}, {"Wheel", "read off from here"}, {"System", "the whole library"}, {"Pairings", "follow the path"},
		{"Path", "hue and chroma"}, {"Bench", "0:10"}, {"Compare", "keep it"}, {"Log", "each of them"},
	} {
		place, last := p[0], p[1]
		v.goTo(place)
		alike := 0
		v.waitFor(place+" as it was", func() bool {
			now := v.stands()
			if alike++; now != out[place] || len(now) < 40 || !strings.Contains(now, last) || strings.Contains(now, "still being looked at") {
				alike = 0
			}
			out[place] = now
			return alike > 8 && (was == nil || now == was[place])
		})
	}
	return out
}

// All that is a painter's is saved, deleted and brought back: every place is as it was.
func TestAllThatIsMineIsCarriedAwayAndBroughtBack(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	demo := p.savesABackup(at)
	p.see("14 tubes, 4 wheels, 3 sittings")

	q := open(t, at)
	begin := func() {
		q.write("your name", "Wrack")
		q.press("begin")
		q.see("Three paints make a wheel")
	}
	begin()
	q.MustNavigate(at + "/mine").MustWaitLoad()
	q.upload("choose a backup", fileOf(t, "bad.zip", []byte("hello")))
	q.see("this is no whole backup")
	q.bringsBack(at, demo)
	before := q.everyPlace(nil)
	assert.Contains(t, before["Log"], "Starfish and anemone")
	data := q.savesABackup(at)

	// Once more it changes nothing.
	q.upload("choose a backup", fileOf(t, "again.zip", data))
	q.see("All that it holds is here already.")
	q.press("leave it")

	q.press("Wrack")
	q.element("[role=menuitem]", "delete all that is mine").MustClick()
	q.write("type Wrack", "Wrack")
	q.press("delete all of it")
	q.waitFor("the door", func() bool { return q.shows("look around") && !q.shows("Wrack") })
	begin()
	assert.Empty(t, q.all("[data-choice^='wheel: ']", "(e) => e.innerText"))
	q.bringsBack(at, data)
	q.everyPlace(before)
	assert.Empty(t, q.complaintsBut("422"), fmt.Sprint(len(data)))
}

// What waits on a device for a painter whose things were all deleted on another is put aside there, to be saved.
func TestWhatWaitsForADeletedPainterIsPutAside(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	desk := open(t, at)
	desk.write("your name", "Wrack")
	desk.press("begin")
	desk.see("Three paints make a wheel")
	cable := connect(t, at)
	tablet := open(t, cable.address)
	tablet.press("Wrack")
	tablet.see("Three paints make a wheel")
	tablet.ask(http.MethodPost, "/api/box/paints?medium=acrylic", map[string]any{"paints": []string{"PB29"}, "grade": "artist"})
	tablet.MustNavigate(cable.address + "/box").MustWaitLoad()
	tablet.waitFor("the tube", func() bool { return tablet.MustHas("[role=option][data-tube]") })
	tablet.strip("ultramarine")
	cable.cut(true)
	tablet.say("nickname", "low water")
	tablet.waitFor("it to wait", func() bool { return tablet.waitsHere() > 0 })

	desk.press("Wrack")
	desk.element("[role=menuitem]", "delete all that is mine").MustClick()
	desk.write("type Wrack", "Wrack")
	desk.press("delete all of it")
	desk.waitFor("the door", func() bool { return desk.shows("look around") && !desk.shows("Wrack") })
	cable.cut(false)
	tablet.see("All that was Wrack’s was deleted on another device")
	assert.Contains(t, string(tablet.saves("save as a file")), "low water")
	tablet.press("let go")
	tablet.waitFor("nothing to be left", func() bool { return tablet.waitsHere() == 0 && !tablet.shows("Wrack") })
}

// waitsHere is how many things the browser holds that wait to be sent.
func (v visitor) waitsHere() int {
	return v.MustEval(`() => Object.keys(localStorage).filter((k) => k.startsWith("gyrophane.outbox/")).length`).Int()
}
