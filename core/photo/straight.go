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
// wanted, without what the light lacks.
func (r *Result) Straight(p *Picture, s *bench.Sheet, even bool) *image.NRGBA {
	left, top, w, h := straightArea(s)
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
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
	return img
}

// straightArea is the upper left corner in mm of what is shown straightened, and its size
// in pixels.
func straightArea(s *bench.Sheet) (left, top float64, w, h int) {
	m := s.Marks()
	left, top = m[0][0]-straightAround, m[0][1]-straightAround
	right, bottom := m[2][0]+straightAround, m[2][1]+straightAround
	if s.Kind == "wheel" {
		reach := math.Max(right, s.W/2+4)
		left, top, right, bottom = -reach, -reach, reach, math.Max(reach, bottom)
	}
	return left, top, int((right - left) * straightened), int((bottom - top) * straightened)
}

// StraightSize is the size of a straightened sheet in pixels.
func StraightSize(s *bench.Sheet) (w, h int) {
	_, _, w, h = straightArea(s)
	return w, h
}

// StraightOutline is where the spot of a region lies on its straightened sheet, pixels.
func StraightOutline(s *bench.Sheet, region int, spot Spot) (out [][2]float64) {
	left, top, _, _ := straightArea(s)
	for _, at := range s.Regions[region].ReadShape().Edge(inset) {
		out = append(out, [2]float64{(at[0] + spot.DX - left) * straightened, (at[1] + spot.DY - top) * straightened})
	}
	return out
}

func byteOf(v float64) uint8 { return uint8(math.Round(255 * coded(v))) }
