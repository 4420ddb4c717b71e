package journal

import (
	"math"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Expected is what a painter expects of a pairing, before it is checked.
type Expected struct {
	HueWord string // of the secondary
	Verdict string // "clean", "quiet", "softened" or "muddy"
	Mud     MudStart
}

// PairOutcome is what became of a guess at a pairing, as computed.
type PairOutcome struct {
	Section                          string
	Spacing                          string
	HueWord, Verdict                 string // of the secondary
	Retention                        float64
	Mud                              MudStart
	HueRight, VerdictRight, MudRight bool
	Points                           int      // 0 to MostOfGuess
	Could                            []string // the verdicts between which it may go either way
}

// Right says whether all that was expected came: the hue, how bright, where the mud starts.
func (o *PairOutcome) Right() bool { return o.HueRight && o.VerdictRight && o.MudRight }

// ScorePair holds what is expected of two paints against what becomes of them.
// What may go either way, by what is not known of the two, does not count against it. The key tells them, as they
// stand, from all others. The error is an input.Error.
func ScorePair(a, b *paint.Paint, spacing path.Spacing, e Expected, doubt certainty.Doubts) (out PairOutcome, key string, err error) {
	g, err := ParseGuess(e.HueWord, e.Verdict, e.Mud.Nowhere, e.Mud.At)
	if err != nil {
		return out, "", input.Wrap(err)
	}
	p, open, err := cameOf(a, b, spacing, doubt)
	if err != nil {
		return out, "", err
	}
	u, mud := p.Middle.Under, StartOfMud(p.Path, spacing)
	s := g.Against(u, mud, open)
	mud.At = fourDigits(mud.At)
	return PairOutcome{
		Section: wheel.SectionOf(a, b), Spacing: spacing.String(), HueWord: u.HueWord(), Verdict: u.Verdict.String(), Retention: fourDigits(u.Retention),
		Mud: mud, HueRight: s.HueRight, VerdictRight: s.VerdictRight, MudRight: s.MudRight, Points: s.Points, Could: verdictWords(open.Could),
	}, PairKey(a, b, spacing), nil
}

// cameOf is a pairing that can be predicted, and what of it may go either way. The error is an input.Error.
func cameOf(a, b *paint.Paint, spacing path.Spacing, doubt certainty.Doubts) (p path.Pairing, open Open, err error) {
	if a.ID == b.ID {
		return p, open, input.Errorf("%s cannot be paired with itself", a.ID)
	}
	p = path.Couple{A: a, B: b}.Pair(spacing)
	if !Predictable(p.Path) {
		return p, open, input.Errorf("%s with %s cannot be predicted: there is no hue between them", a.ShortName(), b.ShortName())
	}
	return p, openOf(&p, spacing, doubt), nil
}

// SlotGuess is what a painter expects of a slot.
type SlotGuess struct {
	Home    int // 0 to 11, clockwise with the first role on top
	HueWord string
	Verdict string
}

// SlotOutcome is what became of a guess at a slot, as computed.
type SlotOutcome struct {
	Name                                string // of the slot
	HueWord, Verdict                    string
	HueRight, VerdictRight, VerdictNear bool
	Points                              int      // 0 to MostPoints
	Could                               []string // the verdicts between which it may go either way
}

func verdictWords(of []paint.Verdict) (out []string) {
	for _, v := range of {
		out = append(out, v.String())
	}
	return out
}

// ScoreSlots holds guesses against a system's wheel; what may go either way does not count against them. The error is an
// input.Error.
func ScoreSlots(s wheel.System, c wheel.Choices, guesses []SlotGuess, doubt certainty.Doubts) ([]SlotOutcome, error) {
	o, err := c.Options(paint.Medium{})
	if err != nil {
		return nil, err
	}
	o.Six = false
	w := wheel.Build(s, o)
	sure := certainty.OfWheel(w, doubt)
	var out []SlotOutcome
	for _, g := range guesses {
		p, err := ParsePrediction(g.HueWord, g.Verdict)
		if err != nil {
			return nil, input.Wrap(err)
		}
		if g.Home < 0 || g.Home > 11 {
			return nil, input.Errorf("slot %d: the slots run from 0 to 11", g.Home)
		}
		slot := w.At(g.Home)
		if slot.Empty || slot.Kind == wheel.Primary {
			return nil, input.Errorf("slot %d: only mixed slots that are filled can be predicted", g.Home)
		}
		var could []paint.Verdict
		if said := sure[slot.Index]; said != nil && said.Sure == certainty.EitherWay {
			could = said.Could
		}
		score := p.Against(slot.Under, could...)
		out = append(out, SlotOutcome{Name: slot.Name, HueWord: slot.Under.HueWord(), Verdict: slot.Under.Verdict.String(), HueRight: score.HueRight, VerdictRight: score.VerdictRight, VerdictNear: score.VerdictNear, Points: score.Points, Could: verdictWords(could)})
	}
	return out, nil
}

// fourDigits is a number as outcomes keep it.
func fourDigits(v float64) float64 { return math.Round(v*1e4) / 1e4 }
