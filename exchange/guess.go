package exchange

import (
	_ "embed"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"

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

func mudFrom(p *path.Path, s path.Spacing) MudStart {
	m := journal.StartOfMud(p, s)
	return MudStart{m.Nowhere, round(m.At, 4)}
}

// Expected is what a painter expects of a pairing.
type Expected struct {
	HueWord string   `json:"hueWord" maxLength:"40" doc:"of the secondary: one of the twelve of the wheel"`
	Verdict string   `json:"verdict" enum:"clean,softened,muddy" doc:"of the secondary"`
	Mud     MudStart `json:"mud"`
}

// PairOutcome is what became of a guess, as it was computed that day.
type PairOutcome struct {
	Section      string   `json:"section"`
	Spacing      string   `json:"spacing" enum:"hue,contrast,parts"`
	Computed     string   `json:"computed" doc:"hue word of the secondary"`
	Came         string   `json:"came" enum:"clean,softened,muddy" doc:"its verdict"`
	Retention    float64  `json:"retention"`
	MudCame      MudStart `json:"mudCame"`
	HueRight     bool     `json:"hueRight" doc:"within one slot"`
	VerdictRight bool     `json:"verdictRight"`
	MudRight     bool     `json:"mudRight" doc:"within an eighth of the way"`
	Points       int      `json:"points" doc:"0 to 6"`
}

// MostOfGuess is what a guess is worth that is right in everything.
const MostOfGuess = journal.MostOfGuess

// ScorePair holds a guess against what becomes of two paints. The key tells
// them, as they stand, from all others.
func ScorePair(a, b *paint.Paint, spacing path.Spacing, e Expected) (out PairOutcome, key string, err error) {
	g, err := journal.ParseGuess(e.HueWord, e.Verdict, e.Mud.Nowhere, e.Mud.At)
	if err != nil {
		return out, "", refused(err)
	}
	p := path.Couple{A: a, B: b}.Pair(spacing)
	u := p.Middle.Under
	if !journal.Predictable(p.Path) {
		return out, "", bad("%s with %s cannot be predicted: there is no hue between them", bias.ShortName(a), bias.ShortName(b))
	}
	s := g.Against(u, journal.StartOfMud(p.Path, spacing))
	return PairOutcome{
		Section: wheel.SectionOf(a, b), Spacing: spacing.String(), Computed: u.HueWord(), Came: u.Verdict.String(), Retention: round(u.Retention, 4),
		MudCame: mudFrom(p.Path, spacing), HueRight: s.HueRight, VerdictRight: s.VerdictRight, MudRight: s.MudRight, Points: s.Points,
	}, journal.Key(a, b, spacing), nil
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

// Asked is a pairing whose cover is on.
func (v View) Asked(a, b *paint.Paint, school bias.School) PracticePair {
	return PracticePair{A: v.paired(a, school), B: v.paired(b, school), Section: wheel.SectionOf(a, b)}
}

// Lifted is a pairing beside what was said of it.
func (v View) Lifted(a, b *paint.Paint, school bias.School, spacing path.Spacing, said Expected, outcome PairOutcome) PracticePair {
	out := v.Asked(a, b, school)
	p := path.Couple{A: a, B: b}.Pair(spacing)
	out.Said, out.Outcome = &said, &outcome
	out.Because = bias.Because(a, b, "", "", &p.Middle.Mixture)
	out.Band = band(p.Path, spacing, bandPoints)
	return out
}

// DemoGuess is what the made-up demo studio said of a pairing in practice.
type DemoGuess struct {
	DaysAgo int
	A, B    string
	Said    Expected
}

//go:embed data/demo-rounds.csv
var demoRounds string

// DemoGuesses are the rounds of practice of the made-up demo studio, one after
// the other.
func DemoGuesses() ([]DemoGuess, error) {
	r := csv.NewReader(strings.NewReader(demoRounds))
	r.Comment = '#'
	rows, err := r.ReadAll()
	if err != nil {
		return nil, fmt.Errorf("demo rounds: %w", err)
	}
	var out []DemoGuess
	for _, row := range rows[1:] {
		days, err := strconv.Atoi(row[0])
		if err != nil {
			return nil, fmt.Errorf("demo rounds: %w", err)
		}
		g := DemoGuess{days, row[1], row[2], Expected{HueWord: row[3], Verdict: row[4], Mud: MudStart{Nowhere: row[5] == ""}}}
		if !g.Said.Mud.Nowhere {
			if g.Said.Mud.At, err = strconv.ParseFloat(row[5], 64); err != nil {
				return nil, fmt.Errorf("demo rounds: %w", err)
			}
		}
		out = append(out, g)
	}
	return out, nil
}
