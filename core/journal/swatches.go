package journal

import (
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"
	"gonum.org/v1/gonum/mat"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Swatch is something to be painted and read, that makes recipes surer.
type Swatch struct {
	Recipe recipe.Recipe // that a hand can count
	Spread float64       // of the recipes once it and all before it were read
}

// SwatchPlan is what to paint to be surer.
type SwatchPlan struct {
	Now      float64      // standard deviation of the logarithms of the recipes' ratios: the root of their mean variance
	Swatches []Swatch     // the most telling first
	By       paint.Source // what they are read by
}

// Says is whether few swatches are enough, in a sentence; empty where there are none.
func (s *SwatchPlan) Says() string {
	const few = 3
	if len(s.Swatches) == 0 {
		return ""
	}
	at := min(few, len(s.Swatches))
	halved := certainty.KnownTo(s.Swatches[at-1].Spread) <= certainty.KnownTo(s.Now)/2
	switch {
	case !halved && s.By == paint.Instrument:
		return "Three do not halve it: so many recipes ask for more of them."
	case !halved:
		return "Three do not halve it, read so; a meter would tell more."
	case at < few:
		return "They halve it."
	}
	return "Three halve it."
}

// SwatchOptions says how swatches are painted and read.
type SwatchOptions struct {
	In      paint.Medium
	Spacing path.Spacing
	White   *paint.Paint // for tints; nil for none
	Source  paint.Source // what they are read by
	Doubts  certainty.Doubts
	Strays  func(recipe.Recipe) []float64 // of a hand, in shares of each of its plain parts; nil for what is weighed
}

// PlanWheelSwatches are the swatches that narrow the mixtures of a wheel the most. The error is an input.Error.
func PlanWheelSwatches(w *wheel.Wheel, o SwatchOptions) (SwatchPlan, error) {
	o.Spacing = w.Spacing
	if !o.In.LightenWithWater {
		o.White = w.System.Rider(wheel.WhiteRider)
	}
	return PlanSwatches(w.Paths(), w.System.Paints(), o)
}

// PlanBoxSwatches are those that narrow the half ways of every two paints of a box the most, white in a medium that is lightened
// with it. Paints without a hue are left out: they have no half way by hue. The error is an input.Error.
func PlanBoxSwatches(box []*paint.Paint, o SwatchOptions) (SwatchPlan, error) {
	var paints []*paint.Paint
	for _, p := range box {
		if p.Family == "white" {
			if o.White == nil && !o.In.LightenWithWater {
				o.White = p
			}
			continue
		}
		if p.Undertone().HasHue() {
			paints = append(paints, p)
		}
	}
	if len(paints) > mostOfBox {
		return SwatchPlan{}, input.Errorf("%d coloured paints make too many pairs to be surer of at once: up to %d; choose the swatches of a wheel", len(paints), mostOfBox)
	}
	var couples []path.Couple
	for i, b := range paints {
		for _, a := range paints[:i] {
			couples = append(couples, path.Couple{A: a, B: b})
		}
	}
	var paths []*path.Path
	for _, p := range path.PairAll(couples, o.Spacing) {
		paths = append(paths, p.Path)
	}
	return PlanSwatches(paths, paints, o)
}

// What is painted at once to be surer: so many swatches at the most, each of which brings at least so much, as a share of the
// mean variance of now.
const (
	MostSwatches = 6
	leastBrought = 0.005
	mostSwatched = 40 // paints
	mostOfBox    = 24 // paints of which every two are looked at
)

// ofSwatches is how far a swatch strays that is read off a photo of a few, CIEDE2000 in each component: what the phone does
// to colours stays open then.
const ofSwatches = 1.44

// tint is how much white a swatch of one paint has.
const tint = 9

// PlanSwatches are the swatches of some paints that narrow the recipes half way along some paths the most: of all tints, half
// ways and tertiaries of theirs, also of pairs that are no recipe, one after the other the one that leaves the least mean
// variance with those before it, by the linear update of what is known of the tubes together [Kalman 1960]. The error is an
// input.Error.
func PlanSwatches(recipes []*path.Path, paints []*paint.Paint, o SwatchOptions) (SwatchPlan, error) {
	s, err := newSwatchSearch(recipes, paints, o)
	if err != nil {
		return SwatchPlan{}, err
	}
	all := s.candidates()
	telling := s.telling(all)
	out := SwatchPlan{Now: s.spread(), By: o.Source}
	least := leastBrought * out.Now * out.Now * float64(len(s.wanted))
	for len(out.Swatches) < MostSwatches && len(all) > 0 {
		best, most := -1, least
		for i := range all {
			if all[i] == nil {
				continue
			}
			if gain := s.gain(telling[i]); gain > most {
				best, most = i, gain
			}
		}
		if best < 0 {
			break
		}
		s.read(telling[best])
		out.Swatches = append(out.Swatches, Swatch{all[best], s.spread()})
		all[best] = nil
	}
	return out, nil
}

// swatchSearch is what is known of some paints while swatches of them are chosen.
type swatchSearch struct {
	SwatchOptions
	paints []*paint.Paint
	off    []float64
	known  *mat.SymDense // covariance of strength, shade and cleanness of each
	wanted [][]float64   // how the logarithm of each recipe's ratio changes with them
}

func newSwatchSearch(recipes []*path.Path, paints []*paint.Paint, o SwatchOptions) (*swatchSearch, error) {
	paints = slices.DeleteFunc(slices.Clone(paints), func(p *paint.Paint) bool { return p.Family == "white" })
	if len(paints) == 0 || len(paints) > mostSwatched {
		return nil, input.Errorf("%d coloured paints: swatches are chosen of 1 to %d", len(paints), mostSwatched)
	}
	at := map[string]int{}
	for i, p := range paints {
		at[p.ID] = i
	}
	s := &swatchSearch{SwatchOptions: o, paints: paints, known: mat.NewSymDense(3*len(paints), nil)}
	joint := certainty.Together(paints, o.Doubts)
	for i, row := range joint.Covariance {
		for k := i; k < len(row); k++ {
			s.known.SetSym(i, k, row[k])
		}
	}
	s.off = joint.Off
	rows := make([][]float64, len(recipes))
	var working errgroup.Group
	working.SetLimit(runtime.GOMAXPROCS(0))
	for n, p := range recipes {
		a, one := at[p.A.ID]
		b, two := at[p.B.ID]
		if !one || !two || p.Indistinguishable() {
			continue
		}
		working.Go(func() error {
			rows[n] = make([]float64, 3*len(paints))
			for k, slopes := range certainty.Slopes(p, o.Spacing, o.Doubts) {
				copy(rows[n][3*[2]int{a, b}[k]:], slopes[:])
			}
			return nil
		})
	}
	if err := working.Wait(); err != nil {
		panic(err) // none fails
	}
	s.wanted = slices.DeleteFunc(rows, func(row []float64) bool { return row == nil })
	if len(s.wanted) == 0 {
		return nil, input.Errorf("there is no recipe of two of these paints to be surer of")
	}
	return s, nil
}

// candidates are the mixtures that may be painted.
func (s *swatchSearch) candidates() (out []recipe.Recipe) {
	if s.White != nil {
		for _, p := range s.paints {
			out = append(out, recipe.Of([]paint.Part{{Paint: p, Parts: 1}, {Paint: s.White, Parts: tint}}))
		}
	}
	var pairs [][2]*paint.Paint
	for i, a := range s.paints {
		for _, b := range s.paints[:i] {
			pairs = append(pairs, [2]*paint.Paint{b, a})
		}
	}
	found := make([][]recipe.Recipe, len(pairs))
	var working errgroup.Group
	working.SetLimit(runtime.GOMAXPROCS(0))
	for n, pair := range pairs {
		working.Go(func() error {
			p := path.New(pair[0], pair[1])
			if p.Indistinguishable() {
				return nil
			}
			for _, step := range p.Steps(3, s.Spacing) {
				if len(step.Parts.Plain()) == 2 {
					found[n] = append(found[n], step.Parts)
				}
			}
			return nil
		})
	}
	if err := working.Wait(); err != nil {
		panic(err) // none fails
	}
	return append(out, slices.Concat(found...)...)
}

// telling is how the reading of each mixture changes with the unknowns, over what it strays by: three rows each.
func (s *swatchSearch) telling(all []recipe.Recipe) []*mat.Dense {
	var samples []Sample
	for _, r := range all {
		one := Sample{Parts: r.Plain(), Noise: NoiseOf(s.Source, 0)}
		if s.Source == paint.Photo {
			one.Noise = ofSwatches
		}
		if s.Strays != nil {
			one.Strays = s.Strays(r)
		}
		samples = append(samples, one)
	}
	apart := func(p *paint.Paint) certainty.Doubt { // by itself, each unknown that there is
		d := s.Doubts(p)
		return certainty.Doubt{Strength: d.Strength, Shade: max(d.Shade, 0.01), Cleanness: max(d.Cleanness, 0.0001)}
	}
	f := newFit(samples, s.In, Sure{Doubts: apart})
	f, x := f.varied(f.start())
	place := make([]int, len(f.tubes))
	units := make([][3]float64, len(f.tubes))
	for k, p := range f.tubes {
		d := apart(p)
		place[k], units[k] = slices.Index(s.paints, p), [3]float64{1, d.Shade, d.Cleanness}
		off := s.off[3*place[k] : 3*place[k]+3]
		x[k], x[f.shade(k)], x[f.shade(k)+1] = off[0], off[1]/d.Shade, off[2]/d.Cleanness
	}
	for i := range samples {
		f.samples[i].Lab = f.look(i, x, nil)
	}
	f.hands(x)
	jac := f.jacobian(x)
	out := make([]*mat.Dense, len(all))
	for i := range all {
		out[i] = mat.NewDense(3, 3*len(s.paints), nil)
		for k := range f.tubes {
			for u, column := range []int{k, f.shade(k), f.shade(k) + 1} {
				for r := range 3 {
					out[i].Set(r, 3*place[k]+u, jac.At(3*i+r, column)/units[k][u])
				}
			}
		}
	}
	return out
}

// update is what a reading takes from the covariance: half, whose product with itself turned over that is.
func (s *swatchSearch) update(telling *mat.Dense) *mat.Dense {
	var across, of mat.Dense
	across.Mul(telling, s.known)
	of.Mul(&across, telling.T())
	sym := mat.NewSymDense(3, nil)
	for i := range 3 {
		for k := i; k < 3; k++ {
			sym.SetSym(i, k, (of.At(i, k)+of.At(k, i))/2)
		}
		sym.SetSym(i, i, sym.At(i, i)+1)
	}
	var chol mat.Cholesky
	chol.Factorize(sym) // of a covariance and the unit matrix: it is definite
	var lower mat.TriDense
	chol.LTo(&lower)
	var half mat.Dense
	if half.Solve(&lower, &across) != nil {
		return mat.NewDense(3, len(s.off), nil)
	}
	return &half
}

// gain is by how much a reading would lessen the sum of the variances of what is wanted.
func (s *swatchSearch) gain(telling *mat.Dense) (sum float64) {
	half := s.update(telling)
	for _, row := range s.wanted {
		var v mat.VecDense
		v.MulVec(half, mat.NewVecDense(len(row), row))
		sum += mat.Dot(&v, &v)
	}
	return sum
}

// read takes a reading in.
func (s *swatchSearch) read(telling *mat.Dense) {
	half := s.update(telling)
	var less mat.Dense
	less.Mul(half.T(), half)
	for i := range s.off {
		for k := i; k < len(s.off); k++ {
			s.known.SetSym(i, k, s.known.At(i, k)-less.At(i, k))
		}
	}
}

// spread is the root of the mean variance of what is wanted.
func (s *swatchSearch) spread() float64 {
	sum := 0.0
	for _, row := range s.wanted {
		v := mat.NewVecDense(len(row), row)
		sum += mat.Inner(v, s.known, v)
	}
	return math.Sqrt(max(0, sum) / float64(len(s.wanted)))
}
