package bias

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// numbers up to twelve in words.
var numbers = [...]string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

func inWords(n int) string {
	if n < len(numbers) {
		return numbers[n]
	}
	return fmt.Sprint(n)
}

// Relative says where a paint stands among a box's paints of its family: "the
// most violet of your three blues", "the more green of your two yellows",
// "between the others of your three blues". Empty for a paint alone in its
// family, one as like another as makes no difference, and what has no lean.
func Relative(p *paint.Paint, box []*paint.Paint) string {
	family := FamilyOf(p)
	own, ok := LeanIn(p, "")
	if !ok || RoleOf(family) == "" {
		return ""
	}
	var leans []float64
	for _, q := range box {
		if RoleOf(FamilyOf(q)) != RoleOf(family) {
			continue
		}
		if l, ok := LeanIn(q, ""); ok && q != p {
			leans = append(leans, l.Degrees)
		}
	}
	if len(leans) == 0 {
		return ""
	}
	h := roleHinges[RoleOf(family)]
	low, high := slices.Min(leans), slices.Max(leans)
	of := fmt.Sprintf("of your %s %ss", inWords(len(leans)+1), RoleOf(family))
	most := "most"
	if len(leans) == 1 {
		most = "more"
	}
	const alike = 1 // degrees
	switch {
	case own.Degrees > high+alike:
		return fmt.Sprintf("the %s %s %s", most, h.higher, of)
	case own.Degrees < low-alike:
		return fmt.Sprintf("the %s %s %s", most, h.lower, of)
	case own.Degrees > low+alike && own.Degrees < high-alike:
		return "between the others " + of
	}
	return ""
}

// Arc is the range of hues a family's paints are laid out on: the hinge in the
// middle and a neighbour at either end.
type Arc struct {
	Family        Family // of the role: "yellow", "red", "blue"; or "green", "orange", "violet"
	Lower, Higher string // the neighbours at falling and rising hue
	Dead          float64
	Span          float64 // degrees from the hinge to either end of the arc
	Places        []ArcPlace
}

// ArcPlace is one paint on its family's arc.
type ArcPlace struct {
	Paint *paint.Paint
	Lean  Lean
}

// arcOrder is the order of the arcs round the wheel, yellow first.
var arcOrder = []Family{"yellow", "orange", "red", "violet", "blue", "green"}

// leastSpan is the shortest half of an arc, so that a few degrees do not look
// like a great lean.
const leastSpan = 30

// Arcs lays a box's paints out by family, each measured as LeanIn does with no
// role. Magentas stand with the reds, cyans with the blues, earths with the
// family their undertone belongs to.
func Arcs(box []*paint.Paint) []Arc {
	byFamily := map[Family]*Arc{}
	for _, p := range box {
		l, ok := LeanIn(p, "")
		if !ok {
			continue
		}
		hue := rangeAt(p.Undertone().Hue)
		f, h := hue.family, hue.hinge
		if r := RoleOf(f); r != "" && p.Family != "earth" {
			f, h = Family(r), roleHinges[r]
		}
		a := byFamily[f]
		if a == nil {
			a = &Arc{Family: f, Lower: h.lower, Higher: h.higher, Dead: h.dead, Span: leastSpan}
			byFamily[f] = a
		}
		a.Span = max(a.Span, math.Ceil(math.Abs(l.Degrees)/10)*10)
		a.Places = append(a.Places, ArcPlace{p, l})
	}
	var out []Arc
	for _, f := range arcOrder {
		if a := byFamily[f]; a != nil {
			slices.SortStableFunc(a.Places, func(x, y ArcPlace) int { return cmp.Compare(x.Lean.Degrees, y.Lean.Degrees) })
			out = append(out, *a)
		}
	}
	return out
}

// HueOrder is the place of a paint round the painter's circle, in degrees (0 to
// 360) rising from yellow-green through blue and red to yellow: there no family is
// cut in two.
func HueOrder(p *paint.Paint) float64 { return 360 - colour.Turn(150-p.Undertone().WheelHue) }

// InHueOrder sorts paints as a painter lays a box out: by undertone round the
// painter's circle from yellow through red and blue to green, then earths,
// whites and blacks.
func InHueOrder(box []*paint.Paint) {
	group := func(p *paint.Paint) int { return slices.Index([]Family{"earth", "white", "black"}, FamilyOf(p)) }
	slices.SortStableFunc(box, func(a, b *paint.Paint) int {
		return cmp.Or(cmp.Compare(group(a), group(b)), cmp.Compare(HueOrder(b), HueOrder(a)))
	})
}
