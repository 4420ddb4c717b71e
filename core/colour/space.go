package colour

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/lucasb-eyer/go-colorful"
)

// XYZ is a CIE 1931 colour with Y = 1 for white.
type XYZ struct{ X, Y, Z float64 }

// Lab is CIELAB: L* 0 to 100, a* and b* about -130 to 130 [CIE 15:2004].
type Lab struct{ L, A, B float64 }

// OKLab is lightness 0 to 1 and two opponent axes, about -0.4 to 0.4
// [Ottosson 2020]. Distances of 0.02 are just noticeable side by side.
type OKLab struct{ L, A, B float64 }

// OKLCh is OKLab in polar form: lightness 0 to 1, chroma 0 to about 0.4, hue
// in degrees 0 to 360.
type OKLCh struct{ L, C, H float64 }

// d65 is the white that OKLab and sRGB are defined for.
var d65 = XYZ{0.95047, 1, 1.08883}

// Lab is the CIELAB value against a white.
func (c XYZ) Lab(white XYZ) Lab {
	l, a, b := colorful.XyzToLabWhiteRef(c.X, c.Y, c.Z, [3]float64{white.X, white.Y, white.Z})
	return Lab{100 * l, 100 * a, 100 * b}
}

// XYZ is the colour that has a CIELAB value against a white; the inverse of
// XYZ.Lab [CIE 15:2004].
func (c Lab) XYZ(white XYZ) XYZ {
	x, y, z := colorful.LabToXyzWhiteRef(c.L/100, c.A/100, c.B/100, [3]float64{white.X, white.Y, white.Z})
	return XYZ{x, y, z}
}

// OKLab is the OKLab value of a CIELAB colour under this grid's D65.
func (c Lab) OKLab() OKLab { return c.XYZ(D65.White()).Adapt(D65.White(), d65).OKLab() }

// Chroma is C*ab.
func (c Lab) Chroma() float64 { return math.Hypot(c.A, c.B) }

// Adapt takes a colour seen against one white to how it looks against another,
// in lightness too, by the Bradford transform [Lam 1985]. Both whites must be
// brighter than black in every cone response.
func (c XYZ) Adapt(from, to XYZ) XYZ { return bradford(from, to).times(c) }

// ParseHex reads a screen colour, "#rrggbb" or "rrggbb", as a colour under this
// grid's D65.
func ParseHex(text string) (XYZ, error) {
	hex := strings.TrimPrefix(strings.TrimSpace(text), "#")
	if n, err := strconv.ParseUint(hex, 16, 32); err == nil && len(hex) == 6 {
		return FromSRGB(float64(n>>16)/255, float64(n>>8&255)/255, float64(n&255)/255), nil
	}
	return XYZ{}, fmt.Errorf("%.20q is no screen colour: write six digits from 0 to f, like #2a6fb0", text)
}

// FromSRGB is the colour of an sRGB pixel (each channel 0 to 1, gamma coded)
// under this grid's D65 [IEC 61966-2-1].
func FromSRGB(r, g, b float64) XYZ {
	x, y, z := colorful.Color{R: r, G: g, B: b}.Xyz()
	return XYZ{x, y, z}.Adapt(d65, D65.White())
}

// FromLinearSRGB is the colour of linear sRGB light (each channel 0 to 1, beyond that
// where a screen cannot show it) under this grid's D65 [IEC 61966-2-1].
func FromLinearSRGB(r, g, b float64) XYZ {
	x, y, z := colorful.LinearRgbToXyz(r, g, b)
	return XYZ{x, y, z}.Adapt(d65, D65.White())
}

// LinearSRGB is a colour under this grid's D65 in linear sRGB light, below 0 and above 1
// where a screen cannot show it; the inverse of FromLinearSRGB.
func (c XYZ) LinearSRGB() (r, g, b float64) {
	c = c.Adapt(D65.White(), d65)
	return colorful.XyzToLinearRgb(c.X, c.Y, c.Z)
}

// OKLab is the OKLab value of a colour seen against D65 [Ottosson 2020].
func (c XYZ) OKLab() OKLab { return c.cones().OKLab() }

func (c XYZ) cones() Cones {
	return Cones{
		0.8189330101*c.X + 0.3618667424*c.Y - 0.1288597137*c.Z,
		0.0329845436*c.X + 0.9293118715*c.Y + 0.0361456387*c.Z,
		0.0482003018*c.X + 0.2643662691*c.Y + 0.6338517070*c.Z,
	}
}

// OKLab compresses the responses and makes them opponent [Ottosson 2020].
func (c Cones) OKLab() OKLab {
	l, m, s := math.Cbrt(c.L), math.Cbrt(c.M), math.Cbrt(c.S)
	return OKLab{
		0.2104542553*l + 0.7936177850*m - 0.0040720468*s,
		1.9779984951*l - 2.4285922050*m + 0.4505937099*s,
		0.0259040371*l + 0.7827717662*m - 0.8086757660*s,
	}
}

// OKLCh is the polar form. A grey has hue 0.
func (o OKLab) OKLCh() OKLCh {
	h := math.Atan2(o.B, o.A) * 180 / math.Pi
	if h < 0 {
		h += 360
	}
	if h >= 360 { // a hair below zero rounds up to a whole turn
		h = 0
	}
	return OKLCh{o.L, o.Chroma(), h}
}

// Lightness is the CIE L* of the colour, 0 black to 100 a perfect white, and a
// little beyond where it is brighter [CIE 15:2004; Ottosson 2020].
func (o OKLab) Lightness() float64 {
	rgb := o.linearRGB()
	_, y, _ := colorful.LinearRgbToXyz(rgb[0], rgb[1], rgb[2])
	return XYZ{Y: y}.Lab(XYZ{1, 1, 1}).L
}

// Chroma is the OKLCh chroma.
func (o OKLab) Chroma() float64 { return math.Sqrt(o.A*o.A + o.B*o.B) }

// Distance is the Euclidean distance in OKLab.
func (o OKLab) Distance(p OKLab) float64 {
	dl, da, db := o.L-p.L, o.A-p.A, o.B-p.B
	return math.Sqrt(dl*dl + da*da + db*db)
}

// OKLab is the Cartesian form.
func (c OKLCh) OKLab() OKLab {
	sin, cos := math.Sincos(c.H * math.Pi / 180)
	return OKLab{c.L, c.C * cos, c.C * sin}
}

// matrix acts on XYZ from the left.
type matrix [3][3]float64

func (m matrix) times(c XYZ) XYZ {
	return XYZ{
		m[0][0]*c.X + m[0][1]*c.Y + m[0][2]*c.Z,
		m[1][0]*c.X + m[1][1]*c.Y + m[1][2]*c.Z,
		m[2][0]*c.X + m[2][1]*c.Y + m[2][2]*c.Z,
	}
}

func (m matrix) after(n matrix) (out matrix) {
	for i := range m {
		for j := range m {
			for k := range m {
				out[i][j] += m[i][k] * n[k][j]
			}
		}
	}
	return out
}

// The Bradford cone matrix and its inverse [Lam 1985; Lindbloom].
var (
	bradfordCones   = matrix{{0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}}
	bradfordInverse = matrix{{0.9869929, -0.1470543, 0.1599627}, {0.4323053, 0.5183603, 0.0492912}, {-0.0085287, 0.0400428, 0.9684867}}
)

// bradford is the transform that takes colours seen against one white to how
// they look against another.
func bradford(from, to XYZ) matrix {
	f, t := bradfordCones.times(from), bradfordCones.times(to)
	scale := matrix{{t.X / f.X, 0, 0}, {0, t.Y / f.Y, 0}, {0, 0, t.Z / f.Z}}
	return bradfordInverse.after(scale).after(bradfordCones)
}
