// Package photo reads the colours of a painted sheet from one photograph of it: the
// sheet's four marks straighten it, its bare paper tells the light, and each region is
// sampled within its edge.
package photo

import (
	"image"
	"image/color"
	"math"

	"github.com/lucasb-eyer/go-colorful"

	"gyrophane/core/colour"
)

// Picture is a photograph in linear light: three channels of sRGB a pixel, 0 to 1, row
// after row.
type Picture struct {
	W, H int
	Pix  []float32
}

// linear is the linear light of an sRGB value of 8 bits [IEC 61966-2-1].
var linear = func() (out [256]float32) {
	for i := range out {
		v, _, _ := colorful.Color{R: float64(i) / 255}.LinearRgb()
		out[i] = float32(v)
	}
	return out
}()

// FromImage takes an image for sRGB.
func FromImage(img image.Image) Picture {
	b := img.Bounds()
	p := Picture{W: b.Dx(), H: b.Dy(), Pix: make([]float32, 3*b.Dx()*b.Dy())}
	at := 0
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			var r, g, bl uint8
			switch m := img.(type) {
			case *image.NRGBA:
				i := m.PixOffset(x, y)
				r, g, bl = m.Pix[i], m.Pix[i+1], m.Pix[i+2]
			case *image.YCbCr:
				yi, ci := m.YOffset(x, y), m.COffset(x, y)
				r, g, bl = color.YCbCrToRGB(m.Y[yi], m.Cb[ci], m.Cr[ci])
			default:
				c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA)
				r, g, bl = c.R, c.G, c.B
			}
			p.Pix[at], p.Pix[at+1], p.Pix[at+2] = linear[r], linear[g], linear[bl]
			at += 3
		}
	}
	return p
}

// light is the luminance of a pixel, 0 to 1 [IEC 61966-2-1].
func (p *Picture) light(i int) float32 {
	return 0.2126*p.Pix[3*i] + 0.7152*p.Pix[3*i+1] + 0.0722*p.Pix[3*i+2]
}

// rgb is a colour in linear light.
type rgb [3]float64

// at is the colour between pixels, bilinear; false outside of the picture. Pixel centres
// have whole coordinates.
func (p *Picture) at(x, y float64) (out rgb, ok bool) {
	x0, y0 := math.Floor(x), math.Floor(y)
	i, j := int(x0), int(y0)
	if !(i >= 0 && j >= 0 && i+1 < p.W && j+1 < p.H) {
		return out, false
	}
	fx, fy := x-x0, y-y0
	a, b := 3*(j*p.W+i), 3*((j+1)*p.W+i)
	for c := range out {
		top := float64(p.Pix[a+c])*(1-fx) + float64(p.Pix[a+3+c])*fx
		bottom := float64(p.Pix[b+c])*(1-fx) + float64(p.Pix[b+3+c])*fx
		out[c] = top*(1-fy) + bottom*fy
	}
	return out, true
}

// Coded values near to which a channel is at an end, in linear light: 2 and 253 of 255.
var (
	darkest  = float64(linear[2])
	lightest = float64(linear[253])
)

// coded is the sRGB value, 0 to 1, of linear light [IEC 61966-2-1].
func coded(v float64) float64 { return colorful.LinearRgb(v, v, v).Clamped().R }

// xyz is the colour of linear light under this grid's D65.
func (c rgb) xyz() colour.XYZ { return colour.FromLinearSRGB(c[0], c[1], c[2]) }
