package paper

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Options are how a sheet is put on paper.
type Options struct {
	Format  Format
	Flat    bool
	Edition Edition // for whom it is; the painter's own when empty
	Recipes string  // "parts", "dabs" (whatever the plan is counted out in) or "none"; none on a blank when empty, else parts
	// Class is for how many there is a blank each, with one key to them, instead of an edition; 0 for none.
	Class int
	// Code is a square of dark modules, row by row, that is printed in the head of a blank; none when empty.
	Code [][]bool
	// As are "sheet" (also when empty), "plan", "cards" and "dabs": several, with commas
	// between, make a stack.
	As    string
	Title string
	About string // below the title: system, medium
	// Doubts are what is not known of the paints; nothing is said of that when nil, nor where nothing is said of recipes.
	Doubts certainty.Doubts
}

// Lengths in mm: the margin, and what text is set in.
const (
	margin     = 14.0
	titled     = 7.0
	ordinary   = 3.6          // 10 points: what is read while painting
	small      = 2.85         // 8 points: nothing is smaller
	labelled   = 3 * ordinary // a name, what it is mixed from, and its parts
	header     = 31.0
	testBar    = 50.0
	labelsIn   = 25.0 // what labels beside a wheel need
	labelsDeep = 18.0 // how deep a ring is that takes them
	wordsDeep  = 16.0 // and one that takes a word beneath its numbers
)

// Wide is how much of a page rows may take, in mm.
func (o Options) Wide() float64 {
	if o.Flat {
		return o.Format.H - 2*margin
	}
	return o.Format.W - 2*margin
}

// gauge are the widths of dabs shown at true size, mm, beside other things.
var gauge = []float64{2, 3, 4, 5, 7, 10, 14}

// gaugeWide is how wide they are beside each other, mm.
const gaugeWide = 63.0

// largestDab is the largest that a gauge of its own shows, mm.
const largestDab = 24

// layout is a page that is being filled.
type layout struct {
	Page
	full    []Page // before this one
	plan    *bench.Plan
	options Options
	measure Measure
	number  map[int]int
	written map[int]bool // places whose recipe stands beside them
	unnamed map[int]bool // places whose name found no room
}

// Sheet lays a plan's sheet out at true size: the places with their names, what they are
// mixed from and the order in which they are painted, four marks that a photo is read by,
// a bar of 50 mm to check the printer, what to squeeze out, and the cautions of the
// paints. What finds no room goes on to a second page. The error is an input.Error.
func Sheet(p *bench.Plan, o Options, measure Measure) (pages []Page, err error) {
	if !slices.Contains([]string{"", "parts", "dabs", "none"}, o.Recipes) {
		return nil, input.Errorf("recipes %q: choose parts, dabs or none", input.Clip(o.Recipes))
	}
	if o.Class != 0 {
		return forClass(p, o, measure)
	}
	if o.Edition, err = ParseEdition(string(o.Edition)); err != nil {
		return nil, err
	}
	if o.Recipes == "" {
		o.Recipes = map[bool]string{true: "none", false: "parts"}[o.Edition == Blank]
	}
	if o.Flat {
		o.Format = o.Format.flat()
	}
	for n, as := range strings.Split(cmp.Or(o.As, "sheet"), ",") {
		if n >= mostStacked {
			return nil, input.Errorf("a stack has at most %d sheets", mostStacked)
		}
		l := &layout{Page: Page{W: o.Format.W, H: o.Format.H}, plan: p, options: o, measure: measure, number: map[int]int{}, written: map[int]bool{}, unnamed: map[int]bool{}}
		for n, i := range p.Order {
			l.number[i] = n + 1
		}
		var more []Page
		switch strings.TrimSpace(as) {
		case "sheet":
			more, err = l.sheet()
		case "plan":
			more = l.inOrder()
		case "cards":
			more = l.cards()
		case "dabs":
			more = l.dabs()
		default:
			err = input.Errorf("as %q: choose sheet, plan, cards or dabs", input.Clip(as))
		}
		if err != nil {
			return nil, err
		}
		pages = append(pages, more...)
	}
	return pages, nil
}

// mostStacked is how many sheets a stack may have.
const mostStacked = 4

// sheet is the sheet to paint on, and what goes with it.
func (l *layout) sheet() ([]Page, error) {
	l.head()
	draw := l.rows
	if l.plan.Sheet.Kind == "wheel" {
		draw = l.wheel
	}
	below, err := draw()
	if err != nil {
		return nil, err
	}
	foot := l.footHeight()
	if below+foot > l.H-margin {
		l.turn()
		below = header
	}
	l.foot(max(below, l.H-margin-foot))
	if l.unwritten() {
		l.recipes()
	}
	return append(l.full, l.Page), nil
}

// turn begins another page.
func (l *layout) turn() {
	l.full = append(l.full, l.Page)
	l.Page = Page{W: l.W, H: l.H}
	l.head()
}

// head is the title, what it is, a line for date and paints, and the bar.
func (l *layout) head() {
	about := l.options.About
	if !l.coded() { // which takes the room
		about += fmt.Sprintf(" · %d places", len(l.plan.Sheet.Regions))
	}
	if !l.options.uncounted() && !l.coded() {
		about += fmt.Sprintf(" · %d minutes", l.plan.Minutes)
	}
	if l.plan.Sheet.Kind == "wheel" {
		about += fmt.Sprintf(" · %.0f mm", l.plan.Settings.Diameter)
	}
	title := l.options.Title
	if l.options.Edition == Key {
		title += ": the key"
	}
	l.heading(title, about+" · plan "+l.plan.Mark())
}

// heading is a title, what it is about, a line for date and paints, and a bar to check
// the printer by.
func (l *layout) heading(title, about string) {
	right := l.clear()
	l.title(title)
	l.code()
	l.line(right-testBar, margin+9.5, right, margin+9.5, 0.6, 0)
	l.line(right-testBar, margin+8, right-testBar, margin+11, 0.3, 0)
	l.line(right, margin+8, right, margin+11, 0.3, 0)
	l.text(right, margin+14, small, Plain, End, 0.35, "true size: this bar is 50 mm")
	lines, size := l.whole(about, Plain, ordinary, right-margin-testBar-4, 2)
	for n, line := range lines {
		l.text(margin, margin+9.5+3*(float64(n)-0.5*float64(len(lines)-1)), size, Plain, Start, 0.35, "%s", line)
	}
	x := margin
	for n, of := range l.toFillIn() {
		l.text(x, margin+14, small, Plain, Start, 0.35, "%s", of)
		x += l.measure(of, Plain, small) + 1
		to := x + 20
		if n == 1 {
			to = right - testBar - 4
		}
		l.line(x, margin+14.4, to, margin+14.4, 0.15, 0.5)
		x = to + 3
	}
}

// The code in the head: how wide it is with the quiet edge about it, and where it ends above, mm.
const (
	codeWide = 22.0
	codeTop  = 7.5
)

// coded says that the head has a code.
func (l *layout) coded() bool { return l.options.Edition == Blank && len(l.options.Code) > 0 }

// clear is where the head ends on the right, before a code.
func (l *layout) clear() float64 {
	if l.coded() {
		return l.W - margin - codeWide - 2
	}
	return l.W - margin
}

// code prints the code at the right of the head: dark modules of a row that touch are one mark.
func (l *layout) code() {
	if !l.coded() {
		return
	}
	module := codeWide / float64(len(l.options.Code))
	for y, row := range l.options.Code {
		for x := 0; x < len(row); x++ {
			from := x
			for x < len(row) && row[x] {
				x++
			}
			if x > from {
				l.add(Mark{Kind: Rect, X: l.W - margin - codeWide + float64(from)*module, Y: codeTop + float64(y)*module, W: float64(x-from) * module, H: module, Fill: ink})
			}
		}
	}
}

// title is as large as it finds room whole.
func (l *layout) title(text string) {
	for _, size := range []float64{titled, 0.8 * titled, 0.65 * titled} {
		if l.measure(text, Bold, size) <= l.clear()-margin {
			l.text(margin, margin+4, size, Bold, Start, 0, "%s", text)
			return
		}
	}
	lines, size := l.whole(text, Bold, ordinary, l.clear()-margin, 2)
	for n, line := range lines {
		l.text(margin, margin+4-1.1*size*float64(len(lines)-1-n), size, Bold, Start, 0, "%s", line)
	}
}

// toFillIn are what there are lines for in the head.
func (l *layout) toFillIn() [2]string {
	if l.options.Edition == Blank {
		return [2]string{"date", "name"}
	}
	return [2]string{"date", "paints"}
}

// marks are the four that a photo is straightened by, about a sheet that lies at x, y. The
// first has a dot in its ring and the second is filled, so that a sheet that was turned or
// mirrored is known by them. Beside the last lies the grey step.
func (l *layout) marks(x, y float64) {
	for n, at := range l.plan.Sheet.Marks() {
		circle := func(r float64, fill string) {
			l.add(Mark{Kind: Circle, X: x + at[0], Y: y + at[1], Outer: r, Fill: fill})
		}
		circle(bench.MarkRadius, ink)
		if n != 1 {
			circle(bench.MarkRadius*bench.MarkRing, "#ffffff")
		}
		if n == 0 {
			circle(bench.MarkRadius*bench.MarkDot, ink)
		}
	}
	step := l.plan.Sheet.GreyStep()
	l.add(Mark{Kind: Circle, X: x + step[0], Y: y + step[1], Outer: bench.GreyRadius, Fill: greyStep})
}

// greyStep is the grey that whoever can measure it tells a photo's rendering better by.
const greyStep = "#7a7a7a"

// ink is the black of marks.
const ink = "#161616"

// fit is a text cut to a width, with dots where something is left out.
func (l *layout) fit(text string, f Font, size, width float64) string {
	if l.measure(text, f, size) <= width {
		return text
	}
	runes := []rune(text)
	for len(runes) > 1 && l.measure(string(runes)+"…", f, size) > width {
		runes = runes[:len(runes)-1]
	}
	return string(runes) + "…"
}

// whole sets a text in one line as large as is wanted or, where that finds no room, as small as text may be in
// up to so many lines: broken between words and after hyphens and, where one is wider than the width, within
// it. Only what finds no room even so ends in dots.
func (l *layout) whole(text string, f Font, size, width float64, most int) ([]string, float64) {
	if l.measure(text, f, size) <= width {
		return []string{text}, size
	}
	const joint = "\u2060" // stands where a line may end without a space
	var words []string
	for _, word := range strings.Fields(strings.ReplaceAll(text, "-", "-"+joint+" ")) {
		words = append(words, l.broken(word, f, width)...)
	}
	lines := l.wrapped(strings.Join(words, " "), f, small, width)
	for n := range lines {
		lines[n] = strings.ReplaceAll(strings.ReplaceAll(lines[n], joint+" ", ""), joint, "")
	}
	if len(lines) > most {
		lines = append(lines[:most-1], l.fit(strings.ReplaceAll(strings.Join(lines[most-1:], " "), "- ", "-"), f, small, width))
	}
	return lines, small
}

// broken is a word in pieces that find room in a width, as small as text may be.
func (l *layout) broken(word string, f Font, width float64) (pieces []string) {
	runes := []rune(word)
	for l.measure(string(runes), f, small) > width && len(runes) > 4 {
		n := len(runes) - 2
		for n > 2 && l.measure(string(runes[:n])+"-", f, small) > width {
			n--
		}
		pieces, runes = append(pieces, string(runes[:n])+"-"), runes[n:]
	}
	return append(pieces, string(runes))
}

// name writes a text in as many lines as a name may have, and says how much further down than one it needs.
func (l *layout) name(x, y float64, f Font, grey float64, text string, width float64) (more float64) {
	lines, size := l.whole(text, f, ordinary, width, mostNamed)
	for n, line := range lines {
		l.text(x, y+float64(n)*size*1.15, size, f, Start, grey, "%s", line)
	}
	return float64(len(lines)-1) * size * 1.15
}

// bands are how many steps a graded place is printed in.
const bands = 12

// graded draws that a place is drawn out toward its tip: in bands of the colours aimed
// at or, where it is to be painted, a wedge along its edge that thins.
func (l *layout) graded(m Mark, r *bench.Region) {
	deep := (r.Outer - r.Inner) / bands
	for n := range bands {
		at := (float64(n) + 0.5) / bands
		band := Mark{Kind: Sector, X: m.X, Y: m.Y, Outer: r.Outer - float64(n)*deep, Inner: r.Outer - float64(n+1)*deep, From: r.From, To: r.To}
		if l.options.coloured() {
			band.Inner = r.Inner // the next lies over it, without a seam
			look := r.GradedAt(&r.Mixture, l.plan.Settings.Medium, false, at)
			band.Fill = look.OKLab(colour.D65).Screen().Hex
		} else {
			band.From, band.To, band.Fill = r.From+0.6, r.From+0.6+2*(1-at), "#9a9a9a"
		}
		l.add(band)
	}
	m.Fill = ""
	l.add(m)
}

// colourOf is what a place is filled with: nothing where it is an outline to paint.
func (l *layout) colourOf(r *bench.Region) string {
	if !l.options.coloured() {
		return ""
	}
	return l.aimed(r)
}

// aimed is the colour a place aims at, dry and by daylight.
func (l *layout) aimed(r *bench.Region) string {
	if r.Aim != nil {
		return r.Aim.OKLab().Screen().Hex
	}
	return l.looks(r)
}

// looks is the colour that a place's recipe makes.
func (l *layout) looks(r *bench.Region) string {
	look := r.Appearance(l.plan.Settings.Medium, false)
	return look.OKLab(colour.D65).Screen().Hex
}

// numberGrey is what a number is written in: grey on paper, light or dark on colour.
func (l *layout) numberGrey(r *bench.Region) float64 {
	if !l.options.coloured() {
		return 0.5
	}
	if look := r.Appearance(l.plan.Settings.Medium, false); look.Lab().L < 55 {
		return 0.95
	}
	return 0.1
}

// made is what a place is made of, in parts or counted out, each paint with its own amount,
// in pieces that are not broken, and how that is thinned; empty for a paint as it comes and where nothing is
// wanted.
func (l *layout) made(i int) []string {
	r := &l.plan.Sheet.Regions[i]
	thinned := l.plan.Settings.Thinned(r)
	var pieces []string
	switch {
	case l.options.Recipes == "none" || len(r.Recipe) < 2 && thinned == "":
		return nil
	case l.counted(r):
		pieces = l.plan.Counted[i].Pieces()
	case len(r.Recipe) < 2:
		pieces = []string{r.Parents}
	default:
		pieces = r.Recipe.Pieces()
	}
	if thinned != "" {
		pieces[len(pieces)-1] += ","
		pieces = append(pieces, thinned)
	}
	return pieces
}

// counted says that a place's recipe is told as it is counted out: where that is wanted, and where its parts
// are no whole numbers, as in a tint of a mixture.
func (l *layout) counted(r *bench.Region) bool {
	return l.options.Recipes == "dabs" || !r.Recipe.Whole()
}

// beside is what stands beside a place: its recipe where that finds room whole, for half a
// recipe is none; else its paints, and the recipe stands in the list of them. There are so many
// lines at the most. A recipe is as large as what is read while painting.
func (l *layout) beside(parents string, of []int, most int, width float64) (lines []string, size float64) {
	var made []int
	for _, i := range of {
		if len(l.made(i)) > 0 {
			made = append(made, i)
		}
	}
	if len(made) == 1 {
		if lines, whole := l.inPieces(l.made(made[0]), Plain, ordinary, width); whole && len(lines) <= most {
			l.written[made[0]] = true
			return lines, ordinary
		}
	}
	if parents == "" || l.measure(parents, Plain, small) > width {
		return nil, small // they stand in the list
	}
	return []string{parents}, small
}

// inPieces sets pieces in lines of a width without breaking one; whole is false where one
// of them is wider than that.
func (l *layout) inPieces(pieces []string, f Font, size, width float64) (lines []string, whole bool) {
	whole = true
	line := ""
	for _, piece := range pieces {
		whole = whole && l.measure(piece, f, size) <= width
		next := strings.TrimSpace(line + " " + piece)
		if line != "" && l.measure(next, f, size) > width {
			lines = append(lines, line)
			next = piece
		}
		line = next
	}
	return append(lines, line), whole
}

// unwritten says that the recipe of a place, or its name, found no room on the sheet.
func (l *layout) unwritten() bool {
	return len(l.unnamed) > 0 || slices.ContainsFunc(l.plan.Order, func(i int) bool { return !l.written[i] && len(l.made(i)) > 0 })
}

// recipes are the recipes of all places that are mixed or thinned, by their numbers, and the names of those
// that found no room.
func (l *layout) recipes() {
	l.turn()
	y := header + ordinary
	title := "What each place is mixed from, in the order of painting"
	if l.options.uncounted() {
		title = "What the numbers are"
	}
	l.text(margin, y, ordinary, Bold, Start, 0, "%s", title)
	y += ordinary * 1.6
	names := max(0.36*(l.W-2*margin), 55)
	for _, i := range l.plan.Order {
		made := l.made(i)
		if len(made) == 0 && !l.unnamed[i] {
			continue
		}
		r := &l.plan.Sheet.Regions[i]
		lines, _ := l.inPieces(made, Plain, ordinary, l.W-2*margin-names)
		called, size := l.whole(r.Label, Bold, ordinary, names-11, mostNamed)
		deep := max(float64(len(lines))*ordinary*1.3, float64(len(called))*size*1.15)
		if y+deep-ordinary*1.3 > l.H-margin {
			l.turn()
			y = header + ordinary
		}
		l.text(margin+7, y, ordinary, Figures, End, 0.2, "%d", l.number[i])
		l.name(margin+10, y, Bold, 0, r.Label, names-11)
		for n, line := range lines {
			l.text(margin+names, y+float64(n)*ordinary*1.3, ordinary, Plain, Start, 0.1, "%s", line)
		}
		y += deep + ordinary*0.3
	}
}

// wheel draws a wheel in the middle of the page; below is where the rest may begin.
func (l *layout) wheel() (below float64, err error) {
	s := l.plan.Sheet
	radius := s.W / 2
	beside := l.W/2-margin/2-radius >= labelsIn
	deep := 0.0 // of the ring of twelve
	for i := range s.Regions {
		if r := &s.Regions[i]; r.Main {
			deep = r.Outer - r.Inner
		}
	}
	around, room := 4.0, l.W-margin
	switch {
	case beside:
		around = labelled + 5
	case deep < labelsDeep:
		room = l.W - margin - 2*labelsIn
	}
	if largest := min(room, l.H-header-margin-2*around); s.W > largest {
		return 0, input.Errorf("a wheel of %.0f mm with its names does not fit on %s: the largest is %.0f mm", s.W, l.options.Format.Name, math.Floor(largest))
	}
	cx, cy := l.W/2, header+around+radius
	_, _, _, bottom := s.Bounds()
	if s.H > s.W {
		if bottom += bench.Beneath + 4; cy+bottom > l.H-margin {
			return 0, input.Errorf("a wheel of %.0f mm with what is added to it does not fit on %s: choose a smaller wheel or larger paper", s.W, l.options.Format.Name)
		}
	} else {
		bottom += around
	}
	for i := range s.Regions {
		r := &s.Regions[i]
		if r.W > 0 {
			l.rectangle(i, cx+r.X, cy+r.Y)
			continue
		}
		m := Mark{Kind: Sector, X: cx, Y: cy, Inner: r.Inner, Outer: r.Outer, From: r.From, To: r.To, Fill: l.colourOf(r), Stroke: 0.25, Grey: 0.1}
		x, y := onCircle(cx, cy, (r.Inner+r.Outer)/2, (r.From+r.To)/2)
		deep, wide := r.Outer-r.Inner, (r.To-r.From)*math.Pi/180*(r.Inner+r.Outer)/2
		if r.To <= r.From {
			m = Mark{Kind: Circle, X: cx + r.X, Y: cy + r.Y, Outer: r.Outer, Fill: l.colourOf(r), Stroke: 0.25, Grey: 0.1}
			x, y, deep, wide = m.X, m.Y, 1.6*r.Outer, 1.6*r.Outer
		}
		if r.Graded {
			l.graded(m, r)
		} else {
			l.add(m)
		}
		if beside || !r.Main {
			l.numbered(i, x, y, min(deep, wide))
		}
		if beside && r.Main && l.options.Edition == Key {
			room := 0.8 * (r.To - r.From) * math.Pi / 180 * (r.Inner + r.Outer) / 2
			if r.Outer-r.Inner < wordsDeep {
				room = 0
			}
			l.judged(r, x, y+small*1.2, room)
		}
	}
	for _, slot := range l.slots() {
		if beside {
			l.label(cx, cy, radius, slot)
		} else {
			l.inside(cx, cy, slot)
		}
	}
	l.marks(cx, cy)
	return cy + bottom, nil
}

// numbered writes a place's number about a point, as large as it is read while painting or, in a small
// place, as small as text may be; in one that is smaller still its name in the list has to do.
func (l *layout) numbered(i int, x, y, room float64) {
	number := fmt.Sprint(l.number[i])
	for _, size := range []float64{ordinary, small} {
		if max(l.measure(number, Figures, size), 1.4*size) <= room {
			l.text(x, y+size*0.35, size, Figures, Middle, l.numberGrey(&l.plan.Sheet.Regions[i]), "%s", number)
			return
		}
	}
}

func onCircle(cx, cy, r, degrees float64) (x, y float64) {
	a := degrees * math.Pi / 180
	return cx + r*math.Sin(a), cy - r*math.Cos(a)
}

// slot is a slot of the ring of twelve, whose halves go together.
type slot struct {
	name    string
	regions []int
	at      float64 // degrees
}

func (l *layout) slots() (out []slot) {
	for i := range l.plan.Sheet.Regions {
		r := &l.plan.Sheet.Regions[i]
		if !r.Main || r.To <= r.From {
			continue
		}
		name, _, _ := strings.Cut(r.Label, ", ")
		if n := len(out); n > 0 && out[n-1].name == name && l.plan.Sheet.Regions[out[n-1].regions[0]].Seen().Inner == r.Seen().Inner {
			last := &out[n-1]
			last.regions = append(last.regions, i)
			last.at = (last.at + (r.From+r.To)/2) / 2
			continue
		}
		out = append(out, slot{name, []int{i}, (r.From + r.To) / 2})
	}
	return out
}

// label writes a slot's name, its parents and its parts beside the rim.
func (l *layout) label(cx, cy, radius float64, s slot) {
	var parents []string
	for _, i := range s.regions {
		parents = append(parents, l.plan.Sheet.Regions[i].Parents)
	}
	x, y := onCircle(cx, cy, radius+4, s.at)
	across := (x - cx) / (radius + 4)
	align := Middle
	switch {
	case across > 0.2:
		align = Start
	case across < -0.2:
		align = End
	}
	width := l.W/2 - margin/2 - math.Abs(x-cx)
	if align == Middle {
		width = radius
	}
	blank := l.options.uncounted()
	called, first := l.whole(s.name, Bold, ordinary, width, 2)
	lines, second := make([]string, 2), small // a line to write on, and what is ticked
	if !blank {
		lines, second = l.beside(strings.Join(parents, " | "), s.regions, 3-len(called), width)
	}
	named := max(ordinary, float64(len(called))*first)
	height := named + float64(len(lines))*second*1.2
	top := y - height/2 - (cy-y)/(radius+4)*height/2
	y = top + first*0.75
	for n, line := range called {
		l.text(x, y+float64(n)*first, first, Bold, align, 0, "%s", line)
	}
	y = top + named + second*0.75
	for n, line := range lines {
		if blank {
			l.toWrite(x, y, min(width, labelsIn-2), align, n+1, &l.plan.Sheet.Regions[s.regions[0]])
		} else {
			l.text(x, y, second, Plain, align, 0.15, "%s", line)
		}
		y += second * 1.2
	}
}

// toWrite draws beside a place what is filled in there: in the first row a line, in the second the drops of
// which one is ticked, where it is mixed of two paints.
func (l *layout) toWrite(x, y, wide float64, align Align, row int, r *bench.Region) {
	switch {
	case row == 1:
		left := leftOf(x, wide, align)
		l.line(left, y, left+wide, y, 0.15, 0.5)
	case r.Verdict != paint.Neutral:
		l.toTick(leftOf(x, ticksWide, align), y-small*0.2)
	}
}

// leftOf is where something so wide begins that stands at a place.
func leftOf(x, wide float64, align Align) float64 {
	switch align {
	case Middle:
		return x - wide/2
	case End:
		return x - wide
	}
	return x
}

// inside writes a place's number, its name and its parents within it.
func (l *layout) inside(cx, cy float64, s slot) {
	for _, i := range s.regions {
		r := &l.plan.Sheet.Regions[i]
		seen := r.Seen()
		grey := l.numberGrey(r)
		under := r.Parents
		switch {
		case l.options.uncounted():
			under = ""
		case l.options.Edition == Key && r.Verdict != paint.Neutral:
			under = r.Verdict.String() // what it is mixed from stands in the list
		}
		lines := []string{fmt.Sprint(l.number[i]), s.name, under}
		if len(s.regions) > 1 {
			lines = []string{fmt.Sprint(l.number[i]), under}
		}
		at := (seen.From + seen.To) / 2
		x, y := onCircle(cx, cy, (seen.Inner+seen.Outer)/2, at)
		// The width of the place at its middle, lying down for a slot at the side.
		a := at * math.Pi / 180
		wide, deep := 0.85*(seen.To-seen.From)*math.Pi/180*(seen.Inner+seen.Outer)/2, 0.85*(seen.Outer-seen.Inner)
		width := min(wide/max(math.Abs(math.Cos(a)), 0.05), deep/max(math.Abs(math.Sin(a)), 0.05))
		high := min(deep/max(math.Abs(math.Cos(a)), 0.05), wide/max(math.Abs(math.Sin(a)), 0.05))
		if len(s.regions) == 1 && l.measure(s.name, Bold, small) > width || float64(len(lines))*ordinary > high {
			l.numbered(i, x, y, min(width, high))
			l.unnamed[i] = true
			continue
		}
		if last := &lines[len(lines)-1]; l.measure(*last, Plain, small) > width {
			*last = "" // it stands in the list
		}
		y -= float64(len(lines)-1) * ordinary * 1.1 / 2
		for n, line := range lines {
			font, size := Bold, ordinary
			switch {
			case n == 0:
				font = Figures
			case n == len(lines)-1:
				font, size = Plain, small
			case l.measure(line, font, size) > width:
				size = small
			}
			if n == 2 && l.options.uncounted() && r.Verdict != paint.Neutral {
				l.toTick(x-ticksWide/2, y)
			}
			l.text(x, y+small*0.3, size, font, Middle, grey, "%s", line)
			y += ordinary * 1.1
		}
	}
}

// rows draws what is painted in rectangles; rows that find no room go on to a page more.
// The marks for a photo are about what stands on one page.
func (l *layout) rows() (below float64, err error) {
	s := l.plan.Sheet
	const top = header + 7 // room for the marks
	if wide := l.W - 2*margin; s.W > wide+1e-6 {
		return 0, input.Errorf("rows of %.0f mm do not fit on %s: choose larger paper, or fewer places", s.W, l.options.Format.Name)
	}
	up := 0.0 // what stands on the pages before
	for i := range s.Regions {
		r := &s.Regions[i]
		if r.To > r.From { // of a wheel among rows, which its names stand in
			m := Mark{Kind: Sector, X: margin + r.X, Y: top + r.Y, Inner: r.Inner, Outer: r.Outer, From: r.From, To: r.To, Fill: l.colourOf(r), Stroke: 0.25, Grey: 0.1}
			if r.Graded {
				l.graded(m, r)
			} else {
				l.add(m)
			}
			below = max(below, top+r.Y+r.Outer+bench.Beneath)
			continue
		}
		x, y := margin+r.X, top+r.Y-up
		if y+r.H+bench.Beneath > l.H-margin {
			l.named(top)
			l.turn()
			up = r.Y
			y, below = top, 0
		}
		below = max(below, y+r.H+bench.Beneath)
		l.rectangle(i, x, y)
	}
	if up == 0 {
		l.named(top)
		l.marks(margin, top)
		below += 4
	}
	return below, nil
}

// rectangle draws a place with its upper left corner at x, y, and beneath it its name and what it is made of.
func (l *layout) rectangle(i int, x, y float64) {
	r := &l.plan.Sheet.Regions[i]
	l.add(Mark{Kind: Rect, X: x, Y: y, W: r.W, H: r.H, Fill: l.colourOf(r), Stroke: 0.25, Grey: 0.1})
	wide := r.Seen().W // others may lie over the rest
	l.numbered(i, x+wide/2, y+r.H/2, min(wide, r.H))
	if l.options.Edition == Key {
		l.judged(r, x+wide/2, y+r.H/2+4, wide-2)
	}
	under, lines := l.nameBeneath(i, x, y+r.H)
	if l.options.uncounted() {
		l.blankBeneath(r, x, under)
		return
	}
	parents := r.Parents
	switch kind := l.plan.Sheet.Kind; {
	case kind == "grid":
		parents = "" // the label says them
	case kind == "guide" && len(r.Recipe) == 1:
		parents = guided(r.Recipe[0].Paint)
	case l.measure(parents, Plain, small) > wide-0.5:
		parents = strings.ReplaceAll(parents, " ", "")
	}
	if lines == mostNamed {
		return
	}
	made, size := l.beside(parents, []int{i}, 2-lines, wide-0.5)
	for _, line := range made {
		under += size + 0.15
		l.text(x+wide/2, under, size, Plain, Middle, 0.25, "%s", line)
	}
}

// named writes the names within a wheel that lies among rows.
func (l *layout) named(top float64) {
	if len(l.full) > 0 {
		return // it lies on the first page
	}
	for _, s := range l.slots() {
		r := &l.plan.Sheet.Regions[s.regions[0]]
		l.inside(margin+r.X, top+r.Y, s)
	}
}

// blankBeneath is what is filled in under a place: drops to tick where it is mixed of two paints, and
// a line to write on.
func (l *layout) blankBeneath(r *bench.Region, x, under float64) {
	y := min(under+small*1.4, under+3.4)
	left := x + 0.5
	if r.Verdict != paint.Neutral {
		l.toTick(left, y-small*0.3)
		left += ticksWide + 0.5
	}
	if room := x + r.Seen().W - 0.5 - left; room >= 3 {
		l.line(left, y, left+room, y, 0.15, 0.5)
	}
}

// mostNamed is how many lines a name may have under its place; then nothing else finds room there.
const mostNamed = 3

// nameBeneath writes a place's name under it, smaller and in several lines where one is too narrow; and
// answers where the last of them stands, and how many there are.
func (l *layout) nameBeneath(i int, x, bottom float64) (under float64, n int) {
	r := &l.plan.Sheet.Regions[i]
	wide := r.Seen().W
	lines, size := l.whole(r.Label, Bold, ordinary, wide-0.5, mostNamed)
	if strings.HasSuffix(lines[len(lines)-1], "…") {
		l.unnamed[i], lines = true, nil // it stands in the list
	}
	under = bottom + 0.3 + 0.8*size
	if size > small {
		under += 0.4
	}
	for n, line := range lines {
		if n > 0 {
			under += size
		}
		l.text(x+wide/2, under, size, Bold, Middle, 0, "%s", line)
	}
	return under, len(lines)
}

// guided is what a palette guide says of a paint: how it leans, hides and colours.
func guided(p *paint.Paint) string {
	says := p.Code()
	if lean, ok := bias.LeanIn(p, ""); ok && !lean.Centred() {
		says += ", to " + lean.Toward
	}
	return fmt.Sprintf("%s, %s, %d", says, p.Hiding, p.StrengthClass)
}

// notes are what to set aside of the paints on a sheet, and their cautions, each once.
func (l *layout) notes() (out []string) {
	var paints []*paint.Paint
	for _, a := range l.plan.Amounts() {
		paints = append(paints, a.Paint)
	}
	if aside := l.aside(); aside != "" {
		out = append(out, aside)
	}
	return append(out, cautionsOf(paints)...)
}

// aside is what most sets of tubes may still ask for; empty where that is next to nothing, or is not said.
func (l *layout) aside() string {
	if l.options.Doubts == nil || l.options.Recipes == "none" {
		return ""
	}
	more := l.plan.MoreAsked(l.options.Doubts)
	var each []string
	for _, a := range l.plan.Amounts() {
		if ml := more[a.Paint]; ml > 0 && a.Loads == 0 {
			each = append(each, fmt.Sprintf("%s %.2f ml", a.Paint.Code(), ml))
		}
	}
	if len(each) == 0 {
		return ""
	}
	return "Tubes differ. Set aside what most may still ask for: " + strings.Join(each, ", ") + "."
}

// inTubes is what most tubes ask for in a place, and where to begin; empty where nothing is in doubt, or is not said.
func (l *layout) inTubes(i int) string {
	if l.options.Doubts == nil || l.options.Recipes == "none" {
		return ""
	}
	sure := certainty.OfRecipe(l.plan.Sheet.Regions[i].Recipe, l.options.Doubts)
	if sure == nil || !sure.Doubted {
		return ""
	}
	return "In most tubes " + strings.ReplaceAll(sure.Parts(), " : ", ":") + "." // no line breaks within a ratio
}

// cautionsOf are the sentences of some paints, each once, and what goes before them all.
func cautionsOf(paints []*paint.Paint) (out []string) {
	for _, p := range paints {
		sentence := p.CI + ": " + p.Caution
		if p.CautionClass != "none" && p.Caution != "" && !slices.Contains(out, sentence) {
			out = append(out, sentence)
		}
	}
	return append(out, "The label and the safety sheet of your own tube, local rules and qualified advice come first. Modelled paints: test on paper.")
}

// wrapped is a text in lines of a width.
func (l *layout) wrapped(text string, f Font, size, width float64) (out []string) {
	line := ""
	for _, word := range strings.Fields(text) {
		next := strings.TrimSpace(line + " " + word)
		if line != "" && l.measure(next, f, size) > width {
			out = append(out, line)
			next = word
		}
		line = next
	}
	return append(out, line)
}

// squeezed are the lines of what to lay out: the paint, how much of it, and how much that
// is out of a tube or a pan.
func (l *layout) squeezed() (out [][3]string) {
	for _, a := range l.plan.Amounts() {
		line := [3]string{a.Paint.Code() + " " + a.Paint.ShortName(), fmt.Sprintf("%.2f ml", a.ML), fmt.Sprintf("%.0f mm of ribbon", a.Ribbon)}
		if a.Loads > 0 {
			line[1], line[2] = "", fmt.Sprintf("%d brush loads", a.Loads)
		}
		out = append(out, line)
	}
	return out
}

// layOut is what is done with the paints before anything is mixed.
func (l *layout) layOut() string {
	if l.plan.Settings.Scale.Measure == recipe.ByLooks {
		return "Wet these pans"
	}
	return "Squeeze out"
}

const mostSqueezed = 14

func (l *layout) footHeight() float64 {
	lines := 0
	for _, c := range l.notes() {
		lines += len(l.wrapped(c, Plain, small, l.W-2*margin))
	}
	if l.options.uncounted() {
		return 5 + float64(lines)*small*1.25
	}
	table := float64(min(len(l.squeezed()), mostSqueezed)) * ordinary * 1.25
	if l.narrow() {
		table += 28
	}
	return 8 + max(table, 20) + 4 + float64(lines)*small*1.25
}

// narrow says that a page has no room for two things beside each other.
func (l *layout) narrow() bool { return l.W-2*margin < 150 }

// foot is what to squeeze out, dabs at true size, and the cautions.
func (l *layout) foot(y float64) {
	l.line(margin, y, l.W-margin, y, 0.4, 0)
	y += 5
	if l.options.uncounted() {
		l.warn(y)
		return
	}
	gaugeAt, amountsTo := max(l.W/2+14, l.W-margin-gaugeWide), 0.0
	if amountsTo = gaugeAt - 8; l.narrow() {
		gaugeAt, amountsTo = margin, l.W-margin
	}
	l.text(margin, y, ordinary, Bold, Start, 0, "%s", l.layOut())
	row := y
	squeezed := l.squeezed()
	for n, a := range squeezed {
		row += ordinary * 1.25
		if n == mostSqueezed-1 && len(squeezed) > mostSqueezed {
			l.text(margin, row, small, Plain, Start, 0.3, "and %d more", len(squeezed)-n)
			break
		}
		lines, size := l.whole(a[0], Plain, ordinary, amountsTo-margin-54, 1)
		l.text(margin, row, size, Plain, Start, 0, "%s", lines[0])
		l.text(amountsTo-35, row, ordinary, Figures, End, 0, "%s", a[1])
		l.text(amountsTo, row, ordinary, Figures, End, 0.35, "%s", l.fit(a[2], Figures, ordinary, 34))
	}
	if l.narrow() {
		y = row + 8 // the dabs beneath
	}
	l.text(gaugeAt, y, ordinary, Bold, Start, 0, "Dabs, at true size")
	x := gaugeAt
	for _, d := range gauge {
		if x+d > l.W-margin {
			break
		}
		l.add(Mark{Kind: Circle, X: x + d/2, Y: y + 11, Outer: d / 2, Stroke: 0.25, Grey: 0.1})
		l.text(x+d/2, y+11+gauge[len(gauge)-1]/2+3, ordinary, Figures, Middle, 0.2, "%g", d)
		x += d + 3
	}
	l.warn(max(row, y+21) + 4)
}

// warn writes the notes.
func (l *layout) warn(row float64) {
	for _, c := range l.notes() {
		for _, line := range l.wrapped(c, Plain, small, l.W-2*margin) {
			l.text(margin, row, small, Plain, Start, 0.35, "%s", line)
			row += small * 1.25
		}
	}
}
