package wire

import (
	"fmt"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
)

// NamedPaint is what may be behind a name on a tube.
type NamedPaint struct {
	Paint  string   `json:"paint" doc:"id; of several that are mixed their ids with + between"`
	Paints []string `json:"paints" doc:"the ids, more than one where they are mixed"`
	Code   string   `json:"code"`
	Name   string   `json:"name"`
	How    string   `json:"how" doc:"how usual it is"`
	Tell   string   `json:"tell" doc:"what would tell it from the others; empty for the only one"`
	Shown  Shown    `json:"shown" doc:"its masstone; of several less of a strong one"`
}

// NamedTube is what is known of the words on a tube.
type NamedTube struct {
	Asked   string       `json:"asked"`
	As      string       `json:"as" doc:"the name that it was taken for, or a code"`
	Exact   bool         `json:"exact" doc:"it is that name, in one of its spellings"`
	Found   []NamedPaint `json:"found" doc:"the likeliest first; none where nothing is called so"`
	NotSure bool         `json:"notSure" doc:"it may be one of several"`
	Says    string       `json:"says" doc:"in a sentence, where it is not exact or nothing is found"`
}

// NamedTubeOf shapes what is known of the words on a tube.
func NamedTubeOf(n paint.Named) NamedTube {
	out := NamedTube{Asked: n.Asked, As: n.As, Exact: n.Exact, NotSure: n.NotSure(), Says: n.Says, Found: []NamedPaint{}}
	for _, b := range n.Found {
		one := NamedPaint{Code: b.Code(), How: b.How, Tell: b.Tell, Paints: []string{}}
		var names []string
		for _, p := range b.Paints {
			one.Paints, names = append(one.Paints, p.ID), append(names, p.ShortName())
		}
		one.Paint, one.Name = strings.Join(one.Paints, "+"), strings.Join(names, " with ")
		m := b.Mixture()
		mass := m.Masstone()
		one.Shown = shown(mass.Lab().OKLab())
		out.Found = append(out.Found, one)
	}
	return out
}

// NamedSet is a box as it is sold: the words on its tubes or pans.
type NamedSet struct {
	Name  string   `json:"name"`
	Sold  string   `json:"sold" enum:"artists,students,pans"`
	Names []string `json:"names"`
}

// NamedSets are boxes as they are sold, to strike out from.
func NamedSets() []NamedSet {
	out := []NamedSet{}
	for _, s := range paint.NamedSets() {
		out = append(out, NamedSet{s.Name, string(s.Sold), s.Names})
	}
	return out
}

// LookedFor are the paints of the library that look as a tube without a name does.
type LookedFor struct {
	Families []string     `json:"families" doc:"that may be asked for"`
	Hidings  []string     `json:"hidings"`
	Leanings []string     `json:"leanings" doc:"of this family"`
	Found    []NamedPaint `json:"found" doc:"those first that fit most of the answers"`
}

// LookedForOf shapes what looks so.
func LookedForOf(l bias.Look, fits []bias.Fit) LookedFor {
	out := LookedFor{Families: bias.Families(), Hidings: bias.Hidings, Leanings: append([]string{}, bias.Leanings(l.Family)...), Found: []NamedPaint{}}
	for _, f := range fits {
		p := f.Paint
		mass := p.Alone()
		look := mass.Masstone()
		out.Found = append(out.Found, NamedPaint{Paint: p.ID, Paints: []string{p.ID}, Code: p.Code(), Name: p.ShortName(), How: fmt.Sprintf("fits %d of %d", f.Fits, f.Of), Shown: shown(look.Lab().OKLab())})
	}
	return out
}
