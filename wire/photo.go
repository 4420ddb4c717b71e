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
	// Straight is the same on the straightened sheet.
	Straight [][2]float64 `json:"straight" doc:"of the spot, pixels of the straightened sheet"`
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
	Width    int            `json:"straightWidth" doc:"of the straightened sheet, pixels"`
	Height   int            `json:"straightHeight"`
	Bowed    bool           `json:"bowed" doc:"the light was found with its bowl, and not as a slope alone"`
}

func outline(points [][2]float64) [][2]float64 {
	out := [][2]float64{}
	for _, at := range points {
		out = append(out, [2]float64{round(at[0], 1), round(at[1], 1)})
	}
	return out
}

// PhotoReadOf shapes what a photo says of a sheet.
func PhotoReadOf(s *bench.Sheet, r photo.Result, found bool, refused error) PhotoRead {
	out := PhotoRead{Readings: []PhotoReading{}, Marks: r.Corners, Found: found, Kelvin: r.Kelvin, Contrast: round(r.Contrast, 2), Bowed: r.Bowed}
	out.Width, out.Height = photo.StraightSize(s)
	if refused != nil {
		out.Refused, out.Kelvin, out.Contrast = refused.Error(), 0, 0
		return out
	}
	for _, one := range r.Readings {
		region := &s.Regions[one.Region]
		reading := PhotoReading{Slot: region.ID, Label: region.Label, Lab: [3]float64{round(one.Lab.L, 2), round(one.Lab.A, 2), round(one.Lab.B, 2)}, Spread: round(one.Spread, 2), Doubt: one.Doubt, Shown: shown(one.Lab.OKLab()), Outline: outline(one.Outline), Straight: outline(photo.StraightOutline(s, one.Region, one.Spot))}
		out.Readings = append(out.Readings, reading)
	}
	return out
}
