package photo

import (
	"image"
	"image/color"
	"math"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
)

// straightened is how many pixels a mm has on a straightened picture, and straightAround
// how much is shown round the sheet's marks, mm.
const (
	straightened   = 4.0
	straightAround = 10.0
)

// Straight is the part of a picture that shows the sheet, straightened and, where even is
// wanted, without what the light lacks. Place takes mm on the sheet to its pixels.
func (r *Result) Straight(p *Picture, s *bench.Sheet, even bool) (img *image.NRGBA, place func(x, y float64) (px, py float64)) {
	m := s.Marks()
	left, top, right, bottom := m[0][0]-straightAround, m[0][1]-straightAround, m[2][0]+straightAround, m[2][1]+straightAround
	if s.Kind == "wheel" {
		reach := math.Max(right, s.W/2+4)
		left, top, right, bottom = -reach, -reach, reach, reach
	}
	w, h := int((right-left)*straightened), int((bottom-top)*straightened)
	img = image.NewNRGBA(image.Rect(0, 0, w, h))
	for j := range h {
		for i := range w {
			x, y := left+(float64(i)+0.5)/straightened, top+(float64(j)+0.5)/straightened
			px, py := r.h.at(x, y)
			c, in := p.at(px, py)
			if !in {
				img.SetNRGBA(i, j, color.NRGBA{128, 128, 128, 255})
				continue
			}
			if even {
				light := r.field.at(x, y)
				for k := range c {
					c[k] = c[k] / light[k] * paint.WhiteGround
				}
			}
			img.SetNRGBA(i, j, color.NRGBA{byteOf(c[0]), byteOf(c[1]), byteOf(c[2]), 255})
		}
	}
	return img, func(x, y float64) (float64, float64) { return (x - left) * straightened, (y - top) * straightened }
}

func byteOf(v float64) uint8 { return uint8(math.Round(255 * math.Min(1, math.Max(0, coded(v))))) }
