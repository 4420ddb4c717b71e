package exchange

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// Chosen is the best system of a kind from some paints, and what comes next.
type Chosen struct {
	Kind      string         `json:"kind" enum:"triad,split,double"`
	Aim       string         `json:"aim" enum:"coverage,price,tubes,targets" doc:"the most clean hues; the least price, or the fewest tubes, of those that reach nearly as many (95 %); the nearest to the wanted colours"`
	From      string         `json:"from" enum:"box,library"`
	Best      ChosenSystem   `json:"best"`
	RunnersUp []ChosenSystem `json:"runnersUp"`
	BuyNext   []Bought       `json:"buyNext" doc:"the library paints that let the best system of the box reach more hues cleanly, the best first; empty from the library, and where wanted colours are the aim"`
	Cautions  []CautionClass `json:"cautions" doc:"that the paints carry which are chosen from, the gravest first"`
	ElapsedMs float64        `json:"elapsedMs"`
}

// CautionClass is one kind of hazard.
type CautionClass struct {
	Class string `json:"class"`
	Name  string `json:"name"`
}

// cautionClasses are those that paints carry.
func cautionClasses(paints []*paint.Paint) []CautionClass {
	out := []CautionClass{}
	for _, g := range paint.Cautions(paints) {
		out = append(out, CautionClass{g.Class, g.Name})
	}
	return out
}

// ChosenSystem is one of the systems that were looked at.
type ChosenSystem struct {
	Paints        []string    `json:"paints" doc:"yellows, reds, blues"`
	Roles         [][]Shelved `json:"roles"`
	CleanCoverage float64     `json:"cleanCoverage"`
	SoftCoverage  float64     `json:"softCoverage"`
	Mean          float64     `json:"mean" doc:"of the reach"`
	Price         *float64    `json:"price" doc:"of its tubes; null where one is not known"`
	Reached       int         `json:"reached" doc:"wanted colours within CIEDE2000 3, when they are the aim"`
	MeanDE        *float64    `json:"meanDe00" doc:"to the wanted colours, before parts are made whole; null when they are not the aim"`
	Loses         string      `json:"loses,omitempty" doc:"of a runner-up, against the best"`
}

// Bought is what a paint of the library would add.
type Bought struct {
	Paint         Shelved `json:"paint"`
	CleanCoverage float64 `json:"cleanCoverage" doc:"of the best system with it"`
	Gain          float64 `json:"gain" doc:"more than without it"`
}

// RunnersUp is how many choices are shown beside the best.
const RunnersUp = 4

const mostBought = 5

// Choosing is what a system is chosen for, and from what.
type Choosing struct {
	Kind     wheel.SystemKind
	Aim      string // "coverage", "price", "tubes" or "targets"
	Wanted   []Wanted
	Library  bool // from the whole library; from the box otherwise
	Contains []string
	Careful  bool     // no paint whose class carries a special hazard
	Without  []string // nor one of these classes of caution
	Prices   map[string]float64
	Workers  int        // how much of the machine it may take: at least 1
	Tell     reach.Tell // hears how far the search is; may be nil
	// Table finds the table of some paints where it is known already; nil for one
	// that is made anew.
	Table func(ctx context.Context, paints []*paint.Paint, workers int, tell reach.Tell) (*reach.Table, error)
}

// Choose finds the best systems of a kind: exactly, every one is looked at. From
// a box it says as well which paint of the library would add most.
func (v View) Choose(ctx context.Context, box []*paint.Paint, c Choosing) (Chosen, error) {
	out := Chosen{Kind: string(c.Kind), Aim: c.Aim, From: "box", RunnersUp: []ChosenSystem{}, BuyNext: []Bought{}}
	wish := reach.Wish{Kind: c.Kind, Contains: c.Contains, Careful: c.Careful, Without: c.Without, Most: 1 + RunnersUp, Workers: c.Workers, Tell: c.Tell}
	switch {
	case c.Aim == "price" && c.Library:
		return out, bad("The library knows no prices: choose by price from the box, where its tubes have some.")
	case c.Aim == "price":
		wish.Prices = c.Prices
		if wish.Prices == nil {
			wish.Prices = map[string]float64{}
		}
	case c.Aim == "tubes":
		wish.Fewest = true
	case c.Aim != "coverage" && c.Aim != "targets":
		return out, bad("%q is no aim: choose coverage, price, tubes or targets", clip(c.Aim))
	}
	all := box
	if c.Library {
		out.From, all = "library", paint.Library()
	} else {
		for _, p := range box {
			wish.Among = append(wish.Among, p.ID)
		}
		if len(box) == 0 {
			return out, bad("Your box is empty: add paints to it, or choose from the library.")
		}
		all = append(slices.Clone(box), reach.News(box)...)
	}
	from := box
	if c.Library {
		from = all
	}
	out.Cautions = cautionClasses(from)
	for _, class := range c.Without {
		if known := cautionClasses(slices.Concat(paint.Library(), from)); !slices.ContainsFunc(known, func(k CautionClass) bool { return k.Class == class }) {
			var names []string
			for _, k := range known {
				names = append(names, k.Class)
			}
			return out, bad("%q is no class of caution: take %s", clip(class), strings.Join(names, ", "))
		}
	}
	if c.Aim != "targets" {
		if err := wish.Countable(all); err != nil {
			return out, err
		}
	}
	if c.Table == nil {
		c.Table = reach.NewTable
	}
	table, err := c.Table(ctx, all, c.Workers, c.Tell)
	if err != nil {
		return out, searched(ctx, err)
	}
	if c.Aim == "targets" {
		return v.suited(ctx, table, wish, c, out)
	}
	choices, err := table.Best(ctx, wish)
	if err != nil {
		return out, searched(ctx, err)
	}
	for i, found := range choices {
		one := v.chosen(found, c.Prices)
		if i == 0 {
			out.Best = one
			continue
		}
		if d := reach.Differ(choices[0].Reach, found.Reach); !d.Same() {
			one.Loses = d.Says("The best", "this one")
		} else {
			one.Loses = fmt.Sprintf("As clean everywhere; on the whole it keeps %.3f of the possible, the best %.3f.", one.Mean, out.Best.Mean)
		}
		out.RunnersUp = append(out.RunnersUp, one)
	}
	if c.Library {
		return out, nil
	}
	wish.Prices, wish.Fewest = nil, false // what is not bought yet has no price
	bought, err := table.BuyNext(ctx, wish, reach.News(box))
	if err != nil {
		return out, searched(ctx, err)
	}
	for _, b := range bought[:min(mostBought, len(bought))] {
		out.BuyNext = append(out.BuyNext, Bought{v.shelved(b.Paint), round(b.Clean, 4), round(b.Gain, 4)})
	}
	return out, nil
}

// searched is why a search failed: it was ended, or what it was asked for.
func searched(ctx context.Context, err error) error {
	var many reach.TooMany
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if errors.As(err, &many) {
		return err
	}
	return sentence(err)
}

// suited fills in the systems that come nearest to the wanted colours.
func (v View) suited(ctx context.Context, table *reach.Table, wish reach.Wish, c Choosing, out Chosen) (Chosen, error) {
	readings, err := v.readings(c.Wanted)
	if err != nil {
		return out, err
	}
	var labs []colour.Lab
	for _, r := range readings {
		labs = append(labs, r.Lab)
	}
	bare := wheel.System{}
	suits, err := table.Suited(ctx, wish, []*paint.Paint{bare.Rider(wheel.WhiteRider), bare.Rider(wheel.BlackRider)}, labs, v.Medium)
	if err != nil {
		return out, searched(ctx, err)
	}
	for i, s := range suits {
		one := v.chosen(reach.Choice{System: s.System, Reach: reach.OfSystem(s.System)}, c.Prices)
		mean := round(s.Mean, 2)
		one.Reached, one.MeanDE = s.Reached, &mean
		if i == 0 {
			out.Best = one
			continue
		}
		one.Loses = loses(c.Wanted, suits[0].DE, s.DE)
		out.RunnersUp = append(out.RunnersUp, one)
	}
	return out, nil
}

// loses says which wanted colours a system misses by more than the best does.
func loses(wanted []Wanted, best, its []float64) string {
	var names []string
	for i, d := range its {
		if d > best[i]+1 {
			name := wanted[i].Name
			if name == "" {
				name = wanted[i].Colour
			}
			names = append(names, fmt.Sprintf("%s (%.1f, not %.1f)", name, d, best[i]))
		}
	}
	if len(names) == 0 {
		return "It comes as near to every wanted colour, or nearly."
	}
	return "It comes less near to " + strings.Join(names, ", ") + "."
}

func (v View) chosen(c reach.Choice, prices map[string]float64) ChosenSystem {
	out := ChosenSystem{CleanCoverage: round(c.Reach.Clean(), 4), SoftCoverage: round(c.Reach.Soft(), 4), Mean: round(c.Reach.Mean(), 4), Price: priceOf(c.System.Paints(), prices)}
	for k := range 3 {
		var role []Shelved
		for _, p := range c.System.Role(k) {
			role = append(role, v.shelved(p))
			out.Paints = append(out.Paints, p.ID)
		}
		out.Roles = append(out.Roles, role)
	}
	return out
}

// Swapped is what replaces one tube of a system best.
type Swapped struct {
	Out           Shelved `json:"out"`
	In            Shelved `json:"in"`
	CleanCoverage float64 `json:"cleanCoverage" doc:"of the system with it"`
	Gain          float64 `json:"gain" doc:"more than without it; negative when less"`
	Says          string  `json:"says"`
}

// Replace says for each tube of a system what replaces it best, and what that
// changes; or what changes with one that is tried in its place (by the id of the
// tube that it replaces).
func (v View) Replace(ctx context.Context, s wheel.System, candidates []*paint.Paint, tried map[string]*paint.Paint) ([]Swapped, error) {
	swaps, err := reach.Swaps(ctx, s, candidates)
	if err != nil {
		return nil, err
	}
	for _, p := range s.Paints() {
		in := tried[p.ID]
		if in == nil {
			continue
		}
		one, err := reach.SwapOf(s, p, in)
		if err != nil {
			return nil, sentence(err)
		}
		if at := slices.IndexFunc(swaps, func(w reach.Swap) bool { return w.Out.ID == p.ID }); at >= 0 {
			swaps[at] = one
		} else {
			swaps = append(swaps, one)
		}
	}
	before := reach.OfSystem(s)
	out := []Swapped{}
	for _, w := range swaps {
		one := Swapped{Out: v.shelved(w.Out), In: v.shelved(w.In), CleanCoverage: round(w.Reach.Clean(), 4), Gain: round(w.Reach.Clean()-before.Clean(), 4)}
		d := reach.Differ(w.Reach, before)
		one.Says = "As clean as before everywhere"
		if !d.Same() {
			one.Says = text.UpperFirst(strings.TrimSuffix(d.Says("with it the system", "as it is, it"), "."))
		}
		if len(d.FirstBrighter) > 0 {
			one.Says += "; brighter " + reach.Runs(d.FirstBrighter)
		}
		if len(d.SecondBrighter) > 0 {
			one.Says += "; duller " + reach.Runs(d.SecondBrighter)
		}
		one.Says += "."
		out = append(out, one)
	}
	return out, nil
}
