package files

import (
	"bytes"
	"context"
	"encoding/binary"
	"image"
	_ "image/jpeg" // decoders
	_ "image/png"
	"io"

	"golang.org/x/image/draw"

	"gyrophane/core/input"
)

// mostScans is how many scans a JPEG may have: cameras write some ten, and each is worked
// through over the whole picture.
const mostScans = 100

// decode decodes a PNG or JPEG within the limits, as it was held: what the camera notes of
// that is honoured, and all else it notes is left. It ends with ctx.
func decode(ctx context.Context, data []byte) (image.Image, error) {
	config, format, err := image.DecodeConfig(bytes.NewReader(data))
	if isHEIC(data) {
		return nil, input.Errorf("this is a HEIC picture, which is not read here; let the camera take JPEG (among its formats: most compatible), or save the picture as JPEG or PNG")
	}
	if err != nil || format != "png" && format != "jpeg" {
		return nil, input.Errorf("this is no PNG or JPEG picture; save the photo as one of the two")
	}
	if config.Width < 8 || config.Height < 8 {
		return nil, input.Errorf("the picture is %d by %d pixels, too small to pick a colour from", config.Width, config.Height)
	}
	if config.Width > longestSide || config.Height > longestSide || config.Width*config.Height > mostPixels {
		return nil, input.Errorf("the picture has %d by %d pixels: at most %d million are read; make it smaller and try again", config.Width, config.Height, mostPixels/1_000_000)
	}
	if long, short := max(config.Width, config.Height), min(config.Width, config.Height); long > longest*short {
		return nil, input.Errorf("the picture is %d by %d pixels, too narrow to read: at most %d times as long as it is wide", config.Width, config.Height, longest)
	}
	if format == "png" && bytes.Contains(data[:min(len(data), pngHead)], []byte("acTL")) {
		return nil, input.Errorf("this is a moving picture; save one picture of it as PNG or JPEG")
	}
	turned := upright
	if format == "jpeg" {
		var scans int
		if scans, turned = jpegNotes(data); scans > mostScans {
			return nil, input.Errorf("the picture is written in %d scans, more than %d: save it anew as PNG or JPEG", scans, mostScans)
		}
	}
	img, _, err := image.Decode(untilDone{ctx, bytes.NewReader(data)})
	switch {
	case ctx.Err() != nil:
		return nil, ctx.Err()
	case err != nil:
		return nil, input.Errorf("the picture is damaged: it cannot be decoded to the end")
	}
	return turned.of(img), nil
}

// longest is how many times as long as it is wide a picture may be.
const longest = 10

// pngHead is how far into a PNG it says whether it moves: before its pixels.
const pngHead = 1 << 16

// untilDone reads until somebody has left.
type untilDone struct {
	ctx context.Context
	io.Reader
}

func (r untilDone) Read(p []byte) (int, error) {
	if err := r.ctx.Err(); err != nil {
		return 0, err
	}
	return r.Reader.Read(p)
}

// isHEIC says that a file is a picture in the container of HEIF: its box "ftyp" comes first,
// with the brand behind it (ISO/IEC 23008-12).
func isHEIC(data []byte) bool {
	if len(data) < 12 || string(data[4:8]) != "ftyp" {
		return false
	}
	switch string(data[8:12]) {
	case "heic", "heix", "hevc", "hevx", "heim", "heis", "mif1", "msf1", "avif":
		return true
	}
	return false
}

// orientation is how a camera was held, as Exif numbers it: 1 upright, 3 upside down, 6 and
// 8 on a side, the others mirrored.
type orientation int

const upright orientation = 1

// jpegNotes are how many scans a JPEG has and how the camera was held (ITU T.81, annex B;
// Exif 2.3). What is damaged is read as far as it goes.
func jpegNotes(data []byte) (scans int, held orientation) {
	scans, held, _ = jpegSegments(data)
	return scans, held
}

// jpegSegments is jpegNotes, and whether the picture is of its pixels alone: nothing is noted in it, and nothing
// stands behind its end.
func jpegSegments(data []byte) (scans int, held orientation, plain bool) {
	held, plain = upright, true
	const (
		soi, eoi, sos, app1 = 0xd8, 0xd9, 0xda, 0xe1
		app0, appLast, com  = 0xe0, 0xef, 0xfe
		firstReset, lastRst = 0xd0, 0xd7
	)
	for at := 2; at+1 < len(data); {
		if data[at] != 0xff {
			next := bytes.IndexByte(data[at:], 0xff) // the pixels of a scan
			if next < 0 {
				return scans, held, false
			}
			at += next
			continue
		}
		marker := data[at+1]
		switch {
		case marker == 0xff: // a filling byte
			at++
			continue
		case marker == 0, marker >= firstReset && marker <= lastRst, marker == soi, marker == 1:
			at += 2
			continue
		case marker == eoi:
			return scans, held, plain && at+2 == len(data)
		}
		if at+4 > len(data) {
			return scans, held, false
		}
		plain = plain && marker != com && (marker < app0 || marker > appLast)
		end := at + 2 + int(binary.BigEndian.Uint16(data[at+2:]))
		switch marker {
		case sos:
			scans++
		case app1:
			if found := exifOrientation(data[at+4 : min(max(end, at+4), len(data))]); found != 0 {
				held = found
			}
		}
		at = max(end, at+2)
	}
	return scans, held, false
}

// exifOrientation finds how the camera was held in an Exif segment; 0 where it does not say.
func exifOrientation(segment []byte) orientation {
	tiff, is := bytes.CutPrefix(segment, []byte("Exif\x00\x00"))
	if !is || len(tiff) < 8 {
		return 0
	}
	var order binary.ByteOrder
	switch string(tiff[:2]) {
	case "II":
		order = binary.LittleEndian
	case "MM":
		order = binary.BigEndian
	default:
		return 0
	}
	at := int64(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > int64(len(tiff)) {
		return 0
	}
	entries := int64(order.Uint16(tiff[at:]))
	const entry, tag, short = 12, 0x0112, 3
	for n := range entries {
		from := at + 2 + n*entry
		if from+entry > int64(len(tiff)) {
			return 0
		}
		e := tiff[from : from+entry]
		if order.Uint16(e) == tag && order.Uint16(e[2:]) == short {
			if o := orientation(order.Uint16(e[8:])); o >= 1 && o <= 8 {
				return o
			}
			return 0
		}
	}
	return 0
}

// of is a picture turned upright.
func (o orientation) of(img image.Image) image.Image {
	if o <= upright || o > 8 {
		return img
	}
	b := img.Bounds()
	from := image.NewNRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	draw.Draw(from, from.Bounds(), img, b.Min, draw.Src)
	w, h := b.Dx(), b.Dy()
	onSide := o >= 5
	if onSide {
		w, h = h, w
	}
	out := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			fx, fy := x, y
			if onSide {
				fx, fy = y, x
			}
			switch o {
			case 2, 3, 7, 8:
				fx = b.Dx() - 1 - fx
			}
			switch o {
			case 3, 4, 6, 7:
				fy = b.Dy() - 1 - fy
			}
			copy(out.Pix[out.PixOffset(x, y):][:4], from.Pix[from.PixOffset(fx, fy):][:4])
		}
	}
	return out
}

// reduced is a picture of at most so many pixels a side, its pixels averaged.
func reduced(img image.Image, side int) image.Image {
	b := img.Bounds()
	if b.Dx() <= side && b.Dy() <= side {
		return img
	}
	scale := float64(side) / float64(max(b.Dx(), b.Dy()))
	size := func(n int) int { return max(1, int(float64(n)*scale+0.5)) }
	out := image.NewNRGBA(image.Rect(0, 0, size(b.Dx()), size(b.Dy())))
	draw.BiLinear.Scale(out, out.Bounds(), img, b, draw.Src, nil)
	return out
}
