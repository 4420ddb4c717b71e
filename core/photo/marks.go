package photo

import (
	"math"
	"slices"

	"gyrophane/core/bench"
	"gyrophane/core/input"
)

// Corners are where the middles of a sheet's marks, or of the points that stand for them,
// lie in a picture, in pixels: upper left, upper right, lower right, lower left of the
// sheet.
type Corners [4][2]float64

// blob is a dark spot of the picture.
type blob struct {
	x, y   float64 // its middle
	area   float64 // pixels, what it encloses among them
	hole   float64 // share of that which is bright within
	dot    bool    // something dark lies within the bright
	radius float64
}

// What a dark spot must be like to be a mark.
const (
	leastRadius  = 5.0  // pixels
	roundWithin  = 0.14 // of the area of its ellipse
	longestAxis  = 2.2  // of the shorter
	mostMarks    = 24   // of each kind that are tried
	radiusWithin = 0.45 // of what the others say
)

// FindMarks finds the four marks of a printed sheet. The error is an input.Error that
// says what to do.
func FindMarks(p *Picture, s *bench.Sheet) (Corners, error) {
	var rings, solids, eyes []blob
	for _, b := range p.spots() {
		switch hole := math.Sqrt(b.hole); {
		case b.hole < 0.02:
			solids = append(solids, b)
		case hole > bench.MarkRing-0.2 && hole < bench.MarkRing+0.2 && b.dot:
			eyes = append(eyes, b)
		case hole > bench.MarkRing-0.2 && hole < bench.MarkRing+0.2:
			rings = append(rings, b)
		}
	}
	for _, list := range []*[]blob{&rings, &solids, &eyes} {
		slices.SortFunc(*list, func(a, b blob) int { return int(b.radius*100) - int(a.radius*100) })
		*list = (*list)[:min(len(*list), mostMarks)]
	}
	best, found, mirrored := Corners{}, math.Inf(1), false
	for _, eye := range eyes {
		for _, solid := range solids {
			for i, third := range rings {
				for k, fourth := range rings {
					if i == k {
						continue
					}
					four := [4]blob{eye, solid, third, fourth}
					at := Corners{}
					for n, b := range four {
						at[n] = [2]float64{b.x, b.y}
					}
					turn := at.turn()
					if turn == 0 {
						continue
					}
					off, ok := misfit(s, at, four)
					if !ok || off >= found {
						continue
					}
					best, found, mirrored = at, off, turn < 0
				}
			}
		}
	}
	switch {
	case math.IsInf(found, 1):
		return best, input.Errorf("the four marks of the sheet were not found: take the whole sheet with its marks, sharp and not too far away, or put the marks in their places by hand")
	case mirrored:
		return best, input.Errorf("the picture is mirrored: take it again without mirroring, or turn that off where pictures are saved")
	}
	return best, nil
}

// turn is 1 where the corners go round clockwise and hold what is between them, -1 where
// they do the other way round, and 0 where they cross.
func (c Corners) turn() int {
	sign := 0
	for i := range c {
		a, b, d := c[i], c[(i+1)%4], c[(i+2)%4]
		cross := (b[0]-a[0])*(d[1]-b[1]) - (b[1]-a[1])*(d[0]-b[0])
		one := 1
		if cross < 0 {
			one = -1
		}
		if math.Abs(cross) < 1 || sign != 0 && one != sign {
			return 0
		}
		sign = one
	}
	return sign
}

// misfit is how far the sizes of four spots are from those of marks in these places, in
// shares of them; false where they are none.
func misfit(s *bench.Sheet, at Corners, four [4]blob) (off float64, ok bool) {
	h, ok := straighten(s.Marks(), at)
	if !ok {
		return 0, false
	}
	for n, m := range s.Marks() {
		x, y := h.at(m[0], m[1])
		r := 0.0
		for k := range 8 {
			a := float64(k) * math.Pi / 4
			px, py := h.at(m[0]+bench.MarkRadius*math.Cos(a), m[1]+bench.MarkRadius*math.Sin(a))
			r += math.Hypot(px-x, py-y) / 8
		}
		d := math.Abs(math.Log(four[n].radius / r))
		if !(d < radiusWithin) {
			return 0, false
		}
		off += d
	}
	return off, true
}

// spots are the round dark spots of a picture.
func (p *Picture) spots() (out []blob) {
	dark := p.dark()
	label := make([]int32, p.W*p.H)
	var stack []int
	// fill walks over what is connected, dark or bright, and tells its pixels.
	fill := func(from int, is bool, mark int32, visit func(x, y int)) {
		stack = append(stack[:0], from)
		label[from] = mark
		for len(stack) > 0 {
			at := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			x, y := at%p.W, at/p.W
			visit(x, y)
			for _, d := range [4][2]int{{1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
				nx, ny := x+d[0], y+d[1]
				if nx < 0 || ny < 0 || nx >= p.W || ny >= p.H {
					continue
				}
				if next := ny*p.W + nx; label[next] == 0 && dark[next] == is {
					label[next] = mark
					stack = append(stack, next)
				}
			}
		}
	}
	type component struct {
		dark          bool
		n, x, y       float64
		minX, minY    int
		maxX, maxY    int
		sxx, sxy, syy float64
	}
	all := []component{{}}
	for at := range label {
		if label[at] != 0 {
			continue
		}
		c := component{dark: dark[at], minX: p.W, minY: p.H}
		fill(at, dark[at], int32(len(all)), func(x, y int) {
			c.n++
			c.x += float64(x)
			c.y += float64(y)
			c.sxx += float64(x) * float64(x)
			c.sxy += float64(x) * float64(y)
			c.syy += float64(y) * float64(y)
			c.minX, c.maxX, c.minY, c.maxY = min(c.minX, x), max(c.maxX, x), min(c.minY, y), max(c.maxY, y)
		})
		all = append(all, c)
	}
	largest := float64(p.W*p.H) / 40
	for i := 1; i < len(all); i++ {
		c := &all[i]
		if !c.dark || c.n < math.Pi*leastRadius*leastRadius*0.5 || c.n > largest || c.minX == 0 || c.minY == 0 || c.maxX == p.W-1 || c.maxY == p.H-1 {
			continue
		}
		// What lies within its box and does not reach beyond it is its hole, and the dot in that.
		whole, hole, dot := *c, 0.0, 0.0
		for k := 1; k < len(all); k++ {
			in := &all[k]
			if k == i || in.minX <= c.minX || in.maxX >= c.maxX || in.minY <= c.minY || in.maxY >= c.maxY {
				continue
			}
			if in.dark {
				dot += in.n
			} else {
				hole += in.n
			}
			whole.n += in.n
			whole.x += in.x
			whole.y += in.y
			whole.sxx += in.sxx
			whole.sxy += in.sxy
			whole.syy += in.syy
		}
		mx, my := whole.x/whole.n, whole.y/whole.n
		xx, xy, yy := whole.sxx/whole.n-mx*mx, whole.sxy/whole.n-mx*my, whole.syy/whole.n-my*my
		mid, part := (xx+yy)/2, math.Hypot((xx-yy)/2, xy)
		long, short := 2*math.Sqrt(mid+part), 2*math.Sqrt(max(mid-part, 1e-9))
		ellipse := math.Pi * long * short
		if long > longestAxis*short || math.Abs(whole.n/ellipse-1) > roundWithin || math.Sqrt(long*short) < leastRadius {
			continue
		}
		out = append(out, blob{x: mx, y: my, area: whole.n, hole: (hole + dot) / whole.n, dot: dot > 0.04*whole.n, radius: math.Sqrt(long * short)})
	}
	return out
}

// dark says of each pixel whether it is darker by far than what is around it.
func (p *Picture) dark() []bool {
	// Sums over rectangles from the upper left corner.
	sum := make([]float64, (p.W+1)*(p.H+1))
	for y := range p.H {
		row := 0.0
		for x := range p.W {
			row += float64(p.light(y*p.W + x))
			sum[(y+1)*(p.W+1)+x+1] = sum[y*(p.W+1)+x+1] + row
		}
	}
	const share = 0.42
	r := max(8, min(p.W, p.H)/14)
	out := make([]bool, p.W*p.H)
	for y := range p.H {
		y0, y1 := max(0, y-r), min(p.H, y+r+1)
		for x := range p.W {
			x0, x1 := max(0, x-r), min(p.W, x+r+1)
			mean := (sum[y1*(p.W+1)+x1] - sum[y0*(p.W+1)+x1] - sum[y1*(p.W+1)+x0] + sum[y0*(p.W+1)+x0]) / float64((y1-y0)*(x1-x0))
			out[y*p.W+x] = float64(p.light(y*p.W+x)) < share*mean
		}
	}
	return out
}

// homography takes a plane to another, in projective coordinates.
type homography [9]float64

// at is where a point comes to lie.
func (h homography) at(x, y float64) (float64, float64) {
	w := h[6]*x + h[7]*y + h[8]
	return (h[0]*x + h[1]*y + h[2]) / w, (h[3]*x + h[4]*y + h[5]) / w
}

// straighten is the homography that takes four points to four others; false where three
// of them lie on a line. It solves the eight equations of the points [Hartley and
// Zisserman 2004, 4.1] by elimination.
func straighten(from [4][2]float64, to Corners) (h homography, ok bool) {
	var a [8][9]float64
	for i := range from {
		x, y, u, v := from[i][0], from[i][1], to[i][0], to[i][1]
		a[2*i] = [9]float64{x, y, 1, 0, 0, 0, -u * x, -u * y, u}
		a[2*i+1] = [9]float64{0, 0, 0, x, y, 1, -v * x, -v * y, v}
	}
	for c := range 8 {
		pivot := c
		for r := c; r < 8; r++ {
			if math.Abs(a[r][c]) > math.Abs(a[pivot][c]) {
				pivot = r
			}
		}
		if math.Abs(a[pivot][c]) < 1e-9 {
			return h, false
		}
		a[c], a[pivot] = a[pivot], a[c]
		for r := range 8 {
			if r == c {
				continue
			}
			f := a[r][c] / a[c][c]
			for k := c; k < 9; k++ {
				a[r][k] -= f * a[c][k]
			}
		}
	}
	for c := range 8 {
		h[c] = a[c][8] / a[c][c]
	}
	h[8] = 1
	return h, true
}
