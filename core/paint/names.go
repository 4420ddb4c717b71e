package paint

import (
	"cmp"
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"gyrophane/core/input"
	"gyrophane/core/internal/table"
	"gyrophane/core/text"
)

// Sold is how a paint is sold, as far as it matters for what is behind a name.
type Sold string

// The ways in which paint is sold.
const (
	Artists  Sold = "artists"
	Students Sold = "students"
	Pans     Sold = "pans"
)

// Solds lists them.
var Solds = []Sold{Artists, Students, Pans}

// ParseSold reads a way; artists' where it is empty. The error is an input.Error.
func ParseSold(name string) (Sold, error) {
	if name == "" {
		return Artists, nil
	}
	if s := Sold(strings.ToLower(name)); slices.Contains(Solds, s) {
		return s, nil
	}
	return "", input.Errorf("paints are sold as artists, students or pans, and not as %q", input.Clip(name))
}

// Behind is what may be behind a name on a tube.
type Behind struct {
	Paints []*Paint // several that are mixed
	How    string   // how usual it is
	Tell   string   // what would tell it from the others; empty for the only one
}

// Code names its pigments: "PG7 PY150".
func (b *Behind) Code() string {
	var out []string
	for _, p := range b.Paints {
		out = append(out, p.Code())
	}
	return strings.Join(out, " ")
}

// Mixture is its paints stirred together, less of a strong one.
func (b *Behind) Mixture() Mixture { return stirred(b.Paints, balanced(b.Paints)) }

// Named is what is known of a name on a tube.
type Named struct {
	Asked string   // as it was typed
	As    string   // the name that it was taken for, or a pigment's code
	Exact bool     // it is that name, in one of its spellings
	Found []Behind // the likeliest first; none where nothing is called so
	Says  string   // in a sentence, where it is not exact or nothing is found
}

// NotSure says that it may be one of several.
func (n *Named) NotSure() bool { return len(n.Found) > 1 }

//go:embed data/names.csv
var namesCSV string

// nameRow is a row of the table of names.
type nameRow struct {
	names  []string
	spelt  []spelling
	behind map[Sold][][]*Paint
	tell   string
}

var nameRows = sync.OnceValue(func() (out []nameRow) {
	pigments := func(field string) (all [][]*Paint) {
		for _, one := range strings.Fields(field) {
			var mixed []*Paint
			for _, id := range strings.Split(one, "+") {
				p, err := Find(id)
				if err != nil {
					panic(err) // the table is embedded and tested
				}
				mixed = append(mixed, p)
			}
			all = append(all, mixed)
		}
		return all
	}
	add := func(row nameRow) {
		for _, name := range row.names {
			row.spelt = append(row.spelt, spellingOf(name))
		}
		out = append(out, row)
	}
	for _, row := range table.Rows(namesCSV) {
		of := map[Sold][][]*Paint{Artists: pigments(row[1])}
		of[Students] = pigments(cmp.Or(row[2], row[1]))
		of[Pans] = pigments(cmp.Or(row[3], row[2], row[1]))
		add(nameRow{names: strings.Split(row[0], ";"), behind: of, tell: row[4]})
	}
	// The library's own names, where the table has others for them.
	for _, p := range Library() {
		only := [][]*Paint{{p}}
		name, also, _ := strings.Cut(strings.TrimSuffix(p.Name, ")"), " (")
		row := nameRow{names: []string{name}, behind: map[Sold][][]*Paint{Artists: only, Students: only, Pans: only}}
		if also != "" {
			row.names = append(row.names, also)
		}
		add(row)
	}
	return out
})

// LongestName is how many characters a name on a tube may have.
const LongestName = 80

// NameOf finds what may be behind the words on a tube, or a code as people write it ("PB15.3"): by the
// table of names, in the spellings that people type. The error is an input.Error.
func NameOf(words string, sold Sold) (Named, error) {
	asked, err := text.Line("the name on the tube", words, LongestName)
	if err != nil {
		return Named{}, input.Sentence(err)
	}
	out := Named{Asked: asked}
	if asked == "" {
		return out, input.Errorf("type what is printed on the tube: a name like permanent rose, or a code like PV19")
	}
	if code := codeIn(asked); len(code) > 0 {
		out.As, out.Exact = code[0].CI, true
		for i, p := range code {
			b := Behind{Paints: []*Paint{p}, How: "the code on the tube"}
			if len(code) > 1 {
				b.How, b.Tell = fmt.Sprintf("%s of %d that go by this code", ordinal(i), len(code)), "its name: "+p.Name
			}
			out.Found = append(out.Found, b)
		}
		return out, nil
	}
	if mixed, ok := mixedIn(asked); ok {
		out.As, out.Exact = strings.Join(Codes(asked), " "), true
		out.Found = []Behind{{Paints: mixed, How: "the codes on the tube"}}
		return out, nil
	}
	row, name, exact := nearestName(asked)
	if row == nil {
		out.Says = notCalled(asked)
		return out, nil
	}
	out.As, out.Exact = name, exact
	if !exact {
		out.Says = fmt.Sprintf("Taken for %s.", name)
	}
	all := row.behind[sold]
	for i, paints := range all {
		b := Behind{Paints: paints, How: how(i, len(all), sold, row)}
		if len(all) > 1 {
			b.Tell = row.tell
		}
		out.Found = append(out.Found, b)
	}
	return out, nil
}

func ordinal(i int) string {
	if i == 0 {
		return "the first"
	}
	return "another"
}

// how says how usual the i-th of some is behind a name.
func how(i, of int, sold Sold, row *nameRow) string {
	in := map[Sold]string{Artists: "artists' tubes", Students: "students' tubes", Pans: "school pans"}[sold]
	switch {
	case of == 1:
		return "what is behind this name in " + in
	case i == 0:
		return "the likeliest in " + in
	case i == 1:
		return "often too"
	}
	return "now and then"
}

// notCalled says that nothing is called so, and what to do.
func notCalled(asked string) string {
	return fmt.Sprintf("No paint is usually called %q: look for a code on the label (like PB29), or tell what it looks like.", input.Clip(asked))
}

// codeIn are the library's paints by the code in a text, those first whose name stands beside it; none
// where there is none, or several.
func codeIn(s string) []*Paint {
	found := Codes(s)
	if len(found) != 1 {
		return nil
	}
	out := WithCode(found[0])
	if bare, _, suffixed := strings.Cut(found[0], ":"); len(out) == 0 && suffixed {
		out = WithCode(bare)
	}
	words := spelt(codePattern.ReplaceAllString(s, " "))
	beside := func(p *Paint) int { return common(words, spelt(p.Name)) }
	slices.SortStableFunc(out, func(a, b *Paint) int { return cmp.Compare(beside(b), beside(a)) })
	if len(out) > 1 && beside(out[0]) > beside(out[1]) {
		out = out[:1]
	}
	return out
}

// mixedIn are the library's paints by several codes in a text, one for each; false where there are not
// several, or one of them is not known.
func mixedIn(s string) (out []*Paint, ok bool) {
	found := Codes(s)
	for _, code := range found {
		all := WithCode(code)
		if len(all) == 0 {
			return nil, false
		}
		out = append(out, all[0])
	}
	return out, len(out) > 1 && len(out) <= mostPigments
}

func common(a, b []string) (n int) {
	for _, w := range a {
		if slices.Contains(b, w) {
			n++
		}
	}
	return n
}

//go:embed data/namewords.csv
var nameWordsCSV string

// nameWords are words on tubes: as what each is compared (empty for left out), those that say a hue, and
// those that say a quality.
var nameWords = sync.OnceValue(func() (out struct {
	as              map[string]string
	hues, qualities []string
}) {
	out.as = map[string]string{}
	for _, row := range table.Rows(nameWordsCSV) {
		out.as[row[0]] = strings.TrimPrefix(row[1], "-")
		switch row[2] {
		case "hue":
			out.hues = append(out.hues, row[0])
		case "quality":
			out.qualities = append(out.qualities, row[0])
		}
	}
	return out
})

// shades are two words that are one.
var shades = strings.NewReplacer("green shade", "greenshade", "red shade", "redshade", "blue shade", "blueshade", "yellow shade", "yellowshade", "(", " ", ")", " ", ",", " ", "/", " ", "-", " ", ".", " ", "+", " ", "&", " ", "'s", " ", "’s", " ", "'", " ", "’", " ", "é", "e", "è", "e", "ö", "o", "ü", "u")

// spelt are the words of a name as they are compared.
func spelt(name string) (out []string) {
	for _, w := range strings.Fields(shades.Replace(strings.ToLower(name))) {
		if is, known := nameWords().as[w]; known {
			w = is
		}
		if w == "" || w[0] >= '0' && w[0] <= '9' || slices.Contains(out, w) {
			continue
		}
		out = append(out, w)
	}
	return out
}

// weight is how much a word tells: hues and qualities stand in many names.
func weight(w string) float64 {
	switch {
	case slices.Contains(nameWords().hues, w):
		return 0.8
	case slices.Contains(nameWords().qualities, w):
		return 0.45
	}
	return 1
}

// leastAlike is how much of both names must be the same to take one for the other.
const leastAlike = 0.6

// spelling is a name as it is compared.
type spelling struct {
	words []string
	hues  []string // that it says
	whole float64  // weight of its words
}

func spellingOf(name string) spelling {
	out := spelling{words: spelt(name)}
	for _, w := range out.words {
		out.whole += weight(w)
		if h := hueIn(w); h != "" {
			out.hues = append(out.hues, h)
		}
	}
	return out
}

// hueIn is the hue that a word says, also where it is misspelt; empty where it says none.
func hueIn(w string) string {
	for _, h := range nameWords().hues {
		if spellingAlike(w, h) > 0 {
			return h
		}
	}
	return ""
}

// known are all words of the table of names.
var known = sync.OnceValue(func() map[string]bool {
	out := map[string]bool{}
	for _, row := range nameRows() {
		for _, s := range row.spelt {
			for _, w := range s.words {
				out[w] = true
			}
		}
	}
	return out
})

// nearestName is the row whose name is nearest to what was asked for; nil where none is near.
func nearestName(name string) (best *nameRow, as string, exact bool) {
	asked := spellingOf(name)
	if len(asked.words) == 0 {
		return nil, "", false
	}
	rows := nameRows()
	most := 0.0
	for i := range rows {
		for n := range rows[i].spelt {
			if alike := asked.alike(&rows[i].spelt[n]); alike > most+1e-9 {
				best, as, most = &rows[i], rows[i].names[n], alike
			}
		}
	}
	if most < leastAlike {
		return nil, "", false
	}
	return best, as, most > 1-1e-9
}

// otherOrder is what words in another order cost.
const otherOrder = 0.01

// alike is how much two names have in common, 0 to 1: of the weights of the words of both, those that are
// the same or nearly spelt so. It is 0 where a hue is asked for that the name has not, or a word that
// other names have and this one has not: there is no phthalo red.
func (asked *spelling) alike(name *spelling) float64 {
	if slices.Equal(asked.words, name.words) {
		return 1
	}
	for _, h := range asked.hues {
		if !slices.Contains(name.hues, h) {
			return 0
		}
	}
	same := 0.0
	of := make([]bool, len(asked.words))
	for _, w := range name.words {
		near, at := 0.0, -1
		for i, a := range asked.words {
			if s := spellingAlike(a, w); !of[i] && s > near {
				near, at = s, i
			}
		}
		if at >= 0 {
			of[at] = true
			same += near * (weight(w) + weight(asked.words[at]))
		}
	}
	for i, w := range asked.words {
		if !of[i] && weight(w) == 1 && known()[w] {
			return 0
		}
	}
	return same/(asked.whole+name.whole) - otherOrder
}

// spellingAlike is 1 for the same word, less for one that is misspelt, and 0 for another.
func spellingAlike(a, b string) float64 {
	if a == b {
		return 1
	}
	n := max(len(a), len(b))
	most := 0
	switch {
	case n >= 8:
		most = 2
	case n >= 5:
		most = 1
	}
	if most == 0 || n-min(len(a), len(b)) > most || a[0] != b[0] && a[len(a)-1] != b[len(b)-1] {
		return 0
	}
	off := text.Edits(a, b, most)
	if off > most {
		return 0
	}
	return 1 - 0.15*float64(off)
}
