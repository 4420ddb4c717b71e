package paint

import (
	_ "embed"
	"math"

	"gyrophane/core/colour"
	"gyrophane/core/internal/table"
)

// Verdict says how much of the possible brightness a mixture keeps.
type Verdict uint8

// The verdicts, the better the higher. Neutral is for whites, blacks, shades and
// what is meant to be grey; Quiet for what is as quiet as its paints.
const (
	Neutral Verdict = iota
	Muddy
	Softened
	Quiet
	Clean
)

var verdictWords = [...]string{"neutral", "muddy", "softened", "quiet", "clean"}

// Verdicts lists them, the best first; the last is for what has no hue.
var Verdicts = []Verdict{Clean, Quiet, Softened, Muddy, Neutral}

// ChromaticVerdicts are those on what has a hue, the best first.
var ChromaticVerdicts = Verdicts[:len(Verdicts)-1]

// String is the painter's word for the verdict.
func (v Verdict) String() string { return verdictWords[v] }

//go:embed data/verdicts.csv
var verdictsCSV string

// bound is what a verdict asks at least: of the retention or of what is kept.
// One that asks nothing of either is met by all.
type bound struct {
	verdict         Verdict
	retention, kept float64 // 0 asks nothing
}

// bounds are read from the top: the first that is met is the verdict. within is
// how near to a bound a verdict is qualified.
var bounds, within = func() (out []bound, just float64) {
	ask := func(field string) float64 {
		if field == "-" {
			return 0
		}
		return table.Number(field)
	}
	for _, row := range table.Rows(verdictsCSV) {
		if row[0] == "just" {
			just = table.Number(row[1])
		}
		for v, word := range verdictWords {
			if row[0] == word {
				out = append(out, bound{Verdict(v), ask(row[1]), ask(row[2])})
			}
		}
	}
	return out, just
}()

func retentionFrom(v Verdict) float64 {
	for _, b := range bounds {
		if b.verdict == v && b.retention > 0 {
			return b.retention
		}
	}
	panic("no retention makes it " + v.String())
}

var cleanFrom, softenedFrom = retentionFrom(Clean), retentionFrom(Softened)

// CleanFrom is the retention from which a mixture is clean, once rounded.
func CleanFrom() float64 { return cleanFrom }

// SoftenedFrom is the retention from which a mixture is not muddy, once rounded.
func SoftenedFrom() float64 { return softenedFrom }

// TwoPlaces is a retention as it is judged and shown.
func TwoPlaces(retention float64) float64 { return math.Round(retention*100) / 100 }

func (m *Mixture) judge(u Undertone) Verdict {
	switch {
	case m.neutral || u.Shade || !u.HasHue() && !m.hued:
		return Neutral
	case !u.HasHue():
		return Muddy
	}
	return verdictOf(u.Retention, u.Kept, m.quiet)
}

// verdictOf judges a retention and what is kept of it; only with a paint that is quiet by itself is a
// mixture quiet.
func verdictOf(retention, kept float64, quiet bool) Verdict {
	retention, kept = TwoPlaces(retention), TwoPlaces(kept)
	for _, b := range bounds {
		if (quiet || b.verdict != Quiet) && retention >= b.retention && kept >= b.kept {
			return b.verdict
		}
	}
	return Muddy
}

// Judged is the verdict that the undertone would have with another retention (above 1 where it is not clamped), another
// share kept and another chroma: what tubes that differ make of it. What has no verdict of its own stays so.
func (u Undertone) Judged(retention, kept, chroma float64) Verdict {
	switch {
	case u.Verdict == Neutral || u.Shade:
		return Neutral
	case chroma < colour.NeutralChroma:
		return Muddy
	}
	return verdictOf(min(1, max(0, retention)), min(1, max(0, kept)), u.quiet)
}

// VerdictAt is the verdict on a retention alone, 0 to 1, of something whose
// paints are not known: never quiet.
func VerdictAt(retention float64) Verdict { return verdictOf(retention, 0, false) }

// VerdictWords is the verdict with how near it stands to the next: "just clean",
// "nearly clean", or the bare word; of a shade that it is one.
func (u Undertone) VerdictWords() string {
	if u.Shade {
		return "a shade"
	}
	if u.Verdict == Neutral || !u.HasHue() {
		return u.Verdict.String()
	}
	retention, kept := TwoPlaces(u.Retention), TwoPlaces(u.Kept)
	near := func(value, bound, from, to float64) bool {
		return bound > 0 && value >= TwoPlaces(bound+from) && value < TwoPlaces(bound+to)
	}
	for _, b := range bounds {
		if b.verdict == Quiet && !u.quiet {
			continue
		}
		if b.verdict > u.Verdict && (near(retention, b.retention, -within, 0) || near(kept, b.kept, -within, 0)) {
			return "nearly " + b.verdict.String()
		}
	}
	met, barely := 0, 0
	for _, b := range bounds {
		if b.verdict != u.Verdict || retention < b.retention || kept < b.kept || b.retention+b.kept == 0 {
			continue
		}
		met++
		if near(retention, b.retention, 0, within) || near(kept, b.kept, 0, within) {
			barely++
		}
	}
	if met > 0 && met == barely {
		return "just " + u.Verdict.String()
	}
	return u.Verdict.String()
}
