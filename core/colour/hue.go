package colour

import (
	_ "embed"
	"math"
	"sort"

	"gyrophane/core/internal/table"
)

//go:embed data/wheel-hue.csv
var wheelHueCSV string

// hinges of the painter's circle, by rising OKLCh hue; the first is repeated a
// turn later, so that every hue lies between two.
var hinges = func() (out [][2]float64) {
	for _, row := range table.Rows(wheelHueCSV) {
		out = append(out, [2]float64{table.Number(row[1]), table.Number(row[2])})
	}
	sort.Slice(out, func(i, j int) bool { return out[i][0] < out[j][0] })
	return append(out, [2]float64{out[0][0] + 360, out[0][1] + 360})
}()

// WheelHue places an OKLCh hue (degrees) on the painter's circle: red 0,
// orange 60, yellow 120, green 180, blue 240, violet 300 degrees.
func WheelHue(oklch float64) float64 { return stretch(oklch, 0, 1) }

// HueOnWheel is the OKLCh hue (degrees) that stands at a place of the
// painter's circle; the inverse of WheelHue.
func HueOnWheel(wheel float64) float64 { return stretch(wheel, 1, 0) }

func stretch(v float64, from, to int) float64 {
	v = Turn(v)
	if v < hinges[0][from] {
		v += 360
	}
	i := 1
	for i < len(hinges)-1 && v > hinges[i][from] {
		i++
	}
	a, b := hinges[i-1], hinges[i]
	return Turn(a[to] + (v-a[from])/(b[from]-a[from])*(b[to]-a[to]))
}

// Turn brings degrees into 0 to 360.
func Turn(degrees float64) float64 {
	degrees = math.Mod(degrees, 360)
	if degrees < 0 {
		degrees += 360
	}
	if degrees >= 360 {
		return 0
	}
	return degrees
}

// TurnBetween is the shorter way from one hue to another, -180 to 180 degrees.
func TurnBetween(from, to float64) float64 {
	d := Turn(to - from)
	if d > 180 {
		d -= 360
	}
	return d
}

var hueWords = [12]string{"red", "red-orange", "orange", "yellow-orange", "yellow", "yellow-green",
	"green", "blue-green", "blue", "blue-violet", "violet", "red-violet"}

// HueWord names the nearest of the twelve hues of the painter's circle to a
// wheel hue in degrees.
func HueWord(wheel float64) string {
	return hueWords[int(math.Round(Turn(wheel)/30))%12]
}

// HueWords are the twelve hues of the painter's circle, red first, by rising
// wheel hue in steps of 30 degrees.
func HueWords() []string { return hueWords[:] }
