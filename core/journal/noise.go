package journal

import "math"

// noise is how the components of a sample stray together: the lower triangle whose product
// with itself turned over is their covariance [Cholesky].
type noise [3][3]float64

// evenly is noise of so much in each component.
func evenly(n float64) noise { return noise{{n}, {0, n}, {0, 0, n}} }

// with is the noise with what strays along one direction besides.
func (l noise) with(d [3]float64) (out noise) {
	// Rank one: by the update of the triangle [Gill, Golub, Murray, Saunders 1974].
	out = l
	for k := range 3 {
		r := math.Hypot(out[k][k], d[k])
		c, s := r/out[k][k], d[k]/out[k][k]
		out[k][k] = r
		for i := k + 1; i < 3; i++ {
			out[i][k] = (out[i][k] + s*d[i]) / c
			d[i] = c*d[i] - s*out[i][k]
		}
	}
	return out
}

// in is components in units of the noise.
func (l *noise) in(d [3]float64) (out [3]float64) {
	for i := range 3 {
		out[i] = d[i]
		for k := range i {
			out[i] -= l[i][k] * out[k]
		}
		out[i] /= l[i][i]
	}
	return out
}

// size is how long components are that are given in units of the noise, CIEDE2000.
func (l *noise) size(in []float64) (sum float64) {
	for i := range 3 {
		v := 0.0
		for k := range i + 1 {
			v += l[i][k] * in[k]
		}
		sum += v * v
	}
	return math.Sqrt(sum)
}
