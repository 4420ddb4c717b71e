package reach

import (
	"fmt"
	"math"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Metrics is how a system stands beside others: all that is compared, under
// the same medium.
type Metrics struct {
	Wheel    *wheel.Wheel
	Reach    Reach
	Shades   [Bins]*colour.OKLab // an undertone of each bin, for drawing; nil where there is none
	Evenness float64             // the median jump over the largest, 0 to 1: 1 where all steps are alike
	Jumps    int                 // steps that jump
	Dark     wheel.Darkest
	Middles  float64 // mean C*ab of the greys that complements meet in, as painted
	Lamp     Shift
}

// Shift is the slot whose colour changes most from daylight to lamp A, of those
// that are not too dark to judge.
type Shift struct {
	Slot int     // -1 where all are
	DE   float64 // CIEDE2000, each against its own white
}

// Measure works out how a system stands, as painted in a medium, dry.
func Measure(s wheel.System, in paint.Medium) Metrics {
	w := wheel.Build(s, wheel.Options{})
	ways := path.PairAll(s.Allowed(), path.ByHue)
	out := Metrics{Wheel: w, Reach: ofWays(ways), Shades: shades(ways), Dark: w.Dark(), Lamp: Shift{Slot: -1}}
	largest := 0.0
	for i := range w.Slots {
		slot := &w.Slots[i]
		if slot.Empty {
			continue
		}
		largest = max(largest, slot.Jump)
		if slot.Jumps {
			out.Jumps++
		}
		look := slot.Mixture.AsPainted(in, false)
		day, lamp := look.Lab(), look.LabUnder(colour.A)
		if day.L < colour.DarkestJudged && lamp.L < colour.DarkestJudged {
			continue
		}
		if d := colour.Difference(day, lamp); d > out.Lamp.DE {
			out.Lamp = Shift{i, d}
		}
	}
	if largest > 0 {
		out.Evenness = w.Median / largest
	}
	n := 0
	for i := range 6 {
		if a, b := w.SlotPaint(i), w.SlotPaint(i+6); a != nil && b != nil {
			out.Middles += wheel.BalanceOf(a, b, in).Lab.Chroma()
			n++
		}
	}
	if n > 0 {
		out.Middles /= float64(n)
	}
	return out
}

// NearestSlot is the home (0 to 11) of the slot whose undertone stands nearest in
// wheel hue to a slot of another wheel; -1 where one or the other has no hue.
func (s Metrics) NearestSlot(other *wheel.Slot) int {
	best, off := -1, 0.0
	if other.Empty || !other.Under.HasHue() {
		return best
	}
	for home := range 12 {
		slot := s.Wheel.At(home)
		if slot.Empty || !slot.Under.HasHue() {
			continue
		}
		if d := math.Abs(colour.TurnBetween(slot.Under.WheelHue, other.Under.WheelHue)); best < 0 || d < off {
			best, off = home, d
		}
	}
	return best
}

// HueRange is a stretch of the circle, from one bin upward to another, both in it.
type HueRange struct{ From, To int }

// Words name a run by its hues: "in the orange", "from blue-green to violet".
func (r HueRange) Words() string {
	if r.To-r.From+1 == Bins {
		return "all the way round"
	}
	from, to := colour.HueWord(Middle(r.From)), colour.HueWord(Middle(r.To%Bins))
	if from == to {
		return "in the " + from
	}
	return fmt.Sprintf("from %s to %s", from, to)
}

// Runs names several: "in the orange, in the green and from blue to violet".
func Runs(runs []HueRange) string {
	var words []string
	for _, r := range runs {
		words = append(words, r.Words())
	}
	if n := len(words) - 1; n > 0 {
		return strings.Join(words[:n], ", ") + " and " + words[n]
	}
	return strings.Join(words, "")
}

// Difference is where of two systems one is better off than the other.
type Difference struct {
	First, Second []HueRange // where the first, and where the second, has the better verdict
	// FirstBrighter and SecondBrighter are where the verdict is the same for both
	// and one keeps at least 0.1 more of the possible.
	FirstBrighter, SecondBrighter []HueRange
}

const (
	leastRun = 2   // bins a difference must run on to be spoken of
	brighter = 0.1 // of the possible
)

// Compare compares two reaches verdict by verdict, then by how bright they are.
func Compare(a, b Reach) Difference {
	var cleaner, bright [2]bins
	for i := range Bins {
		x, y := paint.VerdictAt(a[i]), paint.VerdictAt(b[i])
		switch {
		case x > y:
			cleaner[0].add(i)
		case y > x:
			cleaner[1].add(i)
		case a[i]-b[i] >= brighter:
			bright[0].add(i)
		case b[i]-a[i] >= brighter:
			bright[1].add(i)
		}
	}
	return Difference{cleaner[0].runs(), cleaner[1].runs(), bright[0].runs(), bright[1].runs()}
}

// runs are the unbroken stretches of a set, those that cross 0 degrees whole.
func (b bins) runs() (out []HueRange) {
	if b.count() == Bins {
		return []HueRange{{0, Bins - 1}}
	}
	for i := range Bins {
		if !b.has(i) || b.has((i+Bins-1)%Bins) {
			continue
		}
		to := i
		for b.has((to + 1) % Bins) {
			to++
		}
		if to-i+1 >= leastRun {
			out = append(out, HueRange{i, to})
		}
	}
	return out
}

// Same says that neither has the better verdict anywhere for long.
func (d Difference) Same() bool { return len(d.First)+len(d.Second) == 0 }

// Sentence is the difference in a sentence, with the names of both: where each is
// cleaner, or where neither is, what is brighter.
func (d Difference) Sentence(first, second string) string {
	if !d.Same() {
		return sides(first, " is cleaner ", d.First, second, d.Second) + "."
	}
	same := fmt.Sprintf("%s and %s are as clean as each other everywhere", first, second)
	if brighter := sides(first, " is brighter ", d.FirstBrighter, second, d.SecondBrighter); brighter != "" {
		return same + "; " + brighter + "."
	}
	return same + "."
}

func sides(first, is string, its []HueRange, second string, others []HueRange) string {
	var says []string
	if len(its) > 0 {
		says = append(says, first+is+Runs(its))
	}
	if len(others) > 0 {
		says = append(says, second+is+Runs(others))
	}
	return strings.Join(says, "; ")
}

// shades are the undertones that stand for each bin on a drawing: the most
// chromatic of the ways there; nil where there is none.
func shades(ways []path.Pairing) (out [Bins]*colour.OKLab) {
	var most [Bins]float64
	for _, p := range ways {
		along(p.Path, func(bin int, chroma float64, a, b *paint.Undertone, f float64) {
			if chroma <= most[bin] {
				return
			}
			most[bin] = chroma
			out[bin] = &colour.OKLab{
				L: a.Colour.L + f*(b.Colour.L-a.Colour.L),
				A: a.Colour.A + f*(b.Colour.A-a.Colour.A),
				B: a.Colour.B + f*(b.Colour.B-a.Colour.B),
			}
		})
	}
	return out
}
