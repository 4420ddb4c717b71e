package journal

import (
	"cmp"
	"math"
	"math/bits"
	"slices"

	"gonum.org/v1/gonum/mat"
)

// What a set of tubes that turned out to be others costs besides what it leaves unexplained, and how
// near another set must come to be as likely.
const (
	perTube   = 8.0
	asLikely  = 3.0
	mostTried = 14 // tubes of a group of which all sets are tried; of more the most telling ones
)

// tubeSet is a set of the tubes of a fit that are others than they were taken for.
type tubeSet struct {
	tubes []int
	alike bool    // by one common factor
	cost  float64 // squares, and what its tubes cost
}

// fewest is the set of tubes of a group whose change explains what was read with the least cost, and
// one that is as likely, where there is one. Squares are taken as they curve at the strengths that
// were found (theta), without the prior; none is a set too.
func (f *fit) fewest(group int, theta []float64, curve *mat.SymDense) (best tubeSet, other *tubeSet) {
	var of []int
	for i, g := range f.groups {
		if g == group {
			of = append(of, i)
		}
	}
	if len(of) > mostTried {
		slices.SortFunc(of, func(a, b int) int {
			return cmp.Compare(math.Abs(theta[b])*math.Sqrt(curve.At(b, b)), math.Abs(theta[a])*math.Sqrt(curve.At(a, a)))
		})
		of = of[:mostTried]
	}
	var all []tubeSet
	for chosen := range uint32(1) << len(of) {
		if !f.fixed[group] && bits.OnesCount32(chosen) == len(of) {
			continue // all of them are none: only ratios are told
		}
		one := tubeSet{}
		for n, i := range of {
			if chosen&(1<<n) != 0 {
				one.tubes = append(one.tubes, i)
			}
		}
		one.cost = leaves(one.tubes, theta, curve) + perTube*float64(len(one.tubes))
		all = append(all, one)
		if len(one.tubes) > 1 {
			one.alike = true
			one.cost = leavesAlike(one.tubes, theta, curve) + perTube*float64(len(one.tubes))
			all = append(all, one)
		}
	}
	slices.SortStableFunc(all, func(a, b tubeSet) int { return cmp.Compare(a.cost, b.cost) })
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

// only is the fit with some tubes alone free, the others as they were taken to be, from strengths on.
func (f *fit) only(free []int, from []float64) []float64 {
	theta := make([]float64, len(f.tubes))
	for _, i := range free {
		theta[i] = from[i]
	}
	f.freeing(free, func() { theta = f.best(theta) })
	return theta
}

// freeing does something with some tubes alone free.
func (f *fit) freeing(free []int, do func()) {
	f.held = make([]bool, len(f.tubes))
	for i := range f.held {
		f.held[i] = !slices.Contains(free, i)
	}
	do()
	f.held = nil
}
