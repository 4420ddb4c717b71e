package recipe

import (
	"cmp"
	_ "embed"
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/internal/table"
	"gyrophane/core/paint"
)

// Measure is what a painter takes paint in.
type Measure string

// A dab is a mound seen from above, given by its width. Looks are for pans, which
// are rewetted and brushed: there nothing is counted.
const (
	Dabs    Measure = "dabs"
	Drops   Measure = "drops"
	Loads   Measure = "loads" // of a brush
	Tips    Measure = "tips"  // of a knife
	Grams   Measure = "grams"
	ByLooks Measure = "looks"
)

// measureRow is what the table says of a measure.
type measureRow struct {
	one, many, unit       string
	ml, least, step, hand float64
	made                  float64 // the larger amount of a let-down at the least
	usual                 []string
}

//go:embed data/measures.csv
var measuresCSV string

// Measures lists them in the order of the table.
var Measures []Measure

var measureRows = func() map[Measure]measureRow {
	out := map[Measure]measureRow{}
	for _, row := range table.Rows(measuresCSV) {
		m := Measure(row[0])
		Measures = append(Measures, m)
		out[m] = measureRow{one: row[1], many: row[2], unit: row[3], ml: table.Number(row[4]), least: table.Number(row[5]), step: table.Number(row[6]), hand: table.Number(row[7]), made: table.Number(row[8]), usual: strings.Fields(row[9])}
	}
	return out
}()

// ParseMeasure reads a measure.
func ParseMeasure(s string) (Measure, error) {
	if m := Measure(s); slices.Contains(Measures, m) {
		return m, nil
	}
	var names []string
	for _, m := range Measures {
		names = append(names, string(m))
	}
	return "", input.Errorf("unknown measure %q: choose %s", s, strings.Join(names, ", "))
}

// UsualMeasure is what is counted in where nothing is chosen.
func UsualMeasure(in paint.Medium) Measure {
	for _, m := range Measures {
		if slices.Contains(measureRows[m].usual, in.ID) {
			return m
		}
	}
	return Dabs
}

// Scale is a measure, and how large one is in the painter's hand.
type Scale struct {
	Measure
	Size float64 // of one drop, load or tip in ml; that of the table when 0
}

// The sizes that a drop, a load or a tip may have, in ml.
const (
	SmallestOne = 0.005
	LargestOne  = 5.0
)

// NewScale is a scale of a measure with the painter's own size, 0 for the usual.
func NewScale(m Measure, ml float64) (Scale, error) {
	if _, err := ParseMeasure(string(m)); err != nil {
		return Scale{}, err
	}
	if ml != 0 && !(ml >= SmallestOne && ml <= LargestOne) {
		return Scale{}, fmt.Errorf("one of the %s holds from %v to %v ml, not %v", measureRows[m].many, SmallestOne, LargestOne, ml)
	}
	return Scale{m, ml}, nil
}

// One is how many ml one of a counted measure holds; 0 for dabs, grams and looks.
func (s Scale) One() float64 {
	row := measureRows[s.Measure]
	if row.ml > 0 && s.Size > 0 {
		return s.Size
	}
	return row.ml
}

// DabML is the volume in ml of a dab so many mm wide: half an ellipsoid, a third as
// high as it is wide, pi d^3 / 18.
func DabML(mm float64) float64 { return math.Pi * mm * mm * mm / 18 / 1000 }

// DabMM is how wide a dab of a volume in ml is.
func DabMM(ml float64) float64 { return math.Cbrt(18 * 1000 * ml / math.Pi) }

//go:embed data/densities.csv
var densitiesCSV string

var densityRows = table.Rows(densitiesCSV)

// Density is what a paint weighs in grams to the ml, typical of its class.
func Density(p *paint.Paint) float64 {
	for _, row := range densityRows {
		if (row[0] == "" || row[0] == p.Family) && (row[1] == "" || row[1] == p.Hiding) {
			return table.Number(row[2])
		}
	}
	return 1.3
}

// density is that of an ingredient, its let-down weighed as it is mixed.
func (i Ingredient) density() float64 {
	if i.In == nil {
		return Density(i.Paint)
	}
	thin := float64(i.Thin)
	return (Density(i.Paint) + thin*Density(i.In)) / (1 + thin)
}

// amount is how much of an ingredient a volume in ml is, not rounded: mm across,
// grams, or a number.
func (s Scale) amount(i Ingredient, ml float64) float64 {
	switch s.Measure {
	case Dabs:
		return DabMM(ml)
	case Grams:
		return ml * i.density()
	}
	return ml / s.One()
}

// VolumeOf is the volume in ml of an amount of an ingredient.
func (s Scale) VolumeOf(i Ingredient, amount float64) float64 {
	switch s.Measure {
	case Dabs:
		return DabML(amount)
	case Grams:
		return amount / i.density()
	}
	return amount * s.One()
}

// StrayOf is how far a hand strays from so many ml (a standard deviation), as a share of it
// from 0 to 1: of a dab 0.3 mm across, of which the volume takes three times the share; 3 %
// of what is weighed.
func (s Scale) StrayOf(ml float64) float64 {
	switch s.Measure {
	case Dabs:
		return math.Min(1, 3*0.3/math.Max(DabMM(ml), 1))
	case Grams:
		return 0.03
	case ByLooks:
		return 0.3
	}
	n := ml / s.One()
	return math.Min(1, s.strays(n)/math.Max(n, 1e-9))
}

// rounded is an amount that can be taken, the least at least.
func (s Scale) rounded(amount float64) float64 {
	row := measureRows[s.Measure]
	return max(row.least, math.Round(amount/row.step)*row.step)
}

// strays is how far a hand strays from an amount.
func (s Scale) strays(amount float64) float64 {
	row := measureRows[s.Measure]
	switch s.Measure {
	case Dabs, Grams:
		return row.hand
	}
	return row.hand * math.Sqrt(amount)
}

// Portion is so much of one ingredient.
type Portion struct {
	Ingredient
	Amount float64 // mm across for dabs, grams, else a number; 0 for looks
	ML     float64
}

// Pile is what is counted out and mixed in one go.
type Pile struct {
	Counts []Portion
	ML     float64
	Needed float64 // ml: of a let-down what goes on into the recipe, of the recipe what was asked for
}

// Counted is a recipe counted out in a measure.
type Counted struct {
	Scale
	Before []Pile // let-downs, in the order in which they are made
	Pile
	Mixture paint.Mixture // what the counted amounts make
	DE      float64       // CIEDE2000 to the exact mixture, brushed out
	Spread  float64       // CIEDE2000, brushed out, that a hand strays by
	Decides int           // which of the counts strays furthest; -1 for none
	Adds    bool          // it is added to a pile that there is already
}

// mostGrowth is how many times larger than asked for a pile may become for whole
// amounts to fit, where they are enough before that.
const mostGrowth = 1.5

// perGrowth is what it must bring in CIEDE2000 to count out twice as much.
const perGrowth = 0.6

// CountOut counts a recipe out, at least so many ml of it, so that it comes as near
// to the exact mixture as whole amounts allow. A strong paint of which there is less
// than can be taken is let down first in the paint of which there is most.
func CountOut(r Recipe, exact *paint.Mixture, s Scale, ml float64) Counted {
	r = resolved(r).InOrder()
	if s.Measure == ByLooks {
		out := Counted{Scale: s, Mixture: *exact, Decides: -1, Pile: Pile{ML: ml, Needed: ml}}
		for _, i := range r {
			out.Counts = append(out.Counts, Portion{Ingredient: i, ML: ml * i.Parts / r.Total()})
		}
		return out
	}
	tried := append([]Recipe{r}, s.letDown(r, ml)...)
	if !r.IsPlain() { // a let-down may be too strong for so little
		tried = append(tried, s.letDown(Of(r.Plain()).InOrder(), ml)...)
	}
	best := s.nearest(tried, exact, ml)
	best.stray(nil)
	if best.Spread >= strayed {
		best = s.steadier(r, exact, best)
	}
	return best
}

// strayed is the CIEDE2000 a hand strays by from which on a let-down is the recipe, where it
// helps.
const strayed = 3

// expectedOff is the CIEDE2000 a counted recipe may be expected to end from what is aimed at.
func (c *Counted) expectedOff() float64 { return math.Hypot(c.DE, c.Spread) }

// steadier is the recipe with what decides in it let down, where a hand strays less by that; else
// as it was counted.
func (s Scale) steadier(r Recipe, exact *paint.Mixture, best Counted) Counted {
	decides := best.Counts[best.Decides]
	if decides.In != nil {
		return best
	}
	for _, thin := range [2]int{4, 9} {
		down := slices.Clone(r)
		n := slices.IndexFunc(down, func(i Ingredient) bool { return i.Paint == decides.Paint && i.In == nil })
		if n < 0 || !down.letDown(n, thin) {
			continue
		}
		if d := s.nearest([]Recipe{down}, exact, best.Needed); len(d.Counts) > 0 {
			if d.stray(nil); d.Spread < best.Spread && d.expectedOff() < best.expectedOff() {
				best = d
			}
		}
	}
	return best
}

// nearest is what comes nearest of some recipes, counted out.
func (s Scale) nearest(recipes []Recipe, exact *paint.Mixture, ml float64) Counted {
	want := brushedOut(exact)
	best, cost := Counted{}, math.Inf(1)
	for _, tried := range recipes {
		for grown := 1.0; grown <= mostGrowth+1e-9 || math.IsInf(cost, 1) && grown < 100; grown += 0.01 {
			c := s.count(tried, ml, grown)
			if c.ML < ml {
				continue
			}
			c.DE = colour.Difference(want, brushedOut(&c.Mixture))
			if of := c.DE + perGrowth*(c.ML/ml-1)*0.5 + perBefore*float64(len(c.Before)); of < cost {
				best, cost = c, of
			}
			if len(tried) == 1 {
				break
			}
		}
	}
	return best
}

func brushedOut(m *paint.Mixture) colour.Lab {
	seen := m.BrushedOut()
	return seen.Lab()
}

// AddTo counts out what is added to a pile, given in ml of each paint: about so many ml
// of an ingredient, so that the pile comes as near to the exact mixture as whole amounts
// allow. Where that is less than can be taken, the ingredient is let down first, 1:9, in
// the paint of which there is most.
func AddTo(pile []paint.Part, add Ingredient, ml float64, exact *paint.Mixture, s Scale) Counted {
	want := brushedOut(exact)
	row := measureRows[s.Measure]
	tries := []Ingredient{add}
	if len(pile) > 0 && add.In == nil && s.amount(add, ml) < row.least {
		most := slices.MaxFunc(pile, func(a, b paint.Part) int { return cmp.Compare(a.Parts, b.Parts) })
		if most.Paint != add.Paint {
			tries = append(tries, Ingredient{Paint: add.Paint, Parts: 1, In: most.Paint, Thin: 9})
		}
	}
	best, least := Counted{}, math.Inf(1)
	for _, i := range tries {
		about := ml
		if i.In != nil && add.In == nil {
			about *= float64(i.Thin + 1)
		}
		for by := -1; by <= 1; by++ {
			amount := s.amount(i, about)
			if s.Measure != ByLooks {
				amount = max(row.least, s.rounded(amount)+float64(by)*row.step)
			} else if by != 0 {
				continue
			}
			c := Counted{Scale: s, Decides: 0, Adds: true}
			one := Portion{Ingredient: i, Amount: amount, ML: s.VolumeOf(i, amount)}
			if s.Measure == ByLooks {
				one.Amount, one.ML = 0, about
			}
			c.Counts, c.Needed = []Portion{one}, ml
			if i.In != nil && s.Measure != ByLooks {
				c.Before = s.before(i, one.ML)
			}
			c.Mixture = c.into(pile, one.ML)
			c.ML = Volume(pile) + one.ML
			c.DE = colour.Difference(want, brushedOut(&c.Mixture))
			if of := c.DE + perBefore*float64(len(c.Before)); of < least {
				best, least = c, of
			}
		}
	}
	best.stray(pile)
	return best
}

// into is a pile with so many ml of the one thing that is counted out in it.
func (c *Counted) into(pile []paint.Part, ml float64) paint.Mixture {
	m, _ := paint.Mix(append(slices.Clone(pile), c.paints(0, ml)...)...) // amounts are above 0
	return m
}

// Opened are the paints in so many ml of an ingredient, a let-down by what really goes into it
// where it is counted out.
func (s Scale) Opened(i Ingredient, ml float64) []paint.Part {
	if i.In == nil {
		return []paint.Part{{Paint: i.Paint, Parts: ml}}
	}
	strong := 1 / float64(i.Thin+1)
	if s.Measure != ByLooks {
		strong = strongIn(s.before(i, ml))
	}
	return []paint.Part{{Paint: i.Paint, Parts: ml * strong}, {Paint: i.In, Parts: ml * (1 - strong)}}
}

// paints are the paints in so many ml of one of its counts.
func (c *Counted) paints(n int, ml float64) []paint.Part { return c.Opened(c.Counts[n].Ingredient, ml) }

// Volumes are the paints that were counted out, in ml, let-downs by what went into them.
func (c *Counted) Volumes() (out []paint.Part) {
	for n, of := range c.Counts {
		out = append(out, c.paints(n, of.ML)...)
	}
	return Of(Of(out).Plain()).Volumes()
}

// FromTubes are the paints in ml that counting the recipe out takes from their tubes:
// let-downs whole, what is left of them too.
func (c *Counted) FromTubes() (out []paint.Part) {
	for _, pile := range append(slices.Clone(c.Before), c.Pile) {
		for n, of := range pile.Counts {
			switch {
			case of.In == nil:
				out = append(out, paint.Part{Paint: of.Paint, Parts: of.ML})
			case c.Measure == ByLooks: // no let-down is counted out
				out = append(out, c.paints(n, of.ML)...)
			}
		}
	}
	return Of(out).Plain()
}

// resolved is a recipe whose hues, mixed first, are taken apart: what is counted out
// is paint.
func resolved(r Recipe) Recipe {
	if !slices.ContainsFunc(r, func(i Ingredient) bool { return i.Paint.Of != nil }) {
		return r
	}
	return Of(r.Plain())
}

// count rounds a recipe to amounts that can be taken of a pile grown so many times.
func (s Scale) count(r Recipe, ml, grown float64) Counted {
	out := Counted{Scale: s, Decides: -1}
	out.Needed = ml
	total := r.Total()
	var parts []paint.Part
	for _, i := range r {
		amount := s.rounded(s.amount(i, ml*grown*i.Parts/total))
		c := Portion{Ingredient: i, Amount: amount, ML: s.VolumeOf(i, amount)}
		out.Counts = append(out.Counts, c)
		out.ML += c.ML
		if i.In != nil {
			out.Before = append(out.Before, s.before(i, c.ML)...)
		}
		parts = append(parts, out.paints(len(out.Counts)-1, c.ML)...)
	}
	out.Mixture, _ = paint.Mix(parts...) // amounts are above 0
	return out
}

// strongIn is the share by volume of the paint that is let down in the last of its let-downs.
func strongIn(made []Pile) float64 {
	share := 1.0
	for _, p := range made {
		share *= p.Counts[0].ML / p.ML
	}
	return share
}

// before are the piles that a let-down ingredient takes, so many ml of it: the
// smallest that can be taken, 1:99 in two goes.
func (s Scale) before(i Ingredient, ml float64) (out []Pile) {
	thinnings := i.thinnings()
	out = make([]Pile, len(thinnings))
	for n := len(thinnings) - 1; n >= 0; n-- {
		from := Ingredient{Paint: i.Paint, Parts: 1}
		if n > 0 {
			from.In, from.Thin = i.In, thinnings[n-1]
		}
		out[n] = s.made(from, Ingredient{Paint: i.In, Parts: float64(thinnings[n])}, ml)
		ml = out[n].Counts[0].ML // of that the next one is made
	}
	return out
}

// made is the smallest let-down of an ingredient in so many parts of another that comes to so many ml
// and is a pile that a hand can make.
func (s Scale) made(from, into Ingredient, ml float64) (pile Pile) {
	row := measureRows[s.Measure]
	// What is far from enough is not tried: rounding moves it by a step or two.
	least := max(s.rounded(0), s.rounded(s.amount(from, ml/(1+into.Parts)))-3*row.step)
	for ; ; least += row.step {
		a := Portion{from, least, s.VolumeOf(from, least)}
		most := s.rounded(s.amount(into, into.Parts*a.ML))
		b := Portion{into, most, s.VolumeOf(into, most)}
		pile = Pile{Counts: []Portion{a, b}, ML: a.ML + b.ML, Needed: ml}
		if pile.ML >= ml && most >= row.made {
			return pile
		}
	}
}

// letDown are the recipe with each paint of which there is less than can be taken
// let down in the paint of which there is most, 1:4 and 1:9.
func (s Scale) letDown(r Recipe, ml float64) (out []Recipe) {
	if len(r) < 2 {
		return nil
	}
	total := r.Total()
	for _, thin := range [4]int{4, 9, 49, 99} {
		next, changed := slices.Clone(r), false
		for n := 1; n < len(next); n++ {
			if s.amount(next[n], ml*next[n].Parts/total) < measureRows[s.Measure].least {
				changed = next.letDown(n, thin) || changed
			}
		}
		if changed {
			out = append(out, next)
		}
	}
	return out
}

// letDown lets one of the ingredients down in the first, 1 part in so many, and says
// whether that can be: there must be enough of the first, and neither be let down.
func (r Recipe) letDown(n, thin int) bool {
	taken := float64(thin) * r[n].Parts
	if n == 0 || r[0].In != nil || r[n].In != nil || taken >= r[0].Parts {
		return false
	}
	r[0].Parts -= taken
	r[n] = Ingredient{Paint: r[n].Paint, Parts: r[n].Parts * float64(thin+1), In: r[0].Paint, Thin: thin}
	return true
}

// widestSpread is the CIEDE2000 above which a hand is warned of.
const widestSpread = 2

// Advice says which amount matters where a hand strays too far, and what helps more: to
// let it down first, or to count out twice as much; empty where it does not stray.
func (c *Counted) Advice(r Recipe, exact *paint.Mixture) string {
	switch {
	case c.Adds || c.Decides < 0 || c.Spread <= widestSpread && c.DE <= widestSpread:
		return ""
	case c.DE > max(widestSpread, c.Spread):
		says := fmt.Sprintf("Whole %s of so little miss by %.1f", measureRows[c.Measure].many, c.DE)
		if more, words := c.more(r, exact, func(d *Counted) float64 { return d.DE }); words != "" {
			says += fmt.Sprintf(", and by %.1f %s", more.DE, words)
		}
		return says + "."
	}
	decides := c.Counts[c.Decides]
	helps, words := c.more(r, exact, func(d *Counted) float64 { return d.Spread })
	if down := c.steadier(resolved(r).InOrder(), exact, *c); down.Spread < c.Spread && (words == "" || down.Spread < helps.Spread) {
		for _, of := range down.Counts {
			if of.In != nil {
				helps, words = down, fmt.Sprintf("let down 1:%d in the %s first", of.Thin, of.In.ShortName())
			}
		}
	}
	says := fmt.Sprintf("The %s matters most: a hand strays by %.1f here", decides.Called(), c.Spread)
	if words != "" {
		says += fmt.Sprintf(", and by %.1f %s", helps.Spread, words)
	}
	return says + "."
}

// muchBetter is how much less is left of what is wrong with a recipe, where more of it is worth
// being advised.
const muchBetter = 0.8

// more is twice as much of a recipe or, where that is not much better, four times as much, in
// words; none where neither is.
func (c *Counted) more(r Recipe, exact *paint.Mixture, wrong func(*Counted) float64) (Counted, string) {
	for _, by := range []struct {
		times float64
		words string
	}{{2, "with twice as much"}, {4, "with four times as much"}} {
		if d := CountOut(r, exact, c.Scale, by.times*c.Needed); wrong(&d) < muchBetter*wrong(c) && d.expectedOff() < c.expectedOff() {
			return d, by.words
		}
	}
	return Counted{}, ""
}

// Called is what an ingredient is called where it is counted out.
func (i Ingredient) Called() string {
	if i.In != nil {
		return i.Paint.ShortName() + " let down"
	}
	return i.Paint.ShortName()
}

// Says is an amount in words: "a dab 12 mm wide", "3 drops", "0.25 g".
func (s Scale) Says(amount float64) string {
	row := measureRows[s.Measure]
	switch {
	case s.Measure == Dabs:
		return fmt.Sprintf("a dab %s mm wide", number(amount))
	case s.Measure == Grams:
		return fmt.Sprintf("%.2f g", amount)
	case s.Measure == ByLooks:
		return "some"
	case amount == 1:
		return "1 " + row.one
	}
	return number(amount) + " " + row.many
}

// Short is an amount in figures: "12 mm", "3 drops", "0.25 g".
func (s Scale) Short(amount float64) string {
	if s.Measure == Dabs {
		return number(amount) + " mm"
	}
	return s.Says(amount)
}

// Roughly is a volume in ml in words, not rounded to what can be taken: "a dab 3.2 mm
// wide", "0.4 drops".
func (s Scale) Roughly(ml float64) string {
	switch s.Measure {
	case Dabs:
		return fmt.Sprintf("a dab %.1f mm wide", DabMM(ml))
	case Drops, Loads, Tips:
		return fmt.Sprintf("%.1f %s", ml/s.One(), measureRows[s.Measure].many)
	}
	return fmt.Sprintf("%.3f ml", ml)
}

// Lines tell in order how to count the recipe out and mix it.
func (c *Counted) Lines() (out []string) {
	if c.Measure == ByLooks {
		return c.byLook()
	}
	for _, p := range c.Before {
		a, b := p.Counts[0], p.Counts[1]
		what := "the " + a.Paint.ShortName()
		if a.In != nil {
			what = "that let-down"
		}
		line := fmt.Sprintf("Let %s down first: %s of it in %s of the %s.", what, c.Says(a.Amount), c.Says(b.Amount), b.Paint.ShortName())
		switch spare := p.ML - p.Needed; {
		case p.Needed < 0.005:
			line += " A touch of it goes on, the rest is left for the next."
		case spare >= 0.01:
			line += fmt.Sprintf(" %.2f ml of it go on, %.2f ml are left for the next.", p.Needed, spare)
		}
		out = append(out, line)
	}
	for n, of := range c.Counts {
		switch {
		case c.Adds:
			out = append(out, fmt.Sprintf("Add %s of the %s to what is in the well.", c.Says(of.Amount), of.Called()))
		case len(c.Counts) == 1:
			out = append(out, fmt.Sprintf("Lay out %s of the %s.", c.Says(of.Amount), of.Called()))
		case n == 0:
			out = append(out, fmt.Sprintf("Start with %s of the %s.", c.Says(of.Amount), of.Called()))
		default:
			out = append(out, fmt.Sprintf("Add %s of the %s.", c.Says(of.Amount), of.Called()))
		}
	}
	return out
}

// byLook tells how to mix from pans, by what it should look like.
func (c *Counted) byLook() (out []string) {
	if len(c.Counts) == 0 {
		return nil // it stands as it is
	}
	first := c.Counts[0]
	if c.Adds {
		return []string{fmt.Sprintf("Add the %s, a touch at a time, until it stands where the chip does.", first.Called())}
	}
	out = append(out, fmt.Sprintf("Rewet the %s and brush out a puddle of it.", first.Called()))
	held := c.paints(0, first.ML)
	for n, of := range c.Counts[1:] {
		how := "a touch at a time"
		if of.ML < c.ML/20 {
			how = "the least touch at a time"
		}
		before := held
		held = slices.Concat(held, c.paints(n+1, of.ML))
		out = append(out, fmt.Sprintf("Add the %s, %s, until it stands %s.", of.Called(), how, between(before, held, c.paints(n+1, 1))))
	}
	return out
}

// way are words for how far on the way from one colour to another something stands, each up to so far.
var way = []struct {
	upTo  float64
	words string
}{{0.12, "only just off where it began"}, {0.29, "a quarter of the way to it"}, {0.42, "a third of the way to it"}, {0.58, "half way between the two"}, {0.71, "two thirds of the way to it"}, {0.88, "three quarters of the way to it"}, {1, "nearly where it stands by itself"}}

// between says where a pile stands to the eye between what it was before another paint came in and that
// paint, brushed out on white (OKLab).
func between(before, pile, other []paint.Part) string {
	looks := func(parts []paint.Part) colour.OKLab {
		m, err := paint.Mix(parts...)
		if err != nil {
			return colour.OKLab{}
		}
		return m.BrushedOutColour()
	}
	at := looks(pile)
	from, to := looks(before).Distance(at), at.Distance(looks(other))
	share := from / math.Max(from+to, 1e-9)
	for _, w := range way {
		if share <= w.upTo {
			return w.words
		}
	}
	return way[len(way)-1].words
}
