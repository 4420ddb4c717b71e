package studio

import (
	"fmt"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/core/wheel"
	"gyrophane/devices"
	"gyrophane/files"
	"gyrophane/store"
)

// What the made-up studio does not know of its tubes: their strengths over those that
// they are said to have.
var demoStrengths = map[string]float64{"PB29": 1.6}

// demoSittings are the sittings of the made-up studio: one that has ended, read from a
// photo of the stand-in camera, and one that is under way and rests.
func demoSittings() (out []store.DemoSitting, err error) {
	for _, d := range []struct {
		wheel   string
		ago     time.Duration
		painted int // 0 for all
		seed    uint64
	}{
		{"Starfish and anemone", 9 * 24 * time.Hour, 0, 7},
		{"Six from the harbour", 50 * time.Minute, 7, 0},
	} {
		plan, err := demoPlan(d.wheel)
		if err != nil {
			return nil, err
		}
		frozen, err := freeze(plan, ofLibrary)
		if err != nil {
			return nil, err
		}
		one := store.DemoSitting{Wheel: d.wheel, Ago: d.ago, Sitting: store.Sitting{Plan: frozen, Ended: d.painted == 0}, Events: held(plan, d.painted)}
		if d.painted == 0 {
			if one.Photo, one.Readings, err = demoReadings(plan, d.seed); err != nil {
				return nil, err
			}
		}
		out = append(out, one)
	}
	return out, nil
}

// demoPlan is how one of the demo wheels is painted in gouache.
func demoPlan(named string) (*bench.Plan, error) {
	for _, w := range demoWheels() {
		if w.Name != named {
			continue
		}
		in, err := paint.ParseMedium("gouache")
		if err != nil {
			return nil, err
		}
		system, err := w.Snapshot.System.System(paint.Find)
		if err != nil {
			return nil, err
		}
		options, err := w.Settings.Choices.Options(in)
		if err != nil {
			return nil, err
		}
		set := bench.Usual(in)
		sheet := bench.Wheel(wheel.Build(system, options), bench.Extras{}, set)
		return bench.New(&sheet, set)
	}
	return nil, fmt.Errorf("there is no demo wheel %q", named)
}

// held are the events of a sitting that keeps to its plan: so many places painted and
// then a rest or, with 0, all and then its end.
func held(plan *bench.Plan, painted int) (out []store.SittingEvent) {
	tell := func(minutes float64, e bench.Event) {
		n := len(out) + 1
		e.ID = fmt.Sprintf("demo-%03d", n)
		out = append(out, store.SittingEvent{EventID: e.ID, At: time.Time{}.Add(time.Duration(minutes * float64(time.Minute))), Device: "demo", Number: int64(n), Revision: int64(n - 1), Event: e})
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
				tell(now+0.5, bench.Event{Kind: bench.Noted, Text: "The turquoise of the shallow water wants this blue-green."})
				tell(now+1, bench.Event{Kind: bench.Paused})
				return out
			}
		}
	}
	tell(now+1, bench.Event{Kind: bench.Noted, Text: "Violets darker than the plan: the mussel again."})
	tell(now+plan.Settings.Drying(), bench.Event{Kind: bench.Ended})
	return out
}

// demoReadings are what the stand-in camera sees of a painted sheet.
func demoReadings(plan *bench.Plan, seed uint64) (*store.SittingPhoto, []store.SittingReading, error) {
	in := plan.Settings.Medium
	img, err := devices.Photograph(plan.Sheet, in, devices.Shot{Seed: seed, Strength: demoStrengths})
	if err != nil {
		return nil, nil, err
	}
	jpeg, err := files.JPEG(img)
	if err != nil {
		return nil, nil, err
	}
	picture := photo.FromImage(img)
	marks, err := photo.FindMarks(&picture, plan.Sheet)
	if err != nil {
		return nil, nil, err
	}
	read, err := photo.Read(&picture, plan.Sheet, marks, nil)
	if err != nil {
		return nil, nil, err
	}
	var rows []store.SittingReading
	for _, r := range read.Readings {
		rows = append(rows, store.SittingReading{Region: plan.Sheet.Regions[r.Region].ID, L: r.Lab.L, A: r.Lab.A, B: r.Lab.B, Source: string(paint.Photo), Medium: in.ID, Minutes: plan.Settings.Drying(), Spread: r.Spread, Doubt: r.Doubt})
	}
	size := img.Bounds().Size()
	return &store.SittingPhoto{JPEG: jpeg, Width: size.X, Height: size.Y, Standin: true}, rows, nil
}
