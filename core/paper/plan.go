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
				l.text(margin, y, small, Plain, Start, 0, "%s", l.fit("squeeze out "+of[0], Plain, small, right-margin-54))
				l.text(right-32, y, small, Figures, End, 0, "%s", of[1])
				l.text(right, y, small, Figures, End, 0.35, "%s", l.fit(of[2], Figures, small, 30))
				y += small * 1.5
			}
			y += 2
			continue
		case bench.Paint:
			room(row)
			r := &s.Regions[a.Region]
			l.add(Mark{Kind: Rect, X: margin, Y: y - 2.6, W: 3, H: 3, Stroke: 0.25})
			l.add(Mark{Kind: Rect, X: margin + 18, Y: y - 3, W: 8, H: 4, Fill: l.aimed(r), Stroke: 0.2, Grey: 0.4})
			l.text(margin+16, y, small, Figures, End, 0.2, "%s", clock(a.Start))
			l.text(margin+29, y, ordinary, Bold, Start, 0, "%s", l.fit(r.Label, Bold, ordinary, names-31))
			l.text(margin+names, y, small, Plain, Start, 0.2, "%s", l.fit(strings.TrimSpace(r.Parents+"  "+l.made(a.Region)), Plain, small, right-margin-names-14))
			well := ""
			if a.Well > 0 {
				well = fmt.Sprintf("well %d", a.Well)
			}
			l.text(right, y, small, Plain, End, 0.2, "%s", well)
			y += row
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

// cards are recipes to cut out, eight to a page: the colour aimed at, a place to paint it,
// what it is made of and how.
func (l *layout) cards() []Page {
	const across, down = 2, 4
	w, h := (l.W-2*margin)/across, (l.H-header-margin)/down
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
		room := w - 40
		if r.Aim != nil { // beside the wanted colour what comes nearest to it
			l.add(Mark{Kind: Rect, X: x + w - 46, Y: y + 4, W: 14, H: 14, Fill: l.looks(r)})
			room -= 14
			look := r.Looks(l.plan.Settings.Medium, false)
			for n, of := range []string{"nearest", "wanted", "painted"} {
				l.text(x+w-39+14*float64(n), y+20.5, small*0.75, Plain, Middle, 0.35, "%s", of)
			}
			off := fmt.Sprintf("CIEDE2000 %.1f off", colour.Difference(*r.Aim, look.Lab()))
			l.text(x+4, y+21.5, small, Plain, Start, 0.35, "%s", l.fit(off, Plain, small, room-4))
		}
		l.text(x+4, y+8, ordinary, Bold, Start, 0, "%s", l.fit(r.Label, Bold, ordinary, room))
		l.text(x+4, y+12.5, small, Plain, Start, 0.2, "%s", l.fit(r.Parents, Plain, small, room))
		l.text(x+4, y+17, small, Figures, Start, 0.2, "%s", l.fit(l.made(i), Figures, small, room))
		line := y + 26
		steps := r.Recipe.Mixing()
		if l.options.Recipes == "dabs" {
			steps = l.plan.Counted[i].Lines()
		}
		for _, step := range steps {
			for _, text := range l.wrapped(step, Plain, small, w-8) {
				if line > y+h-2 {
					break
				}
				l.text(x+4, line, small, Plain, Start, 0.1, "%s", text)
				line += small * 1.3
			}
		}
	}
	if n == 0 {
		l.head()
		l.text(margin, header+4, ordinary, Plain, Start, 0, "Nothing is mixed on this sheet.")
	}
	return append(l.full, l.Page)
}
