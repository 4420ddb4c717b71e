package path

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/internal/minimum"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Correction is how a pile is brought to a wanted colour, for it can only be
// added to.
type Correction struct {
	Add       recipe.Recipe // whole parts of the unit the pile is counted in; empty when it is near enough already
	Pile      paint.Mixture // what it then is
	Miss      float64       // OKLab distance of its brushed-out colour from the wanted one
	Grows     float64       // times its volume now
	Reached   bool          // within 0.02 OKLab; otherwise as near as these paints come
	Waste     float64       // parts more than are wanted, when corrected
	StartOver float64       // parts thrown away, when started over
	// Keep is how many parts of the pile are kept at the most so that no more comes of it than is
	// wanted, and KeepAdd what is added to those; 0 and nothing where parts are not what is wanted,
	// all of it does, or the pile holds what cannot be taken out.
	Keep    float64
	KeepAdd recipe.Recipe
}

// leastKept is the share of what is wanted that must be kept of a pile to be worth it.
const leastKept = 0.2

// keep works out what part of a pile comes to what is wanted, and no more, with the least added.
func (c *Correction) keep(have, want []paint.Part) {
	if slices.ContainsFunc(have, func(p paint.Part) bool { return recipe.InPile(want, p.Paint) == 0 }) {
		return // that cannot be had out
	}
	needed := recipe.Volume(want)
	share := needed / recipe.ComesTo(have, recipe.Of(want))
	if share*recipe.Volume(have) < leastKept*needed || share >= 1 {
		return
	}
	c.Keep = share * recipe.Volume(have)
	for _, p := range recipe.Of(want).Plain() {
		if more := p.Parts - share*recipe.InPile(have, p.Paint); more > 1e-9 {
			c.KeepAdd = append(c.KeepAdd, recipe.Ingredient{Paint: p.Paint, Parts: more})
		}
	}
}

// Better says that correcting wastes no more than starting over.
func (c Correction) Better() bool { return c.Reached && c.Waste <= c.StartOver }

const (
	// MostAdded is how many times its volume is added to a pile at most, and
	// mostTried how many parts.
	MostAdded = 40
	mostTried = 240
	// worthMore is how much nearer, in OKLab, a further part must bring a pile
	// that cannot be brought near enough.
	worthMore = 0.002
)

// Correct finds the least that brings what is there to the colour of what is
// wanted: whole parts of the paints of either. Wanted is also the amount that is
// needed.
func Correct(have, want []paint.Part) (Correction, error) {
	target, err := paint.Mix(want...)
	if err != nil {
		return Correction{}, err
	}
	var with []*paint.Paint
	for _, p := range slices.Concat(want, have) {
		if !slices.Contains(with, p.Paint) {
			with = append(with, p.Paint)
		}
	}
	c, err := CorrectTo(have, Target{target.BrushedOutColour(), (*paint.Mixture).BrushedOutColour}, with, recipe.Volume(want))
	if err == nil {
		c.keep(have, want)
	}
	return c, err
}

// Target is a colour that is wanted, and how a mixture is looked at to be held
// against it: brushed out, or as painted, as a swatch was that has been read.
type Target struct {
	Colour colour.OKLab
	Look   func(*paint.Mixture) colour.OKLab
}

// AimAt is the colour of a reading, and its medium and wetness for looking.
func AimAt(r paint.Reading) Target {
	return Target{r.Lab.OKLab(), func(m *paint.Mixture) colour.OKLab {
		s := m.AsPainted(r.Medium, r.Wet)
		return s.OKLab(colour.D65)
	}}
}

// Locate finds the place of a path that comes nearest to an aim: the share of
// the second paint, and how far from the aim that is in OKLab.
func (p *Path) Locate(want Target) (share, miss float64) {
	at := func(t float64) float64 {
		m := p.At(t)
		return want.Look(&m).Distance(want.Colour)
	}
	best := 0
	miss = math.Inf(1)
	for i, s := range p.Samples {
		if d := at(s.Share); d < miss {
			best, share, miss = i, s.Share, d
		}
	}
	// Between its neighbours the distance has one lowest place.
	low, high := p.Samples[max(0, best-1)].Share, p.Samples[min(len(p.Samples)-1, best+1)].Share
	between := minimum.Golden(low, high, 40, at)
	if d := at(between); d < miss {
		share, miss = between, d
	}
	return share, miss
}

// Found is the step of a path that looks most like a reading.
type Found struct {
	Step
	DE   float64 // CIEDE2000 between the two, as painted
	Fits bool    // near enough for the reading to be of this path at all
}

// somethingElse is the CIEDE2000 from which a reading is of something else than
// a path's two paints.
const somethingElse = 8

// Find locates a reading on a path, in parts a brush can do.
func (p *Path) Find(r paint.Reading) Found {
	share, _ := p.Locate(AimAt(r))
	out := Found{Step: p.step(p.Parts(share))}
	look := out.Mixture.AsPainted(r.Medium, r.Wet)
	out.DE = colour.Difference(r.Lab, look.Lab())
	out.Fits = out.DE < somethingElse
	return out
}

// CorrectTo is Correct for any aim, and the paints that may be added; needed is
// the amount that is wanted, in parts.
func CorrectTo(have []paint.Part, want Target, with []*paint.Paint, needed float64) (Correction, error) {
	if len(with) == 0 {
		return Correction{}, errors.New("name at least one paint that may be added")
	}
	base, err := paint.Mix(have...)
	if err != nil {
		return Correction{}, err
	}
	s := search{base: base, now: recipe.Volume(have), want: want}
	for _, p := range with {
		s.with = append(s.with, p.Alone())
	}
	s.choose()
	best := s.least()
	out := Correction{Miss: best.miss, Reached: best.miss < recipe.NearEnough, StartOver: s.now}
	total := s.now
	all := slices.Clone(have)
	for _, one := range []struct{ of, n int }{{best.i, best.m}, {best.j, best.n}} {
		if one.n > 0 {
			out.Add = append(out.Add, recipe.Ingredient{Paint: with[one.of], Parts: float64(one.n)})
			all = append(all, paint.Part{Paint: with[one.of], Parts: float64(one.n)})
			total += float64(one.n)
		}
	}
	out.Grows, out.Waste = total/s.now, max(0, total-needed)
	out.Pile, err = paint.Mix(all...)
	return out, err
}

// CorrectToReading is CorrectTo for a colour that was read; as much is needed as
// is there.
func CorrectToReading(have []paint.Part, want paint.Reading, with []*paint.Paint) (Correction, error) {
	if len(with) > paint.MostStirred {
		return Correction{}, fmt.Errorf("%d paints are more than can be tried: give at most %d", len(with), paint.MostStirred)
	}
	return CorrectTo(have, AimAt(want), with, recipe.Volume(have))
}

type search struct {
	base paint.Mixture
	now  float64 // its parts
	with []paint.Mixture
	want Target
	duos [][2]int // which two are tried together; a paint with itself is that paint alone
}

// addition is m parts of the paint i and n of the paint j, and how far that
// leaves the pile from the wanted colour.
type addition struct {
	i, m, j, n int
	miss       float64
}

func (s *search) try(i, m, j, n int) addition {
	first := paint.Between(&s.base, &s.with[i], float64(m)/(s.now+float64(m)))
	pile := paint.Between(&first, &s.with[j], float64(n)/(s.now+float64(m+n)))
	return addition{i: i, m: m, j: j, n: n, miss: s.want.Look(&pile).Distance(s.want.Colour)}
}

// fewDuos is how many duos are tried in earnest when there are many paints.
const fewDuos = 6

// choose keeps all duos of up to four paints, and of more those that, at a
// coarse look, come near with the least paint or, failing that, nearest.
func (s *search) choose() {
	type ranked struct {
		duo        [2]int
		grow, miss float64
	}
	var all []ranked
	for i := range s.with {
		for j := range i + 1 {
			r := ranked{[2]int{i, j}, math.Inf(1), math.Inf(1)}
			for grow := 0.125; len(s.with) > 4 && grow <= MostAdded; grow *= 1.6 {
				for eighths := range 9 {
					share := float64(eighths) / 8
					if eighths == 0 || i != j {
						both := paint.Between(&s.with[i], &s.with[j], share)
						pile := paint.Between(&s.base, &both, grow/(1+grow))
						r.miss = min(r.miss, s.want.Look(&pile).Distance(s.want.Colour))
					}
				}
				if r.miss < 2*recipe.NearEnough {
					r.grow = min(r.grow, grow)
				}
			}
			all = append(all, r)
		}
	}
	if len(s.with) > 4 {
		slices.SortStableFunc(all, func(a, b ranked) int { return cmp.Or(cmp.Compare(a.grow, b.grow), cmp.Compare(a.miss, b.miss)) })
		all = all[:min(fewDuos, len(all))]
	}
	for _, r := range all {
		s.duos = append(s.duos, r.duo)
	}
}

// least tries one part of one or two paints, then two, and so on (by fortieths
// above 40), until one of them comes near enough; otherwise it is the one that
// came nearest.
func (s *search) least() addition {
	best := s.try(0, 0, 0, 0)
	limit := min(MostAdded*int(math.Ceil(s.now)), mostTried)
	for total := 1; total <= limit && best.miss >= recipe.NearEnough; total += stride(total) {
		here := addition{miss: math.Inf(1)}
		for _, duo := range s.duos {
			for n := 0; n < total; n += stride(total) {
				if duo[0] == duo[1] && n > 0 {
					break // alone
				}
				if a := s.try(duo[0], total-n, duo[1], n); a.miss < here.miss {
					here = a
				}
			}
		}
		// Of what is no near thing, more paint must be worth it.
		if here.miss < recipe.NearEnough || here.miss < best.miss-worthMore {
			best = here
		}
	}
	return s.trim(best)
}

// stride is 1 up to 40 parts, and a fortieth of more.
func stride(total int) int { return max(1, total/40) }

// trim takes parts away again as long as the colour stays near enough.
func (s *search) trim(a addition) addition {
	for a.miss < recipe.NearEnough {
		fewer := addition{miss: math.Inf(1)}
		if a.m > 0 {
			fewer = s.try(a.i, a.m-1, a.j, a.n)
		}
		if a.n > 0 {
			if other := s.try(a.i, a.m, a.j, a.n-1); other.miss < fewer.miss {
				fewer = other
			}
		}
		if fewer.miss >= recipe.NearEnough {
			break
		}
		a = fewer
	}
	return a
}
