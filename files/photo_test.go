package files

import (
	"bytes"
	"context"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// shot is a photo of bare paper on the left, a swatch in the middle and another
// on the right, under a light that gives paper the first colour.
func shot(paper, mass, tint color.Color) image.Image {
	m := image.NewNRGBA(image.Rect(0, 0, 90, 60))
	for x := range 90 {
		for y := range 60 {
			c := paper
			switch {
			case x >= 60:
				c = tint
			case x >= 30:
				c = mass
			}
			m.Set(x, y, c)
		}
	}
	return m
}

func asPNG(t testing.TB, m image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, m))
	return b.Bytes()
}

var (
	onPaper = Spot{0.15, 0.5, 0.05}
	onMass  = map[string]Spot{"mass": {0.5, 0.5, 0.05}}
)

func pick(t testing.TB, data []byte) (map[string]paint.RawReading, error) {
	t.Helper()
	p, err := ReadPhoto(context.Background(), data)
	if err != nil {
		return nil, err
	}
	return p.Pick(onPaper, onMass, "acrylic", "dry")
}

func TestTheLightOfThePhotoIsDividedOut(t *testing.T) {
	grey := color.NRGBA{180, 180, 180, 255}
	want, err := pick(t, asPNG(t, shot(grey, color.NRGBA{40, 70, 130, 255}, grey)))
	require.NoError(t, err)
	assert.Less(t, want["mass"].Lab[2], -20.0, "a blue")

	// The same scene twice as bright, in linear light.
	bright, err := pick(t, asPNG(t, shot(color.NRGBA{244, 244, 244, 255}, color.NRGBA{56, 97, 177, 255}, grey)))
	require.NoError(t, err)
	for i := range 3 {
		assert.InDelta(t, want["mass"].Lab[i], bright["mass"].Lab[i], 1.5, "exposure does not matter")
	}

	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, shot(grey, color.NRGBA{40, 70, 130, 255}, grey), &jpeg.Options{Quality: 95}))
	asJPEG, err := pick(t, b.Bytes())
	require.NoError(t, err)
	for i := range 3 {
		assert.InDelta(t, want["mass"].Lab[i], asJPEG["mass"].Lab[i], 2)
	}

	warm := color.NRGBA{220, 190, 150, 255}
	same, err := pick(t, asPNG(t, shot(warm, warm, warm)))
	require.NoError(t, err)
	lab := same["mass"].Lab
	assert.InDelta(t, 0, lab[1], 0.1, "what looks like the paper is the colour of paper")
	assert.InDelta(t, 0, lab[2], 0.1)
	assert.InDelta(t, 96, lab[0], 0.5)
}

// bomb is a PNG that announces many pixels and holds none.
func bomb(width, height uint32) []byte {
	var b bytes.Buffer
	b.WriteString("\x89PNG\r\n\x1a\n")
	chunk := func(kind string, data []byte) {
		binary.Write(&b, binary.BigEndian, uint32(len(data)))
		body := append([]byte(kind), data...)
		b.Write(body)
		binary.Write(&b, binary.BigEndian, crc32.ChecksumIEEE(body))
	}
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, width), height)
	chunk("IHDR", append(head, 8, 2, 0, 0, 0))
	chunk("IEND", nil)
	return b.Bytes()
}

func TestPhotosThatCannotBeReadSayWhy(t *testing.T) {
	grey := color.NRGBA{180, 180, 180, 255}
	good := asPNG(t, shot(grey, grey, grey))
	for says, data := range map[string][]byte{
		"no photo":           nil,
		"no PNG or JPEG":     []byte("GIF89a,,,,,,,,,,,,"),
		"damaged":            good[:len(good)-40],
		"at most 27 million": bomb(60000, 60000),
		"50000 by 100":       bomb(50000, 100),
		"too small":          asPNG(t, image.NewNRGBA(image.Rect(0, 0, 4, 4))),
		"overexposed":        asPNG(t, shot(color.White, grey, grey)),
		"too dark":           asPNG(t, shot(color.NRGBA{40, 40, 40, 255}, grey, grey)),
		"too strongly":       asPNG(t, shot(color.NRGBA{220, 120, 20, 255}, grey, grey)),
		"mass: the photo is": asPNG(t, shot(grey, color.White, grey)),
		"transparent":        asPNG(t, shot(grey, color.NRGBA{9, 9, 9, 100}, grey)),
		"too narrow":         bomb(8, 100),
		"HEIC":               append([]byte("\x00\x00\x00\x18ftypheic"), make([]byte, 40)...),
		"101 scans":          scans(t, 101),
		"larger than 20 MB":  make([]byte, MostPhotoBytes+1),
	} {
		_, err := pick(t, data)
		require.Error(t, err, says)
		assert.ErrorAs(t, err, new(input.Error), says)
		assert.Contains(t, err.Error(), says)
	}
}

// scans is a sound JPEG whose scan is written so many times.
func scans(t testing.TB, n int) []byte {
	t.Helper()
	plain, err := JPEG(shot(color.White, color.Black, color.White))
	require.NoError(t, err)
	at := bytes.Index(plain, []byte{0xff, 0xda})
	require.Positive(t, at)
	scan := plain[at : len(plain)-2]
	return append(append(slices.Clone(plain[:at]), bytes.Repeat(scan, n)...), 0xff, 0xd9)
}

// A JPEG of many scans is refused by reading over it once, whatever its pixels.
func TestScansAreCountedBeforeAnyIsDecoded(t *testing.T) {
	for _, n := range []int{1, 10, 100} {
		got, held := jpegNotes(scans(t, n))
		assert.Equal(t, n, got)
		assert.Equal(t, upright, held)
	}
	_, err := ReadPhoto(context.Background(), scans(t, 3000))
	assert.ErrorContains(t, err, "written in 3000 scans")
}

// Whoever asked and left is not decoded for.
func TestDecodingEndsWithWhoAsked(t *testing.T) {
	gone, leave := context.WithCancel(context.Background())
	leave()
	_, err := ReadPhoto(gone, asPNG(t, shot(color.White, color.White, color.White)))
	assert.ErrorIs(t, err, context.Canceled)
}

// Each way a camera can be held puts the same picture upright.
func TestEveryWayToHoldACameraIsHonoured(t *testing.T) {
	// An F-like picture: three corners in three colours tell it from all its mirrors and turns.
	upright := image.NewNRGBA(image.Rect(0, 0, 48, 32))
	for y := range 32 {
		for x := range 48 {
			c := color.NRGBA{128, 128, 128, 255}
			switch {
			case x < 16 && y < 16:
				c = color.NRGBA{220, 30, 30, 255}
			case x >= 32 && y < 16:
				c = color.NRGBA{30, 200, 30, 255}
			case x < 16 && y >= 16:
				c = color.NRGBA{30, 30, 220, 255}
			}
			upright.SetNRGBA(x, y, c)
		}
	}
	// Where a pixel of the upright picture lies in the file, by Exif's own table of rows and columns.
	const w, h = 48, 32
	inFile := map[int]func(x, y int) (int, int){
		1: func(x, y int) (int, int) { return x, y },
		2: func(x, y int) (int, int) { return w - 1 - x, y },
		3: func(x, y int) (int, int) { return w - 1 - x, h - 1 - y },
		4: func(x, y int) (int, int) { return x, h - 1 - y },
		5: func(x, y int) (int, int) { return y, x },
		6: func(x, y int) (int, int) { return y, w - 1 - x },
		7: func(x, y int) (int, int) { return h - 1 - y, w - 1 - x },
		8: func(x, y int) (int, int) { return h - 1 - y, x },
	}
	for o, at := range inFile {
		size := image.Rect(0, 0, w, h)
		if o >= 5 {
			size = image.Rect(0, 0, h, w)
		}
		file := image.NewNRGBA(size)
		for y := range h {
			for x := range w {
				fx, fy := at(x, y)
				file.Set(fx, fy, upright.At(x, y))
			}
		}
		plain, err := JPEG(file)
		require.NoError(t, err)
		for _, order := range []binary.ByteOrder{binary.BigEndian, binary.LittleEndian} {
			tiff := []byte("MM\x00\x2a")
			if order == binary.LittleEndian {
				tiff = []byte("II\x2a\x00")
			}
			put16 := func(v uint16) { b := make([]byte, 2); order.PutUint16(b, v); tiff = append(tiff, b...) }
			put32 := func(v uint32) { b := make([]byte, 4); order.PutUint32(b, v); tiff = append(tiff, b...) }
			put32(8)
			put16(1)
			put16(0x0112)
			put16(3)
			put32(1)
			put16(uint16(o))
			put16(0)
			put32(0)
			exif := append([]byte("Exif\x00\x00"), tiff...)
			noted := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, byte(len(exif) + 2)}, append(exif, plain[2:]...)...)
			got, err := ReadPhoto(context.Background(), noted)
			require.NoError(t, err)
			gw, gh := got.Size()
			require.Equal(t, [2]int{w, h}, [2]int{gw, gh}, "held as %d", o)
			for name, spot := range map[string][2]int{"red": {8, 8}, "green": {40, 8}, "blue": {8, 24}} {
				want := upright.NRGBAAt(spot[0], spot[1])
				r, g, b, _ := got.image.At(got.image.Bounds().Min.X+spot[0], got.image.Bounds().Min.Y+spot[1]).RGBA()
				assert.InDelta(t, float64(want.R), float64(r>>8), 40, "held as %d: %s", o, name)
				assert.InDelta(t, float64(want.G), float64(g>>8), 40, "held as %d: %s", o, name)
				assert.InDelta(t, float64(want.B), float64(b>>8), 40, "held as %d: %s", o, name)
			}
		}
	}
}

// A photo of 26 megapixels is read and reduced.
func TestALargePhotoPasses(t *testing.T) {
	large := image.NewYCbCr(image.Rect(0, 0, 6240, 4160), image.YCbCrSubsampleRatio420)
	for i := range large.Y {
		large.Y[i] = uint8(i / 7)
	}
	data, err := JPEG(large)
	require.NoError(t, err)
	got, err := ReadPhoto(context.Background(), data)
	require.NoError(t, err)
	w, h := got.Reduced().Size()
	assert.Equal(t, [2]int{2000, 1333}, [2]int{w, h})
}

func FuzzJPEGNotes(f *testing.F) {
	f.Add(scans(f, 2))
	f.Add([]byte("\xff\xd8\xff\xe1\x00\x20Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\xff\xff"))
	f.Fuzz(func(t *testing.T, data []byte) {
		n, held := jpegNotes(data)
		require.True(t, n >= 0 && n <= len(data) && held >= 1 && held <= 8)
	})
}

func TestParseSpot(t *testing.T) {
	s, err := ParseSpot("tint", "0.5, 0.25,0.02")
	require.NoError(t, err)
	assert.Equal(t, Spot{0.5, 0.25, 0.02}, s)
	for _, text := range []string{"", "1", "1,1", "1,1,1,1", "a,b,c", "2,0,0.1", "0.5,0.5,0", "0.5,0.5,0.3", "NaN,0,0.1", "-0.1,0,0.1"} {
		_, err := ParseSpot("tint", text)
		assert.ErrorContains(t, err, "tint: ", text)
	}
}

func FuzzPhoto(f *testing.F) {
	grey := color.NRGBA{180, 180, 180, 255}
	f.Add(asPNG(f, shot(grey, color.NRGBA{40, 70, 130, 255}, grey)), "0.5,0.5,0.1")
	f.Add(bomb(60000, 60000), "0,0,0.25")
	f.Add([]byte("\xff\xd8\xff"), "1,1,0.01")
	f.Fuzz(func(t *testing.T, data []byte, spot string) {
		s, err := ParseSpot("mass", spot)
		if err != nil {
			return
		}
		p, err := ReadPhoto(context.Background(), data)
		if err != nil {
			return
		}
		got, err := p.Pick(onPaper, map[string]Spot{"mass": s}, "acrylic", "dry")
		if err != nil {
			return
		}
		lab := got["mass"].Lab
		require.True(t, lab[0] >= 0 && lab[0] <= 100, lab)
	})
}

// The camera's note of how it was held is honoured, and nothing of what it notes is kept.
func TestAPhotoStandsAsItWasHeld(t *testing.T) {
	wide := image.NewNRGBA(image.Rect(0, 0, 64, 32))
	for y := range 32 {
		for x := range 64 {
			wide.SetNRGBA(x, y, color.NRGBA{200, 40, 40, 255})
			if x < 32 {
				wide.SetNRGBA(x, y, color.NRGBA{40, 40, 200, 255})
			}
		}
	}
	plain, err := JPEG(wide)
	require.NoError(t, err)
	// An Exif block that says: turned a quarter, and taken at a place.
	tiff := []byte("MM\x00\x2a\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00the harbour wall")
	exif := append([]byte("Exif\x00\x00"), tiff...)
	noted := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, byte(len(exif) + 2)}, append(exif, plain[2:]...)...)
	got, err := ReadPhoto(context.Background(), noted)
	require.NoError(t, err)
	w, h := got.Size()
	assert.Equal(t, [2]int{32, 64}, [2]int{w, h})
	p := got.Picture()
	assert.Greater(t, p.Pix[2], p.Pix[0], "the blue half is on top")
	kept, err := got.JPEG()
	require.NoError(t, err)
	assert.NotContains(t, string(kept), "harbour")
	assert.NotContains(t, string(kept), "Exif")
}

func TestPhotosAreReducedToWhatIsKept(t *testing.T) {
	large, err := JPEG(image.NewNRGBA(image.Rect(0, 0, 3000, 1500)))
	require.NoError(t, err)
	got, err := ReadPhoto(context.Background(), large)
	require.NoError(t, err)
	w, h := got.Reduced().Size()
	assert.Equal(t, [2]int{2000, 1000}, [2]int{w, h})

	var forty bytes.Buffer
	require.NoError(t, png.Encode(&forty, image.NewGray(image.Rect(0, 0, 8000, 5000))))
	_, err = ReadPhoto(context.Background(), forty.Bytes())
	assert.ErrorContains(t, err, "at most 27 million are read")

	var still bytes.Buffer
	require.NoError(t, png.Encode(&still, image.NewGray(image.Rect(0, 0, 20, 20))))
	moving := bytes.Replace(still.Bytes(), []byte("IDAT"), []byte("acTLIDAT"), 1)
	_, err = ReadPhoto(context.Background(), moving)
	assert.ErrorContains(t, err, "a moving picture")
}

// A photo that is kept is kept as it is; a note of a camera in one, or what stands behind its end, is not.
func TestAPhotoOfItsPixelsAloneStaysAsItIs(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, shot(color.White, color.Black, color.White), nil))
	plain := out.Bytes()
	kept, w, h, err := PlainJPEG(t.Context(), plain)
	require.NoError(t, err)
	assert.Equal(t, plain, kept)
	assert.Positive(t, w*h)
	note := []byte{0xff, 0xfe, 0, 6, 'A', 'd', 'a', '!'}
	for name, data := range map[string][]byte{
		"a note":          slices.Concat(plain[:2], note, plain[2:]),
		"behind its end":  slices.Concat(plain, []byte("PK")),
		"another picture": asPNG(t, shot(color.White, color.Black, color.White)),
	} {
		got, _, _, err := PlainJPEG(t.Context(), data)
		require.NoError(t, err, name)
		again, _, _, err := PlainJPEG(t.Context(), got)
		require.NoError(t, err, name)
		assert.NotContains(t, string(got), "Ada!", name)
		assert.NotEqual(t, data, got, name)
		assert.Equal(t, got, again, name)
	}
}
