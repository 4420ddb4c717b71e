package recipe

import (
	"fmt"
	"strings"
)

// Pieces are the recipe in short, in pieces that are not broken: each paint with its own
// parts, "12 PY65 :" and "3 PB29 (let down 1:9 in PY65)".
func (r Recipe) Pieces() (out []string) {
	for _, i := range r {
		out = append(out, i.String())
	}
	return joined(out)
}

// String is one ingredient in short: "3 PB29 (let down 1:9 in PY65)".
func (i Ingredient) String() string {
	if i.In == nil {
		return number(i.Parts) + " " + i.Code()
	}
	return fmt.Sprintf("%s %s (let down 1:%d in %s)", number(i.Parts), i.Code(), i.Thin, i.In.Code())
}

// Pieces are the counted recipe in short, in the order of mixing and in pieces that are not
// broken: what is let down first, then each paint with its own amount.
//
//	"PY74 10 mm :", "PB29 8 mm"
//	"PB29 let down:", "2 mm in PY74 6 mm;", "PY74 12 mm :", "PB29 let down 5 mm"
//	"+ PB29 5 mm"                          to a pile that there is already
//	"PY74,", "then PB29 by looks"          from pans
func (c *Counted) Pieces() (out []string) {
	if c.Measure == ByLooks {
		return c.piecesByLook()
	}
	for n, p := range c.Before {
		strong, weak := p.Counts[0], p.Counts[1]
		of := c.Short(strong.Amount)
		if strong.In == nil {
			out = append(out, strong.Paint.Code()+" let down:")
		} else {
			of += " of that"
		}
		end := ";"
		if n+1 < len(c.Before) && c.Before[n+1].Counts[0].In != nil {
			end = ","
		}
		out = append(out, fmt.Sprintf("%s in %s %s%s", of, weak.Paint.Code(), c.Short(weak.Amount), end))
	}
	var counts []string
	for _, t := range c.Counts {
		counts = append(counts, fmt.Sprintf("%s %s", t.briefly(), c.Short(t.Amount)))
	}
	if c.Adds && len(counts) > 0 {
		counts[0] = "+ " + counts[0]
	}
	return append(out, joined(counts)...)
}

// String is the counted recipe in short, in one line.
func (c *Counted) String() string { return strings.Join(c.Pieces(), " ") }

func (c *Counted) piecesByLook() (out []string) {
	for n, t := range c.Counts {
		switch {
		case c.Adds:
			out = append(out, "+ "+t.briefly()+" by looks")
		case n == 0 && len(c.Counts) == 1:
			out = append(out, t.briefly())
		case n == 0:
			out = append(out, t.briefly()+",")
		case n == len(c.Counts)-1:
			out = append(out, "then "+t.briefly()+" by looks")
		default:
			out = append(out, "then "+t.briefly()+",")
		}
	}
	return out
}

// briefly is what an ingredient is called in short where it is counted out.
func (i Ingredient) briefly() string {
	if i.In != nil {
		return i.Code() + " let down"
	}
	return i.Code()
}

// joined are pieces with the colon behind all but the last.
func joined(pieces []string) []string {
	for n := range pieces[:max(0, len(pieces)-1)] {
		pieces[n] += " :"
	}
	return pieces
}
