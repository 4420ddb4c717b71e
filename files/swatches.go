package files

import (
	"bytes"
	"encoding/json"
	"encoding/xml"
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
)

// Swatch is one colour of a palette.
type Swatch struct {
	Group    string // the system it is of, where there are several; empty else
	Name     string
	Recipe   string           // in short; empty where it is as it comes
	Lab      colour.Lab       // D65, 2 degrees
	Spectrum *colour.Spectrum // reflectance, 0 to 1; nil where only its colour was read
}

// SheetSwatches are the places of a sheet as they look when they are painted and dry.
func SheetSwatches(s *bench.Sheet, in paint.Medium, group string) (out []Swatch) {
	for i := range s.Regions {
		r := &s.Regions[i]
		look := r.Appearance(in, false)
		one := Swatch{Group: group, Name: r.Label, Lab: look.Lab(), Spectrum: &look}
		if len(r.Recipe) > 1 {
			one.Recipe = r.Recipe.String()
		} else {
			one.Recipe = r.Parents
		}
		out = append(out, one)
	}
	return out
}

// PaintedSwatches are the places of a sitting: as they were read dry, else as they are computed, which is said.
func PaintedSwatches(a *journal.Account) (out []Swatch) {
	for i := range a.Places {
		p, r := &a.Places[i], &a.Sheet.Regions[i]
		one := Swatch{Name: r.Label + " (as computed)", Recipe: r.Recipe.String(), Lab: p.Computed}
		if p.Dry != nil && p.Dry.Doubt == "" {
			one.Name, one.Lab = r.Label, p.Dry.Lab
		}
		out = append(out, one)
	}
	return out
}

// paintSwatches are the masstone of each paint and a tint of 1 part in 9 of titanium white, wet.
func paintSwatches(paints []*paint.Paint) (out []Swatch) {
	for _, p := range paints {
		mass, tint := p.SwatchSpectra()
		for _, of := range []struct {
			what string
			look colour.Spectrum
		}{{"masstone", mass}, {"tint", tint}} {
			out = append(out, Swatch{Name: cgatsName(p, of.what), Lab: of.look.Lab(), Spectrum: &of.look})
		}
	}
	return out
}

// File is a file that is carried away.
type File struct {
	Body        []byte
	ContentType string
	Ending      string // of its name
}

// SwatchFormat is one of the formats of a palette.
type SwatchFormat string

// The formats of a palette: a GIMP palette, a table, JSON, CGATS.17, spectra with the header that colour tools
// compute from, and a drawing.
const (
	GPL   SwatchFormat = "gpl"
	CSV   SwatchFormat = "csv"
	JSON  SwatchFormat = "json"
	CGATS SwatchFormat = "cgats"
	SPECT SwatchFormat = "sp"
	SVGs  SwatchFormat = "svg"
)

// SwatchFormats lists them.
var SwatchFormats = []SwatchFormat{GPL, CSV, JSON, CGATS, SPECT, SVGs}

// Swatches writes a palette in a format. The error is an input.Error.
func Swatches(f SwatchFormat, name, about string, all []Swatch) (File, error) {
	if f == SPECT && slices.ContainsFunc(all, func(s Swatch) bool { return s.Spectrum == nil }) {
		return File{}, input.Errorf("these colours were read without their spectra: take them along as CGATS, which has CIELAB")
	}
	switch f {
	case GPL:
		return File{swatchesGPL(name, all), "text/plain; charset=utf-8", "gpl"}, nil
	case CSV:
		return File{swatchesCSV(all), "text/csv; charset=utf-8", "csv"}, nil
	case JSON:
		body, err := swatchesJSON(name, about, all)
		return File{body, "application/json", "json"}, err
	case CGATS:
		return File{cgats(name+", "+about, all, true), "text/plain; charset=utf-8", "txt"}, nil
	case SPECT:
		return File{spect(name+", "+about, all), "text/plain; charset=utf-8", "sp"}, nil
	case SVGs:
		return File{swatchesSVG(name, about, all), "image/svg+xml", "svg"}, nil
	}
	return File{}, input.Errorf("unknown format %q: choose %s", input.Clip(string(f)), strings.Trim(fmt.Sprint(SwatchFormats), "[]"))
}

// called is a swatch's name with the system that it is of.
func (s *Swatch) called() string {
	if s.Group == "" {
		return s.Name
	}
	return s.Group + ": " + s.Name
}

func swatchesGPL(name string, all []Swatch) []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "GIMP Palette\nName: %s\nColumns: 12\n#\n", oneLine(name))
	for i := range all {
		paletteLine(&b, all[i].Lab.OKLab(), all[i].called())
	}
	return b.Bytes()
}

func swatchesCSV(all []Swatch) []byte {
	header := []string{"system", "name", "recipe", "srgb", "L", "a", "b"}
	for i := range colour.Bands {
		header = append(header, fmt.Sprintf("R%.0f", colour.NM(i)))
	}
	rows := [][]string{header}
	for i := range all {
		s := &all[i]
		row := []string{textCell(s.Group), textCell(s.Name), textCell(s.Recipe), s.Lab.OKLab().Screen().Hex, figure(s.Lab.L, 3), figure(s.Lab.A, 3), figure(s.Lab.B, 3)}
		for k := range colour.Bands {
			value := ""
			if s.Spectrum != nil {
				value = figure(s.Spectrum[k], 5)
			}
			row = append(row, value)
		}
		rows = append(rows, row)
	}
	return table(rows)
}

// The format of a palette in JSON, and the version that is written.
const (
	paletteFormat  = "gyrophane-palette"
	paletteVersion = 1
)

type paletteJSON struct {
	Format   string       `json:"format"`
	Version  int          `json:"version"`
	Name     string       `json:"name"`
	About    string       `json:"about"`
	Swatches []swatchJSON `json:"swatches"`
}

type swatchJSON struct {
	System   string     `json:"system,omitempty"`
	Name     string     `json:"name"`
	Recipe   string     `json:"recipe,omitempty"`
	Lab      [3]float64 `json:"lab"`
	Colour   string     `json:"colour"`
	Spectrum []float64  `json:"spectrum,omitempty"`
}

func swatchesJSON(name, about string, all []Swatch) ([]byte, error) {
	out := paletteJSON{Format: paletteFormat, Version: paletteVersion, Name: name, About: about, Swatches: []swatchJSON{}}
	for i := range all {
		s := &all[i]
		one := swatchJSON{System: s.Group, Name: s.Name, Recipe: s.Recipe, Lab: labJSON(s.Lab), Colour: s.Lab.OKLab().Screen().Hex}
		if s.Spectrum != nil {
			one.Spectrum = s.Spectrum[:]
		}
		out.Swatches = append(out.Swatches, one)
	}
	data, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		return nil, fmt.Errorf("the palette could not be written: %w", err)
	}
	return append(data, '\n'), nil
}

// spectral says that all of some swatches have spectra.
func spectral(all []Swatch) bool {
	return len(all) > 0 && !slices.ContainsFunc(all, func(s Swatch) bool { return s.Spectrum == nil })
}

// cgats is swatches as CGATS.17 text: CIELAB where that is wanted, D65 and 2 degrees, and reflectance from 0 to 1
// where all have it.
func cgats(about string, all []Swatch, lab bool) []byte {
	var b bytes.Buffer
	fields := 2
	names := "SAMPLE_ID SAMPLE_NAME"
	if lab {
		fields, names, about = fields+3, names+" LAB_L LAB_A LAB_B", about+", CIELAB D65 2 degrees"
	}
	bands := spectral(all)
	if bands {
		fields += colour.Bands
		for i := range colour.Bands {
			names += fmt.Sprintf(" SPECTRAL_%.0f", colour.NM(i))
		}
	}
	fmt.Fprintf(&b, "CGATS.17\nORIGINATOR \"Gyrophane\"\nDESCRIPTOR %q\n", ascii(about))
	fmt.Fprintf(&b, "NUMBER_OF_FIELDS %d\nBEGIN_DATA_FORMAT\n%s\nEND_DATA_FORMAT\nNUMBER_OF_SETS %d\nBEGIN_DATA\n", fields, names, len(all))
	for i := range all {
		s := &all[i]
		fmt.Fprintf(&b, "%d %q", i+1, ascii(s.called()))
		if lab {
			fmt.Fprintf(&b, " %.2f %.2f %.2f", s.Lab.L, s.Lab.A, s.Lab.B)
		}
		if bands {
			for _, v := range s.Spectrum {
				fmt.Fprintf(&b, " %.5f", v)
			}
		}
		b.WriteByte('\n')
	}
	b.WriteString("END_DATA\n")
	return b.Bytes()
}

// spect is the spectra of swatches as a table of the SPECT kind, in percent, which says of itself what it holds, so that colour
// tools compute from it without more.
func spect(about string, all []Swatch) []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "SPECT\n\nDESCRIPTOR %q\nORIGINATOR \"Gyrophane\"\n", ascii(about))
	for _, of := range [][2]string{
		{"SPECTRAL_BANDS", fmt.Sprint(colour.Bands)}, {"SPECTRAL_START_NM", fmt.Sprintf("%.1f", colour.NM(0))}, {"SPECTRAL_END_NM", fmt.Sprintf("%.1f", colour.NM(colour.Bands-1))},
		{"SPECTRAL_NORM", "100.0"}, {"MEAS_TYPE", "REFLECTIVE"},
	} {
		fmt.Fprintf(&b, "KEYWORD %q\n%s %q\n", of[0], of[0], of[1])
	}
	fmt.Fprintf(&b, "\nNUMBER_OF_FIELDS %d\nBEGIN_DATA_FORMAT\nSAMPLE_ID SAMPLE_NAME", 2+colour.Bands)
	for i := range colour.Bands {
		fmt.Fprintf(&b, " SPEC_%.0f", colour.NM(i))
	}
	fmt.Fprintf(&b, "\nEND_DATA_FORMAT\n\nNUMBER_OF_SETS %d\nBEGIN_DATA\n", len(all))
	for i := range all {
		fmt.Fprintf(&b, "%d %q", i+1, ascii(all[i].called()))
		for _, v := range all[i].Spectrum {
			fmt.Fprintf(&b, " %.4f", 100*v)
		}
		b.WriteByte('\n')
	}
	b.WriteString("END_DATA\n")
	return b.Bytes()
}

// Sizes of swatches in a drawing, in its units.
const (
	swatchWide, swatchHigh = 120, 72
	swatchApart            = 12
	swatchText             = 11
	swatchColumns          = 6
)

// swatchesSVG draws swatches in rows with their names, each system under its own.
func swatchesSVG(name, about string, all []Swatch) []byte {
	var b bytes.Buffer
	escaped := func(text string) string {
		var out bytes.Buffer
		_ = xml.EscapeText(&out, []byte(oneLine(text))) // a buffer takes everything
		return out.String()
	}
	write := func(x, y, size int, text string) {
		fmt.Fprintf(&b, "<text x=\"%d\" y=\"%d\" font-size=\"%d\">%s</text>\n", x, y, size, escaped(text))
	}
	write(swatchApart, 30, 20, name)
	write(swatchApart, 50, 13, about)
	y, column, group := 62, 0, ""
	for i := range all {
		s := &all[i]
		if s.Group != group || column == swatchColumns {
			if i > 0 && column > 0 {
				y += swatchHigh + 3*swatchText + swatchApart
			}
			column = 0
			if s.Group != group {
				group = s.Group
				write(swatchApart, y+16, 14, group)
				y += 24
			}
		}
		x := swatchApart + column*(swatchWide+swatchApart)
		fmt.Fprintf(&b, "<rect x=\"%d\" y=\"%d\" width=\"%d\" height=\"%d\" fill=\"%s\"><title>%s</title></rect>\n", x, y, swatchWide, swatchHigh, s.Lab.OKLab().Screen().Hex, escaped(s.called()+" "+s.Recipe))
		write(x, y+swatchHigh+swatchText+1, swatchText, clipped(s.Name, 21))
		write(x, y+swatchHigh+2*swatchText+3, swatchText-1, clipped(s.Recipe, 23))
		column++
	}
	w, h := swatchColumns*(swatchWide+swatchApart)+swatchApart, y+swatchHigh+3*swatchText+swatchApart
	return []byte(fmt.Sprintf("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 %d %d\" font-family=\"sans-serif\" fill=\"#161616\">\n<title>%s</title>\n%s</svg>\n", w, h, escaped(name), b.String()))
}

// clipped is a text of so many characters at the most.
func clipped(text string, most int) string {
	if runes := []rune(text); len(runes) > most {
		return string(runes[:most-1]) + "…"
	}
	return text
}
