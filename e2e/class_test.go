package e2e

import (
	"encoding/base64"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// inClass is a phone's page of a round.
func inClass(t *testing.T, address string) visitor {
	v := open(t, address)
	v.MustSetViewport(390, 844, 2, true)
	return v
}

// steps says a word by the stepper of a label, however far it is.
func (v visitor) steps(label, word string) {
	v.t.Helper()
	v.waitFor(word, func() bool {
		now := v.MustElement(`[role=spinbutton][aria-label="` + label + `"]`).MustText()
		if strings.TrimSpace(now) == word {
			return true
		}
		v.MustElement(`[aria-label="` + label + `: the next one"]`).MustClick()
		return false
	})
}

// expects says something of the pairing on the phone.
func (v visitor) expects(hue, drop string) {
	v.t.Helper()
	v.steps("which hue?", hue)
	v.steps("how bright?", drop)
	v.element("[role=checkbox]", "it never turns muddy").MustClick()
	v.press("that is what I expect")
	v.see("You can change it until the cover is lifted.")
}

// A teacher and three phones, one of them on another process, one that sleeps and comes back.
func TestAClassPredictsTogether(t *testing.T) {
	t.Parallel()
	database := demoDatabase(t)
	here, other := startApp(t, database).address, startApp(t, database).address
	teacher := open(t, here)
	teacher.asDemo()
	teacher.MustNavigate(here + "/wheel/1").MustWaitLoad()
	teacher.press("take it along")
	teacher.item("predict it with a class").MustClick()
	teacher.press("put it on the wall")
	teacher.see("3 pairings, each under its cover.")
	// The handouts carry its address.
	paper := teacher.another(here + "/bench/1/paper?edition=blank&class=10")
	paper.choose("round:", "to predict along")
	paper.waitFor("the sheet with its round", func() bool { return strings.Contains(paper.MustInfo().URL, "round=1") })
	link := teacher.MustEval(`() => fetch("/api/class/rounds/1").then((r) => r.json()).then((r) => r.token)`).Str()
	early := inClass(t, here+"/together#"+link)
	early.see("It has not begun yet")
	teacher.keys(input.PageDown)
	teacher.see("1 phone is in")
	early.see("1 of 3")
	code := teacher.MustElement(`[aria-label="code"]`).MustText()

	far := inClass(t, other+"/together")
	far.write("letters on the wall", "BBBBBB")
	far.keys(input.Enter)
	far.see("No class is asked anything here.")
	for range "BBBBBB" {
		far.keys(input.Backspace)
	}
	far.write("letters on the wall", strings.ToLower(code))
	far.press("come in")
	far.see("1 of 3")
	assert.Empty(t, far.MustEval(`() => document.cookie`).Str())
	sleeper := inClass(t, other+"/together#"+link)
	sleeper.see("1 of 3")
	teacher.see("0 of 3 have guessed")

	// One presses on the covered wheel itself.
	cell := early.MustElement(`[data-cell="orange clean"]`).MustEval(`() => { const r = this.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; }`).Arr()
	early.Mouse.MustMoveTo(cell[0].Num(), cell[1].Num()).MustClick(proto.InputMouseButtonLeft)
	early.waitFor("what was pressed", func() bool {
		return early.MustElement(`[role=spinbutton][aria-label="which hue?"]`).MustText() == "orange" && early.MustElement(`[role=spinbutton][aria-label="how bright?"]`).MustText() == "clean"
	})
	early.element("[role=checkbox]", "it never turns muddy").MustClick()
	early.press("that is what I expect")
	early.see("You can change it")
	far.expects("orange", "softened")
	sleeper.expects("red", "quiet")
	teacher.see("3 of 3 have guessed")
	assert.False(t, teacher.shows("It is "), "covered for all")
	sleeper.steps("which hue?", "red-orange")
	sleeper.press("say this instead")
	sleeper.see("It is in.")

	state := func(to proto.PageSetWebLifecycleStateState) {
		assert.NoError(t, proto.PageSetWebLifecycleState{State: to}.Call(sleeper.Page))
	}
	state(proto.PageSetWebLifecycleStateStateFrozen)

	// The teacher counts two hands for red-orange, with keys.
	teacher.keys('h')
	teacher.see("which hue?")
	teacher.keys(input.ArrowRight, '2')
	teacher.see("red-orange 2")
	teacher.keys(input.Escape)
	teacher.see("3 of 3 have guessed")
	teacher.keys(input.PageDown)
	for _, v := range []visitor{teacher, early, far} {
		v.see("It is ")
		v.waitFor("the tally", func() bool {
			return v.MustHas(`[data-said="orange 2"]`) && v.MustHas(`[data-said="red-orange 3"]`) && !v.MustHas(`[data-said^="red "]`)
		})
	}
	early.see("You said orange, clean, no mud")
	state(proto.PageSetWebLifecycleStateStateActive)
	sleeper.see("You said red-orange, quiet, no mud")
	assert.True(t, sleeper.MustHas(`[data-said="red-orange 3"]`))

	// Whoever opens the page anew is still in, and the guess is not counted twice.
	far.MustReload()
	far.see("You said orange, softened, no mud")
	teacher.keys(input.PageDown)
	for _, v := range []visitor{early, far, sleeper} {
		v.see("2 of 3")
	}
	teacher.see("0 of 3 have guessed")
	teacher.press("end the round")
	for _, v := range []visitor{early, far, sleeper} {
		v.see("No class is asked anything here.")
		v.waitFor("a phone that keeps nothing", func() bool {
			return v.MustEval(`() => Object.keys(localStorage).filter((k) => k.startsWith("gyrophane.together")).length`).Int() == 0
		})
	}
	for _, at := range []string{"#" + link, "#" + code, "#AAAAAAAAAAAAAAAAAAAAAAAAAA"} {
		late := inClass(t, other+"/together"+at)
		late.see("No class is asked anything here.")
		assert.Equal(t, far.text(), late.text(), at)
	}
	teacher.press("leave the wall")
	teacher.see("The eye of the class")
	teacher.see("1 of 3 covers lifted")
}

// A wheel before a class: its covers are lifted one by one, beside another, and a path is dragged along.
func TestAWheelOnTheWall(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	p.MustNavigate(at + "/wheel/1").MustWaitLoad()
	p.press("take it along")
	p.item("put it on the wall").MustClick()
	covers := func() int { return len(p.all(`[role=radio][aria-label$=", covered"]`, "(e) => e.id")) }
	p.waitFor("nine covers", func() bool { return covers() == 9 })
	p.keys(input.PageDown)
	p.waitFor("one lifted", func() bool { return covers() == 8 })
	p.keys(input.Space, input.PageDown)
	p.waitFor("three lifted", func() bool { return covers() == 6 })
	p.see("red-orange:")
	p.keys(input.PageUp)
	p.waitFor("one covered again", func() bool { return covers() == 7 })
	p.keys('p')
	along := p.MustElement(`[role=slider][aria-label^="along the path"]`)
	was := p.MustElement(`[role=slider]`).MustAttribute("aria-valuetext")
	along.MustEval(`() => this.focus()`)
	p.keys(input.ArrowLeft, input.ArrowLeft, input.ArrowLeft, input.ArrowLeft)
	p.waitFor("another place of the way", func() bool {
		now := p.MustElement(`[role=slider]`).MustAttribute("aria-valuetext")
		return now != nil && *now != *was
	})
	assert.Equal(t, 7, covers(), "arrows along the path lift nothing")
	p.press("beside it")
	p.item("Starfish and anemone").MustClick()
	p.waitFor("two wheels", func() bool { return covers() == 18 })
	p.keys('a')
	p.waitFor("all lifted", func() bool { return covers() == 0 })
	p.press("leave the wall")
	p.see("take it along")
}

// photographs are photos by the stand-in camera of so many sheets of a wheel, as files.
func (v visitor) photographs(wheel, n int) (paths []string) {
	v.t.Helper()
	taken := v.MustEval(`async (wheel, n) => {
		const post = async (path, body) => (await fetch(path, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) })).json();
		const { id } = await post("/api/wheels/" + wheel + "/sittings", {});
		const out = [];
		for (let seed = 1; seed <= n; seed++) {
			const photo = await post("/api/sittings/" + id + "/standin", { seed, strength: { "PB15:3": 2.5, "tube:PB15:3": 2.5 }, rendering: "plain" });
			const data = await (await fetch("/api/sittings/" + id + "/photos/" + photo.id)).arrayBuffer();
			out.push(btoa([...new Uint8Array(data)].map((b) => String.fromCharCode(b)).join("")));
		}
		return out;
	}`, wheel, n).Arr()
	for i, one := range taken {
		data, err := base64.StdEncoding.DecodeString(one.Str())
		require.NoError(v.t, err)
		paths = append(paths, filepath.Join(v.t.TempDir(), fmt.Sprintf("sheet-%d.jpg", i+1)))
		require.NoError(v.t, os.WriteFile(paths[i], data, 0o600))
	}
	return paths
}

// A class's painted sheets are read in one go, one that is no photo is told, and what one pupil painted is left out.
func TestWhatAClassPaintedIsRead(t *testing.T) {
	t.Parallel()
	at := startApp(t, demoDatabase(t)).address
	p := open(t, at)
	p.asDemo()
	photos := p.photographs(1, 3)
	nonsense := filepath.Join(t.TempDir(), "holiday.jpg")
	require.NoError(t, os.WriteFile(nonsense, []byte("no photo"), 0o600))
	p.MustNavigate(at + "/class/1").MustWaitLoad()
	p.press("read what they painted")
	p.see("Choose all photos at once")
	p.MustElement(`input[type=file][multiple]`).MustSetFiles(append(photos, nonsense)...)
	p.waitFor("three sheets", func() bool {
		return len(p.all(`[aria-label="sheets of the class"] > li`, "(e) => e.innerText")) == 3
	})
	p.see("holiday.jpg:")
	p.see("As a whole the class strayed")
	p.press("leave out")
	p.waitFor("two sheets", func() bool {
		return len(p.all(`[aria-label="sheets of the class"] > li`, "(e) => e.innerText")) == 2
	})
	p.press("to the class")
	p.see("2 read")
}
