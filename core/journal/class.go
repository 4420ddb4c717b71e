package journal

import (
	"math"
	"slices"

	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// MudPlaces are where a class says that mud starts: at a twentieth of the way, counted from its first paint, 0 to 20.
const MudPlaces = 21

// MudQuarters are the places that stand for the quarters of the way, where a class is asked aloud.
var MudQuarters = [4]int{2, 7, 13, 18}

// ClassTally counts what a class expects of a pairing: how many say each hue, each verdict, and each place where the mud starts.
// The three may count different numbers, for not everybody puts a hand up every time.
type ClassTally struct {
	Hues     [12]int // in the order of colour.HueWords
	Verdicts [4]int  // in the order of paint.ChromaticVerdicts
	Mud      [MudPlaces]int
	NoMud    int
}

// MostCounted is the most of anything that a tally counts.
const MostCounted = 10_000

// Count adds one guess, whose mud is taken at the nearest twentieth.
func (t *ClassTally) Count(g Guess) {
	t.Hues[slices.Index(colour.HueWords(), g.HueWord)]++
	t.Verdicts[slices.Index(paint.ChromaticVerdicts, g.Verdict)]++
	if g.Mud.Nowhere {
		t.NoMud++
		return
	}
	t.Mud[MudPlace(g.Mud.At)]++
}

// MudPlace is the place of MudPlaces next to one along the way, 0 to 1.
func MudPlace(at float64) int { return int(math.Round(at * (MudPlaces - 1))) }

// Add adds another tally.
func (t *ClassTally) Add(other ClassTally) {
	mine := t.each()
	for i, n := range other.each() {
		*mine[i] += *n
	}
}

// each are all that is counted.
func (t *ClassTally) each() (out []*int) {
	for i := range t.Hues {
		out = append(out, &t.Hues[i])
	}
	for i := range t.Verdicts {
		out = append(out, &t.Verdicts[i])
	}
	for i := range t.Mud {
		out = append(out, &t.Mud[i])
	}
	return append(out, &t.NoMud)
}

// Check refuses counts that no class has. The error is an input.Error.
func (t *ClassTally) Check() error {
	for _, n := range t.each() {
		if *n < 0 || *n > MostCounted {
			return input.Errorf("%d hands cannot be counted: give a number from 0 to %d", *n, MostCounted)
		}
	}
	return nil
}

// Rights say which answers to a pairing are right, in the order of a ClassTally.
type Rights struct {
	Hues     [12]bool
	Verdicts [4]bool
	Mud      [MudPlaces]bool
	NoMud    bool
}

// Of says whether a guess is right in hue, in verdict and in where the mud starts.
func (r *Rights) Of(g Guess) (hue, verdict, mud bool) {
	var one ClassTally
	one.Count(g)
	s := one.Against(*r)
	return s.Hue.Right == 1, s.Verdict.Right == 1, s.Mud.Right == 1
}

// Counted is how many answered, and how many of them were right.
type Counted struct{ Said, Right int }

func (c *Counted) add(said int, right bool) {
	c.Said += said
	if right {
		c.Right += said
	}
}

func (c *Counted) plus(other Counted) { c.Said, c.Right = c.Said+other.Said, c.Right+other.Right }

// Share is the share of those who were right, 0 to 1; 0 where nobody answered.
func (c Counted) Share() float64 {
	if c.Said == 0 {
		return 0
	}
	return float64(c.Right) / float64(c.Said)
}

// ClassScore is how a class did in hue, in verdict and in where the mud starts.
type ClassScore struct{ Hue, Verdict, Mud Counted }

// Add adds how a class did with another pairing.
func (s *ClassScore) Add(other ClassScore) {
	s.Hue.plus(other.Hue)
	s.Verdict.plus(other.Verdict)
	s.Mud.plus(other.Mud)
}

// Against counts who was right.
func (t *ClassTally) Against(r Rights) (s ClassScore) {
	for i, n := range t.Hues {
		s.Hue.add(n, r.Hues[i])
	}
	for i, n := range t.Verdicts {
		s.Verdict.add(n, r.Verdicts[i])
	}
	for i, n := range t.Mud {
		s.Mud.add(n, r.Mud[i])
	}
	s.Mud.add(t.NoMud, r.NoMud)
	return s
}

// Asked is a pairing that a class is asked about.
type Asked struct {
	Called string // the slot that it fills; empty where it is of no wheel
	path.Couple
}

// AskedOfWheel are the secondaries of a wheel that can be predicted, in the order of its roles.
func AskedOfWheel(w *wheel.Wheel) (out []Asked) {
	for k := range w.Sections {
		s := &w.Sections[k]
		if !s.Empty() && Predictable(s.Path) {
			out = append(out, Asked{w.At(4*k + 2).Name, path.Couple{A: s.A, B: s.B}})
		}
	}
	return out
}

// Truth is what becomes of a pairing, as a class is told once the cover is lifted.
type Truth struct {
	Section   string
	HueWord   string // of the secondary, as its verdict
	Verdict   string
	Retention float64
	Mud       MudStart
	Begins    [2]float64 // between which places the mud begins in 80 of 100 tubes; both 0 where there is none, or that is not known
	Could     []string   // the verdicts between which it may go either way
	Right     Rights
}

// TruthOf is what becomes of two paints, and which answers are right by the rules that a painter's guess is scored by. The error
// is an input.Error.
func TruthOf(a, b *paint.Paint, spacing path.Spacing, doubt certainty.Doubts) (Truth, error) {
	p, open, err := cameOf(a, b, spacing, doubt)
	if err != nil {
		return Truth{}, err
	}
	u, mud := p.Middle.Under, StartOfMud(p.Path, spacing)
	out := Truth{
		Section: wheel.SectionOf(a, b), HueWord: u.HueWord(), Verdict: u.Verdict.String(), Retention: fourDigits(u.Retention),
		Mud: mud, Begins: [2]float64{fourDigits(open.Mud.Low), fourDigits(open.Mud.High)}, Could: verdictWords(open.Could),
	}
	out.Mud.At = fourDigits(mud.At)
	for i, word := range colour.HueWords() {
		out.Right.Hues[i] = Prediction{HueWord: word}.Against(u).HueRight
	}
	for i, v := range paint.ChromaticVerdicts {
		out.Right.Verdicts[i] = Prediction{colour.HueWords()[0], v}.Against(u, open.Could...).VerdictRight
	}
	starts := func(said MudStart) bool {
		return Guess{Prediction{colour.HueWords()[0], paint.Clean}, said}.Against(u, mud, open).MudRight
	}
	for i := range out.Right.Mud {
		out.Right.Mud[i] = starts(MudStart{At: float64(i) / (MudPlaces - 1)})
	}
	out.Right.NoMud = starts(MudStart{Nowhere: true})
	return out, nil
}

// Answered is a pairing that a class answered.
type Answered struct {
	Truth Truth
	Tally ClassTally
}

// ClassEye is how a class saw the pairings of a section, all together.
type ClassEye struct {
	Section  string
	Pairings int
	ClassScore
	Brighter, Duller int // verdicts that came out brighter, and duller, than was said
}

// ClassEyes add up what a class answered, section by section, in the order in which they first come.
func ClassEyes(all []Answered) (out []ClassEye) {
	for _, a := range all {
		k := slices.IndexFunc(out, func(e ClassEye) bool { return e.Section == a.Truth.Section })
		if k < 0 {
			k = len(out)
			out = append(out, ClassEye{Section: a.Truth.Section})
		}
		e := &out[k]
		e.Pairings++
		e.Add(a.Tally.Against(a.Truth.Right))
		came := slices.IndexFunc(paint.ChromaticVerdicts, func(v paint.Verdict) bool { return v.String() == a.Truth.Verdict })
		for i, n := range a.Tally.Verdicts {
			if a.Truth.Right.Verdicts[i] || came < 0 {
				continue
			}
			switch by := brightness(paint.ChromaticVerdicts[came]) - brightness(paint.ChromaticVerdicts[i]); {
			case by > 0:
				e.Brighter += n
			case by < 0:
				e.Duller += n
			}
		}
	}
	return out
}
