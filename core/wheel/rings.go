package wheel

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
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
	return s.Lab().L
}

// massLightness is L* of the masstone, which rings step by.
func massLightness(m *paint.Mixture) float64 { return m.Masstone().Lab().L }

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
		return w.System.Rider(WhiteRider)
	case ByBlack:
		return w.System.Rider(BlackRider)
	case ByBlueGrey:
		return w.System.Rider(BlueGreyRider)
	case ByMixedBlack:
		return w.Dark().Paint
	case ByComplement:
		return w.SlotPaint(w.Slots[index].Complement())
	case ByNeighbour:
		return w.SlotPaint(w.lighterNeighbour(index))
	}
	return nil
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
	return m.Film(x, paint.WhiteGround, paint.Matt).Lab().L
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
// 18 darker, with the system's white and by a way of shading.
func (w *Wheel) Triple(index int, by Toward) (highlight, shadow Rung, ok bool) {
	slot := &w.Slots[index]
	other := w.other(index, by)
	if slot.Empty || other == nil {
		return highlight, shadow, false
	}
	const apart = 18
	l := massLightness(&slot.Mixture)
	return toward(slot, w.System.Rider(WhiteRider), l+apart), toward(slot, other, l-apart), true
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
			out = append(out, toward(slot, w.System.Rider(WhiteRider), want))
		default:
			out = append(out, toward(slot, dark, want))
		}
	}
	return out
}
