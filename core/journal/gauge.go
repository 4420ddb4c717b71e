package journal

import (
	"cmp"
	"fmt"
	"math"
	"math/bits"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// What a set of tubes that turned out to be others costs besides what it leaves unexplained, and how
// near another set must come to be as likely.
const (
	perTube   = 8.0
	ofFilm    = 6.0 // what another film costs
	asLikely  = 3.0
	mostTried = 14 // tubes of a group of which all sets are tried; of more the most telling ones
)

// tubeSet is a set of the tubes of a fit (and its film) that are others than they were taken for.
type tubeSet struct {
	tubes []int
	cost  float64 // squares, and what its tubes cost
}

// price is what an unknown costs besides what it leaves unexplained.
func (f *fit) price(i int) float64 {
	if i == f.film() {
		return ofFilm
	}
	return perTube
}

// fewest is the set of unknowns of a group whose change explains what was read with the least cost, and
// one that is as likely, where there is one; none is a set too. Sets are found by how the squares curve at
// what was found (x), widened by scale and without the prior, and the likeliest then fitted.
func (f *fit) fewest(of []int, absolute bool, found []float64, curve *mat.SymDense, scale float64) (best tubeSet, other *tubeSet) {
	x := found[:f.film()+1]
	if len(of) > mostTried {
		of = slices.Clone(of)
		slices.SortFunc(of, func(a, b int) int {
			return cmp.Compare(math.Abs(x[b])*math.Sqrt(curve.At(b, b)), math.Abs(x[a])*math.Sqrt(curve.At(a, a)))
		})
		of = of[:mostTried]
	}
	var chosen []uint32
	for one := range uint32(1) << len(of) {
		chosen = append(chosen, one)
	}
	slices.SortStableFunc(chosen, func(a, b uint32) int { return cmp.Compare(bits.OnesCount32(a), bits.OnesCount32(b)) })
	var all []tubeSet
	least := math.Inf(1)
	for _, c := range chosen {
		n := bits.OnesCount32(c)
		if ofFilm+perTube*float64(n-1) > least+asLikely {
			break // so many cost more, whatever they explain
		}
		if !absolute && n == len(of) {
			continue // all of them are none: only ratios are told
		}
		one := tubeSet{}
		price := 0.0
		for k, i := range of {
			if c&(1<<k) != 0 {
				one.tubes = append(one.tubes, i)
				price += f.price(i)
			}
		}
		one.cost = leaves(one.tubes, x, curve) + price
		all = append(all, one)
		if n > 1 {
			one.cost = leavesAlike(one.tubes, x, curve) + price // by one common factor
			all = append(all, one)
		}
		least = math.Min(least, math.Min(all[len(all)-1].cost, all[max(0, len(all)-2)].cost))
	}
	all = f.fitted(all, of, found, scale)
	best = all[0]
	for n := range all[1:] {
		next := &all[n+1]
		if next.cost > best.cost+asLikely {
			break
		}
		// One that holds the best, or is held by it, says the same and a little more or less.
		if len(next.tubes) > 0 && !holds(best.tubes, next.tubes) && !holds(next.tubes, best.tubes) {
			return best, next
		}
	}
	return best, nil
}

// mostFitted is how many sets are fitted.
const mostFitted = 6

// fitted are the likeliest of sets by what they leave when they are fitted, those of other groups free;
// none of them, and the film alone, are fitted always: they lie farthest from what was found.
func (f *fit) fitted(all []tubeSet, of []int, found []float64, scale float64) (out []tubeSet) {
	byCost := func(a, b tubeSet) int { return cmp.Compare(a.cost, b.cost) }
	slices.SortStableFunc(all, byCost)
	var others []int
	for _, i := range f.paints() {
		if !slices.Contains(of, i) && i != f.film() {
			others = append(others, i)
		}
	}
	type known struct{ curved, fitted float64 }
	done := map[string]known{}
	for n, one := range all {
		key := fmt.Sprint(one.tubes)
		is, fitted := done[key]
		switch {
		case fitted:
		case n >= mostFitted && len(one.tubes) > 0 && !slices.Equal(one.tubes, []int{f.film()}):
			continue
		default:
			price := 0.0
			for _, i := range one.tubes {
				price += f.price(i)
			}
			is = known{one.cost, f.chi(f.only(append(slices.Clone(one.tubes), others...), found))/scale + price}
			done[key] = is
		}
		// Of tubes that change alike: by how much that leaves more than each by itself.
		one.cost = is.fitted + one.cost - is.curved
		out = append(out, one)
	}
	slices.SortStableFunc(out, byCost)
	return out
}

// holds says that a set has all of another.
func holds(set, other []int) bool {
	return !slices.ContainsFunc(other, func(i int) bool { return !slices.Contains(set, i) })
}

// leaves is by how much the squares rise over the least where only some tubes change, the others as they
// were: the least of (t - theta)' C (t - theta) over their t.
func leaves(changed []int, theta []float64, curve *mat.SymDense) float64 {
	rest := indices(len(theta), func(i int) bool { return !slices.Contains(changed, i) })
	// With the others back at 0: what the changed make up for.
	d := make([]float64, len(theta))
	for _, i := range rest {
		d[i] = -theta[i]
	}
	if len(changed) > 0 {
		a, b := mat.NewSymDense(len(changed), nil), mat.NewVecDense(len(changed), nil)
		for n, i := range changed {
			for m, j := range changed[:n+1] {
				a.SetSym(n, m, curve.At(i, j))
			}
			a.SetSym(n, n, a.At(n, n)+1e-9)
			for _, j := range rest {
				b.SetVec(n, b.AtVec(n)-curve.At(i, j)*d[j])
			}
		}
		var chol mat.Cholesky
		var x mat.VecDense
		if !chol.Factorize(a) || chol.SolveVecTo(&x, b) != nil {
			return math.Inf(1)
		}
		for n, i := range changed {
			d[i] = x.AtVec(n)
		}
	}
	return quadratic(d, curve)
}

// leavesAlike is leaves where the tubes change by one common factor.
func leavesAlike(changed []int, theta []float64, curve *mat.SymDense) float64 {
	d, along := make([]float64, len(theta)), make([]float64, len(theta))
	for i := range theta {
		d[i] = -theta[i]
	}
	for _, i := range changed {
		along[i] = 1
	}
	// The least of (d + x along)' C (d + x along).
	v, w := mat.NewVecDense(len(d), d), mat.NewVecDense(len(along), along)
	x := -mat.Inner(w, curve, v) / math.Max(mat.Inner(w, curve, w), 1e-12)
	for i := range d {
		d[i] += x * along[i]
	}
	return quadratic(d, curve)
}

func quadratic(d []float64, curve *mat.SymDense) float64 {
	v := mat.NewVecDense(len(d), d)
	return mat.Inner(v, curve, v)
}

// indices are those up to n of which something holds.
func indices(n int, which func(i int) bool) (out []int) {
	for i := range n {
		if which(i) {
			out = append(out, i)
		}
	}
	return out
}
