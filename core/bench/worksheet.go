package bench

import (
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/input"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Part is a piece of a worksheet.
type Part string

// The parts of a worksheet, in the order in which they lie on it.
const (
	WheelPart     Part = "wheel"
	GreysPart     Part = "greys"     // of the three pairs of complements that go through a primary
	RunsPart      Part = "runs"      // of neighbours, about the slot and about its complement
	ValuesPart    Part = "values"    // tints and shades of the slot
	IntensityPart Part = "intensity" // from the slot to its complement
	DarkPart      Part = "dark"      // the darkest dark, and its tint
	EarthPart     Part = "earth"     // the slot's neighbours from an earth
	TubePart      Part = "tube"      // a paint that looks like the slot, beside the slot
	BitPart       Part = "bit"       // the slot with a bit of another, and that with a bit of the slot
)

// Parts lists what a worksheet has unless it is left out, and WhenAsked what it, and a wheel, have where that
// is wanted.
var (
	Parts     = []Part{WheelPart, GreysPart, RunsPart, ValuesPart, IntensityPart}
	WhenAsked = []Part{DarkPart, EarthPart, TubePart, BitPart}
)

// PartsOf are the parts of these names, whether there are such or not.
func PartsOf(names []string) (out []Part) {
	for _, name := range names {
		out = append(out, Part(strings.TrimSpace(name)))
	}
	return out
}

// checkParts refuses what is no part of a sheet that has some and may have others, and a sheet of none.
func checkParts(sheet string, has, mayHave, without, with []Part) error {
	for _, p := range with {
		if !slices.Contains(mayHave, p) {
			return input.Errorf("%s has no part %q to add: choose of %s", sheet, input.Clip(string(p)), strings.Trim(fmt.Sprint(mayHave), "[]"))
		}
	}
	left := len(has) + len(with)
	if len(has) == 0 && len(without) > 0 {
		return input.Errorf("%s has no parts that could be left out", sheet)
	}
	for i, p := range without {
		if !slices.Contains(has, p) {
			return input.Errorf("%s has no part %q to leave out: choose of %s", sheet, input.Clip(string(p)), strings.Trim(fmt.Sprint(has), "[]"))
		}
		if !slices.Contains(without[:i], p) {
			left--
		}
	}
	if left == 0 {
		return input.Errorf("nothing is left on %s: keep one of its parts", sheet)
	}
	return nil
}

// scaleSteps is how many places a scale of a worksheet has.
const scaleSteps = 7

// Worksheet is one sheet of what is painted to know a system: its wheel, tints and shades of a slot, an
// intensity scale between that and its complement, a run of neighbours about each of the two, and the
// greys of the three pairs of complements; some parts may be left out, and others added. What needs a slot
// that is empty, or a paint that the material has not, is left out too. The error is an input.Error.
func Worksheet(w *wheel.Wheel, which Which, have Material, set Settings) (s Sheet, err error) {
	index := which.Slot
	if err := checkParts("a worksheet", Parts, WhenAsked, which.Without, which.With); err != nil {
		return s, err
	}
	wants := func(p Part) bool { return !slices.Contains(which.Without, p) }
	s = Sheet{Kind: WorksheetSheet, Title: "worksheet of " + w.Slots[index].Name, wheel: w}
	if wants(WheelPart) {
		round := Wheel(w, Extras{}, set)
		s.ways, s.Regions = round.ways, round.Regions
		s.pieces = append(s.pieces, piece{WheelPart, len(round.Regions)})
	}
	if wants(GreysPart) {
		before := len(s.Regions)
		for i := range w.Slots {
			from, to := &w.Slots[i], &w.Slots[(i+6)%12]
			a, b := w.SlotPaint(i), w.SlotPaint((i+6)%12)
			if from.Home%4 != 0 || a == nil || b == nil {
				continue
			}
			balance := wheel.BalanceOf(a, b, set.Medium)
			s.add(Region{ID: "grey/" + from.SetName, Label: fmt.Sprintf("%s with %s", from.Name, to.Name), Home: -1, Index: len(s.Regions), Kind: wheel.Tertiary, Main: true, Section: -1}, recipe.Of(balance.Parts.Plain()), balance.Mixture)
		}
		s.piece(GreysPart, before)
	}
	if wants(RunsPart) {
		for n, key := range []int{index, (index + 6) % 12} {
			if w.Slots[key].Empty {
				continue
			}
			before := len(s.Regions)
			s.scale(fmt.Sprintf("run %d", n+1), Run(w, key), true)
			s.piece(RunsPart, before)
		}
	}
	s.added(w, which, have)
	if wants(ValuesPart) && !w.Slots[index].Empty {
		before := len(s.Regions)
		s.scale("values", Values(w, index, scaleSteps), false)
		s.piece(ValuesPart, before)
	}
	if wants(IntensityPart) {
		before := len(s.Regions)
		if scale, ok := Intensity(w, index, scaleSteps, set.Medium); ok {
			s.scale("intensity", scale, false)
		}
		s.piece(IntensityPart, before)
	}
	if len(s.Regions) == 0 {
		return s, input.Errorf("the slots that this worksheet is painted of are empty: choose another slot, or fill the system")
	}
	s.Lay(RowWidth)
	return s, nil
}

// piece is a part as it lies on a sheet, and how many places it has.
type piece struct {
	part   Part
	places int
}

func (s *Sheet) piece(p Part, before int) {
	if n := len(s.Regions) - before; n > 0 {
		s.pieces = append(s.pieces, piece{p, n})
	}
}

// scale takes the places of another sheet in, under a name of their own; of a run all but its key.
func (s *Sheet) scale(name string, of Sheet, run bool) {
	for _, r := range of.Regions {
		if run && r.ID == keyID {
			continue
		}
		r.ID, r.Index, r.Touches = name+"/"+r.ID, len(s.Regions), nil
		r.Section, r.Step = -1, 0
		s.Regions = append(s.Regions, r)
	}
}

// Sizes of a worksheet, in mm.
const (
	worksheetWheel = 112.0 // the largest wheel
	besideWheel    = 54.0  // the least that stands beside one
	worksheetGap   = 8.0
	worksheetCell  = 16.0 // the height of what is painted beside a wheel
	mostCell       = 30.0 // the width of a place in a row of its own
	inRow          = 7
)

// layPieces places a worksheet within a width in mm: greys and runs beside the wheel where that leaves
// room, the scales beneath, in rows of seven.
func (s *Sheet) layPieces(width float64) {
	for i := range s.Regions {
		if s.Regions[i].To <= s.Regions[i].From {
			s.Regions[i].Touches = nil
		}
	}
	round := len(s.pieces) > 0 && s.pieces[0].part == WheelPart
	least := float64(SmallestWheel)
	across := min(worksheetWheel, width)
	beside := round && len(s.pieces) > 1 && width-across-worksheetGap >= besideWheel && !scales(s.pieces[1].part)
	i, y, beneath := 0, 0.0, 0.0
	s.W = 0
	if round {
		radius := max(least, across) / 2
		i = s.pieces[0].places
		s.scaleWheel(i, radius)
		s.W, beneath = 2*radius, 2*radius+Beneath
		s.H = 2 * radius
	}
	// row lays places in rows of so many; touching ones edge to edge.
	row := func(n, many int, x, w, tall float64, touching bool) {
		apart := gap
		if touching {
			apart = 0
		}
		each := min(mostCell, (w+apart)/float64(many)-apart)
		for k := range n {
			r := &s.Regions[i]
			if k > 0 && k%many == 0 {
				y += tall + Beneath
			}
			r.Shape = Shape{X: x + float64(k%many)*(each+apart), Y: y, W: each, H: tall}
			s.W, s.H = max(s.W, r.X+r.W), max(s.H, y+tall)
			if touching && k%many > 0 {
				s.join(i-1, i)
			}
			i++
		}
		y += tall + Beneath
	}
	for n, p := range s.pieces {
		switch {
		case p.part == WheelPart:
			if !beside {
				y = beneath
			}
		case !scales(p.part):
			if beside {
				row(p.places, 3, across+worksheetGap, width-across-worksheetGap, worksheetCell, false)
			} else {
				row(p.places, 5, 0, min(width, 5*(mostCell+gap)), worksheetCell, false)
			}
		default:
			if y = max(y, beneath); n > 0 && beside {
				beneath = 0
			}
			row(p.places, inRow, 0, width, blockTall, true)
		}
	}
}

// scales says that a part is a strip as wide as the sheet.
func scales(p Part) bool { return p == ValuesPart || p == IntensityPart }

// scaleWheel lets the wheel that the first regions are have a radius in mm, and lie in the upper left.
func (s *Sheet) scaleWheel(regions int, radius float64) {
	was := 0.0
	for i := range regions {
		was = max(was, s.Regions[i].Outer)
	}
	of := radius / was
	for i := range regions {
		r := &s.Regions[i]
		r.Inner, r.Outer, r.X, r.Y = r.Inner*of, r.Outer*of, radius, radius
		if in := &r.InSight; in.To > in.From {
			in.Inner, in.Outer, in.X, in.Y = in.Inner*of, in.Outer*of, radius, radius
		}
	}
}
