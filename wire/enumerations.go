package wire

import (
	"fmt"

	"gyrophane/core/bench"
	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
	"gyrophane/studio"
)

// Enumeration is a set of words that a field takes one of. A field says which by
// its format.
type Enumeration struct {
	Format string
	Name   string // of the schema
	Doc    string
	Values []string
}

// Enumerations are the sets of words of the core that are sent.
func Enumerations() []Enumeration {
	var media []string
	for _, m := range paint.Media() {
		media = append(media, m.ID)
	}
	return []Enumeration{
		{"medium", "Medium", "what is painted with", media},
		{"light", "Light", "what it is looked at by: daylight, gallery, warm lamp", words(colour.Lights)},
		{"judged", "Judged", "as it is being painted, or when it is dry", []string{paint.Judged(true), paint.Judged(false)}},
		{"spacing", "Spacing", "what steps are even in", words(path.Spacings)},
		{"verdict", "Verdict", "on how much of the possible brightness is kept; neutral for what has no hue", words(paint.Verdicts)},
		{"chromaticVerdict", "ChromaticVerdict", "a verdict on what has a hue", words(paint.ChromaticVerdicts)},
		{"sureness", "Sureness", "how sure a verdict is, for tubes like a painter's", words(certainty.Surenesses)},
		{"ruleOfThumb", "RuleOfThumb", "what the rule of thumb says of two paints; none where it says nothing", append(words(bias.RuleRatings), "none")},
		{"leanSide", "LeanSide", "how a paint leans with regard to its partner", words(bias.Sides)},
		{"warmBlue", "WarmBlue", "the neighbour that the blue called warm leans to", words(bias.Schools)},
		{"showable", "ShowableKind", "of what a painter can show to others", studio.Showables},
		{"classMove", "ClassMove", "what a teacher does in a round", studio.ClassMoves},
		{"role", "Role", "in a primary system", words(bias.Roles)},
		{"systemKind", "SystemKind", "of primary system", words(wheel.Kinds)},
		{"chosenKind", "ChosenKind", "of system that can be searched for", words(reach.Kinds)},
		{"slotKind", "SlotKind", "what stands in a slot", words(wheel.SlotKinds)},
		{"order", "MixingOrder", "mixed from the weaker paint on, or the secondary first", words(wheel.Orders)},
		{"nameSet", "NameSet", "whose names the slots have", wheel.NameSets},
		{"tintWay", "TintWay", "what tints are made with", words(wheel.Tinting)},
		{"shadeWay", "ShadeWay", "what shades are made with", words(wheel.Shading)},
		{"aim", "Aim", "what a system is chosen for: the most clean hues, the least price, the fewest tubes, the wanted colours", words(reach.Aims)},
		{"grade", "Grade", "how richly a tube is pigmented", words(paint.Grades)},
		{"making", "Making", "how a paint's curves were come by", words(paint.Makings)},
		{"source", "ReadingSource", "how somebody came by a colour", words(paint.Sources)},
		{"advice", "Advice", "what to do about a pile", words(path.Advices)},
		{"quietWay", "QuietWayName", "how a colour is cooled or dulled", words(path.QuietWays)},
		{"measure", "Measure", "what paint is counted out in", words(recipe.Measures)},
		{"sheet", "SheetKind", "what is painted", words(bench.SheetKinds)},
		{"fill", "Fill", "how the slots of a section are mixed: a run from the weaker paint or the stronger, the secondary first, own piles", words(bench.Fills)},
		{"drawBy", "DrawBy", "what a sheet is drawn with", words(bench.DrawBys)},
		{"sittingEvent", "SittingEventKind", "what was done in a sitting", words(bench.EventKinds)},
		{"benchAction", "BenchActionKind", "what is done", words(bench.ActionKinds)},
	}
}

func words[T any](values []T) (out []string) {
	for _, v := range values {
		out = append(out, fmt.Sprint(v))
	}
	return out
}

// Constants are figures of the core that a page lays itself out by.
type Constants struct {
	Bins        int          `json:"bins"`        // of wheel hue, of a reach
	MostSteps   int          `json:"mostSteps"`   // inner steps of a path
	MostPaired  int          `json:"mostPaired"`  // paints whose pairings are listed
	MostStirred int          `json:"mostStirred"` // paints that are stirred together
	Medium      string       `json:"medium"`      // the usual one
	Choices     WheelChoices `json:"choices"`     // of a new wheel
	// Measures are what paint is counted out in by medium, where nothing is chosen.
	Measures map[string]string `json:"measures"`
	// LeastOne and MostOne are the ml that one drop, load or tip may hold.
	LeastOne float64 `json:"leastOne"`
	MostOne  float64 `json:"mostOne"`
	// EyeRounds are how far the ribbons of a reading by eye run either way in each round, CIEDE2000.
	EyeRounds []float64 `json:"eyeRounds"`
	// FindRounds are how far they run where a colour is looked for that is only roughly known.
	FindRounds []float64 `json:"findRounds"`
	// ByLook stands in the place of the words on a tube that has none.
	ByLook string `json:"byLook"`
	// LongestOwnName is how many characters a painter's own name of a slot has at the most.
	LongestOwnName int `json:"longestOwnName"`
	// MudQuarters are the places of a tally that stand for the quarters of the way.
	MudQuarters [4]int `json:"mudQuarters"`
	// NightsKept is how many days the copies of a night are usually kept.
	NightsKept int `json:"nightsKept"`
	// PieceBytes is how much of a backup is sent at once, and MostArchiveBytes what it may have.
	PieceBytes       int64 `json:"pieceBytes"`
	MostArchiveBytes int64 `json:"mostArchiveBytes"`
}

// NewConstants are the constants.
func NewConstants() Constants {
	out := Constants{Bins: reach.Bins, MostSteps: path.MostSteps, MostPaired: wheel.MostPaired, MostStirred: paint.MostStirred, Medium: paint.UsualMedium, Choices: ChoicesOf(wheel.UsualChoices()), Measures: map[string]string{}, LeastOne: recipe.SmallestOne, MostOne: recipe.LargestOne, EyeRounds: journal.Rounds, FindRounds: journal.FindRounds, ByLook: paint.ByLook, LongestOwnName: wheel.LongestOwnName, MudQuarters: journal.MudQuarters, NightsKept: studio.NightsKept, PieceBytes: studio.PieceBytes, MostArchiveBytes: studio.MostArchiveBytes}
	for _, in := range paint.Media() {
		out.Measures[in.ID] = string(recipe.UsualMeasure(in))
	}
	return out
}
