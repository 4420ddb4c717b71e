package photo

import (
	"math"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Figures is how many figures a rendering has.
const Figures = 6

// Rendering is what a phone does to what it sees before it keeps it: a curve over the coded values
// of each channel alike, saturation, and a cast of the darks. The zero value does nothing.
type Rendering struct {
	Middle     float64 // of the middle tones: x + Middle x (1 - x) of a coded value x, 0 to 1
	Contrast   float64 // and + 2 Contrast x (1 - x) (x - 1/2): above 0 an S
	Saturation float64 // logarithm of the factor by which channels go from their grey
	Grey       float64 // that grey: 0 the luma, 1 half way between the least and the largest channel
	CastA      float64 // a* and b* of a colour are shifted by twice so much (1 - L*/100)
	CastB      float64
}

// RenderingOf is the rendering of such figures, in the order of its fields.
func RenderingOf(of [Figures]float64) Rendering {
	return Rendering{of[0], of[1], of[2], of[3], of[4], of[5]}
}

// UsualRendering is what phones do, and the standard deviation of each figure about it.
func UsualRendering() (middle, spread [Figures]float64) {
	return [Figures]float64{3: 0.5}, [Figures]float64{0.25, 0.6, 0.2, 0.5, 2, 2}
}

// Light is bare paper as a photo shows it at a place: linear light of three channels, 0 to 1.
type Light [3]float64

// coding and decoding go on below 0 and above 1, for colours that no screen holds.
func coding(v float64) float64 {
	if v <= 0.0031308 {
		return 12.92 * v
	}
	return 1.055*math.Pow(v, 1/2.4) - 0.055
}

func decoding(v float64) float64 {
	if v <= 0.04045 {
		return v / 12.92
	}
	return math.Pow((v+0.055)/1.055, 2.4)
}

// curve is the coded value that a coded value becomes; beyond the ends it goes on as there.
func (r *Rendering) curve(x float64) float64 {
	switch {
	case x < 0:
		return x * (1 + r.Middle - r.Contrast)
	case x > 1:
		return 1 + (x-1)*(1-r.Middle-r.Contrast)
	}
	return x + x*(1-x)*(r.Middle+2*r.Contrast*(x-0.5))
}

// uncurve is the coded value that became another: by Newton's steps within what is known to hold it, and
// exact beyond the ends.
func (r *Rendering) uncurve(y float64) float64 {
	const least = 0.02 // of the slope at an end: below that nothing is got back
	switch {
	case y <= 0:
		return y / math.Max(1+r.Middle-r.Contrast, least)
	case y >= 1:
		return 1 + (y-1)/math.Max(1-r.Middle-r.Contrast, least)
	}
	low, high, x := 0.0, 1.0, y
	for range 60 {
		off := r.curve(x) - y
		if off < 0 {
			low = x
		} else {
			high = x
		}
		slope := 1 + r.Middle*(1-2*x) + 2*r.Contrast*((1-2*x)*(x-0.5)+x*(1-x))
		next := x - off/slope
		if !(next > low && next < high) {
			next = (low + high) / 2
		}
		if math.Abs(next-x) < 1e-10 {
			return next
		}
		x = next
	}
	return x
}

// saturated takes channels from their grey; that grey stays where it is, so that the same with
// less than 1 takes it back.
func (r *Rendering) saturated(c rgb, by float64) rgb {
	luma := 0.2126*c[0] + 0.7152*c[1] + 0.0722*c[2]
	grey := luma + r.Grey*((max(c[0], c[1], c[2])+min(c[0], c[1], c[2]))/2-luma)
	for k := range c {
		c[k] = grey + (c[k]-grey)*by
	}
	return c
}

// bent is linear light as the phone keeps it, and unbent that light again.
func (r *Rendering) bent(c rgb) rgb {
	for k := range c {
		c[k] = r.curve(coding(c[k]))
	}
	c = r.saturated(c, math.Exp(r.Saturation))
	for k := range c {
		c[k] = decoding(c[k])
	}
	return c
}

func (r *Rendering) unbent(c rgb) rgb {
	for k := range c {
		c[k] = coding(c[k])
	}
	c = r.saturated(c, math.Exp(-r.Saturation))
	for k := range c {
		c[k] = decoding(r.uncurve(c[k]))
	}
	return c
}

// Paper is bare paper at a place as it is shown, and as it was before the rendering.
type Paper struct {
	shown, was rgb
	r          *Rendering
}

// On is the rendering where bare paper is shown so.
func (r *Rendering) On(light Light) Paper {
	return Paper{rgb(light), r.unbent(rgb(light)), r}
}

// Shown is a colour (D65, of what is painted) as it is read there.
func (p *Paper) Shown(lab colour.Lab) colour.Lab {
	var c rgb
	c[0], c[1], c[2] = lab.XYZ(colour.D65.White()).LinearSRGB()
	for k := range c {
		c[k] *= p.was[k] / paint.WhiteGround
	}
	c = p.r.bent(c)
	for k := range c {
		c[k] *= paint.WhiteGround / p.shown[k]
	}
	out := c.xyz().Lab(colour.D65.White())
	dark := 2 * (1 - out.L/100)
	out.A, out.B = out.A+p.r.CastA*dark, out.B+p.r.CastB*dark
	return out
}

// Taken is the colour that is read so there, the rendering taken out; false where that lies at the
// end of what the phone can tell.
func (p *Paper) Taken(lab colour.Lab) (colour.Lab, bool) {
	dark := 2 * (1 - lab.L/100)
	lab.A, lab.B = lab.A-p.r.CastA*dark, lab.B-p.r.CastB*dark
	var c rgb
	c[0], c[1], c[2] = lab.XYZ(colour.D65.White()).LinearSRGB()
	for k := range c {
		c[k] *= p.shown[k] / paint.WhiteGround
	}
	c = p.r.unbent(c)
	held := min(c[0], c[1], c[2]) > darkest && max(c[0], c[1], c[2]) < lightest
	for k := range c {
		c[k] *= paint.WhiteGround / p.was[k]
	}
	return c.xyz().Lab(colour.D65.White()), held
}

// What of a rendering is spoken of.
const (
	contrastSaid   = 0.08
	saturationSaid = 0.05
	middleSaid     = 0.06
	castSaid       = 1.0
)

// Says is what a rendering does to colours, in words: "adds contrast and colour". It is empty where that
// is nothing to speak of.
func (r *Rendering) Says() string {
	var adds, takes, others []string
	tell := func(figure, least float64, what string) {
		switch {
		case figure > least:
			adds = append(adds, what)
		case figure < -least:
			takes = append(takes, what)
		}
	}
	tell(r.Contrast, contrastSaid, "contrast")
	tell(r.Saturation, saturationSaid, "colour")
	switch {
	case r.Middle > middleSaid:
		others = append(others, "makes the middle tones lighter")
	case r.Middle < -middleSaid:
		others = append(others, "makes the middle tones darker")
	}
	if cast := math.Hypot(r.CastA, r.CastB); cast > castSaid {
		others = append(others, "makes the darks "+colour.Tinge(r.CastA, r.CastB))
	}
	var all []string
	if len(adds) > 0 {
		all = append(all, "adds "+strings.Join(adds, " and "))
	}
	if len(takes) > 0 {
		all = append(all, "takes "+strings.Join(takes, " and ")+" away")
	}
	return strings.Join(append(all, others...), ", ")
}
