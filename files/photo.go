package files

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
)

// Limits of a photo.
const (
	MostPhotoBytes  = 20 << 20
	mostPixels      = 27_000_000
	longestSide     = 10_000
	spotGrid        = 40   // samples along a spot's diameter
	darkestPaper    = 0.10 // luminance of the photographed paper
	mostPaperChroma = 35   // C*ab of paper under a strong lamp
	overexposed     = 0.995
)

// Spot is a round place in a photo: centre as fractions of width and height,
// radius as a fraction of the width.
type Spot struct{ X, Y, R float64 }

// ParseSpot reads "x,y,r", each a fraction from 0 to 1.
func ParseSpot(what, text string) (Spot, error) {
	fields := strings.Split(text, ",")
	var v [3]float64
	for i := range v {
		var err error
		if i < len(fields) {
			v[i], err = strconv.ParseFloat(strings.TrimSpace(fields[i]), 64)
		}
		if len(fields) != 3 || err != nil || !(v[i] >= 0 && v[i] <= 1) {
			return Spot{}, input.Errorf("%s: a spot is x,y,r in fractions of the picture, like 0.4,0.25,0.02", what)
		}
	}
	if !(v[2] > 0 && v[2] <= 0.25) {
		return Spot{}, input.Errorf("%s: the radius of a spot is more than 0 and at most a quarter of the width", what)
	}
	return Spot{v[0], v[1], v[2]}, nil
}

// Photo is a picture that was decoded within the limits.
type Photo struct{ image image.Image }

// ReadPhoto decodes a PNG or JPEG; its size in pixels and its scans are looked at before any
// of them is decoded. Pixels are taken as sRGB. It ends with ctx; other errors are input.Errors.
func ReadPhoto(ctx context.Context, data []byte) (Photo, error) {
	if len(data) == 0 {
		return Photo{}, input.Errorf("no photo was sent")
	}
	if len(data) > MostPhotoBytes {
		return Photo{}, input.Errorf("the photo is larger than %d MB; make it smaller and try again", MostPhotoBytes>>20)
	}
	img, err := decode(ctx, data)
	return Photo{img}, err
}

// KeptSide is the longest side of a photo that is kept, in pixels.
const KeptSide = 2000

// Reduced is the photo at the size at which it is kept.
func (p Photo) Reduced() Photo { return Photo{reduced(p.image, KeptSide)} }

// PlainJPEG is a photo as it is kept: a JPEG of its pixels alone, no larger than those that are. One that is so
// already stays as it is. It ends with ctx; other errors are input.Errors.
func PlainJPEG(ctx context.Context, data []byte) (jpeg []byte, w, h int, err error) {
	p, err := ReadPhoto(ctx, data)
	if err != nil {
		return nil, 0, 0, err
	}
	w, h = p.Size()
	if _, held, plain := jpegSegments(data); plain && held == upright && max(w, h) <= KeptSide && bytes.HasPrefix(data, []byte{0xff, 0xd8}) {
		return data, w, h, nil
	}
	p = p.Reduced()
	w, h = p.Size()
	jpeg, err = p.JPEG()
	return jpeg, w, h, err
}

// Picture is the photo in linear light.
func (p Photo) Picture() photo.Picture { return photo.FromImage(p.image) }

// Size is the photo's size in pixels.
func (p Photo) Size() (w, h int) { return p.image.Bounds().Dx(), p.image.Bounds().Dy() }

// JPEG is the photo as a JPEG of its pixels alone: nothing of where and by what it was
// taken.
func (p Photo) JPEG() ([]byte, error) { return JPEG(p.image) }

// jpegQuality is how well a JPEG is kept, of 100.
const jpegQuality = 92

// JPEG is an image as a JPEG.
func JPEG(img image.Image) ([]byte, error) {
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: jpegQuality}); err != nil {
		return nil, fmt.Errorf("the picture could not be written: %w", err)
	}
	return out.Bytes(), nil
}

// spot is the mean colour of a spot, and the share of it that is burnt out.
func (p Photo) spot(what string, s Spot) (mean colour.XYZ, burnt float64, err error) {
	b := p.image.Bounds()
	w := float64(b.Dx())
	var n, over float64
	for i := range spotGrid {
		for j := range spotGrid {
			dx, dy := 2*(float64(i)+0.5)/spotGrid-1, 2*(float64(j)+0.5)/spotGrid-1
			if dx*dx+dy*dy > 1 {
				continue
			}
			x, y := b.Min.X+int(s.X*w+dx*s.R*w), b.Min.Y+int(s.Y*float64(b.Dy())+dy*s.R*w)
			if !(image.Point{X: x, Y: y}).In(b) {
				continue
			}
			c := color.NRGBA64Model.Convert(p.image.At(x, y)).(color.NRGBA64)
			if c.A < 0xffff {
				return mean, 0, input.Errorf("%s: the picture is transparent there; mark a place with paint or paper", what)
			}
			r, g, bl := float64(c.R)/0xffff, float64(c.G)/0xffff, float64(c.B)/0xffff
			if max(r, g, bl) > overexposed {
				over++
			}
			xyz := colour.FromSRGB(r, g, bl)
			mean.X += xyz.X
			mean.Y += xyz.Y
			mean.Z += xyz.Z
			n++
		}
	}
	if n == 0 {
		return mean, 0, input.Errorf("%s: the spot lies outside the picture", what)
	}
	return colour.XYZ{X: mean.X / n, Y: mean.Y / n, Z: mean.Z / n}, over / n, nil
}

// Pick reads spots of a photo against a spot of bare paper, which is taken for
// white paper in daylight: the light of the photo, its strength and its tint
// are divided out [Bradford; Lam 1985]. The painter's medium and whether the
// swatch was wet are noted in the readings.
func (p Photo) Pick(paper Spot, spots map[string]Spot, medium, judged string) (map[string]paint.RawReading, error) {
	if _, err := paint.ParseMedium(medium); err != nil {
		return nil, input.Wrap(err)
	}
	white, burnt, err := p.spot("bare paper", paper)
	if err != nil {
		return nil, err
	}
	if burnt > 0.05 {
		return nil, input.Errorf("bare paper: the photo is overexposed there, so its white is lost; take it again a little darker")
	}
	if white.Y < darkestPaper {
		return nil, input.Errorf("bare paper: it is too dark there to be bare white paper; mark a lit, unpainted place")
	}
	scaled := colour.XYZ{X: white.X / white.Y * 0.9, Y: 0.9, Z: white.Z / white.Y * 0.9}
	if c := scaled.Lab(colour.D65.White()).Chroma(); c > mostPaperChroma {
		return nil, input.Errorf("bare paper: it is too strongly coloured there to be white paper; mark an unpainted place, or photograph in daylight")
	}
	out := map[string]paint.RawReading{}
	for what, s := range spots {
		xyz, burnt, err := p.spot(what, s)
		if err != nil {
			return nil, err
		}
		if burnt > 0.05 {
			return nil, input.Errorf("%s: the photo is overexposed there; take it again a little darker", what)
		}
		lab := xyz.Adapt(white, paint.BareGround()).Lab(colour.D65.White())
		lab.L = min(lab.L, 100)
		at := [3]float64{hundredths(lab.L), hundredths(lab.A), hundredths(lab.B)}
		out[what] = paint.RawReading{Lab: &at, Source: paint.Photo, Medium: medium, Judged: judged}
	}
	return out, nil
}

// hundredths is a figure as finely as a photo tells it.
func hundredths(v float64) float64 { return math.Round(v*100) / 100 }
