package studio

import (
	"fmt"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/core/wheel"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/store"
)

// What the made-up studio does not know of its tubes: their strengths over those that
// they are said to have.
var demoStrengths = map[string]float64{"PB29": 2}

// demoSitting is one of the sittings of the made-up studio.
type demoSitting struct {
	wheel    string
	ago      time.Duration
	neutral  bool // its neutral circles are painted too
	painted  int  // places; 0 for all, which are then read
	seed     uint64
	notes    []string
	nextTime string
	// expected is what was said of slots before, and trace what got into which place.
	expected []journal.SlotGuess
	trace    string // PLACE=PAINT
	wet      bool   // it was read wet too
}

const (
	demoDay   = 24 * time.Hour
	demoTrace = 0.03
	demoPhoto = -1 // what its readings are of, before it is kept
)

var demoHeld = []demoSitting{
	{wheel: "Starfish and anemone", ago: 47 * demoDay, seed: 7, notes: []string{"The first one. Greens like kelp, not like sea lettuce."}, nextTime: "More water under the violets. A greener blue for the sea lettuce."},
	{
		wheel: "Six from the harbour", ago: 9 * demoDay, neutral: true, seed: 11, notes: []string{"Violets darker than the plan: the mussel again."},
		nextTime: "Rinse before the greens. Less ultramarine.",
		expected: []journal.SlotGuess{
			{Home: 1, HueWord: "yellow-orange", Verdict: "clean"}, {Home: 2, HueWord: "orange", Verdict: "clean"}, {Home: 3, HueWord: "red-orange", Verdict: "clean"},
			{Home: 5, HueWord: "red-violet", Verdict: "softened"}, {Home: 6, HueWord: "violet", Verdict: "clean"}, {Home: 7, HueWord: "blue-violet", Verdict: "clean"},
			{Home: 9, HueWord: "blue-green", Verdict: "clean"}, {Home: 10, HueWord: "green", Verdict: "softened"}, {Home: 11, HueWord: "yellow-green", Verdict: "clean"},
		},
		trace: "green=PR255", wet: true,
	},
	{wheel: "Six from the harbour", ago: 50 * time.Minute, painted: 7, notes: []string{"The turquoise of the shallow water wants this blue-green."}},
}

// demoSittings are the sittings of the made-up studio: two that have ended, read from
// photos of the stand-in camera, and one that is under way and rests.
func demoSittings() (out []store.DemoSitting, err error) {
	for _, d := range demoHeld {
		plan, system, err := demoPlan(d.wheel, d.neutral)
		if err != nil {
			return nil, err
		}
		frozen, err := freeze(plan, ofLibrary)
		if err != nil {
			return nil, err
		}
		one := store.DemoSitting{Wheel: d.wheel, Ago: d.ago, Sitting: store.Sitting{Plan: frozen, Ended: d.painted == 0, NextTime: d.nextTime}, Events: held(plan, d.painted, d.notes)}
		if d.painted == 0 {
			if err := d.read(plan, &one); err != nil {
				return nil, err
			}
		}
		outcomes, err := journal.ScoreSlots(system, wheel.UsualChoices(), d.expected, certainty.Usual)
		if err != nil {
			return nil, err
		}
		for i, g := range d.expected {
			one.Predictions = append(one.Predictions, store.Prediction{Home: g.Home, HueWord: g.HueWord, Verdict: g.Verdict, Outcome: outcomes[i]})
		}
		out = append(out, one)
	}
	return out, nil
}

// demoPlan is how one of the demo wheels is painted in gouache, and its system.
func demoPlan(named string, neutral bool) (*bench.Plan, wheel.System, error) {
	for _, w := range demoWheels() {
		if w.Name != named {
			continue
		}
		in, err := paint.ParseMedium("gouache")
		if err != nil {
			return nil, wheel.System{}, err
		}
		system, err := w.Snapshot.System.System(paint.Find)
		if err != nil {
			return nil, system, err
		}
		options, err := w.Settings.Choices.Options(in)
		if err != nil {
			return nil, system, err
		}
		set := bench.Usual(in)
		sheet := bench.Wheel(wheel.Build(system, options), bench.Extras{Neutral: neutral}, set)
		plan, err := bench.New(&sheet, set)
		return plan, system, err
	}
	return nil, wheel.System{}, fmt.Errorf("there is no demo wheel %q", named)
}

// held are the events of a sitting that keeps to its plan: so many places painted and
// then a rest or, with 0, all and then its end. What was noted comes last.
func held(plan *bench.Plan, painted int, notes []string) (out []store.SittingEvent) {
	tell := func(minutes float64, e bench.Event) {
		n := len(out) + 1
		e.ID = fmt.Sprintf("demo-%03d", n)
		out = append(out, store.SittingEvent{EventID: e.ID, At: time.Time{}.Add(time.Duration(minutes * float64(time.Minute))), Device: "demo", Number: int64(n), Revision: int64(n - 1), Event: e})
	}
	note := func(after float64) {
		for _, text := range notes {
			tell(after+0.5, bench.Event{Kind: bench.Noted, Text: text})
		}
	}
	id := func(i int) string { return plan.Sheet.Regions[i].ID }
	tell(0, bench.Event{Kind: bench.Begun})
	tell(0, bench.Event{Kind: bench.LaidOut})
	done, now := 0, 0.0
	for _, a := range plan.Actions {
		now = a.End
		switch a.Kind {
		case bench.Mix:
			tell(now, bench.Event{Kind: bench.Mixed, Region: id(a.Region), Well: a.Well})
		case bench.Wash:
			tell(now, bench.Event{Kind: bench.Washed, Brush: a.Brush, Thorough: a.Thorough})
		case bench.Rinse:
			tell(now, bench.Event{Kind: bench.Rinsed, Well: a.Well})
		case bench.Water:
			tell(now, bench.Event{Kind: bench.WaterChanged})
		case bench.Paint:
			tell(now, bench.Event{Kind: bench.Painted, Region: id(a.Region), Brush: a.Brush})
			if done++; done == painted {
				note(now)
				tell(now+1, bench.Event{Kind: bench.Paused})
				return out
			}
		}
	}
	note(now)
	tell(now+plan.Settings.Drying(), bench.Event{Kind: bench.Ended})
	return out
}

// read gives a sitting what the stand-in camera sees of its sheet, wet where it was read so
// and then dry; the dry photo stays. The pictures are small: the demo begins with them.
func (d *demoSitting) read(plan *bench.Plan, into *store.DemoSitting) error {
	in := plan.Settings.Medium
	rendering, err := devices.ParseRendering("phone")
	if err != nil {
		return err
	}
	shot := devices.Shot{Seed: d.seed, Strength: demoStrengths, Rendering: rendering}
	if place, id, traced := strings.Cut(d.trace, "="); traced {
		p, err := paint.Find(id)
		if err != nil {
			return err
		}
		shot.Traces = map[string]devices.Trace{place: {Paint: p, Share: demoTrace}}
	}
	for _, shot.Wet = range []bool{true, false} {
		if shot.W, shot.H = 1200, 900; shot.Wet {
			shot.W, shot.H = 800, 600
			if !d.wet {
				continue
			}
		}
		img, err := devices.Photograph(plan.Sheet, in, shot)
		if err != nil {
			return err
		}
		picture := photo.FromImage(img)
		marks, err := photo.FindMarks(&picture, plan.Sheet)
		if err != nil {
			return err
		}
		read, err := photo.ReadSheet(&picture, plan.Sheet, marks, nil)
		if err != nil {
			return err
		}
		minutes := plan.Settings.Drying()
		if shot.Wet {
			minutes = 1
		}
		for _, r := range read.Readings {
			into.Readings = append(into.Readings, store.SittingReading{Region: plan.Sheet.Regions[r.Region].ID, L: r.Lab.L, A: r.Lab.A, B: r.Lab.B, Source: string(paint.Photo), Wet: shot.Wet, Medium: in.ID, Minutes: minutes, Spread: r.Spread, Doubt: r.Doubt, OnPhoto: OnPhoto{Photo: demoPhoto, Light: r.Light, Greys: read.Greys}})
		}
		jpeg, err := files.JPEG(img)
		if err != nil {
			return err
		}
		size := img.Bounds().Size()
		into.Photo = &store.SittingPhoto{JPEG: jpeg, Width: size.X, Height: size.Y, Standin: true}
	}
	return nil
}
