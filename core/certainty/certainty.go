// Package certainty says how far recipes and verdicts can be trusted for tubes like a painter's: the library is modelled,
// and tubes of one pigment differ.
package certainty

import (
	_ "embed"
	"math"
	"slices"
	"sync"

	"gonum.org/v1/gonum/stat/distuv"

	"gyrophane/core/internal/table"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Doubt is what is not known of a tube: standard deviations, each by itself.
type Doubt struct {
	Strength  float64 // of its natural logarithm
	Shade     float64 // nm that its absorption may lie elsewhere
	Cleanness float64 // share of its undertone's chroma
	Origin    Origin  // how its paint was come by; empty where nothing is in doubt
	Old       bool    // it is of a box that is old and mixed
	Learned   *Joint  // what it was learned with; nil where it was not
	Tube      int     // its place there
}

// Origin is how a paint was come by.
type Origin string

// The origins.
const (
	LibraryArtist    Origin = "library artist"
	LibraryStudent   Origin = "library student"
	Label            Origin = "label" // of several pigments
	SwatchesSeen     Origin = "swatches seen"
	SwatchesMeasured Origin = "swatches measured"
)

//go:embed data/doubts.csv
var doubtsCSV string

// known is a row of the table.
type known struct {
	Doubt
	says string
}

var doubts = sync.OnceValue(func() map[Origin]known {
	out := map[Origin]known{}
	for _, row := range table.Rows(doubtsCSV) {
		of := Origin(row[0])
		out[of] = known{Doubt{Strength: table.Number(row[1]), Shade: table.Number(row[2]), Cleanness: table.Number(row[3]), Origin: of}, row[4]}
	}
	return out
})

// older is how many times as much is not known of tubes of a box that is old and mixed.
const older = 1.4

// Older is what is not known of a tube of a box that is old and mixed; of one that was read, no more than readings left open.
func (d Doubt) Older() Doubt {
	if d.Learned != nil || d.Origin == "" {
		return d
	}
	d.Strength, d.Shade, d.Cleanness, d.Old = older*d.Strength, older*d.Shade, older*d.Cleanness, true
	return d
}

// Says is where a doubt comes from, and what would lessen it; empty where there is none.
func (d Doubt) Says() string {
	switch {
	case d.Learned != nil:
		return "as readings of what was painted with it told"
	case d.Origin == "":
		return ""
	case d.Old:
		return doubts()[d.Origin].says + "; the box is old and mixed"
	}
	return doubts()[d.Origin].says
}

// Doubt is what is not known of tubes of an origin; of one that is unknown, as of the library's.
func (o Origin) Doubt() Doubt {
	if d, is := doubts()[o]; is {
		return d.Doubt
	}
	return doubts()[LibraryArtist].Doubt
}

// OriginOf is how a paint was come by, as far as it says so itself: of the library it is taken for an artists' tube.
func OriginOf(p *paint.Paint) Origin {
	switch p.Making {
	case paint.FromALabel:
		return Label
	case paint.TwoSwatch:
		return SwatchesSeen
	case paint.FromCurves:
		return SwatchesMeasured
	}
	return LibraryArtist
}

// LeastDoubt is the least deviation of a strength that readings are held against: none is known better beforehand.
const LeastDoubt = 0.02

// Doubts says what is not known of a paint.
type Doubts func(*paint.Paint) Doubt

// Usual is what is not known of a paint by what it says of itself. White is the measure of strength, and of the others'
// cleanness: nothing is in doubt of it. Of a pile that was stirred before it is what is not known of the paint that
// colours it most.
func Usual(p *paint.Paint) Doubt {
	if len(p.Of) > 0 {
		most := slices.MaxFunc(p.Of, func(a, b paint.Part) int {
			if a.Parts*a.Paint.Strength() < b.Parts*b.Paint.Strength() {
				return -1
			}
			return 1
		})
		return Usual(most.Paint)
	}
	if p.Family == "white" {
		return Doubt{}
	}
	return OriginOf(p).Doubt()
}

// most is the most unknowns that a step depends on: strength, shade and cleanness of two paints.
const most = 2 * perTube

// Step is what is not known of a step of a path. The effects are those of one standard deviation of each unknown: of the
// first paint's strength, shade and cleanness, then of the second's.
type Step struct {
	Ratio     float64 // natural logarithm of the second paint's volume over the first's, as it most likely is
	ratio     [most]float64
	retention [most]float64
	kept      [most]float64
	chroma    [most]float64
	open      float64 // retention, not clamped at 1
	under     paint.Undertone
	known     bool // the step lies between the ends, so that there is something to know
}

// Position is where a step lies on a path.
type Position struct {
	Step  int     // of a section's three, 1 to 3
	ByArc bool    // as path.SectionSteps says it
	Along float64 // where Step is 0: how far along in the measure of the spacing, 0 to 1
}

// HalfWay is a path's middle.
var HalfWay = Position{Step: 2}

// share of the second paint at a place of a path.
func (at Position) share(p *path.Path, s path.Spacing) float64 {
	if at.Step == 0 {
		return p.ShareAt(at.Along, s)
	}
	return p.SectionShare(at.Step, s, at.ByArc)
}

// asked is what the steps of a path depend on.
type asked struct {
	pairKey
	spacing path.Spacing
	at      [3]Position
}

// remembered are steps: some hundred bytes each, and some milliseconds.
var remembered memo[asked, []Step]

// Steps says what is not known of steps of a path, by central differences: each unknown is moved by its deviation either
// way, the path followed anew and the steps found on it again, as a painter would who mixes to the hue. A step by equal
// parts stays at its parts, and a tube's strength changes what comes of it. What was asked of up to three positions is remembered.
func Steps(p *path.Path, s path.Spacing, doubt Doubts, at ...Position) []Step {
	of := [2]Doubt{doubt(p.A), doubt(p.B)}
	if len(at) > len(asked{}.at) {
		return steps(p, s, of, at)
	}
	key := asked{pairKey: pairKeyOf(p.A, p.B, of), spacing: s}
	copy(key.at[:], at)
	return slices.Clone(remembered.get(key, func() []Step { return steps(p, s, of, at) }))
}

func steps(p *path.Path, s path.Spacing, of [2]Doubt, at []Position) []Step {
	learned := of[0].Learned != nil || of[1].Learned != nil
	if learned {
		p = path.New(of[0].likeliest(p.A), of[1].likeliest(p.B))
	}
	out := make([]Step, len(at))
	for i, place := range at {
		out[i] = stepOf(p, place.share(p, s))
	}
	for k, d := range of {
		effects(p, s, k, 1, d.Shade, func(q *paint.Paint, by float64) (*paint.Paint, error) { return q.Variant(by, 0) }, at, out)
		effects(p, s, k, 2, d.Cleanness, func(q *paint.Paint, by float64) (*paint.Paint, error) { return q.Variant(0, by) }, at, out)
		if s == path.EqualParts {
			effects(p, s, k, 0, d.Strength, func(q *paint.Paint, by float64) (*paint.Paint, error) { return q.Tube(q.ID, math.Exp(by)) }, at, out)
			continue
		}
		// Mixed to the same step a stronger tube is taken less of, and all else stays.
		for i := range out {
			out[i].ratio[perTube*k] = d.Strength * float64(1-2*k)
		}
	}
	if learned {
		r := correlation(of)
		for i := range out {
			out[i].alongIndependent(r)
		}
	}
	return out
}

// effects are those of moving an unknown of one of a path's paints by a deviation either way.
func effects(p *path.Path, s path.Spacing, k, unknown int, deviation float64, moved func(*paint.Paint, float64) (*paint.Paint, error), at []Position, out []Step) {
	if deviation == 0 {
		return
	}
	ends := [2]*paint.Paint{p.A, p.B}
	var either [2][]Step
	for n, sign := range []float64{-1, 1} {
		to, err := moved(ends[k], sign*deviation)
		if err != nil {
			return // it cannot be moved so far: nothing is said of it
		}
		pair := ends
		pair[k] = to
		q := path.New(pair[0], pair[1])
		for _, place := range at {
			either[n] = append(either[n], stepOf(q, place.share(q, s)))
		}
	}
	j := perTube*k + unknown
	for i := range out {
		less, more := &either[0][i], &either[1][i]
		if !less.known || !more.known {
			continue
		}
		o := &out[i]
		o.ratio[j] = (more.Ratio - less.Ratio) / 2
		o.retention[j] = (more.open - less.open) / 2
		o.kept[j] = (more.under.Kept - less.under.Kept) / 2
		o.chroma[j] = (more.under.Chroma - less.under.Chroma) / 2
	}
}

// stepOf is a step as it is computed.
func stepOf(p *path.Path, share float64) Step {
	m := p.At(share)
	u := m.Undertone()
	out := Step{under: u, open: u.Chroma / paint.Envelope(u.WheelHue), known: share > 0 && share < 1}
	if out.known {
		out.Ratio = math.Log(share / (1 - share))
	}
	return out
}

// Deviation is the standard deviation of the logarithm of the ratio of the parts; 0 where it is not in doubt.
func (s *Step) Deviation() float64 { return length(s.ratio) }

func length(v [most]float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x * x
	}
	return math.Sqrt(sum)
}

// Known is how far the parts are known, as a share: "known to 42 %".
func (s *Step) Known() float64 { return KnownTo(s.Deviation()) }

// KnownTo is how far parts are known, as a share, of which the logarithm of the ratio has a standard deviation.
func KnownTo(deviation float64) float64 { return math.Exp(deviation) - 1 }

// Spread is the standard deviation of the logarithms of the ratios half way along some paths, by hue: the root of their
// mean variance; 0 of none.
func Spread(paths []*path.Path, doubt Doubts) float64 {
	sum, n := 0.0, 0.0
	for _, p := range paths {
		if p.Indistinguishable() {
			continue
		}
		d := Steps(p, path.ByHue, doubt, HalfWay)[0].Deviation()
		sum, n = sum+d*d, n+1
	}
	return math.Sqrt(sum / max(n, 1))
}

// within80 is how many deviations either way hold 80 in 100.
const within80 = 1.2815515655446004

// Sureness is how sure a verdict is.
type Sureness string

// The kinds of sureness.
const (
	Sure      Sureness = "sure"
	Likely    Sureness = "likely"
	EitherWay Sureness = "either way"
)

// Surenesses lists them, the surest first.
var Surenesses = []Sureness{Sure, Likely, EitherWay}

// How probable a word is that is sure, or likely.
const (
	sureFrom   = 0.90
	likelyFrom = 0.65
)

// points are fixed points of a normal distribution in all unknowns, spread evenly (Halton).
var points = sync.OnceValue(func() [][most]float64 {
	const many = 384
	primes := [most]int{2, 3, 5, 7, 11, 13}
	out := make([][most]float64, many)
	for i := range out {
		for j, base := range primes {
			out[i][j] = distuv.UnitNormal.Quantile(halton(i+1+20, base))
		}
	}
	return out
})

// halton is the i-th number of the van der Corput sequence of a base.
func halton(i, base int) (v float64) {
	for f := 1 / float64(base); i > 0; f /= float64(base) {
		v += f * float64(i%base)
		i /= base
	}
	return v
}

// Verdict says how sure a step's verdict is that is shown, and which words it could turn out as, the better first: one where it is
// sure or likely.
func (s *Step) Verdict(shown paint.Verdict) (Sureness, []paint.Verdict) {
	if shown == paint.Neutral || !s.known {
		return Sure, []paint.Verdict{shown}
	}
	times := map[paint.Verdict]int{}
	for _, z := range points() {
		retention, kept, chroma := s.open, s.under.Kept, s.under.Chroma
		for j, by := range z {
			retention += s.retention[j] * by
			kept += s.kept[j] * by
			chroma += s.chroma[j] * by
		}
		times[s.under.Judged(retention, kept, chroma)]++
	}
	var words []paint.Verdict
	for _, v := range paint.Verdicts {
		if times[v] > 0 {
			words = append(words, v)
		}
	}
	slices.SortStableFunc(words, func(a, b paint.Verdict) int { return times[b] - times[a] })
	all := float64(len(points()))
	switch share := float64(times[shown]) / all; {
	case len(words) > 0 && words[0] == shown && share >= sureFrom:
		return Sure, []paint.Verdict{shown}
	case len(words) > 0 && words[0] == shown && share >= likelyFrom:
		return Likely, []paint.Verdict{shown}
	}
	two := []paint.Verdict{shown}
	for _, v := range words {
		if v != shown {
			two = append(two, v)
			break
		}
	}
	slices.SortFunc(two, func(a, b paint.Verdict) int { return int(b) - int(a) }) // the better first
	return EitherWay, two
}

// OfPaint is how sure the verdict on a paint as it comes is: its parts are not in doubt.
func OfPaint(p *paint.Paint, doubt Doubts) *Confidence {
	d := doubt(p)
	shown := p.Undertone().Verdict
	likeliest := d.likeliest(p)
	out := Step{under: likeliest.Undertone(), known: true}
	out.open = out.under.Chroma / paint.Envelope(out.under.WheelHue)
	for n, by := range [][2]float64{{d.Shade, 0}, {0, d.Cleanness}} {
		j := n + 1
		less, one := likeliest.Variant(-by[0], -by[1])
		more, two := likeliest.Variant(by[0], by[1])
		if one != nil || two != nil {
			continue // it cannot be moved so far: nothing is said of it
		}
		u, v := less.Undertone(), more.Undertone()
		out.retention[j] = (v.Chroma/paint.Envelope(v.WheelHue) - u.Chroma/paint.Envelope(u.WheelHue)) / 2
		out.chroma[j] = (v.Chroma - u.Chroma) / 2
	}
	if d.Learned != nil {
		out.alongIndependent(correlation([2]Doubt{d}))
	}
	told := &Confidence{A: p, Of: [2]Doubt{d}}
	told.Sure, told.Could = out.Verdict(shown)
	return told
}
