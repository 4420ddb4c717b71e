package paper

import (
	"fmt"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
)

// The columns of a sitting's page, mm from its left margin, and the height of a chip.
const (
	chipsAt   = 44.0
	chipWide  = 10.0
	chipHigh  = 6.2
	differsAt = chipsAt + 3*chipWide + 9
	cameAt    = differsAt + 3
	ringSize  = 24.0 // radius
)

// Sitting lays out what came of a sitting: its ring as it was painted, what is said of it
// whole, and each place computed, wet and dry edge to edge, with what came of it. It takes
// more pages where its places do not fit on one.
func Sitting(a *journal.Account, f Format, measure Measure) []Page {
	l := &layout{Page: Page{W: f.W, H: f.H}, measure: measure}
	about := fmt.Sprintf("%s · %s · %s", a.Began.Format("2 January 2006"), a.Medium.Name, a.Sheet.Title)
	head := func() float64 {
		l.heading(a.Name, about)
		return header + 2
	}
	y := head()
	y = l.summed(a, y)
	names := func() {
		for _, column := range []struct {
			x     float64
			says  string
			align Align
		}{{0, "place", Start}, {chipsAt + chipWide/2, "computed", Middle}, {chipsAt + 1.5*chipWide, "wet", Middle}, {chipsAt + 2.5*chipWide, "dry", Middle}, {differsAt, "off by", End}, {cameAt, "what came of it", Start}} {
			l.text(margin+column.x, y, small, Plain, column.align, 0.35, "%s", column.says)
		}
		y += 1.4
		l.line(margin, y, l.W-margin, y, 0.35, 0)
		y++
	}
	names()
	wide := l.W - 2*margin - cameAt
	for i := range a.Places {
		p, r := &a.Places[i], &a.Sheet.Regions[i]
		came := l.wrapped(p.CameOf(), Plain, small, wide)
		high := max(chipHigh, float64(len(came))*small*1.25+0.8)
		if y+high > l.H-margin {
			l.full = append(l.full, l.Page)
			l.Page = Page{W: l.W, H: l.H}
			y = head()
			names()
		}
		label := l.wrapped(r.Label, Plain, small, chipsAt-2)
		for n, line := range label[:min(len(label), 2)] {
			l.text(margin, y+chipHigh/2+small*(0.35+float64(n)-0.5*float64(min(len(label), 2)-1)), small, Plain, Start, 0, "%s", line)
		}
		chips := []*colour.Lab{&p.Computed, nil, nil}
		for n, read := range []*journal.Reading{p.Wet, p.Dry} {
			if read != nil {
				chips[n+1] = &read.Lab
			}
		}
		for n, lab := range chips {
			if lab != nil {
				l.add(Mark{Kind: Rect, X: margin + chipsAt + float64(n)*chipWide, Y: y, W: chipWide, H: chipHigh, Fill: lab.OKLab().Screen().Hex})
			}
		}
		if de, dry := p.Difference(); dry {
			l.text(margin+differsAt, y+chipHigh/2+small*0.35, small, Figures, End, 0.2, "%.1f", de)
		}
		for n, line := range came {
			l.text(margin+cameAt, y+small*(1.15+1.25*float64(n)), small, Plain, Start, 0, "%s", line)
		}
		y += high + 0.6
	}
	return append(l.full, l.Page)
}

// summed draws the ring as it was painted and beside it what is said of the sitting whole;
// it answers with where that ends.
func (l *layout) summed(a *journal.Account, y float64) float64 {
	x := margin
	if a.Sheet.Kind == "wheel" {
		scale := 2 * ringSize / a.Sheet.W
		for i := range a.Places {
			p, r := &a.Places[i], &a.Sheet.Regions[i]
			look, s := p.Computed, r.Shape
			if p.Dry != nil && p.Dry.Doubt == "" {
				look = p.Dry.Lab
			}
			at := Mark{X: x + ringSize + s.X*scale, Y: y + ringSize + s.Y*scale, Inner: s.Inner * scale, Outer: s.Outer * scale, From: s.From, To: s.To, Fill: look.OKLab().Screen().Hex}
			if at.Kind = Circle; s.To > s.From {
				at.Kind = Sector
			}
			l.add(at)
		}
		x += 2*ringSize + 6
	}
	at := y + ordinary
	say := func(size float64, font Font, text string) {
		for _, line := range l.wrapped(text, font, size, l.W-margin-x) {
			l.text(x, at, size, font, Start, 0, "%s", line)
			at += size * 1.3
		}
		at += size * 0.4
	}
	for _, s := range a.Says {
		say(ordinary, Bold, s)
	}
	for _, s := range a.Notes {
		say(ordinary, Plain, s)
	}
	if a.NextTime != "" {
		say(ordinary, Bold, "Next time: "+a.NextTime)
	}
	if a.Sheet.Kind == "wheel" {
		at = max(at, y+2*ringSize+4)
	}
	return at + 3
}
