package path

import "gyrophane/core/paint"

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
		s.Brushed, s.Under = m.Brushed(), m.Undertone()
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
