// Package journal holds predictions against outcomes, so that a painter sees
// where the eye is wrong.
package journal

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Prediction is what a painter expects of a pairing or a slot.
type Prediction struct {
	HueWord string // one of the twelve words of the painter's circle
	Verdict paint.Verdict
}

// ParsePrediction reads a hue word and a verdict ("clean", "quiet", "softened", "muddy").
func ParsePrediction(hue, verdict string) (Prediction, error) {
	if !slices.Contains(colour.HueWords(), hue) {
		return Prediction{}, fmt.Errorf("%.20q is no hue of the wheel: choose one of its twelve, like yellow-green", hue)
	}
	for _, v := range paint.ChromaticVerdicts {
		if v.String() == verdict {
			return Prediction{hue, v}, nil
		}
	}
	return Prediction{}, fmt.Errorf("%.20q is no verdict: choose clean, quiet, softened or muddy", verdict)
}

// MaxSlotPoints is what a prediction is worth that is right in hue and verdict.
const MaxSlotPoints = 4

// Score is how a prediction stood up: the hue is right within one slot (30
// degrees on the painter's circle), the verdict right, or one off.
type Score struct {
	HueRight, VerdictRight, VerdictNear bool
	Points                              int     // 0 to MostPoints: two for the hue, two for the verdict, one when it is one off
	Off                                 float64 // degrees on the painter's circle from the word's middle, 0 to 180
}

// Against scores a prediction against an undertone that was computed or read.
// Where there is too little chroma for a hue, any hue word counts as right; so does any of the verdicts that it could
// turn out as, where that may go either way.
func (p Prediction) Against(u paint.Undertone, could ...paint.Verdict) Score {
	middle := 30 * float64(slices.Index(colour.HueWords(), p.HueWord))
	s := Score{Off: math.Abs(colour.TurnBetween(middle, u.WheelHue))}
	s.HueRight = !u.HasHue() || s.Off <= 30
	s.VerdictRight = p.Verdict == u.Verdict || slices.Contains(could, p.Verdict)
	s.VerdictNear = oneOff(p.Verdict, u.Verdict)
	if s.HueRight {
		s.Points += 2
	}
	switch {
	case s.VerdictRight:
		s.Points += 2
	case s.VerdictNear:
		s.Points++
	}
	return s
}

// oneOff says that two verdicts are neighbours: quiet and softened, which both
// stand between clean and muddy, are beside each other and beside both.
func oneOff(a, b paint.Verdict) bool {
	between := func(v paint.Verdict) bool { return v == paint.Quiet || v == paint.Softened }
	return a != b && a != paint.Neutral && b != paint.Neutral && (between(a) || between(b))
}
