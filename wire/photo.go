package wire

import (
	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/photo"
)

// PhotoReading is what a photo says of one place.
type PhotoReading struct {
	Slot    string       `json:"slot" doc:"id of the region"`
	Label   string       `json:"label"`
	Lab     [3]float64   `json:"lab" doc:"D65, without what the photo does to it where that was found"`
	AsSeen  [3]float64   `json:"asSeen" doc:"D65, as the photo shows it: what is kept"`
	Spread  float64      `json:"spread" doc:"standard deviation within the spot"`
	Doubt   string       `json:"doubt" doc:"why it is not believed; empty where it is"`
	Outline [][2]float64 `json:"outline" doc:"of the spot, pixels of the picture"`
	Light   [3]float64   `json:"light" doc:"bare paper there, linear light of the picture: kept with the reading"`
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
	Ink      *PhotoGrey     `json:"ink,omitempty" doc:"of the marks, as it is seen: kept with each reading"`
	Step     *PhotoGrey     `json:"step,omitempty" doc:"the grey step beside a mark"`
	Does     string         `json:"does" doc:"what the photo does to colours, in a sentence; empty where nothing is known or to be said"`
	Bowed    bool           `json:"bowed" doc:"the light was found with its bowl, and not as a slope alone"`
}

// PhotoGrey is a printed grey as a photo shows it.
type PhotoGrey struct {
	Lab   [3]float64 `json:"lab" doc:"D65"`
	Light [3]float64 `json:"light" doc:"bare paper beside it"`
}

func photoGreyOf(g *photo.Grey) *PhotoGrey {
	if g == nil {
		return nil
	}
	return &PhotoGrey{labOf(g.Lab), lightOf(g.Light)}
}

// Core is the grey; nil where there is none.
func (g *PhotoGrey) Core() *photo.Grey {
	if g == nil {
		return nil
	}
	return &photo.Grey{Lab: colour.Lab{L: g.Lab[0], A: g.Lab[1], B: g.Lab[2]}, Light: g.Light}
}

func lightOf(l photo.Light) [3]float64 {
	return [3]float64{round(l[0], 4), round(l[1], 4), round(l[2], 4)}
}

func outline(points [][2]float64) [][2]float64 {
	out := [][2]float64{}
	for _, at := range points {
		out = append(out, [2]float64{round(at[0], 1), round(at[1], 1)})
	}
	return out
}

// PhotoReadOf shapes what a photo says of a sheet.
func PhotoReadOf(s *bench.Sheet, r photo.Result, found bool, refused error, told *journal.Explanation) PhotoRead {
	out := PhotoRead{Readings: []PhotoReading{}, Marks: r.Corners, Found: found, Kelvin: r.Kelvin, Contrast: round(r.Contrast, 2), Bowed: r.Bowed}
	out.Width, out.Height = photo.StraightSize(s)
	if refused != nil {
		out.Refused, out.Kelvin, out.Contrast = refused.Error(), 0, 0
		return out
	}
	out.Ink, out.Step = photoGreyOf(r.Greys.Ink), photoGreyOf(r.Greys.Step)
	for _, b := range told.Photos {
		out.Does = b.Says()
	}
	for _, one := range r.Readings {
		region := &s.Regions[one.Region]
		taken := one.Lab
		for _, p := range told.Places {
			if p.Region == region.ID {
				taken = p.Read
			}
		}
		reading := PhotoReading{Slot: region.ID, Label: region.Label, Lab: labOf(taken), AsSeen: labOf(one.Lab), Spread: round(one.Spread, 2), Doubt: one.Doubt, Light: lightOf(one.Light), Shown: shown(taken.OKLab()), Outline: outline(one.Outline), Straight: outline(photo.StraightOutline(s, one.Region, one.Spot))}
		out.Readings = append(out.Readings, reading)
	}
	return out
}
