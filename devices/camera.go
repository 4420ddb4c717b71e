package devices

import (
	"cmp"
	"fmt"
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"strings"
	"sync"

	"github.com/lucasb-eyer/go-colorful"
	"gonum.org/v1/gonum/mat"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Shot is how the stand-in camera takes a painted sheet. It is no camera: it renders what
// a phone would see of a sheet that was painted by its recipes.
type Shot struct {
	Light     colour.Light
	Seed      uint64
	Strength  map[string]float64 // true strengths of tubes over those on the plan, by id or Colour Index
	W, H      int                // pixels; 1600 by 1200 when 0
	Contrast  float64            // the brightest of the light over the darkest; by the seed, 1 to 3, when 0
	Shadow    bool               // a shadow's edge lies over the sheet
	Glare     int                // one more than the index of a region that mirrors a lamp; 0 for none
	Blur      float64            // pixels that it is out of focus by
	Mirrored  bool
	Bare      bool      // nothing is painted yet
	Film      float64   // how thick it was painted, over what the plan has; 1 when 0
	Wet       bool      // what is painted is wet
	Rendering Rendering // what it does to colours
	// Traces are what got into places, by the ids of their regions.
	Traces map[string]Trace
}

// Trace is a third paint that got into a mixture.
type Trace struct {
	Paint *paint.Paint
	Share float64 // of the mixture, by volume
}

// The curves of the stand-in's three sensors: peak and width in nm of a normal curve, and
// where the filter that keeps the infrared out lets half of it through, and how softly. They
// are made up, as those of phones lie about there.
var sensors = [3]struct{ peak, width float64 }{{598, 41}, {541, 43}, {455, 29}}

const (
	infraredCut  = 660.0
	infraredSoft = 10.0
)

// sensed is what the sensors see of a reflectance under a light.
func sensed(s *colour.Spectrum, power *colour.Spectrum) (out [3]float64) {
	for k, sensor := range sensors {
		for i, v := range s {
			nm := colour.NM(i)
			d := (nm - sensor.peak) / sensor.width
			out[k] += v * power[i] * math.Exp(-d*d/2) / (1 + math.Exp((nm-infraredCut)/infraredSoft))
		}
	}
	return out
}

// developed is the matrix that takes the sensors' white-balanced values to linear sRGB, as
// a phone would have it: the least squares over the paints of the library and their tints
// in daylight.
var developed = sync.OnceValue(func() (out [3][3]float64) {
	power := colour.D65.Power()
	white := colour.Flat(1)
	full := sensed(&white, &power)
	var from, to []float64
	for _, p := range paint.Library() {
		m := p.Alone()
		for _, share := range []float64{1, 0.3, 0.1} {
			tint := m.LetDown(share)
			s := tint.Opaque(paint.Matt)
			seen := sensed(&s, &power)
			red, green, blue := s.XYZ(colour.D65).LinearSRGB()
			rgb := [3]float64{red, green, blue}
			weight := 1 / (0.05 + s.XYZ(colour.D65).Y)
			for k := range 3 {
				from, to = append(from, weight*seen[k]/full[k]), append(to, weight*rgb[k])
			}
		}
	}
	// White stays white: counted for much.
	for range 3 {
		from, to = append(from, 300), append(to, 300)
	}
	var solved mat.Dense
	if err := solved.Solve(mat.NewDense(len(from)/3, 3, from), mat.NewDense(len(to)/3, 3, to)); err != nil {
		panic(err) // the library is embedded
	}
	for k := range out {
		for c := range 3 {
			out[k][c] = solved.At(c, k)
		}
	}
	return out
})

// balanced is how much of the colour of a light the stand-in takes away.
const balanced = 0.6

// True is the mixture of a region as its tubes really are, with what got into it.
func (shot Shot) True(r *bench.Region) (paint.Mixture, error) {
	trace, traced := shot.Traces[r.ID]
	if len(shot.Strength) == 0 && !traced {
		return r.Mixture, nil
	}
	of := func(p *paint.Paint) (*paint.Paint, error) {
		for _, id := range []string{p.ID, p.CI} {
			for named, g := range shot.Strength {
				if strings.EqualFold(named, id) {
					return p.Tube(p.ID, g)
				}
			}
		}
		return p, nil
	}
	plain := r.Recipe.Plain()
	if traced {
		whole := 0.0
		for _, p := range plain {
			whole += p.Parts
		}
		plain = append(plain, paint.Part{Paint: trace.Paint, Parts: whole * trace.Share / (1 - trace.Share)})
	}
	var parts []paint.Part
	for _, part := range recipe.Of(plain) {
		p, err := of(part.Paint)
		if err != nil {
			return paint.Mixture{}, err
		}
		parts = append(parts, paint.Part{Paint: p, Parts: part.Parts})
	}
	return paint.Mix(parts...)
}

// film is that of a region as it was painted, so far from its rim (0) to its tip (1).
func (shot Shot) film(r *bench.Region, in paint.Medium, at float64) float64 {
	return r.FilmAt(in, at) * cmp.Or(shot.Film, 1)
}

// fades is how many steps a graded region's fade is painted in.
const fades = 12

// look is a thing of the scene in linear sRGB, thinly, usually and thickly painted.
type look [3][3]float64

// scene is a sheet on a table, ready to be seen.
type scene struct {
	sheet  *bench.Sheet
	along  [][]look // of each region, from its rim to its tip
	looks  []look   // the table, paper, ink, the grey step, then the regions
	places []int16
	x0, y0 float64 // mm of the upper left of places
	w, h   int     // of places
	shot   Shot
	lamp   [3]float64 // mm
	seed   uint64
}

const (
	ofTable = iota
	ofPaper
	ofInk
	ofStep
	ofRegions
)

// GreyStep is what the grey step of a sheet reflects that the stand-in takes.
const GreyStep = 0.2

const (
	perMM   = 3.0  // places to a mm
	around  = 16.0 // of paper round what is painted, mm
	margins = 24.0 // of the table round the paper, mm
)

// Photograph takes a picture of a painted sheet in a medium, dry unless it is said to be wet.
func Photograph(s *bench.Sheet, in paint.Medium, shot Shot) (*image.NRGBA, error) {
	if shot.W == 0 || shot.H == 0 {
		shot.W, shot.H = 1600, 1200
	}
	if shot.W > 6000 || shot.H > 6000 || shot.W < 64 || shot.H < 64 {
		return nil, fmt.Errorf("a picture of %d by %d pixels is not taken: from 64 to 6000", shot.W, shot.H)
	}
	random := rand.New(rand.NewPCG(shot.Seed, 5))
	if err := shot.Rendering.Check(); err != nil {
		return nil, err
	}
	sc, err := newScene(s, in, shot, random)
	if err != nil {
		return nil, err
	}
	picture := sc.seen(random)
	if shot.Blur > 0 {
		picture = blurred(picture, shot.W, shot.H, shot.Blur)
	}
	return coded(picture, shot, random), nil
}

func newScene(s *bench.Sheet, in paint.Medium, shot Shot, random *rand.Rand) (*scene, error) {
	sc := &scene{sheet: s, shot: shot, seed: shot.Seed}
	power, white := shot.Light.Power(), colour.Flat(1)
	full := sensed(&white, &power)
	day := colour.D65.Power()
	daylight := sensed(&white, &day)
	matrix := developed()
	develop := func(s colour.Spectrum) (out [3]float64) {
		seen := sensed(&s, &power)
		for k := range seen {
			// A white balance that goes most of the way from this light to daylight.
			gain := math.Pow(full[k]/full[1], balanced) * math.Pow(daylight[k]/daylight[1], 1-balanced)
			seen[k] /= gain * full[1]
		}
		for k, row := range matrix {
			out[k] = row[0]*seen[0] + row[1]*seen[1] + row[2]*seen[2]
		}
		return out
	}
	flat := func(v float64) look { d := develop(colour.Flat(v)); return look{d, d, d} }
	sc.looks = []look{flat(0.18), flat(paint.WhiteGround), flat(0.03), flat(GreyStep)}
	for i := range s.Regions {
		r := &s.Regions[i]
		m, err := shot.True(r)
		if err != nil {
			return nil, err
		}
		var under []paint.Layer
		for _, k := range r.Beneath {
			layer, err := shot.True(&s.Regions[k])
			if err != nil {
				return nil, err
			}
			under = append(under, paint.Layer{Mixture: layer, Thickness: shot.film(&s.Regions[k], in, 0)})
		}
		ground := in.Under(under)
		steps := 1
		if r.Graded {
			steps = fades + 1
		}
		var all []look
		for step := range steps {
			film := shot.film(r, in, float64(step)/fades)
			var of look
			for n, thick := range []float64{0.75, 1, 1.33} {
				look := m.FilmOver(in, film*thick, ground, shot.Wet)
				if math.IsInf(film, 1) {
					for b := range look {
						look[b] *= 1 + 0.06*(thick-1)
					}
				}
				of[n] = develop(look)
			}
			if shot.Bare {
				of = sc.looks[ofPaper]
			}
			all = append(all, of)
		}
		sc.looks = append(sc.looks, all[0])
		sc.along = append(sc.along, all)
	}
	sc.lay()
	sc.light(random)
	return sc, nil
}

// lay fills in what lies at each place of the table.
func (sc *scene) lay() {
	marks := sc.sheet.Marks()
	left, top, right, bottom := sc.page()
	sc.x0, sc.y0 = left-margins, top-margins
	sc.w, sc.h = int((right+margins-sc.x0)*perMM), int((bottom+margins-sc.y0)*perMM)
	sc.places = make([]int16, sc.w*sc.h)
	for j := range sc.h {
		for i := range sc.w {
			x, y := sc.x0+(float64(i)+0.5)/perMM, sc.y0+(float64(j)+0.5)/perMM
			sc.places[j*sc.w+i] = sc.of(x, y, marks)
		}
	}
}

// page is where the paper's edges lie, mm.
func (sc *scene) page() (left, top, right, bottom float64) {
	m := sc.sheet.Marks()
	if sc.sheet.Kind == "wheel" {
		left, top, right, bottom = sc.sheet.Bounds()
		return left - around, top - around, right + around, max(bottom, m[2][1]) + around
	}
	return m[0][0] - around, m[0][1] - around, m[2][0] + around, m[2][1] + around
}

func (sc *scene) of(x, y float64, marks [4][2]float64) int16 {
	if left, top, right, bottom := sc.page(); x < left || y < top || x > right || y > bottom {
		return ofTable
	}
	for n, m := range marks {
		switch d := math.Hypot(x-m[0], y-m[1]) / bench.MarkRadius; {
		case d > 1.6:
		case d <= 1 && (n == 0 && d < bench.MarkDot || n != 1 && d > bench.MarkRing || n == 1):
			return ofInk
		default:
			return ofPaper
		}
	}
	if at := sc.sheet.GreyStep(); math.Hypot(x-at[0], y-at[1]) <= bench.GreyRadius {
		return ofStep
	}
	for k, r := range slices.Backward(sc.sheet.Regions) { // what lies on top first
		if !r.Holds(x, y, -0.1) {
			continue
		}
		if r.Holds(x, y, 0.15) {
			return int16(ofRegions + k)
		}
		return ofInk // its outline
	}
	// Something is written beside the rim.
	if d := math.Hypot(x, y) - sc.sheet.W/2; sc.sheet.Kind == "wheel" && d > 5 && d < 12 && math.Mod(d, 3.4) < 1.9 && math.Mod(math.Abs(x)*0.7+math.Floor(d/3.4), 1.6) < 0.35 {
		return ofInk
	}
	return ofPaper
}

// light puts a lamp where the sheet is lit as unevenly as is wanted.
func (sc *scene) light(random *rand.Rand) {
	contrast := sc.shot.Contrast
	if contrast == 0 {
		contrast = 1 + 2*random.Float64()
	}
	reach := math.Max(sc.sheet.W, sc.sheet.H) / 2
	angle, high := 2*math.Pi*random.Float64(), reach*(1.5+2*random.Float64())
	low, far := 0.0, math.Hypot(high, reach) // beyond that it evens out again
	for range 40 {
		off := (low + far) / 2
		if math.Pow((high*high+(off+reach)*(off+reach))/(high*high+(off-reach)*(off-reach)), 1.5) > contrast {
			far = off
		} else {
			low = off
		}
	}
	sc.lamp = [3]float64{low * math.Cos(angle), low * math.Sin(angle), high}
}

// lit is how much light falls on a place.
func (sc *scene) lit(x, y float64) float64 {
	d := sc.lamp[2]*sc.lamp[2] + (x-sc.lamp[0])*(x-sc.lamp[0]) + (y-sc.lamp[1])*(y-sc.lamp[1])
	v := 1 / (d * math.Sqrt(d))
	if sc.shot.Shadow {
		// Across the sheet, off its middle, with a soft edge of some mm.
		edge := (x+0.4*y-0.1*sc.sheet.W)/3 + 0.5
		v *= 0.55 + 0.45*min(1, max(0, edge))
	}
	return v
}

// seen is the picture in linear light, not exposed yet.
func (sc *scene) seen(random *rand.Rand) []float32 {
	w, h := sc.shot.W, sc.shot.H
	left, top, right, bottom := sc.page()
	cx, cy := (left+right)/2, (top+bottom)/2
	wide, high := right-left+margins, bottom-top+margins
	scale := math.Max(wide/float64(w), high/float64(h)) // mm to a pixel
	turn := (random.Float64() - 0.5) * 0.3
	tiltX, tiltY := (random.Float64()-0.5)*0.16/float64(w), (random.Float64()-0.5)*0.16/float64(w)
	sin, cos := math.Sincos(turn)
	flip := 1.0
	if sc.shot.Mirrored {
		flip = -1
	}
	out := make([]float32, 3*w*h)
	glare := -1
	if sc.shot.Glare > 0 {
		glare = (sc.shot.Glare - 1) % len(sc.sheet.Regions)
	}
	var middle [2]float64
	width := 1.0
	if glare >= 0 {
		r := &sc.sheet.Regions[glare]
		points := r.Within(0.15)
		for _, p := range points {
			middle[0] += p[0] / float64(len(points))
			middle[1] += p[1] / float64(len(points))
		}
		width = math.Sqrt(r.Area()) * 0.25
	}
	var wait sync.WaitGroup
	workers := runtime.GOMAXPROCS(0)
	for worker := range workers {
		wait.Go(func() {
			for j := worker; j < h; j += workers {
				for i := range w {
					var sum [3]float64
					for sub := range 4 {
						px := float64(i) - float64(w)/2 + 0.25 + 0.5*float64(sub%2)
						py := float64(j) - float64(h)/2 + 0.25 + 0.5*float64(sub/2)
						depth := 1 + tiltX*px + tiltY*py
						x, y := flip*px*scale/depth, py*scale/depth
						x, y = cx+x*cos-y*sin, cy+x*sin+y*cos
						of := sc.at(x, y)
						light := sc.lit(x, y)
						gloss := 0.0
						if glare >= 0 {
							d := math.Hypot(x-middle[0], y-middle[1]) / width
							gloss = 0.9 * math.Exp(-d*d)
						}
						for k := range sum {
							sum[k] += light * (of[k] + gloss) / 4
						}
					}
					for k, v := range sum {
						out[3*(j*w+i)+k] = float32(v)
					}
				}
			}
		})
	}
	wait.Wait()
	return out
}

// at is what lies at a place, as the brush has left it.
func (sc *scene) at(x, y float64) [3]float64 {
	i, j := int((x-sc.x0)*perMM), int((y-sc.y0)*perMM)
	if i < 0 || j < 0 || i >= sc.w || j >= sc.h {
		return sc.looks[ofTable][1]
	}
	of := sc.places[j*sc.w+i]
	l := &sc.looks[of]
	if of < ofRegions {
		return l[1]
	}
	if all := sc.along[of-ofRegions]; len(all) > 1 {
		at := sc.sheet.Regions[of-ofRegions].Along(x, y) * fades
		from := min(int(at), fades-1)
		between := at - float64(from)
		var faded look
		for n := range faded {
			for k := range faded[n] {
				faded[n][k] = all[from][n][k]*(1-between) + all[from+1][n][k]*between
			}
		}
		l = &faded
	}
	n := 0.6*sc.noise(x/3.2, y/3.2, uint64(of)) + 0.4*sc.noise(x/1.1, y/1.1, uint64(of)+997)
	from, to := l[1], l[2]
	if n < 0 {
		to, n = l[0], -n
	}
	for k := range from {
		from[k] += n * (to[k] - from[k])
	}
	return from
}

// noise is a smooth field of values from -1 to 1.
func (sc *scene) noise(x, y float64, of uint64) float64 {
	i, j := math.Floor(x), math.Floor(y)
	fx, fy := x-i, y-j
	fx, fy = fx*fx*(3-2*fx), fy*fy*(3-2*fy)
	value := func(i, j float64) float64 {
		h := uint64(int64(i))*0x9e3779b97f4a7c15 ^ uint64(int64(j))*0xc2b2ae3d27d4eb4f ^ of*0x165667b19e3779f9 ^ sc.seed
		h ^= h >> 31
		h *= 0xff51afd7ed558ccd
		h ^= h >> 33
		return float64(h>>11)/(1<<52) - 1
	}
	top := value(i, j)*(1-fx) + value(i+1, j)*fx
	bottom := value(i, j+1)*(1-fx) + value(i+1, j+1)*fx
	return top*(1-fy) + bottom*fy
}

// blurred is a picture out of focus: three box blurs, which together are near to a
// Gaussian one.
func blurred(p []float32, w, h int, sigma float64) []float32 {
	r := max(1, int(math.Round(sigma)))
	for range 3 {
		for _, across := range []bool{true, false} {
			next := make([]float32, len(p))
			lines, long, step, turn := h, w, 3, 3*w
			if !across {
				lines, long, step, turn = w, h, 3*w, 3
			}
			for l := range lines {
				for k := range 3 {
					sum, n := float32(0), 0
					for i := -r; i < long; i++ {
						if in := i + r; in < long {
							sum += p[l*turn+in*step+k]
							n++
						}
						if out := i - r - 1; out >= 0 {
							sum -= p[l*turn+out*step+k]
							n--
						}
						if i >= 0 {
							next[l*turn+i*step+k] = sum / float32(n)
						}
					}
				}
			}
			p = next
		}
	}
	return p
}

// sRGB codes linear light, 0 to 1 in so many steps [IEC 61966-2-1].
var sRGB = func() (out [1 << 14]float32) {
	for i := range out {
		v := float64(i) / float64(len(out)-1)
		out[i] = float32(colorful.LinearRgb(v, v, v).Clamped().R)
	}
	return out
}()

func byteOf(v float32) uint8 { return uint8(math.Round(255 * float64(v))) }

// coded exposes a picture so that its paper is bright but not burnt out, adds the noise of
// a sensor, codes it as sRGB and renders it.
func coded(p []float32, shot Shot, random *rand.Rand) *image.NRGBA {
	var brightest []float32
	for i := 1; i < len(p); i += 3 * 97 {
		brightest = append(brightest, p[i])
	}
	// The camera exposes for the paper, and not for a lamp that is mirrored.
	slices.Sort(brightest)
	exposure := 0.84 / float64(brightest[len(brightest)*98/100])
	for i, v := range p {
		v := float64(v) * exposure
		v += random.NormFloat64() * (0.0015 + 0.009*math.Sqrt(max(v, 0)))
		p[i] = sRGB[int(min(1, max(0, v))*float64(len(sRGB)-1)+0.5)]
	}
	shot.Rendering.render(p, shot.W, shot.H)
	out := image.NewNRGBA(image.Rect(0, 0, shot.W, shot.H))
	for y := range shot.H {
		for x := range shot.W {
			c := p[3*(y*shot.W+x):]
			out.SetNRGBA(x, y, color.NRGBA{byteOf(c[0]), byteOf(c[1]), byteOf(c[2]), 255})
		}
	}
	return out
}
