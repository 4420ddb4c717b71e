package journal

import (
	"cmp"
	"gonum.org/v1/gonum/mat"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// fit is samples to be explained.
type fit struct {
	samples []Sample
	in      paint.Medium
	tubes   []*paint.Paint
	of      [][]int // tube of each part of each sample, -1 for white
	groups  []int   // of each tube
	fixed   []bool  // groups that hold white, whose strength is known
	film    float64 // times as thick
	noise   []noise // of each sample's components
	held    []bool  // tubes that stay as they were taken to be; nil for none
}

func newFit(samples []Sample, in paint.Medium) *fit {
	f := &fit{samples: samples, in: in, noise: make([]noise, len(samples)), film: 1}
	at := map[string]int{} // by id: samples of before have their paints as they were then
	for i := range samples {
		var of []int
		for _, part := range samples[i].Parts {
			k, known := at[part.Paint.ID]
			switch {
			case part.Paint.Family == "white":
				k = -1
			case !known:
				k = len(f.tubes)
				at[part.Paint.ID], f.tubes = k, append(f.tubes, part.Paint)
			}
			of = append(of, k)
		}
		f.of = append(f.of, of)
	}
	f.join()
	return f
}

// join finds which tubes mixtures join, white among them.
func (f *fit) join() {
	n := len(f.tubes)
	root := make([]int, n+1) // the last is white
	for i := range root {
		root[i] = i
	}
	find := func(i int) int {
		for root[i] != i {
			i = root[i]
		}
		return i
	}
	for _, of := range f.of {
		for _, k := range of[1:] {
			a, b := of[0], k
			if a < 0 {
				a = n
			}
			if b < 0 {
				b = n
			}
			root[find(a)] = find(b)
		}
	}
	number := map[int]int{}
	for i := range f.tubes {
		r := find(i)
		g, known := number[r]
		if !known {
			g = len(number)
			number[r] = g
			f.fixed = append(f.fixed, r == find(n))
		}
		f.groups = append(f.groups, g)
	}
}

// look is a sample as it is computed with the tubes as strong as theta says, its parts
// multiplied by shares where there are some.
func (f *fit) look(i int, theta []float64, share []float64) colour.Lab {
	m := f.mixed(i, theta, share)
	return f.laid(i, &m, f.film)
}

// laid is a mixture in the film of a sample, so many times as thick.
func (f *fit) laid(i int, m *paint.Mixture, thick float64) colour.Lab {
	return f.filmed(m, thick*cmp.Or(f.samples[i].Film, f.in.Thickness))
}

// filmed is a mixture in a film, dry.
func (f *fit) filmed(m *paint.Mixture, film float64) colour.Lab {
	look := m.FilmIn(f.in, film, false)
	return look.Lab()
}

// mixed is what a sample is then painted with.
func (f *fit) mixed(i int, theta []float64, share []float64) paint.Mixture {
	s := &f.samples[i]
	whole := 0.0
	for _, p := range s.Parts {
		whole += p.Parts
	}
	parts := make([]paint.Part, len(s.Parts))
	for n, p := range s.Parts {
		if p.Parts /= whole; share != nil {
			p.Parts *= share[n]
		}
		parts[n] = p
	}
	m, err := paint.Strengthened(parts, func(n int) float64 {
		if k := f.of[i][n]; k >= 0 {
			return math.Exp(theta[k])
		}
		return 1
	})
	if err != nil {
		return s.Parts[0].Paint.Alone() // of parts that are none
	}
	return m
}

func (f *fit) residuals(theta []float64) []float64 {
	out := make([]float64, 0, 3*len(f.samples))
	for i := range f.samples {
		d := f.noise[i].in(colour.Components(f.look(i, theta, nil), f.samples[i].Lab))
		out = append(out, d[:]...)
	}
	return out
}

// hands adds to the noise of each sample what a hand strays by, at strengths: a part more
// or less goes along the way of its paint, and not each way alike.
func (f *fit) hands(theta []float64) {
	for i := range f.samples {
		s := &f.samples[i]
		n := math.Max(s.Noise, 0.1)
		f.noise[i] = noise{{n}, {0, n}, {0, 0, n}}
		if len(s.Parts) < 2 {
			continue
		}
		at := f.look(i, theta, nil)
		for n := range s.Parts {
			hand := weighed
			if len(s.Strays) == len(s.Parts) {
				hand = s.Strays[n]
			}
			share := make([]float64, len(s.Parts))
			for k := range share {
				share[k] = 1
			}
			share[n] = 1 + hand
			f.noise[i] = f.noise[i].with(colour.Components(at, f.look(i, theta, share)))
		}
	}
}

func (f *fit) cost(rest, theta []float64) float64 {
	return squares(rest) + prior(theta)
}

func prior(theta []float64) (sum float64) {
	for _, t := range theta {
		sum += t * t / (priorWidth * priorWidth)
	}
	return sum
}

// jacobian is how the residuals change with each strength; a sample's with those of its
// own tubes alone.
func (f *fit) jacobian(theta []float64) *mat.Dense {
	const h = 1e-4
	out := mat.NewDense(3*len(f.samples), len(theta), nil)
	for i := range f.samples {
		for _, k := range slices.Compact(slices.Sorted(slices.Values(f.of[i]))) {
			if k < 0 || f.held != nil && f.held[k] {
				continue
			}
			was := theta[k]
			theta[k] = was + h
			up := colour.Components(f.look(i, theta, nil), f.samples[i].Lab)
			theta[k] = was - h
			down := colour.Components(f.look(i, theta, nil), f.samples[i].Lab)
			theta[k] = was
			var slope [3]float64
			for c := range up {
				slope[c] = (up[c] - down[c]) / (2 * h)
			}
			for c, v := range f.noise[i].in(slope) {
				out.Set(3*i+c, k, v)
			}
		}
	}
	return out
}

// curvature is J'J: how the squares curve.
func curvature(jac *mat.Dense) *mat.SymDense {
	_, n := jac.Dims()
	var jtj mat.Dense
	jtj.Mul(jac.T(), jac)
	out := mat.NewSymDense(n, nil)
	for i := range n {
		for j := i; j < n; j++ {
			out.SetSym(i, j, jtj.At(i, j))
		}
	}
	return out
}

// information is the curvature and the prior's.
func information(jac *mat.Dense) *mat.SymDense {
	out := curvature(jac)
	for i := range out.SymmetricDim() {
		out.SetSym(i, i, out.At(i, i)+1/(priorWidth*priorWidth))
	}
	return out
}

func (f *fit) step(jac *mat.Dense, rest, theta []float64, damp float64) ([]float64, bool) {
	a := information(jac)
	n := a.SymmetricDim()
	b := mat.NewVecDense(n, nil)
	b.MulVec(jac.T(), mat.NewVecDense(len(rest), rest))
	for i := range n {
		b.SetVec(i, -b.AtVec(i)-theta[i]/(priorWidth*priorWidth))
		a.SetSym(i, i, a.At(i, i)*(1+damp))
	}
	var chol mat.Cholesky
	if !chol.Factorize(a) {
		return nil, false
	}
	var x mat.VecDense
	if err := chol.SolveVecTo(&x, b); err != nil {
		return nil, false
	}
	return x.RawVector().Data, true
}

// errorOf is the mean CIEDE2000 of residuals.
func (f *fit) errorOf(rest []float64) (mean float64) {
	for i := range f.samples {
		mean += f.noise[i].size(rest[3*i:3*i+3]) / float64(len(f.samples))
	}
	return mean
}

// best are the strengths of least cost, from some on.
func (f *fit) best(from []float64) []float64 {
	theta := slices.Clone(from)
	rest := f.residuals(theta)
	jac := f.jacobian(theta)
	now, damp := f.cost(rest, theta), 1e-3
	for range 60 {
		step, ok := f.step(jac, rest, theta, damp)
		if !ok {
			break
		}
		next := make([]float64, len(theta))
		for i := range next {
			if f.held != nil && f.held[i] {
				continue
			}
			next[i] = math.Max(-2.5, math.Min(2.5, theta[i]+step[i]))
		}
		tried := f.residuals(next)
		if c := f.cost(tried, next); c < now {
			gain := now - c
			theta, rest, now, damp = next, tried, c, damp/5
			jac = f.jacobian(theta)
			if gain < 1e-6*(1+now) {
				break
			}
		} else if damp *= 4; damp > 1e8 {
			break
		}
	}
	return theta
}
