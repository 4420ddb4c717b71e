package journal

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"gyrophane/core/paint"
)

// Film is how thick a painter lays a medium, over its usual thickness.
type Film struct {
	Old, New, Low, High    float64 // the last two are 95 in 100
	Before, After, LeftOut float64 // mean CIEDE2000, as of Learned
	Proposed               bool
	Chance                 float64
	chi                    float64 // of what is left
}

// What a film can be told by: so many mixtures with white, and without.
const (
	fewestFilmed = 3
	thinnest     = -1.8 // of the logarithm of the film
)

// LearnFilm finds the thickness of film that explains what was read best, the tubes as
// strong as they are taken to be. Old is that of the medium over its usual one. It is
// false where the readings cannot tell a film from strengths: in a medium that hides
// whatever its film, and where white is not in enough mixtures to hold the strengths.
func LearnFilm(samples []Sample, in paint.Medium, old float64) (out Film, told bool) {
	if math.IsInf(in.Thickness, 1) || len(samples) > MostSamples {
		return out, false
	}
	tinted := 0
	for _, s := range samples {
		if len(s.Parts) > 1 && slices.ContainsFunc(s.Parts, func(p paint.Part) bool { return p.Paint.Family == "white" }) {
			tinted++
		}
	}
	f := newFit(samples, in)
	if tinted < fewestFilmed || len(samples)-tinted < fewestFilmed || slices.Contains(f.fixed, false) {
		return out, false
	}
	none := make([]float64, len(f.tubes))
	f.hands(none)
	rest := func(t float64) []float64 {
		f.film = math.Exp(t)
		defer func() { f.film = 1 }()
		return f.residuals(none)
	}
	chi := func(t float64) float64 { return squares(rest(t)) }
	at, _ := least(thinnest, -thinnest, func(t float64) float64 { return chi(t) + t*t/(priorWidth*priorWidth) })
	const h = 1e-3
	up, down := rest(at+h), rest(at-h)
	jac := mat.NewDense(len(up), 1, nil)
	for i := range up {
		jac.Set(i, 0, (up[i]-down[i])/(2*h))
	}
	inverse := mat.NewSymDense(1, []float64{1 / information(jac).At(0, 0)})
	start, now := rest(0), rest(at)
	scale := math.Max(1, squares(now)/math.Max(1, float64(len(now)-1)))
	sd := math.Sqrt(inverse.At(0, 0) * scale)
	out = Film{Old: old, New: old * math.Exp(at), Low: old * math.Exp(at-1.96*sd), High: old * math.Exp(at+1.96*sd),
		Before: f.errorOf(start), After: f.errorOf(now), LeftOut: f.leftOut(now, jac, inverse)}
	out.Chance = 1 - distuv.ChiSquared{K: 1}.CDF(math.Max(0, (squares(start)-squares(now))/scale))
	out.Proposed = out.Chance < 0.05 && out.LeftOut < learnBetter*out.Before
	out.chi = squares(now)
	return out, true
}

// squares is the sum of squares.
func squares(of []float64) (sum float64) {
	for _, v := range of {
		sum += v * v
	}
	return sum
}

// InPlaceOf says that the film explains the readings as well as other strengths of the
// tubes do, of which there are more [Akaike 1974]: it is then learned in their place, for
// never are both.
func (f *Film) InPlaceOf(l *Learned) bool {
	return f.Proposed && f.chi+2 <= l.chi+2*float64(l.free)
}
