package files

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/wheel"
)

// anAccount is a triad's wheel in gouache, its green read dry and its red doubted.
func anAccount(t testing.TB) journal.Account {
	t.Helper()
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	system, err := wheel.Selection{Kind: wheel.RYB, Roles: [3][]string{{"PY184"}, {"PR254"}, {"PB29"}}}.System(paint.Find)
	require.NoError(t, err)
	sheet := bench.Wheel(wheel.Build(system, wheel.Options{}), bench.Extras{}, bench.Usual(in))
	began := time.Date(2026, 11, 18, 9, 0, 0, 0, time.UTC)
	a := journal.Account{Name: "=Rock pool", Medium: in, Sheet: &sheet, Began: began, Ended: true, NextTime: "Rinse before the greens.", Notes: []string{"Dull light."}, Says: []string{"The ultramarine blue: about 1.6 times as strong."}}
	for i := range sheet.Regions {
		r := &sheet.Regions[i]
		look := r.Appearance(in, false)
		p := journal.AccountPlace{Coats: 1, Computed: look.Lab()}
		switch r.ID {
		case "green":
			reading := journal.Reading{Region: r.ID, Reading: paint.Reading{Lab: colour.Lab{L: 40, A: -12.345, B: 9}, Source: paint.Photo, Medium: in}}
			p.Dry, p.Expected = &reading, "green, clean"
			p.Explained = &journal.Explained{Causes: []journal.Cause{{Kind: journal.TooThin, Says: "it lies thin"}}}
			a.Readings = append(a.Readings, journal.Dated{Reading: reading, At: began.Add(time.Hour)})
		case "red":
			p.Dry = &journal.Reading{Region: r.ID, Reading: paint.Reading{Lab: colour.Lab{L: 41, A: 60, B: 40}, Source: paint.Photo, Medium: in}, Doubt: "it mirrors"}
		}
		a.Places = append(a.Places, p)
	}
	a.Events = []bench.Event{{ID: "a", Kind: bench.Begun, At: began}, {ID: "b", Kind: bench.Measured, At: began, Region: "green", Used: []bench.Used{{Paint: "PB29", Amount: 3}}}, {ID: "c", Kind: bench.Tested, At: began, Region: "green", Looks: &colour.Lab{L: 41, A: -11.005, B: 8}}}
	return a
}

func TestASittingLeavesAsATable(t *testing.T) {
	a := anAccount(t)
	rows, err := csv.NewReader(bytes.NewReader(SittingCSV(&a))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 13)
	at := map[string]int{}
	for i, name := range rows[0] {
		at[name] = i
	}
	for _, row := range rows[1:] {
		switch row[at["slot"]] {
		case "green":
			assert.Equal(t, "-12.35", row[at["dry_a"]])
			assert.Equal(t, "green, clean", row[at["expected"]])
			assert.Contains(t, row[at["came"]], "it lies thin")
		case "red":
			assert.Equal(t, "it mirrors", row[at["doubt"]])
		default:
			assert.Empty(t, row[at["dry_L"]])
			assert.Equal(t, "not read", row[at["came"]])
		}
	}
}

func TestASittingLeavesWhole(t *testing.T) {
	a := anAccount(t)
	data, err := SittingJSON(&a)
	require.NoError(t, err)
	var got struct {
		Format   string
		Version  int
		Places   []struct{ Slot string }
		Readings []struct {
			Slot, State string
			Lab         [3]float64
		}
		Events []struct {
			Kind  string
			Took  map[string]float64
			Looks []float64
		}
	}
	require.NoError(t, json.Unmarshal(data, &got))
	assert.Equal(t, "gyrophane-sitting", got.Format)
	assert.Equal(t, 1, got.Version)
	assert.Len(t, got.Places, 12)
	require.Len(t, got.Readings, 1)
	assert.Equal(t, [3]float64{40, -12.35, 9}, got.Readings[0].Lab)
	assert.Equal(t, "dry", got.Readings[0].State)
	assert.Equal(t, map[string]float64{"PB29": 3}, got.Events[1].Took)
	assert.Nil(t, got.Events[1].Looks)
	assert.InDeltaSlice(t, []float64{41, -11, 8}, got.Events[2].Looks, 0.011)
}

func TestPaintedColoursLeaveAsPaletteAndCGATS(t *testing.T) {
	a := anAccount(t)
	made := func(f SwatchFormat) string {
		t.Helper()
		out, err := Swatches(f, a.Name, "painted", PaintedSwatches(&a))
		require.NoError(t, err)
		return string(out.Body)
	}
	palette := made(GPL)
	assert.True(t, strings.HasPrefix(palette, "GIMP Palette\nName: =Rock pool\n"))
	assert.Equal(t, 11, strings.Count(palette, "(as computed)"), "of twelve one was read, and one of those is doubted")
	assert.Contains(t, palette, "\tgreen\n")

	cgats := made(CGATS)
	assert.Contains(t, cgats, "NUMBER_OF_SETS 12\n")
	assert.Contains(t, cgats, ` "green" 40.00 -12.35 9.00`+"\n")
	_, err := Swatches(SPECT, a.Name, "painted", PaintedSwatches(&a))
	assert.ErrorContains(t, err, "without their spectra")
}

func TestASittingsPageHoldsAllOfIt(t *testing.T) {
	a := anAccount(t)
	a.Places[3].Wet = a.Places[3].Dry
	measure := Measure()
	for _, f := range paper.Formats {
		pages := paper.Sitting(&a, f, measure)
		var texts strings.Builder
		for _, page := range pages {
			var boxes []paper.Box
			for _, m := range page.Marks {
				if m.Kind != paper.Text {
					continue
				}
				texts.WriteString(m.Text + " ")
				box := m.Box(measure)
				assert.GreaterOrEqual(t, box[0], 0.0, "%s: %s", f.Name, m.Text)
				assert.LessOrEqual(t, box[2], page.W, "%s: %s", f.Name, m.Text)
				assert.LessOrEqual(t, box[3], page.H, "%s: %s", f.Name, m.Text)
				for _, other := range boxes {
					assert.False(t, box.Overlaps(other), "%s: %s", f.Name, m.Text)
				}
				boxes = append(boxes, box)
			}
		}
		for _, says := range []string{"green", "it lies thin", "Next time: Rinse", "Dull light.", "18 November 2026"} {
			assert.Contains(t, texts.String(), says, f.Name)
		}
		pdf, err := PDF(a.Name, pages)
		require.NoError(t, err)
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF")))
	}
}

func TestReadingsOfASheetComeFromATable(t *testing.T) {
	a := anAccount(t)
	in := a.Medium
	rows, err := ReadSlots([]byte("slot;L;a;b;state;source;spread\ngreen;50,5;-30;20;wet;photo;0,4\nGREEN;50;-30;20;;;\nteal;50;0;0;dry;;\nred;150;0;0;dry;;\nred;x;0;0;dry;;\nred;50;0;0;moist;;\nred;50;0;0;dry;nose;\nred;50;0;0;dry;eye;-1\n"), a.Sheet, in)
	require.NoError(t, err)
	require.Len(t, rows, 8)
	assert.Equal(t, journal.Reading{Region: "green", Reading: paint.Reading{Lab: colour.Lab{L: 50.5, A: -30, B: 20}, Source: paint.Photo, Wet: true, Medium: in}, Spread: 0.4}, rows[0].Reading)
	assert.Empty(t, rows[1].Problem)
	assert.Equal(t, paint.Instrument, rows[1].Reading.Source)
	assert.Equal(t, 3, rows[1].Line)
	for i, says := range []string{"no place", "no colour of a surface", "is not a number", "wet or dry", "eye, photo or instrument", "spread"} {
		assert.Contains(t, rows[i+2].Problem, says)
	}
	for file, says := range map[string]string{
		"": "empty", "slot,L,a\ngreen,1,2\n": `no column "b"`, "slot,L,a,b\n": "no readings below",
	} {
		_, err := ReadSlots([]byte(file), a.Sheet, in)
		assert.ErrorContains(t, err, says)
	}
}

func FuzzReadSlots(f *testing.F) {
	a := anAccount(f)
	f.Add([]byte("slot,L,a,b,state\ngreen,50,-30,20,dry\n"))
	f.Add([]byte("slot;L;a;b\n'=green;50,1;0;0\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := ReadSlots(data, a.Sheet, a.Medium)
		if err != nil {
			return
		}
		for _, r := range rows {
			if r.Problem == "" {
				require.NoError(t, r.Reading.Check())
				require.GreaterOrEqual(t, r.Region, 0)
			}
		}
	})
}
