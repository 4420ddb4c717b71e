package paper

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/recipe"
)

// clock is a moment of a plan, as a clock that was set to nought at the beginning.
func clock(minutes float64) string {
	return fmt.Sprintf("%d:%02d", int(minutes)/60, int(minutes)%60)
}

// lasting is how long something takes: a layer of oil dries for days.
func lasting(minutes float64) string {
	if minutes >= 48*60 {
		return fmt.Sprintf("%.0f days", minutes/1440)
	}
	return fmt.Sprintf("%.0f min", math.Ceil(minutes))
}

// inOrder are pages of what is done, one after the other, with a box to tick.
func (l *layout) inOrder() []Page {
	l.head()
	const top = header + ordinary
	y := top
	room := func(high float64) {
		if y+high > l.H-margin {
			l.turn()
			y = top
		}
	}
	right := l.W - margin
	names := max(0.4*(l.W-2*margin), 68)
	const row = ordinary * 1.6
	s := l.plan.Sheet
	for _, a := range l.plan.Actions {
		switch a.Kind {
		case bench.LayOut:
			for _, of := range l.squeezed() {
				room(row + small*1.15)
				more := l.name(margin, y, Plain, 0, strings.ToLower(l.layOut())+": "+of[0], right-margin-58)
				l.text(right-38, y, ordinary, Figures, End, 0, "%s", of[1])
				l.text(right, y, ordinary, Figures, End, 0.35, "%s", l.fit(of[2], Figures, ordinary, 36))
				y += ordinary*1.5 + more
			}
			y += 2
			continue
		case bench.Paint:
			r := &s.Regions[a.Region]
			wide := right - margin - names - 18
			made, size := l.whole(r.Parents, Plain, ordinary, wide, mostNamed)
			if pieces := l.made(a.Region); len(pieces) > 0 {
				whole := false
				if made, whole = l.inPieces(pieces, Plain, ordinary, wide); whole {
					size = ordinary
				} else {
					size = small
					made = l.wrapped(strings.Join(pieces, " "), Plain, size, wide)
				}
			}
			var doubted []string
			if says := l.inTubes(a.Region); says != "" {
				doubted = l.wrapped(says, Plain, small, wide)
			}
			called, of := l.whole(r.Label, Bold, ordinary, names-31, mostNamed)
			under := max(float64(len(made)-1)*size*1.3+float64(len(doubted))*small*1.3, float64(len(called)-1)*of*1.15)
			room(row + under)
			l.add(Mark{Kind: Rect, X: margin, Y: y - 2.6, W: 3, H: 3, Stroke: 0.25})
			l.add(Mark{Kind: Rect, X: margin + 18, Y: y - 3, W: 8, H: 4, Fill: l.aimed(r), Stroke: 0.2, Grey: 0.4})
			l.text(margin+16, y, ordinary, Figures, End, 0.2, "%s", clock(a.Start))
			l.name(margin+29, y, Bold, 0, r.Label, names-31)
			for n, line := range made {
				l.text(margin+names, y+float64(n)*size*1.3, size, Plain, Start, 0.2, "%s", line)
			}
			for n, line := range doubted {
				l.text(margin+names, y+float64(len(made)-1)*size*1.3+float64(n+1)*small*1.3, small, Plain, Start, 0.35, "%s", line)
			}
			well := ""
			if a.Well > 0 {
				well = fmt.Sprintf("well %d", a.Well)
			}
			l.text(right, y, ordinary, Plain, End, 0.2, "%s", well)
			y += row + under
		case bench.Mix:
			if a.Because == "" {
				continue
			}
			fallthrough
		default:
			what := string(a.Kind)
			if a.Kind == bench.Wait {
				what = "wait " + lasting(a.End-a.Start)
			}
			for _, line := range l.wrapped(what+": "+a.Because, Plain, small, right-margin-29) {
				room(small * 1.5)
				l.text(margin+29, y-1, small, Plain, Start, 0.35, "%s", line)
				y += small * 1.5
			}
		}
	}
	return append(l.full, l.Page)
}

// dabs are all widths of dabs at true size, and how much paint each of them is.
func (l *layout) dabs() []Page {
	l.head()
	y := header + 6
	l.text(margin, y, ordinary, Bold, Start, 0, "Dabs, at true size")
	for _, line := range l.wrapped("A dab is a mound a third as high as it is wide. Hold the sheet beside the palette, or lay the dabs on it under a film.", Plain, small, l.W-2*margin) {
		y += small * 1.4
		l.text(margin, y, small, Plain, Start, 0.3, "%s", line)
	}
	const under = 10.0
	x, y := margin, y+6
	tall := 0.0
	for d := 2.0; d <= largestDab; d++ {
		wide := max(d, 14) + 4
		if x+wide > l.W-margin {
			x, y, tall = margin, y+tall+under, 0
		}
		tall = max(tall, largestDab/2+d/2)
		cx := x + wide/2
		l.add(Mark{Kind: Circle, X: cx, Y: y + largestDab/2, Outer: d / 2, Stroke: 0.25, Grey: 0.1})
		l.text(cx, y+largestDab/2+d/2+4, ordinary, Figures, Middle, 0.1, "%g mm", d)
		l.text(cx, y+largestDab/2+d/2+7.5, small, Figures, Middle, 0.35, "%.2g ml", recipe.DabML(d))
		x += wide
	}
	return append(l.full, l.Page)
}

// Sizes of recipe cards, in mm.
const (
	cardText  = 4.25 // 12 points
	cardAbove = 28.0 // its name, its paints and chips
	cardHigh  = 55.0 // at least
)

// card is a recipe to cut out.
type card struct {
	region int
	size   float64 // of its steps
	lines  []string
}

func (c card) high() float64 {
	return max(cardHigh, cardAbove+float64(len(c.lines))*1.25*c.size+1)
}

// cards are recipes to cut out, two beside each other: the colour aimed at, a place to paint
// it, what it is made of and how.
func (l *layout) cards() []Page {
	across := 2
	if l.narrow() {
		across = 1
	}
	w := (l.W - 2*margin) / float64(across)
	var all []card
	for _, i := range l.plan.Order {
		r := &l.plan.Sheet.Regions[i]
		if len(r.Recipe.Plain()) < 2 && r.Aim == nil {
			continue
		}
		steps := r.Recipe.Mixing()
		if l.counted(r) {
			steps = l.plan.Counted[i].Lines()
		}
		if r.Film > 0 {
			steps = append(steps, l.plan.Settings.Thinning(r))
		}
		if says := l.inTubes(i); says != "" {
			steps = append(steps, says)
		}
		c := card{region: i}
		c.size, c.lines = l.filling(steps, w-8, l.H-header-margin-cardAbove-1)
		all = append(all, c)
	}
	l.head()
	if len(all) == 0 {
		l.text(margin, header+4, ordinary, Plain, Start, 0, "Nothing is mixed on this sheet.")
	}
	y := header
	for n := 0; n < len(all); n += across {
		row := all[n:min(n+across, len(all))]
		high := slices.MaxFunc(row, func(a, b card) int { return cmp.Compare(a.high(), b.high()) }).high()
		if y+high > l.H-margin {
			l.turn()
			y = header
		}
		for k, c := range row {
			l.card(c, margin+float64(k)*w, y, w, high)
		}
		y += high
	}
	return append(l.full, l.Page)
}

// card draws a recipe to cut out.
func (l *layout) card(c card, x, y, w, h float64) {
	r := &l.plan.Sheet.Regions[c.region]
	l.add(Mark{Kind: Rect, X: x, Y: y, W: w, H: h, Stroke: 0.15, Grey: 0.7})
	l.add(Mark{Kind: Rect, X: x + w - 32, Y: y + 4, W: 14, H: 14, Fill: l.aimed(r)})
	l.add(Mark{Kind: Rect, X: x + w - 18, Y: y + 4, W: 14, H: 14, Stroke: 0.25, Grey: 0.1})
	room, most := w-40, 2
	if r.Aim != nil { // beside the wanted colour what comes nearest to it
		l.add(Mark{Kind: Rect, X: x + w - 46, Y: y + 4, W: 14, H: 14, Fill: l.looks(r)})
		room, most = room-14, 1
		look := r.Appearance(l.plan.Settings.Medium, false)
		for n, of := range []string{"nearest", "wanted", "painted"} {
			l.text(x+w-39+14*float64(n), y+21, small, Plain, Middle, 0.35, "%s", of)
		}
		off := fmt.Sprintf("CIEDE2000 %.1f off", colour.Difference(*r.Aim, look.Lab()))
		l.text(x+4, y+22.5, small, Plain, Start, 0.35, "%s", l.fit(off, Plain, small, room-4))
	}
	called, size := l.whole(r.Label, Bold, cardText, room, 2)
	for n, line := range called {
		l.text(x+4, y+8-1.1*size*float64(len(called)-1-n), size, Bold, Start, 0, "%s", line)
	}
	parents, size := l.whole(r.Parents, Plain, ordinary, room, 2)
	for n, line := range parents {
		l.text(x+4, y+13-1.1*size*float64(len(parents)-1)/3+1.1*size*float64(n), size, Plain, Start, 0.2, "%s", line)
	}
	if lines, whole := l.inPieces(l.made(c.region), Plain, ordinary, room); whole && len(lines) <= most {
		for n, line := range lines {
			l.text(x+4, y+17.8+float64(n)*ordinary*1.2, ordinary, Plain, Start, 0.2, "%s", line)
		}
	}
	for n, text := range c.lines {
		l.text(x+4, y+cardAbove+float64(n)*1.25*c.size, c.size, Plain, Start, 0.1, "%s", text)
	}
}

// filling sets steps as large as recipe cards are read and, only where that has no room on a page,
// smaller, down to as small as text may be.
func (l *layout) filling(steps []string, width, high float64) (size float64, lines []string) {
	for size = cardText; ; size = max(small, 0.92*size) {
		lines = nil
		for _, step := range steps {
			lines = append(lines, l.wrapped(step, Plain, size, width)...)
		}
		if size == small || float64(len(lines))*size*1.25 <= high {
			return size, lines
		}
	}
}
