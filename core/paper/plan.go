package paper

import (
	"fmt"
	"math"
	"strings"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/recipe"
)

// clock is a moment of a plan, as a clock that was set to nought at the beginning.
func clock(minutes float64) string {
	return fmt.Sprintf("%d:%02d", int(minutes)/60, int(minutes)%60)
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
	names := 0.36 * (l.W - 2*margin)
	const row = ordinary * 1.6
	s := l.plan.Sheet
	for _, a := range l.plan.Actions {
		switch a.Kind {
		case bench.LayOut:
			for _, of := range l.squeezed() {
				room(row)
				l.text(margin, y, small, Plain, Start, 0, "%s", l.fit(strings.ToLower(l.layOut())+": "+of[0], Plain, small, right-margin-54))
				l.text(right-32, y, small, Figures, End, 0, "%s", of[1])
				l.text(right, y, small, Figures, End, 0.35, "%s", l.fit(of[2], Figures, small, 30))
				y += small * 1.5
			}
			y += 2
			continue
		case bench.Paint:
			r := &s.Regions[a.Region]
			made := []string{r.Parents}
			if pieces := l.made(a.Region); len(pieces) > 0 {
				made, _ = l.inPieces(pieces, Plain, small, right-margin-names-14)
			}
			under := float64(len(made)-1) * small * 1.3
			room(row + under)
			l.add(Mark{Kind: Rect, X: margin, Y: y - 2.6, W: 3, H: 3, Stroke: 0.25})
			l.add(Mark{Kind: Rect, X: margin + 18, Y: y - 3, W: 8, H: 4, Fill: l.aimed(r), Stroke: 0.2, Grey: 0.4})
			l.text(margin+16, y, small, Figures, End, 0.2, "%s", clock(a.Start))
			l.text(margin+29, y, ordinary, Bold, Start, 0, "%s", l.fit(r.Label, Bold, ordinary, names-31))
			for n, line := range made {
				l.text(margin+names, y+float64(n)*small*1.3, small, Plain, Start, 0.2, "%s", line)
			}
			well := ""
			if a.Well > 0 {
				well = fmt.Sprintf("well %d", a.Well)
			}
			l.text(right, y, small, Plain, End, 0.2, "%s", well)
			y += row + under
		case bench.Mix:
			if a.Because == "" {
				continue
			}
			fallthrough
		default:
			what := string(a.Kind)
			if a.Kind == bench.Wait {
				what = fmt.Sprintf("wait %.0f min", math.Ceil(a.End-a.Start))
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
		wide := max(d, 12) + 4
		if x+wide > l.W-margin {
			x, y, tall = margin, y+tall+under, 0
		}
		tall = max(tall, largestDab/2+d/2)
		cx := x + wide/2
		l.add(Mark{Kind: Circle, X: cx, Y: y + largestDab/2, Outer: d / 2, Stroke: 0.25, Grey: 0.1})
		l.text(cx, y+largestDab/2+d/2+4, small, Figures, Middle, 0.1, "%g mm", d)
		l.text(cx, y+largestDab/2+d/2+7, small*0.85, Figures, Middle, 0.35, "%.2g ml", recipe.DabML(d))
		x += wide
	}
	return append(l.full, l.Page)
}

// cardHigh is how high a card is at least, mm: four lie below each other on upright A4.
const cardHigh = 55

// cards are recipes to cut out, two beside each other: the colour aimed at, a place to paint
// it, what it is made of and how.
func (l *layout) cards() []Page {
	const across = 2
	down := int((l.H - header - margin) / cardHigh)
	w, h := (l.W-2*margin)/across, (l.H-header-margin)/float64(down)
	n := 0
	for _, i := range l.plan.Order {
		r := &l.plan.Sheet.Regions[i]
		if len(r.Recipe.Plain()) < 2 && r.Aim == nil {
			continue
		}
		switch {
		case n == 0:
			l.head()
		case n%(across*down) == 0:
			l.turn()
		}
		at := n % (across * down)
		x, y := margin+float64(at%across)*w, header+float64(at/across)*h
		n++
		l.add(Mark{Kind: Rect, X: x, Y: y, W: w, H: h, Stroke: 0.15, Grey: 0.7})
		l.add(Mark{Kind: Rect, X: x + w - 32, Y: y + 4, W: 14, H: 14, Fill: l.aimed(r)})
		l.add(Mark{Kind: Rect, X: x + w - 18, Y: y + 4, W: 14, H: 14, Stroke: 0.25, Grey: 0.1})
		room, most := w-40, 2
		if r.Aim != nil { // beside the wanted colour what comes nearest to it
			l.add(Mark{Kind: Rect, X: x + w - 46, Y: y + 4, W: 14, H: 14, Fill: l.looks(r)})
			room, most = room-14, 1
			look := r.Appearance(l.plan.Settings.Medium, false)
			for n, of := range []string{"nearest", "wanted", "painted"} {
				l.text(x+w-39+14*float64(n), y+20.5, small*0.75, Plain, Middle, 0.35, "%s", of)
			}
			off := fmt.Sprintf("CIEDE2000 %.1f off", colour.Difference(*r.Aim, look.Lab()))
			l.text(x+4, y+21.5, small, Plain, Start, 0.35, "%s", l.fit(off, Plain, small, room-4))
		}
		l.text(x+4, y+8, ordinary, Bold, Start, 0, "%s", l.fit(r.Label, Bold, ordinary, room))
		l.text(x+4, y+12.5, small, Plain, Start, 0.2, "%s", l.fit(r.Parents, Plain, small, room))
		if lines, whole := l.inPieces(l.made(i), Plain, small, room); whole && len(lines) <= most {
			for n, line := range lines {
				l.text(x+4, y+17+float64(n)*small*1.3, small, Plain, Start, 0.2, "%s", line)
			}
		}
		steps := r.Recipe.Mixing()
		if l.options.Recipes == "dabs" {
			steps = l.plan.Counted[i].Lines()
		}
		const from = 26
		size, lines := l.filling(steps, w-8, h-from-2)
		for n, text := range lines {
			l.text(x+4, y+from+float64(n)*size*1.3, size, Plain, Start, 0.1, "%s", text)
		}
	}
	if n == 0 {
		l.head()
		l.text(margin, header+4, ordinary, Plain, Start, 0, "Nothing is mixed on this sheet.")
	}
	return append(l.full, l.Page)
}

// filling sets steps as large as they find room in, all of them; at most as small text is.
func (l *layout) filling(steps []string, width, high float64) (size float64, lines []string) {
	for size = small; ; size *= 0.92 {
		lines = nil
		for _, step := range steps {
			lines = append(lines, l.wrapped(step, Plain, size, width)...)
		}
		if float64(len(lines)-1)*size*1.3 <= high {
			return size, lines
		}
	}
}
