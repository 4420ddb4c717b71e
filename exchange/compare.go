package exchange

import (
	"fmt"
	"runtime"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// Named is a system with a name, and what its tubes cost where that is known.
type Named struct {
	Name   string
	System wheel.System
	Prices map[string]float64 // by paint
}

// MostCompared is how many systems are laid beside each other at most.
const MostCompared = 4

// Comparison is systems laid beside each other on the same footing.
type Comparison struct {
	Conditions
	Clean       float64     `json:"cleanFrom" doc:"the retention from which a mixture is clean"`
	Soft        float64     `json:"softenedFrom"`
	Hues        []string    `json:"hues" doc:"the word for each of the 72 bins"`
	Systems     []Compared  `json:"systems"`
	Differences []Differing `json:"differences" doc:"of every two"`
}

// Compared is one of the systems.
type Compared struct {
	Name          string         `json:"name"`
	Kind          string         `json:"kind"`
	Paints        []Shelved      `json:"paints" doc:"in the order of the wheel"`
	CleanCoverage float64        `json:"cleanCoverage" doc:"share of the painter's circle reached cleanly, 0 to 1"`
	SoftCoverage  float64        `json:"softCoverage" doc:"reached clean or softened"`
	WidestGap     WidestGap      `json:"widestGap" doc:"the longest run that is not clean"`
	Reach         []float64      `json:"reach" doc:"of the possible chroma, at the middle of each of 72 bins of 5 degrees of wheel hue"`
	Verdicts      []string       `json:"verdicts" doc:"of each bin: clean, softened or muddy"`
	Shades        []Shown        `json:"shades" doc:"a colour for each bin, for drawing; with an empty srgb where nothing is reached"`
	Evenness      float64        `json:"evenness" doc:"the median jump over the largest, 0 to 1"`
	Jumps         int            `json:"jumps" doc:"steps that jump"`
	Darkest       Dark           `json:"darkest"`
	Middles       float64        `json:"complementMiddles" doc:"mean C*ab of the greys that complements meet in"`
	Lamp          LampShift      `json:"lamp" doc:"the slot that changes most from daylight to a warm lamp"`
	Tubes         int            `json:"tubes"`
	Price         *float64       `json:"price" doc:"of its tubes; null where one is not known"`
	Cautions      []string       `json:"cautions"`
	Transparent   int            `json:"transparent" doc:"how many of its paints are"`
	Opaque        int            `json:"opaque"`
	Slots         []ComparedSlot `json:"slots" doc:"by name, clockwise with the first role on top"`
	Says          string         `json:"says"`
}

// Shelved is a paint of a system.
type Shelved struct {
	ID        string `json:"id"`
	Code      string `json:"code"`
	Name      string `json:"name"`
	Masstone  Shown  `json:"masstone"`
	Undertone Shown  `json:"undertone"`
}

// WidestGap is a run of wheel hue.
type WidestGap struct {
	Degrees float64 `json:"degrees"`
	From    string  `json:"from,omitempty" doc:"hue word; empty without a gap"`
	To      string  `json:"to,omitempty"`
}

// LampShift is a slot under another light.
type LampShift struct {
	Slot string  `json:"slot"`
	DE   float64 `json:"de00"`
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
	Says          string   `json:"says"`
}

// BinRun is a stretch of bins, both ends in it; the second is over 71 where it
// runs on past 0 degrees.
type BinRun struct {
	From int `json:"from"`
	To   int `json:"to"`
}

func binRuns(runs []reach.Run) []BinRun {
	out := []BinRun{}
	for _, r := range runs {
		out = append(out, BinRun{r.From, r.To})
	}
	return out
}

// Compare lays up to four systems beside each other.
func (v View) Compare(systems []Named) (Comparison, error) {
	if len(systems) == 0 || len(systems) > MostCompared {
		return Comparison{}, bad("one to %d systems are laid beside each other, not %d", MostCompared, len(systems))
	}
	out := Comparison{Conditions: v.conditions(), Clean: paint.CleanFrom(), Soft: paint.SoftenedFrom(), Differences: []Differing{}}
	for bin := range reach.Bins {
		out.Hues = append(out.Hues, colour.HueWord(reach.Middle(bin)))
	}
	var stand []reach.Standing
	for _, n := range systems {
		s := reach.Stand(n.System, v.Medium)
		stand = append(stand, s)
		out.Systems = append(out.Systems, v.compared(n, s))
	}
	for i, one := range out.Systems {
		for home := range one.Slots {
			for _, s := range stand {
				one.Slots[home].Alike = append(one.Slots[home].Alike, s.Alike(stand[i].Wheel.At(home)))
			}
		}
	}
	for j := range stand {
		for i := range j {
			d := reach.Differ(stand[i].Reach, stand[j].Reach)
			out.Differences = append(out.Differences, Differing{i, j, binRuns(d.First), binRuns(d.Second), binRuns(d.FirstBrighter), binRuns(d.SecondBrighter), d.Says(systems[i].Name, systems[j].Name)})
		}
	}
	return out, nil
}

func (v View) compared(n Named, s reach.Standing) Compared {
	w := s.Wheel
	out := Compared{
		Name: n.Name, Kind: string(n.System.Kind), CleanCoverage: round(s.Reach.Clean(), 4), SoftCoverage: round(s.Reach.Soft(), 4),
		Evenness: round(s.Evenness, 3), Jumps: s.Jumps, Darkest: v.dark(s.Dark, w.System.Rider(wheel.BlackRider)), Middles: round(s.Middles, 2),
		Lamp: LampShift{w.Slots[s.Lamp.Slot].Name, round(s.Lamp.DE, 2)}, Cautions: []string{},
	}
	if gap := s.Reach.WidestGap(); gap.Degrees > 0 {
		half := reach.Width / 2
		out.WidestGap = WidestGap{gap.Degrees, colour.HueWord(gap.From + half), colour.HueWord(gap.From + gap.Degrees - half)}
	}
	for bin, r := range s.Reach {
		out.Reach = append(out.Reach, round(r, 4))
		out.Verdicts = append(out.Verdicts, paint.VerdictAt(r).String())
		out.Shades = append(out.Shades, Shown{})
		if c := s.Shades[bin]; c != nil {
			out.Shades[bin] = shown(*c)
		}
	}
	paints := n.System.Paints()
	for _, p := range paints {
		out.Paints = append(out.Paints, v.shelved(p))
		switch p.Hiding {
		case "transparent":
			out.Transparent++
		case "opaque":
			out.Opaque++
		}
	}
	out.Price, out.Tubes = priceOf(paints, n.Prices), len(paints)
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
	out.Says = cleanWords(n.Name, s.Reach)
	return out
}

// priceOf is what tubes cost together; nil where one has no price.
func priceOf(paints []*paint.Paint, prices map[string]float64) *float64 {
	sum := 0.0
	for _, p := range paints {
		one, ok := prices[p.ID]
		if !ok {
			return nil
		}
		sum += one
	}
	return &sum
}

func (v View) shelved(p *paint.Paint) Shelved {
	m := p.Alone()
	mass := m.Masstone()
	return Shelved{p.ID, code(p), bias.ShortName(p), shown(mass.OKLab(v.Light)), ShownUndertone(p)}
}

// cleanWords is "The triad is clean from red to yellow, softened elsewhere."
func cleanWords(name string, r reach.Reach) string {
	rest := "softened elsewhere"
	if r.Soft() < 1 {
		rest = "softened or muddy elsewhere"
	}
	switch runs := r.CleanRuns(); {
	case r.Clean() == 1:
		return name + " is clean all the way round."
	case len(runs) == 0:
		return fmt.Sprintf("%s is clean nowhere for long, %s.", name, rest)
	default:
		return fmt.Sprintf("%s is clean %s, %s.", name, reach.Runs(runs), rest)
	}
}

// Wanted is a colour that a picture needs.
type Wanted struct {
	Name   string `json:"name" maxLength:"80"`
	Colour string `json:"colour" minLength:"3" maxLength:"60" doc:"#rrggbb, or CIELAB as L,a,b, as painted and dry"`
}

// MostWanted is how many colours are matched at once.
const MostWanted = 24

// DemoWanted are the colours that the panels of the made-up demo studio need.
var DemoWanted = []Wanted{
	{"starfish orange", "#f0662b"}, {"anemone red", "#c8203c"}, {"mussel violet", "#4f3d78"}, {"shallow-water turquoise", "#00a6b0"},
	{"sea-lettuce green", "#569c2e"}, {"kelp olive", "#6e6228"}, {"wet-stone grey", "#656e78"},
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
	Recipe  []Ingredient `json:"recipe" doc:"whole parts of at most 4 paints"`
	Lab     [3]float64   `json:"lab" doc:"as painted, dry, under daylight"`
	Shown   Shown        `json:"shown"`
	DE      float64      `json:"de00" doc:"CIEDE2000 under daylight"`
	DELamp  *float64     `json:"de00Lamp" doc:"under a warm lamp, against the smoothest spectrum of the wanted colour; null where no surface has it"`
	Reached bool         `json:"reached" doc:"near enough to pass for it"`
	Says    string       `json:"says" doc:"what to mix, or what is missing"`
	Mixing  []string     `json:"mixing" doc:"in order, how to mix the recipe"`
}

// CheckWanted says what is wrong with a wanted colour.
func CheckWanted(w Wanted) error {
	if _, err := text.Line("the name of a wanted colour", w.Name, longestNickname); err != nil {
		return sentence(err)
	}
	_, err := w.reading(View{})
	return err
}

// reading is a wanted colour as painted in the view's medium, dry.
func (w Wanted) reading(v View) (paint.Reading, error) {
	if v.Medium.ID == "" {
		v.Medium = paint.Media()[0]
	}
	name := w.Name
	if name == "" {
		name = "the wanted colour"
	}
	r, err := View{v.Medium, colour.D65, false}.ParseReading(w.Colour)
	if err != nil {
		return paint.Reading{}, bad("%s: %w", name, err)
	}
	return r.core(name)
}

func (v View) readings(wanted []Wanted) (out []paint.Reading, err error) {
	for _, w := range wanted {
		r, err := w.reading(v)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, nil
}

// Match finds the best recipe of each palette (paints with the white and black
// that ride along) for each wanted colour.
func (v View) Match(palettes [][]*paint.Paint, wanted []Wanted) ([]WantedColour, error) {
	if len(wanted) > MostWanted {
		return nil, bad("%d colours are more than are matched at once: give at most %d", len(wanted), MostWanted)
	}
	want, err := v.readings(wanted)
	if err != nil {
		return nil, err
	}
	out := []WantedColour{}
	for i, reading := range want {
		out = append(out, WantedColour{Name: wanted[i].Name, Want: *aimed(reading), Matches: make([]Matched, len(palettes))})
	}
	var workers errgroup.Group
	workers.SetLimit(runtime.GOMAXPROCS(0))
	for i := range want {
		for n := range palettes {
			workers.Go(func() (err error) {
				out[i].Matches[n], err = v.matched(palettes[n], want[i])
				return err
			})
		}
	}
	if err := workers.Wait(); err != nil {
		return nil, err
	}
	for i := range out {
		c := &out[i]
		for n, m := range c.Matches {
			c.Most = max(c.Most, m.DE)
			if n == 0 || m.DE < c.Least {
				c.Least = m.DE
			}
		}
	}
	return out, nil
}

func (v View) matched(paints []*paint.Paint, want paint.Reading) (Matched, error) {
	m, err := reach.Nearest(want.Lab, paints, v.Medium)
	if err != nil {
		return Matched{}, refused(err)
	}
	look := m.Mixture.AsPainted(v.Medium, false)
	out := Matched{
		Recipe: v.ingredients(m.Parts), Mixing: path.Mixing(m.Parts), Lab: [3]float64{round(m.Lab.L, 2), round(m.Lab.A, 2), round(m.Lab.B, 2)}, Shown: shown(look.OKLab(v.Light)),
		DE: round(m.DE, 2), Reached: m.DE <= reach.Passes,
	}
	if s, err := want.Reflectance(); err == nil {
		lamp := colour.A.White()
		d := round(colour.Difference(s.XYZ(colour.A).Lab(lamp), look.XYZ(colour.A).Lab(lamp)), 2)
		out.DELamp = &d
	}
	if out.Reached {
		out.Says = fmt.Sprintf("Mix %s.", saidOf(m.Parts))
		return out, nil
	}
	out.Says = fmt.Sprintf("It cannot be reached: the nearest is %s, and is %s.", saidOf(m.Parts), look.OKLab(colour.D65).Beside(want.Lab.OKLab()))
	return out, nil
}

// MixesFrom is what a system mixes a colour from: its paints, its white and its
// black.
func MixesFrom(s wheel.System) []*paint.Paint {
	return append(s.Paints(), s.Rider(wheel.WhiteRider), s.Rider(wheel.BlackRider))
}
