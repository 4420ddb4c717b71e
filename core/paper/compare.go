package paper

import (
	"fmt"
	"math"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
)

// Comparison lays two to four systems out side by side on a page: the wheel of each as it
// is painted, how far it reaches, its paints and its figures.
func Comparison(systems []reach.Compared, in paint.Medium, f Format, measure Measure) []Page {
	f = f.flat()
	l := &layout{Page: Page{W: f.W, H: f.H}, measure: measure}
	l.heading("Systems side by side", "as painted in "+in.Name+", dry")
	l.text(margin, header+1.5, small, Plain, Start, 0.35, "%s", l.fit("outward of the wheel the brightness that is kept, beyond the dots clean", Plain, small, l.W-2*margin))
	names := 34.0
	w := (l.W - 2*margin - names) / float64(len(systems))
	foot := l.H - margin
	var paints []*paint.Paint
	for n := range systems {
		paints = append(paints, systems[n].System.Paints()...)
	}
	var cautions []string
	for _, c := range cautionsOf(paints) {
		cautions = append(cautions, l.wrapped(c, Plain, small, l.W-2*margin)...)
	}
	rows := figuresOf(systems)
	called := 1 // lines of the longest name
	for n := range systems {
		lines, _ := l.whole(systems[n].Name, Bold, ordinary, w-4, mostCalled)
		called = max(called, len(lines))
	}
	needed := 0.0
	for k := range rows {
		needed += l.rowHigh(&rows[k], names, w)
	}
	top := header + 9 + float64(called-1)*small*1.15
	largest := func(foot float64) float64 {
		return min(w*0.3, 24, (foot-top-10-needed)/3)
	}
	beneath := float64(len(cautions)) * small * 1.25
	alone := largest(foot-beneath) < leastRim // then they have a page of their own
	if !alone {
		for n, line := range cautions {
			l.text(margin, foot-beneath+float64(n+1)*small*1.25, small, Plain, Start, 0.35, "%s", line)
		}
		foot -= beneath
	}
	radius := largest(foot)
	cy := top + radius*1.5
	for n := range systems {
		s := &systems[n]
		x := margin + names + w*(float64(n)+0.5)
		lines, size := l.whole(s.Name, Bold, ordinary, w-4, mostCalled)
		for k, line := range lines {
			l.text(x, header+7+float64(k)*size*1.15, size, Bold, Middle, 0, "%s", line)
		}
		l.rim(x, cy, radius, s, in)
	}
	foot -= 2
	y := cy + radius*1.5 + 8
	apart := min(ordinary*1.45-leastRow, (foot-y-needed)/float64(len(rows)))
	for k := range rows {
		row := &rows[k]
		l.line(margin, y-leastRow*0.69-apart/2, l.W-margin, y-leastRow*0.69-apart/2, 0.15, 0.7)
		put := func(x float64, f Font, align Align, grey float64, text string, width float64) {
			lines, _ := l.whole(text, f, small, width, mostCalled)
			for n, line := range lines {
				l.text(x, y+float64(n)*small*1.15, small, f, align, grey, "%s", line)
			}
		}
		put(margin, Plain, Start, 0.2, row.name, names-2)
		for n, value := range row.of {
			put(margin+names+w*(float64(n)+0.5), Figures, Middle, 0, value, w-4)
		}
		y += l.rowHigh(row, names, w) + apart
	}
	if alone {
		l.full = append(l.full, l.Page)
		l.Page = Page{W: f.W, H: f.H}
		l.heading("Systems side by side", "the cautions of their paints")
		for n, line := range cautions {
			l.text(margin, header+float64(n+1)*small*1.25, small, Plain, Start, 0.35, "%s", line)
		}
	}
	return append(l.full, l.Page)
}

// mostCalled is how many lines the name of a system, or a figure, may take.
const mostCalled = 4

// rowHigh is how high a row of figures is at the least, whose names and columns are so wide.
func (l *layout) rowHigh(r *row, names, w float64) float64 {
	lines, _ := l.whole(r.name, Plain, small, names-2, mostCalled)
	most := len(lines)
	for _, value := range r.of {
		lines, _ := l.whole(value, Figures, small, w-4, mostCalled)
		most = max(most, len(lines))
	}
	return leastRow + float64(most-1)*small*1.15
}

// leastRow is the least from line to line of the figures, and leastRim the least radius of a wheel, mm.
const (
	leastRow = 1.3 * small
	leastRim = 12.0
)

// yellow is the wheel hue that stands on top.
const yellow = 120

// rim is a system's wheel with, round it, how much of the possible it reaches.
func (l *layout) rim(cx, cy, radius float64, s *reach.Compared, in paint.Medium) {
	clean := radius * (1 + 0.45*paint.CleanFrom())
	for k := range 60 {
		x, y := onCircle(cx, cy, clean, float64(k)*6)
		l.add(Mark{Kind: Circle, X: x, Y: y, Outer: 0.12, Fill: "#8a8a8a"})
	}
	l.add(Mark{Kind: Circle, X: cx, Y: cy, Outer: radius * 1.45, Stroke: 0.15, Grey: 0.75})
	last := [2]float64{}
	for k := range reach.Bins + 1 {
		bin := k % reach.Bins
		x, y := onCircle(cx, cy, radius*(1+0.45*min(1, s.Reach[bin])), yellow-reach.Middle(bin))
		if k > 0 {
			l.line(last[0], last[1], x, y, 0.4, 0)
		}
		last = [2]float64{x, y}
	}
	for i := range s.Wheel.Slots {
		slot := &s.Wheel.Slots[i]
		if slot.Empty {
			continue
		}
		look := slot.Mixture.AsPainted(in, false)
		at := 30 * float64(slot.Home)
		l.add(Mark{Kind: Sector, X: cx, Y: cy, Inner: radius * 0.5, Outer: radius * 0.95, From: at - 15, To: at + 15, Fill: look.OKLab(colour.D65).Screen().Hex})
	}
}

// row is one figure of each system.
type row struct {
	name string
	of   []string
}

func figuresOf(systems []reach.Compared) []row {
	rows := []row{{name: "kind"}, {name: "paints"}, {name: "clean hues"}, {name: "mean brightness"}, {name: "vivid hues"}, {name: "or softened"}, {name: "widest gap"}, {name: "darkest, L*"}, {name: "complements' grey, C*"}, {name: "evenness"}, {name: "jumps"}, {name: "tubes"}, {name: "their price"}}
	for n := range systems {
		s := &systems[n]
		paints := s.System.Paints()
		var codes []string
		for _, p := range paints {
			codes = append(codes, p.Code())
		}
		gap := "none"
		if g := s.Reach.WidestGap(); g.Degrees > 0 {
			from, to := g.Words()
			gap = fmt.Sprintf("%.0f°, %s to %s", g.Degrees, from, to)
		}
		price := "not known"
		if s.Price != nil {
			price = fmt.Sprintf("%.2f", *s.Price)
		}
		percent := func(v float64) string { return fmt.Sprintf("%.0f %%", math.Round(100*v)) }
		for k, v := range []string{
			string(s.System.Kind), strings.Join(codes, " "), percent(s.Reach.Clean()), fmt.Sprintf("%.2f", s.Reach.Mean()), percent(s.Reach.Vivid()), percent(s.Reach.Soft()),
			gap, fmt.Sprintf("%.1f", s.Dark.Lab.L), fmt.Sprintf("%.1f", s.Middles), fmt.Sprintf("%.2f", s.Evenness), fmt.Sprint(s.Jumps), fmt.Sprint(len(paints)), price,
		} {
			rows[k].of = append(rows[k].of, v)
		}
	}
	return rows
}
