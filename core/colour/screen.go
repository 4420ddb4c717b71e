package colour

import "github.com/lucasb-eyer/go-colorful"

// Screen is a colour as an sRGB screen shows it.
type Screen struct {
	Hex     string // "#rrggbb"
	Clipped bool   // brighter than the screen can show: chroma was reduced
}

// gamutSlack forgives rounding at the faces of the sRGB cube, in linear light.
const gamutSlack = 1e-4

// Screen brings a colour to sRGB. Outside the gamut its chroma is reduced, at
// the same lightness and hue, until it fits.
func (o OKLab) Screen() Screen {
	r, g, b := o.linearRGB()
	clipped := !inGamut(r, g, b)
	if clipped {
		in, out := 0.0, 1.0
		for range 24 {
			mid := (in + out) / 2
			if inGamut(OKLab{o.L, o.A * mid, o.B * mid}.linearRGB()) {
				in = mid
			} else {
				out = mid
			}
		}
		r, g, b = OKLab{o.L, o.A * in, o.B * in}.linearRGB()
	}
	return Screen{colorful.LinearRgb(r, g, b).Clamped().Hex(), clipped}
}

// linearRGB is linear-light sRGB, not limited to 0..1 [Ottosson 2020].
func (o OKLab) linearRGB() (r, g, b float64) {
	l := o.L + 0.3963377774*o.A + 0.2158037573*o.B
	m := o.L - 0.1055613458*o.A - 0.0638541728*o.B
	s := o.L - 0.0894841775*o.A - 1.2914855480*o.B
	l, m, s = l*l*l, m*m*m, s*s*s
	return 4.0767416621*l - 3.3077115913*m + 0.2309699292*s,
		-1.2684380046*l + 2.6097574011*m - 0.3413193965*s,
		-0.0041960863*l - 0.7034186147*m + 1.7076147010*s
}

func inGamut(r, g, b float64) bool {
	return min(r, g, b) >= -gamutSlack && max(r, g, b) <= 1+gamutSlack
}
