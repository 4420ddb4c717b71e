package wire

import (
	"gyrophane/core/bench"
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// Wheel is a system's twelve-step wheel.
type Wheel struct {
	Conditions
	Choices  WheelChoices `json:"choices"`
	System   string       `json:"system" doc:"kind"`
	Library  string       `json:"library" doc:"version of the paint library it was worked out with"`
	Spacing  string       `json:"spacing" format:"spacing"`
	Slots    []Slot       `json:"slots"`
	Sections []Section    `json:"sections" doc:"from each role to the next, whatever is on top"`
	Median   float64      `json:"medianJump" doc:"OKLab"`
	Clean    float64      `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
	Neutrals []Neutral    `json:"neutrals,omitempty" doc:"the middles of the six complement pairs"`
	Mend     *Mend        `json:"mend,omitempty" doc:"what evens the largest jump"`
	Raised   []Raised     `json:"raised,omitempty" doc:"paints that were raised with white"`
	Warm     WarmHalf     `json:"warm"`
	Notes    []string     `json:"notes" doc:"what to know before its slots, a sentence each: hues that it has none of, steps that can hardly be told apart in this medium"`
	Hues     []string     `json:"hues" doc:"the twelve words a hue is guessed by"`
}

// Slot is one twelfth of the wheel, 0 on top, in the wheel's direction.
type Slot struct {
	Index   int      `json:"index"`
	Home    int      `json:"home" doc:"where it would stand clockwise with the first role on top"`
	Name    string   `json:"name"`
	SetName string   `json:"setName" doc:"what it is called in the set of names, whatever the painter calls it"`
	Kind    string   `json:"kind" format:"slotKind"`
	Empty   bool     `json:"empty" doc:"a role is missing, or six slots are wanted; then nothing else is filled in"`
	Role    string   `json:"role,omitempty" format:"role" doc:"of a primary"`
	Paints  []string `json:"paints" doc:"what they are called in short"`
	Mixture
	Confidence
	Drawn         []Shown        `json:"drawn,omitempty" doc:"as painted where slots are drawn out, from the rim to the tip in even steps"`
	Halves        []Half         `json:"halves,omitempty" doc:"of a split primary, the one that faces the slot before first"`
	OtherPairings []OtherPairing `json:"otherPairings,omitempty" doc:"of a secondary, the brightest first"`
	Because       string         `json:"because"`
	Mixing        []string       `json:"mixing"`
	Jump          float64        `json:"jump" doc:"OKLab distance of the brushed-out colours to the next slot"`
	Jumps         bool           `json:"jumps" doc:"over 1.6 times the wheel's median, and over 0.06"`
	Across        int            `json:"complement" doc:"index of the slot across the wheel"`
	Wet           Colour         `json:"wet" doc:"as painted, wet"`
	Dry           Colour         `json:"dry" doc:"as painted, dry"`
	Lean          *Lean          `json:"lean" doc:"of a primary, in its role"`
	Ladder        []Rung         `json:"ladder"`
	Rings         *SlotRings     `json:"rings,omitempty"`
	Schemes       []SchemeSlots  `json:"schemes"`
}

// Half is one paint of a split primary.
type Half struct {
	Paint string `json:"paint"`
	Name  string `json:"name"`
	Mixture
	Drawn []Shown `json:"drawn,omitempty"`
	Lean  *Lean   `json:"lean"`
}

// OtherPairing is a pair that does not fill its section.
type OtherPairing struct {
	A string `json:"a"`
	B string `json:"b"`
	Mixture
	RuleOfThumb string `json:"ruleOfThumb" format:"ruleOfThumb"`
}

// SlotRings are a slot's places on the rings that are on.
type SlotRings struct {
	Tints     []RingRung `json:"tints,omitempty"`
	Shades    []RingRung `json:"shades,omitempty"`
	Wash      *Shown     `json:"wash,omitempty"`
	Highlight *RingRung  `json:"highlight,omitempty"`
	Shadow    *RingRung  `json:"shadow,omitempty"`
}

// RingRung is one place of a ring.
type RingRung struct {
	Shown
	With    string       `json:"with" doc:"what is added: a paint, a slot or water"`
	Parts   []Ingredient `json:"parts" doc:"of the slot's mixture, or its let-down, and of what is added; without the water"`
	MassL   float64      `json:"massL" doc:"L* of the masstone, or of the dry film where water thins"`
	Reached bool         `json:"reached" doc:"whether it came as light or as dark as it should"`
	HueWord string       `json:"hueWord"`
}

// SchemeSlots are the slots of a scheme read off from one slot.
type SchemeSlots struct {
	Scheme string `json:"scheme"`
	Slots  []int  `json:"slots"`
}

// Neutral is where two complements cancel.
type Neutral struct {
	A           int          `json:"a" doc:"slot"`
	B           int          `json:"b" doc:"slot"`
	Parts       []Ingredient `json:"parts"`
	Lab         [3]float64   `json:"lab" doc:"as painted, dry"`
	Chroma      float64      `json:"chroma" doc:"C*ab as painted, dry"`
	HueWord     string       `json:"hueWord"`
	Neutral     bool         `json:"neutral" doc:"C*ab at most 12: a grey"`
	Words       string       `json:"words" doc:"what it is called, as painted and dry"`
	Says        string       `json:"says" doc:"what the two make, and which way equal parts lie"`
	Neutraliser *Neutraliser `json:"neutraliser,omitempty" doc:"where it is no grey: the paint at hand that brings it to one"`
	Shown
}

// Neutraliser is a balance brought to a grey by a third paint.
type Neutraliser struct {
	Paint  string       `json:"paint" doc:"its name"`
	Parts  []Ingredient `json:"parts" doc:"of all three"`
	Chroma float64      `json:"chroma" doc:"C*ab as painted, dry"`
}

// Mend is the recipe that stands half way in the largest jump.
type Mend struct {
	From  int          `json:"from" doc:"slot"`
	To    int          `json:"to"`
	Parts []Ingredient `json:"parts"`
	Shown
}

// Raised is a paint raised with white.
type Raised struct {
	Paint string       `json:"paint" doc:"what to call it in short"`
	Parts []Ingredient `json:"parts" doc:"it, and white"`
}

// Section is the run from one primary to the next.
type Section struct {
	From    string      `json:"from" doc:"paint; empty where a role is missing"`
	To      string      `json:"to"`
	Chosen  bool        `json:"chosen" doc:"by the painter, not as the brightest"`
	Lowest  float64     `json:"lowest" doc:"least retention between the first and the last step"`
	Weaker  string      `json:"weaker" doc:"the paint to start mixing from"`
	Band    []BandPoint `json:"band" doc:"the path, for drawing"`
	MudZone []Stretch   `json:"mudZones"`
}

// BandPoint is one sample of a section's path.
type BandPoint struct {
	At        float64 `json:"at" doc:"how far along the section, 0 to 1, in the measure of the spacing"`
	Undertone Shown   `json:"undertone"`
	Retention float64 `json:"retention"`
	Verdict   string  `json:"verdict" format:"verdict"`
	HueWord   string  `json:"hueWord"`
}

// Wheel shapes a wheel that was built by some choices.
func (v View) Wheel(w *wheel.Wheel, c wheel.Choices, slots bench.Slots) Wheel {
	c.Spacing, c.Order, c.Names = w.Spacing.String(), string(w.Order), w.Names
	c.TintBy, c.ShadeBy = string(w.TintBy), string(w.ShadeBy)
	out := Wheel{
		Conditions: v.conditions(), Choices: ChoicesOf(c), System: string(w.System.Kind), Library: paint.LibraryVersion(),
		Spacing: c.Spacing, Median: round(w.Median, 4), Clean: paint.CleanFrom(), Warm: Warm(), Hues: colour.HueWords(), Notes: append([]string{}, w.Notes(v.Medium)...),
	}
	sure := certainty.OfWheel(w, v.doubts())
	for i := range w.Slots {
		slot := v.slot(w, i, slots == bench.Graded)
		slot.Confidence = ConfidenceOf(sure[i])
		slot.Rings = v.rings(w, i, c)
		out.Slots = append(out.Slots, slot)
	}
	for k := range w.Sections {
		out.Sections = append(out.Sections, v.section(w, k))
	}
	if c.Neutral {
		for i := range 6 {
			if n, ok := v.neutral(w, i); ok {
				out.Neutrals = append(out.Neutrals, n)
			}
		}
	}
	if m, ok := w.BridgeJump(); ok {
		out.Mend = &Mend{m.From, m.To, v.Recipe(m.Recipe.Parts), v.painted(&m.Mixture)}
	}
	for _, p := range w.System.Paints() {
		if p.Of != nil {
			out.Raised = append(out.Raised, Raised{p.Of[0].Paint.Code(), v.Recipe(recipe.Of(p.Of))})
		}
	}
	return out
}

func (v View) section(w *wheel.Wheel, k int) Section {
	s := &w.Sections[k]
	out := Section{Band: []BandPoint{}, MudZone: []Stretch{}, Chosen: s.Chosen}
	if s.Empty() {
		return out
	}
	out.From, out.To, out.Weaker = s.A.ID, s.B.ID, s.Path.Weaker().ID
	out.Lowest = round(w.Lowest(k), 4)
	out.Band, out.MudZone = band(s.Path, w.Spacing, 0), v.stretches(s.Path, s.Path.Mud(), w.Spacing)
	return out
}

func (v View) slot(w *wheel.Wheel, i int, graded bool) Slot {
	s := w.Slots[i]
	out := Slot{
		Index: i, Home: s.Home, Name: s.Name, SetName: s.SetName, Kind: s.Kind.String(), Empty: s.Empty, Because: w.Because(i),
		Across: s.Complement(), Paints: []string{}, Mixing: []string{}, Ladder: []Rung{}, Schemes: []SchemeSlots{},
	}
	if s.Kind == wheel.Primary {
		out.Role = string(w.System.Kind.Roles()[s.Home/4])
	}
	if s.Empty {
		out.Parts = []Ingredient{}
		out.withoutVerdict()
		return out
	}
	out.Mixture, out.Mixing = v.step(s.Step), w.Mixing(i, w.Order)
	if graded {
		out.Drawn = v.drawn(&s.Mixture, v.Medium, v.Wet)
	}
	out.VerdictWords = w.Judged(i)
	out.Jump, out.Jumps = round(s.Jump, 4), s.Jumps
	out.Wet = colourOf(s.Mixture.AsPainted(v.Medium, true), v.Light)
	out.Dry = colourOf(s.Mixture.AsPainted(v.Medium, false), v.Light)
	out.Ladder = v.ladder(&s.Mixture)
	for _, p := range s.Parts {
		if p.Paint.Of == nil || p.Paint.Making != paint.Stirred {
			out.Paints = append(out.Paints, p.Paint.Code())
			continue
		}
		for _, of := range p.Paint.Of {
			out.Paints = append(out.Paints, of.Paint.Code())
		}
	}
	for _, scheme := range wheel.Schemes {
		out.Schemes = append(out.Schemes, SchemeSlots{string(scheme.Scheme), w.SchemeSlots(i, scheme.Scheme)})
	}
	role := w.System.Kind.Roles()[s.Home/4]
	switch {
	case s.Kind == wheel.Primary:
		out.Lean = leanIn(s.Parts[0].Paint, role)
		for _, h := range s.Halves {
			p := h.Parts[0].Paint
			half := Half{Paint: p.ID, Name: p.Name, Mixture: v.step(h), Lean: leanIn(p, role)}
			if graded {
				half.Drawn = v.drawn(&h.Mixture, v.Medium, v.Wet)
			}
			out.Halves = append(out.Halves, half)
		}
	case w.SectionOf(i).Path.Indistinguishable():
		out.withoutVerdict()
	}
	if s.Kind == wheel.Secondary {
		for _, p := range w.SectionOf(i).Others {
			out.OtherPairings = append(out.OtherPairings, OtherPairing{p.A.ID, p.B.ID, v.step(p.Middle), ruleWord(&p)})
		}
	}
	return out
}

// drawnSteps are what a graded slot's fade is sent in.
const drawnSteps = 8

// drawn is a mixture as painted in a graded slot, from the rim to the tip.
func (v View) drawn(m *paint.Mixture, in paint.Medium, wet bool) (out []Shown) {
	r := bench.Region{Graded: true}
	for n := range drawnSteps + 1 {
		look := r.GradedAt(m, in, wet, float64(n)/drawnSteps)
		out = append(out, shown(look.OKLab(v.Light)))
	}
	return out
}

func ruleWord(p *path.Pairing) string {
	if r, ok := p.Rule(); ok {
		return r.Rating
	}
	return "none"
}

func (v View) rings(w *wheel.Wheel, i int, c wheel.Choices) *SlotRings {
	if w.Slots[i].Empty || !c.Wash && !c.Highlight && c.Tints == 0 && c.Shades == 0 {
		return nil
	}
	out := &SlotRings{}
	for _, rung := range w.Tints(i, c.Tints, w.TintBy) {
		out.Tints = append(out.Tints, v.ringRung(&rung))
	}
	for _, rung := range w.Shades(i, c.Shades, w.ShadeBy) {
		out.Shades = append(out.Shades, v.ringRung(&rung))
	}
	if c.Wash {
		s := w.Slots[i].Mixture.Wash()
		wash := shown(s.OKLab(v.Light))
		out.Wash = &wash
	}
	if c.Highlight {
		if high, low, ok := w.Triple(i, w.ShadeBy); ok {
			h, l := v.ringRung(&high), v.ringRung(&low)
			out.Highlight, out.Shadow = &h, &l
		}
	}
	return out
}

func (v View) ringRung(r *wheel.RingRung) RingRung {
	s := r.Appearance(v.Medium, v.Wet)
	return RingRung{Shown: shown(s.OKLab(v.Light)), With: r.With, Parts: v.Recipe(r.Parts), MassL: round(r.L, 1), Reached: r.Reached, HueWord: r.Mixture.Undertone().HueWord()}
}

func (v View) neutral(w *wheel.Wheel, i int) (Neutral, bool) {
	a, b := w.SlotPaint(i), w.SlotPaint(i+6)
	if a == nil || b == nil {
		return Neutral{}, false
	}
	return v.balance(wheel.BalanceOf(a, b, v.Medium), i, i+6), true
}

func (v View) balance(b wheel.Balance, i, j int) Neutral {
	return Neutral{
		A: i, B: j, Parts: v.Recipe(b.Parts), Lab: [3]float64{round(b.Lab.L, 2), round(b.Lab.A, 2), round(b.Lab.B, 2)},
		Chroma: round(b.Lab.Chroma(), 2), HueWord: b.HueWord, Neutral: b.Neutral(), Words: b.Lab.OKLab().Words(), Says: b.Says, Shown: v.painted(&b.Mixture),
	}
}

// band is a path for drawing, in at most so many points; 0 for all.
func band(p *path.Path, spacing path.Spacing, most int) []BandPoint {
	reached := p.Reached(spacing) // where the hue runs back for a while, the drawing waits
	out := []BandPoint{}
	for i, s := range p.Samples {
		if last := len(p.Samples) - 1; most > 0 && i > 0 && i < last && s.Arc*float64(most-1) < float64(len(out))*p.Length() {
			continue
		}
		out = append(out, BandPoint{
			At: round(reached[i], 4), Undertone: shown(s.Under.Colour), Retention: round(s.Under.Retention, 4),
			Verdict: s.Under.Verdict.String(), HueWord: s.Under.HueWord(),
		})
	}
	return out
}

// Complements are what becomes of two colours that are mixed to grey.
type Complements struct {
	Conditions
	A         Paint      `json:"a"`
	B         Paint      `json:"b"`
	Balance   Neutral    `json:"balance"`
	Intensity []RingRung `json:"intensity" doc:"from the first through the balance to the second"`
}

// Complements shapes two paints that cancel each other, in n steps (5 or 7).
func (v View) Complements(b wheel.Balance, n int, atHand []*paint.Paint) Complements {
	pair := v.balance(b, 0, 0)
	pair.Neutraliser = v.neutraliser(&b, atHand)
	return Complements{Conditions: v.conditions(), A: v.Paint(b.A), B: v.Paint(b.B), Balance: pair, Intensity: v.scale(&b, n)}
}

func (v View) scale(b *wheel.Balance, n int) []RingRung {
	var out []RingRung
	for _, r := range b.Intensity(n) {
		out = append(out, v.ringRung(&r))
	}
	return out
}
