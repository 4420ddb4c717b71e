package journal

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/internal/minimum"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
)

// The causes of all places of a sheet together.
const (
	OfPhoto   CauseKind = "photo"        // all places are bent alike
	OfLight   CauseKind = "light"        // a common shift of a* and b*
	OfFilm    CauseKind = "film"         // all of it lies thin, or thick
	WrongTube CauseKind = "not the tube" // a tube is another paint than it was taken for
)

// ThinOrPhoto is where all of it lies thin, or its photo makes it look so.
const ThinOrPhoto CauseKind = "thin, or the photo"

// Unsettled are those causes of all places together that must be answered before strengths are learned.
func Unsettled(of []Cause) (out []Cause) {
	for _, c := range of {
		if slices.Contains([]CauseKind{OfLight, WrongTube, ThinOrPhoto}, c.Kind) {
			out = append(out, c)
		}
	}
	return out
}

// Sure is what a painter is sure of, which is then a cause no more.
type Sure struct {
	Light  bool             // it was read in daylight
	Tubes  []string         // that are what they are taken for, by the ids of their paints
	Doubts certainty.Doubts // what is not known of the tubes before anything is read; nil for the usual
}

func (s *Sure) doubts() certainty.Doubts {
	if s.Doubts == nil {
		return certainty.Usual
	}
	return s.Doubts
}

// hypothesis is one way to explain all that was read, and what it costs: the squares that it leaves, and
// what its unknowns cost.
type hypothesis struct {
	cause Cause
	cost  float64
}

// nearest is how many paints are named that a tube may be instead.
const nearest = 3

// overall are the causes of all places together that the evidence carries: each by a margin over none of
// them and over the next best; two where both say the same. What changes by the gauges
// competes, and is not named itself. Tubes may be any paint of the library.
func (f *fit) overall(x []float64, gauges []gauge) (out []Cause) {
	none := f.only(nil, x)
	if f.nonsense(none) && f.nonsense(x) {
		return nil
	}
	scale := f.scale(x)
	perUnknown := math.Log(float64(3 * len(f.samples)))
	base := f.chi(none) / scale
	var all []hypothesis
	sets := [][]int{changed(gauges)}
	if f.finite() && !slices.Equal(sets[0], []int{f.film()}) {
		sets = append(sets, []int{f.film()})
	}
	for _, set := range sets {
		if len(set) == 0 {
			continue
		}
		at := f.only(set, x)
		one := hypothesis{cost: f.chi(at) / scale}
		for _, i := range set {
			one.cost += f.price(i)
		}
		if slices.Equal(set, []int{f.film()}) {
			one.cause = f.thinned(math.Exp(at[f.film()]))
		}
		all = append(all, one)
	}
	left := f.linearised(none)
	if light, ok := left.light(); ok && !f.sure.Light {
		if f.finite() && f.bare() {
			light.cause = f.undecided()
		}
		light.cost = light.cost/scale + 2*perUnknown
		all = append(all, light)
	}
	all = append(all, left.wrongTubes(scale, perUnknown)...)
	if slices.ContainsFunc(all, func(h hypothesis) bool { return h.cause.Kind != "" && base-h.cost >= chiMargin }) {
		all = append(all, f.asTubesDiffer(x, scale))
	}
	slices.SortStableFunc(all, func(a, b hypothesis) int { return cmp.Compare(a.cost, b.cost) })
	for _, one := range all {
		if base-one.cost < chiMargin || one.cost-all[0].cost >= chiMargin {
			break
		}
		if one.cause.Kind != "" {
			out = append(out, one.cause)
		}
	}
	if len(out) > 2 {
		out = nil // too many say the same
	}
	return append(f.bentAlike(x), out...)
}

// asTubesDiffer is that the tubes have other strengths, shades and cleanness, as tubes of a pigment have:
// no cause, and often as good as one. It costs what is not known of tubes, and no more.
func (f *fit) asTubesDiffer(x []float64, scale float64) hypothesis {
	all, at := f.varied(x)
	at = all.best(at)
	prior := all.prior(at, 0)
	return hypothesis{cost: squares(all.residuals(at))/scale + prior}
}

// nonsense says that readings have nothing to do with what was painted.
func (f *fit) nonsense(x []float64) bool { return f.errorOf(f.residuals(x)) > nonsense }

// thinned is a film of so many times the usual thickness as a cause.
func (f *fit) thinned(by float64) Cause {
	if f.bare() {
		return f.undecided()
	}
	return Cause{Kind: OfFilm, Amount: by, Says: fmt.Sprintf("all of it lies about %.2g times as thick as usual", by)}
}

// undecided is a thin film, or what a photo without a known grey makes look like one.
func (f *fit) undecided() Cause {
	return Cause{Kind: ThinOrPhoto, Says: "it lies thin, or the photo does it: these readings cannot tell; a photo of the printed sheet with all four marks, or a reading by eye, would"}
}

// scale is by how much noise is larger than it is said to be.
func (f *fit) scale(x []float64) float64 {
	rest := f.residuals(x)
	return math.Max(1, squares(rest)/math.Max(1, float64(len(rest)-len(f.tubes)-photo.Figures*len(f.photos))))
}

// bentAlike are the photos whose rendering explains what the tubes, as they were found, do not.
func (f *fit) bentAlike(x []float64) (out []Cause) {
	for n, bent := range f.bent(x) {
		plain := slices.Clone(x)
		for k := range photo.Figures {
			plain[f.rendering(n)+k] = 0
		}
		if says := bent.Says(); says != "" && f.chi(plain)-f.chi(x) > photo.Figures*math.Log(float64(3*len(f.samples)))+chiMargin {
			out = append(out, Cause{Kind: OfPhoto, Says: says})
		}
	}
	return out
}

// linear is what is left of samples where no strength is another, and how it changes with the
// renderings.
type linear struct {
	f     *fit
	x     []float64
	rest  []float64
	prior float64
	bent  *mat.Dense   // the residuals' change with each figure of the renderings; nil without photos
	known mat.Cholesky // of its curvature and what is known of renderings
	off   []float64    // how far the renderings are from what is usual, over their variance
}

func (f *fit) linearised(x []float64) *linear {
	out := &linear{f: f, x: x, rest: f.residuals(x), prior: f.prior(x, f.film()+1)}
	first := f.film() + 1
	if first == len(x) {
		return out
	}
	var jac *mat.Dense
	f.freeing(nil, func() { jac = f.jacobian(x) })
	rows, _ := jac.Dims()
	out.bent = mat.DenseCopyOf(jac.Slice(0, rows, first, len(x)))
	a := curvature(out.bent)
	for i := range len(x) - first {
		w := f.width[first+i] * f.width[first+i]
		a.SetSym(i, i, a.At(i, i)+1/w)
		out.off = append(out.off, (x[first+i]-f.usual[first+i])/w)
	}
	if !out.known.Factorize(a) {
		out.bent = nil
	}
	return out
}

// cost is the least that residuals cost with the renderings free.
func (l *linear) cost(rest []float64) float64 {
	sum := squares(rest) + l.prior
	if l.bent == nil {
		return sum
	}
	n := len(l.off)
	b := mat.NewVecDense(n, nil)
	b.MulVec(l.bent.T(), mat.NewVecDense(len(rest), rest))
	for i, v := range l.off {
		b.SetVec(i, b.AtVec(i)+v)
	}
	var solved mat.VecDense
	if l.known.SolveVecTo(&solved, b) != nil {
		return sum
	}
	return sum - mat.Dot(b, &solved)
}

// lightLeast is how far the shift of a light goes at the least to be spoken of, CIELAB.
const lightLeast = 2.0

// light is a common shift of a* and b*: the least by its two figures.
func (l *linear) light() (out hypothesis, ok bool) {
	f := l.f
	var painted []colour.Lab
	for i := range f.samples {
		painted = append(painted, f.painted(i, l.x, nil))
	}
	shifted := func(a, b float64) []float64 {
		rest := slices.Clone(l.rest)
		for i, lab := range painted {
			lab.A, lab.B = lab.A+a, lab.B+b
			d := f.noise[i].in(colour.Components(f.shown(i, lab, l.x), f.samples[i].Lab))
			for c, v := range d {
				rest[3*i+c] = v * f.weight(i)
			}
		}
		return rest
	}
	a, b := 0.0, 0.0
	best := l.cost(l.rest)
	// By turns along each, as the two hardly hang together.
	for range 3 {
		a = minimum.Golden(a-8, a+8, 14, func(v float64) float64 { return l.cost(shifted(v, b)) })
		b = minimum.Golden(b-8, b+8, 14, func(v float64) float64 { return l.cost(shifted(a, v)) })
	}
	at := l.cost(shifted(a, b))
	if at >= best || math.Hypot(a, b) < lightLeast {
		return out, false
	}
	toward := colour.Tinge(a, b)
	return hypothesis{Cause{Kind: OfLight, Amount: math.Hypot(a, b), Says: fmt.Sprintf("all places are %s alike, by about %.0f: the light that they were read in", toward, math.Hypot(a, b))}, at}, true
}

// What is tried of a tube that may be another paint.
const (
	mostPlaces   = 16  // with it
	leastOfNoise = 0.4 // of squares that no paint explains, a component
	farthestTube = 1.1 // logarithm of the strength of the other paint
)

// wrongTubes are the tubes that may be another paint of the library, each with those that explain what
// was read best. Squares are over scale; a strength costs perUnknown, and the choice of a paint twice the
// logarithm of how many there are.
func (l *linear) wrongTubes(scale, perUnknown float64) (out []hypothesis) {
	f := l.f
	library := paint.Library()
	price := perUnknown + 2*math.Log(float64(len(library)))
	now := l.cost(l.rest)
	for k, tube := range f.tubes {
		if slices.Contains(f.sure.Tubes, tube.ID) {
			continue
		}
		var places []int
		most := 0.0
		for i := range f.samples {
			if slices.Contains(f.of[i], k) {
				places = append(places, i)
				most += squares(l.rest[3*i:3*i+3]) - 3*leastOfNoise
			}
		}
		if most < scale*price {
			continue
		}
		type candidate struct {
			paint *paint.Paint
			cost  float64
		}
		var all []candidate
		y := slices.Clone(l.x) // with the tube's strength
		cost := func(p *paint.Paint, at float64, places []int) float64 {
			f.swaps = map[int]*paint.Paint{k: p}
			y[k] = at
			rest := slices.Clone(l.rest)
			for _, i := range places {
				d := f.noise[i].in(colour.Components(f.look(i, y, nil), f.samples[i].Lab))
				for c, v := range d {
					rest[3*i+c] = v * f.weight(i)
				}
			}
			f.swaps = nil
			return l.cost(rest) + at*at/(priorWidth*priorWidth)
		}
		some := places
		for len(some) > mostPlaces {
			// Every other one of them.
			var next []int
			for n, i := range some {
				if n%2 == 0 {
					next = append(next, i)
				}
			}
			some = next
		}
		for _, p := range library {
			if p.ID == tube.ID || p.Family == "white" {
				continue
			}
			all = append(all, candidate{p, cost(p, 0, some)})
		}
		slices.SortStableFunc(all, func(a, b candidate) int { return cmp.Compare(a.cost, b.cost) })
		all = all[:min(len(all), 2*nearest)]
		for n := range all {
			c := &all[n]
			y[k] = minimum.Golden(-farthestTube, farthestTube, 10, func(v float64) float64 { return cost(c.paint, v, places) })
			f.swaps = map[int]*paint.Paint{k: c.paint}
			fitted := f.only([]int{k}, y)
			c.cost = f.chi(fitted) + fitted[k]*fitted[k]/(priorWidth*priorWidth)
			f.swaps = nil
		}
		slices.SortStableFunc(all, func(a, b candidate) int { return cmp.Compare(a.cost, b.cost) })
		if len(all) == 0 || now-all[0].cost < scale*price {
			continue
		}
		one := hypothesis{Cause{Kind: WrongTube, Paint: tube}, all[0].cost/scale + price}
		for _, c := range all[:min(len(all), nearest)] {
			one.cause.Like = append(one.cause.Like, c.paint)
		}
		one.cause.Says = fmt.Sprintf("the %s behaves as another paint, most like %s: two swatches of it, straight and 1 to 9 in white, would tell", tube.ShortName(), anyOf(one.cause.Like))
		out = append(out, one)
	}
	return out
}

// anyOf names some paints, of which one is meant.
func anyOf(paints []*paint.Paint) (says string) {
	for n, p := range paints {
		switch {
		case n == 0:
		case n == len(paints)-1:
			says += " or "
		default:
			says += ", "
		}
		says += p.ShortName()
	}
	return says
}
