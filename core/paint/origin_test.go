package paint

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
)

func TestOriginsAreMadeOrRefused(t *testing.T) {
	reading := func(lab ...float64) *RawReading {
		return &RawReading{Lab: (*[3]float64)(lab), Source: Eye, Medium: "acrylic", Judged: "dry"}
	}
	for name, c := range map[string]struct {
		origin Origin
		made   Making
		says   string
	}{
		"two swatches":     {Origin{Kind: "swatches", Mass: reading(43, -33, -18), Tint: reading(72, -30, -15), WhiteShare: 0.9}, "swatches", ""},
		"by hex":           {Origin{Kind: "swatches", Mass: &RawReading{Hex: "#7a2a1e", Medium: "oil", Judged: "wet"}, Tint: reading(70, 20, 15), WhiteShare: 0.9}, "swatches", ""},
		"no white":         {Origin{Kind: "swatches", Mass: reading(43, -33, -18), Tint: reading(72, -30, -15)}, "", "Share of white of 0"[1:]},
		"dark tint":        {Origin{Kind: "swatches", Mass: reading(72, -30, -15), Tint: reading(43, -33, -18), WhiteShare: 0.9}, "", "wrong way round"},
		"one swatch":       {Origin{Kind: "swatches", Mass: reading(72, -30, -15), WhiteShare: 0.9}, "", "two swatches are needed"},
		"no colour":        {Origin{Kind: "swatches", Mass: &RawReading{Medium: "oil"}, Tint: reading(1, 1, 1)}, "", "masstone: no colour"},
		"bad hex":          {Origin{Kind: "swatches", Mass: &RawReading{Hex: "#zzz", Medium: "oil"}, Tint: reading(1, 1, 1)}, "", "six digits"},
		"short spectrum":   {Origin{Kind: "swatches", Mass: &RawReading{Spectrum: []float64{1}, Medium: "oil"}, Tint: reading(1, 1, 1)}, "", "36 are needed"},
		"no such medium":   {Origin{Kind: "swatches", Mass: &RawReading{Medium: "wax"}, Tint: reading(1, 1, 1)}, "", "unknown medium"},
		"label":            {Origin{Kind: "label", Pigments: []string{"PV23", "pv19"}}, "label", ""},
		"no pigments":      {Origin{Kind: "label"}, "", "at least one pigment"},
		"unknown pigment":  {Origin{Kind: "label", Pigments: []string{"PX1"}}, "", "unknown paint"},
		"adjusted":         {Origin{Kind: "adjusted", Paint: "PB29", Factor: 2, Shift: -5}, "adjusted", ""},
		"factor left out":  {Origin{Kind: "adjusted", Paint: "PB29", Shift: 5}, "adjusted", ""},
		"shifted too far":  {Origin{Kind: "adjusted", Paint: "PB29", Shift: 50}, "", "out of reach"},
		"no way at all":    {Origin{Kind: "wish"}, "", "unknown way"},
		"L* out of bounds": {Origin{Kind: "swatches", Mass: reading(143, 0, 0), Tint: reading(50, 0, 0), WhiteShare: 0.9}, "", "no colour of a surface"},
	} {
		made, err := c.origin.Derive("mine")
		if c.says != "" {
			require.Error(t, err, name)
			assert.ErrorAs(t, err, new(input.Error), name)
			assert.Contains(t, err.Error(), c.says, name)
			continue
		}
		require.NoError(t, err, name)
		assert.Equal(t, c.made, made.Making, name)
		p, err := made.Paint("tube-1", 1)
		require.NoError(t, err, name)
		assert.Equal(t, "mine", p.Name)
		if made.Fit != nil {
			assert.Less(t, made.Fit.Mass, 0.5, name)
		}
	}
}
