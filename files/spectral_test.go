package files

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

func TestCGATSGoesOutAndComesBack(t *testing.T) {
	file := PaintsCGATS(paint.Library())
	got, err := ReadSpectra(file)
	require.NoError(t, err)
	assert.Equal(t, "CGATS", got.Format)
	assert.False(t, got.Percent)
	require.Len(t, got.Samples, 2*len(paint.Library()))
	for i, p := range paint.Library() {
		mass, tint := p.SwatchSpectra()
		assert.InDeltaSlice(t, mass[:], got.Samples[2*i].Spectrum[:], 1e-5, p.ID)
		assert.InDeltaSlice(t, tint[:], got.Samples[2*i+1].Spectrum[:], 1e-5, p.ID)
		assert.Zero(t, got.Samples[2*i].Held)
		assert.Contains(t, got.Samples[2*i].Name, p.ID)
	}
}

// rows writes two samples on a grid, as columns or standing.
func columns(prefix, sep string, from, to, step int, value func(nm int) string) string {
	head, a, b := []string{"name"}, []string{"mass"}, []string{"tint"}
	for nm := from; nm <= to; nm += step {
		head = append(head, fmt.Sprintf("%s%d", prefix, nm))
		a, b = append(a, value(nm)), append(b, value(nm+5))
	}
	return strings.Join(head, sep) + "\n" + strings.Join(a, sep) + "\n" + strings.Join(b, sep) + "\n"
}

func TestSpectraAreReadInManyWritings(t *testing.T) {
	unit := func(nm int) string { return fmt.Sprintf("%.4f", float64(nm)/1000) }
	percent := func(nm int) string { return fmt.Sprintf("%.2f", float64(nm)/10) }
	cgats := func(field string, value func(int) string) string {
		var head, row []string
		for nm := 400; nm <= 700; nm += 10 {
			head, row = append(head, fmt.Sprintf("%s%d", field, nm)), append(row, value(nm))
		}
		return "CGATS.17\n# a remark\nKEYWORD \"MEASURED BY\"\nBEGIN_DATA_FORMAT\nSAMPLE_ID\tSAMPLE_NAME " + strings.Join(head, " ") + "\nEND_DATA_FORMAT\nBEGIN_DATA\n1 \"mass of blue\"\n" + strings.Join(row, "\t") + "\n2 tint " + strings.Join(row, " ") + "\nEND_DATA\n"
	}
	standing := "nm,mass,tint\n"
	for nm := 380; nm <= 730; nm += 10 {
		standing += fmt.Sprintf("%d,%s,%s\n", nm, unit(nm), unit(nm))
	}
	for name, c := range map[string]struct {
		file    string
		percent bool
		held    int
		first   string
	}{
		"CGATS, SPECTRAL_, 0 to 1":   {cgats("SPECTRAL_", unit), false, 5, "mass of blue"},
		"CGATS, SPEC_, percent":      {cgats("SPEC_", percent), true, 5, "mass of blue"},
		"CGATS, SPECTRAL_NM":         {cgats("SPECTRAL_NM", unit), false, 5, "mass of blue"},
		"CSV, commas":                {columns("", ",", 380, 730, 10, unit), false, 0, "mass"},
		"CSV, semicolons and commas": {columns("R", ";", 380, 740, 20, func(nm int) string { return strings.Replace(percent(nm), ".", ",", 1) }), true, 0, "mass"},
		"CSV, tabs, 5 nm":            {columns("SPECTRAL_", "\t", 360, 780, 5, unit), false, 0, "mass"},
		"CSV, standing":              {standing, false, 0, "mass"},
		"CSV, a byte order mark":     {"\xef\xbb\xbf" + columns("", ",", 380, 730, 10, unit), false, 0, "mass"},
	} {
		got, err := ReadSpectra([]byte(c.file))
		require.NoError(t, err, name)
		require.Len(t, got.Samples, 2, name)
		assert.Equal(t, c.percent, got.Percent, name)
		assert.Equal(t, c.held, got.Samples[0].Held, name)
		assert.Equal(t, c.first, got.Samples[0].Name, name)
		for i := 2; i < 33; i++ {
			assert.InDelta(t, colour.NM(i)/1000, got.Samples[0].Spectrum[i], 1e-4, "%s at %v", name, colour.NM(i))
		}
	}
}

func TestSpectralFilesThatCannotBeUsedSayWhy(t *testing.T) {
	unit := func(nm int) string { return fmt.Sprintf("%.4f", float64(nm)/1000) }
	good := string(PaintsCGATS(paint.Library()[:1]))
	for says, file := range map[string]string{
		"cut off":                  strings.Split(good, "END_DATA\n")[0],
		"BEGIN_DATA is missing":    strings.Split(good, "BEGIN_DATA\n")[0],
		"values":                   strings.Replace(good, "END_DATA\n", "3 \"short\" 0.5\nEND_DATA\n", 1),
		"before BEGIN_DATA_FORMAT": "CGATS.17\nBEGIN_DATA\n1\nEND_DATA\n",
		"fields are spectral":      "CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\nEND_DATA\n",
		"no samples":               columns("", ",", 380, 730, 10, unit)[:strings.Index(columns("", ",", 380, 730, 10, unit), "\n")+1],
		"not closed":               strings.Replace(good, "\"", "", 1),
		"no value at":              strings.Replace(columns("", ",", 380, 730, 10, unit), "0.5000", "", 1),
		"is not a number":          strings.Replace(columns("", ",", 380, 730, 10, unit), "0.5000", "half", 1),
		"covers 420 to 700":        columns("", ",", 420, 700, 10, unit),
		"4 nm apart":               columns("", ",", 380, 730, 4, unit),
		"no wavelength":            "a,b\n1,2\n",
		"stands twice":             strings.Replace(columns("", ",", 380, 730, 10, unit), "390", "380", 1),
		"cannot be":                columns("", ",", 380, 730, 10, func(nm int) string { return "-0.4" }),
		"UTF-8":                    "\xff\xfea,b\n",
	} {
		_, err := ReadSpectra([]byte(file))
		require.Error(t, err, says)
		assert.ErrorAs(t, err, new(input.Error), says)
		assert.Contains(t, err.Error(), says)
	}
}

func TestASpectralFileMakesAPaint(t *testing.T) {
	p, err := paint.Find("PR122")
	require.NoError(t, err)
	samples, err := ReadSpectra(PaintsCGATS([]*paint.Paint{p}))
	require.NoError(t, err)
	reading := func(i int) *paint.RawReading {
		return &paint.RawReading{Spectrum: samples.Samples[i].Spectrum[:], Source: paint.Instrument, Medium: "gouache", Judged: "wet"} // gloss, as masstones are exported
	}
	made, err := paint.Origin{Kind: "swatches", Mass: reading(0), Tint: reading(1), WhiteShare: 0.9, Pigments: []string{"PR122"}}.Derive("mine")
	require.NoError(t, err)
	assert.Equal(t, paint.FromCurves, made.Making)
	own, err := made.Paint("x", 1)
	require.NoError(t, err)
	assert.InDelta(t, p.Undertone().Hue, own.Undertone().Hue, 0.5)
	assert.Equal(t, "PR122", own.CI)
}

func FuzzReadSpectra(f *testing.F) {
	f.Add(PaintsCGATS(paint.Library()[:2]))
	f.Add([]byte(columns("", ";", 380, 730, 10, func(nm int) string { return "0,5" })))
	for _, seed := range []string{"CGATS.17", "BEGIN_DATA_FORMAT", "CGATS.17\nBEGIN_DATA_FORMAT\nSPECTRAL_380\nEND_DATA_FORMAT\nBEGIN_DATA\n1", "CGATS.17\nBEGIN_DATA_FORMAT\nSPECTRAL_380\nBEGIN_DATA\n1\nEND_DATA", "\"", "380,390\n1,2"} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadSpectra(data)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		for _, s := range got.Samples {
			require.Len(t, s.Spectrum, colour.Bands)
			for _, v := range s.Spectrum {
				require.True(t, v >= -0.01 && v <= 1.2, v)
			}
		}
	})
}
