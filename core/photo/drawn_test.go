package photo

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// drawnSheet is a wheel of twelve without paints, 100 mm wide, and what its places reflect.
func drawnSheet() (s bench.Sheet, reflects []rgb) {
	s = bench.Blank(bench.Settings{Diameter: 100, Inner: 25})
	r := rand.New(rand.NewPCG(26, 3))
	for k := range 12 {
		s.Regions = append(s.Regions, bench.Region{ID: string(rune('a' + k)), Shape: bench.Shape{From: float64(30*k) - 15, To: float64(30*k) + 15, Inner: 25, Outer: 50}})
		reflects = append(reflects, rgb{0.1 + 0.5*r.Float64(), 0.1 + 0.5*r.Float64(), 0.1 + 0.5*r.Float64()})
	}
	return s, reflects
}

// drawing is how a sheet is drawn.
type drawing struct {
	scale    float64                    // pixels to a mm
	turned   float64                    // degrees
	far      float64                    // how much smaller its far side is, 0 for none
	mirrored bool                       //
	light    rgb                        // of bare paper, linear
	across   func(x, y float64) float64 // what the light is there, over that
	over     func(x, y float64) float64 // light that is mirrored there, added
	soft     int                        // pixels that edges are blurred over
	cropped  bool
}

// draw draws a sheet, small, without a camera's curves or noise; it answers with where the
// middles of its marks lie.
func (d drawing) draw(s *bench.Sheet, reflects []rgb) (Picture, Corners) {
	const around = 14.0 // mm of paper
	marks := s.Marks()
	reach := marks[2][0] + around
	size := int(2 * reach * d.scale)
	p := Picture{W: size, H: size, Pix: make([]float32, 3*size*size)}
	if d.across == nil {
		d.across = func(float64, float64) float64 { return 1 }
	}
	// From the sheet to the picture, about its middle; and back by its corners.
	a := d.turned * math.Pi / 180
	place := func(x, y float64) [2]float64 {
		if d.mirrored {
			x = -x
		}
		x, y = x*math.Cos(a)-y*math.Sin(a), x*math.Sin(a)+y*math.Cos(a)
		w := 1 + d.far*(reach-y)/(2*reach)
		return [2]float64{float64(size)/2 + 0.8*d.scale*x/w, float64(size)/2 + 0.8*d.scale*y/w}
	}
	var at Corners
	for n, m := range marks {
		at[n] = place(m[0], m[1])
	}
	var back homography
	var ok bool
	corners := [4][2]float64{at[0], at[1], at[2], at[3]}
	if back, ok = straighten(corners, Corners(marks)); !ok {
		panic("the marks do not lie on a line")
	}
	const fine = 2 // samples a side of a pixel
	for j := range size {
		for i := range size {
			var sum rgb
			for k := range fine * fine {
				px, py := float64(i)+(float64(k%fine)+0.5)/fine-0.5, float64(j)+(float64(k/fine)+0.5)/fine-0.5
				x, y := back.at(px, py)
				of := rgb{paint.WhiteGround, paint.WhiteGround, paint.WhiteGround}
				for n := range s.Regions {
					if s.Regions[n].Holds(x, y, 0) {
						of = reflects[n]
						break
					}
				}
				for n, m := range marks {
					switch r := math.Hypot(x-m[0], y-m[1]) / bench.MarkRadius; {
					case r > 1:
					case n == 0 && r < bench.MarkDot, n == 1, r > bench.MarkRing:
						of = rgb{0.02, 0.02, 0.02}
					}
				}
				for c := range sum {
					v := of[c] / paint.WhiteGround * d.light[c] * d.across(x, y)
					if d.over != nil {
						v += d.over(x, y)
					}
					sum[c] += v / (fine * fine)
				}
			}
			for c := range sum {
				p.Pix[3*(j*size+i)+c] = float32(math.Min(1, sum[c]))
			}
		}
	}
	if d.soft > 0 {
		p = softened(p, d.soft)
	}
	if d.cropped {
		h := p.H * 3 / 4
		p = Picture{W: p.W, H: h, Pix: p.Pix[:3*p.W*h]}
	}
	return p, at
}

// softened is a picture whose pixels are the means of those round them.
func softened(p Picture, by int) Picture {
	out := Picture{W: p.W, H: p.H, Pix: make([]float32, len(p.Pix))}
	for pass := range 2 {
		from := p
		if pass == 1 {
			from = Picture{W: p.W, H: p.H, Pix: slices.Clone(out.Pix)}
		}
		for j := range p.H {
			for i := range p.W {
				for c := range 3 {
					sum, n := float32(0), float32(0)
					for k := -by; k <= by; k++ {
						x, y := i, j
						if pass == 0 {
							x += k
						} else {
							y += k
						}
						if x >= 0 && y >= 0 && x < p.W && y < p.H {
							sum += from.Pix[3*(y*p.W+x)+c]
							n++
						}
					}
					out.Pix[3*(j*p.W+i)+c] = sum / n
				}
			}
		}
	}
	return out
}

var plain = drawing{scale: 4, light: rgb{0.6, 0.6, 0.6}}

// The colours that are drawn are read, however the sheet lies and whatever daylight falls on it.
func TestDrawnColoursAreRead(t *testing.T) {
	s, reflects := drawnSheet()
	for name, change := range map[string]func(d *drawing){
		"as it is":       func(*drawing) {},
		"turned":         func(d *drawing) { d.turned = 90 },
		"upside down":    func(d *drawing) { d.turned = 170 },
		"from the side":  func(d *drawing) { d.far = 0.25 },
		"bluish":         func(d *drawing) { d.light = rgb{0.55, 0.6, 0.68} },
		"darker":         func(d *drawing) { d.light = rgb{0.2, 0.2, 0.2} },
		"a slope of 2:1": func(d *drawing) { d.across = func(x, _ float64) float64 { return math.Pow(2, x/140) } },
		"a bowl": func(d *drawing) {
			d.across = func(x, y float64) float64 { return math.Exp(-0.35 * (x*x + y*y) / (60 * 60)) }
		},
	} {
		if testing.Short() && name != "from the side" && name != "a bowl" {
			continue
		}
		d := plain
		change(&d)
		p, at := d.draw(&s, reflects)
		found, err := FindMarks(&p, &s)
		require.NoError(t, err, name)
		for n := range at {
			assert.InDelta(t, at[n][0], found[n][0], 0.5, "%s: mark %d", name, n)
			assert.InDelta(t, at[n][1], found[n][1], 0.5, "%s: mark %d", name, n)
		}
		got, err := ReadSheet(&p, &s, found, nil)
		require.NoError(t, err, name)
		require.Len(t, got.Readings, 12)
		worst := 0.0
		for n, r := range got.Readings {
			assert.Equal(t, n, r.Region)
			assert.Empty(t, r.Doubt, "%s: %s", name, s.Regions[n].ID)
			// A light that is tinted is taken for the paper's: what is left is what the paper says.
			if name != "bluish" {
				worst = max(worst, colour.Difference(r.Lab, reflects[n].xyz().Lab(colour.D65.White())))
			}
			assert.Less(t, r.Spread, 1.0, name)
		}
		assert.Less(t, worst, 0.6, name)
		assert.NotNil(t, got.Straight(&p, &s, true))
		w, h := StraightSize(&s)
		assert.Equal(t, [2]int{w, h}, [2]int{got.Straight(&p, &s, false).Bounds().Dx(), got.Straight(&p, &s, false).Bounds().Dy()})
		middle := got.Pixel(0, 0)
		assert.InDelta(t, float64(p.W)/2, middle[0], 1, name)
	}
}

// A picture that cannot be trusted is refused with the sentence that says what to do.
func TestPicturesThatCannotBeTrustedAreRefused(t *testing.T) {
	s, reflects := drawnSheet()
	burnt := func(x, y float64) float64 {
		if r := math.Hypot(x, y); r > 25 && r < 50 && x > -20 {
			return 0.9 * math.Abs(math.Sin(x)*math.Cos(y))
		}
		return 0
	}
	for says, change := range map[string]func(d *drawing){
		"too dark":              func(d *drawing) { d.light = rgb{0.03, 0.03, 0.03} },
		"a warm lamp":           func(d *drawing) { d.light = rgb{0.8, 0.5, 0.2} },
		"the light is coloured": func(d *drawing) { d.light = rgb{0.2, 0.4, 0.9} },
		"too small":             func(d *drawing) { d.scale = 2.4 },
		"is blurred":            func(d *drawing) { d.soft = 4 },
		"a shadow's edge": func(d *drawing) {
			d.across = func(x, _ float64) float64 {
				if x > 5 {
					return 0.5
				}
				return 1
			}
		},
		"glare or are burnt out": func(d *drawing) { d.over = burnt },
	} {
		d := plain
		change(&d)
		p, at := d.draw(&s, reflects)
		_, err := ReadSheet(&p, &s, at, nil)
		if assert.ErrorAs(t, err, new(input.Error), says) {
			assert.ErrorContains(t, err, says)
		}
	}
	p, at := plain.draw(&s, reflects)
	_, err := ReadSheet(&p, &s, Corners{at[1], at[0], at[3], at[2]}, nil)
	assert.ErrorContains(t, err, "mirrored")
	_, err = ReadSheet(&p, &s, Corners{at[0], at[2], at[1], at[3]}, nil)
	assert.ErrorContains(t, err, "do not stand round")
	_, err = ReadSheet(&p, &s, Corners{at[0], at[1], at[2], {-5, 9}}, nil)
	assert.ErrorContains(t, err, "outside of the picture")

	mirrored := plain
	mirrored.mirrored = true
	p, _ = mirrored.draw(&s, reflects)
	_, err = FindMarks(&p, &s)
	assert.ErrorContains(t, err, "mirrored")
	cropped := plain
	cropped.cropped = true
	p, _ = cropped.draw(&s, reflects)
	_, err = FindMarks(&p, &s)
	assert.ErrorContains(t, err, "marks")
}

// What of one place cannot be believed is doubted, and it alone.
func TestAPlaceThatCannotBeBelievedIsDoubted(t *testing.T) {
	s, reflects := drawnSheet()
	in := func(n int) func(x, y float64) bool {
		return func(x, y float64) bool { return s.Regions[n].Holds(x, y, 0) }
	}
	for says, change := range map[string]func(d *drawing, of []rgb){
		"it glares": func(d *drawing, _ []rgb) {
			d.over = func(x, y float64) float64 {
				if in(0)(x, y) && math.Abs(x) < 5 && y < -33 && y > -42 {
					return 0.8
				}
				return 0
			}
		},
		"outside of what a photo can hold": func(_ *drawing, of []rgb) { of[0] = rgb{0.5, 0.3, 0} },
		"it is uneven": func(d *drawing, _ []rgb) {
			d.across = func(x, y float64) float64 {
				if in(0)(x, y) && x > 0 {
					return 0.55
				}
				return 1
			}
		},
	} {
		d, of := plain, slices.Clone(reflects)
		change(&d, of)
		p, at := d.draw(&s, of)
		got, err := ReadSheet(&p, &s, at, nil)
		require.NoError(t, err, says)
		for n, r := range got.Readings {
			if n == 0 {
				assert.Contains(t, r.Doubt, says)
			} else {
				assert.Empty(t, r.Doubt, "%s: %s", says, s.Regions[n].ID)
			}
		}
	}
}

func TestSpotsAreMovedAndLeftOut(t *testing.T) {
	s, reflects := drawnSheet()
	p, at := plain.draw(&s, reflects)
	// The spot of the first place lies on the opposite one.
	got, err := ReadSheet(&p, &s, at, map[string]Spot{"a": {DY: 75}, "c": {Left: true}, "e": {DX: 500}})
	require.NoError(t, err)
	require.Len(t, got.Readings, 11)
	assert.Less(t, colour.Difference(got.Readings[0].Lab, reflects[6].xyz().Lab(colour.D65.White())), 12.0, "it reaches into its neighbours")
	assert.NotEqual(t, 2, got.Readings[2].Region)
	for _, r := range got.Readings {
		if s.Regions[r.Region].ID == "e" {
			assert.Equal(t, "it lies at the edge of the picture", r.Doubt)
		}
	}

	// A wheel that was drawn freely is read by its quarter points.
	h, ok := straighten(s.Marks(), at)
	require.True(t, ok)
	var quarters Corners
	for n, q := range s.Quarters() {
		quarters[n][0], quarters[n][1] = h.at(q[0], q[1])
	}
	drawn, err := ReadDrawn(&p, &s, quarters, nil)
	require.NoError(t, err)
	for n, r := range drawn.Readings {
		assert.Less(t, colour.Difference(r.Lab, reflects[n].xyz().Lab(colour.D65.White())), 0.6)
	}
}
