package journal

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
	"gyrophane/core/text"
)

// Sample is a painted mixture as it was read; strengths are learned from dry ones.
type Sample struct {
	Region string
	Parts  []paint.Part // as they were really used, by volume
	Film   float64      // 0 for the medium's own
	Under  []Layer      // dry, that it was painted over, from below
	Lab    colour.Lab   // as it was read, D65
	Wet    bool         // it was wet then
	Noise  float64      // standard deviation of the reading, CIEDE2000, in each of its components
	Strays []float64    // that of each part, in shares of it; 3 % where there are none
	Photo  *PhotoSpot   // where it was read on a photo; nil where it was read otherwise
}

// Layer is what a sample was painted over.
type Layer struct {
	Parts []paint.Part
	Film  float64 // 0 for the medium's own
}

// glaze says that a sample is a film that was thinned where paint is laid as it comes, or one over others.
func (s *Sample) glaze(in paint.Medium) bool {
	return len(s.Under) > 0 || s.Film > 0 && !in.LightenWithWater
}

// TellsTubes says that a sample can tell the strengths of its tubes: a glaze of a medium that hides its
// ground cannot, for only mixtures tell those, and not how thick a hand laid it.
func (s *Sample) TellsTubes(in paint.Medium) bool {
	return !s.glaze(in) || !math.IsInf(in.Thickness, 1)
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
	Film      *Film   // how thick the medium lies, where it is that which is another; nil else
	Overall   []Cause // of all places together: see Unsettled
	Photos    []Bent  // the photos whose rendering was fitted
	// Joint is what is known of the tubes together, in the order of Strengths, once what is offered is taken.
	Joint *certainty.Joint
	told  []told // of each group of which there is something to say
}

// Film is how thick a medium is laid, over what it was taken to be.
type Film struct{ Old, New, Low, High float64 } // the last two are 95 in 100

// Over is the film where what it was taken to be is so many times the usual one.
func (f Film) Over(old float64) Film { return Film{old, old * f.New, old * f.Low, old * f.High} }

// Bent is what a photo does to colours.
type Bent struct {
	Of        *Photograph
	Rendering photo.Rendering
	Places    int
	Poor      bool // it is a poor meter: nothing is learned from it
	Few       bool // too few of its places are known to tell what it does: nor from this one
}

// Says is what a photo does to colours and what came of that, in a sentence; empty where there is nothing
// to say.
func (b *Bent) Says() string {
	switch {
	case b.Few:
		return fmt.Sprintf("Of this photo %d places can be believed: too few to tell what the phone does to colours, and nothing is learned from it. A lighter one, or readings by eye, would do.", b.Places)
	case b.Poor:
		return "This photo is a poor meter: its places differ from each other as no phone and no tube makes them. Nothing is learned from it."
	}
	if does := b.Rendering.Says(); does != "" {
		return "This photo " + does + ": taken out."
	}
	return ""
}

const (
	nonsense    = 12.0 // mean CIEDE2000, before and after, of readings that are of something else
	priorWidth  = 0.5  // of the logarithm of a strength
	learnBetter = 0.9  // left-out error, over that of before
	settledTo   = 1.9  // high over low
	// fewestLearned is how many are learned from at the least.
	fewestLearned = 3
	// MostSamples is how many are learned from at once.
	MostSamples = 1000
)

// What a photo may leave unexplained, CIEDE2000 a component and squares a degree of freedom: beyond
// that it is a poor meter.
const (
	mostPhotoOff = 2.0
	mostPhotoChi = 2.0
)

// Learn finds the strengths of the tubes in use, and where the medium's film is finite its thickness,
// that explain what was read of dry mixtures best: by least squares of the components of CIEDE2000 over
// what readings and a hand stray by, with a prior about the strengths as they are taken to be; what a
// photo does to all of its places alike is found with them. White keeps its strength. The error is an
// input.Error.
func Learn(samples []Sample, in paint.Medium, sure Sure) (Learned, error) {
	kept, few := newFit(samples, in, sure).known()
	if len(few) > 0 && len(kept) < fewestLearned {
		return Learned{}, input.Errorf("%s", few[0].Says())
	}
	out, err := learn(kept, in, sure)
	poor := func(b Bent) bool { return b.Poor }
	if err == nil && slices.ContainsFunc(out.Photos, poor) {
		rest := slices.DeleteFunc(kept, func(s Sample) bool {
			return s.Photo != nil && slices.ContainsFunc(out.Photos, func(b Bent) bool { return b.Poor && b.Of == s.Photo.Of })
		})
		few = append(few, slices.DeleteFunc(slices.Clone(out.Photos), func(b Bent) bool { return !poor(b) })...)
		if out, err = learn(rest, in, sure); err != nil {
			return Learned{}, input.Errorf("%s", few[len(few)-1].Says())
		}
	}
	out.Photos = append(out.Photos, few...)
	return out, err
}

func learn(samples []Sample, in paint.Medium, sure Sure) (Learned, error) {
	if len(samples) < fewestLearned || len(samples) > MostSamples {
		return Learned{}, input.Errorf("%d readings: strengths are learned from %d to %d", len(samples), fewestLearned, MostSamples)
	}
	f := newFit(samples, in, sure)
	if len(f.tubes) == 0 {
		return Learned{}, input.Errorf("there are no coloured paints in what was read")
	}
	x := f.start()
	// What a hand strays by depends on how strong the tubes are: once more with those found.
	for range 2 {
		f.hands(x)
		x = f.best(x)
	}
	return f.learned(x)
}

// bent are the renderings of the photos, and which of them are poor meters by what is left of their places.
func (f *fit) bent(x []float64) (out []Bent) {
	rest := f.residuals(x)
	for n, p := range f.photos {
		one := Bent{Of: p, Rendering: *f.rendered(n, x)}
		chi, off := 0.0, 0.0
		for i := range f.samples {
			if f.photo[i] == n {
				one.Places++
				chi += squares(rest[3*i : 3*i+3])
				size := f.noise[i].size(rest[3*i : 3*i+3])
				off += size * size
			}
		}
		of := 3 * float64(one.Places)
		one.Poor = math.Sqrt(off/of) > mostPhotoOff || chi/math.Max(1, of-photo.Figures) > mostPhotoChi
		out = append(out, one)
	}
	return out
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

// Tubes are the paints that were learned of as they are once what is offered is taken, by the ids of their paints.
func (l *Learned) Tubes() (map[string]*paint.Paint, error) {
	out := map[string]*paint.Paint{}
	for _, s := range l.Strengths {
		out[s.Paint.ID] = s.Paint
	}
	for _, s := range l.Offer() {
		tube, err := s.Paint.Tube(s.Paint.ID, paint.BoundedStrength(s.New/s.Old))
		if err != nil {
			return nil, err
		}
		out[s.Paint.ID] = tube
	}
	return out, nil
}

// Doubts says what is not known of those tubes then, and of all other paints as before. It needs what is known together.
func (l *Learned) Doubts(before certainty.Doubts) certainty.Doubts {
	at := map[string]int{}
	for i, s := range l.Strengths {
		at[s.Paint.ID] = i
	}
	return func(p *paint.Paint) certainty.Doubt {
		if i, learned := at[p.ID]; learned && l.Joint != nil {
			return l.Joint.Doubt(i)
		}
		return before(p)
	}
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
	if open := Unsettled(l.Overall); len(open) > 0 {
		for _, c := range open {
			out = append(out, text.UpperFirst(c.Says)+".")
		}
		return out
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

// change is a tube that is so many times as strong as it was taken for; without a tube it is the film,
// which is so many times as thick.
type change struct {
	paint *paint.Paint
	by    float64
	in    string // the medium of the film
}

func inWords(all []change) string {
	var out []string
	for _, c := range all {
		if c.paint == nil {
			out = append(out, fmt.Sprintf("the %s is laid about %.2g times as thick as usual", c.in, c.by))
			continue
		}
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
func (f *fit) learned(x []float64) (Learned, error) {
	none := f.only(nil, x)
	start := f.residuals(none)
	out := Learned{Before: f.errorOf(start), Samples: len(f.samples), Separate: slices.Max(f.groups) + 1}
	// Noise that is larger than it is said to be widens the intervals.
	chi, free := f.chi(x), 0
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
	scale := f.scale(x)
	gauges := f.gauges(x, scale)
	named := f.named(&out, x, gauges)
	for _, c := range f.overall(x, gauges) {
		if !slices.ContainsFunc(out.Overall, func(o Cause) bool { return o.Same(c) }) {
			out.Overall = append(out.Overall, c)
		}
	}
	taken := f.only(named, x)
	out.Photos = f.bent(f.only(changed(gauges), x))
	all, err := f.jointly(x, slices.Contains(named, f.film()))
	if err != nil {
		return Learned{}, err
	}
	centre, spread := f.beside(named, all.at, all.cov)
	rest := f.residuals(taken)
	var jac *mat.Dense
	f.freeing(named, func() { jac = f.jacobian(taken) })
	out.After = f.errorOf(rest)
	inverse, err := f.spread(jac)
	if err != nil {
		return Learned{}, err
	}
	out.LeftOut = f.leftOut(rest, jac, inverse)
	interval := func(i int, at, sd float64) (low, high float64) {
		return math.Exp(min(at-1.96*sd, taken[i])), math.Exp(max(at+1.96*sd, taken[i]))
	}
	for i, p := range f.tubes {
		known := f.fixed[f.groups[i]] || size[f.groups[i]] > 1
		at, sd := centre[i], spread[i]
		if !known {
			at, sd = 0, all.width[i]
		}
		one := Strength{Paint: p, Old: p.Strength(), Group: f.groups[i], New: p.Strength() * math.Exp(taken[i]), Named: slices.Contains(named, i)}
		low, high := interval(i, at, sd)
		one.Low, one.High = p.Strength()*low, p.Strength()*high
		one.Settled = known && one.High < settledTo*one.Low
		out.Strengths = append(out.Strengths, one)
	}
	if film := f.film(); slices.Contains(named, film) {
		low, high := interval(film, taken[film], math.Sqrt(scale*inverse.At(film, film)))
		out.Film = &Film{1, math.Exp(taken[film]), low, high}
	}
	if free > 0 {
		drop := f.chi(none) - chi
		out.Chance = 1 - distuv.ChiSquared{K: float64(free)}.CDF(math.Max(0, drop/scale))
		out.Proposed = len(named) > 0 && out.Chance < 0.05 && out.LeftOut < learnBetter*out.Before
	}
	if out.Nonsense = f.nonsense(none) && f.nonsense(x); out.Nonsense || len(Unsettled(out.Overall)) > 0 {
		out.Proposed = false
	}
	if out.Chance >= 0.05 || out.Nonsense {
		out.told = nil
	}
	if !out.Proposed {
		out.Film = nil
		taken = none
	}
	if out.Nonsense || len(Unsettled(out.Overall)) > 0 {
		return out, nil // nothing is known by it
	}
	out.Joint = all.joint(taken)
	return out, nil
}

// spread is the covariance of the unknowns that are free.
func (f *fit) spread(jac *mat.Dense) (*mat.SymDense, error) {
	var chol mat.Cholesky
	var inverse mat.SymDense
	if !chol.Factorize(f.information(jac)) || chol.InverseTo(&inverse) != nil {
		return nil, input.Errorf("the readings do not tell the strengths apart")
	}
	return &inverse, nil
}

// paints are the unknowns of what was painted: the strengths and, where it is finite, the film.
func (f *fit) paints() (out []int) {
	for i := range f.tubes {
		out = append(out, i)
	}
	if f.finite() {
		out = append(out, f.film())
	}
	return out
}

// gauge is a group of unknowns of which the fewest change, and the set that does.
type gauge struct {
	of       []int
	absolute bool // more than ratios are told
	best     []int
	or       []int // what is as likely; nil for none
}

// gauges are the groups of what was found, each with the fewest that explain it.
func (f *fit) gauges(x []float64, scale float64) (out []gauge) {
	var jac *mat.Dense
	f.freeing(f.paints(), func() { jac = f.jacobian(x) })
	widened := mat.NewSymDense(f.film()+1, nil)
	widened.ScaleSym(1/scale, f.ofPaint(jac))
	groups := [][]int{f.paints()}
	if !f.finite() {
		groups = make([][]int, len(f.fixed))
		for i, g := range f.groups {
			groups[g] = append(groups[g], i)
		}
	}
	for g, of := range groups {
		one := gauge{of: of, absolute: f.fixed[g]}
		best, or := f.fewest(of, one.absolute, x, widened, scale)
		if one.best = best.tubes; or != nil {
			one.or = or.tubes
		}
		out = append(out, one)
	}
	return out
}

// changed are the unknowns that change in some groups.
func changed(of []gauge) (out []int) {
	for _, g := range of {
		out = append(out, g.best...)
	}
	return out
}

// named finds which tubes are others than they were taken for (and the film), and what there is to say
// of each group.
func (f *fit) named(out *Learned, x []float64, gauges []gauge) (named []int) {
	least := math.Log(leastTold)
	if slices.ContainsFunc(f.samples, func(s Sample) bool { return s.Photo != nil }) {
		least = math.Log(leastOfPhoto)
	}
	spoken := func(set []int) (out []change, of []int) {
		at := f.only(set, x)
		for _, i := range set {
			one := change{by: math.Exp(at[i]), in: f.in.Name}
			if i != f.film() {
				one = change{paint: f.tubes[i], by: math.Exp(at[i])}
			}
			if math.Abs(at[i]) >= least {
				out, of = append(out, one), append(of, i)
			}
		}
		return out, of
	}
	for _, g := range gauges {
		says := told{}
		var of []int
		if says.of, of = spoken(g.best); len(of) == 0 {
			continue
		}
		switch {
		case slices.Contains(of, f.film()) && f.bare():
			out.Overall = append(out.Overall, f.undecided())
			continue
		case !g.absolute && len(g.of) == 2:
			other := g.of[0]
			if other == of[0] {
				other = g.of[1]
			}
			says.ratio = true
			says.of = append(says.of, change{paint: f.tubes[other], by: 1})
		case g.or != nil:
			says.or, _ = spoken(g.or)
		}
		out.told = append(out.told, says)
		if !says.ratio && len(says.or) == 0 { // else it is said, and not taken before it is settled
			named = append(named, of...)
		}
	}
	slices.Sort(named)
	return named
}

// bare says that there are photos without a grey that is known.
func (f *fit) bare() bool {
	return slices.ContainsFunc(f.photos, func(p *Photograph) bool { return len(p.Greys) == 0 })
}

// beside are the logarithms of the strengths, and how far the readings leave them open (standard
// deviation), beside the mean of the tubes of their group that are not named; as they are where white
// tells them.
func (f *fit) beside(named []int, x []float64, cov *mat.SymDense) (centre, spread []float64) {
	n := len(f.tubes)
	cov = cov.SliceSym(0, n).(*mat.SymDense)
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
	at.MulVec(to, mat.NewVecDense(n, x[:n:n]))
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
