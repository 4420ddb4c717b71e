package paint

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// Making is how a paint's curves were come by.
type Making string

// The ways a paint is made.
const (
	Modelled   Making = "modelled" // the library: typical of its pigment class
	FromALabel Making = "label"    // parts of library paints, after the label's pigments
	TwoSwatch  Making = "swatches" // worked out from the colours of two swatches
	FromCurves Making = "measured" // worked out from measured spectra of two swatches
	Changed    Making = "adjusted" // a library paint made stronger, weaker or shifted
	Stirred    Making = "stirred"  // a mixture taken for a paint, to be mixed further
)

var makingWords = map[Making]string{
	Modelled:   "modelled: typical of its pigment class, not your tube",
	FromALabel: "from the label: modelled pigments in the shares said below",
	TwoSwatch:  "from two swatches",
	FromCurves: "measured: from spectra of two swatches",
	Changed:    "adjusted: a modelled paint made like yours by hand",
}

// Words say in a sentence how the curves were come by.
func (m Making) Words() string { return makingWords[m] }

// Makings lists those that a tube of a box can have.
var Makings = []Making{Modelled, FromALabel, TwoSwatch, FromCurves, Changed}

// Grade is how richly a tube is pigmented.
type Grade string

// The grades of a tube.
const (
	Artist  Grade = "artist"
	Student Grade = "student"
)

// Grades lists them.
var Grades = []Grade{Artist, Student}

// ParseGrade reads "artist" or "student".
func ParseGrade(s string) (Grade, error) {
	switch g := Grade(s); g {
	case Artist, Student:
		return g, nil
	}
	return "", input.Errorf("unknown grade %q: choose artist or student", input.Clip(s))
}

// studentStrength is the strength that student tubes start with, by the class of
// tinting strength, 1 to 5: the strong pigments are let down most, for what is
// dear in a tube is its pigment.
var studentStrength = [...]float64{1: 0.85, 2: 0.7, 3: 0.55, 4: 0.33, 5: 0.2}

// Strength is the factor on K and S that tubes of a grade start with, of a paint
// whose class of tinting strength is 1 to 5.
func (g Grade) Strength(class int) float64 {
	if g == Student {
		return studentStrength[class]
	}
	return 1
}

// The strengths that a tube can have.
const weakestTube, strongestTube = 0.05, 20

// BoundedStrength is a strength within what a tube can have, 0.05 to 20.
func BoundedStrength(g float64) float64 { return min(max(g, weakestTube), strongestTube) }

// Tube is a tube of a paint with a strength g of its own, 0.05 to 20. White
// always has strength 1.
func (p *Paint) Tube(id string, g float64) (*Paint, error) {
	if !(g >= weakestTube && g <= strongestTube) {
		return nil, fmt.Errorf("a strength of %.4g cannot be: it runs from 0.05 to 20, 1 being an ordinary artist's tube", g)
	}
	if p.Family == "white" {
		g = 1
	}
	t := p.copied()
	t.ID = id
	t.strength = p.strength * g
	t.StrengthClass = min(max(p.StrengthClass+int(math.Round(math.Log2(g))), 1), 5)
	for i := range t.alone.k {
		t.alone.k[i] *= g
		t.alone.s[i] *= g
	}
	t.alone.weight *= g
	t.alone.brought *= g
	if err := t.alone.sound(); err != nil {
		return nil, fmt.Errorf("at a strength of %.4g: %w", g, err)
	}
	return t, nil
}

// Called is the paint under another id and name; an empty name leaves its own.
func (p *Paint) Called(id, name string) *Paint {
	c := p.copied()
	c.ID = id
	if name != "" {
		c.Name = name
	}
	return c
}

// copied is the paint without what was worked out of it.
func (p *Paint) copied() *Paint {
	return &Paint{ID: p.ID, CI: p.CI, Name: p.Name, Family: p.Family, Hiding: p.Hiding, StrengthClass: p.StrengthClass,
		Staining: p.Staining, Lightfast: p.Lightfast, CautionClass: p.CautionClass, Caution: p.Caution, Making: p.Making, Library: p.Library, Version: p.Version,
		strength: p.strength, alone: p.alone}
}

// OfCurves is a mixture with given K and S at the 36 bands, K from 0 to
// MostAbsorption and S from LeastScattering to MostScattering.
func OfCurves(k, s colour.Spectrum) (Mixture, error) {
	m := Mixture{k: k, s: s}
	if err := m.sound(); err != nil {
		return Mixture{}, err
	}
	m.neutral = colourless(&m)
	return m, nil
}

// Own makes a paint of a painter's own from its curves. Pigments are the
// library paints its label names, none when nobody knows: cautions, staining
// and lightfastness come from them. Family, hiding and strength are measured.
func Own(id, name string, m Mixture, pigments []*Paint, made Making) *Paint {
	p := &Paint{ID: id, Name: name, Making: made, strength: 1, alone: m, Family: wordOf(&m, pigments), Hiding: hidingOf(&m), StrengthClass: strengthOf(&m)}
	if p.Family == "white" {
		p.alone.allWhite()
	} else {
		p.alone.ofOneTube()
	}
	p.CautionClass, p.Caution = "unknown", unknownCaution
	p.takeAfter(pigments)
	var codes []string
	for _, q := range pigments {
		if !slices.Contains(codes, q.CI) {
			codes = append(codes, q.CI)
		}
	}
	p.CI = strings.Join(codes, ", ")
	return p
}

// takeAfter gives a paint the gravest caution of those it is made of, and the
// worst of their staining and lightfastness.
func (p *Paint) takeAfter(of []*Paint) {
	for i, q := range of {
		if i == 0 || cautionClasses[q.CautionClass].rank > cautionClasses[p.CautionClass].rank {
			p.CautionClass, p.Caution = q.CautionClass, q.Caution
		}
		p.Staining = worse(p.Staining, q.Staining, "low", "medium", "high")
		p.Lightfast = worse(p.Lightfast, q.Lightfast, "excellent", "good", "fair", "poor")
	}
}

// worse is the one of two words that stands later in the order; anything is
// worse than nothing.
func worse(a, b string, order ...string) string {
	if slices.Index(order, b) > slices.Index(order, a) {
		return b
	}
	return a
}

// wordOf is the family a paint of one's own is given: earth where its pigments
// are earths, black or white where it has no hue, otherwise by its undertone.
func wordOf(m *Mixture, pigments []*Paint) string {
	if m.neutral {
		mass := m.Masstone().Lab()
		if mass.L > 60 {
			return "white"
		}
		return "black"
	}
	coloured := slices.DeleteFunc(slices.Clone(pigments), func(p *Paint) bool { return p.alone.neutral })
	if len(coloured) > 0 && !slices.ContainsFunc(coloured, func(p *Paint) bool { return p.Family != "earth" }) {
		return "earth"
	}
	return ""
}

// hidingOf reads hiding off the scattering at 550 nm, at the thresholds that
// part the library's words.
func hidingOf(m *Mixture) string {
	s := m.s[17]
	switch {
	case s > 0.45 || m.neutral && m.k[17] > 3:
		return "opaque"
	case s > 0.19:
		return "semi"
	}
	return "transparent"
}

// strengthFrom are the figures of absorption from which a paint is of the classes 2 to 5 of tinting
// strength.
var strengthFrom = []float64{1.4, 3, 4.7, 8.05}

// strengthOf is the class of tinting strength, 1 to 5: by the geometric mean of how much a paint absorbs
// where it does so most and of what it absorbs in the middle (400 to 700 nm). A narrow band colours a
// tint no more than a broad one of less height.
func strengthOf(m *Mixture) int {
	figure := math.Sqrt(slices.Max(m.k[:]) * m.visibleAbsorption())
	class := 1
	for _, from := range strengthFrom {
		if figure >= from {
			class++
		}
	}
	return class
}

// The farthest that a paint is made cleaner or duller, in shares of its undertone's chroma.
const MostCleaner, MostDuller = 0.5, -0.5

// Adjusted is a paint like another but with its strength multiplied by a factor
// (0.1 to 10), its absorption shifted along the wavelengths (-20 to 20 nm), and the
// chroma of its undertone changed by a share (-0.5 to 0.5): its valleys of absorption
// are made deeper or filled, K' = Kmax (K/Kmax)^(1+y). What has no hue stays as clean as it is.
func Adjusted(p *Paint, factor, shift, cleaner float64) (Mixture, error) {
	if !(factor >= 0.1 && factor <= 10) {
		return Mixture{}, fmt.Errorf("%.4g times as strong is out of reach: choose from 0.1 to 10", factor)
	}
	if !(math.Abs(shift) <= 20) {
		return Mixture{}, fmt.Errorf("a shift of %.4g nm is out of reach: choose from -20 to 20", shift)
	}
	if p.Family == "white" && factor != 1 {
		return Mixture{}, errors.New("white is the measure of strength and always has 1; it can be shifted, not made stronger or weaker")
	}
	if !(cleaner >= MostDuller && cleaner <= MostCleaner) {
		return Mixture{}, fmt.Errorf("a change of chroma by %.4g is out of reach: choose from %v to %v", cleaner, MostDuller, MostCleaner)
	}
	m := p.alone
	k := m.k.Shifted(shift)
	if cleaner != 0 && m.hued {
		k = purified(k, m.s, cleaner)
	}
	for i := range m.k {
		m.k[i] = k[i] * factor
		m.s[i] *= factor
	}
	return m, nil
}

// How the exponent of a change of chroma is found: from 0 in strides to where the chroma is met, or rises no more, and
// then hemmed in.
const (
	purifyStride = 0.1
	purifySteps  = 8
	mostPurify   = 4.0
	leastPurify  = -0.9
)

// purified is an absorption whose undertone, with a scattering, has a chroma changed by a share: as near to it as
// its shape allows.
func purified(k, s colour.Spectrum, share float64) colour.Spectrum {
	top := slices.Max(k[:])
	if top <= 0 {
		return k
	}
	with := func(y float64) (out colour.Spectrum) {
		for i := range k {
			out[i] = top * math.Pow(k[i]/top, 1+y)
		}
		return out
	}
	chroma := func(k colour.Spectrum) float64 {
		m := Mixture{k: k, s: s}
		return m.bareUndertone().Chroma
	}
	was := chroma(k)
	want := (1 + share) * was
	// Beyond some exponent the peak alone is left, and the chroma falls again.
	from, to, stride := 0.0, 0.0, math.Copysign(purifyStride, share)
	for now := was; (now-want)*share < 0; {
		from, to = to, to+stride
		next := chroma(with(to))
		if (next-now)*share <= 0 || to > mostPurify || to < leastPurify {
			return with(from)
		}
		now = next
	}
	for range purifySteps {
		if mid := (from + to) / 2; (chroma(with(mid))-want)*share < 0 {
			from = mid
		} else {
			to = mid
		}
	}
	return with((from + to) / 2)
}

// Variant is the paint with its absorption shifted along the wavelengths (nm) and the chroma of its undertone changed
// by a share, as Adjusted has it: another tube of the same, as far as both go. Whites stay as they are.
func (p *Paint) Variant(shift, cleaner float64) (*Paint, error) {
	m, err := Adjusted(p, 1, shift, cleaner)
	if err != nil || p.alone.white != nil {
		return p, err
	}
	out := p.copied()
	out.alone.k, out.alone.s = m.k, m.s
	out.alone.ofOneTube()
	return out, nil
}

var codePattern = regexp.MustCompile(`(?i)\bP\s?(Br|Bk|Y|O|R|V|B|G|W)\s?(\d{1,3})(?:\s?[:.]\s?(\d))?\b`)

// mostPigments is the most pigments a label may name.
const mostPigments = 6

// Codes finds Colour Index names in what a label says ("PB 15:3, PW6"), in
// order and each once.
func Codes(label string) []string {
	var out []string
	for _, m := range codePattern.FindAllStringSubmatch(label, -1) {
		letters := strings.ToUpper(m[1])
		if len(letters) == 2 {
			letters = letters[:1] + strings.ToLower(letters[1:])
		}
		code := "P" + letters + m[2]
		if m[3] != "" {
			code += ":" + m[3]
		}
		if !slices.Contains(out, code) {
			out = append(out, code)
		}
	}
	return out
}

// WithCode are the library paints with a Colour Index name, for one name may
// stand on tubes of several colours.
func WithCode(code string) []*Paint {
	var out []*Paint
	for _, p := range Library() {
		if strings.EqualFold(p.CI, code) {
			out = append(out, p)
		}
	}
	return out
}

// LabelCode is a Colour Index name found on a label, and the library paints that
// may stand for it; none where the library has none.
type LabelCode struct {
	Code   string
	Paints []*Paint
}

// ReadLabel finds the pigments that a label names. The error is an input.Error:
// there are none.
func ReadLabel(label string) ([]LabelCode, error) {
	var out []LabelCode
	for _, code := range Codes(label) {
		out = append(out, LabelCode{code, WithCode(code)})
	}
	if len(out) == 0 {
		return nil, input.Errorf("no pigment code is in %q: look for letters and a number such as PB29, PY 184 or PV19 on the label", input.Clip(label))
	}
	return out, nil
}

// FromLabel is a paint after the pigments its label names: balanced, less of a strong one, or,
// where the colour of its masstone is known, the parts that come nearest to it
// in CIEDE2000. Shares are in the order of the pigments and sum to 1; the fit
// tells how near that is.
func FromLabel(pigments []*Paint, mass *Reading) (m Mixture, shares []float64, fit *Fit, err error) {
	if len(pigments) == 0 {
		return m, nil, nil, errors.New("name at least one pigment, by its Colour Index name: PB29, or PR122 and PV19")
	}
	if len(pigments) > mostPigments {
		return m, nil, nil, fmt.Errorf("%d pigments are more than a tube holds: name at most %d", len(pigments), mostPigments)
	}
	for i, p := range pigments {
		if slices.Contains(pigments[:i], p) {
			return m, nil, nil, fmt.Errorf("%s stands twice: name each pigment once", p.ID)
		}
	}
	shares = balanced(pigments)
	if mass != nil {
		miss := nearestShares(pigments, shares, *mass)
		fit = &Fit{Mass: miss}
	}
	return stirred(pigments, shares), shares, fit, nil
}

// leastTelling is what a pigment that absorbs nothing counts for in a balance.
const leastTelling = 0.3

// balanced are shares of pigments, which sum to 1, in which each tells as much: a tube is hardly ever mixed in
// equal parts of a phthalo and an earth.
func balanced(pigments []*Paint) []float64 {
	shares, whole := make([]float64, len(pigments)), 0.0
	for i, p := range pigments {
		shares[i] = 1 / (leastTelling + p.alone.Absorption())
		whole += shares[i]
	}
	for i := range shares {
		shares[i] /= whole
	}
	return shares
}

func stirred(pigments []*Paint, shares []float64) Mixture {
	m := Mixture{neutral: true}
	for i, p := range pigments {
		if shares[i] > 0 {
			m.add(&p.alone, shares[i])
		}
	}
	return m
}

// leastTrace is the least share of a pigment that a label names.
const leastTrace = 0.002

// nearestShares moves shares until the masstone comes as near to a reading as
// it will, and returns how near. It walks from shares and from each
// pigment alone, moving one pigment against the rest in logarithmic strides
// that shrink, and keeps the best end.
func nearestShares(pigments []*Paint, shares []float64, mass Reading) float64 {
	miss := func(s []float64) float64 {
		m := stirred(pigments, s)
		return colour.Difference(mass.Lab, mass.swatch(&m))
	}
	best, least := slices.Clone(shares), miss(shares)
	for start := -1; start < len(pigments); start++ {
		now := slices.Clone(shares)
		if start >= 0 {
			for i := range now {
				now[i] = leastTrace * 5
			}
			now[start] = 1
			normalise(now)
		}
		at := miss(now)
		for stride := 2.0; stride > 1e-4; {
			moved := false
			for i := range now {
				for _, by := range []float64{math.Exp(stride), math.Exp(-stride)} {
					next := slices.Clone(now)
					next[i] *= by
					normalise(next)
					if slices.Min(next) < leastTrace {
						continue
					}
					if d := miss(next); d < at {
						now, at, moved = next, d, true
					}
				}
			}
			if !moved {
				stride /= 2
			}
		}
		if at < least {
			best, least = now, at
		}
	}
	copy(shares, best)
	return least
}

func normalise(s []float64) {
	var sum float64
	for _, v := range s {
		sum += v
	}
	for i := range s {
		s[i] /= sum
	}
}
