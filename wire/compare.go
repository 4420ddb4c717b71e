package wire

import (
	"gyrophane/core/certainty"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// Comparison is systems laid beside each other on the same footing.
type Comparison struct {
	Conditions
	Clean       float64     `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
	Soft        float64     `json:"softenedFrom"`
	Hues        []string    `json:"hues" doc:"the word for each of the 72 bins"`
	Systems     []Compared  `json:"systems"`
	Decides     string      `json:"decides" doc:"which reaches furthest, and with how many tubes, in a sentence"`
	Differences []Differing `json:"differences" doc:"of every two"`
}

// Compared is one of the systems.
type Compared struct {
	Name           string         `json:"name"`
	Kind           string         `json:"kind"`
	Paints         []PaintSummary `json:"paints" doc:"in the order of the wheel"`
	CleanCoverage  float64        `json:"cleanCoverage" doc:"share of the painter's circle reached cleanly, 0 to 1"`
	SoftCoverage   float64        `json:"softCoverage" doc:"reached clean or softened"`
	VividCoverage  float64        `json:"vividCoverage" doc:"reached at 0.90 of the possible or more"`
	MeanBrightness float64        `json:"meanBrightness" doc:"mean reach over the circle, 0 to 1"`
	CleanDeviation float64        `json:"cleanDeviation" doc:"standard deviation of the clean coverage, for tubes as they differ"`
	MeanDeviation  float64        `json:"meanDeviation" doc:"standard deviation of the mean brightness"`
	ReachDeviation []float64      `json:"reachDeviation" doc:"standard deviation of each bin's reach"`
	WidestGap      WidestGap      `json:"widestGap" doc:"the longest run that is not clean"`
	Reach          []float64      `json:"reach" doc:"of the possible chroma, at the middle of each of 72 bins of 5 degrees of wheel hue"`
	Verdicts       []string       `json:"verdicts" doc:"of each bin: clean, softened or muddy"`
	Shades         []Shown        `json:"shades" doc:"a colour for each bin, for drawing; with an empty srgb where nothing is reached"`
	Evenness       float64        `json:"evenness" doc:"the median jump over the largest, 0 to 1"`
	Jumps          int            `json:"jumps" doc:"steps that jump"`
	Darkest        Dark           `json:"darkest"`
	Middles        float64        `json:"complementMiddles" doc:"mean C*ab of the greys that complements meet in"`
	Lamp           LampShift      `json:"lamp" doc:"the slot that changes most from daylight to a warm lamp"`
	Tubes          int            `json:"tubes"`
	Price          *float64       `json:"price" doc:"of its tubes; null where one is not known"`
	Cautions       []string       `json:"cautions"`
	Transparent    int            `json:"transparent" doc:"how many of its paints are"`
	Opaque         int            `json:"opaque"`
	Slots          []ComparedSlot `json:"slots" doc:"by name, clockwise with the first role on top"`
	Says           string         `json:"says"`
}

// WidestGap is a run of wheel hue.
type WidestGap struct {
	Degrees float64 `json:"degrees"`
	From    string  `json:"from,omitempty" doc:"hue word; empty without a gap"`
	To      string  `json:"to,omitempty"`
}

// LampShift is a slot under another light.
type LampShift struct {
	Slot string  `json:"slot" doc:"empty where all are too dark to judge"`
	DE   float64 `json:"de00"`
}

func lampShift(w *wheel.Wheel, s reach.Shift) LampShift {
	if s.Slot < 0 {
		return LampShift{}
	}
	return LampShift{w.Slots[s.Slot].Name, round(s.DE, 2)}
}

// ComparedSlot is one step, to be laid beside the same step of another system.
type ComparedSlot struct {
	Name  string `json:"name"`
	Empty bool   `json:"empty"`
	Mixture
	// Alike are the steps of each system that stand nearest in hue.
	Alike []int `json:"alike" doc:"of each system, the index of the step nearest in wheel hue; -1 where it or the system has none"`
}

// Differing is where two systems differ.
type Differing struct {
	A     int      `json:"a" doc:"index of a system"`
	B     int      `json:"b"`
	First []BinRun `json:"first" doc:"where the first has the better verdict"`
	Other []BinRun `json:"second" doc:"where the second has"`
	// Brighter are where the verdict is the same.
	FirstBrighter []BinRun `json:"firstBrighter" doc:"where the verdict is the same and the first keeps at least 0.1 more of the possible"`
	OtherBrighter []BinRun `json:"secondBrighter" doc:"where the second does"`
	Close         []BinRun `json:"close" doc:"what is too close to call, of all these"`
	Clean         Call     `json:"cleanCoverage" doc:"of the first over the second"`
	Mean          Call     `json:"meanBrightness" doc:"of the first over the second"`
	Says          string   `json:"says"`
}

// Call is by how much one has more than another.
type Call struct {
	By        float64 `json:"by"`
	Deviation float64 `json:"deviation" doc:"standard deviation of that, for tubes as they differ"`
	Sure      string  `json:"sure" format:"sureness" doc:"that it has more, or less; either way: too close to call"`
}

func callOf(c certainty.Call) Call {
	return Call{round(c.By, 4), round(c.Deviation, 4), string(c.Sure)}
}

// BinRun is a stretch of bins, both ends in it; the second is over 71 where it
// runs on past 0 degrees.
type BinRun struct {
	From int `json:"from"`
	To   int `json:"to"`
}

func binRuns(runs []reach.HueRange) []BinRun {
	out := []BinRun{}
	for _, r := range runs {
		out = append(out, BinRun{r.From, r.To})
	}
	return out
}

// Comparison shapes systems side by side.
func (v View) Comparison(systems []reach.Compared) Comparison {
	var all []wheel.System
	for _, s := range systems {
		all = append(all, s.System)
	}
	sure := certainty.OfSystems(all, v.doubts())
	out := Comparison{Conditions: v.conditions(), Decides: sure.Decide(systems), Clean: paint.CleanFrom(), Soft: paint.SoftenedFrom(), Differences: []Differing{}}
	for bin := range reach.Bins {
		out.Hues = append(out.Hues, colour.HueWord(reach.Middle(bin)))
	}
	for i, s := range systems {
		one := v.compared(s)
		for home := range one.Slots {
			for _, other := range systems {
				one.Slots[home].Alike = append(one.Slots[home].Alike, other.NearestSlot(s.Wheel.At(home)))
			}
		}
		one.CleanDeviation, one.MeanDeviation = round(sure.Clean(i), 4), round(sure.Mean(i), 4)
		for _, d := range sure.Reach(i) {
			one.ReachDeviation = append(one.ReachDeviation, round(d, 4))
		}
		out.Systems = append(out.Systems, one)
		for j, before := range systems[:i] {
			d := sure.Difference(j, i, before.Reach, s.Reach)
			out.Differences = append(out.Differences, Differing{
				A: j, B: i, First: binRuns(d.First), Other: binRuns(d.Second), FirstBrighter: binRuns(d.FirstBrighter), OtherBrighter: binRuns(d.SecondBrighter), Close: binRuns(d.Close),
				Clean: callOf(sure.CleanBetween(j, i, before.Reach.Clean()-s.Reach.Clean())), Mean: callOf(sure.MeanBetween(j, i, before.Reach.Mean()-s.Reach.Mean())), Says: d.Sentence(before.Name, s.Name),
			})
		}
	}
	return out
}

func (v View) compared(s reach.Compared) Compared {
	w := s.Wheel
	gap := s.Reach.WidestGap()
	from, to := gap.Words()
	out := Compared{
		Name: s.Name, Kind: string(s.System.Kind), CleanCoverage: round(s.Reach.Clean(), 4), SoftCoverage: round(s.Reach.Soft(), 4), VividCoverage: round(s.Reach.Vivid(), 4), MeanBrightness: round(s.Reach.Mean(), 4), WidestGap: WidestGap{gap.Degrees, from, to},
		Evenness: round(s.Evenness, 3), Jumps: s.Jumps, Darkest: v.dark(s.Dark, w.System.Rider(wheel.BlackRider)), Middles: round(s.Middles, 2),
		Lamp: lampShift(w, s.Lamp), Cautions: []string{}, Price: s.Price, Says: s.Reach.Sentence(s.Name),
	}
	for bin, r := range s.Reach {
		out.Reach = append(out.Reach, round(r, 4))
		out.Verdicts = append(out.Verdicts, paint.VerdictAt(r).String())
		out.Shades = append(out.Shades, Shown{})
		if c := s.Shades[bin]; c != nil {
			out.Shades[bin] = shown(*c)
		}
	}
	paints := s.System.Paints()
	out.Tubes = len(paints)
	for _, p := range paints {
		out.Paints = append(out.Paints, v.summary(p))
		switch p.Hiding {
		case "transparent":
			out.Transparent++
		case "opaque":
			out.Opaque++
		}
	}
	for _, c := range paint.Cautions(paints) {
		out.Cautions = append(out.Cautions, c.Name)
	}
	for home := range 12 {
		slot := w.At(home)
		one := ComparedSlot{Name: slot.Name, Empty: slot.Empty}
		if !slot.Empty {
			one.Mixture = v.step(slot.Step)
		}
		out.Slots = append(out.Slots, one)
	}
	return out
}

// Wanted is a colour that a picture needs.
type Wanted struct {
	Name   string `json:"name" maxLength:"80"`
	Colour string `json:"colour" minLength:"3" maxLength:"60" doc:"#rrggbb, or CIELAB as L,a,b, as painted and dry"`
}

// WantedColour is a wanted colour beside what each system comes to.
type WantedColour struct {
	Name    string    `json:"name"`
	Want    Aimed     `json:"want"`
	Matches []Matched `json:"matches" doc:"of each system"`
	Least   float64   `json:"least" doc:"CIEDE2000 of the system that comes nearest"`
	Most    float64   `json:"most" doc:"CIEDE2000 of the one that misses by most"`
}

// Matched is the best recipe of a system for a wanted colour.
type Matched struct {
	Recipe   []Ingredient `json:"recipe" doc:"whole parts of at most 4 paints"`
	Lab      [3]float64   `json:"lab" doc:"as painted, dry, under daylight"`
	Shown    Shown        `json:"shown"`
	DE       float64      `json:"de00" doc:"CIEDE2000 under daylight"`
	DELamp   *float64     `json:"de00Lamp" doc:"under a warm lamp, against the smoothest spectrum of the wanted colour; null where no surface has it, or it is too dark to judge"`
	LampSays string       `json:"lampSays" doc:"the same in words"`
	Reached  bool         `json:"reached" doc:"near enough to pass for it"`
	Says     string       `json:"says" doc:"what to mix, or what is missing"`
	Mixing   []string     `json:"mixing" doc:"in order, how to mix the recipe"`
}

// Matches shapes wanted colours beside what each system comes to.
func (v View) Matches(wanted []reach.Wanted, matches []reach.TargetMatch) []WantedColour {
	out := []WantedColour{}
	for i, t := range matches {
		c := WantedColour{Name: wanted[i].Name, Want: *aimed(t.Want)}
		for n, m := range t.Matches {
			one := v.matched(t.Want, m)
			c.Matches = append(c.Matches, one)
			c.Most = max(c.Most, one.DE)
			if n == 0 || one.DE < c.Least {
				c.Least = one.DE
			}
		}
		out = append(out, c)
	}
	return out
}

func (v View) matched(want paint.Reading, m reach.Match) Matched {
	look := m.Mixture.AsPainted(v.Medium, false)
	out := Matched{
		Recipe: v.Recipe(m.Parts), Mixing: m.Parts.Mixing(), Lab: [3]float64{round(m.Lab.L, 2), round(m.Lab.A, 2), round(m.Lab.B, 2)}, Shown: shown(look.OKLab(v.Light)),
		DE: round(m.DE, 2), Reached: m.Reached(), Says: m.Sentence(want.Lab, v.Medium),
	}
	d, says, ok := m.UnderLamp(want, v.Medium)
	out.LampSays = says
	if ok {
		d = round(d, 2)
		out.DELamp = &d
	}
	return out
}

// WantedRow is one colour of a file of wanted colours, and what is wrong with it.
type WantedRow struct {
	Line    int    `json:"line"`
	Name    string `json:"name"`
	Colour  string `json:"colour,omitempty" doc:"as it can be wanted; empty where something is wrong"`
	Shown   *Shown `json:"shown,omitempty"`
	Problem string `json:"problem,omitempty"`
}

// WantedRowOf shapes a row of a file; lab is nil where something is wrong.
func WantedRowOf(line int, w reach.Wanted, lab *colour.Lab, problem string) WantedRow {
	out := WantedRow{Line: line, Name: w.Name, Colour: w.Colour, Problem: problem}
	if lab != nil {
		s := shown(lab.OKLab())
		out.Shown = &s
	}
	return out
}
