// Package reach asks what a set of paints can come to: how far round the circle
// a system reaches cleanly, how systems stand beside each other, the best system
// of a box, and the recipe nearest to a wanted colour.
package reach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"math/bits"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Match is a recipe for a wanted colour.
type Match struct {
	// Parts are whole, at most 40 in each step, the most first. Traces may be let
	// down first in the main paint, or mixed to a hue first.
	Parts   recipe.Recipe
	Mixture paint.Mixture
	Lab     colour.Lab // as painted, under D65
	// DE is CIEDE2000 to the wanted colour under D65.
	DE float64
}

const (
	mostPaints = 4   // of a recipe
	fewPaints  = 10  // up to so many every four of them are tried
	perPaint   = 0.1 // what one more paint must bring
)

// Nearest finds the recipe of at most 4 of the paints whose colour as painted
// in a medium, dry, comes nearest to a wanted CIELAB colour (D65) in CIEDE2000.
// It starts from each paint and each pair and adds the paint that helps most as
// long as one does; where that does not do, of up to ten paints every four are
// tried as well. Then it looks for whole parts.
func Nearest(want colour.Lab, paints []*paint.Paint, in paint.Medium) (Match, error) {
	if len(paints) == 0 {
		return Match{}, errors.New("there are no paints to match the colour with")
	}
	s := newSearch(want, paints, in)
	best := s.beginnings()
	var simpler []trial // that will do, though one more paint comes nearer
	for i := range best {
		for len(best[i].of) < mostPaints {
			next, better := s.add(best[i])
			if !better {
				break
			}
			if best[i].miss < recipe.Unseen {
				simpler = append(simpler, best[i])
			}
			best[i] = next
		}
	}
	nearest := slices.MinFunc(best, func(a, b trial) int { return cmp.Compare(a.miss, b.miss) })
	if len(paints) <= fewPaints && nearest.miss > recipe.Unseen/2 {
		best = append(best, s.fours()...)
	}
	slices.SortStableFunc(best, func(a, b trial) int { return cmp.Compare(a.promise(), b.promise()) })
	// What comes nearest may need parts nobody can count: then others may do.
	out, least := Match{DE: math.Inf(1)}, math.Inf(1)
	var all []Match
	for n, t := range best {
		if n >= 3 && (out.DE < recipe.Unseen || n >= 12) {
			break
		}
		m, cost := s.whole(s.settle(t, fine))
		all = append(all, m)
		if cost < least-0.05 {
			out, least = m, cost
		}
	}
	for _, t := range simpler {
		m, cost := s.whole(s.settle(t, fine))
		all = append(all, m)
		if m.DE < recipe.Unseen && cost < least {
			out, least = m, cost
		}
	}
	return steadiest(out, all), nil
}

// A hand's straying counts where it differs by so much, CIEDE2000; it is that of a pile of so many ml.
const (
	strayCounts = 0.3
	strayPile   = 0.5
)

// steadiest is, of recipes that come as near as one, that in which a hand strays least, and of those that
// of the fewest paints.
func steadiest(one Match, all []Match) Match {
	dabs, err := recipe.NewScale(recipe.Dabs, 0)
	if err != nil {
		return one
	}
	strays := func(m *Match) float64 {
		counted := recipe.CountOut(m.Parts, &m.Mixture, dabs, strayPile)
		return counted.Spread
	}
	best, least := one, math.Inf(1)
	limit := one.DE + equalWithin
	if one.DE <= sameWithin {
		limit = min(limit, sameWithin) // what is reached stays so
	}
	for i := range all {
		m := &all[i]
		if m.DE > limit || m.Parts.String() == one.Parts.String() {
			continue
		}
		if math.IsInf(least, 1) {
			least = strays(&one)
		}
		switch by := strays(m); {
		case by < least-strayCounts, by < least+strayCounts/2 && len(m.Parts.Plain()) < len(best.Parts.Plain()):
			best, least = *m, by
		}
	}
	return best
}

type search struct {
	want   colour.Lab
	paints []*paint.Paint
	alone  []paint.Mixture
	absorb []float64 // how strongly each tells
	in     paint.Medium
}

// The least share of a paint, and the share from which it is no trace whatever it
// is mixed with.
const (
	leastTrace = 0.0001
	mostTrace  = 0.002
)

// leastAbsorption is taken for that of a paint that absorbs nothing.
const leastAbsorption = 1e-6

// trace is the least share at which one of some paints is seen in their mixture:
// where it makes up 1 in 200 of what is absorbed. Below, more or less of it makes no
// difference that could be followed.
func (s *search) trace(of []int, share []float64) (least [mostPaints]float64) {
	sum := 0.0
	for n, i := range of {
		sum += share[n] * s.absorb[i]
	}
	for n, i := range of {
		least[n] = min(max(sum/200/s.absorb[i], leastTrace), mostTrace)
	}
	return least
}

func newSearch(want colour.Lab, paints []*paint.Paint, in paint.Medium) *search {
	s := &search{want: want, paints: paints, in: in}
	for _, p := range paints {
		m := p.Alone()
		s.alone = append(s.alone, m)
		s.absorb = append(s.absorb, max(m.Absorption(), leastAbsorption))
	}
	return s
}

// trial is some paints by index, their shares, and how far they miss.
type trial struct {
	of    []int
	share []float64
	miss  float64
}

// promise orders trials: how far they miss, where a paint more must be worth it.
func (t trial) promise() float64 { return t.miss + perPaint*float64(len(t.of)) }

// look is what shares of some paints make, and its colour as painted.
func (s *search) look(of []int, share []float64) (paint.Mixture, colour.Lab) {
	m := s.mix(of, share)
	r := m.AsPainted(s.in, false)
	return m, r.Lab()
}

func (s *search) mix(of []int, share []float64) paint.Mixture {
	m, sum := s.alone[of[0]], share[0]
	for n, i := range of[1:] {
		if share[n+1] == 0 {
			continue
		}
		sum += share[n+1]
		m = paint.Between(&m, &s.alone[i], share[n+1]/sum)
	}
	return m
}

func (s *search) miss(of []int, share []float64) float64 {
	_, lab := s.look(of, share)
	return colour.Difference(s.want, lab)
}

// beginnings are the six best single paints and pairs.
func (s *search) beginnings() []trial {
	var all []trial
	for i := range s.paints {
		all = append(all, trial{[]int{i}, []float64{1}, s.miss([]int{i}, []float64{1})})
		for j := range i {
			of, best := []int{j, i}, trial{miss: math.Inf(1)}
			for _, t := range []float64{0.01, 0.03, 0.1, 0.25, 0.5, 0.75, 0.9, 0.97, 0.99} {
				if d := s.miss(of, []float64{1 - t, t}); d < best.miss {
					best = trial{of, []float64{1 - t, t}, d}
				}
			}
			all = append(all, best)
		}
	}
	slices.SortFunc(all, func(a, b trial) int { return cmp.Compare(a.miss, b.miss) })
	all = all[:min(6, len(all))]
	for i := range all {
		all[i] = s.approach(all[i])
	}
	return all
}

// fours tries every four of the paints.
func (s *search) fours() (out []trial) {
	n := len(s.paints)
	for set := range 1 << n {
		if bits.OnesCount(uint(set)) != min(mostPaints, n) {
			continue
		}
		var of []int
		for i := range n {
			if set>>i&1 == 1 {
				of = append(of, i)
			}
		}
		out = append(out, s.four(of))
	}
	return out
}

// four approaches the wanted colour with some paints, from shares by weakness
// and without what comes down to a trace.
func (s *search) four(of []int) trial {
	t := trial{of: of}
	for _, i := range of {
		t.share = append(t.share, 1/(0.1+s.absorb[i]))
	}
	normalise(t.share)
	t = s.approach(t)
	var kept trial
	least := s.trace(t.of, t.share)
	for i, v := range t.share {
		if v > 1.5*least[i] {
			kept.of, kept.share = append(kept.of, t.of[i]), append(kept.share, v)
		}
	}
	if len(kept.of) < len(t.of) {
		normalise(kept.share)
		if kept = s.approach(kept); kept.miss < t.miss+0.2 {
			return kept
		}
	}
	return t
}

// add takes the paint into a trial that helps most; better says that one does.
func (s *search) add(t trial) (best trial, better bool) {
	best = t
	for i := range s.paints {
		if slices.Contains(t.of, i) {
			continue
		}
		share := make([]float64, len(t.share)+1)
		for n, v := range t.share {
			share[n] = v * 0.95
		}
		share[len(t.share)] = 0.05
		next := s.approach(trial{append(slices.Clone(t.of), i), share, math.Inf(1)})
		if next.miss < best.miss-0.1 {
			best, better = next, true
		}
	}
	return best, better
}

// fine is a stride of a few thousandths of a share.
const fine = 0.004

// settle moves the shares to where nothing helps any more, in logarithmic strides
// that shrink to the finest, by CIEDE2000.
func (s *search) settle(t trial, finest float64) trial {
	if len(t.of) < 2 {
		return t
	}
	t.share = slices.Clone(t.share)
	next := make([]float64, len(t.share))
	for stride := 0.3; stride > finest; {
		moved := false
		for i := range t.share {
			for _, by := range [2]float64{math.Exp(stride), math.Exp(-stride)} {
				copy(next, t.share)
				next[i] *= by
				if normalise(next) < leastTrace {
					continue
				}
				if d := s.miss(t.of, next); d < t.miss {
					copy(t.share, next)
					t.miss, moved = d, true
				}
			}
		}
		if !moved {
			stride /= 2
		}
	}
	return t
}

// normalise makes shares sum to 1 and returns the least.
func normalise(share []float64) float64 {
	var sum float64
	for _, v := range share {
		sum += v
	}
	least := 1.0
	for i := range share {
		share[i] /= sum
		least = min(least, share[i])
	}
	return least
}

// approach brings the shares of a trial near the wanted colour: damped
// Gauss-Newton steps [Levenberg 1944, Marquardt 1963] in the logarithms of the
// shares. There are three equations (L*, a*, b*), so each step is the shortest
// that solves them.
func (s *search) approach(t trial) trial {
	if len(t.of) > 1 {
		t.share = slices.Clone(t.share)
		s.stride(&t)
	}
	t.miss = s.miss(t.of, t.share)
	return t
}

func (s *search) stride(t *trial) {
	far := func(share []float64) (d [3]float64, square float64) {
		_, lab := s.look(t.of, share)
		d = [3]float64{s.want.L - lab.L, s.want.A - lab.A, s.want.B - lab.B}
		return d, d[0]*d[0] + d[1]*d[1] + d[2]*d[2]
	}
	n := len(t.share)
	next := make([]float64, n)
	slopes := make([][3]float64, n)
	off, square := far(t.share)
	damp := 1.0
	for moved, tries := true, 0; tries < 40; tries++ {
		if moved {
			s.slopes(t, slopes)
			moved = false
		}
		var m [3][3]float64
		for k := range m {
			m[k][k] = damp
			for l := range m {
				for i := range slopes {
					m[k][l] += slopes[i][k] * slopes[i][l]
				}
			}
		}
		x, ok := solve3(m, off)
		if !ok {
			return
		}
		for i := range next {
			step := slopes[i][0]*x[0] + slopes[i][1]*x[1] + slopes[i][2]*x[2]
			next[i] = t.share[i] * math.Exp(max(-1.5, min(1.5, step)))
		}
		normalise(next)
		least := s.trace(t.of, next)
		for i := range next {
			next[i] = max(next[i], least[i])
		}
		normalise(next)
		d, sq := far(next)
		switch {
		case sq < square:
			settled := sq < 1e-3 || square-sq < 0.01 && damp <= 1
			off, square, moved = d, sq, true
			copy(t.share, next)
			if settled {
				return
			}
			damp = max(damp/4, 1e-3)
		case damp > 1e4:
			return
		default:
			damp *= 8
		}
	}
}

// slopes are how the colour of a trial, L*, a*, b*, changes with the logarithm of each share: of what is mixed
// by K and S in each band, and with those by the film.
func (s *search) slopes(t *trial, out [][3]float64) {
	m := s.mix(t.of, t.share)
	painted, byK, byS := m.Slopes(s.in)
	k, scatter := m.K(), m.S()
	white := colour.D65.White()
	at := painted.XYZ(colour.D65)
	lab := at.Lab(white)
	for n, i := range t.of {
		pk, ps := s.alone[i].K(), s.alone[i].S()
		var change colour.Spectrum
		for band := range change {
			change[band] = byK[band]*(pk[band]-k[band]) + byS[band]*(ps[band]-scatter[band])
		}
		by := change.XYZ(colour.D65)
		step := 1e-4 / max(math.Abs(by.X), math.Abs(by.Y), math.Abs(by.Z), 1e-9)
		next := colour.XYZ{X: at.X + step*by.X, Y: at.Y + step*by.Y, Z: at.Z + step*by.Z}.Lab(white)
		for axis, d := range [3]float64{next.L - lab.L, next.A - lab.A, next.B - lab.B} {
			out[n][axis] = t.share[n] * d / step
		}
	}
}

// solve3 solves three linear equations by Cramer's rule.
func solve3(m [3][3]float64, b [3]float64) (x [3]float64, ok bool) {
	det := func(m [3][3]float64) float64 {
		return m[0][0]*(m[1][1]*m[2][2]-m[1][2]*m[2][1]) - m[0][1]*(m[1][0]*m[2][2]-m[1][2]*m[2][0]) + m[0][2]*(m[1][0]*m[2][1]-m[1][1]*m[2][0])
	}
	whole := det(m)
	if whole == 0 || math.IsNaN(whole) {
		return x, false
	}
	for k := range x {
		with := m
		for row := range with {
			with[row][k] = b[row]
		}
		x[k] = det(with) / whole
	}
	return x, true
}

// whole finds whole parts near a trial's shares, small numbers before a
// difference nobody sees, and what they cost: the difference, and the trouble.
func (s *search) whole(t trial) (m Match, cost float64) {
	b := recipe.Blend{Shares: t.share, Colour: s.want, Look: func(shares []float64) colour.Lab {
		_, lab := s.look(t.of, shares)
		return lab
	}}
	for _, i := range t.of {
		b.Paints = append(b.Paints, s.paints[i])
	}
	best, _, cost := b.Countable()
	out := s.match(best.Reduced())
	slices.SortStableFunc(out.Parts, func(a, b recipe.Ingredient) int { return cmp.Compare(b.Parts, a.Parts) })
	return out, cost
}

// match is what a recipe comes to beside the wanted colour.
func (s *search) match(r recipe.Recipe) Match {
	m, err := paint.Mix(r.Volumes()...)
	if err != nil {
		return Match{DE: math.Inf(1)}
	}
	look := m.AsPainted(s.in, false)
	lab := look.Lab()
	return Match{r, m, lab, colour.Difference(s.want, lab)}
}

// Reached says that the recipe passes for the wanted colour.
func (m Match) Reached() bool { return m.DE <= ReachedWithin }

// sameWithin is the CIEDE2000 up to which nobody tells two colours apart that do
// not touch.
const sameWithin = 1

// Sentence says what to mix and, where that is not the wanted colour to the eye, how
// it differs: it may still be close.
func (m Match) Sentence(want colour.Lab, in paint.Medium) string {
	if m.DE <= sameWithin {
		return fmt.Sprintf("Mix %s.", m.Parts.Words())
	}
	look := m.Mixture.AsPainted(in, false)
	differs := look.OKLab(colour.D65).Beside(want.OKLab())
	if m.Reached() && differs == colour.NoDifference {
		return fmt.Sprintf("Mix %s.", m.Parts.Words())
	}
	if m.Reached() {
		return fmt.Sprintf("Mix %s. That is close: %s.", m.Parts.Words(), differs)
	}
	if differs == colour.NoDifference {
		return fmt.Sprintf("It cannot quite be reached: the nearest is %s, %.1f off, which the eye tells at an edge alone.", m.Parts.Words(), m.DE)
	}
	return fmt.Sprintf("It cannot be reached: the nearest is %s, and is %s.", m.Parts.Words(), differs)
}

// UnderLamp is CIEDE2000 under lamp A between the recipe and the smoothest
// spectrum of what is wanted; ok is false where that is not to be said, for no
// surface has such a colour, or it is too dark to judge. Says is either in words.
func (m Match) UnderLamp(want paint.Reading, in paint.Medium) (de float64, says string, ok bool) {
	s, err := want.Reflectance()
	if err != nil {
		return 0, "under a warm lamp not to be said: no surface has this colour", false
	}
	seen := m.Mixture.AsPainted(in, false)
	sought, look := s.LabUnder(colour.A), seen.LabUnder(colour.A)
	if sought.L < colour.DarkestJudged {
		return 0, "under a warm lamp too dark to judge", false
	}
	de = colour.Difference(sought, look)
	return de, fmt.Sprintf("under a warm lamp %.1f", de), true
}

// TargetMatch is a wanted colour and the best recipe of each of some palettes.
type TargetMatch struct {
	Want    paint.Reading
	Matches []Match // one for each palette
}

// MatchAll finds the best recipe of each palette (paints, with the white and
// black that ride along) for each wanted colour, as painted in a medium and dry.
// What finds one recipe is Nearest, or what remembers its answers. The error is
// the first of it, or the context's.
func MatchAll(ctx context.Context, palettes [][]*paint.Paint, wanted []paint.Reading, in paint.Medium, nearest func(want colour.Lab, paints []*paint.Paint, in paint.Medium) (Match, error)) ([]TargetMatch, error) {
	out := make([]TargetMatch, len(wanted))
	workers, ctx := errgroup.WithContext(ctx)
	workers.SetLimit(runtime.GOMAXPROCS(0))
	for i, want := range wanted {
		out[i] = TargetMatch{want, make([]Match, len(palettes))}
		for n := range palettes {
			workers.Go(func() (err error) {
				if err := ctx.Err(); err != nil {
					return err
				}
				out[i].Matches[n], err = nearest(want.Lab, palettes[n], in)
				return err
			})
		}
	}
	return out, workers.Wait()
}

// Palette is what a system mixes a colour from: its paints, its white and its
// black.
func Palette(s wheel.System) []*paint.Paint {
	return append(s.Paints(), s.Rider(wheel.WhiteRider), s.Rider(wheel.BlackRider))
}

// earths are what earth recipes are held against: library paints typical of
// their class.
var earths = []struct{ name, id string }{{"ochre-like", "PY43"}, {"sienna-like", "PBr7-burnt-sienna"}, {"umber-like", "PBr7-raw-umber"}}

// EarthMatch is the recipe nearest to an earth.
type EarthMatch struct {
	Name   string // "ochre-like", "sienna-like", "umber-like"
	Target *paint.Paint
	Match
}

// Earths are the recipes of a system, with its white and its convenience paint,
// nearest to the common earths as painted in a medium and dry.
func Earths(s wheel.System, in paint.Medium) (out []EarthMatch, err error) {
	paints := append(s.Paints(), s.Rider(wheel.WhiteRider))
	if p := s.Rider(wheel.ConvenienceRider); p != nil {
		paints = append(paints, p)
	}
	for _, e := range earths {
		target, err := paint.Find(e.id)
		if err != nil {
			return nil, err
		}
		m := target.Alone()
		look := m.AsPainted(in, false)
		match, err := Nearest(look.Lab(), paints, in)
		if err != nil {
			return nil, err
		}
		out = append(out, EarthMatch{e.name, target, match})
	}
	return out, nil
}
