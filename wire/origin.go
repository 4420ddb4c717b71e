package wire

import (
	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Reading is the colour of a painted swatch as it was typed, picked or
// measured: one of lab, hex and spectrum.
type Reading struct {
	Lab      *[3]float64  `json:"lab,omitempty" doc:"CIELAB under D65, 2 degrees"`
	Hex      string       `json:"hex,omitempty" maxLength:"20" doc:"#rrggbb"`
	Spectrum []float64    `json:"spectrum,omitempty" maxItems:"36" doc:"reflectance, 380 to 730 nm every 10 nm, 0 to 1"`
	Source   paint.Source `json:"source" format:"source"`
	Medium   string       `json:"medium" format:"medium"`
	Judged   string       `json:"judged" format:"judged"`
}

// Origin is how a paint of a box was come by, and from what.
type Origin struct {
	Kind       string   `json:"kind" enum:"swatches,label,adjusted" doc:"worked out from two swatches; after the pigments of a label; like a library paint but changed"`
	Mass       *Reading `json:"mass,omitempty" doc:"the masstone: of swatches, or of a label whose shares are fitted"`
	Tint       *Reading `json:"tint,omitempty"`
	WhiteShare float64  `json:"whiteShare,omitempty" doc:"of the tint, by volume, 0 to 1"`
	Pigments   []string `json:"pigments,omitempty" maxItems:"6" doc:"library paints: what the label names"`
	Paint      string   `json:"paint,omitempty" maxLength:"60" doc:"the library paint that is changed"`
	Factor     float64  `json:"factor,omitempty" doc:"times as strong, 0.1 to 10"`
	Shift      float64  `json:"shift,omitempty" doc:"of the absorption, -20 to 20 nm"`
}

// Core is the origin as the core knows it.
func (o Origin) Core() paint.Origin {
	return paint.Origin{Kind: o.Kind, Mass: (*paint.RawReading)(o.Mass), Tint: (*paint.RawReading)(o.Tint), WhiteShare: o.WhiteShare,
		Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
}

// OriginOf shapes an origin; nil where there is none.
func OriginOf(o *paint.Origin) *Origin {
	if o == nil {
		return nil
	}
	return &Origin{Kind: o.Kind, Mass: (*Reading)(o.Mass), Tint: (*Reading)(o.Tint), WhiteShare: o.WhiteShare, Pigments: o.Pigments, Paint: o.Paint, Factor: o.Factor, Shift: o.Shift}
}

// Fit is how well a paint that was worked out agrees with what was given.
type Fit struct {
	Mass *float64 `json:"mass" doc:"CIEDE2000 of the masstone; null where none was given"`
	Tint *float64 `json:"tint" doc:"CIEDE2000 of the tint; null where none was given"`
	// Words judge the worse of the two.
	Words string `json:"words"`
}

// FitOf shapes the fit of a paint that was worked out; nil where there is none.
func FitOf(d paint.Derived) *Fit {
	if d.Fit == nil {
		return nil
	}
	mass := round(d.Fit.Mass, 3)
	out := &Fit{Mass: &mass, Words: d.Fit.Words()}
	if d.Tinted {
		tint := round(d.Fit.Tint, 3)
		out.Tint = &tint
	}
	return out
}

// Share is one pigment's part of a paint after its label.
type Share struct {
	Paint string  `json:"paint"`
	Name  string  `json:"name"`
	Share float64 `json:"share" doc:"by volume, 0 to 1"`
}

// SharesOf shapes the shares of the pigments of a label.
func SharesOf(d paint.Derived) (out []Share) {
	for i, share := range d.Shares {
		p, err := paint.Find(d.Pigments[i])
		if err != nil {
			continue // it was found when the shares were
		}
		out = append(out, Share{p.ID, p.Name, round(share, 4)})
	}
	return out
}

// LabelCode is one Colour Index name found on a label, and the library paints
// that may stand for it.
type LabelCode struct {
	Code    string  `json:"code"`
	Choices []Paint `json:"choices" doc:"empty where the library has none"`
}

// LabelCodes shapes what was found on a label.
func (v View) LabelCodes(codes []paint.LabelCode) []LabelCode {
	out := []LabelCode{}
	for _, code := range codes {
		found := LabelCode{Code: code.Code, Choices: []Paint{}}
		for _, p := range code.Paints {
			found.Choices = append(found.Choices, v.Paint(p))
		}
		out = append(out, found)
	}
	return out
}

// Measured is the reading of a spectrum, and its colour.
type Measured struct {
	Reading Reading `json:"reading"`
	Colour  Colour  `json:"colour"`
}

// MeasuredOf shapes a spectrum that a meter measured, of a swatch in a medium, wet
// or dry.
func MeasuredOf(s colour.Spectrum, medium, judged string) Measured {
	out := Reading{Source: paint.Instrument, Medium: medium, Judged: judged}
	for _, v := range s {
		out.Spectrum = append(out.Spectrum, round(max(v, 0), 6))
	}
	return Measured{out, colourOf(s, colour.D65)}
}

// Picked shapes the colours that were picked from a photo.
func Picked(spots map[string]paint.RawReading) map[string]Measured {
	out := map[string]Measured{}
	for name, r := range spots {
		out[name] = Measured{Reading(r), colourOfLab(colour.Lab{L: r.Lab[0], A: r.Lab[1], B: r.Lab[2]})}
	}
	return out
}

// Sample is one measured spectrum of a file.
type Sample struct {
	Name     string    `json:"name"`
	Line     int       `json:"line" doc:"of the file"`
	Spectrum []float64 `json:"spectrum" doc:"reflectance, 380 to 730 nm every 10 nm, 0 to 1"`
	Held     int       `json:"held" doc:"how many bands at the ends were not measured and are held flat"`
	Colour   Colour    `json:"colour"`
}

// Samples are the spectra of a file, and what was understood of it.
type Samples struct {
	Format  string   `json:"format" enum:"CGATS,CSV"`
	Percent bool     `json:"percent" doc:"the file counts to 100"`
	Grid    string   `json:"grid" doc:"the wavelengths in words"`
	Samples []Sample `json:"samples"`
}

// SampleOf shapes a spectrum of a file.
func SampleOf(name string, line int, s colour.Spectrum, held int) Sample {
	return Sample{Name: name, Line: line, Spectrum: reflectance(s), Held: held, Colour: colourOf(s, colour.D65)}
}
