package colour

import "math"

// Difference is the CIEDE2000 colour difference of two CIELAB values [Sharma,
// Wu, Dalal 2005], weights 1. About 1 is just visible side by side.
//
// go-colorful has this formula too, but takes CIELAB through RGB and back,
// which tips opposite hues to the other side (pair 10 of the published test
// pairs), so the formula stands here.
func Difference(p, q Lab) float64 {
	d := Components(p, q)
	return math.Sqrt(d[0]*d[0] + d[1]*d[1] + d[2]*d[2])
}

// Components are the CIEDE2000 difference of two CIELAB values in lightness, chroma and
// hue, from the first to the second, weights 1, with the rotation of blues shared out so
// that the root of their squares is the difference. They are smooth where it is not, at 0.
func Components(p, q Lab) [3]float64 {
	c1, c2 := math.Hypot(p.A, p.B), math.Hypot(q.A, q.B)
	g := 0.5 * (1 - math.Sqrt(seventh((c1+c2)/2)))
	a1, a2 := (1+g)*p.A, (1+g)*q.A
	c1, c2 = math.Hypot(a1, p.B), math.Hypot(a2, q.B)
	h1, h2 := polarDegrees(a1, p.B), polarDegrees(a2, q.B)

	dl, dc := q.L-p.L, c2-c1
	var dh float64
	meanH := h1 + h2
	if c1*c2 != 0 {
		dh = h2 - h1
		switch {
		case math.Abs(dh) <= 180:
			meanH = (h1 + h2) / 2
		case meanH < 360:
			meanH = (h1 + h2 + 360) / 2
		default:
			meanH = (h1 + h2 - 360) / 2
		}
		if dh > 180 {
			dh -= 360
		} else if dh < -180 {
			dh += 360
		}
	}
	dH := 2 * math.Sqrt(c1*c2) * sin(dh/2)

	meanL, meanC := (p.L+q.L)/2, (c1+c2)/2
	t := 1 - 0.17*cos(meanH-30) + 0.24*cos(2*meanH) + 0.32*cos(3*meanH+6) - 0.20*cos(4*meanH-63)
	away := (meanL - 50) * (meanL - 50)
	sl := 1 + 0.015*away/math.Sqrt(20+away)
	sc := 1 + 0.045*meanC
	sh := 1 + 0.015*meanC*t
	turn := (meanH - 275) / 25
	rt := -2 * math.Sqrt(seventh(meanC)) * sin(60*math.Exp(-turn*turn))

	l, c, h := dl/sl, dc/sc, dH/sh
	return [3]float64{l, c + rt*h/2, h * math.Sqrt(max(0, 1-rt*rt/4))}
}

// seventh is c^7 / (c^7 + 25^7).
func seventh(c float64) float64 {
	c7 := math.Pow(c, 7)
	return c7 / (c7 + 6103515625)
}

func polarDegrees(a, b float64) float64 {
	if a == 0 && b == 0 {
		return 0
	}
	return Turn(math.Atan2(b, a) * 180 / math.Pi)
}

func sin(degrees float64) float64 { return math.Sin(degrees * math.Pi / 180) }
func cos(degrees float64) float64 { return math.Cos(degrees * math.Pi / 180) }
