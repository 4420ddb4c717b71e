package path

import (
	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// Taint is a path with a share of a third paint in every mixture on it, as a
// brush, palette or water that is not clean leaves it.
type Taint struct {
	Third   *paint.Paint
	Share   float64         // of the third paint, by volume, 0 to 1
	Samples []Sample        // at the shares of the path's own samples; Arc and Turn are the clean path's
	Mixed   []paint.Mixture // of each sample
}

// Taint puts a share (0 to 1, by volume) of a third paint into every mixture.
func (p *Path) Taint(third *paint.Paint, share float64) Taint {
	out := Taint{third, share, make([]Sample, len(p.Samples)), make([]paint.Mixture, len(p.Samples))}
	for i, s := range p.Samples {
		m := &out.Mixed[i]
		*m = p.TaintedAt(s.Share, third, share)
		s.Brushed, s.Under = m.BrushedOutColour(), m.Undertone()
		out.Samples[i] = s
	}
	return out
}

// TaintedAt is the mixture with a share of the second paint, and a share of a
// third paint in it.
func (p *Path) TaintedAt(share float64, third *paint.Paint, taint float64) paint.Mixture {
	m, t := p.At(share), third.Alone()
	return paint.Between(&m, &t, taint)
}

// mostTaint is the largest share of a third paint that is still a trace.
const mostTaint = 0.5

// TaintShares are the shares of a third paint that a path is worked out for.
var TaintShares = []float64{0, 0.005, 0.01, 0.015, 0.02, 0.03, 0.04, 0.05, 0.07, 0.10}

// Taints are Taint for several shares. The error is an input.Error.
func (p *Path) Taints(third *paint.Paint, shares []float64) (out []Taint, err error) {
	for _, share := range shares {
		if !(share >= 0) || share > mostTaint {
			return nil, input.Errorf("a trace of %s must be a share from 0 to %v, not %v", third.ID, mostTaint, share)
		}
		out = append(out, p.Taint(third, share))
	}
	return out, nil
}

// CheckSteps refuses a number of inner steps that a path is not divided by, with
// an input.Error.
func CheckSteps(n int) error {
	if n < 1 || n > MostSteps {
		return input.Errorf("steps must be a whole number from 1 to %d, not %d", MostSteps, n)
	}
	return nil
}
