package journal

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/photo"
)

// fit is samples to be explained by unknowns: the logarithm of each tube's strength, that of the
// film, the figures of each photo's rendering and, where they are sought too, each tube's shade and
// cleanness, in deviations of what is not known of them; in this order.
type fit struct {
	samples []Sample
	sure    Sure
	in      paint.Medium
	tubes   []*paint.Paint
	variant []*paint.Variants    // of each tube; nil where strengths alone are sought
	of      [][]int              // tube of each part of each sample, -1 for white
	under   [][][]int            // the same of each layer beneath it
	groups  []int                // of each tube
	fixed   []bool               // groups of which more than ratios is told
	photos  []*Photograph        // those whose rendering is fitted
	photo   []int                // of each sample; -1 where no rendering is fitted
	anchors []anchor             // greys of those photos
	noise   []noise              // of each sample's components, then of each anchor's
	usual   []float64            // of each unknown, before anything is read,
	width   []float64            // and its standard deviation then
	held    []bool               // unknowns that stay as they are
	planned []float64            // the unknowns where all is as it was planned, the renderings as they were found
	weights []float64            // of each sample's residuals; nil for 1
	swaps   map[int]*paint.Paint // tubes that are taken for another paint
}

// anchor is a grey of a photo.
type anchor struct {
	photo int
	of    *Grey
}

// A rendering is fitted from so many places of so many tubes on; a grey that is known counts for two of them, so that a
// printed sheet of six swatches can be read off a photo.
const (
	fewestPlaces = 8
	knownGrey    = 2 // places that a grey which is known counts for
	leastPlaces  = 4
	fewestTubes  = 3
)

// ofPhoto is how far a reading strays at the least whose photo's rendering is fitted, CIEDE2000 in each
// component, and ofSpread how much of the spread within its spot it strays besides; ofUnknown is how far
// it strays where nobody knows what the photo does.
const (
	ofPhoto   = 1.0
	ofSpread  = 0.3
	ofUnknown = 4.0
)

func newFit(samples []Sample, in paint.Medium, sure Sure) *fit {
	f := &fit{samples: samples, in: in, sure: sure}
	at := map[string]int{} // by id: samples of before have their paints as they were then
	tubesOf := func(parts []paint.Part) (of []int) {
		for _, part := range parts {
			k, known := at[part.Paint.ID]
			switch {
			case part.Paint.Family == "white":
				k = -1
			case !known:
				k = len(f.tubes)
				at[part.Paint.ID], f.tubes = k, append(f.tubes, part.Paint)
			}
			of = append(of, k)
		}
		return of
	}
	for i := range samples {
		f.of = append(f.of, tubesOf(samples[i].Parts))
		var under [][]int
		for _, layer := range samples[i].Under {
			under = append(under, tubesOf(layer.Parts))
		}
		f.under = append(f.under, under)
	}
	f.join()
	f.expose()
	f.usual = make([]float64, f.film()+1)
	f.width = slices.Repeat([]float64{priorWidth}, len(f.usual))
	for range f.photos {
		usual, width := photo.UsualRendering()
		f.usual, f.width = append(f.usual, usual[:]...), append(f.width, width[:]...)
	}
	f.noise = make([]noise, len(samples)+len(f.anchors))
	f.held = make([]bool, len(f.usual))
	f.held[f.film()] = true
	return f
}

// film is the unknown of the film, rendering the first of a photo's, and shade that of a tube; its
// cleanness follows.
func (f *fit) film() int              { return len(f.tubes) }
func (f *fit) rendering(shot int) int { return len(f.tubes) + 1 + shot*photo.Figures }
func (f *fit) shade(tube int) int     { return f.rendering(len(f.photos)) + 2*tube }

// finite says that the film of the medium is: K and S are then absolute.
func (f *fit) finite() bool { return !math.IsInf(f.in.Thickness, 1) }

// expose finds the photos whose rendering can be fitted.
func (f *fit) expose() {
	places, tubes := map[*Photograph]int{}, map[*Photograph]map[int]bool{}
	var all []*Photograph
	for i := range f.samples {
		spot := f.samples[i].Photo
		if spot == nil || spot.Of == nil {
			continue
		}
		if places[spot.Of]++; tubes[spot.Of] == nil {
			all, tubes[spot.Of] = append(all, spot.Of), map[int]bool{}
		}
		for _, k := range f.of[i] {
			if k >= 0 {
				tubes[spot.Of][k] = true
			}
		}
	}
	number := map[*Photograph]int{}
	for _, p := range all {
		if places[p] >= leastPlaces && places[p]+knownGrey*len(p.Greys) >= fewestPlaces && len(tubes[p]) >= fewestTubes {
			number[p] = len(f.photos)
			for g := range p.Greys {
				f.anchors = append(f.anchors, anchor{len(f.photos), &p.Greys[g]})
			}
			f.photos = append(f.photos, p)
		}
	}
	f.photo = slices.Repeat([]int{-1}, len(f.samples))
	for i := range f.samples {
		if spot := f.samples[i].Photo; spot != nil {
			if n, fitted := number[spot.Of]; fitted {
				f.photo[i] = n
			}
		}
	}
}

// unknown says that a sample was read from a photo of which too few places are known to tell what it
// does to colours.
func (f *fit) unknown(i int) bool {
	spot := f.samples[i].Photo
	return spot != nil && spot.Of != nil && f.photo[i] < 0
}

// known are the samples that are not unknown, and the photos of those that are.
func (f *fit) known() (kept []Sample, few []Bent) {
	for i := range f.samples {
		if !f.unknown(i) {
			kept = append(kept, f.samples[i])
			continue
		}
		of := f.samples[i].Photo.Of
		n := slices.IndexFunc(few, func(b Bent) bool { return b.Of == of })
		if n < 0 {
			n, few = len(few), append(few, Bent{Of: of, Few: true})
		}
		few[n].Places++
	}
	return kept, few
}

// join finds which tubes mixtures join, white among them.
func (f *fit) join() {
	n := len(f.tubes)
	root := make([]int, n+1) // the last is white
	for i := range root {
		root[i] = i
	}
	find := func(i int) int {
		for root[i] != i {
			i = root[i]
		}
		return i
	}
	for _, of := range f.of {
		for _, k := range of[1:] {
			a, b := of[0], k
			if a < 0 {
				a = n
			}
			if b < 0 {
				b = n
			}
			root[find(a)] = find(b)
		}
	}
	number := map[int]int{}
	for i := range f.tubes {
		r := find(i)
		g, known := number[r]
		if !known {
			g = len(number)
			number[r] = g
			f.fixed = append(f.fixed, r == find(n) || f.finite())
		}
		f.groups = append(f.groups, g)
	}
}

// look is a sample as it is read with the unknowns as x has them, its parts multiplied by shares
// where there are some.
func (f *fit) look(i int, x []float64, share []float64) colour.Lab {
	return f.shown(i, f.painted(i, x, share), x)
}

// painted is a sample as it is, whatever a photo makes of it.
func (f *fit) painted(i int, x []float64, share []float64) colour.Lab {
	m := f.mixed(i, x, share)
	return f.laid(i, &m, math.Exp(x[f.film()]), f.ground(i, x, 1))
}

// ground is what a sample was painted over, so many times as thick as the film has it.
func (f *fit) ground(i int, x []float64, times float64) colour.Spectrum {
	var layers []paint.Layer
	for n, layer := range f.samples[i].Under {
		m := f.stirred(layer.Parts, f.under[i][n], x, nil)
		layers = append(layers, paint.Layer{Mixture: m, Thickness: times * math.Exp(x[f.film()]) * cmp.Or(layer.Film, f.in.Thickness)})
	}
	return f.in.Under(layers)
}

// paper is bare paper beside a sample; false where no rendering is fitted.
func (f *fit) paper(i int, x []float64) (photo.Paper, bool) {
	shot := f.photo[i]
	if shot < 0 {
		return photo.Paper{}, false
	}
	r := f.rendered(shot, x)
	return r.On(f.samples[i].Photo.Light), true
}

// rendered is a photo's rendering.
func (f *fit) rendered(shot int, x []float64) *photo.Rendering {
	from := f.rendering(shot)
	r := photo.RenderingOf([photo.Figures]float64(x[from : from+photo.Figures]))
	return &r
}

// shown is what a photo makes of a sample's colour, and the colour itself where it is read otherwise.
func (f *fit) shown(i int, lab colour.Lab, x []float64) colour.Lab {
	if paper, ok := f.paper(i, x); ok {
		return paper.Shown(lab)
	}
	return lab
}

// laid is a mixture in the film of a sample, so many times as thick, over a ground.
func (f *fit) laid(i int, m *paint.Mixture, thick float64, ground colour.Spectrum) colour.Lab {
	return f.filmed(i, m, thick*cmp.Or(f.samples[i].Film, f.in.Thickness), ground)
}

// filmed is a mixture in a film of a sample, over a ground.
func (f *fit) filmed(i int, m *paint.Mixture, film float64, ground colour.Spectrum) colour.Lab {
	look := m.FilmOver(f.in, film, ground, f.samples[i].Wet)
	return look.Lab()
}

// mixed is what a sample is then painted with.
func (f *fit) mixed(i int, x []float64, share []float64) paint.Mixture {
	return f.stirred(f.samples[i].Parts, f.of[i], x, share)
}

// stirred are parts of tubes with the unknowns as x has them, multiplied by shares where there are some.
func (f *fit) stirred(of []paint.Part, tubes []int, x []float64, share []float64) paint.Mixture {
	whole := 0.0
	for _, p := range of {
		whole += p.Parts
	}
	parts := make([]paint.Part, len(of))
	for n, p := range of {
		if p.Parts /= whole; share != nil {
			p.Parts *= share[n]
		}
		if other := f.swaps[tubes[n]]; other != nil {
			p.Paint = other
		}
		parts[n] = p
	}
	m, err := paint.Varied(parts, func(n int) float64 {
		if k := tubes[n]; k >= 0 {
			return math.Exp(x[k])
		}
		return 1
	}, func(n int) *colour.Spectrum {
		k := tubes[n]
		if k < 0 || f.variant == nil || f.swaps[k] != nil {
			return nil
		}
		by := f.variant[k].Absorbs(x[f.shade(k)], x[f.shade(k)+1])
		return &by
	})
	if err != nil {
		return of[0].Paint.Alone() // of parts that are none
	}
	return m
}

// grey is an anchor as it is read, where it reflects so many times as much as is said.
func (f *fit) grey(a anchor, times float64, x []float64) colour.Lab {
	of := colour.Flat(a.of.Reflects * times)
	paper := f.rendered(a.photo, x).On(a.of.Light)
	return paper.Shown(of.Lab())
}

// residuals are what is left of each sample, three components in units of its noise, and then of
// each anchor.
func (f *fit) residuals(x []float64) []float64 {
	out := make([]float64, 0, 3*len(f.noise))
	for i := range f.samples {
		d := f.noise[i].in(colour.Components(f.look(i, x, nil), f.samples[i].Lab))
		for _, v := range d {
			out = append(out, v*f.weight(i))
		}
	}
	for n, a := range f.anchors {
		d := f.noise[len(f.samples)+n].in(colour.Components(f.grey(a, 1, x), a.of.Lab))
		out = append(out, d[:]...)
	}
	return out
}

func (f *fit) weight(i int) float64 {
	if f.weights == nil {
		return 1
	}
	return f.weights[i]
}

// filmStrays is how far a film strays that is thinned by hand, in its logarithm.
const filmStrays = 0.15

// thicker is a sample as it is when its own film is that much thicker, and when what lies beneath it is.
func (f *fit) thicker(i int, x []float64) []colour.Lab {
	m, thick := f.mixed(i, x, nil), math.Exp(x[f.film()])
	out := []colour.Lab{f.laid(i, &m, thick*(1+filmStrays), f.ground(i, x, 1))}
	if len(f.samples[i].Under) > 0 {
		out = append(out, f.laid(i, &m, thick, f.ground(i, x, 1+filmStrays)))
	}
	return out
}

// tubesIn are the tubes of a sample and of what lies beneath it, -1 for white, each once.
func (f *fit) tubesIn(i int) []int {
	all := slices.Concat(append(slices.Clone(f.under[i]), f.of[i])...)
	slices.Sort(all)
	return slices.Compact(all)
}

// hands finds the noise of each sample: its reading's, and what a hand strays by, at the unknowns as
// they are: a part more or less goes along the way of its paint, and not each way alike.
func (f *fit) hands(x []float64) {
	for i := range f.samples {
		s := &f.samples[i]
		n := math.Max(s.Noise, 0.1)
		if f.photo[i] >= 0 {
			n = math.Hypot(ofPhoto, ofSpread*s.Photo.Spread)
		} else if f.unknown(i) {
			n = math.Hypot(ofUnknown, s.Photo.Spread)
		}
		f.noise[i] = evenly(n)
		if len(s.Parts) < 2 && !s.glaze(f.in) {
			continue
		}
		at := f.look(i, x, nil)
		if s.glaze(f.in) {
			for _, lab := range f.thicker(i, x) {
				f.noise[i] = f.noise[i].with(colour.Components(at, f.shown(i, lab, x)))
			}
		}
		if len(s.Parts) < 2 {
			continue
		}
		for n := range s.Parts {
			hand := weighed
			if len(s.Strays) == len(s.Parts) {
				hand = s.Strays[n]
			}
			share := make([]float64, len(s.Parts))
			for k := range share {
				share[k] = 1
			}
			share[n] = 1 + hand
			f.noise[i] = f.noise[i].with(colour.Components(at, f.look(i, x, share)))
		}
	}
	for n, a := range f.anchors {
		f.noise[len(f.samples)+n] = evenly(ofPhoto).with(colour.Components(f.grey(a, 1, x), f.grey(a, math.Exp(a.of.Spread), x)))
	}
}

func (f *fit) cost(rest, x []float64) float64 { return squares(rest) + f.prior(x, 0) }

// prior is what the unknowns from one on cost by lying off from what is usual.
func (f *fit) prior(x []float64, from int) (sum float64) {
	for i := from; i < len(x); i++ {
		off := (x[i] - f.usual[i]) / f.width[i]
		sum += off * off
	}
	return sum
}

// chi is what is left unexplained: of the samples, and of the renderings as phones usually are.
func (f *fit) chi(x []float64) float64 { return squares(f.residuals(x)) + f.prior(x, f.film()+1) }

// jacobian is how the residuals change with each unknown; a sample's with those of its own tubes and
// photo alone.
func (f *fit) jacobian(x []float64) *mat.Dense {
	out := mat.NewDense(3*len(f.noise), len(x), nil)
	const h = 1e-4
	put := func(i, k int, scale float64, from, to [3]float64, by float64) {
		var d [3]float64
		for c := range d {
			d[c] = scale * (to[c] - from[c]) / by
		}
		for c, v := range f.noise[i].in(d) {
			out.Set(3*i+c, k, v)
		}
	}
	slope := func(i, k int, read colour.Lab, scale float64, look func(x []float64) colour.Lab) {
		if f.held[k] {
			return
		}
		was := x[k]
		x[k] = was + h
		up := colour.Components(look(x), read)
		x[k] = was - h
		down := colour.Components(look(x), read)
		x[k] = was
		put(i, k, scale, down, up, 2*h)
	}
	// The figures of a rendering, from one side: they bend little.
	bend := func(i, shot int, read colour.Lab, scale float64, look func(x []float64) colour.Lab) {
		at := colour.Components(look(x), read)
		for k := f.rendering(shot); k < f.rendering(shot)+photo.Figures; k++ {
			was := x[k]
			x[k] = was + h
			put(i, k, scale, at, colour.Components(look(x), read), h)
			x[k] = was
		}
	}
	for i := range f.samples {
		of := func(x []float64) colour.Lab { return f.look(i, x, nil) }
		for _, k := range f.tubesIn(i) {
			if k < 0 {
				continue
			}
			slope(i, k, f.samples[i].Lab, f.weight(i), of)
			if f.variant != nil {
				slope(i, f.shade(k), f.samples[i].Lab, f.weight(i), of)
				slope(i, f.shade(k)+1, f.samples[i].Lab, f.weight(i), of)
			}
		}
		slope(i, f.film(), f.samples[i].Lab, f.weight(i), of)
		if shot := f.photo[i]; shot >= 0 {
			lab := f.painted(i, x, nil)
			bend(i, shot, f.samples[i].Lab, f.weight(i), func(x []float64) colour.Lab { return f.shown(i, lab, x) })
		}
	}
	for n, a := range f.anchors {
		bend(len(f.samples)+n, a.photo, a.of.Lab, 1, func(x []float64) colour.Lab { return f.grey(a, 1, x) })
	}
	return out
}

// curvature is J'J: how the squares curve.
func curvature(jac *mat.Dense) *mat.SymDense {
	_, n := jac.Dims()
	var jtj mat.Dense
	jtj.Mul(jac.T(), jac)
	out := mat.NewSymDense(n, nil)
	for i := range n {
		for j := i; j < n; j++ {
			out.SetSym(i, j, jtj.At(i, j))
		}
	}
	return out
}

// information is the curvature and that of what was known before.
func (f *fit) information(jac *mat.Dense) *mat.SymDense {
	out := curvature(jac)
	for i := range out.SymmetricDim() {
		out.SetSym(i, i, out.At(i, i)+1/(f.width[i]*f.width[i]))
	}
	return out
}

// ofPaint is the curvature of the strengths and the film, whatever the renderings are [Schur]: those
// have what was known of them before, and the strengths and the film have not.
func (f *fit) ofPaint(jac *mat.Dense) *mat.SymDense {
	n := f.film() + 1
	all, known := curvature(jac), f.information(jac)
	out := mat.NewSymDense(n, nil)
	out.CopySym(all)
	if len(f.photos) == 0 {
		return out
	}
	rest := len(f.usual) - n
	bent := mat.NewSymDense(rest, nil)
	cross := mat.NewDense(rest, n, nil)
	for i := range rest {
		for j := i; j < rest; j++ {
			bent.SetSym(i, j, known.At(n+i, n+j))
		}
		for j := range n {
			cross.Set(i, j, all.At(n+i, j))
		}
	}
	var chol mat.Cholesky
	var solved, taken mat.Dense
	if !chol.Factorize(bent) || chol.SolveTo(&solved, cross) != nil {
		return out
	}
	taken.Mul(cross.T(), &solved)
	for i := range n {
		for j := i; j < n; j++ {
			out.SetSym(i, j, out.At(i, j)-(taken.At(i, j)+taken.At(j, i))/2)
		}
	}
	return out
}

func (f *fit) step(jac *mat.Dense, rest, x []float64, damp float64) ([]float64, bool) {
	a := f.information(jac)
	n := a.SymmetricDim()
	b := mat.NewVecDense(n, nil)
	b.MulVec(jac.T(), mat.NewVecDense(len(rest), rest))
	for i := range n {
		b.SetVec(i, -b.AtVec(i)-(x[i]-f.usual[i])/(f.width[i]*f.width[i]))
		a.SetSym(i, i, a.At(i, i)*(1+damp))
	}
	var chol mat.Cholesky
	if !chol.Factorize(a) {
		return nil, false
	}
	var out mat.VecDense
	if err := chol.SolveVecTo(&out, b); err != nil {
		return nil, false
	}
	return out.RawVector().Data, true
}

// errorOf is the mean CIEDE2000 of residuals.
func (f *fit) errorOf(rest []float64) (mean float64) {
	for i := range f.samples {
		mean += f.noise[i].size(rest[3*i:3*i+3]) / float64(len(f.samples))
	}
	return mean
}

// mostOff is how far an unknown goes from what is usual, in its standard deviations.
const mostOff = 5.0

// best are the unknowns of least cost, from some on [Levenberg 1944; Marquardt 1963].
func (f *fit) best(from []float64) []float64 {
	x := slices.Clone(from)
	rest := f.residuals(x)
	jac := f.jacobian(x)
	now, damp := f.cost(rest, x), 1e-3
	for range 60 {
		step, ok := f.step(jac, rest, x, damp)
		if !ok {
			break
		}
		next := slices.Clone(x)
		for i := range next {
			if !f.held[i] {
				off := mostOff * f.width[i]
				next[i] = math.Max(f.usual[i]-off, math.Min(f.usual[i]+off, x[i]+step[i]))
			}
		}
		tried := f.residuals(next)
		if c := f.cost(tried, next); c < now {
			gain := now - c
			x, rest, now, damp = next, tried, c, damp/5
			jac = f.jacobian(x)
			if gain < 1e-6*(1+now) {
				break
			}
		} else if damp *= 4; damp > 1e8 {
			break
		}
	}
	return x
}

// only is the fit with some strengths (or the film) alone free, the others as they were taken to be,
// from unknowns on. Renderings are free always.
func (f *fit) only(free []int, from []float64) (x []float64) {
	x = slices.Clone(from)
	for i := range f.film() + 1 {
		if !slices.Contains(free, i) {
			x[i] = 0
		}
	}
	f.freeing(free, func() { x = f.best(x) })
	return x
}

// freeing does something with some strengths (or the film) alone free.
func (f *fit) freeing(free []int, do func()) {
	was := slices.Clone(f.held)
	for i := range f.film() + 1 {
		f.held[i] = !slices.Contains(free, i)
	}
	do()
	f.held = was
}

// start are the unknowns before anything is read.
func (f *fit) start() []float64 { return slices.Clone(f.usual) }

// squares is the sum of squares.
func squares(of []float64) (sum float64) {
	for _, v := range of {
		sum += v * v
	}
	return sum
}
