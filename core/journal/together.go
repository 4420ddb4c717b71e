package journal

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// jointFit is what the readings say of strength, shade and cleanness of the tubes at once, with what is not known of
// such tubes as prior: the likeliest unknowns, and their covariance. Strengths by themselves take what is shade for
// strength, and are then known too well [certainty.md 1].
type jointFit struct {
	*fit
	at  []float64
	cov *mat.SymDense
}

// varied is the fit with strength, shade and cleanness of all tubes free, within what is not known of such tubes, and
// unknowns with them.
func (f *fit) varied(x []float64) (*fit, []float64) {
	g := *f
	g.usual, g.width, g.held = slices.Clone(f.usual), slices.Clone(f.width), slices.Clone(f.held)
	doubts := f.sure.doubts()
	for k, p := range f.tubes {
		of := doubts(p)
		g.variant = append(g.variant, paint.VariantsOf(p, of.Shade, of.Cleanness))
		g.width[k], g.held[k] = max(of.Strength, certainty.LeastDoubt), false
		g.usual, g.width, g.held = append(g.usual, 0, 0), append(g.width, 1, 1), append(g.held, false, false)
	}
	return &g, append(slices.Clone(x), make([]float64, 2*len(f.tubes))...)
}

// jointly fits from unknowns on, the film too where it is free.
func (f *fit) jointly(x []float64, film bool) (*jointFit, error) {
	g, at := f.varied(x)
	g.held[g.film()] = !film
	out := &jointFit{fit: g, at: g.best(at)}
	know := func() (err error) {
		if out.cov, err = g.spread(g.jacobian(out.at)); err != nil {
			return input.Errorf("the readings do not tell the tubes apart")
		}
		return nil
	}
	if err := know(); err != nil {
		return nil, err
	}
	// Noise that is larger than it is said to be leaves them more open. Of the readings those are spent on the
	// unknowns that they tell and the prior does not.
	rest := g.residuals(out.at)
	if scale := squares(rest) / max(1, float64(len(rest))-g.told(out.cov)); scale > 1 {
		g.weights = slices.Repeat([]float64{1 / math.Sqrt(scale)}, len(g.samples))
		out.at = g.best(out.at)
		if err := know(); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// told is of how many unknowns the readings tell, each by as much as its variance is less than before them.
func (f *fit) told(cov *mat.SymDense) (sum float64) {
	for i, held := range f.held {
		if !held {
			sum += 1 - min(1, cov.At(i, i)/(f.width[i]*f.width[i]))
		}
	}
	return sum
}

// joint is that of all tubes beside what they are taken for then (logarithms of the strengths).
func (t *jointFit) joint(taken []float64) *certainty.Joint {
	n := len(t.tubes)
	doubts := t.sure.doubts()
	var row []int      // of each unknown
	var unit []float64 // and what one of it is
	for k, p := range t.tubes {
		of := doubts(p)
		row, unit = append(row, k, t.shade(k), t.shade(k)+1), append(unit, 1, of.Shade, of.Cleanness)
	}
	out := &certainty.Joint{}
	for i, r := range row {
		off := t.at[r]
		if r < n {
			off -= taken[r]
		}
		out.Off = append(out.Off, off*unit[i])
		var of []float64
		for k, c := range row {
			of = append(of, t.cov.At(r, c)*unit[i]*unit[k])
		}
		out.Covariance = append(out.Covariance, of)
	}
	return out
}
