package wire

import (
	"gyrophane/core/bias"
	"gyrophane/core/certainty"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Pairings are what becomes of every two paints of a system or of a box.
type Pairings struct {
	Conditions
	Spacing string          `json:"spacing" format:"spacing"`
	Clean   float64         `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
	Soft    float64         `json:"softenedFrom"`
	Paints  []PairedPaint   `json:"paints" doc:"each once"`
	Blocks  []PairingBlock  `json:"sections" doc:"in the order of the wheel; then what is no section"`
	Pairs   []PairingOfBoth `json:"pairs" doc:"section by section, the brightest first"`
}

// PairedPaint is a paint among pairings.
type PairedPaint struct {
	ID        string     `json:"id"`
	Code      string     `json:"code"`
	Name      string     `json:"name" doc:"without what stands in brackets"`
	Masstone  Shown      `json:"masstone"`
	Undertone Shown      `json:"undertone"`
	Lean      *Lean      `json:"lean"`
	Warmth    string     `json:"temperature,omitempty" enum:"warm,cool" doc:"by the school; absent for centred paints and families without such a word"`
	Takes     [3]float64 `json:"takes" doc:"share of the violet-blue, green and red light that it swallows, as a film thinned until the highest density is 0.8"`
}

// PairingBlock is a section, or another group of pairings.
type PairingBlock struct {
	Name     string `json:"name" doc:"of the secondary; within a family; with the others"`
	Section  bool   `json:"section" doc:"from one primary to another"`
	Clean    int    `json:"clean" doc:"how many pairings are"`
	Quiet    int    `json:"quiet"`
	Softened int    `json:"softened"`
	Muddy    int    `json:"muddy"`
	Parted   int    `json:"parted" doc:"where rule of thumb and computation part"`
}

// PairingOfBoth is one pairing.
type PairingOfBoth struct {
	A                 string      `json:"a" doc:"paint"`
	B                 string      `json:"b"`
	Section           string      `json:"section"`
	Key               string      `json:"key" doc:"tells the two paints as they stand, and the spacing, from all others"`
	Predictable       bool        `json:"predictable" doc:"there is something to predict of the two"`
	LeanA             string      `json:"leanA,omitempty" format:"leanSide" doc:"of the first with regard to the second; empty where there is no rule"`
	LeanB             string      `json:"leanB,omitempty" format:"leanSide"`
	Retention         float64     `json:"retention" doc:"of the secondary"`
	Lowest            float64     `json:"lowest" doc:"least retention between the first and the last of three steps"`
	Verdict           string      `json:"verdict" format:"verdict" doc:"of the secondary"`
	Confidence                    // left out where there are more than 240 pairings
	RuleOfThumb       string      `json:"ruleOfThumb" format:"ruleOfThumb"`
	Agrees            bool        `json:"agrees" doc:"false where rule and computation part within the section"`
	Parting           string      `json:"parting,omitempty" doc:"how they part, and why"`
	Because           string      `json:"because"`
	Indistinguishable bool        `json:"noDifferent" doc:"the two cannot be told apart"`
	Middle            PathStep    `json:"middle" doc:"the secondary, half way"`
	Ladder            []Rung      `json:"ladder,omitempty" doc:"of the secondary"`
	Band              []BandPoint `json:"band,omitempty" doc:"the path, for drawing; left out with its ladder where there are more than 240 pairings"`
}

// What is drawn of pairings: of up to so many of them, and in how many points.
const (
	mostDrawn  = 240
	bandPoints = 41
)

// SystemPairings shapes all pairings of a system.
func (v View) SystemPairings(s wheel.System, spacing path.Spacing, school bias.School) Pairings {
	return v.pairings(s.Paints(), s.Blocks(spacing), spacing, school)
}

// PaintPairings shapes all pairings of some paints.
func (v View) PaintPairings(paints []*paint.Paint, spacing path.Spacing, school bias.School) Pairings {
	return v.pairings(paints, wheel.BlocksOf(paints, spacing), spacing, school)
}

func (v View) pairings(paints []*paint.Paint, blocks []wheel.Block, spacing path.Spacing, school bias.School) Pairings {
	out := Pairings{Conditions: v.conditions(), Spacing: spacing.String(), Clean: paint.CleanFrom(), Soft: paint.SoftenedFrom(), Pairs: []PairingOfBoth{}, Blocks: []PairingBlock{}}
	for _, p := range paints {
		out.Paints = append(out.Paints, v.paired(p, school))
	}
	total := 0
	for _, b := range blocks {
		total += len(b.Pairings)
	}
	for _, b := range blocks {
		group := PairingBlock{Name: b.Name, Section: b.Section}
		parted := make([]int, len(b.Pairings))
		for i := range parted {
			parted[i] = -1
		}
		if b.Section {
			parted = path.RuleConflicts(b.Pairings)
		}
		var sure []*certainty.Confidence
		if total <= mostDrawn {
			sure = certainty.OfPairs(b.Pairings, spacing, v.doubts())
		}
		for i := range b.Pairings {
			p := &b.Pairings[i]
			row := v.pairing(p, b.Name, spacing, total <= mostDrawn)
			if sure != nil {
				row.Confidence = ConfidenceOf(sure[i])
			}
			if j := parted[i]; j >= 0 {
				row.Agrees, row.Parting = false, p.ExplainConflict(&b.Pairings[j])
				group.Parted++
			}
			switch row.Verdict {
			case "clean":
				group.Clean++
			case "quiet":
				group.Quiet++
			case "softened":
				group.Softened++
			case "muddy":
				group.Muddy++
			}
			out.Pairs = append(out.Pairs, row)
		}
		out.Blocks = append(out.Blocks, group)
	}
	return out
}

func (v View) paired(p *paint.Paint, school bias.School) PairedPaint {
	m := p.Alone()
	mass := m.Masstone()
	return PairedPaint{ID: p.ID, Code: p.Code(), Name: p.ShortName(), Masstone: shown(mass.OKLab(v.Light)), Undertone: ShownUndertone(p), Lean: leanIn(p, ""), Warmth: bias.Temperature(p, school), Takes: takes(p)}
}

func (v View) pairing(p *path.Pairing, section string, spacing path.Spacing, drawn bool) PairingOfBoth {
	out := PairingOfBoth{
		A: p.A.ID, B: p.B.ID, Section: section, Key: journal.PairKey(p.A, p.B, spacing), Predictable: journal.Predictable(p.Path), Lowest: round(p.Lowest(spacing), 4), RuleOfThumb: ruleWord(p), Agrees: true,
		Because: bias.Because(p.A, p.B, p.RoleA, p.RoleB, &p.Middle.Mixture), Indistinguishable: p.Path.Indistinguishable(), Middle: v.pathStep(p.Path, p.Middle, spacing),
	}
	if r, ok := p.Rule(); ok {
		out.LeanA, out.LeanB = r.A.String(), r.B.String()
	}
	out.Retention, out.Verdict = out.Middle.Retention, out.Middle.Verdict
	if drawn {
		out.Ladder = v.ladder(&p.Middle.Mixture)
		out.Band = band(p.Path, spacing, bandPoints)
	}
	return out
}

// takes are the shares of each third of the light that a paint swallows.
func takes(p *paint.Paint) (out [3]float64) {
	m := p.Alone()
	for t, share := range bias.DensitiesOf(&m).Swallowed() {
		out[t] = round(share, 3)
	}
	return out
}
