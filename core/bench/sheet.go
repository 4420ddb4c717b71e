// Package bench plans the painting of a sheet: its regions and how to draw them,
// how much paint they take, and in which order to paint them.
package bench

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Shape is where a region lies on its sheet, in mm: a sector of a ring about the
// middle of a wheel, a rectangle, or a circle.
type Shape struct {
	// From and To are degrees clockwise from the top, Inner and Outer radii, of a
	// sector.
	From, To, Inner, Outer float64
	// X and Y are the upper left corner of a rectangle, W and H its sides; of a
	// circle X and Y are its middle and Outer its radius, of a sector the middle of
	// the wheel it is of: 0, 0 where the wheel is all of the sheet.
	X, Y, W, H float64
}

// Area is in square mm.
func (s Shape) Area() float64 {
	switch {
	case s.To > s.From:
		return (s.To - s.From) / 360 * math.Pi * (s.Outer*s.Outer - s.Inner*s.Inner)
	case s.W > 0:
		return s.W * s.H
	}
	return math.Pi * s.Outer * s.Outer
}

// Region is one place of a sheet that is painted in one colour.
type Region struct {
	ID      string // "green", "green/tint 1"
	Label   string
	Parents string // what it is mixed from, in short: "PY184 + PB15:3"
	Recipe  recipe.Recipe
	Mixture paint.Mixture
	Film    float64 // thickness where water thins it beyond the usual, 0 otherwise
	Home    int     // of a wheel's slot, where it would stand clockwise with yellow on top; -1 elsewhere
	Index   int     // of a wheel's slot, its place from the top; else its place on the sheet
	Kind    wheel.Kind
	Main    bool // of the ring of twelve, or of a sheet that is no wheel
	Section int  // of a wheel's mixed slot, -1 elsewhere
	Step    int  // 1 to 3 in its section, 0 elsewhere
	Share   float64
	Verdict paint.Verdict // of what is mixed of two paints; Neutral where there is none
	Shape
	Touches []int         // the regions whose edge it shares
	Beneath []int         // the regions that it is laid over, from below: each is dry before the next
	InSight Shape         // what is seen of it where others are laid over the rest; all of it when zero
	Graded  bool          // drawn out: full strength at the rim, thinned toward the tip
	Aim     *colour.Lab   // the colour that is wanted where it is another than the recipe's, D65; else nil
	under   []paint.Layer // what lies beneath it; a thickness of 0 is the medium's own
}

// Appearance is how the region is painted in a medium, wet or dry.
func (r *Region) Appearance(in paint.Medium, wet bool) colour.Spectrum {
	return r.laid(&r.Mixture, in, cmp.Or(r.Film, in.Thickness), wet)
}

// laid is a mixture as thick as is said, over what lies beneath the region.
func (r *Region) laid(m *paint.Mixture, in paint.Medium, film float64, wet bool) colour.Spectrum {
	under := slices.Clone(r.under)
	for i := range under {
		under[i].Thickness = cmp.Or(under[i].Thickness, in.Thickness)
	}
	return m.FilmOver(in, film, in.Under(under), wet)
}

// Seen is the part of the region that is seen when the sheet is painted.
func (r *Region) Seen() Shape {
	if r.InSight == (Shape{}) {
		return r.Shape
	}
	return r.InSight
}

// Sheet is what is to be painted.
type Sheet struct {
	Kind    SheetKind
	Title   string
	W, H    float64 // mm; of a wheel W is its diameter, and so is H where nothing lies beneath it
	Inner   float64 // radius of a wheel's hole in mm
	Rings   []float64
	Regions []Region
	blocks  []block // of a sheet that is laid in them
	pieces  []piece // of a worksheet
	wheel   *wheel.Wheel
	ways    [3]*path.Path // from paint to paint, that the sections lie on; nil where nothing does
}

// SheetKind is what is painted.
type SheetKind string

// What can be painted.
const (
	WheelSheet     SheetKind = "wheel"
	GridSheet      SheetKind = "grid" // of pairings
	LadderSheet    SheetKind = "ladder"
	ValuesSheet    SheetKind = "values"
	IntensitySheet SheetKind = "intensity"
	RunSheet       SheetKind = "run" // of neighbours
	GuideSheet     SheetKind = "guide"
	WantedSheet    SheetKind = "wanted"
	WarmCoolSheet  SheetKind = "warmcool"
	WorksheetSheet SheetKind = "worksheet"
	GlazesSheet    SheetKind = "glazes"
	SwatchesSheet  SheetKind = "swatches" // that make recipes surer
)

// SheetKinds lists them.
var SheetKinds = []SheetKind{WheelSheet, GridSheet, LadderSheet, ValuesSheet, IntensitySheet, RunSheet, GuideSheet, WantedSheet, WarmCoolSheet, WorksheetSheet, GlazesSheet, SwatchesSheet}

// Which says what sheet of a system is to be painted.
type Which struct {
	Kind    SheetKind    // a wheel when empty
	Slot    int          // index of the slot, 0 to 11, of values, intensities, runs, worksheets and what is added
	Section int          // 0 to 2, of a ladder
	Steps   int          // inner steps of a ladder, places of a scale; what is usual when 0
	Without []Part       // of a worksheet and of glazes: what is left out
	With    []Part       // of a worksheet and of a wheel: what is added
	Bit     *int         // of what is added: the slot of which a bit goes into another; the one across from that when nil
	Film    float64      // of glazes: how thick one lies as X, the usual one when 0
	ReadBy  paint.Source // of swatches: what they are read by; a photo when empty
	OfBox   bool         // of swatches: for every two paints of the box, not for the mixtures of the wheel alone
	Width   float64      // mm that rows may take; RowWidth when 0
}

// Material is what sheets are painted of besides a wheel.
type Material struct {
	Couples  []path.Couple // of a grid
	Way      *path.Path    // of a ladder; a section of the wheel when nil
	Wanted   []Wanted
	Swatches []recipe.Recipe // what makes recipes surer, the most telling first
	School   bias.School     // which blue is warm; the usual one when empty
	Earth    *paint.Paint    // for a slot's neighbours from an earth, or any other paint; may be nil
	Tube     *paint.Paint    // what stands beside the slot; may be nil
	Glaze    *paint.Paint    // of glazes: what is laid over the others; the clearest of them when nil
}

// Wanted is a wanted colour and what comes nearest to it.
type Wanted struct {
	Name    string
	Colour  colour.Lab // D65
	Recipe  recipe.Recipe
	Mixture paint.Mixture
}

// Of is the sheet of a wheel, or of the material where that is what it is painted of. The
// error is an input.Error.
func (which Which) Of(w *wheel.Wheel, have Material, e Extras, set Settings) (s Sheet, err error) {
	if s, err = which.of(w, have, e, set); err == nil && s.Kind != "wheel" && which.Width > 0 {
		s.Lay(which.Width)
	}
	return s, err
}

func (which Which) of(w *wheel.Wheel, have Material, e Extras, set Settings) (s Sheet, err error) {
	steps := func(usual int, may ...int) (int, error) {
		n := cmp.Or(which.Steps, usual)
		if !slices.Contains(may, n) {
			return 0, input.Errorf("a sheet of this kind has %v steps, and not %d", may, n)
		}
		return n, nil
	}
	if which.Slot < 0 || which.Slot > 11 || which.Section < 0 || which.Section > 2 {
		return s, input.Errorf("slots run from 0 to 11 and sections from 0 to 2: there is no slot %d of section %d", which.Slot, which.Section)
	}
	if which.Bit != nil && (*which.Bit < 0 || *which.Bit > 11) {
		return s, input.Errorf("slots run from 0 to 11: there is no slot %d of which a bit could be taken", *which.Bit)
	}
	switch slot := &w.Slots[which.Slot]; which.Kind {
	case "", "wheel":
		s = Wheel(w, e, set)
		return s, s.addTo(w, which, have)
	case "grid":
		if len(have.Couples) == 0 {
			return s, input.Errorf("this system has no pairings to paint")
		}
		if len(have.Couples) > MostRegions {
			return s, input.Errorf("%d pairings are too many for a sheet: mark those that you want to paint, %d at the most", len(have.Couples), MostRegions)
		}
		return Grid(path.PairAll(have.Couples, w.Spacing)), nil
	case "ladder":
		n, err := steps(5, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11)
		pair := &w.Sections[which.Section]
		switch {
		case err != nil:
			return s, err
		case have.Way != nil && have.Way.Indistinguishable():
			return s, input.Errorf("%s and %s look the same: there is no ladder between them to paint", have.Way.A.ShortName(), have.Way.B.ShortName())
		case have.Way != nil:
			return Ladder(have.Way, n, w.Spacing), nil
		case pair.Empty() || pair.Path.Indistinguishable():
			return s, input.Errorf("nothing fills that section: there is no ladder to paint")
		}
		return Ladder(pair.Path, n, w.Spacing), nil
	case WorksheetSheet:
		return Worksheet(w, which, have, set)
	case GlazesSheet:
		return Glazes(w, which.Film, which.Without, have)
	case WarmCoolSheet:
		return WarmCool(w.System, cmp.Or(have.School, bias.VioletIsWarm), w.Spacing)
	case "guide":
		return Guide(w.System.Paints(), w.System.Rider(wheel.WhiteRider)), nil
	case SwatchesSheet:
		if len(have.Swatches) == 0 {
			return s, input.Errorf("no swatch would make these recipes surer than they are")
		}
		return Swatches(have.Swatches), nil
	case "wanted":
		if len(have.Wanted) == 0 {
			return s, input.Errorf("there are no wanted colours yet: add some where systems are compared")
		}
		return WantedColours(have.Wanted), nil
	case "values", "intensity", "run":
		if slot.Empty {
			return s, input.Errorf("the %s is empty: choose another slot", slot.Name)
		}
		if which.Kind == "run" {
			return Run(w, which.Slot), nil
		}
		if which.Kind == "values" {
			n, err := steps(7, 5, 6, 7, 8, 9)
			if err != nil {
				return s, err
			}
			if s = Values(w, which.Slot, n); len(s.Regions) == 0 {
				err = input.Errorf("the slot across from the %s is empty: it has nothing to be shaded with", slot.Name)
			}
			return s, err
		}
		n, err := steps(7, 5, 7)
		if err != nil {
			return s, err
		}
		s, ok := Intensity(w, which.Slot, n, set.Medium)
		if !ok {
			return s, input.Errorf("the slot across from the %s is empty: there is nothing to go to", slot.Name)
		}
		return s, nil
	}
	return s, input.Errorf("unknown sheet %q: choose %s", input.Clip(string(which.Kind)), strings.Trim(fmt.Sprint(SheetKinds), "[]"))
}

// The diameters a wheel may have, and the usual one, in mm.
const (
	SmallestWheel = 60
	LargestWheel  = 600
	UsualWheel    = 180
)

// Extras are what is painted of a wheel besides its twelve slots.
type Extras struct {
	Tints, Shades int  // rings, 0 to 3
	Wash          bool // a ring
	Neutral       bool // circles in the middle
}

// ExtrasOf are the rings of a painter's choices.
func ExtrasOf(c wheel.Choices) Extras {
	e := Extras{Tints: c.Tints, Shades: c.Shades, Wash: c.Wash, Neutral: c.Neutral}
	if c.Highlight {
		e.Tints, e.Shades = max(e.Tints, 1), max(e.Shades, 1)
	}
	return e
}

// Wheel is the sheet of a wheel: twelve slots, split halves, rings of tints and
// shades, circles of neutrals in the middle.
func Wheel(w *wheel.Wheel, e Extras, set Settings) Sheet {
	outer, inner := set.Diameter/2, set.Inner
	s := Sheet{Kind: "wheel", Title: "wheel", W: set.Diameter, H: set.Diameter, Inner: inner, wheel: w}
	for k := range w.Sections {
		if pair := &w.Sections[k]; !pair.Empty() {
			s.ways[k] = pair.Path
		}
	}
	rings := e.Tints + e.Shades
	if e.Wash {
		rings++
	}
	unit := (outer - inner) / float64(2+rings) // the ring of twelve is as wide as two others
	radius := outer
	for n := e.Shades; n >= 1; n-- {
		s.ring(w, ringOf{"shade", n, e.Shades, wheel.Additive(w.ShadeBy)}, radius-unit, radius, set)
		radius -= unit
	}
	s.main(w, radius-2*unit, radius, set)
	radius -= 2 * unit
	for n := 1; n <= e.Tints; n++ {
		s.ring(w, ringOf{"tint", n, e.Tints, w.TintBy}, radius-unit, radius, set)
		radius -= unit
	}
	if e.Wash {
		s.ring(w, ringOf{"wash", 1, 1, ""}, radius-unit, radius, set)
	}
	s.touchAround()
	if e.Neutral {
		s.neutrals(w, inner, set)
	}
	return s
}

// sector is where a slot lies, or half of one.
func sector(w *wheel.Wheel, index int, from, to, inner, outer float64) Shape {
	middle := 30 * float64(index)
	a, b := middle-15+30*from, middle-15+30*to
	if w.CCW {
		a, b = -middle+15-30*to, -middle+15-30*from
	}
	return Shape{From: a, To: b, Inner: inner, Outer: outer}
}

func (s *Sheet) main(w *wheel.Wheel, inner, outer float64, set Settings) {
	for i := range w.Slots {
		slot := &w.Slots[i]
		if slot.Empty {
			continue
		}
		r := Region{Label: slot.Name, Home: slot.Home, Index: i, Kind: slot.Kind, Main: true, Section: -1, Graded: set.Slots == Graded}
		if slot.Home%4 != 0 {
			r.Section, r.Step = slot.Home/4, slot.Home%4
		}
		if len(slot.Halves) == 2 {
			for n, half := range slot.Halves {
				h := r
				h.ID = fmt.Sprintf("%s/%s", slot.SetName, half.Parts[0].Paint.ID)
				h.Label = fmt.Sprintf("%s, %s", slot.Name, half.Parts[0].Paint.ShortName())
				h.Shape = sector(w, i, float64(n)/2, float64(n+1)/2, inner, outer)
				s.add(h, half.Parts, half.Mixture)
			}
			continue
		}
		r.ID, r.Share = slot.SetName, slot.Share
		if len(slot.Parts.Plain()) > 1 {
			r.Verdict = slot.Under.Verdict
		}
		r.Shape = sector(w, i, 0, 1, inner, outer)
		s.add(r, slot.Parts, slot.Mixture)
	}
}

// ringOf is the n-th ring of so many, and how it is made.
type ringOf struct {
	what  string
	n, of int
	by    wheel.Additive
}

// washFilm is the film of a wash ring, X = 0.3.
const washFilm = 0.3

func (s *Sheet) ring(w *wheel.Wheel, ring ringOf, inner, outer float64, set Settings) {
	s.Rings = append(s.Rings, inner)
	for i := range w.Slots {
		slot := &w.Slots[i]
		if slot.Empty {
			continue
		}
		r := Region{
			ID: fmt.Sprintf("%s/%s %d", slot.SetName, ring.what, ring.n), Label: fmt.Sprintf("%s, %s %d", slot.Name, ring.what, ring.n),
			Home: slot.Home, Index: i, Kind: slot.Kind, Section: -1, Shape: sector(w, i, 0, 1, inner, outer),
		}
		var rungs []wheel.RingRung
		switch ring.what {
		case "tint":
			rungs = w.Tints(i, ring.of, ring.by)
		case "shade":
			rungs = w.Shades(i, ring.of, ring.by)
		default:
			r.Film = washFilm
			s.add(r, slot.Parts, slot.Mixture)
			continue
		}
		if ring.n > len(rungs) {
			continue // dark already
		}
		rung := rungs[ring.n-1]
		r.Film = rung.Film
		s.add(r, recipe.Of(rung.Parts.Plain()), rung.Mixture)
	}
}

func (s *Sheet) add(r Region, parts recipe.Recipe, m paint.Mixture) {
	r.Recipe, r.Mixture = parts, m
	var names []string
	for _, p := range parts.Plain() {
		names = append(names, p.Paint.Code())
	}
	r.Parents = strings.Join(names, " + ")
	s.Regions = append(s.Regions, r)
}

// touchAround finds the edges that sectors share: along a radius in one ring, along
// an arc between two.
func (s *Sheet) touchAround() {
	const eps = 1e-6
	for i := range s.Regions {
		for j := range i {
			a, b := s.Regions[i].Shape, s.Regions[j].Shape
			beside := func(x, y float64) bool {
				d := math.Mod(math.Abs(x-y), 360)
				return d < eps || d > 360-eps
			}
			overlaps := func() bool {
				turn := math.Mod(b.From-a.From, 360)
				if turn < 0 {
					turn += 360
				}
				return turn < a.To-a.From-eps || turn+(b.To-b.From) > 360+eps
			}
			sameRing := max(a.Inner, b.Inner) < min(a.Outer, b.Outer)-eps
			nextRing := math.Abs(a.Inner-b.Outer) < eps || math.Abs(a.Outer-b.Inner) < eps
			if sameRing && (beside(a.To, b.From) || beside(b.To, a.From)) || nextRing && overlaps() {
				s.join(i, j)
			}
		}
	}
}

func (s *Sheet) join(i, j int) {
	s.Regions[i].Touches = append(s.Regions[i].Touches, j)
	s.Regions[j].Touches = append(s.Regions[j].Touches, i)
}

// neutrals are up to six circles in the hole, none touching another, of what
// complements balance to.
func (s *Sheet) neutrals(w *wheel.Wheel, inner float64, set Settings) {
	at := inner * 0.6
	radius := at * math.Sin(math.Pi/6) * 0.85
	for i := range 6 {
		a, b := w.SlotPaint(i), w.SlotPaint(i+6)
		if a == nil || b == nil {
			continue
		}
		balance := wheel.BalanceOf(a, b, set.Medium)
		angle := float64(i) * math.Pi / 3
		r := Region{
			ID: "neutral/" + w.Slots[i].SetName, Label: fmt.Sprintf("between %s and %s", w.Slots[i].Name, w.Slots[i+6].Name),
			Home: -1, Index: i, Kind: wheel.Tertiary, Section: -1,
			Shape: Shape{X: at * math.Sin(angle), Y: -at * math.Cos(angle), Outer: radius},
		}
		s.add(r, recipe.Of(balance.Parts.Plain()), balance.Mixture)
	}
}

// Sizes of what is painted in rows, in mm.
const (
	cell    = 20.0
	gap     = 4.0
	Beneath = 9.0 // below each row, for what is written there
	// RowWidth is what rows take where nothing is said: an A4 page within its margins.
	RowWidth = 182.0
)

// row adds regions side by side.
func (s *Sheet) row(kind SheetKind, title string, of []named) {
	s.Kind, s.Title = kind, title
	for i, n := range of {
		s.add(Region{ID: n.name, Label: n.name, Home: -1, Index: i, Kind: n.kind, Main: true, Section: -1, Share: n.share, Verdict: n.verdict}, n.parts, n.mixture)
	}
	s.Lay(RowWidth)
}

// keyID is the region of a run that shows its key again, as wide as all.
const keyID = "key"

// Lay places what is painted in rows within a width in mm. Regions of ladders and scales
// lie edge to edge, and touch where no row ends between them.
func (s *Sheet) Lay(width float64) {
	if s.blocks != nil {
		s.layBlocks(width)
		return
	}
	if s.Kind == GlazesSheet {
		s.layGlazes(width)
		return
	}
	if s.pieces != nil {
		s.layPieces(width)
		return
	}
	touching := s.Kind == "ladder" || s.Kind == "values" || s.Kind == "intensity"
	apart, tall := gap, 2*cell
	if touching {
		apart = 0
	}
	switch s.Kind {
	case "grid":
		tall = cell
	case "guide":
		tall = 1.2 * cell
	}
	if len(s.Regions) == 0 {
		return
	}
	columns := max(1, int((width+apart+1e-9)/(cell+apart)))
	switch rows := (len(s.Regions) + columns - 1) / columns; {
	case touching:
		columns = (len(s.Regions) + rows - 1) / rows // rows as long as each other
	case s.Kind == "guide" && columns > 1:
		columns -= columns % 2 // a paint beside its tint
	}
	x, y, in := 0.0, 0.0, 0
	s.W = 0
	for i := range s.Regions {
		r := &s.Regions[i]
		r.Touches = nil
		if in == columns || r.ID == keyID {
			x, y, in = 0, y+tall+Beneath, 0
		}
		in++
		r.Shape = Shape{X: x, Y: y, W: cell, H: tall}
		if r.ID == keyID {
			r.Shape = Shape{Y: y, W: s.W, H: cell}
		}
		if touching && x > 0 {
			s.join(i-1, i)
		}
		x += r.W + apart
		s.W, s.H = max(s.W, r.X+r.W), r.Y+r.H
	}
}

// named is one place of a row.
type named struct {
	name    string
	kind    wheel.Kind
	parts   recipe.Recipe
	mixture paint.Mixture
	share   float64
	verdict paint.Verdict
}

// Ladder is the sheet of a path: its ends and n inner steps (1 to 11), edge to edge.
func Ladder(p *path.Path, n int, spacing path.Spacing) (s Sheet) {
	ends := [2]*paint.Paint{p.A, p.B}
	of := []named{{name: ends[0].ShortName(), kind: wheel.Primary, parts: recipe.Pure(ends[0]), mixture: ends[0].Alone(), share: 0}}
	for i, step := range p.Steps(n, spacing) {
		of = append(of, named{name: fmt.Sprintf("step %d", i+1), kind: wheel.Secondary, parts: step.Parts, mixture: step.Mixture, share: step.Share, verdict: step.Under.Verdict})
	}
	of = append(of, named{name: ends[1].ShortName(), kind: wheel.Primary, parts: recipe.Pure(ends[1]), mixture: ends[1].Alone(), share: 1})
	s.row("ladder", ends[0].Code()+" to "+ends[1].Code(), of)
	s.ways[0] = p
	for i := range s.Regions {
		if r := &s.Regions[i]; i > 0 && i < len(of)-1 {
			r.Section, r.Step = 0, i
		}
	}
	return s
}

// Values is a value scale of a slot: n places (5 to 9) from its lightest tint to its
// darkest shade, edge to edge.
func Values(w *wheel.Wheel, index, n int) (s Sheet) {
	rungs, slot := w.Values(index, n, w.ShadeBy), &w.Slots[index]
	light := slot.Mixture.Masstone().Lab().L
	tints := 0 // how many come before the slot itself, or where it would be
	for tints < len(rungs) && rungs[tints].With != "" && rungs[tints].L > light {
		tints++
	}
	first := tints // the first shade
	if tints < len(rungs) && rungs[tints].With == "" {
		first++
	}
	s.row("values", "values of "+slot.Name, ofRungs(rungs, func(i int) string {
		switch {
		case i < tints:
			return fmt.Sprintf("tint %d", tints-i)
		case i < first:
			return slot.Name
		}
		return fmt.Sprintf("shade %d", i-first+1)
	}))
	return s
}

// Intensity is an intensity scale: n places (5 or 7) from a slot through the balance
// to its complement, edge to edge.
func Intensity(w *wheel.Wheel, index, n int, in paint.Medium) (s Sheet, ok bool) {
	a, b := w.SlotPaint(index), w.SlotPaint((index+6)%12)
	if a == nil || b == nil {
		return s, false
	}
	balance := wheel.BalanceOf(a, b, in)
	from, to := w.Slots[index].Name, w.Slots[(index+6)%12].Name
	s.row("intensity", fmt.Sprintf("from %s to %s", from, to), ofRungs(balance.Intensity(n), func(i int) string {
		switch half := n / 2; {
		case i == 0:
			return from
		case i == n-1:
			return to
		case i < half:
			return fmt.Sprintf("%s quieter %d", from, i)
		case i > half:
			return fmt.Sprintf("%s quieter %d", to, n-1-i)
		}
		return "grey between"
	}))
	return s, true
}

// ofRungs are the places of a scale, each by its name.
func ofRungs(rungs []wheel.RingRung, name func(i int) string) (of []named) {
	for i, r := range rungs {
		parts := recipe.Of(r.Parts.Plain())
		kind := wheel.Secondary
		if len(parts) == 1 {
			kind = wheel.Primary
		}
		of = append(of, named{name: name(i), kind: kind, parts: parts, mixture: r.Mixture, share: 0})
	}
	return of
}

// Run is a run of analogous colours with its key: a slot and two on either side,
// apart from one another, and the slot again as large as all.
func Run(w *wheel.Wheel, index int) (s Sheet) {
	var of []named
	for by := -2; by <= 2; by++ {
		if slot := &w.Slots[((index+by)%12+12)%12]; !slot.Empty {
			of = append(of, named{name: slot.Name, kind: slot.Kind, parts: slot.Parts, mixture: slot.Mixture, share: slot.Share})
		}
	}
	s.row("run", "around "+w.Slots[index].Name, of)
	slot := &w.Slots[index]
	s.add(Region{ID: keyID, Label: "the key: " + slot.Name, Home: slot.Home, Index: len(of), Kind: slot.Kind, Main: true, Section: -1}, slot.Parts, slot.Mixture)
	s.Lay(RowWidth)
	return s
}

// oneInNine is how the tint is called that shows what a paint hides.
const oneInNine = "1 in 9 of white"

// tintOf is 1 part of a paint in 9 of white.
func tintOf(p, white *paint.Paint) (recipe.Recipe, paint.Mixture) {
	m, w := p.Alone(), white.Alone()
	return recipe.OfTwo(white, p, [2]int{9, 1}), paint.Between(&w, &m, 0.1)
}

// Guide is a palette guide: each paint straight and as a tint of 1 in 9 of white, which
// may be nil.
func Guide(paints []*paint.Paint, white *paint.Paint) (s Sheet) {
	var of []named
	for _, p := range paints {
		of = append(of, named{name: p.ShortName(), kind: wheel.Primary, parts: recipe.Pure(p), mixture: p.Alone(), share: 0})
		if white != nil && white != p {
			r, m := tintOf(p, white)
			of = append(of, named{name: p.ShortName() + ", " + oneInNine, kind: wheel.Secondary, parts: r, mixture: m})
		}
	}
	s.row("guide", "palette guide", of)
	for i := range s.Regions {
		if r := &s.Regions[i]; len(r.Recipe) == 2 {
			r.Label = oneInNine
		}
	}
	return s
}

// Grid is the sheet of pairings: each pair's two halfway colours in a cell of its own.
func Grid(pairings []path.Pairing) (s Sheet) {
	var of []named
	for i := range pairings {
		p := &pairings[i]
		of = append(of, named{name: p.A.Code() + " with " + p.B.Code(), kind: wheel.Secondary, parts: p.Middle.Parts, mixture: p.Middle.Mixture, share: p.Middle.Share, verdict: p.Middle.Under.Verdict})
	}
	s.row("grid", "pairings", of)
	return s
}

// Swatches is the sheet of what makes recipes surer.
func Swatches(recipes []recipe.Recipe) (s Sheet) {
	var of []named
	for _, r := range recipes {
		mixture, err := paint.Mix(r.Plain()...)
		if err != nil {
			continue // of nothing
		}
		of = append(of, named{name: r.String(), kind: wheel.Secondary, parts: r, mixture: mixture})
	}
	s.row(SwatchesSheet, "swatches", of)
	for i := range s.Regions {
		s.Regions[i].ID = fmt.Sprintf("swatch/%d", i+1)
	}
	return s
}

// WantedColours is the sheet of what comes nearest to each wanted colour.
func WantedColours(wanted []Wanted) (s Sheet) {
	var of []named
	for _, w := range wanted {
		kind := wheel.Secondary
		if len(w.Recipe) == 1 {
			kind = wheel.Primary
		}
		of = append(of, named{name: w.Name, kind: kind, parts: w.Recipe, mixture: w.Mixture, share: 0})
	}
	s.row("wanted", "wanted colours", of)
	for i := range s.Regions {
		s.Regions[i].ID, s.Regions[i].Aim = fmt.Sprintf("wanted/%d", i+1), &wanted[i].Colour
	}
	return s
}

// Between are the names of the two paints that a section runs between; empty
// where nothing fills it.
func (s *Sheet) Between(section int) (from, to string) {
	way := s.ways[section]
	if way == nil {
		return "", ""
	}
	return way.A.ShortName(), way.B.ShortName()
}

// Corner marks of a sheet, in mm: a photo is straightened by them.
const (
	MarkRadius = 3.2
	MarkRing   = 0.68 // of the radius: the white within
	MarkDot    = 0.32 // of the radius: the dot within that
	GreyRadius = 2.6  // of the grey step
	markOff    = 4.4  // from the edge of what is painted to the middle of a mark
)

// Marks are the middles of the sheet's four marks in mm: upper left, upper right, lower
// right, lower left, from where the shapes of its regions are measured. Of a wheel they
// lie on the diagonals, between two slots each; the lower ones beneath what lies beneath it.
func (s *Sheet) Marks() [4][2]float64 {
	left, top, right, bottom := -markOff, -markOff, s.W+markOff, s.H+Beneath+markOff
	if s.Kind == "wheel" {
		off := (s.W/2 + markOff + MarkRadius/2) / math.Sqrt2
		left, top, right, bottom = -off, -off, off, off
		if s.H > s.W {
			bottom = s.H - s.W/2 + Beneath + markOff
		}
	}
	return [4][2]float64{{left, top}, {right, top}, {right, bottom}, {left, bottom}}
}

// Bounds are the edges of what is painted in mm, from where the shapes of its regions are measured.
func (s *Sheet) Bounds() (left, top, right, bottom float64) {
	if s.Kind == "wheel" {
		r := s.W / 2
		return -r, -r, r, s.H - r
	}
	return 0, 0, s.W, s.H
}

// GreyStep is the middle of the sheet's grey step in mm, beside the lower left mark: whoever can measure
// what it reflects can tell a photo's rendering better.
func (s *Sheet) GreyStep() [2]float64 {
	const off = MarkRadius + GreyRadius + 2.4
	at := s.Marks()[3]
	if s.Kind == "wheel" {
		return [2]float64{at[0] - off, at[1]} // away from the slots
	}
	return [2]float64{at[0] + off, at[1]} // beneath what is painted
}

// Ends are the two paints that a section runs between; nil where nothing fills it.
func (s *Sheet) Ends(section int) (a, b *paint.Paint) {
	if way := s.ways[section]; way != nil {
		return way.A, way.B
	}
	return nil, nil
}

// Restored is a sheet as it was kept, its sections running between the same paints: two
// nils where nothing filled one.
func Restored(s Sheet, ends [3][2]*paint.Paint) Sheet {
	s.wheel = nil
	s.settle()
	for k, of := range ends {
		s.ways[k] = nil
		if of[0] != nil && of[1] != nil {
			s.ways[k] = path.New(of[0], of[1])
		}
	}
	return s
}

// Paints are the paints of a sheet, each once, in the order in which they are met.
func (s *Sheet) Paints() (out []*paint.Paint) {
	for i := range s.Regions {
		for _, p := range s.Regions[i].Recipe.Plain() {
			if !slices.Contains(out, p.Paint) {
				out = append(out, p.Paint)
			}
		}
	}
	return out
}

// Quarters are the points that stand for the marks on a sheet that was drawn freely, mm:
// of a wheel the top, right, bottom and left of its rim, else its upper left, upper
// right, lower right and lower left corner.
func (s *Sheet) Quarters() [4][2]float64 {
	if s.Kind == "wheel" {
		r := s.W / 2
		return [4][2]float64{{0, -r}, {r, 0}, {0, r}, {-r, 0}}
	}
	return [4][2]float64{{0, 0}, {s.W, 0}, {s.W, s.H}, {0, s.H}}
}

// Blank is the sheet of a wheel of twelve without paints, to be drawn.
func Blank(set Settings) Sheet {
	return Sheet{Kind: "wheel", Title: "wheel", W: set.Diameter, H: set.Diameter, Inner: set.Inner}
}

// Holds says whether a point lies within a shape, at least so many mm from its edge;
// with a negative distance, at most so far outside.
func (s Shape) Holds(x, y, in float64) bool {
	switch {
	case s.To > s.From:
		x, y = x-s.X, y-s.Y
		square := x*x + y*y
		if least, most := max(0, s.Inner+in), s.Outer-in; square < least*least || square > most*most {
			return false
		}
		r := math.Sqrt(square)
		middle := (s.From + s.To) / 2
		off := math.Mod(math.Atan2(x, -y)*180/math.Pi-middle+900, 360) - 180
		return math.Abs(off)+in/math.Max(r, 1e-9)*180/math.Pi <= (s.To-s.From)/2
	case s.W > 0:
		return x >= s.X+in && x <= s.X+s.W-in && y >= s.Y+in && y <= s.Y+s.H-in
	}
	return math.Hypot(x-s.X, y-s.Y) <= s.Outer-in
}

// place is a point of a shape: u and v run from 0 to 1 across it and along it.
func (s Shape) place(u, v float64) [2]float64 {
	switch {
	case s.To > s.From:
		r, a := s.Inner+v*(s.Outer-s.Inner), (s.From+u*(s.To-s.From))*math.Pi/180
		return [2]float64{s.X + r*math.Sin(a), s.Y - r*math.Cos(a)}
	case s.W > 0:
		return [2]float64{s.X + u*s.W, s.Y + v*s.H}
	}
	r, a := s.Outer*math.Sqrt(v), 2*math.Pi*u
	return [2]float64{s.X + r*math.Cos(a), s.Y + r*math.Sin(a)}
}

// sampled is how many points a shape is sampled at each way.
const sampled = 24

// Within are points spread over a shape, inset by a share of its width at every edge.
func (s Shape) Within(share float64) (out [][2]float64) {
	round := s.To <= s.From && s.W == 0
	for i := range sampled {
		for j := range sampled {
			u, v := (float64(i)+0.5)/sampled, (float64(j)+0.5)/sampled
			if round {
				v *= (1 - share) * (1 - share)
			} else {
				u, v = share+u*(1-2*share), share+v*(1-2*share)
			}
			out = append(out, s.place(u, v))
		}
	}
	return out
}

// Edge is the outline of a shape, inset by a share of its width at every edge.
func (s Shape) Edge(share float64) (out [][2]float64) {
	const n = 8
	low, high := share, 1-share
	if s.To <= s.From && s.W == 0 {
		for k := range 3 * n {
			out = append(out, s.place(float64(k)/(3*n), high*high))
		}
		return out
	}
	for k := range n {
		out = append(out, s.place(low+(high-low)*float64(k)/n, high))
	}
	for k := range n {
		out = append(out, s.place(high, high-(high-low)*float64(k)/n))
	}
	for k := range n {
		out = append(out, s.place(high-(high-low)*float64(k)/n, low))
	}
	for k := range n {
		out = append(out, s.place(low, low+(high-low)*float64(k)/n))
	}
	return out
}
