package colour

import (
	"fmt"

	"github.com/lucasb-eyer/go-colorful"
)

// Screen is a colour as a screen shows it.
type Screen struct {
	Hex     string // "#rrggbb", sRGB
	Clipped bool   // brighter than sRGB can show: chroma was reduced
	// P3 is the colour for a Display P3 screen as CSS writes it; empty where
	// sRGB shows it as well. ClippedP3 says that chroma was reduced even there.
	P3        string
	ClippedP3 bool
}

// gamutSlack forgives rounding at the faces of the RGB cube, in linear light.
const gamutSlack = 1e-4

// Screen brings a colour to sRGB and, where that cannot show it, to Display P3.
// Outside a gamut its chroma is reduced, at the same lightness and hue, until
// it fits.
func (o OKLab) Screen() Screen {
	in, clipped := o.brought(OKLab.linearRGB)
	s := Screen{Hex: colorful.LinearRgb(in[0], in[1], in[2]).Clamped().Hex(), Clipped: clipped}
	if clipped {
		var p3 [3]float64
		p3, s.ClippedP3 = o.brought(OKLab.linearP3)
		c := colorful.LinearRgb(p3[0], p3[1], p3[2]).Clamped() // P3 has sRGB's coding
		s.P3 = fmt.Sprintf("color(display-p3 %.4f %.4f %.4f)", c.R, c.G, c.B)
	}
	return s
}

// brought is the colour in the linear channels of a screen, with as much of its
// chroma as fits, and whether any was lost.
func (o OKLab) brought(channels func(OKLab) [3]float64) ([3]float64, bool) {
	rgb := channels(o)
	if inGamut(rgb) {
		return rgb, false
	}
	in, out := 0.0, 1.0
	for range 24 {
		mid := (in + out) / 2
		if inGamut(channels(OKLab{o.L, o.A * mid, o.B * mid})) {
			in = mid
		} else {
			out = mid
		}
	}
	return channels(OKLab{o.L, o.A * in, o.B * in}), true
}

// linearRGB is linear-light sRGB, not limited to 0..1 [Ottosson 2020].
func (o OKLab) linearRGB() [3]float64 {
	l := o.L + 0.3963377774*o.A + 0.2158037573*o.B
	m := o.L - 0.1055613458*o.A - 0.0638541728*o.B
	s := o.L - 0.0894841775*o.A - 1.2914855480*o.B
	l, m, s = l*l*l, m*m*m, s*s*s
	return [3]float64{
		4.0767416621*l - 3.3077115913*m + 0.2309699292*s,
		-1.2684380046*l + 2.6097574011*m - 0.3413193965*s,
		-0.0041960863*l - 0.7034186147*m + 1.7076147010*s,
	}
}

// p3 takes linear sRGB to linear Display P3: both have the white D65 [SMPTE EG
// 432-1; CSS Color 4].
var p3 = [3][3]float64{
	{0.8224619688, 0.1775380312, 0},
	{0.0331941989, 0.9668058011, 0},
	{0.0170826307, 0.0723974407, 0.9105199286},
}

func (o OKLab) linearP3() (out [3]float64) {
	rgb := o.linearRGB()
	for i, row := range p3 {
		out[i] = row[0]*rgb[0] + row[1]*rgb[1] + row[2]*rgb[2]
	}
	return out
}

func inGamut(rgb [3]float64) bool {
	return min(rgb[0], rgb[1], rgb[2]) >= -gamutSlack && max(rgb[0], rgb[1], rgb[2]) <= 1+gamutSlack
}
