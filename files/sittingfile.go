package files

import (
	"encoding/json"
	"fmt"
	"math"
	"time"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
)

// SittingCSV is what came of a sitting as a table, a row a place.
func SittingCSV(a *journal.Account) []byte {
	rows := [][]string{{"slot", "label", "recipe", "coats", "expected", "computed_L", "computed_a", "computed_b", "wet_L", "wet_a", "wet_b", "dry_L", "dry_a", "dry_b", "source", "doubt", "de00", "came"}}
	lab := func(l colour.Lab) []string { return []string{figure(l.L, 2), figure(l.A, 2), figure(l.B, 2)} }
	read := func(r *journal.Reading) []string {
		if r == nil {
			return []string{"", "", ""}
		}
		return lab(r.Lab)
	}
	for i := range a.Places {
		p, r := &a.Places[i], &a.Sheet.Regions[i]
		row := []string{textCell(r.ID), textCell(r.Label), textCell(r.Recipe.String()), fmt.Sprint(p.Coats), p.Expected}
		row = append(append(append(row, lab(p.Computed)...), read(p.Wet)...), read(p.Dry)...)
		source, doubt, de := "", "", ""
		if d, dry := p.Difference(); dry {
			source, doubt, de = string(p.Dry.Source), textCell(p.Dry.Doubt), figure(d, 2)
		}
		rows = append(rows, append(row, source, doubt, de, textCell(p.CameOf())))
	}
	return table(rows)
}

// The format of a sitting in JSON, and the version that is written.
const (
	sittingFormat  = "gyrophane-sitting"
	sittingVersion = 1
)

type sittingJSON struct {
	Format   string           `json:"format"`
	Version  int              `json:"version"`
	Name     string           `json:"name"`
	Sheet    string           `json:"sheet"`
	Medium   string           `json:"medium"`
	Began    time.Time        `json:"began"`
	Ended    bool             `json:"ended"`
	NextTime string           `json:"nextTime"`
	Tubes    []string         `json:"tubes"`
	Places   []sittingPlace   `json:"places"`
	Readings []sittingReading `json:"readings"`
	Events   []sittingEvent   `json:"events"`
}

type sittingPlace struct {
	Slot       string      `json:"slot"`
	Label      string      `json:"label"`
	Recipe     string      `json:"recipe"`
	Coats      int         `json:"coats"`
	Expected   string      `json:"expected,omitempty"`
	Computed   [3]float64  `json:"computed"`
	Wet        *[3]float64 `json:"wet,omitempty"`
	Dry        *[3]float64 `json:"dry,omitempty"`
	Difference *float64    `json:"de00,omitempty"`
	Came       string      `json:"came"`
}

type sittingReading struct {
	Slot    string     `json:"slot"`
	Lab     [3]float64 `json:"lab"`
	State   string     `json:"state"`
	Source  string     `json:"source"`
	Minutes float64    `json:"minutes"`
	Spread  float64    `json:"spread"`
	Doubt   string     `json:"doubt,omitempty"`
	At      time.Time  `json:"at"`
}

type sittingEvent struct {
	ID       string             `json:"id"`
	Kind     string             `json:"kind"`
	At       time.Time          `json:"at"`
	Slot     string             `json:"slot,omitempty"`
	Well     int                `json:"well,omitempty"`
	Brush    int                `json:"brush,omitempty"`
	Thorough bool               `json:"thorough,omitempty"`
	Took     map[string]float64 `json:"took,omitempty"` // by paint, or its let-down in words
	Adds     bool               `json:"adds,omitempty"`
	From     int                `json:"from,omitempty"`
	FromML   float64            `json:"fromMl,omitempty"`
	ML       float64            `json:"ml,omitempty"`
	Looks    *[3]float64        `json:"looks,omitempty"` // a test swatch, by eye
	Text     string             `json:"text,omitempty"`
	Undoes   string             `json:"undoes,omitempty"`
}

func labJSON(l colour.Lab) [3]float64 {
	round := func(v float64) float64 { return math.Round(100*v) / 100 }
	return [3]float64{round(l.L), round(l.A), round(l.B)}
}

func stateOf(wet bool) string {
	if wet {
		return "wet"
	}
	return "dry"
}

// SittingJSON is a sitting whole, as docs/formats.md describes it.
func SittingJSON(a *journal.Account) ([]byte, error) {
	out := sittingJSON{Format: sittingFormat, Version: sittingVersion, Name: a.Name, Sheet: string(a.Sheet.Kind), Medium: a.Medium.ID, Began: a.Began, Ended: a.Ended, NextTime: a.NextTime,
		Tubes: append([]string{}, a.Says...), Places: []sittingPlace{}, Readings: []sittingReading{}, Events: []sittingEvent{}}
	for i := range a.Places {
		p, r := &a.Places[i], &a.Sheet.Regions[i]
		one := sittingPlace{Slot: r.ID, Label: r.Label, Recipe: r.Recipe.String(), Coats: p.Coats, Expected: p.Expected, Computed: labJSON(p.Computed), Came: p.CameOf()}
		if p.Wet != nil {
			wet := labJSON(p.Wet.Lab)
			one.Wet = &wet
		}
		if p.Dry != nil {
			dry, de := labJSON(p.Dry.Lab), colour.Difference(p.Computed, p.Dry.Lab)
			one.Dry, one.Difference = &dry, &de
		}
		out.Places = append(out.Places, one)
	}
	for _, r := range a.Readings {
		out.Readings = append(out.Readings, sittingReading{Slot: r.Region, Lab: labJSON(r.Lab), State: stateOf(r.Wet), Source: string(r.Source), Minutes: r.Minutes, Spread: r.Spread, Doubt: r.Doubt, At: r.At})
	}
	for _, e := range a.Events {
		one := sittingEvent{ID: e.ID, Kind: string(e.Kind), At: e.At, Slot: e.Region, Well: e.Well, Brush: e.Brush, Thorough: e.Thorough, Text: e.Text, Undoes: e.Undoes, Adds: e.Adds, From: e.From, FromML: e.FromML, ML: e.ML}
		if e.Looks != nil {
			looks := labJSON(*e.Looks)
			one.Looks = &looks
		}
		for _, t := range e.Used {
			if one.Took == nil {
				one.Took = map[string]float64{}
			}
			what := t.Paint
			if t.In != "" {
				what = fmt.Sprintf("%s let down 1:%d in %s", t.Paint, t.Thin, t.In)
			}
			one.Took[what] = t.Amount
		}
		out.Events = append(out.Events, one)
	}
	data, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		return nil, fmt.Errorf("the sitting could not be written: %w", err)
	}
	return append(data, '\n'), nil
}
