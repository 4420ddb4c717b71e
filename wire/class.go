package wire

import (
	"gyrophane/core/bias"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// ClassPaint is a paint of a pairing that a class is asked about.
type ClassPaint struct {
	PairedPaint
	Turn *float64 `json:"turn" doc:"hue angle of its undertone on the painter's circle, degrees, red 0, yellow 120; null where it has no hue"`
}

// ClassFace is what a class sees of a pairing under its cover.
type ClassFace struct {
	A ClassPaint `json:"a"`
	B ClassPaint `json:"b"`
}

// ClassTruth is what becomes of a pairing, shown once its cover is lifted.
type ClassTruth struct {
	Section   string      `json:"section"`
	HueWord   string      `json:"hueWord" doc:"of the secondary"`
	Verdict   string      `json:"verdict" format:"verdict" doc:"of the secondary"`
	Retention float64     `json:"retention"`
	Mud       MudStart    `json:"mud"`
	Begins    []float64   `json:"begins,omitempty" doc:"between which places the mud begins in 80 of 100 tubes"`
	Could     []string    `json:"couldBe,omitempty" doc:"the verdicts between which it may go either way"`
	Right     ClassRights `json:"right"`
}

// ClassRights say which answers are right, in the order of a ClassTally.
type ClassRights struct {
	Hues     []bool `json:"hues"`
	Verdicts []bool `json:"verdicts"`
	Mud      []bool `json:"mud"`
	NoMud    bool   `json:"noMud"`
}

// ClassLifted is what is seen of a pairing without its cover.
type ClassLifted struct {
	Middle  Shown       `json:"middle" doc:"the secondary, as painted"`
	Under   Shown       `json:"undertone" doc:"of the secondary"`
	Because string      `json:"because"`
	Band    []BandPoint `json:"band"`
}

// ClassTally counts what a class says of a pairing.
type ClassTally struct {
	Hues     []int `json:"hues" minItems:"12" maxItems:"12" doc:"in the order of the twelve words"`
	Verdicts []int `json:"verdicts" minItems:"4" maxItems:"4" doc:"clean, quiet, softened, muddy"`
	Mud      []int `json:"mud" minItems:"21" maxItems:"21" doc:"where it starts, by twentieths of the way"`
	NoMud    int   `json:"noMud" doc:"how many say that there is none"`
}

// Core is a tally as the core knows it. The error is an input.Error.
func (t ClassTally) Core() (out journal.ClassTally, err error) {
	copy(out.Hues[:], t.Hues)
	copy(out.Verdicts[:], t.Verdicts)
	copy(out.Mud[:], t.Mud)
	out.NoMud = t.NoMud
	return out, out.Check()
}

// ClassTallyOf shapes a tally.
func ClassTallyOf(t journal.ClassTally) ClassTally {
	return ClassTally{t.Hues[:], t.Verdicts[:], t.Mud[:], t.NoMud}
}

// ClassScore is how many of a class answered, and how many were right.
type ClassScore struct {
	Hue     ClassCount `json:"hue"`
	Verdict ClassCount `json:"verdict"`
	Mud     ClassCount `json:"mud"`
}

// ClassCount is how many answered, and how many of them were right.
type ClassCount struct {
	Said  int     `json:"said"`
	Right int     `json:"right"`
	Share float64 `json:"share" doc:"of those who answered, that were right, 0 to 1; 0 where nobody did"`
}

// ClassScoreOf shapes a score.
func ClassScoreOf(s journal.ClassScore) ClassScore {
	of := func(c journal.Counted) ClassCount { return ClassCount{c.Said, c.Right, round(c.Share(), 4)} }
	return ClassScore{of(s.Hue), of(s.Verdict), of(s.Mud)}
}

// ClassTruthOf shapes what becomes of a pairing.
func ClassTruthOf(t journal.Truth) ClassTruth {
	out := ClassTruth{
		Section: t.Section, HueWord: t.HueWord, Verdict: t.Verdict, Retention: t.Retention, Mud: MudStart(t.Mud), Could: t.Could,
		Right: ClassRights{t.Right.Hues[:], t.Right.Verdicts[:], t.Right.Mud[:], t.Right.NoMud},
	}
	if t.Begins[1] > t.Begins[0] {
		out.Begins = t.Begins[:]
	}
	return out
}

// ClassEye is how a class saw the pairings of a section, all together.
type ClassEye struct {
	Section  string `json:"section"`
	Pairings int    `json:"pairings"`
	ClassScore
	Brighter int `json:"brighter" doc:"verdicts that came out brighter than was said"`
	Duller   int `json:"duller"`
}

// ClassEyesOf shapes them.
func ClassEyesOf(all []journal.ClassEye) []ClassEye {
	out := []ClassEye{}
	for _, e := range all {
		out = append(out, ClassEye{e.Section, e.Pairings, ClassScoreOf(e.ClassScore), e.Brighter, e.Duller})
	}
	return out
}

// ClassFace shapes a pairing for a class, under its cover and without it.
func (v View) ClassFace(a, b *paint.Paint, school bias.School, spacing path.Spacing) (ClassFace, ClassLifted) {
	p := path.Couple{A: a, B: b}.Pair(spacing)
	looks := v.look(&p.Middle.Mixture)
	return ClassFace{v.classPaint(a, school), v.classPaint(b, school)},
		ClassLifted{Middle: shown(looks), Under: shown(p.Middle.Under.Colour), Because: bias.Because(a, b, "", "", &p.Middle.Mixture), Band: band(p.Path, spacing, bandPoints)}
}

func (v View) classPaint(p *paint.Paint, school bias.School) ClassPaint {
	out := ClassPaint{PairedPaint: v.paired(p, school)}
	alone := p.Alone()
	if u := alone.Undertone(); u.HasHue() {
		turn := round(u.WheelHue, 1)
		out.Turn = &turn
	}
	return out
}
