package wire

import (
	"time"

	"gyrophane/core/journal"
	"gyrophane/studio"
)

// ShelfPlace is a place of a painted sheet as it looks.
type ShelfPlace struct {
	Label string     `json:"label"`
	Shape BenchShape `json:"shape"`
	Read  bool       `json:"read" doc:"as it was read dry; else as it is computed"`
	Shown
}

// OnShelf is a sitting on the shelf of what was painted.
type OnShelf struct {
	SittingListed
	Medium  string       `json:"medium" format:"medium"`
	Title   string       `json:"title" doc:"of its sheet"`
	System  string       `json:"system" doc:"kind of the system its wheel is of; empty where that is gone"`
	Kind    string       `json:"kind" format:"sheet"`
	Width   float64      `json:"width" doc:"mm"`
	Height  float64      `json:"height" doc:"mm"`
	Places  []ShelfPlace `json:"places"`
	Read    int          `json:"read" doc:"places"`
	Painted int          `json:"painted" doc:"places"`
	Miss    float64      `json:"miss" doc:"mean CIEDE2000 of what was read to what was computed"`
	Paints  []string     `json:"paints" doc:"what they are called in short"`
	Notes   []string     `json:"notes"`
}

// Shelf is a part of the shelf.
type Shelf struct {
	Sittings []OnShelf `json:"sittings"`
	All      int       `json:"all" doc:"sittings there are, found or not"`
}

// ShelfOf shapes a part of the shelf.
func ShelfOf(found []studio.OnShelf, all int) Shelf {
	out := Shelf{Sittings: []OnShelf{}, All: all}
	for _, on := range found {
		out.Sittings = append(out.Sittings, onShelfOf(on))
	}
	return out
}

func onShelfOf(on studio.OnShelf) OnShelf {
	out := OnShelf{SittingListed: SittingListedOf(on.SittingEntry), Medium: on.Medium.ID, Title: on.Title, System: on.Kind, Kind: string(on.Sheet.Kind), Width: on.Sheet.W, Height: on.Sheet.H,
		Painted: on.Painted, Miss: round(on.Miss, 1), Paints: []string{}, Notes: append([]string{}, on.Notes...)}
	out.Places = shelfPlaces(&on)
	for _, read := range on.WasRead {
		if read {
			out.Read++
		}
	}
	for _, p := range on.Paints {
		out.Paints = append(out.Paints, p.ShortName())
	}
	return out
}

func shelfPlaces(on *studio.OnShelf) []ShelfPlace {
	out := []ShelfPlace{}
	for i := range on.Sheet.Regions {
		r := &on.Sheet.Regions[i]
		out = append(out, ShelfPlace{r.Label, BenchShape(r.Shape), on.WasRead[i], shown(on.Colours[i].OKLab())})
	}
	return out
}

// SittingsBeside are two sittings beside each other.
type SittingsBeside struct {
	One   OnShelf  `json:"one"`
	Other OnShelf  `json:"other"`
	Says  []string `json:"says" doc:"how the first differs from the second, a sentence each"`
}

// SittingsBesideOf shapes two sittings beside each other.
func SittingsBesideOf(b studio.Beside) SittingsBeside {
	return SittingsBeside{onShelfOf(b.One), onShelfOf(b.Other), b.Says}
}

// Redrawn is a kept wheel beside what it would be with what its tubes turned out to be.
type Redrawn struct {
	Wheel   int64            `json:"wheel"`
	Name    string           `json:"name"`
	Version int              `json:"version" doc:"that is kept; redrawing names it"`
	Medium  string           `json:"medium" format:"medium"`
	Changes []Restrengthened `json:"changes" doc:"none where its tubes are as they were"`
	Width   float64          `json:"width" doc:"mm"`
	Kept    []ShelfPlace     `json:"kept"`
	Now     []ShelfPlace     `json:"now"`
	Says    []string         `json:"says" doc:"how it would differ, a sentence each"`
	Parts   []NewParts       `json:"parts" doc:"of slots that are mixed otherwise"`
	Library string           `json:"library,omitempty" doc:"the version that the wheel has its paints of, where the library has others since"`
}

// NewParts are the parts of a slot as they were kept, and as they would be.
type NewParts struct {
	Slot string `json:"slot"`
	Was  string `json:"was"`
	Is   string `json:"is"`
}

// Restrengthened is a paint of a kept wheel that turned out to be another.
type Restrengthened struct {
	Paint string  `json:"paint"`
	Name  string  `json:"name"`
	Was   float64 `json:"was" doc:"strength in the wheel"`
	Is    float64 `json:"is" doc:"strength in the box"`
	Much  bool    `json:"much" doc:"enough to speak of"`
}

// RedrawnOf shapes a wheel that may be redrawn.
func RedrawnOf(r studio.Redrawn) Redrawn {
	out := Redrawn{Wheel: r.Wheel.ID, Name: r.Wheel.Name, Version: r.Wheel.Version, Medium: r.Medium.ID, Changes: []Restrengthened{}, Says: append([]string{}, r.Says...), Parts: []NewParts{}, Library: r.Library}
	for _, p := range r.Parts {
		out.Parts = append(out.Parts, NewParts(p))
	}
	for _, c := range r.Changes {
		out.Changes = append(out.Changes, Restrengthened{Paint: c.Paint.ID, Name: c.Paint.ShortName(), Was: round(c.Was, 3), Is: round(c.Now, 3), Much: journal.SpokenOf(c.Now / c.Was)})
	}
	out.Width, out.Kept, out.Now = r.Kept.Sheet.W, shelfPlaces(&r.Kept), shelfPlaces(&r.Now)
	return out
}

// Tally counts expectations.
type Tally struct {
	Expectations  int `json:"expectations"`
	HuesRight     int `json:"huesRight" doc:"within one slot"`
	VerdictsRight int `json:"verdictsRight"`
	Brighter      int `json:"brighter" doc:"verdicts that came out brighter than expected"`
	Duller        int `json:"duller"`
}

// ExpectedMonth is what became of the expectations of a month.
type ExpectedMonth struct {
	Year  int `json:"year"`
	Month int `json:"month" doc:"1 to 12"`
	Tally
	Painted Tally `json:"painted" doc:"of those that were held against paint"`
}

// ExpectedSection is how the expectations of a section came out.
type ExpectedSection struct {
	Section string `json:"section"`
	Tally
	Says string `json:"says"`
}

// Expectations are what became of all that was expected.
type Expectations struct {
	Working  bool              `json:"working" doc:"sittings are still being looked at: ask again"`
	Months   []ExpectedMonth   `json:"months" doc:"the last one first"`
	Sections []ExpectedSection `json:"sections" doc:"the least right first"`
	Each     []Became          `json:"each" doc:"the last ones, the newest first"`
}

// Became is one expectation, and what became of it.
type Became struct {
	At           time.Time `json:"at"`
	Of           string    `json:"of" doc:"a slot of a wheel, or two paints"`
	Wheel        int64     `json:"wheel" doc:"that the slot is of; 0 for a pairing"`
	Practice     bool      `json:"practice"`
	Painted      bool      `json:"painted" doc:"held against paint; else against what was computed that day"`
	HueSaid      string    `json:"hueSaid"`
	Said         string    `json:"said" format:"chromaticVerdict"`
	HueCame      string    `json:"hueCame"`
	Came         string    `json:"came" format:"verdict"`
	HueRight     bool      `json:"hueRight"`
	VerdictRight bool      `json:"verdictRight"`
}

// ExpectationsOf shapes what became of expectations.
func ExpectationsOf(e studio.Expectations) Expectations {
	out := Expectations{Working: e.Working, Months: []ExpectedMonth{}, Sections: []ExpectedSection{}, Each: []Became{}}
	for _, m := range e.Months {
		out.Months = append(out.Months, ExpectedMonth{m.Year, int(m.Month), Tally(m.Tally), Tally(m.Painted)})
	}
	for _, eye := range e.Eyes {
		out.Sections = append(out.Sections, ExpectedSection{eye.Section, Tally(eye.Tally), eye.Says})
	}
	for _, b := range e.Each {
		out.Each = append(out.Each, Became{At: b.At, Of: b.Of, Wheel: b.Wheel, Practice: b.Practice, Painted: b.Painted, HueSaid: b.HueSaid, Said: b.Said.String(), HueCame: b.HueCame, Came: b.Came.String(), HueRight: b.HueRight, VerdictRight: b.VerdictRight})
	}
	return out
}
