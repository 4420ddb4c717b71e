package reach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"sync/atomic"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// TargetFit is a system, and how near it comes to some wanted colours.
type TargetFit struct {
	System  wheel.System
	DE      []float64 // CIEDE2000 to each, of the best four paints before their parts are made whole
	Reached int       // of them, within 3
	Mean    float64   // of the CIEDE2000
}

// ReachedWithin is the CIEDE2000 up to which a recipe passes for a wanted colour.
const ReachedWithin = 3

// How much is held against wanted colours at most: threes of paints times colours,
// and systems times colours. The first takes some twenty seconds, the second some.
const (
	mostThrees  = 250_000
	mostMatched = 12_000_000
)

// Helpers are what a system may take to a wanted colour beside its own paints.
type Helpers struct{ White, Black *paint.Paint }

// NearestTo are the systems of a kind that come nearest to wanted colours (CIELAB,
// D65, as painted in a medium, dry): the most of them reached, then the least mean
// difference, and of those that come as near as the best (within 0.5) the ones
// that reach the most on the whole. Every system is looked at.
func (t *Table) NearestTo(ctx context.Context, w Criteria, help Helpers, wanted []colour.Lab, in paint.Medium) ([]TargetFit, error) {
	fill, err := t.fillings(w)
	if err != nil {
		return nil, err
	}
	if len(wanted) == 0 {
		return nil, errors.New("no colour is wanted: name some")
	}
	near := nearness{colours: len(wanted)}
	place := map[int]int{} // among the paints of nearness, by that in the table
	for k, list := range fill {
		for _, f := range list {
			for _, i := range [2]int{f.before, f.after} {
				if _, known := place[i]; !known {
					place[i] = len(near.paints)
					near.paints, near.role = append(near.paints, t.paints[i]), append(near.role, k)
				}
			}
		}
	}
	near.mostOfRole = map[bool]int{true: 1, false: 2}[w.Kind == wheel.RYB]
	if n := len(near.paints); triples(n)*len(wanted) > mostThrees {
		return nil, fmt.Errorf("%d paints held against %d wanted colours are too many: choose from fewer paints or want fewer colours", n, len(wanted))
	}
	if n := len(fill[0]) * len(fill[1]) * len(fill[2]) * len(wanted); n > mostMatched {
		return nil, fmt.Errorf("%d systems held against %d wanted colours are too many: choose from fewer paints or want fewer colours", n/len(wanted), len(wanted))
	}
	if err := near.find(ctx, w, help, wanted, in); err != nil {
		return nil, err
	}
	found, err := near.best(ctx, fill, place, max(1, w.Most), func(fill [3]filling) float64 {
		return (&finder{t: t, double: w.Kind == wheel.Double}).reach(fill).Mean()
	})
	if err != nil {
		return nil, err
	}
	var out []TargetFit
	for _, c := range found {
		s, err := t.system(w.Kind, c.fill)
		if err != nil {
			return nil, err
		}
		one := TargetFit{System: s, DE: make([]float64, len(wanted)), Reached: c.reached, Mean: c.mean}
		near.of(c.fill, place, one.DE)
		out = append(out, one)
	}
	return out, nil
}

// nearness is how near every three of some paints come to some wanted colours
// together with white, or two of the three with white and black.
//
// Other fours need not be looked at. What four paints a, b, c, d make without
// white is a solid with four faces; go from a colour within it straight away from
// white until a face of three is met: then white and these three make the colour.
// And a colour without the solid lies nearest to a face of it. In a film colours
// do not mix along straight lines, but one goes into the other without a tear, and
// so the argument holds; the test holds it against all fours of a box.
type nearness struct {
	paints     []*paint.Paint
	role       []int
	mostOfRole int
	colours    int
	two        [][]trial   // by colour and place of the pair
	de         [][]float32 // by place of the triple and colour; nil where no system has it
}

// Places of pairs and triples i > j > k.
func pairAt(i, j int) int      { return i*(i-1)/2 + j }
func tripleAt(i, j, k int) int { return triples(i) + pairAt(j, k) }
func triples(n int) int        { return n * (n - 1) * (n - 2) / 6 }

// sortedTriple is the place of a triple in any order.
func sortedTriple(i, j, k int) int {
	if i < j {
		i, j = j, i
	}
	if j < k {
		j, k = k, j
	}
	if i < j {
		i, j = j, i
	}
	return tripleAt(i, j, k)
}

// find works the nearness out, so much of it at once, until the context ends.
func (s *nearness) find(ctx context.Context, w Criteria, help Helpers, wanted []colour.Lab, in paint.Medium) error {
	n := len(s.paints)
	all := append(slices.Clone(s.paints), help.White, help.Black)
	white, black := n, n+1
	var searches []*search
	for _, c := range wanted {
		searches = append(searches, newSearch(c, all, in))
		s.two = append(s.two, make([]trial, n*(n-1)/2))
	}
	s.de = make([][]float32, triples(n))
	var done atomic.Int64
	of := n*(n-1)/2 + triples(n)
	each := func(visit func(i int) (looked int)) error {
		var workers errgroup.Group
		workers.SetLimit(max(1, w.Workers))
		for i := range n {
			workers.Go(func() error {
				if ctx.Err() == nil {
					w.Report.send(RecipesStage, int(done.Add(int64(visit(i)))), of)
				}
				return nil
			})
		}
		return errors.Join(workers.Wait(), ctx.Err())
	}
	if err := each(func(i int) int {
		for j := range i {
			for c, one := range searches {
				s.two[c][pairAt(i, j)] = one.two(j, i, white, black)
			}
		}
		return i
	}); err != nil {
		return err
	}
	return each(func(i int) int {
		for j := range i {
			if ctx.Err() != nil {
				break
			}
			for k := range j {
				if s.mostOfRole == 1 && (s.role[i] == s.role[j] || s.role[j] == s.role[k] || s.role[i] == s.role[k]) || s.role[i] == s.role[j] && s.role[j] == s.role[k] {
					continue // never together
				}
				of := make([]float32, len(searches))
				for c, one := range searches {
					of[c] = float32(one.three([3]int{i, j, k}, [3]*trial{&s.two[c][pairAt(i, j)], &s.two[c][pairAt(i, k)], &s.two[c][pairAt(j, k)]}, white, black))
				}
				s.de[tripleAt(i, j, k)] = of
			}
		}
		return i * (i - 1) / 2
	})
}

// coarse is a stride of some hundredths of a share.
const coarse = 0.08

// two is how near two paints come with white and black. From one beginning alone it may not come out of a dead
// end, from some more, with white, it mostly does; what stays off is brought down in CIEDE2000.
func (s *search) two(a, b, white, black int) trial {
	best := s.four([]int{a, b, white, black})
	for _, part := range []float64{0.1, 0.5, 0.9} {
		if best.miss < recipe.Unseen/2 {
			break
		}
		t := trial{of: []int{a, b, white}, share: []float64{part / (0.1 + s.absorb[a]), (1 - part) / (0.1 + s.absorb[b]), 0}}
		t.share[2] = (t.share[0] + t.share[1]) / 9
		normalise(t.share)
		if t = s.approach(t); t.miss < best.miss {
			best = t
		}
	}
	if best.miss >= recipe.Unseen/2 {
		best = s.settle(best, coarse)
	}
	return best
}

// A third paint is tried where a trace of it, so much of what is absorbed, brings the best of two nearer by
// more than nothing, and up to so much; where all that comes out is within far, from their middle as well.
const (
	triedTrace  = 0.03
	mostTried   = 0.3
	leastNearer = 1e-3
	far         = 8
)

// three is how near three paints come with white, when it is known how near every two of them come with
// white and black. Where a trace of the third brings no two nearer, the best of these is the best of all three.
func (s *search) three(paints [3]int, two [3]*trial, white, black int) float64 {
	best := min(two[0].miss, two[1].miss, two[2].miss)
	if best < recipe.Unseen/2 {
		return best
	}
	nearer := false
	for n, t := range two {
		if slices.Contains(t.of, black) {
			continue
		}
		third, sum := paints[2-n], 0.0
		for k, i := range t.of {
			sum += t.share[k] * s.absorb[i]
		}
		trace := min(max(triedTrace*sum/s.absorb[third], leastTrace), mostTried)
		next := trial{of: append(slices.Clone(t.of), third)}
		for _, v := range t.share {
			next.share = append(next.share, v*(1-trace))
		}
		next.share = append(next.share, trace)
		if s.apart(next) < s.apart(*t)-leastNearer {
			nearer = true
			best = min(best, s.approach(next).miss)
		}
	}
	if nearer && best < far {
		best = min(best, s.four([]int{paints[0], paints[1], paints[2], white}).miss)
	}
	return best
}

// apart is the distance of what a trial makes from the wanted colour in CIELAB, which is what is brought down.
func (s *search) apart(t trial) float64 {
	_, c := s.look(t.of, t.share)
	return math.Sqrt((c.L-s.want.L)*(c.L-s.want.L) + (c.A-s.want.A)*(c.A-s.want.A) + (c.B-s.want.B)*(c.B-s.want.B))
}

// of are the differences of a system from each wanted colour.
func (s *nearness) of(fill [3]filling, place map[int]int, de []float64) {
	for c := range de {
		de[c] = math.Inf(1)
	}
	var paints []int
	for _, f := range fill {
		paints = append(paints, place[f.before])
		if f.after != f.before {
			paints = append(paints, place[f.after])
		}
	}
	for n, i := range paints {
		for m, j := range paints[:n] {
			for _, k := range paints[:m] {
				for c, d := range s.de[sortedTriple(i, j, k)] {
					de[c] = min(de[c], float64(d))
				}
			}
		}
	}
}

// suited is a system, and how it suits the wanted colours.
type suited struct {
	fill    [3]filling
	reached int
	mean    float64
	reach   float64 // its mean brightness, where that was asked for
}

// equal says that one comes as near as another that comes nearest.
func (s suited) equal(to suited) bool {
	return s.reached == to.reached && s.mean <= to.mean+equalWithin
}

// best looks at every system: for those that come nearest, and among those that come as near as the very
// nearest for those that reach the most on the whole.
func (s *nearness) best(ctx context.Context, fill [3][]filling, place map[int]int, most int, reach func([3]filling) float64) ([]suited, error) {
	reached, means, err := s.all(ctx, fill, place)
	if err != nil {
		return nil, err
	}
	at := func(n int) suited {
		y, r, b := n/len(fill[2])/len(fill[1]), n/len(fill[2])%len(fill[1]), n%len(fill[2])
		return suited{fill: [3]filling{fill[0][y], fill[1][r], fill[2][b]}, reached: int(reached[n]), mean: float64(means[n])}
	}
	var nearest, equal []suited
	for n := range means {
		nearest = keep(nearest, at(n), most, func(a, b suited) int {
			return cmp.Or(cmp.Compare(b.reached, a.reached), cmp.Compare(a.mean, b.mean))
		})
	}
	for n := range means {
		c := at(n)
		if !c.equal(nearest[0]) {
			continue
		}
		if n%1024 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		c.reach = reach(c.fill)
		equal = keep(equal, c, most, func(a, b suited) int {
			return cmp.Or(cmp.Compare(b.reach, a.reach), cmp.Compare(tubes(a.fill), tubes(b.fill)))
		})
	}
	for _, c := range nearest {
		if !c.equal(nearest[0]) {
			equal = append(equal, c)
		}
	}
	return equal[:min(most, len(equal))], nil
}

// keep puts one among the best, of so many at most; of equals the first stays first.
func keep(best []suited, one suited, most int, compare func(a, b suited) int) []suited {
	if len(best) == most && compare(best[most-1], one) <= 0 {
		return best
	}
	at, _ := slices.BinarySearchFunc(best, one, func(a, b suited) int { return cmp.Or(compare(a, b), -1) })
	best = slices.Insert(best, at, one)
	return best[:min(len(best), most)]
}

func tubes(fill [3]filling) (n int) {
	for _, f := range fill {
		n += map[bool]int{true: 1, false: 2}[f.before == f.after]
	}
	return n
}

// all are how many colours each of the systems reaches that the fillings make, and its mean difference from all,
// the last role fastest, until the context ends.
func (s *nearness) all(ctx context.Context, fill [3][]filling, place map[int]int) (reached []uint8, means []float32, err error) {
	var roles [3][][]int // the paints of each filling
	for k, list := range fill {
		for _, f := range list {
			paints := []int{place[f.before]}
			if f.after != f.before {
				paints = append(paints, place[f.after])
			}
			roles[k] = append(roles[k], paints)
		}
	}
	// Two paints of a role with one of another, both ways, take the least into de.
	between := func(de []float32, a, b []int) {
		for range 2 {
			if len(a) == 2 {
				for _, k := range b {
					lower(de, s.de[sortedTriple(a[0], a[1], k)])
				}
			}
			a, b = b, a
		}
	}
	// What the last role adds to either of the others alone is the same for every one of the third.
	with := func(a []int) [][]float32 {
		out := make([][]float32, len(roles[2]))
		for n, b := range roles[2] {
			out[n] = slices.Repeat([]float32{math.MaxFloat32}, s.colours)
			between(out[n], a, b)
		}
		return out
	}
	var ofSecond [][][]float32
	for _, r := range roles[1] {
		ofSecond = append(ofSecond, with(r))
	}
	systems := len(roles[0]) * len(roles[1]) * len(roles[2])
	reached, means = make([]uint8, 0, systems), make([]float32, 0, systems)
	first, all := make([]float32, s.colours), make([]float32, s.colours)
	for _, y := range roles[0] {
		if err := ctx.Err(); err != nil {
			return nil, nil, err
		}
		ofFirst := with(y)
		for m, r := range roles[1] {
			for c := range first {
				first[c] = math.MaxFloat32
			}
			between(first, y, r)
			for n, b := range roles[2] {
				copy(all, first)
				lower(all, ofFirst[n])
				lower(all, ofSecond[m][n])
				for _, i := range y {
					for _, j := range r {
						for _, k := range b {
							lower(all, s.de[sortedTriple(i, j, k)])
						}
					}
				}
				near, sum := uint8(0), float32(0)
				for _, d := range all {
					sum += d
					if d <= ReachedWithin {
						near++
					}
				}
				reached, means = append(reached, near), append(means, sum/float32(s.colours))
			}
		}
	}
	return reached, means, nil
}

// lower takes the lesser of each two.
func lower(of, by []float32) {
	for c, d := range by {
		of[c] = min(of[c], d)
	}
}
