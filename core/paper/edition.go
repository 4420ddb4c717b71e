package paper

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Edition is whom a sheet is for.
type Edition string

// The editions: a painter's own sheet has outlines and recipes; a blank has outlines, names and lines to
// write on, and drops to tick; the key to it has the colours aimed at, recipes and verdicts; and there are
// the colours aimed at with their recipes alone.
const (
	Working Edition = "working" // also when empty
	Blank   Edition = "blank"
	Key     Edition = "key"
	Aimed   Edition = "aimed"
)

// Editions lists them.
var Editions = []Edition{Working, Blank, Key, Aimed}

// ParseEdition reads an edition. The error is an input.Error.
func ParseEdition(name string) (Edition, error) {
	if name == "" {
		return Working, nil
	}
	if e := Edition(name); slices.Contains(Editions, e) {
		return e, nil
	}
	return "", input.Errorf("unknown edition %q: choose %s", input.Clip(name), strings.Trim(fmt.Sprint(Editions), "[]"))
}

// mostBlanks is how many blanks a set for a class may have.
const mostBlanks = 60

// forClass are the blanks of a plan's sheet for a class and one key to them.
func forClass(p *bench.Plan, o Options, measure Measure) (pages []Page, err error) {
	blanks := o.Class
	if blanks < 1 || blanks > mostBlanks {
		return nil, input.Errorf("a set for a class has 1 to %d blanks, and not %d", mostBlanks, blanks)
	}
	o.As, o.Class = "sheet", 0
	key := o
	o.Edition, key.Edition = Blank, Key
	if key.Recipes == "none" {
		key.Recipes = ""
	}
	blank, err := Sheet(p, o, measure)
	if err != nil {
		return nil, err
	}
	for range blanks {
		pages = append(pages, blank...)
	}
	of, err := Sheet(p, key, measure)
	return append(pages, of...), err
}

// coloured says that places are filled with the colour aimed at; else they are outlines to paint.
func (o Options) coloured() bool { return o.Edition == Key || o.Edition == Aimed }

// uncounted says that a sheet tells nothing of amounts: its reader is to find them.
func (o Options) uncounted() bool { return o.Edition == Blank && o.Recipes == "none" }

// dropPoints is the outline of a drop one high and about 0.7 wide, its tip up, about its middle.
var dropPoints = func() (out [][2]float64) {
	const n = 40
	for k := range n {
		t := 2 * math.Pi * float64(k) / n
		out = append(out, [2]float64{0.46 * math.Sin(t) * math.Pow(math.Sin(t/2), 1.3), -0.5 * math.Cos(t)})
	}
	return out
}()

// drop draws a verdict as a shape, so high, about a point: full, half, hollow, or a small full one in a
// hollow one.
func (p *Page) drop(x, y, high float64, of paint.Verdict, grey float64) {
	outline := func(scale float64, left bool) (out [][2]float64) {
		for _, at := range dropPoints {
			across := at[0]
			if left {
				across = min(across, 0)
			}
			out = append(out, [2]float64{x + across*scale, y + at[1]*scale})
		}
		return out
	}
	level := int(math.Round(255 * grey))
	ink := fmt.Sprintf("#%02x%02x%02x", level, level, level)
	line := Mark{Kind: Polygon, Points: outline(high, false), Stroke: 0.2, Grey: grey}
	switch of {
	case paint.Clean:
		line.Fill = ink
	case paint.Softened:
		p.add(Mark{Kind: Polygon, Points: outline(high, true), Fill: ink})
	case paint.Quiet:
		small := Mark{Kind: Polygon, Points: outline(high*0.5, false), Fill: ink}
		for i := range small.Points {
			small.Points[i][1] += high * 0.14 // where a drop is wide
		}
		p.add(small)
	}
	p.add(line)
}

// Sizes of drops on paper, in mm.
const (
	dropHigh  = 2.6
	dropApart = 4.2
)

// ticksWide is how wide the drops of which one is ticked are beside each other, mm.
var ticksWide = dropApart * float64(len(paint.ChromaticVerdicts))

// toTick draws the drops of which one is ticked, from a place on.
func (l *layout) toTick(x, y float64) {
	for n, v := range paint.ChromaticVerdicts {
		l.drop(x+dropApart*(float64(n)+0.5), y, dropHigh, v, 0.35)
	}
}

// judged writes a verdict as its drop and, where it finds room, its word about a point.
func (l *layout) judged(r *bench.Region, x, y, room float64) {
	if r.Verdict == paint.Neutral {
		return
	}
	word, grey := r.Verdict.String(), l.numberGrey(r)
	wide := l.measure(word, Plain, small)
	if dropHigh+1+wide > room {
		l.drop(x, y, dropHigh, r.Verdict, grey)
		return
	}
	left := x - (dropHigh+1+wide)/2
	l.drop(left+dropHigh/2, y, dropHigh, r.Verdict, grey)
	l.text(left+dropHigh+1, y+small*0.35, small, Plain, Start, grey, "%s", word)
}
