package photo

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Spot is where one region is sampled, when the painter says so.
type Spot struct {
	DX, DY float64 // moved, mm on the sheet
	Left   bool    // left out
}

// Reading is what a photo says of one region.
type Reading struct {
	Region int
	Spot   Spot
	Lab    colour.Lab // D65
	Spread float64    // standard deviation within the spot, CIELAB
	Doubt  string     // why it is not believed; empty where it is
	Light  Light      // bare paper there, as the picture shows it
	// Outline is the spot that was sampled, in pixels of the picture.
	Outline [][2]float64
}

// Result is what a photo says of a sheet.
type Result struct {
	Corners  Corners
	Readings []Reading
	Kelvin   float64 // the light as the paper shows it, by its correlated colour temperature
	Contrast float64 // the brightest of the light on the sheet over the darkest
	Bowed    bool    // it was found with its bowl, and not as a slope alone
	Greys    Greys
	field    field
	h        homography
}

// Greys are what is printed on a sheet for a photo to be measured by; nil where it is not seen.
type Greys struct {
	Ink  *Grey // of the marks
	Step *Grey // the grey step beside a mark
}

// Grey is a printed grey as a photo shows it.
type Grey struct {
	Lab   colour.Lab // D65
	Light Light      // bare paper there
}

// StepOf is what a grey step reflects that was measured to have some L*, 0 to 1; 0 where it was not measured,
// which an L* of 0 says.
func StepOf(lightness float64) float64 {
	if lightness <= 0 {
		return 0
	}
	return colour.Lab{L: lightness}.XYZ(colour.D65.White()).Y
}

// Check says what is wrong with a light, with an input.Error.
func (l Light) Check() error {
	if !(min(l[0], l[1], l[2]) > 0 && max(l[0], l[1], l[2]) <= 1) {
		return input.Errorf("bare paper of the photo has the light %v, and each channel of it lies above 0 and up to 1", [3]float64(l))
	}
	return nil
}

// Check says what is wrong with greys as they were read, with an input.Error.
func (g Greys) Check() error {
	for _, one := range []*Grey{g.Ink, g.Step} {
		if one == nil {
			continue
		}
		if err := one.Light.Check(); err != nil {
			return err
		}
		if lab := one.Lab; !(lab.L >= -20 && lab.L <= 150 && math.Abs(lab.A) <= 200 && math.Abs(lab.B) <= 200) {
			return input.Errorf("a grey of the photo reads %.1f %.1f %.1f, which no grey does", lab.L, lab.A, lab.B)
		}
	}
	return nil
}

// The limits of what is believed.
const (
	leastScale   = 2.4   // pixels to a mm
	mostBlur     = 4.0   // pixels from dark to bright at the edge of a mark
	mostFieldOff = 0.055 // of bare paper from its field, in log light
	mostCast     = 22.0  // C*ab of paper: beyond that it is no daylight
	leastLight   = 0.04  // of bare paper
	inset        = 0.15  // of a region's width
	trimmed      = 0.10  // at either end
	mostSpread   = 7.0   // CIELAB
	mostGlaring  = 1.0 / 3
)

// ReadSheet reads a painted sheet off a picture, its marks in the corners. Spots are moved or
// left out by the ids of their regions. The error is an input.Error that says why the
// picture cannot be trusted, and what to do.
func ReadSheet(p *Picture, s *bench.Sheet, at Corners, spots map[string]Spot) (out Result, err error) {
	return read(p, s, at, s.Marks(), spots)
}

// ReadDrawn is ReadSheet for a sheet that was drawn freely and has no marks: the corners are
// where its quarter points lie.
func ReadDrawn(p *Picture, s *bench.Sheet, at Corners, spots map[string]Spot) (out Result, err error) {
	return read(p, s, at, s.Quarters(), spots)
}

func read(p *Picture, s *bench.Sheet, at Corners, of [4][2]float64, spots map[string]Spot) (out Result, err error) {
	for _, c := range at {
		if !(c[0] >= 0 && c[1] >= 0 && c[0] <= float64(p.W-1) && c[1] <= float64(p.H-1)) {
			return out, input.Errorf("a mark lies outside of the picture: take the whole sheet, all four marks on it")
		}
	}
	switch at.turn() {
	case -1:
		return out, input.Errorf("the picture is mirrored: take it again without mirroring, or turn that off where pictures are saved")
	case 0:
		return out, input.Errorf("the marks do not stand round the sheet: put them in their places, upper left, upper right, lower right, lower left")
	}
	h, ok := straighten(of, at)
	if !ok {
		return out, input.Errorf("three of the marks lie on a line: put them in their places")
	}
	out.Corners, out.h = at, h
	if scale := h.scale(s); scale < leastScale {
		return out, input.Errorf("the sheet is too small in the picture, %.1f pixels to a mm: come nearer, or send a larger picture", scale)
	}
	if blur := p.softness(s, h); of == s.Marks() && blur > mostBlur {
		return out, input.Errorf("the picture is blurred: its edges are %.0f pixels soft; hold still, and take it again", blur)
	}
	if out.field, ok = p.lit(s, h); !ok {
		return out, input.Errorf("too little bare paper is seen round the sheet to tell the light: take all of it, with some paper beyond the marks")
	}
	f := &out.field
	out.Contrast, out.Bowed = f.contrast, len(f.of[0]) > 3
	white := f.paper.xyz()
	out.Kelvin = kelvin(white)
	if white.Y < leastLight {
		return out, input.Errorf("the picture is too dark: its paper is at %.0f %%; more light, and take it again", 100*white.Y)
	}
	scaled := colour.XYZ{X: white.X / white.Y * paint.WhiteGround, Y: paint.WhiteGround, Z: white.Z / white.Y * paint.WhiteGround}
	if cast := scaled.Lab(colour.D65.White()); cast.Chroma() > mostCast {
		if cast.B > 0 {
			return out, input.Errorf("the light is a warm lamp, about %.0f K: what it hides cannot be got back; take the picture in daylight", out.Kelvin)
		}
		return out, input.Errorf("the light is coloured, or the sheet is not white: take the picture in daylight")
	}
	if f.off > mostFieldOff {
		return out, input.Errorf("a shadow's edge lies over the sheet, or the paper is not even: take it again where the light falls evenly, nothing between it and the sheet")
	}
	if of == s.Marks() {
		step := s.GreyStep()
		out.Greys = Greys{Ink: p.grey(h, f, of[1], bench.MarkRadius), Step: p.grey(h, f, step, bench.GreyRadius)}
	}
	glaring := 0
	for i := range s.Regions {
		spot := spots[s.Regions[i].ID]
		if spot.Left {
			continue
		}
		r, glare := p.read(s, i, h, f, spot)
		if glare {
			glaring++
		}
		out.Readings = append(out.Readings, r)
	}
	if float64(glaring) > mostGlaring*float64(len(s.Regions)) {
		return out, input.Errorf("%d of %d places glare or are burnt out: tilt the sheet or the phone so that no light is mirrored, a little darker, and take it again", glaring, len(s.Regions))
	}
	return out, nil
}

// scale is how many pixels a mm has in the middle of the sheet, at the least.
func (h homography) scale(s *bench.Sheet) float64 {
	left, top, right, bottom := s.Bounds()
	x, y := (left+right)/2, (top+bottom)/2
	ax, ay := h.at(x, y)
	bx, by := h.at(x+1, y)
	cx, cy := h.at(x, y+1)
	return math.Min(math.Hypot(bx-ax, by-ay), math.Hypot(cx-ax, cy-ay))
}

// softness is how many pixels the edges of the marks take from a tenth of their contrast
// to nine tenths, the middle of many.
func (p *Picture) softness(s *bench.Sheet, h homography) float64 {
	var all []float64
	for _, m := range s.Marks() {
		for k := range 24 {
			a := float64(k) * math.Pi / 12
			const n = 60
			var lights, along []float64
			px, py := 0.0, 0.0
			for i := range n {
				r := bench.MarkRadius * (0.84 + 0.76*float64(i)/(n-1))
				x, y := h.at(m[0]+r*math.Cos(a), m[1]+r*math.Sin(a))
				c, in := p.at(x, y)
				if !in {
					break
				}
				step := 0.0
				if i > 0 {
					step = along[i-1] + math.Hypot(x-px, y-py)
				}
				px, py = x, y
				lights, along = append(lights, coded(c[1])), append(along, step)
			}
			if len(lights) < n {
				continue
			}
			low, high := slices.Min(lights), slices.Max(lights)
			if high-low < 0.15 {
				continue
			}
			from, to := -1.0, -1.0
			for i, l := range lights {
				if from < 0 && l > low+0.1*(high-low) {
					from = along[i]
				}
				if to < 0 && l > low+0.9*(high-low) {
					to = along[i]
				}
			}
			all = append(all, to-from)
		}
	}
	if len(all) == 0 {
		return 0
	}
	slices.Sort(all)
	return all[len(all)/2]
}

// Within a grey it is looked at, of its radius.
const ofGrey = 0.55

// grey is what is printed in a circle about a point, mm; nil where it is not seen, or at the end of what a
// photo can hold.
func (p *Picture) grey(h homography, f *field, at [2]float64, radius float64) *Grey {
	const n = 9
	var mean rgb
	seen := 0.0
	light := f.at(at[0], at[1])
	for i := range n {
		for j := range n {
			x, y := 2*float64(i)/(n-1)-1, 2*float64(j)/(n-1)-1
			if math.Hypot(x, y) > 1 {
				continue
			}
			px, py := h.at(at[0]+ofGrey*radius*x, at[1]+ofGrey*radius*y)
			c, in := p.at(px, py)
			if !in || min(c[0], c[1], c[2]) <= darkest {
				return nil
			}
			for k := range mean {
				mean[k] += c[k] / light[k] * paint.WhiteGround
			}
			seen++
		}
	}
	for k := range mean {
		mean[k] /= seen
	}
	return &Grey{mean.xyz().Lab(colour.D65.White()), Light(light)}
}

// seen is a point of a region in even light.
type seen struct {
	of    rgb
	along float64 // of a graded region, from the middle of what is read toward its tip
	light float64 // luminance
}

// level takes from the points of a graded region what they change along it, by least squares,
// so that all are as they would be in the middle of what is read; and works out their light.
func level(all []seen) {
	var tilt, mean rgb
	square, middle := 0.0, 0.0
	for _, one := range all {
		middle += one.along / float64(len(all))
		for k, v := range one.of {
			mean[k] += v / float64(len(all))
		}
	}
	for _, one := range all {
		d := one.along - middle
		square += d * d
		for k, v := range one.of {
			tilt[k] += d * (v - mean[k])
		}
	}
	for i := range all {
		one := &all[i]
		for k := range one.of {
			if square > 0 {
				one.of[k] -= tilt[k] / square * one.along
			}
		}
		one.light = 0.2126*one.of[0] + 0.7152*one.of[1] + 0.0722*one.of[2]
	}
}

// read samples one region, and says whether it glares.
func (p *Picture) read(s *bench.Sheet, i int, h homography, f *field, spot Spot) (out Reading, glare bool) {
	out.Region, out.Spot = i, spot
	var all []seen
	ends, full := 0, 0
	area := s.Regions[i].ReadShape()
	points := area.Within(inset)
	for _, at := range points {
		mx, my := at[0]+spot.DX, at[1]+spot.DY
		x, y := h.at(mx, my)
		c, in := p.at(x, y)
		if !in {
			continue
		}
		if min(c[0], c[1], c[2]) <= darkest {
			ends++
		}
		if max(c[0], c[1], c[2]) >= lightest {
			ends++
			full++
		}
		light := f.at(mx, my)
		var even rgb
		for k := range even {
			even[k] = c[k] / light[k] * paint.WhiteGround
			out.Light[k] += light[k] / float64(len(points))
		}
		one := seen{of: even}
		if s.Regions[i].Graded {
			one.along = area.Along(at[0], at[1]) - 0.5
		}
		all = append(all, one)
	}
	for _, at := range area.Edge(inset) {
		x, y := h.at(at[0]+spot.DX, at[1]+spot.DY)
		out.Outline = append(out.Outline, [2]float64{x, y})
	}
	if len(all) < len(points)*9/10 || len(all) == 0 {
		out.Doubt = "it lies at the edge of the picture"
		return out, false
	}
	level(all)
	slices.SortFunc(all, func(a, b seen) int {
		switch {
		case a.light < b.light:
			return -1
		case a.light > b.light:
			return 1
		}
		return 0
	})
	n := len(all)
	middle := all[n/2].light
	bright := all[n*95/100].light
	kept := all[int(trimmed*float64(n)) : n-int(trimmed*float64(n))]
	var mean rgb
	for _, one := range kept {
		for k := range mean {
			mean[k] += one.of[k] / float64(len(kept))
		}
	}
	lab := func(c rgb) colour.Lab { return c.xyz().Lab(colour.D65.White()) }
	out.Lab = lab(mean)
	// Within the spot: of its parts, so that the noise of single pixels does not count.
	const part = 24
	squares, parts := 0.0, 0
	for from := 0; from+part <= len(kept); from += part {
		var of rgb
		for _, one := range kept[from : from+part] {
			for k := range of {
				of[k] += one.of[k] / part
			}
		}
		l := lab(of)
		squares += (l.L-out.Lab.L)*(l.L-out.Lab.L) + (l.A-out.Lab.A)*(l.A-out.Lab.A) + (l.B-out.Lab.B)*(l.B-out.Lab.B)
		parts++
	}
	if parts > 0 {
		out.Spread = math.Sqrt(squares / float64(parts))
	}
	glare = bright > 1.6*middle+0.08 || float64(full) > 0.1*float64(n) && middle > 0.5
	switch {
	case glare:
		out.Doubt = "it glares, or is burnt out"
	case float64(ends) > 0.1*float64(n):
		out.Doubt = "it is outside of what a photo can hold"
	case out.Spread > mostSpread:
		out.Doubt = fmt.Sprintf("it is uneven: its parts differ by %.0f", out.Spread)
	}
	return out, glare
}

// kelvin is the correlated colour temperature of a light's colour [McCamy 1992].
func kelvin(c colour.XYZ) float64 {
	sum := c.X + c.Y + c.Z
	x, y := c.X/sum, c.Y/sum
	n := (x - 0.3320) / (0.1858 - y)
	return math.Round((449*n*n*n+3525*n*n+6823.3*n+5520.33)/50) * 50
}

// Pixel is where a point of the sheet, mm, lies in the picture, pixels.
func (r *Result) Pixel(x, y float64) [2]float64 {
	px, py := r.h.at(x, y)
	return [2]float64{px, py}
}
