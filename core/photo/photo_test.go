package photo

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
)

// A homography takes its four points where they are said to go, and lines to lines.
func TestFourPointsStraighten(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 9))
	from := [4][2]float64{{-60, -60}, {60, -60}, {60, 60}, {-60, 60}}
	for range 200 {
		to := Corners{}
		for i, p := range from {
			to[i] = [2]float64{500 + 4*p[0] + 60*r.Float64(), 400 + 4*p[1] + 60*r.Float64()}
		}
		h, ok := straighten(from, to)
		require.True(t, ok)
		for i, p := range from {
			x, y := h.at(p[0], p[1])
			assert.InDelta(t, to[i][0], x, 1e-6)
			assert.InDelta(t, to[i][1], y, 1e-6)
		}
		ax, ay := h.at(-60, -60)
		bx, by := h.at(60, 60)
		cx, cy := h.at(0, 0)
		across := (bx-ax)*(cy-ay) - (by-ay)*(cx-ax)
		assert.InDelta(t, 0, across/math.Hypot(bx-ax, by-ay), 1e-6, "the middle of a diagonal lies on it")
	}
	_, ok := straighten([4][2]float64{{0, 0}, {1, 1}, {2, 2}, {0, 5}}, Corners{{0, 0}, {1, 0}, {2, 0}, {0, 1}})
	assert.False(t, ok)
}

func TestCornersSayHowTheyGoRound(t *testing.T) {
	assert.Equal(t, 1, Corners{{0, 0}, {10, 0}, {10, 10}, {0, 10}}.turn())
	assert.Equal(t, -1, Corners{{10, 0}, {0, 0}, {0, 10}, {10, 10}}.turn())
	assert.Zero(t, Corners{{0, 0}, {10, 10}, {10, 0}, {0, 10}}.turn())
}

func TestAPictureIsInLinearLight(t *testing.T) {
	img := image.NewNRGBA(image.Rect(0, 0, 2, 2))
	for i := range 4 {
		img.SetNRGBA(i%2, i/2, color.NRGBA{188, 188, 188, 255})
	}
	p := FromImage(img)
	c, ok := p.at(0.5, 0.5)
	require.True(t, ok)
	assert.InDelta(t, 0.503, c[0], 0.001)
	xyz := c.xyz()
	assert.InDelta(t, 0.503, xyz.Y, 0.002)
	_, ok = p.at(1.5, 0)
	assert.False(t, ok)
	daylight := colour.D65.White()
	assert.InDelta(t, 6500, kelvin(daylight), 100)
	lamp := colour.A.White()
	assert.InDelta(t, 2850, kelvin(lamp), 100)
}

// Bare paper is looked at beside what is painted, and within the ring of a wheel too.
func TestBarePaperLiesBesideWhatIsPainted(t *testing.T) {
	s := bench.Blank(bench.Settings{Diameter: 180, Inner: 45})
	for k := range 12 {
		s.Regions = append(s.Regions, bench.Region{Shape: bench.Shape{From: float64(30*k) - 15, To: float64(30*k) + 15, Inner: 45, Outer: 90}})
	}
	inside := 0
	places := bare(&s)
	for _, at := range places {
		d := math.Hypot(at[0], at[1])
		assert.True(t, d < 45 || d > 90)
		if d < 45 {
			inside++
		}
	}
	assert.Greater(t, inside, 16)
	assert.Greater(t, len(places)-inside, 24)
}
