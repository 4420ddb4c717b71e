package wire

import (
	"gyrophane/core/bias"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// MudStart is where a way first turns muddy.
type MudStart struct {
	Nowhere bool    `json:"nowhere"`
	At      float64 `json:"at" minimum:"0" maximum:"1" doc:"along the way from the first paint, in the measure of the spacing; 0 where it is nowhere"`
}

// Expected is what a painter expects of a pairing.
type Expected struct {
	HueWord string   `json:"hueWord" maxLength:"40" doc:"of the secondary: one of the twelve of the wheel"`
	Verdict string   `json:"verdict" format:"chromaticVerdict" doc:"of the secondary"`
	Mud     MudStart `json:"mud"`
}

// Core is what is expected as the core knows it.
func (e Expected) Core() journal.Expected {
	return journal.Expected{HueWord: e.HueWord, Verdict: e.Verdict, Mud: journal.MudStart(e.Mud)}
}

// ExpectedOf shapes what is expected of a pairing.
func ExpectedOf(e journal.Expected) Expected { return Expected{e.HueWord, e.Verdict, MudStart(e.Mud)} }

// PairOutcome is what became of a guess, as it was computed that day.
type PairOutcome struct {
	Section      string   `json:"section"`
	Spacing      string   `json:"spacing" format:"spacing"`
	Computed     string   `json:"computed" doc:"hue word of the secondary"`
	Came         string   `json:"came" format:"chromaticVerdict" doc:"its verdict"`
	Retention    float64  `json:"retention"`
	MudCame      MudStart `json:"mudCame"`
	HueRight     bool     `json:"hueRight" doc:"within one slot"`
	VerdictRight bool     `json:"verdictRight"`
	MudRight     bool     `json:"mudRight" doc:"within an eighth of the way"`
	Points       int      `json:"points" doc:"0 to 6"`
	Could        []string `json:"couldBe,omitempty" doc:"the verdicts between which it may go either way: none of them counts against the eye"`
}

// PairOutcomeOf shapes what became of a guess.
func PairOutcomeOf(o journal.PairOutcome) PairOutcome {
	return PairOutcome{Section: o.Section, Spacing: o.Spacing, Computed: o.HueWord, Came: o.Verdict, Retention: o.Retention, MudCame: MudStart(o.Mud), HueRight: o.HueRight, VerdictRight: o.VerdictRight, MudRight: o.MudRight, Points: o.Points, Could: o.Could}
}

// SectionRecord is how past guesses of a section came out.
type SectionRecord struct {
	Section       string `json:"section"`
	Guesses       int    `json:"guesses"`
	Points        int    `json:"points"`
	OutOf         int    `json:"outOf"`
	HuesRight     int    `json:"huesRight"`
	VerdictsRight int    `json:"verdictsRight"`
	MudRight      int    `json:"mudRight"`
}

// PracticePair is one pairing of a round.
type PracticePair struct {
	A       PairedPaint  `json:"a"`
	B       PairedPaint  `json:"b"`
	Section string       `json:"section"`
	Said    *Expected    `json:"said,omitempty" doc:"once it was guessed"`
	Outcome *PairOutcome `json:"outcome,omitempty"`
	Because string       `json:"because,omitempty"`
	Band    []BandPoint  `json:"band,omitempty"`
}

// CoveredPair shapes a pairing of a round that has not been guessed yet.
func (v View) CoveredPair(a, b *paint.Paint, school bias.School) PracticePair {
	return PracticePair{A: v.paired(a, school), B: v.paired(b, school), Section: wheel.SectionOf(a, b)}
}

// GuessedPair shapes a pairing of a round beside what was said of it.
func (v View) GuessedPair(a, b *paint.Paint, school bias.School, spacing path.Spacing, said journal.Expected, outcome journal.PairOutcome) PracticePair {
	out := v.CoveredPair(a, b, school)
	p := path.Couple{A: a, B: b}.Pair(spacing)
	expected, came := ExpectedOf(said), PairOutcomeOf(outcome)
	out.Said, out.Outcome = &expected, &came
	out.Because = bias.Because(a, b, "", "", &p.Middle.Mixture)
	out.Band = band(p.Path, spacing, bandPoints)
	return out
}

// Guess is what a painter expects of a slot.
type Guess struct {
	Home    int    `json:"home" minimum:"0" maximum:"11" doc:"the slot, clockwise with the first role on top"`
	HueWord string `json:"hueWord" maxLength:"40"`
	Verdict string `json:"verdict" format:"chromaticVerdict"`
}

// Outcome is what became of a guess at a slot, as it was computed that day.
type Outcome struct {
	Name         string `json:"name" doc:"of the slot"`
	Computed     string `json:"computed" doc:"hue word"`
	Came         string `json:"came" doc:"verdict"`
	HueRight     bool   `json:"hueRight" doc:"within one slot"`
	VerdictRight bool   `json:"verdictRight"`
	VerdictNear  bool   `json:"verdictNear" doc:"one off"`
	Points       int    `json:"points" doc:"0 to 4"`

	Could []string `json:"couldBe,omitempty" doc:"the verdicts between which it may go either way: none of them counts against the eye"`
}

// OutcomeOf shapes what became of a guess at a slot.
func OutcomeOf(o journal.SlotOutcome) Outcome {
	return Outcome{Name: o.Name, Computed: o.HueWord, Came: o.Verdict, HueRight: o.HueRight, VerdictRight: o.VerdictRight, VerdictNear: o.VerdictNear, Points: o.Points, Could: o.Could}
}
