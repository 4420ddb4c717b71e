package bench

import (
	"math"
	"slices"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Times in minutes that are taken where no sitting has shown the painter's own.
const (
	mixTime       = 1.0
	paintTime     = 1.0
	paintPerCM2   = 0.2
	lightWash     = 0.5
	thoroughWash  = 1.0
	rinseTime     = 0.5
	waterTime     = 1.5
	washesOfWater = 8 // a jar of water takes
)

// MostRegions is the most a sheet may have to be planned.
const MostRegions = 128

// regions is a set of them.
type regions [2]uint64

func (s regions) has(i int) bool            { return s[i>>6]&(1<<(i&63)) != 0 }
func (s regions) with(i int) regions        { s[i>>6] |= 1 << (i & 63); return s }
func (s regions) covers(other regions) bool { return other[0]&^s[0] == 0 && other[1]&^s[1] == 0 }

// job is a region as the search sees it.
type job struct {
	mix     float64 // minutes; 0 for a paint as it comes
	paint   float64 // minutes
	touches []int
	after   regions // what must be painted before it
	section int     // of the run it is a step of, -1 for none
	place   int     // 1 up in its run, in the order in which it is made
	well    bool
}

// problem is a sheet to be put in order.
type problem struct {
	jobs     []job
	drying   float64
	hand     float64 // the painter's pace of mixing
	workable float64 // of a run's well; 0 for no limit
	brushes  int
	wells    int
	water    int // washes after which it is changed
	classes  classes
	piles    int         // that are mixed in all
	edges    []edge      // the quickest first
	least    int         // washes of the whole sheet, where the classes are not known
	washes   [][]float64 // minutes from what a brush holds (0 for nothing, else one more) to a region
	soils    [][]soil    // what a brush that painted a region does to another
	left     int         // regions to paint
	from     *standing   // where a sitting stands; nil at the beginning
}

// newProblem states a sheet for the search, its recipes counted out; steps of runs that are gone have
// piles of their own. Painted is how far a sitting has come with each region; nil before it. The error
// is an input.Error.
func newProblem(s *Sheet, set Settings, fill Fill, gone regions, counted []recipe.Counted, painted []Progress) (*problem, error) {
	if len(s.Regions) > MostRegions {
		return nil, input.Errorf("a sheet of %d regions is too large to plan: the most is %d", len(s.Regions), MostRegions)
	}
	p := &problem{jobs: make([]job, len(s.Regions)), drying: s.Drying(set), hand: set.HandPace, workable: set.Workable(), brushes: set.Brushes, wells: set.Wells, water: washesOfWater * set.Waters}
	for i := range s.Regions {
		r := &s.Regions[i]
		j := job{paint: set.HandPace * set.hand(r, true), section: -1}
		if set.Drying() > 0 && !set.Gaps {
			j.touches = r.Touches
		}
		if len(r.Recipe.Plain()) > 1 {
			j.mix, j.well = mixTime*set.HandPace, true
		}
		p.jobs[i] = j
	}
	if fill != OwnPiles {
		p.runs(s, fill, gone)
	}
	p.laidOver(s)
	if err := p.constrain(s, set); err != nil {
		return nil, err
	}
	p.soil(s, set, counted, func(i int) *paint.Mixture {
		if painted != nil {
			if held, err := paint.Mix(painted[i].Held...); err == nil {
				return &held
			}
		}
		return &counted[i].Mixture
	})
	p.classes = p.classesOf()
	p.prepare()
	p.left = len(p.jobs)
	return p, nil
}

// runs binds the steps of each section to their order, but for those that are gone.
func (p *problem) runs(s *Sheet, fill Fill, gone regions) {
	for k := range 3 {
		steps := s.section(k)
		way := s.ways[k]
		if way == nil || len(steps) < 2 {
			continue
		}
		mid := steps[len(steps)/2]
		steps = slices.DeleteFunc(steps, gone.has)
		if len(steps) == 0 {
			continue
		}
		weaker := way.Weaker()
		if (weaker.ID == way.B.ID) == (fill == FromWeaker) {
			slices.Reverse(steps)
		}
		if fill == SecondaryFirst {
			for _, i := range steps {
				p.jobs[i].section, p.jobs[i].place = k, 2
				if i == mid {
					p.jobs[i].place = 1
				} else {
					p.jobs[i].after = p.jobs[i].after.with(mid)
				}
			}
			continue
		}
		for n, i := range steps {
			p.jobs[i].section, p.jobs[i].place = k, n+1
			p.jobs[i].well = n == 0
			if n > 0 {
				p.jobs[i].after = p.jobs[i].after.with(steps[n-1])
			}
		}
	}
}

// constrain takes the painter's own wishes in: sections first, and what comes before
// what.
func (p *problem) constrain(s *Sheet, set Settings) error {
	at := map[string]int{}
	for i := range s.Regions {
		at[s.Regions[i].ID] = i
	}
	for _, pair := range set.Before {
		a, okA := at[pair[0]]
		b, okB := at[pair[1]]
		if !okA || !okB {
			continue // of a sheet that has changed since
		}
		p.jobs[b].after = p.jobs[b].after.with(a)
	}
	for _, section := range set.First {
		for i := range s.Regions {
			if s.Regions[i].Section == section {
				continue
			}
			for k := range s.Regions {
				if s.Regions[k].Section == section {
					p.jobs[i].after = p.jobs[i].after.with(k)
				}
			}
		}
		break // of several the first counts
	}
	// What waits for itself can never be painted.
	var done regions
	for left := len(p.jobs); left > 0; {
		before := left
		for i := range p.jobs {
			if !done.has(i) && done.covers(p.jobs[i].after) {
				done = done.with(i)
				left--
			}
		}
		if left == before {
			return input.Errorf("the order that is asked for goes round in a circle: something would have to be painted before itself; let one of its pieces go")
		}
	}
	return nil
}

// run says that j is the next step of the run that i is a step of.
func (p *problem) run(i, j int) bool {
	a, b := &p.jobs[i], &p.jobs[j]
	return a.section >= 0 && a.section == b.section && b.place == a.place+1
}

// wash is how long a brush that painted a region must be washed before it may paint
// another; clean is -1.
func (p *problem) wash(i, j int) float64 { return p.washes[i+1][j] }

// cost is what a plan is judged by: whole minutes, then washes.
type cost struct {
	minutes float64
	washes  int
}

func (c cost) whole() int { return int(math.Ceil(c.minutes - 1e-4)) }

func (c cost) less(d cost) bool {
	return c.whole() < d.whole() || c.whole() == d.whole() && c.washes < d.washes
}
