package journal

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/internal/minimum"
	"gyrophane/core/paint"
)

// CauseKind is what may have made a painted place another colour than was computed.
type CauseKind string

// The causes that are looked for.
const (
	OfAmount      CauseKind = "amount"        // more or less of one of its paints went in
	OfTube        CauseKind = "tube"          // a tube is stronger or weaker, as other places say too
	Contamination CauseKind = "contamination" // a trace of a third paint in use
	TooThin       CauseKind = "too thin"      // the film
)

// Cause is one that the evidence carries.
type Cause struct {
	Kind   CauseKind
	Paint  *paint.Paint   // nil of a film, a photo and a light
	Like   []*paint.Paint // what a tube may be instead, the likeliest first
	Amount float64        // times as much, the share of the trace, or the film over the usual one
	Says   string
	Chi    float64 // squares of what is left unexplained, in units of noise, with the prior of the amount
	// Mixture is what the place was then painted with, the same of another film.
	Mixture paint.Mixture
	Leaves  float64 // CIEDE2000 of the reading to that
}

// Same says that two causes are of the same kind and paint.
func (c Cause) Same(other Cause) bool {
	return c.Kind == other.Kind && (c.Paint == nil) == (other.Paint == nil) && (c.Paint == nil || c.Paint.ID == other.Paint.ID)
}

// Explained is a place, how it differs from what was computed, and why.
type Explained struct {
	Region     string
	Computed   colour.Lab
	Read       colour.Lab // as it was read, without what a photo did to it
	Difference float64    // CIEDE2000
	By         [3]float64 // its components: lighter, more chroma, round in hue
	AsComputed bool       // no more than readings and hands stray, or than is seen
	// Causes are the likeliest, none where it is not explained; two where both say the same.
	Causes []Cause
	// Painted is what it was painted with as far as that is known: as computed, or by its
	// likeliest cause; nil where it is not explained.
	Painted *paint.Mixture
}

// OfItsTubes says that a place may differ by what its tubes are: as it is not known to
// differ for something that got into it, or for its film.
func (e *Explained) OfItsTubes() bool {
	return len(e.Causes) == 0 || slices.ContainsFunc(e.Causes, func(c Cause) bool { return c.Kind == OfAmount || c.Kind == OfTube })
}

// What the evidence must carry.
const (
	chiMargin   = 4.0  // over none, and over the next best
	chiFits     = 9.2  // of what is left: one in a hundred of two degrees of freedom
	chiOrdinary = 7.8  // of all three components: one in twenty
	chiOthers   = 6.0  // that other places say of a tube
	fewestTube  = 2    // other places that say it
	amountPrior = 0.6  // of the logarithm of an amount
	tracePrior  = 0.06 // share
	filmPrior   = 0.6  // of the logarithm of a film
	opaqueFilm  = 4.0  // thickness from which a film of an opaque medium is taken to thin
)

// Explanation is how all that was read differs from what is computed, and why.
type Explanation struct {
	Places  []Explained // one for each sample
	Overall []Cause     // of all places together; of a photo, what it does to colours
	Photos  []Bent      // the photos whose rendering was found, and taken out
}

// OfUnknownPhoto is the doubt of a reading from a photo of which too few places can be believed to tell
// what it does to colours.
const OfUnknownPhoto = "what its photo does to colours is not known"

// Taken is a reading without what its photo did to it; where that was not found it is as it was read, and
// doubted.
func (e *Explanation) Taken(r Reading) Reading {
	if r.Photo == nil || r.Photo.Of == nil {
		return r
	}
	for _, b := range e.Photos {
		if b.Of == r.Photo.Of && !b.Few {
			paper := b.Rendering.On(r.Photo.Light)
			r.Lab, _ = paper.Taken(r.Lab)
			return r
		}
	}
	r.Doubt = cmp.Or(r.Doubt, OfUnknownPhoto)
	return r
}

// Explain says of each sample how it differs from what is computed, and what is likely to
// have caused it: one cause against none and against the next best, by the squares of
// what it leaves. Each sample's own paints and all others in use are tried. What explains all
// places together goes before.
func Explain(samples []Sample, in paint.Medium, sure Sure) (out Explanation) {
	if len(samples) == 0 {
		return out
	}
	f := newFit(samples, in, sure)
	f.planned = f.start()
	if known, few := f.known(); len(known) > 0 {
		out.Photos = few
		of := f
		if len(few) > 0 {
			of = newFit(known, in, sure)
		}
		found := of.robust()
		gauges := of.gauges(found, of.scale(found))
		best := of.only(changed(gauges), found)
		// A photo bends the places as they are, and not as they were planned.
		copy(f.planned[f.film()+1:], best[of.film()+1:])
		out.Photos = append(out.Photos, of.bent(best)...)
		out.Overall = of.overall(found, gauges)
	}
	f.hands(f.planned)
	f.weights = nil
	base := make([]float64, len(samples))
	for i := range samples {
		base[i] = f.chiOf(i, f.painted(i, f.planned, nil))
	}
	for i := range samples {
		one := Explained{Region: samples[i].Region, Computed: f.painted(i, f.planned, nil), Read: f.taken(i)}
		one.Difference = colour.Difference(one.Computed, one.Read)
		one.By = colour.Components(one.Computed, one.Read)
		// What nobody sees asks for nothing, however fine the meter.
		one.AsComputed = base[i] < chiOrdinary || one.Read.OKLab().Beside(one.Computed.OKLab()) == colour.NoDifference
		if one.AsComputed {
			if m, err := paint.Mix(samples[i].Parts...); err == nil {
				one.Painted = &m
			}
		} else if one.Causes = f.likeliest(i, base); len(one.Causes) > 0 {
			one.Painted = &one.Causes[0].Mixture
		}
		out.Places = append(out.Places, one)
	}
	return out
}

// farOff is how far off a sample lies, in its noise, from which on it counts less.
const farOff = 2.5

// robust are the unknowns of least cost where places that lie far off count less [Huber 1964].
func (f *fit) robust() []float64 {
	x := f.start()
	f.hands(x)
	for range 4 {
		x = f.best(x)
		f.weights = nil
		rest := f.residuals(x)
		f.weights = make([]float64, len(f.samples))
		for i := range f.weights {
			off := math.Sqrt(squares(rest[3*i:3*i+3]) / 3)
			f.weights[i] = math.Sqrt(math.Min(1, farOff/math.Max(off, 1e-9)))
		}
	}
	return x
}

// taken is a sample as it was read, without what its photo did to it.
func (f *fit) taken(i int) colour.Lab {
	if paper, ok := f.paper(i, f.planned); ok {
		lab, _ := paper.Taken(f.samples[i].Lab)
		return lab
	}
	return f.samples[i].Lab
}

// chiOf is how far a sample lies from its reading where it has such a colour, in squares of its noise.
func (f *fit) chiOf(i int, lab colour.Lab) (sum float64) {
	for _, v := range f.noise[i].in(colour.Components(f.shown(i, lab, f.planned), f.samples[i].Lab)) {
		sum += v * v
	}
	return sum
}

// left is the CIEDE2000 of a sample's reading to a colour.
func (f *fit) left(i int, lab colour.Lab) float64 { return colour.Difference(lab, f.taken(i)) }

// likeliest are the causes of a sample that the evidence carries.
func (f *fit) likeliest(i int, base []float64) []Cause {
	var all []Cause
	all = append(all, f.tubesOf(i, base)...)
	all = append(all, f.amounts(i)...)
	all = append(all, f.traces(i)...)
	all = append(all, f.thin(i)...)
	slices.SortStableFunc(all, func(a, b Cause) int { return cmp.Compare(a.Chi, b.Chi) })
	// A tube that other places speak of as well says all that another amount of it says.
	for _, tube := range all {
		if tube.Kind == OfTube && tube.Chi-all[0].Chi < chiMargin {
			all = slices.DeleteFunc(all, func(c Cause) bool { return c.Kind == OfAmount && c.Paint == tube.Paint })
			break
		}
	}
	if len(all) == 0 || all[0].Chi > chiFits || base[i]-all[0].Chi < chiMargin {
		return nil
	}
	near := slices.DeleteFunc(slices.Clone(all[1:]), func(c Cause) bool { return c.Chi-all[0].Chi >= chiMargin || base[i]-c.Chi < chiMargin })
	switch {
	case len(near) == 0:
		return all[:1]
	case len(near) == 1:
		return []Cause{all[0], near[0]}
	}
	return nil // too many say the same
}

// least is the parameter of least cost from one bound to another, by a grid and a
// golden section about its best.
func least(from, to float64, cost func(v float64) float64) (at, best float64) {
	const n = 24
	step := (to - from) / n
	best = math.Inf(1)
	for k := range n + 1 {
		if c := cost(from + step*float64(k)); c < best {
			at, best = from+step*float64(k), c
		}
	}
	low, high := math.Max(from, at-step), math.Min(to, at+step)
	at = minimum.Golden(low, high, 24, cost)
	return at, cost(at)
}

// times says how much more or less there is.
func times(v float64) string {
	if v >= 1 {
		return fmt.Sprintf("%.1f times as much", v)
	}
	return fmt.Sprintf("%.0f %% of", 100*v)
}

// amounts is another amount of the lesser of two paints.
func (f *fit) amounts(i int) []Cause {
	s := &f.samples[i]
	if len(s.Parts) != 2 {
		return nil
	}
	n := 0
	if s.Parts[1].Parts < s.Parts[0].Parts {
		n = 1
	}
	none := f.planned
	at, chi := least(-1.8, 1.8, func(v float64) float64 {
		share := []float64{1, 1}
		share[n] = math.Exp(v)
		return f.chiOf(i, f.painted(i, none, share)) + v*v/(amountPrior*amountPrior)
	})
	p := s.Parts[n].Paint
	share := []float64{1, 1}
	share[n] = math.Exp(at)
	return []Cause{{Kind: OfAmount, Paint: p, Amount: math.Exp(at), Says: fmt.Sprintf("as if %s %s had gone in", times(math.Exp(at)), p.ShortName()), Chi: chi, Mixture: f.mixed(i, none, share), Leaves: f.left(i, f.painted(i, none, share))}}
}

// tubesOf are tubes of the sample that are stronger or weaker as the other places say
// that hold them.
func (f *fit) tubesOf(i int, base []float64) (out []Cause) {
	for _, k := range slices.Compact(slices.Sorted(slices.Values(f.of[i]))) {
		if k < 0 || len(f.samples[i].Parts) < 2 {
			continue
		}
		var others []int
		for j := range f.samples {
			if j != i && len(f.samples[j].Parts) > 1 && slices.Contains(f.of[j], k) {
				others = append(others, j)
			}
		}
		if len(others) < fewestTube {
			continue
		}
		x := slices.Clone(f.planned)
		cost := func(v float64) (sum float64) {
			x[k] = v
			for _, j := range others {
				sum += f.chiOf(j, f.painted(j, x, nil))
			}
			return sum + v*v/(priorWidth*priorWidth)
		}
		at, chi := least(-1.5, 1.5, cost)
		before := 0.0
		for _, j := range others {
			before += base[j]
		}
		if before-chi < chiOthers {
			continue
		}
		x[k] = at
		g := math.Exp(at)
		says := fmt.Sprintf("the %s is %.1f times as strong as it was taken for, as %d other places say", f.tubes[k].ShortName(), g, len(others))
		out = append(out, Cause{Kind: OfTube, Paint: f.tubes[k], Amount: g, Says: says, Chi: f.chiOf(i, f.painted(i, x, nil)), Mixture: f.mixed(i, x, nil), Leaves: f.left(i, f.painted(i, x, nil))})
	}
	return out
}

// traces are traces of the other paints in use.
func (f *fit) traces(i int) (out []Cause) {
	s := &f.samples[i]
	whole := 0.0
	for _, p := range s.Parts {
		whole += p.Parts
	}
	ground := f.ground(i, f.planned, 1)
	for _, p := range f.tubes {
		if slices.ContainsFunc(s.Parts, func(q paint.Part) bool { return q.Paint == p }) {
			continue
		}
		with := func(v float64) (paint.Mixture, error) {
			return paint.Mix(append(slices.Clone(s.Parts), paint.Part{Paint: p, Parts: whole * v / (1 - v)})...)
		}
		at, chi := least(0.0005, 0.3, func(v float64) float64 {
			m, err := with(v)
			if err != nil {
				return math.Inf(1)
			}
			return f.chiOf(i, f.laid(i, &m, 1, ground)) + v*v/(tracePrior*tracePrior)
		})
		m, err := with(at)
		if err != nil {
			continue // no share of it can be mixed
		}
		out = append(out, Cause{Kind: Contamination, Paint: p, Amount: at, Says: fmt.Sprintf("a trace of %s, about 1 in %.0f", p.ShortName(), 1/at), Chi: chi, Mixture: m, Leaves: f.left(i, f.laid(i, &m, 1, ground))})
	}
	return out
}

// thin is a film that is thinner than it should be.
func (f *fit) thin(i int) []Cause {
	s := &f.samples[i]
	m, err := paint.Mix(s.Parts...)
	if err != nil {
		return nil
	}
	ground := f.ground(i, f.planned, 1)
	usual := cmp.Or(s.Film, f.in.Thickness)
	if math.IsInf(usual, 1) {
		usual = opaqueFilm
	}
	at, chi := least(-2.5, 0, func(v float64) float64 {
		return f.chiOf(i, f.filmed(i, &m, usual*math.Exp(v), ground)) + v*v/(filmPrior*filmPrior)
	})
	if at > -0.02 {
		return nil
	}
	return []Cause{{Kind: TooThin, Paint: nil, Amount: math.Exp(at), Says: fmt.Sprintf("it lies thin: about %.0f %% of a full film", 100*math.Exp(at)), Chi: chi, Mixture: m, Leaves: f.left(i, f.filmed(i, &m, usual*math.Exp(at), ground))}}
}
