package wire

import (
	"time"

	"gyrophane/core/bench"
	"gyrophane/studio"
)

// SittingListed is a sitting in a list.
type SittingListed struct {
	ID       int64     `json:"id"`
	Wheel    int64     `json:"wheel"`
	Name     string    `json:"name"`
	Began    time.Time `json:"began"`
	Ended    bool      `json:"ended"`
	NextTime string    `json:"nextTime" doc:"what to do otherwise when the wheel is painted again"`
}

// SittingListedOf shapes a sitting of a list.
func SittingListedOf(s studio.SittingEntry) SittingListed {
	return SittingListed(s)
}

// Sitting is where a sitting stands. Times are milliseconds since 1970 by the server's
// clock, 0 for what has not been.
type Sitting struct {
	SittingListed
	Now      int64          `json:"now"`
	Revision int64          `json:"revision" doc:"how many events there are"`
	Plan     BenchPlan      `json:"plan" doc:"from where it stands; minutes from now"`
	Laid     bool           `json:"laid"`
	Paused   int64          `json:"paused"`
	Done     bool           `json:"done" doc:"nothing is left to paint"`
	Places   []SittingPlace `json:"places" doc:"one for each region"`
	Wells    []SittingWell  `json:"wells"`
	Brushes  []int          `json:"brushes" doc:"the region that each painted last, -1 for a clean one"`
	Washes   int            `json:"washes"`
	Pace     float64        `json:"pace" doc:"of drying, over the plan's"`
	Notes    []SittingNote  `json:"notes"`
	Says     []string       `json:"says"`
	Last     string         `json:"last" doc:"the event that is taken back next; empty for none"`
	LastSays string         `json:"lastSays" doc:"what that was"`
}

// SittingPlace is how far a region has come.
type SittingPlace struct {
	Coats   int           `json:"coats"`
	Painted int64         `json:"painted"`
	Dry     int64         `json:"dry" doc:"when it is"`
	Skipped bool          `json:"skipped"`
	Tested  bool          `json:"tested"`
	Took    []SittingTook `json:"took" doc:"what was measured"`
	Wet     Shown         `json:"wet" doc:"the colour aimed at while it is wet"`
	Dried   Shown         `json:"dried"`
}

// SittingTook is how much of a paint was taken, in the sitting's measure.
type SittingTook struct {
	Paint  string  `json:"paint" minLength:"1" maxLength:"60"`
	Amount float64 `json:"amount" minimum:"0" maximum:"1000"`
}

// SittingWell is what is in a well.
type SittingWell struct {
	Region int   `json:"region" doc:"whose mixture it is, -1 for none"`
	Since  int64 `json:"since"`
	Used   bool  `json:"used" doc:"since it was rinsed"`
	Lasts  int64 `json:"lasts" doc:"until when it can be painted with; 0 for as long as one likes"`
}

// SittingNote is a note.
type SittingNote struct {
	ID     string `json:"id"`
	Kind   string `json:"kind" format:"sittingEvent"`
	Region string `json:"region"`
	At     int64  `json:"at"`
	Text   string `json:"text"`
}

// SittingEvent is what a device says was done.
type SittingEvent struct {
	ID       string        `json:"id" minLength:"1" maxLength:"64" doc:"made by the client: a repeated sending changes nothing"`
	Kind     string        `json:"kind" format:"sittingEvent"`
	At       int64         `json:"at" doc:"milliseconds since 1970 by the device's clock"`
	OffsetMS int64         `json:"offsetMs" minimum:"-9000000000000" maximum:"9000000000000" doc:"of the server's clock over the device's"`
	Device   string        `json:"device" maxLength:"64"`
	Number   int64         `json:"number" doc:"within the device"`
	Revision int64         `json:"revision" doc:"how many events the device knew of"`
	Region   string        `json:"region,omitempty" maxLength:"200" doc:"id of the region"`
	Well     int           `json:"well,omitempty"`
	Brush    int           `json:"brush,omitempty"`
	Thorough bool          `json:"thorough,omitempty"`
	Took     []SittingTook `json:"took,omitempty" maxItems:"24"`
	Text     string        `json:"text,omitempty" maxLength:"2000"`
	Undoes   string        `json:"undoes,omitempty" maxLength:"64" doc:"id of the event that is taken back"`
}

// Core is what the device says.
func (e SittingEvent) Core() studio.Told {
	out := studio.Told{Device: e.Device, Number: e.Number, OffsetMS: e.OffsetMS, Revision: e.Revision,
		Event: bench.Event{ID: e.ID, Kind: bench.EventKind(e.Kind), At: time.UnixMilli(e.At), Region: e.Region, Well: e.Well, Brush: e.Brush, Thorough: e.Thorough, Text: e.Text, Undoes: e.Undoes}}
	for _, t := range e.Took {
		out.Took = append(out.Took, bench.Took(t))
	}
	return out
}

func millis(t time.Time) int64 {
	if t.IsZero() {
		return 0
	}
	return t.UnixMilli()
}

// Sitting shapes where a sitting stands.
func (v View) Sitting(s studio.Sitting) Sitting {
	st := &s.Stands
	out := Sitting{
		SittingListed: SittingListedOf(s.SittingEntry), Now: s.Now.UnixMilli(), Revision: int64(len(s.Events)), Plan: v.Plan(s.Rest, nil), Laid: st.Laid, Paused: millis(st.PausedAt), Done: st.Done(),
		Brushes: st.Brushes[:s.Plan.Settings.Brushes], Washes: st.Washes, Pace: round(st.Pace, 2), Notes: notesOf(s), Says: append([]string{}, st.Says...), Last: st.Last,
	}
	for i := range st.Places {
		at, r := &st.Places[i], &s.Plan.Sheet.Regions[i]
		one := SittingPlace{Coats: at.Coats, Painted: millis(at.Painted), Dry: millis(at.DryAt), Skipped: at.Skipped, Tested: at.Tested, Took: []SittingTook{}}
		for _, t := range at.Took {
			one.Took = append(one.Took, SittingTook(t))
		}
		wet, dry := r.Looks(s.Medium, true), r.Looks(s.Medium, false)
		one.Wet, one.Dried = shown(wet.OKLab(v.Light)), shown(dry.OKLab(v.Light))
		out.Places = append(out.Places, one)
	}
	limit := time.Duration(s.Plan.Settings.Workable() * float64(time.Minute))
	for _, w := range st.Wells {
		one := SittingWell{Region: w.Region, Since: millis(w.Since), Used: w.Used}
		if limit > 0 && w.Region >= 0 {
			one.Lasts = millis(w.Since.Add(limit))
		}
		out.Wells = append(out.Wells, one)
	}
	for _, e := range s.Events {
		if e.ID == st.Last {
			out.LastSays = said(e, s.Plan.Sheet)
		}
	}
	return out
}

func notesOf(s studio.Sitting) []SittingNote {
	out := []SittingNote{}
	for _, n := range s.Stands.Notes {
		out = append(out, SittingNote{n.ID, string(n.Kind), n.Region, n.At.UnixMilli(), n.Text})
	}
	return out
}

// said is what was done, in words.
func said(e bench.Event, s *bench.Sheet) string {
	if i := s.Find(e.Region); e.Region != "" && i >= 0 {
		return string(e.Kind) + ": " + s.Regions[i].Label
	}
	return string(e.Kind)
}
