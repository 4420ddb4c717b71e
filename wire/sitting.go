package wire

import (
	"maps"
	"slices"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
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

// SittingUnderWay is a sitting that was begun and not ended.
type SittingUnderWay struct {
	SittingListed
	Painted int      `json:"painted" doc:"places"`
	Places  int      `json:"places"`
	Last    int64    `json:"last" doc:"when something was told of it"`
	Wet     []Drying `json:"wet" doc:"places that are wet, or were until two minutes ago"`
}

// Drying is a place that is wet or was, and until when.
type Drying struct {
	Label string `json:"label"`
	Until int64  `json:"until"`
}

// SittingUnderWayOf shapes a sitting that is under way.
func SittingUnderWayOf(s studio.UnderWay) SittingUnderWay {
	out := SittingUnderWay{SittingListed: SittingListedOf(s.SittingEntry), Painted: s.Painted, Places: s.Places, Last: s.Last.UnixMilli(), Wet: []Drying{}}
	for _, w := range s.Wet {
		out.Wet = append(out.Wet, Drying{w.Label, w.Until.UnixMilli()})
	}
	return out
}

// SittingListedOf shapes a sitting of a list.
func SittingListedOf(s studio.SittingEntry) SittingListed {
	return SittingListed(s)
}

// Sitting is where a sitting stands. Times are milliseconds since 1970 by the server's
// clock, 0 for what has not been.
type Sitting struct {
	SittingListed
	Now       int64          `json:"now"`
	Revision  int64          `json:"revision" doc:"how many events there are"`
	Plan      BenchPlan      `json:"plan" doc:"from where it stands; minutes from now"`
	Laid      bool           `json:"laid"`
	Paused    int64          `json:"paused"`
	Done      bool           `json:"done" doc:"nothing is left to paint"`
	Places    []SittingPlace `json:"places" doc:"one for each region"`
	Wells     []SittingWell  `json:"wells"`
	Brushes   []int          `json:"brushes" doc:"the region that each painted last, -1 for a clean one"`
	Washes    int            `json:"washes"`
	Pace      float64        `json:"pace" doc:"of drying, over the plan's"`
	Notes     []SittingNote  `json:"notes"`
	Says      []string       `json:"says"`
	Steps     []SittingStep  `json:"steps" doc:"one for each place that is left, in order"`
	Instead   []SittingStep  `json:"instead" doc:"one for each place that is left but the next, as it is where it is painted before all others"`
	AsPlanned []SittingTell  `json:"asPlanned" doc:"what one tap tells that all that is left was painted as it was planned"`
	Back      []SittingBack  `json:"back" doc:"the taps that taking back takes back, the last one first"`
}

// SittingStep is what leads to the painting of a place.
type SittingStep struct {
	Region int             `json:"region"`
	Before []SittingAction `json:"before" doc:"what is done before it"`
	Paint  *BenchAction    `json:"paint,omitempty" doc:"always, but where a page lays what waits over it"`
	Bare   string          `json:"bare,omitempty" doc:"that what it lies over is not painted yet"`
	// What follows is always there, but where a page lays what waits over it.
	Counted  *Counted        `json:"counted,omitempty" doc:"what is counted out for it as it is painted here"`
	Tells    []SittingTell   `json:"tells,omitempty" doc:"what one tap that it was painted tells"`
	Measures []SittingTell   `json:"measures,omitempty" doc:"what is told before it is said what its pile really took"`
	Anew     []SittingTell   `json:"anew,omitempty" doc:"what is told of another pile in the place of its own"`
	Pile     string          `json:"pile,omitempty" doc:"what its pile is beside what it was meant to be"`
	Remedies []SittingRemedy `json:"remedies,omitempty" doc:"the ways on where its pile stands mixed and is not what it was meant to be, the one that is advised first"`
}

// SittingRemedy is a way on from a pile that is not what it was meant to be.
type SittingRemedy struct {
	Kind    string        `json:"kind" enum:"mend,part,as is,anew"`
	Says    string        `json:"says"`
	Counted *Counted      `json:"counted,omitempty" doc:"absent where it is painted as it is"`
	Keep    float64       `json:"keep" doc:"share of the pile that is kept"`
	DE      float64       `json:"de00" doc:"CIEDE2000 of the pile then to what is aimed at, brushed out"`
	Tells   []SittingTell `json:"tells" doc:"what one tap that it was mixed so tells"`
}

// SittingAction is one thing to do before a place is painted, and what is told of it by itself.
type SittingAction struct {
	BenchAction
	Tells []SittingTell `json:"tells" doc:"nothing of a wait"`
}

// SittingTell is an event that a tap tells.
type SittingTell struct {
	Kind     string `json:"kind" format:"sittingEvent"`
	Region   string `json:"region,omitempty"`
	Well     int    `json:"well,omitempty"`
	Brush    int    `json:"brush,omitempty"`
	Thorough bool   `json:"thorough,omitempty"`
	AheadMS  int64  `json:"aheadMs" doc:"how long before the tap it happened, as the plan has it"`
	SittingPile
}

// SittingPile is what is said of a pile that was mixed, besides its well.
type SittingPile struct {
	Took   []SittingTook `json:"took,omitempty" maxItems:"24" doc:"what was counted out for it; of what was measured what it really took"`
	Adds   bool          `json:"adds,omitempty" doc:"to what the well holds"`
	From   int           `json:"from,omitempty" doc:"the well of which a part was taken for it"`
	FromML float64       `json:"fromMl,omitempty" doc:"how much of it"`
	ML     float64       `json:"ml,omitempty" doc:"of all of it, as the plan has it"`
}

// SittingBack is a tap that can be taken back, whole.
type SittingBack struct {
	Tap    string        `json:"tap" doc:"what taking it back names"`
	Says   string        `json:"says" doc:"what it told"`
	Places []SittingThen `json:"places" doc:"those that are otherwise when it is taken back, with those before it in the list"`
	Laid   bool          `json:"laid"`
	Paused int64         `json:"paused"`
	Ended  bool          `json:"ended"`
}

// SittingThen is how far a place has come when something is taken back.
type SittingThen struct {
	Region  int   `json:"region"`
	Coats   int   `json:"coats"`
	Painted int64 `json:"painted"`
	Dry     int64 `json:"dry"`
	Skipped bool  `json:"skipped"`
	Ran     bool  `json:"ran"`
	Tested  bool  `json:"tested"`
}

// SittingTold is where a sitting stands after something was told, and what of that was not kept.
type SittingTold struct {
	Sitting
	Untold []SittingUntold `json:"untold" doc:"events that were not kept; what was told with them was"`
}

// SittingUntold is an event that was not kept.
type SittingUntold struct {
	ID   string `json:"id"`
	Says string `json:"says" doc:"why"`
}

// SittingPlace is how far a region has come.
type SittingPlace struct {
	Coats   int           `json:"coats"`
	Painted int64         `json:"painted"`
	Dry     int64         `json:"dry" doc:"when it is"`
	Skipped bool          `json:"skipped"`
	Ran     bool          `json:"ran" doc:"a neighbour ran into it: it is gone over when it is dry"`
	Tested  bool          `json:"tested"`
	Mixed   *Counted      `json:"mixed,omitempty" doc:"what its pile was mixed from, as it was told last; absent where nothing was"`
	Wet     Shown         `json:"wet" doc:"the colour aimed at while it is wet"`
	Dried   Shown         `json:"dried"`
	Drawn   *DrawnPlace   `json:"drawn,omitempty" doc:"of a graded place, what it fades through from its rim to its tip"`
	DriesMS int64         `json:"driesMs" doc:"how long it stays wet once it is painted; 0 for no time at all"`
	Tells   []SittingTell `json:"tells" doc:"what one tap that it was painted tells now, in the order in which it was done"`
}

// DrawnPlace is what a graded place fades through, in even steps.
type DrawnPlace struct {
	Wet   []Shown `json:"wet"`
	Dried []Shown `json:"dried"`
}

// SittingTook is how much of a paint was taken, or of its let-down, in the sitting's measure.
type SittingTook struct {
	Paint  string  `json:"paint" minLength:"1" maxLength:"60"`
	Amount float64 `json:"amount" minimum:"0" maximum:"1000"`
	In     string  `json:"in,omitempty" maxLength:"60" doc:"the paint it was let down in"`
	Thin   int     `json:"thin,omitempty" minimum:"0" maximum:"999" doc:"parts of that to 1"`
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
	ID       string    `json:"id" minLength:"1" maxLength:"64" doc:"made by the client: a repeated sending changes nothing"`
	Kind     string    `json:"kind" format:"sittingEvent"`
	At       int64     `json:"at" doc:"milliseconds since 1970 by the device's clock"`
	OffsetMS int64     `json:"offsetMs" minimum:"-9000000000000" maximum:"9000000000000" doc:"of the server's clock over the device's"`
	Device   string    `json:"device" maxLength:"64"`
	Number   int64     `json:"number" doc:"within the device"`
	Revision int64     `json:"revision" doc:"how many events the device knew of"`
	Region   string    `json:"region,omitempty" maxLength:"200" doc:"id of the region"`
	Well     int       `json:"well,omitempty"`
	Brush    int       `json:"brush,omitempty"`
	Thorough bool      `json:"thorough,omitempty"`
	Text     string    `json:"text,omitempty" maxLength:"2000"`
	Looks    []float64 `json:"looks,omitempty" minItems:"3" maxItems:"3" doc:"CIELAB of a test swatch, as it was read by eye"`
	Undoes   string    `json:"undoes,omitempty" maxLength:"64" doc:"id of the event or of the tap that is taken back"`
	Tap      string    `json:"tap,omitempty" maxLength:"64" doc:"the tap that tells it, with others"`
	AheadMS  int64     `json:"aheadMs,omitempty" minimum:"0" maximum:"86400000" doc:"how long before the tap it happened, as the plan has it"`
	SittingPile
}

// Core is what the device says.
func (e SittingEvent) Core() studio.Told {
	out := studio.Told{Device: e.Device, Number: e.Number, OffsetMS: e.OffsetMS, Revision: e.Revision, Ahead: time.Duration(e.AheadMS) * time.Millisecond,
		Event: bench.Event{ID: e.ID, Kind: bench.EventKind(e.Kind), At: time.UnixMilli(e.At), Region: e.Region, Well: e.Well, Brush: e.Brush, Thorough: e.Thorough, Text: e.Text, Undoes: e.Undoes, Tap: e.Tap,
			Adds: e.Adds, From: e.From, FromML: e.FromML, ML: e.ML}}
	if len(e.Looks) == 3 {
		out.Looks = &colour.Lab{L: e.Looks[0], A: e.Looks[1], B: e.Looks[2]}
	}
	for _, t := range e.Took {
		out.Used = append(out.Used, bench.Used(t))
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
		SittingListed: SittingListedOf(s.SittingEntry), Now: s.Now.UnixMilli(), Revision: int64(len(s.Events)), Plan: v.Plan(s.Rest, nil), Laid: st.LaidOut, Paused: millis(st.PausedAt), Done: st.Done(),
		Brushes: st.Brushes[:s.Plan.Settings.Brushes], Washes: st.Washes, Pace: round(st.Pace, 2), Notes: notesOf(s), Says: append([]string{}, st.Says...), Steps: []SittingStep{}, Instead: []SittingStep{}, AsPlanned: []SittingTell{}, Back: []SittingBack{},
	}
	if s.Printed != "" {
		out.Says = append(out.Says, s.Printed)
	}
	for i := range st.Places {
		at, r := &st.Places[i], &s.Plan.Sheet.Regions[i]
		one := SittingPlace{Coats: at.Coats, Painted: millis(at.Painted), Dry: millis(at.DryAt), Skipped: at.Skipped, Ran: at.Ran, Tested: at.Tested}
		if mixed := st.MixedFrom(s.Plan, i); mixed != nil {
			one.Mixed = v.amounts(mixed)
		}
		wet, dry := r.Appearance(s.Medium, true), r.Appearance(s.Medium, false)
		one.DriesMS = int64(s.Plan.Settings.Drying() * st.Pace * float64(time.Minute/time.Millisecond))
		one.Tells = tellsOf(s.Plan.Sheet.Straightaway(i))
		if r.Graded {
			one.Drawn = &DrawnPlace{v.drawn(&r.Mixture, s.Medium, true), v.drawn(&r.Mixture, s.Medium, false)}
		}
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
	out.AsPlanned = append(out.AsPlanned, tellsOf(s.Rest.AsPlanned())...)
	for n, step := range s.Rest.Steps() {
		out.Steps = append(out.Steps, v.sittingStep(s, step))
		out.Places[step.Region].Tells = tellsOf(step.Tells)
		if n > 0 {
			out.Instead = append(out.Instead, v.sittingStep(s, s.Rest.Instead(step.Region)))
		}
	}
	for _, back := range st.Back {
		one := SittingBack{Tap: back.Tap, Says: back.Says, Places: []SittingThen{}, Laid: back.LaidOut, Paused: millis(back.Paused), Ended: !back.Ended.IsZero()}
		for _, region := range slices.Sorted(maps.Keys(back.Places)) {
			p := back.Places[region]
			one.Places = append(one.Places, SittingThen{Region: region, Coats: p.Coats, Painted: millis(p.Painted), Dry: millis(p.DryAt), Skipped: p.Skipped, Ran: p.Ran, Tested: p.Tested})
		}
		out.Back = append(out.Back, one)
	}
	return out
}

// sittingStep shapes what leads to the painting of a place.
func (v View) sittingStep(s studio.Sitting, step bench.Step) SittingStep {
	sheet := s.Plan.Sheet
	out := SittingStep{Region: step.Region, Bare: step.Bare, Before: []SittingAction{}, Counted: v.amounts(&step.Counted), Tells: tellsOf(step.Tells), Measures: tellsOf(step.Measures), Anew: tellsOf(step.Anew)}
	paint := actionOf(step.Paint, sheet)
	out.Paint = &paint
	for n, before := range step.Before {
		action := SittingAction{BenchAction: actionOf(before, sheet), Tells: []SittingTell{}}
		if tell := step.Each[n]; tell != nil {
			action.Tells = tellsOf([]bench.Tell{*tell})
		}
		out.Before = append(out.Before, action)
	}
	for _, of := range step.Remedies {
		one := SittingRemedy{Kind: string(of.Kind), Says: of.Says(), Keep: round(of.Keep, 3), DE: round(of.DE, 2), Tells: append([]SittingTell{}, tellsOf(of.Tells)...)}
		if of.Kind != bench.AsItIs {
			one.Counted = v.amounts(&of.Counted)
		}
		out.Remedies = append(out.Remedies, one)
	}
	if len(step.Remedies) > 0 || s.Stands.Places[step.Region].Tested {
		out.Pile = s.Stands.PileSays(sheet, step.Region)
	}
	return out
}

// Told shapes where a sitting stands after something was told.
func (v View) Told(s studio.Sitting, untold []studio.Untold) SittingTold {
	out := SittingTold{Sitting: v.Sitting(s), Untold: []SittingUntold{}}
	for _, u := range untold {
		out.Untold = append(out.Untold, SittingUntold(u))
	}
	return out
}

func tellsOf(tells []bench.Tell) (out []SittingTell) {
	for _, t := range tells {
		one := SittingTell{Kind: string(t.Kind), Region: t.Region, Well: t.Well, Brush: t.Brush, Thorough: t.Thorough, AheadMS: t.Ahead.Milliseconds(),
			SittingPile: SittingPile{Adds: t.Adds, From: t.From, FromML: t.FromML, ML: t.ML}}
		for _, u := range t.Used {
			one.Took = append(one.Took, SittingTook(u))
		}
		out = append(out, one)
	}
	return out
}

func notesOf(s studio.Sitting) []SittingNote {
	out := []SittingNote{}
	for _, n := range s.Stands.Notes {
		out = append(out, SittingNote{ID: n.ID, Kind: string(n.Kind), Region: n.Region, At: n.At.UnixMilli(), Text: n.Text})
	}
	return out
}
