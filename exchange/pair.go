package exchange

import (
	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Pair is the way from one paint to another.
type Pair struct {
	Conditions
	Spacing     string       `json:"spacing" enum:"hue,contrast,parts"`
	A           Paint        `json:"a"`
	B           Paint        `json:"b"`
	Samples     []PathSample `json:"samples"`
	Steps       []PathStep   `json:"steps"`
	Middle      PathStep     `json:"middle" doc:"the secondary, half way"`
	Retention   float64      `json:"retention" doc:"of the secondary"`
	Verdict     string       `json:"verdict" enum:"clean,softened,muddy,neutral" doc:"of the secondary"`
	Lowest      float64      `json:"lowest" doc:"least retention between the first and the last step"`
	MudZones    []Stretch    `json:"mudZones"`
	Dull        []Stretch    `json:"dullStretches" doc:"softened or worse"`
	RuleOfThumb string       `json:"ruleOfThumb" enum:"bright,moderate,dull,none"`
	Because     string       `json:"because"`
	NoDifferent bool         `json:"noDifferent" doc:"the two cannot be told apart: steps are the first paint, without a verdict"`
}

// PathSample is one place on the way.
type PathSample struct {
	Share float64 `json:"share" doc:"of the second paint, by volume, 0 to 1"`
	Mixture
}

// PathStep is a step with parts a brush can do.
type PathStep struct {
	Share float64 `json:"share"`
	Mixture
	Mixing []string `json:"mixing"`
}

// Stretch is an unbroken part of a path.
type Stretch struct {
	From      float64      `json:"from" doc:"share of the second paint"`
	To        float64      `json:"to"`
	FromParts []Ingredient `json:"fromParts"`
	ToParts   []Ingredient `json:"toParts"`
	FromWord  string       `json:"fromWord"`
	ToWord    string       `json:"toWord"`
	Lowest    float64      `json:"lowest"`
}

// Pair follows the path from a to b with n inner steps (1 to 11).
func (v View) Pair(a, b *paint.Paint, n int, spacing path.Spacing) (Pair, error) {
	if n < 1 || n > path.MostSteps {
		return Pair{}, bad("steps must be a whole number from 1 to %d, not %d", path.MostSteps, n)
	}
	p := path.New(a, b)
	steps := p.Steps(n, spacing)
	middle := p.Middle(spacing)
	out := Pair{
		Conditions: v.conditions(), Spacing: spacing.String(), A: v.Paint(a), B: v.Paint(b),
		Middle: v.pathStep(p, middle), Lowest: round(p.Lowest(steps[0].Share, steps[n-1].Share), 4),
		MudZones: v.stretches(p, p.Mud()), Dull: v.stretches(p, p.Dull()),
		RuleOfThumb: "none", NoDifferent: p.NoDifferent(),
		Because: bias.Because(a, b, "", "", &middle.Mixture),
	}
	out.Retention, out.Verdict = out.Middle.Retention, out.Middle.Verdict
	if rule, ok := bias.RuleOfThumb(a, b, "", ""); ok {
		out.RuleOfThumb = rule.Word
	}
	for _, s := range steps {
		out.Steps = append(out.Steps, v.pathStep(p, s))
	}
	for _, s := range p.Samples {
		m := p.At(s.Share)
		out.Samples = append(out.Samples, PathSample{s.Share, Mixture{v.ingredients(p.Parts(s.Share)), v.colours(&m, s.Under), judgement(s.Under)}})
	}
	return out, nil
}

func (v View) pathStep(p *path.Path, s path.Step) PathStep {
	out := PathStep{round(s.Share, 6), v.step(s), p.Mixing(s.Recipe)}
	if p.NoDifferent() {
		out.Verdict = paint.Neutral.String()
	}
	return out
}

func (v View) stretches(p *path.Path, in []path.Stretch) []Stretch {
	out := []Stretch{}
	for _, s := range in {
		out = append(out, Stretch{
			From: round(s.From, 6), To: round(s.To, 6), FromWord: s.FromWord, ToWord: s.ToWord, Lowest: round(s.Lowest, 4),
			FromParts: v.ingredients(p.Parts(s.From)), ToParts: v.ingredients(p.Parts(s.To)),
		})
	}
	return out
}
