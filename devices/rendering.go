package devices

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"
)

// Rendering is what the stand-in camera does to its pictures, as phones do, before it keeps them. Its
// zero value leaves them as they are.
type Rendering struct {
	Contrast    float64 // how steep the S of the tones is, from 0 (none) to 6
	Saturation  float64 // factor; 1 when 0
	Gamma       float64 // power of the coded values; 1 when 0
	Cast        float64 // share by which red rises and blue falls, from -0.2 to 0.2: warm above 0
	Sharpened   float64 // how much edges are raised, from 0 to 2
	ColourFirst bool    // saturation comes before the tones, and not after them
}

// Renderings are those that go by a name.
var Renderings = []struct {
	Name string
	Rendering
}{
	{"plain", Rendering{}},
	{"phone", Rendering{Contrast: 3, Saturation: 1.18, Sharpened: 0.5}},
	{"strong", Rendering{Contrast: 4, Saturation: 1.3, Gamma: 1.15, Cast: 0.03, Sharpened: 0.8}},
}

// ParseRendering is the rendering of a name; its error says which there are.
func ParseRendering(name string) (Rendering, error) {
	var names []string
	for _, one := range Renderings {
		if strings.EqualFold(one.Name, strings.TrimSpace(name)) {
			return one.Rendering, nil
		}
		names = append(names, one.Name)
	}
	return Rendering{}, fmt.Errorf("there is no rendering %.20q: it is one of %s", name, strings.Join(names, ", "))
}

// Check says what of a rendering is out of bounds.
func (r Rendering) Check() error {
	for _, one := range []struct {
		name         string
		at, low, top float64
	}{
		{"the contrast", r.Contrast, 0, 6},
		{"the saturation", r.saturation(), 0.2, 3},
		{"the gamma", r.gamma(), 0.3, 3},
		{"the cast", r.Cast, -0.2, 0.2},
		{"the sharpening", r.Sharpened, 0, 2},
	} {
		if !(one.at >= one.low && one.at <= one.top) {
			return fmt.Errorf("%s of a rendering runs from %g to %g, and not to %v", one.name, one.low, one.top, one.at)
		}
	}
	return nil
}

func (r Rendering) saturation() float64 {
	if r.Saturation == 0 {
		return 1
	}
	return r.Saturation
}

func (r Rendering) gamma() float64 {
	if r.Gamma == 0 {
		return 1
	}
	return r.Gamma
}

func (r Rendering) none() bool {
	return r.Contrast == 0 && r.saturation() == 1 && r.gamma() == 1 && r.Cast == 0 && r.Sharpened == 0
}

// tones is the curve over coded values, in so many steps.
func (r Rendering) tones() func(v float64) float64 {
	const n = 1024
	var of [n + 1]float64
	sigmoid := func(x float64) float64 { return 1 / (1 + math.Exp(-r.Contrast*(x-0.5))) }
	for i := range of {
		v := math.Pow(float64(i)/n, r.gamma())
		if r.Contrast > 0 {
			v = (sigmoid(v) - sigmoid(0)) / (sigmoid(1) - sigmoid(0))
		}
		of[i] = v
	}
	return func(v float64) float64 {
		v = min(1, max(0, v)) * n
		i := min(n-1, int(v))
		return of[i] + (v-float64(i))*(of[i+1]-of[i])
	}
}

// render renders a picture of coded values, 0 to 1, three channels a pixel.
func (r Rendering) render(p []float32, w, h int) {
	if r.none() {
		return
	}
	tones := r.tones()
	cast := [3]float64{math.Pow(1+r.Cast, 1/2.2), 1, math.Pow(1-r.Cast, 1/2.2)}
	luma := func(c []float32) float64 {
		return 0.299*float64(c[0]) + 0.587*float64(c[1]) + 0.114*float64(c[2])
	}
	saturate := func(c []float32) {
		y := luma(c)
		for k := range c {
			c[k] = float32(min(1, max(0, y+(float64(c[k])-y)*r.saturation())))
		}
	}
	rows(h, func(j int) {
		for i := range w {
			c := p[3*(j*w+i) : 3*(j*w+i)+3]
			for k := range c {
				c[k] *= float32(cast[k])
			}
			if r.ColourFirst {
				saturate(c)
			}
			for k := range c {
				c[k] = float32(tones(float64(c[k])))
			}
			if !r.ColourFirst {
				saturate(c)
			}
		}
	})
	if r.Sharpened == 0 {
		return
	}
	// An unsharp mask of the luma.
	soft := blurred(p, w, h, 1)
	was := slices.Clone(p)
	rows(h, func(j int) {
		for i := range w {
			at := 3 * (j*w + i)
			raise := float32(r.Sharpened * (luma(was[at:at+3]) - luma(soft[at:at+3])))
			for k := range 3 {
				p[at+k] = min(1, max(0, was[at+k]+raise))
			}
		}
	})
}

// rows does something for each row of a picture, some at once.
func rows(h int, each func(j int)) {
	var wait sync.WaitGroup
	const bands = 8
	for band := range bands {
		wait.Go(func() {
			for j := band * h / bands; j < (band+1)*h/bands; j++ {
				each(j)
			}
		})
	}
	wait.Wait()
}
