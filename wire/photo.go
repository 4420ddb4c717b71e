package wire

import (
	"gyrophane/core/bench"
	"gyrophane/core/photo"
)

// PhotoReading is what a photo says of one place.
type PhotoReading struct {
	Slot    string       `json:"slot" doc:"id of the region"`
	Label   string       `json:"label"`
	Lab     [3]float64   `json:"lab" doc:"D65"`
	Spread  float64      `json:"spread" doc:"standard deviation within the spot"`
	Doubt   string       `json:"doubt" doc:"why it is not believed; empty where it is"`
	Outline [][2]float64 `json:"outline" doc:"of the spot, pixels of the picture"`
	Shown
}

// PhotoRead is what a photo says of a sheet, or why it is refused.
type PhotoRead struct {
	Readings []PhotoReading `json:"readings"`
	Refused  string         `json:"refused" doc:"why it cannot be trusted, and what to do; empty where it can"`
	Marks    [4][2]float64  `json:"marks" doc:"the middles of the four marks, pixels: upper left, upper right, lower right, lower left of the sheet"`
	Found    bool           `json:"found" doc:"the marks were found by the program"`
	Kelvin   float64        `json:"kelvin" doc:"the light as the paper shows it; 0 where it is refused"`
	Contrast float64        `json:"contrast" doc:"the brightest of the light on the sheet over the darkest"`
	Bowed    bool           `json:"bowed" doc:"the light was found with its bowl, and not as a slope alone"`
}

// PhotoReadOf shapes what a photo says of a sheet.
func PhotoReadOf(s *bench.Sheet, r photo.Result, found bool, refused error) PhotoRead {
	out := PhotoRead{Readings: []PhotoReading{}, Marks: r.Corners, Found: found, Kelvin: r.Kelvin, Contrast: round(r.Contrast, 2), Bowed: r.Bowed}
	if refused != nil {
		out.Refused, out.Kelvin, out.Contrast = refused.Error(), 0, 0
		return out
	}
	for _, one := range r.Readings {
		region := &s.Regions[one.Region]
		reading := PhotoReading{Slot: region.ID, Label: region.Label, Lab: [3]float64{round(one.Lab.L, 2), round(one.Lab.A, 2), round(one.Lab.B, 2)}, Spread: round(one.Spread, 2), Doubt: one.Doubt, Shown: shown(one.Lab.OKLab()), Outline: [][2]float64{}}
		for _, at := range one.Outline {
			reading.Outline = append(reading.Outline, [2]float64{round(at[0], 1), round(at[1], 1)})
		}
		out.Readings = append(out.Readings, reading)
	}
	return out
}
