package wire

import (
	"strconv"
	"strings"

	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Pair is the way from one paint to another.
type Pair struct {
	Conditions
	Spacing     string       `json:"spacing" format:"spacing"`
	Key         string       `json:"key" doc:"tells the two paints as they stand, and the spacing, from all others"`
	Predictable bool         `json:"predictable" doc:"there is something to predict of the two"`
	A           Paint        `json:"a"`
	B           Paint        `json:"b"`
	Samples     []PathSample `json:"samples"`
	Ratios      []RatioMark  `json:"ratios" doc:"where ratios stand that a hand can count"`
	Steps       []PathStep   `json:"steps"`
	Middle      PathStep     `json:"middle" doc:"the secondary, half way"`
	Retention   float64      `json:"retention" doc:"of the secondary"`
	Verdict     string       `json:"verdict" format:"verdict" doc:"of the secondary"`
	Confidence
	Lowest            float64    `json:"lowest" doc:"least retention between the first and the last step"`
	MudZones          []Stretch  `json:"mudZones"`
	Dull              []Stretch  `json:"dullStretches" doc:"softened or worse"`
	RuleOfThumb       string     `json:"ruleOfThumb" format:"ruleOfThumb"`
	Because           string     `json:"because"`
	Darkens           string     `json:"darkens" doc:"whether the steps darken evenly from the lighter paint to the darker, as painted"`
	Indistinguishable bool       `json:"noDifferent" doc:"the two cannot be told apart: steps are the first paint, without a verdict"`
	Ladders           []LadderAt `json:"ladders" doc:"let down, or thinned, at some places of the way"`
	Third             *Paint     `json:"third,omitempty" doc:"the paint that is traced into it"`
	Taints            []Taint    `json:"taints,omitempty" doc:"the same way with a trace of the third paint in every mixture, by rising share"`
	Clean             float64    `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
	Soft              float64    `json:"softenedFrom"`
}

// RatioMark is where a ratio of the two paints stands on the way.
type RatioMark struct {
	A  int     `json:"a" doc:"parts of the first"`
	B  int     `json:"b"`
	At float64 `json:"at"`
}

// LadderAt is the ladder of one place on the way.
type LadderAt struct {
	Sample int    `json:"sample" doc:"index among the samples"`
	Rungs  []Rung `json:"rungs"`
}

// Taint is a way with a share of a third paint in every mixture.
type Taint struct {
	Share     float64       `json:"share" doc:"of the third paint, by volume, 0 to 1"`
	Retention float64       `json:"retention" doc:"half way"`
	Verdict   string        `json:"verdict" format:"verdict"`
	HueWord   string        `json:"hueWord" doc:"half way"`
	Samples   []TaintedBand `json:"samples" doc:"at the places of the clean samples"`
}

// TaintedBand is one place of a tainted way.
type TaintedBand struct {
	AsPainted    Shown   `json:"asPainted"`
	Undertone    Shown   `json:"undertone"`
	Retention    float64 `json:"retention"`
	Verdict      string  `json:"verdict" format:"verdict"`
	VerdictWords string  `json:"verdictWords" doc:"the verdict, with how near it stands to the next"`
	HueWord      string  `json:"hueWord"`
	Words        string  `json:"words" doc:"the colour as painted, in words"`
	Mix          string  `json:"mix" doc:"what it is, as PAINT=PARTS with commas between"`
}

const laddersAlong = 17

// Contaminated shapes a path, and shares of a third paint in every mixture of it.
func (v View) Contaminated(way *path.Path, third *paint.Paint, taints []path.Taint, n int, spacing path.Spacing) Pair {
	p := v.Pair(way, n, spacing)
	middle := way.Middle(spacing)
	described := v.Paint(third)
	p.Third = &described
	for _, tainted := range taints {
		m := way.TaintedAt(middle.Share, third, tainted.Share)
		u := m.Undertone()
		t := Taint{Share: tainted.Share, Retention: round(u.Retention, 4), Verdict: u.Verdict.String(), HueWord: u.HueWord()}
		for i, s := range tainted.Samples {
			ok := v.look(&tainted.Mixed[i])
			t.Samples = append(t.Samples, TaintedBand{AsPainted: shown(ok), Undertone: shown(s.Under.Colour), Retention: round(s.Under.Retention, 4), Verdict: s.Under.Verdict.String(), VerdictWords: s.Under.VerdictWords(), HueWord: s.Under.HueWord(), Words: ok.Words(), Mix: mixed([]paint.Part{{Paint: way.A, Parts: (1 - s.Share) * (1 - tainted.Share)}, {Paint: way.B, Parts: s.Share * (1 - tainted.Share)}, {Paint: third, Parts: tainted.Share}})})
		}
		p.Taints = append(p.Taints, t)
	}
	return p
}

// PathSample is one place on the way.
type PathSample struct {
	Share float64 `json:"share" doc:"of the second paint, by volume, 0 to 1"`
	At    float64 `json:"at" doc:"how far along the way, 0 to 1, in the measure of the spacing"`
	Mix   string  `json:"mix" doc:"what it is, as PAINT=PARTS with commas between; its parts come near it"`
	Mixture
}

// PathStep is a step with parts a brush can do.
type PathStep struct {
	Share float64 `json:"share"`
	At    float64 `json:"at" doc:"how far along the way, 0 to 1, in the measure of the spacing"`
	Mixture
	Mixing []string `json:"mixing"`
	Confidence
}

// Stretch is an unbroken part of a path.
type Stretch struct {
	From      float64      `json:"from" doc:"share of the second paint"`
	To        float64      `json:"to"`
	FromAt    float64      `json:"fromAt" doc:"how far along the way, 0 to 1, in the measure of the spacing"`
	ToAt      float64      `json:"toAt"`
	FromParts []Ingredient `json:"fromParts"`
	ToParts   []Ingredient `json:"toParts"`
	FromWord  string       `json:"fromWord"`
	ToWord    string       `json:"toWord"`
	Lowest    float64      `json:"lowest"`
	Begins    []float64    `json:"begins,omitempty" doc:"of mud: between which places it begins in 80 of 100 tubes, as fromAt counts"`
	Ends      []float64    `json:"ends,omitempty" doc:"and between which it ends"`
}

// Pair shapes a path with n inner steps, as many as path.CheckSteps allows.
func (v View) Pair(p *path.Path, n int, spacing path.Spacing) Pair {
	a, b := p.A, p.B
	steps := p.Steps(n, spacing)
	middle := p.Middle(spacing)
	out := Pair{
		Conditions: v.conditions(), Spacing: spacing.String(), Key: journal.PairKey(a, b, spacing), Predictable: journal.Predictable(p), A: v.Paint(a), B: v.Paint(b),
		Middle: v.pathStep(p, middle, spacing), Lowest: round(p.Lowest(steps[0].Share, steps[n-1].Share), 4),
		MudZones: v.stretches(p, p.Mud(), spacing), Dull: v.stretches(p, p.Dull(), spacing),
		RuleOfThumb: "none", Indistinguishable: p.Indistinguishable(),
		Because: bias.Because(a, b, "", "", &middle.Mixture), Clean: paint.CleanFrom(), Soft: paint.SoftenedFrom(),
	}
	out.Retention, out.Verdict = out.Middle.Retention, out.Middle.Verdict
	out.Confidence = ConfidenceOf(certainty.OfPath(p, spacing, middle.Under.Verdict, middle.Parts, v.doubts()))
	if rule, ok := bias.RuleOfThumb(a, b, "", ""); ok {
		out.RuleOfThumb = rule.Rating
	}
	for i, e := range certainty.MudEdges(p, spacing, v.doubts()) {
		z := &out.MudZones[i]
		z.Begins, z.Ends = []float64{round(e[0].Low, 4), round(e[0].High, 4)}, []float64{round(e[1].Low, 4), round(e[1].High, 4)}
	}
	sure := certainty.OfSteps(p, spacing, steps, v.doubts())
	first, last := p.At(0), p.At(1)
	run := []float64{v.look(&first).Lightness()}
	for i, s := range steps {
		step := v.pathStep(p, s, spacing)
		step.Confidence = ConfidenceOf(sure[i])
		out.Steps = append(out.Steps, step)
		run = append(run, v.look(&s.Mixture).Lightness())
	}
	out.Darkens = path.Darkens(append(run, v.look(&last).Lightness()))
	for _, r := range path.Ratios {
		out.Ratios = append(out.Ratios, RatioMark{r[0], r[1], round(p.ReachedAt(float64(r[1])/float64(r[0]+r[1]), spacing), 4)})
	}
	reached, laddered := p.Reached(spacing), 0
	for i, s := range p.Samples {
		m := p.At(s.Share)
		if i*(laddersAlong-1) >= laddered*(len(p.Samples)-1) {
			out.Ladders = append(out.Ladders, LadderAt{i, v.ladder(&m)})
			laddered++
		}
		out.Samples = append(out.Samples, PathSample{s.Share, round(reached[i], 4), mixed([]paint.Part{{Paint: a, Parts: 1 - s.Share}, {Paint: b, Parts: s.Share}}), v.sample(p.Parts(s.Share).Parts, &m, s.Under)})
	}
	return out
}

func (v View) pathStep(p *path.Path, s path.Step, spacing path.Spacing) PathStep {
	out := PathStep{Share: round(s.Share, 6), At: round(p.ReachedAt(s.Share, spacing), 4), Mixture: v.step(s), Mixing: p.Mixing(s.Ratio)}
	if p.Indistinguishable() {
		out.withoutVerdict()
	}
	return out
}

func (v View) stretches(p *path.Path, in []path.Stretch, spacing path.Spacing) []Stretch {
	out := []Stretch{}
	for _, s := range in {
		out = append(out, Stretch{
			From: round(s.From, 6), To: round(s.To, 6), FromAt: round(p.ReachedAt(s.From, spacing), 4), ToAt: round(p.ReachedAt(s.To, spacing), 4), FromWord: s.FromWord, ToWord: s.ToWord, Lowest: round(s.Lowest, 4),
			FromParts: v.Recipe(p.Parts(s.From).Parts), ToParts: v.Recipe(p.Parts(s.To).Parts),
		})
	}
	return out
}

func (v View) sample(r recipe.Recipe, m *paint.Mixture, u paint.Undertone) Mixture {
	return Mixture{v.Recipe(r), plain(r), v.colours(m, u), judgement(u)}
}

// mixed is what is mixed by volume, as it is asked about.
func mixed(parts []paint.Part) string {
	var out []string
	if len(parts) > 1 && parts[0].Paint.ID == parts[1].Paint.ID { // a way from a paint to itself
		parts = append([]paint.Part{{Paint: parts[0].Paint, Parts: parts[0].Parts + parts[1].Parts}}, parts[2:]...)
	}
	for _, p := range parts {
		if p.Parts > 0 {
			out = append(out, p.Paint.ID+"="+strconv.FormatFloat(p.Parts, 'g', 6, 64))
		}
	}
	return strings.Join(out, ",")
}
