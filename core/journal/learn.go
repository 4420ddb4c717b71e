package journal

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Sample is a painted mixture as it was read, dry.
type Sample struct {
	Region string
	Parts  []paint.Part // as they were really used, by volume
	Film   float64      // 0 for the medium's own
	Lab    colour.Lab   // as it was read, D65
	Noise  float64      // standard deviation of the reading, CIEDE2000, in each of its components
	Strays []float64    // that of each part, in shares of it; 3 % where there are none
	Photo  bool         // it was read from a photo
}

// The noise of readings by their source, CIEDE2000 in each component, besides the spread
// within the spot.
var sourceNoise = map[paint.Source]float64{paint.Instrument: 0.4, paint.Photo: 0.9, paint.Eye: 1.8}

// NoiseOf is how far a reading strays, CIEDE2000 in each component.
func NoiseOf(source paint.Source, spread float64) float64 {
	return math.Hypot(cmp.Or(sourceNoise[source], sourceNoise[paint.Photo]), spread)
}

// weighed is how far a part strays that was weighed, in shares of it.
const weighed = 0.03

// Strength is what a tube turned out to be.
type Strength struct {
	Paint     *paint.Paint
	Old       float64 // as it was taken to be
	New       float64
	Low, High float64 // 95 in 100
	Settled   bool    // the readings tell it
	Named     bool    // it is another than it was taken for
	Group     int     // of the tubes that mixtures join: only their ratios are told
}

// Learned is what readings say of the tubes.
type Learned struct {
	Strengths []Strength
	Before    float64 // mean CIEDE2000 of the readings to what was computed
	After     float64 // with the new strengths
	LeftOut   float64 // the same, each with strengths that were learned without it
	Proposed  bool    // the new ones are better by more than chance
	Chance    float64 // of so much or more by chance alone
	Separate  int     // groups of tubes that no mixture joins
	Samples   int
	Nonsense  bool    // the readings have nothing to do with what was painted, whatever the strengths
	chi       float64 // of what is left
	free      int     // strengths that are told
	told      []told  // of each group of which there is something to say
}

const (
	nonsense    = 12.0 // mean CIEDE2000, before and after, of readings that are of something else
	priorWidth  = 0.5  // of the logarithm of a strength
	learnBetter = 0.9  // left-out error, over that of before
	settledTo   = 1.9  // high over low
	// MostSamples is how many are learned from at once.
	MostSamples = 1000
)

// Learn finds the strengths of the tubes in use that explain what was read of dry
// mixtures in a medium best: by least squares of the components of CIEDE2000 over what
// readings and a hand stray by, with a prior about the strengths as they are taken to be
// [Levenberg 1944; Marquardt 1963]. White keeps its strength. The error is an
// input.Error.
func Learn(samples []Sample, in paint.Medium) (Learned, error) {
	if len(samples) < 3 || len(samples) > MostSamples {
		return Learned{}, input.Errorf("%d readings: strengths are learned from 3 to %d", len(samples), MostSamples)
	}
	f := newFit(samples, in)
	if len(f.tubes) == 0 {
		return Learned{}, input.Errorf("there are no coloured paints in what was read")
	}
	none := make([]float64, len(f.tubes))
	theta := none
	// What a hand strays by depends on how strong the tubes are: once more with those found.
	for range 2 {
		f.hands(theta)
		theta = f.best(theta)
	}
	return f.learned(theta, f.residuals(none), f.residuals(theta), f.jacobian(theta))
}

// Offer are the strengths to be taken together where what was learned is proposed: those of the tubes
// that are named. The others stay as they are taken to be.
func (l *Learned) Offer() (out []Strength) {
	if !l.Proposed {
		return nil
	}
	for _, s := range l.Strengths {
		if s.Named {
			out = append(out, s)
		}
	}
	return out
}

// By how much a tube must be stronger or weaker to be spoken of: where the readings are of a photo by
// more.
const leastTold, leastOfPhoto = 1.1, 1.2

// SpokenOf says that a tube that is so many times as strong as it was is another to speak of.
func SpokenOf(times float64) bool { return math.Abs(math.Log(times)) >= math.Log(leastTold) }

// Says names the tubes that are others than they were taken for, a sentence each group: the fewest that
// explain what was read; of what is as likely both; of two tubes their ratio.
func (l *Learned) Says() (out []string) {
	if l.Nonsense {
		return []string{"These readings have nothing to do with what this sheet was painted with: look whether they are of this sitting, of the right places and in the right order."}
	}
	for _, g := range l.told {
		out = append(out, g.says())
	}
	return out
}

// told is what the readings tell of a group of tubes.
type told struct {
	of    []change // the tubes that are others
	or    []change // what is as likely
	ratio bool     // it is of two tubes that are known beside each other alone
}

// change is a tube that is so many times as strong as it was taken for.
type change struct {
	paint *paint.Paint
	by    float64
}

func inWords(all []change) string {
	var out []string
	for _, c := range all {
		out = append(out, fmt.Sprintf("the %s is about %.2g times as strong as it was taken for", c.paint.ShortName(), c.by))
	}
	return text.Listed(out)
}

func (t *told) says() string {
	switch {
	case t.ratio:
		return fmt.Sprintf("Beside what they were taken for this %s is about %.2g times this %s; which of the two it is, these readings cannot tell. A tint of each with white would.",
			t.of[0].paint.ShortName(), t.of[0].by, t.of[1].paint.ShortName())
	case len(t.or) > 0:
		return text.UpperFirst(fmt.Sprintf("%s; or, as likely, %s. These readings cannot tell: a tint of each with white would.", inWords(t.of), inWords(t.or)))
	}
	return text.UpperFirst(inWords(t.of)) + "."
}

// learned says what the strengths turned out to be, and how sure that is.
func (f *fit) learned(theta, start, rest []float64, jac *mat.Dense) (Learned, error) {
	var chol mat.Cholesky
	if !chol.Factorize(information(jac)) {
		return Learned{}, input.Errorf("the readings do not tell the strengths apart")
	}
	var inverse mat.SymDense
	if err := chol.InverseTo(&inverse); err != nil {
		return Learned{}, input.Errorf("the readings do not tell the strengths apart")
	}
	out := Learned{Before: f.errorOf(start), After: f.errorOf(rest), Samples: len(f.samples), Separate: len(f.fixed)}
	// Noise that is larger than it is said to be widens the intervals.
	chi, free := squares(rest), 0
	size := make([]int, len(f.fixed))
	for _, g := range f.groups {
		size[g]++
	}
	for g, fixed := range f.fixed {
		free += size[g]
		if !fixed {
			free-- // only ratios are told
		}
	}
	scale := math.Max(1, chi/math.Max(1, float64(len(rest)-free)))
	out.chi, out.free = chi, free
	curve := curvature(jac)
	named := f.named(&out, theta, curve, scale)
	taken := f.only(named, theta)
	rest = f.residuals(taken)
	f.freeing(named, func() { jac = f.jacobian(taken) })
	out.After = f.errorOf(rest)
	centre, spread := f.beside(named, theta, &inverse)
	if !chol.Factorize(information(jac)) || chol.InverseTo(&inverse) != nil {
		return Learned{}, input.Errorf("the readings do not tell the strengths apart")
	}
	out.LeftOut = f.leftOut(rest, jac, &inverse)
	for i, p := range f.tubes {
		known := f.fixed[f.groups[i]] || size[f.groups[i]] > 1
		at, sd := centre[i], math.Sqrt(scale)*spread[i]
		if !known {
			at, sd = 0, priorWidth
		}
		one := Strength{Paint: p, Old: p.Strength(), Group: f.groups[i], New: p.Strength() * math.Exp(taken[i]), Low: p.Strength() * math.Exp(min(at-1.96*sd, taken[i])), High: p.Strength() * math.Exp(max(at+1.96*sd, taken[i])), Named: slices.Contains(named, i)}
		one.Settled = known && one.High < settledTo*one.Low
		out.Strengths = append(out.Strengths, one)
	}
	if free > 0 {
		drop := squares(start) - chi
		out.Chance = 1 - distuv.ChiSquared{K: float64(free)}.CDF(math.Max(0, drop/scale))
		out.Proposed = len(named) > 0 && out.Chance < 0.05 && out.LeftOut < learnBetter*out.Before
	}
	if out.Nonsense = out.Before > nonsense && f.errorOf(f.residuals(theta)) > nonsense; out.Nonsense {
		out.Proposed = false
	}
	if out.Chance >= 0.05 || out.Nonsense {
		out.told = nil
	}
	return out, nil
}

// named finds which tubes are others than they were taken for, and what there is to say of each group.
func (f *fit) named(out *Learned, theta []float64, curve *mat.SymDense, scale float64) (named []int) {
	least := math.Log(leastTold)
	if slices.ContainsFunc(f.samples, func(s Sample) bool { return s.Photo }) {
		least = math.Log(leastOfPhoto)
	}
	widened := mat.NewSymDense(len(theta), nil)
	widened.ScaleSym(1/scale, curve)
	for g, fixed := range f.fixed {
		of := indices(len(theta), func(i int) bool { return f.groups[i] == g })
		best, or := f.fewest(g, theta, widened)
		at := f.only(best.tubes, theta)
		spoken := func(tubes []int, at []float64) (out []change) {
			for _, i := range tubes {
				if math.Abs(at[i]) >= least {
					out = append(out, change{f.tubes[i], math.Exp(at[i])})
				}
			}
			return out
		}
		says := told{of: spoken(best.tubes, at)}
		switch {
		case len(says.of) == 0:
			continue
		case !fixed && len(of) == 2:
			i := best.tubes[0]
			other := of[0]
			if other == i {
				other = of[1]
			}
			says = told{ratio: true, of: []change{{f.tubes[i], math.Exp(at[i])}, {f.tubes[other], 1}}}
		case or != nil:
			says.or = spoken(or.tubes, f.only(or.tubes, theta))
		}
		out.told = append(out.told, says)
		if says.ratio || len(says.or) > 0 {
			continue // said, and not taken before it is settled
		}
		for _, i := range best.tubes {
			if math.Abs(at[i]) >= least {
				named = append(named, i)
			}
		}
	}
	slices.Sort(named)
	return named
}

// beside are the logarithms of the strengths, and how far the readings leave them open (standard
// deviation), beside the mean of the tubes of their group that are not named; as they are where white
// tells them.
func (f *fit) beside(named []int, theta []float64, cov *mat.SymDense) (centre, spread []float64) {
	n := len(theta)
	to := mat.NewDense(n, n, nil)
	for i := range n {
		to.Set(i, i, 1)
		if f.fixed[f.groups[i]] {
			continue
		}
		kept := indices(n, func(j int) bool { return f.groups[j] == f.groups[i] && !slices.Contains(named, j) })
		for _, j := range kept {
			to.Set(i, j, to.At(i, j)-1/float64(len(kept)))
		}
	}
	var at mat.VecDense
	at.MulVec(to, mat.NewVecDense(n, theta))
	var half, of mat.Dense
	half.Mul(to, cov)
	of.Mul(&half, to.T())
	for i := range n {
		centre, spread = append(centre, at.AtVec(i)), append(spread, math.Sqrt(math.Max(0, of.At(i, i))))
	}
	return centre, spread
}

// leftOut is the mean CIEDE2000 of each sample to what is learned without it, by the
// leverage of its residuals [Cook 1977].
func (f *fit) leftOut(rest []float64, jac *mat.Dense, inverse *mat.SymDense) (mean float64) {
	_, n := jac.Dims()
	for i := range f.samples {
		own := jac.Slice(3*i, 3*i+3, 0, n)
		var left, hat mat.Dense
		left.Mul(own, inverse)
		hat.Mul(&left, own.T())
		a := mat.NewDense(3, 3, nil)
		for r := range 3 {
			for c := range 3 {
				a.Set(r, c, -hat.At(r, c))
			}
			a.Set(r, r, a.At(r, r)+1)
		}
		var x mat.VecDense
		if err := x.SolveVec(a, mat.NewVecDense(3, slices.Clone(rest[3*i:3*i+3]))); err != nil {
			continue // it alone tells one of the strengths
		}
		mean += f.noise[i].size(x.RawVector().Data) / float64(len(f.samples))
	}
	return mean
}
