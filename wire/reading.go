package wire

import (
	"time"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/studio"
)

// SittingReading is what was read of a place.
type SittingReading struct {
	Slot    string     `json:"slot" doc:"id of the region"`
	Lab     [3]float64 `json:"lab" doc:"D65, without what its photo did to it where that was found"`
	AsSeen  [3]float64 `json:"asSeen" doc:"D65, as it was kept"`
	Source  string     `json:"source" format:"source"`
	Wet     bool       `json:"wet"`
	Minutes float64    `json:"minutes" doc:"since it was painted"`
	Spread  float64    `json:"spread"`
	Doubt   string     `json:"doubt"`
	At      time.Time  `json:"at"`
	Shown
}

// SittingPhoto is a photo of a sitting.
type SittingPhoto struct {
	ID      int64     `json:"id"`
	Width   int       `json:"width"`
	Height  int       `json:"height"`
	Standin bool      `json:"standin" doc:"rendered by the stand-in camera, and not taken"`
	At      time.Time `json:"at"`
}

// SittingReads are the readings and photos of a sitting, the first first.
type SittingReads struct {
	Readings []SittingReading `json:"readings"`
	Tests    []SittingReading `json:"tests" doc:"test swatches, read by eye before their places were painted"`
	Photos   []SittingPhoto   `json:"photos"`
}

// SittingPhotoOf shapes a photo.
func SittingPhotoOf(p studio.KeptPhoto) SittingPhoto { return SittingPhoto(p) }

// SittingReadsOf shapes what was read.
func SittingReadsOf(r studio.Reads) SittingReads {
	return SittingReads{Readings: sittingReadingsOf(r.Readings), Tests: sittingReadingsOf(r.Tests), Photos: photosOf(r.Photos)}
}

func sittingReadingsOf(all []journal.Dated) []SittingReading {
	out := []SittingReading{}
	for _, one := range all {
		out = append(out, SittingReading{Slot: one.Region, Lab: labOf(one.Lab), AsSeen: labOf(one.AsSeen), Source: string(one.Source), Wet: one.Wet, Minutes: round(one.Minutes, 1), Spread: round(one.Spread, 2), Doubt: one.Doubt, At: one.At, Shown: shown(one.Lab.OKLab())})
	}
	return out
}

func photosOf(all []studio.KeptPhoto) []SittingPhoto {
	out := []SittingPhoto{}
	for _, p := range all {
		out = append(out, SittingPhotoOf(p))
	}
	return out
}

func labOf(l colour.Lab) [3]float64 { return [3]float64{round(l.L, 2), round(l.A, 2), round(l.B, 2)} }

// ReadToKeep is a reading that is to be kept.
type ReadToKeep struct {
	Slot   string       `json:"slot" minLength:"1" maxLength:"200" doc:"id of the region"`
	Lab    [3]float64   `json:"lab" doc:"D65"`
	Source string       `json:"source" format:"source"`
	Wet    bool         `json:"wet,omitempty"`
	Dry    bool         `json:"dry,omitempty" doc:"the painter says that it is: else what is read before its time is kept as wet"`
	Spread float64      `json:"spread,omitempty" minimum:"0" maximum:"100"`
	Doubt  string       `json:"doubt,omitempty" maxLength:"200" doc:"why it is not believed; left out of learning"`
	On     *ReadOnPhoto `json:"onPhoto,omitempty" doc:"where on which photo it is of: what the photo does to all of its places is then taken out"`
	ID     string       `json:"id,omitempty" maxLength:"64" doc:"made by the client: a reading that is sent again is kept once"`
}

// ReadOnPhoto is where on a photo a reading is of, as the photo was read.
type ReadOnPhoto struct {
	Photo int64      `json:"photo" minimum:"1" doc:"its id"`
	Light [3]float64 `json:"light" doc:"bare paper there"`
	Ink   *PhotoGrey `json:"ink,omitempty"`
	Step  *PhotoGrey `json:"step,omitempty"`
	Grey  float64    `json:"grey,omitempty" minimum:"0" maximum:"100" doc:"L* that the grey step was measured to have; 0 where it was not"`
}

func (on *ReadOnPhoto) core() (out studio.OnPhoto) {
	if on != nil {
		out = studio.OnPhoto{Photo: on.Photo, Light: on.Light, Greys: photo.Greys{Ink: on.Ink.Core(), Step: on.Step.Core()}, Step: photo.StepOf(on.Grey)}
	}
	return out
}

// Core is the reading.
func (r ReadToKeep) Core() studio.NewReading {
	return studio.NewReading{On: r.On.core(), Region: r.Slot, Lab: colour.Lab{L: r.Lab[0], A: r.Lab[1], B: r.Lab[2]}, Source: paint.Source(r.Source), Wet: r.Wet, Dry: r.Dry, Spread: r.Spread, Doubt: r.Doubt, Told: r.ID}
}

// PhotoSpot is a spot of a photo that the painter moved or left out.
type PhotoSpot struct {
	DX   float64 `json:"dx,omitempty" minimum:"-100" maximum:"100" doc:"moved, mm on the sheet"`
	DY   float64 `json:"dy,omitempty" minimum:"-100" maximum:"100"`
	Left bool    `json:"left,omitempty" doc:"left out"`
}

// Core is the spot.
func (s PhotoSpot) Core() photo.Spot { return photo.Spot{DX: s.DX, DY: s.DY, Left: s.Left} }

// EyeHeld is the colour that a place is held against by eye, and the ribbons through it.
type EyeHeld struct {
	Middle  EyeStop     `json:"middle"`
	Says    string      `json:"says" doc:"how it differs from the colour aimed at"`
	AsAimed bool        `json:"asAimed" doc:"it looks the same"`
	Ribbons []EyeRibbon `json:"ribbons"`
}

// EyeRibbon is a band of colours through the one in the middle.
type EyeRibbon struct {
	From  string    `json:"from" doc:"how its beginning differs from the middle"`
	To    string    `json:"to"`
	Stops []EyeStop `json:"stops"`
}

// EyeStop is a colour of a ribbon.
type EyeStop struct {
	Off float64    `json:"off" doc:"CIEDE2000 from the middle, below 0 toward the beginning"`
	Lab [3]float64 `json:"lab"`
	Shown
}

// EyeHeldOf shapes what a place is held against.
func EyeHeldOf(h studio.Held) EyeHeld {
	out := EyeHeld{Middle: EyeStop{0, labOf(h.Lab), shown(h.Lab.OKLab())}, Says: h.Says, AsAimed: h.Says == colour.NoDifference, Ribbons: []EyeRibbon{}}
	for _, r := range h.Ribbons {
		one := EyeRibbon{From: r.From, To: r.To, Stops: []EyeStop{}}
		for _, stop := range r.Stops {
			one.Stops = append(one.Stops, EyeStop{round(stop.Off, 2), labOf(stop.Lab), shown(stop.Lab.OKLab())})
		}
		out.Ribbons = append(out.Ribbons, one)
	}
	return out
}

// SlotsRead says, row by row, what a file of readings brings.
type SlotsRead struct {
	Rows  []SlotRow `json:"rows"`
	Wrong int       `json:"wrong" doc:"rows that are refused, and not left out"`
	Kept  bool      `json:"kept"`
}

// SlotRow is one reading of a file.
type SlotRow struct {
	Row        int        `json:"row" doc:"from 0, as named in leaveOut"`
	Line       int        `json:"line" doc:"of the file"`
	Slot       string     `json:"slot" doc:"as the file has it"`
	Label      string     `json:"label" doc:"of the place; empty where there is none"`
	Wet        bool       `json:"wet"`
	Source     string     `json:"source" doc:"eye, photo or instrument"`
	Lab        [3]float64 `json:"lab" doc:"D65"`
	Shown      *Shown     `json:"shown" doc:"null when refused"`
	Computed   *Shown     `json:"computed" doc:"the place as it is computed; null where there is none"`
	Difference float64    `json:"difference" doc:"CIEDE2000 of the two"`
	Doubt      string     `json:"doubt"`
	Problem    string     `json:"problem" doc:"what is wrong; empty when sound"`
}

// SlotsReadOf shapes what a file of readings brings.
func SlotsReadOf(r studio.SlotsRead, kept bool) SlotsRead {
	out := SlotsRead{Rows: []SlotRow{}, Wrong: r.Wrong, Kept: kept}
	for i, row := range r.Rows {
		one := SlotRow{Row: i, Line: row.Line, Slot: row.Slot, Problem: row.Problem}
		if row.Region >= 0 {
			region := &r.Sheet.Regions[row.Region]
			look := region.Read(r.In, row.Reading.Wet)
			computed := shown(look.Lab().OKLab())
			one.Label, one.Computed = region.Label, &computed
			if row.Problem == "" {
				read := shown(row.Reading.Lab.OKLab())
				one.Wet, one.Source, one.Lab, one.Shown, one.Doubt = row.Reading.Wet, string(row.Reading.Source), labOf(row.Reading.Lab), &read, row.Reading.Doubt
				one.Difference = round(colour.Difference(look.Lab(), row.Reading.Lab), 1)
			}
		}
		out.Rows = append(out.Rows, one)
	}
	return out
}
