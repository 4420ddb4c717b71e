package bench

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Need is how many ml of its mixture a region takes: its area by the medium's
// spread, coats and what is lost, half of it where it is graded, and never less than
// the smallest pile a brush can use. In watercolour, and of a glaze, it is brush-ready fluid.
func (s Settings) Need(r *Region) float64 {
	area := r.Area()
	if r.Graded {
		area /= 2
	}
	return max(s.Medium.Smallest, area*1e-6*s.spread(r)*float64(s.Coats)*(1+s.Loss))
}

// glazeSpread is how many ml of brush-ready fluid a square metre of a glaze takes, whatever is thinned.
const glazeSpread = 40.0

// spread is how many ml of a region's fluid a square metre takes.
func (s Settings) spread(r *Region) float64 {
	if s.Medium.LightenWithWater || r.Film == 0 {
		return float64(s.Medium.Spread)
	}
	return max(glazeSpread, s.filmSpread(r.Film))
}

// filmSpread is how many ml of paint a square metre of a film takes where paint is laid as it comes.
func (s Settings) filmSpread(film float64) float64 {
	full := s.Medium.Thickness
	if math.IsInf(full, 1) {
		full = coveringFilm
	}
	return float64(s.Medium.Spread) * film / full
}

// Slot is the need in ml of a slot of a wheel of the usual size: how much of a recipe
// is counted out where no sheet says it.
func (s Settings) Slot() float64 {
	return s.Need(&Region{Shape: Shape{To: 30, Inner: UsualWheel / 4, Outer: UsualWheel / 2}})
}

// Thinner is how many parts of what the medium is thinned with go to 1 part of paint for a region, 0 where
// it is laid as it comes.
func (s Settings) Thinner(r *Region) float64 {
	if s.Medium.LightenWithWater {
		return paint.WaterFor(cmp.Or(r.Film, s.Medium.Thickness))
	}
	if r.Film == 0 {
		return 0
	}
	return s.spread(r)/s.filmSpread(r.Film) - 1
}

// ratherMore is how many times as much water as usual is spoken of as more.
const ratherMore = 1.3

// Thinning tells how a region's paint is thinned, in a sentence: by parts or, where the
// painter goes by looks, by what it is as thick as. It is empty where nothing thins it.
func (s Settings) Thinning(r *Region) string {
	water := s.Thinner(r)
	if water <= 0 {
		return ""
	}
	if s.Scale.Measure != recipe.ByLooks || s.Medium.Thinner != "water" {
		return fmt.Sprintf("Thin it with %.1f of %s to 1 of paint.", water, s.Medium.Thinner)
	}
	as := thickAs(water)
	if water > ratherMore*paint.WaterFor(s.Medium.Thickness) {
		return "Rather more water: the puddle is " + as + "."
	}
	return "With water until the puddle is " + as + "."
}

// Thinned is in short how the paint of a region is thinned whose film is another than is usual; empty for
// others.
func (s Settings) Thinned(r *Region) string {
	by := s.Thinner(r)
	switch {
	case by <= 0 || r.Film == 0:
		return ""
	case s.Scale.Measure == recipe.ByLooks && s.Medium.Thinner == "water":
		return thickAs(by)
	}
	return fmt.Sprintf("thinned 1 : %.1f", by)
}

// thickAs is what paint is as thick as with so many parts of water to 1.
func thickAs(water float64) string {
	if thick := paint.ThickAs(water); thick != "" {
		return "as thick as " + thick
	}
	return "thinner than tea"
}

// paintOf is how many ml of paint a region takes, without what it is thinned with.
func (s Settings) paintOf(r *Region) float64 { return s.Need(r) / (1 + s.Thinner(r)) }

// Amount is how much of a paint is laid out for a sheet.
type Amount struct {
	Paint  *paint.Paint
	ML     float64 // paint, without what it is thinned with
	Ribbon float64 // mm out of the nozzle; 0 from a pan
	Loads  int     // brush loads out of the pan, with their water; 0 out of a tube
}

// RibbonMM is how long a ribbon of so many ml is out of a round nozzle so many mm wide.
func RibbonMM(ml, nozzle float64) float64 {
	return ml * 1000 / (math.Pi * nozzle * nozzle / 4)
}

// Amounts are what is laid out of each paint, the most first: the sum of all that the plan
// counts out, let-downs whole, starting piles and additions as they are, and the share that
// is lost. Where the painter goes by looks nothing is squeezed out of a tube: pans are wetted.
func (out *Plan) Amounts() (amounts []Amount) {
	set := out.Settings
	fluid := map[*paint.Paint]float64{} // ml with the water
	add := func(r *Region, p *paint.Paint, ml float64) {
		at := slices.IndexFunc(amounts, func(a Amount) bool { return a.Paint == p })
		if at < 0 {
			at, amounts = len(amounts), append(amounts, Amount{Paint: p})
		}
		amounts[at].ML += ml * (1 + set.Loss)
		fluid[p] += ml * (1 + set.Thinner(r))
	}
	for i := range out.Counted {
		for _, p := range out.Counted[i].FromTubes() {
			add(&out.Sheet.Regions[i], p.Paint, p.Parts)
		}
	}
	for i := range amounts {
		a := &amounts[i]
		if set.Scale.Measure == recipe.ByLooks {
			a.Loads = int(math.Ceil(fluid[a.Paint] / recipe.Scale{Measure: recipe.Loads}.One()))
		} else {
			a.Ribbon = RibbonMM(a.ML, set.Nozzle)
		}
	}
	slices.SortStableFunc(amounts, func(a, b Amount) int { return cmp.Compare(b.ML, a.ML) })
	return amounts
}

// Addition is what goes into a pile before a step is painted from it.
type Addition struct {
	Pile  float64 // ml that there are before it
	Add   float64 // ml that are added
	Sigma float64 // share of the other paint in what is added: 1, or that of a let-down
}

// RunPile is the least starting pile of a run of a paint through rising shares of
// another, each step taking so many ml, and what is added before each. Sigma is the
// share of the other paint in what is added before each step, above its share. It
// follows backward:
//
//	P_n = v_n,  P_i = v_i + P_(i+1) (sigma - s_(i+1)) / (sigma - s_i)
//	addition before step i+1:  P_(i+1) - (P_i - v_i)
func RunPile(shares, takes, sigma []float64) (start float64, adds []Addition) {
	n := len(shares)
	adds = make([]Addition, n)
	pile := takes[n-1]
	for i := n - 1; i >= 0; i-- {
		before := 0.0
		if i > 0 {
			before = shares[i-1]
		}
		left := pile * (sigma[i] - shares[i]) / (sigma[i] - before)
		adds[i] = Addition{left, pile - left, sigma[i]}
		pile = left
		if i > 0 {
			pile += takes[i-1]
		}
	}
	return adds[0].Pile, adds
}

// slipped is how much too large an addition is in what a slip costs.
const slipped = 0.3

// slip is the paint in ml that it takes to come back from an addition that was too
// large, of the other paint. Share is that of the added paint which is wanted, before
// that in the pile.
func slip(a Addition, before, share float64) float64 {
	over := slipped * a.Add
	pile := a.Pile + a.Add + over
	is := (a.Pile*before + (a.Add+over)*a.Sigma) / pile
	return pile * (is/share - 1)
}

// Filling is one of the ways to fill a section.
type Filling struct {
	Fill     Fill
	Start    float64 // ml of the starting pile
	Smallest float64 // ml of the smallest addition
	LetDown  bool    // the smallest additions are of a let-down
	Wells    int
	Slip     float64 // ml that a slip costs, at the worst of its steps
	Adds     []Addition
}

// inHand is whether an amount of an ingredient can be taken in the painter's measure.
func (s Settings) inHand(ml float64) bool {
	switch s.Scale.Measure {
	case recipe.ByLooks:
		return true
	case recipe.Dabs:
		return recipe.DabMM(ml) >= 2
	case recipe.Grams:
		return ml >= 0.04
	}
	return ml >= s.Scale.One()
}

// sigmas are the shares of the other paint in what is added before each step: of a
// let-down, 1:9, where that can be and the paint itself would be too little to take.
func (s Settings) sigmas(shares, takes []float64) (out []float64, letDown bool) {
	const thin = 0.1
	out = make([]float64, len(shares))
	for i := range out {
		out[i] = 1
	}
	for i, share := range shares {
		if _, adds := RunPile(shares, takes, out); share < 0.8*thin && !s.inHand(adds[i].Add) {
			out[i], letDown = thin, true
		}
	}
	return out, letDown
}

// Fillings are the four ways to fill a section side by side. They are nil where its slots
// do not lie on the path of two paints.
func Fillings(s *Sheet, section int, set Settings) []Filling {
	steps := s.section(section)
	if len(steps) == 0 || s.ways[section] == nil || s.ways[section].Indistinguishable() {
		return nil
	}
	way := s.ways[section]
	backward := way.Weaker().ID == way.B.ID
	var shares, takes []float64 // of the stronger paint, rising
	for n := range steps {
		r := &s.Regions[steps[n]]
		share := r.Share
		if backward {
			r = &s.Regions[steps[len(steps)-1-n]]
			share = 1 - r.Share
		}
		if len(r.Recipe.Plain()) != 2 || share <= 0 || share >= 1 {
			return nil
		}
		shares, takes = append(shares, share), append(takes, set.paintOf(r))
	}
	for i := 1; i < len(shares); i++ {
		if shares[i] <= shares[i-1] {
			return nil
		}
	}
	weaker := set.run(FromWeaker, shares, takes)
	turned, back := make([]float64, len(shares)), slices.Clone(takes)
	slices.Reverse(back)
	for i, share := range shares {
		turned[len(shares)-1-i] = 1 - share
	}
	out := []Filling{weaker, set.run(FromStronger, turned, back)}
	if len(shares) == 3 {
		out = append(out, secondaryFirst(shares, takes))
	}
	own := Filling{Fill: OwnPiles, Smallest: math.Inf(1), Wells: len(shares)}
	for i, share := range shares {
		a := Addition{takes[i] * (1 - share), takes[i] * share, 1}
		own.Adds = append(own.Adds, a)
		own.Start = max(own.Start, max(a.Pile, a.Add))
		own.Smallest = min(own.Smallest, a.Pile, a.Add)
		own.Slip = max(own.Slip, slip(a, 0, share))
	}
	return append(out, own)
}

func (s Settings) run(f Fill, shares, takes []float64) Filling {
	sigma, letDown := s.sigmas(shares, takes)
	w := Filling{Fill: f, Smallest: math.Inf(1), Wells: 1, LetDown: letDown}
	w.Start, w.Adds = RunPile(shares, takes, sigma)
	before := 0.0
	for i, a := range w.Adds {
		w.Smallest = min(w.Smallest, a.Add)
		w.Slip = max(w.Slip, slip(a, before, shares[i]))
		before = shares[i]
	}
	return w
}

// secondaryFirst mixes the secondary for all three steps and parts it.
func secondaryFirst(shares, takes []float64) Filling {
	mid := shares[1]
	first, third := takes[0]*shares[0]/mid, takes[2]*(1-shares[2])/(1-mid)
	pile := takes[1] + first + third
	adds := []Addition{
		{pile * (1 - mid), pile * mid, 1},
		{first, takes[0] - first, 0}, // of the weaker
		{third, takes[2] - third, 1},
	}
	w := Filling{Fill: SecondaryFirst, Start: pile, Smallest: min(adds[0].Add, adds[1].Add, adds[2].Add, pile*(1-mid)), Wells: 3, Adds: adds}
	// Of the weaker paint its own share is what counts.
	w.Slip = max(slip(adds[0], 0, mid), slip(Addition{first, adds[1].Add, 1}, 1-mid, 1-shares[0]), slip(adds[2], mid, shares[2]))
	return w
}

// section are the regions of a section's steps, in the order of the sheet.
func (s *Sheet) section(k int) (out []int) {
	if k < 0 || k >= len(s.ways) {
		return nil
	}
	for i := range s.Regions {
		if r := &s.Regions[i]; r.Main && r.Section == k && r.Step > 0 {
			out = append(out, i)
		}
	}
	slices.SortFunc(out, func(a, b int) int { return s.Regions[a].Step - s.Regions[b].Step })
	return out
}

// MoreAsked is how many ml more than is laid out of each paint are enough in nine of ten cases, by what is not known of the
// tubes; those of which next to nothing more is asked for are left out.
func (out *Plan) MoreAsked(doubt certainty.Doubts) map[*paint.Paint]float64 {
	var mixed []certainty.Mixed
	for i := range out.Sheet.Regions {
		r := &out.Sheet.Regions[i]
		mixed = append(mixed, certainty.Mixed{Recipe: r.Recipe, ML: out.Settings.Need(r)})
	}
	laidOut := map[*paint.Paint]float64{}
	for _, a := range out.Amounts() {
		laidOut[a.Paint] = a.ML
	}
	return certainty.MoreAsked(mixed, laidOut, doubt)
}
