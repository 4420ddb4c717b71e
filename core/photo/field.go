package photo

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/bench"
)

// field is how bright the light is over a sheet, by channel: the exponential of a
// polynomial in mm over the sheet's size.
type field struct {
	scale    float64
	of       [3][]float64
	off      float64 // nine in ten places of bare paper lie within so much of it, in log light
	contrast float64 // the brightest over the darkest of bare paper
	paper    rgb     // the paper in the middle of the places
}

// paperGap is how far from an edge bare paper is looked at, mm, and paperSpot how wide
// the spot is.
const (
	paperGap  = 2.2
	paperSpot = 1.2
)

// Enough places for a field with a bowl.
const enoughForBowl = 16

// bare are places on a sheet where its paper is bare, mm.
func bare(s *bench.Sheet) (out [][2]float64) {
	free := func(x, y float64) bool {
		for _, m := range s.Marks() {
			if math.Hypot(x-m[0], y-m[1]) < bench.MarkRadius+paperGap {
				return false
			}
		}
		if step := s.GreyStep(); math.Hypot(x-step[0], y-step[1]) < bench.GreyRadius+paperGap {
			return false
		}
		for i := range s.Regions {
			if s.Regions[i].Holds(x, y, -paperGap+0.2) {
				return false
			}
		}
		return true
	}
	add := func(x, y float64) {
		if free(x, y) {
			out = append(out, [2]float64{x, y})
		}
	}
	if s.Kind == "wheel" {
		for k := range 48 {
			a := float64(k) * math.Pi / 24
			add((s.W/2+paperGap)*math.Sin(a), -(s.W/2+paperGap)*math.Cos(a))
			for _, share := range []float64{0.25, 0.55, 0.85} {
				if r := s.Inner*share - 1; k%3 == 0 && r > 0 {
					add(r*math.Sin(a), -r*math.Cos(a))
				}
			}
		}
		add(0, 0)
		return append(out, besideRows(s, free)...)
	}
	for k := range 25 {
		at := float64(k) / 24
		add(-paperGap, s.H*at)
		add(s.W+paperGap, s.H*at)
		add(s.W*at, -paperGap)
		add(s.W*at, s.H+bench.Beneath-1)
	}
	return append(out, besideRows(s, free)...)
}

// besideRows are places between rows, and between rectangles that do not touch.
func besideRows(s *bench.Sheet, free func(x, y float64) bool) (out [][2]float64) {
	for i := range s.Regions {
		r := &s.Regions[i]
		for _, at := range [][2]float64{{r.X + r.W + 2, r.Y + r.H/2}, {r.X + r.W/2, r.Y + r.H + bench.Beneath - 1}} {
			if r.W > 0 && free(at[0], at[1]) {
				out = append(out, at)
			}
		}
	}
	return out
}

// lit measures the light on the bare paper of a sheet: by robust least squares [Huber
// 1964] in log light, a polynomial of the second degree where there are places enough,
// else of the first; false where there is too little bare paper to tell.
func (p *Picture) lit(s *bench.Sheet, h homography) (f field, ok bool) {
	type place struct {
		x, y float64
		log  rgb
	}
	f.scale = math.Max(s.W, s.H) / 2
	var places []place
	for _, at := range bare(s) {
		light, seen := p.brightest(h, at[0], at[1])
		if !seen || min(light[0], light[1], light[2]) < darkest {
			continue
		}
		places = append(places, place{at[0] / f.scale, at[1] / f.scale, rgb{math.Log(light[0]), math.Log(light[1]), math.Log(light[2])}})
	}
	terms := 6
	if len(places) < enoughForBowl {
		terms = 3
	}
	if len(places) < 2*terms {
		return f, false
	}
	weights := make([]float64, len(places))
	var off []float64
	for c := range 3 {
		for i := range weights {
			weights[i] = 1
		}
		var solved mat.VecDense
		for range 12 {
			a := mat.NewDense(len(places), terms, nil)
			b := mat.NewVecDense(len(places), nil)
			for i, at := range places {
				for k, v := range polynomial(at.x, at.y)[:terms] {
					a.Set(i, k, v*weights[i])
				}
				b.SetVec(i, at.log[c]*weights[i])
			}
			if err := solved.SolveVec(a, b); err != nil {
				return f, false
			}
			rest := make([]float64, len(places))
			for i, at := range places {
				for k, v := range polynomial(at.x, at.y)[:terms] {
					rest[i] += v * solved.AtVec(k)
				}
				rest[i] = math.Abs(rest[i] - at.log[c])
			}
			sorted := slices.Sorted(slices.Values(rest))
			limit := math.Max(1.5*1.4826*sorted[len(sorted)/2], 0.004)
			for i, r := range rest {
				weights[i] = math.Sqrt(math.Min(1, limit/math.Max(r, 1e-12)))
			}
			off = rest
		}
		f.of[c] = append([]float64(nil), solved.RawVector().Data...)
		f.off = math.Max(f.off, slices.Sorted(slices.Values(off))[len(off)*9/10])
	}
	low, high := math.Inf(1), math.Inf(-1)
	for _, at := range places {
		light := f.at(at.x*f.scale, at.y*f.scale)
		low, high = math.Min(low, light[1]), math.Max(high, light[1])
	}
	f.contrast = high / low
	f.paper = f.at(0, 0)
	if s.Kind != "wheel" {
		f.paper = f.at(s.W/2, s.H/2)
	}
	return f, true
}

func polynomial(x, y float64) []float64 { return []float64{1, x, y, x * x, x * y, y * y} }

// at is the light on bare paper at a place of the sheet, mm.
func (f *field) at(x, y float64) (out rgb) {
	for c, of := range f.of {
		sum := 0.0
		for k, v := range polynomial(x/f.scale, y/f.scale)[:len(of)] {
			sum += v * of[k]
		}
		out[c] = math.Exp(sum)
	}
	return out
}

// brightest is the mean of the brighter half of a small spot: what is written there is
// left out.
func (p *Picture) brightest(h homography, x, y float64) (out rgb, ok bool) {
	const n = 5
	var seen []rgb
	for i := range n {
		for j := range n {
			px, py := h.at(x+paperSpot*(float64(i)/(n-1)-0.5), y+paperSpot*(float64(j)/(n-1)-0.5))
			c, in := p.at(px, py)
			if !in {
				return out, false
			}
			seen = append(seen, c)
		}
	}
	slices.SortFunc(seen, func(a, b rgb) int {
		switch d := b[1] - a[1]; {
		case d > 0:
			return 1
		case d < 0:
			return -1
		}
		return 0
	})
	half := seen[:len(seen)/2+1]
	for _, c := range half {
		for k := range out {
			out[k] += c[k] / float64(len(half))
		}
	}
	return out, true
}
