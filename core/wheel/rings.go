package wheel

import (
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// The lightness L* that the last tint and the last shade reach for, as an opaque
// wet layer or, thinned with water, as a dry film on paper.
const (
	lightestTint = 92
	darkestShade = 20
	mostRung     = 3
	leastShade   = 3 // L*: what is no lighter than that above 20 has no shades
)

// lightness is L* of the brushed-out colour.
func lightness(m *paint.Mixture) float64 {
	s := m.BrushedOut()
	return s.Lab().L
}

// massLightness is L* of the masstone, which rings step by.
func massLightness(m *paint.Mixture) float64 { return m.Masstone().Lab().L }

// Additive is what a colour is lightened or darkened with.
type Additive string

// The ways of the rings.
const (
	ByWhite      Additive = "white"
	ByWater      Additive = "water"
	ByNeighbour  Additive = "neighbour"
	ByComplement Additive = "complement"
	ByBlack      Additive = "black"
	ByBlueGrey   Additive = "blue-grey"
	ByMixedBlack Additive = "mixed-black"
)

// Tinting and Shading are the ways to lighten and to darken.
var (
	Tinting = []Additive{ByWhite, ByWater, ByNeighbour}
	Shading = []Additive{ByComplement, ByBlack, ByBlueGrey, ByMixedBlack}
)

// ParseAdditive reads a way out of some.
func ParseAdditive(name string, among []Additive) (Additive, error) {
	if t := Additive(name); slices.Contains(among, t) {
		return t, nil
	}
	return "", input.Errorf("unknown way %q: choose one of %v", name, among)
}

// RingRung is one place of a ring: a slot's mixture with something else.
type RingRung struct {
	Of, With string        // the slot, and what is added: a slot, a paint or "water"; With is empty for the slot itself
	Parts    recipe.Recipe // of the slot's mixture, or its let-down, and of what is added; without the water
	Film     float64       // thickness where water thins, 0 otherwise
	Mixture  paint.Mixture // at Film, or as a slot is painted
	Reached  bool          // whether it came as light or dark as it should
	L        float64       // L* of the masstone, or of the dry film where water thins
}

// Appearance is how the rung is painted in a medium, wet or dry: at its own film
// where it was thinned.
func (r *RingRung) Appearance(in paint.Medium, wet bool) colour.Spectrum {
	if r.Film == 0 {
		return r.Mixture.AsPainted(in, wet)
	}
	return r.Mixture.FilmIn(in, r.Film, wet)
}

// Tints are n rungs (1 to 3) from a slot toward white at equal steps of L*,
// the last at 92 where that can be reached.
func (w *Wheel) Tints(index, n int, by Additive) []RingRung {
	return w.rungs(index, n, by, lightestTint)
}

// Shades are n rungs (1 to 3) toward black at equal steps of L*, the last at 20
// where that can be reached.
func (w *Wheel) Shades(index, n int, by Additive) []RingRung {
	return w.rungs(index, n, by, darkestShade)
}

func (w *Wheel) rungs(index, n int, by Additive, end float64) []RingRung {
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
	own, other := w.SlotPaint(index), w.other(index, by)
	out := make([]RingRung, 0, n)
	for i := 1; i <= n; i++ {
		want := from + (end-from)*float64(i)/float64(n)
		if by == ByWater {
			out = append(out, thinned(own, want))
			continue
		}
		if other == nil {
			return nil
		}
		out = append(out, toward(own, other, want))
	}
	return out
}

// other is the paint that a way adds to a slot; nil where there is none.
func (w *Wheel) other(index int, by Additive) *paint.Paint {
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
	p, err := slot.Parts.Stir(slot.Name, slot.Name)
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
func thinned(of *paint.Paint, want float64) RingRung {
	m := of.Alone()
	thin, thick := math.Log(1.0/512), math.Log(fullWash)
	for range 40 {
		if mid := (thin + thick) / 2; wash(&m, math.Exp(mid)) > want {
			thin = mid
		} else {
			thick = mid
		}
	}
	x := math.Exp(thin)
	l := wash(&m, x)
	return RingRung{Of: of.Name, With: "water", Parts: recipe.Pure(of), Film: x, Mixture: m, L: l, Reached: math.Abs(l-want) < 3}
}

// toward mixes a slot's paint with another until L* of the masstone is as wanted,
// or as near as it comes, in whole parts. Of a trace of it the let-down is mixed.
func toward(of, other *paint.Paint, want float64) RingRung {
	m, o := of.Alone(), other.Alone()
	at := func(t float64) float64 {
		mixed := paint.Between(&m, &o, t)
		return massLightness(&mixed)
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
	base, share := recipe.Ingredient{Paint: of}, (lo+hi)/2
	if 1-share < 1.0/recipe.MostParts { // a trace: let down first
		base.In, base.Thin = other, recipe.Thinnings[0]
		whole := float64(base.Thin + 1)
		share = max(0.5, 1-whole*(1-share))
	}
	first := base.Mixture()
	parts := wholeParts(&first, &o, share, mass)
	base.Parts = float64(parts[0])
	r := RingRung{Of: of.Name, With: other.Name, Parts: recipe.Recipe{base, {Paint: other, Parts: float64(parts[1])}}}
	r.Mixture = paint.Between(&first, &o, float64(parts[1])/float64(parts[0]+parts[1]))
	r.L = massLightness(&r.Mixture)
	r.Reached = math.Abs(r.L-want) < 4
	return r
}

// brushed and mass are two ways to look at a mixture.
func brushed(m *paint.Mixture) colour.OKLab { return m.BrushedOutColour() }

func mass(m *paint.Mixture) colour.OKLab {
	s := m.Masstone()
	return s.OKLab(colour.D65)
}

// wholeParts are the smallest whole numbers of a and b whose colour, looked at in
// a way, is near enough to a share t of b; where none is, the nearest.
func wholeParts(a, b *paint.Mixture, t float64, look func(*paint.Mixture) colour.OKLab) [2]int {
	m := paint.Between(a, b, t)
	want := look(&m)
	parts, _ := recipe.Search{Share: t, Off: func(share float64) float64 {
		got := paint.Between(a, b, share)
		return look(&got).Distance(want)
	}}.Ratio()
	return parts
}

// Triple is a slot's highlight, base and shadow: L* 18 lighter, as it is, and
// 18 darker, with the system's white and by a way of shading.
func (w *Wheel) Triple(index int, by Additive) (highlight, shadow RingRung, ok bool) {
	slot := &w.Slots[index]
	other := w.other(index, by)
	if slot.Empty || other == nil {
		return highlight, shadow, false
	}
	const apart = 18
	l := massLightness(&slot.Mixture)
	own := w.SlotPaint(index)
	return toward(own, w.System.Rider(WhiteRider), l+apart), toward(own, other, l-apart), true
}

// Values are n rungs (3 to 11) of one slot from the lightest tint to the
// darkest shade at equal steps of L*, the slot itself left where it falls.
func (w *Wheel) Values(index, n int, by Additive) []RingRung {
	slot := &w.Slots[index]
	dark := w.other(index, by)
	if slot.Empty || dark == nil {
		return nil
	}
	n = min(max(n, 3), 11)
	own, light := w.SlotPaint(index), massLightness(&slot.Mixture)
	var out []RingRung
	for i := range n {
		want := lightestTint + (darkestShade-lightestTint)*float64(i)/float64(n-1)
		switch {
		case math.Abs(want-light) < 0.5*(lightestTint-darkestShade)/float64(n-1):
			out = append(out, RingRung{Of: slot.Name, Parts: recipe.Pure(own), Mixture: slot.Mixture, L: light, Reached: true})
		case want > light:
			out = append(out, toward(own, w.System.Rider(WhiteRider), want))
		default:
			out = append(out, toward(own, dark, want))
		}
	}
	return out
}
