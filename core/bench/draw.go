package bench

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// DrawBy is what a wheel is drawn with.
type DrawBy string

// The tools, one at a time.
const (
	Compass    DrawBy = "compass"
	Ruler      DrawBy = "ruler"
	Protractor DrawBy = "protractor"
)

// DrawBys lists them.
var DrawBys = []DrawBy{Compass, Ruler, Protractor}

// ParseDrawBy reads a tool.
func ParseDrawBy(s string) (DrawBy, error) {
	if slices.Contains(DrawBys, DrawBy(s)) {
		return DrawBy(s), nil
	}
	return "", input.Errorf("unknown tool %q: choose compass, ruler or protractor", s)
}

// Drawing is how a sheet is drawn, in the order in which one draws.
type Drawing struct {
	By      DrawBy
	Steps   []string
	Points  [][2]float64 // mm from the middle, x to the right, y down: where lines begin or end
	Circles []float64    // radii in mm, the rim first
	Square  float64      // side in mm of a square round it, 0 for none
}

// Chord is the length in mm of a chord of so many degrees at a radius.
func Chord(radius, degrees float64) float64 { return 2 * radius * math.Sin(degrees*math.Pi/360) }

// at is a point at a radius, degrees clockwise from the top.
func at(radius, degrees float64) [2]float64 {
	a := degrees * math.Pi / 180
	return [2]float64{radius * math.Sin(a), -radius * math.Cos(a)}
}

// mm is a length to the half of a mm.
func mm(v float64) string { return fmt.Sprintf("%g mm", math.Round(2*v)/2) }

// Draw tells how to draw a wheel's sheet with one of the tools: lengths in mm.
func (s *Sheet) Draw(by DrawBy) Drawing {
	if s.Kind != "wheel" {
		return s.drawRow()
	}
	outer := s.W / 2
	d := Drawing{By: by, Circles: append([]float64{outer}, s.Rings...)}
	if !slices.Contains(d.Circles, s.Inner) {
		d.Circles = append(d.Circles, s.Inner)
	}
	for i := range s.Regions {
		if r := &s.Regions[i]; r.Main && !slices.ContainsFunc(d.Circles, near(r.Inner)) {
			d.Circles = append(d.Circles, r.Inner)
		}
		if r := &s.Regions[i]; r.Main && !slices.ContainsFunc(d.Circles, near(r.Outer)) {
			d.Circles = append(d.Circles, r.Outer)
		}
	}
	slices.SortFunc(d.Circles, func(a, b float64) int {
		if a > b {
			return -1
		}
		return 1
	})
	var radii []string
	for _, r := range d.Circles {
		radii = append(radii, mm(r))
	}
	circles := fmt.Sprintf("Draw a circle of radius %s about the same point for each edge: %s.", radii[0], strings.Join(radii, ", "))
	if len(radii) == 2 {
		circles = fmt.Sprintf("Draw the rim, radius %s, and about the same point the hole, radius %s.", radii[0], radii[1])
	}
	for k := range 12 {
		d.Points = append(d.Points, at(outer, 15+30*float64(k)))
	}
	switch by {
	case Ruler:
		d.Square = s.W
		off := outer * math.Tan(math.Pi/12)
		d.Points = nil
		for side := range 4 {
			for _, x := range []float64{-off, off, outer} {
				p := [2]float64{x, -outer}
				for range side {
					p = [2]float64{-p[1], p[0]}
				}
				d.Points = append(d.Points, p)
			}
		}
		d.Steps = []string{
			fmt.Sprintf("Draw a square with sides of %s; its diagonals cross in the middle.", mm(s.W)),
			fmt.Sprintf("Mark each side %s to the left and to the right of its middle.", mm(off)),
			"Join each mark, and each corner, to the one across: twelve lines through the middle.",
			fmt.Sprintf("On each line mark the edges, measured from the middle: %s.", strings.Join(radii, ", ")),
			"Join the marks of neighbouring lines, straight or by eye: that is the wheel.",
		}
	case Protractor:
		d.Steps = []string{
			circles,
			"Lay the protractor on the middle with 0 at the top, and mark 15, 45, 75, 105, 135 and 165 degrees; turn it over and mark the same on the other side.",
			"Draw a line from the middle through each mark, from the hole to the rim.",
		}
	default:
		d.Steps = []string{
			circles,
			fmt.Sprintf("Mark the top of the rim. Open the compass to %s and mark from there to either side: the edges of the topmost slot.", mm(Chord(outer, 15))),
			fmt.Sprintf("Open it to %s and step round from one of them: twelve marks, and the last meets the first.", mm(Chord(outer, 30))),
			"Draw a line toward the middle from each mark, from the rim to the hole.",
		}
	}
	if halves := s.halved(); halves != "" {
		d.Steps = append(d.Steps, fmt.Sprintf("Halve the slots of %s with a line each.", halves))
	}
	if n, r, away := s.circles(); n > 0 {
		d.Steps = append(d.Steps, fmt.Sprintf("In the hole draw %d circles of radius %s, their middles %s from the middle, one toward each second line.", n, mm(r), mm(away)))
	}
	d.Steps = append(append(d.Steps, s.rows()...), "Write the name of each slot, and what it is mixed from, before you paint.")
	return d
}

// rows tell how to draw what lies in rectangles beneath a wheel.
func (s *Sheet) rows() (steps []string) {
	n := 0
	var first *Region
	for i := range s.Regions {
		if r := &s.Regions[i]; r.W > 0 {
			if n++; first == nil {
				first = r
			}
		}
	}
	if n == 0 {
		return nil
	}
	return []string{fmt.Sprintf("Beneath it, from %s below its middle on, draw %d places %s by %s, %s apart, the first where the wheel begins at the left; rows are %s from one to the next.",
		mm(first.Y), n, mm(first.W), mm(first.H), mm(gap), mm(addedHigh+Beneath))}
}

func near(x float64) func(float64) bool {
	return func(y float64) bool { return math.Abs(x-y) < 1e-6 }
}

// halved names the slots that are painted in two halves.
func (s *Sheet) halved() string {
	var names []string
	for i := range s.Regions {
		r := &s.Regions[i]
		name, _, split := strings.Cut(r.ID, "/")
		if r.Main && r.Kind == wheel.Primary && split && !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	if len(names) == 0 {
		return ""
	}
	return text.Listed(names)
}

// circles are how many circles there are in the hole, their radius and how far from
// the middle they lie.
func (s *Sheet) circles() (n int, radius, away float64) {
	for i := range s.Regions {
		if r := &s.Regions[i]; strings.HasPrefix(r.ID, "neutral/") {
			n, radius, away = n+1, r.Outer, math.Hypot(r.X, r.Y)
		}
	}
	return n, radius, away
}

// drawParts tells how to draw a sheet whose places are not all alike: its wheel, and each row by where it
// begins.
func (s *Sheet) drawParts() Drawing {
	d := Drawing{By: Ruler, Steps: []string{fmt.Sprintf("Draw a frame %s wide and %s high.", mm(s.W), mm(s.H))}}
	round := Sheet{Kind: WheelSheet}
	for i := 0; i < len(s.Regions); {
		first := &s.Regions[i]
		if first.To > first.From {
			round.W, round.Inner = 2*first.Outer, first.Inner
			round.Regions = append(round.Regions, *first)
			if i++; i == len(s.Regions) || s.Regions[i].To <= s.Regions[i].From {
				d.Steps = append(d.Steps, fmt.Sprintf("Mark the middle of its wheel %s from the left and %s from the top. About it:", mm(first.X), mm(first.Y)))
				d.Steps = append(d.Steps, round.Draw(Compass).Steps...)
			}
			continue
		}
		n := 1
		for i+n < len(s.Regions) && s.Regions[i+n].Y == first.Y && s.Regions[i+n].W == first.W && s.Regions[i+n].X > s.Regions[i+n-1].X {
			n++
		}
		where := fmt.Sprintf("%s from the left and %s from the top", mm(first.X), mm(first.Y))
		switch apart := s.Regions[i+n-1].X - first.X; {
		case n == 1:
			d.Steps = append(d.Steps, fmt.Sprintf("Beginning %s a place %s by %s.", where, mm(first.W), mm(first.H)))
		case len(first.Touches) > 0:
			d.Steps = append(d.Steps, fmt.Sprintf("Beginning %s a strip %s by %s, parted into %d.", where, mm(apart+first.W), mm(first.H), n))
		default:
			d.Steps = append(d.Steps, fmt.Sprintf("Beginning %s %d places %s by %s, %s from one to the next.", where, n, mm(first.W), mm(first.H), mm(apart/float64(n-1))))
		}
		i += n
	}
	for i := range s.Regions {
		if r := &s.Regions[i]; r.W > 0 {
			d.Points = append(d.Points, [2]float64{r.X, r.Y})
		}
	}
	d.Steps = append(d.Steps, "Write beside each place what it is mixed from, before you paint.")
	return d
}

// drawRow tells how to draw what is painted in rectangles.
func (s *Sheet) drawRow() Drawing {
	d := Drawing{By: Ruler}
	first := s.Regions[0]
	if slices.ContainsFunc(s.Regions, func(r Region) bool { return r.To > r.From || r.W != first.W || r.H != first.H }) {
		return s.drawParts()
	}
	d.Steps = []string{fmt.Sprintf("Draw a frame %s wide and %s high.", mm(s.W), mm(s.H))}
	if len(s.Regions[len(s.Regions)/2].Touches) > 0 {
		d.Steps = append(d.Steps, fmt.Sprintf("Part it by upright lines every %s: %d places.", mm(first.W), len(s.Regions)))
	} else {
		d.Steps = append(d.Steps, fmt.Sprintf("In it draw %d places %s by %s, %s apart.", len(s.Regions), mm(first.W), mm(first.H), mm(gap)))
	}
	for i := range s.Regions {
		r := &s.Regions[i]
		d.Points = append(d.Points, [2]float64{r.X, r.Y})
	}
	d.Steps = append(d.Steps, "Write beside each place what it is mixed from, before you paint.")
	return d
}
