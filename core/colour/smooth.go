package colour

import (
	"errors"
	"math"

	"gonum.org/v1/gonum/mat"
)

// ErrNoReflectance says that no reflectance between the given limits has the
// colour asked for.
var ErrNoReflectance = errors.New("no reflectance has this colour")

// Smoothest is the smoothest reflectance between low and high (0 to 1) that
// has a colour under D65: of all that do, the one whose logit, stretched
// between the limits, changes least from band to band [Burns 2020, least
// hyperbolic tangent slope squared]. The error is ErrNoReflectance where the
// colour is lighter, darker or brighter than such a reflectance can be.
func Smoothest(c XYZ, low, high float64) (Spectrum, error) {
	const (
		size  = Bands + 3
		tries = 200
		close = 1e-9
	)
	o := &observers[D65]
	weights := [3]*Spectrum{&o.x, &o.y, &o.z}
	want := [3]float64{c.X, c.Y, c.Z}
	reach := (high - low) / 2

	var z Spectrum // the reflectance is low + reach (1 + tanh z)
	var lambda [3]float64
	if y := (c.Y-low)/reach - 1; y > -1 && y < 1 {
		z = Flat(math.Atanh(y))
	}
	system := mat.NewDense(size, size, nil)
	right, step := mat.NewVecDense(size, nil), mat.NewVecDense(size, nil)
	var lu mat.LU
	for range tries {
		system.Zero()
		right.Zero()
		var got [3]float64
		worst := 0.0
		for i := range z {
			t := math.Tanh(z[i])
			slope := reach * (1 - t*t)
			bend := -2 * t * slope
			gradient, diagonal := 0.0, 0.0
			for _, j := range [2]int{i - 1, i + 1} {
				if j >= 0 && j < Bands {
					gradient += z[i] - z[j]
					diagonal++
					system.Set(i, j, -1)
				}
			}
			for k, w := range weights {
				got[k] += w[i] * (low + reach*(1+t))
				gradient += lambda[k] * w[i] * slope
				diagonal += lambda[k] * w[i] * bend
				system.Set(i, Bands+k, w[i]*slope)
				system.Set(Bands+k, i, w[i]*slope)
			}
			system.Set(i, i, diagonal)
			right.SetVec(i, -gradient)
			worst = max(worst, math.Abs(gradient))
		}
		for k := range got {
			miss := want[k] - got[k]
			right.SetVec(Bands+k, miss)
			worst = max(worst, math.Abs(miss))
		}
		if worst < close {
			for i, v := range z {
				z[i] = low + reach*(1+math.Tanh(v))
			}
			return z, nil
		}
		lu.Factorize(system)
		if err := lu.SolveVecTo(step, false, right); err != nil && math.IsInf(lu.Cond(), 1) {
			return Spectrum{}, ErrNoReflectance
		}
		longest := 0.0
		for i := range z {
			longest = max(longest, math.Abs(step.AtVec(i)))
		}
		if math.IsNaN(longest) || math.IsInf(longest, 1) {
			return Spectrum{}, ErrNoReflectance
		}
		damp := min(1, 1.5/longest) // far from the solution a whole step overshoots
		for i := range z {
			z[i] += damp * step.AtVec(i)
			if math.Abs(z[i]) > 40 {
				return Spectrum{}, ErrNoReflectance
			}
		}
		for k := range lambda {
			lambda[k] += damp * step.AtVec(Bands+k)
		}
	}
	return Spectrum{}, ErrNoReflectance
}
