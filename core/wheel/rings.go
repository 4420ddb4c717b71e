package wheel

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/internal/ratio"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// The lightness L* that the last tint and the last shade reach for, as an opaque
// wet layer or, thinned with water, as a dry film on paper.
const (
	lightestTint = 92
	darkestShade = 20
	mostRung     = 3
	leastShade   = 3 // L*: what is no lighter than that above 20 has no shades
	mostParts    = 40
	nearEnough   = 0.02 // OKLab, as for the steps of a path
)

// lightness is L* of the brushed-out colour.
func lightness(m *paint.Mixture) float64 {
	s := m.BrushedOut()
	return lab(s).L
}

// massLightness is L* of the masstone, which rings step by.
func massLightness(m *paint.Mixture) float64 { return lab(m.Masstone()).L }

func lab(s colour.Spectrum) colour.Lab { return s.XYZ(colour.D65).Lab(colour.D65.White()) }

// Toward is what a colour is lightened or darkened with.
type Toward string

// The ways of the rings.
const (
	ByWhite      Toward = "white"
	ByWater      Toward = "water"
	ByNeighbour  Toward = "neighbour"
	ByComplement Toward = "complement"
	ByBlack      Toward = "black"
	ByBlueGrey   Toward = "blue-grey"
	ByMixedBlack Toward = "mixed-black"
)

// Tinting and Shading are the ways to lighten and to darken.
var (
	Tinting = []Toward{ByWhite, ByWater, ByNeighbour}
	Shading = []Toward{ByComplement, ByBlack, ByBlueGrey, ByMixedBlack}
)

// ParseToward reads a way out of some.
func ParseToward(name string, among []Toward) (Toward, error) {
	if t := Toward(name); slices.Contains(among, t) {
		return t, nil
	}
	return "", fmt.Errorf("unknown way %q: choose one of %v", name, among)
}

// Rung is one place of a ring: a slot's mixture with something else.
type Rung struct {
	Of, With string        // the slot, and what is added: a slot, a paint or "water"
	Parts    [2]int        // of the slot's mixture and of what is added; zero for water
	Paint    *paint.Paint  // what is added; nil for water
	LetDown  int           // the slot's mixture is first let down: 1 part in so many of what is added; 0 if not
	Film     float64       // thickness where water thins, 0 otherwise
	Mixture  paint.Mixture // at Film, or as a slot is painted
	Reached  bool          // whether it came as light or dark as it should
	L        float64       // L* of the masstone, or of the dry film where water thins
}

// Looks is how the rung is painted in a medium, wet or dry: at its own film
// where it was thinned.
func (r *Rung) Looks(in paint.Medium, wet bool) colour.Spectrum {
	if r.Film == 0 {
		return r.Mixture.AsPainted(in, wet)
	}
	return r.Mixture.Laid(in, r.Film, wet)
}

// Tints are n rungs (1 to 3) from a slot toward white at equal steps of L*,
// the last at 92 where that can be reached.
func (w *Wheel) Tints(index, n int, by Toward) []Rung {
	return w.rungs(index, n, by, lightestTint)
}

// Shades are n rungs (1 to 3) toward black at equal steps of L*, the last at 20
// where that can be reached.
func (w *Wheel) Shades(index, n int, by Toward) []Rung {
	return w.rungs(index, n, by, darkestShade)
}

func (w *Wheel) rungs(index, n int, by Toward, end float64) []Rung {
	slot := &w.Slots[index]
	if slot.Empty || n < 1 {
		return nil
	}
	n = min(n, mostRung)
	from := massLightness(&slot.Mixture)
	if by == ByWater {
		from = wash(&slot.Mixture, fullWash)
	}
	if end == darkestShade && from-end <= leastShade {
		return nil // dark already
	}
	other := w.other(index, by)
	out := make([]Rung, 0, n)
	for i := 1; i <= n; i++ {
		want := from + (end-from)*float64(i)/float64(n)
		if by == ByWater {
			out = append(out, thinned(slot, want))
			continue
		}
		if other == nil {
			return nil
		}
		out = append(out, toward(slot, other, want))
	}
	return out
}

// other is the paint that a way adds to a slot; nil where there is none.
func (w *Wheel) other(index int, by Toward) *paint.Paint {
	switch by {
	case ByWhite:
		return paint.White()
	case ByBlack:
		if p := w.System.Black; p != nil {
			return p
		}
		return found("PBk9")
	case ByBlueGrey:
		if p := w.System.BlueGrey; p != nil {
			return p
		}
		return found("blue-grey")
	case ByMixedBlack:
		return w.Dark().Paint
	case ByComplement:
		return w.SlotPaint(w.Slots[index].Complement())
	case ByNeighbour:
		return w.SlotPaint(w.lighterNeighbour(index))
	}
	return nil
}

func found(id string) *paint.Paint {
	p, err := paint.Find(id)
	if err != nil {
		panic(err) // the library has it, and a test asks
	}
	return p
}

// SlotPaint is a slot's mixture taken for a paint; nil for an empty slot.
func (w *Wheel) SlotPaint(index int) *paint.Paint {
	slot := &w.Slots[index]
	if slot.Empty {
		return nil
	}
	if slot.Kind == Primary {
		return slot.Parts[0].Paint
	}
	p, err := stirred(slot.Name, slot.Recipe)
	if err != nil {
		return nil // a recipe that exists can be stirred
	}
	return p
}

// lighterNeighbour is the primary or secondary next to a slot on its lighter
// side: orange is lightened with yellow.
func (w *Wheel) lighterNeighbour(index int) int {
	best, most := index, -1.0
	for _, by := range []int{-2, -1, 1, 2} {
		at := ((index+by)%12 + 12) % 12
		if s := &w.Slots[at]; !s.Empty && s.Kind != Tertiary {
			if l := lightness(&s.Mixture); l > most {
				best, most = at, l
			}
		}
	}
	return best
}

// fullWash is the film of a watercolour slot at full strength.
const fullWash = 2

// wash is L* of a dry watercolour film on paper.
func wash(m *paint.Mixture, x float64) float64 {
	return lab(m.Film(x, paint.WhiteGround, paint.Matt)).L
}

// thinned finds the film that is as light as wanted, or nearly the bare paper.
func thinned(slot *Slot, want float64) Rung {
	thin, thick := math.Log(1.0/512), math.Log(fullWash)
	for range 40 {
		if mid := (thin + thick) / 2; wash(&slot.Mixture, math.Exp(mid)) > want {
			thin = mid
		} else {
			thick = mid
		}
	}
	x := math.Exp(thin)
	l := wash(&slot.Mixture, x)
	return Rung{Of: slot.Name, With: "water", Film: x, Mixture: slot.Mixture, L: l, Reached: math.Abs(l-want) < 3}
}

// toward mixes a slot with another paint until L* of the masstone is as wanted,
// or as near as it comes, in whole parts.
func toward(slot *Slot, other *paint.Paint, want float64) Rung {
	o := other.Alone()
	at := func(t float64) float64 {
		m := paint.Between(&slot.Mixture, &o, t)
		return massLightness(&m)
	}
	// Even in the logit, since a trace of a strong paint does much.
	best, miss := 0.0, math.Inf(1)
	shares := paint.Shares(41, 1, other.Strength())
	for _, t := range shares[1 : len(shares)-1] {
		if d := math.Abs(at(t) - want); d < miss {
			best, miss = t, d
		}
	}
	lo, hi := best/1.35, min(1-(1-best)/1.35, 0.999)
	for range 24 {
		p, q := lo+(hi-lo)*0.382, lo+(hi-lo)*0.618
		if math.Abs(at(p)-want) < math.Abs(at(q)-want) {
			hi = q
		} else {
			lo = p
		}
	}
	r := Rung{Of: slot.Name, With: other.Name, Paint: other}
	base, share := slot.Mixture, (lo+hi)/2
	if 1-share < 1.0/mostParts { // a trace: let down first
		r.LetDown = letDown
		base = paint.Between(&slot.Mixture, &o, letDown/(letDown+1.0))
		share = max(0.5, 1-(letDown+1)*(1-share))
	}
	r.Parts = wholeParts(&base, &o, share, mass)
	r.Mixture = paint.Between(&base, &o, float64(r.Parts[1])/float64(r.Parts[0]+r.Parts[1]))
	r.L = massLightness(&r.Mixture)
	r.Reached = math.Abs(r.L-want) < 4
	return r
}

// letDown is how many parts of what is added go to 1 part of a slot's mixture
// when only a trace of that is wanted.
const letDown = 9

// brushed and mass are two ways to look at a mixture.
func brushed(m *paint.Mixture) colour.OKLab { return m.Brushed() }

func mass(m *paint.Mixture) colour.OKLab {
	s := m.Masstone()
	return s.OKLab(colour.D65)
}

// wholeParts are the smallest whole numbers, at most 40 in all, of a and b
// whose colour, looked at in a way, lies within 0.02 OKLab of a share t of b;
// where none does, the nearest.
func wholeParts(a, b *paint.Mixture, t float64, look func(*paint.Mixture) colour.OKLab) [2]int {
	m := paint.Between(a, b, t)
	want := look(&m)
	best, least := [2]int{1, 1}, math.Inf(1)
	for total := 2; total <= mostParts; total++ {
		n := min(max(int(math.Round(t*float64(total))), 1), total-1)
		got := paint.Between(a, b, float64(n)/float64(total))
		if d := look(&got).Distance(want); d < least {
			best, least = [2]int{total - n, n}, d
			if d <= nearEnough {
				break
			}
		}
	}
	return best
}

// Triple is a slot's highlight, base and shadow: L* 18 lighter, as it is, and
// 18 darker, with white and by a way of shading.
func (w *Wheel) Triple(index int, by Toward) (highlight, shadow Rung, ok bool) {
	slot := &w.Slots[index]
	other := w.other(index, by)
	if slot.Empty || other == nil {
		return highlight, shadow, false
	}
	const apart = 18
	l := massLightness(&slot.Mixture)
	return toward(slot, paint.White(), l+apart), toward(slot, other, l-apart), true
}

// Values are n rungs (3 to 11) of one slot from the lightest tint to the
// darkest shade at equal steps of L*, the slot itself left where it falls.
func (w *Wheel) Values(index, n int, by Toward) []Rung {
	slot := &w.Slots[index]
	dark := w.other(index, by)
	if slot.Empty || dark == nil {
		return nil
	}
	n = min(max(n, 3), 11)
	own := massLightness(&slot.Mixture)
	var out []Rung
	for i := range n {
		want := lightestTint + (darkestShade-lightestTint)*float64(i)/float64(n-1)
		switch {
		case math.Abs(want-own) < 0.5*(lightestTint-darkestShade)/float64(n-1):
			out = append(out, Rung{Of: slot.Name, Parts: [2]int{1, 0}, Mixture: slot.Mixture, L: own, Reached: true})
		case want > own:
			out = append(out, toward(slot, paint.White(), want))
		default:
			out = append(out, toward(slot, dark, want))
		}
	}
	return out
}

// Balance is where two colours cancel: the mixture of least C*ab as painted.
type Balance struct {
	A, B    *paint.Paint
	Parts   [2]int
	Mixture paint.Mixture
	Lab     colour.Lab // as painted, dry
	HueWord string     // of its undertone: "grey, leaning ..."
	Even    string     // what dominates in equal parts, and what to add
	path    *path.Path
	share   float64
}

// BalanceOf finds the most neutral mixture of two paints as painted in a
// medium, dry.
func BalanceOf(a, b *paint.Paint, in paint.Medium) Balance {
	ma, mb := a.Alone(), b.Alone()
	grey := func(t float64) float64 {
		m := paint.Between(&ma, &mb, t)
		return lab(m.AsPainted(in, false)).Chroma()
	}
	best, least := 0.5, math.Inf(1)
	shares := paint.Shares(61, a.Strength(), b.Strength())
	for _, t := range shares[1 : len(shares)-1] {
		if c := grey(t); c < least {
			best, least = t, c
		}
	}
	parts := wholeParts(&ma, &mb, best, brushed)
	// Among countable parts near it the most neutral wins.
	for total := 2; total <= mostParts; total++ {
		for n := max(1, int(best*float64(total))-1); n <= min(total-1, int(best*float64(total))+2); n++ {
			if c := grey(float64(n) / float64(total)); c < least-0.25 {
				parts, least = [2]int{total - n, n}, c
			}
		}
	}
	share := float64(parts[1]) / float64(parts[0]+parts[1])
	m := paint.Between(&ma, &mb, share)
	out := Balance{A: a, B: b, Parts: parts, Mixture: m, Lab: lab(m.AsPainted(in, false)), share: share}
	out.HueWord = m.Undertone().HueWord()
	half := paint.Between(&ma, &mb, 0.5)
	strong, weak := a, b
	if share < 0.5 {
		strong, weak = b, a
	}
	if math.Abs(share-0.5) < 0.02 {
		out.Even = "In equal parts they are balanced."
	} else {
		out.Even = fmt.Sprintf("In equal parts the %s dominates (%s): add more of the %s.", strong.Name, half.Undertone().HueWord(), weak.Name)
	}
	return out
}

// Intensity are n steps (5 or 7) from one colour through the balance to the
// other, at equal arcs of the brushed-out colour on either side.
func (b *Balance) Intensity(n int) []Rung {
	if b.path == nil {
		b.path = path.New(b.A, b.B)
	}
	ma, mb := b.A.Alone(), b.B.Alone()
	arcAt := func(share float64) float64 {
		for i, s := range b.path.Samples {
			if s.Share >= share {
				if i == 0 {
					return 0
				}
				before := b.path.Samples[i-1]
				return before.Arc + (s.Arc-before.Arc)*(share-before.Share)/(s.Share-before.Share)
			}
		}
		return b.path.Length()
	}
	middle, whole := arcAt(b.share), b.path.Length()
	half := n / 2
	var out []Rung
	for i := range n {
		var share float64
		switch {
		case i == 0:
			share = 0
		case i == n-1:
			share = 1
		case i == half:
			share = b.share
		default:
			arc := middle * float64(i) / float64(half)
			if i > half {
				arc = middle + (whole-middle)*float64(i-half)/float64(half)
			}
			share = b.path.ShareAt(arc/whole, path.ByContrast)
		}
		parts := [2]int{1, 0}
		switch {
		case share == 1:
			parts = [2]int{0, 1}
		case i == half:
			parts = b.Parts
		case share > 0:
			parts = wholeParts(&ma, &mb, share, brushed)
		}
		m := paint.Between(&ma, &mb, float64(parts[1])/float64(parts[0]+parts[1]))
		out = append(out, Rung{Of: b.A.Name, With: b.B.Name, Parts: parts, Paint: b.B, Mixture: m, L: massLightness(&m), Reached: true})
	}
	return out
}

// Darkest is the darkest dark of a system's primaries.
type Darkest struct {
	Parts   []paint.Part
	Paint   *paint.Paint // the mixture taken for a paint
	Lab     colour.Lab   // of the masstone
	Neutral bool         // whether its C*ab is at most 4; if not it is the least chromatic below L* 25, or the darkest
	Hidden  string       // hue word of the tint it hides when white is added
}

const (
	neutralLab = 4  // C*ab
	darkLab    = 25 // L*
)

// Dark finds the darkest dark: of all mixtures of two or three of the system's
// paints in up to 24 parts, the lowest L* of the masstone with C*ab of at most
// 4; if there is none, the least chromatic under L* 25.
func (w *Wheel) Dark() Darkest {
	if w.dark != nil {
		return *w.dark
	}
	paints := w.System.Paints()
	parts := 24
	if len(paints) > 3 {
		parts = 16
	}
	if len(paints) > 6 {
		parts = 10
	}
	type tried struct {
		parts  []paint.Part
		lab    colour.Lab
		chroma float64
	}
	var best, grey, least *tried
	try := func(of []paint.Part) {
		m, err := paint.Mix(of...)
		if err != nil {
			return
		}
		t := &tried{slices.Clone(of), lab(m.Masstone()), 0}
		t.chroma = t.lab.Chroma()
		if t.chroma <= neutralLab && (best == nil || t.lab.L < best.lab.L) {
			best = t
		}
		if t.lab.L < darkLab && (grey == nil || t.chroma < grey.chroma) {
			grey = t
		}
		if least == nil || t.lab.L < least.lab.L {
			least = t
		}
	}
	for i, a := range paints {
		for j, b := range paints[:i] {
			for n := 1; n < parts; n++ {
				try([]paint.Part{{Paint: a, Parts: float64(n)}, {Paint: b, Parts: float64(parts - n)}})
			}
			for _, c := range paints[:j] {
				for n := 1; n < parts-1; n++ {
					for m := 1; m < parts-n; m++ {
						try([]paint.Part{{Paint: a, Parts: float64(n)}, {Paint: b, Parts: float64(m)}, {Paint: c, Parts: float64(parts - n - m)}})
					}
				}
			}
		}
	}
	chosen := best
	if chosen == nil {
		chosen = grey
	}
	if chosen == nil {
		chosen = least
	}
	reduce(chosen.parts)
	p, err := paint.Stir("mixed black", "mixed black", chosen.parts...)
	if err != nil {
		panic(err) // it was mixed a moment ago
	}
	d := Darkest{Parts: chosen.parts, Paint: p, Lab: chosen.lab, Neutral: best != nil, Hidden: p.Undertone().HueWord()}
	w.dark = &d
	return d
}

// reduce brings parts to their smallest whole numbers.
func reduce(parts []paint.Part) {
	g := 0
	for _, p := range parts {
		g = ratio.GCD(g, int(p.Parts))
	}
	for i := range parts {
		parts[i].Parts /= float64(g)
	}
}

// Scheme is a set of slots read off the wheel.
type Scheme string

// The schemes.
const (
	Complement      Scheme = "complement"
	SplitComplement Scheme = "split complement"
	Analogous       Scheme = "analogous"
	TriadScheme     Scheme = "triad"
)

// Schemes lists them, with the places each adds to the one it starts from.
var Schemes = []struct {
	Scheme Scheme
	Offset []int
}{
	{Complement, []int{0, 6}},
	{SplitComplement, []int{0, 5, 7}},
	{Analogous, []int{11, 0, 1}},
	{TriadScheme, []int{0, 4, 8}},
}

// Read are the slots of a scheme from one slot on, empty ones left out.
func (w *Wheel) Read(index int, scheme Scheme) (out []int) {
	for _, s := range Schemes {
		if s.Scheme != scheme {
			continue
		}
		for _, by := range s.Offset {
			if at := (index + by) % 12; !w.Slots[at].Empty {
				out = append(out, at)
			}
		}
	}
	return out
}
