package files

import (
	"github.com/makiuchi-d/gozxing/qrcode/decoder"
	"github.com/makiuchi-d/gozxing/qrcode/encoder"

	"gyrophane/core/input"
)

// quiet is how many light modules a code has about it, so that a camera finds it.
const quiet = 4

// QRCode is a text as a square of dark modules, row by row, with a light edge: a QR code [ISO/IEC 18004] that is read with 15 of 100
// modules spoiled. The error is an input.Error.
func QRCode(text string) ([][]bool, error) {
	code, err := encoder.Encoder_encode(text, decoder.ErrorCorrectionLevel_M, nil)
	if err != nil {
		return nil, input.Errorf("%d letters make no code: %v", len(text), err)
	}
	matrix := code.GetMatrix()
	n := matrix.GetWidth()
	out := make([][]bool, n+2*quiet)
	for y := range out {
		out[y] = make([]bool, n+2*quiet)
		for x := range out[y] {
			if mx, my := x-quiet, y-quiet; mx >= 0 && mx < n && my >= 0 && my < n {
				out[y][x] = matrix.Get(mx, my) == 1
			}
		}
	}
	return out, nil
}
